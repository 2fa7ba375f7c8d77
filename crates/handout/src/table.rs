//! The plan as a table: one row for each exercise of each session of each week.

use crate::words::{per_set, tempo};
use crate::{Handout, HandoutError};
use casefile::{ItemEntry, csv_cell};
use plan::SidePlan;

const COLUMNS: [&str; 27] = [
    "week",
    "date",
    "day",
    "session",
    "order",
    "exercise",
    "name",
    "region",
    "sets",
    "reps_low",
    "reps_high",
    "seconds_low",
    "seconds_high",
    "reserve",
    "rest_s",
    "sides",
    "extra_sets_weaker",
    "scheme",
    "lighter_week",
    "warm_up",
    "group",
    "tempo_s",
    "load_kg",
    "variant",
    "set_up",
    "per_set",
    "note",
];

/// The plan as CSV (RFC 4180), UTF-8, with a header. Units are in the names of the columns.
///
/// # Errors
/// [`HandoutError::Calendar`] when a week lies outside the calendar.
pub fn table(handout: &Handout) -> Result<String, HandoutError> {
    let mut writer = csv::Writer::from_writer(Vec::new());
    let failed = |error: &dyn std::fmt::Display| HandoutError::Table(error.to_string());
    writer.write_record(COLUMNS).map_err(|error| failed(&error))?;
    for week in handout.weeks() {
        for (session, planned) in handout.plan.sessions.iter().enumerate() {
            let date = handout.date(week, planned.day)?.to_string();
            let lighter = handout.plan.weeks.iter().any(|w| w.number == week && w.lighter);
            for item in handout.plan.items(week, session) {
                let when = [week.to_string(), date.clone(), planned.day.to_string()];
                let row = row(&item, when, session, lighter);
                writer.write_record(row).map_err(|error| failed(&error))?;
            }
        }
    }
    let bytes = writer.into_inner().map_err(|error| failed(&error))?;
    String::from_utf8(bytes).map_err(|error| failed(&error))
}

fn row(item: &ItemEntry, [week, date, day]: [String; 3], session: usize, lighter: bool) -> Vec<String> {
    let range = |range: Option<[u16; 2]>, end: usize| range.map_or_else(String::new, |range| range[end].to_string());
    let sides = match item.sides {
        SidePlan::Both => "both",
        SidePlan::LeftFirst => "left-first",
        SidePlan::RightFirst => "right-first",
    };
    let numbers: Vec<String> = item.set_up.iter().map(|(name, value)| format!("{name}={value}")).collect();
    vec![
        week,
        date,
        day,
        (session + 1).to_string(),
        item.order.to_string(),
        item.exercise.to_string(),
        csv_cell(&item.name).into_owned(),
        item.region.to_string(),
        item.sets.to_string(),
        range(item.reps, 0),
        range(item.reps, 1),
        range(item.seconds, 0),
        range(item.seconds, 1),
        item.reserve.to_string(),
        item.rest_s.to_string(),
        sides.to_owned(),
        item.extra_sets_weaker.to_string(),
        item.scheme.clone(),
        lighter.to_string(),
        csv_cell(item.warm_up.as_deref().unwrap_or_default()).into_owned(),
        item.group.clone().unwrap_or_default(),
        tempo(item).unwrap_or_default(),
        item.load_kg.map_or_else(String::new, |kg| kg.to_string()),
        item.variant.clone().unwrap_or_default(),
        csv_cell(&numbers.join(" ")).into_owned(),
        csv_cell(&per_set(item)).into_owned(),
        csv_cell(item.note.as_deref().unwrap_or_default()).into_owned(),
    ]
}
