//! What the demo's coach takes beside the tape: skinfolds, where the tape lay, tests, and what was trained before.

use crate::demo::RoundIds;
use crate::failure::Failure;
use assess::{Knowledge, Skinfolds};
use casefile::{TestEntry, UsualWeek, check_tests};
use jiff::ToSpan;
use serde_json::{Value, from_value, json};
use std::collections::BTreeMap;
use store::Store;
use units::{Length, Place, Side, SiteId, Skinfold};

const L: Side = Side::Left;
const R: Side = Side::Right;

/// Client, skinfold, side, mm in the newest round.
const FOLDS: [(&str, &str, Side, f64); 13] = [
    ("Oda Fenwick", "triceps", L, 15.2),
    ("Oda Fenwick", "triceps", R, 15.0),
    ("Oda Fenwick", "suprailiac", R, 11.8),
    ("Oda Fenwick", "thigh", L, 21.4),
    ("Oda Fenwick", "thigh", R, 21.8),
    ("Oda Fenwick", "calf", L, 13.0),
    ("Oda Fenwick", "calf", R, 12.8),
    ("Bram Quillan", "chest", R, 8.2),
    ("Bram Quillan", "abdominal", R, 17.6),
    ("Bram Quillan", "triceps", L, 8.8),
    ("Bram Quillan", "triceps", R, 8.4),
    ("Bram Quillan", "thigh", L, 12.2),
    ("Bram Quillan", "thigh", R, 12.4),
];

/// Site and where the tape lay, as a share of the stature above or below its bony point.
const LEVELS: [(&str, f64); 3] = [("arm-relaxed", 0.082), ("mid-thigh", 0.118), ("calf", 0.142)];

/// The folds of a client's round; a little thicker the longer ago. Two readings a fifth of a millimetre apart.
pub fn folds(client: &str, weeks_ago: i64) -> Result<Vec<Skinfolds>, Failure> {
    let own = FOLDS.iter().filter(|(name, ..)| *name == client);
    own.map(|(_, site, side, mm)| {
        let fifths = (mm * (1.0 + 0.004 * weeks_ago as f64) * 5.0).round();
        let readings =
            [fifths / 5.0, (fifths + 1.0) / 5.0].map(Skinfold::from_mm).into_iter().collect::<Result<_, _>>();
        let site = site.parse().map_err(Failure::other)?;
        Ok(Skinfolds { site, side: Some(*side), readings: readings.map_err(Failure::other)? })
    })
    .collect()
}

/// Where the tape lay, for those whose folds are taken: the coach who takes folds notes levels too.
pub fn levels(client: &str, height: Length) -> Result<BTreeMap<SiteId, Length>, Failure> {
    if !FOLDS.iter().any(|(name, ..)| *name == client) {
        return Ok(BTreeMap::new());
    }
    let level = |(site, share): &(&str, f64)| {
        let cm = (height.cm() * share * 2.0).round() / 2.0;
        Ok((site.parse().map_err(Failure::other)?, Length::from_cm(cm).map_err(Failure::other)?))
    };
    LEVELS.iter().map(level).collect()
}

fn one_side(exercise: &str, left: (f64, u16), right: (f64, u16)) -> Value {
    let set = |(load_kg, reps): (f64, u16)| json!({"load_kg": load_kg, "reps": reps});
    json!({"kind": "one-side", "exercise": exercise, "left": set(left), "right": set(right)})
}

/// Client, weeks ago, tests.
fn tests() -> [(&'static str, i64, Value); 3] {
    let hang = |seconds: f64| json!({"kind": "hang", "seconds": seconds});
    let feel = |exercise: &str, region: &str, felt: &str| json!({"kind": "feel", "exercise": exercise, "region": region, "felt": felt});
    [
        ("Bram Quillan", 9, json!([one_side("db-curl", (14.0, 8), (14.0, 10)), hang(71.0)])),
        (
            "Bram Quillan",
            1,
            json!([
                one_side("db-curl", (14.0, 9), (14.0, 12)),
                one_side("kickback-cable", (7.5, 11), (7.5, 12)),
                hang(84.0),
                feel("db-curl", "biceps.long", "biceps.long"),
                feel("one-arm-hip-row", "lats.lower", "biceps.short"),
            ]),
        ),
        (
            "Oda Fenwick",
            0,
            json!([hang(62.0), feel("standing-calf-raise", "calves.gastrocnemius", "calves.gastrocnemius")]),
        ),
    ]
}

/// Client, how many weeks before the newest round the week was last trained, session, exercise, sets, one side at a time.
const WEEK: [(&str, u8, &str, u16, bool); 13] = [
    ("Bram Quillan", 1, "bench-press", 4, false),
    ("Bram Quillan", 1, "wide-pulldown", 4, false),
    ("Bram Quillan", 1, "bb-curl", 3, false),
    ("Bram Quillan", 2, "back-squat", 4, false),
    ("Bram Quillan", 2, "seated-leg-curl", 3, false),
    ("Bram Quillan", 3, "incline-db-press-45", 3, false),
    ("Bram Quillan", 3, "wide-cable-row", 4, false),
    ("Bram Quillan", 3, "pushdown-tucked", 3, false),
    ("Oda Fenwick", 1, "back-squat", 4, false),
    ("Oda Fenwick", 1, "leg-press", 3, false),
    ("Oda Fenwick", 1, "standing-calf-raise", 3, false),
    ("Oda Fenwick", 2, "wide-pulldown", 4, false),
    ("Oda Fenwick", 2, "hip-thrust", 4, false),
];

/// Saves tests and usual weeks.
pub fn keep(store: &Store, knowledge: &Knowledge, rounds: &RoundIds, coach: &str) -> Result<(), Failure> {
    for (client, weeks_ago, entries) in tests() {
        let Some((round_id, _)) = rounds.get(&(client, weeks_ago)) else { continue };
        let entries: Vec<TestEntry> = from_value(entries).map_err(Failure::other)?;
        let (tests, problems) = check_tests(&knowledge.atlas, &Place::root(), &entries);
        if !problems.is_empty() {
            return Err(Failure::Input(problems));
        }
        let tests: Vec<_> = tests.into_iter().map(|(_, test)| test).collect();
        store.save_tests(round_id, 0, coach, &tests).map_err(Failure::other)?;
    }
    for client in ["Bram Quillan", "Oda Fenwick"] {
        let newest = rounds.iter().filter(|((name, _), _)| *name == client).max_by_key(|(_, (_, day))| *day);
        let Some((_, (round_id, day))) = newest else { continue };
        let exercises = WEEK.iter().filter(|(name, ..)| *name == client).map(|(_, session, exercise, sets, one_sided)| {
            json!({"session": session, "exercise": exercise, "sets": sets, "one_sided": one_sided})
        });
        let until = day.checked_sub(7.days()).map_err(Failure::other)?;
        let week = json!({"until": until, "weeks": 6, "exercises": exercises.collect::<Vec<_>>()});
        let week: UsualWeek = from_value(week).map_err(Failure::other)?;
        let client_id = store.round(round_id).map_err(Failure::other)?.client_id;
        store.save_usual_week(&client_id, 0, Some(&week)).map_err(Failure::other)?;
    }
    Ok(())
}
