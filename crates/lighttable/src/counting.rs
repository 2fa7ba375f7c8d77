//! Which of several pictures of a pose counts in its round.

use std::collections::BTreeMap;
use vision::{Photo, PhotoPose};

/// What of a picture decides whether it is the one that counts.
#[derive(Clone, Copy, Debug)]
pub struct Candidate<'a> {
    /// The pose it counts as; none while nobody has named it and nobody has looked.
    pub pose: Option<PhotoPose>,
    /// Whether the coach chose it.
    pub chosen: bool,
    /// What was measured in it.
    pub measured: Option<&'a Photo>,
}

impl Candidate<'_> {
    /// Whether somebody is in it and nothing was found wrong with it.
    fn sound(&self) -> bool {
        self.measured.is_some_and(|photo| photo.person && photo.quality.iter().all(|check| check.ok))
    }
}

/// Of each round and pose the one picture that counts, of pictures in the order in which they were taken in: the one that the coach
/// chose, or the newest that nothing is wrong with, or the newest. `of` says which round a picture is of, and what it is like there.
/// Rounds stand in the order of their names, poses in the order in which they are taken.
pub fn counting<T, R: Ord>(pictures: impl IntoIterator<Item = T>, of: impl Fn(&T) -> (R, Candidate<'_>)) -> Vec<T> {
    let mut by_pose: BTreeMap<(R, Option<usize>), (bool, bool, T)> = BTreeMap::new();
    for picture in pictures {
        let (round, candidate) = of(&picture);
        let Some(pose) = candidate.pose else { continue };
        let (chosen, sound) = (candidate.chosen, candidate.sound());
        let place = (round, PhotoPose::ALL.iter().position(|known| *known == pose));
        let beaten = by_pose.get(&place).is_none_or(|known| (chosen, sound) >= (known.0, known.1));
        if beaten {
            by_pose.insert(place, (chosen, sound, picture));
        }
    }
    by_pose.into_values().map(|(.., picture)| picture).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;
    use serde_json::json;

    /// A picture with somebody in it, and whether its sharpness passes.
    fn seen(sharp: bool) -> Photo {
        let check = json!({"check": "sharpness", "value": 1.0, "unit": "", "ok": sharp, "says": ""});
        serde_json::from_value(json!({
            "format": "orthomer-photo", "version": 1, "pose": "F", "pose_guessed": false, "person": true,
            "width_px": 60, "height_px": 100, "scale_cm_per_px": 2.0, "quality": [check], "landmarks": {}, "widths": [],
            "limbs": [], "mask_confidence": 0.9
        }))
        .unwrap()
    }

    /// Name, pose, whether it was chosen, whether it is sharp; not looked at where that is unknown.
    type Shot = (char, Option<PhotoPose>, bool, Option<bool>);

    fn of<'a>(((_, pose, chosen, _), photo): &'a (&Shot, &Option<Photo>)) -> (u8, Candidate<'a>) {
        (0, Candidate { pose: *pose, chosen: *chosen, measured: photo.as_ref() })
    }

    #[rstest]
    #[case::the_newest(&[('a', Some(PhotoPose::F), false, Some(true)), ('b', Some(PhotoPose::F), false, Some(true))], "b")]
    #[case::a_sharp_one_before_a_newer_blurred_one(&[('a', Some(PhotoPose::F), false, Some(true)), ('b', Some(PhotoPose::F), false, Some(false))], "a")]
    #[case::the_chosen_one_whatever_is_wrong_with_it(&[('a', Some(PhotoPose::F), true, Some(false)), ('b', Some(PhotoPose::F), false, Some(true))], "a")]
    #[case::the_newest_of_blurred_ones(&[('a', Some(PhotoPose::F), false, Some(false)), ('b', Some(PhotoPose::F), false, Some(false))], "b")]
    #[case::one_that_nobody_has_looked_at_after_a_sharp_one(&[('a', Some(PhotoPose::F), false, Some(true)), ('b', Some(PhotoPose::F), false, None)], "a")]
    #[case::one_of_each_pose_in_the_order_they_are_taken(&[('a', Some(PhotoPose::B), false, Some(true)), ('b', Some(PhotoPose::F), false, Some(true))], "ba")]
    #[case::none_of_no_pose(&[('a', None, false, None)], "")]
    fn one_picture_of_a_pose_counts(#[case] shots: &[Shot], #[case] expected: &str) {
        let photos: Vec<Option<Photo>> = shots.iter().map(|(.., sharp)| sharp.map(seen)).collect();
        let pictures = shots.iter().zip(&photos);
        let counts: String = counting(pictures, of).into_iter().map(|((name, ..), _)| *name).collect();
        assert_eq!(counts, expected);
    }
}
