//! The tape sheet of a round.

use crate::connection::{Connection, Store};
use crate::error::StoreError;
use crate::folds;
use crate::rounds::{RoundRecord, find};
use crate::schema::{round, tape_reading};
use assess::{Skinfolds, TapeMeasure};
use diesel::prelude::*;
use jiff::Timestamp;
use std::collections::{BTreeMap, HashMap};
use units::{Length, Mass, RoundId, Side, SiteId};

/// A sheet to be saved.
#[derive(Clone, Debug)]
pub struct SavedTape<'a> {
    /// The revision the sheet was read at.
    pub revision: i32,
    /// Who saves it, for whoever is told of a conflict.
    pub saved_by: &'a str,
    /// Who held the tape.
    pub measured_by: &'a str,
    /// Body mass.
    pub weight: Option<Mass>,
    /// The readings of tape and gauge.
    pub measures: &'a [TapeMeasure],
    /// The readings of the calipers.
    pub folds: &'a [Skinfolds],
    /// How far from its bony point the tape lay.
    pub levels: &'a BTreeMap<SiteId, Length>,
}

#[derive(Queryable, Selectable)]
#[diesel(table_name = tape_reading)]
struct Row {
    round_id: String,
    site: String,
    side: String,
    value_cm: f64,
}

pub(crate) fn side_text(side: Option<Side>) -> &'static str {
    side.map_or("", Side::as_str)
}

pub(crate) fn parse_side(text: &str) -> Result<Option<Side>, String> {
    match text {
        "" => Ok(None),
        "left" => Ok(Some(Side::Left)),
        "right" => Ok(Some(Side::Right)),
        other => Err(format!("{other:?} is no side")),
    }
}

/// Readings of rounds by round id, by site and side in the order of the reading.
pub(crate) fn load_many(
    connection: &mut Connection,
    round_ids: &[RoundId],
) -> Result<HashMap<RoundId, Vec<TapeMeasure>>, StoreError> {
    let rows: Vec<Row> = tape_reading::table
        .filter(tape_reading::round_id.eq_any(round_ids.iter().map(RoundId::as_str)))
        .order((tape_reading::round_id, tape_reading::site, tape_reading::side, tape_reading::ordinal))
        .select(Row::as_select())
        .load(connection)?;
    let mut rounds: HashMap<RoundId, Vec<TapeMeasure>> = HashMap::new();
    for row in rows {
        let corrupt = |why: String| StoreError::corrupt("tape reading of round", &row.round_id, why);
        let site = row.site.parse().map_err(|error: units::IdError| corrupt(error.to_string()))?;
        let side = parse_side(&row.side).map_err(corrupt)?;
        let reading = Length::from_cm(row.value_cm).map_err(|error| corrupt(error.to_string()))?;
        let measures = rounds.entry(row.round_id.into()).or_default();
        match measures.last_mut() {
            Some(last) if last.site == site && last.side == side => last.readings.push(reading),
            _ => measures.push(TapeMeasure { site, side, readings: vec![reading] }),
        }
    }
    Ok(rounds)
}

impl Store {
    /// The readings of a round.
    pub fn tape(&self, round_id: &RoundId) -> Result<Vec<TapeMeasure>, StoreError> {
        let mut rounds = load_many(&mut self.connect()?, &[round_id.to_owned()])?;
        Ok(rounds.remove(round_id).unwrap_or_default())
    }

    /// Saves a sheet whole.
    ///
    /// # Errors
    /// [`StoreError::Stale`] when it was saved by someone else since it was read; nothing is overwritten.
    pub fn save_tape(&self, round_id: &RoundId, sheet: &SavedTape) -> Result<RoundRecord, StoreError> {
        let mut connection = self.connect()?;
        connection.immediate_transaction(|connection| {
            let found: Option<(i32, Option<String>)> = round::table
                .find(round_id.as_str())
                .select((round::tape_revision, round::tape_saved_by))
                .first(connection)
                .optional()?;
            let (current, saved_by) = found.ok_or_else(|| StoreError::not_found("round", round_id))?;
            if current != sheet.revision {
                return Err(StoreError::Stale { what: "this tape sheet", current, saved_by });
            }
            write(connection, round_id, sheet)
        })?;
        find(&mut connection, round_id)
    }
}

fn write(connection: &mut SqliteConnection, round_id: &RoundId, sheet: &SavedTape) -> Result<(), StoreError> {
    diesel::delete(tape_reading::table.filter(tape_reading::round_id.eq(round_id.as_str()))).execute(connection)?;
    let mut rows = Vec::new();
    for measure in sheet.measures {
        for (ordinal, reading) in (0_i32..).zip(&measure.readings) {
            rows.push((
                tape_reading::round_id.eq(round_id.as_str()),
                tape_reading::site.eq(measure.site.as_str()),
                tape_reading::side.eq(side_text(measure.side)),
                tape_reading::ordinal.eq(ordinal),
                tape_reading::value_cm.eq(reading.cm()),
            ));
        }
    }
    diesel::insert_into(tape_reading::table).values(rows).execute(connection)?;
    folds::write(connection, round_id, sheet.folds, sheet.levels)?;
    diesel::update(round::table.find(round_id.as_str()))
        .set((
            round::weight_kg.eq(sheet.weight.map(Mass::kg)),
            round::tape_revision.eq(sheet.revision + 1),
            round::tape_saved_by.eq(sheet.saved_by),
            round::tape_saved_at.eq(Timestamp::now().to_string()),
            round::measured_by.eq(sheet.measured_by),
        ))
        .execute(connection)?;
    Ok(())
}
