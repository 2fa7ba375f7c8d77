//! The core against numpy and scipy, for every person of the open body-dimensions data (Heinz et al. 2003).
//!
//! The fixtures are made by `reference/conditional.py`, `reference/joint.py` and `reference/posterior.py` and committed.

use assess::{
    AREA_SITES, GirthFrom, Hand, Knowledge, MeasuredSite, PictureEntry, Posterior, Sex, SexNorms, SideVerdict,
    SizeEvidence, Standing, TapeJoint, Tilt, asymmetry, asymmetry_verdict, bulk_verdict, conditional_size,
    mahalanobis2, outside_limit,
};
use atlas::Atlas;
use nalgebra::DMatrix;
use rstest::rstest;
use serde::Deserialize;
use std::path::PathBuf;
use std::sync::LazyLock;
use units::{Side, Sides};

const TOLERANCE: f64 = 1e-9;

static KNOWLEDGE: LazyLock<Knowledge> = LazyLock::new(|| Knowledge::load().expect("shipped data"));

fn norms(sex: Sex) -> &'static SexNorms {
    &KNOWLEDGE.evidence().body(sex).moments
}

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
    let norms = norms(sex);
    let bodies = rows(&format!("bdims_{name}.csv"));
    let theirs = rows(&format!("conditional_{name}.csv"));
    assert_eq!((bodies.len(), theirs.len(), norms.n), (people, people, people));
    for (person, expected) in bodies.iter().zip(&theirs) {
        let observed = ln(person);
        for (site, numpy) in expected[..3 * person.len()].chunks(3).enumerate() {
            let ours = conditional_size(norms, &observed, site, 0.0).unwrap();
            assert!(close(ours.expected_cm, numpy[0]) && close(ours.sd_ln, numpy[1]) && close(ours.z, numpy[2]));
        }
        let distance = mahalanobis2(norms, &observed).unwrap();
        let outside = distance > outside_limit(people, person.len()).unwrap();
        assert!(close(distance, expected[3 * person.len()]));
        assert_eq!(outside, expected[3 * person.len() + 1] > 0.5);
    }
}

#[rstest]
#[case::men(Sex::Male, "male")]
#[case::women(Sex::Female, "female")]
fn about_one_in_twenty_sites_lies_beyond_two_sd(#[case] sex: Sex, #[case] name: &str) {
    // Of the people the moments are of, without the direction of muscularity, of which they have little.
    let z = z_of_everyone(KNOWLEDGE.norms.of(sex), &rows(&format!("bdims_{name}.csv")));
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
        se_cm: 0.009 * value_cm,
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
        let ours = asymmetry(&atlas, &Sides { left: &left, right: &right }, Hand::Right);
        assert!(close(ours.difference_cm, row.difference_cm) && close(ours.se_cm, row.se_cm));
        assert!(close(ours.symmetry_index, row.symmetry_index) && close(ours.symmetry_angle, row.symmetry_angle));
        assert!(close(ours.belief.p_beyond_threshold, row.p_beyond_threshold));
        assert_eq!(ours.belief.verdict, row.verdict);
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
        let observed = case.h.iter().zip(&case.y).zip(&case.variances);
        let rows = observed.map(|((row, y), variance)| (row.iter().copied().enumerate().collect(), *y, *variance));
        let posterior = Posterior::of_rows(matrix(&case.prior), &rows.collect::<Vec<_>>()).unwrap();
        let means = case.mean.iter().enumerate();
        assert!(means.into_iter().all(|(i, theirs)| close(posterior.of(i).unwrap().0, *theirs)));
        let theirs = matrix(&case.covariance);
        assert!(posterior.covariance().iter().zip(theirs.iter()).all(|(ours, theirs)| close(*ours, *theirs)));
    }
}

/// A person of `reference/joint.py`.
struct Person {
    observed: Vec<usize>,
    /// Amount of muscularity and SD, the parts' means, their SDs, all regions' means.
    numbers: Vec<f64>,
}

fn joint(name: &str) -> (f64, Vec<Person>) {
    let mut reader = csv::ReaderBuilder::new().has_headers(false).flexible(true).from_path(fixture(name)).unwrap();
    let rows: Vec<csv::StringRecord> = reader.records().map(Result::unwrap).collect();
    let person = |row: &csv::StringRecord| Person {
        observed: row[0].char_indices().filter(|(_, seen)| *seen == '1').map(|(place, _)| place).collect(),
        numbers: row.iter().skip(1).map(|number| number.parse().unwrap()).collect(),
    };
    (rows[0][1].parse().unwrap(), rows[2..].iter().map(person).collect())
}

#[rstest]
#[case::men(Sex::Male, "male")]
#[case::women(Sex::Female, "female")]
fn what_the_tape_says_of_every_region_agrees_with_values_missing_too(#[case] sex: Sex, #[case] name: &str) {
    let evidence = KNOWLEDGE.evidence();
    let body = evidence.body(sex);
    let (share, people) = joint(&format!("joint_{name}.csv"));
    let bodies = rows(&format!("bdims_{name}.csv"));
    assert!(close(body.share, share) && people.len() == 100, "{} {share}", body.share);
    let sites = bodies[0].len();
    // As the script has it: 0.3 % at the first site to 1.2 % at the last.
    let error = |place: usize| (0.003 + 0.009 * place as f64 / (sites - 1) as f64).powi(2);
    for (person, cm) in people.iter().zip(&bodies) {
        let tape = TapeJoint {
            places: person.observed.clone(),
            x: person.observed.iter().map(|place| cm[*place].ln()).collect(),
            error_variance: person.observed.iter().map(|place| error(*place)).collect(),
            pictured: Vec::new(),
        };
        let posterior = evidence.weigh_bulk(SizeEvidence { sex, tape: &tape, rows: &[] });
        let (amount, spread) = body.muscularity(&tape).unwrap();
        let parts: Vec<(f64, f64)> = body.areas.iter().map(|area| posterior.along(&area.row)).collect();
        let ours = [amount, spread].into_iter();
        let ours = ours.chain(parts.iter().map(|part| part.0)).chain(parts.iter().map(|part| part.1));
        let regions = person.numbers.len() - 2 - 2 * AREA_SITES.len();
        let ours: Vec<f64> = ours.chain((0..regions).map(|region| posterior.of(region).unwrap().0)).collect();
        for (ours, theirs) in ours.iter().zip(&person.numbers) {
            assert!((ours - theirs).abs() < TOLERANCE, "{ours} {theirs}");
        }
    }
}

#[rstest]
#[case::men(Sex::Male, "male")]
#[case::women(Sex::Female, "female")]
fn girths_from_pictures_beside_the_tape_agree_with_the_error_of_their_scale_shared(
    #[case] sex: Sex,
    #[case] name: &str,
) {
    let evidence = KNOWLEDGE.evidence();
    let body = evidence.body(sex);
    let bodies = rows(&format!("bdims_{name}.csv"));
    let mut reader = csv::Reader::from_path(fixture(&format!("pictured_{name}.csv"))).unwrap();
    let people: Vec<csv::StringRecord> = reader.records().map(Result::unwrap).collect();
    assert_eq!(people.len(), 100);
    let sites = bodies[0].len();
    let seen = |text: &str| -> Vec<usize> {
        text.char_indices().filter(|(_, seen)| *seen == '1').map(|(place, _)| place).collect()
    };
    // As the script has them.
    let error = |place: usize| (0.003 + 0.009 * place as f64 / (sites - 1) as f64).powi(2);
    let entry = PictureEntry { from: GirthFrom::Breadth, constant_variance: 0.0, scale_sd: 0.01 };
    for (person, cm) in people.iter().zip(&bodies) {
        let (taped, shown) = (seen(&person[0]), seen(&person[1]));
        let too_large = shown.iter().map(|place| cm[*place].ln() + 0.02);
        let joint = TapeJoint {
            places: taped.iter().chain(&shown).copied().collect(),
            x: taped.iter().map(|place| cm[*place].ln()).chain(too_large).collect(),
            error_variance: taped
                .iter()
                .map(|place| error(*place))
                .chain(shown.iter().map(|_| 0.0166_f64.powi(2)))
                .collect(),
            pictured: vec![entry; shown.len()],
        };
        let posterior = evidence.weigh_bulk(SizeEvidence { sex, tape: &joint, rows: &[] });
        let parts: Vec<(f64, f64)> = body.areas.iter().map(|area| posterior.along(&area.row)).collect();
        let ours = parts.iter().map(|part| part.0).chain(parts.iter().map(|part| part.1));
        let theirs: Vec<f64> = person.iter().skip(2).map(|number| number.parse().unwrap()).collect();
        assert_eq!(theirs.len(), 2 * parts.len());
        assert!(ours.zip(&theirs).all(|(ours, theirs)| (ours - theirs).abs() < TOLERANCE), "{person:?}");
    }
}

#[derive(Deserialize)]
struct VerdictRow {
    mean: f64,
    sd: f64,
    p_behind: f64,
    p_ahead: f64,
    need: f64,
    p_left_smaller: f64,
    p_right_smaller: f64,
}

// scipy.stats.norm; need by scipy.integrate.quad over the density, not by the closed form.
#[test]
fn probabilities_and_need_are_scipy_s_for_any_posterior() {
    let atlas = Atlas::load().unwrap();
    let mut reader = csv::Reader::from_path(fixture("verdict.csv")).unwrap();
    let rows: Vec<VerdictRow> = reader.deserialize().map(Result::unwrap).collect();
    assert_eq!(rows.len(), 60);
    for row in rows {
        let near = |ours: f64, theirs: f64| (ours - theirs).abs() < 1e-9;
        let size = bulk_verdict(atlas.evidence(), (row.mean, row.sd), 1.0);
        assert!(near(size.p_behind, row.p_behind) && near(size.p_ahead, row.p_ahead) && near(size.need, row.need));
        let sides = asymmetry_verdict(atlas.evidence(), (row.mean, row.sd));
        assert!(near(sides.p_left_smaller, row.p_left_smaller) && near(sides.p_right_smaller, row.p_right_smaller));
    }
}

// Behind or ahead from 0.70, level from 0.50, leaning from 0.50, otherwise unclear. By hand from the normal table.
#[rstest]
#[case::clearly_behind(-1.5, 0.5, Standing::Behind)]
#[case::clearly_ahead(1.5, 0.5, Standing::Ahead)]
#[case::sure_and_in_proportion(0.0, 0.3, Standing::Level)]
#[case::the_prior_alone(0.0, 1.0, Standing::Unclear)]
#[case::leaning(-0.6, 1.0, Standing::LeansBehind)]
#[case::leaning_the_other_way(0.6, 1.0, Standing::LeansAhead)]
#[case::less_than_leaning(-0.4, 1.0, Standing::Unclear)]
fn a_verdict_needs_its_probability(#[case] mean: f64, #[case] sd: f64, #[case] standing: Standing) {
    let atlas = Atlas::load().unwrap();
    assert_eq!(bulk_verdict(atlas.evidence(), (mean, sd), 1.0).standing, standing);
}

#[rstest]
#[case::left_clearly_smaller(-6.0, 1.5, Tilt::LeftSmaller)]
#[case::right_clearly_smaller(6.0, 1.5, Tilt::RightSmaller)]
#[case::alike(0.2, 1.0, Tilt::Equal)]
#[case::the_prior_alone(0.0, 3.0, Tilt::Unclear)]
fn a_tilt_needs_its_probability(#[case] mean: f64, #[case] sd: f64, #[case] tilt: Tilt) {
    let atlas = Atlas::load().unwrap();
    assert_eq!(asymmetry_verdict(atlas.evidence(), (mean, sd)).tilt, tilt);
}

#[test]
fn the_look_s_weight_multiplies_the_need_and_nothing_else() {
    let atlas = Atlas::load().unwrap();
    let [once, twice] = [1.0, 2.0].map(|weight| bulk_verdict(atlas.evidence(), (-1.0, 0.6), weight));
    assert!(close(twice.need, 2.0 * once.need) && close(twice.p_behind, once.p_behind));
}
