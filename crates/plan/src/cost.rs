//! What a week costs: shortfall and overshoot of the doses, sessions missed, exercises and minutes spent.

use crate::aims::{Cover, Floor, NOT_STRETCHED};
use crate::problem::{FLOOR_LIFT, PlanProblem};
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
/// Each different exercise of the week has to be learned and set up.
pub(crate) const DIFFERENT_EXERCISE: f64 = 1.0;
/// What a broken rule costs that building could not prevent.
pub(crate) const BROKEN: f64 = NOT_STRETCHED;
/// A session with fewer than four exercises is hardly worth the way.
pub(crate) const THIN_SESSION: f64 = 1.0;
pub(crate) const EXERCISES_AT_LEAST: usize = 4;
/// A minute of training.
pub(crate) const MINUTE: f64 = 0.01;

/// The objective of a week; lower is better. It adds up, each described once where it is named:
/// - doses below their low line and aim or above their high line, sessions missed ([`demand_cost`]);
/// - parts below their floor, movements, stretches and actions that nothing does ([`PlanProblem::floors`], [`PlanProblem::covers`]);
/// - different exercises, less their merit, exercises outside the day's theme, load along the spine;
/// - minutes, sessions of too few exercises, broken rules.
///
/// The search keeps the same up step by step (`anneal/state.rs`, `anneal/weigh.rs`), the bound relaxes it (`bound/weekly.rs`), the
/// exported model states it in full (`lp.rs`); tests hold each against this one.
pub(crate) fn cost(problem: &PlanProblem, week: &Week) -> f64 {
    let sessions: Vec<Vec<f64>> = (0..week.session_count()).map(|s| week.session_dose(problem, s)).collect();
    let doses: f64 = (0..problem.demands.len()).map(|demand| demand_cost(problem, week, &sessions, demand)).sum();
    let minutes: f64 = (0..week.session_count()).map(|s| session_minutes(problem, week.items(s))).sum();
    let thin: usize = (0..week.session_count()).map(|s| EXERCISES_AT_LEAST.saturating_sub(week.items(s).len())).sum();
    doses
        + exercises_cost(problem, week)
        + MINUTE * minutes
        + THIN_SESSION * thin as f64
        + floors_cost(problem, week)
        + covers_cost(problem, week)
        + BROKEN * broken(problem, week).len() as f64
}

/// Fractional sets of a part in a week.
pub(crate) fn part_sets(problem: &PlanProblem, week: &Week, floor: &Floor) -> f64 {
    let of = |(candidate, sets): (usize, u16)| {
        let candidate = &problem.candidates[candidate];
        candidate.usual.counts.of(sets) * floor.share(candidate)
    };
    week.all_items().map(of).sum()
}

fn floors_cost(problem: &PlanProblem, week: &Week) -> f64 {
    let short = |floor: &Floor| (floor.least - part_sets(problem, week, floor)).max(0.0);
    problem.floors.iter().map(|floor| floor.price * short(floor)).sum()
}

fn covers_cost(problem: &PlanProblem, week: &Week) -> f64 {
    let done = |cover: &Cover| week.all_items().any(|(c, _)| cover.by(problem, &problem.candidates[c]));
    problem.covers.iter().filter(|cover| !done(cover)).map(|cover| cover.price).sum()
}

/// What it costs to use an exercise at all.
pub(crate) fn use_cost(problem: &PlanProblem, candidate: usize) -> f64 {
    DIFFERENT_EXERCISE - problem.prices.merit * problem.candidates[candidate].merit
}

/// What a set costs for the load it puts along the spine: a heavy lift has to earn what it takes out of the client.
pub(crate) fn strain_cost(problem: &PlanProblem, candidate: usize) -> f64 {
    let axial = problem.candidates[candidate].exercise.axial;
    problem.prices.axial * axial + if axial >= FLOOR_LIFT { problem.prices.floor_lift } else { 0.0 }
}

/// What it costs to have an exercise on a day whose theme it does not fit.
pub(crate) fn theme_cost(problem: &PlanProblem, session: usize, candidate: usize) -> f64 {
    if problem.candidates[candidate].off_theme[session] { problem.prices.theme } else { 0.0 }
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
    let used: f64 = used.into_iter().map(|index| use_cost(problem, index)).sum();
    let themes = (0..week.session_count())
        .flat_map(|session| week.items(session).iter().map(move |(index, _)| theme_cost(problem, session, *index)));
    let strain: f64 = week.all_items().map(|(index, sets)| f64::from(sets) * strain_cost(problem, index)).sum();
    used + themes.sum::<f64>() + strain
}

/// Whether some exercise of the week loads the region where it is stretched.
pub(crate) fn is_stretched(problem: &PlanProblem, week: &Week, demand: &crate::problem::Demand) -> bool {
    week.all_items().any(|(index, _)| problem.candidates[index].exercise.loads_stretched(&demand.region))
}
