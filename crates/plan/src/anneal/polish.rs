//! From a good week to one that no step and no two steps together make better.

use super::moves::{Move, around, everywhere};
use super::weigh::Change;
use super::{NOTHING, Search};

/// Single steps, best first, that are tried two by two.
const PAIRED: usize = 250;
/// Two steps whose ranks come to more are not tried: none of them made any of twenty weeks better.
const RANKS_MOST: f64 = 3.0;
/// Steps taken at most: a descent has come to its end long before.
const STEPS: usize = 200;

/// Price of a minute when steps are ranked, at most.
const PRICE_MOST: f64 = 1.0;

impl Search<'_> {
    /// From the best week, the best step again and again; where none helps, the best two together.
    pub(super) fn polish(&mut self) {
        self.restart();
        for _ in 0..STEPS {
            let steps = self.weighed_steps();
            let better = |cost: f64| cost < self.state.cost - NOTHING;
            let single = steps.iter().filter(|step| better(step.after)).min_by(|a, b| a.after.total_cmp(&b.after));
            let changes = match single {
                Some(step) => Some(step.changes.clone()),
                None => self.best_two(steps),
            };
            let Some(changes) = changes else { break };
            for (session, candidate, sets) in changes {
                self.state.change(self.model, session, candidate, sets);
            }
        }
        self.best.clone_from(&self.state.sets);
        self.best_cost = self.state.cost;
    }

    fn weighed_steps(&mut self) -> Vec<WeighedStep> {
        let mut moves: Vec<Move> = Vec::new();
        for session in 0..self.model.sessions {
            around(self.model, &self.state, session, &mut moves);
        }
        everywhere(self.model, &self.state, &mut moves);
        moves.into_iter().map(|step| self.weighed(&step)).collect()
    }

    fn weighed(&mut self, step: &Move) -> WeighedStep {
        let mut changes = Vec::new();
        step.changes(self.model, &self.state, &mut changes);
        let weighed = self.state.weigh(self.model, &changes, &mut self.scratch);
        let rank = weighed.cost
            + self.prices.minute.min(PRICE_MOST) * weighed.minutes
            + f64::from(weighed.broken + weighed.tired + weighed.over_loads + weighed.crowded);
        WeighedStep { after: self.after(&weighed), rank, changes }
    }

    /// The best two steps that make the week better together.
    fn best_two(&mut self, mut steps: Vec<WeighedStep>) -> Option<Vec<Change>> {
        steps.sort_by(|a, b| a.rank.total_cmp(&b.rank));
        steps.truncate(PAIRED);
        let mut best: Option<(f64, Vec<Change>)> = None;
        let mut both = Vec::new();
        for (place, one) in steps.iter().enumerate() {
            for other in &steps[place + 1..] {
                if one.rank + other.rank > RANKS_MOST {
                    break;
                }
                let touches = |a: &Change| one.changes.iter().any(|b| (a.0, a.1) == (b.0, b.1));
                if other.changes.iter().any(touches) {
                    continue;
                }
                both.clear();
                both.extend(one.changes.iter().chain(&other.changes));
                let mut weighed = self.state.weigh_work(self.model, &both, &mut self.scratch);
                let least = best.as_ref().map_or(self.state.cost - NOTHING, |(cost, _)| *cost);
                if self.after(&weighed) - self.state.owed >= least {
                    continue;
                }
                self.state.weigh_rules(self.model, &both, &mut self.scratch, &mut weighed);
                let cost = self.after(&weighed);
                if cost < least && self.leaves_room(&both) {
                    best = Some((cost, both.clone()));
                }
            }
        }
        best.map(|(_, changes)| changes)
    }

    /// Whether two steps, each of which leaves room, leave room together.
    fn leaves_room(&mut self, changes: &[Change]) -> bool {
        let old: Vec<Change> = changes.iter().map(|&(s, c, _)| (s, c, self.state.of(self.model, s, c))).collect();
        let set = |state: &mut super::State, changes: &[Change]| {
            for &(session, candidate, sets) in changes {
                state.change(self.model, session, candidate, sets);
            }
        };
        set(&mut self.state, changes);
        let kept = self.state.broken <= self.given.rules;
        set(&mut self.state, &old);
        kept
    }
}

struct WeighedStep {
    /// What the week would cost; infinite where a rule would be broken.
    after: f64,
    /// By which the steps to be tried two by two are chosen.
    rank: f64,
    changes: Vec<Change>,
}

#[cfg(test)]
mod tests {
    use super::super::{HOT, Model, WARM};
    use super::*;
    use crate::draft::Locks;
    use crate::rules::broken_while_building;
    use crate::tests::problem;
    use rand::SeedableRng;
    use rand::rngs::Xoshiro256PlusPlus;
    use rstest::rstest;
    use serde_json::json;

    #[rstest]
    #[case::four_days(json!({}))]
    #[case::two_short_days(json!({"days_per_week": 2, "minutes_per_session": 40}))]
    fn a_polished_week_is_better_keeps_the_rules_and_has_nothing_left_to_polish(#[case] change: serde_json::Value) {
        let problem = problem(&change);
        let model = Model::new(&problem, &Locks::default());
        let mut search = Search::new(&model);
        search.cool(&mut Xoshiro256PlusPlus::seed_from_u64(3), 2_000, [HOT, WARM]);
        let rough = search.best_cost;
        search.polish();
        let polished = search.best_cost;
        assert!(polished < rough, "{polished} {rough}");
        assert_eq!(broken_while_building(&problem, &model.week(&search.best)), []);
        search.polish();
        assert!((search.best_cost - polished).abs() < 1e-9);
    }
}
