//! What the assessment hour adds to a case: who goes first in a test, where the tape lay, readiness, what a measurer is like.

#![allow(clippy::unwrap_used, reason = "a test that cannot go on should stop here")]

use assess::{Case, Client, FlagKind, Knowledge, MeasurerErrors, assess, first_side, level_shifts};
use atlas::PracticeSettings;
use casefile::CaseFile;
use rstest::rstest;
use serde_json::{Value, json};
use std::collections::BTreeMap;
use std::sync::LazyLock;
use units::Side;

static KNOWLEDGE: LazyLock<Knowledge> = LazyLock::new(|| Knowledge::load().expect("shipped data"));

/// The example client with two rounds of nothing but what is given.
fn case(client: &Value, before: &Value, now: &Value) -> Case {
    let mut file: Value = serde_json::from_str(include_str!("../../../docs/examples/case.json")).unwrap();
    for (field, value) in client.as_object().unwrap() {
        file["client"][field] = value.clone();
    }
    let round = |date: &str, part: &Value| {
        let mut round = json!({"date": date, "measured_by": "A"});
        for (field, value) in part.as_object().unwrap() {
            round[field] = value.clone();
        }
        round
    };
    file["rounds"] = json!([round("2026-01-05", before), round("2026-03-02", now)]);
    CaseFile::parse(&file.to_string()).unwrap().resolve(&KNOWLEDGE.atlas).unwrap()
}

fn curl(left: u16, right: u16) -> Value {
    let set = |reps: u16| json!({"load_kg": 14, "reps": reps});
    json!({"tests": [{"kind": "one-side", "exercise": "db-curl", "left": set(left), "right": set(right)}]})
}

fn small_left_arm() -> Value {
    let arm = |site: &str, side: &str, cm: f64| json!({"site": site, "side": side, "readings_cm": [cm, cm]});
    let arms = ["arm-flexed", "arm-relaxed"];
    json!({"tape": arms.iter().flat_map(|site| [arm(site, "left", 40.0), arm(site, "right", 36.0)]).collect::<Vec<_>>()})
}

#[rstest]
#[case::the_side_that_was_weaker_last_time("right", curl(16, 2), json!({}), Side::Right)]
#[case::last_time_s_test_before_today_s_tape("right", curl(1, 18), small_left_arm(), Side::Left)]
#[case::the_smaller_side_when_nothing_was_tested("right", json!({}), small_left_arm(), Side::Right)]
#[case::a_difference_within_error_decides_nothing("right", curl(10, 11), json!({}), Side::Left)]
#[case::the_non_dominant_hand("right", json!({}), json!({}), Side::Left)]
#[case::the_non_dominant_hand_of_a_left_handed_client("left", json!({}), json!({}), Side::Right)]
fn the_weaker_side_is_tested_first(
    #[case] hand: &str,
    #[case] before: Value,
    #[case] now: Value,
    #[case] expected: Side,
) {
    let case = case(&json!({"dominant_hand": hand}), &before, &now);
    let assessment = assess(&KNOWLEDGE, &case);
    let exercise = KNOWLEDGE.atlas.exercise(&"db-curl".parse().unwrap()).unwrap();
    let side = first_side(&KNOWLEDGE.atlas, &case.client, &case.rounds[..1], &assessment.regions, exercise);
    assert_eq!(side, expected);
}

#[rstest]
#[case::the_same_place(20.5, Some(20.0), 0)]
#[case::a_centimetre_up(20.5, Some(19.5), 1)]
#[case::never_noted_before(20.5, None, 0)]
fn a_tape_that_lies_elsewhere_is_told(#[case] now: f64, #[case] then: Option<f64>, #[case] shifts: usize) {
    let level = |cm: f64| json!({"levels_cm": {"mid-thigh": cm}});
    let case = case(&json!({}), &then.map_or(json!({}), level), &level(now));
    assert_eq!(level_shifts(&case.rounds).len(), shifts);
}

#[rstest]
#[case::nobody_asked(json!({}), false, false)]
#[case::all_no(json!({"readiness": {"asked_on": "2026-01-05", "yes": []}}), true, false)]
#[case::a_yes(json!({"readiness": {"asked_on": "2026-01-05", "yes": ["heart"]}}), false, true)]
#[case::a_yes_and_cleared(
    json!({"readiness": {"asked_on": "2026-01-05", "yes": ["heart"]}, "clearance": {"given_on": "2026-01-09", "note": "Dr."}}),
    true, false
)]
#[case::cleared_before_the_yes(
    json!({"readiness": {"asked_on": "2026-02-05", "yes": ["heart"]}, "clearance": {"given_on": "2026-01-09", "note": "Dr."}}),
    false, true
)]
fn a_plan_is_given_only_to_a_client_who_is_ready(#[case] client: Value, #[case] ready: bool, #[case] flagged: bool) {
    let case = case(&client, &json!({}), &json!({}));
    assert_eq!(case.client.may_be_given_a_plan().is_ok(), ready);
    let flags = assess(&KNOWLEDGE, &case).flags;
    assert_eq!(flags.iter().any(|flag| flag.kind == FlagKind::Clearance && flag.refer), flagged);
}

fn trains(days_at_home: u8) -> Client {
    let home = json!({"days_per_week": days_at_home, "equipment": ["band"]});
    case(&json!({"equipment": ["cable"], "home": home}), &json!({}), &json!({})).client
}

#[rstest]
#[case::bands_at_home(1, "band", true)]
#[case::no_day_at_home_leaves_the_bands_there(0, "band", false)]
#[case::the_cable_at_the_gym(1, "cable", true)]
#[case::body_weight_everywhere(0, "bodyweight", true)]
fn a_client_has_what_stands_where_they_train(#[case] days: u8, #[case] item: &str, #[case] there: bool) {
    assert_eq!(trains(days).has(&item.parse().unwrap()), there);
}

// By hand: all three pairs of girths together are (10 + 3.125 / 0.5^2) / (10 + 3) times the default's 0.5 %^2; each site then
// (10 x that + d^2/2) / (10 + its pairs). A fold: 10 x 5 %^2.
#[test]
fn what_was_learned_of_a_measurer_is_told_by_site_most_read_first() {
    let round = json!({
        "tape": [
            {"site": "waist", "readings_cm": [79.0, 81.0]},
            {"site": "calf", "side": "left", "readings_cm": [37.0, 37.0]},
            {"site": "calf", "side": "right", "readings_cm": [37.0, 37.0]},
            {"site": "neck", "readings_cm": [38.0]}
        ],
        "skinfolds": [{"site": "calf", "side": "right", "readings_mm": [9.5, 10.5]}]
    });
    let rounds = case(&json!({}), &json!({}), &round).rounds;
    let errors = MeasurerErrors::learn(&KNOWLEDGE.atlas, &rounds);
    assert_eq!(errors.measurers().into_iter().collect::<Vec<_>>(), ["A"]);
    let learned = errors.learned(&KNOWLEDGE.atlas, "A");
    let told: Vec<_> =
        learned.iter().map(|l| (l.site.as_str(), l.fold, l.pairs, (l.tem_pct * 1e4).round() / 1e4)).collect();
    let usual = 2.5 * (10.0 + 12.5) / 13.0;
    let expected = [
        ("calf", false, 2.0, (usual / 12.0_f64).sqrt()),
        ("waist", false, 1.0, ((usual + 2.5_f64.powi(2) / 2.0) / 11.0).sqrt()),
        ("calf", true, 1.0, ((250.0 + 10.0_f64.powi(2) / 2.0) / 11.0).sqrt()),
    ];
    assert_eq!(told, expected.map(|(site, fold, pairs, tem)| (site, fold, pairs, (tem * 1e4).round() / 1e4)));
}

#[test]
fn a_practice_s_own_threshold_changes_what_is_worth_acting_on() {
    let calf = |side: &str, cm: f64| json!({"site": "calf", "side": side, "readings_cm": [cm, cm]});
    let case = case(&json!({}), &json!({}), &json!({"tape": [calf("left", 36.0), calf("right", 37.8)]}));
    let numbers = BTreeMap::from([("act_threshold_pct.girth".to_owned(), 6.0)]);
    let own = KNOWLEDGE.with_practice(&PracticeSettings { numbers, ..PracticeSettings::default() });
    let verdict = |knowledge: &Knowledge| assess(knowledge, &case).asymmetries[0].belief.verdict;
    assert_ne!(verdict(&KNOWLEDGE), verdict(&own));
}
