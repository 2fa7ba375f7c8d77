//! A log entry as it travels and is kept: one exercise of one session as somebody wrote it down, or the session as a whole.

use crate::check::Checker;
use crate::problem::{Problem, unknown};
use crate::week_draft::INTO_NEXT;
use atlas::{Atlas, Exercise, PartKind, Work};
use jiff::Timestamp;
use logbook::{
    Count, Entry, ExerciseLog, ExercisePain, Form, LoggedPart, LoggedSet, Part, RedFlag, SCALE, SessionKey, SessionLog,
};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::{BTreeMap, HashSet};
use units::{Load, Place, PlanId, Side};
use utoipa::ToSchema;

/// What somebody wrote down, once. A correction is a new entry that follows the old one.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LogEntry {
    /// Made by the device that wrote it (UUID): sent twice it is kept once.
    pub id: String,
    /// Earlier entries of the same part that its writer had in sight.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub follows: Vec<String>,
    /// The plan as it was given.
    pub plan: PlanId,
    /// Week since the plan's first, from 1.
    pub week: u8,
    /// The session's planned weekday, Monday = 1.
    pub day: u8,
    /// The day it was trained, `YYYY-MM-DD`.
    pub trained_on: String,
    /// When it was written by the device's clock, RFC 3339.
    pub at: String,
    /// What it speaks of.
    pub part: LogPart,
}

/// A part of a session.
#[allow(clippy::large_enum_variant, reason = "nearly all parts are exercises: a box would cost more than it saves")]
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(tag = "kind", rename_all = "kebab-case", deny_unknown_fields)]
pub enum LogPart {
    /// One exercise.
    Exercise {
        /// What was planned.
        exercise: String,
        /// What was done instead, when it was swapped.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        instead: Option<String>,
        /// Its place in the session, from 1.
        position: u8,
        /// The set scheme.
        scheme: String,
        /// Sets in the order done.
        sets: Vec<LogSet>,
        /// A region, a joint, or `nowhere`, when asked.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        felt: Option<String>,
        /// Pain during it.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pain: Option<LogPain>,
        /// What spoiled the form.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        form: Vec<Form>,
        /// The variant it was done in, where it was not as planned.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        variant: Option<String>,
        /// How the station was set, number by name.
        #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
        set_up: BTreeMap<String, f64>,
        /// A line to the coach.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        note: Option<String>,
    },
    /// The session as a whole.
    Session {
        /// Whether nothing more is to come.
        finished: bool,
        /// The night before, 1 bad to 5 good.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        sleep: Option<u8>,
        /// Soreness on coming in, 1 none to 5 very sore.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        soreness: Option<u8>,
        /// Whether it was made a lighter one on the day: half the sets at the same load.
        #[serde(default, skip_serializing_if = "std::ops::Not::not")]
        lighter: bool,
        /// A line to the coach.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        note: Option<String>,
    },
}

/// One set.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LogSet {
    /// From 1; both sides of a set share its number.
    pub number: u8,
    /// The side, when one at a time.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<Side>,
    /// The load beside the body's own, kg; under 0 it is help.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub load_kg: Option<f64>,
    /// Repetitions.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub reps: Option<u16>,
    /// Seconds under tension, where repetitions are not counted.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub seconds: Option<u16>,
    /// Repetitions left.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub reserve: Option<u8>,
    /// What followed straight on it.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub parts: Vec<LogSetPart>,
}

/// What followed straight on a set.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LogSetPart {
    /// Which.
    pub kind: PartKind,
    /// With how much, kg; under 0 it is help.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub load_kg: Option<f64>,
    /// Repetitions.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub reps: Option<u16>,
    /// Seconds, of a hold or a carry.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub seconds: Option<u16>,
}

/// Pain during an exercise.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LogPain {
    /// The joint or area, as in the brief.
    pub area: String,
    /// The painful side, when it has one.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<Side>,
    /// 0 none to 10 worst.
    pub level: u8,
    /// What else was noticed.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub red_flags: Vec<RedFlag>,
    /// The exercise that hurt, when another was done instead of it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub during: Option<String>,
}

const WEEKS: [f64; 2] = [1.0, 250.0];
const POSITIONS: [f64; 2] = [1.0, 20.0];
const SET_NUMBERS: [f64; 2] = [1.0, 30.0];
/// From the most help to a sled or a leg press with everything on it.
const LOAD_KG: [f64; 2] = [-200.0, 600.0];
/// The least that is held or helps, kg.
const LEAST_KG: f64 = 0.25;
/// Parts of one set at most.
const MOST_PARTS: usize = 6;
const REPS: [f64; 2] = [1.0, 200.0];
const SECONDS: [f64; 2] = [1.0, 1800.0];
const RESERVE: [f64; 2] = [0.0, 10.0];
const PAIN: [f64; 2] = [0.0, 10.0];
/// Longest line to the coach, characters.
const NOTE: usize = 500;
/// Sets of one exercise and versions followed at most: more than anybody does.
const MOST: usize = 60;

/// Checks an entry. `at` is its pointer.
///
/// # Errors
/// All problems.
pub fn check_log_entry(atlas: &Atlas, at: &Place, entry: &LogEntry) -> Result<Entry, Vec<Problem>> {
    let mut check = Checker::new(atlas);
    for (i, id) in std::iter::once(&entry.id).chain(&entry.follows).enumerate() {
        if uuid::Uuid::try_parse(id).is_err() {
            let place = i.checked_sub(1).map_or_else(|| at.at("id"), |i| at.at("follows").at(i));
            check.fail::<()>(place, format!("{id:?} is no UUID"));
        }
    }
    few(&mut check, &at.at("follows"), entry.follows.len());
    check.number(&at.at("week"), "week", f64::from(entry.week), WEEKS, "");
    check.number(&at.at("day"), "weekday", f64::from(entry.day), [1.0, 7.0], "");
    let trained_on = check.date(&at.at("trained_on"), &entry.trained_on);
    if entry.at.parse::<Timestamp>().is_err() {
        let says = format!("{:?} is no time: expected one such as 2026-03-02T18:05:00Z", entry.at);
        check.fail::<()>(at.at("at"), says);
    }
    let part = part(&mut check, &at.at("part"), &entry.part);
    match (trained_on, part, check.problems.is_empty()) {
        (Some(trained_on), Some(part), true) => Ok(Entry {
            id: entry.id.clone(),
            follows: entry.follows.clone(),
            session: SessionKey { plan_id: entry.plan.clone(), week: entry.week, day: entry.day },
            trained_on,
            part,
        }),
        _ => Err(check.problems),
    }
}

fn few(check: &mut Checker, at: &Place, count: usize) {
    if count > MOST {
        check.fail::<()>(at, format!("{count} are more than {MOST}"));
    }
}

fn part(check: &mut Checker, at: &Place, part: &LogPart) -> Option<Part> {
    match part {
        LogPart::Session { finished, sleep, soreness, lighter, note } => {
            let scale = SCALE.map(f64::from);
            for (field, value) in [("sleep", sleep), ("soreness", soreness)] {
                if let Some(value) = value {
                    check.number(&at.at(field), field, f64::from(*value), scale, "");
                }
            }
            let note = line(check, at, note.as_deref());
            let (finished, sleep, soreness, lighter) = (*finished, *sleep, *soreness, *lighter);
            Some(Part::Session(SessionLog { finished, sleep, soreness, lighter, note }))
        }
        LogPart::Exercise { exercise, instead, position, scheme, sets, felt, pain, form, variant, set_up, note } => {
            let planned = check.exercise(&at.at("exercise"), exercise);
            let swapped = instead.as_ref().map(|id| check.exercise(&at.at("instead"), id));
            let done = swapped.unwrap_or(planned);
            check.number(&at.at("position"), "position", f64::from(*position), POSITIONS, "");
            let known = |scheme: &atlas::Scheme| scheme.id.clone();
            if scheme != INTO_NEXT && check.atlas.scheme(scheme).is_none() {
                let ids: Vec<String> = check.atlas.schemes().iter().map(known).collect();
                let says = unknown("set scheme", scheme, ids.iter().map(String::as_str));
                check.fail::<()>(at.at("scheme"), says);
            }
            few(check, &at.at("sets"), sets.len());
            let sets = self::sets(check, &at.at("sets"), sets, done);
            let felt = felt.as_ref().map(|felt| super::check::felt_where(check, &at.at("felt"), felt));
            let pain = pain.as_ref().map(|pain| self::pain(check, &at.at("pain"), pain));
            let note = line(check, at, note.as_deref());
            crate::written::variant(check, &at.at("variant"), done, variant.as_deref());
            crate::written::set_up(check, &at.at("set_up"), set_up);
            Some(Part::Exercise(ExerciseLog {
                exercise: planned?.id.clone(),
                instead: instead.as_ref().and(done).map(|done| done.id.clone()),
                position: *position,
                scheme: scheme.clone(),
                sets,
                felt: felt.flatten(),
                pain: pain.flatten(),
                form: form.clone(),
                variant: variant.clone(),
                set_up: set_up.clone(),
                note,
            }))
        }
    }
}

fn line(check: &mut Checker, at: &Place, note: Option<&str>) -> Option<String> {
    let note = note.map(str::trim).filter(|note| !note.is_empty())?;
    if note.chars().count() > NOTE {
        return check.fail(at.at("note"), format!("the note is longer than {NOTE} characters"));
    }
    Some(note.to_owned())
}

fn sets(check: &mut Checker, at: &Place, sets: &[LogSet], exercise: Option<&Exercise>) -> Vec<LoggedSet> {
    let mut seen = HashSet::new();
    let mut resolved = Vec::new();
    for (i, set) in sets.iter().enumerate() {
        let at = at.at(i);
        if !seen.insert((set.number, set.side)) {
            check.fail::<()>(&at, format!("set {} of this side is there twice", set.number));
        }
        check.number(&at.at("number"), "set", f64::from(set.number), SET_NUMBERS, "");
        let load = load(check, &at, set.load_kg, exercise);
        if let Some(reserve) = set.reserve {
            check.number(&at.at("reserve"), "repetitions left", f64::from(reserve), RESERVE, "");
        }
        let parts = parts(check, &at.at("parts"), &set.parts, exercise);
        let Some(count) = count(check, &at, [set.reps, set.seconds], exercise.map(Exercise::work)) else { continue };
        resolved.push(LoggedSet { number: set.number, side: set.side, load, count, reserve: set.reserve, parts });
    }
    resolved
}

/// A load, or help where the exercise moves the body's own weight.
fn load(check: &mut Checker, at: &Place, kg: Option<f64>, exercise: Option<&Exercise>) -> Option<Load> {
    let at = at.at("load_kg");
    let kg = check.number(&at, "a load of", kg?, LOAD_KG, " kg")?;
    if kg.abs() < LEAST_KG {
        return check.fail(&at, format!("a load of {kg} kg is none: leave it out where nothing is held"));
    }
    if kg < 0.0 && exercise.is_some_and(|exercise| !exercise.assistable()) {
        let says = "a load under 0 is help, which is for exercises that move the body's own weight";
        return check.fail(&at, says);
    }
    check.take(&at, Load::from_kg(kg))
}

fn parts(check: &mut Checker, at: &Place, parts: &[LogSetPart], exercise: Option<&Exercise>) -> Vec<LoggedPart> {
    if parts.len() > MOST_PARTS {
        check.fail::<()>(at, format!("{} parts of a set: {MOST_PARTS} are the most", parts.len()));
    }
    let mut resolved = Vec::new();
    for (i, part) in parts.iter().enumerate() {
        let at = at.at(i);
        // A carry is another movement: any load goes with it.
        let of = exercise.filter(|_| part.kind != PartKind::Carry);
        let load = load(check, &at, part.load_kg, of);
        let Some(count) = count(check, &at, [part.reps, part.seconds], None) else { continue };
        if part.kind.in_seconds() != matches!(count, Count::Seconds(_)) {
            let unit = if part.kind.in_seconds() { "seconds" } else { "repetitions" };
            check.fail::<()>(&at, format!("this part of a set is counted in {unit}"));
        }
        resolved.push(LoggedPart { kind: part.kind, load, count });
    }
    resolved
}

/// Repetitions or seconds, whichever the exercise is counted in.
fn count(check: &mut Checker, at: &Place, [reps, seconds]: [Option<u16>; 2], work: Option<Work>) -> Option<Count> {
    let counted = match (reps, seconds) {
        (Some(reps), None) => Count::Reps(reps),
        (None, Some(seconds)) => Count::Seconds(seconds),
        (Some(_), Some(_)) => return check.fail(at, "a set has repetitions or seconds, not both"),
        (None, None) => return check.fail(at, "how much was done is missing: expected reps or seconds"),
    };
    match (counted, work) {
        (Count::Reps(_), Some(Work::Seconds(_))) => {
            return check.fail(at.at("reps"), "this exercise is counted in seconds");
        }
        (Count::Reps(reps), _) => check.number(&at.at("reps"), "repetitions", f64::from(reps), REPS, "")?,
        // A timed scheme counts any exercise in seconds.
        (Count::Seconds(s), _) => check.number(&at.at("seconds"), "a time of", f64::from(s), SECONDS, " s")?,
    };
    Some(counted)
}

fn pain(check: &mut Checker, at: &Place, pain: &LogPain) -> Option<ExercisePain> {
    if !check.atlas.areas().contains(&pain.area.as_str()) {
        let says = unknown("area", &pain.area, check.atlas.areas().iter().copied());
        check.fail::<()>(at.at("area"), says);
    }
    check.number(&at.at("level"), "pain", f64::from(pain.level), PAIN, "")?;
    let during = pain.during.as_ref().map(|id| check.exercise(&at.at("during"), id));
    let during = during.flatten().map(|exercise| exercise.id.clone());
    let red_flags = pain.red_flags.clone();
    Some(ExercisePain { area: pain.area.clone(), side: pain.side, level: pain.level, red_flags, during })
}
