//! Rounds of a client, and the case they make.

use crate::clients::ClientRecord;
use crate::connection::{Connection, Store};
use crate::error::StoreError;
use crate::schema::{client, round};
use crate::{choices, new_id, photos, ratings, tape};
use assess::{Case, Choices, Client, Outline, Rating, Round, TapeMeasure, rater_agreement};
use atlas::Atlas;
use diesel::prelude::*;
use jiff::Timestamp;
use jiff::civil::Date;
use std::collections::HashMap;
use units::Mass;

/// A round to be opened.
#[derive(Clone, Debug)]
pub struct NewRound {
    /// The day it is taken.
    pub taken_on: Date,
    /// Who holds the tape.
    pub measured_by: String,
    /// Body mass.
    pub weight: Option<Mass>,
}

/// A round as stored, without its readings.
#[derive(Clone, Debug)]
pub struct RoundRecord {
    /// Random id.
    pub id: String,
    /// Whose round it is.
    pub client_id: String,
    /// The day it was taken.
    pub taken_on: Date,
    /// Who held the tape.
    pub measured_by: String,
    /// Body mass.
    pub weight: Option<Mass>,
    /// Revision of the tape sheet.
    pub tape_revision: i32,
    /// Who saved the sheet last.
    pub tape_saved_by: Option<String>,
    /// Revision of the choices.
    pub choices_revision: i32,
}

#[derive(Queryable, Selectable)]
#[diesel(table_name = round)]
struct Row {
    id: String,
    client_id: String,
    taken_on: String,
    measured_by: String,
    weight_kg: Option<f64>,
    tape_revision: i32,
    tape_saved_by: Option<String>,
    choices_revision: i32,
}

impl TryFrom<Row> for RoundRecord {
    type Error = StoreError;
    fn try_from(row: Row) -> Result<Self, StoreError> {
        let corrupt = |why: String| StoreError::corrupt("round", &row.id, why);
        let taken_on = row.taken_on.parse().map_err(|_| corrupt(format!("{:?} is no date", row.taken_on)))?;
        let weight = row.weight_kg.map(Mass::from_kg).transpose().map_err(|error| corrupt(error.to_string()))?;
        Ok(Self {
            id: row.id,
            client_id: row.client_id,
            taken_on,
            measured_by: row.measured_by,
            weight,
            tape_revision: row.tape_revision,
            tape_saved_by: row.tape_saved_by,
            choices_revision: row.choices_revision,
        })
    }
}

impl Store {
    /// Opens a round.
    ///
    /// # Errors
    /// [`StoreError::Exists`] when the client has a round on that day.
    pub fn add_round(&self, client_id: &str, new: &NewRound) -> Result<RoundRecord, StoreError> {
        let id = new_id();
        self.connect()?.immediate_transaction(|connection| {
            let known: i64 = client::table.find(client_id).count().get_result(connection)?;
            if known == 0 {
                return Err(StoreError::not_found("client", client_id));
            }
            let same_day = round::table
                .filter(round::client_id.eq(client_id))
                .filter(round::taken_on.eq(new.taken_on.to_string()));
            if same_day.count().get_result::<i64>(connection)? > 0 {
                return Err(StoreError::Exists(format!("there is a round on {} already: open that one", new.taken_on)));
            }
            diesel::insert_into(round::table)
                .values((
                    round::id.eq(&id),
                    round::client_id.eq(client_id),
                    round::taken_on.eq(new.taken_on.to_string()),
                    round::measured_by.eq(&new.measured_by),
                    round::weight_kg.eq(new.weight.map(Mass::kg)),
                    round::tape_revision.eq(0),
                    round::choices_revision.eq(0),
                    round::created_at.eq(Timestamp::now().to_string()),
                ))
                .execute(connection)?;
            Ok(())
        })?;
        self.round(&id)
    }

    /// A round by id.
    pub fn round(&self, id: &str) -> Result<RoundRecord, StoreError> {
        find(&mut *self.connect()?, id)
    }

    /// A client's rounds, oldest first.
    pub fn rounds(&self, client_id: &str) -> Result<Vec<RoundRecord>, StoreError> {
        let rows: Vec<Row> = round::table
            .filter(round::client_id.eq(client_id))
            .order(round::taken_on.asc())
            .select(Row::as_select())
            .load(&mut self.connect()?)?;
        rows.into_iter().map(RoundRecord::try_from).collect()
    }

    /// The case as it stood at a round: that round and all before it, as of its day, with its choices.
    pub fn case_at(&self, atlas: &Atlas, round_id: &str) -> Result<Case, StoreError> {
        let at = self.round(round_id)?;
        let record = self.client(atlas, &at.client_id)?;
        let mut rounds = self.rounds(&at.client_id)?;
        rounds.retain(|round| round.taken_on <= at.taken_on);
        let mut connection = self.connect()?;
        let mut evidence = RoundEvidence::load(&mut connection, atlas, &ids(&rounds))?;
        let choices = choices::load(&mut connection, round_id)?;
        Ok(case(record.client, at.taken_on, rounds, &mut evidence, choices))
    }

    /// Each client's newest round with the case as it stands there, in as many queries whatever their number. Clients
    /// without a round are left out.
    pub fn newest_cases(
        &self,
        atlas: &Atlas,
        clients: &[ClientRecord],
    ) -> Result<Vec<(RoundRecord, Case)>, StoreError> {
        let mut connection = self.connect()?;
        let rows: Vec<Row> = round::table
            .filter(round::client_id.eq_any(clients.iter().map(|client| &client.id)))
            .order(round::taken_on.asc())
            .select(Row::as_select())
            .load(&mut connection)?;
        let all: Vec<RoundRecord> = rows.into_iter().map(RoundRecord::try_from).collect::<Result<_, _>>()?;
        let mut evidence = RoundEvidence::load(&mut connection, atlas, &ids(&all))?;
        let mut choices = choices::load_many(&mut connection, &ids(&all))?;
        let mut cases = Vec::new();
        for record in clients {
            let rounds: Vec<RoundRecord> = all.iter().filter(|round| round.client_id == record.id).cloned().collect();
            let Some(newest) = rounds.last().cloned() else { continue };
            let chosen = choices.remove(&newest.id).unwrap_or_default();
            let case = case(record.client.clone(), newest.taken_on, rounds, &mut evidence, chosen);
            cases.push((newest, case));
        }
        Ok(cases)
    }
}

fn ids(rounds: &[RoundRecord]) -> Vec<String> {
    rounds.iter().map(|round| round.id.clone()).collect()
}

/// What rounds hold, by round id.
struct RoundEvidence {
    readings: HashMap<String, Vec<TapeMeasure>>,
    ratings: HashMap<String, Vec<Rating>>,
    outlines: HashMap<String, Vec<Outline>>,
}

impl RoundEvidence {
    fn load(connection: &mut Connection, atlas: &Atlas, round_ids: &[String]) -> Result<Self, StoreError> {
        let sd_steps = |pairs: &[[i8; 2]]| rater_agreement(atlas.evidence(), pairs).pooled_sd_steps;
        Ok(Self {
            readings: tape::load_many(connection, round_ids)?,
            ratings: ratings::load_many(connection, round_ids, sd_steps)?,
            outlines: photos::load_outlines(connection, round_ids)?,
        })
    }
}

fn case(client: Client, as_of: Date, rounds: Vec<RoundRecord>, evidence: &mut RoundEvidence, choices: Choices) -> Case {
    let rounds = rounds.into_iter().map(|record| Round {
        tape: evidence.readings.remove(&record.id).unwrap_or_default(),
        ratings: evidence.ratings.remove(&record.id).unwrap_or_default(),
        outlines: evidence.outlines.remove(&record.id).unwrap_or_default(),
        date: record.taken_on,
        weight: record.weight,
        measured_by: record.measured_by,
        skinfolds: Vec::new(),
        tests: Vec::new(),
    });
    Case { as_of, client, rounds: rounds.collect(), training: Vec::new(), choices }
}

pub(crate) fn find(connection: &mut SqliteConnection, id: &str) -> Result<RoundRecord, StoreError> {
    let row = round::table.find(id).select(Row::as_select()).first(connection).optional()?;
    row.ok_or_else(|| StoreError::not_found("round", id))?.try_into()
}
