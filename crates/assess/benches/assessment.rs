//! Time of the assessment: one client with 60 observations, a roster of 500, and the search for the next look.
//!
//! `reference/yardstick.py` weighs the same rows by numpy; `make bench` runs both.

use assess::{Case, Evidence, Knowledge, NextLookSearch, Observation, Target, assess};
use casefile::CaseFile;
use criterion::{BatchSize, Criterion, criterion_group, criterion_main};
use serde_json::{Value, json};
use std::hint::black_box;

const EXAMPLE: &str = include_str!("../../../docs/examples/case.json");
const CLIENTS: usize = 500;
const PAIRS_RATED: usize = 8;

/// The example client with every region rated, until there are at least 60 observations; `scale` changes the body a little.
fn client(knowledge: &Knowledge, scale: f64) -> Case {
    let mut file: Value = serde_json::from_str(EXAMPLE).expect("the example is JSON");
    let shown = || knowledge.atlas.regions().iter().filter(|region| !region.poses.is_empty());
    let score = |i: usize| [-2, -1, 0, 1, 2][i % 5];
    let sizes = shown().enumerate().map(|(i, r)| json!({"region": r.id, "pose": r.poses[0], "score": score(i)}));
    let paired = shown().filter(|region| region.paired).take(PAIRS_RATED);
    let sides = paired.enumerate().map(|(i, r)| json!({"region": r.id, "pose": r.poses[0], "left_right": score(i)}));
    let ratings = sizes.chain(sides);
    file["rounds"][0]["ratings"] = ratings.collect();
    for entry in file["rounds"][0]["tape"].as_array_mut().expect("the example has tape") {
        for cm in entry["readings_cm"].as_array_mut().expect("readings") {
            *cm = json!(cm.as_f64().expect("a number") * scale);
        }
    }
    let parsed = CaseFile::parse(&file.to_string()).expect("a case file");
    parsed.resolve(&knowledge.atlas).expect("a valid case")
}

fn benches(criterion: &mut Criterion) {
    let knowledge = Knowledge::load().expect("shipped data");
    let one = client(&knowledge, 1.0);
    let observations = assess(&knowledge, &one).observations;
    assert!(observations.len() >= 60, "{} observations", observations.len());
    let roster: Vec<Case> = (0..CLIENTS).map(|i| client(&knowledge, 0.95 + 0.0002 * i as f64)).collect();

    criterion.bench_function("one client, 60 observations", |bencher| {
        bencher.iter(|| assess(&knowledge, black_box(&one)));
    });
    let mut group = criterion.benchmark_group("roster");
    group.sample_size(10);
    group.bench_function("500 clients", |bencher| {
        bencher.iter(|| roster.iter().map(|case| assess(&knowledge, case).regions.len()).sum::<usize>());
    });
    group.finish();
    next_look(criterion, &knowledge, &one);
    write_rows(&knowledge, &observations);
    posterior(criterion, &knowledge, &observations);
}

/// The search for the next look after the tape alone, when everything else is still to be looked at.
fn next_look(criterion: &mut Criterion, knowledge: &Knowledge, case: &Case) {
    let mut case = case.clone();
    for round in &mut case.rounds {
        round.ratings.clear();
        round.tests.clear();
    }
    let assessment = assess(knowledge, &case);
    let evidence = Evidence::new(&knowledge.atlas);
    let weigh = |target| evidence.weigh(target, &assessment.observations);
    let (bulk, sides) = (weigh(Target::Bulk), weigh(Target::Asymmetry));
    let weights: Vec<f64> = assessment.regions.iter().map(|region| region.look_weight).collect();
    let search = NextLookSearch {
        knowledge,
        case: &case,
        bulk: &bulk,
        sides: &sides,
        weights: &weights,
        measured: &assessment.measured,
        tested: &[],
    };
    assert_eq!(search.best().len(), 3);
    criterion.bench_function("next look", |bencher| bencher.iter(|| black_box(&search).best()));
}

/// Leaves the rows of the one client where the yardstick finds them: regions with their muscle, and the observations.
fn write_rows(knowledge: &Knowledge, observations: &[Observation]) {
    let rows: Vec<Value> = observations
        .iter()
        .map(|o| json!({"sides": o.target == Target::Asymmetry, "y": o.y, "variance": o.variance, "row": o.row}))
        .collect();
    let regions: Vec<Value> =
        knowledge.atlas.regions().iter().map(|r| json!({"muscle": r.id.muscle(), "paired": r.paired})).collect();
    let target = std::path::Path::new(env!("CARGO_MANIFEST_DIR")).join("../../target/yardstick.json");
    std::fs::write(target, json!({"regions": regions, "observations": rows}).to_string()).expect("target is writable");
}

/// The posterior alone, which is what the numpy yardstick times.
fn posterior(criterion: &mut Criterion, knowledge: &Knowledge, observations: &[Observation]) {
    let evidence = Evidence::new(&knowledge.atlas);
    criterion.bench_function("posterior of both halves", |bencher| {
        bencher.iter_batched(
            || observations.to_vec(),
            |rows| (evidence.weigh(Target::Bulk, &rows), evidence.weigh(Target::Asymmetry, &rows)),
            BatchSize::SmallInput,
        );
    });
}

criterion_group!(all, benches);
criterion_main!(all);
