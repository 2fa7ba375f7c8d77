//! The plan file (`orthomer-plan`, version 1).

use crate::item_entry::{ItemEntry, item};
use assess::Class;
use plan::{
    BlockWeek, Broken, CardPlace, Ladder, LoadRow, MovementRow, Objection, PartRow, Plan, Proof, Session, Status, Step,
    WarmUpEntry,
};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use units::{ExerciseId, RegionId};
use utoipa::ToSchema;

/// A week's plan.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct PlanFile {
    /// `orthomer-plan`.
    pub format: String,
    /// 1.
    pub version: u32,
    /// How it stands.
    pub status: Status,
    /// Its cost; lower is better.
    pub objective: f64,
    /// A proven lower bound, null while none is.
    pub bound: Option<f64>,
    /// Relative distance from the bound, null while none is.
    pub gap: Option<f64>,
    /// Time spent, ms.
    pub solve_ms: f64,
    /// Days with work.
    pub sessions: Vec<SessionEntry>,
    /// Every region.
    pub ledger: Vec<LedgerEntry>,
    /// Every big part of the body, in the order in which a short week fills them.
    #[serde(default)]
    pub parts: Vec<PartRow>,
    /// The movements that a sound week has.
    #[serde(default)]
    pub movements: Vec<MovementRow>,
    /// Hard sets, load along the spine and on each joint, against their limits.
    #[serde(default)]
    pub loads: Vec<LoadRow>,
    /// What a coach would object to.
    #[serde(default)]
    pub objections: Vec<ObjectionEntry>,
    /// Wishes that gave way.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub gave_way: Vec<String>,
    /// What could not be met.
    pub blocked: Vec<BlockedEntry>,
    /// Rules that the week breaks; only a week changed by hand breaks any.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub broken: Vec<Broken>,
    /// The weeks of the block.
    pub weeks: Vec<BlockWeekEntry>,
}

/// Something a coach would object to.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct ObjectionEntry {
    /// `empty-part`, `spine`, `eccentric`, `grip-first`, `short-session`, `pain`, `skill`, `set-count`, `daily` or `opening`.
    pub kind: String,
    /// In words.
    pub says: String,
    /// The cards it concerns.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub cards: Vec<CardPlace>,
}

/// A week of the block.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct BlockWeekEntry {
    /// From 1.
    pub number: u8,
    /// Half the sets at the same load.
    pub lighter: bool,
    /// Items that take turns stand with their other.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub turned: bool,
    /// Sets by session and item, in their order.
    pub sets: Vec<Vec<u16>>,
    /// Fractional sets of the chosen regions.
    pub doses: BTreeMap<RegionId, f64>,
    /// What changes against the week before.
    pub says: Vec<String>,
}

impl PlanFile {
    /// The week of the block that holds in a week since the first, from 1: past the block its last full week goes on. None when there is
    /// no block.
    pub fn block_week(&self, week: u8) -> Option<&BlockWeekEntry> {
        let lighter: Vec<bool> = self.weeks.iter().map(|week| week.lighter).collect();
        self.weeks.get(logbook::block_week(&lighter, week))
    }

    /// What stands on a day in a week since the first, in order, each with its sets of that week; nothing where there is no such day.
    pub fn items(&self, week: u8, session: usize) -> Vec<ItemEntry> {
        let items = self.sessions.get(session).map_or(&[] as &[ItemEntry], |session| &session.items);
        let of_week =
            |(place, item): (usize, &ItemEntry)| item.in_week(week).with_sets(self.sets(week, session, place));
        items.iter().enumerate().map(of_week).collect()
    }

    /// Everything that stands on a day in some week.
    pub fn all_items(&self) -> impl Iterator<Item = &ItemEntry> {
        let items = self.sessions.iter().flat_map(|session| &session.items);
        items.flat_map(|item| std::iter::once(item).chain(item.in_turn.as_deref()))
    }

    /// Sets of an exercise in a week since the first: the block's, or those of the week itself where the block says nothing.
    pub fn sets(&self, week: u8, session: usize, item: usize) -> u16 {
        let of_block = self.block_week(week).and_then(|week| week.sets.get(session)?.get(item).copied());
        let of_week = || self.sessions.get(session)?.items.get(item).map(|item| item.sets);
        of_block.or_else(of_week).unwrap_or(0)
    }
}

/// One light set each, for a region that is not felt.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct LadderEntry {
    /// The region.
    pub region: RegionId,
    /// Why it is there.
    pub why: String,
    /// Its steps, easiest to feel first.
    pub rungs: Vec<RungEntry>,
}

/// A step of a ladder.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct RungEntry {
    /// The exercise.
    pub exercise: ExerciseId,
    /// Its name.
    pub name: String,
    /// How it is done.
    pub how: String,
}

/// A day's work.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct SessionEntry {
    /// Weekday, Monday = 1.
    pub day: u8,
    /// Whether it is trained at home.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub home: bool,
    /// What it takes.
    pub minutes: f64,
    /// In order.
    pub items: Vec<ItemEntry>,
    /// Set by set as it is run: one card's sets after another, the cards of a group in turns.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub run: Vec<Step>,
    /// What comes before and after the work; none in plans of before it was named.
    #[serde(default, skip_serializing_if = "is_nothing")]
    pub warm_up: WarmUpEntry,
    /// What it is for, where the days have themes.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub theme: Option<String>,
    /// Why much of its time is left, where it is.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub short_because: Option<String>,
    /// For chosen regions that are not felt, before the first exercise.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub ladders: Vec<LadderEntry>,
}

/// Whether nothing comes before or after the work.
fn is_nothing(warm_up: &WarmUpEntry) -> bool {
    *warm_up == WarmUpEntry::default()
}

/// A region's week, fractional sets.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct LedgerEntry {
    /// The region.
    pub region: RegionId,
    /// Its class.
    pub class: Class,
    /// Too little below this.
    pub low: f64,
    /// Wanted.
    pub aim: f64,
    /// Too much above this.
    pub high: f64,
    /// As main target.
    pub direct: f64,
    /// From other work.
    pub indirect: f64,
    /// Both.
    pub total: f64,
    /// Why it gets nothing, where it gets nothing.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub empty_because: Option<String>,
}

/// A demand that could not be met.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct BlockedEntry {
    /// What was wanted.
    pub demand: String,
    /// The rule in the way.
    pub rule: String,
    /// The nearest possible thing.
    pub nearest: String,
}

/// The file of a plan and its block. `solve_ms` is the time it took, which the core does not know.
pub fn plan_file(plan: &Plan, block: &[BlockWeek], proof: Option<&Proof>, solve_ms: f64) -> PlanFile {
    let ledger = plan.ledger.iter().map(|row| LedgerEntry {
        region: row.region.clone(),
        class: row.class,
        low: row.low,
        aim: row.aim,
        high: row.high,
        direct: row.direct,
        indirect: row.indirect,
        total: row.direct + row.indirect,
        empty_because: row.empty_because.clone(),
    });
    let blocked = plan.blocked.iter().map(|b| BlockedEntry {
        demand: b.demand.clone(),
        rule: b.rule.clone(),
        nearest: b.nearest.clone(),
    });
    PlanFile {
        format: "orthomer-plan".to_owned(),
        version: 1,
        status: if plan.status == Status::Feasible && proof.is_some_and(Proof::is_best) {
            Status::Optimal
        } else {
            plan.status
        },
        objective: plan.objective,
        bound: proof.map(|proof| proof.bound),
        gap: proof.map(Proof::gap),
        solve_ms,
        sessions: plan.sessions.iter().map(session).collect(),
        ledger: ledger.collect(),
        parts: plan.parts.clone(),
        movements: plan.movements.clone(),
        loads: plan.loads.clone(),
        objections: plan.objections.iter().map(objection).collect(),
        gave_way: plan.gave_way.clone(),
        blocked: blocked.collect(),
        broken: plan.broken.clone(),
        weeks: block.iter().map(week).collect(),
    }
}

fn objection(objection: &Objection) -> ObjectionEntry {
    ObjectionEntry {
        kind: objection.kind.id().to_owned(),
        says: objection.says.clone(),
        cards: objection.cards.clone(),
    }
}

fn week(week: &BlockWeek) -> BlockWeekEntry {
    BlockWeekEntry {
        number: week.number,
        lighter: week.lighter,
        turned: week.turned,
        sets: week.sets.clone(),
        doses: week.doses.iter().cloned().collect(),
        says: week.says.clone(),
    }
}

fn ladder(ladder: &Ladder) -> LadderEntry {
    let rung = |rung: &plan::Rung| RungEntry {
        exercise: rung.exercise.clone(),
        name: rung.name.clone(),
        how: rung.how.to_owned(),
    };
    LadderEntry {
        region: ladder.region.clone(),
        why: ladder.why.clone(),
        rungs: ladder.rungs.iter().map(rung).collect(),
    }
}

fn session(session: &Session) -> SessionEntry {
    SessionEntry {
        day: session.day,
        home: session.home,
        minutes: session.minutes,
        items: session.items.iter().enumerate().map(|(position, i)| item(position, i)).collect(),
        run: session.run.clone(),
        warm_up: session.warm_up.clone(),
        theme: session.theme.map(str::to_owned),
        short_because: session.short_because.clone(),
        ladders: session.ladders.iter().map(ladder).collect(),
    }
}
