//! Why a region lags: one rule per cause, each with what was seen. Several can hold; none is invented where
//! nothing is known. Common practice, no source.

mod feel;
mod history;
mod load;
mod order;
mod range;
mod work;

pub(crate) use history::LONG_WEEKS;

use crate::change::Change;
use crate::input::Case;
use crate::training::Recent;
use crate::verdict::{RegionVerdict, Standing, Tilt};
use atlas::{Atlas, Region};

/// A cause that holds.
#[derive(Clone, Debug, PartialEq)]
pub struct Cause {
    /// Stable id, such as `too-little-work`.
    pub id: &'static str,
    /// What a coach calls it.
    pub name: String,
    /// What was seen.
    pub seen: String,
    /// What to do.
    pub advice: String,
}

/// Everything a rule may look at.
pub(crate) struct Question<'a> {
    pub atlas: &'a Atlas,
    pub case: &'a Case,
    pub region: &'a Region,
    pub verdict: &'a RegionVerdict,
    /// The last four weeks, when known.
    pub recent: Option<&'a Recent<'a>>,
    /// The weeks over which plenty of work should have shown, when known.
    pub long: Option<&'a Recent<'a>>,
    /// Since the round before.
    pub changes: &'a [Change],
}

/// What one rule has seen, and under which id it is a cause.
type Rule = fn(&Question) -> Option<(&'static str, String)>;

const RULES: [Rule; 11] = [
    work::too_little,
    work::wrong_line_of_pull,
    work::never_loaded_stretched,
    order::last_in_session,
    feel::neighbour_takes_over,
    feel::not_felt,
    load::only_both_sides,
    range::joint_cannot_get_there,
    load::too_heavy,
    history::plenty_without_change,
    work::overfed_neighbour,
];

/// The causes of a region's lag or lean. Regions that are neither behind, nor chosen, nor uneven are not asked about.
pub(crate) fn causes(question: &Question) -> Vec<Cause> {
    let lags = question.verdict.standing() == Standing::Behind || question.case.choices.brings_up(question.region);
    if !lags && !question.leans() {
        return Vec::new();
    }
    let found = RULES.iter().filter_map(|rule| rule(question));
    // A lean alone is explained by how the sides were trained, not by what makes a region small.
    let told = found.filter(|(id, _)| lags || *id == load::ONLY_BOTH_SIDES);
    told.filter_map(|(id, seen)| {
        let text = question.atlas.cause(id)?;
        Some(Cause { id, name: text.name.clone(), seen, advice: text.advice.clone() })
    })
    .collect()
}

impl Question<'_> {
    /// Whether one side is smaller by more than the practical threshold.
    fn leans(&self) -> bool {
        self.verdict.asymmetry.is_some_and(|a| matches!(a.tilt, Tilt::LeftSmaller | Tilt::RightSmaller))
    }

    /// What a region or named takeover is called in a sentence.
    fn called(&self, id: &str) -> String {
        let region = self.atlas.regions().iter().find(|r| r.id.as_str() == id).map(|r| r.name.to_lowercase());
        region.or_else(|| self.atlas.named_takeover(id).map(str::to_owned)).unwrap_or_else(|| id.to_owned())
    }
}
