//! Sittings before made-up figures, and what was answered.

use crate::connection::{Connection, Store};
use crate::error::StoreError;
use crate::new_id;
use crate::ratings::{RatingKind, value};
use crate::schema::{eye_answer, eye_beside_girths, eye_sitting};
use assess::BesideGirths;
use diesel::prelude::*;
use diesel::result::DatabaseErrorKind;
use jiff::Timestamp;
use std::collections::{BTreeMap, HashMap};

/// A sitting.
#[derive(Clone, Debug, PartialEq)]
pub struct EyeSitting {
    /// Its id.
    pub id: String,
    /// What decides whom it shows.
    pub seed: u64,
    /// When it was begun.
    pub started_at: Timestamp,
    /// What was answered so far, in order.
    pub answers: Vec<EyeAnswer>,
}

/// An answer, with what was asked and what is true.
#[derive(Clone, Debug, PartialEq)]
pub struct EyeAnswer {
    /// Which showing of the sitting, from 0.
    pub place: usize,
    /// Which figure of the sitting.
    pub figure: usize,
    /// What was judged.
    pub kind: RatingKind,
    /// The tape's site of the part.
    pub site: String,
    /// Whether the figure was shown mirrored, for the second time.
    pub mirrored: bool,
    /// -2 to 2, of the figure itself; `None` when it could not be told.
    pub value: Option<i8>,
    /// The truth: % for left-right, SD for standing.
    pub truth: f64,
    /// When.
    pub answered_at: Timestamp,
}

#[derive(Queryable, Selectable)]
#[diesel(table_name = eye_sitting)]
struct SittingRow {
    id: String,
    seed: i64,
    started_at: String,
}

#[derive(Queryable, Selectable)]
#[diesel(table_name = eye_answer)]
struct AnswerRow {
    sitting_id: String,
    place: i32,
    figure: i32,
    kind: String,
    site: String,
    mirrored: bool,
    value: Option<i32>,
    truth: f64,
    answered_at: String,
}

fn corrupt(sitting_id: &str, why: impl Into<String>) -> StoreError {
    StoreError::corrupt("eye sitting", sitting_id, why.into())
}

fn moment(sitting_id: &str, text: &str) -> Result<Timestamp, StoreError> {
    text.parse().map_err(|_| corrupt(sitting_id, format!("{text:?} is no time")))
}

impl SittingRow {
    fn with(self, answers: Vec<EyeAnswer>) -> Result<EyeSitting, StoreError> {
        let started_at = moment(&self.id, &self.started_at)?;
        Ok(EyeSitting { id: self.id, seed: self.seed.cast_unsigned(), started_at, answers })
    }
}

impl TryFrom<AnswerRow> for EyeAnswer {
    type Error = StoreError;
    fn try_from(row: AnswerRow) -> Result<Self, StoreError> {
        let count = |number: i32| usize::try_from(number).map_err(|_| corrupt(&row.sitting_id, "a negative place"));
        Ok(Self {
            place: count(row.place)?,
            figure: count(row.figure)?,
            kind: RatingKind::parse(&row.kind).ok_or_else(|| corrupt(&row.sitting_id, "no kind of rating"))?,
            mirrored: row.mirrored,
            value: value(row.value),
            truth: row.truth,
            answered_at: moment(&row.sitting_id, &row.answered_at)?,
            site: row.site,
        })
    }
}

impl Store {
    /// Begins a sitting.
    pub fn start_eye_sitting(
        &self,
        account_id: &str,
        seed: u64,
        started_at: Timestamp,
    ) -> Result<EyeSitting, StoreError> {
        let id = new_id();
        diesel::insert_into(eye_sitting::table)
            .values((
                eye_sitting::id.eq(&id),
                eye_sitting::account_id.eq(account_id),
                eye_sitting::seed.eq(seed.cast_signed()),
                eye_sitting::started_at.eq(started_at.to_string()),
            ))
            .execute(&mut self.connect()?)?;
        Ok(EyeSitting { id, seed, started_at, answers: Vec::new() })
    }

    /// A coach's sittings, newest first.
    pub fn eye_sittings(&self, account_id: &str) -> Result<Vec<EyeSitting>, StoreError> {
        let mut connection = self.connect()?;
        let rows: Vec<SittingRow> = eye_sitting::table
            .filter(eye_sitting::account_id.eq(account_id))
            .order((eye_sitting::started_at.desc(), eye_sitting::id))
            .select(SittingRow::as_select())
            .load(&mut connection)?;
        let answered: Vec<AnswerRow> = eye_answer::table
            .inner_join(eye_sitting::table)
            .filter(eye_sitting::account_id.eq(account_id))
            .order((eye_answer::sitting_id, eye_answer::place))
            .select(AnswerRow::as_select())
            .load(&mut connection)?;
        let mut by_sitting: HashMap<String, Vec<EyeAnswer>> = HashMap::new();
        for row in answered {
            by_sitting.entry(row.sitting_id.clone()).or_default().push(row.try_into()?);
        }
        let with_its_own = |row: SittingRow| {
            let answers = by_sitting.remove(&row.id).unwrap_or_default();
            row.with(answers)
        };
        rows.into_iter().map(with_its_own).collect()
    }

    /// One of a coach's own sittings.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] when there is none, or it is somebody else's.
    pub fn eye_sitting(&self, account_id: &str, id: &str) -> Result<EyeSitting, StoreError> {
        let mut connection = self.connect()?;
        let row: Option<SittingRow> = eye_sitting::table
            .find(id)
            .filter(eye_sitting::account_id.eq(account_id))
            .select(SittingRow::as_select())
            .first(&mut connection)
            .optional()?;
        let row = row.ok_or_else(|| StoreError::not_found("sitting of yours", id))?;
        let answers: Vec<AnswerRow> = eye_answer::table
            .filter(eye_answer::sitting_id.eq(id))
            .order(eye_answer::place)
            .select(AnswerRow::as_select())
            .load(&mut connection)?;
        row.with(answers.into_iter().map(EyeAnswer::try_from).collect::<Result<_, _>>()?)
    }

    /// Keeps an answer.
    ///
    /// # Errors
    /// [`StoreError::Exists`] when this showing was answered already: its truth may have been told.
    pub fn save_eye_answer(&self, sitting_id: &str, answer: &EyeAnswer) -> Result<(), StoreError> {
        let count = |number: usize| i32::try_from(number).unwrap_or(i32::MAX);
        let inserted = diesel::insert_into(eye_answer::table)
            .values((
                eye_answer::sitting_id.eq(sitting_id),
                eye_answer::place.eq(count(answer.place)),
                eye_answer::figure.eq(count(answer.figure)),
                eye_answer::kind.eq(answer.kind.as_str()),
                eye_answer::site.eq(&answer.site),
                eye_answer::mirrored.eq(answer.mirrored),
                eye_answer::value.eq(answer.value.map(i32::from)),
                eye_answer::truth.eq(answer.truth),
                eye_answer::answered_at.eq(answer.answered_at.to_string()),
            ))
            .execute(&mut self.connect()?);
        match inserted {
            Err(diesel::result::Error::DatabaseError(DatabaseErrorKind::UniqueViolation, _)) => {
                Err(StoreError::Exists(format!("picture {} of this sitting was answered already", answer.place + 1)))
            }
            other => Ok(other.map(|_| ())?),
        }
    }
}

/// Raters with each pair of answers to the same figure, first and mirrored.
pub(crate) fn pairs(
    connection: &mut Connection,
    raters: &[String],
    kind: RatingKind,
) -> Result<Vec<(String, [i8; 2])>, StoreError> {
    let rows: Vec<(String, String, i32, Option<i32>)> = eye_answer::table
        .inner_join(eye_sitting::table)
        .filter(eye_sitting::account_id.eq_any(raters))
        .filter(eye_answer::kind.eq(kind.as_str()))
        .order((eye_answer::sitting_id, eye_answer::figure, eye_answer::place))
        .select((eye_sitting::account_id, eye_answer::sitting_id, eye_answer::figure, eye_answer::value))
        .load(connection)?;
    let twice = rows.windows(2).filter_map(|next| {
        let [(rater, sitting, figure, first), (_, same_sitting, same_figure, again)] = next else { return None };
        let same = (sitting, figure) == (same_sitting, same_figure);
        let pair = value(*first).zip(value(*again)).filter(|_| same)?;
        Some((rater.clone(), [pair.0, pair.1]))
    });
    Ok(twice.collect())
}

/// What raters answered before made-up figures beside the truth, by rater; a figure counts once.
pub(crate) fn truths(
    connection: &mut Connection,
    raters: &[String],
    kind: RatingKind,
) -> Result<HashMap<String, Vec<(i8, f64)>>, StoreError> {
    let rows: Vec<(String, Option<i32>, f64)> = eye_answer::table
        .inner_join(eye_sitting::table)
        .filter(eye_sitting::account_id.eq_any(raters))
        .filter(eye_answer::kind.eq(kind.as_str()))
        .filter(eye_answer::mirrored.eq(false))
        .order((eye_answer::sitting_id, eye_answer::place))
        .select((eye_sitting::account_id, eye_answer::value, eye_answer::truth))
        .load(connection)?;
    let mut truths: HashMap<String, Vec<(i8, f64)>> = HashMap::new();
    for (rater, answer, truth) in rows {
        if let Some(answer) = value(answer) {
            truths.entry(rater).or_default().push((answer, truth));
        }
    }
    Ok(truths)
}

impl Store {
    /// What raters' standings say beside the tape, as it was last worked out.
    pub fn eye_beside_girths(&self, rater: &str) -> Result<BesideGirths, StoreError> {
        Ok(beside_girths(&mut self.connect()?, &[rater.to_owned()])?.remove(rater).unwrap_or_default())
    }

    /// Keeps what raters' standings say beside the tape, in place of what was kept before.
    pub fn keep_eyes_beside_girths(&self, eyes: &BTreeMap<String, BesideGirths>) -> Result<(), StoreError> {
        self.connect()?.immediate_transaction(|connection| {
            diesel::delete(eye_beside_girths::table).execute(connection)?;
            for (rater, eye) in eyes.iter().filter(|(_, eye)| eye.girths > 0) {
                let girths = i32::try_from(eye.girths).unwrap_or(i32::MAX);
                diesel::insert_into(eye_beside_girths::table)
                    .values((
                        eye_beside_girths::account_id.eq(rater),
                        eye_beside_girths::girths.eq(girths),
                        eye_beside_girths::weight.eq(eye.weight),
                        eye_beside_girths::variance.eq(eye.variance),
                    ))
                    .execute(connection)?;
            }
            Ok(())
        })
    }
}

/// By rater; those of whom nothing is known are left out.
pub(crate) fn beside_girths(
    connection: &mut Connection,
    raters: &[String],
) -> Result<HashMap<String, BesideGirths>, StoreError> {
    let rows: Vec<(String, i32, f64, f64)> =
        eye_beside_girths::table.filter(eye_beside_girths::account_id.eq_any(raters)).load(connection)?;
    let eye = |girths: i32, weight, variance| BesideGirths {
        girths: usize::try_from(girths).unwrap_or_default(),
        weight,
        variance,
    };
    Ok(rows.into_iter().map(|(rater, girths, weight, variance)| (rater, eye(girths, weight, variance))).collect())
}
