//! How far an eye is off is found again from girths, without lean: raters are made up whose error is known.

use assess::{Case, Knowledge, SizeEvidence, assess, beside_girths};
use casefile::CaseFile;
use nalgebra::{DMatrix, DVector};
use rand::rngs::StdRng;
use rand::{RngExt, SeedableRng};
use rstest::{fixture, rstest};
use statrs::distribution::{ContinuousCDF, Normal};
use units::RegionId;

struct Body {
    knowledge: Knowledge,
    case: Case,
    /// What the tape leaves open of the regions: mean, and a root of the covariance.
    mean: DVector<f64>,
    root: DMatrix<f64>,
}

#[fixture]
fn body() -> Body {
    let knowledge = Knowledge::load().unwrap();
    let file = CaseFile::parse(include_str!("../../../../docs/examples/case.json")).unwrap();
    let case = file.resolve(&knowledge.atlas).unwrap();
    let tape = assess(&knowledge, &case).tape;
    let by_tape = knowledge.evidence().weigh_bulk(SizeEvidence { sex: case.client.sex, tape: &tape, rows: &[] });
    let regions = knowledge.atlas.regions().len();
    let mean = DVector::from_fn(regions, |region, _| by_tape.of(region).unwrap().0);
    let root = (by_tape.covariance() + DMatrix::identity(regions, regions) * 1e-9).cholesky().unwrap().l();
    Body { knowledge, case, mean, root }
}

#[rstest]
#[case::a_usual_eye(0.9)]
#[case::an_eye_that_is_off(1.6)]
fn the_error_of_an_eye_is_found_again(body: Body, #[case] error_sd: f64) {
    let (knowledge, settings) = (&body.knowledge, body.knowledge.atlas.evidence());
    let mut dice = StdRng::seed_from_u64(22);
    let mut normal = || Normal::standard().inverse_cdf(dice.random_range(1e-12..1.0));
    let mut learned = assess::BesideGirths::default();
    for _ in 0..4000 {
        let truth = &body.mean + &body.root * DVector::from_fn(body.mean.len(), |_, _| normal());
        let sitting = settings.observation_sd.rating_sitting * normal();
        let rated = |(region, truth): (&atlas::Region, &f64)| -> (RegionId, f64) {
            (region.id.clone(), (truth + sitting + error_sd * normal()) / settings.scale.rating_bulk)
        };
        let standings: Vec<(RegionId, f64)> = knowledge.atlas.regions().iter().zip(truth.iter()).map(rated).collect();
        learned = learned.and(beside_girths(knowledge, &body.case, &standings));
    }
    assert_eq!(learned.girths, 4000 * 7);
    let found = learned.variance.sqrt();
    assert!((found - error_sd).abs() < 0.05, "{found:.3}");
}

#[rstest]
#[case::half_of_a_calf(&["calves.gastrocnemius"], 1)]
#[case::a_small_head_of_it(&["calves.soleus"], 0)]
#[case::a_region_of_no_girth(&["abs.rectus"], 0)]
#[case::nothing(&[], 0)]
fn a_part_counts_when_most_of_it_was_rated(body: Body, #[case] rated: &[&str], #[case] girths: usize) {
    let standings: Vec<(RegionId, f64)> = rated.iter().map(|id| (id.parse().unwrap(), -1.0)).collect();
    assert_eq!(beside_girths(&body.knowledge, &body.case, &standings).girths, girths);
}
