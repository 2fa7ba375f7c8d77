//! What was trained and what follows from it: which version of an entry counts, what is done next time, when to stop, swap or
//! lighten, and at the end of the round what moved and what to do about it.
//!
//! An [`Entry`] is one exercise of one session as somebody wrote it down, or the session as a whole. Entries are never changed:
//! a correction is a new one that follows the old. Where they are kept and how they travel is not this crate's business.

#![warn(clippy::missing_errors_doc)]

mod alarm;
mod calendar;
mod clock;
mod entry;
mod heads;
mod lighten;
mod performance;
mod planned;
mod queue;
mod review;
mod stall;
mod target;
mod training;
mod trend;

pub use alarm::{Alarm, AlarmKind, alarms, hurt};
pub use calendar::{DueSession, block_week, due, monday};
pub use clock::{ClockFix, MOST_SKEW_S, put_right};
pub use entry::{
    Count, Entry, ExerciseLog, ExercisePain, Form, LoggedPart, LoggedSet, Part, RedFlag, SCALE, SessionKey, SessionLog,
};
pub use heads::{Heads, counting, heads};
pub use lighten::{LIGHTER_TODAY, LighterToday, lighten, lighter_sets};
pub use performance::{BestSets, Performed, best_sets, performance};
pub use planned::Planned;
pub use queue::{Due, QueueKind, ROUND_WEEKS};
pub use review::{
    AreaReview, Decision, GirthMove, PartMoved, PlannedSession, RegionReview, Review, ReviewRound, RoundWork,
    WidthMove, WorkDone, asked_of_plan, beside, carried, review, round_work, weeks_to_show,
};
pub use stall::{Stall, stall};
pub use target::{Offer, Overrule, Target, TargetKind, next, still_holds};
pub use training::{past_training, training_entry, weekly_sets};
pub use trend::{Trend, TrendPoint, noise_band};
