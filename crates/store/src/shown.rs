//! What a round's pictures show together, kept beside them: outlines and girths, made anew whenever one of them changes.

use crate::connection::{Connection, Store};
use crate::error::StoreError;
use crate::photos::{counting, of_round};
use crate::schema::{client_stamp, girth_constant, outline, picture_girth, round};
use crate::tape::{parse_side, side_text};
use assess::{GirthFrom, Outline, PictureGirth, PracticeConstant};
use diesel::prelude::*;
use lighttable::{GirthShapes, Pictured, girths, outlines};
use std::collections::{BTreeMap, HashMap};
use units::{Length, RoundId, Segment, Sides, SiteId};

/// Makes the outlines and girths of a round anew from its pictures that count.
pub(crate) fn refresh_shown(connection: &mut SqliteConnection, round_id: &RoundId) -> Result<(), StoreError> {
    let records = of_round(connection, round_id)?;
    let pictures: Vec<Pictured<'_>> = counting(&records)
        .into_iter()
        .filter_map(|record| Some(Pictured { photo: record.measured.as_ref()?, mirrored: record.mirrored }))
        .collect();
    diesel::delete(outline::table.filter(outline::round_id.eq(round_id.as_str()))).execute(connection)?;
    let values: Vec<_> = outlines(&pictures)
        .iter()
        .map(|found| {
            (
                outline::round_id.eq(round_id.as_str()),
                outline::segment.eq(found.segment.as_str()),
                outline::left_width_cm.eq(found.width.left.cm()),
                outline::right_width_cm.eq(found.width.right.cm()),
            )
        })
        .collect();
    diesel::insert_into(outline::table).values(values).execute(connection)?;
    keep_girths(connection, round_id, &pictures)
}

fn keep_girths(
    connection: &mut SqliteConnection,
    round_id: &RoundId,
    pictures: &[Pictured<'_>],
) -> Result<(), StoreError> {
    let shapes = GirthShapes::shipped().map_err(|error| StoreError::corrupt("program", "girths", error.to_string()))?;
    diesel::delete(picture_girth::table.filter(picture_girth::round_id.eq(round_id.as_str()))).execute(connection)?;
    let found = girths(&shapes, pictures).girths;
    let values: Vec<_> = found
        .iter()
        .map(|girth| {
            (
                picture_girth::round_id.eq(round_id.as_str()),
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

/// Girths from pictures of rounds by round id, by the constants that ship and what the practice's own pairs say of them.
pub(crate) fn load_girths(
    connection: &mut Connection,
    round_ids: &[RoundId],
    constants: &Constants,
) -> Result<HashMap<RoundId, Vec<PictureGirth>>, StoreError> {
    let rows: Vec<(String, String, String, f64, String)> = picture_girth::table
        .filter(picture_girth::round_id.eq_any(round_ids.iter().map(RoundId::as_str)))
        .order((picture_girth::round_id, picture_girth::site, picture_girth::side))
        .load(connection)?;
    let mut rounds: HashMap<RoundId, Vec<PictureGirth>> = HashMap::new();
    for (round_id, site, side, cm, rests_on) in rows {
        let corrupt = |why: String| StoreError::corrupt("girth from pictures of round", &round_id, why);
        let (site, from) = seen(&site, &rests_on).map_err(corrupt)?;
        let ln = constants.get(&(site.clone(), from)).map_or(0.0, |constant| constant.ln);
        let girth = PictureGirth {
            side: parse_side(&side).map_err(corrupt)?,
            value: Length::from_cm(cm * ln.exp()).map_err(|error| corrupt(error.to_string()))?,
            site,
            from,
        };
        rounds.entry(RoundId::from(round_id.as_str())).or_default().push(girth);
    }
    Ok(rounds)
}

fn seen(site: &str, rests_on: &str) -> Result<(SiteId, GirthFrom), String> {
    let from = GirthFrom::ALL.into_iter().find(|known| known.as_str() == rests_on);
    let from = from.ok_or_else(|| format!("{rests_on:?} is nothing a girth rests on"))?;
    Ok((site.parse().map_err(|error: units::IdError| error.to_string())?, from))
}

/// What the practice's pairs say, by site and by what the pictures showed.
pub type Constants = BTreeMap<(SiteId, GirthFrom), PracticeConstant>;

/// Differences smaller than this are none, as a share: nobody's verdict is to move by them every day.
const SAME: f64 = 5e-4;

pub(crate) fn load_constants(connection: &mut SqliteConnection) -> Result<Constants, StoreError> {
    let rows: Vec<(String, String, f64, i32, i32)> = girth_constant::table.load(connection)?;
    let constant = |(site, rests_on, ln, pairs, clients): (String, String, f64, i32, i32)| {
        let of = seen(&site, &rests_on).map_err(|why| StoreError::corrupt("constant of girths", &site, why))?;
        let count = |number: i32| usize::try_from(number).unwrap_or_default();
        Ok((of, PracticeConstant { ln, pairs: count(pairs), clients: count(clients) }))
    };
    rows.into_iter().map(constant).collect()
}

impl Store {
    /// What the practice's pairs of tape and pictures say of the shipped constants.
    pub fn girth_constants(&self) -> Result<Constants, StoreError> {
        let mut connection = self.connect()?;
        load_constants(&mut connection)
    }

    /// Keeps it: how many pairs there are always, what they say where it has moved. What is told of clients with pictures is worked
    /// out anew only then.
    pub fn keep_girth_constants(&self, learned: &Constants) -> Result<(), StoreError> {
        self.connect()?.immediate_transaction(|connection| {
            let known = load_constants(connection)?;
            let ln_of = |of| known.get(of).map_or(0.0, |known| known.ln);
            let has_moved = |of, ln: f64| (ln_of(of) - ln).abs() >= SAME;
            let gone = known.iter().any(|(of, known)| !learned.contains_key(of) && known.ln.abs() >= SAME);
            let moved = gone || learned.iter().any(|(of, constant)| has_moved(of, constant.ln));
            diesel::delete(girth_constant::table).execute(connection)?;
            for (of, constant) in learned {
                let ln = if has_moved(of, constant.ln) { constant.ln } else { ln_of(of) };
                let count = |number: usize| i32::try_from(number).unwrap_or(i32::MAX);
                diesel::insert_into(girth_constant::table)
                    .values((
                        girth_constant::site.eq(of.0.as_str()),
                        girth_constant::rests_on.eq(of.1.as_str()),
                        girth_constant::ln.eq(ln),
                        girth_constant::pairs.eq(count(constant.pairs)),
                        girth_constant::clients.eq(count(constant.clients)),
                    ))
                    .execute(connection)?;
            }
            if moved { restamp_pictured(connection) } else { Ok(()) }
        })
    }
}

/// Makes what was worked out of clients with pictures an old one.
fn restamp_pictured(connection: &mut SqliteConnection) -> Result<(), StoreError> {
    let rounds = picture_girth::table.select(picture_girth::round_id);
    let clients = round::table.filter(round::id.eq_any(rounds)).select(round::client_id);
    let clients: Vec<String> = clients.distinct().load(connection)?;
    diesel::update(client_stamp::table.filter(client_stamp::client_id.eq_any(clients)))
        .set(client_stamp::stamp.eq(client_stamp::stamp + 1))
        .execute(connection)?;
    Ok(())
}

/// Outlines of rounds by round id.
pub(crate) fn load_outlines(
    connection: &mut Connection,
    round_ids: &[RoundId],
) -> Result<HashMap<RoundId, Vec<Outline>>, StoreError> {
    let rows: Vec<(String, String, f64, f64)> = outline::table
        .filter(outline::round_id.eq_any(round_ids.iter().map(RoundId::as_str)))
        .order((outline::round_id, outline::segment))
        .load(connection)?;
    let mut rounds: HashMap<RoundId, Vec<Outline>> = HashMap::new();
    for (round_id, segment, left, right) in rows {
        let corrupt = |why: String| StoreError::corrupt("outline of round", &round_id, why);
        let known = Segment::ALL.into_iter().find(|known| known.as_str() == segment);
        let segment = known.ok_or_else(|| corrupt(format!("{segment:?} is no segment")))?;
        let width = |cm: f64| Length::from_cm(cm).map_err(|error| corrupt(error.to_string()));
        let width = Sides { left: width(left)?, right: width(right)? };
        rounds.entry(RoundId::from(round_id.as_str())).or_default().push(Outline { segment, width });
    }
    Ok(rounds)
}
