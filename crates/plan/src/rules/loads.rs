//! What a week may hold at most: hard sets, load along the spine, load on each joint, lowered by pain.

use super::Violation;
use crate::aims::Limit;
use crate::problem::PlanProblem;
use crate::week::Week;

/// Room for sums of sets times halves.
const A_BIT: f64 = 1e-6;

/// What a week adds up to against a limit.
pub(crate) fn load(problem: &PlanProblem, week: &Week, limit: &Limit) -> f64 {
    week.all_items().map(|(candidate, sets)| f64::from(sets) * limit.per_set(&problem.candidates[candidate])).sum()
}

pub(super) fn broken(problem: &PlanProblem, week: &Week) -> Vec<Violation> {
    let loads = problem.limits.iter().enumerate().map(|(limit, of)| (limit, load(problem, week, of)));
    let over = loads.filter(|(limit, load)| *load > problem.limits[*limit].most + A_BIT);
    over.map(|(limit, load)| Violation::Load { limit, load }).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::tests::{problem, week};
    use rstest::rstest;
    use serde_json::{Value, json};

    const DEADLIFTS: &[(usize, &str, u16)] = &[(0, "deadlift", 4), (2, "romanian-deadlift", 4), (3, "back-squat", 2)];
    const PRESSES: &[(usize, &str, u16)] = &[(0, "chest-press-machine", 4), (2, "chest-press-machine", 4)];
    const RAISES: &[(usize, &str, u16)] = &[(0, "cable-fly", 5), (1, "reverse-pec-deck", 5), (2, "cable-fly", 5)];

    // Common practice, no source: 12, 20 and 28 along the spine; 36, 48 and 64 on a shoulder, of which a pain of 3 or 4 leaves 35 %.
    #[rstest]
    #[case::twenty_four_along_the_spine_of_an_intermediate("intermediate", json!([]), DEADLIFTS, &["axial"])]
    #[case::advanced_clients_bear_more("advanced", json!([]), DEADLIFTS, &[])]
    #[case::a_sore_shoulder_bears_less(
        "intermediate", json!([{"area": "shoulder", "level": 4}]), &[PRESSES, RAISES].concat(), &["shoulder"]
    )]
    #[case::eight_light_sets_are_within_it("intermediate", json!([{"area": "shoulder", "level": 4}]), PRESSES, &[])]
    fn a_week_s_loads_stay_under_their_limits(
        #[case] experience: &str,
        #[case] pain: Value,
        #[case] items: &[(usize, &str, u16)],
        #[case] over: &[&str],
    ) {
        let problem = problem(&json!({"experience": experience, "pain": pain}));
        let found = broken(&problem, &week(&problem, items));
        let named: Vec<String> = found
            .iter()
            .map(|violation| match violation {
                Violation::Load { limit, .. } => crate::words::load_name(&problem.limits[*limit].of),
                other => format!("{other:?}"),
            })
            .collect();
        let expected: Vec<&str> = over.iter().map(|name| if *name == "axial" { "the spine" } else { *name }).collect();
        assert_eq!(named, expected);
    }
}
