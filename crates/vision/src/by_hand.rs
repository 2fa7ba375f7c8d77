//! Where landmarks lie before the coach has placed them, in a picture in which nobody was found.

use crate::photo::{Landmark, PhotoPose};
use std::collections::BTreeMap;

/// Share of the picture's height a body is taken to fill.
const FILLS: f64 = 0.8;
/// Landmarks in the middle: height above the floor, share of stature.
const MIDDLE: [(&str, f64); 4] = [("vertex", 1.0), ("chin", 0.872), ("sternal-notch", 0.82), ("floor", 0.0)];
/// Landmarks of both sides: distance from the middle and height above the floor, shares of stature.
const SIDES: [(&str, f64, f64); 6] = [
    ("acromion", 0.105, 0.815),
    ("elbow", 0.15, 0.63),
    ("wrist", 0.17, 0.485),
    ("hip-joint", 0.05, 0.52),
    ("knee", 0.05, 0.285),
    ("ankle", 0.045, 0.045),
];

/// A figure in the middle of a picture, to be moved to where the person is; sides as the pose shows them.
pub(crate) fn template(pose: PhotoPose, mirrored: bool, (width, height): (u32, u32)) -> BTreeMap<String, Landmark> {
    let stature = FILLS * f64::from(height);
    let (middle, floor) = (f64::from(width) / 2.0, f64::from(height) * (1.0 + FILLS) / 2.0);
    // From the front the client's left is on the right of the picture; from behind, or in a mirror, on the left.
    let left = if pose.from_behind() == mirrored { 1.0 } else { -1.0 };
    let at = |out: f64, high: f64| Landmark { x: middle + out * stature, y: floor - high * stature, confidence: 0.0 };
    let mut marks: BTreeMap<String, Landmark> =
        MIDDLE.iter().map(|(name, high)| ((*name).to_owned(), at(0.0, *high))).collect();
    for (name, out, high) in SIDES {
        marks.insert(format!("{name}-left"), at(left * out, high));
        marks.insert(format!("{name}-right"), at(-left * out, high));
    }
    marks
}
