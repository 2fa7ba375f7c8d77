//! The commands that read a file and print JSON.

use crate::failure::Failure;
use assess::{Assessment, Case, Knowledge};
use casefile::{CaseFile, check_practice};
use schemars::schema_for;
use serde::Serialize;
use std::io::Write;
use std::path::Path;
use std::time::Instant;

/// Prints the catalogue.
pub fn catalogue() -> Result<(), Failure> {
    let atlas = atlas::Atlas::load().map_err(Failure::other)?;
    print(&casefile::catalogue(&atlas))
}

/// Prints the verdict on a case file.
pub fn assess(path: &Path, explain: bool) -> Result<(), Failure> {
    let (knowledge, case, assessment) = assessed(path)?;
    print(&casefile::assessment_file(&knowledge, &case, &assessment, explain))
}

/// Assessment and plan of one case.
#[derive(Serialize)]
struct AssessedPlan {
    assessment: casefile::AssessmentFile,
    #[serde(flatten)]
    plan: casefile::PlanFile,
}

/// Prints assessment and plan of a case file.
pub fn plan(path: &Path, time_limit_ms: u32, prove_s: u32, lp: Option<&Path>) -> Result<(), Failure> {
    let (knowledge, case, assessment) = assessed(path)?;
    let problem = plan::PlanProblem::new(&knowledge, &case, &assessment);
    if let Some(file) = lp {
        std::fs::write(file, plan::lp(&problem)).map_err(Failure::other)?;
    }
    let start = Instant::now();
    let week = plan::solve(&problem, plan::Effort::for_ms(time_limit_ms, problem.days.len()));
    let solve_ms = start.elapsed().as_secs_f64() * 1000.0;
    let plan = plan::present(&problem, &week);
    let weeks = plan::block(&problem, &plan::Draft::worked(&problem, &week), plan::WEEKS_USUAL);
    let start = Instant::now();
    let in_time = |_: &plan::Proof| start.elapsed().as_secs() < u64::from(prove_s);
    let proof = if prove_s > 0 { plan::prove(&problem, &week, in_time) } else { None };
    print(&AssessedPlan {
        assessment: casefile::assessment_file(&knowledge, &case, &assessment, false),
        plan: casefile::plan_file(&plan, &weeks, proof.as_ref(), solve_ms),
    })
}

/// Statures for which a line of pull is worked out, cm.
const STATURES_CM: [f64; 2] = [120.0, 230.0];

/// Prints the line of pull of an exercise.
pub fn levers(exercise: &str, set: &[String], stature_cm: f64) -> Result<(), Failure> {
    let atlas = atlas::Atlas::load().map_err(Failure::other)?;
    let known = exercise.parse().ok().and_then(|id| atlas.exercise(&id));
    let Some((known, own)) = known.and_then(|known| Some((known, levers::Movement::of(known.id.as_str())?))) else {
        return Err(Failure::argument(
            exercise,
            "no exercise of the catalogue, expected an id that `orthomer catalogue` prints",
        ));
    };
    if !(STATURES_CM[0]..=STATURES_CM[1]).contains(&stature_cm) {
        let [low, high] = STATURES_CM;
        return Err(Failure::argument("--stature", format!("{stature_cm} cm is outside {low} to {high}")));
    }
    let number = |text: &String| {
        let parts =
            text.split_once('=').and_then(|(name, value)| Some((name.trim().to_owned(), value.trim().parse().ok()?)));
        parts.ok_or_else(|| Failure::argument("--set", format!("{text:?} is no NAME=VALUE with a number")))
    };
    let numbers = set.iter().map(number).collect::<Result<Vec<(String, f64)>, Failure>>()?;
    let movement = levers::with(own, &numbers).map_err(|error| Failure::argument("--set", error.to_string()))?;
    print(&levers::levers_at(known, &movement, own, stature_cm))
}

/// Prints places, lengths and lever arms at a pose.
pub fn pose(path: &Path) -> Result<(), Failure> {
    let wrong = |error: String| Failure::argument(path.display().to_string(), error);
    let text = std::fs::read_to_string(path).map_err(|error| wrong(error.to_string()))?;
    let file: levers::PoseFile = serde_json::from_str(&text).map_err(|error| wrong(error.to_string()))?;
    print(&levers::posed(&file).map_err(|error| wrong(error.to_string()))?)
}

/// Writes the schemas of the open files.
pub fn schema(dir: &Path) -> Result<(), Failure> {
    std::fs::create_dir_all(dir).map_err(Failure::other)?;
    let pictures = [
        ("orthomer-photo", schema_for!(vision::Photo)),
        ("orthomer-girths", schema_for!(crate::pictures::GirthsFile)),
        ("orthomer-booth", schema_for!(booth::Spec)),
        ("orthomer-booth-truth", schema_for!(booth::Truth)),
        ("orthomer-levers", schema_for!(levers::Levers)),
    ];
    for (name, schema) in casefile::schemas().into_iter().chain(pictures) {
        let text = serde_json::to_string_pretty(&schema).map_err(Failure::other)?;
        std::fs::write(dir.join(format!("{name}.schema.json")), text + "\n").map_err(Failure::other)?;
    }
    Ok(())
}

/// The case of a file with its assessment, and the knowledge as the file's practice has set it. What looks wrong is said.
fn assessed(path: &Path) -> Result<(Knowledge, Case, Assessment), Failure> {
    let shipped = Knowledge::load().map_err(Failure::other)?;
    let unreadable = |error: std::io::Error| {
        let says = format!("{} cannot be read: {error}", path.display());
        Failure::input(says)
    };
    let text = std::fs::read_to_string(path).map_err(unreadable)?;
    let file = CaseFile::parse(&text).map_err(|problem| Failure::Input(vec![problem]))?;
    let case = file.resolve(&shipped.atlas).map_err(Failure::Input)?;
    let practice = check_practice(&shipped.atlas, &"/practice".into(), &file.practice).map_err(Failure::Input)?;
    let knowledge = shipped.with_practice(&practice);
    let assessment = assess::assess(&knowledge, &case);
    for warning in casefile::warnings(&knowledge, &case, &assessment.reference) {
        eprintln!("warning: {warning}");
    }
    Ok((knowledge, case, assessment))
}

/// Prints JSON; a closed pipe is no failure.
pub(crate) fn print(value: &impl Serialize) -> Result<(), Failure> {
    let text = serde_json::to_string_pretty(value).map_err(Failure::other)?;
    match writeln!(std::io::stdout().lock(), "{text}") {
        Err(error) if error.kind() != std::io::ErrorKind::BrokenPipe => Err(Failure::other(error)),
        _ => Ok(()),
    }
}
