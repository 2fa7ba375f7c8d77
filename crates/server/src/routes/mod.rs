//! Handlers, one file per thing.

pub(crate) mod archive;
pub(crate) mod clients;
pub(crate) mod devices;
pub(crate) mod eye;
pub(crate) mod general;
pub(crate) mod levers;
pub(crate) mod links;
pub(crate) mod log;
pub(crate) mod my;
pub(crate) mod my_photos;
pub(crate) mod notes;
pub(crate) mod photos;
pub(crate) mod plan;
pub(crate) mod practice;
pub(crate) mod ratings;
pub(crate) mod review;
pub(crate) mod rounds;
pub(crate) mod saved_weeks;
pub(crate) mod session;
pub(crate) mod set_ups;
pub(crate) mod steps;
pub(crate) mod tape;
pub(crate) mod tests;
pub(crate) mod today;
pub(crate) mod usual_week;

pub(crate) use eye::Drawn;
pub(crate) use review::MeasuredTrends;
