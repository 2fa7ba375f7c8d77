//! Whether the tape lay where it lay before: a centimetre up or down a limb changes a girth by more than its reading error.

use crate::input::Round;
use units::SiteId;

/// A tape level that moved since an earlier round.
#[derive(Clone, Debug, PartialEq)]
pub struct LevelShift {
    /// The site.
    pub site: SiteId,
    /// Level now, cm from the bony point.
    pub now_cm: f64,
    /// Level then, cm.
    pub then_cm: f64,
}

/// A level further off than this is another place (common practice, no source), cm.
const SAME_PLACE_CM: f64 = 0.5;

/// Sites whose level in the newest round is not that of the latest round before that noted one.
pub fn level_shifts(rounds: &[Round]) -> Vec<LevelShift> {
    let Some((newest, earlier)) = rounds.split_last() else { return Vec::new() };
    let shift = |(site, now): (&SiteId, &units::Length)| {
        let then = earlier.iter().rev().find_map(|round| round.levels.get(site))?;
        let moved = (now.cm() - then.cm()).abs() > SAME_PLACE_CM + 1e-9;
        moved.then(|| LevelShift { site: site.clone(), now_cm: now.cm(), then_cm: then.cm() })
    };
    newest.levels.iter().filter_map(shift).collect()
}
