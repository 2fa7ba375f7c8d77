//! What a practice sets: known schools and numbers, bounds within which the model makes sense, shares that add to 1.

use super::Checker;
use super::client::schools;
use crate::problem::{Problem, unknown};
use crate::raw::PracticeEntry;
use atlas::{Atlas, Exercise, PracticeSettings, Setting};
use std::collections::BTreeMap;
use units::{Place, RegionId, SiteId};

/// Shares are typed in hundredths.
const ROUNDING: f64 = 0.005;

/// Checks a practice's settings. `at` is their pointer; `atlas` is what ships.
///
/// # Errors
/// All problems.
pub fn check_practice(atlas: &Atlas, at: &Place, entry: &PracticeEntry) -> Result<PracticeSettings, Vec<Problem>> {
    let mut check = Checker::new(atlas);
    let settings = resolve(&mut check, at, entry);
    if check.problems.is_empty() { Ok(settings) } else { Err(check.problems) }
}

pub(super) fn resolve(check: &mut Checker, at: &Place, entry: &PracticeEntry) -> PracticeSettings {
    let schools = schools(check, &at.at("schools"), &entry.schools);
    let mut numbers = BTreeMap::new();
    for (id, value) in &entry.numbers {
        let at = at.at("numbers").at(id);
        let known = |setting: &&Setting| setting.id == *id || setting.was.as_ref() == Some(id);
        let Some(setting) = check.atlas.settings().iter().find(known) else {
            let says = unknown("setting", id, check.atlas.settings().iter().map(|setting| setting.id.as_str()));
            check.fail::<()>(at, says);
            continue;
        };
        let name = setting.name.to_lowercase();
        if setting.whole && value.fract() != 0.0 {
            check.fail::<()>(at.clone(), format!("{name} of {value} is no whole number"));
        }
        check.number(&at, &format!("{name} of"), *value, setting.bounds, "");
        numbers.insert(setting.id.clone(), *value);
    }
    let rows = entry.composition.iter();
    let composition = rows.filter_map(|(site, row)| shares(check, &at.at("composition").at(site), site, row));
    let composition = composition.collect();
    own_exercises(check, &at.at("exercises"), &entry.exercises);
    PracticeSettings { schools, numbers, composition, exercises: entry.exercises.clone() }
}

/// Own exercises keep the rules of those that ship and take no name of theirs.
fn own_exercises(check: &mut Checker, at: &Place, exercises: &[Exercise]) {
    for (place, exercise) in exercises.iter().enumerate() {
        let at = at.at(place);
        let twice = exercises[..place].iter().any(|other| other.id == exercise.id);
        if twice || check.atlas.exercise(&exercise.id).is_some() {
            check.fail::<()>(at.at("id"), format!("there is an exercise {} already", exercise.id));
        }
        for problem in check.atlas.problems_of(exercise) {
            check.fail::<()>(at.at(problem.field), problem.says);
        }
    }
}

/// A row, scaled to add to 1 exactly once it does to the hundredth.
fn shares(
    check: &mut Checker,
    at: &Place,
    id: &str,
    row: &BTreeMap<String, f64>,
) -> Option<(SiteId, BTreeMap<RegionId, f64>)> {
    let rows = &check.atlas.evidence().composition;
    let Some(site) = id.parse::<SiteId>().ok().filter(|site| rows.contains_key(site)) else {
        let says = unknown("girth with shares", id, rows.keys().map(SiteId::as_str));
        return check.fail(at, says);
    };
    let mut resolved = BTreeMap::new();
    for (region, share) in row {
        let at = at.at(region);
        let known = check.region(&at, region);
        let share = check.number(&at, "a share of", *share, [0.0, 1.0], "");
        resolved.extend(known.zip(share));
    }
    let total: f64 = row.values().sum();
    if (total - 1.0).abs() > ROUNDING {
        return check.fail(at, format!("the shares of {site} add to {total:.2}: expected 1"));
    }
    for share in resolved.values_mut() {
        *share /= total;
    }
    Some((site, resolved))
}
