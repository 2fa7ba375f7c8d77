//! Where the tape, the breadth gauge and the calipers go.

use serde::{Deserialize, Serialize};
use units::SiteId;
use utoipa::ToSchema;

/// What a site is measured with.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "lowercase")]
pub enum SiteKind {
    /// Round the body with a tape.
    Girth,
    /// Across a bone with a gauge.
    Breadth,
}

/// A girth or breadth site.
#[derive(Clone, Debug, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Site {
    /// Stable id, such as `arm-flexed`.
    pub id: SiteId,
    /// What a coach calls it.
    pub name: String,
    /// Girth or breadth.
    pub kind: SiteKind,
    /// Whether it is measured on both sides.
    pub paired: bool,
    /// Lowest and highest plausible value of any adult, cm.
    pub bounds: [f64; 2],
    /// Where the tape lies, in a sentence.
    pub level: String,
    /// The bony point from which the tape's level is noted, with the direction: `above the kneecap`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub level_from: Option<String>,
    /// Whether it says how much muscle there is (and so gets an expected size).
    #[serde(default)]
    pub muscle: bool,
    /// The part of the body whose muscles it mixes, where that has another name.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub part: Option<String>,
}

impl Site {
    /// What the part of the body is called whose muscles it mixes.
    pub fn part_name(&self) -> &str {
        self.part.as_ref().unwrap_or(&self.name)
    }
}

/// A skinfold site.
#[derive(Clone, Debug, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SkinfoldSite {
    /// Stable id, such as `subscapular`.
    pub id: SiteId,
    /// What a coach calls it.
    pub name: String,
    /// Lowest and highest plausible value of any adult, mm.
    pub bounds_mm: [f64; 2],
    /// Where the calipers go, in a sentence.
    pub level: String,
    /// Whether both sides are worth taking: the fold lies over a limb's muscle.
    #[serde(default)]
    pub limb: bool,
}
