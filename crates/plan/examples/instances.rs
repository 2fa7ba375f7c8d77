//! Twenty generated clients: what the planner finds in about 0.3 s, and the best of longer searches.
//!
//! `cargo run --release -p plan --example instances -- DIR` writes each model as `DIR/NN.lp` and the table as
//! `DIR/weeks.csv`; `reference/plan_table.py DIR` sets `HiGHS` beside it.

use assess::{Knowledge, assess};
use casefile::CaseFile;
use plan::{Effort, PlanProblem, lp, present, solve};
use serde_json::{Value, json};
use std::error::Error;
use std::fmt::Write;
use std::path::PathBuf;
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
    let directory = PathBuf::from(std::env::args().nth(1).ok_or("a directory for the models is needed")?);
    std::fs::create_dir_all(&directory)?;
    let knowledge = Knowledge::load()?;
    let mut table = "number,days,minutes,kit,ms,found,best_known\n".to_owned();
    for number in 0..20 {
        let file = client(&knowledge, number)?;
        let parsed = CaseFile::parse(&file.to_string()).map_err(|problem| problem.to_string())?;
        let case = parsed.resolve(&knowledge.atlas).map_err(|problems| format!("{problems:?}"))?;
        let problem = PlanProblem::new(&knowledge, &case, &assess(&knowledge, &case));
        std::fs::write(directory.join(format!("{number:02}.lp")), lp(&problem))?;
        let objective = |effort: Effort| present(&problem, &solve(&problem, effort)).objective;
        let start = Instant::now();
        let found = objective(Effort::default());
        let ms = start.elapsed().as_secs_f64() * 1000.0;
        let long = |seed| objective(Effort { moves: 5 * Effort::default().moves, seed });
        let best = LONG_SEEDS.map(long).into_iter().fold(found, f64::min);
        let start = Instant::now();
        let week = solve(&problem, Effort::default());
        let mut at = Vec::new();
        let proof = plan::prove(&problem, &week, |p| {
            let t = start.elapsed().as_secs_f64();
            if t > [0.5, 1.0, 3.0, 10.0][at.len()] {
                at.push((p.bound, p.nodes, t));
            }
            t < 10.0
        });
        println!("   {:?} at {:?}", proof, at);
        let (days, minutes) = (case.client.days_per_week, case.client.minutes_per_session);
        let kit = KITS[number % KITS.len()];
        writeln!(table, "{number},{days},{minutes},{kit},{ms:.0},{found:.6},{best:.6}")?;
        println!(
            "{number:2} {days} x {minutes} {kit:15} {ms:4.0} ms {found:9.3} best {best:9.3} +{:.2} %",
            100.0 * (found / best - 1.0)
        );
    }
    std::fs::write(directory.join("weeks.csv"), table)?;
    Ok(())
}
