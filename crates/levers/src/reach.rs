//! How far a client's joints go, and whether a movement asks for more.

use crate::work::Point;

/// Range of motion as it was screened, degrees; none where nobody has looked.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct Reach {
    /// The straight arm behind the body.
    pub shoulder_extension: Option<f64>,
    /// The arm overhead.
    pub shoulder_flexion: Option<f64>,
    /// The shin forward of upright, heel down.
    pub ankle_dorsiflexion: Option<f64>,
    /// The thigh towards the chest before the pelvis tucks.
    pub hip_flexion: Option<f64>,
}

/// Arms nearer than this to straight out to the side are raised sideways: neither screen of the shoulder speaks of them, degrees.
const SIDEWAYS: f64 = 45.0;
/// What a goniometer is read to (common practice, no source), degrees.
const READ_TO: f64 = 5.0;

impl Reach {
    /// What a movement asks beyond it, worst first: by how many degrees, and in words.
    pub(crate) fn beyond(&self, range: &[Point]) -> Vec<(f64, String)> {
        let most = |of: fn(&Point) -> f64| range.iter().map(of).fold(f64::NEG_INFINITY, f64::max);
        let asked = [
            (self.shoulder_extension, most(behind), "the arm goes", " behind the body"),
            (self.shoulder_flexion, most(raised), "the arm is raised", ""),
            (self.ankle_dorsiflexion, most(|point| angle(point, "ankle")), "the ankle bends", ""),
            (self.hip_flexion, most(|point| angle(point, "hip")), "the hip bends", ""),
        ];
        let beyond = asked.into_iter().filter_map(|(measured, asked, does, how)| {
            let measured = measured?;
            let says = format!("Here {does} {asked:.0}°{how}; this client has {measured:.0}°.");
            (asked - measured > READ_TO).then_some((asked - measured, says))
        });
        let mut found: Vec<(f64, String)> = beyond.collect();
        found.sort_by(|a, b| b.0.total_cmp(&a.0));
        found
    }

    /// What a movement asks of a client beyond what they have, a sentence each.
    pub fn says(&self, range: &[Point]) -> Vec<String> {
        self.beyond(range).into_iter().map(|(_, says)| says).collect()
    }
}

fn angle(point: &Point, joint: &str) -> f64 {
    point.angles.get(joint).copied().unwrap_or_default()
}

/// How far the arm is raised to the front; below 0 it is behind.
fn raised(point: &Point) -> f64 {
    let [plane, up] = [angle(point, "plane"), angle(point, "up")];
    match plane {
        plane if plane >= SIDEWAYS => up,
        plane if plane <= -SIDEWAYS => -up,
        _ => 0.0,
    }
}

fn behind(point: &Point) -> f64 {
    -raised(point)
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;
    use std::collections::BTreeMap;

    fn point(angles: &[(&str, f64)]) -> Point {
        let angles = angles.iter().map(|(joint, degrees)| ((*joint).to_owned(), *degrees)).collect();
        let nothing = BTreeMap::new();
        Point { angles, hand_m: [0.0; 3], load: [0.0; 3], torque_nm: nothing, muscles: BTreeMap::new() }
    }

    const STIFF: Reach = Reach {
        shoulder_extension: Some(40.0),
        shoulder_flexion: Some(120.0),
        ankle_dorsiflexion: Some(20.0),
        hip_flexion: None,
    };

    #[rstest]
    #[case::overhead(&[("plane", 90.0), ("up", 160.0)], &["Here the arm is raised 160°; this client has 120°."])]
    #[case::out_to_the_side_is_not_screened(&[("plane", 0.0), ("up", 160.0)], &[])]
    #[case::behind_below_zero(&[("plane", 88.0), ("up", -60.0)], &["Here the arm goes 60° behind the body; this client has 40°."])]
    #[case::behind_in_the_opposite_plane(&[("plane", -92.0), ("up", 60.0)], &["Here the arm goes 60° behind the body; this client has 40°."])]
    #[case::as_far_as_it_is_read(&[("ankle", 24.0)], &[])]
    #[case::what_nobody_has_looked_at(&[("hip", 140.0)], &[])]
    #[case::the_worst_first(&[("ankle", 30.0), ("plane", 90.0), ("up", 150.0)],
        &["Here the arm is raised 150°; this client has 120°.", "Here the ankle bends 30°; this client has 20°."])]
    fn what_is_asked_beyond_what_was_screened_is_said(#[case] angles: &[(&str, f64)], #[case] says: &[&str]) {
        assert_eq!(STIFF.says(&[point(&[]), point(angles)]), says);
    }
}
