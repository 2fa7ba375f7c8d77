//! Whether a picture that was just taken will do: one sentence for whoever stands before the camera, while they still stand there.
//!
//! The checks of [`crate::quality`] speak to a coach who looks later; this says the one thing to change first.

use crate::eye::View;
use crate::photo::{Check, Photo, PhotoPose, QualityCheck};
use crate::plane::Plane;
use image::RgbImage;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Limits beside those of the checks (common practice, no source).
const MOST_HEIGHT_CHANGE_CM: f64 = 12.0;
const LEAST_LIGHT: f64 = 40.0;
/// Half the lamps leave booth figures at 0.65 of what they were.
const LEAST_OF_LAST_LIGHT: f64 = 0.75;
/// A lamp on the other side shifts booth figures by 0.09, a camera that moved a little by 0.01.
const MOST_LIGHT_SHIFT: f64 = 0.06;
/// Clothes that stand off add more than a body does from round to round.
const MOST_WIDER_PCT: f64 = 12.0;
/// A picture is lying when it is this much wider than high.
const LYING: f64 = 1.05;
/// Levels that clothes widen most.
const CLOTHED: [&str; 3] = ["waist", "hip", "thigh"];

/// What is to be changed first.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "kebab-case")]
#[schema(as = PictureFault)]
pub enum Fault {
    /// The phone lies on its side.
    Lying,
    /// Somebody else is there too.
    Others,
    /// Nobody is found.
    Nobody,
    /// Another pose than the one asked for.
    Pose,
    /// Head or feet are cut off.
    Cut,
    /// Nearer or further than last time.
    Distance,
    /// Too small in the picture.
    Small,
    /// Not square to the camera.
    Turned,
    /// The phone leans.
    Leaning,
    /// The phone stands higher or lower than last time.
    Height,
    /// Too dark, too bright, or lit from another side than last time.
    Light,
    /// Blurred.
    Blurred,
    /// Arms hide what the pose is for.
    Arms,
    /// Clothes wider than the body.
    Clothes,
    /// The body cannot be told from what is behind it.
    Wall,
}

/// What is said of a picture that was just taken.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct Taken {
    /// What to change first; none when it will do.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub fault: Option<Fault>,
    /// In a sentence.
    pub says: String,
}

impl Taken {
    fn fault(fault: Fault, says: impl Into<String>) -> Self {
        Self { fault: Some(fault), says: says.into() }
    }
}

/// How a body is lit.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Light {
    /// Mean brightness on the body, 0 to 255.
    pub level: f64,
    /// How much brighter the right half of the body is in the picture, as a share of both: -1 to 1.
    pub shift: f64,
}

/// How the body that a mask covers is lit; `None` when it covers nobody.
pub fn light(picture: &RgbImage, mask: &Plane) -> Option<Light> {
    let inside = || mask.values.iter().enumerate().filter(|(_, value)| **value >= 0.5).map(|(i, _)| i);
    let (mut count, mut across) = (0_usize, 0_usize);
    for place in inside() {
        count += 1;
        across += place % mask.width;
    }
    let middle = across.checked_div(count)?;
    let (mut left, mut right) = ((0.0, 0.0), (0.0, 0.0));
    for (pixel, place) in
        picture.pixels().zip(0..).filter(|(_, place)| mask.values.get(*place).is_some_and(|v| *v >= 0.5))
    {
        let half = if place % mask.width < middle { &mut left } else { &mut right };
        let [r, g, b] = pixel.0.map(f64::from);
        // Luma of Rec. 601, as JPEG has it.
        half.0 += 0.299 * r + 0.587 * g + 0.114 * b;
        half.1 += 1.0;
    }
    let mean = |half: (f64, f64)| half.0 / f64::max(half.1, 1.0);
    let (l, r) = (mean(left), mean(right));
    Some(Light { level: (left.0 + right.0) / count as f64, shift: (r - l) / (r + l).max(1.0) })
}

/// The picture of the same pose in the round before.
#[derive(Clone, Copy, Debug)]
pub struct Before<'a> {
    /// What was measured in it.
    pub photo: &'a Photo,
    /// How the body was lit.
    pub light: Option<Light>,
    /// Distance of the camera, m, when known.
    pub distance_m: Option<f64>,
}

/// Says the first thing to change in a picture of a pose, or that it will do.
///
/// `view` comes from looking at `picture` with the pose it was asked for. What changes the scale or hides the body comes before what only makes it
/// harder to compare.
pub fn taken(picture: &RgbImage, view: &View, asked: PhotoPose, before: Option<Before<'_>>) -> Taken {
    let photo = &view.photo;
    let now = light(picture, &view.mask);
    let first = lying(picture)
        .or_else(|| nobody(photo))
        .or_else(|| other_pose(view.looks_like, asked))
        .or_else(|| cut(photo))
        .or_else(|| before.and_then(|before| distance(photo, before)))
        .or_else(|| failed(photo, QualityCheck::Size).map(small))
        .or_else(|| failed(photo, QualityCheck::Turn).map(|_| turned(asked)))
        .or_else(|| failed(photo, QualityCheck::Roll).map(leaning))
        .or_else(|| before.and_then(|before| height(photo, before.photo)))
        .or_else(|| now.and_then(dark))
        .or_else(|| failed(photo, QualityCheck::Exposure).map(|_| glaring()))
        .or_else(|| failed(photo, QualityCheck::Sharpness).map(|_| blurred()))
        .or_else(|| arms(photo, asked))
        .or_else(|| before.and_then(|before| clothes(photo, before.photo)))
        .or_else(|| failed(photo, QualityCheck::Mask).map(|_| wall()))
        .or_else(|| now.zip(before.and_then(|before| before.light)).and_then(|(now, then)| other_light(now, then)));
    first.unwrap_or_else(|| {
        let says =
            if before.is_some() { "Good: as last time." } else { "Good: straight, sharp, head and feet are in." };
        Taken { fault: None, says: says.to_owned() }
    })
}

fn failed(photo: &Photo, of: QualityCheck) -> Option<&Check> {
    photo.quality.iter().find(|check| check.check == of && !check.ok)
}

fn lying(picture: &RgbImage) -> Option<Taken> {
    let lies = f64::from(picture.width()) > LYING * f64::from(picture.height());
    lies.then(|| Taken::fault(Fault::Lying, "The phone lies on its side: stand it upright."))
}

fn nobody(photo: &Photo) -> Option<Taken> {
    if photo.person {
        // Found by the wall behind alone: nothing says that it is a person.
        return photo.quality.is_empty().then(wall);
    }
    let two = photo.why_not.as_ref().is_some_and(|why| *why == crate::NoPerson::Two.to_string());
    Some(if two {
        Taken::fault(Fault::Others, "Somebody else is in the picture: only you, please.")
    } else {
        Taken::fault(Fault::Nobody, "You are not in the picture: stand in its middle, before a plain wall.")
    })
}

/// As far as two poses can be told apart by where a body faces.
fn facing(pose: PhotoPose) -> Option<&'static str> {
    match pose {
        PhotoPose::F | PhotoPose::FDB | PhotoPose::FLS | PhotoPose::AT => Some("front"),
        PhotoPose::B | PhotoPose::BDB | PhotoPose::BLS => Some("back"),
        PhotoPose::SL | PhotoPose::SLA => Some("left side"),
        PhotoPose::SR | PhotoPose::SRA => Some("right side"),
        // From either side.
        PhotoPose::SC | PhotoPose::ST => None,
    }
}

fn other_pose(looks_like: Option<PhotoPose>, asked: PhotoPose) -> Option<Taken> {
    let (seen, wanted) = (facing(looks_like?)?, facing(asked));
    let other = match wanted {
        Some(wanted) => seen != wanted,
        None => !seen.ends_with("side"),
    };
    let wanted = wanted.unwrap_or("side");
    other.then(|| Taken::fault(Fault::Pose, format!("This is your {seen}: your {wanted} is asked for.")))
}

fn cut(photo: &Photo) -> Option<Taken> {
    failed(photo, QualityCheck::Crop)?;
    let near = |name: &str, edge: f64| photo.landmarks.get(name).is_some_and(|mark| (mark.y - edge).abs() < 3.0);
    let part = match (near("vertex", 0.0), near("floor", f64::from(photo.height_px))) {
        (true, false) => "Your head is",
        (false, true) => "Your feet are",
        _ => "Head and feet are",
    };
    Some(Taken::fault(Fault::Cut, format!("{part} cut off: step back until all of you is in.")))
}

fn distance(photo: &Photo, before: Before<'_>) -> Option<Taken> {
    let pct = failed(photo, QualityCheck::Scale)?.value;
    let (nearer, go) = if pct < 0.0 { ("nearer", "back") } else { ("further away", "forward") };
    // A picture's scale grows as the distance does: so many percent of metres are as many centimetres.
    let step = before.distance_m.map(|m| m * pct.abs());
    let by = step.map_or_else(|| go.to_owned(), |cm| format!("{go} about {:.0} cm", (cm / 5.0).round().max(1.0) * 5.0));
    let says = format!("You are {nearer} than last time by about {:.0} %: step {by}.", pct.abs());
    Some(Taken::fault(Fault::Distance, says))
}

fn small(check: &Check) -> Taken {
    let says = format!("You take only {:.0} % of the picture's height: come closer.", check.value);
    Taken::fault(Fault::Small, says)
}

fn turned(asked: PhotoPose) -> Taken {
    let square = if asked.from_behind() { "turn your back squarely to the camera" } else { "face the camera squarely" };
    Taken::fault(Fault::Turned, format!("You stand a little turned: {square}, hips too."))
}

fn leaning(check: &Check) -> Taken {
    Taken::fault(Fault::Leaning, format!("The phone leans by {:.0} degrees: straighten it.", check.value.abs()))
}

/// Height of the optical axis above the floor, cm, of a camera held level: there the picture's middle is.
fn axis_cm(photo: &Photo) -> Option<f64> {
    let floor = photo.landmarks.get("floor")?;
    Some((floor.y - f64::from(photo.height_px) / 2.0) * photo.scale_cm_per_px)
}

fn height(photo: &Photo, before: &Photo) -> Option<Taken> {
    before.scale_in((photo.width_px, photo.height_px))?;
    let change = axis_cm(photo)? - axis_cm(before)?;
    let (now, go) = if change < 0.0 { ("lower", "raise") } else { ("higher", "lower") };
    (change.abs() > MOST_HEIGHT_CHANGE_CM).then(|| {
        let says = format!("The phone looks about {:.0} cm {now} than last time: {go} or level it.", change.abs());
        Taken::fault(Fault::Height, says)
    })
}

fn dark(light: Light) -> Option<Taken> {
    let says = "It is too dark: put a light in front of you, or open the curtains.";
    (light.level < LEAST_LIGHT).then(|| Taken::fault(Fault::Light, says))
}

fn glaring() -> Taken {
    Taken::fault(Fault::Light, "Part of you is pure white or black: softer light, and none from behind.")
}

fn blurred() -> Taken {
    Taken::fault(Fault::Blurred, "The picture is blurred: stand still, and wipe the lens.")
}

/// Arms that are to be held forward hang when a wrist is nearer to the hips' height than to the shoulders'.
fn arms(photo: &Photo, asked: PhotoPose) -> Option<Taken> {
    let side = match asked {
        PhotoPose::SLA => "left",
        PhotoPose::SRA => "right",
        _ => return None,
    };
    let y = |name: &str| photo.landmarks.get(&format!("{name}-{side}")).map(|mark| mark.y);
    let hangs = y("wrist")? > f64::midpoint(y("acromion")?, y("hip-joint")?);
    hangs.then(|| Taken::fault(Fault::Arms, "Your arms hide the waist: hold them straight out in front of you."))
}

fn clothes(photo: &Photo, before: &Photo) -> Option<Taken> {
    let wider = photo.sections.iter().filter(|section| CLOTHED.contains(&section.site.as_str())).filter_map(|now| {
        let same = |then: &&crate::Section| then.site == now.site && then.side == now.side;
        let then = before.sections.iter().find(same)?;
        Some((100.0 * (now.cm / then.cm - 1.0), now.site.as_str()))
    });
    let (pct, site) = wider.max_by(|a, b| a.0.total_cmp(&b.0))?;
    (pct > MOST_WIDER_PCT).then(|| {
        let says = format!("You look {pct:.0} % wider at the {site} than last time: wear what lies close.");
        Taken::fault(Fault::Clothes, says)
    })
}

fn wall() -> Taken {
    Taken::fault(Fault::Wall, "Your outline is lost in what is behind you: stand before a plain wall.")
}

fn other_light(now: Light, then: Light) -> Option<Taken> {
    if now.level < LEAST_OF_LAST_LIGHT * then.level {
        return Some(Taken::fault(Fault::Light, "It is darker than last time: light it as then, from the front."));
    }
    let shift = now.shift - then.shift;
    let side = if shift > 0.0 { "right" } else { "left" };
    let says =
        format!("The light comes more from the {side} of the picture than last time: light as last time, please.");
    (shift.abs() > MOST_LIGHT_SHIFT).then(|| Taken::fault(Fault::Light, says))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::photo::{Landmark, Section};
    use rstest::{fixture, rstest};

    fn check(check: QualityCheck, value: f64, ok: bool) -> Check {
        Check { check, value, unit: String::new(), ok, says: String::new() }
    }

    /// A man of 180 cm in a picture of 60 x 100 px at 2 cm to a pixel, with nothing wrong, and evenly lit.
    struct Shot {
        picture: RgbImage,
        view: View,
    }

    #[fixture]
    fn shot() -> Shot {
        let mark = |y: f64| Landmark { x: 30.0, y, confidence: 1.0 };
        let section = |site: &str, cm: f64| Section { site: site.parse().expect("a site"), side: None, cm, at: 0.6 };
        let photo = Photo {
            person: true,
            scale_cm_per_px: 2.0,
            mask_confidence: 0.9,
            landmarks: [("vertex".to_owned(), mark(5.0)), ("floor".to_owned(), mark(95.0))].into(),
            sections: vec![section("waist", 30.0), section("hip", 34.0)],
            quality: vec![check(QualityCheck::Crop, 5.0, true)],
            ..Photo::empty(Some(PhotoPose::F), (60, 100))
        };
        let mut mask = Plane::filled(60, 100, 0.0);
        for y in 5..95 {
            mask.values[y * 60 + 20..y * 60 + 40].fill(1.0);
        }
        let picture = RgbImage::from_pixel(60, 100, image::Rgb([120, 120, 120]));
        Shot { picture, view: View { photo, mask, looks_like: Some(PhotoPose::F) } }
    }

    fn seen(shot: &Shot, asked: PhotoPose, before: Option<&Photo>) -> Taken {
        let before = before.map(|photo| Before { photo, light: None, distance_m: Some(3.0) });
        taken(&shot.picture, &shot.view, asked, before)
    }

    #[rstest]
    fn a_good_picture_is_said_to_be_good(shot: Shot) {
        assert_eq!(seen(&shot, PhotoPose::F, None).says, "Good: straight, sharp, head and feet are in.");
        assert_eq!(seen(&shot, PhotoPose::F, Some(&shot.view.photo)).says, "Good: as last time.");
    }

    #[rstest]
    #[case::nearer(QualityCheck::Scale, -9.0, Fault::Distance, "nearer than last time by about 9 %: step back about 25 cm")]
    #[case::further(
        QualityCheck::Scale,
        5.0,
        Fault::Distance,
        "further away than last time by about 5 %: step forward about 15 cm"
    )]
    #[case::small(QualityCheck::Size, 48.2, Fault::Small, "only 48 % of the picture's height: come closer")]
    #[case::turned(QualityCheck::Turn, 12.0, Fault::Turned, "face the camera squarely")]
    #[case::leaning(QualityCheck::Roll, -3.6, Fault::Leaning, "leans by 4 degrees")]
    #[case::glaring(QualityCheck::Exposure, 9.0, Fault::Light, "pure white or black")]
    #[case::blurred(QualityCheck::Sharpness, 4.0, Fault::Blurred, "blurred")]
    #[case::no_wall(QualityCheck::Mask, 40.0, Fault::Wall, "plain wall")]
    fn what_a_check_finds_is_told_to_who_stands_there(
        shot: Shot,
        #[case] of: QualityCheck,
        #[case] value: f64,
        #[case] fault: Fault,
        #[case] says: &str,
    ) {
        let last = shot.view.photo.clone();
        let mut shot = shot;
        shot.view.photo.quality.push(check(of, value, false));
        let said = seen(&shot, PhotoPose::F, Some(&last));
        assert_eq!(said.fault, Some(fault));
        assert!(said.says.contains(says), "{}", said.says);
    }

    #[rstest]
    #[case::the_same(PhotoPose::F, PhotoPose::FDB, None)]
    #[case::the_back(PhotoPose::B, PhotoPose::F, Some("This is your back: your front is asked for."))]
    #[case::the_other_side(
        PhotoPose::SR,
        PhotoPose::SLA,
        Some("This is your right side: your left side is asked for.")
    )]
    #[case::either_side_will_do(PhotoPose::SR, PhotoPose::SC, None)]
    #[case::no_side(PhotoPose::F, PhotoPose::ST, Some("This is your front: your side is asked for."))]
    fn another_pose_is_named(#[case] looks_like: PhotoPose, #[case] asked: PhotoPose, #[case] says: Option<&str>) {
        assert_eq!(other_pose(Some(looks_like), asked).map(|said| said.says).as_deref(), says);
    }

    #[rstest]
    #[case::the_head(0.0, 90.0, "Your head is cut off")]
    #[case::the_feet(5.0, 100.0, "Your feet are cut off")]
    #[case::both(0.0, 100.0, "Head and feet are cut off")]
    fn what_is_cut_off_is_named_before_anything_else(
        mut shot: Shot,
        #[case] vertex: f64,
        #[case] floor: f64,
        #[case] says: &str,
    ) {
        let photo = &mut shot.view.photo;
        photo.quality = vec![check(QualityCheck::Turn, 20.0, false), check(QualityCheck::Crop, 0.0, false)];
        for (name, y) in [("vertex", vertex), ("floor", floor)] {
            photo.landmarks.insert(name.to_owned(), Landmark { x: 30.0, y, confidence: 1.0 });
        }
        assert!(seen(&shot, PhotoPose::F, None).says.starts_with(says));
    }

    #[rstest]
    fn a_phone_on_its_side_a_second_person_and_an_empty_wall_have_a_sentence_each(mut shot: Shot) {
        let empty = Photo::empty(Some(PhotoPose::F), (60, 100));
        shot.view.photo = empty.clone().nobody(crate::NoPerson::Two);
        assert_eq!(seen(&shot, PhotoPose::F, None).fault, Some(Fault::Others));
        shot.view.photo = empty.nobody(crate::NoPerson::Nobody);
        assert_eq!(seen(&shot, PhotoPose::F, None).fault, Some(Fault::Nobody));
        shot.picture = RgbImage::new(100, 60);
        assert_eq!(seen(&shot, PhotoPose::F, None).fault, Some(Fault::Lying));
    }

    #[rstest]
    #[case::lower(-8.0, Some("about 16 cm lower than last time: raise"))]
    #[case::higher(8.0, Some("about 16 cm higher than last time: lower"))]
    #[case::as_high(4.0, None)]
    fn a_phone_that_stands_at_another_height_is_noticed(shot: Shot, #[case] px: f64, #[case] says: Option<&str>) {
        let last = shot.view.photo.clone();
        let mut shot = shot;
        shot.view.photo.landmarks.get_mut("floor").expect("a floor").y += px;
        let said = seen(&shot, PhotoPose::F, Some(&last));
        assert_eq!(said.fault.is_some(), says.is_some(), "{}", said.says);
        assert!(said.says.contains(says.unwrap_or("Good")), "{}", said.says);
    }

    #[rstest]
    fn clothes_that_stand_off_are_noticed_beside_the_last_round(shot: Shot) {
        let last = shot.view.photo.clone();
        let mut shot = shot;
        shot.view.photo.sections[1].cm *= 1.15;
        assert_eq!(
            seen(&shot, PhotoPose::F, Some(&last)).says,
            "You look 15 % wider at the hip than last time: wear what lies close."
        );
    }

    #[rstest]
    #[case::dark(30, 30, Some("It is too dark"))]
    #[case::from_the_right(90, 180, Some("more from the right of the picture"))]
    #[case::from_the_left(180, 90, Some("more from the left of the picture"))]
    #[case::half_the_lamps(80, 80, Some("darker than last time"))]
    #[case::even(120, 130, None)]
    fn light_is_compared_with_last_time(
        mut shot: Shot,
        #[case] left: u8,
        #[case] right: u8,
        #[case] says: Option<&str>,
    ) {
        for (x, _, pixel) in shot.picture.enumerate_pixels_mut() {
            *pixel = image::Rgb([if x < 30 { left } else { right }; 3]);
        }
        let last = shot.view.photo.clone();
        let before = Before { photo: &last, light: Some(Light { level: 120.0, shift: 0.0 }), distance_m: None };
        let said = taken(&shot.picture, &shot.view, PhotoPose::F, Some(before));
        assert!(said.says.contains(says.unwrap_or("Good")), "{}", said.says);
    }
}
