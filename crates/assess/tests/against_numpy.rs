//! The core against numpy and scipy, for every person of the open body-dimensions data (Heinz et al. 2003).
//!
//! The fixtures are made by `reference/conditional.py` and `reference/posterior.py` and committed.

#![allow(clippy::unwrap_used, reason = "a test that cannot go on should stop here")]

use assess::{
    Hand, MeasuredSite, Norms, Posterior, Sex, SexNorms, SideVerdict, asymmetry, conditional_size, mahalanobis2,
    outside_limit,
};
use atlas::Atlas;
use nalgebra::DMatrix;
use rstest::rstest;
use serde::Deserialize;
use std::path::PathBuf;
use units::{Side, Sides};

const TOLERANCE: f64 = 1e-9;

fn fixture(name: &str) -> PathBuf {
    PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("../../reference/fixtures").join(name)
}

fn rows(name: &str) -> Vec<Vec<f64>> {
    let mut reader = csv::Reader::from_path(fixture(name)).unwrap();
    reader.deserialize().map(Result::unwrap).collect()
}

fn close(ours: f64, theirs: f64) -> bool {
    (ours - theirs).abs() <= TOLERANCE * theirs.abs().max(1.0)
}

fn ln(person: &[f64]) -> Vec<(usize, f64)> {
    person.iter().enumerate().map(|(site, cm)| (site, cm.ln())).collect()
}

fn z_of_everyone(norms: &SexNorms, people: &[Vec<f64>]) -> Vec<f64> {
    let sizes = people.iter().flat_map(|person| {
        let observed = ln(person);
        (0..person.len()).map(move |site| conditional_size(norms, &observed, site, 0.0).unwrap().z).collect::<Vec<_>>()
    });
    sizes.collect()
}

#[rstest]
#[case::men(Sex::Male, "male", 247)]
#[case::women(Sex::Female, "female", 260)]
fn expected_size_z_and_distance_agree_for_every_person_and_site(
    #[case] sex: Sex,
    #[case] name: &str,
    #[case] people: usize,
) {
    let norms = Norms::load().unwrap();
    let bodies = rows(&format!("bdims_{name}.csv"));
    let theirs = rows(&format!("conditional_{name}.csv"));
    assert_eq!((bodies.len(), theirs.len(), norms.of(sex).n), (people, people, people));
    for (person, expected) in bodies.iter().zip(&theirs) {
        let observed = ln(person);
        for (site, numpy) in expected[..3 * person.len()].chunks(3).enumerate() {
            let ours = conditional_size(norms.of(sex), &observed, site, 0.0).unwrap();
            assert!(close(ours.expected_cm, numpy[0]) && close(ours.sd_ln, numpy[1]) && close(ours.z, numpy[2]));
        }
        let distance = mahalanobis2(norms.of(sex), &observed).unwrap();
        let outside = distance > outside_limit(person.len()).unwrap();
        assert!(close(distance, expected[3 * person.len()]));
        assert_eq!(outside, expected[3 * person.len() + 1] > 0.5);
    }
}

#[rstest]
#[case::men(Sex::Male, "male")]
#[case::women(Sex::Female, "female")]
fn about_one_in_twenty_sites_lies_beyond_two_sd(#[case] sex: Sex, #[case] name: &str) {
    let norms = Norms::load().unwrap();
    let z = z_of_everyone(norms.of(sex), &rows(&format!("bdims_{name}.csv")));
    let beyond = z.iter().filter(|z| z.abs() > 1.96).count() as f64 / z.len() as f64;
    assert!((0.035..0.065).contains(&beyond), "{beyond}");
}

#[derive(Deserialize)]
struct SidesRow {
    left_cm: f64,
    right_cm: f64,
    difference_cm: f64,
    se_cm: f64,
    symmetry_index: f64,
    symmetry_angle: f64,
    p_beyond_threshold: f64,
    verdict: SideVerdict,
}

fn arm(side: Side, value_cm: f64) -> MeasuredSite {
    MeasuredSite {
        site: "arm-flexed".parse().unwrap(),
        side: Some(side),
        value_cm,
        se_cm: 0.01 * value_cm / 2_f64.sqrt(),
        tem_pct: 1.0,
        readings: 2,
        difference_pct: None,
        needs_third: false,
        carried_over: false,
    }
}

#[test]
fn left_right_verdicts_agree_for_every_person() {
    let atlas = Atlas::load().unwrap();
    let mut reader = csv::Reader::from_path(fixture("sides.csv")).unwrap();
    let people: Vec<SidesRow> = reader.deserialize().map(Result::unwrap).collect();
    assert_eq!(people.len(), 507);
    for row in people {
        let (left, right) = (arm(Side::Left, row.left_cm), arm(Side::Right, row.right_cm));
        let ours = asymmetry(atlas.evidence(), &Sides { left: &left, right: &right }, Hand::Both);
        assert!(close(ours.difference_cm, row.difference_cm) && close(ours.se_cm, row.se_cm));
        assert!(close(ours.symmetry_index, row.symmetry_index) && close(ours.symmetry_angle, row.symmetry_angle));
        assert!(close(ours.p_beyond_threshold, row.p_beyond_threshold));
        assert_eq!(ours.verdict, row.verdict);
    }
}

#[derive(Deserialize)]
struct Regression {
    prior: Vec<Vec<f64>>,
    h: Vec<Vec<f64>>,
    y: Vec<f64>,
    variances: Vec<f64>,
    mean: Vec<f64>,
    covariance: Vec<Vec<f64>>,
}

fn matrix(rows: &[Vec<f64>]) -> DMatrix<f64> {
    DMatrix::from_row_iterator(rows.len(), rows[0].len(), rows.iter().flatten().copied())
}

#[test]
fn the_posterior_is_the_one_numpy_finds_by_inverting_precisions() {
    let text = std::fs::read_to_string(fixture("posterior.json")).unwrap();
    let cases: Vec<Regression> = serde_json::from_str(&text).unwrap();
    assert_eq!(cases.len(), 4);
    for case in cases {
        let mut posterior = Posterior::before(matrix(&case.prior));
        for ((row, y), variance) in case.h.iter().zip(&case.y).zip(&case.variances) {
            let row: Vec<(usize, f64)> = row.iter().copied().enumerate().collect();
            posterior.observe(&row, *y, *variance);
        }
        let means = case.mean.iter().enumerate();
        assert!(means.into_iter().all(|(i, theirs)| close(posterior.of(i).unwrap().0, *theirs)));
        let theirs = matrix(&case.covariance);
        assert!(posterior.covariance().iter().zip(theirs.iter()).all(|(ours, theirs)| close(*ours, *theirs)));
    }
}
