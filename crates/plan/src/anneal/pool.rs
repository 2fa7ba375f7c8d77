//! Which candidates a search looks at.

use crate::problem::{Candidate, PlanProblem};
use crate::timing::item_minutes;

/// Candidates worth doing.
pub(crate) fn worthwhile(problem: &PlanProblem) -> Vec<usize> {
    (0..problem.candidates.len()).filter(|c| problem.worth_doing(&problem.candidates[*c])).collect()
}

/// Worthwhile candidates without those for which another one of the family can stand wherever they stand, at no higher cost and
/// load. A best week may still need one of them, where the other has its most sets or was done the day before: so the search does
/// without them, the bound and the exported model do not.
pub(crate) fn undominated(problem: &PlanProblem) -> Vec<usize> {
    let all = worthwhile(problem);
    // With two of a family in a session the better one may be there already.
    if problem.family_limit > 1 {
        return all;
    }
    let dominated = |c: &usize| all.iter().any(|other| dominates(problem, *other, *c));
    all.iter().copied().filter(|c| !dominated(c)).collect()
}

fn dominates(problem: &PlanProblem, better: usize, worse: usize) -> bool {
    let (a, b) = (&problem.candidates[better], &problem.candidates[worse]);
    let same = better != worse
        && a.exercise.family == b.exercise.family
        && a.exercise.targets == b.exercise.targets
        && a.one_sided == b.one_sided
        && a.usual.counts == b.usual.counts
        && !problem.pairs.iter().any(|pair| pair.of.contains(&worse));
    let stretches = |c: &Candidate, region| c.exercise.loads_stretched(region);
    let minutes = |sets: u16| item_minutes(a, sets) - item_minutes(b, sets);
    let no_worse = same
        && a.merit >= b.merit
        && (0..2).all(|place| a.stands[place] || !b.stands[place])
        && b.exercise.targets.keys().all(|region| stretches(a, region) || !stretches(b, region))
        && minutes(1) <= 1e-9
        && minutes(2) - minutes(1) <= 1e-9
        && problem.limits.iter().all(|limit| limit.per_set(a) <= limit.per_set(b))
        && problem.covers.iter().all(|cover| cover.by(problem, a) || !cover.by(problem, b))
        && a.caps.sets >= b.caps.sets
        && a.caps.session_sets >= b.caps.session_sets;
    let alike = (a.merit - b.merit).abs() < 1e-9 && minutes(1).abs() < 1e-9 && minutes(2).abs() < 1e-9;
    let loads_alike = problem.limits.iter().all(|limit| (limit.per_set(a) - limit.per_set(b)).abs() < 1e-9);
    let covers_alike = problem.covers.iter().all(|cover| cover.by(problem, a) == cover.by(problem, b));
    let mirrored = a.caps == b.caps
        && loads_alike
        && covers_alike
        && (0..2).all(|place| a.stands[place] == b.stands[place])
        && a.exercise.targets.keys().all(|region| stretches(a, region) == stretches(b, region));
    // Of two that are alike in everything the first one stays.
    no_worse && (!(alike && mirrored) || better < worse)
}
