//! A card: an exercise of a day, with what the coach wrote on it. What is not written is as the exercise, the scheme and the
//! school have it; [`Card::sets_planned`] is the one place that puts both together.

use crate::problem::{Candidate, PlanProblem};
use crate::timing::ItemTime;
use assess::Experience;
use atlas::{Effort, PartKind, PlannedPart, STRAIGHT, Scheme, Work};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use units::Side;
use utoipa::ToSchema;

/// Load along the spine from which no set is meant to end at failure: nobody can step out from under it.
const NEVER_FAILED_AXIAL: f64 = 1.0;
/// Technical work is not meant to end at failure either.
const TECHNICAL: u8 = 2;

/// What a coach wrote on a card.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Written {
    /// Repetitions, low and high.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub reps: Option<[u16; 2]>,
    /// Seconds under tension, low and high, in place of repetitions.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub seconds: Option<[u16; 2]>,
    /// Repetitions in reserve.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub reserve: Option<u8>,
    /// Rest after a set, s.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub rest_s: Option<u16>,
    /// Lowering, pause, lifting, pause, s.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tempo: Option<[u8; 4]>,
    /// Load of the first set, kg; under 0 it is assistance.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub load_kg: Option<f64>,
    /// The side that goes first, where sides take turns.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub first: Option<Side>,
    /// A sentence to the client.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub note: Option<String>,
    /// Which grip, path, station or kit of the exercise.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub variant: Option<String>,
    /// Numbers of the set-up by name, in the units of the names.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub set_up: BTreeMap<String, f64>,
    /// Set by set, where sets differ; a set beyond the last is as the scheme has it.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub per_set: Vec<SetWritten>,
}

/// What a coach wrote for one set.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SetWritten {
    /// Repetitions, low and high.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub reps: Option<[u16; 2]>,
    /// Seconds, low and high.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub seconds: Option<[u16; 2]>,
    /// Repetitions in reserve.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub reserve: Option<u8>,
    /// Load, % of the card's.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub load_pct: Option<u16>,
    /// What follows straight on it; none leaves what the scheme has.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub parts: Option<Vec<PlannedPart>>,
}

impl Written {
    /// Whether the coach left everything as it is.
    pub fn is_empty(&self) -> bool {
        *self == Self::default()
    }

    /// What still holds when another exercise takes the card: nothing that was said of the first.
    #[must_use]
    pub fn for_another_exercise(&self) -> Self {
        Self { rest_s: self.rest_s, reserve: self.reserve, ..Self::default() }
    }

    /// What still holds for another client: loads and set-ups are of one body.
    #[must_use]
    pub fn for_another_client(&self) -> Self {
        Self { load_kg: None, first: None, note: None, set_up: BTreeMap::new(), ..self.clone() }
    }
}

/// One exercise of a day.
#[derive(Clone, Debug, PartialEq)]
pub struct Card {
    /// Candidate index.
    pub candidate: usize,
    /// Sets.
    pub sets: u16,
    /// How they are done.
    pub scheme: Scheme,
    /// Whether solving must leave it as it is.
    pub locked: bool,
    /// The superset or giant set it is part of, a letter that neighbouring cards share.
    pub group: Option<String>,
    /// What the coach wrote on it.
    pub written: Written,
}

/// One set as it is planned.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct PlannedSet {
    /// From 1.
    pub number: u16,
    /// Repetitions, low and high.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub reps: Option<[u16; 2]>,
    /// Seconds, low and high, where repetitions are not counted.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub seconds: Option<[u16; 2]>,
    /// Repetitions in reserve: nothing left on purpose is no miss.
    pub reserve: u8,
    /// Load, % of the card's.
    pub load_pct: u16,
    /// What follows straight on it.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub parts: Vec<PlannedPart>,
}

impl PlannedSet {
    /// The range it is done in, repetitions or seconds.
    pub fn range(&self) -> [u16; 2] {
        self.reps.or(self.seconds).unwrap_or_default()
    }
}

impl Card {
    /// Sets as the coach's school has them, with nothing written.
    pub fn usual(problem: &PlanProblem, candidate: usize, sets: u16) -> Self {
        let scheme = problem.candidates[candidate].usual.scheme.clone();
        Self { candidate, sets, scheme, locked: false, group: None, written: Written::default() }
    }

    /// Whether it is as usual with nothing written: its time is that of its exercise.
    pub(crate) fn is_plain(&self, problem: &PlanProblem) -> bool {
        self.scheme.id == problem.candidates[self.candidate].usual.scheme.id && self.written.is_empty()
    }

    /// Repetitions or seconds of a set, where the sets do not differ.
    pub fn work(&self, candidate: &Candidate) -> Work {
        let timed = |s: f64| {
            // A scheme's seconds are a small whole number.
            #[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss)]
            let s = s as u16;
            Work::Seconds([s, s])
        };
        match (self.written.reps, self.written.seconds) {
            (_, Some(seconds)) => Work::Seconds(seconds),
            (Some(reps), None) => Work::Reps(reps),
            // A scheme by the clock counts no repetitions.
            (None, None) if self.scheme.id == BY_THE_CLOCK => {
                self.scheme.set_s.map_or_else(|| candidate.exercise.work(), timed)
            }
            (None, None) => candidate.exercise.work(),
        }
    }

    /// Repetitions in reserve of a usual set.
    pub fn reserve(&self, problem: &PlanProblem) -> u8 {
        self.written.reserve.unwrap_or(problem.reserve)
    }

    /// The side that goes first.
    pub fn first(&self, candidate: &Candidate) -> Side {
        self.written.first.unwrap_or(candidate.first)
    }

    /// Every set: what the scheme and the school make of it, with what the coach wrote laid over.
    pub fn sets_planned(&self, problem: &PlanProblem) -> Vec<PlannedSet> {
        let candidate = &problem.candidates[self.candidate];
        (1..=self.sets).map(|number| self.set_planned(problem, candidate, number)).collect()
    }

    fn set_planned(&self, problem: &PlanProblem, candidate: &Candidate, number: u16) -> PlannedSet {
        let written = self.written.per_set.get(usize::from(number) - 1).cloned().unwrap_or_default();
        let usual = self.written.reserve.unwrap_or_else(|| {
            let meant = self.scheme.fails.at(number, self.sets);
            match (meant, safe_to_fail(candidate)) {
                (true, true) => problem.last_reserve.unwrap_or(0),
                // As hard as it may be.
                (true, false) => problem.reserve.min(1),
                (false, _) if self.ends_at_nothing(problem, candidate, number) => problem.last_reserve.unwrap_or(0),
                (false, _) => problem.reserve,
            }
        });
        let (reps, seconds) = match (written.seconds, written.reps, self.work(candidate)) {
            (Some(seconds), ..) => (None, Some(seconds)),
            (None, Some(reps), _) => (Some(reps), None),
            (None, None, Work::Seconds(range)) => (None, Some(range)),
            (None, None, Work::Reps(range)) => (Some(self.falling(range, number)), None),
        };
        PlannedSet {
            number,
            reps,
            seconds,
            reserve: written.reserve.unwrap_or(usual),
            load_pct: written.load_pct.unwrap_or_else(|| self.load_pct(number)),
            parts: written.parts.unwrap_or_else(|| self.parts(problem, number).cloned().collect()),
        }
    }

    /// Whether the school lets a set end with nothing left: the last of straight sets, of what may safely be failed.
    fn ends_at_nothing(&self, problem: &PlanProblem, candidate: &Candidate, number: u16) -> bool {
        number == self.sets
            && self.sets > 1
            && self.scheme.id == STRAIGHT
            && problem.last_reserve.is_some()
            && problem.experience != Experience::Beginner
            && matches!(self.work(candidate), Work::Reps(_))
            && safe_to_fail(candidate)
    }

    /// Where loads rise from set to set, repetitions fall from the top of the range to its bottom.
    fn falling(&self, [low, high]: [u16; 2], number: u16) -> [u16; 2] {
        if self.scheme.rise_pct == 0 || self.sets < 2 {
            return [low, high];
        }
        let fall = (high - low) * (number - 1) / (self.sets - 1);
        [high - fall, high - fall]
    }

    fn load_pct(&self, number: u16) -> u16 {
        match self.scheme.back_off_pct {
            Some(pct) if number > 1 => pct,
            _ => 100 + self.scheme.rise_pct * (number - 1),
        }
    }

    fn parts<'a>(&'a self, problem: &'a PlanProblem, number: u16) -> impl Iterator<Item = &'a PlannedPart> {
        let last = if number == self.sets { self.scheme.last.as_slice() } else { &[] };
        self.scheme.every.iter().chain(last).map(|kind| &problem.part_rule(*kind).usual)
    }

    /// Hard sets it counts as, what follows on its sets included.
    pub fn counted(&self, problem: &PlanProblem) -> f64 {
        let counts = |part: &PlannedPart| problem.part_rule(part.kind).counts;
        let of =
            |number: u16| match self.written.per_set.get(usize::from(number) - 1).and_then(|set| set.parts.as_ref()) {
                Some(written) => written.iter().map(counts).sum::<f64>(),
                None => self.parts(problem, number).map(counts).sum(),
            };
        // A whole board is counted at every edit: sets without parts are not looked at one by one.
        let plain = self.scheme.last.is_empty() && self.scheme.every.is_empty() && self.written.per_set.is_empty();
        let parts = if plain { 0.0 } else { (1..=self.sets).map(of).sum() };
        self.scheme.counted(self.sets) + parts
    }

    /// Work of one set, one side, with what follows on it, s.
    pub fn set_work_s(&self, problem: &PlanProblem, set: &PlannedSet) -> f64 {
        let candidate = &problem.candidates[self.candidate];
        let parts: f64 = set.parts.iter().map(|part| problem.part_rule(part.kind).adds_s).sum();
        let [low, high] = set.range().map(f64::from);
        let middle = f64::midpoint(low, high);
        let work = match (set.seconds, self.scheme.set_s) {
            (Some(_), _) => middle,
            // What the scheme takes holds for the exercise's own range.
            (None, Some(s)) if self.written.reps.is_none() => s,
            (None, _) => middle * self.rep_s(candidate),
        };
        work + parts
    }

    fn rep_s(&self, candidate: &Candidate) -> f64 {
        let paced = self.written.tempo.map(|tempo| tempo.iter().map(|s| f64::from(*s)).sum::<f64>());
        paced.filter(|s| *s > 0.0).unwrap_or_else(|| ItemTime::rep_s(&candidate.exercise))
    }

    /// Whether what follows on a set takes the place of its rest.
    pub fn carries(&self, set: &PlannedSet) -> bool {
        set.parts.iter().any(|part| part.kind == PartKind::Carry)
    }
}

/// Whether a set of an exercise may be meant to end at failure.
fn safe_to_fail(candidate: &Candidate) -> bool {
    let exercise = &candidate.exercise;
    // Under a bar nobody fails alone.
    let bar = exercise.effort == Effort::Compound && exercise.equipment.iter().any(|item| item.as_str() == "barbell");
    exercise.axial < NEVER_FAILED_AXIAL && exercise.skill < TECHNICAL && !bar
}

/// The scheme of sets by the clock.
const BY_THE_CLOCK: &str = "timed";

#[cfg(test)]
mod tests {
    use super::*;
    use crate::tests::{candidate, problem};
    use atlas::Atlas;
    use rstest::rstest;
    use serde_json::json;

    fn card(problem: &PlanProblem, exercise: &str, sets: u16, scheme: &str) -> Card {
        let scheme = Atlas::load().unwrap().scheme(scheme).unwrap().clone();
        Card { scheme, ..Card::usual(problem, candidate(problem, exercise), sets) }
    }

    fn reserves(sets: &[PlannedSet]) -> Vec<u8> {
        sets.iter().map(|set| set.reserve).collect()
    }

    // Common practice, no source.
    #[rstest]
    #[case::a_curl_ends_at_nothing("intermediate", "db-curl", &[1, 1, 0])]
    #[case::nor_what_is_pressed_alone_under_a_bar("intermediate", "bench-press", &[1, 1, 1])]
    #[case::a_squat_never_does("intermediate", "back-squat", &[1, 1, 1])]
    #[case::nor_does_a_beginner("beginner", "db-curl", &[2, 2, 2])]
    fn the_last_set_leaves_nothing_where_that_is_safe(
        #[case] experience: &str,
        #[case] exercise: &str,
        #[case] expected: &[u8],
    ) {
        let problem = problem(&json!({"experience": experience}));
        assert_eq!(reserves(&card(&problem, exercise, 3, "straight").sets_planned(&problem)), expected);
    }

    // Common practice, no source.
    #[rstest]
    #[case::a_top_set_of_curls("db-curl", "ramp-top", &[0, 1, 1])]
    #[case::of_squats_leaves_one("back-squat", "ramp-top", &[1, 1, 1])]
    #[case::so_does_a_press_under_a_bar_before_its_drop("bench-press", "drop", &[1, 1, 1])]
    fn what_is_meant_to_fail_leaves_one_where_nobody_may(
        #[case] exercise: &str,
        #[case] scheme: &str,
        #[case] expected: &[u8],
    ) {
        let problem = problem(&json!({}));
        assert_eq!(reserves(&card(&problem, exercise, 3, scheme).sets_planned(&problem)), expected);
    }

    // Common practice, no source.
    #[rstest]
    #[case::rising_loads("reverse-load", &[100, 105, 110])]
    #[case::a_top_set_and_back_offs("ramp-top", &[100, 85, 85])]
    #[case::alike("straight", &[100, 100, 100])]
    fn a_scheme_sets_the_loads(#[case] scheme: &str, #[case] expected: &[u16]) {
        let problem = problem(&json!({}));
        let sets = card(&problem, "db-curl", 3, scheme).sets_planned(&problem);
        assert_eq!(sets.iter().map(|set| set.load_pct).collect::<Vec<_>>(), expected);
    }

    #[test]
    fn where_loads_rise_repetitions_fall_from_top_to_bottom() {
        let problem = problem(&json!({}));
        let card = card(&problem, "bench-press", 3, "reverse-load");
        let [low, high] = problem.candidates[card.candidate].exercise.reps.unwrap();
        let ranges: Vec<_> = card.sets_planned(&problem).iter().map(PlannedSet::range).collect();
        assert_eq!((ranges[0], ranges[2]), ([high, high], [low, low]));
    }

    #[test]
    fn what_is_written_for_a_set_goes_before_the_scheme() {
        let problem = problem(&json!({}));
        let mut card = card(&problem, "db-curl", 3, "drop");
        card.written.reserve = Some(2);
        card.written.per_set = vec![SetWritten { reps: Some([6, 6]), reserve: Some(1), ..SetWritten::default() }];
        let sets = card.sets_planned(&problem);
        assert_eq!((sets[0].reps, reserves(&sets)), (Some([6, 6]), vec![1, 2, 2]));
        assert_eq!(sets[2].parts[0].kind, PartKind::Drop);
    }

    // Common practice, no source: drop +.5, partials +.25, rest-pause +.5, hold +.25.
    #[rstest]
    #[case::a_drop("drop", 3.5)]
    #[case::partials("partials", 3.25)]
    #[case::rest_pause("rest-pause", 3.5)]
    #[case::a_hold("hold", 3.25)]
    #[case::straight("straight", 3.0)]
    fn what_follows_on_a_set_counts_beside_it(#[case] scheme: &str, #[case] expected: f64) {
        let problem = problem(&json!({}));
        assert!((card(&problem, "db-curl", 3, scheme).counted(&problem) - expected).abs() < 1e-12);
    }

    #[rstest]
    #[case::slow([4, 1, 1, 0], 6.0)]
    #[case::nothing_written_by_the_clock([0, 0, 0, 0], 4.0)]
    fn a_written_pace_sets_the_time_of_a_repetition(#[case] tempo: [u8; 4], #[case] rep_s: f64) {
        let problem = problem(&json!({}));
        let mut card = card(&problem, "db-curl", 1, "straight");
        card.written = Written { tempo: Some(tempo), reps: Some([10, 10]), ..Written::default() };
        let set = &card.sets_planned(&problem)[0];
        assert!((card.set_work_s(&problem, set) - 10.0 * rep_s).abs() < 1e-9);
    }

    #[test]
    fn another_client_gets_neither_loads_nor_set_ups() {
        let written = Written {
            rest_s: Some(90),
            load_kg: Some(40.0),
            set_up: BTreeMap::from([("bench_deg".to_owned(), 30.0)]),
            note: Some("mind the elbow".into()),
            ..Written::default()
        };
        assert_eq!(written.for_another_client(), Written { rest_s: Some(90), ..Written::default() });
    }
}
