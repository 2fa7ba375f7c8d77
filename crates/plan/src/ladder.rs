//! The learning ladder for a region that the client cannot feel: one light set each, from the easiest to
//! feel to the exercise that is wanted.

use crate::problem::{Candidate, PlanProblem};
use assess::Class;
use units::{ExerciseId, RegionId};

/// A step of a ladder.
#[derive(Clone, Debug, PartialEq)]
pub struct Rung {
    /// What is done; none where any band will do.
    pub exercise: ExerciseId,
    /// Its name.
    pub name: String,
    /// How.
    pub how: &'static str,
}

/// One light set each, before the work sets.
#[derive(Clone, Debug, PartialEq)]
pub struct Ladder {
    /// The region to be felt.
    pub region: RegionId,
    /// Why it is there.
    pub why: String,
    /// Its steps.
    pub rungs: Vec<Rung>,
}

/// Which exercise serves as a step.
type Serves = fn(&Candidate) -> bool;

const RUNGS: [(&str, Serves); 5] = [
    ("one side alone, light", |c| c.exercise.one_sided_possible()),
    ("both sides on a machine, light", |c| machine(c)),
    ("the supported version, light", |c| c.exercise.stability == 2 && !machine(c)),
    ("the free version, light", |c| c.exercise.stability == 0),
    ("30 to 40 repetitions with a band", |c| c.exercise.equipment.iter().any(|item| item.as_str() == "band")),
];

fn machine(candidate: &Candidate) -> bool {
    candidate.exercise.equipment.iter().any(|item| item.as_str().starts_with("machine:"))
}

/// Ladders for the chosen regions that were felt elsewhere, of what stands at the place of `home`.
pub(crate) fn ladders(problem: &PlanProblem, home: bool) -> Vec<Ladder> {
    let demands = problem.demands.iter().enumerate();
    let unfelt = demands.filter(|(_, d)| d.class == Class::BringUp && d.felt_elsewhere.is_some());
    unfelt.filter_map(|(index, _)| ladder(problem, index, home)).collect()
}

fn ladder(problem: &PlanProblem, demand: usize, home: bool) -> Option<Ladder> {
    let wanted = &problem.demands[demand];
    let felt = wanted.felt_elsewhere.as_deref()?;
    let mut rungs: Vec<Rung> = Vec::new();
    for (how, serves) in RUNGS {
        let fits = |c: &&Candidate| c.refused.is_none() && c.trains(demand) && c.stands[usize::from(home)] && serves(c);
        let fresh = |c: &&Candidate| rungs.iter().all(|rung| rung.exercise != c.exercise.id);
        let Some(found) = problem.candidates.iter().filter(fits).find(fresh) else { continue };
        rungs.push(Rung { exercise: found.exercise.id.clone(), name: found.exercise.name.clone(), how });
    }
    let instead = if felt == "nowhere" { "It was felt nowhere".to_owned() } else { format!("{felt} was felt instead") };
    let why = format!("{}: {instead}. One light set each, slowly, until it is felt.", wanted.name);
    (!rungs.is_empty()).then(|| Ladder { region: wanted.region.clone(), why, rungs })
}
