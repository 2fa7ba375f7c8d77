//! Pictures: taken in, looked at, shown, what the coach says of them, what they are judged to show, and what a client is asked for.

mod agreement;
mod asked;
mod asked_views;
mod darkroom;
mod learning;
mod looking;
mod ratings;
mod saying;
mod standin;
mod table;
mod taking;
mod views;

pub use agreement::AgreementView;
pub use asked_views::{AskAgain, AskedAgain, Ghost, LookQuery, PicturesAsked, PoseAsked};
pub(crate) use darkroom::{Darkroom, OneEye};
pub use learning::{learn_eyes, learn_girths};
pub(crate) use looking::Looker;
pub use saying::check_distance;
pub(crate) use standin::StandIn;
pub use views::{
    BoothQuery, LightTable, MovedBody, NewPhotoQuery, OutlineView, OverView, PhotoRound, PhotoStateView, PhotoView,
    PracticePairs, RatingQuery, RatingView, RepeatView, RepeatsView, RoundGirths, SavePhoto, SaveRating, SaveRepeat,
    Spot, UnseenGirth, WithdrawConsent, Withdrawn,
};
