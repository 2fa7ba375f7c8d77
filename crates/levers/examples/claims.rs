//! The catalogue beside mechanics: a Markdown table of every claim of the catalogue that the model can answer, and what it says.
//!
//! `make levers` writes it behind the heading of `docs/levers.md`.

use atlas::{Atlas, Exercise};
use levers::{Levers, Movement, RegionWork, levers, muscles_of};

fn main() -> Result<(), Box<dyn std::error::Error>> {
    let atlas = Atlas::load()?;
    let (mut rows, mut claims, mut agreed, mut alone) = (Vec::new(), 0, 0, 0);
    for exercise in atlas.exercises() {
        let Some(movement) = Movement::of(exercise.id.as_str()) else { continue };
        let found = levers(exercise, movement, movement);
        if !found.modelled {
            alone += 1;
            continue;
        }
        let named: Vec<&RegionWork> = found.regions.iter().filter(|work| work.catalogue.is_some()).collect();
        claims += named.len();
        agreed += named.iter().filter(|work| work.agrees == Some(true)).count();
        rows.push(row(exercise, &found, &named));
    }
    println!(
        "{claims} claims of the catalogue can be asked of mechanics; {agreed} agree. Of {alone} exercises nothing is computed: blade, neck, grip.\n"
    );
    println!(
        "| exercise | coaches: fraction, hardest, stretch | mechanics: mean use, where it bites, while long | not named, yet in use |"
    );
    println!("| --- | --- | --- | --- |");
    for row in rows {
        println!("{row}");
    }
    Ok(())
}

fn row(exercise: &Exercise, found: &Levers, named: &[&RegionWork]) -> String {
    let hardest: String = exercise.hardest.iter().map(|hardest| format!("{hardest:?}")).collect::<Vec<_>>().join("-");
    let silent = exercise.targets.keys().filter(|region| muscles_of(region.as_str()).is_empty());
    let silent: Vec<&str> = silent.map(units::RegionId::as_str).collect();
    let coaches =
        named.iter().filter_map(|work| Some(format!("{} {}", work.region, work.catalogue.as_ref()?.fraction)));
    let coaches: Vec<String> = coaches.collect();
    let silent = if silent.is_empty() { String::new() } else { format!(" ({} not modelled)", silent.join(", ")) };
    let says = |work: &&RegionWork| {
        let mark = if work.agrees == Some(true) { "" } else { " *" };
        format!("{} {:.2} {} {:.2}{mark}", work.region, work.share, work.bites, work.long_load)
    };
    let mechanics: Vec<String> = named.iter().map(says).collect();
    let others = found.regions.iter().filter(|work| work.catalogue.is_none() && work.share >= 0.35);
    let others: Vec<String> = others.map(|work| format!("{} {:.2}", work.region, work.share)).collect();
    format!(
        "| {} | {}; {hardest}, {}{silent} | {} | {} |",
        exercise.id.as_str(),
        coaches.join(", "),
        exercise.stretch,
        mechanics.join(", "),
        others.join(", ")
    )
}
