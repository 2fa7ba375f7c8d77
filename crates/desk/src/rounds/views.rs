//! What is asked and answered of rounds.

use crate::clients::RoundSummary;
use casefile::{AssessmentFile, ChoicesEntry};
use serde::{Deserialize, Serialize};
use units::{ClientId, RoundId};
use utoipa::ToSchema;

/// A round to be opened.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewRoundRequest {
    /// `YYYY-MM-DD`, today or earlier.
    pub date: String,
    /// Who holds the tape.
    pub measured_by: String,
    /// Body mass, kg.
    #[serde(default)]
    pub weight_kg: Option<f64>,
}

/// A round's day, put right.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SaveRound {
    /// YYYY-MM-DD.
    pub date: String,
}

/// How far a step has come.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum StepState {
    /// Nothing there.
    Empty,
    /// Enough to go on.
    Enough,
    /// Something wants a look.
    Look,
}

/// One of the eight steps.
#[derive(Serialize, ToSchema)]
pub struct StepView {
    /// `brief`, `photos`, `tape`, `tests`, `verdict`, `plan`, `log` or `review`.
    pub step: String,
    /// How far it has come.
    pub state: StepState,
    /// What is there or missing, in a few words.
    pub says: String,
}

/// A round with its steps.
#[derive(Serialize, ToSchema)]
pub struct RoundView {
    /// Random id.
    pub id: RoundId,
    /// Whose.
    pub client_id: ClientId,
    /// Their name.
    pub client_name: String,
    /// The day it was taken.
    pub date: String,
    /// Who held the tape.
    pub measured_by: String,
    /// Body mass, kg.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub weight_kg: Option<f64>,
    /// All rounds of the client, newest first.
    pub rounds: Vec<RoundSummary>,
    /// The eight steps in order.
    pub steps: Vec<StepView>,
}

/// A verdict with the choices made on it.
#[derive(Serialize, ToSchema)]
pub struct VerdictView {
    /// The verdict, with its evidence.
    pub assessment: AssessmentFile,
    /// The choices.
    pub choices: ChoicesEntry,
    /// Grows with every save of the choices.
    pub choices_revision: i32,
}

/// Choices to be saved.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SaveChoices {
    /// The revision they were read at.
    pub revision: i32,
    /// The choices.
    pub choices: ChoicesEntry,
}
