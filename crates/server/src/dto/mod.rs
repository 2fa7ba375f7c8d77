//! What travels: shapes of requests and answers that are not already open files.

mod atlas;
mod client;
mod photos;
mod round;
mod session;

pub(crate) use atlas::AtlasView;
pub(crate) use client::{ClientPage, ClientSummary, ClientView, RoundSummary, SaveClient, VerdictSummary};
pub(crate) use photos::{
    BoothQuery, JudgedKind, LightTable, MovedBody, NewPhotoQuery, OutlineView, OverView, PhotoRound, PhotoView,
    RatingQuery, RatingView, RepeatView, RepeatsView, SavePhoto, SaveRating, SaveRepeat, WithdrawConsent, Withdrawn,
};
pub(crate) use round::{
    EarlierValue, NewRoundRequest, PlanView, RoundView, SaveChoices, SaveTape, StepState, StepView, TapeSheet,
    VerdictView,
};
pub(crate) use session::{NewOwner, SessionStanding, SessionView, SignIn};
