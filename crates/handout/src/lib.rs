//! What a client takes home: a given plan as PDF, as calendar and as CSV. Plain enough for a black-and-white printer.
//!
//! Made from a plan as it was given; decides nothing about training.

#![warn(clippy::missing_errors_doc)]

mod calendar;
mod page;
mod pdf;
mod table;
mod words;

pub use calendar::calendar;
pub use pdf::pdf;
pub use table::table;

use atlas::Atlas;
use casefile::PlanFile;
use jiff::ToSpan;
use jiff::civil::Date;
use std::collections::BTreeMap;
use units::{ExerciseId, Measures};

/// A plan as it was given.
#[derive(Clone, Copy, Debug)]
pub struct Handout<'a> {
    /// Random id of the plan.
    pub id: &'a str,
    /// Whose it is.
    pub client_name: &'a str,
    /// From 1, over all plans of the client.
    pub version: i32,
    /// The day it was given.
    pub issued_on: Date,
    /// Monday of its first week.
    pub starts_on: Date,
    /// The plan.
    pub plan: &'a PlanFile,
    /// Names and cues.
    pub atlas: &'a Atlas,
    /// What was reported of the form the last time, by exercise.
    pub reported: &'a BTreeMap<ExerciseId, Vec<String>>,
    /// Units of what is read; the table stays metric.
    pub measures: Measures,
}

/// Why a handout could not be made.
#[derive(Debug, thiserror::Error)]
pub enum HandoutError {
    /// A font that ships with the product is broken.
    #[error("the font {0} cannot be read")]
    Font(&'static str),
    /// The PDF could not be written.
    #[error("the PDF cannot be written: {0}")]
    Pdf(String),
    /// The table could not be written.
    #[error("the table cannot be written: {0}")]
    Table(String),
    /// A week lies outside the calendar.
    #[error("week {week} of a plan from {starts_on} lies outside the calendar")]
    Calendar {
        /// From 1.
        week: u8,
        /// Monday of the first week.
        starts_on: Date,
    },
}

impl Handout<'_> {
    /// The day of a session in a week of the block. `week` is from 1, `weekday` 1 on Monday.
    fn date(&self, week: u8, weekday: u8) -> Result<Date, HandoutError> {
        let days = 7 * (i64::from(week) - 1) + i64::from(weekday) - 1;
        let outside = |_| HandoutError::Calendar { week, starts_on: self.starts_on };
        self.starts_on.checked_add(days.days()).map_err(outside)
    }

    /// Numbers of the weeks, at least one.
    fn weeks(&self) -> Vec<u8> {
        let weeks: Vec<u8> = self.plan.weeks.iter().map(|week| week.number).collect();
        if weeks.is_empty() { vec![1] } else { weeks }
    }
}
