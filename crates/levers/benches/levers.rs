//! One exercise, the whole catalogue, the search for a set-up and a drawing.

use atlas::Atlas;
use criterion::{Criterion, criterion_group, criterion_main};
use levers::{Drawing, Movement, Reach, Wanted, best, draw, levers};
use std::hint::black_box;

#[global_allocator]
static ALLOCATOR: mimalloc::MiMalloc = mimalloc::MiMalloc;

fn all(criterion: &mut Criterion) {
    let atlas = Atlas::load().expect("the atlas ships");
    let of = |id: &str| {
        let exercise =
            atlas.exercises().iter().find(|exercise| exercise.id.as_str() == id).expect("it is in the catalogue");
        (exercise, Movement::of(id).expect("it has a movement"))
    };
    let (curl, curls) = of("cable-curl");
    criterion.bench_function("one exercise, cable-curl", |bench| bench.iter(|| levers(black_box(curl), curls, curls)));
    let (squat, squats) = of("back-squat");
    criterion
        .bench_function("one exercise, back-squat", |bench| bench.iter(|| levers(black_box(squat), squats, squats)));
    criterion.bench_function("the catalogue", |bench| {
        bench.iter(|| {
            let movements =
                atlas.exercises().iter().filter_map(|exercise| Some((exercise, Movement::of(exercise.id.as_str())?)));
            movements.map(|(exercise, movement)| levers(exercise, movement, movement).regions.len()).sum::<usize>()
        });
    });
    criterion.bench_function("the set-up for a head, cable-curl", |bench| {
        bench.iter(|| best(black_box(curl), curls, "biceps.long", Wanted::Longest, Reach::default()));
    });
    let drawing = Drawing { shares: &[0.0, 1.0], tinted: &["biceps.long"], one_sided: false, title: "Cable curl" };
    criterion.bench_function("a drawing", |bench| bench.iter(|| draw(black_box(curls), &drawing)));
}

criterion_group!(benches, all);
criterion_main!(benches);
