//! A week that was made for somebody else, fitted to a client: what they may not do is swapped, or left out where nothing can
//! stand in its place.

use crate::draft::{Draft, gathered};
use crate::problem::PlanProblem;
use crate::swap::swaps;

/// A card that could not stay as it was.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Replaced {
    /// Which day, from 0.
    pub session: usize,
    /// The exercise's name.
    pub name: String,
    /// What is in its way, in words.
    pub because: String,
    /// The name of what stands in its place; `None` when it was left out.
    pub instead: Option<String>,
}

/// A week as a client can train it, with what was changed for that, in order. Refused exercises have to be admitted.
pub fn fitted(problem: &PlanProblem, draft: &Draft) -> (Draft, Vec<Replaced>) {
    let mut fitted = draft.clone();
    let mut replaced = Vec::new();
    for session in 0..fitted.sessions.len() {
        let mut place = 0;
        while place < fitted.sessions[session].len() {
            let candidate = fitted.sessions[session][place].candidate;
            let Some(because) = in_the_way(problem, session, candidate) else {
                place += 1;
                continue;
            };
            let name = problem.candidates[candidate].exercise.name.clone();
            // The first is the best: it breaks least, then costs least.
            let found = swaps(problem, &fitted, session, place).and_then(|found| found.alternatives.into_iter().next());
            let sound = found.filter(|other| other.breaks.is_empty());
            let instead = sound.and_then(|other| Some((problem.place_of(&other.exercise)?, other.name)));
            replaced.push(Replaced { session, name, because, instead: instead.as_ref().map(|(_, name)| name.clone()) });
            if let Some((other, _)) = instead {
                let card = &mut fitted.sessions[session][place];
                card.candidate = other;
                card.written = card.written.for_another_exercise();
                place += 1;
            } else {
                fitted.sessions[session].remove(place);
                fitted.sessions[session] = gathered(std::mem::take(&mut fitted.sessions[session]));
            }
        }
    }
    (fitted, replaced)
}

/// Why a card cannot stay in its session.
fn in_the_way(problem: &PlanProblem, session: usize, candidate: usize) -> Option<String> {
    let candidate = &problem.candidates[candidate];
    let home = usize::from(problem.home[session]);
    let elsewhere = || (!candidate.stands[home]).then(|| "does not stand where that day is trained".to_owned());
    candidate.refused.as_ref().map(ToString::to_string).or_else(elsewhere)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::card::Card;
    use crate::tests::problem;
    use rstest::rstest;
    use serde_json::{Value, json};

    /// A week of two days: curls and presses for a whole gym, fitted to a client.
    fn fit(brief: &Value, exercise: &str) -> (Vec<Vec<String>>, Vec<Replaced>) {
        let mut problem = problem(brief);
        let refused = problem.refused.iter().find(|(known, _)| known.id.as_str() == exercise).cloned();
        if let Some((known, refusal)) = refused {
            // As a week that was made before the rule was known has it.
            let mut admitted = problem.candidates[0].clone();
            admitted.targets = Vec::new();
            for (region, fraction) in &known.targets {
                let demand = problem.demands.iter().position(|demand| demand.region == *region).unwrap();
                admitted.targets.push((demand, *fraction));
            }
            admitted.exercise = known;
            admitted.refused = Some(refusal);
            problem.candidates.push(admitted);
        }
        let card = |id: &str| Card::usual(&problem, problem.place_of(&id.parse().unwrap()).unwrap(), 3);
        let mut sessions = vec![Vec::new(); problem.days.len()];
        sessions[0] = vec![card(exercise), card("db-side-raise")];
        let (week, replaced) = fitted(&problem, &Draft { sessions });
        let named = |card: &Card| problem.candidates[card.candidate].exercise.id.to_string();
        (week.sessions.iter().map(|cards| cards.iter().map(named).collect()).collect(), replaced)
    }

    #[rstest]
    fn what_may_be_done_stays_as_it_was() {
        let (week, replaced) = fit(&json!({}), "db-curl");
        assert_eq!((&week[0], replaced.len()), (&vec!["db-curl".to_owned(), "db-side-raise".to_owned()], 0));
    }

    #[rstest]
    #[case::pain(json!({"pain": [{"area": "elbow", "level": 2}]}), "skull-crusher", "hurts 2/10")]
    #[case::kit(json!({"equipment": ["dumbbell"]}), "cable-curl", "needs cable")]
    #[case::ruled_out(json!({"excluded_exercises": ["db-curl"]}), "db-curl", "ruled out in the brief")]
    fn what_may_not_be_done_is_swapped_for_the_same_region(
        #[case] brief: Value,
        #[case] exercise: &str,
        #[case] because: &str,
    ) {
        let (week, replaced) = fit(&brief, exercise);
        assert!(replaced[0].because.contains(because) && replaced[0].instead.is_some(), "{replaced:?}");
        assert!(week[0].len() == 2 && !week[0].iter().any(|id| id == exercise), "{week:?}");
    }

    #[rstest]
    fn what_nothing_can_stand_for_is_left_out_and_said() {
        let nothing =
            json!({"equipment": ["dumbbell"], "pain": [{"area": "elbow", "level": 6}, {"area": "wrist", "level": 6}]});
        let (week, replaced) = fit(&nothing, "db-curl");
        assert_eq!((week[0].len(), &replaced[0].instead), (1, &None), "{week:?} {replaced:?}");
    }
}
