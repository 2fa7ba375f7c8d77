//! What was trained, as it was written down: versions are kept, never changed.

use crate::connection::{Connection, Store};
use crate::error::StoreError;
use crate::json::{parsed, written};
use crate::schema::{issued_plan, log_entry, target_overrule};
use assess::TrainingEntry;
use casefile::LogEntry;
use diesel::prelude::*;
use jiff::civil::Date;
use jiff::{Timestamp, ToSpan};
use logbook::{AlarmKind, BestSets, Overrule, SessionKey, counting, monday};
use std::collections::{HashMap, HashSet};
use units::{ClientId, PlanId, RoundId};

/// Weeks of log that a verdict looks back on.
const LOOK_BACK_WEEKS: i64 = 26;

/// An entry that passed the checks, about to be kept.
#[derive(Clone, Debug)]
pub struct NewLogEntry {
    /// As it was sent, with its day put right.
    pub entry: LogEntry,
    /// When it was written, put right.
    pub written_at: Timestamp,
    /// What it adds to past training.
    pub training: Option<TrainingEntry>,
    /// What has to be said at once.
    pub alarm: Option<AlarmKind>,
    /// Its best sets; none for a session as a whole.
    pub best: Option<BestSets>,
}

/// What became of an entry that was sent.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Kept {
    /// It is new.
    New,
    /// It is new, and another version stands beside it: somebody has to say which counts.
    Beside,
    /// It was here already.
    Known,
    /// It cannot be kept, and why.
    Refused(String),
}

/// An entry as it is kept.
#[derive(Clone, Debug)]
pub struct LogRecord {
    /// The entry.
    pub entry: LogEntry,
    /// Whose it is.
    pub client_id: ClientId,
    /// When it was written, put right.
    pub written_at: Timestamp,
    /// Who wrote it.
    pub written_by: String,
}

#[derive(Queryable, Selectable)]
#[diesel(table_name = log_entry)]
struct Row {
    id: String,
    client_id: String,
    written_at: String,
    written_by: String,
    entry_json: String,
}

impl Row {
    fn record(self) -> Result<LogRecord, StoreError> {
        let corrupt = |why: String| StoreError::corrupt("log entry", &self.id, why);
        Ok(LogRecord {
            entry: parsed("log entry", &self.id, &self.entry_json)?,
            written_at: self.written_at.parse().map_err(|error: jiff::Error| corrupt(error.to_string()))?,
            client_id: self.client_id.into(),
            written_by: self.written_by,
        })
    }
}

/// The planned exercise, or nothing for the session as a whole.
fn part(entry: &LogEntry) -> &str {
    match &entry.part {
        casefile::LogPart::Exercise { exercise, .. } => exercise,
        casefile::LogPart::Session { .. } => "",
    }
}

impl Store {
    /// Keeps entries of a client, all of them that can be kept, in the order given; what is sent again is known. Gives what
    /// became of each.
    pub fn keep_log(&self, client_id: &ClientId, by: &str, new: &[NewLogEntry]) -> Result<Vec<Kept>, StoreError> {
        self.connect()?.immediate_transaction(|connection| {
            let plans: Vec<String> = issued_plan::table
                .filter(issued_plan::client_id.eq(client_id.as_str()))
                .select(issued_plan::id)
                .load(connection)?;
            new.iter().map(|new| keep(connection, client_id, by, &plans, new)).collect()
        })
    }

    /// Adds entries of a client that are known to be new and to follow nothing, such as years of them at once.
    pub fn add_history(&self, client_id: &ClientId, by: &str, new: &[NewLogEntry]) -> Result<(), StoreError> {
        self.connect()?.immediate_transaction(|connection| {
            new.iter().try_for_each(|new| insert(connection, client_id, by, new, false))
        })
    }

    /// The versions that nothing follows, of a client since a day, in the order of their arrival.
    pub fn log(&self, client_id: &ClientId, since: Date) -> Result<Vec<LogRecord>, StoreError> {
        let rows: Vec<Row> = log_entry::table
            .filter(log_entry::client_id.eq(client_id.as_str()))
            .filter(log_entry::superseded.eq(false))
            .filter(log_entry::trained_on.ge(since.to_string()))
            .order(log_entry::arrival.asc())
            .select(Row::as_select())
            .load(&mut self.connect()?)?;
        rows.into_iter().map(Row::record).collect()
    }

    /// The versions that nothing follows and that tell of pain or of a sign for a doctor, in the order of their arrival.
    pub fn log_alarms(&self, client_id: &ClientId) -> Result<Vec<LogRecord>, StoreError> {
        let rows: Vec<Row> = log_entry::table
            .filter(log_entry::client_id.eq(client_id.as_str()))
            .filter(log_entry::superseded.eq(false))
            .filter(log_entry::alarm.gt(0))
            .order(log_entry::arrival.asc())
            .select(Row::as_select())
            .load(&mut self.connect()?)?;
        rows.into_iter().map(Row::record).collect()
    }

    /// Sessions logged under the plans of a round; none when no plan was given.
    pub fn logged_sessions(&self, round_id: &RoundId) -> Result<Option<usize>, StoreError> {
        let mut connection = self.connect()?;
        let plans: Vec<String> = issued_plan::table
            .filter(issued_plan::round_id.eq(round_id.as_str()))
            .select(issued_plan::id)
            .load(&mut connection)?;
        let sessions: Vec<(String, i32, i32)> = log_entry::table
            .filter(log_entry::plan_id.eq_any(&plans))
            .filter(log_entry::superseded.eq(false))
            .select((log_entry::plan_id, log_entry::week, log_entry::day))
            .distinct()
            .load(&mut connection)?;
        Ok((!plans.is_empty()).then_some(sessions.len()))
    }

    /// The best sets of everything a client did, oldest first: the day, what was done, its best sets.
    pub fn best_sets(&self, client_id: &ClientId) -> Result<Vec<(Date, String, BestSets)>, StoreError> {
        type Best = (String, String, Option<f64>, Option<f64>, Option<f64>, bool);
        let rows: Vec<Best> = log_entry::table
            .filter(log_entry::client_id.eq(client_id.as_str()))
            .filter(log_entry::superseded.eq(false))
            .filter(log_entry::done.is_not_null())
            .order(log_entry::trained_on.asc())
            .select((
                log_entry::trained_on,
                log_entry::done.assume_not_null(),
                log_entry::best_both,
                log_entry::best_left,
                log_entry::best_right,
                log_entry::loaded,
            ))
            .load(&mut self.connect()?)?;
        let corrupt = |error: jiff::Error| StoreError::corrupt("log of client", client_id, error.to_string());
        let one = |(on, done, both, left, right, loaded): Best| {
            Ok((on.parse().map_err(corrupt)?, done, BestSets { both, left, right, loaded }))
        };
        rows.into_iter().map(one).collect()
    }

    /// The newest arrival among what was trained up to a day; 0 when nothing was.
    pub fn newest_arrival(&self, client_id: &ClientId, until: Date) -> Result<i64, StoreError> {
        let found: Option<i64> = log_entry::table
            .filter(log_entry::client_id.eq(client_id.as_str()))
            .filter(log_entry::superseded.eq(false))
            .filter(log_entry::trained_on.le(until.to_string()))
            .select(diesel::dsl::max(log_entry::arrival))
            .first(&mut self.connect()?)?;
        Ok(found.unwrap_or_default())
    }

    /// What was trained in the half year up to a day, from the log alone.
    pub fn logged_training(&self, client_id: &ClientId, until: Date) -> Result<Vec<TrainingEntry>, StoreError> {
        let mut all = load_training(&mut self.connect()?, std::slice::from_ref(client_id), until, until)?;
        Ok(all.remove(client_id).unwrap_or_default())
    }

    /// When versions that another has since replaced were written, of parts of sessions under given plans.
    pub fn replaced(&self, plan_ids: &[PlanId]) -> Result<Vec<(SessionKey, String, Timestamp)>, StoreError> {
        let rows: Vec<(String, i32, i32, String, String)> = log_entry::table
            .filter(log_entry::plan_id.eq_any(plan_ids.iter().map(PlanId::as_str)))
            .filter(log_entry::superseded.eq(true))
            .select((log_entry::plan_id, log_entry::week, log_entry::day, log_entry::part, log_entry::written_at))
            .load(&mut self.connect()?)?;
        let one = |(plan_id, week, day, part, at): (String, i32, i32, String, String)| {
            let corrupt = |why: String| StoreError::corrupt("log of plan", &plan_id, why);
            let number = |number: i32| u8::try_from(number).map_err(|error| corrupt(error.to_string()));
            let (week, day) = (number(week)?, number(day)?);
            let at = at.parse().map_err(|error: jiff::Error| corrupt(error.to_string()))?;
            Ok((SessionKey { plan_id: plan_id.into(), week, day }, part, at))
        };
        rows.into_iter().map(one).collect()
    }

    /// What a coach said instead of the rules, by exercise, with the moment it was said.
    pub fn overrules(&self, client_id: &ClientId) -> Result<HashMap<String, (Overrule, Timestamp)>, StoreError> {
        let rows: Vec<(String, String, String)> = target_overrule::table
            .filter(target_overrule::client_id.eq(client_id.as_str()))
            .select((target_overrule::exercise, target_overrule::overrule_json, target_overrule::said_at))
            .load(&mut self.connect()?)?;
        let one = |(exercise, json, at): (String, String, String)| {
            let corrupt = |error: jiff::Error| StoreError::corrupt("target", &exercise, error.to_string());
            Ok((exercise.clone(), (parsed("target", &exercise, &json)?, at.parse().map_err(corrupt)?)))
        };
        rows.into_iter().map(one).collect()
    }

    /// Says what is done next time instead of what the rules say; `None` takes it back.
    pub fn save_overrule(
        &self,
        client_id: &ClientId,
        exercise: &str,
        overrule: Option<&Overrule>,
        by: &str,
        at: Timestamp,
    ) -> Result<(), StoreError> {
        let mut connection = self.connect()?;
        let Some(overrule) = overrule else {
            diesel::delete(target_overrule::table.find((client_id.as_str(), exercise))).execute(&mut connection)?;
            return Ok(());
        };
        diesel::replace_into(target_overrule::table)
            .values((
                target_overrule::client_id.eq(client_id.as_str()),
                target_overrule::exercise.eq(exercise),
                target_overrule::overrule_json.eq(written("target", exercise, overrule)?),
                target_overrule::said_by.eq(by),
                target_overrule::said_at.eq(at.to_string()),
            ))
            .execute(&mut connection)?;
        Ok(())
    }
}

fn keep(
    connection: &mut SqliteConnection,
    client_id: &ClientId,
    by: &str,
    plans: &[String],
    new: &NewLogEntry,
) -> Result<Kept, StoreError> {
    let entry = &new.entry;
    let known: Option<String> = log_entry::table
        .filter(log_entry::id.eq(&entry.id))
        .select(log_entry::client_id)
        .first(connection)
        .optional()?;
    if let Some(owner) = known {
        let says = "this entry's id belongs to something else: start it anew".to_owned();
        return Ok(if owner == client_id.as_str() { Kept::Known } else { Kept::Refused(says) });
    }
    if !plans.iter().any(|plan| plan == entry.plan.as_str()) {
        return Ok(Kept::Refused("this session's plan is not one of this client's plans".to_owned()));
    }
    let slot = log_entry::table
        .filter(log_entry::plan_id.eq(entry.plan.as_str()))
        .filter(log_entry::week.eq(i32::from(entry.week)))
        .filter(log_entry::day.eq(i32::from(entry.day)))
        .filter(log_entry::part.eq(part(entry)));
    let others: Vec<(String, bool, String)> =
        slot.select((log_entry::id, log_entry::superseded, log_entry::entry_json)).load(connection)?;
    let mut superseded = false;
    for (id, _, json) in &others {
        superseded |= parsed::<LogEntry>("log entry", id, json)?.follows.contains(&entry.id);
    }
    let own_slot: HashSet<&str> = others.iter().map(|(id, ..)| id.as_str()).collect();
    let followed: Vec<&str> = entry.follows.iter().map(String::as_str).filter(|id| own_slot.contains(id)).collect();
    let beside = others.iter().any(|(id, gone, _)| !gone && !followed.contains(&id.as_str()));
    diesel::update(log_entry::table.filter(log_entry::id.eq_any(&followed)))
        .set(log_entry::superseded.eq(true))
        .execute(connection)?;
    insert(connection, client_id, by, new, superseded)?;
    Ok(if beside && !superseded { Kept::Beside } else { Kept::New })
}

fn insert(
    connection: &mut SqliteConnection,
    client_id: &ClientId,
    by: &str,
    new: &NewLogEntry,
    superseded: bool,
) -> Result<(), StoreError> {
    let (entry, training) = (&new.entry, new.training.as_ref());
    let alarm = match new.alarm {
        Some(AlarmKind::Refer) => 2,
        Some(AlarmKind::Pain) => 1,
        None => 0,
    };
    diesel::insert_into(log_entry::table)
        .values((
            log_entry::id.eq(&entry.id),
            log_entry::client_id.eq(client_id.as_str()),
            log_entry::plan_id.eq(entry.plan.as_str()),
            log_entry::week.eq(i32::from(entry.week)),
            log_entry::day.eq(i32::from(entry.day)),
            log_entry::part.eq(part(entry)),
            log_entry::trained_on.eq(&entry.trained_on),
            log_entry::written_at.eq(new.written_at.to_string()),
            log_entry::written_by.eq(by),
            log_entry::entry_json.eq(written("log entry", &entry.id, entry)?),
            log_entry::superseded.eq(superseded),
            log_entry::done.eq(training.map(|row| row.exercise.to_string())),
            log_entry::position.eq(training.map_or(0, |row| i32::from(row.position))),
            log_entry::hard_sets.eq(training.map_or(0, |row| i32::from(row.sets))),
            log_entry::one_sided.eq(training.is_some_and(|row| row.one_sided)),
            log_entry::least_reps.eq(training.and_then(|row| row.reps).map(i32::from)),
            log_entry::best_both.eq(new.best.and_then(|best| best.both)),
            log_entry::best_left.eq(new.best.and_then(|best| best.left)),
            log_entry::best_right.eq(new.best.and_then(|best| best.right)),
            log_entry::loaded.eq(new.best.is_some_and(|best| best.loaded)),
            log_entry::alarm.eq(alarm),
            log_entry::swung.eq(training.is_some_and(|row| row.swung)),
        ))
        .execute(connection)?;
    Ok(())
}

/// A version of a part of a session, as far as it tells what was trained.
#[derive(Queryable, Selectable)]
#[diesel(table_name = log_entry)]
struct TrainedRow {
    client_id: String,
    plan_id: String,
    week: i32,
    day: i32,
    part: String,
    trained_on: String,
    done: Option<String>,
    position: i32,
    hard_sets: i32,
    one_sided: bool,
    least_reps: Option<i32>,
    swung: bool,
}

impl TrainedRow {
    /// None where no hard set was done.
    fn training(&self) -> Result<Option<TrainingEntry>, StoreError> {
        let Some(done) = &self.done else { return Ok(None) };
        let corrupt = |why: String| StoreError::corrupt("log of client", &self.client_id, why);
        let on: Date = self.trained_on.parse().map_err(|error: jiff::Error| corrupt(error.to_string()))?;
        Ok(Some(TrainingEntry {
            week_of: monday(on),
            session: u8::try_from(self.day).unwrap_or_default(),
            position: u8::try_from(self.position).unwrap_or_default(),
            exercise: done.parse().map_err(|_| corrupt(format!("{done:?} is no exercise")))?,
            sets: u16::try_from(self.hard_sets).unwrap_or_default(),
            one_sided: self.one_sided,
            reps: self.least_reps.and_then(|reps| u16::try_from(reps).ok()),
            swung: self.swung,
        }))
    }
}

/// Training from half a year before `asked` up to `until` by client id, oldest first, from the log alone.
pub(crate) fn load_training(
    connection: &mut Connection,
    client_ids: &[ClientId],
    asked: Date,
    until: Date,
) -> Result<HashMap<ClientId, Vec<TrainingEntry>>, StoreError> {
    let since = asked.checked_sub(LOOK_BACK_WEEKS.weeks()).unwrap_or(Date::MIN);
    let versions: Vec<TrainedRow> = log_entry::table
        .filter(log_entry::client_id.eq_any(client_ids.iter().map(ClientId::as_str)))
        .filter(log_entry::superseded.eq(false))
        .filter(log_entry::trained_on.ge(since.to_string()))
        .filter(log_entry::trained_on.le(until.to_string()))
        .filter(log_entry::part.ne(""))
        .order(log_entry::arrival.asc())
        .select(TrainedRow::as_select())
        .load(connection)?;
    let mut rows = counting(versions, |row| (row.plan_id.clone(), row.week, row.day, row.part.clone()));
    rows.sort_by(|a, b| a.trained_on.cmp(&b.trained_on));
    let mut all: HashMap<ClientId, Vec<TrainingEntry>> = HashMap::new();
    for row in rows {
        if let Some(training) = row.training()? {
            all.entry(row.client_id.into()).or_default().push(training);
        }
    }
    Ok(all)
}
