//! Knowledge is data; these tests say what "complete" means for it.

#![allow(clippy::unwrap_used, reason = "a test that cannot go on should stop here")]

use atlas::{Atlas, Exercise, Hardest, SidesUse};
use rstest::{fixture, rstest};
use std::collections::{BTreeMap, BTreeSet, HashSet};
use units::{EquipmentId, RegionId};

#[fixture]
fn shipped() -> Atlas {
    Atlas::load().expect("the shipped atlas is consistent")
}

fn region(id: &str) -> RegionId {
    id.parse().expect("a well-formed id")
}

#[rstest]
fn every_region_but_grip_is_shown_by_some_pose(#[from(shipped)] atlas: Atlas) {
    let unseen: Vec<_> = atlas.regions().iter().filter(|r| r.poses.is_empty()).map(|r| r.id.as_str()).collect();
    assert_eq!(unseen, ["grip"], "grip is endurance, not a shape");
}

#[rstest]
fn every_pose_shows_some_region(#[from(shipped)] atlas: Atlas) {
    let shows = |pose: &atlas::Pose| atlas.regions().iter().any(|region| region.poses.contains(&pose.id));
    assert!(atlas.poses().len() == 13 && atlas.poses().iter().all(shows));
}

#[rstest]
fn looks_are_weightings_each_with_a_sentence_of_reason(#[from(shipped)] atlas: Atlas) {
    assert!(atlas.looks().len() >= 8, "{}", atlas.looks().len());
    assert!(atlas.looks().iter().all(|look| look.reason.ends_with('.')));
    let extreme = atlas.looks().iter().flat_map(|look| look.weights.values()).any(|w| !(0.0..=3.0).contains(w));
    assert!(!extreme, "weights a coach may set lie between 0 and 3");
}

#[rstest]
fn every_region_has_two_exercises_in_a_full_gym_and_one_with_dumbbells_or_bands(#[from(shipped)] atlas: Atlas) {
    let gym = &atlas.kits().iter().find(|kit| kit.id == "full-gym").unwrap().items;
    let home: Vec<EquipmentId> = ["dumbbell", "band"].map(|id| id.parse().unwrap()).into();
    let count = |target: &RegionId, kit: &[EquipmentId]| {
        let possible = |e: &&Exercise| e.equipment.iter().all(|q| q.as_str() == "bodyweight" || kit.contains(q));
        atlas.exercises().iter().filter(|e| e.trains(target) && e.advised_against.is_none()).filter(possible).count()
    };
    for region in atlas.regions() {
        assert!(count(&region.id, gym) >= 2, "{} in a full gym", region.id);
        assert!(count(&region.id, &home) >= 1, "{} with dumbbells or bands", region.id);
    }
}

#[rstest]
fn the_catalogue_holds_what_coaches_use(#[from(shipped)] atlas: Atlas) {
    assert!(atlas.exercises().len() >= 140, "{} exercises", atlas.exercises().len());
}

#[rstest]
fn every_exercise_has_a_substitute_that_trains_the_same_part(#[from(shipped)] atlas: Atlas) {
    for exercise in atlas.exercises() {
        let substitutes = atlas.substitutes(exercise);
        assert!(!substitutes.is_empty() && !substitutes.contains(&exercise.id), "{}", exercise.id);
        let other = atlas.exercise(&substitutes[0]).unwrap();
        assert!(other.targets.keys().any(|r| other.trains(r) && exercise.fraction(r) > 0.0), "{}", exercise.id);
    }
}

// Thirty-six questions on which coaches disagree; what a size is judged against makes one more.
#[rstest]
fn every_school_has_two_answers_or_more_and_every_answer_says_what_it_changes(#[from(shipped)] atlas: Atlas) {
    assert_eq!(atlas.schools().len(), 37);
    for school in atlas.schools() {
        assert!(school.options.len() >= 2 && school.question.ends_with('?') && school.reason.ends_with('.'));
        assert!(school.options.iter().all(|o| o.effect.ends_with('.')), "{}", school.id);
        let cues = school.options.iter().flat_map(|o| &o.cues);
        assert!(cues.into_iter().all(|cue| cue.says.ends_with('.')), "{}", school.id);
    }
}

#[rstest]
fn a_school_adds_its_sentence_to_the_exercises_it_is_about(#[from(shipped)] atlas: Atlas) {
    let forward = atlas.school_option(&BTreeMap::new(), "rear_delt_blades").unwrap();
    let cues = |id: &str| forward.cues_for(atlas.exercise(&id.parse().unwrap()).unwrap()).count();
    assert_eq!((cues("one-arm-reverse-fly"), cues("leg-press")), (1, 0));
}

// Common practice, no source.
#[rstest]
#[case::together("together", "db-curl", false)]
#[case::one_arm("in-turn", "db-curl", true)]
#[case::a_brachialis_curl("in-turn", "hammer-curl", true)]
#[case::no_curl("in-turn", "leg-extension", false)]
fn curls_one_arm_at_a_time_are_a_school(
    #[from(shipped)] atlas: Atlas,
    #[case] answer: &str,
    #[case] exercise: &str,
    #[case] in_turn: bool,
) {
    let chosen = BTreeMap::from([("curls_arms".parse().unwrap(), answer.parse().unwrap())]);
    let option = atlas.school_option(&chosen, "curls_arms").unwrap();
    assert_eq!(option.in_turn(atlas.exercise(&exercise.parse().unwrap()).unwrap()), in_turn);
}

#[rstest]
fn a_family_holds_exercises_that_share_a_main_region(#[from(shipped)] atlas: Atlas) {
    let mut families: BTreeMap<&str, Vec<&Exercise>> = BTreeMap::new();
    for exercise in atlas.exercises().iter().filter(|e| e.advised_against.is_none()) {
        families.entry(&exercise.family).or_default().push(exercise);
    }
    let muscles = |e: &Exercise| -> BTreeSet<String> {
        e.targets.iter().filter(|(_, f)| **f >= 1.0).map(|(r, _)| r.muscle().to_owned()).collect()
    };
    for (family, members) in families {
        let shared = members.iter().map(|e| muscles(e)).reduce(|a, b| &a & &b).unwrap_or_default();
        // A hinge is a hinge whether the back or the hamstrings tire first: two of them in a session are redundant.
        assert!(!shared.is_empty() || family == "hinge", "family {family} has no common main muscle");
    }
}

#[rstest]
fn set_up_cues_and_cautions_are_whole_sentences(#[from(shipped)] atlas: Atlas) {
    for exercise in atlas.exercises() {
        for text in exercise.cues.iter().chain(&exercise.cautions).chain([&exercise.set_up]) {
            let begins_large = text.starts_with(char::is_uppercase);
            assert!(begins_large && text.ends_with('.'), "{}: {text}", exercise.id);
        }
    }
}

// Main target, stretch of at least 2, and hardest at L or E; M bites after the stretch is gone. Common practice, no source.
#[rstest]
#[case::a_curl_behind_the_body_on_a_cable("behind-cable-curl", "biceps.long", true)]
#[case::an_incline_curl_is_hard_after_the_stretch("incline-curl", "biceps.long", false)]
#[case::a_helper_is_not_what_is_stretched("overhead-cable-ext", "triceps.lateral", false)]
#[case::dumbbell_raise_is_hard_when_short("db-side-raise", "delts.lateral", false)]
#[case::hanging_blade_pull_is_long_but_hard_when_short("hanging-blade-pull", "lats.lower", false)]
fn loaded_where_stretched_needs_all_three_conditions(
    #[from(shipped)] atlas: Atlas,
    #[case] id: &str,
    #[case] target: &str,
    #[case] expected: bool,
) {
    let exercise = atlas.exercise(&id.parse().unwrap()).unwrap();
    assert_eq!(exercise.loads_stretched(&region(target)), expected);
}

#[rstest]
fn a_region_named_by_a_look_wins_over_its_muscle(#[from(shipped)] atlas: Atlas) {
    let look = atlas.look(&"sweep".parse().unwrap()).unwrap();
    assert!((look.weight(&region("quads.vastus-lateralis")) - 1.7).abs() < 1e-12);
    assert!((look.weight(&region("quads.rectus-femoris")) - 1.2).abs() < 1e-12);
    assert!((look.weight(&region("neck")) - 1.0).abs() < 1e-12);
}

#[rstest]
fn every_kit_can_train_shoulders_back_and_legs(#[from(shipped)] atlas: Atlas) {
    for kit in atlas.kits() {
        let has: HashSet<&EquipmentId> = kit.items.iter().collect();
        for target in ["delts.lateral", "lats.lower", "quads.vastus-lateralis"] {
            let possible = atlas.exercises().iter().any(|e| {
                e.trains(&region(target)) && e.equipment.iter().all(|q| q.as_str() == "bodyweight" || has.contains(q))
            });
            assert!(possible, "{}: nothing trains {target}", kit.id);
        }
    }
}

// Spot checks, so that a slip in the data file shows. Common practice, no source.
#[rstest]
#[case("face-pull", "delts.posterior", 1.0)]
#[case("face-pull", "cuff", 0.5)]
#[case("deadlift", "quads.vastus-lateralis", 0.25)]
#[case("chin-as-curl", "biceps.long", 0.5)]
fn targets_are_as_coaches_count_them(
    #[from(shipped)] atlas: Atlas,
    #[case] id: &str,
    #[case] target: &str,
    #[case] share: f64,
) {
    let exercise = atlas.exercise(&id.parse().unwrap()).unwrap();
    assert!((exercise.fraction(&region(target)) - share).abs() < 1e-12);
}

#[rstest]
fn weaker_side_work_is_possible_for_every_limb_region(#[from(shipped)] atlas: Atlas) {
    for target in ["biceps.long", "triceps.long", "forearm.flexors", "quads.vastus-lateralis", "calves.gastrocnemius"] {
        let one_sided = atlas.exercises().iter().any(|e| e.trains(&region(target)) && e.sides != SidesUse::Both);
        assert!(one_sided, "{target}");
    }
    let lengthened = atlas.exercises().iter().filter(|e| e.hardest.contains(&Hardest::L)).count();
    assert!(lengthened >= 10);
}

const SHIPPED: [&str; 9] = [
    include_str!("../data/exercises/delts.toml"),
    include_str!("../data/exercises/chest.toml"),
    include_str!("../data/exercises/back.toml"),
    include_str!("../data/exercises/biceps.toml"),
    include_str!("../data/exercises/triceps.toml"),
    include_str!("../data/exercises/forearms.toml"),
    include_str!("../data/exercises/legs-trunk-neck.toml"),
    include_str!("../data/exercises/home.toml"),
    include_str!("../data/exercises/more.toml"),
];

/// A practice's own exercise may leave these out; what ships says each of them.
#[test]
fn what_a_lift_costs_is_said_of_every_exercise() {
    let mut count = 0;
    for file in SHIPPED {
        let read: toml::Table = toml::from_str(file).unwrap();
        for exercise in read["exercise"].as_array().unwrap() {
            for field in ["joints", "axial", "movement", "skill", "comfort", "steps", "usual_scheme"] {
                assert!(exercise.get(field).is_some(), "{}: {field}", exercise["id"]);
            }
            count += 1;
        }
    }
    assert_eq!(count, Atlas::load().unwrap().exercises().len());
}

// Common practice, no source.
#[rstest]
#[case::push_ups_load_the_shoulder("pushup", "shoulder", 2)]
#[case::a_close_grip_bench_too("close-bench", "shoulder", 2)]
#[case::and_prone_raises("prone-y", "shoulder", 2)]
#[case::a_strict_raise("db-side-raise", "shoulder", 2)]
#[case::a_y_raise_less("y-raise", "shoulder", 1)]
#[case::a_row_with_the_elbow_at_the_side_not("one-arm-hip-row", "shoulder", 0)]
#[case::a_lying_extension_is_heavy_for_the_elbow("skull-crusher", "elbow", 3)]
fn joints_carry_what_a_coach_says(
    #[from(shipped)] atlas: Atlas,
    #[case] id: &str,
    #[case] joint: &str,
    #[case] load: u8,
) {
    assert_eq!(atlas.exercise(&id.parse().unwrap()).unwrap().load_on(joint), load);
}

#[rstest]
#[case("deadlift", 3.0)]
#[case("back-squat", 2.0)]
#[case("split-squat", 1.0)]
#[case("leg-press", 0.5)]
#[case("cable-curl", 0.0)]
fn the_spine_carries_what_a_coach_says(#[from(shipped)] atlas: Atlas, #[case] id: &str, #[case] load: f64) {
    assert!((atlas.exercise(&id.parse().unwrap()).unwrap().axial - load).abs() < 1e-12);
}

#[rstest]
fn joints_named_without_a_load_count_as_clearly_loaded(#[from(shipped)] atlas: Atlas) {
    let mut own = atlas.exercise(&"leg-press".parse().unwrap()).unwrap().clone();
    own.joints = BTreeMap::from([("knee".to_owned(), 1)]);
    own.loads_joint = vec!["hip".to_owned()];
    assert_eq!((own.load_on("hip"), own.load_on("knee"), own.load_on("neck")), (2, 1, 0));
    assert_eq!(own.loaded_joints(), ["hip", "knee"]);
}

#[rstest]
fn every_big_part_has_regions_and_every_action_an_exercise(#[from(shipped)] atlas: Atlas) {
    for part in atlas::Part::ALL {
        assert!(atlas.regions().iter().any(|region| region.part == Some(part)), "{}", part.name());
    }
    for region in atlas.regions() {
        for action in &region.actions {
            let covers = |e: &&Exercise| e.trains(&region.id) && e.actions.contains(action);
            assert!(atlas.exercises().iter().any(|e| covers(&e)), "{}: {action}", region.id);
        }
    }
}

// Facts of the trade that earlier words had wrong. Common practice, no source.
#[rstest]
#[case::upright("low-trap-pull", "Stand upright")]
#[case::from_above("rope-radial", "under a high pulley")]
#[case::one_pulley_is_enough("handle-wrist-curl", "one low pulley")]
#[case::the_hand_is_the_step("long-bar-ulnar", "2 cm")]
#[case::set_back("cross-cable-incline-raise", "shoulders set back")]
#[case::for_those_who_pinch("y-raise", "when a strict raise pinches")]
#[case::no_bottom_rest("bent-over-raise", "never meet under the body")]
#[case::low_to_high_too("face-pull", "a low pulley or with a band")]
#[case::a_step_away("cable-bent-arm-raise", "a step away")]
#[case::braced("rear-delt-row", "one foot braced")]
#[case::wrist_below_the_elbow("db-side-raise", "wrist below the elbow")]
#[case::a_heavier_pair_waits("supported-db-side-raise", "heavier pair")]
#[case::the_grip_turns("one-arm-side-pull", "the grip turn")]
#[case::right_angles("wide-pulldown", "right angles")]
#[case::tight("db-pullover", "glutes tight")]
#[case::two_handles("wide-t-row", "two handles")]
#[case::close_and_past("navel-rope-row", "elbows close and past the body")]
#[case::seated_first("split-range-curl", "Sit for the upper half")]
#[case::near_the_elbow("preacher-curl", "near the elbow")]
#[case::hardly_any_length("drag-curl", "hardly changes its length")]
fn a_set_up_or_cue_says(#[from(shipped)] atlas: Atlas, #[case] id: &str, #[case] says: &str) {
    let exercise = atlas.exercise(&id.parse().unwrap()).unwrap();
    let texts = exercise.cues.iter().chain([&exercise.set_up]);
    assert!(texts.into_iter().any(|text| text.contains(says)), "{id}: {says}");
}

// The same of what goes wrong. Common practice, no source.
#[rstest]
#[case::a_high_pulley_is_another_muscle("rope-upright-row", "high pulley", "delts.posterior")]
#[case::tipping("straight-arm-pulldown", "onto the toes", "momentum")]
#[case::shoulders_at_the_bottom("wide-t-row", "drop forward at the bottom", "lats.upper")]
fn a_fault_says_who_takes_over(
    #[from(shipped)] atlas: Atlas,
    #[case] id: &str,
    #[case] says: &str,
    #[case] takes_over: &str,
) {
    let exercise = atlas.exercise(&id.parse().unwrap()).unwrap();
    let told = exercise.faults.iter().any(|fault| fault.fault.contains(says) && fault.takes_over == takes_over);
    assert!(told, "{id}: {says}");
}
