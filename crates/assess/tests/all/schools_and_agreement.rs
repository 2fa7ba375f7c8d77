//! Other schools of size, repeated measurement and rating, against numpy, pandas, statsmodels and scikit-learn.
//!
//! The fixtures are made by `reference/schools.py` and `reference/agreement.py` and committed.

use assess::{Norms, Roster, Sex, frame_ratio_z, mdc95, technical_error, weighted_kappa, within_rater_sd};
use atlas::FrameRatio;
use rstest::rstest;
use serde::Deserialize;
use serde::de::DeserializeOwned;
use std::collections::BTreeMap;
use std::path::PathBuf;

fn fixture(name: &str) -> PathBuf {
    PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("../../reference/fixtures").join(name)
}

fn json<T: DeserializeOwned>(name: &str) -> T {
    serde_json::from_str(&std::fs::read_to_string(fixture(name)).unwrap()).unwrap()
}

/// The men of the open data, cm, in the order of the norms' sites.
fn men() -> Vec<Vec<f64>> {
    let mut reader = csv::Reader::from_path(fixture("bdims_male.csv")).unwrap();
    reader.deserialize().map(Result::unwrap).collect()
}

fn close(ours: f64, theirs: f64) -> bool {
    (ours - theirs).abs() <= 1e-9 * theirs.abs().max(1.0)
}

#[derive(Deserialize)]
struct Schools {
    observed: Vec<String>,
    roster: usize,
    people: Vec<Person>,
    frame_ratios: Vec<RatioOfAll>,
}

#[derive(Deserialize)]
struct Person {
    row: usize,
    sites: BTreeMap<String, Expected>,
}

#[derive(Deserialize)]
struct Expected {
    expected_cm: f64,
    z: f64,
}

#[derive(Deserialize)]
struct RatioOfAll {
    site: String,
    of: String,
    factor: f64,
    z: Vec<f64>,
}

fn place(norms: &Norms, site: &str) -> usize {
    norms.sites().iter().position(|s| s.as_str() == site).unwrap()
}

fn body(norms: &Norms, person: &[f64], sites: &[String]) -> Vec<(usize, f64)> {
    sites.iter().map(|site| place(norms, site)).map(|at| (at, person[at].ln())).collect()
}

#[test]
fn a_roster_of_forty_expects_what_numpy_expects_from_them() {
    let (norms, schools, men) = (Norms::load().unwrap(), json::<Schools>("schools.json"), men());
    let mut roster = Roster::default();
    for man in &men[..schools.roster] {
        roster.add(Sex::Male, body(&norms, man, &schools.observed));
    }
    assert_eq!(schools.people.len(), 10);
    for person in &schools.people {
        let observed = body(&norms, &men[person.row], &schools.observed);
        for (site, expected) in &person.sites {
            let size = roster.size(Sex::Male, &observed, place(&norms, site), 0.0).unwrap();
            assert!(close(size.expected_cm, expected.expected_cm) && close(size.z, expected.z), "{site}");
        }
        let waist = place(&norms, "waist");
        assert_eq!(roster.size(Sex::Female, &observed, waist, 0.0), None, "no women in this roster");
    }
}

#[test]
fn a_roster_under_thirty_says_nothing() {
    let (norms, schools, men) = (Norms::load().unwrap(), json::<Schools>("schools.json"), men());
    let mut roster = Roster::default();
    for man in &men[..Roster::ENOUGH - 1] {
        roster.add(Sex::Male, body(&norms, man, &schools.observed));
    }
    let observed = body(&norms, &men[40], &schools.observed);
    assert_eq!(roster.size(Sex::Male, &observed, place(&norms, "calf"), 0.0), None);
}

#[test]
fn frame_ratios_lie_as_far_from_their_ideal_as_numpy_says_for_every_man() {
    let (norms, schools, men) = (Norms::load().unwrap(), json::<Schools>("schools.json"), men());
    for of_all in schools.frame_ratios {
        let ratio =
            FrameRatio { site: of_all.site.parse().unwrap(), of: of_all.of.parse().unwrap(), factor: of_all.factor };
        let (site, of) = (place(&norms, &of_all.site), place(&norms, &of_all.of));
        assert_eq!(of_all.z.len(), men.len());
        for (man, theirs) in men.iter().zip(&of_all.z) {
            let ours = frame_ratio_z(&norms, Sex::Male, &ratio, (man[site], man[of]), 0.0).unwrap();
            assert!(close(ours, *theirs));
        }
    }
}

#[derive(Deserialize)]
struct Agreement {
    girths: Vec<Girths>,
    ratings: Vec<Ratings>,
}

#[derive(Deserialize)]
struct Girths {
    pairs: Vec<[f64; 2]>,
    tem: f64,
    tem_pct: f64,
    reliability: f64,
    anova_within_sd: f64,
}

#[derive(Deserialize)]
struct Ratings {
    pairs: Vec<[i8; 2]>,
    kappa: f64,
    within_rater_sd: f64,
}

// Perini et al. 2005 by pandas; the within-person SD of an analysis of variance (statsmodels) is the same number.
#[test]
fn technical_error_is_the_published_one_and_the_within_person_sd() {
    for girths in json::<Agreement>("agreement.json").girths {
        let ours = technical_error(&girths.pairs).unwrap();
        assert!(close(ours.tem, girths.tem) && close(ours.tem_pct, girths.tem_pct));
        assert!(close(ours.reliability.unwrap(), girths.reliability));
        assert!((ours.tem - girths.anova_within_sd).abs() < 1e-9);
    }
}

// Cohen 1968 by scikit-learn's cohen_kappa_score, weights="quadratic".
#[test]
fn agreement_of_a_rater_with_themselves_is_scikit_learn_s() {
    for ratings in json::<Agreement>("agreement.json").ratings {
        assert!(close(weighted_kappa(&ratings.pairs).unwrap(), ratings.kappa));
        assert!(close(within_rater_sd(&ratings.pairs).unwrap(), ratings.within_rater_sd));
    }
}

#[rstest]
#[case::nothing_rated(&[])]
#[case::always_the_same_word(&[[1, 1], [1, 1]])]
#[case::off_the_scale(&[[3, 1]])]
fn where_nothing_can_disagree_there_is_no_kappa(#[case] pairs: &[[i8; 2]]) {
    assert_eq!(weighted_kappa(pairs), None);
}

#[test]
fn people_all_alike_have_no_reliability() {
    assert_eq!(technical_error(&[[30.0, 30.2], [30.2, 30.0]]).unwrap().reliability, None);
    assert_eq!(technical_error(&[]), None);
}

// By hand: arm 38.0 cm, two readings at 0.5 % and a place found anew to 0.8 % each time: se .332 cm, 1.96 x .470.
#[test]
fn a_real_change_of_one_arm_is_about_nine_millimetres() {
    let se = 38.0 * (0.005 / 2_f64.sqrt()).hypot(0.008);
    assert!((mdc95(se.hypot(se), 1) - 0.9208).abs() < 5e-4);
}
