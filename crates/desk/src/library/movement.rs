//! The movement behind an exercise: who works, and its picture.

use crate::desk::Desk;
use crate::error::{DeskError, invalid};
use assess::Knowledge;
use atlas::{Atlas, Exercise, SidesUse};
use levers::{Drawing, Levers, Movement, Reach, RegionWork, SetUpNumber, Wanted, best, draw, levers, with};
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use std::sync::LazyLock;
use store::Store;
use units::{ClientId, Sides};
use utoipa::{IntoParams, ToSchema};

/// A set-up and a place in the range.
#[derive(Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub struct LeversQuery {
    /// Numbers of the set-up, `name:value` with commas between.
    #[serde(default)]
    pub set: String,
    /// Where in the range the figure is drawn: 0 at the start, 1 at the end.
    #[serde(default = "at_the_end")]
    pub at: f64,
    /// The region tinted; what the exercise is for when none is given.
    pub tint: Option<String>,
    /// A client's id: what the set-up asks beyond their range of motion is said.
    pub client: Option<ClientId>,
}

fn at_the_end() -> f64 {
    1.0
}

/// What a set-up is looked for.
#[derive(Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum LoadedBy {
    /// The most of the work.
    Most,
    /// The most load while long.
    Longest,
}

/// For which region a set-up is looked for.
#[derive(Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub struct BestQuery {
    /// The region.
    pub region: String,
    /// By what.
    #[param(inline)]
    pub by: LoadedBy,
    /// A client's id: within their range of motion, where that is known.
    pub client: Option<ClientId>,
}

/// Who works along a movement in a set-up, with the figure at one place of its range.
#[derive(Serialize, ToSchema)]
pub struct LeversView {
    exercise: String,
    /// Whether muscles are worked out.
    modelled: bool,
    /// What to know about the answer, a sentence each.
    says: Vec<String>,
    /// Numbers of the set-up; those that may be turned.
    set_up: Vec<SetUpNumber>,
    /// Regions, hardest worked first.
    regions: Vec<RegionWork>,
    /// Torque to hold along the range, Nm, by joint of the model.
    torque_nm: BTreeMap<String, Vec<f64>>,
    /// The figure as SVG: its start pale, in ink where it is.
    figure: String,
}

impl LeversView {
    fn of(found: Levers, figure: String) -> Self {
        let mut torque_nm: BTreeMap<String, Vec<f64>> = BTreeMap::new();
        for point in &found.range {
            for (joint, nm) in &point.torque_nm {
                torque_nm.entry(joint.clone()).or_default().push(*nm);
            }
        }
        let Levers { exercise, set_up, modelled, says, regions, .. } = found;
        Self { exercise, modelled, says, set_up, regions, torque_nm, figure }
    }
}

impl Desk {
    /// Who works along a movement in a set-up.
    pub fn levers(&self, exercise: &str, asked: &LeversQuery) -> Result<LeversView, DeskError> {
        let knowledge = &*self.knowledge();
        let (exercise, own) = known(knowledge, exercise)?;
        let reach = reach_of(&self.store, knowledge, asked.client.as_ref())?;
        if !(0.0..=1.0).contains(&asked.at) {
            return Err(invalid("/at", format!("{} is outside 0 to 1", asked.at)));
        }
        if let Some(region) = &asked.tint {
            known_region(knowledge, "/tint", region)?;
        }
        let movement = with(own, &numbers(&asked.set)?).map_err(|error| invalid("/set", error.to_string()))?;
        let figure = drawn(exercise, &movement, asked.at, asked.tint.as_deref());
        let mut found = levers(exercise, &movement, own);
        let beyond = reach.says(&found.range);
        found.says.extend(beyond);
        Ok(LeversView::of(found, figure))
    }

    /// The set-up that loads a region most, or most while it is long.
    pub fn best_set_up(&self, exercise: &str, asked: &BestQuery) -> Result<LeversView, DeskError> {
        let knowledge = &*self.knowledge();
        let (exercise, own) = known(knowledge, exercise)?;
        let reach = reach_of(&self.store, knowledge, asked.client.as_ref())?;
        known_region(knowledge, "/region", &asked.region)?;
        let wanted = match asked.by {
            LoadedBy::Most => Wanted::Most,
            LoadedBy::Longest => Wanted::Longest,
        };
        let (numbers, found) = best(exercise, own, &asked.region, wanted, reach).map_err(DeskError::internal)?;
        let numbers: Vec<(String, f64)> = numbers.into_iter().map(|number| (number.name, number.value)).collect();
        let movement = with(own, &numbers).map_err(DeskError::internal)?;
        Ok(LeversView::of(found, drawn(exercise, &movement, 1.0, Some(&asked.region))))
    }
}

/// What ships: pictures of it are everybody's.
static SHIPPED: LazyLock<Option<Atlas>> = LazyLock::new(|| Atlas::load().ok());

/// The picture of an exercise or warm-up of the catalogue that ships, as SVG: start and end. It says nothing of anybody, so that a client's
/// page and a print may have it too.
///
/// # Errors
/// [`DeskError::NotFound`] when nothing shipped is called so.
pub fn picture(id: &str) -> Result<String, DeskError> {
    let missing = || DeskError::NotFound("There is no picture of this exercise.".to_owned());
    let atlas = SHIPPED.as_ref().ok_or_else(missing)?;
    if let Some(movement) = Movement::of_move(id) {
        let name = atlas.warm_ups().iter().find(|one| one.picture == id).map_or("", |one| one.name.as_str());
        return Ok(draw(movement, &Drawing { shares: &[0.0, 1.0], tinted: &[], one_sided: false, title: name }));
    }
    let exercise = atlas.exercises().iter().find(|one| one.id.as_str() == id).ok_or_else(missing)?;
    Ok(drawn(exercise, Movement::of(id).ok_or_else(missing)?, 1.0, None))
}

/// How far a client's joints go on the lesser side; of nobody nothing is known.
fn reach_of(store: &Store, knowledge: &Knowledge, client: Option<&ClientId>) -> Result<Reach, DeskError> {
    let Some(id) = client else { return Ok(Reach::default()) };
    let screens = store.client(&knowledge.atlas, id)?.client.screens;
    let lesser = |sides: Option<Sides<f64>>| sides.map(|sides| sides.left.min(sides.right));
    Ok(Reach {
        shoulder_extension: lesser(screens.shoulder_extension_deg),
        shoulder_flexion: lesser(screens.shoulder_flexion_deg),
        ankle_dorsiflexion: lesser(screens.ankle_dorsiflexion_deg),
        hip_flexion: lesser(screens.hip_flexion_deg),
    })
}

/// An exercise with its movement; the practice's own have none.
fn known<'a>(knowledge: &'a Knowledge, id: &str) -> Result<(&'a Exercise, &'static Movement), DeskError> {
    let exercise = id.parse().ok().and_then(|id| knowledge.atlas.exercise(&id));
    let exercise = exercise.ok_or_else(|| DeskError::NotFound("There is no such exercise.".to_owned()))?;
    let movement = Movement::of(exercise.id.as_str())
        .ok_or_else(|| DeskError::NotFound("This exercise has no movement yet.".to_owned()))?;
    Ok((exercise, movement))
}

fn numbers(set: &str) -> Result<Vec<(String, f64)>, DeskError> {
    let number = |text: &str| {
        let (name, value) = text.split_once(':')?;
        Some((name.to_owned(), value.parse().ok()?))
    };
    let wrong = |text: &str| invalid("/set", format!("{text:?} is no name:value with a number"));
    set.split(',').filter(|text| !text.is_empty()).map(|text| number(text).ok_or_else(|| wrong(text))).collect()
}

/// A region of the atlas; another is refused, or it would quietly stand for none.
fn known_region(knowledge: &Knowledge, place: &str, region: &str) -> Result<(), DeskError> {
    let there = knowledge.atlas.regions().iter().any(|known| known.id.as_str() == region);
    if there { Ok(()) } else { Err(invalid(place, format!("there is no region {region:?}"))) }
}

fn drawn(exercise: &Exercise, movement: &Movement, at: f64, tint: Option<&str>) -> String {
    let main = exercise.targets.iter().filter(|(_, fraction)| **fraction >= 1.0).map(|(region, _)| region.as_str());
    let tinted: Vec<&str> = tint.map_or_else(|| main.collect(), |region| vec![region]);
    let one_sided = exercise.sides == SidesUse::One;
    draw(movement, &Drawing { shares: &[0.0, at], tinted: &tinted, one_sided, title: &exercise.name })
}
