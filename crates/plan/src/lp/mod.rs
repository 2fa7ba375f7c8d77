//! The optimisation model of a week in LP format, for any solver that reads it: the same objective, the same rules.
//!
//! `x` are sets of an exercise in a session, `y` whether it is done there, `u` whether it is done at all, `g` rounds of a pair that
//! is run in turns. The constant of the objective is the variable `one`, fixed at 1.

pub(crate) mod rules;

use crate::aims::NOT_STRETCHED;
use crate::anneal::{SETS_LOW, worthwhile};
use crate::cost::{
    ABOVE_HIGH, BELOW_LOW, EXERCISES_AT_LEAST, MINUTE, SESSION_MISSED, THIN_SESSION, strain_cost, theme_cost, use_cost,
};
use crate::problem::PlanProblem;
use crate::rules::{DIRECT_SETS_A_SESSION, one_sided_share};
use crate::timing::{WARM_UP_S, item_minutes};
use assess::Class;
use std::collections::{BTreeMap, BTreeSet};
use std::fmt::Write;

/// A sum of terms, `2 x - 3 y`.
#[derive(Default)]
struct Sum(BTreeMap<String, f64>);

impl Sum {
    fn add(&mut self, factor: f64, variable: impl Into<String>) {
        *self.0.entry(variable.into()).or_insert(0.0) += factor;
    }

    fn text(&self) -> String {
        let mut text = String::new();
        for (place, (variable, factor)) in self.0.iter().filter(|(_, factor)| factor.abs() > 0.0).enumerate() {
            // Long lines trouble some readers of the format.
            let gap = if place > 0 && place % 8 == 0 { "\n   " } else { " " };
            let sign = if *factor < 0.0 { "-" } else { "+" };
            let _ = write!(text, "{gap}{sign} {} {variable}", factor.abs());
        }
        if text.is_empty() { " 0 one".to_owned() } else { text }
    }
}

/// The model under construction.
struct Writer<'a> {
    problem: &'a PlanProblem,
    worthwhile: Vec<usize>,
    objective: Sum,
    rows: Vec<String>,
    bounds: Vec<String>,
    general: BTreeSet<String>,
    binary: BTreeSet<String>,
}

fn x(session: usize, candidate: usize) -> String {
    format!("x_{session}_{candidate}")
}

fn y(session: usize, candidate: usize) -> String {
    format!("y_{session}_{candidate}")
}

fn u(candidate: usize) -> String {
    format!("u_{candidate}")
}

/// The model of a problem. Candidates and demands are named by their places; comments say which is which.
pub fn lp(problem: &PlanProblem) -> String {
    let mut writer = Writer {
        problem,
        worthwhile: worthwhile(problem),
        objective: Sum::default(),
        rows: Vec::new(),
        bounds: vec!["one = 1".to_owned()],
        general: BTreeSet::new(),
        binary: BTreeSet::new(),
    };
    writer.cells();
    for session in 0..problem.days.len() {
        writer.session(session);
    }
    for demand in 0..problem.demands.len() {
        writer.demand(demand);
        writer.sessions_of(demand);
        writer.spacing(demand);
        writer.one_sided(demand);
    }
    for candidate in writer.worthwhile.clone() {
        writer.exercise(candidate);
    }
    writer.spine();
    writer.sums();
    writer.text()
}

impl Writer<'_> {
    fn row(&mut self, name: &str, sum: &Sum, relation: &str, right: f64) {
        self.rows.push(format!(" {name}:{} {relation} {right}", sum.text()));
    }

    /// Cells that may hold sets: worthwhile exercises where their equipment stands.
    fn open(&self, session: usize) -> Vec<usize> {
        let home = usize::from(self.problem.home[session]);
        self.worthwhile.iter().copied().filter(|c| self.problem.candidates[*c].stands[home]).collect()
    }

    fn cells(&mut self) {
        for session in 0..self.problem.days.len() {
            for candidate in self.open(session) {
                let (x, y, u) = (x(session, candidate), y(session, candidate), u(candidate));
                let mut most = Sum::default();
                most.add(1.0, &x);
                let high = f64::from(self.problem.candidates[candidate].caps.session_sets);
                most.add(-high, &y);
                self.row(&format!("most_{session}_{candidate}"), &most, "<=", 0.0);
                let mut least = Sum::default();
                least.add(1.0, &x);
                least.add(-f64::from(SETS_LOW), &y);
                self.row(&format!("least_{session}_{candidate}"), &least, ">=", 0.0);
                let mut used = Sum::default();
                used.add(1.0, &y);
                used.add(-1.0, &u);
                self.row(&format!("used_{session}_{candidate}"), &used, "<=", 0.0);
                self.bounds.push(format!("0 <= {x} <= {high}"));
                self.objective.add(strain_cost(self.problem, candidate), &x);
                self.objective.add(theme_cost(self.problem, session, candidate), &y);
                self.general.insert(x);
                self.binary.insert(y);
                self.binary.insert(u);
            }
        }
        for candidate in self.worthwhile.clone() {
            let u = u(candidate);
            self.objective.add(use_cost(self.problem, candidate), &u);
            // An exercise that is liked is used only where it is done.
            let mut done = Sum::default();
            done.add(1.0, &u);
            for session in 0..self.problem.days.len() {
                if self.open(session).contains(&candidate) {
                    done.add(-1.0, y(session, candidate));
                }
            }
            self.binary.insert(u);
            self.row(&format!("done_{candidate}"), &done, "<=", 0.0);
        }
    }

    fn session(&mut self, session: usize) {
        let (mut time, mut count, mut families) = (Sum::default(), Sum::default(), BTreeMap::<&str, Sum>::new());
        let mut any = Sum::default();
        let open = self.open(session);
        let warm = format!("w_{session}");
        for &candidate in &open {
            let of = &self.problem.candidates[candidate];
            let per_set = item_minutes(of, 2) - item_minutes(of, 1);
            time.add(per_set, x(session, candidate));
            time.add(item_minutes(of, 1) - per_set, y(session, candidate));
            count.add(1.0, y(session, candidate));
            families.entry(&of.exercise.family).or_default().add(1.0, y(session, candidate));
        }
        self.pairs(session, &mut time);
        for (variable, minutes) in &time.0 {
            self.objective.add(MINUTE * minutes, variable.clone());
        }
        self.objective.add(MINUTE * WARM_UP_S / 60.0, &warm);
        time.add(WARM_UP_S / 60.0, &warm);
        self.row(&format!("time_{session}"), &time, "<=", self.problem.minutes);
        self.row(&format!("count_{session}"), &count, "<=", self.problem.max_exercises as f64);
        for (index, family) in families.values().enumerate() {
            self.row(&format!("family_{session}_{index}"), family, "<=", self.problem.family_limit as f64);
        }
        for &candidate in &open {
            any.add(1.0, y(session, candidate));
        }
        any.add(-(self.problem.max_exercises as f64), &warm);
        self.row(&format!("warm_{session}"), &any, "<=", 0.0);
        self.binary.insert(warm);
        let mut thin = count;
        thin.add(1.0, format!("thin_{session}"));
        self.row(&format!("thin_{session}"), &thin, ">=", EXERCISES_AT_LEAST as f64);
        self.objective.add(THIN_SESSION, format!("thin_{session}"));
    }

    /// Rounds of pairs in a session: as many as both have sets for, each of which saves time.
    fn pairs(&mut self, session: usize, time: &mut Sum) {
        let open = self.open(session);
        for (place, pair) in self.problem.pairs.iter().enumerate() {
            if !pair.of.iter().all(|candidate| open.contains(candidate)) {
                continue;
            }
            let rounds = format!("g_{session}_{place}");
            for (name, candidate) in ["one", "other"].into_iter().zip(pair.of) {
                let mut most = Sum::default();
                most.add(1.0, &rounds);
                most.add(-1.0, x(session, candidate));
                self.row(&format!("{rounds}_{name}"), &most, "<=", 0.0);
            }
            time.add(-pair.saves_s / 60.0, rounds);
        }
    }

    /// Fractional sets of a demand in a session.
    fn dose(&self, session: usize, demand: usize) -> Sum {
        let mut sum = Sum::default();
        for candidate in self.open(session) {
            let of = &self.problem.candidates[candidate];
            self.counted(&mut sum, session, candidate, of.fraction(demand));
        }
        sum
    }

    /// Adds what a candidate's sets count as in a session, times a share.
    fn counted(&self, sum: &mut Sum, session: usize, candidate: usize, share: f64) {
        let counts = self.problem.candidates[candidate].usual.counts;
        sum.add(share * counts.a_set, x(session, candidate));
        sum.add(share * counts.once, y(session, candidate));
    }

    /// Direct sets of a demand in a session.
    fn direct(&self, session: usize, demand: usize) -> Sum {
        let mut sum = Sum::default();
        for candidate in self.open(session) {
            if self.problem.candidates[candidate].trains(demand) {
                sum.add(1.0, x(session, candidate));
            }
        }
        sum
    }

    fn demand(&mut self, demand: usize) {
        let wanted = &self.problem.demands[demand];
        let mut total = Sum::default();
        for session in 0..self.problem.days.len() {
            for (variable, factor) in self.dose(session, demand).0 {
                total.add(factor, variable);
            }
            let direct = self.direct(session, demand);
            self.row(&format!("direct_{session}_{demand}"), &direct, "<=", f64::from(DIRECT_SETS_A_SESSION));
        }
        let slacks = [
            ("low", wanted.dose.low, BELOW_LOW, 1.0, ">="),
            ("aim", wanted.dose.aim, 1.0, 1.0, ">="),
            ("high", wanted.dose.high, ABOVE_HIGH, -1.0, "<="),
        ];
        for (name, line, price, sign, relation) in slacks {
            let slack = format!("{name}_{demand}");
            let mut sum = Sum(total.0.clone());
            sum.add(sign, &slack);
            self.row(&slack, &sum, relation, line);
            self.objective.add(wanted.weight * price, slack);
        }
    }

    fn sessions_of(&mut self, demand: usize) {
        let wanted = &self.problem.demands[demand];
        if wanted.class != Class::BringUp {
            return;
        }
        let mut worked = Sum::default();
        for session in 0..self.problem.days.len() {
            let work = format!("work_{session}_{demand}");
            let mut done = Sum::default();
            done.add(1.0, &work);
            for candidate in self.open(session) {
                if self.problem.candidates[candidate].trains(demand) {
                    done.add(-1.0, y(session, candidate));
                }
            }
            self.row(&work, &done, "<=", 0.0);
            self.bounds.push(format!("0 <= {work} <= 1"));
            worked.add(1.0, work);
        }
        let missed = format!("missed_{demand}");
        worked.add(1.0, &missed);
        let possible = usize::from(wanted.dose.sessions_low).min(self.problem.days.len());
        self.row(&missed, &worked, ">=", possible as f64);
        self.objective.add(SESSION_MISSED, missed);
    }

    fn one_sided(&mut self, demand: usize) {
        let uneven = self.problem.demands[demand].weaker.is_some();
        if !uneven || !one_sided_share::possible(self.problem, demand) {
            return;
        }
        let mut share = Sum::default();
        for session in 0..self.problem.days.len() {
            for candidate in self.open(session) {
                let of = &self.problem.candidates[candidate];
                if of.trains(demand) {
                    share.add(if of.one_sided { 1.0 } else { -1.0 }, x(session, candidate));
                }
            }
        }
        let slack = format!("share_{demand}");
        share.add(self.problem.most_sets(), &slack);
        self.row(&slack, &share, ">=", 0.0);
        self.objective.add(NOT_STRETCHED, &slack);
        self.binary.insert(slack);
    }

    fn text(&self) -> String {
        let mut text = String::from(
            "\\ The week of a plan. x: sets in a session, y: done there, u: done at all, g: rounds of a pair.\n",
        );
        for &candidate in &self.worthwhile {
            let _ = writeln!(text, "\\ candidate {candidate}: {}", self.problem.candidates[candidate].exercise.id);
        }
        for (place, demand) in self.problem.demands.iter().enumerate() {
            let _ = writeln!(text, "\\ demand {place}: {}", demand.region);
        }
        let names = |names: &BTreeSet<String>| names.iter().cloned().collect::<Vec<_>>().join("\n ");
        let _ = write!(
            text,
            "Minimize\n cost: + 0 one{}\nSubject To\n{}\nBounds\n {}\nGeneral\n {}\nBinary\n {}\nEnd\n",
            self.objective.text(),
            self.rows.join("\n"),
            self.bounds.join("\n "),
            names(&self.general),
            names(&self.binary)
        );
        text
    }
}
