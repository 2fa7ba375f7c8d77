//! A week as a coach bends it: days, cards in order, sets, schemes, locks, and how many weeks it is trained for.

use crate::check::Checker;
use crate::problem::{Problem, unknown};
use crate::text::is_one_line;
use crate::written::written;
use atlas::{Atlas, STRAIGHT, Scheme};
use plan::{Card, Draft, PlanProblem, WEEKS, WeekShape, Written};
use serde::{Deserialize, Serialize};
use units::{ExerciseId, Place, RegionId};
use utoipa::ToSchema;

/// A week with its block.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct WeekDraft {
    /// Minutes a session.
    pub minutes: u16,
    /// Weeks of the block, the lighter one at its end included.
    pub weeks: u8,
    /// What was to be brought up when the week was solved.
    pub bring_up: Vec<RegionId>,
    /// Every day of the week, in order.
    pub sessions: Vec<DayDraft>,
}

/// One day.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DayDraft {
    /// Weekday, Monday = 1.
    pub day: u8,
    /// Whether it is trained at home.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub home: bool,
    /// In order.
    pub items: Vec<CardDraft>,
}

/// One exercise of a day.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CardDraft {
    /// The exercise.
    pub exercise: String,
    /// Sets.
    pub sets: u16,
    /// Set scheme; straight sets when it is left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub scheme: Option<String>,
    /// Whether solving leaves it as it is.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub locked: bool,
    /// The superset or giant set it is part of: a letter that two to four neighbouring cards share.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub group: Option<String>,
    /// What the coach wrote on it; what is left out is as the exercise, the scheme and the school have it.
    #[serde(default, skip_serializing_if = "Written::is_empty")]
    pub written: Written,
}

/// A week whose parts are all known.
#[derive(Clone, Debug, PartialEq)]
pub struct CheckedWeek {
    /// Days and minutes.
    pub shape: WeekShape,
    /// Weeks of the block.
    pub weeks: u8,
    cards: Vec<Vec<CheckedCard>>,
}

#[derive(Clone, Debug, PartialEq)]
struct CheckedCard {
    exercise: ExerciseId,
    sets: u16,
    scheme: Scheme,
    locked: bool,
    group: Option<String>,
    written: Written,
}

const MINUTES: [f64; 2] = [10.0, 240.0];
const SETS: [f64; 2] = [1.0, 10.0];
/// Cards of a day at most: more than anybody trains.
const MOST_CARDS: usize = 20;

/// Checks a week. `at` is its pointer.
///
/// # Errors
/// All problems.
pub fn check_week(atlas: &Atlas, at: &Place, week: &WeekDraft) -> Result<CheckedWeek, Vec<Problem>> {
    let mut check = Checker::new(atlas);
    check.number(&at.at("minutes"), "a session of minutes", f64::from(week.minutes), MINUTES, " min");
    check.number(&at.at("weeks"), "a block of weeks", f64::from(week.weeks), WEEKS.map(f64::from), "");
    for (place, region) in week.bring_up.iter().enumerate() {
        check.region(&at.at("bring_up").at(place), region.as_str());
    }
    if week.sessions.is_empty() || week.sessions.len() > 7 {
        let says = format!("{} days a week is out of range: expected 1 to 7", week.sessions.len());
        check.fail::<()>(at.at("sessions"), says);
    }
    let mut cards = Vec::new();
    let mut before = 0;
    for (place, day) in week.sessions.iter().enumerate() {
        let at = at.at("sessions").at(place);
        if !(1..=7).contains(&day.day) || day.day <= before {
            let says = format!("day {} is out of order: expected rising days from 1 (Monday) to 7", day.day);
            check.fail::<()>(at.at("day"), says);
        }
        before = day.day;
        cards.push(self::cards(&mut check, &at, day));
    }
    let shape = WeekShape {
        days: week.sessions.iter().map(|day| day.day).collect(),
        home: week.sessions.iter().map(|day| day.home).collect(),
        minutes: week.minutes,
    };
    if check.problems.is_empty() { Ok(CheckedWeek { shape, weeks: week.weeks, cards }) } else { Err(check.problems) }
}

/// Characters in the name of a week at most.
const NAME_CHARS: usize = 60;

/// The name a week is kept under: one line. `at` is its pointer.
///
/// # Errors
/// What is wrong with it.
pub fn check_week_name(at: &Place, name: &str) -> Result<String, Problem> {
    let name = name.trim();
    let right = (1..=NAME_CHARS).contains(&name.chars().count()) && is_one_line(name);
    let says = || Problem::new(at, format!("a week needs a name of 1 to {NAME_CHARS} characters in one line"));
    right.then(|| name.to_owned()).ok_or_else(says)
}

fn cards(check: &mut Checker, at: &Place, day: &DayDraft) -> Vec<CheckedCard> {
    if day.items.len() > MOST_CARDS {
        check.fail::<()>(at.at("items"), format!("{} exercises a day: {MOST_CARDS} are the most", day.items.len()));
    }
    let mut cards: Vec<CheckedCard> = Vec::new();
    for (place, card) in day.items.iter().enumerate() {
        let at = at.at("items").at(place);
        let exercise = check.exercise(&at.at("exercise"), &card.exercise).map(|exercise| exercise.id.clone());
        check.number(&at.at("sets"), "sets", f64::from(card.sets), SETS, "");
        // Weeks of before there were groups say it in the first card's scheme.
        let id = card.scheme.as_deref().filter(|id| *id != INTO_NEXT).unwrap_or(STRAIGHT);
        let schemes = check.atlas.schemes();
        let scheme = schemes.iter().find(|scheme| scheme.id == id).cloned();
        let scheme = scheme.or_else(|| {
            let says = unknown("set scheme", id, schemes.iter().map(|scheme| scheme.id.as_str()));
            check.fail(at.at("scheme"), says)
        });
        let (Some(exercise), Some(scheme)) = (exercise, scheme) else { continue };
        if cards.iter().any(|other| other.exercise == exercise) {
            check.fail::<()>(at.at("exercise"), format!("{exercise} stands twice on one day: give one card its sets"));
        }
        let known = check.atlas.exercise(&exercise).cloned();
        if let Some(known) = &known {
            written(check, &at.at("written"), known, &card.written, card.sets);
        }
        let (group, written) = (card.group.clone(), card.written.clone());
        cards.push(CheckedCard { exercise, sets: card.sets, scheme, locked: card.locked, group, written });
    }
    let into_next = |card: &CardDraft| card.scheme.as_deref() == Some(INTO_NEXT);
    if cards.len() == day.items.len() {
        for place in 1..cards.len() {
            if into_next(&day.items[place - 1]) {
                let letter = cards[place - 1].group.clone().unwrap_or_else(|| free_letter(&cards));
                cards[place - 1].group = Some(letter.clone());
                cards[place].group = Some(letter);
            }
        }
    }
    groups(check, at, &cards);
    cards
}

/// How the scheme was called by which a card ran straight into the next, in weeks and entries of before there were groups.
pub(crate) const INTO_NEXT: &str = "superset";
/// Cards of a group at most.
const MOST_IN_A_GROUP: usize = 4;

/// A letter that no group of the day has.
fn free_letter(cards: &[CheckedCard]) -> String {
    let taken = |letter: &char| cards.iter().any(|card| card.group.as_deref() == Some(letter.to_string().as_str()));
    ('A'..='Z').find(|letter| !taken(letter)).unwrap_or('Z').to_string()
}

/// The cards of a group stand side by side, two to four of them, under one capital letter.
fn groups(check: &mut Checker, at: &Place, cards: &[CheckedCard]) {
    let mut seen: Vec<&str> = Vec::new();
    for range in plan::rounds(cards.iter().map(|card| card.group.as_deref())) {
        let at = at.at("items").at(range.start).at("group");
        let Some(group) = cards[range.start].group.as_deref() else { continue };
        let letter = group.len() == 1 && group.bytes().all(|byte| byte.is_ascii_uppercase());
        if !letter {
            check.fail::<()>(&at, format!("a group called {group:?}: expected one capital letter"));
        } else if seen.contains(&group) {
            check.fail::<()>(&at, format!("group {group} stands in two places: its cards belong side by side"));
        } else if !(2..=MOST_IN_A_GROUP).contains(&range.len()) {
            let says = format!("group {group} has {} cards: expected 2 to {MOST_IN_A_GROUP}", range.len());
            check.fail::<()>(&at, says);
        }
        seen.push(group);
    }
}

impl CheckedWeek {
    /// The exercises it has.
    pub fn exercises(&self) -> Vec<ExerciseId> {
        self.cards.iter().flatten().map(|card| card.exercise.clone()).collect()
    }

    /// As the planner has it. An exercise that is no candidate of the problem is left out: [`PlanProblem::admit`] takes in
    /// what is refused.
    pub fn draft(&self, problem: &PlanProblem) -> Draft {
        let card = |card: &CheckedCard| {
            let CheckedCard { sets, scheme, locked, exercise, group, written } = card.clone();
            Some(Card { candidate: problem.place_of(&exercise)?, sets, scheme, locked, group, written })
        };
        Draft { sessions: self.cards.iter().map(|cards| cards.iter().filter_map(card).collect()).collect() }
    }
}

/// A draft as it is kept.
pub fn week_draft(problem: &PlanProblem, draft: &Draft, weeks: u8, bring_up: &[RegionId]) -> WeekDraft {
    let item = |card: &Card| CardDraft {
        exercise: problem.candidates[card.candidate].exercise.id.to_string(),
        sets: card.sets,
        scheme: (card.scheme.id != STRAIGHT).then(|| card.scheme.id.clone()),
        locked: card.locked,
        group: card.group.clone(),
        written: card.written.clone(),
    };
    let day = |session: usize| DayDraft {
        day: problem.days[session],
        home: problem.home[session],
        items: draft.sessions[session].iter().map(item).collect(),
    };
    WeekDraft {
        // A session's minutes came from a whole number.
        #[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss)]
        minutes: problem.minutes as u16,
        weeks,
        bring_up: bring_up.to_vec(),
        sessions: (0..draft.sessions.len()).map(day).collect(),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;
    use serde_json::{Value, json};

    fn checked(change: impl FnOnce(&mut Value)) -> Result<CheckedWeek, Vec<String>> {
        let mut week = json!({"minutes": 60, "weeks": 6, "bring_up": ["biceps.long"], "sessions": [
            {"day": 1, "items": [{"exercise": "incline-curl", "sets": 3}]},
            {"day": 4, "items": [{"exercise": "db-curl", "sets": 3, "scheme": "drop", "locked": true}]}]});
        change(&mut week);
        let week: WeekDraft = serde_json::from_value(week).unwrap();
        let said = |problems: Vec<Problem>| problems.iter().map(ToString::to_string).collect();
        check_week(&Atlas::load().unwrap(), &"/week".into(), &week).map_err(said)
    }

    #[test]
    fn a_week_in_order_is_taken_as_it_is() {
        let week = checked(|_| {}).unwrap();
        assert_eq!((week.shape.days.clone(), week.shape.minutes, week.weeks), (vec![1, 4], 60, 6));
        assert_eq!(week.exercises().len(), 2);
    }

    #[rstest]
    #[case::five_minutes("/minutes", json!(5), "/week/minutes: a session of minutes 5 min is out of range: expected 10 to 240 min")]
    #[case::a_block_of_a_year("/weeks", json!(52), "/week/weeks: a block of weeks 52 is out of range: expected 4 to 8")]
    #[case::no_days("/sessions", json!([]), "/week/sessions: 0 days a week is out of range: expected 1 to 7")]
    #[case::a_day_before_the_last("/sessions/1/day", json!(1), "/week/sessions/1/day: day 1 is out of order: expected rising days from 1 (Monday) to 7")]
    #[case::no_sets("/sessions/0/items/0/sets", json!(0), "/week/sessions/0/items/0/sets: sets 0 is out of range: expected 1 to 10")]
    fn what_is_out_of_range_is_said_with_its_place(#[case] at: &str, #[case] value: Value, #[case] says: &str) {
        let problems = checked(|week| *week.pointer_mut(at).unwrap() = value).unwrap_err();
        assert_eq!(problems, [says]);
    }

    #[rstest]
    #[case::an_exercise("/sessions/0/items/0/exercise", "incline-crul", "incline-curl")]
    #[case::a_scheme("/sessions/1/items/0/scheme", "dorp", "drop")]
    fn an_unknown_name_is_refused_with_the_nearest(#[case] at: &str, #[case] name: &str, #[case] nearest: &str) {
        let problems = checked(|week| *week.pointer_mut(at).unwrap() = json!(name)).unwrap_err();
        assert!(problems[0].contains(name) && problems[0].contains(nearest), "{problems:?}");
    }

    #[rstest]
    #[case::as_it_is("Push and pull", Some("Push and pull"))]
    #[case::without_space_around("  Home, bands ", Some("Home, bands"))]
    #[case::empty("  ", None)]
    #[case::two_lines("Push\nPull", None)]
    #[case::too_long(&"x".repeat(61), None)]
    fn a_week_is_kept_under_one_line(#[case] name: &str, #[case] expected: Option<&str>) {
        assert_eq!(check_week_name(&"/name".into(), name).ok().as_deref(), expected);
    }

    #[test]
    fn an_exercise_stands_once_a_day() {
        let twice = json!([{"exercise": "db-curl", "sets": 3}, {"exercise": "db-curl", "sets": 2}]);
        let problems = checked(|week| *week.pointer_mut("/sessions/0/items").unwrap() = twice).unwrap_err();
        assert!(problems[0].starts_with("/week/sessions/0/items/1/exercise") && problems[0].contains("twice"));
    }
}
