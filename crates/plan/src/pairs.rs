//! Exercises that go well one straight into the other and are run in turns where a day has both: what that saves in time. Each
//! exercise is in one pair at most, so that a day's time is the sum of its exercises less what each pair of it saves.

use crate::card::Card;
use crate::problem::PlanProblem;
use crate::run::stepped_s;
use atlas::Atlas;

/// Two candidates that are run in turns.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Pair {
    /// Candidate indices, in the order in which they are done.
    pub of: [usize; 2],
    /// What every round of both saves against one after the other, s.
    pub saves_s: f64,
}

impl Pair {
    /// What so many sets of each save on a day, s: as many rounds as both have sets for.
    pub fn saved_s(&self, sets: [u16; 2]) -> f64 {
        self.saves_s * f64::from(sets[0].min(sets[1]))
    }

    /// The other of the two.
    pub fn partner(&self, candidate: usize) -> Option<usize> {
        let [one, other] = self.of;
        if candidate == one { Some(other) } else { (candidate == other).then_some(one) }
    }
}

/// The pairs of the catalogue that the client may do, where the school runs pairs at all: an exercise stays with the first that
/// names it. What ends its last set in a way of its own is not run in turns.
pub(crate) fn found(atlas: &Atlas, problem: &PlanProblem) -> Vec<Pair> {
    let mut found: Vec<Pair> = Vec::new();
    if !problem.runs_pairs {
        return found;
    }
    for pairing in atlas.pairings() {
        let places: Option<Vec<usize>> = pairing.exercises.iter().map(|id| problem.place_of(id)).collect();
        let Some(&[one, other]) = places.as_deref() else { continue };
        let able = |place: usize| {
            let candidate = &problem.candidates[place];
            candidate.refused.is_none() && candidate.usual.is_straight() && problem.worth_doing(candidate)
        };
        let free = |place: usize| found.iter().all(|pair| !pair.of.contains(&place));
        if [one, other].into_iter().all(|place| able(place) && free(place)) {
            let saves_s = saves_s(problem, one, other);
            if saves_s > 0.0 {
                found.push(Pair { of: [one, other], saves_s });
            }
        }
    }
    found
}

/// What a round of both saves, by their steps.
fn saves_s(problem: &PlanProblem, one: usize, other: usize) -> f64 {
    let together = |sets: u16| {
        let card = |place: usize| Card { group: Some("A".to_owned()), ..Card::usual(problem, place, sets) };
        stepped_s(problem, &[card(one), card(other)]).iter().sum::<f64>()
    };
    let alone = |place: usize| problem.candidates[place].usual.seconds.a_set;
    alone(one) + alone(other) - (together(3) - together(2))
}

/// What the pairs of a day save, s.
pub(crate) fn saved_s(problem: &PlanProblem, items: &[(usize, u16)]) -> f64 {
    let sets = |candidate: usize| items.iter().find(|(c, _)| *c == candidate).map_or(0, |(_, sets)| *sets);
    problem.pairs.iter().map(|pair| pair.saved_s(pair.of.map(sets))).sum()
}
