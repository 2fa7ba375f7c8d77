//! The plan of a round: the week under work, what could stand instead, how good it is proven to be, what is given out, and the weeks of
//! others that can be taken.

mod board;
mod giving;
mod known;
mod planning;
mod set_ups;
mod taken;
mod views;

pub use board::ToProve;
pub use giving::{FileKind, PlanPaper};
pub(crate) use known::{Proofs, Solved};
pub(crate) use planning::{Planned, Planning};
pub use set_ups::{SetUpView, SetUpsView};
pub use views::{
    AddableView, AskSwaps, CopiedWeek, CopyWeek, IssuePlan, IssuedSummary, IssuedView, KeepWeek, KeptWeek, OthersWeek,
    PlanView, ProofView, RefusedView, ReplacedView, SavePlan, SolvePlan, SolvedPlan, SwapsView, WeekSource, WeeksView,
};
