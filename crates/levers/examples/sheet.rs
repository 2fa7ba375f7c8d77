//! Every movement of the catalogue on one page, to be looked at: `cargo run -p levers --example sheet -- FILE.html [part of an id]`.

use atlas::{Atlas, SidesUse};
use levers::{Drawing, Movement, draw};
use std::fmt::Write;

fn main() -> Result<(), Box<dyn std::error::Error>> {
    let file = std::env::args().nth(1).ok_or("a file is needed")?;
    let only = std::env::args().nth(2).unwrap_or_default();
    let atlas = Atlas::load()?;
    let mut page = "<body style='display:grid;grid-template-columns:repeat(8,1fr);gap:6px;margin:6px;font:11px sans-serif;background:#faf7f1'>".to_owned();
    for exercise in atlas.exercises().iter().filter(|exercise| exercise.id.as_str().contains(&only)) {
        let Some(movement) = Movement::of(exercise.id.as_str()) else { continue };
        let main: Vec<&str> = exercise.targets.iter().filter(|(_, f)| **f >= 1.0).map(|(id, _)| id.as_str()).collect();
        let one_sided = exercise.sides == SidesUse::One;
        let svg = draw(movement, &Drawing { shares: &[0.0, 1.0], tinted: &main, one_sided, title: &exercise.name });
        write!(
            page,
            "<div>{}<br>{}</div>",
            svg.replace("<svg ", "<svg style='height:120px;max-width:100%' "),
            exercise.id.as_str()
        )?;
    }
    std::fs::write(file, page)?;
    Ok(())
}
