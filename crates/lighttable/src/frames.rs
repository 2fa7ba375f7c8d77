//! Where a region lies in a picture: a box between landmarks.

use atlas::Atlas;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use units::{RegionId, Side};
use utoipa::ToSchema;
use vision::{Photo, PhotoPose};

/// The shipped places of regions.
const SHIPPED: &str = include_str!("../data/frames.toml");

/// Why the shipped places do not load.
#[derive(Debug, thiserror::Error)]
#[error("the places of regions in pictures do not load: {0}")]
pub struct FrameError(#[from] toml::de::Error);

#[derive(Clone, Debug, Deserialize)]
#[serde(deny_unknown_fields)]
struct Place {
    /// From one landmark to another, and the share of the way.
    points: Vec<(String, String, f64)>,
    /// Margin, as a share of stature.
    pad: f64,
}

/// The place of every region.
#[derive(Clone, Debug)]
pub struct Frames(BTreeMap<RegionId, Place>);

/// The box of a region, or of one side of it, in pixels of the picture its landmarks are counted in.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct RegionFrame {
    /// The region.
    pub region: RegionId,
    /// The client's side; none for a region without sides.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub side: Option<Side>,
    /// Left edge, px.
    pub x: f64,
    /// Upper edge, px.
    pub y: f64,
    /// Across, px.
    pub width: f64,
    /// Down, px.
    pub height: f64,
}

impl Frames {
    /// Loads the shipped places.
    ///
    /// # Errors
    /// [`FrameError`] when the data is not of its shape.
    pub fn load() -> Result<Self, FrameError> {
        Ok(Self(toml::from_str(SHIPPED)?))
    }

    /// Whether the place of a region is known.
    pub fn knows(&self, region: &RegionId) -> bool {
        self.0.contains_key(region)
    }

    /// The boxes of every region that `photo`'s pose shows. From the side only the near side is seen.
    pub fn in_photo(&self, atlas: &Atlas, photo: &Photo) -> Vec<RegionFrame> {
        let pose = photo.pose.id();
        let shown = atlas.regions().iter().filter(|region| region.poses.iter().any(|p| p.as_str() == pose));
        shown.flat_map(|region| self.boxes(&region.id, region.paired, photo)).collect()
    }

    fn boxes(&self, region: &RegionId, paired: bool, photo: &Photo) -> Vec<RegionFrame> {
        let Some(place) = self.0.get(region) else { return Vec::new() };
        let sides: &[Side] = match photo.pose {
            PhotoPose::SR => &[Side::Right],
            pose if pose.from_the_side() => &[Side::Left],
            _ => &[Side::Left, Side::Right],
        };
        if paired {
            return sides.iter().filter_map(|side| place.around(region, Some(*side), sides_of(*side), photo)).collect();
        }
        place.around(region, None, &[Side::Left, Side::Right], photo).into_iter().collect()
    }
}

fn sides_of(side: Side) -> &'static [Side] {
    if side == Side::Left { &[Side::Left] } else { &[Side::Right] }
}

impl Place {
    fn around(&self, region: &RegionId, named: Option<Side>, sides: &[Side], photo: &Photo) -> Option<RegionFrame> {
        let stature_px = distance(mark(photo, "vertex", Side::Left)?, mark(photo, "floor", Side::Left)?);
        let points: Vec<(f64, f64)> = sides.iter().flat_map(|side| self.points_of(*side, photo)).collect();
        if points.len() < 2 {
            return None;
        }
        let pad = self.pad * stature_px;
        let (mut left, mut right, mut top, mut bottom) =
            (f64::INFINITY, f64::NEG_INFINITY, f64::INFINITY, f64::NEG_INFINITY);
        for (x, y) in points {
            (left, right, top, bottom) = (left.min(x), right.max(x), top.min(y), bottom.max(y));
        }
        let (width, height) = (f64::from(photo.width_px), f64::from(photo.height_px));
        let (left, right) = ((left - pad).clamp(0.0, width), (right + pad).clamp(0.0, width));
        let (top, bottom) = ((top - pad).clamp(0.0, height), (bottom + pad).clamp(0.0, height));
        (right > left && bottom > top).then(|| RegionFrame {
            region: region.clone(),
            side: named,
            x: left,
            y: top,
            width: right - left,
            height: bottom - top,
        })
    }

    /// The points of a side whose landmarks the picture has.
    fn points_of(&self, side: Side, photo: &Photo) -> Vec<(f64, f64)> {
        let each = self.points.iter().filter_map(|(from, to, share)| {
            let (from, to) = (mark(photo, from, side)?, mark(photo, to, side)?);
            Some((from.0 + (to.0 - from.0) * share, from.1 + (to.1 - from.1) * share))
        });
        each.collect()
    }
}

/// A landmark by name, of a side where it has sides.
fn mark(photo: &Photo, name: &str, side: Side) -> Option<(f64, f64)> {
    let found = photo.landmarks.get(name).or_else(|| photo.landmarks.get(&format!("{name}-{side}")))?;
    Some((found.x, found.y))
}

fn distance(a: (f64, f64), b: (f64, f64)) -> f64 {
    (a.0 - b.0).hypot(a.1 - b.1)
}
