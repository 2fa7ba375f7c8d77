//! What a coach writes on a card, and how a station is set: bounds and what goes with the exercise.

use crate::check::Checker;
use crate::problem::unknown;
use crate::text::is_one_line;
use atlas::{Exercise, Work};
use plan::{SetWritten, Written};
use std::collections::BTreeMap;
use units::Place;

const REPS: [f64; 2] = [1.0, 100.0];
const SECONDS: [f64; 2] = [1.0, 600.0];
const RESERVE: [f64; 2] = [0.0, 5.0];
const REST_S: [f64; 2] = [0.0, 600.0];
const TEMPO_S: [f64; 2] = [0.0, 20.0];
/// Assistance and load, kg, as the log has them.
const LOAD_KG: [f64; 2] = [-200.0, 600.0];
const LOAD_PCT: [f64; 2] = [20.0, 200.0];
/// Characters of the coach's sentence on a card at most.
const NOTE_CHARS: usize = 300;
/// Parts that follow on one set at most.
const MOST_PARTS: usize = 6;

/// What a coach wrote on a card.
pub(crate) fn written(check: &mut Checker, at: &Place, exercise: &Exercise, written: &Written, sets: u16) {
    work(check, at, exercise, written.reps, written.seconds);
    if let Some(reserve) = written.reserve {
        check.number(&at.at("reserve"), "repetitions in reserve", f64::from(reserve), RESERVE, "");
    }
    if let Some(rest_s) = written.rest_s {
        check.number(&at.at("rest_s"), "a rest of", f64::from(rest_s), REST_S, " s");
    }
    for (place, s) in written.tempo.iter().flatten().enumerate() {
        check.number(&at.at("tempo").at(place), "a part of a repetition of", f64::from(*s), TEMPO_S, " s");
    }
    if let Some(kg) = written.load_kg {
        check.number(&at.at("load_kg"), "a load of", kg, LOAD_KG, " kg");
        if kg < 0.0 && !exercise.assistable() {
            let says = "a load under 0 is help, which is for exercises that move the body's own weight";
            check.fail::<()>(at.at("load_kg"), says);
        }
    }
    if let Some(note) = &written.note {
        let right = (1..=NOTE_CHARS).contains(&note.trim().chars().count()) && is_one_line(note);
        if !right {
            let says = format!("a note on a card has 1 to {NOTE_CHARS} characters in one line");
            check.fail::<()>(at.at("note"), says);
        }
    }
    variant(check, &at.at("variant"), Some(exercise), written.variant.as_deref());
    set_up(check, &at.at("set_up"), &written.set_up);
    if written.per_set.len() > usize::from(sets) {
        let says = format!("{} sets are described and {sets} are planned", written.per_set.len());
        check.fail::<()>(at.at("per_set"), says);
    }
    for (place, set) in written.per_set.iter().enumerate() {
        one_set(check, &at.at("per_set").at(place), exercise, set);
    }
}

fn one_set(check: &mut Checker, at: &Place, exercise: &Exercise, set: &SetWritten) {
    work(check, at, exercise, set.reps, set.seconds);
    if let Some(reserve) = set.reserve {
        check.number(&at.at("reserve"), "repetitions in reserve", f64::from(reserve), RESERVE, "");
    }
    if let Some(pct) = set.load_pct {
        check.number(&at.at("load_pct"), "a share of the load of", f64::from(pct), LOAD_PCT, " %");
    }
    let parts = set.parts.as_deref().unwrap_or_default();
    if parts.len() > MOST_PARTS {
        check.fail::<()>(at.at("parts"), format!("{} parts: {MOST_PARTS} are the most", parts.len()));
    }
    for (place, part) in parts.iter().enumerate() {
        let at = at.at("parts").at(place);
        if let Some(pct) = part.load_pct {
            check.number(&at.at("load_pct"), "a share of the load of", f64::from(pct), LOAD_PCT, " %");
        }
        if let Some(s) = part.seconds {
            check.number(&at.at("seconds"), "a time of", f64::from(s), SECONDS, " s");
        }
        range(check, &at.at("reps"), "repetitions", part.reps, REPS);
    }
}

/// Repetitions or seconds, not both; what is held by the clock stays by the clock.
fn work(check: &mut Checker, at: &Place, exercise: &Exercise, reps: Option<[u16; 2]>, seconds: Option<[u16; 2]>) {
    range(check, &at.at("reps"), "repetitions", reps, REPS);
    range(check, &at.at("seconds"), "seconds", seconds, SECONDS);
    if reps.is_some() && seconds.is_some() {
        check.fail::<()>(at, "a set has repetitions or seconds, not both");
    } else if reps.is_some() && matches!(exercise.work(), Work::Seconds(_)) {
        check.fail::<()>(at.at("reps"), "this exercise is counted in seconds");
    }
}

fn range(check: &mut Checker, at: &Place, what: &str, range: Option<[u16; 2]>, bounds: [f64; 2]) {
    let Some([low, high]) = range else { return };
    for (place, number) in [low, high].into_iter().enumerate() {
        check.number(&at.at(place), what, f64::from(number), bounds, "");
    }
    if low > high {
        check.fail::<()>(at, format!("{low} to {high}: expected the lower number first"));
    }
}

/// A variant of an exercise.
pub(crate) fn variant(check: &mut Checker, at: &Place, exercise: Option<&Exercise>, id: Option<&str>) {
    let (Some(exercise), Some(id)) = (exercise, id) else { return };
    if exercise.variant(id).is_none() {
        let says = unknown("variant", id, exercise.variants.iter().map(|variant| variant.id.as_str()));
        check.fail::<()>(at, says);
    }
}

/// Numbers of a set-up, within their ranges. One that the exercise's kit does not offer is taken: stations differ.
pub(crate) fn set_up(check: &mut Checker, at: &Place, numbers: &BTreeMap<String, f64>) {
    for (name, value) in numbers {
        let at = at.at(name);
        let Some(field) = check.atlas.set_up_field(name) else {
            let names: Vec<&str> = check.atlas.set_up_fields().iter().map(|field| field.name.as_str()).collect();
            let says = unknown("number of a set-up", name, names.into_iter());
            check.fail::<()>(&at, says);
            continue;
        };
        let (says, range, unit) = (field.says.clone(), field.range, format!(" {}", field.unit));
        check.number(&at, &says, *value, range, &unit);
    }
}
