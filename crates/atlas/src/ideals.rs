//! Other schools of how large a site should be, and which skinfold lies over which girth.

use serde::Deserialize;
use std::collections::BTreeMap;
use units::SiteId;

/// `data/ideals.toml`.
#[derive(Clone, Debug, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Ideals {
    /// Multiples of the frame.
    #[serde(rename = "frame_ratio")]
    pub frame_ratios: Vec<FrameRatio>,
    /// Shoulder girth over waist girth.
    pub silhouette: Silhouette,
    /// The skinfold site that covers a girth site.
    pub covering_fold: BTreeMap<SiteId, SiteId>,
}

/// A site as a multiple of another.
#[derive(Clone, Debug, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct FrameRatio {
    /// The site judged.
    pub site: SiteId,
    /// What it is a multiple of.
    pub of: SiteId,
    /// The multiple.
    pub factor: f64,
}

/// Shoulder girth over waist girth.
#[derive(Clone, Debug, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Silhouette {
    /// For men.
    pub male: f64,
    /// For women.
    pub female: f64,
}
