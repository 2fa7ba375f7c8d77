//! Rounds of a client, and the case they make.

use crate::clients::ClientRecord;
use crate::connection::{Connection, Store};
use crate::error::StoreError;
use crate::schema::{client, issued_plan, photo, round};
use crate::{choices, folds, log, new_id, ratings, set_ups, shown, tape, tests, usual_week};
use assess::{
    BesideGirths, Case, Choices, Client, Outline, PictureGirth, Rating, Round, Skinfolds, TapeMeasure, Test,
    TrainingEntry, day_in_words, rater_agreement,
};
use atlas::Atlas;
use diesel::prelude::*;
use jiff::Timestamp;
use jiff::civil::Date;
use logbook::past_training;
use std::collections::{BTreeMap, HashMap};
use units::{ClientId, Length, Mass, RoundId, SiteId};

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
    pub id: RoundId,
    /// Whose round it is.
    pub client_id: ClientId,
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
    /// Revision of the tests.
    pub tests_revision: i32,
    /// Who saved the tests last.
    pub tests_saved_by: Option<String>,
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
    tests_revision: i32,
    tests_saved_by: Option<String>,
}

impl TryFrom<Row> for RoundRecord {
    type Error = StoreError;
    fn try_from(row: Row) -> Result<Self, StoreError> {
        let corrupt = |why: String| StoreError::corrupt("round", &row.id, why);
        let taken_on = row.taken_on.parse().map_err(|_| corrupt(format!("{:?} is no date", row.taken_on)))?;
        let weight = row.weight_kg.map(Mass::from_kg).transpose().map_err(|error| corrupt(error.to_string()))?;
        Ok(Self {
            id: row.id.into(),
            client_id: row.client_id.into(),
            taken_on,
            measured_by: row.measured_by,
            weight,
            tape_revision: row.tape_revision,
            tape_saved_by: row.tape_saved_by,
            choices_revision: row.choices_revision,
            tests_revision: row.tests_revision,
            tests_saved_by: row.tests_saved_by,
        })
    }
}

impl Store {
    /// Gives a round another day.
    ///
    /// # Errors
    /// [`StoreError::Exists`] when the client has another round on that day.
    pub fn redate_round(&self, id: &RoundId, taken_on: Date) -> Result<RoundRecord, StoreError> {
        self.connect()?.immediate_transaction(|connection| {
            let own = find(connection, id)?;
            let same_day = round::table
                .filter(round::client_id.eq(own.client_id.as_str()))
                .filter(round::id.ne(id.as_str()))
                .filter(round::taken_on.eq(taken_on.to_string()));
            if same_day.count().get_result::<i64>(connection)? > 0 {
                return Err(StoreError::Exists(format!(
                    "there is another round on {}: nothing was changed",
                    day_in_words(taken_on)
                )));
            }
            diesel::update(round::table.find(id.as_str()))
                .set(round::taken_on.eq(taken_on.to_string()))
                .execute(connection)?;
            Ok(())
        })?;
        self.round(id)
    }

    /// Removes a round with its sheet, ratings, pictures and weeks.
    ///
    /// # Errors
    /// [`StoreError::Exists`] when a week was given from it: what the client trained hangs on that.
    pub fn delete_round(&self, id: &RoundId) -> Result<(), StoreError> {
        let pictures: Vec<String> = self.connect()?.immediate_transaction(|connection| {
            find(connection, id)?;
            let given = issued_plan::table.filter(issued_plan::round_id.eq(id.as_str()));
            if given.count().get_result::<i64>(connection)? > 0 {
                let says = "a week was given from this round, and what was trained hangs on it: the round stays";
                return Err(StoreError::Exists(says.to_owned()));
            }
            let pictures = photo::table.filter(photo::round_id.eq(id.as_str())).select(photo::id).load(connection)?;
            diesel::delete(round::table.find(id.as_str())).execute(connection)?;
            Ok(pictures)
        })?;
        pictures.into_iter().try_for_each(|photo| self.files().remove(&photo.into()))
    }

    /// Opens a round.
    ///
    /// # Errors
    /// [`StoreError::Exists`] when the client has a round on that day.
    pub fn add_round(&self, client_id: &ClientId, new: &NewRound) -> Result<RoundRecord, StoreError> {
        let id = RoundId::from(new_id());
        self.connect()?.immediate_transaction(|connection| {
            let known: i64 = client::table.find(client_id.as_str()).count().get_result(connection)?;
            if known == 0 {
                return Err(StoreError::not_found("client", client_id));
            }
            let same_day = round::table
                .filter(round::client_id.eq(client_id.as_str()))
                .filter(round::taken_on.eq(new.taken_on.to_string()));
            if same_day.count().get_result::<i64>(connection)? > 0 {
                return Err(StoreError::Exists(format!("there is a round on {} already: open that one", new.taken_on)));
            }
            diesel::insert_into(round::table)
                .values((
                    round::id.eq(id.as_str()),
                    round::client_id.eq(client_id.as_str()),
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
    pub fn round(&self, id: &RoundId) -> Result<RoundRecord, StoreError> {
        find(&mut *self.connect()?, id)
    }

    /// A client's rounds, oldest first.
    pub fn rounds(&self, client_id: &ClientId) -> Result<Vec<RoundRecord>, StoreError> {
        let rows: Vec<Row> = round::table
            .filter(round::client_id.eq(client_id.as_str()))
            .order(round::taken_on.asc())
            .select(Row::as_select())
            .load(&mut self.connect()?)?;
        rows.into_iter().map(RoundRecord::try_from).collect()
    }

    /// Every client's rounds with what their sheets hold, oldest first; none of those who are made up.
    pub fn rounds_by_client(&self, atlas: &Atlas) -> Result<Vec<Vec<Round>>, StoreError> {
        let mut connection = self.connect()?;
        let constants = shown::load_constants(&mut connection)?;
        Self::everybody(&mut connection, atlas, &constants)
    }

    /// The same with girths of pictures by the constants that ship alone: what the practice's own are learned from.
    pub fn rounds_as_shipped(&self, atlas: &Atlas) -> Result<Vec<Vec<Round>>, StoreError> {
        Self::everybody(&mut self.connect()?, atlas, &shown::Constants::new())
    }

    fn everybody(
        connection: &mut Connection,
        atlas: &Atlas,
        constants: &shown::Constants,
    ) -> Result<Vec<Vec<Round>>, StoreError> {
        let made_up = Self::made_up_ids(connection)?;
        let mut rows: Vec<Row> = round::table.order(round::taken_on.asc()).select(Row::as_select()).load(connection)?;
        rows.retain(|row| !made_up.contains(row.client_id.as_str()));
        let all: Vec<RoundRecord> = rows.into_iter().map(RoundRecord::try_from).collect::<Result<_, _>>()?;
        let mut evidence = RoundEvidence::with_girths_by(connection, atlas, &ids(&all), constants)?;
        let mut clients: BTreeMap<ClientId, Vec<Round>> = BTreeMap::new();
        for record in all {
            clients.entry(record.client_id.clone()).or_default().push(round_of(record, &mut evidence));
        }
        Ok(clients.into_values().collect())
    }

    /// The case as it stood at a round: that round and all before it, as of its day, with its choices.
    pub fn case_at(&self, atlas: &Atlas, round_id: &RoundId) -> Result<Case, StoreError> {
        let at = self.round(round_id)?;
        let record = self.client(atlas, &at.client_id)?;
        let mut rounds = self.rounds(&at.client_id)?;
        rounds.retain(|round| round.taken_on <= at.taken_on);
        let mut connection = self.connect()?;
        let mut evidence = RoundEvidence::load(&mut connection, atlas, &ids(&rounds))?;
        let choices = choices::load(&mut connection, round_id)?;
        let training =
            trained(&mut connection, atlas, std::slice::from_ref(&at.client_id), at.taken_on)?.remove(&at.client_id);
        let training = training.unwrap_or_default();
        let mut case = case(record.client, at.taken_on, rounds, &mut evidence, training, choices);
        case.set_ups = set_ups::load_many(&mut connection, std::slice::from_ref(&at.client_id))?
            .remove(&at.client_id)
            .unwrap_or_default();
        Ok(case)
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
            .filter(round::client_id.eq_any(clients.iter().map(|client| client.id.as_str())))
            .order(round::taken_on.asc())
            .select(Row::as_select())
            .load(&mut connection)?;
        let all: Vec<RoundRecord> = rows.into_iter().map(RoundRecord::try_from).collect::<Result<_, _>>()?;
        let mut evidence = RoundEvidence::load(&mut connection, atlas, &ids(&all))?;
        let mut choices = choices::load_many(&mut connection, &ids(&all))?;
        let client_ids: Vec<ClientId> = clients.iter().map(|client| client.id.clone()).collect();
        let newest: HashMap<&str, Date> = all.iter().map(|round| (round.client_id.as_str(), round.taken_on)).collect();
        let until = newest.into_values().min().unwrap_or(Date::MAX);
        let mut training = trained(&mut connection, atlas, &client_ids, until)?;
        let mut set_ups = set_ups::load_many(&mut connection, &client_ids)?;
        let mut cases = Vec::new();
        for record in clients {
            let rounds: Vec<RoundRecord> = all.iter().filter(|round| round.client_id == record.id).cloned().collect();
            let Some(newest) = rounds.last().cloned() else { continue };
            let chosen = choices.remove(&newest.id).unwrap_or_default();
            let trained = training.remove(&record.id).unwrap_or_default();
            let mut case = case(record.client.clone(), newest.taken_on, rounds, &mut evidence, trained, chosen);
            case.set_ups = set_ups.remove(&record.id).unwrap_or_default();
            cases.push((newest, case));
        }
        Ok(cases)
    }
}

/// Past training by client id, as [`past_training`] has it. `until` is the earliest day it is asked for.
fn trained(
    connection: &mut Connection,
    atlas: &Atlas,
    client_ids: &[ClientId],
    until: Date,
) -> Result<HashMap<ClientId, Vec<TrainingEntry>>, StoreError> {
    let mut training = usual_week::load_many(connection, atlas, client_ids)?;
    for (client, logged) in log::load_training(connection, client_ids, until, Date::MAX)? {
        let told = training.entry(client).or_default();
        *told = past_training(std::mem::take(told), logged);
    }
    Ok(training)
}

fn ids(rounds: &[RoundRecord]) -> Vec<RoundId> {
    rounds.iter().map(|round| round.id.clone()).collect()
}

/// What rounds hold, by round id.
struct RoundEvidence {
    readings: HashMap<RoundId, Vec<TapeMeasure>>,
    folds: HashMap<RoundId, Vec<Skinfolds>>,
    levels: HashMap<RoundId, BTreeMap<SiteId, Length>>,
    tests: HashMap<RoundId, Vec<Test>>,
    ratings: HashMap<RoundId, Vec<Rating>>,
    outlines: HashMap<RoundId, Vec<Outline>>,
    girths: HashMap<RoundId, Vec<PictureGirth>>,
}

impl RoundEvidence {
    /// As it is evidence.
    fn load(connection: &mut Connection, atlas: &Atlas, round_ids: &[RoundId]) -> Result<Self, StoreError> {
        let constants = shown::load_constants(connection)?;
        Self::with_girths_by(connection, atlas, round_ids, &constants)
    }

    /// With girths of pictures by these constants.
    fn with_girths_by(
        connection: &mut Connection,
        atlas: &Atlas,
        round_ids: &[RoundId],
        constants: &shown::Constants,
    ) -> Result<Self, StoreError> {
        let scale = atlas.evidence().scale.rating_bulk;
        let sd_steps = |pairs: &[[i8; 2]], truths: &[(i8, f64)], girths: &BesideGirths| {
            let in_steps: Vec<(i8, f64)> = truths.iter().map(|(answer, sd)| (*answer, sd / scale)).collect();
            rater_agreement(atlas.evidence(), pairs, &in_steps, girths).pooled_sd_steps
        };
        Ok(Self {
            readings: tape::load_many(connection, round_ids)?,
            folds: folds::load_many(connection, round_ids)?,
            levels: folds::load_levels(connection, round_ids)?,
            tests: tests::load_many(connection, atlas, round_ids)?,
            ratings: ratings::load_many(connection, round_ids, sd_steps)?,
            outlines: shown::load_outlines(connection, round_ids)?,
            girths: shown::load_girths(connection, round_ids, constants)?,
        })
    }
}

fn case(
    client: Client,
    as_of: Date,
    rounds: Vec<RoundRecord>,
    evidence: &mut RoundEvidence,
    mut training: Vec<TrainingEntry>,
    choices: Choices,
) -> Case {
    training.retain(|entry| entry.week_of <= as_of);
    let rounds = rounds.into_iter().map(|record| round_of(record, evidence)).collect();
    let set_ups = BTreeMap::new();
    Case { as_of, client, rounds, training, choices, set_ups, hurts: Vec::new(), last_review: None }
}

fn round_of(record: RoundRecord, evidence: &mut RoundEvidence) -> Round {
    Round {
        tape: evidence.readings.remove(&record.id).unwrap_or_default(),
        levels: evidence.levels.remove(&record.id).unwrap_or_default(),
        skinfolds: evidence.folds.remove(&record.id).unwrap_or_default(),
        ratings: evidence.ratings.remove(&record.id).unwrap_or_default(),
        outlines: evidence.outlines.remove(&record.id).unwrap_or_default(),
        picture_girths: evidence.girths.remove(&record.id).unwrap_or_default(),
        tests: evidence.tests.remove(&record.id).unwrap_or_default(),
        date: record.taken_on,
        weight: record.weight,
        measured_by: record.measured_by,
    }
}

pub(crate) fn find(connection: &mut SqliteConnection, id: &RoundId) -> Result<RoundRecord, StoreError> {
    let row = round::table.find(id.as_str()).select(Row::as_select()).first(connection).optional()?;
    row.ok_or_else(|| StoreError::not_found("round", id))?.try_into()
}
