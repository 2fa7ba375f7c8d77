//! A week under change: what each change of a cell costs, kept up in time proportional to the regions it touches.

// Sets, sessions and exercises of a week are counted in hundreds at most: no cast here loses anything.
#![allow(clippy::cast_possible_truncation, clippy::cast_possible_wrap)]

use super::Found;
use crate::cost::{
    ABOVE_HIGH, BELOW_LOW, DIFFERENT_EXERCISE, EXERCISES_AT_LEAST, MERIT, MINUTE, NOT_STRETCHED, SESSION_MISSED,
    THIN_SESSION,
};
use crate::draft::{Card, Locks};
use crate::problem::{Candidate, PlanProblem};
use crate::rules::{A_MOMENT, DIRECT_SETS_A_SESSION, LOADED, neighbours};
use crate::timing::{WARM_UP_S, card_minutes, item_minutes};
use crate::week::Week;
use assess::Class;
use std::collections::BTreeMap;

/// Doses are counted in quarter sets, the smallest fraction of the catalogue, so that sums are exact.
const QUARTERS: f64 = 4.0;
/// Quarter sets from which a region needs two days' rest.
pub(super) const LOADED_QUARTERS: i32 = (LOADED * QUARTERS) as i32;

/// What does not change while searching.
#[derive(Clone)]
pub(super) struct Model<'a> {
    pub problem: &'a PlanProblem,
    pub sessions: usize,
    pub candidates: usize,
    pub demands: usize,
    /// What the search asks of each demand, side by side in memory.
    pub asks: Vec<Asks>,
    /// Candidates worth doing: none of their main regions is held back.
    pub worthwhile: Vec<usize>,
    /// Worthwhile candidates that some good week has; none while no week is known.
    pub favourites: Vec<usize>,
    /// Worthwhile candidates by main demand.
    pub by_demand: Vec<Vec<usize>>,
    /// Demand, quarters a set and whether it is a main target, of all candidates one after another.
    targets: Vec<(u32, i32, bool)>,
    /// Where the targets of each candidate begin, and of the last one end.
    target_starts: Vec<usize>,
    family: Vec<usize>,
    families: usize,
    /// Sets of a week, at most.
    pub weekly_sets: i32,
    /// Seconds of setting up with the extra sets, and of one set, by candidate.
    pub seconds: Vec<(f64, f64)>,
    pub use_cost: Vec<f64>,
    /// Chosen demands that a candidate loads where they are stretched.
    pub stretches: Vec<Vec<usize>>,
    must_stretch: Vec<bool>,
    pub one_sided: Vec<bool>,
    /// Sessions less than two days apart, each pair once.
    pub near_pairs: Vec<(usize, usize)>,
    /// Time of each session, less what the schemes of its locked cards take beside straight sets, s.
    pub limit_s: Vec<f64>,
    /// Sets of cells that stay as they are, 0 where the search is free.
    pub locked: Vec<u16>,
}

impl<'a> Model<'a> {
    pub fn new(problem: &'a PlanProblem, locks: &Locks) -> Self {
        let candidates = &problem.candidates;
        let demands = problem.demands.len();
        let worthwhile = undominated(problem);
        let mut families: BTreeMap<&str, usize> = BTreeMap::new();
        let family = candidates.iter().map(|candidate| {
            let next = families.len();
            *families.entry(candidate.exercise.family.as_str()).or_insert(next)
        });
        let family: Vec<usize> = family.collect();
        let per_set = |c: usize| (item_minutes(&candidates[c], 2) - item_minutes(&candidates[c], 1)) * 60.0;
        let chosen = |demand: usize| problem.demands[demand].class == Class::BringUp;
        let must_stretch: Vec<bool> = (0..demands).map(|d| chosen(d) && problem.demands[d].stretch_possible).collect();
        let stretches = |c: usize| {
            let loads = |d: &usize| candidates[c].exercise.loads_stretched(&problem.demands[*d].region);
            (0..demands).filter(|d| must_stretch[*d]).filter(loads).collect()
        };
        let wanted = |d: usize| i32::from(problem.demands[d].dose.sessions_low).min(problem.days.len() as i32);
        let near = |one: usize| {
            let others = (one + 1..problem.days.len()).map(move |other| (one, other));
            others.filter(|(one, other)| neighbours(problem.days[*one], problem.days[*other]))
        };
        let mut locked = vec![0; problem.days.len() * candidates.len()];
        for (session, card) in &locks.0 {
            locked[session * candidates.len() + card.candidate] = card.sets;
        }
        Self {
            favourites: Vec::new(),
            locked,
            problem,
            sessions: problem.days.len(),
            candidates: candidates.len(),
            demands,
            by_demand: (0..demands)
                .map(|d| worthwhile.iter().copied().filter(|c| candidates[*c].trains(d)).collect())
                .collect(),
            worthwhile,
            target_starts: starts(candidates),
            targets: candidates
                .iter()
                .flat_map(|c| c.targets.iter().map(|(d, f)| (*d as u32, (f * QUARTERS).round() as i32, *f >= 1.0)))
                .collect(),
            families: families.len(),
            weekly_sets: problem.weekly_sets as i32,
            family,
            seconds: (0..candidates.len())
                .map(|c| (item_minutes(&candidates[c], 1) * 60.0 - per_set(c), per_set(c)))
                .collect(),
            use_cost: candidates.iter().map(|c| DIFFERENT_EXERCISE - MERIT * f64::from(c.merit)).collect(),
            asks: (0..demands).map(|d| asks(problem, d, if chosen(d) { wanted(d) } else { 0 })).collect(),
            stretches: (0..candidates.len()).map(stretches).collect(),
            must_stretch,
            one_sided: candidates.iter().map(|c| c.one_sided).collect(),
            near_pairs: (0..problem.days.len()).flat_map(near).collect(),
            // A full session is full however its seconds are added up, by the rule's own measure.
            limit_s: (0..problem.days.len())
                .map(|session| (problem.minutes + A_MOMENT / 2.0) * 60.0 - schemes_s(problem, locks, session))
                .collect(),
        }
    }

    /// The same model with what good weeks have as favourites.
    pub fn with_favourites(&self, good: &[Found]) -> Self {
        let used = |c: &usize| {
            let cells = || (0..self.sessions).map(|session| session * self.candidates + c);
            good.iter().any(|found| cells().any(|cell| found.sets[cell] > 0))
        };
        Self { favourites: self.worthwhile.iter().copied().filter(used).collect(), ..self.clone() }
    }

    /// Demand, quarters a set and whether it is a main target, of a candidate.
    pub fn targets_of(&self, candidate: usize) -> &[(u32, i32, bool)] {
        &self.targets[self.target_starts[candidate]..self.target_starts[candidate + 1]]
    }

    /// Sets by cell as the rest of the crate has them.
    pub fn week(&self, sets: &[u16]) -> Week {
        let mut week = Week::empty(self.problem);
        for (cell, count) in sets.iter().enumerate().filter(|(_, count)| **count > 0) {
            week.set(cell / self.candidates, cell % self.candidates, *count);
        }
        week
    }

    /// Whether the search may change a cell.
    pub fn open(&self, session: usize, candidate: usize) -> bool {
        self.locked[session * self.candidates + candidate] == 0
    }

    /// Whether a candidate's equipment stands where a session is.
    pub fn fits(&self, session: usize, candidate: usize) -> bool {
        self.problem.candidates[candidate].stands[usize::from(self.problem.home[session])]
    }
}

/// Candidates worth doing: none of their main regions is held back.
pub(crate) fn worthwhile(problem: &PlanProblem) -> Vec<usize> {
    let aims = |demand: usize| problem.demands[demand].dose.aim > 0.0;
    let wanted = |c: &usize| {
        let candidate = &problem.candidates[*c];
        candidate.refused.is_none() && candidate.targets.iter().all(|(demand, f)| *f < 1.0 || aims(*demand))
    };
    (0..problem.candidates.len()).filter(wanted).collect()
}

/// Worthwhile candidates without those for which another one of the family can stand wherever they stand, at no higher cost:
/// a best week without them exists.
pub(crate) fn undominated(problem: &PlanProblem) -> Vec<usize> {
    let all = worthwhile(problem);
    // With two of a family in a session the better one may be there already.
    if problem.family_limit > 1 {
        return all;
    }
    let dominated = |c: &usize| all.iter().any(|other| dominates(problem, *other, *c));
    all.iter().copied().filter(|c| !dominated(c)).collect()
}

fn dominates(problem: &PlanProblem, better: usize, worse: usize) -> bool {
    let (a, b) = (&problem.candidates[better], &problem.candidates[worse]);
    let same = better != worse
        && a.exercise.family == b.exercise.family
        && a.exercise.targets == b.exercise.targets
        && a.one_sided == b.one_sided;
    let stretches = |c: &Candidate, region| c.exercise.loads_stretched(region);
    let minutes = |sets: u16| item_minutes(a, sets) - item_minutes(b, sets);
    let no_worse = same
        && a.merit >= b.merit
        && (0..2).all(|place| a.stands[place] || !b.stands[place])
        && b.exercise.targets.keys().all(|region| stretches(a, region) || !stretches(b, region))
        && minutes(1) <= 1e-9
        && minutes(2) - minutes(1) <= 1e-9;
    let alike = a.merit == b.merit && minutes(1).abs() < 1e-9 && minutes(2).abs() < 1e-9;
    let mirrored = (0..2).all(|place| a.stands[place] == b.stands[place])
        && a.exercise.targets.keys().all(|region| stretches(a, region) == stretches(b, region));
    // Of two that are alike in everything the first one stays.
    no_worse && (!(alike && mirrored) || better < worse)
}

/// Seconds that the schemes of a session's locked cards take beside straight sets.
fn schemes_s(problem: &PlanProblem, locks: &Locks, session: usize) -> f64 {
    let here = locks.0.iter().filter(|(s, _)| *s == session).map(|(_, card)| card);
    let beside = |card: &Card| {
        let straight = item_minutes(&problem.candidates[card.candidate], card.sets);
        (card_minutes(problem, card, true) - straight).max(0.0) * 60.0
    };
    here.map(beside).sum()
}

/// Where each candidate's targets begin when all stand one after another.
fn starts(candidates: &[Candidate]) -> Vec<usize> {
    let ends = candidates.iter().scan(0, |end, candidate| {
        *end += candidate.targets.len();
        Some(*end)
    });
    std::iter::once(0).chain(ends).collect()
}

fn asks(problem: &PlanProblem, demand: usize, sessions: i32) -> Asks {
    let wanted = &problem.demands[demand];
    Asks {
        low: wanted.dose.low * QUARTERS,
        aim: wanted.dose.aim * QUARTERS,
        high: wanted.dose.high * QUARTERS,
        price: wanted.weight / QUARTERS,
        sessions,
        daily: wanted.daily,
        uneven: wanted.weaker.is_some() && problem.candidates.iter().any(|c| c.one_sided && c.trains(demand)),
    }
}

/// What the search asks of a demand. Doses in quarter sets.
#[derive(Clone, Copy)]
pub(super) struct Asks {
    low: f64,
    aim: f64,
    high: f64,
    /// Price of a quarter set below the aim.
    price: f64,
    /// Sessions a chosen region should be worked in, 0 for others.
    pub sessions: i32,
    /// May be trained on consecutive days.
    pub daily: bool,
    /// Its sides differ and something one-sided exists.
    pub uneven: bool,
}

impl Asks {
    /// Weighted shortfall and overshoot of a dose, quarter sets.
    pub fn cost(&self, quarters: i32) -> f64 {
        let dose = f64::from(quarters);
        let short = BELOW_LOW * (self.low - dose).max(0.0) + (self.aim - dose).max(0.0);
        self.price * (short + ABOVE_HIGH * (dose - self.high).max(0.0))
    }
}

/// A week with everything that is counted about it.
#[derive(Clone)]
pub(super) struct State {
    /// By session, then by candidate.
    pub sets: Vec<u16>,
    /// Candidates of each session, in no order.
    pub items: Vec<Vec<usize>>,
    pub dose: Vec<i32>,
    pub total: Vec<i32>,
    /// What another quarter set saves, by demand.
    saves: Vec<f64>,
    pub direct: Vec<i32>,
    pub worked: Vec<i32>,
    pub seconds: Vec<f64>,
    /// Demands that a session loads and that need rest, as a mask: the atlas has fewer than 64 regions.
    pub loaded: Vec<u64>,
    family: Vec<u16>,
    pub used: Vec<u16>,
    pub stretched: Vec<i32>,
    pub one_sided: Vec<i32>,
    pub all_direct: Vec<i32>,
    pub total_sets: i32,
    /// The objective without the penalty for time.
    pub cost: f64,
    /// The part of the cost that [`State::weigh_work`] leaves out: sessions missed, stretches missing, sides uneven.
    pub owed: f64,
    /// Hard rules broken, but for those that may be overdrawn.
    pub broken: i32,
    /// Minutes over the limit, all sessions together.
    pub over_minutes: f64,
    /// Sets over the week's limit.
    pub over_sets: i32,
    /// Regions loaded again before they are rested, each pair of sessions once.
    pub tired: i32,
    /// Sessions with an exercise too many.
    pub crowded: i32,
}

impl State {
    pub fn empty(model: &Model) -> Self {
        let cells = |per: usize| vec![0; model.sessions * per];
        let missing = model.must_stretch.iter().filter(|must| **must).count() as f64;
        let doses: f64 = model.asks.iter().map(|asks| asks.cost(0)).sum();
        let missed: i32 = model.asks.iter().map(|asks| asks.sessions).sum();
        let thin = (EXERCISES_AT_LEAST * model.sessions) as f64;
        Self {
            sets: vec![0; model.sessions * model.candidates],
            items: vec![Vec::new(); model.sessions],
            dose: cells(model.demands),
            total: vec![0; model.demands],
            saves: model.asks.iter().map(|asks| asks.cost(0) - asks.cost(1)).collect(),
            direct: cells(model.demands),
            worked: vec![0; model.demands],
            seconds: vec![0.0; model.sessions],
            loaded: vec![0; model.sessions],
            family: vec![0; model.sessions * model.families],
            used: vec![0; model.candidates],
            stretched: vec![0; model.demands],
            one_sided: vec![0; model.demands],
            all_direct: vec![0; model.demands],
            total_sets: 0,
            cost: doses + NOT_STRETCHED * missing + SESSION_MISSED * f64::from(missed) + THIN_SESSION * thin,
            owed: NOT_STRETCHED * missing + SESSION_MISSED * f64::from(missed),
            broken: 0,
            over_minutes: 0.0,
            over_sets: 0,
            tired: 0,
            crowded: 0,
        }
    }

    /// The state of a week given by its sets.
    pub fn of_sets(model: &Model, sets: &[u16]) -> Self {
        let mut state = Self::empty(model);
        for (cell, count) in sets.iter().enumerate().filter(|(_, count)| **count > 0) {
            state.change(model, cell / model.candidates, cell % model.candidates, *count);
        }
        state
    }

    pub fn of(&self, model: &Model, session: usize, candidate: usize) -> u16 {
        self.sets[session * model.candidates + candidate]
    }

    /// What another quarter set of each of a candidate's regions saves, for the time it takes, 1/s.
    pub fn worth(&self, model: &Model, candidate: usize) -> f64 {
        let targets = model.targets_of(candidate).iter();
        let saves = targets.map(|&(demand, quarters, _)| f64::from(quarters) * self.saves[demand as usize]);
        saves.sum::<f64>() / model.seconds[candidate].1
    }

    /// Whether a candidate may come into a session as far as places, one too many among them, and families go, with `leaving` out
    /// of it.
    pub fn room(&self, model: &Model, session: usize, candidate: usize, leaving: Option<usize>) -> bool {
        let family = model.family[candidate];
        let leaves = leaving.is_some_and(|other| model.family[other] == family);
        let taken = usize::from(self.family[session * model.families + family]) - usize::from(leaves);
        let items = self.items[session].len() - usize::from(leaving.is_some());
        taken < model.problem.family_limit && items <= model.problem.max_exercises
    }

    /// Puts `new` sets of a candidate into a session and brings every count up to date. Gives the sets it had.
    pub fn change(&mut self, model: &Model, session: usize, candidate: usize, new: u16) -> u16 {
        let cell = session * model.candidates + candidate;
        let old = std::mem::replace(&mut self.sets[cell], new);
        if old == new {
            return old;
        }
        if old == 0 || new == 0 {
            self.come_or_go(model, session, candidate, new > 0);
        }
        let by = i32::from(new) - i32::from(old);
        self.take_time(model, session, f64::from(by) * model.seconds[candidate].1);
        self.total_sets += by;
        self.over_sets = (self.total_sets - model.weekly_sets).max(0);
        for &(demand, quarters, main) in model.targets_of(candidate) {
            let demand = demand as usize;
            self.dose_changes(model, session, demand, by * quarters);
            if main {
                self.direct_changes(model, session, candidate, demand, by);
            }
        }
        old
    }

    /// An exercise comes into a session or leaves it.
    fn come_or_go(&mut self, model: &Model, session: usize, candidate: usize, comes: bool) {
        let one = if comes { 1 } else { -1 };
        let items = &mut self.items[session];
        let before = items.len();
        if comes {
            items.push(candidate);
        } else {
            items.retain(|other| *other != candidate);
        }
        let after = items.len();
        let thin = |count: usize| EXERCISES_AT_LEAST.saturating_sub(count) as f64;
        self.cost += THIN_SESSION * (thin(after) - thin(before));
        let crowded = |count: usize| i32::from(count > model.problem.max_exercises);
        self.crowded += crowded(after) - crowded(before);
        let warm_up = if comes && before == 0 {
            WARM_UP_S
        } else if !comes && after == 0 {
            -WARM_UP_S
        } else {
            0.0
        };
        self.take_time(model, session, f64::from(one) * model.seconds[candidate].0 + warm_up);
        let family = &mut self.family[session * model.families + model.family[candidate]];
        let over = |count: u16| i32::from(count).saturating_sub(model.problem.family_limit as i32).max(0);
        let was = over(*family);
        *family = family.saturating_add_signed(one);
        self.broken += over(*family) - was;
        let used = &mut self.used[candidate];
        let was = *used;
        *used = used.saturating_add_signed(one);
        if was == 0 || *used == 0 {
            self.cost += f64::from(one) * model.use_cost[candidate];
            for &demand in &model.stretches[candidate] {
                let before = self.stretched[demand] == 0;
                self.stretched[demand] += i32::from(one);
                let after = self.stretched[demand] == 0;
                self.owe(NOT_STRETCHED * f64::from(i32::from(after) - i32::from(before)));
            }
        }
    }

    fn owe(&mut self, more: f64) {
        self.cost += more;
        self.owed += more;
    }

    fn take_time(&mut self, model: &Model, session: usize, seconds: f64) {
        let over = |time: f64| ((time - model.limit_s[session]) / 60.0).max(0.0);
        let before = self.seconds[session];
        let after = before + seconds;
        self.seconds[session] = after;
        self.over_minutes += over(after) - over(before);
        self.cost += MINUTE * seconds / 60.0;
    }

    fn dose_changes(&mut self, model: &Model, session: usize, demand: usize, by: i32) {
        let loaded = |dose: i32| dose >= LOADED_QUARTERS;
        let asks = &model.asks[demand];
        let cell = session * model.demands + demand;
        let before = self.dose[cell];
        let after = before + by;
        self.dose[cell] = after;
        if loaded(before) != loaded(after) && !asks.daily {
            let near = model.near_pairs.iter().filter_map(|(one, other)| match session {
                s if s == *one => Some(*other),
                s if s == *other => Some(*one),
                _ => None,
            });
            let tired = near.filter(|other| self.loaded[*other] >> demand & 1 == 1).count() as i32;
            self.tired += if loaded(after) { tired } else { -tired };
            self.loaded[session] ^= 1 << demand;
        }
        let was = self.total[demand];
        self.total[demand] = was + by;
        let cost = asks.cost(was + by);
        self.cost += cost - asks.cost(was);
        self.saves[demand] = cost - asks.cost(was + by + 1);
    }

    fn direct_changes(&mut self, model: &Model, session: usize, candidate: usize, demand: usize, by: i32) {
        let direct = &mut self.direct[session * model.demands + demand];
        let over = |sets: i32| i32::from(sets > DIRECT_SETS_A_SESSION as i32);
        let (before, after) = (*direct, *direct + by);
        *direct = after;
        self.broken += over(after) - over(before);
        if (before > 0) != (after > 0) {
            let missed = |count: i32| f64::from((model.asks[demand].sessions - count).max(0));
            let was = self.worked[demand];
            let now = was + if after > 0 { 1 } else { -1 };
            self.worked[demand] = now;
            self.owe(SESSION_MISSED * (missed(now) - missed(was)));
        }
        if !model.asks[demand].uneven {
            return;
        }
        let short = |state: &Self| i32::from(2 * state.one_sided[demand] < state.all_direct[demand]);
        let before = short(self);
        self.all_direct[demand] += by;
        if model.one_sided[candidate] {
            self.one_sided[demand] += by;
        }
        self.owe(NOT_STRETCHED * f64::from(short(self) - before));
    }
}
