//! Reads the data files that ship inside the binary.

use crate::compose::stands;
use crate::{
    Atlas, CauseText, Equipment, Exercise, Kit, LoadStep, Look, Opposite, Pairing, PartRule, Pose, ReadinessQuestion,
    Region, Scheme, School, Screen, SetUpField, Setting, Site, SkinfoldSite, Variant, WarmUpMove,
};
use serde::Deserialize;
use serde::de::DeserializeOwned;
use std::collections::BTreeMap;
use units::{EquipmentId, ExerciseId, RegionId};

/// Why the shipped data cannot be used.
#[derive(Debug, thiserror::Error)]
pub enum AtlasError {
    /// A file is not valid TOML of its shape.
    #[error("atlas file {file}: {source}")]
    Parse {
        /// The file.
        file: &'static str,
        /// What is wrong with it.
        source: Box<toml::de::Error>,
    },
    /// An entry breaks a rule or names something that does not exist.
    #[error("atlas: {0}")]
    Inconsistent(String),
}

macro_rules! data {
    ($name:literal) => {
        ($name, include_str!(concat!("../data/", $name)))
    };
}

const EXERCISES: [(&str, &str); 9] = [
    data!("exercises/delts.toml"),
    data!("exercises/chest.toml"),
    data!("exercises/back.toml"),
    data!("exercises/biceps.toml"),
    data!("exercises/triceps.toml"),
    data!("exercises/forearms.toml"),
    data!("exercises/legs-trunk-neck.toml"),
    data!("exercises/home.toml"),
    data!("exercises/more.toml"),
];

fn parse<T: DeserializeOwned>((file, text): (&'static str, &str)) -> Result<T, AtlasError> {
    toml::from_str(text).map_err(|source| AtlasError::Parse { file, source: Box::new(source) })
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct Regions {
    region: Vec<Region>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct Sites {
    site: Vec<Site>,
    skinfold: Vec<SkinfoldSite>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct Poses {
    pose: Vec<Pose>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct Looks {
    look: Vec<Look>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct EquipmentFile {
    item: Vec<Equipment>,
    kit: Vec<Kit>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct Schools {
    school: Vec<School>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct Causes {
    takes_over: BTreeMap<String, String>,
    cause: Vec<CauseText>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct Screens {
    screen: Vec<Screen>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct Readiness {
    question: Vec<ReadinessQuestion>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct Settings {
    setting: Vec<Setting>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct Schemes {
    part: Vec<PartRule>,
    scheme: Vec<Scheme>,
    pairing: Vec<Pairing>,
    step: Vec<LoadStep>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct Exercises {
    exercise: Vec<Exercise>,
}

/// A variant with the exercise it is of.
#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct VariantRow {
    exercise: ExerciseId,
    id: String,
    name: String,
    #[serde(default)]
    equipment_any: Vec<Vec<EquipmentId>>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct Variants {
    variant: Vec<VariantRow>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct WarmUps {
    #[serde(rename = "move")]
    moves: Vec<WarmUpMove>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct Opposites {
    opposite: Vec<Opposite>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct SetUps {
    number: Vec<SetUpField>,
}

fn with_variants(exercises: &mut [Exercise]) -> Result<(), AtlasError> {
    for row in parse::<Variants>(data!("variants.toml"))?.variant {
        let VariantRow { exercise, id, name, equipment_any } = row;
        let of = exercises.iter_mut().find(|other| other.id == exercise);
        let of = of.ok_or_else(|| AtlasError::Inconsistent(format!("variants: no exercise {exercise}")))?;
        of.variants.push(Variant { id, name, equipment_any });
    }
    Ok(())
}

pub(crate) fn read() -> Result<Atlas, AtlasError> {
    let regions = parse::<Regions>(data!("regions.toml"))?.region;
    let sites: Sites = parse(data!("sites.toml"))?;
    let equipment: EquipmentFile = parse(data!("equipment.toml"))?;
    let schemes: Schemes = parse(data!("schemes.toml"))?;
    let causes: Causes = parse(data!("causes.toml"))?;
    let mut exercises = Vec::new();
    for file in EXERCISES {
        exercises.extend(parse::<Exercises>(file)?.exercise);
    }
    with_variants(&mut exercises)?;
    let schools = parse::<Schools>(data!("schools.toml"))?.school;
    let opposites = parse::<Opposites>(data!("opposites.toml"))?.opposite;
    let own = exercises.iter().flat_map(|exercise| std::iter::once(&exercise.set_up).chain(&exercise.cues));
    let cues = schools.iter().flat_map(|school| &school.options).flat_map(|option| &option.cues).map(|cue| &cue.says);
    let stands = stands(&opposites, own.chain(cues)).collect();
    Ok(Atlas {
        region_index: regions.iter().enumerate().map(|(i, region)| (region.id.clone(), i)).collect(),
        regions,
        sites: sites.site,
        skinfolds: sites.skinfold,
        poses: parse::<Poses>(data!("poses.toml"))?.pose,
        looks: parse::<Looks>(data!("looks.toml"))?.look,
        equipment: equipment.item,
        kits: equipment.kit,
        exercise_index: exercises.iter().enumerate().map(|(i, exercise)| (exercise.id.clone(), i)).collect(),
        exercises_by_region: by_region(&exercises),
        exercises,
        schools,
        evidence: parse(data!("evidence.toml"))?,
        planning: parse(data!("planning.toml"))?,
        ideals: parse(data!("ideals.toml"))?,
        screens: parse::<Screens>(data!("screens.toml"))?.screen,
        readiness: parse::<Readiness>(data!("readiness.toml"))?.question,
        settings: parse::<Settings>(data!("settings.toml"))?.setting,
        set_up_fields: parse::<SetUps>(data!("set_up.toml"))?.number,
        warm_ups: parse::<WarmUps>(data!("warm_ups.toml"))?.moves,
        opposites,
        stands,
        part_rules: schemes.part,
        schemes: schemes.scheme,
        pairings: schemes.pairing,
        steps: schemes.step,
        takes_over: causes.takes_over,
        causes: causes.cause,
    })
}

fn by_region(exercises: &[Exercise]) -> BTreeMap<RegionId, Vec<usize>> {
    let mut index: BTreeMap<RegionId, Vec<usize>> = BTreeMap::new();
    for (i, exercise) in exercises.iter().enumerate() {
        for region in exercise.targets.keys().filter(|region| exercise.trains(region)) {
            index.entry(region.clone()).or_default().push(i);
        }
    }
    index
}
