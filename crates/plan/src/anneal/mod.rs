//! Fills the week by simulated annealing (Kirkpatrick, Gelatt & Vecchi 1983, Science 220:671-680).
//!
//! Hard rules are kept by every step but time, which may be overdrawn at a price that rises while sessions stay too long.
//! Several hot starts; the best two are cooled to the end, side by side. The same problem, seed and number of moves give the same week.

mod moves;
mod state;

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

/// Searches cooled to the end, side by side where there are cores for it; the better week is taken.
const LEGS: u32 = 2;
/// Hot starts for each of them.
const HOT_STARTS: u32 = 3;
/// Keeps the random numbers of neighbouring seeds apart.
const SEED_STEP: u64 = 1_000;
/// Of so many moves of a leg one goes into its hot starts.
const HOT_SHARE: u32 = 10;
const HOT: f64 = 6.0;
const WARM: f64 = 0.8;
const COLD: f64 = 0.03;
/// Price of a minute over the limit: at first, and how it grows and falls with how the week stands.
const MINUTE_OVER: f64 = 0.5;
const MINUTE_OVER_BOUNDS: [f64; 2] = [0.2, 60.0];
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
    let hot_moves = effort.moves / HOT_SHARE / HOT_STARTS;
    let mut starts: Vec<(Search, Xoshiro256PlusPlus)> = (0..LEGS * HOT_STARTS)
        .into_par_iter()
        .map(|start| {
            let seed = effort.seed.wrapping_mul(SEED_STEP).wrapping_add(start.into());
            let mut rng = Xoshiro256PlusPlus::seed_from_u64(seed);
            let mut search = Search::new(&model);
            search.cool(&mut rng, hot_moves, HOT, WARM);
            (search, rng)
        })
        .collect();
    starts.sort_by(|a, b| a.0.best_cost.total_cmp(&b.0.best_cost));
    starts.truncate(LEGS as usize);
    let ends = starts.into_par_iter().map(|(mut search, mut rng)| {
        search.cool(&mut rng, effort.moves - HOT_STARTS * hot_moves, WARM, COLD);
        search.descend();
        search
    });
    let ends: Vec<Search> = ends.collect();
    let best = ends.into_iter().min_by(|a, b| a.best_cost.total_cmp(&b.best_cost));
    best.map_or_else(|| Week::empty(problem), |search| model.week(&search.best))
}

struct Search<'a> {
    model: &'a Model<'a>,
    state: State,
    /// The sets of the best week that keeps every rule.
    best: Vec<u16>,
    best_cost: f64,
    minute_over: f64,
    /// What the locked cards break by themselves.
    given: Broken,
}

/// Hard rules broken and minutes over the limit.
#[derive(Clone, Copy)]
struct Broken {
    rules: i32,
    over_minutes: f64,
}

impl<'a> Search<'a> {
    fn new(model: &'a Model<'a>) -> Self {
        let state = State::of_sets(model, &model.locked);
        let given = Broken { rules: state.broken, over_minutes: state.over_minutes };
        Self { model, best: state.sets.clone(), best_cost: state.cost, state, minute_over: MINUTE_OVER, given }
    }

    /// Whether nothing is broken that the locked cards do not break by themselves.
    fn kept(&self) -> bool {
        self.state.broken <= self.given.rules && self.in_time()
    }

    fn in_time(&self) -> bool {
        self.state.over_minutes < self.given.over_minutes + NOTHING
    }

    fn priced(&self) -> f64 {
        self.state.cost + self.minute_over * self.state.over_minutes
    }

    /// Tries moves while the temperature falls from `hot` to `cold`.
    fn cool(&mut self, rng: &mut Xoshiro256PlusPlus, moves: u32, hot: f64, cold: f64) {
        let factor = (cold / hot).powf(1.0 / f64::from(moves.max(1)));
        let mut heat = hot;
        let mut undo = Vec::with_capacity(16);
        for count in 0..moves {
            heat *= factor;
            self.step(rng, heat, &mut undo);
            if count % PRICE_MOVES == 0 {
                let late = !self.in_time();
                let price = self.minute_over * if late { DEARER } else { CHEAPER };
                self.minute_over = price.clamp(MINUTE_OVER_BOUNDS[0], MINUTE_OVER_BOUNDS[1]);
            }
        }
    }

    /// From the best week, the best step round each session again and again, until none helps.
    fn descend(&mut self) {
        self.state = State::of_sets(self.model, &self.best);
        let mut still = 0;
        let mut session = 0;
        while still < self.model.sessions {
            let before = self.state.cost;
            let steps = moves::around(self.model, &self.state, session);
            let best = steps.into_iter().map(|step| (self.cost_after(&step), step)).min_by(|a, b| a.0.total_cmp(&b.0));
            match best {
                Some((cost, step)) if cost < before - NOTHING => {
                    step.apply(self.model, &mut self.state, &mut Vec::new());
                    still = 0;
                }
                _ => {
                    still += 1;
                    session = (session + 1) % self.model.sessions;
                }
            }
        }
        self.best.clone_from(&self.state.sets);
        self.best_cost = self.state.cost;
    }

    /// What the week would cost after a step; infinite when it breaks a rule.
    fn cost_after(&mut self, step: &Move) -> f64 {
        let mut undo = Vec::with_capacity(8);
        step.apply(self.model, &mut self.state, &mut undo);
        let cost = if self.kept() { self.state.cost } else { f64::INFINITY };
        for (session, candidate, sets) in undo.iter().rev() {
            self.state.change(self.model, *session, *candidate, *sets);
        }
        cost
    }

    fn step(&mut self, rng: &mut Xoshiro256PlusPlus, heat: f64, undo: &mut Vec<(usize, usize, u16)>) {
        let Some(step) = Move::random(self.model, &self.state, rng) else { return };
        let before = self.priced();
        undo.clear();
        step.apply(self.model, &mut self.state, undo);
        let rise = self.priced() - before;
        let taken =
            self.state.broken <= self.given.rules && (rise <= 0.0 || rng.random::<f64>() < (-rise / heat).exp());
        if !taken {
            for (session, candidate, sets) in undo.iter().rev() {
                self.state.change(self.model, *session, *candidate, *sets);
            }
            return;
        }
        if self.in_time() && self.state.cost < self.best_cost - NOTHING {
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
        let mut undo = Vec::new();
        for _ in 0..400 {
            let Some(step) = Move::random(&model, &state, &mut rng) else { continue };
            step.apply(&model, &mut state, &mut undo);
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

    #[test]
    fn a_change_taken_back_leaves_everything_as_it_was() {
        let problem = problem(&json!({}));
        let model = Model::new(&problem, &Locks::default());
        let mut rng = Xoshiro256PlusPlus::seed_from_u64(5);
        let mut state = State::empty(&model);
        for _ in 0..300 {
            let Some(step) = Move::random(&model, &state, &mut rng) else { continue };
            let (before, broken) = (state.cost, state.broken);
            let mut undo = Vec::new();
            step.apply(&model, &mut state, &mut undo);
            for (session, candidate, sets) in undo.iter().rev() {
                state.change(&model, *session, *candidate, *sets);
            }
            assert!((state.cost - before).abs() < 1e-9 && state.broken == broken);
            step.apply(&model, &mut state, &mut Vec::new());
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
