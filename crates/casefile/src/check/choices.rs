//! What the coach chose on the verdict.

use super::Checker;
use crate::problem::{Problem, unknown};
use crate::raw::ChoicesEntry;
use assess::{AREA_SITES, Choices, Override, Standing};
use atlas::Atlas;
use units::{Place, RegionId, SiteId};

/// Checks choices on their own. `at` is their pointer.
///
/// # Errors
/// All problems.
pub fn check_choices(atlas: &Atlas, at: &Place, entry: &ChoicesEntry) -> Result<Choices, Vec<Problem>> {
    let mut check = Checker::new(atlas);
    let choices = resolve(&mut check, at, entry);
    if check.problems.is_empty() { Ok(choices) } else { Err(check.problems) }
}

pub(super) fn resolve(check: &mut Checker, at: &Place, entry: &ChoicesEntry) -> Choices {
    let bring_up = regions(check, &at.at("bring_up"), &entry.bring_up);
    let hold_back = regions(check, &at.at("hold_back"), &entry.hold_back);
    let areas = areas(check, &at.at("areas"), &entry.areas);
    let count = entry.bring_up.len() + entry.areas.len();
    if count > Choices::MAX_BRING_UP {
        let says = format!("{count} regions and parts to bring up: expected at most {}", Choices::MAX_BRING_UP);
        check.fail::<()>(at.at("bring_up"), says);
    }
    for (i, region) in entry.hold_back.iter().enumerate() {
        if entry.bring_up.contains(region) {
            check.fail::<()>(at.at("hold_back").at(i), format!("{region} is also chosen to be brought up"));
        }
    }
    let overrides = entry.overrides.iter().enumerate().filter_map(|(i, entry)| {
        let at = at.at("overrides").at(i);
        if entry.reason.trim().is_empty() {
            check.fail::<()>(at.at("reason"), "an overruled verdict needs a reason");
        }
        if matches!(entry.verdict, Standing::LeansBehind | Standing::LeansAhead) {
            check.fail::<()>(at.at("verdict"), "a coach's verdict is one of behind, level, ahead, unclear");
        }
        let region = check.region(&at.at("region"), &entry.region)?;
        Some(Override { region, verdict: entry.verdict, reason: entry.reason.trim().to_owned() })
    });
    let overrides = overrides.collect();
    Choices { bring_up, areas, hold_back, overrides, share: entry.share.iter().copied().collect() }
}

fn regions(check: &mut Checker, at: &Place, ids: &[String]) -> Vec<RegionId> {
    let mut resolved = Vec::new();
    for (i, id) in ids.iter().enumerate() {
        let at = at.at(i);
        let Some(region) = check.region(&at, id) else { continue };
        if resolved.contains(&region) {
            check.fail::<()>(at, format!("{id} stands twice"));
        } else {
            resolved.push(region);
        }
    }
    resolved
}

fn areas(check: &mut Checker, at: &Place, ids: &[String]) -> Vec<SiteId> {
    let mut resolved: Vec<SiteId> = Vec::new();
    for (i, id) in ids.iter().enumerate() {
        let at = at.at(i);
        let known = AREA_SITES.iter().find(|known| *known == id).and_then(|known| known.parse().ok());
        match known {
            Some(area) if resolved.contains(&area) => {
                check.fail::<()>(at, format!("{id} stands twice"));
            }
            Some(area) => resolved.push(area),
            None => {
                check.fail::<()>(at, unknown("part of the body", id, AREA_SITES.into_iter()));
            }
        }
    }
    resolved
}
