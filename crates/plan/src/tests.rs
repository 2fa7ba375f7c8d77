//! A planning problem and weeks made by hand, for the tests of the rules.

use crate::problem::PlanProblem;
use crate::week::Week;
use assess::{Knowledge, assess};
use casefile::CaseFile;
use serde_json::{Value, json};
use std::sync::LazyLock;

static KNOWLEDGE: LazyLock<Knowledge> = LazyLock::new(|| Knowledge::load().expect("shipped data"));

const EXAMPLE: &str = include_str!("../../../docs/examples/case.json");

/// The example client in a full gym without pain, four days of 70 minutes, with parts of the brief changed.
pub(crate) fn problem(change: &Value) -> PlanProblem {
    problem_after(change, &Value::Null)
}

/// The same after other training than the example's; null leaves it.
pub(crate) fn problem_after(change: &Value, training: &Value) -> PlanProblem {
    made(change, training, &json!({}))
}

/// The same with what is remembered of stations.
pub(crate) fn kept(set_ups: &Value) -> PlanProblem {
    made(&json!({}), &Value::Null, set_ups)
}

fn made(change: &Value, training: &Value, set_ups: &Value) -> PlanProblem {
    let mut file: Value = serde_json::from_str(EXAMPLE).unwrap();
    let gym = KNOWLEDGE.atlas.kits().iter().find(|kit| kit.id == "full-gym").unwrap();
    file["client"]["equipment"] = json!(gym.items);
    file["client"]["pain"] = json!([]);
    file["client"]["screens"] = json!({});
    for (field, value) in change.as_object().unwrap() {
        file["client"][field] = value.clone();
    }
    if !training.is_null() {
        file["training"] = training.clone();
    }
    file["set_ups"] = set_ups.clone();
    file["choices"]["bring_up"] = json!(["delts.posterior", "biceps.long"]);
    let case = CaseFile::parse(&file.to_string()).unwrap().resolve(&KNOWLEDGE.atlas).unwrap();
    PlanProblem::new(&KNOWLEDGE, &case, &assess(&KNOWLEDGE, &case))
}

/// The place of an exercise among the candidates.
pub(crate) fn candidate(problem: &PlanProblem, id: &str) -> usize {
    problem.candidates.iter().position(|c| c.exercise.id.as_str() == id).unwrap()
}

/// A week of (session, exercise, sets).
pub(crate) fn week(problem: &PlanProblem, items: &[(usize, &str, u16)]) -> Week {
    let mut week = Week::empty(problem);
    for (session, id, sets) in items {
        week.set(*session, candidate(problem, id), *sets);
    }
    week
}
