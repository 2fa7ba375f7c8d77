//! Twenty generated clients: what the planner finds in about 0.3 s, and the best of longer searches.
//!
//! `cargo run --release -p plan --example instances -- DIR` writes each model as `DIR/NN.lp` and the table as
//! `DIR/weeks.csv`; `reference/plan_table.py DIR` sets `HiGHS` beside it.

use assess::{Knowledge, assess};
use casefile::CaseFile;
use plan::{Effort, PlanProblem, present, solve};
use serde_json::{Value, json};
use std::error::Error;
use std::time::Instant;

const EXAMPLE: &str = include_str!("../../../docs/examples/case.json");
const KITS: [&str; 4] = ["full-gym", "small-studio", "home-dumbbells", "home-bands"];
const MINUTES: [u16; 5] = [40, 55, 65, 75, 90];
const BRING_UP: [&[&str]; 5] = [
    &["delts.lateral", "calves.gastrocnemius"],
    &["delts.posterior", "biceps.long", "lats.lower"],
    &["chest.clavicular"],
    &["quads.vastus-lateralis", "glutes.max"],
    &["triceps.long", "forearm.extensors", "traps.middle"],
];
/// Searches of ten times the length whose best is the best known.
const LONG_SEEDS: [u64; 2] = [11, 12];

/// A client by number: days, minutes, kit and choices turn at different speeds, so that no two are alike.
fn client(knowledge: &Knowledge, number: usize) -> Result<Value, Box<dyn Error>> {
    let mut file: Value = serde_json::from_str(EXAMPLE)?;
    let id = KITS[number % KITS.len()];
    let kit = knowledge.atlas.kits().iter().find(|kit| kit.id == id).ok_or("no such kit")?;
    file["client"]["equipment"] = json!(kit.items);
    file["client"]["days_per_week"] = json!(2 + number % 5);
    file["client"]["minutes_per_session"] = json!(MINUTES[(number + number / 5) % MINUTES.len()]);
    file["client"]["pain"] = json!([]);
    file["choices"]["bring_up"] = json!(BRING_UP[(number / 4) % BRING_UP.len()]);
    Ok(file)
}

fn main() -> Result<(), Box<dyn Error>> {
    let knowledge = Knowledge::load()?;
    let mut best: Vec<f64> = std::fs::read_to_string("/tmp/best.txt")
        .ok()
        .map_or(vec![f64::INFINITY; 20], |t| t.lines().map(|l| l.parse().unwrap()).collect());
    let moves: u32 = std::env::args().nth(1).ok_or("moves")?.parse()?;
    let seeds: u64 = std::env::args().nth(2).ok_or("seeds")?.parse()?;
    let mut costs = Vec::new();
    let start = Instant::now();
    for number in 0..20 {
        let file = client(&knowledge, number)?;
        let case = CaseFile::parse(&file.to_string())
            .map_err(|p| p.to_string())?
            .resolve(&knowledge.atlas)
            .map_err(|p| format!("{p:?}"))?;
        let problem = PlanProblem::new(&knowledge, &case, &assess(&knowledge, &case));
        let c: Vec<f64> = (1..=seeds)
            .map(|seed| {
                let e = Effort { moves, seed };
                let _ = present;
                plan::present(&problem, &solve(&problem, e)).objective
            })
            .collect();
        for x in &c {
            if *x < best[number] {
                best[number] = *x
            }
        }
        costs.push(c);
    }
    let t = start.elapsed().as_secs_f64() / 20.0 / seeds as f64;
    let gaps: Vec<Vec<f64>> =
        costs.iter().zip(&best).map(|(c, b)| c.iter().map(|x| 100.0 * (x / b - 1.0)).collect()).collect();
    let all: Vec<f64> = gaps.iter().flatten().copied().collect();
    let first: f64 = gaps.iter().map(|g| g[0]).sum::<f64>() / 20.0;
    println!(
        "mean {:.2} first {:.2} worst {:.2} over2 {} ms {:.0}",
        all.iter().sum::<f64>() / all.len() as f64,
        first,
        all.iter().copied().fold(0.0, f64::max),
        all.iter().filter(|g| **g > 2.0).count(),
        t * 1000.0
    );
    for (n, g) in gaps.iter().enumerate() {
        print!("{n}:{:.1} ", g.iter().sum::<f64>() / g.len() as f64)
    }
    println!();
    std::fs::write("/tmp/best.txt", best.iter().map(|b| format!("{b}\n")).collect::<String>())?;
    Ok(())
}
