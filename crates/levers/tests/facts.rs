//! What good coaches say of the line of pull, from mechanics alone (common practice, no source, unless one is named).

#![allow(clippy::unwrap_used)]

use atlas::{Atlas, Exercise};
use levers::{Levers, Movement, Reach, RegionWork, Wanted, best, levers, with};
use rstest::rstest;
use std::sync::LazyLock;

static ATLAS: LazyLock<Atlas> = LazyLock::new(|| Atlas::load().unwrap());

fn exercise(id: &str) -> &'static Exercise {
    ATLAS.exercises().iter().find(|exercise| exercise.id.as_str() == id).unwrap()
}

/// The line of pull of an exercise with some numbers of its set-up.
fn pull(id: &str, numbers: &[(&str, f64)]) -> Levers {
    let own = Movement::of(id).unwrap();
    let numbers: Vec<_> = numbers.iter().map(|(name, value)| ((*name).to_owned(), *value)).collect();
    levers(exercise(id), &with(own, &numbers).unwrap(), own)
}

fn work<'a>(found: &'a Levers, region: &str) -> &'a RegionWork {
    found.regions.iter().find(|work| work.region == region).unwrap_or_else(|| panic!("{region} of {}", found.exercise))
}

fn share(found: &Levers, region: &str) -> f64 {
    found.regions.iter().find(|work| work.region == region).map_or(0.0, |work| work.share)
}

/// Part of a region's work that is done in the first half of the range.
fn early(found: &Levers, region: &str) -> f64 {
    let activation = &work(found, region).activation;
    activation[..10].iter().sum::<f64>() / activation.iter().sum::<f64>()
}

#[test]
fn a_steeper_bench_moves_the_work_from_lower_to_upper_chest_and_then_to_the_front_delts() {
    let at = |bench: f64| pull("incline-bb-press", &[("bench_deg", bench)]);
    let [down, flat, incline, steep] = [-20.0, 0.0, 35.0, 80.0].map(at);
    let lower = |found: &Levers| share(found, "chest.costal") / share(found, "chest.clavicular");
    assert!(lower(&down) > lower(&flat) && lower(&flat) > lower(&incline), "{} {}", lower(&down), lower(&incline));
    let chest = |found: &Levers| {
        ["chest.clavicular", "chest.sternal", "chest.costal"].map(|head| share(found, head)).iter().sum::<f64>()
    };
    let delts = |found: &Levers| (share(found, "delts.anterior") + share(found, "delts.lateral")) / chest(found);
    assert!(delts(&steep) > 2.0 * delts(&flat) && delts(&flat) > delts(&down), "{} {}", delts(&steep), delts(&flat));
}

#[test]
fn a_cable_curl_behind_the_body_bites_where_the_long_head_is_longest_and_an_incline_curl_hardly_there() {
    let cable = pull("behind-cable-curl-90", &[]);
    let long = work(&cable, "biceps.long");
    assert_eq!(long.bites, "L");
    assert!(long.activation[0] > 0.5 * long.activation.iter().copied().fold(0.0, f64::max), "{:?}", long.activation);
    let incline = pull("incline-curl", &[]);
    let long = work(&incline, "biceps.long");
    assert!(long.length[0] > 1.2 && long.activation[0] < 0.6 * long.activation.iter().copied().fold(0.0, f64::max));
}

#[test]
fn a_preacher_curl_is_all_at_the_bottom() {
    assert_eq!(work(&pull("preacher-curl", &[]), "biceps.long").bites, "L");
    assert!(early(&pull("preacher-curl", &[]), "biceps.long") > early(&pull("db-curl", &[]), "biceps.long") + 0.1);
}

#[test]
fn the_long_head_of_the_triceps_is_half_as_long_again_overhead_and_near_its_best_in_a_pushdown() {
    let overhead = work(&pull("overhead-cable-ext", &[]), "triceps.long").length[0];
    let pushdown = work(&pull("pushdown-tucked", &[]), "triceps.long").length[0];
    assert!((1.4..1.6).contains(&overhead) && (1.0..1.25).contains(&pushdown), "{overhead} {pushdown}");
}

#[test]
fn leaning_back_gives_the_leg_extension_to_the_rectus_femoris() {
    let [back, upright] =
        [30.0, 100.0].map(|hip| share(&pull("leg-extension", &[("hip_deg", hip)]), "quads.rectus-femoris"));
    assert!(back > 1.5 * upright, "{back} {upright}");
}

#[test]
fn a_seated_leg_curl_holds_the_hamstrings_far_longer_than_a_lying_one() {
    let [seated, lying] =
        ["seated-leg-curl", "lying-leg-curl"].map(|id| work(&pull(id, &[]), "hamstrings.long").length[0]);
    assert!((1.5..1.75).contains(&seated) && (1.0..1.25).contains(&lying), "{seated} {lying}");
}

#[test]
fn a_bent_knee_leaves_the_calf_raise_to_the_soleus() {
    let [straight, bent] = ["standing-calf-raise", "seated-calf-raise"].map(|id| pull(id, &[]));
    let of = |found: &Levers| share(found, "calves.gastrocnemius") / share(found, "calves.soleus");
    assert!(
        work(&bent, "calves.gastrocnemius").length[0] < 1.1 && work(&straight, "calves.gastrocnemius").length[0] > 1.3
    );
    assert!(share(&bent, "calves.soleus") > 0.5 && of(&bent) < 0.6, "{}", of(&bent));
}

#[test]
fn a_row_with_the_elbow_out_is_for_the_rear_delt_and_close_to_the_body_for_the_lats() {
    let [out, close] = ["wide-cable-row", "one-arm-hip-row"].map(|id| pull(id, &[]));
    assert!(share(&out, "delts.posterior") > 2.0 * share(&out, "lats.upper"));
    assert!(share(&close, "lats.upper") > share(&close, "delts.posterior"));
}

#[test]
fn a_low_pulley_bites_earlier_in_a_side_raise_than_a_dumbbell() {
    let [cable, bell] = ["cable-side-raise", "db-side-raise"].map(|id| early(&pull(id, &[]), "delts.lateral"));
    assert!(cable > bell + 0.03, "{cable} {bell}");
}

/// Elbow flexors are strongest near 90 degrees of the elbow, knee extensors near 60 to 70 (Kulig, Andrews & Hay 1984, Exerc Sport Sci
/// Rev 12:417-466, from memory): the load a muscle needs its most for is largest there.
#[rstest]
#[case::elbow_flexion("machine-preacher", "elbow", "elbow_flexion_r", ["biceps.long", "brachialis"], 60.0..115.0)]
#[case::knee_extension("leg-extension", "knee", "knee_angle_r", ["quads.vastus-lateralis", "quads.vastus-medialis"], 45.0..90.0)]
fn a_joint_is_strongest_where_it_is_measured_to_be(
    #[case] id: &str,
    #[case] word: &str,
    #[case] joint: &str,
    #[case] regions: [&str; 2],
    #[case] strongest: std::ops::Range<f64>,
) {
    let found = pull(id, &[]);
    // Torque a unit of use: what the joint could hold there.
    let strength = |place: usize| {
        let use_ = regions.map(|region| work(&found, region).activation[place]);
        found.range[place].torque_nm[joint].abs() / use_.iter().copied().fold(0.0, f64::max)
    };
    let best = (0..found.range.len()).max_by(|a, b| strength(*a).total_cmp(&strength(*b))).unwrap();
    let at = found.range[best].angles[word];
    assert!(strongest.contains(&at), "{at}");
}

#[test]
fn every_exercise_has_a_movement_whose_joints_keep_to_their_ranges() {
    let mut faults = Vec::new();
    for exercise in ATLAS.exercises() {
        let Some(movement) = Movement::of(exercise.id.as_str()) else {
            faults.push(format!("{} has no movement", exercise.id.as_str()));
            continue;
        };
        let found = levers(exercise, movement, movement);
        faults.extend(
            found
                .says
                .iter()
                .filter(|says| says.starts_with("At the"))
                .map(|says| format!("{}: {says}", found.exercise)),
        );
        assert_eq!(found.range.len(), 21);
        assert!(
            !found.modelled || found.regions.iter().any(|work| work.share > 0.1),
            "{} works nothing",
            found.exercise
        );
    }
    assert_eq!(faults, Vec::<String>::new());
    assert_eq!(Movement::shipped().count(), ATLAS.exercises().len());
}

#[rstest]
#[case::no_such_number(
    "bb-curl",
    "pulley_height_cm",
    50.0,
    "bb-curl has no pulley_height_cm to set; it has elbow_from_body_deg"
)]
#[case::none_at_all("carry", "bench_deg", 30.0, "carry has no bench_deg to set; it has none")]
#[case::out_of_range("incline-curl", "bench_deg", 130.0, "bench_deg 130 is out of range: -20 to 90 expected")]
fn a_number_that_cannot_be_is_refused_in_a_sentence(
    #[case] id: &str,
    #[case] name: &str,
    #[case] value: f64,
    #[case] says: &str,
) {
    let refused = with(Movement::of(id).unwrap(), &[(name.to_owned(), value)]).unwrap_err();
    assert_eq!(refused.to_string(), says);
}

#[test]
fn a_set_up_past_a_joint_s_range_gives_the_nearest_and_says_so() {
    let found = pull("preacher-curl", &[("elbow_from_body_deg", -60.0)]);
    assert!(found.says.is_empty() || found.says.iter().all(|says| says.ends_with('.')));
    let found = pull("leg-extension", &[("hip_deg", -20.0)]);
    assert_eq!(found.set_up.iter().find(|number| number.name == "hip_deg").map(|number| number.default), Some(false));
}

#[rstest]
#[case::longest("cable-curl", "biceps.long", Wanted::Longest)]
#[case::most("cable-fly", "chest.sternal", Wanted::Most)]
fn the_set_up_found_for_a_region_loads_it_no_less_than_the_usual_one(
    #[case] id: &str,
    #[case] region: &str,
    #[case] wanted: Wanted,
) {
    let own = Movement::of(id).unwrap();
    let (numbers, found) = best(exercise(id), own, region, wanted, Reach::default()).unwrap();
    let of = |found: &Levers| {
        let work = work(found, region);
        if wanted == Wanted::Most { work.share } else { work.long_load }
    };
    assert!(of(&found) > of(&pull(id, &[])) + 0.01, "{numbers:?}");
    assert!(numbers.iter().all(|number| (number.low..=number.high).contains(&number.value)));
}

#[test]
fn a_client_who_cannot_reach_overhead_gets_a_set_up_within_their_reach() {
    let (id, region) = ("overhead-cable-ext", "triceps.long");
    let own = Movement::of(id).unwrap();
    let reach = Reach { shoulder_flexion: Some(120.0), ..Reach::default() };
    let highest = |found: &Levers| found.range.iter().map(|point| point.angles["up"]).fold(0.0, f64::max);
    let (_, anyone) = best(exercise(id), own, region, Wanted::Longest, Reach::default()).unwrap();
    let (_, theirs) = best(exercise(id), own, region, Wanted::Longest, reach).unwrap();
    assert!(highest(&anyone) > 130.0 && highest(&theirs) <= 125.0, "{} {}", highest(&anyone), highest(&theirs));
    assert_eq!(reach.says(&theirs.range), Vec::<String>::new());
    assert!(work(&theirs, region).long_load > 0.2, "it still loads the long head long");
}

#[test]
fn where_no_set_up_is_within_reach_the_nearest_is_given_and_what_is_beyond_is_said() {
    let own = Movement::of("back-squat").unwrap();
    let reach = Reach { ankle_dorsiflexion: Some(5.0), ..Reach::default() };
    let (_, found) = best(exercise("back-squat"), own, "glutes.max", Wanted::Most, reach).unwrap();
    assert!(found.says.iter().any(|says| says.ends_with("this client has 5°.")), "{:?}", found.says);
}
