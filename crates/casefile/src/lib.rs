//! The open files: case in, assessment, plan and catalogue out. Their types, their rules, their schemas.
//!
//! Raw types mirror the files; [`CaseFile::resolve`] turns a case into the core's own types or says, place by place, what is
//! wrong. The server checks what a coach types with the same rules ([`check_tape`], [`check_client`]).

#![warn(clippy::missing_errors_doc)]

mod assessment;
mod catalogue;
mod check;
mod export;
mod item_entry;
mod log_entry;
mod plan_file;
mod problem;
mod raw;
mod schema;
mod tape_csv;
mod text;
mod usual_week;
mod warning;
mod week_draft;
mod written;

pub use assessment::{
    AreaEntry, AssessmentFile, AsymmetryEntry, BulkEntry, CauseEntry, ChangeEntry, CompositionEntry, ConflictEntry,
    CorrectedEntry, EstimateEntry, FlagEntry, FoldEntry, HangEntry, MuscularityEntry, NextEntry, ObservationEntry,
    PicturedEntry, PieceEntry, ReferenceEntry, RegionEntry, SchoolSizeEntry, SideEntry, SidesDisagreeEntry,
    SidesPriorEntry, SizedEntry, StrengthSidesEntry, TapeJointEntry, VoiceEntry, assessment_file,
};
pub use catalogue::{Catalogue, CatalogueExercise, CataloguePose, CatalogueRegion, catalogue};
pub use check::{
    check_choices, check_client, check_levels, check_practice, check_rating, check_set_up, check_skinfolds, check_tape,
    check_tests, check_training, check_weight, stored_client,
};
pub use export::case_file;
pub use item_entry::ItemEntry;
pub use log_entry::{LogEntry, LogPain, LogPart, LogSet, LogSetPart, check_log_entry};
pub use plan_file::{
    BlockWeekEntry, BlockedEntry, LadderEntry, LedgerEntry, PlanFile, RungEntry, SessionEntry, plan_file,
};
pub use problem::Problem;
pub use raw::{
    CaseFile, ChoicesEntry, ClearanceEntry, ClientEntry, ConsentEntry, HomeEntry, OutlineEntry, OverrideEntry,
    PictureGirthEntry, PracticeEntry, RatingEntry, ReadinessEntry, RoundEntry, SkinfoldEntry, StrengthEntry, TapeEntry,
    TestEntry, TrainingRow, parse_json,
};
pub use schema::schemas;
pub use tape_csv::{CsvColumn, CsvPreview, CsvRow, CsvUnit, tape_csv};
pub use text::{csv_cell, is_one_line};
pub use usual_week::{UsualExercise, UsualWeek};
pub use warning::{Warning, warnings};
pub use week_draft::{CardDraft, CheckedWeek, DayDraft, WeekDraft, check_week, check_week_name, week_draft};
