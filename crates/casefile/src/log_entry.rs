//! A log entry as it travels and is kept: one exercise of one session as somebody wrote it down, or the session as a whole.

use crate::check::Checker;
use crate::problem::{Problem, unknown};
use atlas::{Atlas, Work};
use jiff::Timestamp;
use logbook::{Count, Entry, ExerciseLog, ExercisePain, LoggedSet, Part, RedFlag, SCALE, SessionKey, SessionLog};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::HashSet;
use units::{Mass, Side};
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
    pub plan: String,
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
    /// The load beside the body's own, kg.
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
/// A sled or a leg press with everything on it.
const LOAD_KG: [f64; 2] = [0.25, 600.0];
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
pub fn check_log_entry(atlas: &Atlas, at: &str, entry: &LogEntry) -> Result<Entry, Vec<Problem>> {
    let mut check = Checker::new(atlas);
    for (i, id) in std::iter::once(&entry.id).chain(&entry.follows).enumerate() {
        if uuid::Uuid::try_parse(id).is_err() {
            let place = i.checked_sub(1).map_or("id".to_owned(), |i| format!("follows/{i}"));
            check.fail::<()>(format!("{at}/{place}"), format!("{id:?} is no UUID"));
        }
    }
    few(&mut check, &format!("{at}/follows"), entry.follows.len());
    check.number(&format!("{at}/week"), "week", f64::from(entry.week), WEEKS, "");
    check.number(&format!("{at}/day"), "weekday", f64::from(entry.day), [1.0, 7.0], "");
    let trained_on = check.date(&format!("{at}/trained_on"), &entry.trained_on);
    if entry.at.parse::<Timestamp>().is_err() {
        let says = format!("{:?} is no time: expected one such as 2026-03-02T18:05:00Z", entry.at);
        check.fail::<()>(format!("{at}/at"), says);
    }
    let part = part(&mut check, &format!("{at}/part"), &entry.part);
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

fn few(check: &mut Checker, at: &str, count: usize) {
    if count > MOST {
        check.fail::<()>(at, format!("{count} are more than {MOST}"));
    }
}

fn part(check: &mut Checker, at: &str, part: &LogPart) -> Option<Part> {
    match part {
        LogPart::Session { finished, sleep, soreness, note } => {
            let scale = SCALE.map(f64::from);
            for (field, value) in [("sleep", sleep), ("soreness", soreness)] {
                if let Some(value) = value {
                    check.number(&format!("{at}/{field}"), field, f64::from(*value), scale, "");
                }
            }
            let note = line(check, at, note.as_deref());
            Some(Part::Session(SessionLog { finished: *finished, sleep: *sleep, soreness: *soreness, note }))
        }
        LogPart::Exercise { exercise, instead, position, scheme, sets, felt, pain, note } => {
            let planned = check.exercise(&format!("{at}/exercise"), exercise);
            let swapped = instead.as_ref().map(|id| check.exercise(&format!("{at}/instead"), id));
            let done = swapped.unwrap_or(planned);
            check.number(&format!("{at}/position"), "position", f64::from(*position), POSITIONS, "");
            let known = |scheme: &atlas::Scheme| scheme.id.clone();
            if check.atlas.scheme(scheme).is_none() {
                let ids: Vec<String> = check.atlas.schemes().iter().map(known).collect();
                let says = unknown("set scheme", scheme, ids.iter().map(String::as_str));
                check.fail::<()>(format!("{at}/scheme"), says);
            }
            few(check, &format!("{at}/sets"), sets.len());
            let sets = self::sets(check, &format!("{at}/sets"), sets, done.map(atlas::Exercise::work));
            let felt = felt.as_ref().map(|felt| super::check::felt_where(check, &format!("{at}/felt"), felt));
            let pain = pain.as_ref().map(|pain| self::pain(check, &format!("{at}/pain"), pain));
            let note = line(check, at, note.as_deref());
            Some(Part::Exercise(ExerciseLog {
                exercise: planned?.id.clone(),
                instead: instead.as_ref().and(done).map(|done| done.id.clone()),
                position: *position,
                scheme: scheme.clone(),
                sets,
                felt: felt.flatten(),
                pain: pain.flatten(),
                note,
            }))
        }
    }
}

fn line(check: &mut Checker, at: &str, note: Option<&str>) -> Option<String> {
    let note = note.map(str::trim).filter(|note| !note.is_empty())?;
    if note.chars().count() > NOTE {
        return check.fail(format!("{at}/note"), format!("the note is longer than {NOTE} characters"));
    }
    Some(note.to_owned())
}

fn sets(check: &mut Checker, at: &str, sets: &[LogSet], work: Option<Work>) -> Vec<LoggedSet> {
    let mut seen = HashSet::new();
    let mut resolved = Vec::new();
    for (i, set) in sets.iter().enumerate() {
        let at = format!("{at}/{i}");
        if !seen.insert((set.number, set.side)) {
            check.fail::<()>(&at, format!("set {} of this side is there twice", set.number));
        }
        check.number(&format!("{at}/number"), "set", f64::from(set.number), SET_NUMBERS, "");
        let load = set.load_kg.map(|kg| {
            let kg = check.number(&format!("{at}/load_kg"), "a load of", kg, LOAD_KG, " kg")?;
            check.take(&format!("{at}/load_kg"), Mass::from_kg(kg))
        });
        if let Some(reserve) = set.reserve {
            check.number(&format!("{at}/reserve"), "repetitions left", f64::from(reserve), RESERVE, "");
        }
        let Some(count) = count(check, &at, set, work) else { continue };
        resolved.push(LoggedSet {
            number: set.number,
            side: set.side,
            load: load.flatten(),
            count,
            reserve: set.reserve,
        });
    }
    resolved
}

/// Repetitions or seconds, whichever the exercise is counted in.
fn count(check: &mut Checker, at: &str, set: &LogSet, work: Option<Work>) -> Option<Count> {
    let counted = match (set.reps, set.seconds) {
        (Some(reps), None) => Count::Reps(reps),
        (None, Some(seconds)) => Count::Seconds(seconds),
        (Some(_), Some(_)) => return check.fail(at, "a set has repetitions or seconds, not both"),
        (None, None) => return check.fail(at, "how much was done is missing: expected reps or seconds"),
    };
    match (counted, work) {
        (Count::Reps(_), Some(Work::Seconds(_))) => {
            return check.fail(format!("{at}/reps"), "this exercise is counted in seconds");
        }
        (Count::Reps(reps), _) => check.number(&format!("{at}/reps"), "repetitions", f64::from(reps), REPS, "")?,
        // A timed scheme counts any exercise in seconds.
        (Count::Seconds(s), _) => check.number(&format!("{at}/seconds"), "a time of", f64::from(s), SECONDS, " s")?,
    };
    Some(counted)
}

fn pain(check: &mut Checker, at: &str, pain: &LogPain) -> Option<ExercisePain> {
    if !check.atlas.areas().contains(&pain.area.as_str()) {
        let says = unknown("area", &pain.area, check.atlas.areas().iter().copied());
        check.fail::<()>(format!("{at}/area"), says);
    }
    check.number(&format!("{at}/level"), "pain", f64::from(pain.level), PAIN, "")?;
    let during = pain.during.as_ref().map(|id| check.exercise(&format!("{at}/during"), id));
    let during = during.flatten().map(|exercise| exercise.id.clone());
    let red_flags = pain.red_flags.clone();
    Some(ExercisePain { area: pain.area.clone(), side: pain.side, level: pain.level, red_flags, during })
}
