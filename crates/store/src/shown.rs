//! What a round's pictures show together, kept beside them: outlines and girths, made anew whenever one of them changes.

use crate::connection::Connection;
use crate::error::StoreError;
use crate::photos::{counting, of_round};
use crate::schema::{outline, picture_girth};
use crate::tape::{parse_side, side_text};
use assess::{GirthFrom, Outline, PictureGirth, Segment};
use diesel::prelude::*;
use lighttable::{GirthShapes, Pictured, girths, outlines};
use std::collections::HashMap;
use units::{Length, Sides};

/// Makes the outlines and girths of a round anew from its pictures that count.
pub(crate) fn refresh_shown(connection: &mut SqliteConnection, round_id: &str) -> Result<(), StoreError> {
    let records = of_round(connection, round_id)?;
    let pictures: Vec<Pictured<'_>> = counting(&records)
        .into_iter()
        .filter_map(|record| Some(Pictured { photo: record.measured.as_ref()?, mirrored: record.mirrored }))
        .collect();
    diesel::delete(outline::table.filter(outline::round_id.eq(round_id))).execute(connection)?;
    let values: Vec<_> = outlines(&pictures)
        .iter()
        .map(|found| {
            (
                outline::round_id.eq(round_id),
                outline::segment.eq(found.segment.as_str()),
                outline::left_width_cm.eq(found.width.left.cm()),
                outline::right_width_cm.eq(found.width.right.cm()),
            )
        })
        .collect();
    diesel::insert_into(outline::table).values(values).execute(connection)?;
    keep_girths(connection, round_id, &pictures)
}

fn keep_girths(connection: &mut SqliteConnection, round_id: &str, pictures: &[Pictured<'_>]) -> Result<(), StoreError> {
    let shapes = GirthShapes::shipped().map_err(|error| StoreError::corrupt("program", "girths", error.to_string()))?;
    diesel::delete(picture_girth::table.filter(picture_girth::round_id.eq(round_id))).execute(connection)?;
    let found = girths(&shapes, pictures).girths;
    let values: Vec<_> = found
        .iter()
        .map(|girth| {
            (
                picture_girth::round_id.eq(round_id),
                picture_girth::site.eq(girth.site.as_str()),
                picture_girth::side.eq(side_text(girth.side)),
                picture_girth::cm.eq(girth.value.cm()),
                picture_girth::rests_on.eq(girth.from.as_str()),
            )
        })
        .collect();
    diesel::insert_into(picture_girth::table).values(values).execute(connection)?;
    Ok(())
}

/// Girths from pictures of rounds by round id.
pub(crate) fn load_girths(
    connection: &mut Connection,
    round_ids: &[String],
) -> Result<HashMap<String, Vec<PictureGirth>>, StoreError> {
    let rows: Vec<(String, String, String, f64, String)> = picture_girth::table
        .filter(picture_girth::round_id.eq_any(round_ids))
        .order((picture_girth::round_id, picture_girth::site, picture_girth::side))
        .load(connection)?;
    let mut rounds: HashMap<String, Vec<PictureGirth>> = HashMap::new();
    for (round_id, site, side, cm, rests_on) in rows {
        let corrupt = |why: String| StoreError::corrupt("girth from pictures of round", &round_id, why);
        let from = GirthFrom::ALL.into_iter().find(|known| known.as_str() == rests_on);
        let girth = PictureGirth {
            site: site.parse().map_err(|error: units::IdError| corrupt(error.to_string()))?,
            side: parse_side(&side).map_err(corrupt)?,
            value: Length::from_cm(cm).map_err(|error| corrupt(error.to_string()))?,
            from: from.ok_or_else(|| corrupt(format!("{rests_on:?} is nothing a girth rests on")))?,
        };
        rounds.entry(round_id.clone()).or_default().push(girth);
    }
    Ok(rounds)
}

/// Outlines of rounds by round id.
pub(crate) fn load_outlines(
    connection: &mut Connection,
    round_ids: &[String],
) -> Result<HashMap<String, Vec<Outline>>, StoreError> {
    let rows: Vec<(String, String, f64, f64)> = outline::table
        .filter(outline::round_id.eq_any(round_ids))
        .order((outline::round_id, outline::segment))
        .load(connection)?;
    let mut rounds: HashMap<String, Vec<Outline>> = HashMap::new();
    for (round_id, segment, left, right) in rows {
        let corrupt = |why: String| StoreError::corrupt("outline of round", &round_id, why);
        let known = Segment::ALL.into_iter().find(|known| known.as_str() == segment);
        let segment = known.ok_or_else(|| corrupt(format!("{segment:?} is no segment")))?;
        let width = |cm: f64| Length::from_cm(cm).map_err(|error| corrupt(error.to_string()));
        let width = Sides { left: width(left)?, right: width(right)? };
        rounds.entry(round_id.clone()).or_default().push(Outline { segment, width });
    }
    Ok(rounds)
}
