//! Ranges of motion a coach screens, and what exercises ask of them.

use crate::exercise::Exercise;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// A range of motion, screened per side.
#[derive(Clone, Debug, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Screen {
    /// Stable id; the case file writes it with `_deg`.
    pub id: String,
    /// What a coach calls it.
    pub name: String,
    /// How it is taken.
    pub how: String,
    /// What most adults reach, degrees.
    pub normal_low_deg: f64,
    /// Plausible values, low and high, degrees.
    pub bounds_deg: [f64; 2],
    /// The three points on a still that give it.
    pub points: ScreenPoints,
    /// What whole families of exercises ask for, degrees.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub families: BTreeMap<String, f64>,
    /// What to do meanwhile.
    pub mobility: String,
}

/// Three points on a picture of the joint's end position.
#[derive(Clone, Debug, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ScreenPoints {
    /// What is tapped, in order; the joint is the second.
    pub tapped: [String; 3],
    /// The range when the angle at the joint is nothing, degrees.
    pub start_deg: f64,
    /// 1 when the range grows with the angle, -1 when it falls.
    pub direction: f64,
}

impl ScreenPoints {
    /// The range of motion by three points in pixels, degrees. `None` when two of them are the same.
    pub fn range_deg(&self, [one, joint, other]: [[f64; 2]; 3]) -> Option<f64> {
        let arm = |end: [f64; 2]| [end[0] - joint[0], end[1] - joint[1]];
        let ([ax, ay], [bx, by]) = (arm(one), arm(other));
        let lengths = ax.hypot(ay) * bx.hypot(by);
        let angle = ((ax * bx + ay * by) / lengths).clamp(-1.0, 1.0).acos().to_degrees();
        (lengths > 0.0).then_some(self.start_deg + self.direction * angle)
    }
}

impl Screen {
    /// The range `exercise` asks for, degrees: its own, else its family's.
    pub fn asked_by(&self, exercise: &Exercise) -> Option<f64> {
        let own = exercise.avoid.screen_below_deg.get(&self.id);
        own.or_else(|| self.families.get(&exercise.family)).copied()
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    // Angles of drawn triangles, by hand; y grows downwards as in a picture.
    #[rstest]
    #[case::arm_hanging_beside_the_trunk(0.0, 1.0, [[0.0, 10.0], [0.0, 0.0], [0.0, 8.0]], 0.0)]
    #[case::arm_straight_back(0.0, 1.0, [[0.0, 10.0], [0.0, 0.0], [7.0, 0.0]], 90.0)]
    #[case::arm_overhead(0.0, 1.0, [[0.0, 10.0], [0.0, 0.0], [0.0, -9.0]], 180.0)]
    #[case::knee_drawn_up_to_a_right_angle(180.0, -1.0, [[-10.0, 0.0], [0.0, 0.0], [0.0, -5.0]], 90.0)]
    #[case::leg_straight(180.0, -1.0, [[-10.0, 0.0], [0.0, 0.0], [6.0, 0.0]], 0.0)]
    fn three_points_give_the_range(
        #[case] start_deg: f64,
        #[case] direction: f64,
        #[case] points: [[f64; 2]; 3],
        #[case] expected: f64,
    ) {
        let tapped = ["one", "joint", "other"].map(str::to_owned);
        let range = ScreenPoints { tapped, start_deg, direction }.range_deg(points).unwrap();
        assert!((range - expected).abs() < 1e-9, "{range}");
    }

    #[test]
    fn two_points_on_one_spot_give_no_range() {
        let tapped = ["one", "joint", "other"].map(str::to_owned);
        let points = ScreenPoints { tapped, start_deg: 0.0, direction: 1.0 };
        assert_eq!(points.range_deg([[1.0, 1.0], [1.0, 1.0], [5.0, 5.0]]), None);
    }
}
