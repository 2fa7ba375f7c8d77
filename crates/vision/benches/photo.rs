//! Ingest of a 12-megapixel JPEG and the look at its view. Leaves the JPEG under `target/` for the yardstick
//! (`reference/ingest_yardstick.py`), so that both read the same picture in one run.

#![allow(missing_docs, reason = "criterion's macros make undocumented items")]
#![allow(clippy::unwrap_used, reason = "a benchmark that cannot go on should stop here")]

use booth::{Figure, Pose, Room, Sex, Spec};
use criterion::{Criterion, criterion_group, criterion_main};
use std::hint::black_box;
use vision::{Ask, Eye, PhotoPose, ingest};

fn twelve_megapixels() -> Vec<u8> {
    let path = concat!(env!("CARGO_MANIFEST_DIR"), "/../../target/twelve-megapixels.jpg");
    if let Ok(bytes) = std::fs::read(path) {
        return bytes;
    }
    let mut spec = Spec::standing(178.0, Sex::Male, Pose::F);
    (spec.image.width, spec.image.height, spec.room) = (3024, 4032, Room::Busy);
    let bytes = booth::shoot(&Figure::load().unwrap(), &spec).unwrap().jpeg(92).unwrap();
    std::fs::write(path, &bytes).unwrap();
    bytes
}

fn photo(criterion: &mut Criterion) {
    let bytes = twelve_megapixels();
    let mut group = criterion.benchmark_group("photo");
    group.sample_size(20);
    group.bench_function("ingest of 12 megapixels", |b| b.iter(|| ingest(black_box(&bytes)).unwrap()));
    let (view, eye) = (ingest(&bytes).unwrap().view, Eye::load().unwrap());
    let ask = Ask { stature_cm: 178.0, pose: Some(PhotoPose::F), ..Ask::default() };
    group.bench_function("look at a view", |b| b.iter(|| eye.look(black_box(&view), ask).unwrap()));
    group.finish();
}

criterion_group!(benches, photo);
criterion_main!(benches);
