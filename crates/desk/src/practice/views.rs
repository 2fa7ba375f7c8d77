//! What is asked and answered of the practice: settings, measurers, what was done, preferences.

use crate::photos::AgreementView;
use assess::Calibration;
use atlas::{Exercise, Setting};
use casefile::PracticeEntry;
use roles::{Act, Role, Row};
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use units::{AnswerId, RegionId, SchoolId, SiteId};
use utoipa::ToSchema;

/// What the practice sets, beside what ships.
#[derive(Serialize, ToSchema)]
pub struct PracticeView {
    /// Grows with every save.
    pub revision: i32,
    /// Who saved last.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub saved_by: Option<String>,
    /// Whether whoever is signed in may change it.
    pub may_change: bool,
    /// What differs from what ships.
    pub settings: PracticeEntry,
    /// Every number that may be changed.
    pub numbers: Vec<SettingView>,
    /// The answers to schools that ship.
    pub shipped_schools: BTreeMap<SchoolId, AnswerId>,
    /// The shares of girths that ship.
    pub shipped_composition: BTreeMap<SiteId, BTreeMap<RegionId, f64>>,
    /// Who may do what.
    pub acts: Vec<ActView>,
}

/// A number of the evidence model.
#[derive(Serialize, ToSchema)]
pub struct SettingView {
    /// What it is.
    pub setting: Setting,
    /// The value that ships.
    pub shipped: f64,
    /// The practice's own.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub value: Option<f64>,
}

/// Settings to be saved.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SavePractice {
    /// The revision they were read at.
    pub revision: i32,
    /// What differs from what ships.
    pub settings: PracticeEntry,
}

/// A line of the table of who may do what.
#[derive(Serialize, ToSchema)]
pub struct ActView {
    /// What is done.
    pub act: Act,
    /// In words that follow "may".
    pub says: String,
    /// Who may.
    pub roles: Vec<Role>,
}

impl From<&Row> for ActView {
    fn from(row: &Row) -> Self {
        let roles = Role::ALL.into_iter().filter(|role| role.may(row.act)).collect();
        Self { act: row.act, says: row.says.to_owned(), roles }
    }
}

/// Something that was done, by whom and for whom; at most one line an hour for the same.
#[derive(Serialize, ToSchema)]
pub struct DeedView {
    /// When, RFC 3339.
    pub at: String,
    /// The person's name then; empty for a client by their link.
    pub name: String,
    /// What kind of thing.
    pub act: Act,
    /// The client it was for, while they are here.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub client_name: Option<String>,
}

/// How sure is sure: how often the words are right, and what each coach's ratings weigh.
#[derive(Serialize, ToSchema)]
pub struct AccuracyView {
    /// By simulation.
    pub calibration: Calibration,
    /// Everybody who works here, by name.
    pub raters: Vec<RaterView>,
}

/// What someone's ratings weigh.
#[derive(Serialize, ToSchema)]
pub struct RaterView {
    /// Display name.
    pub name: String,
    /// How far they agree with themselves and with the truth.
    pub agreement: AgreementView,
}

/// How well someone measures.
#[derive(Serialize, ToSchema)]
pub struct MeasurerView {
    /// As they signed the sheets.
    pub name: String,
    /// Technical error over all girths and breadths, pooled with the default, % of the value.
    pub tem_pct: f64,
    /// What is assumed of someone unknown, %.
    pub default_pct: f64,
    /// Pairs of readings behind it.
    pub pairs: f64,
    /// Error of finding a girth's place anew on another day, pooled with the default, % of the value.
    pub placing_pct: f64,
    /// Values beyond a straight line per client and site behind it.
    pub placing_values: f64,
    /// How far two measurers' girths of one body differ, all alike, % of the value; the same for everybody.
    pub hand_pct: f64,
    /// Pairs of rounds by two measurers behind that.
    pub hand_pairs: f64,
    /// By site, the most read first.
    pub sites: Vec<LearnedView>,
    /// As it was known after each day they measured.
    pub over_time: Vec<MeasuringPoint>,
}

/// What was learned at one site.
#[derive(Serialize, ToSchema)]
pub struct LearnedView {
    /// The site.
    pub site: SiteId,
    /// Whether it is a skinfold.
    pub fold: bool,
    /// Pooled with the default, % of the value.
    pub tem_pct: f64,
    /// The default, %.
    pub default_pct: f64,
    /// Pairs of readings.
    pub pairs: f64,
}

/// A measurer's error as it was known on a day.
#[derive(Serialize, ToSchema)]
pub struct MeasuringPoint {
    /// The day.
    pub date: String,
    /// Technical error, % of the value.
    pub tem_pct: f64,
    /// Pairs of readings up to then.
    pub pairs: f64,
}

/// The order in which someone tapes.
#[derive(Default, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TapeOrder {
    /// Sites in order.
    pub sites: Vec<String>,
    /// Sites that are not asked for; what is stored for them stays.
    pub left_out: Vec<String>,
}

/// An exercise of the practice's own.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SaveExercise {
    /// The revision of the practice's settings it was written at.
    pub revision: i32,
    /// The exercise; its id says whether it is a new one.
    pub exercise: Exercise,
}
