//! How a client's stations are set.

use assess::KeptSetUp;
use atlas::{SetUpField, Variant};
use serde::Serialize;
use units::ExerciseId;
use utoipa::ToSchema;

/// All set-ups of a client.
#[derive(Serialize, ToSchema)]
pub struct SetUpsView {
    /// By exercise.
    pub set_ups: Vec<SetUpView>,
}

/// How one exercise's station is set.
#[derive(Serialize, ToSchema)]
pub struct SetUpView {
    /// Which exercise.
    pub exercise: ExerciseId,
    /// What is remembered.
    pub kept: KeptSetUp,
    /// The numbers its kit has.
    pub fields: Vec<SetUpField>,
    /// Its variants.
    pub variants: Vec<Variant>,
}
