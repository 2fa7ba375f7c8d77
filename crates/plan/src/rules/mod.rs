//! The hard rules of a week, one file each. A rule says what breaks it, for the solver and for the coach alike.

pub mod allowed;
mod direct_cap;
mod family;
pub(crate) mod one_sided_share;
mod place;
mod room;
mod spacing;

pub(crate) use direct_cap::DIRECT_SETS_A_SESSION;
pub(crate) use room::A_MOMENT;
pub(crate) use spacing::{LOADED, neighbours};

use crate::problem::PlanProblem;
use crate::week::Week;

/// A broken rule.
#[derive(Clone, Debug, PartialEq)]
pub enum Violation {
    /// A session takes longer than the client has.
    Time {
        /// Session index.
        session: usize,
        /// What it takes.
        minutes: f64,
    },
    /// A session has more exercises than the client wants.
    TooManyExercises {
        /// Session index.
        session: usize,
        /// How many.
        count: usize,
    },
    /// An exercise whose equipment stands somewhere else.
    Place {
        /// Session index.
        session: usize,
        /// Candidate index.
        candidate: usize,
    },
    /// More hard sets than a week should hold.
    WeeklySets(u32),
    /// Two exercises of one family in a session.
    Family {
        /// Session index.
        session: usize,
        /// The family.
        family: String,
    },
    /// More direct sets for one region in a session than do good.
    DirectSets {
        /// Session index.
        session: usize,
        /// Demand index.
        demand: usize,
    },
    /// Less than 48 hours between two sessions that both load a region.
    Spacing {
        /// The two session indices.
        sessions: [usize; 2],
        /// Demand index.
        demand: usize,
    },
    /// Less than half of an uneven region's sets one side at a time.
    OneSidedShare {
        /// Demand index.
        demand: usize,
    },
}

/// Rules that adding work can break at any time. Checked after every move of the solver.
pub fn broken_while_building(problem: &PlanProblem, week: &Week) -> Vec<Violation> {
    let mut found = room::broken(problem, week);
    found.extend(place::broken(problem, week));
    found.extend(family::broken(problem, week));
    found.extend(direct_cap::broken(problem, week));
    found.extend(spacing::broken(problem, week));
    found
}

/// Every rule a finished week must keep.
pub fn broken(problem: &PlanProblem, week: &Week) -> Vec<Violation> {
    let mut found = broken_while_building(problem, week);
    found.extend(one_sided_share::broken(problem, week));
    found
}
