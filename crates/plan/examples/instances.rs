//! Twenty generated clients: what the planner finds in about 0.3 s, and the best of longer searches.
//!
//! `cargo run --release -p plan --example instances -- DIR [exercises|days]` (doubled, when asked for) writes each model as `DIR/NN.lp` and the table as
//! `DIR/weeks.csv`; `reference/plan_table.py DIR` sets `HiGHS` beside it.

use assess::{Case, Knowledge, assess};
use casefile::CaseFile;
use plan::{Effort, PlanProblem, WeekShape, lp, present, prove, solve};
use serde_json::{Value, json};
use std::error::Error;
use std::fmt::Write;
use std::path::PathBuf;
use std::time::{Duration, Instant};

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
/// Searches of six times the length whose best is the best known.
const LONG_SEEDS: [u64; 2] = [11, 12];
/// Time for the bound.
const PROOF: Duration = Duration::from_secs(5);

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

/// How much larger than usual the weeks are.
#[derive(Clone, Copy, PartialEq)]
enum Doubled {
    Nothing,
    /// Every exercise once more, in a family of its own.
    Exercises,
    /// Twice the days, as far as a week has them.
    Days,
}

impl Doubled {
    fn of(name: Option<&str>) -> Result<Self, Box<dyn Error>> {
        match name {
            None => Ok(Self::Nothing),
            Some("exercises") => Ok(Self::Exercises),
            Some("days") => Ok(Self::Days),
            Some(other) => Err(format!("{other} cannot be doubled: exercises or days can").into()),
        }
    }

    fn grow(self, knowledge: &Knowledge, case: &Case) -> PlanProblem {
        let client = &case.client;
        let days = if self == Self::Days { (2 * client.days_per_week).min(7) } else { client.days_per_week };
        let shape = WeekShape::with(client, days, client.minutes_per_session);
        let mut problem = PlanProblem::shaped(knowledge, case, &assess(knowledge, case), shape);
        if self == Self::Exercises {
            let again = problem.candidates.clone().into_iter().map(|mut candidate| {
                candidate.exercise.family.push_str("-again");
                candidate
            });
            problem.candidates.extend(again);
        }
        problem
    }
}

fn main() -> Result<(), Box<dyn Error>> {
    let directory = PathBuf::from(std::env::args().nth(1).ok_or("a directory for the models is needed")?);
    std::fs::create_dir_all(&directory)?;
    let doubled = Doubled::of(std::env::args().nth(2).as_deref())?;
    let knowledge = Knowledge::load()?;
    let mut table = "number,days,minutes,kit,ms,found,best_known,gap_pct\n".to_owned();
    for number in 0..20 {
        let file = client(&knowledge, number)?;
        let parsed = CaseFile::parse(&file.to_string()).map_err(|problem| problem.to_string())?;
        let case = parsed.resolve(&knowledge.atlas).map_err(|problems| format!("{problems:?}"))?;
        let problem = doubled.grow(&knowledge, &case);
        std::fs::write(directory.join(format!("{number:02}.lp")), lp(&problem))?;
        let objective = |effort: Effort| present(&problem, &solve(&problem, effort)).objective;
        let start = Instant::now();
        let found = objective(Effort::usual(&problem));
        let ms = start.elapsed().as_secs_f64() * 1000.0;
        let long = |seed| objective(Effort { moves: 6 * Effort::usual(&problem).moves, seed });
        let best = LONG_SEEDS.map(long).into_iter().fold(found, f64::min);
        let start = Instant::now();
        let proof = prove(&problem, &solve(&problem, Effort::usual(&problem)), |_| start.elapsed() < PROOF);
        let gap_pct = proof.map_or(100.0, |proof| 100.0 * proof.gap());
        let (days, minutes) = (problem.days.len(), case.client.minutes_per_session);
        let kit = KITS[number % KITS.len()];
        writeln!(table, "{number},{days},{minutes},{kit},{ms:.0},{found:.6},{best:.6},{gap_pct:.2}")?;
        println!(
            "{number:2} {days} x {minutes} {kit:15} {ms:4.0} ms {found:9.3} best {best:9.3} +{:.2} %, proven within {gap_pct:.1} %",
            100.0 * (found / best - 1.0)
        );
    }
    std::fs::write(directory.join("weeks.csv"), table)?;
    Ok(())
}
