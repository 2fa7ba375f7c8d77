//! What the coach chose on the verdict.

use super::Checker;
use crate::problem::Problem;
use crate::raw::ChoicesEntry;
use assess::{Choices, Override, Standing};
use atlas::Atlas;
use units::RegionId;

/// Checks choices on their own. `at` is their pointer.
///
/// # Errors
/// All problems.
pub fn check_choices(atlas: &Atlas, at: &str, entry: &ChoicesEntry) -> Result<Choices, Vec<Problem>> {
    let mut check = Checker::new(atlas);
    let choices = resolve(&mut check, at, entry);
    if check.problems.is_empty() { Ok(choices) } else { Err(check.problems) }
}

pub(super) fn resolve(check: &mut Checker, at: &str, entry: &ChoicesEntry) -> Choices {
    let bring_up = regions(check, &format!("{at}/bring_up"), &entry.bring_up);
    let hold_back = regions(check, &format!("{at}/hold_back"), &entry.hold_back);
    if entry.bring_up.len() > Choices::MAX_BRING_UP {
        let says = format!("{} regions to bring up: expected at most {}", entry.bring_up.len(), Choices::MAX_BRING_UP);
        check.fail::<()>(format!("{at}/bring_up"), says);
    }
    for (i, region) in entry.hold_back.iter().enumerate() {
        if entry.bring_up.contains(region) {
            check.fail::<()>(format!("{at}/hold_back/{i}"), format!("{region} is also chosen to be brought up"));
        }
    }
    let overrides = entry.overrides.iter().enumerate().filter_map(|(i, entry)| {
        let at = format!("{at}/overrides/{i}");
        if entry.reason.trim().is_empty() {
            check.fail::<()>(format!("{at}/reason"), "an overruled verdict needs a reason");
        }
        if matches!(entry.verdict, Standing::LeansBehind | Standing::LeansAhead) {
            check.fail::<()>(format!("{at}/verdict"), "a coach's verdict is one of behind, level, ahead, unclear");
        }
        let region = check.region(&format!("{at}/region"), &entry.region)?;
        Some(Override { region, verdict: entry.verdict, reason: entry.reason.trim().to_owned() })
    });
    let overrides = overrides.collect();
    Choices { bring_up, hold_back, overrides, share: entry.share.iter().copied().collect() }
}

fn regions(check: &mut Checker, at: &str, ids: &[String]) -> Vec<RegionId> {
    let mut resolved = Vec::new();
    for (i, id) in ids.iter().enumerate() {
        let at = format!("{at}/{i}");
        let Some(region) = check.region(&at, id) else { continue };
        if resolved.contains(&region) {
            check.fail::<()>(at, format!("{id} stands twice"));
        } else {
            resolved.push(region);
        }
    }
    resolved
}
