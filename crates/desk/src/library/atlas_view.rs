//! The knowledge the front end shows names and choices from.

use atlas::{
    Atlas, Equipment, Kit, Look, Pairing, PartRule, Pose, ReadinessQuestion, Region, Scheme, School, Screen,
    SetUpField, Site, SkinfoldSite,
};
use casefile::{CatalogueExercise, catalogue};
use serde::Serialize;
use std::collections::BTreeMap;
use units::{RegionId, SiteId};
use utoipa::ToSchema;

/// Everything the front end needs to name what it shows.
#[derive(Serialize, ToSchema)]
pub struct AtlasView {
    /// Regions.
    pub regions: Vec<Region>,
    /// Girths and breadths in taping order.
    pub sites: Vec<Site>,
    /// Skinfolds.
    pub skinfolds: Vec<SkinfoldSite>,
    /// Ranges of motion.
    pub screens: Vec<Screen>,
    /// Questions before training.
    pub readiness: Vec<ReadinessQuestion>,
    /// What can take over in an exercise and is no region, by id.
    pub takeovers: BTreeMap<String, String>,
    /// Poses.
    pub poses: Vec<Pose>,
    /// Looks.
    pub looks: Vec<Look>,
    /// Equipment.
    pub equipment: Vec<Equipment>,
    /// Named kits.
    pub kits: Vec<Kit>,
    /// Set schemes.
    pub schemes: Vec<Scheme>,
    /// What every kind of part of a set counts as and takes.
    pub part_rules: Vec<PartRule>,
    /// The numbers by which stations are set.
    pub set_up_fields: Vec<SetUpField>,
    /// What goes well one straight into the other.
    pub pairings: Vec<Pairing>,
    /// Schools.
    pub schools: Vec<School>,
    /// Areas of pain, and joints that carry load.
    pub areas: Vec<String>,
    /// Exercises.
    pub exercises: Vec<CatalogueExercise>,
    /// Share of a girth by region.
    pub composition: BTreeMap<SiteId, BTreeMap<RegionId, f64>>,
    /// Half-width of level, SD.
    pub level_half_width_sd: f64,
    /// Difference between girths of the sides worth acting on, %.
    pub act_threshold_pct: f64,
    /// Error of left against right in a photo outline, SD, %.
    pub outline_se_pct: f64,
    /// Readings further apart than this ask for a third, %.
    pub third_reading_pct: f64,
    /// The same for skinfolds, %.
    pub third_reading_fold_pct: f64,
}

impl AtlasView {
    pub(super) fn of(atlas: &Atlas) -> Self {
        let evidence = atlas.evidence();
        Self {
            regions: atlas.regions().to_vec(),
            sites: atlas.sites().to_vec(),
            skinfolds: atlas.skinfolds().to_vec(),
            screens: atlas.screens().to_vec(),
            readiness: atlas.readiness().to_vec(),
            takeovers: atlas.takeovers().clone(),
            poses: atlas.poses().to_vec(),
            looks: atlas.looks().to_vec(),
            equipment: atlas.equipment().to_vec(),
            kits: atlas.kits().to_vec(),
            schemes: atlas.schemes().to_vec(),
            part_rules: atlas.part_rules().to_vec(),
            set_up_fields: atlas.set_up_fields().to_vec(),
            pairings: atlas.pairings().to_vec(),
            schools: atlas.schools().to_vec(),
            areas: atlas.areas().iter().map(ToString::to_string).collect(),
            exercises: catalogue(atlas).exercises,
            composition: evidence.composition.clone(),
            level_half_width_sd: evidence.level_half_width_sd,
            act_threshold_pct: evidence.act_threshold_pct.girth,
            outline_se_pct: evidence.observation_sd.outline.hypot(evidence.width_repeatability_pct),
            third_reading_pct: evidence.error.third_reading_girth_pct,
            third_reading_fold_pct: evidence.error.third_reading_skinfold_pct,
        }
    }
}
