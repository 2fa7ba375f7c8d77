//! An exercise of a planned session as files and pages have it.

use atlas::{Atlas, Work};
use plan::{BlockWeek, Item, PlannedSet, Progression, RunCard, SidePlan};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use units::{ExerciseId, RegionId, Side};
use utoipa::ToSchema;

/// An exercise in a session.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct ItemEntry {
    /// The exercise.
    pub exercise: ExerciseId,
    /// Its name.
    pub name: String,
    /// The region it is there for.
    pub region: RegionId,
    /// Sets.
    pub sets: u16,
    /// Repetitions, low and high.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub reps: Option<[u16; 2]>,
    /// Seconds, low and high, where repetitions are not counted.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub seconds: Option<[u16; 2]>,
    /// Repetitions in reserve.
    pub reserve: u8,
    /// Rest after a set, s.
    pub rest_s: u16,
    /// Rest after a set that the others of its group have no partner for, s; left out outside a group.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub alone_s: Option<u16>,
    /// Set scheme.
    pub scheme: String,
    /// Whether it was chosen on the card; else it is the school's, or straight sets.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub scheme_chosen: bool,
    /// Place in the session, from 1.
    pub order: usize,
    /// Side order.
    pub sides: SidePlan,
    /// Extra sets for the side that goes first.
    pub extra_sets_weaker: u16,
    /// How to warm up to it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub warm_up: Option<String>,
    /// Sentences the coach's schools add to the exercise's own.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub cues: Vec<String>,
    /// All that its card says, how to get into position first: the exercise's own sentences and the schools', without what
    /// contradicts. Empty in plans of before it was composed.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub says: Vec<String>,
    /// Reasons.
    pub why: Vec<String>,
    /// Whether solving leaves it as it is.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub locked: bool,
    /// What it takes, setting up included.
    pub minutes: f64,
    /// How it goes on from session to session.
    pub progression: Progression,
    /// The superset or giant set it is part of: a letter that neighbouring items share.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub group: Option<String>,
    /// Set by set, where sets differ.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub per_set: Vec<PlannedSet>,
    /// Work of a usual set, one side, s; 0 in plans of before it was written down.
    #[serde(default)]
    pub work_s: f64,
    /// Lowering, pause, lifting, pause, s.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tempo: Option<[u8; 4]>,
    /// Load of the first set as the coach wrote it, kg; under 0 it is assistance.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub load_kg: Option<f64>,
    /// The coach's sentence to the client.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub note: Option<String>,
    /// Which variant of the exercise.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub variant: Option<String>,
    /// Numbers of the set-up, in the units of their names.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub set_up: BTreeMap<String, f64>,
    /// What stands in its place in every second week from the second on, where the actions of its region take turns.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(no_recursion)]
    pub in_turn: Option<Box<ItemEntry>>,
}

impl ItemEntry {
    /// What stands in its place in a week since the plan's first, from 1: itself, or what takes turns with it.
    pub fn in_week(&self, week: u8) -> &Self {
        self.in_turn.as_deref().filter(|_| BlockWeek::turned(week)).unwrap_or(self)
    }

    /// All that its card says, how to get into position first; a plan of before it was composed says the exercise's own
    /// sentences and the schools'.
    pub fn card_says(&self, atlas: &Atlas) -> Vec<String> {
        if !self.says.is_empty() {
            return self.says.clone();
        }
        let known = atlas.exercise(&self.exercise);
        let own = known.into_iter().flat_map(|known| std::iter::once(&known.set_up).chain(&known.cues));
        own.chain(&self.cues).cloned().collect()
    }

    /// The same item with another number of sets, as a later or a lighter week of the block has it: where sets differ the
    /// first and the last keep what is theirs.
    #[must_use]
    pub fn with_sets(&self, sets: u16) -> Self {
        let mut per_set = self.per_set.clone();
        let wanted = usize::from(sets);
        if wanted > 0 {
            while per_set.len() > wanted {
                // The last set says how it ends; of one set alone nothing else is left.
                per_set.remove(per_set.len().saturating_sub(2));
            }
        }
        while (1..wanted).contains(&per_set.len()) {
            let place = per_set.len().saturating_sub(2);
            per_set.insert(place, per_set[place].clone());
        }
        for (number, set) in (1..).zip(&mut per_set) {
            set.number = number;
        }
        Self { sets, per_set, ..self.clone() }
    }

    /// What the run of a session needs of it, with as many sets as a week of the block has.
    pub fn run_card(&self, sets: u16) -> RunCard {
        RunCard {
            work_s: vec![self.work_s; usize::from(sets)],
            rest_s: f64::from(self.rest_s),
            alone_s: f64::from(self.alone_s.unwrap_or(self.rest_s)),
            first: match self.sides {
                SidePlan::Both => None,
                SidePlan::LeftFirst => Some(Side::Left),
                SidePlan::RightFirst => Some(Side::Right),
            },
            extra: self.extra_sets_weaker,
            group: self.group.clone(),
        }
    }
}

pub(crate) fn item(position: usize, item: &Item) -> ItemEntry {
    let (reps, seconds) = match item.work {
        Work::Reps(range) => (Some(range), None),
        Work::Seconds(range) => (None, Some(range)),
    };
    ItemEntry {
        exercise: item.exercise.clone(),
        name: item.name.clone(),
        region: item.region.clone(),
        sets: item.sets,
        reps,
        seconds,
        reserve: item.reserve,
        rest_s: item.rest_s,
        alone_s: item.alone_s,
        scheme: item.scheme.clone(),
        scheme_chosen: item.scheme_chosen,
        order: position + 1,
        sides: item.sides,
        extra_sets_weaker: item.extra_sets_weaker,
        warm_up: item.warm_up.clone(),
        cues: item.cues.clone(),
        says: item.says.clone(),
        why: item.why.clone(),
        locked: item.locked,
        minutes: item.minutes,
        progression: item.progression.clone(),
        group: item.group.clone(),
        per_set: item.per_set.clone(),
        work_s: item.work_s,
        tempo: item.tempo,
        load_kg: item.load_kg,
        note: item.note.clone(),
        variant: item.variant.clone(),
        set_up: item.set_up.clone(),
        in_turn: item.in_turn.as_ref().map(|other| Box::new(self::item(position, other))),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::{CaseFile, plan_file};
    use assess::{Knowledge, assess};
    use plan::{Card, Draft, PlanProblem, present_draft};
    use rstest::{fixture, rstest};

    const EXAMPLE: &str = include_str!("../../../docs/examples/case.json");

    /// A card of three sets that end in a drop.
    #[fixture]
    fn dropped() -> ItemEntry {
        let knowledge = Knowledge::load().unwrap();
        let case = CaseFile::parse(EXAMPLE).unwrap().resolve(&knowledge.atlas).unwrap();
        let problem = PlanProblem::new(&knowledge, &case, &assess(&knowledge, &case));
        let scheme = knowledge.atlas.scheme("drop").unwrap().clone();
        let mut sessions = vec![Vec::new(); problem.days.len()];
        sessions[0] = vec![Card { scheme, ..Card::usual(&problem, 0, 3) }];
        let plan = present_draft(&problem, &Draft { sessions });
        plan_file(&plan, &[], None, 0.0).sessions[0].items[0].clone()
    }

    #[rstest]
    #[case::the_first(1, false)]
    #[case::the_second(2, true)]
    #[case::past_the_block(9, false)]
    #[case::past_the_block_it_goes_on(10, true)]
    fn what_takes_turns_stands_there_in_every_second_week(
        dropped: ItemEntry,
        #[case] week: u8,
        #[case] is_other: bool,
    ) {
        let other = ItemEntry { exercise: "rope-pronation".parse().unwrap(), ..dropped.clone() };
        let both = ItemEntry { in_turn: Some(Box::new(other)), ..dropped };
        assert_eq!(both.in_week(week).exercise.as_str() == "rope-pronation", is_other);
    }

    #[rstest]
    #[case::fewer(2)]
    #[case::one(1)]
    #[case::more(5)]
    fn another_number_of_sets_ends_as_before(dropped: ItemEntry, #[case] sets: u16) {
        let other = dropped.with_sets(sets);
        assert_eq!(other.per_set.len(), usize::from(sets));
        let parts: Vec<usize> = other.per_set.iter().map(|set| set.parts.len()).collect();
        assert!(parts.iter().rev().skip(1).all(|parts| *parts == 0) && parts.last() == Some(&1), "{parts:?}");
        assert_eq!(other.per_set.last().unwrap().number, sets);
    }
}
