//! Time of the assessment: one client with 60 observations, a roster of 500, and the search for the next look.
//!
//! `reference/yardstick.py` weighs the same rows by numpy; `make bench` runs both.

use assess::{Assessment, Case, Knowledge, NextLookSearch, SizeEvidence, TapeJoint, assess, assess_each};
use casefile::{CaseFile, assessment_file};
use criterion::{Criterion, criterion_group, criterion_main};
use serde_json::{Value, json};
use std::hint::black_box;

// As in the program.
#[global_allocator]
static ALLOCATOR: mimalloc::MiMalloc = mimalloc::MiMalloc;

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
    let assessment = assess(&knowledge, &one);
    let count = assessment.observations.len() + assessment.tape.places.len();
    assert!(count >= 60, "{count} observations");
    let roster: Vec<Case> = (0..CLIENTS).map(|i| client(&knowledge, 0.95 + 0.0002 * i as f64)).collect();

    criterion.bench_function("one client, 60 observations", |bencher| {
        bencher.iter(|| assess(&knowledge, black_box(&one)));
    });
    let mut group = criterion.benchmark_group("roster");
    group.sample_size(10);
    group.bench_function("500 clients", |bencher| {
        let cases: Vec<&Case> = roster.iter().collect();
        bencher.iter(|| assess_each(&knowledge, &cases, |_, assessment| assessment.regions.len()));
    });
    group.finish();
    next_look(criterion, &knowledge, &one);
    write_rows(&knowledge, &one, &assessment);
    posterior(criterion, &knowledge, &one, &assessment);
}

/// The search for the next look after the tape alone, when everything else is still to be looked at.
fn next_look(criterion: &mut Criterion, knowledge: &Knowledge, case: &Case) {
    let mut case = case.clone();
    for round in &mut case.rounds {
        round.ratings.clear();
        round.tests.clear();
    }
    let assessment = assess(knowledge, &case);
    let (sized, hand) = (size_evidence(&case, &assessment), case.client.dominant_hand);
    let bulk = knowledge.evidence().weigh_bulk(sized);
    let sides = knowledge.evidence().weigh_sides(hand, &assessment.observations);
    let weights: Vec<f64> = assessment.regions.iter().map(|region| region.look_weight).collect();
    let search = NextLookSearch {
        knowledge,
        case: &case,
        sized,
        bulk: &bulk,
        sides: &sides,
        weights: &weights,
        measured: &assessment.measured,
        waiting: &TapeJoint::default(),
        tested: &[],
    };
    assert_eq!(search.looks().best.len(), 3);
    criterion.bench_function("next look", |bencher| bencher.iter(|| black_box(&search).looks()));
}

fn size_evidence<'a>(case: &Case, assessment: &'a Assessment) -> SizeEvidence<'a> {
    SizeEvidence { sex: case.client.sex, tape: &assessment.tape, rows: &assessment.observations }
}

/// Leaves the explained assessment of the one client where the yardstick finds it.
fn write_rows(knowledge: &Knowledge, case: &Case, assessment: &Assessment) {
    let explained = assessment_file(knowledge, case, assessment, true);
    let target = std::path::Path::new(env!("CARGO_MANIFEST_DIR")).join("../../target/yardstick.json");
    std::fs::write(target, serde_json::to_string(&explained).expect("plain data")).expect("target is writable");
}

/// The posterior alone, which is what the numpy yardstick times.
fn posterior(criterion: &mut Criterion, knowledge: &Knowledge, case: &Case, assessment: &Assessment) {
    let (evidence, hand) = (knowledge.evidence(), case.client.dominant_hand);
    criterion.bench_function("posterior of both halves", |bencher| {
        bencher.iter(|| {
            let sized = size_evidence(case, black_box(assessment));
            (evidence.weigh_bulk(sized), evidence.weigh_sides(hand, &assessment.observations))
        });
    });
}

criterion_group!(all, benches);
criterion_main!(all);
