//! Judgements of pictures, and the same judgements given again blind.

use crate::connection::{Connection, Store};
use crate::error::StoreError;
use crate::eye;
use crate::schema::{rating, rating_repeat, round, tape_reading};
use assess::{BesideGirths, Rating, RatingJudgement};
use diesel::prelude::*;
use diesel::upsert::excluded;
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use std::collections::{BTreeMap, HashMap};
use units::{ClientId, PoseId, RegionId, RoundId};
use utoipa::ToSchema;

/// Which of the two things a rating judges.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum RatingKind {
    /// Against the rest of this physique: -2 clearly behind to 2 clearly ahead.
    Standing,
    /// Left against right: -2 right much larger to 2 left much larger.
    LeftRight,
}

impl RatingKind {
    pub(crate) fn as_str(self) -> &'static str {
        match self {
            Self::Standing => "standing",
            Self::LeftRight => "left-right",
        }
    }

    /// None where it is neither's word.
    pub(crate) fn parse(text: &str) -> Option<Self> {
        [Self::Standing, Self::LeftRight].into_iter().find(|kind| kind.as_str() == text)
    }

    fn judgement(self, value: i8) -> RatingJudgement {
        match self {
            Self::Standing => RatingJudgement::Standing(value),
            Self::LeftRight => RatingJudgement::LeftRight(value),
        }
    }
}

/// Where a rating stands.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct RatingPlace {
    /// The round.
    pub round_id: RoundId,
    /// The region.
    pub region: RegionId,
    /// The pose.
    pub pose: PoseId,
    /// What is judged.
    pub kind: RatingKind,
}

/// A rating as stored.
#[derive(Clone, Debug)]
pub struct RatingRecord {
    /// Where it stands.
    pub place: RatingPlace,
    /// -2 to 2; `None` when it could not be told.
    pub value: Option<i8>,
    /// The account that gave it.
    pub rated_by: String,
    /// When.
    pub rated_at: Timestamp,
    /// Whether this rater gave it again blind.
    pub repeated: bool,
}

#[derive(Queryable, Selectable)]
#[diesel(table_name = rating)]
struct Row {
    round_id: String,
    region: String,
    pose: String,
    kind: String,
    value: Option<i32>,
    rated_by: String,
    rated_at: String,
}

impl TryFrom<Row> for RatingRecord {
    type Error = StoreError;
    fn try_from(row: Row) -> Result<Self, StoreError> {
        let corrupt = |why: String| StoreError::corrupt("rating of round", &row.round_id, why);
        let region = row.region.parse().map_err(|error: units::IdError| corrupt(error.to_string()))?;
        let pose = row.pose.parse().map_err(|error: units::IdError| corrupt(error.to_string()))?;
        let kind =
            RatingKind::parse(&row.kind).ok_or_else(|| corrupt(format!("{:?} is no kind of rating", row.kind)))?;
        let rated_at = row.rated_at.parse().map_err(|_| corrupt(format!("{:?} is no time", row.rated_at)))?;
        Ok(Self {
            value: value(row.value),
            place: RatingPlace { round_id: row.round_id.into(), region, pose, kind },
            rated_by: row.rated_by,
            rated_at,
            repeated: false,
        })
    }
}

/// The table holds -2 to 2 only.
pub(crate) fn value(stored: Option<i32>) -> Option<i8> {
    stored.and_then(|value| i8::try_from(value).ok())
}

/// What raters gave to the regions of a round, by round and then by rater.
pub type RatedRounds = BTreeMap<RoundId, BTreeMap<String, Vec<(RegionId, i8)>>>;

impl Store {
    /// Gives a rating, or changes it. The time is passed in so that made-up practices can have a past.
    pub fn save_rating(
        &self,
        place: &RatingPlace,
        value: Option<i8>,
        rated_by: &str,
        rated_at: Timestamp,
    ) -> Result<(), StoreError> {
        self.round(&place.round_id)?;
        diesel::insert_into(rating::table)
            .values((
                rating::round_id.eq(place.round_id.as_str()),
                rating::region.eq(place.region.as_str()),
                rating::pose.eq(place.pose.as_str()),
                rating::kind.eq(place.kind.as_str()),
                rating::value.eq(value.map(i32::from)),
                rating::rated_by.eq(rated_by),
                rating::rated_at.eq(rated_at.to_string()),
            ))
            .on_conflict((rating::round_id, rating::region, rating::pose, rating::kind))
            .do_update()
            .set((
                rating::value.eq(excluded(rating::value)),
                rating::rated_by.eq(excluded(rating::rated_by)),
                rating::rated_at.eq(excluded(rating::rated_at)),
            ))
            .execute(&mut self.connect()?)?;
        Ok(())
    }

    /// Standings of every round that was taped, by round and rater: region and value, one for every pose it was judged in.
    pub fn standings_beside_tape(&self) -> Result<RatedRounds, StoreError> {
        let rows: Vec<Row> = rating::table
            .filter(rating::kind.eq(RatingKind::Standing.as_str()))
            .filter(rating::value.is_not_null())
            .filter(rating::round_id.eq_any(tape_reading::table.select(tape_reading::round_id)))
            .select(Row::as_select())
            .load(&mut self.connect()?)?;
        let mut found = RatedRounds::new();
        for row in rows {
            let record = RatingRecord::try_from(row)?;
            let Some(value) = record.value else { continue };
            let round = found.entry(record.place.round_id).or_default();
            round.entry(record.rated_by).or_default().push((record.place.region, value));
        }
        Ok(found)
    }

    /// Takes a rating back.
    pub fn delete_rating(&self, place: &RatingPlace) -> Result<(), StoreError> {
        let key = (place.round_id.as_str(), place.region.as_str(), place.pose.as_str(), place.kind.as_str());
        diesel::delete(rating::table.find(key)).execute(&mut self.connect()?)?;
        Ok(())
    }

    /// Whether anything of a round's pictures was judged.
    pub fn round_is_rated(&self, round_id: &RoundId) -> Result<bool, StoreError> {
        let found = rating::table.filter(rating::round_id.eq(round_id.as_str())).count();
        Ok(found.get_result::<i64>(&mut self.connect()?)? > 0)
    }

    /// A client's ratings, by round, region and pose; `rater` decides whose repeats are looked at.
    pub fn client_ratings(&self, client_id: &ClientId, rater: &str) -> Result<Vec<RatingRecord>, StoreError> {
        let mut connection = self.connect()?;
        let rows: Vec<Row> = rating::table
            .inner_join(round::table)
            .filter(round::client_id.eq(client_id.as_str()))
            .select(Row::as_select())
            .load(&mut connection)?;
        let repeated: Vec<(String, String, String, String)> = rating_repeat::table
            .inner_join(round::table)
            .filter(round::client_id.eq(client_id.as_str()))
            .filter(rating_repeat::rated_by.eq(rater))
            .select((rating_repeat::round_id, rating_repeat::region, rating_repeat::pose, rating_repeat::kind))
            .load(&mut connection)?;
        let records = rows.into_iter().map(|row| {
            let again = repeated.iter().any(|(round_id, region, pose, kind)| {
                (round_id, region, pose, kind) == (&row.round_id, &row.region, &row.pose, &row.kind)
            });
            RatingRecord::try_from(row).map(|record| RatingRecord { repeated: again, ..record })
        });
        records.collect()
    }

    /// Keeps the blind repeat of a rating; a second repeat of the same one replaces the first.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] when `rater` never gave this rating, or could not tell then.
    pub fn save_repeat(
        &self,
        place: &RatingPlace,
        again: Option<i8>,
        rater: &str,
        rated_at: Timestamp,
    ) -> Result<(), StoreError> {
        let mut connection = self.connect()?;
        let key = (place.round_id.as_str(), place.region.as_str(), place.pose.as_str(), place.kind.as_str());
        let first: Option<Option<i32>> = rating::table
            .find(key)
            .filter(rating::rated_by.eq(rater))
            .select(rating::value)
            .first(&mut connection)
            .optional()?;
        let first =
            first.flatten().ok_or_else(|| StoreError::not_found("rating of yours in round", &place.round_id))?;
        diesel::replace_into(rating_repeat::table)
            .values((
                rating_repeat::round_id.eq(place.round_id.as_str()),
                rating_repeat::region.eq(place.region.as_str()),
                rating_repeat::pose.eq(place.pose.as_str()),
                rating_repeat::kind.eq(place.kind.as_str()),
                rating_repeat::first_value.eq(first),
                rating_repeat::again_value.eq(again.map(i32::from)),
                rating_repeat::rated_by.eq(rater),
                rating_repeat::rated_at.eq(rated_at.to_string()),
            ))
            .execute(&mut connection)?;
        Ok(())
    }

    /// All pairs of first and repeated answers of a rater, of one kind, before pictures and before made-up figures; repeats that
    /// could not be told are left out.
    pub fn repeat_pairs(&self, rater: &str, kind: RatingKind) -> Result<Vec<[i8; 2]>, StoreError> {
        Ok(repeat_pairs(&mut self.connect()?, &[rater.to_owned()], kind)?.remove(rater).unwrap_or_default())
    }

    /// A rater's answers before made-up figures beside the truth, SD for standings, % for sides; those that could not be told, and
    /// figures shown again, are left out.
    pub fn truth_pairs(&self, rater: &str, kind: RatingKind) -> Result<Vec<(i8, f64)>, StoreError> {
        Ok(eye::truths(&mut self.connect()?, &[rater.to_owned()], kind)?.remove(rater).unwrap_or_default())
    }
}

fn repeat_pairs(
    connection: &mut Connection,
    raters: &[String],
    kind: RatingKind,
) -> Result<HashMap<String, Vec<[i8; 2]>>, StoreError> {
    let rows: Vec<(String, i32, Option<i32>)> = rating_repeat::table
        .filter(rating_repeat::rated_by.eq_any(raters))
        .filter(rating_repeat::kind.eq(kind.as_str()))
        .select((rating_repeat::rated_by, rating_repeat::first_value, rating_repeat::again_value))
        .load(connection)?;
    let mut pairs: HashMap<String, Vec<[i8; 2]>> = HashMap::new();
    for (rater, first, again) in rows {
        if let Some((first, again)) = value(Some(first)).zip(value(again)) {
            pairs.entry(rater).or_default().push([first, again]);
        }
    }
    for (rater, pair) in eye::pairs(connection, raters, kind)? {
        pairs.entry(rater).or_default().push(pair);
    }
    Ok(pairs)
}

/// Ratings of rounds by round id, each with its rater's own error as learned by `sd_steps` from the pairs of repeats and from
/// answers beside their truth, and from girths. What could not be told is no evidence.
pub(crate) fn load_many(
    connection: &mut Connection,
    round_ids: &[RoundId],
    sd_steps: impl Fn(&[[i8; 2]], &[(i8, f64)], &BesideGirths) -> f64,
) -> Result<HashMap<RoundId, Vec<Rating>>, StoreError> {
    let rows: Vec<Row> = rating::table
        .filter(rating::round_id.eq_any(round_ids.iter().map(RoundId::as_str)))
        .filter(rating::value.is_not_null())
        .order((rating::round_id, rating::region, rating::pose, rating::kind))
        .select(Row::as_select())
        .load(connection)?;
    let mut raters: Vec<String> = rows.iter().map(|row| row.rated_by.clone()).collect();
    raters.sort_unstable();
    raters.dedup();
    let mut pairs = repeat_pairs(connection, &raters, RatingKind::Standing)?;
    let mut truths = eye::truths(connection, &raters, RatingKind::Standing)?;
    let mut girths = eye::beside_girths(connection, &raters)?;
    let mut learned: HashMap<String, f64> = HashMap::new();
    for rater in raters {
        let (pairs, truths) = (pairs.remove(&rater).unwrap_or_default(), truths.remove(&rater).unwrap_or_default());
        let girths = girths.remove(&rater).unwrap_or_default();
        if !pairs.is_empty() || !truths.is_empty() || girths.girths > 0 {
            learned.insert(rater, sd_steps(&pairs, &truths, &girths));
        }
    }
    let mut rounds: HashMap<RoundId, Vec<Rating>> = HashMap::new();
    let mut sittings: HashMap<RoundId, Vec<String>> = HashMap::new();
    for row in rows {
        let record = RatingRecord::try_from(row)?;
        let Some(value) = record.value else { continue };
        let RatingPlace { round_id, region, pose, kind } = record.place;
        let rater_sd_steps = learned.get(&record.rated_by).copied().filter(|_| kind == RatingKind::Standing);
        let seated = sittings.entry(round_id.clone()).or_default();
        let sitting = sitting(seated, &record.rated_by);
        rounds.entry(round_id).or_default().push(Rating {
            region,
            pose,
            judgement: kind.judgement(value),
            rater_sd_steps,
            sitting,
        });
    }
    Ok(rounds)
}

/// What a rater's ratings of a round are told apart by: nothing while one rates alone, a number for each further one.
fn sitting(seated: &mut Vec<String>, rater: &str) -> String {
    let place = seated.iter().position(|other| other == rater).unwrap_or_else(|| {
        seated.push(rater.to_owned());
        seated.len() - 1
    });
    if place == 0 { String::new() } else { (place + 1).to_string() }
}
