//! A week under change: what each change of a cell costs, kept up in time proportional to the regions it touches.

// Sets, sessions and exercises of a week are counted in hundreds at most: no cast here loses anything.
#![allow(clippy::cast_possible_truncation, clippy::cast_possible_wrap)]

use super::SETS_LOW;
use super::model::{Model, Target};
use crate::aims::NOT_STRETCHED;
use crate::cost::{EXERCISES_AT_LEAST, MINUTE, SESSION_MISSED, THIN_SESSION};
use crate::rules::{DIRECT_SETS_A_SESSION, exercise_caps};
use crate::timing::WARM_UP_S;

/// A week with everything that is counted about it.
#[derive(Clone)]
pub(super) struct State {
    /// By session, then by candidate.
    pub sets: Vec<u16>,
    /// Candidates of each session, in no order.
    pub items: Vec<Vec<usize>>,
    pub total: Vec<i32>,
    /// What each demand costs now, and each part.
    pub dose_cost: Vec<f64>,
    pub part_cost: Vec<f64>,
    /// What another grain saves, by demand.
    saves: Vec<f64>,
    pub direct: Vec<i32>,
    pub worked: Vec<i32>,
    pub seconds: Vec<f64>,
    family: Vec<u16>,
    pub used: Vec<u16>,
    /// Sets of a candidate in the week.
    pub week_sets: Vec<i32>,
    /// Sum of each limit, quarters.
    pub loads: Vec<i32>,
    /// Sum of each part, grains.
    pub parts: Vec<i32>,
    /// Exercises that cover something, by cover.
    pub covered: Vec<i32>,
    /// Load along the spine of a session, quarters.
    pub axial: Vec<i32>,
    /// Lifts from the floor in a session, and sessions that have one.
    pub floor_lifts: Vec<i32>,
    pub floor_sessions: i32,
    pub one_sided: Vec<i32>,
    pub all_direct: Vec<i32>,
    /// The objective without the penalty for time.
    pub cost: f64,
    /// The part of the cost that [`State::weigh_work`] leaves out: sessions missed, what nothing covers, sides uneven.
    pub owed: f64,
    /// Hard rules broken, but for those that may be overdrawn.
    pub broken: i32,
    /// Minutes over the limit, all sessions together.
    pub over_minutes: f64,
    /// Over the week's limits, quarters, all together.
    pub over_loads: i32,
    /// Direct sets too many for regions that are trained again before they are rested, each pair of sessions for itself.
    pub tired: i32,
    /// Sessions with an exercise too many.
    pub crowded: i32,
}

impl State {
    pub fn empty(model: &Model) -> Self {
        let cells = |per: usize| vec![0; model.sessions * per];
        let missing: f64 = model.cover_price.iter().sum();
        let empty: f64 = (0..model.least.len()).map(|floor| model.floor_cost(floor, 0)).sum();
        let doses: f64 = model.asks.iter().map(|asks| asks.cost(0)).sum();
        let missed: i32 = model.asks.iter().map(|asks| asks.sessions).sum();
        let thin = (EXERCISES_AT_LEAST * model.sessions) as f64;
        Self {
            sets: vec![0; model.sessions * model.candidates],
            items: vec![Vec::new(); model.sessions],
            total: vec![0; model.demands],
            dose_cost: model.asks.iter().map(|asks| asks.cost(0)).collect(),
            part_cost: (0..model.least.len()).map(|floor| model.floor_cost(floor, 0)).collect(),
            saves: model.asks.iter().map(|asks| asks.cost(0) - asks.cost(1)).collect(),
            direct: cells(model.demands),
            worked: vec![0; model.demands],
            seconds: vec![0.0; model.sessions],
            family: vec![0; model.sessions * model.families],
            used: vec![0; model.candidates],
            week_sets: vec![0; model.candidates],
            loads: vec![0; model.most.len()],
            parts: vec![0; model.least.len()],
            covered: vec![0; model.cover_price.len()],
            axial: vec![0; model.sessions],
            floor_lifts: vec![0; model.sessions],
            floor_sessions: 0,
            one_sided: vec![0; model.demands],
            all_direct: vec![0; model.demands],
            cost: doses + missing + empty + SESSION_MISSED * f64::from(missed) + THIN_SESSION * thin,
            owed: missing + SESSION_MISSED * f64::from(missed),
            broken: 0,
            over_minutes: 0.0,
            over_loads: 0,
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

    /// What another set of a candidate saves, for the time it takes, 1/s; of what counts once for a day, half of that with it.
    pub fn worth(&self, model: &Model, candidate: usize) -> f64 {
        let targets = model.targets_of(candidate).iter();
        let set = |target: &Target| f64::from(target.a_set) + f64::from(target.once) / f64::from(SETS_LOW);
        let saves = targets.map(|target| set(target) * self.saves[target.to as usize]);
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

    /// Whether the school lets one more of a candidate's family into a session.
    pub fn family_room(&self, model: &Model, session: usize, candidate: usize) -> bool {
        usize::from(self.family[session * model.families + model.family[candidate]]) < model.problem.family_limit
    }

    /// Puts `new` sets of a candidate into a session and brings every count up to date. Gives the sets it had.
    pub fn change(&mut self, model: &Model, session: usize, candidate: usize, new: u16) -> u16 {
        let cell = session * model.candidates + candidate;
        let old = self.sets[cell];
        if old == new {
            return old;
        }
        let over = self.over_caps(model, candidate);
        self.sets[cell] = new;
        let by = i32::from(new) - i32::from(old);
        self.week_sets[candidate] += by;
        if old == 0 || new == 0 {
            self.come_or_go(model, session, candidate, new > 0);
        }
        self.broken += self.over_caps(model, candidate) - over;
        self.take_time(model, session, f64::from(by) * model.seconds[candidate].1);
        if let Some((partner, saves_s)) = model.partner[candidate] {
            let there = self.of(model, session, partner);
            self.take_time(model, session, saves_s * (f64::from(there.min(old)) - f64::from(there.min(new))));
        }
        self.cost += f64::from(by) * model.set_cost[candidate];
        let comes = i32::from(new > 0) - i32::from(old > 0);
        self.loads_change(model, session, candidate, by, comes);
        for target in model.targets_of(candidate) {
            let demand = target.to as usize;
            self.dose_changes(model, demand, target.gives(by, comes));
            if target.main {
                self.direct_changes(model, session, candidate, demand, by);
            }
        }
        old
    }

    /// How far over its caps an exercise is: sets and sessions of the week, sets of each session.
    fn over_caps(&self, model: &Model, candidate: usize) -> i32 {
        let sets = (0..model.sessions).map(|session| self.of(model, session, candidate));
        over_caps(model, candidate, self.week_sets[candidate], sets)
    }

    /// What is added up against limits, parts and the spine.
    fn loads_change(&mut self, model: &Model, session: usize, candidate: usize, by: i32, comes: i32) {
        for &(limit, quarters) in model.limits_of(candidate) {
            let (sum, most) = (&mut self.loads[limit as usize], model.most[limit as usize]);
            let before = (*sum - most).max(0);
            *sum += by * quarters;
            self.over_loads += (*sum - most).max(0) - before;
        }
        for target in model.floors_of(candidate) {
            let floor = target.to as usize;
            self.parts[floor] += target.gives(by, comes);
            let cost = model.floor_cost(floor, self.parts[floor]);
            self.cost += cost - std::mem::replace(&mut self.part_cost[floor], cost);
        }
        let axial = by * model.axial[candidate];
        if axial != 0 {
            let before = self.spine_tired(model, session);
            self.axial[session] += axial;
            self.broken += self.spine_tired(model, session) - before;
        }
    }

    /// Near sessions of one with which it has too much load along the spine.
    fn spine_tired(&self, model: &Model, session: usize) -> i32 {
        let heavy = |session: usize| self.axial[session] >= model.axial_session;
        let near = model.near_pairs.iter().filter(|(one, other)| *one == session || *other == session);
        near.filter(|(one, other)| heavy(*one) && heavy(*other)).count() as i32
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
        self.cost += f64::from(one) * model.place_cost[session * model.candidates + candidate];
        if !model.held[candidate].daily {
            let near = model.near_pairs.iter().filter_map(|pair| partner(*pair, session));
            let again = near.filter(|other| self.of(model, *other, candidate) > 0).count() as i32;
            self.broken += i32::from(one) * again;
        }
        if model.floor_lift[candidate] {
            let over = |sessions: i32| (sessions - model.problem.floor_lifts as i32).max(0);
            let before = over(self.floor_sessions);
            let had = self.floor_lifts[session] > 0;
            self.floor_lifts[session] += i32::from(one);
            self.floor_sessions += i32::from(self.floor_lifts[session] > 0) - i32::from(had);
            self.broken += over(self.floor_sessions) - before;
        }
        let used = &mut self.used[candidate];
        let was = *used;
        *used = used.saturating_add_signed(one);
        if was == 0 || *used == 0 {
            self.cost += f64::from(one) * model.use_cost[candidate];
            for &cover in &model.covers[candidate] {
                let before = self.covered[cover] == 0;
                self.covered[cover] += i32::from(one);
                let after = self.covered[cover] == 0;
                self.owe(model.cover_price[cover] * f64::from(i32::from(after) - i32::from(before)));
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

    fn dose_changes(&mut self, model: &Model, demand: usize, by: i32) {
        let asks = &model.asks[demand];
        self.total[demand] += by;
        let cost = asks.cost(self.total[demand]);
        self.cost += cost - std::mem::replace(&mut self.dose_cost[demand], cost);
        self.saves[demand] = cost - asks.cost(self.total[demand] + 1);
    }

    fn direct_changes(&mut self, model: &Model, session: usize, candidate: usize, demand: usize, by: i32) {
        let direct = &mut self.direct[session * model.demands + demand];
        let over = |sets: i32| i32::from(sets > DIRECT_SETS_A_SESSION as i32);
        let (before, after) = (*direct, *direct + by);
        *direct = after;
        if !model.asks[demand].daily {
            for other in model.near_pairs.iter().filter_map(|pair| partner(*pair, session)) {
                let there = self.direct[other * model.demands + demand];
                self.tired += model.tired(after, there) - model.tired(before, there);
            }
        }
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

/// The other session of a pair, when one of it is `session`.
pub(super) fn partner((one, other): (usize, usize), session: usize) -> Option<usize> {
    match session {
        s if s == one => Some(other),
        s if s == other => Some(one),
        _ => None,
    }
}

/// How far over its caps an exercise is with so many sets in the week and in each session.
pub(super) fn over_caps(model: &Model, candidate: usize, week: i32, sets: impl Iterator<Item = u16>) -> i32 {
    let caps = model.held[candidate].caps;
    let (mut sessions, mut over) = (0, 0);
    for sets in sets {
        sessions += u32::from(sets > 0);
        over += i32::from(sets.saturating_sub(caps.session_sets));
    }
    over + exercise_caps::over(caps, week.max(0).cast_unsigned(), sessions) as i32
}
