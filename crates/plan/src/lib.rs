//! From a verdict to a week: dose per region, exercises on days, order, side order and reasons.
//!
//! A [`PlanProblem`] is everything resolved; [`solve`] fills the week under the hard rules of `rules/`, [`present`] puts it
//! into sessions with reasons. Whether the assessment is right is not this crate's business.

mod anneal;
mod blocked;
mod cost;
mod dose;
mod lp;
mod order;
mod present;
mod problem;
pub mod rules;
#[cfg(test)]
mod tests;
mod timing;
mod week;

pub use anneal::{Effort, solve};
pub use blocked::Blocked;
pub use dose::{Dose, dose};
pub use lp::lp;
pub use order::SessionOrder;
pub use present::{Item, LedgerRow, Plan, Session, SidePlan, Status, present};
pub use problem::{Candidate, Demand, PlanProblem};
pub use timing::{ItemTime, item_minutes, session_minutes};
pub use week::Week;

use assess::{Assessment, Case, Knowledge};

/// Plans the week for an assessed case.
pub fn plan(knowledge: &Knowledge, case: &Case, assessment: &Assessment) -> Plan {
    let problem = PlanProblem::new(knowledge, case, assessment);
    let week = solve(&problem, Effort::default());
    present(&problem, &week)
}
