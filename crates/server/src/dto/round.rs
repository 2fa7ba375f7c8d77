//! A round: its steps, its tape sheet, its verdict, its plan.

use crate::dto::RoundSummary;
use casefile::{
    AssessmentFile, AsymmetryEntry, ChangeEntry, ChoicesEntry, FoldEntry, Problem, SiteEntry, SkinfoldEntry, TapeEntry,
    Warning,
};
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use units::{Side, SiteId};
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
    pub id: String,
    /// Whose.
    pub client_id: String,
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

/// The value a site had in the round before.
#[derive(Serialize, ToSchema)]
pub struct EarlierValue {
    /// The site.
    pub site: SiteId,
    /// The side.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub side: Option<Side>,
    /// Value, cm.
    pub value_cm: f64,
}

/// The value a skinfold had in the latest earlier round with it.
#[derive(Serialize, ToSchema)]
pub struct EarlierFold {
    /// The skinfold site.
    pub site: SiteId,
    /// The side, when noted.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub side: Option<Side>,
    /// Value, mm.
    pub value_mm: f64,
}

/// The tape sheet of a round with everything computed from it.
#[derive(Serialize, ToSchema)]
pub struct TapeSheet {
    /// Grows with every save.
    pub revision: i32,
    /// Who saved it last.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub saved_by: Option<String>,
    /// Who held the tape.
    pub measured_by: String,
    /// Body mass, kg.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub weight_kg: Option<f64>,
    /// The readings of tape and gauge.
    pub entries: Vec<TapeEntry>,
    /// The readings of the calipers.
    pub folds: Vec<SkinfoldEntry>,
    /// How far from its bony point the tape lay, cm by site.
    pub levels_cm: BTreeMap<String, f64>,
    /// Skinfolds with errors.
    pub fold_values: Vec<FoldEntry>,
    /// Values with errors.
    pub sites: Vec<SiteEntry>,
    /// Left against right.
    pub asymmetries: Vec<AsymmetryEntry>,
    /// Changes since the latest earlier round that has the site, against what two measurements may differ by.
    pub changes: Vec<ChangeEntry>,
    /// What looks wrong.
    pub warnings: Vec<Warning>,
    /// Entries that were not saved, and why; pointers go into the entries of the request.
    pub problems: Vec<Problem>,
    /// The day of the round before.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub earlier_date: Option<String>,
    /// Its values.
    pub earlier: Vec<EarlierValue>,
    /// Skinfolds of earlier rounds.
    pub earlier_folds: Vec<EarlierFold>,
    /// Where the tape lay the last time it was noted, cm by site.
    pub earlier_levels_cm: BTreeMap<String, f64>,
}

/// A sheet to be saved.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SaveTape {
    /// The revision it was read at.
    pub revision: i32,
    /// Who holds the tape.
    pub measured_by: String,
    /// Body mass, kg.
    #[serde(default)]
    pub weight_kg: Option<f64>,
    /// All readings of tape and gauge.
    pub entries: Vec<TapeEntry>,
    /// All readings of the calipers.
    pub folds: Vec<SkinfoldEntry>,
    /// How far from its bony point the tape lay, cm by site.
    pub levels_cm: BTreeMap<String, f64>,
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
