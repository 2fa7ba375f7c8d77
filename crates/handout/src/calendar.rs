//! The sessions as calendar entries (RFC 5545), one a training day, all day long: the client knows the hour.

use crate::words::{load, place, set_up, work};
use crate::{Handout, HandoutError};
use icalendar::{Calendar, Component, Event, Property};
use jiff::civil::Date;
use plan::weekday_name;
use std::fmt::Write;

/// A date as the format writes it.
fn basic(date: Date) -> String {
    format!("{:04}{:02}{:02}", date.year(), date.month(), date.day())
}

/// The calendar of a plan: every session of every week.
///
/// # Errors
/// [`HandoutError::Calendar`] when a week lies outside the calendar.
pub fn calendar(handout: &Handout) -> Result<String, HandoutError> {
    let mut calendar = Calendar::empty();
    for (name, value) in [("VERSION", "2.0"), ("PRODID", "-//Orthomer//Training plan//EN"), ("CALSCALE", "GREGORIAN")] {
        calendar.append_property(Property::new(name, value));
    }
    calendar.name(&format!("Training of {}", handout.client_name));
    for week in handout.weeks() {
        for session in 0..handout.plan.sessions.len() {
            if !handout.plan.sessions[session].items.is_empty() {
                calendar.push(event(handout, week, session)?);
            }
        }
    }
    Ok(calendar.done().to_string())
}

fn event(handout: &Handout, week: u8, session: usize) -> Result<Event, HandoutError> {
    let planned = &handout.plan.sessions[session];
    let date = handout.date(week, planned.day)?;
    let next = date.tomorrow().map_err(|_| HandoutError::Calendar { week, starts_on: handout.starts_on })?;
    let mut says = String::new();
    let items = handout.plan.items(week, session);
    for (at, item) in items.iter().enumerate() {
        let _ = write!(says, "{}. {}: {} x {}", place(&items, at), item.name, item.sets, work(item));
        let beside = [
            item.load_kg.map(|kg| load(handout.measures, kg)),
            Some(set_up(handout.atlas, handout.measures, item)),
            item.note.clone(),
        ];
        for one in beside.into_iter().flatten().filter(|one| !one.is_empty()) {
            let _ = write!(says, "; {one}");
        }
        says.push('\n');
    }
    let lighter = handout.plan.weeks.iter().any(|w| w.number == week && w.lighter);
    let note = if lighter { ", lighter week" } else { "" };
    let home = if planned.home { " at home" } else { "" };
    let mut event = Event::new();
    event
        .uid(&format!("{}-{week}-{session}@orthomer", handout.id))
        // A fixed stamp: the same plan gives the same bytes.
        .append_property(Property::new("DTSTAMP", format!("{}T000000Z", basic(handout.issued_on))))
        .append_property(Property::new("DTSTART", basic(date)).add_parameter("VALUE", "DATE").done())
        .append_property(Property::new("DTEND", basic(next)).add_parameter("VALUE", "DATE").done())
        .summary(&format!(
            "Training{home}: {} ({:.0} min), week {week}{note}",
            weekday_name(planned.day),
            planned.minutes
        ))
        .description(says.trim_end());
    Ok(event.done())
}
