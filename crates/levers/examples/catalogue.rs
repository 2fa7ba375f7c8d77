//! What mechanics says of each exercise of the catalogue, a line each.

use atlas::Atlas;
use levers::{Movement, levers};
use std::time::Instant;

fn main() -> Result<(), Box<dyn std::error::Error>> {
    let atlas = Atlas::load()?;
    let only = std::env::args().nth(1);
    let start = Instant::now();
    for exercise in atlas.exercises() {
        if only.as_ref().is_some_and(|only| !exercise.id.as_str().contains(only.as_str())) {
            continue;
        }
        let Some(movement) = Movement::of(exercise.id.as_str()) else { continue };
        let found = levers(exercise, movement, movement);
        println!(
            "{} x{:.2} reserve {:.2} {}",
            exercise.id.as_str(),
            found.limit_load_factor,
            found.reserve_share,
            found.says.join(" ")
        );
        for work in &found.regions {
            if work.share < 0.1 && work.catalogue.is_none() {
                continue;
            }
            let says = work
                .catalogue
                .as_ref()
                .map_or_else(|| "-".to_owned(), |c| format!("{} {:?} {}", c.fraction, c.hardest, c.stretch));
            println!(
                "   {:26} {:.2} {} long {:.2} dead {:.2} length {:.2} -> {:.2}   {says} {}",
                work.region,
                work.share,
                work.bites,
                work.long_load,
                work.dead_range,
                work.length[0],
                work.length[20],
                work.agrees.map_or("", |agrees| if agrees { "" } else { "  <- differs" })
            );
        }
    }
    eprintln!("{:.1} ms", start.elapsed().as_secs_f64() * 1000.0);
    Ok(())
}
