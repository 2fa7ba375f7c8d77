//! The week as sums: what every week that keeps the rules adds up to.
//!
//! A gym and a home have sums of their own, as their equipment differs. Forgotten is on which day something is done; of the
//! rules between days, what they mean for sums is kept (`spacing`).

use crate::aims::NOT_STRETCHED;
use crate::anneal::{SETS_LOW, worthwhile};
use crate::cost::{
    ABOVE_HIGH, BELOW_LOW, EXERCISES_AT_LEAST, MINUTE, SESSION_MISSED, THIN_SESSION, strain_cost, theme_cost, use_cost,
};
use crate::problem::{Candidate, FLOOR_LIFT, PlanProblem};
use crate::rules::{DIRECT_SETS_A_SESSION, near_pairs, neighbours, one_sided_share};
use crate::timing::{WARM_UP_S, item_minutes};
use crate::week::Week;
use assess::Class;
use microlp::ComparisonOp::{Ge, Le};
use microlp::{OptimizationDirection, Problem, Variable};
use std::collections::BTreeMap;

/// One exercise at one place.
struct Cell {
    candidate: usize,
    home: bool,
    /// Sets in the week.
    sets: Variable,
    /// Sessions it is done in.
    days: Variable,
    /// Sessions that can have it.
    most_days: f64,
    /// Sets a session.
    a_day: f64,
}

/// The relaxed model.
pub(super) struct Weekly {
    pub model: Problem,
    cells: Vec<Cell>,
    used: BTreeMap<usize, Variable>,
    /// Sessions with work, at the gym and at home.
    filled: [Variable; 2],
}

type Terms = Vec<(Variable, f64)>;

impl Weekly {
    pub fn new(problem: &PlanProblem) -> Self {
        let mut model = Problem::new(OptimizationDirection::Minimize);
        let sessions = [false, true].map(|home| problem.home.iter().map(|h| i32::from(*h == home)).sum::<i32>());
        let filled = sessions.map(|count| model.add_integer_var(MINUTE * WARM_UP_S / 60.0, (0, count)));
        let mut weekly = Self { model, cells: Vec::new(), used: BTreeMap::new(), filled };
        for candidate in worthwhile(problem) {
            weekly.exercise(problem, candidate, sessions);
        }
        weekly.places(problem, sessions);
        for demand in 0..problem.demands.len() {
            weekly.doses(problem, demand);
            weekly.sessions_of(problem, demand);
            weekly.spacing(problem, demand);
            weekly.one_sided(problem, demand);
        }
        weekly.sums(problem);
        weekly.lifts(problem);
        weekly
    }

    /// The sums of a week, for the solver to start from.
    pub fn sums_of(&self, problem: &PlanProblem, week: &Week) -> Vec<(Variable, f64)> {
        let mut sums = Vec::new();
        for cell in &self.cells {
            let there = (0..week.session_count()).filter(|s| problem.home[*s] == cell.home);
            let sets: Vec<u16> = there
                .flat_map(|s| week.items(s).iter().filter(|(c, _)| *c == cell.candidate).map(|(_, sets)| *sets))
                .collect();
            sums.push((cell.sets, sets.iter().map(|sets| f64::from(*sets)).sum()));
            sums.push((cell.days, sets.len() as f64));
        }
        for (candidate, used) in &self.used {
            sums.push((*used, f64::from(u8::from(week.all_items().any(|(c, _)| c == *candidate)))));
        }
        for (home, filled) in [false, true].into_iter().zip(self.filled) {
            let count = (0..week.session_count()).filter(|s| problem.home[*s] == home && !week.items(*s).is_empty());
            sums.push((filled, count.count() as f64));
        }
        sums
    }

    fn exercise(&mut self, problem: &PlanProblem, candidate: usize, sessions: [i32; 2]) {
        let of = &problem.candidates[candidate];
        let used = self.model.add_binary_var(use_cost(problem, candidate));
        let (mut days_of, mut sets_of): (Terms, Terms) = (Vec::new(), Vec::new());
        let (minutes_a_set, minutes_a_day) = minutes(of);
        let a_day = of.caps.session_sets;
        for home in [false, true] {
            let here: Vec<usize> = (0..problem.days.len()).filter(|s| problem.home[*s] == home).collect();
            let days: Vec<u8> = here.iter().map(|session| problem.days[*session]).collect();
            // Not on two days running.
            let apart = if of.daily { days.len() } else { most_apart(&days) };
            let most = i32::from(of.caps.sessions)
                .min(i32::try_from(apart).unwrap_or(i32::MAX))
                .min(sessions[usize::from(home)]);
            if most == 0 || !of.stands[usize::from(home)] {
                continue;
            }
            let most_sets = (most * i32::from(a_day)).min(i32::from(of.caps.sets));
            let a_set = MINUTE * minutes_a_set + strain_cost(problem, candidate);
            let sets = self.model.add_integer_var(a_set, (0, most_sets));
            let days = self.model.add_integer_var(MINUTE * minutes_a_day, (0, most));
            self.model.add_constraint([(sets, 1.0), (days, -f64::from(a_day))], Le, 0.0);
            self.model.add_constraint([(sets, 1.0), (days, -f64::from(SETS_LOW))], Ge, 0.0);
            self.model.add_constraint([(days, 1.0), (used, -f64::from(most))], Le, 0.0);
            self.model.add_constraint([(sets, 1.0), (used, -f64::from(most_sets))], Le, 0.0);
            let mut prices: Vec<f64> = here.iter().map(|session| theme_cost(problem, *session, candidate)).collect();
            prices.sort_by(f64::total_cmp);
            self.off_theme(days, &prices);
            days_of.push((days, 1.0));
            sets_of.push((sets, 1.0));
            let cell = Cell { candidate, home, sets, days, most_days: f64::from(most), a_day: f64::from(a_day) };
            self.cells.push(cell);
        }
        if days_of.len() > 1 {
            self.model.add_constraint(days_of.clone(), Le, f64::from(of.caps.sessions));
            self.model.add_constraint(sets_of, Le, f64::from(of.caps.sets));
        }
        // An exercise that is liked is used only where it is done.
        days_of.push((used, -1.0));
        self.model.add_constraint(days_of, Ge, 0.0);
        self.used.insert(candidate, used);
    }

    /// More days than have the theme cost their price: rising prices are paid from the lowest.
    fn off_theme(&mut self, days: Variable, prices: &[f64]) {
        let free = prices.iter().filter(|price| **price <= 0.0).count();
        let Some(price) = prices.get(free).filter(|_| free < prices.len()) else { return };
        let off = self.model.add_var(*price, (0.0, f64::INFINITY));
        self.model.add_constraint([(days, 1.0), (off, -1.0)], Le, free as f64);
    }

    /// Limits that must hold, floors and covers at their price.
    fn sums(&mut self, problem: &PlanProblem) {
        let over = |cells: &[Cell], per_set: &dyn Fn(&Candidate) -> f64| -> Terms {
            let terms = cells.iter().map(|cell| (cell.sets, per_set(&problem.candidates[cell.candidate])));
            terms.filter(|(_, factor)| *factor > 0.0).collect()
        };
        for limit in &problem.limits {
            let terms = over(&self.cells, &|c| limit.per_set(c));
            if !terms.is_empty() {
                self.model.add_constraint(terms, Le, limit.most);
            }
        }
        for floor in problem.floors.iter().filter(|floor| floor.least > 0.0) {
            let slack = self.model.add_var(floor.price, (0.0, f64::INFINITY));
            let mut terms = counted(problem, &self.cells, |c| floor.share(c));
            terms.push((slack, 1.0));
            self.model.add_constraint(terms, Ge, floor.least);
        }
        for cover in &problem.covers {
            let missing = self.model.add_binary_var(cover.price);
            let by = |candidate: &usize| cover.by(problem, &problem.candidates[*candidate]);
            let mut terms: Terms = self.used.iter().filter(|(c, _)| by(c)).map(|(_, used)| (*used, 1.0)).collect();
            terms.push((missing, 1.0));
            self.model.add_constraint(terms, Ge, 1.0);
        }
    }

    /// Lifts from the floor in few sessions: one such lift may stand beside another in a session, so each for itself.
    fn lifts(&mut self, problem: &PlanProblem) {
        let most = problem.floor_lifts.min(problem.days.len()) as f64;
        for cell in self.cells.iter().filter(|c| problem.candidates[c.candidate].exercise.axial >= FLOOR_LIFT) {
            self.model.add_constraint([(cell.days, 1.0)], Le, most);
        }
    }

    /// Terms over the cells of a place.
    fn terms(&self, home: bool, term: impl Fn(&Cell) -> Terms) -> Terms {
        self.cells.iter().filter(|cell| cell.home == home).flat_map(term).collect()
    }

    /// Time, exercises, families of all sessions of a place together.
    fn places(&mut self, problem: &PlanProblem, sessions: [i32; 2]) {
        for home in [false, true] {
            let filled = self.filled[usize::from(home)];
            let mut time = self.terms(home, |cell| {
                let (a_set, a_day) = minutes(&problem.candidates[cell.candidate]);
                vec![(cell.sets, a_set), (cell.days, a_day)]
            });
            time.extend(self.rounds(problem, home));
            time.push((filled, WARM_UP_S / 60.0 - problem.minutes));
            self.model.add_constraint(time, Le, 0.0);
            let mut count = self.terms(home, |cell| vec![(cell.days, 1.0)]);
            let mut families: BTreeMap<&str, Terms> = BTreeMap::new();
            for cell in self.cells.iter().filter(|cell| cell.home == home) {
                let family = problem.candidates[cell.candidate].exercise.family.as_str();
                families.entry(family).or_default().push((cell.days, 1.0));
            }
            for (_, mut family) in families {
                family.push((filled, -(problem.family_limit as f64)));
                self.model.add_constraint(family, Le, 0.0);
            }
            let thin = self.model.add_var(THIN_SESSION, (0.0, f64::INFINITY));
            let at_least = EXERCISES_AT_LEAST as f64 * f64::from(sessions[usize::from(home)]);
            self.model.add_constraint([count.clone(), vec![(thin, 1.0)]].concat(), Ge, at_least);
            count.push((filled, -(problem.max_exercises as f64)));
            self.model.add_constraint(count, Le, 0.0);
        }
    }

    /// Rounds of pairs at a place, each of which saves time: at most as many as each of the two has sets.
    fn rounds(&mut self, problem: &PlanProblem, home: bool) -> Terms {
        let mut saved = Terms::new();
        for pair in &problem.pairs {
            let sets = |candidate: usize| {
                self.cells.iter().find(|cell| cell.home == home && cell.candidate == candidate).map(|cell| cell.sets)
            };
            let [Some(one), Some(other)] = pair.of.map(sets) else { continue };
            let minutes = pair.saves_s / 60.0;
            let rounds = self.model.add_var(-MINUTE * minutes, (0.0, f64::INFINITY));
            self.model.add_constraint([(rounds, 1.0), (one, -1.0)], Le, 0.0);
            self.model.add_constraint([(rounds, 1.0), (other, -1.0)], Le, 0.0);
            saved.push((rounds, -minutes));
        }
        saved
    }

    /// Sets of a demand, by its fraction.
    fn dose(&self, problem: &PlanProblem, demand: usize) -> Terms {
        counted(problem, &self.cells, |candidate| candidate.fraction(demand))
    }

    fn doses(&mut self, problem: &PlanProblem, demand: usize) {
        let wanted = &problem.demands[demand];
        let dose = self.dose(problem, demand);
        let lines =
            [(wanted.dose.low, BELOW_LOW, 1.0), (wanted.dose.aim, 1.0, 1.0), (wanted.dose.high, ABOVE_HIGH, -1.0)];
        for (line, price, sign) in lines {
            let slack = self.model.add_var(wanted.weight * price, (0.0, f64::INFINITY));
            let terms = [dose.clone(), vec![(slack, sign)]].concat();
            self.model.add_constraint(terms, if sign > 0.0 { Ge } else { Le }, line);
            if sign > 0.0 && line > 0.0 {
                self.covers(problem, demand, slack, line);
            } else if sign < 0.0 {
                self.held_under(problem, demand, slack, line);
            }
        }
        for home in [false, true] {
            let mut direct = self.terms(home, |cell| {
                let trains = problem.candidates[cell.candidate].trains(demand);
                if trains { vec![(cell.sets, 1.0)] } else { Vec::new() }
            });
            direct.push((self.filled[usize::from(home)], -f64::from(DIRECT_SETS_A_SESSION)));
            self.model.add_constraint(direct, Le, 0.0);
        }
    }

    /// What holds for whole exercises and days though not for parts of them: a line is reached only by what is done at all,
    /// and an exercise or a day helps no more than the line asks for (mixed-integer rounding, Nemhauser & Wolsey 1988,
    /// Integer and Combinatorial Optimization, II.1.6; from memory).
    fn covers(&mut self, problem: &PlanProblem, demand: usize, slack: Variable, line: f64) {
        let helps: Vec<usize> =
            self.used.keys().copied().filter(|c| problem.candidates[*c].fraction(demand) > 0.0).collect();
        let mut used: Terms = vec![(slack, 1.0)];
        for candidate in &helps {
            used.push((self.used[candidate], self.most_counted(problem, *candidate, demand).min(line)));
        }
        self.model.add_constraint(used, Ge, line);
        let a_day = f64::from(crate::anneal::SETS_HIGH);
        let part = (line / a_day).fract();
        if part < 1e-6 {
            return;
        }
        let mut days: Terms = vec![(slack, 1.0 / (a_day * part))];
        for cell in &self.cells {
            let of = &problem.candidates[cell.candidate];
            // A day gives at most this share of `a_day`.
            let most = (of.usual.counts.once + cell.a_day * of.usual.counts.a_set) / a_day;
            let fraction = of.fraction(demand) * most.max(1.0);
            if fraction > 0.0 {
                days.push((cell.days, fraction.floor() + (fraction.fract() / part).min(1.0)));
            }
        }
        self.model.add_constraint(days, Ge, (line / a_day).ceil());
    }

    /// No exercise alone gives a region more than the high line and what lies over it.
    fn held_under(&mut self, problem: &PlanProblem, demand: usize, over: Variable, high: f64) {
        for (candidate, used) in &self.used {
            if self.most_counted(problem, *candidate, demand) <= high {
                continue;
            }
            let mut terms: Terms = vec![(*used, -high), (over, -1.0)];
            let cells = self.cells.iter().filter(|cell| cell.candidate == *candidate);
            terms.extend(counted(problem, cells, |candidate| candidate.fraction(demand)));
            self.model.add_constraint(terms, Le, 0.0);
        }
    }

    /// The most that an exercise can give a demand in a week.
    fn most_counted(&self, problem: &PlanProblem, candidate: usize, demand: usize) -> f64 {
        let of = &problem.candidates[candidate];
        let cells = || self.cells.iter().filter(|cell| cell.candidate == candidate);
        let sets = cells().map(|cell| cell.most_days * cell.a_day).sum::<f64>().min(f64::from(of.caps.sets));
        let days = cells().map(|cell| cell.most_days).sum::<f64>().min(f64::from(of.caps.sessions));
        of.fraction(demand) * (sets * of.usual.counts.a_set + days * of.usual.counts.once)
    }

    fn sessions_of(&mut self, problem: &PlanProblem, demand: usize) {
        let wanted = &problem.demands[demand];
        if wanted.class != Class::BringUp {
            return;
        }
        let possible = usize::from(wanted.dose.sessions_low).min(problem.days.len()) as f64;
        let missed = self.model.add_var(SESSION_MISSED, (0.0, f64::INFINITY));
        let mut worked: Terms = self
            .cells
            .iter()
            .filter(|cell| problem.candidates[cell.candidate].trains(demand))
            .map(|cell| (cell.days, 1.0))
            .collect();
        worked.push((missed, 1.0));
        self.model.add_constraint(worked, Ge, possible);
        let mut days: Terms = self.filled.iter().map(|filled| (*filled, 1.0)).collect();
        days.push((missed, 1.0));
        self.model.add_constraint(days, Ge, possible);
    }

    /// Of two near sessions both hold at most what one session holds: so the sessions that can be paired off hold half.
    fn spacing(&mut self, problem: &PlanProblem, demand: usize) {
        let pairs = near_pairs(&problem.days);
        if problem.demands[demand].daily || pairs.is_empty() {
            return;
        }
        let mut paired = vec![false; problem.days.len()];
        let mut groups = problem.days.len();
        for (one, other) in pairs {
            if !paired[one] && !paired[other] {
                (paired[one], paired[other]) = (true, true);
                groups -= 1;
            }
        }
        let most = f64::from(DIRECT_SETS_A_SESSION).max(f64::from(problem.near_direct_sets));
        let trains = |cell: &&Cell| problem.candidates[cell.candidate].trains(demand);
        let direct: Terms = self.cells.iter().filter(trains).map(|cell| (cell.sets, 1.0)).collect();
        if !direct.is_empty() {
            self.model.add_constraint(direct, Le, most * groups as f64);
        }
    }

    fn one_sided(&mut self, problem: &PlanProblem, demand: usize) {
        if problem.demands[demand].weaker.is_none() || !one_sided_share::possible(problem, demand) {
            return;
        }
        let broken = self.model.add_binary_var(NOT_STRETCHED);
        let mut share: Terms = vec![(broken, problem.most_sets())];
        for cell in &self.cells {
            let of = &problem.candidates[cell.candidate];
            if of.trains(demand) {
                share.push((cell.sets, if of.one_sided { 1.0 } else { -1.0 }));
            }
        }
        self.model.add_constraint(share, Ge, 0.0);
    }
}

/// What the sets of cells count as, times a share: so much a set and so much a day.
fn counted<'a>(
    problem: &PlanProblem,
    cells: impl IntoIterator<Item = &'a Cell>,
    share: impl Fn(&Candidate) -> f64,
) -> Terms {
    let terms = cells.into_iter().flat_map(|cell| {
        let of = &problem.candidates[cell.candidate];
        let (share, counts) = (share(of), of.usual.counts);
        [(cell.sets, share * counts.a_set), (cell.days, share * counts.once)]
    });
    terms.filter(|(_, factor)| factor.abs() > 0.0).collect()
}

/// Minutes of one set, and of a day's setting up with the extra sets.
fn minutes(candidate: &Candidate) -> (f64, f64) {
    let a_set = item_minutes(candidate, 2) - item_minutes(candidate, 1);
    (a_set, item_minutes(candidate, 1) - a_set)
}

/// The most days of the week no two of which are neighbours.
fn most_apart(days: &[u8]) -> usize {
    let apart = |chosen: u32| {
        let chosen: Vec<u8> = (0..days.len()).filter(|d| chosen & (1 << d) != 0).map(|d| days[d]).collect();
        let pairs = chosen.iter().enumerate().flat_map(|(i, one)| chosen[i + 1..].iter().map(move |two| (*one, *two)));
        pairs.into_iter().all(|(one, two)| !neighbours(one, two)).then_some(chosen.len())
    };
    (0..1_u32 << days.len()).filter_map(apart).max().unwrap_or(0)
}
