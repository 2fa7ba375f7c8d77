//! The open files: case in, assessment, plan and catalogue out. Their types, their rules, their schemas.
//!
//! Raw types mirror the files; [`CaseFile::resolve`] turns a case into the core's own types or says, place by place, what is
//! wrong. The server checks what a coach types with the same rules ([`check_tape`], [`check_client`]).

mod assessment;
mod catalogue;
mod check;
mod export;
mod plan_file;
mod problem;
mod raw;
mod schema;
mod warning;

pub use assessment::{
    AssessmentFile, AsymmetryEntry, BulkEntry, CauseEntry, ChangeEntry, CompositionEntry, ConflictEntry,
    CorrectedEntry, EstimateEntry, FlagEntry, FoldEntry, HangEntry, NextEntry, ObservationEntry, PieceEntry,
    ReferenceEntry, RegionEntry, SchoolSizeEntry, SideEntry, SidesDisagreeEntry, SiteEntry, SizedEntry,
    StrengthSidesEntry, VoiceEntry, assessment_file,
};
pub use catalogue::{Catalogue, CatalogueExercise, CataloguePose, CatalogueRegion, catalogue};
pub use check::{check_choices, check_client, check_rating, check_tape};
pub use export::case_file;
pub use plan_file::{BlockedEntry, ItemEntry, LedgerEntry, PlanFile, SessionEntry, plan_file};
pub use problem::Problem;
pub use raw::{
    CaseFile, ChoicesEntry, ClientEntry, ConsentEntry, OutlineEntry, OverrideEntry, RatingEntry, RoundEntry,
    SkinfoldEntry, StrengthEntry, TapeEntry, TestEntry, TrainingRow, parse_json,
};
pub use schema::schemas;
pub use warning::{Warning, warnings};
