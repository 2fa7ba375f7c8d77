//! What a step would change, worked out without taking it: most steps are not taken.

// Sets, sessions and exercises of a week are counted in hundreds at most: no cast here loses anything.
#![allow(clippy::cast_possible_truncation, clippy::cast_possible_wrap)]

use super::model::Model;
use super::state::{State, over_caps};
use crate::aims::NOT_STRETCHED;
use crate::cost::{EXERCISES_AT_LEAST, MINUTE, SESSION_MISSED, THIN_SESSION};
use crate::rules::DIRECT_SETS_A_SESSION;
use crate::timing::WARM_UP_S;

/// Sets of a candidate in a session after a step: session, candidate, sets. A step names a cell once.
pub(super) type Change = (usize, usize, u16);

/// By how much a step changes what is counted of a week.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub(super) struct Weighed {
    /// The objective without the penalty for time.
    pub cost: f64,
    /// Hard rules broken, but for those that may be overdrawn.
    pub broken: i32,
    /// Over the week's limits, quarters.
    pub over_loads: i32,
    /// Direct sets too many for regions that are not rested.
    pub tired: i32,
    /// Sessions with an exercise too many.
    pub crowded: i32,
    /// Minutes over the limit.
    pub over_minutes: f64,
    /// Minutes of the week.
    pub minutes: f64,
}

/// Room to add up a step in; all zero between two of them.
pub(super) struct Scratch {
    total: Vec<i32>,
    loads: Vec<i32>,
    parts: Vec<i32>,
    /// By session, then by demand.
    direct: Vec<i32>,
    one_sided: Vec<i32>,
    all_direct: Vec<i32>,
    seconds: Vec<f64>,
    items: Vec<i32>,
    used: Vec<i32>,
    covered: Vec<i32>,
    axial: Vec<i32>,
    floor_lifts: Vec<i32>,
}

impl Scratch {
    pub fn new(model: &Model) -> Self {
        let (sessions, demands) = (model.sessions, model.demands);
        Self {
            total: vec![0; demands],
            loads: vec![0; model.most.len()],
            parts: vec![0; model.least.len()],
            direct: vec![0; sessions * demands],
            one_sided: vec![0; demands],
            all_direct: vec![0; demands],
            seconds: vec![0.0; sessions],
            items: vec![0; sessions],
            used: vec![0; model.candidates],
            covered: vec![0; model.cover_price.len()],
            axial: vec![0; sessions],
            floor_lifts: vec![0; sessions],
        }
    }
}

/// The places of the bits of a mask.
fn bits(mut mask: u64) -> impl Iterator<Item = usize> {
    std::iter::from_fn(move || {
        let place = mask.trailing_zeros();
        mask &= mask.wrapping_sub(1);
        (place < u64::BITS).then_some(place as usize)
    })
}

/// 1 when an exercise comes into the week, -1 when it leaves it.
fn first_use(before: i32, by: i32) -> f64 {
    f64::from(i32::from(before + by > 0) - i32::from(before > 0))
}

fn take(value: &mut i32) -> i32 {
    std::mem::take(value)
}

impl State {
    /// What the changes of one step would change. They are taken to leave room: an exercise comes only where [`State::room`] says so.
    pub fn weigh(&self, model: &Model, changes: &[Change], scratch: &mut Scratch) -> Weighed {
        let mut weighed = self.weigh_work(model, changes, scratch);
        self.weigh_rules(model, changes, scratch, &mut weighed);
        weighed
    }

    /// The first and cheaper half: doses, time, exercises used. What is left out can lower the cost by [`State::owed`]
    /// and take away what is tired, no more.
    pub fn weigh_work(&self, model: &Model, changes: &[Change], scratch: &mut Scratch) -> Weighed {
        let mut weighed = Weighed::default();
        if let &[(session, candidate, new)] = changes {
            let (by, comes) = self.by(model, session, candidate, new);
            let (set_up, per_set) = model.seconds[candidate];
            let mut seconds = f64::from(by) * per_set + f64::from(comes) * set_up;
            if let Some((partner, saves_s)) = model.partner[candidate] {
                let there = self.of(model, session, partner);
                let rounds = |sets: u16| f64::from(there.min(sets));
                seconds += saves_s * (rounds(self.of(model, session, candidate)) - rounds(new));
            }
            self.weigh_session(model, session, comes, seconds, &mut weighed);
            for &(limit, quarters) in model.limits_of(candidate) {
                weighed.over_loads += self.over_load(model, limit as usize, by * quarters);
            }
            for target in model.floors_of(candidate) {
                weighed.cost += self.part_cost(model, target.to as usize, target.gives(by, comes));
            }
            weighed.cost += f64::from(by) * model.set_cost[candidate];
            weighed.cost += f64::from(comes) * model.place_cost[session * model.candidates + candidate];
            for target in model.targets_of(candidate) {
                weighed.cost += self.dose_cost(model, target.to as usize, target.gives(by, comes));
            }
            let before = i32::from(self.used[candidate]);
            weighed.cost += model.use_cost[candidate] * first_use(before, comes);
            return weighed;
        }
        if self.only_moves(model, changes) {
            return self.weigh_moved(model, changes, scratch);
        }
        let (mut sessions, mut demands, mut limits, mut parts) = (0_u64, 0_u64, 0_u64, 0_u64);
        for &(session, candidate, new) in changes {
            let (by, comes) = self.by(model, session, candidate, new);
            let (set_up, per_set) = model.seconds[candidate];
            sessions |= 1 << session;
            weighed.cost += f64::from(by) * model.set_cost[candidate];
            weighed.cost += f64::from(comes) * model.place_cost[session * model.candidates + candidate];
            for &(limit, quarters) in model.limits_of(candidate) {
                limits |= 1 << limit;
                scratch.loads[limit as usize] += by * quarters;
            }
            for target in model.floors_of(candidate) {
                parts |= 1 << target.to;
                scratch.parts[target.to as usize] += target.gives(by, comes);
            }
            scratch.seconds[session] += f64::from(by) * per_set + f64::from(comes) * set_up;
            scratch.items[session] += comes;
            scratch.used[candidate] += comes;
            for target in model.targets_of(candidate) {
                demands |= 1 << target.to;
                scratch.total[target.to as usize] += target.gives(by, comes);
            }
        }
        self.weigh_pairs(model, changes, scratch);
        for &(_, candidate, _) in changes {
            let by = take(&mut scratch.used[candidate]);
            weighed.cost += model.use_cost[candidate] * first_use(i32::from(self.used[candidate]), by);
        }
        for limit in bits(limits) {
            weighed.over_loads += self.over_load(model, limit, take(&mut scratch.loads[limit]));
        }
        for floor in bits(parts) {
            weighed.cost += self.part_cost(model, floor, take(&mut scratch.parts[floor]));
        }
        for session in bits(sessions) {
            let (items, seconds) = (take(&mut scratch.items[session]), std::mem::take(&mut scratch.seconds[session]));
            self.weigh_session(model, session, items, seconds, &mut weighed);
        }
        for demand in bits(demands) {
            weighed.cost += self.dose_cost(model, demand, take(&mut scratch.total[demand]));
        }
        weighed
    }

    /// Whether a step leaves every exercise its sets of the week, as items that change their day do.
    fn only_moves(&self, model: &Model, changes: &[Change]) -> bool {
        let by = |place: usize| self.by(model, changes[place].0, changes[place].1, changes[place].2).0;
        let comes = |place: usize| self.by(model, changes[place].0, changes[place].1, changes[place].2).1;
        let pair = |a: usize, b: usize| {
            changes[a].1 == changes[b].1 && by(a) + by(b) == 0 && (!model.any_once || comes(a) + comes(b) == 0)
        };
        match changes.len() {
            2 => pair(0, 1),
            4 => pair(0, 3) && pair(1, 2),
            _ => false,
        }
    }

    /// The first half for such a step: nothing changes but what each session holds.
    fn weigh_moved(&self, model: &Model, changes: &[Change], scratch: &mut Scratch) -> Weighed {
        let (mut weighed, mut sessions) = (Weighed::default(), 0_u64);
        for &(session, candidate, new) in changes {
            let (by, comes) = self.by(model, session, candidate, new);
            let (set_up, per_set) = model.seconds[candidate];
            sessions |= 1 << session;
            weighed.cost += f64::from(comes) * model.place_cost[session * model.candidates + candidate];
            scratch.seconds[session] += f64::from(by) * per_set + f64::from(comes) * set_up;
            scratch.items[session] += comes;
        }
        self.weigh_pairs(model, changes, scratch);
        for session in bits(sessions) {
            let (items, seconds) = (take(&mut scratch.items[session]), std::mem::take(&mut scratch.seconds[session]));
            self.weigh_session(model, session, items, seconds, &mut weighed);
        }
        weighed
    }

    /// What rounds of pairs save more or less, s, where a step changes one of a pair or both.
    fn weigh_pairs(&self, model: &Model, changes: &[Change], scratch: &mut Scratch) {
        for (place, &(session, candidate, new)) in changes.iter().enumerate() {
            let Some((partner, saves_s)) = model.partner[candidate] else { continue };
            let with = changes.iter().position(|(s, c, _)| (*s, *c) == (session, partner));
            // Where both change, the pair is weighed with the later of the two.
            if with.is_some_and(|with| with > place) {
                continue;
            }
            let there = self.of(model, session, partner);
            let before = there.min(self.of(model, session, candidate));
            let after = with.map_or(there, |with| changes[with].2).min(new);
            scratch.seconds[session] += saves_s * (f64::from(before) - f64::from(after));
        }
    }

    /// Sets that a change adds, and whether the exercise comes (1) or goes (-1).
    fn by(&self, model: &Model, session: usize, candidate: usize, new: u16) -> (i32, i32) {
        let old = self.of(model, session, candidate);
        (i32::from(new) - i32::from(old), i32::from(new > 0) - i32::from(old > 0))
    }

    /// By how much more a limit is overdrawn, quarters.
    fn over_load(&self, model: &Model, limit: usize, by: i32) -> i32 {
        let under = self.loads[limit] - model.most[limit];
        (under + by).max(0) - under.max(0)
    }

    fn part_cost(&self, model: &Model, floor: usize, by: i32) -> f64 {
        model.floor_cost(floor, self.parts[floor] + by) - self.part_cost[floor]
    }

    fn dose_cost(&self, model: &Model, demand: usize, by: i32) -> f64 {
        if by == 0 { 0.0 } else { model.asks[demand].cost(self.total[demand] + by) - self.dose_cost[demand] }
    }

    /// The other half: the rules, and what is owed to regions that are brought up.
    pub fn weigh_rules(&self, model: &Model, changes: &[Change], scratch: &mut Scratch, weighed: &mut Weighed) {
        let (mut sessions, mut demands, mut covered) = (0_u64, 0_u64, 0_u64);
        let (mut spine, mut floor_lifts) = (false, false);
        for &(session, candidate, new) in changes {
            let (by, comes) = self.by(model, session, candidate, new);
            sessions |= 1 << session;
            scratch.used[candidate] += comes;
            let axial = by * model.axial[candidate];
            spine |= axial != 0;
            scratch.axial[session] += axial;
            if model.floor_lift[candidate] && comes != 0 {
                floor_lifts = true;
                scratch.floor_lifts[session] += comes;
            }
            for target in model.targets_of(candidate) {
                if target.main {
                    let demand = target.to as usize;
                    demands |= 1 << demand;
                    scratch.direct[session * model.demands + demand] += by;
                    scratch.all_direct[demand] += by;
                    scratch.one_sided[demand] += if model.one_sided[candidate] { by } else { 0 };
                }
            }
        }
        for (place, &(_, candidate, _)) in changes.iter().enumerate() {
            let by = take(&mut scratch.used[candidate]);
            let before = i32::from(self.used[candidate]);
            let first = i32::from(before + by > 0) - i32::from(before > 0);
            if first != 0 {
                for &cover in &model.covers[candidate] {
                    covered |= 1 << cover;
                    scratch.covered[cover] += first;
                }
            }
            if changes[..place].iter().all(|(_, other, _)| *other != candidate) {
                weighed.broken += self.weigh_exercise(model, changes, candidate);
            }
        }
        for cover in bits(covered) {
            let before = self.covered[cover];
            let after = before + take(&mut scratch.covered[cover]);
            weighed.cost += model.cover_price[cover] * f64::from(i32::from(after == 0) - i32::from(before == 0));
        }
        for demand in bits(demands) {
            self.weigh_demand(model, sessions, demand, scratch, weighed);
        }
        if spine {
            let heavy = |load: i32| load >= model.axial_session;
            for &(one, other) in model.near_pairs.iter().filter(|(a, b)| (sessions >> a | sessions >> b) & 1 == 1) {
                let [before, after] = [[0, 0], [scratch.axial[one], scratch.axial[other]]]
                    .map(|[a, b]| heavy(self.axial[one] + a) && heavy(self.axial[other] + b));
                weighed.broken += i32::from(after) - i32::from(before);
            }
        }
        let mut more_floor_sessions = 0;
        for session in bits(sessions) {
            scratch.axial[session] = 0;
            if floor_lifts {
                let (before, by) = (self.floor_lifts[session], take(&mut scratch.floor_lifts[session]));
                more_floor_sessions += i32::from(before + by > 0) - i32::from(before > 0);
            }
        }
        if more_floor_sessions != 0 {
            let over = |sessions: i32| (sessions - model.problem.floor_lifts as i32).max(0);
            weighed.broken += over(self.floor_sessions + more_floor_sessions) - over(self.floor_sessions);
        }
    }

    /// What a step breaks more of what one exercise is held to: its caps, and not on two days running.
    fn weigh_exercise(&self, model: &Model, changes: &[Change], candidate: usize) -> i32 {
        let before = |session: usize| self.of(model, session, candidate);
        let after = |session: usize| {
            let changed = changes.iter().find(|(s, c, _)| *s == session && *c == candidate);
            changed.map_or_else(|| before(session), |(_, _, sets)| *sets)
        };
        let week = self.week_sets[candidate];
        let more: i32 = changes
            .iter()
            .filter(|(_, c, _)| *c == candidate)
            .map(|&(session, _, new)| i32::from(new) - i32::from(before(session)))
            .sum();
        let all = 0..model.sessions;
        let mut broken = over_caps(model, candidate, week + more, all.clone().map(after))
            - over_caps(model, candidate, week, all.map(before));
        if !model.held[candidate].daily {
            for &(one, other) in &model.near_pairs {
                broken += i32::from(after(one) > 0 && after(other) > 0);
                broken -= i32::from(before(one) > 0 && before(other) > 0);
            }
        }
        broken
    }

    /// Exercises that come into a session, or go, and the seconds they take beside the warm-up.
    fn weigh_session(&self, model: &Model, session: usize, comes: i32, mut seconds: f64, weighed: &mut Weighed) {
        if comes != 0 {
            let before = self.items[session].len() as i32;
            let after = before + comes;
            let thin = |count: i32| f64::from((EXERCISES_AT_LEAST as i32 - count).max(0));
            weighed.cost += THIN_SESSION * (thin(after) - thin(before));
            let crowded = |count: i32| i32::from(count > model.problem.max_exercises as i32);
            weighed.crowded += crowded(after) - crowded(before);
            seconds += WARM_UP_S * f64::from(i32::from(after > 0) - i32::from(before > 0));
        }
        let over = |time: f64| (time - model.limit_s[session]).max(0.0);
        let time = self.seconds[session];
        weighed.over_minutes += (over(time + seconds) - over(time)) / 60.0;
        weighed.minutes += seconds / 60.0;
        weighed.cost += MINUTE / 60.0 * seconds;
    }

    fn weigh_demand(&self, model: &Model, sessions: u64, demand: usize, scratch: &mut Scratch, weighed: &mut Weighed) {
        let asks = &model.asks[demand];
        let mut worked = 0;
        if !asks.daily {
            for &(one, other) in model.near_pairs.iter().filter(|(a, b)| (sessions >> a | sessions >> b) & 1 == 1) {
                let cells = [one * model.demands + demand, other * model.demands + demand];
                let [a, b] = cells.map(|cell| self.direct[cell]);
                let [by_a, by_b] = cells.map(|cell| scratch.direct[cell]);
                if by_a != 0 || by_b != 0 {
                    weighed.tired += model.tired(a + by_a, b + by_b) - model.tired(a, b);
                }
            }
        }
        for session in bits(sessions) {
            let cell = session * model.demands + demand;
            let direct_by = take(&mut scratch.direct[cell]);
            if direct_by != 0 {
                let (before, after) = (self.direct[cell], self.direct[cell] + direct_by);
                let over = |sets: i32| i32::from(sets > DIRECT_SETS_A_SESSION as i32);
                weighed.broken += over(after) - over(before);
                worked += i32::from(after > 0) - i32::from(before > 0);
            }
        }
        if worked != 0 {
            let missed = |count: i32| f64::from((asks.sessions - count).max(0));
            let before = self.worked[demand];
            weighed.cost += SESSION_MISSED * (missed(before + worked) - missed(before));
        }
        let (one_sided, all) = (take(&mut scratch.one_sided[demand]), take(&mut scratch.all_direct[demand]));
        if asks.uneven {
            let short = |one_sided: i32, all: i32| i32::from(2 * one_sided < all);
            let (had, of) = (self.one_sided[demand], self.all_direct[demand]);
            weighed.cost += NOT_STRETCHED * f64::from(short(had + one_sided, of + all) - short(had, of));
        }
    }
}
