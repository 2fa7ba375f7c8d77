//! What does not change while a week is searched for: limits, prices and targets laid out for quick looking up.

// Sets, sessions and exercises of a week are counted in hundreds at most: no cast here loses anything.
#![allow(clippy::cast_possible_truncation, clippy::cast_possible_wrap)]

use super::Found;
use super::pool::{undominated, worthwhile};
use crate::candidate::Caps;
use crate::card::Card;
use crate::cost::{ABOVE_HIGH, BELOW_LOW, strain_cost, theme_cost, use_cost};
use crate::draft::Locks;
use crate::pairs::Pair;
use crate::problem::{Candidate, FLOOR_LIFT, PlanProblem};
use crate::rules::{A_MOMENT, near_pairs, over_together};
use crate::timing::{card_minutes, item_minutes};
use crate::week::Week;
use assess::Class;
use std::collections::BTreeMap;

/// Limits are counted in quarters, the smallest load of a set, so that sums are exact.
const QUARTERS: f64 = 4.0;
/// Doses are too where all sets are straight; where the parts of a scheme count a quarter of a set, in quarters of these.
const FINE: f64 = 16.0;

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
    /// Of all candidates one after another.
    targets: Vec<Target>,
    /// Where the targets of each candidate begin, and of the last one end.
    target_starts: Vec<usize>,
    /// What each candidate is held to.
    pub held: Vec<Held>,
    pub family: Vec<usize>,
    pub families: usize,
    /// Limit and what a set adds to it, of all candidates one after another.
    limits: Vec<(u32, i32)>,
    limit_starts: Vec<usize>,
    /// The most of each limit, quarters.
    pub most: Vec<i32>,
    /// Parts of the body that a candidate adds to, of all candidates one after another.
    floors: Vec<Target>,
    floor_starts: Vec<usize>,
    /// The least of each part, grains, and the price of a grain less.
    pub least: Vec<(i32, f64)>,
    /// Whether coming into a day counts for something beside the sets.
    pub any_once: bool,
    /// The other of a candidate's pair and what a round of both saves, s.
    pub partner: Vec<Option<(usize, f64)>>,
    /// What each candidate covers.
    pub covers: Vec<Vec<usize>>,
    /// What a week costs that does not have it, by cover.
    pub cover_price: Vec<f64>,
    /// Price of a candidate's place in a session, by cell: those outside the day's theme cost something.
    pub place_cost: Vec<f64>,
    /// Load along the spine of a set, quarters.
    pub axial: Vec<i32>,
    /// Load along the spine that a session carries before it needs rest, quarters.
    pub axial_session: i32,
    /// Whether a candidate is held to few sessions with its like.
    pub floor_lift: Vec<bool>,
    /// Seconds of setting up with the extra sets, and of one set, by candidate.
    pub seconds: Vec<(f64, f64)>,
    pub use_cost: Vec<f64>,
    /// What a set costs beside its time.
    pub set_cost: Vec<f64>,
    pub one_sided: Vec<bool>,
    /// Sessions less than two days apart, each pair once.
    pub near_pairs: Vec<(usize, usize)>,
    /// Time of each session, less what the schemes of its locked cards take beside straight sets, s.
    pub limit_s: Vec<f64>,
    /// Sets of cells that stay as they are, 0 where the search is free.
    pub locked: Vec<u16>,
}

impl<'a> Model<'a> {
    /// Among the candidates that a search looks at.
    pub fn new(problem: &'a PlanProblem, locks: &Locks) -> Self {
        Self::among(problem, locks, undominated(problem))
    }

    /// Among all candidates worth doing.
    pub fn whole(problem: &'a PlanProblem, locks: &Locks) -> Self {
        Self::among(problem, locks, worthwhile(problem))
    }

    fn among(problem: &'a PlanProblem, locks: &Locks, worthwhile: Vec<usize>) -> Self {
        let candidates = &problem.candidates;
        let demands = problem.demands.len();
        let mut families: BTreeMap<&str, usize> = BTreeMap::new();
        let family = candidates.iter().map(|candidate| {
            let next = families.len();
            *families.entry(candidate.exercise.family.as_str()).or_insert(next)
        });
        let family: Vec<usize> = family.collect();
        let per_set = |c: usize| (item_minutes(&candidates[c], 2) - item_minutes(&candidates[c], 1)) * 60.0;
        let chosen = |demand: usize| problem.demands[demand].class == Class::BringUp;
        let covers =
            |c: &Candidate| (0..problem.covers.len()).filter(|cover| problem.covers[*cover].by(problem, c)).collect();
        let quarters = |sum: f64| (sum * QUARTERS).round() as i32;
        let any_once = candidates.iter().any(|c| !c.usual.is_straight());
        let grain = if any_once { FINE } else { QUARTERS };
        let grains = |sum: f64| (sum * grain).round() as i32;
        let target = |c: &Candidate, to: usize, share: f64, main: bool| Target {
            to: to as u32,
            a_set: grains(share * c.usual.counts.a_set),
            once: grains(share * c.usual.counts.once),
            main,
        };
        let limits = |c: &Candidate| adds(problem.limits.iter().map(|limit| quarters(limit.per_set(c))));
        let floors = |c: &Candidate| -> Vec<Target> {
            let shares = problem.floors.iter().map(|floor| floor.share(c)).enumerate();
            shares.filter(|(_, share)| *share > 0.0).map(|(floor, share)| target(c, floor, share, false)).collect()
        };
        let place = |session: usize| (0..candidates.len()).map(move |c| theme_cost(problem, session, c));
        let wanted = |d: usize| i32::from(problem.demands[d].dose.sessions_low).min(problem.days.len() as i32);
        let mut locked = vec![0; problem.days.len() * candidates.len()];
        for (session, card) in &locks.0 {
            locked[session * candidates.len() + card.candidate] = card.sets;
        }
        let partner = partners(problem, &locked);
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
            target_starts: starts(candidates.iter().map(|c| c.targets.len())),
            targets: candidates
                .iter()
                .flat_map(|c| c.targets.iter().map(|(d, f)| target(c, *d, *f, *f >= 1.0)).collect::<Vec<_>>())
                .collect(),
            any_once,
            held: candidates.iter().map(|c| Held { caps: c.caps, daily: c.daily }).collect(),
            partner,
            families: families.len(),
            limit_starts: starts(candidates.iter().map(|c| limits(c).len())),
            limits: candidates.iter().flat_map(limits).collect(),
            most: problem.limits.iter().map(|limit| (limit.most * QUARTERS + 1e-6).floor() as i32).collect(),
            floor_starts: starts(candidates.iter().map(|c| floors(c).len())),
            floors: candidates.iter().flat_map(floors).collect(),
            least: problem.floors.iter().map(|floor| (grains(floor.least), floor.price / grain)).collect(),
            covers: candidates.iter().map(covers).collect(),
            cover_price: problem.covers.iter().map(|cover| cover.price).collect(),
            place_cost: (0..problem.days.len()).flat_map(place).collect(),
            axial: candidates.iter().map(|c| quarters(c.exercise.axial)).collect(),
            axial_session: quarters(problem.axial_session),
            floor_lift: candidates.iter().map(|c| c.exercise.axial >= FLOOR_LIFT).collect(),
            family,
            seconds: (0..candidates.len())
                .map(|c| (item_minutes(&candidates[c], 1) * 60.0 - per_set(c), per_set(c)))
                .collect(),
            set_cost: (0..candidates.len()).map(|c| strain_cost(problem, c)).collect(),
            use_cost: (0..candidates.len()).map(|c| use_cost(problem, c)).collect(),
            asks: (0..demands).map(|d| asks(problem, d, if chosen(d) { wanted(d) } else { 0 }, grain)).collect(),
            one_sided: candidates.iter().map(|c| c.one_sided).collect(),
            near_pairs: near_pairs(&problem.days),
            // A full session is full however its seconds are added up, by the rule's own measure.
            limit_s: (0..problem.days.len())
                .map(|session| (problem.minutes + A_MOMENT / 2.0) * 60.0 - schemes_s(problem, locks, session))
                .collect(),
        }
    }

    /// Direct sets too many of two near sessions.
    pub fn tired(&self, one: i32, other: i32) -> i32 {
        over_together(self.problem.near_direct_sets, one.cast_unsigned(), other.cast_unsigned()) as i32
    }

    /// The same model with what good weeks have as favourites.
    pub fn with_favourites(&self, good: &[Found]) -> Self {
        let used = |c: &usize| {
            let cells = || (0..self.sessions).map(|session| session * self.candidates + c);
            good.iter().any(|found| cells().any(|cell| found.sets[cell] > 0))
        };
        Self { favourites: self.worthwhile.iter().copied().filter(used).collect(), ..self.clone() }
    }

    /// Demands that a candidate adds to.
    pub fn targets_of(&self, candidate: usize) -> &[Target] {
        &self.targets[self.target_starts[candidate]..self.target_starts[candidate + 1]]
    }

    /// Limits that a set of a candidate adds to, and by how many quarters.
    pub fn limits_of(&self, candidate: usize) -> &[(u32, i32)] {
        &self.limits[self.limit_starts[candidate]..self.limit_starts[candidate + 1]]
    }

    /// Parts that a candidate adds to.
    pub fn floors_of(&self, candidate: usize) -> &[Target] {
        &self.floors[self.floor_starts[candidate]..self.floor_starts[candidate + 1]]
    }

    /// What a part costs that gets so many grains.
    pub fn floor_cost(&self, floor: usize, grains: i32) -> f64 {
        let (least, price) = self.least[floor];
        price * f64::from((least - grains).max(0))
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

/// What a candidate is held to by itself.
#[derive(Clone, Copy)]
pub(super) struct Held {
    pub caps: Caps,
    /// May be done on consecutive days.
    pub daily: bool,
}

/// What a candidate gives to a demand or a part, grains.
#[derive(Clone, Copy)]
pub(super) struct Target {
    /// Which.
    pub to: u32,
    /// A set.
    pub a_set: i32,
    /// Being done on a day at all.
    pub once: i32,
    /// Whether it is a main target.
    pub main: bool,
}

impl Target {
    /// What so many sets more on so many days more give.
    pub fn gives(&self, sets: i32, days: i32) -> i32 {
        sets * self.a_set + days * self.once
    }
}

/// The other of each candidate's pair and what a round saves, s; what is locked stands where the coach has it, in turns or not.
fn partners(problem: &PlanProblem, locked: &[u16]) -> Vec<Option<(usize, f64)>> {
    let count = problem.candidates.len();
    let free = |candidate: usize| locked.iter().skip(candidate).step_by(count).all(|sets| *sets == 0);
    let pairs: Vec<&Pair> = problem.pairs.iter().filter(|pair| pair.of.iter().all(|c| free(*c))).collect();
    (0..count).map(|c| pairs.iter().find_map(|pair| Some((pair.partner(c)?, pair.saves_s)))).collect()
}

/// Seconds that the schemes of a session's locked cards take beside straight sets.
fn schemes_s(problem: &PlanProblem, locks: &Locks, session: usize) -> f64 {
    let here = locks.0.iter().filter(|(s, _)| *s == session).map(|(_, card)| card);
    let beside = |card: &Card| {
        let straight = item_minutes(&problem.candidates[card.candidate], card.sets);
        (card_minutes(problem, card) - straight).max(0.0) * 60.0
    };
    here.map(beside).sum()
}

/// Where the entries of each candidate begin when all stand one after another, and of the last one end.
fn starts(lengths: impl Iterator<Item = usize>) -> Vec<usize> {
    let ends = lengths.scan(0, |end, length| {
        *end += length;
        Some(*end)
    });
    std::iter::once(0).chain(ends).collect()
}

/// Places at which something is added, with what.
fn adds(quarters: impl Iterator<Item = i32>) -> Vec<(u32, i32)> {
    quarters
        .enumerate()
        .filter(|(_, quarters)| *quarters > 0)
        .map(|(place, quarters)| (place as u32, quarters))
        .collect()
}

fn asks(problem: &PlanProblem, demand: usize, sessions: i32, grain: f64) -> Asks {
    let wanted = &problem.demands[demand];
    Asks {
        low: wanted.dose.low * grain,
        aim: wanted.dose.aim * grain,
        high: wanted.dose.high * grain,
        price: wanted.weight / grain,
        sessions,
        daily: wanted.daily,
        uneven: wanted.weaker.is_some() && problem.candidates.iter().any(|c| c.one_sided && c.trains(demand)),
    }
}

/// What the search asks of a demand. Doses in grains.
#[derive(Clone, Copy)]
pub(super) struct Asks {
    low: f64,
    aim: f64,
    high: f64,
    /// Price of a grain below the aim.
    price: f64,
    /// Sessions a chosen region should be worked in, 0 for others.
    pub sessions: i32,
    /// May be trained on consecutive days.
    pub daily: bool,
    /// Its sides differ and something one-sided exists.
    pub uneven: bool,
}

impl Asks {
    /// Whether it gets less than it aims at.
    pub fn is_short(&self, grains: i32) -> bool {
        f64::from(grains) < self.aim
    }

    /// Weighted shortfall and overshoot of a dose, grains.
    pub fn cost(&self, grains: i32) -> f64 {
        let dose = f64::from(grains);
        let short = BELOW_LOW * (self.low - dose).max(0.0) + (self.aim - dose).max(0.0);
        self.price * (short + ABOVE_HIGH * (dose - self.high).max(0.0))
    }
}
