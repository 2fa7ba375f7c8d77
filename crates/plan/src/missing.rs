//! Why something is not in a week, by its real reason, and the nearest change that would help: pain is said as pain, kit as kit,
//! time as time, a limit of the week as that limit.

use crate::anneal::SETS_LOW;
use crate::cost::cost;
use crate::present::lower_first;
use crate::problem::{Candidate, PlanProblem};
use crate::rules::allowed::Refusal;
use crate::rules::{Violation, broken_while_building};
use crate::week::{Week, weekday_name};
use crate::words::rule_in_the_way;
use atlas::Exercise;

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
    let others: [(fn(&Refusal) -> bool, MissingKind, &str); 4] = [
        (|r| matches!(r, Refusal::Screen { .. }), MissingKind::Client, "Work on that range, then screen it again."),
        (|r| matches!(r, Refusal::Beginner | Refusal::Skill), MissingKind::Client, "Teach it first, then add it by hand."),
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
                rule: "nothing that is there trains it".to_owned(),
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

/// Two sets more of a candidate where it does not stand yet, and the rules that breaks anew.
struct Placement {
    session: usize,
    broken: Vec<Violation>,
}

fn no_room(problem: &PlanProblem, week: &Week, able: &[usize]) -> Option<Missing> {
    let before = broken_while_building(problem, week).len();
    let mut best: Option<Placement> = None;
    for &candidate in able {
        for session in 0..week.session_count() {
            if !stands(problem, session, &problem.candidates[candidate]) {
                continue;
            }
            let mut more = week.clone();
            more.set(session, candidate, week.sets(session, candidate) + SETS_LOW);
            let broken = broken_while_building(problem, &more);
            if broken.len() <= before {
                return None;
            }
            if best.as_ref().is_none_or(|best| rank(&broken) < rank(&best.broken)) {
                best = Some(Placement { session, broken });
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
    Some(in_the_way(problem, &best))
}

fn stands(problem: &PlanProblem, session: usize, candidate: &Candidate) -> bool {
    candidate.stands[usize::from(problem.home[session])]
}

/// The fewest broken rules first; of those, what takes the least more time.
fn rank(broken: &[Violation]) -> (usize, u64) {
    let minutes = broken.iter().map(|v| if let Violation::Time { minutes, .. } = v { *minutes } else { 0.0 });
    // Minutes of a session are a small positive number.
    #[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss)]
    (broken.len(), (minutes.sum::<f64>() * 60.0) as u64)
}

/// Minutes are asked for in steps of this.
const MINUTES_STEP: f64 = 5.0;

fn in_the_way(problem: &PlanProblem, best: &Placement) -> Missing {
    let time = best.broken.iter().find_map(|v| if let Violation::Time { minutes, .. } = v { Some(*minutes) } else { None });
    // A limit that time alone would not lift is the reason before time is.
    let limit = best.broken.iter().find(|v| !matches!(v, Violation::Time { .. }));
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
    let (before, now) = (broken_while_building(problem, week).len(), cost(problem, week));
    let mut rules: Vec<(String, usize)> = Vec::new();
    let candidates = (0..problem.candidates.len()).filter(|c| {
        let candidate = &problem.candidates[*c];
        problem.worth_doing(candidate) && stands(problem, session, candidate)
    });
    for candidate in candidates {
        let mut more = week.clone();
        more.set(session, candidate, week.sets(session, candidate) + SETS_LOW);
        let broken = broken_while_building(problem, &more);
        if broken.len() <= before {
            if cost(problem, &more) < now - 1e-9 {
                return None;
            }
            continue;
        }
        for violation in &broken {
            let says = rule_in_the_way(problem, violation);
            match rules.iter_mut().find(|(known, _)| *known == says) {
                Some((_, count)) => *count += 1,
                None => rules.push((says, 1)),
            }
        }
    }
    rules.sort_by(|a, b| b.1.cmp(&a.1).then_with(|| a.0.cmp(&b.0)));
    let most = problem.limits.iter().find(|limit| limit.of == crate::aims::LoadOf::Sets);
    let spent = most.filter(|limit| f64::from(week.total_sets()) > limit.most - f64::from(SETS_LOW));
    Some(match (spent, rules.first()) {
        (Some(limit), _) => crate::words::limit_reached(limit),
        (None, Some((rule, _))) => format!("the regions have what they should get this week, and {rule}"),
        (None, None) => "the regions have what they should get this week".to_owned(),
    })
}
