//! Fills the week: the best addition again and again, then exchanges while they help.
//!
//! A first planner: every hard rule holds, and no single addition, removal or exchange would make the week better. How far
//! that is from the best possible week is not known here (docs/decisions/0004-first-planner.md).

use crate::cost::cost;
use crate::problem::PlanProblem;
use crate::rules::broken_while_building;
use crate::week::Week;

/// Sets of an exercise in one session.
const SETS_LOW: u16 = 2;
const SETS_HIGH: u16 = 5;
/// A gain smaller than this is rounding.
const GAIN: f64 = 1e-9;
/// Rounds of exchanges; each looks at every item and every candidate once.
const EXCHANGE_ROUNDS: usize = 4;

/// The week for a problem. Deterministic: the same problem gives the same week.
pub fn solve(problem: &PlanProblem) -> Week {
    let mut search = Search::new(problem);
    search.fill();
    for _ in 0..EXCHANGE_ROUNDS {
        let before = search.cost;
        search.prune();
        search.exchange();
        search.fill();
        if before - search.cost < GAIN {
            break;
        }
    }
    search.week
}

struct Search<'a> {
    problem: &'a PlanProblem,
    week: Week,
    cost: f64,
}

impl<'a> Search<'a> {
    fn new(problem: &'a PlanProblem) -> Self {
        let week = Week::empty(problem);
        let cost = cost(problem, &week);
        Self { problem, week, cost }
    }

    /// The cost with one cell changed, `None` when that breaks a rule.
    fn cost_with(&mut self, session: usize, candidate: usize, sets: u16) -> Option<f64> {
        let old = self.week.set(session, candidate, sets);
        let allowed = broken_while_building(self.problem, &self.week).is_empty();
        let cost = allowed.then(|| cost(self.problem, &self.week));
        self.week.set(session, candidate, old);
        cost
    }

    /// Adds the best set or exercise until nothing helps.
    fn fill(&mut self) {
        while let Some((session, candidate, sets, cost)) = self.best_addition() {
            self.week.set(session, candidate, sets);
            self.cost = cost;
        }
    }

    /// The addition that gains most per minute-like unit: per set added, so that pairs of sets do not win by size alone.
    fn best_addition(&mut self) -> Option<(usize, usize, u16, f64)> {
        let mut best: Option<(f64, (usize, usize, u16, f64))> = None;
        for session in 0..self.week.session_count() {
            for candidate in 0..self.problem.candidates.len() {
                let old = self.week.sets(session, candidate);
                let sets = if old == 0 { SETS_LOW } else { old + 1 };
                if sets > SETS_HIGH || !self.worthwhile(candidate) {
                    continue;
                }
                let Some(cost) = self.cost_with(session, candidate, sets) else { continue };
                let gain = (self.cost - cost) / f64::from(sets - old);
                if gain > GAIN && best.as_ref().is_none_or(|(most, _)| gain > *most) {
                    best = Some((gain, (session, candidate, sets, cost)));
                }
            }
        }
        best.map(|(_, addition)| addition)
    }

    /// Direct work is only for regions that are not held back.
    fn worthwhile(&self, candidate: usize) -> bool {
        let mains = self.problem.candidates[candidate].targets.iter().filter(|(_, f)| *f >= 1.0);
        mains.into_iter().all(|(demand, _)| self.problem.demands[*demand].dose.aim > 0.0)
    }

    /// Takes sets and whole exercises out where that helps.
    fn prune(&mut self) {
        for session in 0..self.week.session_count() {
            for (candidate, old) in self.week.items(session).to_vec() {
                let fewer = [0, old.saturating_sub(1)];
                for sets in fewer.into_iter().filter(|sets| *sets < old && (*sets == 0 || *sets >= SETS_LOW)) {
                    if let Some(cost) = self.cost_with(session, candidate, sets)
                        && self.cost - cost > GAIN
                    {
                        self.week.set(session, candidate, sets);
                        self.cost = cost;
                        break;
                    }
                }
            }
        }
    }

    /// Puts another exercise in an item's place where that helps.
    fn exchange(&mut self) {
        for session in 0..self.week.session_count() {
            let items = self.week.items(session).to_vec();
            for (item, sets) in items {
                self.exchange_item(session, item, sets);
            }
        }
    }

    fn exchange_item(&mut self, session: usize, item: usize, sets: u16) {
        self.week.set(session, item, 0);
        let mut best = (self.cost - GAIN, item);
        for other in 0..self.problem.candidates.len() {
            if self.week.sets(session, other) > 0 || other == item || !self.worthwhile(other) {
                continue;
            }
            if let Some(cost) = self.cost_with(session, other, sets)
                && cost < best.0
            {
                best = (cost, other);
            }
        }
        self.week.set(session, best.1, sets);
        if best.1 != item {
            self.cost = best.0;
        }
    }
}
