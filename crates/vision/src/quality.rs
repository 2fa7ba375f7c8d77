//! Whether a picture can be judged, each check with its number and a sentence.

use crate::measure::Standing;
use crate::photo::{Check, PhotoPose, QualityCheck};
use crate::plane::Plane;
use image::{GrayImage, RgbImage, imageops};

/// Limits of the checks (common practice, no source).
const MOST_ROLL_DEG: f64 = 2.0;
const MOST_TURN_PCT: f64 = 8.0;
const LEAST_SIZE_PCT: f64 = 60.0;
const MOST_CLIPPED_PCT: f64 = 5.0;
const LEAST_SHARPNESS: f64 = 12.0;
const MOST_SCALE_CHANGE_PCT: f64 = 4.0;
const LEAST_CONFIDENCE: f64 = 0.6;
/// Nearer than this to the edge counts as cut off, px.
const CUT_PX: f64 = 2.0;

fn check(check: QualityCheck, value: f64, unit: &str, ok: bool, says: String) -> Check {
    Check { check, value, unit: unit.to_owned(), ok, says }
}

/// What the model says of somebody who stands square to the camera, degrees; how much of a turn it tells of; and the turn from which on a body is
/// turned. Means over booth figures of both sexes and all builds, in five lights and three skins, before a wall and in a gym: of 60 that stood within
/// 3 degrees of square none was told to be turned by more than 6.5; turned by 12, they were told to be by 8 to 12.
const SQUARE_DEG: f64 = 2.85;
const TELLS: f64 = 0.36;
const MOST_FACING_DEG: f64 = 9.0;

/// Checks of a person who stands in the picture, of whom the model is so `confident` and who it says faces so many degrees off the camera.
/// `last_scale` is the scale of the round before.
pub(crate) fn checks(
    picture: &RgbImage,
    standing: &Standing,
    (confidence, facing_deg): (f64, Option<f64>),
    last_scale: Option<f64>,
) -> Vec<Check> {
    let mut checks = Vec::new();
    if !standing.pose.from_the_side() {
        checks.push(roll(standing.frame.lean_deg()));
        checks.extend(facing(standing.pose, facing_deg).or_else(|| turn(standing)));
    }
    checks.push(crop(picture, standing));
    checks.push(size(picture, standing));
    checks.push(exposure(picture, standing.mask));
    checks.push(sharp(picture, standing.mask));
    checks.extend(last_scale.map(|last| scale(standing.cm_per_px, last)));
    checks.push(mask(confidence));
    checks
}

fn roll(lean_deg: f64) -> Check {
    let side = if lean_deg > 0.0 { "right" } else { "left" };
    let ok = lean_deg.abs() <= MOST_ROLL_DEG;
    let says = if ok {
        format!("The plumb line leans {:.1} degrees, which is straight enough.", lean_deg.abs())
    } else {
        format!("The picture leans {:.1} degrees to the {side}: level the camera.", lean_deg.abs())
    };
    check(QualityCheck::Roll, lean_deg, "deg", ok, says)
}

/// A body that is plainly turned by where its joints lie in the room: the outline of somebody who stands relaxed changes little with a turn. From
/// behind, and with the arms up, the model tells too little.
fn facing(pose: PhotoPose, facing_deg: Option<f64>) -> Option<Check> {
    let value = (facing_deg.filter(|_| pose == PhotoPose::F)? - SQUARE_DEG) / TELLS;
    (value.abs() > MOST_FACING_DEG).then(|| {
        let says = format!("The body is turned by about {:.0} degrees: stand square to the camera.", value.abs());
        check(QualityCheck::Turn, value, "deg", false, says)
    })
}

/// Half-widths of the pelvis that differ by more than those of the waist explain: the body is turned.
fn turn(standing: &Standing) -> Option<Check> {
    let widths = standing.widths();
    let uneven = |level: &str| {
        let width = widths.iter().find(|width| width.level == level)?;
        Some(100.0 * (width.left_cm? - width.right_cm?) / width.cm)
    };
    let value = uneven("hip")? - uneven("deltoid").unwrap_or(0.0);
    let ok = value.abs() <= MOST_TURN_PCT;
    let says = if ok {
        format!("The hips are turned by {:.1} % of their width, which is straight enough.", value.abs())
    } else {
        format!("The hips are turned by {:.1} % of their width: stand square to the camera.", value.abs())
    };
    Some(check(QualityCheck::Turn, value, "%", ok, says))
}

fn crop(picture: &RgbImage, standing: &Standing) -> Check {
    let (head, feet) = (standing.frame.place(0.0, standing.vertex), standing.frame.place(0.0, standing.floor));
    let room = head.1.min(f64::from(picture.height()) - feet.1);
    let (head_cut, feet_cut) = (head.1 < CUT_PX, feet.1 > f64::from(picture.height()) - CUT_PX);
    let says = match (head_cut, feet_cut) {
        (false, false) => "Head and feet are in the picture.".to_owned(),
        (true, false) => "The head is cut off: the scale cannot be trusted. Step back and take it again.".to_owned(),
        (false, true) => "The feet are cut off: the scale cannot be trusted. Step back and take it again.".to_owned(),
        (true, true) => {
            "Head and feet are cut off: the scale cannot be trusted. Step back and take it again.".to_owned()
        }
    };
    check(QualityCheck::Crop, room, "px", !head_cut && !feet_cut, says)
}

fn size(picture: &RgbImage, standing: &Standing) -> Check {
    let value = 100.0 * (standing.vertex - standing.floor) / f64::from(picture.height());
    let ok = value >= LEAST_SIZE_PCT;
    let says = if ok {
        format!("The body takes {value:.0} % of the picture's height.")
    } else {
        format!("The body takes only {value:.0} % of the picture's height: come closer with the long end of the lens.")
    };
    check(QualityCheck::Size, value, "%", ok, says)
}

/// Share of the person's pixels that are black or white.
fn exposure(picture: &RgbImage, mask: &Plane) -> Check {
    let inside = picture.pixels().zip(&mask.values).filter(|(_, value)| **value >= 0.5);
    let (mut count, mut clipped) = (0_u32, 0_u32);
    for (pixel, _) in inside {
        count += 1;
        clipped += u32::from(pixel.0.iter().all(|&v| v <= 4) || pixel.0.iter().all(|&v| v >= 252));
    }
    let value = 100.0 * f64::from(clipped) / f64::from(count.max(1));
    let ok = value <= MOST_CLIPPED_PCT;
    let says = if ok {
        format!("{value:.1} % of the body is pure black or white.")
    } else {
        format!("{value:.1} % of the body is pure black or white: change the light or the exposure.")
    };
    check(QualityCheck::Exposure, value, "%", ok, says)
}

fn sharp(picture: &RgbImage, mask: &Plane) -> Check {
    let grey = imageops::grayscale(picture);
    let value = sharpness(&grey, Some(mask));
    let ok = value >= LEAST_SHARPNESS;
    let says = if ok {
        format!("Sharp enough ({value:.0}).")
    } else {
        format!("Blurred ({value:.0}, wanted {LEAST_SHARPNESS:.0}): hold the camera still or add light.")
    };
    check(QualityCheck::Sharpness, value, "variance", ok, says)
}

/// Variance of the Laplacian (the four neighbours less four times the pixel), over a mask or the whole picture without
/// its outermost pixels.
pub fn sharpness(grey: &GrayImage, mask: Option<&Plane>) -> f64 {
    let (width, height) = (grey.width() as usize, grey.height() as usize);
    let pixels = grey.as_raw();
    let (mut count, mut sum, mut squares) = (0.0, 0.0, 0.0);
    for y in 1..height.saturating_sub(1) {
        for x in 1..width.saturating_sub(1) {
            let place = y * width + x;
            if mask.is_some_and(|mask| mask.values[place] < 0.5) {
                continue;
            }
            let at = |place: usize| f64::from(pixels[place]);
            let value = at(place - 1) + at(place + 1) + at(place - width) + at(place + width) - 4.0 * at(place);
            count += 1.0;
            sum += value;
            squares += value * value;
        }
    }
    if count > 0.0 { squares / count - (sum / count).powi(2) } else { 0.0 }
}

fn scale(now: f64, last: f64) -> Check {
    let value = 100.0 * (now / last - 1.0);
    let ok = value.abs() <= MOST_SCALE_CHANGE_PCT;
    let nearer = if value < 0.0 { "nearer" } else { "further away" };
    let says = if ok {
        format!("The distance is as last time within {:.1} %.", value.abs())
    } else {
        format!("The camera stands {nearer} than last time by about {:.0} %: perspective differs.", value.abs())
    };
    check(QualityCheck::Scale, value, "%", ok, says)
}

fn mask(confidence: f64) -> Check {
    let value = 100.0 * confidence;
    let ok = confidence >= LEAST_CONFIDENCE;
    let says = if ok {
        format!("The outline is {value:.0} % sure.")
    } else {
        format!("The outline is only {value:.0} % sure: look at it and mark it by hand where it is wrong.")
    };
    check(QualityCheck::Mask, value, "%", ok, says)
}

#[cfg(test)]
mod tests {
    use super::*;
    use image::{Luma, Rgb};
    use rstest::rstest;

    #[rstest]
    #[case::straight(roll(0.4), true, "leans 0.4 degrees, which is straight enough")]
    #[case::at_the_limit(roll(-2.0), true, "leans 2.0 degrees")]
    #[case::to_the_right(roll(2.1), false, "leans 2.1 degrees to the right: level the camera")]
    #[case::to_the_left(roll(-7.0), false, "leans 7.0 degrees to the left")]
    #[case::as_far_as_last_time(scale(0.103, 0.1), true, "as last time within 3.0 %")]
    #[case::nearer(scale(0.09, 0.1), false, "stands nearer than last time by about 10 %")]
    #[case::further_away(scale(0.105, 0.1), false, "stands further away than last time by about 5 %")]
    #[case::sure(mask(0.93), true, "The outline is 93 % sure.")]
    #[case::unsure(mask(0.59), false, "only 59 % sure: look at it and mark it by hand")]
    fn a_check_says_its_number_and_what_to_do(#[case] check: Check, #[case] ok: bool, #[case] says: &str) {
        assert_eq!(check.ok, ok, "{}", check.says);
        assert!(check.says.contains(says), "{}", check.says);
    }

    #[rstest]
    #[case::square(PhotoPose::F, 3.0, None)]
    #[case::turned(PhotoPose::F, -1.2, Some("turned by about 11 degrees"))]
    #[case::turned_the_other_way(PhotoPose::F, 7.9, Some("turned by about 14 degrees"))]
    #[case::from_behind_it_tells_too_little(PhotoPose::B, 30.0, None)]
    #[case::with_the_arms_up_too(PhotoPose::FDB, 30.0, None)]
    fn a_body_that_is_plainly_turned_is_told(#[case] pose: PhotoPose, #[case] deg: f64, #[case] says: Option<&str>) {
        let told = facing(pose, Some(deg)).map(|check| check.says);
        assert_eq!(told.is_some(), says.is_some(), "{told:?}");
        assert!(told.unwrap_or_default().contains(says.unwrap_or_default()));
        assert!(facing(pose, None).is_none(), "a model that says nothing of it");
    }

    /// Ten pixels of which so many are of one colour, the others of an even grey; the last one is not the person's.
    fn exposed(odd: usize, colour: [u8; 3]) -> Check {
        let picture = RgbImage::from_fn(11, 1, |x, _| Rgb(if (x as usize) < odd { colour } else { [120, 100, 90] }));
        let mut mask = Plane::filled(11, 1, 1.0);
        mask.values[10] = 0.0;
        exposure(&picture, &mask)
    }

    #[rstest]
    #[case::nothing(0, [0; 3], 0.0, true)]
    #[case::black(1, [0, 2, 4], 10.0, false)]
    #[case::white(2, [255, 252, 254], 20.0, false)]
    #[case::a_strong_colour_is_not_white(3, [255, 20, 10], 0.0, true)]
    fn what_is_pure_black_or_white_is_counted_on_the_person(
        #[case] odd: usize,
        #[case] colour: [u8; 3],
        #[case] pct: f64,
        #[case] ok: bool,
    ) {
        let check = exposed(odd, colour);
        assert!((check.value - pct).abs() < 1e-9 && check.ok == ok, "{check:?}");
    }

    #[test]
    fn a_wall_of_another_light_does_not_count() {
        let picture = RgbImage::from_pixel(4, 4, Rgb([255, 255, 255]));
        assert!((exposure(&picture, &Plane::filled(4, 4, 0.0)).value).abs() < 1e-9);
    }

    #[test]
    fn what_is_blurred_has_less_of_an_edge_than_what_is_sharp() {
        let edge = GrayImage::from_fn(20, 20, |x, _| Luma([if x < 10 { 40 } else { 200 }]));
        let soft = imageops::blur(&edge, 2.0);
        assert!(sharpness(&soft, None) < 0.2 * sharpness(&edge, None));
        assert!(sharpness(&GrayImage::from_pixel(20, 20, Luma([90])), None).abs() < 1e-9, "an even wall has none");
        let nobody = Plane::filled(20, 20, 0.0);
        assert!(sharpness(&edge, Some(&nobody)).abs() < 1e-9);
    }
}
