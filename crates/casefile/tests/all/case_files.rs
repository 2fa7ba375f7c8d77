//! The case file's rules, each broken once, and what a good file becomes.

use assess::{Knowledge, Standing, assess};
use casefile::{CaseFile, assessment_file, case_file, plan_file, schemas};
use proptest::prelude::*;
use rstest::rstest;
use serde_json::{Value, json};
use std::sync::LazyLock;

static KNOWLEDGE: LazyLock<Knowledge> = LazyLock::new(|| Knowledge::load().expect("shipped data"));

const EXAMPLE: &str = include_str!("../../../../docs/examples/case.json");

fn example() -> Value {
    serde_json::from_str(EXAMPLE).unwrap()
}

fn problems(file: &Value) -> Vec<String> {
    match CaseFile::parse(&file.to_string()) {
        Err(problem) => vec![problem.to_string()],
        Ok(case) => {
            let refused = case.resolve(&KNOWLEDGE.atlas).err().unwrap_or_default();
            refused.iter().map(ToString::to_string).collect()
        }
    }
}

/// The example with one value replaced or added.
fn with(pointer: &str, value: Value) -> Value {
    let mut file = example();
    let (parent, key) = pointer.rsplit_once('/').unwrap();
    match file.pointer_mut(parent).unwrap() {
        Value::Object(map) => {
            map.insert(key.to_owned(), value);
        }
        Value::Array(list) => {
            let place: usize = key.parse().unwrap();
            if place < list.len() { list[place] = value } else { list.push(value) }
        }
        other => panic!("{parent} is {other}"),
    }
    file
}

#[test]
fn the_example_is_accepted_and_comes_back_the_same() {
    let file = CaseFile::parse(EXAMPLE).unwrap();
    let case = file.resolve(&KNOWLEDGE.atlas).unwrap();
    let again = case_file(&case).resolve(&KNOWLEDGE.atlas).unwrap();
    assert_eq!(case_file(&again), case_file(&case));
}

#[rstest]
#[case::an_unknown_field("/client/heigth_cm", json!(178), "/client/heigth_cm: unknown field `heigth_cm`")]
#[case::another_version("/version", json!(2), "/version: version 2 is not known: expected 1")]
#[case::another_format("/format", json!("case"), "/format: \"case\" is not a case file: expected \"orthomer-case\"")]
#[case::a_date_that_does_not_exist(
    "/rounds/0/date", json!("2026-02-30"),
    "/rounds/0/date: \"2026-02-30\" is not a date of the calendar: expected YYYY-MM-DD"
)]
#[case::a_round_in_the_future(
    "/rounds/0/date", json!("2026-03-03"), "/rounds/0/date: the round of 2026-03-03 is after as_of, 2026-03-02"
)]
#[case::a_training_week_in_the_future(
    "/training/0/week_of", json!("2026-03-09"), "/training/0/week_of: the week of 2026-03-09 is after as_of, 2026-03-02"
)]
#[case::an_unknown_region(
    "/choices/bring_up/0", json!("delts.rear"), "/choices/bring_up/0: there is no region \"delts.rear\": did you mean"
)]
#[case::an_unknown_exercise(
    "/client/excluded_exercises/0", json!("bb-upright"),
    "/client/excluded_exercises/0: there is no exercise \"bb-upright\": did you mean \"bb-upright-row\"?"
)]
#[case::a_score_off_the_scale(
    "/rounds/0/ratings/0/score", json!(-3), "/rounds/0/ratings/0/score: score -3 is out of range: expected -2 to 2"
)]
#[case::a_pose_that_does_not_show_the_region(
    "/rounds/0/ratings/0/pose", json!("F"), "/rounds/0/ratings/0/pose: pose F does not show delts.posterior"
)]
#[case::no_readings("/rounds/0/tape/0/readings_cm", json!([]), "/rounds/0/tape/0/readings_cm: 0 readings of neck")]
#[case::a_slipped_decimal_point(
    "/rounds/0/tape/3/readings_cm/0", json!(361), "/rounds/0/tape/3/readings_cm/0: 361 cm is outside 15 to 75 cm for \
     arm-flexed; did you mean 36.1 cm?"
)]
#[case::too_many_repetitions(
    "/rounds/0/tests/0/left", json!({"load_kg": 14, "reps": 25}),
    "/rounds/0/tests/0/left/reps: repetitions 25 is out of range: expected 1 to 20"
)]
#[case::a_leaning_verdict_of_the_coach(
    "/choices/overrides/0/verdict", json!("leans-behind"),
    "/choices/overrides/0/verdict: a coach's verdict is one of behind, level, ahead, unclear"
)]
#[case::four_regions_at_once(
    "/choices/bring_up", json!(["neck", "cuff", "grip", "erectors"]),
    "/choices/bring_up: 4 regions and parts to bring up: expected at most 3"
)]
#[case::overruled_without_a_reason(
    "/choices/overrides/0/reason", json!(" "), "/choices/overrides/0/reason: an overruled verdict needs a reason"
)]
#[case::a_school_that_does_not_exist(
    "/client/schools/session_order", json!("priority"),
    "/client/schools/session_order: there is no option \"priority\": did you mean \"priority-first\"?"
)]
#[case::a_word_for_a_number("/client/height_cm", json!("tall"), "/client/height_cm: invalid type: string \"tall\"")]
#[case::a_screen_beyond_what_a_joint_can_do(
    "/client/screens/hip_flexion_deg", json!({"left": 120, "right": 1200}),
    "/client/screens/hip_flexion_deg/right: hip bend of 1200 degrees is out of range: expected 0 to 150 degrees"
)]
#[case::an_impossible_stature(
    "/client/height_cm", json!(17.8), "/client/height_cm: a stature of 17.8 cm is out of range: expected 120 to 230 cm"
)]
fn each_rule_names_the_place_and_what_is_expected(#[case] pointer: &str, #[case] value: Value, #[case] says: &str) {
    let found = problems(&with(pointer, value));
    assert!(found.len() == 1 && found[0].starts_with(says), "{found:?}");
}

// The rest of the round: every list of the file, broken once.
#[rstest]
#[case::an_unknown_fold(
    "/rounds/0/skinfolds/0/site", json!("tricep"),
    "/rounds/0/skinfolds/0/site: there is no skinfold site \"tricep\": did you mean \"triceps\"?"
)]
#[case::a_fold_beyond_the_calipers(
    "/rounds/0/skinfolds/0/readings_mm/0", json!(820), "/rounds/0/skinfolds/0/readings_mm/0: a skinfold of 820 mm"
)]
#[case::a_fold_without_readings(
    "/rounds/0/skinfolds/0/readings_mm", json!([]), "/rounds/0/skinfolds/0/readings_mm: 0 readings of triceps"
)]
#[case::a_fold_twice(
    "/rounds/0/skinfolds/1", json!({"site": "triceps", "side": "right", "readings_mm": [8.0]}),
    "/rounds/0/skinfolds/1: the triceps skinfold stands twice in this round"
)]
#[case::a_rating_that_says_two_things(
    "/rounds/0/ratings/0/left_right", json!(1), "/rounds/0/ratings/0: a rating has either a score or a left_right"
)]
#[case::sides_of_a_region_without(
    "/rounds/0/ratings/0", json!({"region": "neck", "pose": "F", "left_right": 1}),
    "/rounds/0/ratings/0/left_right: neck has no sides"
)]
#[case::a_pose_nobody_holds("/rounds/0/ratings/0/pose", json!("FF"), "/rounds/0/ratings/0/pose: there is no pose \"FF\"")]
#[case::an_outline_twice(
    "/rounds/0/outlines/1", json!({"segment": "upper-arm", "left_width_cm": 11.0, "right_width_cm": 11.0}),
    "/rounds/0/outlines/1: upper-arm stands twice"
)]
#[case::an_outline_of_a_tree(
    "/rounds/0/outlines/0/left_width_cm", json!(116), "/rounds/0/outlines/0/left_width_cm: a width of 116 cm is out of range"
)]
#[case::an_outline_of_no_limb("/rounds/0/outlines/0/segment", json!("tail"), "/rounds/0/outlines/0/segment: unknown variant")]
#[case::a_girth_from_pictures_of_an_elbow(
    "/rounds/0/picture_girths", json!([{"site": "elbow", "cm": 30, "from": "breadth"}]),
    "/rounds/0/picture_girths/0/site: there is no tape site \"elbow\": did you mean \"elbow-breadth\"?"
)]
#[case::a_breadth_from_pictures(
    "/rounds/0/picture_girths", json!([{"site": "elbow-breadth", "cm": 14, "from": "breadth"}]),
    "/rounds/0/picture_girths/0/site: elbow-breadth is no girth: pictures tell of girths alone"
)]
#[case::a_girth_from_pictures_of_neither_side(
    "/rounds/0/picture_girths", json!([{"site": "calf", "cm": 36, "from": "breadth-depth"}]),
    "/rounds/0/picture_girths/0/side: calf has two sides: expected \"left\" or \"right\""
)]
#[case::a_girth_from_pictures_of_a_tree(
    "/rounds/0/picture_girths", json!([{"site": "waist", "cm": 840, "from": "breadth-depth"}]),
    "/rounds/0/picture_girths/0/cm: 840 cm is outside"
)]
#[case::a_girth_from_pictures_twice(
    "/rounds/0/picture_girths",
    json!([{"site": "waist", "cm": 84, "from": "breadth-depth"}, {"site": "waist", "cm": 85, "from": "breadth"}]),
    "/rounds/0/picture_girths/1: waist stands twice in this round"
)]
#[case::a_girth_from_a_guess(
    "/rounds/0/picture_girths", json!([{"site": "waist", "cm": 84, "from": "guess"}]), "/rounds/0/picture_girths/0/from"
)]
#[case::a_hang_of_an_hour("/rounds/0/tests/1/seconds", json!(3600), "/rounds/0/tests/1/seconds: a hang of 3600 s")]
#[case::a_field_no_test_has("/rounds/0/tests/0/grip", json!("firm"), "/rounds/0/tests/0: unknown field `grip`")]
#[case::a_test_nobody_knows("/rounds/0/tests/1/kind", json!("jump"), "/rounds/0/tests/1")]
#[case::felt_in_the_soul("/rounds/0/tests/2/felt", json!("soul"), "/rounds/0/tests/2/felt: there is no region \"soul\"")]
#[case::felt_in_an_exercise_of_dreams(
    "/rounds/0/tests/2/exercise", json!("hip-row"), "/rounds/0/tests/2/exercise: there is no exercise \"hip-row\""
)]
#[case::a_load_of_nothing("/rounds/0/tests/0/left/load_kg", json!(0), "/rounds/0/tests/0/left/load_kg: a load of 0 kg is out of range")]
#[case::an_exercise_tested_twice(
    "/rounds/0/tests/1", json!({"kind": "one-side", "exercise": "db-curl", "left": {"load_kg": 14, "reps": 9},
    "right": {"load_kg": 14, "reps": 9}}), "/rounds/0/tests/1: db-curl is tested twice in this round"
)]
#[case::a_level_where_none_is_noted(
    "/rounds/0/levels_cm", json!({"neck": 3.0}), "/rounds/0/levels_cm/neck: there is no site whose level is noted \"neck\""
)]
#[case::a_level_off_the_leg(
    "/rounds/0/levels_cm", json!({"mid-thigh": 180.0}), "/rounds/0/levels_cm/mid-thigh: a level of 180 cm is out of range"
)]
#[case::a_body_of_lead("/rounds/0/weight_kg", json!(824), "/rounds/0/weight_kg: a weight of 824 kg is out of range")]
#[case::measured_by_nobody("/rounds/0/measured_by", json!("  "), "/rounds/0/measured_by: who held the tape is needed")]
#[case::a_set_too_many("/training/0/sets", json!(400), "/training/0/sets: sets 400 is out of range: expected 1 to 40")]
#[case::a_session_before_the_first("/training/0/session", json!(0), "/training/0/session: session 0 is out of range")]
#[case::a_set_of_no_repetitions("/training/0/reps", json!(0), "/training/0/reps: repetitions 0 is out of range")]
#[case::an_exercise_never_done(
    "/training/0/exercise", json!("benchpress"),
    "/training/0/exercise: there is no exercise \"benchpress\": did you mean \"bench-press\"?"
)]
#[case::held_back_and_brought_up(
    "/choices/hold_back", json!(["delts.posterior"]), "/choices/hold_back/0"
)]
#[case::days_a_week_has_not("/client/days_per_week", json!(8), "/client/days_per_week: days per week 8 is out of range")]
#[case::pain_off_the_scale(
    "/client/pain/0/level", json!(11), "/client/pain/0/level: a pain of 11 is out of range: expected 0 to 10"
)]
#[case::pain_nowhere("/client/pain/0/area", json!("tooth"), "/client/pain/0/area: there is no area \"tooth\"")]
#[case::an_empty_tag("/client/tags", json!([" "]), "/client/tags/0: \"\" is no tag: expected 1 to 30 characters in one line")]
#[case::a_tag_twice("/client/tags", json!(["Online", "online"]), "/client/tags/1: the tag \"online\" stands twice")]
#[case::a_unit_that_is_none("/client/measures", json!({"length": "ell"}), "/client/measures/length: unknown variant `ell`")]
#[case::a_look_of_its_own("/client/look", json!("tapper"), "/client/look: there is no look \"tapper\": did you mean \"taper\"?")]
#[case::a_weight_without_measure(
    "/client/look_weights/delts.posterior", json!(15), "/client/look_weights/delts.posterior: a weight of 15 is out of range"
)]
#[case::equipment_to_come("/client/equipment/0", json!("cabel"), "/client/equipment/0: there is no equipment \"cabel\": did you mean \"cable\"?")]
#[case::more_days_at_home_than_in_the_week(
    "/client/home", json!({"days_per_week": 6, "equipment": []}), "/client/home/days_per_week: days at home 6 is out of range"
)]
#[case::a_question_nobody_asks(
    "/client/readiness", json!({"asked_on": "2026-01-05", "yes": ["hart"]}),
    "/client/readiness/yes/0: there is no readiness question \"hart\": did you mean \"heart\"?"
)]
#[case::cleared_by_nobody(
    "/client/clearance", json!({"given_on": "2026-01-05", "note": " "}), "/client/clearance/note: who gave the clearance"
)]
#[case::a_number_nobody_sets(
    "/practice", json!({"numbers": {"observation_sd.tape": 0.5}}),
    "/practice/numbers/observation_sd.tape: there is no setting \"observation_sd.tape\""
)]
#[case::a_number_with_which_nothing_makes_sense(
    "/practice", json!({"numbers": {"planning.exercise.sets": 7.5}}),
    "/practice/numbers/planning.exercise.sets: sets a week of one exercise of 7.5 is no whole number"
)]
#[case::a_limit_of_the_week_out_of_range(
    "/practice", json!({"numbers": {"planning.axial.beginner": 500.0}}),
    "/practice/numbers/planning.axial.beginner: load along the spine a week, beginner of 500 is out of range: expected 4 to 60"
)]
#[case::a_probability_that_is_none(
    "/practice", json!({"numbers": {"verdict_probability": 0.2}}),
    "/practice/numbers/verdict_probability: behind or ahead is said from of 0.2 is out of range: expected 0.55 to 0.99"
)]
#[case::shares_of_more_than_a_girth(
    "/practice", json!({"composition": {"neck": {"neck": 0.9, "traps.upper": 0.4}}}),
    "/practice/composition/neck: the shares of neck add to 1.30: expected 1"
)]
#[case::born_after_the_round("/client/birth_date", json!("2030-01-01"), "/client/birth_date: 2030-01-01 is not before")]
fn every_list_of_the_file_is_checked_to_its_last_field(
    #[case] pointer: &str,
    #[case] value: Value,
    #[case] says: &str,
) {
    let found = problems(&with(pointer, value));
    assert!(found.iter().any(|problem| problem.starts_with(says)), "{found:?}");
}

#[test]
fn two_rounds_on_one_day_are_one_too_many() {
    let round = example()["rounds"][0].clone();
    let found = problems(&with("/rounds/1", round));
    assert_eq!(found, ["/rounds/1/date: there are two rounds on 2026-03-02"]);
}

#[test]
fn a_minor_is_neither_photographed_nor_tested_to_a_maximum() {
    let mut young = with("/client/birth_date", json!("2010-06-11"));
    young["rounds"][0]["picture_girths"] = json!([{"site": "waist", "cm": 70, "from": "breadth"}]);
    let found = problems(&young);
    let refused =
        |what: &str| found.iter().any(|p| p.starts_with(&format!("/rounds/0/{what}: the client is under 18")));
    assert!(refused("ratings") && refused("tests") && refused("outlines") && refused("picture_girths"), "{found:?}");
}

#[test]
fn every_problem_is_reported_not_only_the_first() {
    let mut file = with("/client/look", json!("tapper"));
    file["rounds"][0]["tape"][0]["site"] = json!("nek");
    assert_eq!(problems(&file).len(), 2);
}

#[rstest]
#[case::cut_off(&EXAMPLE[..200])]
#[case::empty("")]
#[case::not_json("client: Example")]
fn a_broken_file_is_one_problem(#[case] text: &str) {
    assert!(CaseFile::parse(text).is_err());
}

#[test]
fn the_verdict_on_the_example_reads_as_a_coach_would() {
    let case = CaseFile::parse(EXAMPLE).unwrap().resolve(&KNOWLEDGE.atlas).unwrap();
    let assessment = assess(&KNOWLEDGE, &case);
    let standing = |id: &str| assessment.region(&id.parse().unwrap()).unwrap().standing();
    assert_eq!(standing("calves.gastrocnemius"), Standing::Behind, "34.7 cm on a 23 cm ankle");
    assert_eq!(standing("quads.vastus-lateralis"), Standing::Level, "overruled by the coach");
    let arm = assessment.asymmetries.iter().find(|a| a.site.as_str() == "arm-flexed").unwrap();
    assert!(arm.difference_cm < 0.0, "the left arm is the smaller one");
}

#[rstest]
#[case::the_short_example(EXAMPLE)]
#[case::the_full_example(include_str!("../../../../docs/examples/full.json"))]
fn outputs_keep_to_their_committed_schemas(#[case] example: &str) {
    let case = CaseFile::parse(example).unwrap().resolve(&KNOWLEDGE.atlas).unwrap();
    let assessment = assess(&KNOWLEDGE, &case);
    let plan = plan::plan(&KNOWLEDGE, &case, &assessment);
    let outputs = [
        ("orthomer-case", serde_json::from_str(example).unwrap()),
        ("orthomer-assessment", json!(assessment_file(&KNOWLEDGE, &case, &assessment, true))),
        ("orthomer-plan", json!(plan_file(&plan, &[], None, 1.0))),
        ("orthomer-catalogue", json!(casefile::catalogue(&KNOWLEDGE.atlas))),
    ];
    for (name, output) in outputs {
        let path = format!("{}/../../docs/schema/{name}.schema.json", env!("CARGO_MANIFEST_DIR"));
        let schema: Value = serde_json::from_str(&std::fs::read_to_string(path).unwrap()).unwrap();
        let errors: Vec<String> =
            jsonschema::validator_for(&schema).unwrap().iter_errors(&output).map(|e| e.to_string()).collect();
        assert!(errors.is_empty(), "{name}: {errors:?}");
    }
}

#[test]
fn the_full_example_uses_every_part_of_an_assessment() {
    let full = CaseFile::parse(include_str!("../../../../docs/examples/full.json")).unwrap();
    let case = full.resolve(&KNOWLEDGE.atlas).unwrap();
    let file = json!(assessment_file(&KNOWLEDGE, &case, &assess(&KNOWLEDGE, &case), true));
    for part in ["sites", "asymmetries", "skinfolds", "strength", "schools", "changes", "next", "observations"] {
        assert!(!file[part].as_array().unwrap().is_empty(), "{part}");
    }
    assert_eq!(file["composition"]["missing"], json!([]));
    let causes = file["regions"].as_array().unwrap().iter().flat_map(|r| r["causes"].as_array().unwrap());
    assert!(causes.count() >= 3);
}

#[test]
fn the_committed_schemas_are_the_ones_the_types_give() {
    for (name, schema) in schemas() {
        let path = format!("{}/../../docs/schema/{name}.schema.json", env!("CARGO_MANIFEST_DIR"));
        let committed: Value = serde_json::from_str(&std::fs::read_to_string(path).unwrap()).unwrap();
        assert_eq!(committed, json!(schema), "{name}: run `make schema`");
    }
}

/// JSON of any shape, with the format's own field names among the keys.
fn any_json() -> impl Strategy<Value = Value> {
    let leaf = prop_oneof![
        Just(Value::Null),
        any::<bool>().prop_map(Value::from),
        any::<f64>().prop_map(Value::from),
        "[a-z.-]{0,12}".prop_map(Value::from),
    ];
    leaf.prop_recursive(4, 48, 6, |inner| {
        let key =
            prop_oneof![Just("client".to_owned()), Just("rounds".to_owned()), Just("tape".to_owned()), "[a-z_]{1,8}"];
        prop_oneof![
            prop::collection::vec(inner.clone(), 0..6).prop_map(Value::from),
            prop::collection::btree_map(key, inner, 0..6).prop_map(|map| Value::Object(map.into_iter().collect())),
        ]
    })
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(128))]

    #[test]
    fn no_json_in_any_place_of_the_file_makes_it_panic(
        value in any_json(),
        place in prop::sample::select(vec![
            "/client", "/client/pain", "/client/equipment", "/rounds", "/rounds/0/tape", "/rounds/0/tape/0",
            "/rounds/0/tape/0/readings_cm", "/rounds/0/tests", "/rounds/0/ratings/0", "/training", "/choices",
        ]),
    ) {
        let _ = problems(&with(place, value));
    }

    /// Numbers of any size in the places where numbers are expected: refused, or taken and assessed to finite numbers.
    #[test]
    fn no_number_in_the_file_makes_the_assessment_panic_or_lose_its_finiteness(
        number in prop_oneof![any::<f64>(), -1.0_f64..400.0, (0_u32..60).prop_map(f64::from)],
        place in prop::sample::select(vec![
            "/client/height_cm", "/client/look_weights/delts.posterior", "/client/screens/hip_flexion_deg/left",
            "/rounds/0/weight_kg", "/rounds/0/tape/0/readings_cm/0", "/rounds/0/tape/3/readings_cm/1",
            "/rounds/0/skinfolds/0/readings_mm/0", "/rounds/0/outlines/0/left_width_cm", "/rounds/0/tests/0/left/load_kg",
            "/rounds/0/tests/0/left/reps", "/training/0/sets",
        ]),
    ) {
        let mut file = example();
        file["client"]["screens"]["hip_flexion_deg"] = json!({"left": 100, "right": 100});
        *file.pointer_mut(place).unwrap() = json!(number);
        let Ok(parsed) = CaseFile::parse(&file.to_string()) else { return Ok(()) };
        let Ok(case) = parsed.resolve(&KNOWLEDGE.atlas) else { return Ok(()) };
        let assessment = assess(&KNOWLEDGE, &case);
        let finite = |v: &assess::RegionVerdict| v.bulk.mean.is_finite() && v.bulk.sd.is_finite() && v.bulk.need.is_finite();
        prop_assert!(assessment.regions.iter().all(finite));
    }
}

#[test]
fn a_value_that_the_rest_of_the_body_contradicts_is_asked_about() {
    let mut file = example();
    for entry in file["rounds"][0]["tape"].as_array_mut().unwrap() {
        let by = match entry["site"].as_str().unwrap() {
            "forearm" => 5.1,
            "calf" => -5.1,
            _ => 0.0,
        };
        for cm in entry["readings_cm"].as_array_mut().unwrap() {
            *cm = json!(cm.as_f64().unwrap() + by);
        }
    }
    let case = CaseFile::parse(&file.to_string()).unwrap().resolve(&KNOWLEDGE.atlas).unwrap();
    let reference = assess(&KNOWLEDGE, &case).reference;
    let says: Vec<String> = casefile::warnings(&KNOWLEDGE, &case, &reference).iter().map(ToString::to_string).collect();
    let swapped = "2026-03-02 forearm: this and the calf look written in each other's line: the rest of this body expects about \
                   29 cm";
    assert!(says.iter().any(|said| said == swapped), "{says:?}");
}
