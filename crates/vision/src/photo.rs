//! What a photo says (`orthomer-photo`, version 1).

use crate::error::NoPerson;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use units::{Segment, Side, SiteId};
use utoipa::ToSchema;

/// A pose by its usual id, as far as measuring goes.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Serialize, Deserialize, JsonSchema, ToSchema)]
pub enum PhotoPose {
    /// Front relaxed.
    F,
    /// Back relaxed.
    B,
    /// The client's left side.
    SL,
    /// The client's right side.
    SR,
    /// The client's left side with the arms held forward, off the trunk.
    SLA,
    /// The client's right side with the arms held forward.
    SRA,
    /// Front double biceps.
    FDB,
    /// Back double biceps.
    BDB,
    /// Front lat spread.
    FLS,
    /// Back lat spread.
    BLS,
    /// Side chest.
    SC,
    /// Side triceps.
    ST,
    /// Abdominals and thighs.
    AT,
}

impl PhotoPose {
    /// All of them.
    pub const ALL: [Self; 13] = [
        Self::F,
        Self::B,
        Self::SL,
        Self::SR,
        Self::SLA,
        Self::SRA,
        Self::FDB,
        Self::BDB,
        Self::FLS,
        Self::BLS,
        Self::SC,
        Self::ST,
        Self::AT,
    ];

    /// Its usual id.
    pub fn id(self) -> String {
        format!("{self:?}")
    }

    /// Whether the client faces away.
    pub fn from_behind(self) -> bool {
        matches!(self, Self::B | Self::BDB | Self::BLS)
    }

    /// Whether a flank is shown: left and right cannot be told apart in the outline.
    pub fn from_the_side(self) -> bool {
        matches!(self, Self::SL | Self::SR | Self::SLA | Self::SRA | Self::SC | Self::ST)
    }
}

/// A landmark in the picture.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Landmark {
    /// From the left edge, px.
    pub x: f64,
    /// From the top edge, px.
    pub y: f64,
    /// 0 to 1; 1 when the coach placed it.
    pub confidence: f64,
}

/// A width at a level.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct Width {
    /// `deltoid`, `chest`, `waist` or `hip`.
    pub level: String,
    /// Across, cm.
    pub cm: f64,
    /// From the midline to the client's left, cm; not from the side.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub left_cm: Option<f64>,
    /// From the midline to the client's right, cm; not from the side.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub right_cm: Option<f64>,
}

/// Mean width of a limb segment on both sides.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct Limb {
    /// Which.
    pub segment: Segment,
    /// The client's left, cm.
    pub left_width_cm: f64,
    /// The client's right, cm.
    pub right_width_cm: f64,
}

/// Across the body at the level where a tape lies, as the camera sees it.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Section {
    /// The tape's site.
    pub site: SiteId,
    /// The client's side at a paired site.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<Side>,
    /// From edge to edge, cm.
    pub cm: f64,
    /// Height of the level above the floor, as a share of stature.
    pub at: f64,
}

/// How deep the body is from the side at every level.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Profile {
    /// cm at [`Profile::FROM`] and every [`Profile::STEP`] above it; `None` where an arm draws the edge or nobody is.
    pub depth_cm: Vec<Option<f64>>,
}

impl Profile {
    /// The lowest level, as a share of stature.
    pub const FROM: f64 = 0.03;
    /// From one level to the next, as a share of stature.
    pub const STEP: f64 = 0.005;
    /// How many levels.
    pub const LEVELS: usize = 173;

    /// Height of a level above the floor, as a share of stature.
    pub fn level(index: usize) -> f64 {
        Self::FROM + Self::STEP * index as f64
    }

    /// Depths seen within a range of levels, shares of stature; `None` when less than half of them are.
    pub fn between(&self, low: f64, high: f64) -> Option<Vec<f64>> {
        let inside = self.depth_cm.iter().enumerate().filter(|(i, _)| (low..=high).contains(&Self::level(*i)));
        let all: Vec<Option<f64>> = inside.map(|(_, depth)| *depth).collect();
        let seen: Vec<f64> = all.iter().flatten().copied().collect();
        (!seen.is_empty() && 2 * seen.len() >= all.len()).then_some(seen)
    }
}

/// Tilt of the lines through both shoulders and both hips; positive: the client's left is higher.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[schema(as = PhotoTilt)]
pub struct Tilt {
    /// Shoulders, degrees.
    pub shoulders_deg: f64,
    /// Hips, degrees.
    pub hips_deg: f64,
}

/// What of a picture's quality is looked at.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "lowercase")]
pub enum QualityCheck {
    /// Whether the camera leans to a side.
    Roll,
    /// Whether the person is turned away from the pose.
    Turn,
    /// Whether head, feet and arms are in.
    Crop,
    /// Whether the person is large enough.
    Size,
    /// Whether there is enough light, and not too much.
    Exposure,
    /// Whether edges are sharp.
    Sharpness,
    /// Whether the camera stands as far away as last time.
    Scale,
    /// Whether the outline can be told from what is behind it.
    Mask,
}

/// One quality check.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct Check {
    /// What was looked at.
    pub check: QualityCheck,
    /// The number it rests on.
    pub value: f64,
    /// Its unit.
    pub unit: String,
    /// Whether the picture passes.
    pub ok: bool,
    /// In a sentence.
    pub says: String,
}

/// What a photo says.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct Photo {
    /// `orthomer-photo`.
    pub format: String,
    /// 1.
    pub version: u32,
    /// Given, or guessed as F, B, SL or SR.
    pub pose: PhotoPose,
    /// Whether the pose was guessed.
    pub pose_guessed: bool,
    /// Size of the picture the pixels are counted in.
    pub width_px: u32,
    /// Its height.
    pub height_px: u32,
    /// Whether somebody was found.
    pub person: bool,
    /// Why not.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub why_not: Option<String>,
    /// Centimetres to a pixel; 0 while nobody is found.
    pub scale_cm_per_px: f64,
    /// 0 to 1.
    pub mask_confidence: f64,
    /// Places by name, `-left` and `-right` being the client's.
    pub landmarks: BTreeMap<String, Landmark>,
    /// Widths by level.
    pub widths: Vec<Width>,
    /// Limbs.
    pub limbs: Vec<Limb>,
    /// Breadths at the tape's levels, from the front and from behind.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub sections: Vec<Section>,
    /// Depths by level, from the side.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub profile: Option<Profile>,
    /// Shoulder width over waist width.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub taper: Option<f64>,
    /// Tilts; not from the side.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tilt: Option<Tilt>,
    /// Checks.
    pub quality: Vec<Check>,
}

/// Pictures whose sides stand in the same proportion within this are taken alike.
const SAME_SHAPE: f64 = 0.02;

impl Photo {
    pub(crate) fn empty(pose: Option<PhotoPose>, size_px: (u32, u32)) -> Self {
        Self {
            format: "orthomer-photo".to_owned(),
            version: 1,
            pose: pose.unwrap_or(PhotoPose::F),
            pose_guessed: pose.is_none(),
            width_px: size_px.0,
            height_px: size_px.1,
            person: false,
            why_not: None,
            scale_cm_per_px: 0.0,
            mask_confidence: 0.0,
            landmarks: BTreeMap::new(),
            widths: Vec::new(),
            limbs: Vec::new(),
            sections: Vec::new(),
            profile: None,
            taper: None,
            tilt: None,
            quality: Vec::new(),
        }
    }

    /// Its scale counted in the pixels of another picture, cm to a pixel: what the other's would be had nobody moved. `None` when the two are
    /// of other shapes, so that another lens or part of the sensor took them, or when nobody was found.
    pub fn scale_in(&self, (width_px, height_px): (u32, u32)) -> Option<f64> {
        let shape = |width: u32, height: u32| f64::from(width) / f64::from(height.max(1));
        let (own, other) = (shape(self.width_px, self.height_px), shape(width_px, height_px));
        let alike = (own / other - 1.0).abs() <= SAME_SHAPE;
        (alike && self.scale_cm_per_px > 0.0)
            .then(|| self.scale_cm_per_px * f64::from(self.height_px) / f64::from(height_px))
    }

    /// Counts the pixels in a picture of another size, such as the original of a view.
    pub fn enlarge(&mut self, (width_px, height_px): (u32, u32)) {
        let factor = f64::from(height_px) / f64::from(self.height_px);
        for mark in self.landmarks.values_mut() {
            (mark.x, mark.y) = (mark.x * factor, mark.y * factor);
        }
        self.scale_cm_per_px /= factor;
        (self.width_px, self.height_px) = (width_px, height_px);
    }

    pub(crate) fn nobody(mut self, why: NoPerson) -> Self {
        self.why_not = Some(why.to_string());
        self
    }
}
