//! What a week costs: shortfall and overshoot of the doses, sessions missed, exercises and minutes spent.

use crate::problem::PlanProblem;
use crate::rules::broken;
use crate::timing::session_minutes;
use crate::week::Week;
use assess::Class;

/// A set below the low line costs this many times a set below the aim.
pub(crate) const BELOW_LOW: f64 = 3.0;
/// A set above the high line.
pub(crate) const ABOVE_HIGH: f64 = 2.0;
/// A session with direct work too few for a region that is brought up.
pub(crate) const SESSION_MISSED: f64 = 6.0;
/// A chosen region that nothing loads where it is stretched, though something could: dearer than any dose.
pub(crate) const NOT_STRETCHED: f64 = 60.0;
/// Each different exercise of the week has to be learned and set up.
pub(crate) const DIFFERENT_EXERCISE: f64 = 1.0;
/// An exercise that stretches its region and holds the body, or that the client knows, is liked better.
pub(crate) const MERIT: f64 = 0.3;
/// A session with fewer than four exercises is hardly worth the way.
pub(crate) const THIN_SESSION: f64 = 1.0;
pub(crate) const EXERCISES_AT_LEAST: usize = 4;
/// A minute of training.
pub(crate) const MINUTE: f64 = 0.01;

/// The objective of a week; lower is better. A broken rule that building could not prevent costs as much as a missing
/// stretch.
pub(crate) fn cost(problem: &PlanProblem, week: &Week) -> f64 {
    let sessions: Vec<Vec<f64>> = (0..week.session_count()).map(|s| week.session_dose(problem, s)).collect();
    let doses: f64 = (0..problem.demands.len()).map(|demand| demand_cost(problem, week, &sessions, demand)).sum();
    let minutes: f64 = (0..week.session_count()).map(|s| session_minutes(problem, week.items(s))).sum();
    let thin: usize = (0..week.session_count()).map(|s| EXERCISES_AT_LEAST.saturating_sub(week.items(s).len())).sum();
    doses
        + exercises_cost(problem, week)
        + MINUTE * minutes
        + THIN_SESSION * thin as f64
        + stretch_cost(problem, week)
        + NOT_STRETCHED * broken(problem, week).len() as f64
}

fn demand_cost(problem: &PlanProblem, week: &Week, sessions: &[Vec<f64>], demand: usize) -> f64 {
    let wanted = &problem.demands[demand];
    let total: f64 = sessions.iter().map(|dose| dose[demand]).sum();
    let shortfall = BELOW_LOW * (wanted.dose.low - total).max(0.0) + (wanted.dose.aim - total).max(0.0);
    let over = ABOVE_HIGH * (total - wanted.dose.high).max(0.0);
    let direct = |session: &usize| week.items(*session).iter().any(|(c, _)| problem.candidates[*c].trains(demand));
    let worked = (0..sessions.len()).filter(direct).count();
    let possible = usize::from(wanted.dose.sessions_low).min(sessions.len());
    let missed = if wanted.class == Class::BringUp { possible.saturating_sub(worked) } else { 0 };
    wanted.weight * (shortfall + over) + SESSION_MISSED * missed as f64
}

fn exercises_cost(problem: &PlanProblem, week: &Week) -> f64 {
    let mut used: Vec<usize> = week.all_items().map(|(index, _)| index).collect();
    used.sort_unstable();
    used.dedup();
    used.into_iter().map(|index| DIFFERENT_EXERCISE - MERIT * f64::from(problem.candidates[index].merit)).sum()
}

fn stretch_cost(problem: &PlanProblem, week: &Week) -> f64 {
    let chosen = problem.demands.iter().filter(|d| d.class == Class::BringUp && d.stretch_possible);
    let missing = chosen.filter(|demand| !is_stretched(problem, week, demand));
    NOT_STRETCHED * missing.count() as f64
}

/// Whether some exercise of the week loads the region where it is stretched.
pub(crate) fn is_stretched(problem: &PlanProblem, week: &Week, demand: &crate::problem::Demand) -> bool {
    week.all_items().any(|(index, _)| problem.candidates[index].exercise.loads_stretched(&demand.region))
}
