//! What is asked and answered of tape sheets.

use assess::MeasuredSite;
use casefile::{
    AsymmetryEntry, ChangeEntry, CsvColumn, CsvUnit, FoldEntry, Problem, SkinfoldEntry, TapeEntry, Warning,
};
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use units::{Side, SiteId};
use utoipa::ToSchema;

/// A CSV file to be read as a tape sheet.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ReadCsv {
    /// The file.
    pub text: String,
    /// What each column holds, when the coach has matched them.
    #[serde(default)]
    pub columns: Option<Vec<CsvColumn>>,
    /// The unit of rows that name none.
    #[serde(default)]
    pub unit: CsvUnit,
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
    pub sites: Vec<MeasuredSite>,
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
