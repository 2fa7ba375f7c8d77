//! JSON Schemas of the open files, generated from their types.

use crate::{AssessmentFile, CaseFile, Catalogue, LogEntry, PlanFile};
use schemars::{Schema, schema_for};

/// Every format's name and schema, as committed under `docs/schema/`.
pub fn schemas() -> Vec<(&'static str, Schema)> {
    vec![
        ("orthomer-case", schema_for!(CaseFile)),
        ("orthomer-assessment", schema_for!(AssessmentFile)),
        ("orthomer-plan", schema_for!(PlanFile)),
        ("orthomer-catalogue", schema_for!(Catalogue)),
        ("orthomer-log-entry", schema_for!(LogEntry)),
    ]
}
