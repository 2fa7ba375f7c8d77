//! How an exercise is done where the coach writes nothing: in the scheme of the coach's school. What its sets count as and how
//! long they take is the same once for every day it is done on, and then so much for every set: the search, the bound and the
//! exported model take it from here.

use crate::card::Card;
use crate::problem::PlanProblem;
use crate::run::stepped_s;
use crate::timing::straight_s;
use atlas::{STRAIGHT, Scheme};

/// So much once, and so much for every set.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct PerSet {
    /// On every day it is done.
    pub once: f64,
    /// For every set.
    pub a_set: f64,
}

impl PerSet {
    /// What so many sets come to.
    pub fn of(self, sets: u16) -> f64 {
        if sets == 0 { 0.0 } else { self.once + f64::from(sets) * self.a_set }
    }

    /// From what two sets and three come to: fewer are not planned.
    fn through(two: f64, three: f64) -> Self {
        let a_set = three - two;
        Self { once: two - 2.0 * a_set, a_set }
    }
}

/// How an exercise is usually done.
#[derive(Clone, Debug, PartialEq)]
pub struct Usual {
    /// The scheme.
    pub scheme: Scheme,
    /// Hard sets it counts as.
    pub counts: PerSet,
    /// Time with setting up, s.
    pub seconds: PerSet,
}

impl Usual {
    /// Sets in a scheme, before it is known what they count as and take.
    pub(crate) fn in_scheme(scheme: Scheme) -> Self {
        Self { scheme, counts: PerSet { once: 0.0, a_set: 1.0 }, seconds: PerSet::default() }
    }

    /// Whether all its sets are alike and count one each.
    pub(crate) fn is_straight(&self) -> bool {
        self.scheme.id == STRAIGHT
    }
}

/// What the sets of every candidate count as and take.
pub(crate) fn settle(problem: &mut PlanProblem) {
    for candidate in 0..problem.candidates.len() {
        let (counts, seconds) = per_set(problem, candidate);
        let usual = &mut problem.candidates[candidate].usual;
        (usual.counts, usual.seconds) = (counts, seconds);
    }
}

fn per_set(problem: &PlanProblem, candidate: usize) -> (PerSet, PerSet) {
    let of = &problem.candidates[candidate];
    if of.usual.is_straight() {
        return (PerSet { once: 0.0, a_set: 1.0 }, straight_s(of));
    }
    let [two, three] = [2, 3].map(|sets| Card::usual(problem, candidate, sets));
    let seconds = |card: &Card| stepped_s(problem, std::slice::from_ref(card))[0];
    (PerSet::through(two.counted(problem), three.counted(problem)), PerSet::through(seconds(&two), seconds(&three)))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::tests::{candidate, problem};
    use crate::timing::card_minutes;
    use rstest::rstest;
    use serde_json::json;

    fn taught(school: &str, answer: &str) -> PlanProblem {
        problem(&json!({"schools": {school: answer}}))
    }

    // Common practice, no source.
    #[rstest]
    #[case::a_top_set_and_a_lighter_one("effort", "top-set", "bench-press", "ramp-top", &[(2, 1.5), (4, 1.5)])]
    #[case::what_is_no_compound_stays("effort", "top-set", "db-curl", "straight", &[(2, 2.0), (3, 3.0)])]
    #[case::nor_has_the_body_s_own_weight_a_ramp("effort", "top-set", "pushup", "straight", &[(3, 3.0)])]
    #[case::one_hard_set("hard_sets", "one", "db-curl", "ramp-top", &[(2, 1.5)])]
    #[case::lowering_alone_has_no_top_set("hard_sets", "one", "nordic-lowering", "straight", &[(2, 2.0)])]
    #[case::a_drop_at_the_end("past_failure", "drops", "leg-extension", "drop", &[(2, 2.5), (5, 5.5)])]
    #[case::partials_at_the_end("past_failure", "partials", "cable-curl", "partials", &[(2, 2.25), (3, 3.25)])]
    #[case::dumbbells_do_not_drop("past_failure", "drops", "db-curl", "straight", &[(3, 3.0)])]
    fn the_school_says_how_sets_are_done_and_they_count_as_the_scheme_has_it(
        #[case] school: &str,
        #[case] answer: &str,
        #[case] exercise: &str,
        #[case] scheme: &str,
        #[case] counted: &[(u16, f64)],
    ) {
        let problem = taught(school, answer);
        let place = candidate(&problem, exercise);
        let usual = &problem.candidates[place].usual;
        assert_eq!(usual.scheme.id, scheme);
        for (sets, expected) in counted {
            assert!((usual.counts.of(*sets) - expected).abs() < 1e-12, "{sets} sets");
            let card = Card::usual(&problem, place, *sets);
            assert!((card.counted(&problem) - expected).abs() < 1e-12, "{sets} sets on a card");
        }
    }

    #[rstest]
    #[case::ramped("effort", "top-set", "bench-press")]
    #[case::dropped_one_side_at_a_time("past_failure", "drops", "cable-rear-raise")]
    #[case::partials("past_failure", "partials", "leg-extension")]
    #[case::straight("effort", "near-failure", "back-squat")]
    fn a_card_as_usual_takes_what_its_steps_take(#[case] school: &str, #[case] answer: &str, #[case] exercise: &str) {
        let problem = taught(school, answer);
        let place = candidate(&problem, exercise);
        for sets in 2..=5 {
            let usual = Card::usual(&problem, place, sets);
            let stepped = stepped_s(&problem, std::slice::from_ref(&usual))[0];
            assert!((problem.candidates[place].usual.seconds.of(sets) - stepped).abs() < 1e-9, "{sets} sets");
            assert!((card_minutes(&problem, &usual) * 60.0 - stepped).abs() < 1e-9, "{sets} sets by the minute");
        }
    }

    #[test]
    fn a_beginner_gets_neither_top_sets_nor_drops() {
        let problem = problem(&json!({
            "experience": "beginner", "schools": {"effort": "top-set", "hard_sets": "one", "past_failure": "drops"}
        }));
        assert!(problem.candidates.iter().all(|candidate| candidate.usual.is_straight()));
    }
}
