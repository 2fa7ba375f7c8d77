//! The hard rules of a week, one file each. A rule says what breaks it, for the solver and for the coach alike.

pub mod allowed;
mod day_after;
mod direct_cap;
pub(crate) mod exercise_caps;
mod family;
pub(crate) mod loads;
pub(crate) mod one_sided_share;
mod place;
mod room;
pub(crate) mod spacing;
mod spine;

pub(crate) use direct_cap::DIRECT_SETS_A_SESSION;
pub(crate) use room::A_MOMENT;
pub(crate) use spacing::{near_pairs, neighbours, over_together};

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
    /// More of something than a week should hold: hard sets, load along the spine or on a joint.
    Load {
        /// Index of the limit.
        limit: usize,
        /// What the week adds up to.
        load: f64,
    },
    /// More of one exercise than a week should hold.
    OneExercise {
        /// Candidate index.
        candidate: usize,
        /// Its sets.
        sets: u32,
        /// Its sessions.
        sessions: u32,
    },
    /// More sets of an exercise than a session should hold.
    SessionSets {
        /// Session index.
        session: usize,
        /// Candidate index.
        candidate: usize,
        /// Its sets.
        sets: u16,
    },
    /// The same exercise on two days running.
    DayAfter {
        /// The two session indices.
        sessions: [usize; 2],
        /// Candidate index.
        candidate: usize,
    },
    /// Two sessions with much load along the spine less than 48 hours apart.
    SpineRest {
        /// The two session indices.
        sessions: [usize; 2],
    },
    /// Deadlifts from the floor in too many sessions.
    FloorLifts {
        /// Those sessions.
        sessions: Vec<usize>,
    },
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
    /// More direct sets for a region in two sessions less than 48 hours apart than it recovers from.
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
    found.extend(day_after::broken(problem, week));
    found.extend(exercise_caps::broken(problem, week));
    found.extend(loads::broken(problem, week));
    found.extend(spine::broken(problem, week));
    found
}

/// Every rule a finished week must keep.
pub fn broken(problem: &PlanProblem, week: &Week) -> Vec<Violation> {
    let mut found = broken_while_building(problem, week);
    found.extend(one_sided_share::broken(problem, week));
    found
}
