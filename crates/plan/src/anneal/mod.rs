//! Fills the week by simulated annealing (Kirkpatrick, Gelatt & Vecchi 1983, Science 220:671-680).
//!
//! Hard rules are kept by every step but four: time, the week's limits, rest and the exercises of a session may be overdrawn, each
//! at a price that rises while it is and falls while it is not. With these kept by every step too, a full week could not be
//! rebuilt.
//! Many hot starts; the best of them are cooled; the best weeks found are warmed up and cooled again, now mostly among the
//! exercises that some good week has; at last no two steps together make the week better ([`polish`]). The same problem, seed and
//! number of moves give the same week.

mod add;
mod model;
mod moves;
mod polish;
mod pool;
mod state;
mod weigh;

use crate::draft::Locks;
use crate::problem::PlanProblem;
use crate::week::Week;
pub(crate) use add::{Added, Adding, InTheWay};
use model::Model;
use moves::Move;
pub(crate) use moves::{SETS_HIGH, SETS_LOW};
pub(crate) use pool::worthwhile;
use rand::rngs::Xoshiro256PlusPlus;
use rand::{RngExt, SeedableRng};
use rayon::iter::{IntoParallelIterator, ParallelIterator};
use state::State;
use weigh::{Change, Scratch, Weighed};

/// How long to search and from where.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Effort {
    /// Moves tried by each of the two searches that run side by side.
    pub moves: u32,
    /// The start of the random numbers.
    pub seed: u64,
}

/// What a move takes, by and large, and what it takes longer for each session, ns: by these a time limit is turned into a number
/// of moves, so that the same limit gives the same week on every machine.
const MOVE_NS: [u64; 2] = [160, 90];
/// Time for a week, ms.
const USUAL_MS: u32 = 300;

impl Effort {
    /// The moves that take about so many milliseconds on two cores for a week of so many sessions.
    pub fn for_ms(ms: u32, sessions: usize) -> Self {
        let [a_move, a_session] = MOVE_NS;
        let moves = u64::from(ms.max(1)) * 1_000_000 / (a_move + a_session * sessions as u64);
        Self { moves: u32::try_from(moves).unwrap_or(u32::MAX), seed: 1 }
    }

    /// What is tried when nobody says how long: about 0.3 s on two cores.
    pub fn usual(problem: &PlanProblem) -> Self {
        Self::for_ms(USUAL_MS, problem.days.len())
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
const START: Round = Round { searches: 18, share: 0.05 };
const FIRST: Round = Round { searches: 4, share: 0.3 };
const AGAIN: Round = Round { searches: 4, share: 0.108 };
const TIMES_AGAIN: u64 = 6;
/// The best weeks from which it goes on.
const GOOD: usize = 4;

/// The best weeks that are polished, side by side.
const POLISHED: usize = 2;

const HOT: f64 = 6.0;
const WARM: f64 = 0.8;
const REWARMED: f64 = 0.5;
const COOL: f64 = 0.05;
const COLD: f64 = 0.03;
/// At the end, weeks that differ by a minute are told apart.
const COLDEST: f64 = 0.01;
/// Price of a minute over the limit, at first, and between which bounds it moves.
const OVER: f64 = 0.5;
const OVER_BOUNDS: [f64; 2] = [0.2, 60.0];
/// The same of a quarter of what a week's limit counts.
const LOAD: f64 = 0.125;
const LOAD_BOUNDS: [f64; 2] = [0.05, 15.0];
/// The same of a direct set of a region that is trained again before it is rested.
const TIRED: f64 = 1.0;
const TIRED_BOUNDS: [f64; 2] = [0.5, 60.0];
/// How the prices grow and fall.
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
        good.dedup_by(|a, b| (a.cost - b.cost).abs() < NOTHING);
        good.truncate(GOOD);
        let narrowed = model.with_favourites(&good);
        let again = (0..AGAIN.searches).into_par_iter().map(|number| {
            let mut rng = rng(ROUND_STEP * time + u64::from(number));
            let mut search = Search::from(&narrowed, &good[number as usize % good.len()]);
            let last = time == TIMES_AGAIN;
            search.cool(&mut rng, AGAIN.moves(effort), [REWARMED, if last { COLDEST } else { COLD }]);
            search.found()
        });
        let again: Vec<Found> = again.collect();
        good.extend(again);
    }
    good.sort_by(|a, b| a.cost.total_cmp(&b.cost));
    good.dedup_by(|a, b| (a.cost - b.cost).abs() < NOTHING);
    good.truncate(POLISHED);
    let polished = good.into_par_iter().map(|found| {
        let mut search = Search::from(&model, &found);
        search.polish();
        search.found()
    });
    let good: Vec<Found> = polished.collect();
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
    prices: Prices,
    /// What the locked cards break by themselves.
    given: Broken,
    scratch: Scratch,
    changes: Vec<Change>,
}

/// What a week breaks and overdraws.
#[derive(Clone, Copy)]
struct Broken {
    rules: i32,
    over_minutes: f64,
    over_loads: i32,
    tired: i32,
    crowded: i32,
}

impl Broken {
    fn of(state: &State) -> Self {
        let State { broken: rules, over_minutes, over_loads, tired, crowded, .. } = *state;
        Self { rules, over_minutes, over_loads, tired, crowded }
    }

    /// The same after a step that weighs so much.
    fn with(self, weighed: &Weighed) -> Self {
        Self {
            rules: self.rules + weighed.broken,
            over_minutes: self.over_minutes + weighed.over_minutes,
            over_loads: self.over_loads + weighed.over_loads,
            tired: self.tired + weighed.tired,
            crowded: self.crowded + weighed.crowded,
        }
    }

    fn within(&self, given: &Self) -> bool {
        self.rules <= given.rules
            && self.in_time(given)
            && self.over_loads <= given.over_loads
            && self.tired <= given.tired
            && self.crowded <= given.crowded
    }

    fn in_time(&self, given: &Self) -> bool {
        self.over_minutes < given.over_minutes + NOTHING
    }
}

/// Prices of what may be overdrawn.
struct Prices {
    minute: f64,
    /// Of a quarter of what a limit counts.
    load: f64,
    tired: f64,
    crowded: f64,
}

impl Prices {
    fn of(&self, weighed: &Weighed) -> f64 {
        self.minute * weighed.over_minutes
            + self.load * f64::from(weighed.over_loads)
            + self.tired * f64::from(weighed.tired)
            + self.crowded * f64::from(weighed.crowded)
    }

    /// After a look at what is overdrawn.
    fn adjust(&mut self, now: &Broken, given: &Broken) {
        let adjust = |price: &mut f64, kept: bool, [least, most]: [f64; 2]| {
            *price = (*price * if kept { CHEAPER } else { DEARER }).clamp(least, most);
        };
        adjust(&mut self.minute, now.in_time(given), OVER_BOUNDS);
        adjust(&mut self.load, now.over_loads <= given.over_loads, LOAD_BOUNDS);
        adjust(&mut self.tired, now.tired <= given.tired, TIRED_BOUNDS);
        adjust(&mut self.crowded, now.crowded <= given.crowded, OVER_BOUNDS);
    }
}

impl<'a> Search<'a> {
    fn new(model: &'a Model<'a>) -> Self {
        let state = State::of_sets(model, &model.locked);
        let given = Broken::of(&state);
        Self {
            model,
            best: state.sets.clone(),
            best_cost: state.cost,
            state,
            prices: Prices { minute: OVER, load: LOAD, tired: TIRED, crowded: OVER },
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

    /// Tries moves while the temperature falls from `hot` to `cold`.
    fn cool(&mut self, rng: &mut Xoshiro256PlusPlus, moves: u32, [hot, cold]: [f64; 2]) {
        let factor = (cold / hot).powf(1.0 / f64::from(moves.max(1)));
        let mut heat = hot;
        for count in 0..moves {
            heat *= factor;
            self.step(rng, heat);
            if count % PRICE_MOVES == 0 {
                self.prices.adjust(&Broken::of(&self.state), &self.given);
            }
        }
    }

    /// Back to the best week.
    fn restart(&mut self) {
        self.state = State::of_sets(self.model, &self.best);
    }

    /// What the week would cost after a step; infinite when it breaks a rule.
    fn after(&self, weighed: &Weighed) -> f64 {
        let kept = Broken::of(&self.state).with(weighed).within(&self.given);
        if kept { self.state.cost + weighed.cost } else { f64::INFINITY }
    }

    /// By how much a step makes the week dearer, with what is overdrawn at its price.
    fn rise(&self, weighed: &Weighed) -> f64 {
        weighed.cost + self.prices.of(weighed)
    }

    fn step(&mut self, rng: &mut Xoshiro256PlusPlus, heat: f64) {
        let Some(step) = Move::random(self.model, &self.state, rng) else { return };
        step.changes(self.model, &self.state, &mut self.changes);
        let mut weighed = self.state.weigh_work(self.model, &self.changes, &mut self.scratch);
        // Taken when exp(-rise / heat) is above a throw, which most steps are not after half of the weighing.
        let most = -heat * (1.0 - rng.random::<f64>()).ln();
        // What the other half can take off at most: what is owed, and what regions cost that are not rested.
        let left = self.state.owed + self.prices.tired * f64::from(self.state.tired);
        if self.rise(&weighed) - left > most {
            return;
        }
        self.state.weigh_rules(self.model, &self.changes, &mut self.scratch, &mut weighed);
        if self.state.broken + weighed.broken > self.given.rules || self.rise(&weighed) > most {
            return;
        }
        for &(session, candidate, sets) in &self.changes {
            self.state.change(self.model, session, candidate, sets);
        }
        if self.state.cost < self.best_cost - NOTHING && Broken::of(&self.state).within(&self.given) {
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
    #[case::drops_and_pairs(json!({"schools": {"past_failure": "drops", "turns": "pairs"}}))]
    #[case::top_sets(json!({"schools": {"effort": "top-set", "past_failure": "partials"}}))]
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
        assert_eq!(hard > 0, state.broken + state.tired + state.over_loads + state.crowded > 0, "{broken:?}");
        let penalised = 60.0 * broken.len() as f64;
        assert!((cost(&problem, &week) - penalised - state.cost).abs() < 1e-6);
    }

    /// Every step is weighed, by half and as a whole, then taken, whether it is good or not.
    #[rstest]
    #[case::six_days(json!({"days_per_week": 6}))]
    #[case::two_short_days(json!({"days_per_week": 2, "minutes_per_session": 40}))]
    #[case::a_day_at_home(json!({"home": {"days_per_week": 1, "equipment": ["band", "dumbbell"]}}))]
    #[case::two_of_a_family(json!({"schools": {"family_rule": "several"}}))]
    #[case::pairs(json!({"schools": {"turns": "pairs"}}))]
    #[case::schemes_and_pairs(json!({"schools": {"effort": "top-set", "past_failure": "drops", "turns": "pairs"}}))]
    fn what_a_step_weighs_is_what_taking_it_changes(#[case] change: serde_json::Value) {
        let problem = problem(&change);
        let model = Model::new(&problem, &Locks::default());
        let mut rng = Xoshiro256PlusPlus::seed_from_u64(5);
        let (mut state, mut scratch, mut changes) = (State::empty(&model), Scratch::new(&model), Vec::new());
        for _ in 0..3000 {
            let Some(step) = Move::random(&model, &state, &mut rng) else { continue };
            step.changes(&model, &state, &mut changes);
            let half = state.weigh_work(&model, &changes, &mut scratch);
            let weighed = state.weigh(&model, &changes, &mut scratch);
            assert!(half.cost - state.owed <= weighed.cost + 1e-9, "{step:?} takes off more than is owed");
            assert!(-state.tired <= weighed.tired, "{step:?} parts more than there is");
            let counts = |state: &State| [state.broken, state.tired, state.over_loads, state.crowded];
            let (before, had) = ((state.cost, state.over_minutes), counts(&state));
            take(&model, &mut state, &step);
            assert!((state.cost - before.0 - weighed.cost).abs() < 1e-9, "{step:?}");
            let by = [weighed.broken, weighed.tired, weighed.over_loads, weighed.crowded];
            for (place, now) in counts(&state).into_iter().enumerate() {
                assert_eq!(now - had[place], by[place], "{step:?}, count {place}");
            }
            assert!((state.over_minutes - before.1 - weighed.over_minutes).abs() < 1e-9, "{step:?}");
        }
    }

    #[test]
    fn a_week_of_more_sessions_is_searched_in_fewer_moves_and_twice_the_time_in_twice_as_many() {
        let moves = |ms, sessions| f64::from(Effort::for_ms(ms, sessions).moves);
        assert!((1..7).all(|sessions| moves(300, sessions) > moves(300, sessions + 1)));
        assert!((moves(600, 4) / moves(300, 4) - 2.0).abs() < 1e-3);
    }

    #[rstest]
    #[case::no_time(0, 1)]
    #[case::an_hour(3_600_000, 1)]
    #[case::longer_than_there_are_moves_for(u32::MAX, 1)]
    fn any_time_is_some_number_of_moves(#[case] ms: u32, #[case] sessions: usize) {
        let moves = Effort::for_ms(ms, sessions).moves;
        assert!(moves >= Effort::for_ms(1, sessions).moves, "{moves}");
    }

    /// The search keeps regions as the bits of a number.
    #[test]
    fn the_catalogue_has_fewer_regions_than_a_mask_has_bits() {
        let problem = problem(&json!({}));
        assert!(problem.demands.len() < 64 && problem.days.len() < 64, "{} regions", problem.demands.len());
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
            |moves: u32| (0..8).map(|seed| cost(&problem, &solve(&problem, Effort { moves, seed }))).sum::<f64>() / 8.0;
        let (few, many) = (mean(6_000), mean(400_000));
        assert!(many <= few, "{many} {few}");
    }
}
