//! The catalogue file: regions and exercises.

use atlas::{Atlas, Exercise, Fault, Hardest, Region, SidesUse};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use units::{EquipmentId, ExerciseId, PoseId, RegionId};
use utoipa::ToSchema;

/// All regions and exercises.
#[derive(Clone, Debug, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct Catalogue {
    /// Regions.
    pub regions: Vec<CatalogueRegion>,
    /// Exercises.
    pub exercises: Vec<CatalogueExercise>,
}

/// A region.
#[derive(Clone, Debug, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct CatalogueRegion {
    /// Stable id.
    pub id: RegionId,
    /// What a coach calls it.
    pub name: String,
    /// The muscle: the id before the dot.
    pub muscle: String,
    /// Whether it has a left and a right.
    pub paired: bool,
    /// Poses that show it.
    pub poses: Vec<PoseId>,
    /// What it does.
    pub action: String,
}

/// An exercise.
#[derive(Clone, Debug, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct CatalogueExercise {
    /// Stable id.
    pub id: ExerciseId,
    /// A plain description.
    pub name: String,
    /// Same plane, main region and hardest point.
    pub family: String,
    /// All of these are needed.
    pub equipment: Vec<EquipmentId>,
    /// One side at a time, both, or either.
    pub sides: SidesUse,
    /// Fraction of a set by region.
    pub targets: BTreeMap<RegionId, f64>,
    /// Where the load bites.
    pub hardest: Vec<Hardest>,
    /// 0 to 3.
    pub stretch: u8,
    /// 0 to 2.
    pub stability: u8,
    /// Repetitions, low and high.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub reps: Option<[u16; 2]>,
    /// Seconds, low and high.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub seconds: Option<[u16; 2]>,
    /// Joints that carry notable load.
    pub loads_joint: Vec<String>,
    /// What to say to the client.
    pub cues: Vec<String>,
    /// What goes wrong.
    pub faults: Vec<Fault>,
    /// What to take care of.
    pub cautions: Vec<String>,
}

/// The catalogue of an atlas.
pub fn catalogue(atlas: &Atlas) -> Catalogue {
    Catalogue {
        regions: atlas.regions().iter().map(region).collect(),
        exercises: atlas.exercises().iter().map(exercise).collect(),
    }
}

fn region(region: &Region) -> CatalogueRegion {
    CatalogueRegion {
        id: region.id.clone(),
        name: region.name.clone(),
        muscle: region.id.muscle().to_owned(),
        paired: region.paired,
        poses: region.poses.clone(),
        action: region.action.clone(),
    }
}

fn exercise(exercise: &Exercise) -> CatalogueExercise {
    let Exercise { id, name, family, equipment, targets, hardest, loads_joint, cues, faults, cautions, .. } =
        exercise.clone();
    CatalogueExercise {
        id,
        name,
        family,
        equipment,
        sides: exercise.sides,
        targets,
        hardest,
        stretch: exercise.stretch,
        stability: exercise.stability,
        reps: exercise.reps,
        seconds: exercise.seconds,
        loads_joint,
        cues,
        faults,
        cautions,
    }
}
