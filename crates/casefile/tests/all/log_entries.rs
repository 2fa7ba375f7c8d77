//! Log entries: what is taken, and what is refused with its place.

use atlas::Atlas;
use casefile::{LogEntry, check_log_entry, parse_json};
use logbook::{Count, Part};
use rstest::{fixture, rstest};
use serde_json::{Value, json};
use units::Place;

#[fixture]
#[once]
fn known() -> Atlas {
    Atlas::load().unwrap()
}

fn entry() -> Value {
    json!({
        "id": "6f2c7b0e-3a0f-4c9e-9a57-0b7d6f1a2b3c", "plan": "p", "week": 2, "day": 3,
        "trained_on": "2026-03-11", "at": "2026-03-11T18:05:00Z",
        "part": {
            "kind": "exercise", "exercise": "db-curl", "position": 1, "scheme": "straight", "felt": "biceps.long",
            "sets": [
                {"number": 1, "side": "left", "load_kg": 12.0, "reps": 9, "reserve": 1},
                {"number": 1, "side": "right", "load_kg": 12.0, "reps": 9, "reserve": 2}
            ],
            "pain": {"area": "elbow", "side": "left", "level": 2}
        }
    })
}

fn with(pointer: &str, value: Value) -> Value {
    let mut changed = entry();
    let (parent, key) = pointer.rsplit_once('/').unwrap();
    match changed.pointer_mut(parent).unwrap() {
        Value::Array(list) => list[key.parse::<usize>().unwrap()] = value,
        object => object[key] = value,
    }
    changed
}

fn problems(known: &Atlas, entry: &Value) -> Vec<(String, String)> {
    let entry: LogEntry = match parse_json(&entry.to_string()) {
        Ok(entry) => entry,
        Err(problem) => return vec![(problem.pointer.to_string(), problem.says)],
    };
    let found = check_log_entry(known, &Place::root(), &entry).err().unwrap_or_default();
    found.into_iter().map(|problem| (problem.pointer.to_string(), problem.says)).collect()
}

#[rstest]
fn an_entry_is_taken_with_both_sides_of_its_set(known: &Atlas) {
    let read: LogEntry = serde_json::from_value(entry()).unwrap();
    let resolved = check_log_entry(known, &Place::root(), &read).unwrap();
    let Part::Exercise(log) = &resolved.part else { panic!("an exercise") };
    assert_eq!((resolved.session.week, log.sets.len(), log.sets[0].count), (2, 2, Count::Reps(9)));
    assert_eq!(serde_json::to_value(&read).unwrap(), entry());
}

#[rstest]
#[case::no_uuid("/id", json!("12"), "/id", "is no UUID")]
#[case::follows_no_uuid("/follows", json!(["x"]), "/follows/0", "is no UUID")]
#[case::no_such_week("/week", json!(0), "/week", "expected 1 to 250")]
#[case::no_such_weekday("/day", json!(8), "/day", "expected 1 to 7")]
#[case::no_such_day("/trained_on", json!("2026-02-31"), "/trained_on", "not a date of the calendar")]
#[case::no_time("/at", json!("yesterday"), "/at", "is no time")]
#[case::a_misspelt_exercise("/part/exercise", json!("db-crul"), "/part/exercise", "did you mean \"db-curl\"")]
#[case::a_misspelt_scheme("/part/scheme", json!("strait"), "/part/scheme", "did you mean \"straight\"")]
#[case::the_same_set_twice("/part/sets/1/side", json!("left"), "/part/sets/1", "is there twice")]
#[case::a_load_of_a_car("/part/sets/0/load_kg", json!(1200), "/part/sets/0/load_kg", "expected -200 to 600 kg")]
#[case::help_where_the_body_is_not_moved("/part/sets/0/load_kg", json!(-20), "/part/sets/0/load_kg", "is help")]
#[case::next_to_nothing("/part/sets/0/load_kg", json!(0.1), "/part/sets/0/load_kg", "is none")]
#[case::a_drop_in_seconds("/part/sets/0/parts", json!([{"kind": "drop", "seconds": 9}]), "/part/sets/0/parts/0", "counted in repetitions")]
#[case::an_unknown_part("/part/sets/0/parts", json!([{"kind": "dorp", "reps": 9}]), "", "unknown variant")]
#[case::no_such_form("/part/form", json!(["sloppy"]), "", "unknown variant")]
#[case::a_notch_beyond_the_stack("/part/set_up", json!({"pulley_notch": 90}), "/part/set_up/pulley_notch", "expected 0 to 40 notch")]
#[case::a_misspelt_number("/part/set_up", json!({"pully_notch": 9}), "/part/set_up/pully_notch", "pulley_notch")]
#[case::a_variant_of_something_else("/part/variant", json!("rope"), "/part/variant", "variant")]
#[case::too_many_repetitions("/part/sets/0/reps", json!(999), "/part/sets/0/reps", "expected 1 to 200")]
#[case::both_ways_of_counting("/part/sets/0/seconds", json!(30), "/part/sets/0", "not both")]
#[case::neither("/part/sets/0/reps", Value::Null, "/part/sets/0", "expected reps or seconds")]
#[case::felt_in_no_region("/part/felt", json!("biceps.lng"), "/part/felt", "biceps.long")]
#[case::pain_nowhere("/part/pain/area", json!("ear"), "/part/pain/area", "there is no area")]
#[case::pain_beyond_ten("/part/pain/level", json!(11), "/part/pain/level", "expected 0 to 10")]
#[case::a_novel("/part/note", json!("x".repeat(501)), "/part/note", "longer than 500")]
#[case::an_unknown_field("/colour", json!("red"), "/colour", "unknown field")]
#[case::an_unknown_field_of_a_part("/part/tempo", json!("slow"), "", "unknown field `tempo`")]
#[case::an_unknown_field_of_a_set("/part/sets/0/rir", json!(2), "", "unknown field `rir`")]
#[case::an_unknown_red_flag("/part/pain/red_flags", json!(["itch"]), "", "unknown variant")]
fn what_breaks_a_rule_is_refused_with_its_place(
    known: &Atlas,
    #[case] at: &str,
    #[case] value: Value,
    #[case] place: &str,
    #[case] says: &str,
) {
    let found = problems(known, &with(at, value));
    let named = found.iter().any(|(pointer, text)| pointer.starts_with(place) && text.contains(says));
    assert!(named, "{found:?}");
}

#[rstest]
#[case::told("/part", json!({"kind": "session", "finished": true, "sleep": 4, "soreness": 2}), true)]
#[case::made_lighter("/part", json!({"kind": "session", "finished": true, "sleep": 1, "lighter": true}), true)]
#[case::beyond_the_scale("/part", json!({"kind": "session", "finished": true, "sleep": 6}), false)]
#[case::seconds_for_a_hang(
    "/part",
    json!({"kind": "exercise", "exercise": "dead-hang", "position": 1, "scheme": "straight", "sets": [{"number": 1, "seconds": 40}]}),
    true
)]
#[case::repetitions_of_a_hang(
    "/part",
    json!({"kind": "exercise", "exercise": "dead-hang", "position": 1, "scheme": "straight", "sets": [{"number": 1, "reps": 4}]}),
    false
)]
fn parts_have_their_own_rules(known: &Atlas, #[case] at: &str, #[case] value: Value, #[case] taken: bool) {
    assert_eq!(problems(known, &with(at, value)).is_empty(), taken);
}
