//! What stood in the way: demands of the coach that the week could not meet, the rule, and the nearest possible thing.

use crate::cost::is_stretched;
use crate::missing::{nothing_allowed, why_missing};
use crate::present::ledger_row;
use crate::problem::{Demand, PlanProblem};
use crate::week::Week;
use crate::words::lower_first;
use assess::Class;

/// A demand that could not be met.
#[derive(Clone, Debug, PartialEq)]
pub struct Blocked {
    /// What was wanted.
    pub demand: String,
    /// The rule in the way.
    pub rule: String,
    /// The nearest possible thing.
    pub nearest: String,
}

pub(crate) fn blocked(problem: &PlanProblem, week: &Week) -> Vec<Blocked> {
    let mut found = Vec::new();
    if week.total_sets() == 0 {
        found.push(nothing_fits(problem));
        return found;
    }
    for (index, demand) in problem.demands.iter().enumerate() {
        if demand.class != Class::BringUp {
            continue;
        }
        let row = ledger_row(problem, week, index);
        if !problem.candidates.iter().any(|c| c.refused.is_none() && c.trains(index)) {
            // Too few sets follow from this, so nothing more is said of them.
            found.push(no_exercise(problem, demand));
            continue;
        }
        // Where the catalogue has nothing that would, nobody can do better.
        let refused = || problem.refused.iter().any(|(exercise, _)| exercise.loads_stretched(&demand.region));
        if !is_stretched(problem, week, demand) && (demand.stretch_possible || refused()) {
            found.push(not_stretched(problem, week, demand, index));
        }
        if row.direct + row.indirect < demand.dose.low - 1e-9 {
            found.push(too_little(problem, week, index, row.direct + row.indirect));
        }
    }
    found
}

fn nothing_fits(problem: &PlanProblem) -> Blocked {
    let rule = if problem.candidates.is_empty() {
        "no exercise of the catalogue is left with this equipment, pain and these exclusions".to_owned()
    } else {
        format!("{:.0} minutes leave no room for two sets of anything after the warm-up", problem.minutes)
    };
    Blocked {
        demand: "a week with at least one session".to_owned(),
        rule,
        nearest: "Add equipment, minutes or exercises in the brief; 20 minutes fit two exercises.".to_owned(),
    }
}

fn no_exercise(problem: &PlanProblem, demand: &Demand) -> Blocked {
    let missing = nothing_allowed(problem, &|exercise| exercise.trains(&demand.region));
    let helper = problem.candidates.iter().find(|c| c.refused.is_none() && c.exercise.fraction(&demand.region) >= 0.5);
    let until =
        helper.map_or_else(String::new, |c| format!(" Until then {} works it clearly.", lower_first(&c.exercise.name)));
    Blocked {
        demand: format!("an exercise with {} as main target", lower_first(&demand.name)),
        rule: missing.rule,
        nearest: missing.nearest + &until,
    }
}

fn not_stretched(problem: &PlanProblem, week: &Week, demand: &Demand, index: usize) -> Blocked {
    let missing = why_missing(problem, week, &|exercise| exercise.loads_stretched(&demand.region));
    let (rule, help) = missing.map_or_else(
        || ("other regions need the room more".to_owned(), String::new()),
        |missing| (missing.rule, format!(" {}", missing.nearest)),
    );
    let used = week.all_items().map(|(c, _)| &problem.candidates[c]);
    let best = used.filter(|c| c.trains(index)).max_by_key(|c| c.exercise.stretch);
    Blocked {
        demand: format!("an exercise that loads {} where it is stretched", lower_first(&demand.name)),
        rule,
        nearest: best.map_or_else(
            || "No direct work fits.".to_owned(),
            |c| format!("The best left is {}.", lower_first(&c.exercise.name)),
        ) + &help,
    }
}

fn too_little(problem: &PlanProblem, week: &Week, index: usize, total: f64) -> Blocked {
    let demand = &problem.demands[index];
    let missing = why_missing(problem, week, &|exercise| exercise.trains(&demand.region));
    Blocked {
        demand: format!("{:.0} weekly sets for {}", demand.dose.low, lower_first(&demand.name)),
        rule: missing.as_ref().map_or_else(|| "other regions need the room more".to_owned(), |m| m.rule.clone()),
        nearest: format!("{total:.1} sets fit.{}", missing.map_or_else(String::new, |m| format!(" {}", m.nearest))),
    }
}
