//! Rows of the exported model for what a week is held to beside its doses: limits, floors, covers, caps, rest.

use super::{Sum, Writer, u, x, y};
use crate::problem::FLOOR_LIFT;
use crate::rules::{DIRECT_SETS_A_SESSION, near_pairs};

/// The most load along the spine that is not heavy yet: loads come in halves.
pub(crate) fn not_heavy(axial_session: f64) -> f64 {
    ((axial_session * 2.0).ceil() - 1.0) / 2.0
}

impl Writer<'_> {
    /// Sums over the week: limits that must hold, floors at their price.
    pub(super) fn sums(&mut self) {
        let problem = self.problem;
        for (place, limit) in problem.limits.iter().enumerate() {
            let sum = self.over_week(|candidate| limit.per_set(&problem.candidates[candidate]));
            self.row(&format!("limit_{place}"), &sum, "<=", limit.most);
        }
        for (place, floor) in problem.floors.iter().enumerate().filter(|(_, floor)| floor.least > 0.0) {
            let slack = format!("floor_{place}");
            let mut sum = Sum::default();
            for session in 0..problem.days.len() {
                for candidate in self.open(session) {
                    self.counted(&mut sum, session, candidate, floor.share(&problem.candidates[candidate]));
                }
            }
            sum.add(1.0, &slack);
            self.row(&slack, &sum, ">=", floor.least);
            self.objective.add(floor.price, slack);
        }
        for (place, cover) in problem.covers.iter().enumerate() {
            let slack = format!("cover_{place}");
            let mut sum = Sum::default();
            for candidate in self.worthwhile.clone() {
                if cover.by(problem, &problem.candidates[candidate]) {
                    sum.add(1.0, u(candidate));
                }
            }
            sum.add(1.0, &slack);
            self.row(&slack, &sum, ">=", 1.0);
            self.objective.add(cover.price, slack);
        }
    }

    /// Sets of the week, each times what a set adds.
    fn over_week(&self, per_set: impl Fn(usize) -> f64) -> Sum {
        let mut sum = Sum::default();
        for session in 0..self.problem.days.len() {
            for candidate in self.open(session) {
                sum.add(per_set(candidate), x(session, candidate));
            }
        }
        sum
    }

    /// How much of one exercise a week holds, and not on two days running.
    pub(super) fn exercise(&mut self, candidate: usize) {
        let problem = self.problem;
        let there: Vec<usize> =
            (0..problem.days.len()).filter(|session| self.open(*session).contains(&candidate)).collect();
        let (mut sets, mut sessions) = (Sum::default(), Sum::default());
        for session in &there {
            sets.add(1.0, x(*session, candidate));
            sessions.add(1.0, y(*session, candidate));
        }
        let of = &problem.candidates[candidate];
        self.row(&format!("sets_{candidate}"), &sets, "<=", f64::from(of.caps.sets));
        self.row(&format!("sessions_{candidate}"), &sessions, "<=", f64::from(of.caps.sessions));
        if of.daily {
            return;
        }
        for (one, other) in near_pairs(&problem.days) {
            if there.contains(&one) && there.contains(&other) {
                let mut both = Sum::default();
                both.add(1.0, y(one, candidate));
                both.add(1.0, y(other, candidate));
                self.row(&format!("after_{one}_{other}_{candidate}"), &both, "<=", 1.0);
            }
        }
    }

    /// Two near sessions that both train a region give it few direct sets together.
    pub(super) fn spacing(&mut self, demand: usize) {
        let problem = self.problem;
        let pairs = near_pairs(&problem.days);
        if problem.demands[demand].daily || pairs.is_empty() {
            return;
        }
        let trained = |session: usize| format!("trained_{session}_{demand}");
        let cap = f64::from(DIRECT_SETS_A_SESSION);
        for session in 0..problem.days.len() {
            let mut direct = self.direct(session, demand);
            direct.add(-cap, trained(session));
            self.row(&trained(session), &direct, "<=", 0.0);
            self.binary.insert(trained(session));
        }
        let most = f64::from(problem.near_direct_sets);
        for (one, other) in pairs {
            let mut both = self.direct(one, demand);
            for (variable, factor) in self.direct(other, demand).0 {
                both.add(factor, variable);
            }
            // Trained both, at most `most`; trained one, at most what a session holds.
            both.add(cap - most, trained(one));
            both.add(cap - most, trained(other));
            self.row(&format!("rest_{one}_{other}_{demand}"), &both, "<=", most + 2.0 * (cap - most));
        }
    }

    /// Load along the spine: heavy sessions two days apart, lifts from the floor in few sessions.
    pub(super) fn spine(&mut self) {
        let problem = self.problem;
        let (heavy, lift) = (|session: usize| format!("heavy_{session}"), |session: usize| format!("lift_{session}"));
        let pairs = near_pairs(&problem.days);
        let mut lifts = Sum::default();
        for session in 0..problem.days.len() {
            let mut axial = Sum::default();
            let mut most = 0.0;
            for candidate in self.open(session) {
                let load = problem.candidates[candidate].exercise.axial;
                axial.add(load, x(session, candidate));
                most += load * f64::from(crate::anneal::SETS_HIGH);
                if load >= FLOOR_LIFT {
                    let mut has = Sum::default();
                    has.add(1.0, y(session, candidate));
                    has.add(-1.0, lift(session));
                    self.row(&format!("lift_{session}_{candidate}"), &has, "<=", 0.0);
                    self.binary.insert(lift(session));
                }
            }
            lifts.add(1.0, lift(session));
            let light = not_heavy(problem.axial_session);
            axial.add(-(most - light).max(0.0), heavy(session));
            self.row(&heavy(session), &axial, "<=", light);
            self.binary.insert(heavy(session));
        }
        self.row("lifts", &lifts, "<=", problem.floor_lifts as f64);
        for (one, other) in pairs {
            let mut both = Sum::default();
            both.add(1.0, heavy(one));
            both.add(1.0, heavy(other));
            self.row(&format!("spine_{one}_{other}"), &both, "<=", 1.0);
        }
    }
}
