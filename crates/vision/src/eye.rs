//! From a view to a [`Photo`]: the person, the mask, what can be measured on it.

use crate::body::Joints;
use crate::by_hand::template;
use crate::error::{NoPerson, PhotoError};
use crate::guided::guided;
use crate::measure::Standing;
use crate::photo::{Landmark, Photo, PhotoPose, Width};
use crate::plane::Plane;
use crate::pose_net::{Found, Person, PoseNet};
use crate::quality::checks;
use crate::wall::{before_a_wall, components, filled, largest_component};
use image::{RgbImage, imageops};
use std::collections::BTreeMap;
use units::Sides;

/// Below this the model was never right about a person.
const LEAST_SCORE: f64 = 0.5;
/// Radius within which the guided filter looks for an edge, as a share of the picture's longer side.
const EDGE_SHARE: f64 = 0.008;
const EDGE_EPS: f32 = 2e-4;
/// Below this the model's word that nobody is there is final.
const CERTAIN: f32 = 0.06;
/// The filter's coefficients are found on a picture this many times smaller.
const EDGE_STEP: usize = 2;
/// Longer side of the picture on which a plain wall is looked for, px.
const WALL_PX: u32 = 600;
/// How sure the outline before a plain wall is at most: nothing says that it is a person.
const WALL_CONFIDENCE: f64 = 0.5;

/// How sure an outline is that the coach painted.
const BY_HAND_CONFIDENCE: f64 = 0.6;

/// What is known of a picture before it is looked at.
#[derive(Clone, Copy, Debug, Default)]
pub struct Ask {
    /// Stature, cm.
    pub stature_cm: f64,
    /// The pose, when the coach named it.
    pub pose: Option<PhotoPose>,
    /// Whether it was taken in a mirror.
    pub mirrored: bool,
    /// Distance of the camera, m, when entered.
    pub distance_m: Option<f64>,
    /// The scale of the picture of this pose in the round before, cm to a pixel.
    pub last_scale: Option<f64>,
}

/// What was seen in a picture.
#[derive(Clone, Debug)]
pub struct View {
    /// The measurement.
    pub photo: Photo,
    /// How much each pixel belongs to the person, 0 to 1; all 0 when nobody was found.
    pub mask: Plane,
    /// Where the body faces by its joints, as F, B, SL or SR, whatever pose was named; `None` where no joints were found.
    pub looks_like: Option<PhotoPose>,
}

/// The pose model, loaded. It uses every core: look at one picture at a time.
pub struct Eye {
    net: PoseNet,
}

impl Eye {
    /// Loads the model that ships with the program.
    ///
    /// # Errors
    /// [`PhotoError::Model`].
    pub fn load() -> Result<Self, PhotoError> {
        Ok(Self { net: PoseNet::load()? })
    }

    /// Looks at a picture that is the right way up.
    ///
    /// # Errors
    /// [`PhotoError::Model`] when the model fails; a picture without a person is no error, see [`Photo::person`].
    pub fn look(&self, picture: &RgbImage, ask: Ask) -> Result<View, PhotoError> {
        let empty = || Photo::empty(ask.pose, picture.dimensions());
        let nothing = Plane::filled(picture.width() as usize, picture.height() as usize, 0.0);
        let found = self.net.person(picture)?.filter(|person| person.score >= LEAST_SCORE);
        let Some(person) = found else { return without_model(picture, ask) };
        if person.accompanied {
            return Ok(View { photo: empty().nobody(NoPerson::Two), mask: nothing, looks_like: None });
        }
        let (mask, agreement) = refined(picture, &person)?;
        let joints = Joints::of(&person.points);
        let looks_like = joints.guess(ask.mirrored);
        let pose = ask.pose.unwrap_or(looks_like);
        let joints = joints.sided(pose, ask.mirrored).centred(pose);
        let confidence = person.score.min(1.0) * ((agreement - 0.75) / 0.2).clamp(0.0, 1.0);
        let mut photo = Photo { pose, mask_confidence: confidence, ..empty() };
        let Some(standing) = Standing::find(&mask, &joints, pose, ask.stature_cm, ask.distance_m) else {
            return Ok(View { photo: photo.nobody(NoPerson::Nobody), mask: nothing, looks_like: None });
        };
        photo.landmarks = standing.landmarks();
        photo.quality = checks(picture, &standing, (confidence, person.facing_deg), ask.last_scale);
        measured(&mut photo, &standing);
        Ok(View { photo, mask, looks_like: Some(looks_like) })
    }

    /// Measures again with landmarks the coach has moved; the outline stays as it was found.
    ///
    /// Where nobody was found, landmarks and outline are all the coach's own: once both are there it is measured too.
    ///
    /// `moved` holds only what was moved. Joints, vertex and floor change what is measured; an edge of deltoid, waist or hip
    /// sets that width.
    pub fn with_moved(view: &View, moved: &BTreeMap<String, Landmark>, ask: Ask) -> Photo {
        let mut photo = view.photo.clone();
        photo.landmarks.extend(moved.iter().map(|(name, mark)| (name.clone(), Landmark { confidence: 1.0, ..*mark })));
        let outlined = view.mask.values.iter().any(|&value| value >= 0.5);
        let Some(joints) = joints_of(&photo.landmarks).filter(|_| outlined) else { return photo };
        let Some(mut standing) = Standing::find(&view.mask, &joints, photo.pose, ask.stature_cm, ask.distance_m) else {
            return photo;
        };
        standing.rescale(moved.get("vertex"), moved.get("floor"), ask.stature_cm);
        if !photo.person {
            photo.mask_confidence = BY_HAND_CONFIDENCE;
            photo.why_not = None;
        }
        measured(&mut photo, &standing);
        for width in &mut photo.widths {
            let edges = ["left", "right"].map(|side| format!("{}-{side}", width.level));
            if edges.iter().any(|name| moved.contains_key(name)) {
                let marks = edges.map(|name| photo.landmarks.get(&name).copied());
                if let [Some(left), Some(right)] = marks {
                    *width = standing.between(&width.level, left, right);
                }
            }
        }
        photo.taper = taper(&photo.widths);
        photo
    }
}

fn measured(photo: &mut Photo, standing: &Standing) {
    photo.person = true;
    photo.scale_cm_per_px = standing.cm_per_px;
    photo.widths = standing.widths();
    photo.limbs = standing.limbs();
    photo.sections = standing.sections();
    photo.profile = standing.profile();
    photo.tilt = standing.tilt();
    photo.taper = taper(&photo.widths);
}

/// Shoulder width over waist width.
fn taper(widths: &[Width]) -> Option<f64> {
    let width = |level: &str| widths.iter().find(|width| width.level == level).map(|width| width.cm);
    width("deltoid").zip(width("waist")).map(|(deltoid, waist)| deltoid / waist)
}

/// The joints as they stand among the landmarks.
fn joints_of(marks: &BTreeMap<String, Landmark>) -> Option<Joints> {
    let one = |name: &str| marks.get(name).map(|mark| Found { x: mark.x, y: mark.y, visible: mark.confidence });
    let pair = |name: &str| Some(Sides { left: one(&format!("{name}-left"))?, right: one(&format!("{name}-right"))? });
    let head = |share: f64| {
        let (vertex, chin) = (one("vertex")?, one("chin")?);
        let at = |a: f64, b: f64| a + (b - a) * share;
        Some(Found { x: at(vertex.x, chin.x), y: at(vertex.y, chin.y), visible: chin.visible })
    };
    let ears = head(0.55)?;
    Some(Joints {
        nose: head(0.7)?,
        ear: Sides { left: ears, right: ears },
        shoulder: pair("acromion")?,
        elbow: pair("elbow")?,
        wrist: pair("wrist")?,
        hip: pair("hip-joint")?,
        knee: pair("knee")?,
        ankle: pair("ankle")?,
    })
}

/// The model's mask with its edges drawn to the picture's, one piece without holes; and how much both agree, 0 to 1.
fn refined(picture: &RgbImage, person: &Person) -> Result<(Plane, f64), PhotoError> {
    let (width, height) = (person.mask.width, person.mask.height);
    let radius = (width.max(height) as f64 * EDGE_SHARE).max(2.0);
    let window = window(&person.mask, (2.5 * radius) as usize);
    let cut =
        imageops::crop_imm(picture, window.0 as u32, window.1 as u32, window.2 as u32, window.3 as u32).to_image();
    let rows = (0..window.3).flat_map(|y| {
        let start = (window.1 + y) * width + window.0;
        person.mask.values[start..start + window.2].iter().copied()
    });
    let soft = Plane { width: window.2, height: window.3, values: rows.collect() };
    let mut sharp = guided(&cut, &soft, radius as usize, EDGE_EPS, EDGE_STEP)?;
    // Where the model is certain that nobody is, nothing is drawn in: a bench in the colour of skin would join a calf.
    for (value, _) in sharp.values.iter_mut().zip(&soft.values).filter(|(_, soft)| **soft < CERTAIN) {
        *value = 0.0;
    }
    let one = largest_component(&sharp.inside(), sharp.width);
    let whole = without_gaps(&one, &filled(&one, sharp.width), &soft);
    let mut mask = Plane::filled(width, height, 0.0);
    let (mut both, mut either) = (0_u32, 0_u32);
    for (i, (&inside, &value)) in whole.iter().zip(&sharp.values).enumerate() {
        // What is between pixels stays where it was found; what was filled or dropped is made so.
        let value = if inside { value.max(0.5) } else { value.min(0.499) };
        mask.values[(window.1 + i / window.2) * width + window.0 + i % window.2] = value;
        let raw = soft.values[i] >= 0.5;
        both += u32::from(inside && raw);
        either += u32::from(inside || raw);
    }
    Ok((mask, f64::from(both) / f64::from(either.max(1))))
}

/// Holes are filled where the model sees the person; between a bent arm and the trunk it does not, and the gap stays.
fn without_gaps(one: &[bool], filled: &[bool], soft: &Plane) -> Vec<bool> {
    let holes: Vec<bool> = one.iter().zip(filled).map(|(one, filled)| *filled && !*one).collect();
    let mut whole = filled.to_vec();
    for hole in components(&holes, soft.width) {
        let seen: f32 = hole.iter().map(|&i| soft.values[i]).sum();
        if seen < 0.5 * hole.len() as f32 {
            for i in hole {
                whole[i] = false;
            }
        }
    }
    whole
}

/// Left, top, width and height of what a mask covers, with a margin.
fn window(mask: &Plane, margin: usize) -> (usize, usize, usize, usize) {
    let (mut left, mut right, mut top, mut bottom) = (mask.width, 0, mask.height, 0);
    for (i, _) in mask.values.iter().enumerate().filter(|(_, value)| **value >= 0.2) {
        let (x, y) = (i % mask.width, i / mask.width);
        (left, right, top, bottom) = (left.min(x), right.max(x), top.min(y), bottom.max(y));
    }
    if left > right {
        return (0, 0, mask.width, mask.height);
    }
    let (left, top) = (left.saturating_sub(margin), top.saturating_sub(margin));
    let (right, bottom) = ((right + margin).min(mask.width - 1), (bottom + margin).min(mask.height - 1));
    (left, top, right - left + 1, bottom - top + 1)
}

/// Where the model finds no one: what stands out from a plain wall, without joints or limbs.
fn without_model(picture: &RgbImage, ask: Ask) -> Result<View, PhotoError> {
    let (width, height) = picture.dimensions();
    let shrink = (f64::from(WALL_PX) / f64::from(width.max(height))).min(1.0);
    let small = |side: u32| ((f64::from(side) * shrink) as u32).max(1);
    let found = before_a_wall(&imageops::thumbnail(picture, small(width), small(height)));
    let empty = Photo::empty(ask.pose, picture.dimensions());
    let Some(found) = found else {
        let mask = Plane::filled(width as usize, height as usize, 0.0);
        let landmarks = template(empty.pose, ask.mirrored, (width, height));
        return Ok(View { photo: Photo { landmarks, ..empty.nobody(NoPerson::Nobody) }, mask, looks_like: None });
    };
    let mask = found.resized(width as usize, height as usize)?;
    let mut photo = Photo { mask_confidence: WALL_CONFIDENCE, ..empty };
    let inside = mask.values.iter().enumerate().filter(|(_, value)| **value >= 0.5).map(|(i, _)| i);
    let (mut top, mut bottom, mut sum, mut count) = (mask.height, 0, 0, 0);
    for i in inside {
        let (x, y) = (i % mask.width, i / mask.width);
        (top, bottom, sum, count) = (top.min(y), bottom.max(y + 1), sum + x, count + 1);
    }
    let x = sum as f64 / f64::from(count.max(1));
    photo.person = true;
    photo.scale_cm_per_px = ask.stature_cm / (bottom - top) as f64;
    for (name, y) in [("vertex", top), ("floor", bottom)] {
        photo.landmarks.insert(name.to_owned(), Landmark { x, y: y as f64, confidence: WALL_CONFIDENCE });
    }
    Ok(View { photo, mask, looks_like: None })
}
