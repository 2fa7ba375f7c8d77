//! How far from the best possible a week is: a lower bound of the objective that no week can go under.
//!
//! The week is relaxed to what it adds up to ([`weekly`]): sets of an exercise, days it is done on, minutes. Every week of the
//! full model is one of these sums at the same cost, so the least cost of the sums is a bound. Branch and bound by `microlp`,
//! in short steps, so that a caller can show how the bound rises and stop it.

mod key;
mod weekly;

use crate::cost::cost;
use crate::problem::PlanProblem;
use crate::week::Week;
use microlp::{ResumeOptions, SolveOptions, SolveOutcome};
use weekly::Weekly;

/// Nodes solved between two looks at whether to go on.
const NODES_A_STEP: u64 = 8;
/// A gap that the tolerance alone makes.
const BEST: f64 = 1e-5;
/// Taken off the bound for what the solver's own tolerances may add to it.
const TOLERANCE: f64 = 1e-5;

/// What is proven so far.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Proof {
    /// No week costs less than this.
    pub bound: f64,
    /// What the week in hand costs.
    pub objective: f64,
    /// Nodes solved.
    pub nodes: u64,
    /// Whether more work would raise the bound no further.
    pub finished: bool,
}

impl Proof {
    /// Whether no week costs less than this one.
    pub fn is_best(&self) -> bool {
        self.gap() < BEST
    }

    /// How far the week may be from the best possible, relative to its cost; 0 when it is proven best.
    pub fn gap(&self) -> f64 {
        if self.objective.abs() < f64::EPSILON {
            return 0.0;
        }
        ((self.objective - self.bound) / self.objective.abs()).max(0.0)
    }
}

/// Raises the bound for a week until nothing more can be proven or `go_on`, asked every few nodes, says no. `None` when
/// the solver gave no bound at all.
pub fn prove(problem: &PlanProblem, week: &Week, mut go_on: impl FnMut(&Proof) -> bool) -> Option<Proof> {
    let weekly = Weekly::new(problem);
    let objective = cost(problem, week);
    let mut options = SolveOptions::default();
    options.node_limit = Some(1);
    options.warm_start = Some(weekly.sums_of(problem, week));
    let mut step = ResumeOptions::default();
    step.node_limit = Some(NODES_A_STEP);
    let mut outcome = weekly.model.solve_with(options).ok()?;
    let mut best: Option<Proof> = None;
    loop {
        let finished = outcome.is_optimal();
        best = proof(&outcome, objective, finished).or(best);
        match best {
            Some(proof) if finished || proof.gap() <= 0.0 || !go_on(&proof) => return Some(proof),
            None if finished => return None,
            _ => {}
        }
        // What was proven stays proven when the solver gives up.
        outcome = match outcome.resume_with(step.clone()) {
            Ok(next) => next,
            Err(_) => return best.map(|proof| Proof { finished: true, ..proof }),
        };
    }
}

/// The least that the sums of a week cost: what the bound takes that very week for.
#[cfg(test)]
pub(crate) fn relaxed_cost(problem: &PlanProblem, week: &Week) -> f64 {
    let mut weekly = Weekly::new(problem);
    for (variable, value) in weekly.sums_of(problem, week) {
        weekly.model.add_constraint([(variable, 1.0)], microlp::ComparisonOp::Eq, value);
    }
    weekly
        .model
        .solve()
        .ok()
        .and_then(|found| Some(found.solution()?.objective()))
        .expect("the sums of a week that keeps the rules")
}

fn proof(outcome: &SolveOutcome, objective: f64, finished: bool) -> Option<Proof> {
    let stats = outcome.stats();
    let bound = stats.best_bound? - TOLERANCE;
    // A bound above the week would mean a week that breaks rules; it proves nothing more than the week itself.
    Some(Proof { bound: bound.min(objective), objective, nodes: stats.nodes_solved, finished })
}
