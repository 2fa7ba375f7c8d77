//! What stood in the way: demands of the coach that the week could not meet, the rule, and the nearest possible thing.

use crate::cost::is_stretched;
use crate::present::{ledger_row, lower_first};
use crate::problem::{Demand, PlanProblem};
use crate::rules::{Violation, broken_while_building};
use crate::week::Week;
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
        if !problem.candidates.iter().any(|c| c.trains(index)) {
            found.push(no_exercise(problem, demand));
        } else if !is_stretched(problem, week, demand) {
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
    let refused = problem.refused.iter().filter(|(exercise, _)| exercise.trains(&demand.region));
    let rules: Vec<String> =
        refused.take(3).map(|(exercise, refusal)| format!("{} {refusal}", lower_first(&exercise.name))).collect();
    let helper = problem.candidates.iter().find(|c| c.exercise.fraction(&demand.region) >= 0.5);
    Blocked {
        demand: format!("an exercise with {} as main target", lower_first(&demand.name)),
        rule: if rules.is_empty() { "the catalogue has none".to_owned() } else { rules.join("; ") },
        nearest: helper.map_or_else(
            || "Nothing allowed works it; add equipment in the brief.".to_owned(),
            |c| format!("{} works it clearly.", c.exercise.name),
        ),
    }
}

fn not_stretched(problem: &PlanProblem, week: &Week, demand: &Demand, index: usize) -> Blocked {
    let refused = problem.refused.iter().find(|(exercise, _)| exercise.loads_stretched(&demand.region));
    let rule = refused.map_or_else(
        || "the catalogue has none".to_owned(),
        |(exercise, refusal)| format!("{} {refusal}", lower_first(&exercise.name)),
    );
    let used = week.all_items().map(|(c, _)| &problem.candidates[c]);
    let best = used.filter(|c| c.trains(index)).max_by_key(|c| c.exercise.stretch);
    Blocked {
        demand: format!("an exercise that loads {} where it is stretched", lower_first(&demand.name)),
        rule,
        nearest: best.map_or_else(
            || "No direct work fits.".to_owned(),
            |c| format!("The best left is {}.", lower_first(&c.exercise.name)),
        ),
    }
}

fn too_little(problem: &PlanProblem, week: &Week, index: usize, total: f64) -> Blocked {
    let demand = &problem.demands[index];
    Blocked {
        demand: format!("{:.0} weekly sets for {}", demand.dose.low, lower_first(&demand.name)),
        rule: in_the_way(problem, week, index),
        nearest: format!("{total:.1} sets fit."),
    }
}

/// The rules that one more set of anything for the region would break, each said once, most frequent first.
fn in_the_way(problem: &PlanProblem, week: &Week, demand: usize) -> String {
    let mut counts: Vec<(String, usize)> = Vec::new();
    let trainers = (0..problem.candidates.len()).filter(|c| problem.candidates[*c].trains(demand));
    for candidate in trainers {
        for session in 0..week.session_count() {
            let mut more = week.clone();
            more.set(session, candidate, week.sets(session, candidate) + 1);
            for violation in broken_while_building(problem, &more) {
                let says = said(problem, &violation);
                match counts.iter_mut().find(|(known, _)| *known == says) {
                    Some((_, count)) => *count += 1,
                    None => counts.push((says, 1)),
                }
            }
        }
    }
    counts.sort_by(|a, b| b.1.cmp(&a.1).then_with(|| a.0.cmp(&b.0)));
    let rules: Vec<String> = counts.into_iter().take(2).map(|(says, _)| says).collect();
    if rules.is_empty() { "other regions need the room more".to_owned() } else { rules.join("; ") }
}

fn said(problem: &PlanProblem, violation: &Violation) -> String {
    match violation {
        Violation::Time { .. } => format!("a session of {:.0} minutes is full", problem.minutes),
        Violation::TooManyExercises { .. } => format!("a session holds {} exercises at most", problem.max_exercises),
        Violation::WeeklySets(_) => format!("a week holds {} hard sets at most", problem.weekly_sets),
        Violation::Place { .. } => "what it needs does not stand where that day is trained".to_owned(),
        Violation::Family { .. } => "two exercises of one family in a session do the same thing".to_owned(),
        Violation::DirectSets { .. } => "ten direct sets for a region in one session are the most".to_owned(),
        Violation::Spacing { .. } => "48 hours must lie between two sessions that load a region".to_owned(),
        Violation::OneSidedShare { .. } => "half of an uneven region's sets go one side at a time".to_owned(),
    }
}
