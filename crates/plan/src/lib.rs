//! From a verdict to a week: dose per region, exercises on days, order, side order and reasons.
//!
//! A [`PlanProblem`] is everything resolved; [`solve`] fills the week under the hard rules of `rules/`, [`present`] puts it
//! into sessions with reasons. Whether the assessment is right is not this crate's business.

#![warn(clippy::missing_errors_doc)]

#[cfg(test)]
mod agree;
mod aims;
mod anneal;
mod block;
mod blocked;
mod bound;
mod candidate;
mod card;
mod cost;
mod dose;
mod draft;
mod eye;
mod faults;
mod fitted;
mod item;
mod ladder;
mod lp;
mod missing;
mod order;
mod pairs;
mod present;
mod problem;
mod progress;
pub mod rules;
mod run;
mod split;
mod swap;
#[cfg(test)]
mod tests;
mod timing;
mod turns;
mod usual;
mod warm_up;
mod week;
mod words;

pub use aims::{Cover, CoverOf, Floor, Limit, LoadOf};
pub use anneal::{Effort, solve, solve_around};
pub use block::{BlockWeek, WEEKS, WEEKS_USUAL, block};
pub use blocked::Blocked;
pub use bound::{Proof, prove};
pub use candidate::Caps;
pub use card::{Card, PlannedSet, SetWritten, Written};
pub use dose::{Dose, dose};
pub use draft::{CardPlace, Draft, Locks};
pub use eye::{Objection, ObjectionKind};
pub use faults::{Broken, faults};
pub use fitted::{Replaced, fitted};
pub use item::{Item, SidePlan};
pub use ladder::{Ladder, Rung};
pub use lp::lp;
pub use order::SessionOrder;
pub use pairs::Pair;
pub use present::{LedgerRow, LoadRow, MovementRow, PartRow, Plan, Session, Status, present, present_draft};
pub use problem::{Candidate, Demand, PlanProblem, Prices, WeekShape};
pub use progress::{ProgressKind, Progression};
pub use run::{RunCard, Step, rounds, run};
pub use split::Theme;
pub use swap::{Alternative, NotFor, Swaps, swaps};
pub use timing::{ItemTime, item_minutes, session_minutes};
pub use turns::{InTurn, in_turn, turned};
pub use usual::{PerSet, Usual};
pub use warm_up::{ActivationEntry, MoveEntry, WarmUpEntry};
pub use week::{Week, weekday_name};

use assess::{Assessment, Case, Knowledge};

/// Plans the week for an assessed case.
pub fn plan(knowledge: &Knowledge, case: &Case, assessment: &Assessment) -> Plan {
    let problem = PlanProblem::new(knowledge, case, assessment);
    let week = solve(&problem, Effort::usual(&problem));
    present(&problem, &week)
}
