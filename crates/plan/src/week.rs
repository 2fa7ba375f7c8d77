//! A week as sessions of exercises with their sets.

use crate::problem::PlanProblem;

/// What a weekday is called, Monday = 1.
pub fn weekday_name(day: u8) -> &'static str {
    const NAMES: [&str; 7] = ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"];
    NAMES.get(usize::from(day).saturating_sub(1)).copied().unwrap_or("Any day")
}

/// Exercises and sets by session, in no particular order; the order within a session is decided when it is presented.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Week {
    /// `(candidate, sets)` by session; sets are never 0 and a candidate stands at most once in a session.
    sessions: Vec<Vec<(usize, u16)>>,
}

impl Week {
    /// A week without any work.
    pub fn empty(problem: &PlanProblem) -> Self {
        Self { sessions: vec![Vec::new(); problem.days.len()] }
    }

    /// How many sessions there are, empty ones included.
    pub fn session_count(&self) -> usize {
        self.sessions.len()
    }

    /// Candidates of a session with their sets.
    pub fn items(&self, session: usize) -> &[(usize, u16)] {
        &self.sessions[session]
    }

    /// All items of the week.
    pub fn all_items(&self) -> impl Iterator<Item = (usize, u16)> + '_ {
        self.sessions.iter().flatten().copied()
    }

    /// Sets of a candidate in a session, 0 when it is not done.
    pub fn sets(&self, session: usize, candidate: usize) -> u16 {
        self.sessions[session].iter().find(|(c, _)| *c == candidate).map_or(0, |(_, sets)| *sets)
    }

    /// Changes the sets of a candidate in a session; 0 takes it out. Gives the sets it had.
    pub fn set(&mut self, session: usize, candidate: usize, sets: u16) -> u16 {
        let items = &mut self.sessions[session];
        let place = items.iter().position(|(c, _)| *c == candidate);
        match (place, sets) {
            (Some(place), 0) => items.remove(place).1,
            (Some(place), sets) => std::mem::replace(&mut items[place].1, sets),
            (None, 0) => 0,
            (None, sets) => {
                items.push((candidate, sets));
                0
            }
        }
    }

    /// Fractional sets of every demand in one session.
    pub fn session_dose(&self, problem: &PlanProblem, session: usize) -> Vec<f64> {
        let mut dose = vec![0.0; problem.demands.len()];
        for (candidate, sets) in self.items(session) {
            for (region, fraction) in &problem.candidates[*candidate].targets {
                dose[*region] += problem.candidates[*candidate].usual.counts.of(*sets) * fraction;
            }
        }
        dose
    }

    /// Hard sets over the whole week.
    pub fn total_sets(&self) -> u32 {
        self.all_items().map(|(_, sets)| u32::from(sets)).sum()
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::tests::{candidate, problem, week};
    use serde_json::json;

    #[test]
    fn setting_sets_adds_changes_and_takes_out() {
        let problem = problem(&json!({}));
        let curl = candidate(&problem, "db-curl");
        let mut week = Week::empty(&problem);
        assert_eq!((week.set(1, curl, 3), week.sets(1, curl)), (0, 3));
        assert_eq!((week.set(1, curl, 5), week.total_sets()), (3, 5));
        assert_eq!((week.set(1, curl, 0), week.items(1).len()), (5, 0));
        assert_eq!(week.set(1, curl, 0), 0);
    }

    // The dose is sets times target fraction over direct and indirect work.
    #[test]
    fn a_session_s_dose_counts_fractions() {
        let problem = problem(&json!({}));
        let week = week(&problem, &[(0, "face-pull", 4), (0, "wide-cable-row", 2)]);
        let place = |id: &str| problem.demands.iter().position(|d| d.region.as_str() == id).unwrap();
        let dose = week.session_dose(&problem, 0);
        assert!((dose[place("delts.posterior")] - 5.0).abs() < 1e-12, "4 x 1 + 2 x 0.5");
        assert!((dose[place("cuff")] - 2.0).abs() < 1e-12, "4 x 0.5");
        assert!(dose[place("calves.soleus")].abs() < 1e-12);
    }
}
