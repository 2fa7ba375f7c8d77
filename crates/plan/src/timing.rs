//! How long a set, an exercise and a session take. Common practice, no source.

use crate::card::Card;
use crate::pairs::saved_s;
use crate::problem::{Candidate, PlanProblem};
use crate::run::cards_s;
use crate::usual::PerSet;
use atlas::{Effort, Exercise, Work};

/// Setting up an exercise, s; with body weight or a band there is nothing to load.
const SET_UP_S: f64 = 60.0;
const LIGHT_SET_UP_S: f64 = 30.0;
/// Load along the spine from which a compound rests longest.
const HEAVY_AXIAL: f64 = 2.0;
/// Warming up before a session, ramp sets included, s.
pub(crate) const WARM_UP_S: f64 = 300.0;
/// A repetition of a compound and of anything else, s.
const COMPOUND_REP_S: f64 = 3.0;
const OTHER_REP_S: f64 = 4.0;

/// Work and rest of one set.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct ItemTime {
    /// Under tension, one side, s.
    pub work_s: f64,
    /// Rest after it, s.
    pub rest_s: u16,
    /// Setting up, once, s.
    pub set_up_s: f64,
}

impl ItemTime {
    /// The time of one set of `exercise`.
    pub fn of(exercise: &Exercise) -> Self {
        let rep_s = Self::rep_s(exercise);
        let work_s = match exercise.work() {
            Work::Reps([low, high]) => f64::midpoint(f64::from(low), f64::from(high)) * rep_s,
            Work::Seconds([low, high]) => f64::midpoint(f64::from(low), f64::from(high)),
        };
        let light = exercise.equipment.iter().all(|item| matches!(item.as_str(), "bodyweight" | "band"));
        Self { work_s, rest_s: rest_s(exercise), set_up_s: if light { LIGHT_SET_UP_S } else { SET_UP_S } }
    }

    /// With another rest, where a school has one.
    #[must_use]
    pub(crate) fn rested(self, rest_s: Option<u16>) -> Self {
        Self { rest_s: rest_s.unwrap_or(self.rest_s), ..self }
    }

    /// A repetition at the usual pace, s.
    pub(crate) fn rep_s(exercise: &Exercise) -> f64 {
        if exercise.effort == Effort::Compound { COMPOUND_REP_S } else { OTHER_REP_S }
    }

    /// One set with its rest, s. One side at a time, the other side's work counts as rest: `work + max(work, rest)`.
    pub fn set_s(self, one_sided: bool) -> f64 {
        let rest = f64::from(self.rest_s);
        if one_sided { self.work_s + self.work_s.max(rest) } else { self.work_s + rest }
    }
}

fn rest_s(exercise: &Exercise) -> u16 {
    let on_cable = exercise.equipment.iter().any(|e| matches!(e.as_str(), "cable" | "dual-cable"));
    let triceps = exercise.targets.iter().any(|(r, f)| *f >= 1.0 && r.muscle() == "triceps");
    match exercise.effort {
        Effort::Compound if exercise.axial >= HEAVY_AXIAL => 150,
        Effort::Compound if exercise.heavy() => 120,
        Effort::Isolation if on_cable && triceps => 45,
        Effort::Compound | Effort::Isolation => 75,
        Effort::Small => 60,
    }
}

/// Straight sets of a candidate, setting up and the weaker side's extra sets included, s.
pub(crate) fn straight_s(candidate: &Candidate) -> PerSet {
    PerSet { once: candidate.time.set_up_s + candidate.extra_set_s(), a_set: candidate.time.set_s(candidate.one_sided) }
}

/// Minutes of `sets` sets of a candidate as it is usually done, setting up included.
pub fn item_minutes(candidate: &Candidate, sets: u16) -> f64 {
    candidate.usual.seconds.of(sets) / 60.0
}

/// Rest after a set on the way up, s.
pub(crate) const RAMP_REST_S: f64 = 60.0;

/// Minutes of a card that stands by itself.
pub fn card_minutes(problem: &PlanProblem, card: &Card) -> f64 {
    cards_s(problem, std::slice::from_ref(card)).iter().sum::<f64>() / 60.0
}

/// Minutes of a session given its cards in order.
pub fn cards_minutes(problem: &PlanProblem, cards: &[Card]) -> f64 {
    let work_s: f64 = cards_s(problem, cards).iter().sum();
    if work_s > 0.0 { (work_s + WARM_UP_S) / 60.0 } else { 0.0 }
}

/// Minutes of a session given its `(candidate, sets)`, pairs in turns; an empty session takes none.
pub fn session_minutes(problem: &PlanProblem, items: &[(usize, u16)]) -> f64 {
    let work: f64 = items.iter().map(|(candidate, sets)| item_minutes(&problem.candidates[*candidate], *sets)).sum();
    if work > 0.0 { work - saved_s(problem, items) / 60.0 + WARM_UP_S / 60.0 } else { 0.0 }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case::both_sides_together(false, 40.0, 60, 100.0)]
    #[case::the_other_side_works_while_one_rests(true, 40.0, 60, 100.0)]
    #[case::long_sets_rest_longer_than_asked(true, 80.0, 60, 160.0)]
    fn one_sided_work_needs_no_extra_rest(
        #[case] one_sided: bool,
        #[case] work_s: f64,
        #[case] rest_s: u16,
        #[case] expected: f64,
    ) {
        assert!((ItemTime { work_s, rest_s, set_up_s: 60.0 }.set_s(one_sided) - expected).abs() < 1e-12);
    }
}
