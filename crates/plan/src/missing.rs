//! Why something is not in a week, by its real reason, and the nearest change that would help: pain is said as pain, kit as kit,
//! time as time, a limit of the week as that limit.

use crate::aims::LoadOf;
use crate::anneal::{Added, Adding, InTheWay, SETS_LOW};
use crate::present::lower_first;
use crate::problem::PlanProblem;
use crate::rules::allowed::Refusal;
use crate::rules::{Violation, broken_while_building};
use crate::week::{Week, weekday_name};
use crate::words::{limit_reached, rule_in_the_way};
use atlas::Exercise;
use std::collections::BTreeMap;

/// What is in the way, and what would help.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Missing {
    /// The rule in the way.
    pub rule: String,
    /// The nearest change that would help.
    pub nearest: String,
    /// Which kind of thing it is.
    pub kind: MissingKind,
}

/// Kinds of what can be in the way.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum MissingKind {
    /// A painful joint.
    Pain,
    /// Something that is not there.
    Kit,
    /// A decision of the coach: ruled out, left out by a school, held back.
    Coach,
    /// The client's training age or range of motion.
    Client,
    /// Time.
    Time,
    /// A limit of the week or of a day.
    Limit,
}

/// Why nothing in the week is `wanted`; none when something could be added without breaking a rule.
pub(crate) fn why_missing(problem: &PlanProblem, week: &Week, wanted: &dyn Fn(&Exercise) -> bool) -> Option<Missing> {
    let able: Vec<usize> = (0..problem.candidates.len())
        .filter(|c| wanted(&problem.candidates[*c].exercise) && problem.worth_doing(&problem.candidates[*c]))
        .collect();
    if able.is_empty() { Some(nothing_allowed(problem, wanted)) } else { no_room(problem, week, &able) }
}

/// Whether a refusal is of a kind.
type Is = fn(&Refusal) -> bool;

/// Why nothing that is allowed would do.
pub(crate) fn nothing_allowed(problem: &PlanProblem, wanted: &dyn Fn(&Exercise) -> bool) -> Missing {
    let held_back = problem.candidates.iter().any(|c| c.refused.is_none() && wanted(&c.exercise));
    let refused: Vec<&(Exercise, Refusal)> = problem.refused.iter().filter(|(exercise, _)| wanted(exercise)).collect();
    let first = |kind: fn(&Refusal) -> bool| refused.iter().find(|(_, refusal)| kind(refusal));
    // What has all its kit is kept out by something else; kit is the reason only where nothing has.
    if let Some((_, Refusal::Pain { area, level })) = first(|r| matches!(r, Refusal::Pain { .. })) {
        let area = area.replace('-', " ");
        return Missing {
            rule: format!("everything for it that the kit allows loads the {area}, which hurts {level}/10"),
            nearest: format!("It comes back by itself when the pain in the {area} is lower."),
            kind: MissingKind::Pain,
        };
    }
    let others: [(Is, MissingKind, &str); 5] = [
        (|r| matches!(r, Refusal::Screen { .. }), MissingKind::Client, "Work on that range, then screen it again."),
        (
            |r| matches!(r, Refusal::Beginner | Refusal::Skill),
            MissingKind::Client,
            "Teach it first, then add it by hand.",
        ),
        (|r| matches!(r, Refusal::Hurt { .. }), MissingKind::Pain, "Clear it in Today once it no longer hurts."),
        (|r| matches!(r, Refusal::School { .. }), MissingKind::Coach, "Another answer to that school brings it back."),
        (|r| matches!(r, Refusal::Excluded), MissingKind::Coach, "Take it off the list in the brief."),
    ];
    for (is, kind, nearest) in others {
        if let Some((exercise, refusal)) = first(is) {
            let rule = format!("{} {refusal}", lower_first(&exercise.name));
            return Missing { rule, nearest: nearest.to_owned(), kind };
        }
    }
    if held_back {
        return Missing {
            rule: "what trains it also trains a region that is held back".to_owned(),
            nearest: "Take that region off the list of those held back.".to_owned(),
            kind: MissingKind::Coach,
        };
    }
    no_kit(problem, &refused)
}

/// The single thing whose buying would help with least, and what to do until then.
fn no_kit(problem: &PlanProblem, refused: &[&(Exercise, Refusal)]) -> Missing {
    const CHEAP: [&str; 6] = ["band", "dumbbell", "bench", "incline-bench", "rope", "pullup-bar"];
    let there = |item: &units::EquipmentId| item.as_str() == "bodyweight" || problem.kit.contains(item);
    let lacking = |exercise: &Exercise| -> Vec<String> {
        exercise.equipment.iter().filter(|item| !there(item)).map(|item| item.as_str().to_owned()).collect()
    };
    let one = refused.iter().filter_map(|(exercise, _)| {
        let lacks = lacking(exercise);
        let price = |item: &String| CHEAP.iter().position(|cheap| cheap == item).unwrap_or(CHEAP.len());
        let worst = lacks.iter().map(price).max()?;
        (!lacks.is_empty() && exercise.advised_against.is_none()).then_some((lacks.len(), worst, exercise, lacks))
    });
    let best = one.min_by(|a, b| (a.0, a.1, &a.2.id).cmp(&(b.0, b.1, &b.2.id)));
    let kind = MissingKind::Kit;
    match best {
        Some((_, _, exercise, lacks)) => {
            let items = lacks.iter().map(|item| problem.kit_name(item)).collect::<Vec<_>>().join(" and ");
            Missing {
                rule: "nothing that is there does it".to_owned(),
                nearest: format!("With {items}: {}.", lower_first(&exercise.name)),
                kind,
            }
        }
        None => Missing {
            rule: "the catalogue has no exercise for it".to_owned(),
            nearest: "Add one of your own in the library.".to_owned(),
            kind,
        },
    }
}

fn no_room(problem: &PlanProblem, week: &Week, able: &[usize]) -> Option<Missing> {
    let mut adding = Adding::to(problem, week);
    let mut best: Option<Added> = None;
    for &candidate in able {
        for session in 0..week.session_count() {
            let Some(added) = adding.try_one(session, candidate) else { continue };
            if added.kinds == 0 {
                return None;
            }
            let nearer = |best: &Added| (added.kinds, added.over_minutes) < (best.kinds, best.over_minutes);
            if best.as_ref().is_none_or(nearer) {
                best = Some(added);
            }
        }
    }
    let Some(best) = best else {
        return Some(Missing {
            rule: "what it needs does not stand where the days are trained".to_owned(),
            nearest: "Train one day where it stands.".to_owned(),
            kind: MissingKind::Kit,
        });
    };
    Some(in_the_way(problem, week, &best))
}

/// The rules that an addition breaks anew.
fn broken_by(problem: &PlanProblem, week: &Week, added: &Added) -> Vec<Violation> {
    let before = broken_while_building(problem, week);
    let mut more = week.clone();
    more.set(added.session, added.candidate, added.sets);
    broken_while_building(problem, &more).into_iter().filter(|violation| !before.contains(violation)).collect()
}

/// Minutes are asked for in steps of this.
const MINUTES_STEP: f64 = 5.0;

fn in_the_way(problem: &PlanProblem, week: &Week, best: &Added) -> Missing {
    let broken = broken_by(problem, week, best);
    let time = broken.iter().find_map(|v| if let Violation::Time { minutes, .. } = v { Some(*minutes) } else { None });
    // A limit that time alone would not lift is the reason before time is.
    let limit = broken.iter().find(|v| !matches!(v, Violation::Time { .. }));
    let day = weekday_name(problem.days[best.session]);
    match (limit, time) {
        (None, Some(minutes)) => {
            let more = ((minutes - problem.minutes) / MINUTES_STEP).ceil() * MINUTES_STEP;
            Missing {
                rule: format!("{:.0} minutes a session are full", problem.minutes),
                nearest: format!("{more:.0} more minutes on {day} would do."),
                kind: MissingKind::Time,
            }
        }
        (Some(limit), _) => Missing {
            rule: rule_in_the_way(problem, limit),
            nearest: format!("Least is in the way on {day}: swap it for something there."),
            kind: MissingKind::Limit,
        },
        (None, None) => Missing {
            rule: "other regions need the room more".to_owned(),
            nearest: format!("Swap it for something on {day}."),
            kind: MissingKind::Limit,
        },
    }
}

/// Why a session leaves much of its time; none when something that helps could still be added.
pub(crate) fn why_short(problem: &PlanProblem, week: &Week, session: usize) -> Option<String> {
    const HAVE: &str = "the regions have what they should get this week";
    let most = problem.limits.iter().find(|limit| limit.of == LoadOf::Sets);
    if let Some(limit) = most.filter(|limit| f64::from(week.total_sets()) > limit.most - f64::from(SETS_LOW)) {
        return Some(limit_reached(limit));
    }
    let mut adding = Adding::to(problem, week);
    // How often each kind of thing is in the way of something that would help, with the first case of it.
    let mut ways: BTreeMap<InTheWay, (usize, Added)> = BTreeMap::new();
    for candidate in (0..problem.candidates.len()).filter(|c| problem.worth_doing(&problem.candidates[*c])) {
        let Some(added) = adding.try_one(session, candidate).filter(|added| added.cost < -1e-9) else { continue };
        if added.kinds == 0 {
            return None;
        }
        ways.entry(added.first).or_insert((0, added)).0 += 1;
    }
    let most = ways.values().max_by_key(|(count, _)| *count);
    let rule = most.and_then(|(_, added)| broken_by(problem, week, added).into_iter().next());
    Some(rule.map_or_else(|| HAVE.to_owned(), |rule| rule_in_the_way(problem, &rule)))
}
