//! What must hold for any body, whatever the numbers.

use assess::{
    Assessment, Case, Choices, Client, Experience, Hand, Knowledge, Round, Screens, Sex, SideVerdict, Standing,
    TapeMeasure, Tilt, assess,
};
use jiff::civil::date;
use proptest::prelude::*;
use rstest::rstest;
use std::collections::{BTreeMap, BTreeSet};
use std::sync::LazyLock;
use units::{Length, Measures, Side};

static KNOWLEDGE: LazyLock<Knowledge> = LazyLock::new(|| Knowledge::load().expect("shipped data"));

/// Middling girths of an active man, cm: the open data's means, rounded.
const LEVEL_MAN: [(&str, f64); 11] = [
    ("shoulder", 116.5),
    ("chest", 100.9),
    ("waist", 84.5),
    ("hip", 97.8),
    ("wrist", 17.2),
    ("ankle", 23.2),
    ("arm-flexed", 34.4),
    ("forearm", 28.2),
    ("thigh", 56.5),
    ("calf", 37.2),
    ("knee", 37.2),
];

fn client(hand: Hand) -> Client {
    Client {
        name: "Test".into(),
        sex: Sex::Male,
        birth_date: date(1994, 6, 11),
        height: Length::from_cm(177.7).unwrap(),
        dominant_hand: hand,
        experience: Experience::Intermediate,
        look: "balanced".parse().unwrap(),
        look_weights: BTreeMap::new(),
        days_per_week: 4,
        minutes_per_session: 70,
        max_exercises_per_session: 7,
        equipment: BTreeSet::new(),
        pain: Vec::new(),
        screens: Screens::default(),
        excluded_exercises: BTreeSet::new(),
        schools: BTreeMap::new(),
        photo_consent: None,
        home: None,
        readiness: None,
        clearance: None,
        measures: Measures::default(),
        tags: Vec::new(),
    }
}

fn measure(site: &str, side: Option<Side>, cm: f64, readings: usize) -> TapeMeasure {
    TapeMeasure { site: site.parse().unwrap(), side, readings: vec![Length::from_cm(cm).unwrap(); readings] }
}

/// A body given by factors on [`LEVEL_MAN`] per site and side.
fn case(factor: impl Fn(&str, Side) -> f64, readings: usize) -> Case {
    let mut tape = Vec::new();
    for (site, cm) in LEVEL_MAN {
        if KNOWLEDGE.atlas.site(&site.parse().unwrap()).unwrap().paired {
            for side in [Side::Left, Side::Right] {
                tape.push(measure(site, Some(side), cm * factor(site, side), readings));
            }
        } else {
            tape.push(measure(site, None, cm * factor(site, Side::Left), readings));
        }
    }
    let round = Round {
        date: date(2026, 3, 2),
        weight: None,
        measured_by: "A".into(),
        tape,
        levels: BTreeMap::new(),
        skinfolds: Vec::new(),
        ratings: Vec::new(),
        outlines: Vec::new(),
        picture_girths: Vec::new(),
        tests: Vec::new(),
    };
    Case {
        as_of: date(2026, 3, 2),
        client: client(Hand::Both),
        rounds: vec![round],
        training: Vec::new(),
        choices: Choices::default(),
        set_ups: BTreeMap::new(),
        hurts: Vec::new(),
        last_review: None,
    }
}

fn assessed(case: &Case) -> Assessment {
    assess(&KNOWLEDGE, case)
}

fn standing(assessment: &Assessment, region: &str) -> Standing {
    assessment.region(&region.parse().unwrap()).unwrap().bulk.standing
}

#[test]
fn a_small_calf_on_a_level_body_is_behind_and_nothing_else_is() {
    let small_calf = case(|site, _| if site == "calf" { 0.90 } else { 1.0 }, 2);
    let assessment = assessed(&small_calf);
    assert_eq!(standing(&assessment, "calves.gastrocnemius"), Standing::Behind);
    let behind: Vec<_> = assessment.regions.iter().filter(|r| r.bulk.standing == Standing::Behind).collect();
    assert!(behind.iter().all(|r| ["calves", "tibialis"].contains(&r.region.muscle())), "{behind:?}");
}

#[test]
fn a_left_arm_behind_is_real_and_leans_every_head_that_feeds_the_girth() {
    let left_arm = case(|site, side| if site == "arm-flexed" && side == Side::Left { 0.95 } else { 1.0 }, 2);
    let assessment = assessed(&left_arm);
    let arm = assessment.asymmetries.iter().find(|a| a.site.as_str() == "arm-flexed").unwrap();
    assert_eq!(arm.belief.verdict, SideVerdict::RealAct);
    let triceps = assessment.region(&"triceps.long".parse().unwrap()).unwrap().asymmetry.unwrap();
    assert!(triceps.mean < -1.0 && triceps.tilt != Tilt::RightSmaller, "{triceps:?}");
}

#[rstest]
#[case::right_handed_right_arm_a_little_larger(Hand::Right, Side::Right, 1.015, true)]
#[case::right_handed_left_arm_larger(Hand::Right, Side::Left, 1.015, false)]
#[case::more_than_dominance_gives(Hand::Right, Side::Right, 1.07, false)]
#[case::left_handed_are_about_equal(Hand::Left, Side::Left, 1.015, false)]
fn dominance_explains_only_its_own_direction_and_size(
    #[case] hand: Hand,
    #[case] larger: Side,
    #[case] factor: f64,
    #[case] explains: bool,
) {
    let mut body = case(|site, side| if site == "arm-flexed" && side == larger { factor } else { 1.0 }, 2);
    body.client.dominant_hand = hand;
    let assessment = assessed(&body);
    let arm = assessment.asymmetries.iter().find(|a| a.site.as_str() == "arm-flexed").unwrap();
    assert_eq!(arm.dominance_explains, explains);
}

#[test]
fn without_anything_of_the_bones_no_size_is_expected_and_what_is_missing_is_said() {
    let mut body = case(|_, _| 1.0, 2);
    body.rounds[0].tape.retain(|m| !["wrist", "ankle", "knee"].contains(&m.site.as_str()));
    let assessment = assessed(&body);
    assert!(assessment.reference.sites.is_empty() && assessment.tape.places.is_empty());
    let first = assessment.next[0].site.as_ref().unwrap();
    assert!(["wrist", "knee", "ankle"].contains(&first.as_str()) || first.as_str().ends_with("breadth"), "{first}");
    assert_eq!(assessment.reference.missing, ["a breadth, or the girth of a wrist, knee or ankle"]);
}

#[test]
fn an_empty_round_is_unclear_everywhere_and_asks_for_tape_first() {
    let mut body = case(|_, _| 1.0, 2);
    body.rounds[0].tape.clear();
    let assessment = assessed(&body);
    assert!(assessment.regions.iter().all(|r| r.bulk.standing == Standing::Unclear));
    assert!(!assessment.next.is_empty());
}

#[test]
fn bone_breadths_carry_over_to_the_next_round_and_girths_do_not() {
    let mut body = case(|_, _| 1.0, 2);
    body.rounds[0].tape.push(measure("biacromial", None, 41.0, 2));
    let mut later = body.rounds[0].clone();
    later.date = date(2026, 5, 2);
    later.tape = vec![measure("calf", Some(Side::Left), 37.0, 2)];
    body.rounds.push(later);
    let sites: Vec<_> = assessed(&body).measured.sites.iter().map(|m| (m.site.to_string(), m.carried_over)).collect();
    assert_eq!(sites, [("calf".to_owned(), false), ("biacromial".to_owned(), true)]);
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(48))]

    #[test]
    fn swapping_the_sides_flips_every_asymmetry_and_nothing_else(factors in prop::collection::vec(0.9_f64..1.1, 22)) {
        let place = |site: &str, side: Side| {
            let at = LEVEL_MAN.iter().position(|(s, _)| *s == site).unwrap();
            if side == Side::Left { at } else { at + 11 }
        };
        let paired = |site: &str| KNOWLEDGE.atlas.site(&site.parse().unwrap()).unwrap().paired;
        let body = assessed(&case(|site, side| factors[place(site, side)], 2));
        let mirrored = assessed(&case(
            |site, side| factors[place(site, if paired(site) { side.other() } else { side })],
            2,
        ));
        for (one, other) in body.regions.iter().zip(&mirrored.regions) {
            prop_assert!((one.bulk.mean - other.bulk.mean).abs() < 1e-9);
            if let (Some(a), Some(b)) = (one.asymmetry, other.asymmetry) {
                prop_assert!((a.mean + b.mean).abs() < 1e-9 && (a.sd - b.sd).abs() < 1e-9);
                prop_assert!((a.p_left_smaller - b.p_right_smaller).abs() < 1e-9);
            }
        }
    }

    // A taller, larger body with the same proportions: regressions on logs do not add up to exactly 1, so a little moves.
    #[test]
    fn scaling_a_whole_body_moves_no_lag_by_more_than_a_third_of_an_sd(
        scale in 0.95_f64..1.05,
        factors in prop::collection::vec(0.95_f64..1.05, 11),
    ) {
        let body = |scale: f64| {
            let place = |site: &str| LEVEL_MAN.iter().position(|(s, _)| *s == site).unwrap();
            let mut body = case(|site, _| scale * factors[place(site)], 2);
            body.client.height = Length::from_cm(177.7 * scale).unwrap();
            assessed(&body)
        };
        for (one, other) in body(1.0).regions.iter().zip(&body(scale).regions) {
            prop_assert!((one.bulk.mean - other.bulk.mean).abs() < 0.34, "{}: {} {}", one.region, one.bulk.mean, other.bulk.mean);
        }
    }

    #[test]
    fn more_readings_never_widen_an_error(readings in 1_usize..3) {
        let se = |n: usize| assessed(&case(|_, _| 1.0, n)).measured.sites[0].se_cm;
        prop_assert!(se(readings + 1) < se(readings));
    }

    #[test]
    fn an_observation_never_raises_a_variance(taken in prop::sample::subsequence((0..LEVEL_MAN.len()).collect::<Vec<_>>(), 4..11)) {
        let mut body = case(|_, _| 1.0, 2);
        let everything = assessed(&body);
        let kept: Vec<&str> = taken.iter().map(|i| LEVEL_MAN[*i].0).collect();
        body.rounds[0].tape.retain(|m| kept.contains(&m.site.as_str()));
        let part = assessed(&body);
        for (all, some) in everything.regions.iter().zip(&part.regions) {
            prop_assert!(all.bulk.sd <= some.bulk.sd + 1e-12);
        }
    }
}
