//! Skinfolds and tape levels of a round; saved with the tape sheet they stand on.

use crate::connection::Connection;
use crate::error::StoreError;
use crate::schema::{skinfold_reading, tape_level};
use crate::tape::{parse_side, side_text};
use assess::Skinfolds;
use diesel::prelude::*;
use std::collections::{BTreeMap, HashMap};
use units::{IdError, Length, RoundId, SiteId, Skinfold};

#[derive(Queryable, Selectable)]
#[diesel(table_name = skinfold_reading)]
struct Row {
    round_id: String,
    site: String,
    side: String,
    value_mm: f64,
}

/// Skinfolds of rounds by round id.
pub(crate) fn load_many(
    connection: &mut Connection,
    round_ids: &[RoundId],
) -> Result<HashMap<RoundId, Vec<Skinfolds>>, StoreError> {
    let rows: Vec<Row> = skinfold_reading::table
        .filter(skinfold_reading::round_id.eq_any(round_ids.iter().map(RoundId::as_str)))
        .order((skinfold_reading::round_id, skinfold_reading::site, skinfold_reading::side, skinfold_reading::ordinal))
        .select(Row::as_select())
        .load(connection)?;
    let mut rounds: HashMap<RoundId, Vec<Skinfolds>> = HashMap::new();
    for row in rows {
        let corrupt = |why: String| StoreError::corrupt("skinfold of round", &row.round_id, why);
        let site: SiteId = row.site.parse().map_err(|error: IdError| corrupt(error.to_string()))?;
        let side = parse_side(&row.side).map_err(corrupt)?;
        let reading = Skinfold::from_mm(row.value_mm).map_err(|error| corrupt(error.to_string()))?;
        let folds = rounds.entry(row.round_id.into()).or_default();
        match folds.last_mut() {
            Some(last) if last.site == site && last.side == side => last.readings.push(reading),
            _ => folds.push(Skinfolds { site, side, readings: vec![reading] }),
        }
    }
    Ok(rounds)
}

/// Tape levels of rounds by round id.
pub(crate) fn load_levels(
    connection: &mut Connection,
    round_ids: &[RoundId],
) -> Result<HashMap<RoundId, BTreeMap<SiteId, Length>>, StoreError> {
    let rows: Vec<(String, String, f64)> = tape_level::table
        .filter(tape_level::round_id.eq_any(round_ids.iter().map(RoundId::as_str)))
        .select((tape_level::round_id, tape_level::site, tape_level::level_cm))
        .load(connection)?;
    let mut rounds: HashMap<RoundId, BTreeMap<SiteId, Length>> = HashMap::new();
    for (round_id, site, cm) in rows {
        let corrupt = |why: String| StoreError::corrupt("tape level of round", &round_id, why);
        let site: SiteId = site.parse().map_err(|error: IdError| corrupt(error.to_string()))?;
        let level = Length::from_cm(cm).map_err(|error| corrupt(error.to_string()))?;
        rounds.entry(RoundId::from(round_id.as_str())).or_default().insert(site, level);
    }
    Ok(rounds)
}

/// Replaces skinfolds and levels of a round.
pub(crate) fn write(
    connection: &mut SqliteConnection,
    round_id: &RoundId,
    folds: &[Skinfolds],
    levels: &BTreeMap<SiteId, Length>,
) -> Result<(), StoreError> {
    diesel::delete(skinfold_reading::table.filter(skinfold_reading::round_id.eq(round_id.as_str())))
        .execute(connection)?;
    diesel::delete(tape_level::table.filter(tape_level::round_id.eq(round_id.as_str()))).execute(connection)?;
    let readings = folds.iter().flat_map(|fold| (0_i32..).zip(&fold.readings).map(move |each| (fold, each)));
    let rows: Vec<_> = readings
        .map(|(fold, (ordinal, reading))| {
            (
                skinfold_reading::round_id.eq(round_id.as_str()),
                skinfold_reading::site.eq(fold.site.as_str()),
                skinfold_reading::side.eq(side_text(fold.side)),
                skinfold_reading::ordinal.eq(ordinal),
                skinfold_reading::value_mm.eq(reading.mm()),
            )
        })
        .collect();
    diesel::insert_into(skinfold_reading::table).values(rows).execute(connection)?;
    let rows: Vec<_> = levels
        .iter()
        .map(|(site, level)| {
            (
                tape_level::round_id.eq(round_id.as_str()),
                tape_level::site.eq(site.as_str()),
                tape_level::level_cm.eq(level.cm()),
            )
        })
        .collect();
    diesel::insert_into(tape_level::table).values(rows).execute(connection)?;
    Ok(())
}
