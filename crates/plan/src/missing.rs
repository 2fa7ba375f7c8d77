//! Why something is not in a week, by its real reason, and the nearest change that would help: pain is said as pain, kit as kit,
//! time as time, a limit of the week as that limit.

use crate::aims::Floor;
use crate::anneal::{Added, Adding, InTheWay};
use crate::card::Card;
use crate::draft::Draft;
use crate::problem::PlanProblem;
use crate::rules::allowed::Refusal;
use crate::rules::{Violation, broken_while_building};
use crate::timing::cards_minutes;
use crate::week::{Week, weekday_name};
use crate::words::{limit_reached, lower_first, rule_in_the_way, sets_spent};
use atlas::Exercise;
use std::collections::BTreeMap;
use units::{EquipmentId, RegionId};

/// What is in the way, and what would help.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Missing {
    /// The rule in the way.
    pub rule: String,
    /// The nearest change that would help.
    pub nearest: String,
}

/// Why parts are under their floor and sessions short, worked out once for all who say it.
#[derive(Clone, Debug, PartialEq)]
pub(crate) struct Explained {
    /// By floor: what is in the way; none where it is at its floor, or where nothing is in the way.
    pub parts: Vec<Option<Missing>>,
    /// By session: why much of its time is left; none where little is left, or where there is work for it.
    pub short: Vec<Option<String>>,
}

impl Explained {
    pub fn of(problem: &PlanProblem, draft: &Draft, week: &Week) -> Self {
        let part = |floor: &Floor| {
            let sets = floor.sets_of(problem, draft);
            let regions: Vec<&RegionId> = floor.demands.iter().map(|d| &problem.demands[*d].region).collect();
            let trains = |exercise: &Exercise| regions.iter().any(|region| exercise.trains(region));
            let lacks = sets < floor.least - 1e-9 || (floor.least <= 0.0 && sets <= 0.0);
            if lacks && !floor.held_back(problem) { why_missing(problem, week, &trains) } else { None }
        };
        let short = |(session, cards): (usize, &Vec<Card>)| {
            if is_short(problem, cards) { why_short(problem, week, session) } else { None }
        };
        Self {
            parts: problem.floors.iter().map(part).collect(),
            short: draft.sessions.iter().enumerate().map(short).collect(),
        }
    }
}

/// Whether a session leaves much of its time.
pub(crate) fn is_short(problem: &PlanProblem, cards: &[Card]) -> bool {
    !cards.is_empty() && cards_minutes(problem, cards) < problem.session_used * problem.minutes
}

/// Why nothing in the week is `wanted`; none when something could be added without breaking a rule.
pub(crate) fn why_missing(problem: &PlanProblem, week: &Week, wanted: &dyn Fn(&Exercise) -> bool) -> Option<Missing> {
    let able: Vec<usize> = (0..problem.candidates.len())
        .filter(|c| wanted(&problem.candidates[*c].exercise) && problem.worth_doing(&problem.candidates[*c]))
        .collect();
    if able.is_empty() { Some(nothing_allowed(problem, wanted)) } else { no_room(problem, week, &able) }
}

/// Reasons that are said of one thing that is missing, at most.
const REASONS: usize = 2;

/// Why nothing that is allowed would do. What has all its kit is kept out by something else, which is then the reason; kit is
/// the reason only where nothing has.
pub(crate) fn nothing_allowed(problem: &PlanProblem, wanted: &dyn Fn(&Exercise) -> bool) -> Missing {
    let refused: Vec<&(Exercise, Refusal)> = problem.refused.iter().filter(|(exercise, _)| wanted(exercise)).collect();
    let mut there: Vec<&(Exercise, Refusal)> = refused
        .iter()
        .copied()
        .filter(|(_, refusal)| !matches!(refusal, Refusal::Equipment(_) | Refusal::AdvisedAgainst))
        .collect();
    if let Some(missing) = one_pain(&there) {
        return missing;
    }
    // Pain is said before what a coach could decide otherwise.
    there.sort_by_key(|(_, refusal)| rank(refusal));
    there.dedup_by_key(|(_, refusal)| std::mem::discriminant(refusal));
    if let Some((_, first)) = there.first() {
        let rules = there.iter().take(REASONS);
        let rules: Vec<String> =
            rules.map(|(exercise, refusal)| format!("{} {refusal}", lower_first(&exercise.name))).collect();
        return Missing { rule: rules.join("; "), nearest: what_lifts(first) };
    }
    if problem.candidates.iter().any(|c| c.refused.is_none() && wanted(&c.exercise)) {
        return Missing {
            rule: "what trains it also trains a region that is held back".to_owned(),
            nearest: "Take that region off the list of those held back.".to_owned(),
        };
    }
    no_kit(problem, &refused)
}

/// One painful joint that keeps everything out.
fn one_pain(there: &[&(Exercise, Refusal)]) -> Option<Missing> {
    let Refusal::Pain { area, level } = &there.first()?.1 else { return None };
    let same = |other: &&(Exercise, Refusal)| matches!(&other.1, Refusal::Pain { area: other, .. } if other == area);
    let area = area.replace('-', " ");
    there.iter().all(same).then(|| Missing {
        rule: format!("everything for it that the kit allows loads the {area}, which hurts {level}/10"),
        nearest: format!("It comes back by itself when the pain in the {area} is lower."),
    })
}

/// The reason that is said first comes first.
fn rank(refusal: &Refusal) -> u8 {
    match refusal {
        Refusal::Pain { .. } => 0,
        Refusal::Hurt { .. } | Refusal::Swapped { .. } => 1,
        Refusal::Screen { .. } => 2,
        Refusal::Beginner | Refusal::Skill | Refusal::Blades => 3,
        Refusal::School { .. } => 4,
        Refusal::Excluded => 5,
        Refusal::Equipment(_) | Refusal::AdvisedAgainst => 6,
    }
}

/// What would lift a refusal.
fn what_lifts(refusal: &Refusal) -> String {
    let says = match refusal {
        Refusal::Pain { area, .. } => {
            return format!("It comes back by itself when the pain in the {} is lower.", area.replace('-', " "));
        }
        Refusal::Hurt { .. } => "Clear it in Today once it no longer hurts.",
        Refusal::Swapped { .. } => "Add it by hand if it is to come back.",
        Refusal::Screen { .. } => "Work on that range, then screen it again.",
        Refusal::Beginner | Refusal::Skill => "Teach it first, then add it by hand.",
        Refusal::Blades => "Drill drawing the blades together first.",
        Refusal::School { .. } => "Another answer to that school brings it back.",
        Refusal::Excluded => "Take it off the list in the brief.",
        Refusal::Equipment(_) | Refusal::AdvisedAgainst => "Choose another exercise for it.",
    };
    says.to_owned()
}

/// The single thing whose buying would help with least, and what to do until then.
fn no_kit(problem: &PlanProblem, refused: &[&(Exercise, Refusal)]) -> Missing {
    const CHEAP: [&str; 6] = ["band", "dumbbell", "bench", "incline-bench", "rope", "pullup-bar"];
    let there = |item: &EquipmentId| item.as_str() == "bodyweight" || problem.kit.contains(item);
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
    match best {
        Some((_, _, exercise, lacks)) => {
            let items = lacks.iter().map(|item| problem.kit_name(item)).collect::<Vec<_>>().join(" and ");
            Missing {
                rule: "nothing that is there does it".to_owned(),
                nearest: format!("With {items}: {}.", lower_first(&exercise.name)),
            }
        }
        None => Missing {
            rule: "the catalogue has no exercise for it".to_owned(),
            nearest: "Add one of your own in the library.".to_owned(),
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
            }
        }
        (Some(limit), _) => Missing {
            rule: rule_in_the_way(problem, limit),
            nearest: format!("It would fit best on {day}, in the place of something there."),
        },
        (None, None) => Missing {
            rule: "other regions need the room more".to_owned(),
            nearest: format!("Swap it for something on {day}."),
        },
    }
}

/// Why a session leaves much of its time; none when something that helps could still be added.
fn why_short(problem: &PlanProblem, week: &Week, session: usize) -> Option<String> {
    const HAVE: &str = "the regions have what they should get this week";
    if let Some(limit) = sets_spent(problem, week) {
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

#[cfg(test)]
mod tests {
    use super::*;
    use crate::tests::{problem, week};
    use rstest::rstest;
    use serde_json::{Value, json};

    fn presses(exercise: &Exercise) -> bool {
        exercise.movement == atlas::Movement::PressOverhead
    }

    #[rstest]
    #[case::pain_as_pain(
        json!({"pain": [{"area": "shoulder", "level": 4}]}),
        "everything for it that the kit allows loads the shoulder, which hurts 4/10",
        "It comes back by itself when the pain in the shoulder is lower."
    )]
    #[case::kit_as_kit(json!({"equipment": ["band"]}), "nothing that is there does it", "With dumbbells: ")]
    #[case::the_coach_s_own_list(
        json!({"excluded_exercises": ["shoulder-press-db", "guided-press", "standing-db-press"]}),
        "ruled out in the brief", "Take it off the list in the brief."
    )]
    // One of the three is ruled out by hand, so that not everything is kept out by the pain.
    #[case::two_reasons_are_both_said(
        json!({"pain": [{"area": "shoulder", "level": 4}], "excluded_exercises": ["guided-press"]}),
        "which hurts 4/10; guided-bar shoulder press", "It comes back by itself"
    )]
    fn what_is_missing_is_named_by_its_real_reason(#[case] brief: Value, #[case] rule: &str, #[case] nearest: &str) {
        let problem = problem(&brief);
        let missing = why_missing(&problem, &week(&problem, &[]), &presses).unwrap();
        assert!(missing.rule.contains(rule) && missing.nearest.starts_with(nearest), "{missing:?}");
    }

    #[rstest]
    #[case::there_is_room(json!({}), &[(0, "leg-press", 3)], None)]
    #[case::time_as_time(
        json!({"minutes_per_session": 20, "days_per_week": 2}),
        &[(0, "leg-press", 5), (1, "leg-press", 5)], Some("20 minutes a session are full")
    )]
    #[case::exercises_a_session_as_those(
        json!({"max_exercises_per_session": 1, "days_per_week": 2}),
        &[(0, "leg-press", 2), (1, "leg-press", 2)], Some("a session holds 1 exercises at most")
    )]
    fn what_has_no_room_is_told_what_is_full(
        #[case] brief: Value,
        #[case] items: &[(usize, &str, u16)],
        #[case] rule: Option<&str>,
    ) {
        let problem = problem(&brief);
        let missing = why_missing(&problem, &week(&problem, items), &presses);
        assert_eq!(missing.map(|missing| missing.rule).as_deref(), rule);
    }

    #[test]
    fn the_week_s_sets_are_the_reason_when_they_are_spent() {
        let problem =
            problem(&json!({"experience": "beginner", "minutes_per_session": 120, "max_exercises_per_session": 10}));
        let each = ["leg-press", "chest-press-machine", "seated-leg-curl"];
        let items: Vec<(usize, &str, u16)> = (0..4).flat_map(|day| each.map(|id| (day, id, 5))).collect();
        assert_eq!(
            why_short(&problem, &week(&problem, &items), 0).as_deref(),
            Some("a week holds 60 hard sets at most")
        );
    }
}
