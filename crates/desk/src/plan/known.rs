//! Weeks that were solved and bounds that were proven before.

use crate::memo::Memo;
use crate::workshop::Workshop;
use plan::{Effort, Locks, PlanProblem, Proof, Week, solve_around};
use std::sync::Arc;
use std::sync::atomic::{AtomicU64, Ordering};
use units::RoundId;

/// Weeks and bounds kept at most: those of a few hundred clients.
const KEPT: u64 = 512;
/// Rounds of which it is known when something was proven.
const ROUNDS: u64 = 8192;

/// Weeks solved so far: a search takes a third of a second, and the same problem gives the same week.
#[derive(Clone)]
pub(crate) struct Solved {
    /// By the model that was searched.
    weeks: Memo<u64, Week, ()>,
    workshop: Workshop,
}

impl Solved {
    /// None so far; searches are made in a workshop.
    pub fn in_workshop(workshop: Workshop) -> Self {
        Self { weeks: Memo::of(KEPT), workshop }
    }

    /// The planner's own week.
    pub fn of(&self, problem: &PlanProblem) -> Arc<Week> {
        let search = || solve_around(problem, Effort::usual(problem), &Locks::default());
        let key = problem.model_key();
        let Ok(week) = self.weeks.get(&key, (), || Ok::<_, std::convert::Infallible>(self.workshop.with(search)));
        week
    }
}

/// Bounds proven so far. A bound is one of the problem, not of a week: it holds for every week a coach bends.
#[derive(Clone)]
pub(crate) struct Proofs {
    /// By the model of which they are.
    bounds: Memo<u64, Proof, ()>,
    /// When something was last proven of a round's week, counted over all.
    rounds: Memo<RoundId, u64, ()>,
    count: Arc<AtomicU64>,
}

impl Default for Proofs {
    fn default() -> Self {
        Self { bounds: Memo::of(KEPT), rounds: Memo::of(ROUNDS), count: Arc::default() }
    }
}

impl Proofs {
    /// What is known for a week of a problem.
    pub fn of(&self, problem: &PlanProblem, objective: f64) -> Option<Proof> {
        let ((), proof) = self.bounds.find(&problem.model_key())?;
        Some(Proof { bound: proof.bound.min(objective), objective, ..*proof })
    }

    /// Grows with every proof of a round's week.
    pub fn of_round(&self, round_id: &RoundId) -> u64 {
        self.rounds.find(round_id).map_or(0, |((), count)| *count)
    }

    /// Keeps a bound when it is higher than what was known.
    pub fn keep(&self, round_id: &RoundId, problem: &PlanProblem, proof: Proof) {
        let key = problem.model_key();
        let lower = |known: &Proof| known.bound < proof.bound || proof.finished;
        if self.bounds.find(&key).is_none_or(|((), known)| lower(&known)) {
            self.bounds.keep(key, (), proof);
        }
        let count = self.count.fetch_add(1, Ordering::AcqRel) + 1;
        self.rounds.keep(round_id.clone(), (), count);
    }
}
