//! What sums over a week and broken rules are called.

use crate::aims::{Limit, LoadOf};
use crate::anneal::SETS_LOW;
use crate::problem::PlanProblem;
use crate::rules::Violation;
use crate::week::Week;

/// A name within a sentence.
pub(crate) fn lower_first(text: &str) -> String {
    let mut letters = text.chars();
    letters.next().map_or_else(String::new, |first| first.to_lowercase().chain(letters).collect())
}

/// A name at the start of a sentence.
pub(crate) fn upper_first(text: &str) -> String {
    let mut letters = text.chars();
    letters.next().map_or_else(String::new, |first| first.to_uppercase().chain(letters).collect())
}

/// What is added up: `hard sets`, `the spine`, or the joint.
pub(crate) fn load_name(of: &LoadOf) -> String {
    match of {
        LoadOf::Sets => "hard sets".to_owned(),
        LoadOf::Axial => "the spine".to_owned(),
        LoadOf::Joint(joint) => joint_name(joint),
    }
}

/// What a joint is called.
pub(crate) fn joint_name(joint: &str) -> String {
    joint.replace('-', " ")
}

/// A sum without false digits.
pub(crate) fn number(value: f64) -> String {
    let whole = (value - value.round()).abs() < 0.05;
    if whole { format!("{value:.0}") } else { format!("{value:.1}") }
}

/// Why a limit is what it is.
fn because(limit: &Limit) -> String {
    if limit.pain > 0 { format!(", lowered by a pain of {}/10", limit.pain) } else { String::new() }
}

/// The limit of hard sets, when a week holds no other exercise under it.
pub(crate) fn sets_spent<'a>(problem: &'a PlanProblem, week: &Week) -> Option<&'a Limit> {
    let limit = problem.limits.iter().find(|limit| limit.of == LoadOf::Sets)?;
    (f64::from(week.total_sets()) > limit.most - f64::from(SETS_LOW)).then_some(limit)
}

/// A limit that is reached, said as the rule in the way.
pub(crate) fn limit_reached(limit: &Limit) -> String {
    let most = number(limit.most);
    match &limit.of {
        LoadOf::Sets => format!("a week holds {most} hard sets at most"),
        LoadOf::Axial => format!("the spine carries {most} a week at most (sets times load)"),
        LoadOf::Joint(_) => {
            format!("the {} carries {most} a week at most (sets times load){}", load_name(&limit.of), because(limit))
        }
    }
}

/// A limit that a week goes over, said of that week.
pub(crate) fn limit_overdrawn(limit: &Limit, load: f64) -> String {
    let (most, load) = (number(limit.most), number(load));
    match &limit.of {
        LoadOf::Sets => format!("The week has {load} hard sets; {most} are the most."),
        LoadOf::Axial => format!("The week loads the spine with {load} (sets times load); {most} are the most."),
        LoadOf::Joint(_) => format!(
            "The week loads the {} with {load} (sets times load); {most} are the most{}.",
            load_name(&limit.of),
            because(limit)
        ),
    }
}

/// The rule in the way, said of any week.
pub(crate) fn rule_in_the_way(problem: &PlanProblem, violation: &Violation) -> String {
    match violation {
        Violation::Time { .. } => format!("a session of {:.0} minutes is full", problem.minutes),
        Violation::TooManyExercises { .. } => format!("a session holds {} exercises at most", problem.max_exercises),
        Violation::Load { limit, .. } => limit_reached(&problem.limits[*limit]),
        Violation::Place { .. } => "what it needs does not stand where that day is trained".to_owned(),
        Violation::Family { .. } => "two exercises of one family in a session do the same thing".to_owned(),
        Violation::DirectSets { .. } => "ten direct sets for a region in one session are the most".to_owned(),
        Violation::Spacing { .. } => {
            let most = problem.near_direct_sets;
            format!("two days running give a region {most} direct sets at most")
        }
        Violation::DayAfter { .. } => "no exercise is done on two days running".to_owned(),
        Violation::OneExercise { candidate, .. } => {
            let caps = problem.candidates[*candidate].caps;
            format!("a week holds {} sets of one such exercise on {} days at most", caps.sets, caps.sessions)
        }
        Violation::SessionSets { candidate, .. } => {
            format!("a session holds {} sets of it at most", problem.candidates[*candidate].caps.session_sets)
        }
        Violation::SpineRest { .. } => "the spine rests 48 hours between two heavy sessions".to_owned(),
        Violation::FloorLifts { .. } => "one session of deadlifts from the floor a week is the most".to_owned(),
        Violation::OneSidedShare { .. } => "half of an uneven region's sets go one side at a time".to_owned(),
    }
}
