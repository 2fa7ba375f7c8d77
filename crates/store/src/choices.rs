//! What the coach chose on a round's verdict.

use crate::connection::{Connection, Store};
use crate::error::StoreError;
use crate::rounds::{RoundRecord, find};
use crate::schema::{region_choice, round};
use assess::{Choices, Override, Shared, Standing};
use diesel::prelude::*;
use std::collections::HashMap;
use units::{RegionId, RoundId, SiteId};

#[derive(Queryable, Selectable)]
#[diesel(table_name = region_choice)]
struct Row {
    round_id: String,
    kind: String,
    region: String,
    verdict: Option<String>,
    reason: Option<String>,
}

const STANDINGS: [(Standing, &str); 4] = [
    (Standing::Behind, "behind"),
    (Standing::Level, "level"),
    (Standing::Ahead, "ahead"),
    (Standing::Unclear, "unclear"),
];

fn standing_text(standing: Standing) -> &'static str {
    STANDINGS.iter().find(|(s, _)| *s == standing).map_or("unclear", |(_, text)| text)
}

pub(crate) fn load(connection: &mut Connection, round_id: &RoundId) -> Result<Choices, StoreError> {
    Ok(load_many(connection, &[round_id.to_owned()])?.remove(round_id).unwrap_or_default())
}

/// Choices of rounds by round id.
pub(crate) fn load_many(
    connection: &mut Connection,
    round_ids: &[RoundId],
) -> Result<HashMap<RoundId, Choices>, StoreError> {
    let rows: Vec<Row> = region_choice::table
        .filter(region_choice::round_id.eq_any(round_ids.iter().map(RoundId::as_str)))
        .order((region_choice::round_id, region_choice::kind, region_choice::ordinal))
        .select(Row::as_select())
        .load(connection)?;
    let mut rounds: HashMap<RoundId, Choices> = HashMap::new();
    for row in rows {
        row.add_to(&mut rounds)?;
    }
    let listed: Vec<(String, String, String)> = round::table
        .filter(round::id.eq_any(round_ids.iter().map(RoundId::as_str)))
        .filter(round::share_json.ne("[]").or(round::areas_json.ne("[]")))
        .select((round::id, round::share_json, round::areas_json))
        .load(connection)?;
    for (round_id, share, areas) in listed {
        let share: Vec<Shared> = serde_json::from_str(&share)
            .map_err(|error| StoreError::corrupt("what is shared of round", &round_id, error))?;
        let areas: Vec<SiteId> = serde_json::from_str(&areas)
            .map_err(|error| StoreError::corrupt("parts chosen in round", &round_id, error))?;
        let choices = rounds.entry(round_id.into()).or_default();
        choices.share = share.into_iter().collect();
        choices.areas = areas;
    }
    Ok(rounds)
}

impl Row {
    fn add_to(self, rounds: &mut HashMap<RoundId, Choices>) -> Result<(), StoreError> {
        let corrupt = |why: String| StoreError::corrupt("choice of round", &self.round_id, why);
        let region: RegionId = self.region.parse().map_err(|error: units::IdError| corrupt(error.to_string()))?;
        let choices = rounds.entry(RoundId::from(self.round_id.as_str())).or_default();
        match self.kind.as_str() {
            "bring-up" => choices.bring_up.push(region),
            "hold-back" => choices.hold_back.push(region),
            _ => {
                let text = self.verdict.unwrap_or_default();
                let known = STANDINGS.iter().find(|(_, t)| *t == text);
                let (verdict, _) = known.ok_or_else(|| corrupt(format!("{text:?} is no verdict")))?;
                choices.overrides.push(Override { region, verdict: *verdict, reason: self.reason.unwrap_or_default() });
            }
        }
        Ok(())
    }
}

impl Store {
    /// The choices of a round.
    pub fn choices(&self, round_id: &RoundId) -> Result<Choices, StoreError> {
        load(&mut self.connect()?, round_id)
    }

    /// Saves choices that were read at `revision`.
    ///
    /// # Errors
    /// [`StoreError::Stale`] when they were saved by someone else since.
    pub fn save_choices(
        &self,
        round_id: &RoundId,
        revision: i32,
        choices: &Choices,
    ) -> Result<RoundRecord, StoreError> {
        let mut connection = self.connect()?;
        connection.immediate_transaction(|connection| {
            let found: Option<i32> =
                round::table.find(round_id.as_str()).select(round::choices_revision).first(connection).optional()?;
            let current = found.ok_or_else(|| StoreError::not_found("round", round_id))?;
            if current != revision {
                return Err(StoreError::Stale { what: "the choice of regions", current, saved_by: None });
            }
            write(connection, round_id, choices)?;
            let share = serde_json::to_string(&choices.share)
                .map_err(|error| StoreError::corrupt("what is shared of round", round_id, error))?;
            let areas = serde_json::to_string(&choices.areas)
                .map_err(|error| StoreError::corrupt("parts chosen in round", round_id, error))?;
            diesel::update(round::table.find(round_id.as_str()))
                .set((
                    round::choices_revision.eq(revision + 1),
                    round::share_json.eq(share),
                    round::areas_json.eq(areas),
                ))
                .execute(connection)?;
            Ok::<(), StoreError>(())
        })?;
        find(&mut connection, round_id)
    }
}

fn write(connection: &mut SqliteConnection, round_id: &RoundId, choices: &Choices) -> Result<(), StoreError> {
    diesel::delete(region_choice::table.filter(region_choice::round_id.eq(round_id.as_str()))).execute(connection)?;
    let plain = |kind: &'static str, regions: &[RegionId]| -> Vec<_> {
        regions.iter().map(|region| (kind, region.to_string(), None, None)).collect()
    };
    let mut all = plain("bring-up", &choices.bring_up);
    all.extend(plain("hold-back", &choices.hold_back));
    all.extend(
        choices
            .overrides
            .iter()
            .map(|o| ("override", o.region.to_string(), Some(standing_text(o.verdict)), Some(o.reason.clone()))),
    );
    let rows: Vec<_> = (0_i32..)
        .zip(all)
        .map(|(ordinal, (kind, region, verdict, reason))| {
            (
                region_choice::round_id.eq(round_id.as_str()),
                region_choice::kind.eq(kind),
                region_choice::ordinal.eq(ordinal),
                region_choice::region.eq(region),
                region_choice::verdict.eq(verdict),
                region_choice::reason.eq(reason),
            )
        })
        .collect();
    diesel::insert_into(region_choice::table).values(rows).execute(connection)?;
    Ok(())
}
