//! Fills the week by simulated annealing (Kirkpatrick, Gelatt & Vecchi 1983, Science 220:671-680).
//!
//! Hard rules are kept by every step but time, which may be overdrawn at a price that rises while sessions stay too long.
//! Many hot starts; the best of them are cooled; the best weeks found are warmed up and cooled again, now mostly among the
//! exercises that some good week has; at last no two steps together make the week better ([`polish`]). The same problem, seed and
//! number of moves give the same week.

mod moves;
mod polish;
mod state;
mod weigh;

use crate::draft::Locks;
use crate::problem::PlanProblem;
use crate::week::Week;
use moves::Move;
pub(crate) use moves::{SETS_HIGH, SETS_LOW};
use rand::rngs::Xoshiro256PlusPlus;
use rand::{RngExt, SeedableRng};
use rayon::iter::{IntoParallelIterator, ParallelIterator};
use state::{Model, State};
pub(crate) use state::{undominated, worthwhile};
use weigh::{Change, Scratch, Weighed};

/// How long to search and from where.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Effort {
    /// Moves tried by each of the two searches that run side by side.
    pub moves: u32,
    /// The start of the random numbers.
    pub seed: u64,
}

/// Moves tried in a millisecond by each of the two searches, by and large: what a time limit is turned into, so that the same limit gives
/// the same week on every machine.
const MOVES_A_MS: u32 = 3_300;

impl Effort {
    /// The moves that take about so many milliseconds.
    pub fn for_ms(ms: u32) -> Self {
        Self { moves: ms.max(1).saturating_mul(MOVES_A_MS), ..Self::default() }
    }
}

impl Default for Effort {
    /// About 0.3 s on two cores.
    fn default() -> Self {
        Self { moves: 1_000_000, seed: 1 }
    }
}

/// Searches that run side by side where there are cores for it.
const SIDE_BY_SIDE: f64 = 2.0;
/// Keeps the random numbers of neighbouring seeds apart, and those of the rounds of one search.
const SEED_STEP: u64 = 1_000;
const ROUND_STEP: u64 = 100;

/// A round of searches: how many, and the share of all moves that they make together.
struct Round {
    searches: u32,
    share: f64,
}

impl Round {
    /// Moves of each search.
    fn moves(&self, effort: Effort) -> u32 {
        let moves = SIDE_BY_SIDE * f64::from(effort.moves) * self.share / f64::from(self.searches);
        // A share of a u32 spread over several searches.
        #[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss)]
        let moves = moves as u32;
        moves
    }
}

/// Hot starts; the best of them, cooled; the best weeks cooled again and again.
const START: Round = Round { searches: 18, share: 0.1 };
const FIRST: Round = Round { searches: 4, share: 0.4 };
const AGAIN: Round = Round { searches: 4, share: 1.0 / 6.0 };
const TIMES_AGAIN: u64 = 3;
/// The best weeks from which it goes on.
const GOOD: usize = 4;

const HOT: f64 = 6.0;
const WARM: f64 = 0.8;
const REWARMED: f64 = 0.5;
const COOL: f64 = 0.05;
const COLD: f64 = 0.03;
/// Price of a minute or a set over the limit: at first, and how it grows and falls with how the week stands.
const OVER: f64 = 0.5;
const OVER_BOUNDS: [f64; 2] = [0.2, 60.0];
const DEARER: f64 = 1.02;
const CHEAPER: f64 = 0.985;
/// Moves between two looks at the price.
const PRICE_MOVES: u32 = 100;
const NOTHING: f64 = 1e-9;

/// The week for a problem.
pub fn solve(problem: &PlanProblem, effort: Effort) -> Week {
    solve_around(problem, effort, &Locks::default())
}

/// The week for a problem with cards that stay where they are. Rules that these break by themselves stay broken; nothing
/// breaks more.
pub fn solve_around(problem: &PlanProblem, effort: Effort, locks: &Locks) -> Week {
    let model = Model::new(problem, locks);
    if model.worthwhile.is_empty() || model.sessions == 0 {
        return locks.draft(problem).week(problem);
    }
    let rng = |number: u64| Xoshiro256PlusPlus::seed_from_u64(effort.seed.wrapping_mul(SEED_STEP).wrapping_add(number));
    let mut starts: Vec<(Search, Xoshiro256PlusPlus)> = (0..START.searches)
        .into_par_iter()
        .map(|start| {
            let (mut search, mut rng) = (Search::new(&model), rng(start.into()));
            search.cool(&mut rng, START.moves(effort), [HOT, WARM]);
            (search, rng)
        })
        .collect();
    starts.sort_by(|a, b| a.0.best_cost.total_cmp(&b.0.best_cost));
    starts.truncate(FIRST.searches as usize);
    let first = starts.into_par_iter().map(|(mut search, mut rng)| {
        search.cool(&mut rng, FIRST.moves(effort), [WARM, COOL]);
        search.found()
    });
    let mut good: Vec<Found> = first.collect();
    for time in 1..=TIMES_AGAIN {
        good.sort_by(|a, b| a.cost.total_cmp(&b.cost));
        good.truncate(GOOD);
        let narrowed = model.with_favourites(&good);
        let again = (0..AGAIN.searches).into_par_iter().map(|number| {
            let mut rng = rng(ROUND_STEP * time + u64::from(number));
            let mut search = Search::from(&narrowed, &good[number as usize % good.len()]);
            search.cool(&mut rng, AGAIN.moves(effort), [REWARMED, COLD]);
            if time == TIMES_AGAIN {
                search.polish();
            }
            search.found()
        });
        let again: Vec<Found> = again.collect();
        good.extend(again);
    }
    let best = good.into_iter().min_by(|a, b| a.cost.total_cmp(&b.cost));
    best.map_or_else(|| Week::empty(problem), |found| model.week(&found.sets))
}

/// The best week of a search.
struct Found {
    cost: f64,
    /// By cell.
    sets: Vec<u16>,
}

struct Search<'a> {
    model: &'a Model<'a>,
    state: State,
    /// The sets of the best week that keeps every rule.
    best: Vec<u16>,
    best_cost: f64,
    /// Prices of a minute and of a set too many.
    minute_over: f64,
    set_over: f64,
    /// What the locked cards break by themselves.
    given: Broken,
    scratch: Scratch,
    changes: Vec<Change>,
}

/// Hard rules broken, minutes and sets over the limit.
#[derive(Clone, Copy)]
struct Broken {
    rules: i32,
    over_minutes: f64,
    over_sets: i32,
}

/// A price after a look at whether what it is for is overdrawn.
fn adjust(price: &mut f64, kept: bool) {
    *price = (*price * if kept { CHEAPER } else { DEARER }).clamp(OVER_BOUNDS[0], OVER_BOUNDS[1]);
}

impl<'a> Search<'a> {
    fn new(model: &'a Model<'a>) -> Self {
        let state = State::of_sets(model, &model.locked);
        let given = Broken { rules: state.broken, over_minutes: state.over_minutes, over_sets: state.over_sets };
        Self {
            model,
            best: state.sets.clone(),
            best_cost: state.cost,
            state,
            minute_over: OVER,
            set_over: OVER,
            given,
            scratch: Scratch::new(model),
            changes: Vec::with_capacity(16),
        }
    }

    /// Goes on from a week that was found.
    fn from(model: &'a Model<'a>, found: &Found) -> Self {
        let mut search = Self::new(model);
        search.best.clone_from(&found.sets);
        search.best_cost = found.cost;
        search.restart();
        search
    }

    fn found(self) -> Found {
        Found { cost: self.best_cost, sets: self.best }
    }

    fn in_time(&self) -> bool {
        self.state.over_minutes < self.given.over_minutes + NOTHING
    }

    fn in_sets(&self) -> bool {
        self.state.over_sets <= self.given.over_sets
    }

    /// Tries moves while the temperature falls from `hot` to `cold`.
    fn cool(&mut self, rng: &mut Xoshiro256PlusPlus, moves: u32, [hot, cold]: [f64; 2]) {
        let factor = (cold / hot).powf(1.0 / f64::from(moves.max(1)));
        let mut heat = hot;
        for count in 0..moves {
            heat *= factor;
            self.step(rng, heat);
            if count % PRICE_MOVES == 0 {
                let (in_time, in_sets) = (self.in_time(), self.in_sets());
                adjust(&mut self.minute_over, in_time);
                adjust(&mut self.set_over, in_sets);
            }
        }
    }

    /// Back to the best week.
    fn restart(&mut self) {
        self.state = State::of_sets(self.model, &self.best);
    }

    /// What the week would cost after a step; infinite when it breaks a rule.
    fn after(&self, weighed: &Weighed) -> f64 {
        let kept = self.state.broken + weighed.broken <= self.given.rules
            && self.state.over_sets + weighed.over_sets <= self.given.over_sets
            && self.state.over_minutes + weighed.over_minutes < self.given.over_minutes + NOTHING;
        if kept { self.state.cost + weighed.cost } else { f64::INFINITY }
    }

    /// By how much a step makes the week dearer, with what is overdrawn at its price.
    fn rise(&self, weighed: &Weighed) -> f64 {
        weighed.cost + self.minute_over * weighed.over_minutes + self.set_over * f64::from(weighed.over_sets)
    }

    fn step(&mut self, rng: &mut Xoshiro256PlusPlus, heat: f64) {
        let Some(step) = Move::random(self.model, &self.state, rng) else { return };
        step.changes(self.model, &self.state, &mut self.changes);
        let mut weighed = self.state.weigh_work(self.model, &self.changes, &mut self.scratch);
        // Taken when exp(-rise / heat) is above a throw, which most steps are not after half of the weighing.
        let most = -heat * (1.0 - rng.random::<f64>()).ln();
        if self.rise(&weighed) - self.state.owed > most {
            return;
        }
        self.state.weigh_rules(self.model, &self.changes, &mut self.scratch, &mut weighed);
        if self.state.broken + weighed.broken > self.given.rules || self.rise(&weighed) > most {
            return;
        }
        for &(session, candidate, sets) in &self.changes {
            self.state.change(self.model, session, candidate, sets);
        }
        if self.in_time() && self.in_sets() && self.state.cost < self.best_cost - NOTHING {
            self.best_cost = self.state.cost;
            self.best.clone_from(&self.state.sets);
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::cost::cost;
    use crate::rules::broken_while_building;
    use crate::tests::problem;
    use rstest::rstest;
    use serde_json::json;

    const SHORT: Effort = Effort { moves: 20_000, seed: 7 };

    fn take(model: &Model, state: &mut State, step: &Move) {
        let mut changes = Vec::new();
        step.changes(model, state, &mut changes);
        for (session, candidate, sets) in changes {
            state.change(model, session, candidate, sets);
        }
    }

    /// Many random changes, then what was kept up is set against what the objective and the rules say of the whole week.
    #[rstest]
    #[case::four_days(json!({}))]
    #[case::two_short_days(json!({"days_per_week": 2, "minutes_per_session": 40}))]
    #[case::a_day_at_home(json!({"home": {"days_per_week": 1, "equipment": ["band", "dumbbell"]}}))]
    #[case::a_left_handed_difference(json!({"dominant_hand": "left"}))]
    fn what_is_kept_up_agrees_with_the_objective_and_the_rules(#[case] change: serde_json::Value) {
        let problem = problem(&change);
        let model = Model::new(&problem, &Locks::default());
        let mut rng = Xoshiro256PlusPlus::seed_from_u64(3);
        let mut state = State::empty(&model);
        for _ in 0..400 {
            let Some(step) = Move::random(&model, &state, &mut rng) else { continue };
            take(&model, &mut state, &step);
        }
        let week = model.week(&state.sets);
        let broken = broken_while_building(&problem, &week);
        let late = broken.iter().any(|v| matches!(v, crate::rules::Violation::Time { .. }));
        assert_eq!(late, state.over_minutes > NOTHING);
        let hard = broken.iter().filter(|v| !matches!(v, crate::rules::Violation::Time { .. })).count();
        assert_eq!(hard > 0, state.broken > 0, "{broken:?}");
        let penalised = 60.0 * broken.len() as f64;
        assert!((cost(&problem, &week) - penalised - state.cost).abs() < 1e-6);
    }

    /// Every step is weighed, then taken, whether it is good or not.
    #[rstest]
    #[case::six_days(json!({"days_per_week": 6}))]
    #[case::two_short_days(json!({"days_per_week": 2, "minutes_per_session": 40}))]
    #[case::a_day_at_home(json!({"home": {"days_per_week": 1, "equipment": ["band", "dumbbell"]}}))]
    #[case::two_of_a_family(json!({"schools": {"family_rule": "several"}}))]
    fn what_a_step_weighs_is_what_taking_it_changes(#[case] change: serde_json::Value) {
        let problem = problem(&change);
        let model = Model::new(&problem, &Locks::default());
        let mut rng = Xoshiro256PlusPlus::seed_from_u64(5);
        let (mut state, mut scratch, mut changes) = (State::empty(&model), Scratch::new(&model), Vec::new());
        for _ in 0..3000 {
            let Some(step) = Move::random(&model, &state, &mut rng) else { continue };
            step.changes(&model, &state, &mut changes);
            let weighed = state.weigh(&model, &changes, &mut scratch);
            let before = (state.cost, state.broken, state.over_minutes);
            take(&model, &mut state, &step);
            assert!((state.cost - before.0 - weighed.cost).abs() < 1e-9, "{step:?}");
            assert_eq!(state.broken - before.1, weighed.broken, "{step:?}");
            assert!((state.over_minutes - before.2 - weighed.over_minutes).abs() < 1e-9, "{step:?}");
        }
    }

    #[test]
    fn the_same_seed_and_moves_give_the_same_week_and_another_seed_may_not() {
        let problem = problem(&json!({}));
        assert_eq!(solve(&problem, SHORT), solve(&problem, SHORT));
        let costs: Vec<f64> = (0..4).map(|seed| cost(&problem, &solve(&problem, Effort { seed, ..SHORT }))).collect();
        assert!(costs.iter().any(|one| (one - costs[0]).abs() > 1e-9), "{costs:?}");
    }

    #[test]
    fn more_moves_give_no_worse_a_week_on_average() {
        let problem = problem(&json!({"minutes_per_session": 50}));
        let mean =
            |moves: u32| (0..3).map(|seed| cost(&problem, &solve(&problem, Effort { moves, seed }))).sum::<f64>() / 3.0;
        assert!(mean(120_000) <= mean(6_000));
    }
}
