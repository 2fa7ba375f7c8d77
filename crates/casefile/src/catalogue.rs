//! The catalogue file: regions and exercises.

use atlas::{
    Atlas, Avoid, Effort, Exercise, Fault, Hardest, Look, Movement, Part, Pose, Region, School, Screen, SidesUse,
    Variant,
};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use units::{EquipmentId, ExerciseId, PoseId, RegionId, SiteId};
use utoipa::ToSchema;

/// All regions and exercises.
#[derive(Clone, Debug, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct Catalogue {
    /// Regions.
    pub regions: Vec<CatalogueRegion>,
    /// Exercises.
    pub exercises: Vec<CatalogueExercise>,
    /// Poses.
    pub poses: Vec<CataloguePose>,
    /// Looks.
    pub looks: Vec<Look>,
    /// The questions on which coaches disagree.
    pub schools: Vec<School>,
    /// Ranges of motion that are screened.
    pub screens: Vec<Screen>,
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
    /// The big part it belongs to.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub part: Option<Part>,
    /// The girth site whose tape speaks for it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub area: Option<SiteId>,
    /// What it does in several ways, each to be trained when it is brought up.
    pub actions: Vec<String>,
    /// Poses that show it.
    pub poses: Vec<PoseId>,
    /// What it does.
    pub action: String,
    /// Why it often lags.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lags_because: Option<String>,
    /// Regions or named causes that tend to take its work over.
    pub taken_over_by: Vec<String>,
}

/// A pose.
#[derive(Clone, Debug, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct CataloguePose {
    /// Stable id.
    pub id: PoseId,
    /// What a coach calls it.
    pub name: String,
    /// The regions it shows.
    pub shows: Vec<RegionId>,
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
    /// Lists of kit, any of which suffices: `equipment` first, then that of its variants.
    pub equipment_any: Vec<Vec<EquipmentId>>,
    /// Its grips, paths, stations and other kit.
    pub variants: Vec<Variant>,
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
    /// How tiring it is.
    pub effort: Effort,
    /// Joints that carry load, the most loaded first.
    pub loads_joint: Vec<String>,
    /// Load on each joint: 1 some, 2 clear, 3 heavy.
    pub joints: BTreeMap<String, u8>,
    /// Load along the spine, 0 to 3.
    pub axial: f64,
    /// What kind of movement it is.
    pub movement: Movement,
    /// 0 anyone, 1 after being shown, 2 technical.
    pub skill: u8,
    /// Made of lowering under high tension.
    pub eccentric: bool,
    /// How easy it is on joints and even to lift, 0 to 2.
    pub comfort: u8,
    /// How small its steps up are, 0 to 2.
    pub steps: u8,
    /// The set scheme it is usually done with.
    pub usual_scheme: String,
    /// Actions of its main regions that it covers.
    pub actions: Vec<String>,
    /// Why it is never proposed.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub advised_against: Option<String>,
    /// How to get into position.
    pub set_up: String,
    /// What to say to the client.
    pub cues: Vec<String>,
    /// What goes wrong.
    pub faults: Vec<Fault>,
    /// What to take care of.
    pub cautions: Vec<String>,
    /// When it is refused.
    pub avoid: Avoid,
    /// What can stand in for it, closest first.
    pub substitutes: Vec<ExerciseId>,
}

/// The catalogue of an atlas.
pub fn catalogue(atlas: &Atlas) -> Catalogue {
    Catalogue {
        regions: atlas.regions().iter().map(region).collect(),
        exercises: atlas.exercises().iter().map(|e| exercise(atlas, e)).collect(),
        poses: atlas.poses().iter().map(|p| pose(atlas, p)).collect(),
        looks: atlas.looks().to_vec(),
        schools: atlas.schools().to_vec(),
        screens: atlas.screens().to_vec(),
    }
}

fn region(region: &Region) -> CatalogueRegion {
    CatalogueRegion {
        id: region.id.clone(),
        name: region.name.clone(),
        muscle: region.id.muscle().to_owned(),
        paired: region.paired,
        part: region.part,
        area: region.area.clone(),
        actions: region.actions.clone(),
        poses: region.poses.clone(),
        action: region.action.clone(),
        lags_because: region.lags_because.clone(),
        taken_over_by: region.taken_over_by.clone(),
    }
}

fn pose(atlas: &Atlas, pose: &Pose) -> CataloguePose {
    let shown = atlas.regions().iter().filter(|region| region.poses.contains(&pose.id));
    CataloguePose { id: pose.id.clone(), name: pose.name.clone(), shows: shown.map(|r| r.id.clone()).collect() }
}

fn exercise(atlas: &Atlas, exercise: &Exercise) -> CatalogueExercise {
    let substitutes = atlas.substitutes(exercise);
    let loads_joint = exercise.loaded_joints();
    let exercise = exercise.clone();
    CatalogueExercise {
        id: exercise.id,
        name: exercise.name,
        family: exercise.family,
        equipment_any: std::iter::once(&exercise.equipment)
            .chain(exercise.variants.iter().flat_map(|variant| &variant.equipment_any))
            .cloned()
            .collect(),
        variants: exercise.variants,
        equipment: exercise.equipment,
        sides: exercise.sides,
        targets: exercise.targets,
        hardest: exercise.hardest,
        stretch: exercise.stretch,
        stability: exercise.stability,
        reps: exercise.reps,
        seconds: exercise.seconds,
        effort: exercise.effort,
        loads_joint,
        joints: exercise.joints,
        axial: exercise.axial,
        movement: exercise.movement,
        skill: exercise.skill,
        eccentric: exercise.eccentric,
        comfort: exercise.comfort,
        steps: exercise.steps,
        usual_scheme: exercise.usual_scheme,
        actions: exercise.actions,
        advised_against: exercise.advised_against,
        set_up: exercise.set_up,
        cues: exercise.cues,
        faults: exercise.faults,
        cautions: exercise.cautions,
        avoid: exercise.avoid,
        substitutes,
    }
}
