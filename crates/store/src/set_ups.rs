//! How a client's stations are set, exercise by exercise: the newest word counts, whoever said it.

use crate::connection::{Connection, Store};
use crate::error::StoreError;
use crate::json::{parsed, written};
use crate::schema::set_up;
use assess::KeptSetUp;
use diesel::prelude::*;
use jiff::civil::Date;
use std::collections::{BTreeMap, HashMap};
use std::convert::Infallible;
use units::{ClientId, ExerciseId};

/// Set-ups by client id and exercise; exercises that are no ids any more are left out.
pub(crate) fn load_many(
    connection: &mut Connection,
    client_ids: &[ClientId],
) -> Result<HashMap<ClientId, BTreeMap<ExerciseId, KeptSetUp>>, StoreError> {
    let rows: Vec<(String, String, String)> = set_up::table
        .filter(set_up::client_id.eq_any(client_ids.iter().map(ClientId::as_str)))
        .select((set_up::client_id, set_up::exercise, set_up::kept_json))
        .load(connection)?;
    let mut found: HashMap<ClientId, BTreeMap<ExerciseId, KeptSetUp>> = HashMap::new();
    for (client, exercise, json) in rows {
        let kept = parsed("set-up", &exercise, &json)?;
        if let Ok(exercise) = exercise.parse() {
            found.entry(client.into()).or_default().insert(exercise, kept);
        }
    }
    Ok(found)
}

impl Store {
    /// A client's set-ups by exercise.
    pub fn set_ups(&self, client_id: &ClientId) -> Result<BTreeMap<ExerciseId, KeptSetUp>, StoreError> {
        Ok(load_many(&mut self.connect()?, std::slice::from_ref(client_id))?.remove(client_id).unwrap_or_default())
    }

    /// Changes how an exercise is set for a client, as somebody said on a day, and returns what is kept then; what was said on
    /// a later day stays. The change sees what is stored at that moment: what it leaves alone cannot be lost. Nothing is
    /// written where nothing changes.
    ///
    /// # Errors
    /// The change's own, with nothing written.
    pub fn change_set_up<E: From<StoreError>>(
        &self,
        client_id: &ClientId,
        exercise: &ExerciseId,
        (on, by): (Date, &str),
        change: impl FnOnce(KeptSetUp) -> Result<KeptSetUp, E>,
    ) -> Result<KeptSetUp, E> {
        // What the change refuses is an answer, not a fault of the transaction: nothing was written yet.
        self.connect()?
            .immediate_transaction(|connection| keep(connection, client_id, exercise, (on, by), change))
            .map_err(|error: StoreError| E::from(error))?
    }

    /// Keeps what a plan or a log says of stations, all of it or nothing: numbers are laid over those that are there, and a
    /// variant takes the place of the one before.
    pub fn keep_said(
        &self,
        client_id: &ClientId,
        (on, by): (Date, &str),
        said: &[SetUpSaid],
    ) -> Result<(), StoreError> {
        let worth = |one: &&SetUpSaid| !one.numbers.is_empty() || one.variant.is_some();
        self.connect()?.immediate_transaction(|connection| {
            said.iter().filter(worth).try_for_each(|one| {
                let Ok(_) = keep(connection, client_id, &one.exercise, (on, by), |mut kept| {
                    kept.numbers.extend(one.numbers.clone());
                    kept.variant = one.variant.clone().or(kept.variant);
                    Ok::<_, Infallible>(kept)
                })?;
                Ok(())
            })
        })
    }
}

/// What was said of one station.
#[derive(Clone, Debug, PartialEq)]
pub struct SetUpSaid {
    /// The exercise.
    pub exercise: ExerciseId,
    /// Its numbers by name.
    pub numbers: BTreeMap<String, f64>,
    /// Its variant, when one was said.
    pub variant: Option<String>,
}

fn keep<E>(
    connection: &mut SqliteConnection,
    client_id: &ClientId,
    exercise: &ExerciseId,
    (on, by): (Date, &str),
    change: impl FnOnce(KeptSetUp) -> Result<KeptSetUp, E>,
) -> Result<Result<KeptSetUp, E>, StoreError> {
    let found: Option<(String, String)> = set_up::table
        .find((client_id.as_str(), exercise.as_str()))
        .select((set_up::kept_on, set_up::kept_json))
        .first(connection)
        .optional()?;
    let before: KeptSetUp = match &found {
        Some((_, json)) => parsed("set-up", exercise.as_str(), json)?,
        None => KeptSetUp::default(),
    };
    if found.is_some_and(|(kept_on, _)| kept_on > on.to_string()) {
        return Ok(Ok(before));
    }
    let kept = match change(before.clone()) {
        Ok(kept) if kept == before => return Ok(Ok(kept)),
        Err(refused) => return Ok(Err(refused)),
        Ok(kept) => kept,
    };
    diesel::replace_into(set_up::table)
        .values((
            set_up::client_id.eq(client_id.as_str()),
            set_up::exercise.eq(exercise.as_str()),
            set_up::kept_on.eq(on.to_string()),
            set_up::kept_by.eq(by),
            set_up::kept_json.eq(written("set-up", exercise.as_str(), &kept)?),
        ))
        .execute(connection)?;
    Ok(Ok(kept))
}
