//! What the assessment hour adds to a case: who goes first in a test, where the tape lay, readiness, what a measurer is like.

use assess::{Case, Client, FlagKind, Knowledge, MeasurerErrors, Misread, assess, first_side, level_shifts};
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
    let mut file: Value = serde_json::from_str(include_str!("../../../../docs/examples/case.json")).unwrap();
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

/// The example client taped at three sites in rounds two weeks apart: who, and all three girths as parts of a hundred.
fn rounds(taken: &[(&str, f64)]) -> Vec<assess::Round> {
    let mut file: Value = serde_json::from_str(include_str!("../../../../docs/examples/case.json")).unwrap();
    let round = |(index, (by, percent)): (usize, &(&str, f64))| {
        let day = jiff::civil::date(2026, 1, 5) + jiff::Span::new().weeks(2 * i64::try_from(index).unwrap());
        let girth =
            |site: &str, cm: f64| json!({"site": site, "readings_cm": [cm * percent / 100.0, cm * percent / 100.0]});
        json!({"date": day.to_string(), "measured_by": by, "tape": [girth("chest", 100.0), girth("waist", 80.0), girth("hip", 98.0)]})
    };
    file["rounds"] = taken.iter().enumerate().map(round).collect();
    CaseFile::parse(&file.to_string()).unwrap().resolve(&KNOWLEDGE.atlas).unwrap().rounds
}

// Chest, waist and hip 3 % up in the middle of three rounds lie 1, 2 and 1 % off their mean: 6 each over one degree of freedom
// each, of which reading alone explains a little; by default placing is 0.8 % and a hand 1 %.
#[rstest]
#[case::one_round_tells_nothing(&[("A", 100.0)], 0.8..0.8001, 1.0..1.0001)]
#[case::growing_evenly_is_a_steady_hand(&[("A", 100.0), ("A", 101.0), ("A", 102.0), ("A", 103.0)], 0.6..0.79, 1.0..1.0001)]
#[case::up_and_down_is_a_tape_that_wanders(&[("A", 100.0), ("A", 103.0), ("A", 100.0)], 1.3..1.4, 1.0..1.0001)]
#[case::another_hand_pulls_tighter(&[("A", 100.0), ("B", 97.0)], 0.8..0.8001, 1.25..1.35)]
#[case::another_hand_alike(&[("A", 100.0), ("B", 100.0)], 0.8..0.8001, 0.9..0.97)]
fn placing_and_hand_are_learned_from_round_to_round(
    #[case] taken: &[(&str, f64)],
    #[case] placing: std::ops::Range<f64>,
    #[case] hand: std::ops::Range<f64>,
) {
    let errors = MeasurerErrors::learn(&KNOWLEDGE.atlas, &rounds(taken));
    let waist = "waist".parse().unwrap();
    let found = (errors.placing_pct(&KNOWLEDGE.atlas, "A", &waist), errors.hand_learned(&KNOWLEDGE.atlas).0);
    assert!(placing.contains(&found.0) && hand.contains(&found.1), "{found:?}");
}

#[rstest]
#[case::two_rounds_are_no_slope(&[("A", 100.0), ("A", 101.0)], None)]
#[case::one_percent_a_round(&[("A", 100.0), ("A", 101.0), ("A", 102.0), ("A", 103.0)], Some((4, 0.5)))]
#[case::another_hand_does_not_tilt_it(&[("A", 100.0), ("B", 101.0), ("A", 102.0)], Some((3, 0.5)))]
fn a_girth_over_three_rounds_or_more_has_a_slope(
    #[case] taken: &[(&str, f64)],
    #[case] expected: Option<(usize, f64)>,
) {
    let mut case = case(&json!({}), &json!({}), &json!({}));
    case.rounds = rounds(taken);
    let changes = assess(&KNOWLEDGE, &case).changes;
    let chest = changes.iter().find(|change| change.site.as_str() == "chest").unwrap();
    // Of 100 cm, so that a percent is a centimetre, over two weeks.
    let told = chest.slope.map(|slope| (slope.rounds, (slope.a_week_cm * 1e6).round() / 1e6));
    assert_eq!(told, expected);
}

/// The example's tape with some sites' readings changed.
fn retaped(change: impl Fn(&str, f64) -> f64) -> assess::Reference {
    let mut file: Value = serde_json::from_str(include_str!("../../../../docs/examples/case.json")).unwrap();
    for entry in file["rounds"][0]["tape"].as_array_mut().unwrap() {
        let site = entry["site"].as_str().unwrap().to_owned();
        for cm in entry["readings_cm"].as_array_mut().unwrap() {
            *cm = json!(change(&site, cm.as_f64().unwrap()));
        }
    }
    let case = CaseFile::parse(&file.to_string()).unwrap().resolve(&KNOWLEDGE.atlas).unwrap();
    assess(&KNOWLEDGE, &case).reference
}

#[rstest]
#[case::as_it_is(&[], 1.0, None)]
#[case::an_arm_in_inches(&[("arm-flexed", -22.19)], 1.15, Some(("arm-flexed", "inches")))]
#[case::forearm_and_calf_in_each_other_s_line(&[("forearm", 5.1), ("calf", -5.1)], 1.0, Some(("forearm", "calf")))]
#[case::a_waist_that_nothing_explains(&[("waist", 55.0)], 1.0, Some(("waist", "")))]
#[case::a_large_body_all_over(&[], 1.25, None)]
fn the_value_that_the_rest_contradicts_is_named(
    #[case] added: &[(&str, f64)],
    #[case] times: f64,
    #[case] expected: Option<(&str, &str)>,
) {
    let reference = retaped(|site, cm| {
        let more = added.iter().find(|(wrong, _)| *wrong == site).map_or(0.0, |(_, more)| *more);
        (cm + more) * times
    });
    let sites = KNOWLEDGE.norms.sites();
    let told = reference.contradiction.map(|against| {
        let misread = match against.misread {
            Some(Misread::Inches) => "inches",
            Some(Misread::ChangedPlaces(other)) => sites[other].as_str(),
            None => "",
        };
        (sites[against.place].as_str(), misread)
    });
    assert_eq!(told, expected, "{reference:?}");
}
