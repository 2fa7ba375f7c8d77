//! Time of the planner: the example client, four days of 70 minutes in a full gym.

use assess::{Knowledge, assess};
use casefile::CaseFile;
use criterion::{Criterion, criterion_group, criterion_main};
use plan::plan;
use std::hint::black_box;

const EXAMPLE: &str = include_str!("../../../docs/examples/case.json");

fn week(criterion: &mut Criterion) {
    let knowledge = Knowledge::load().expect("shipped data");
    let file = CaseFile::parse(EXAMPLE).expect("the example parses");
    let case = file.resolve(&knowledge.atlas).expect("the example is valid");
    let assessment = assess(&knowledge, &case);
    let mut group = criterion.benchmark_group("plan");
    group.sample_size(20);
    group.bench_function("week of the example client", |bencher| {
        bencher.iter(|| plan(&knowledge, black_box(&case), black_box(&assessment)));
    });
    group.finish();
}

criterion_group!(benches, week);
criterion_main!(benches);
