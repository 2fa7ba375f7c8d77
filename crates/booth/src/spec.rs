//! The booth spec (`orthomer-booth`, version 1): who stands how before which camera.

use crate::fit::SITES;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use units::{Place, Side};

/// Everything that decides a picture.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct Spec {
    /// `orthomer-booth`.
    pub format: String,
    /// 1.
    pub version: u32,
    /// Stature, cm, 140 to 215: grown-up figures only.
    pub stature_cm: f64,
    /// `male` or `female`.
    pub sex: Sex,
    /// How the figure stands.
    pub pose: Pose,
    /// Where the camera is.
    #[serde(default)]
    pub camera: Camera,
    /// The light.
    #[serde(default)]
    pub light: Light,
    /// The build.
    #[serde(default)]
    pub body: Body,
    /// Skin tone.
    #[serde(default)]
    pub skin: Skin,
    /// Hair.
    #[serde(default)]
    pub hair: Hair,
    /// Clothes.
    #[serde(default)]
    pub clothes: Clothes,
    /// What is behind the figure.
    #[serde(default)]
    pub room: Room,
    /// The picture.
    #[serde(default)]
    pub image: Image,
}

/// Sex of the figure.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "lowercase")]
pub enum Sex {
    /// A man.
    Male,
    /// A woman.
    Female,
}

/// Poses the booth can hold, by their usual ids.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Serialize, Deserialize, JsonSchema)]
pub enum Pose {
    /// Front relaxed.
    F,
    /// Back relaxed.
    B,
    /// Left side relaxed: the client's left to the camera.
    SL,
    /// Right side relaxed.
    SR,
    /// Left side with the arms held forward, off the trunk.
    SLA,
    /// Right side with the arms held forward.
    SRA,
    /// Front double biceps.
    FDB,
    /// Back double biceps.
    BDB,
    /// Front lat spread.
    FLS,
    /// Back lat spread.
    BLS,
}

impl Pose {
    /// All of them.
    pub const ALL: [Self; 10] =
        [Self::F, Self::B, Self::SL, Self::SR, Self::SLA, Self::SRA, Self::FDB, Self::BDB, Self::FLS, Self::BLS];

    /// Its usual id.
    pub fn id(self) -> String {
        format!("{self:?}")
    }

    /// Whether the figure shows a flank, where left and right cannot be told apart in the outline.
    pub fn is_side(self) -> bool {
        matches!(self, Self::SL | Self::SR | Self::SLA | Self::SRA)
    }
}

/// The camera.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields, default)]
pub struct Camera {
    /// From the figure's middle, m, 1.2 to 8.
    pub distance_m: f64,
    /// Above the floor, m, 0.3 to 2.
    pub height_m: f64,
    /// Turn of the figure about the vertical, degrees, -30 to 30; positive shows more of the client's right in a front pose.
    pub yaw_deg: f64,
    /// Roll of the camera, degrees, -20 to 20; positive turns the picture clockwise.
    pub roll_deg: f64,
    /// Share of the picture's height the figure takes, 0.2 to 1.3; over 1 cuts it off.
    pub fill: f64,
    /// Sideways shift of the figure, share of the picture's width, -0.5 to 0.5.
    pub shift: f64,
}

impl Default for Camera {
    fn default() -> Self {
        Self { distance_m: 3.5, height_m: 1.0, yaw_deg: 0.0, roll_deg: 0.0, fill: 0.82, shift: 0.0 }
    }
}

/// Where the light comes from.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "kebab-case")]
pub enum LightKind {
    /// From both sides at 45 degrees.
    Even,
    /// A window to the left of the picture.
    Left,
    /// A window to the right of the picture.
    Right,
    /// A lamp overhead.
    Above,
    /// Half dark.
    Dim,
}

/// The light.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields, default)]
pub struct Light {
    /// Where from.
    pub kind: LightKind,
    /// Moves it a little.
    pub seed: u64,
}

impl Default for Light {
    fn default() -> Self {
        Self { kind: LightKind::Even, seed: 0 }
    }
}

/// One girth asked for.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct Girth {
    /// The site.
    pub site: String,
    /// The client's side, at paired sites.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<Side>,
    /// Centimetres.
    pub cm: f64,
}

/// The build. What is not asked for is what the muscle and weight settings give.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields, default)]
pub struct Body {
    /// 0 slight to 1 heavily muscled.
    pub muscle: f64,
    /// 0 lean to 1 heavy.
    pub weight: f64,
    /// Girths by site and side.
    pub girths: Vec<Girth>,
    /// Width over the shoulders in the front picture.
    pub shoulder_width_cm: Option<f64>,
    /// Narrowest width of the waist in the front picture.
    pub waist_width_cm: Option<f64>,
}

impl Default for Body {
    fn default() -> Self {
        Self { muscle: 0.6, weight: 0.45, girths: Vec::new(), shoulder_width_cm: None, waist_width_cm: None }
    }
}

/// Skin tone.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "lowercase")]
pub enum Skin {
    /// Light.
    Light,
    /// Between.
    #[default]
    Middle,
    /// Dark.
    Dark,
}

/// Hair.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "lowercase")]
pub enum Hair {
    /// Cropped.
    #[default]
    Short,
    /// Over the ears and neck.
    Long,
}

/// Clothes.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Clothes {
    /// Trunks; a figure of a woman wears the two-piece all the same.
    #[default]
    Trunks,
    /// Trunks and a top.
    TwoPiece,
}

/// What is behind.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "lowercase")]
pub enum Room {
    /// A plain wall.
    #[default]
    Plain,
    /// A gym with door, rack and mats.
    Busy,
}

/// The picture.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields, default)]
pub struct Image {
    /// Pixels across, 64 to 5000.
    pub width: u32,
    /// Pixels down, 64 to 5000.
    pub height: u32,
    /// Sensor noise, standard deviation in 8-bit steps, 0 to 40.
    pub noise: f64,
    /// 1 to 100.
    pub jpeg_quality: u8,
    /// Of the noise.
    pub seed: u64,
}

impl Default for Image {
    fn default() -> Self {
        Self { width: 1200, height: 1600, noise: 2.0, jpeg_quality: 90, seed: 0 }
    }
}

/// One thing wrong with a spec.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Problem {
    /// Where, as a JSON pointer.
    pub pointer: Place,
    /// What and what is expected.
    pub says: String,
}

impl std::fmt::Display for Problem {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        write!(f, "{}: {}", self.pointer, self.says)
    }
}

impl Spec {
    /// A spec with the settings of the studio, for a figure in a pose.
    pub fn standing(stature_cm: f64, sex: Sex, pose: Pose) -> Self {
        Self {
            format: "orthomer-booth".to_owned(),
            version: 1,
            stature_cm,
            sex,
            pose,
            camera: Camera::default(),
            light: Light::default(),
            body: Body::default(),
            skin: Skin::default(),
            hair: Hair::default(),
            clothes: Clothes::default(),
            room: Room::default(),
            image: Image::default(),
        }
    }

    /// Whether the top is worn.
    pub(crate) fn wears_top(&self) -> bool {
        self.sex == Sex::Female || self.clothes == Clothes::TwoPiece
    }

    /// Everything wrong with the values, in the order of the fields.
    pub fn problems(&self) -> Vec<Problem> {
        let mut problems = Vec::new();
        let mut check = |pointer: &str, value: f64, low: f64, high: f64| {
            if !(low..=high).contains(&value) {
                let says = format!("{value} is outside {low} to {high}");
                problems.push(Problem { pointer: pointer.into(), says });
            }
        };
        check("/version", f64::from(self.version), 1.0, 1.0);
        check("/stature_cm", self.stature_cm, 140.0, 215.0);
        check("/camera/distance_m", self.camera.distance_m, 1.2, 8.0);
        check("/camera/height_m", self.camera.height_m, 0.3, 2.0);
        check("/camera/yaw_deg", self.camera.yaw_deg, -30.0, 30.0);
        check("/camera/roll_deg", self.camera.roll_deg, -20.0, 20.0);
        check("/camera/fill", self.camera.fill, 0.2, 1.3);
        check("/camera/shift", self.camera.shift, -0.5, 0.5);
        check("/body/muscle", self.body.muscle, 0.0, 1.0);
        check("/body/weight", self.body.weight, 0.0, 1.0);
        check("/image/width", f64::from(self.image.width), 64.0, 5000.0);
        check("/image/height", f64::from(self.image.height), 64.0, 5000.0);
        check("/image/noise", self.image.noise, 0.0, 40.0);
        check("/image/jpeg_quality", f64::from(self.image.jpeg_quality), 1.0, 100.0);
        check("/body/shoulder_width_cm", self.body.shoulder_width_cm.unwrap_or(45.0), 25.0, 80.0);
        check("/body/waist_width_cm", self.body.waist_width_cm.unwrap_or(30.0), 15.0, 60.0);
        if self.format != "orthomer-booth" {
            let says = format!("{:?} is not \"orthomer-booth\"", self.format);
            problems.insert(0, Problem { pointer: "/format".into(), says });
        }
        let girths = Place::from("/body/girths");
        for (index, girth) in self.body.girths.iter().enumerate() {
            problems.extend(girth.problem().map(|says| Problem { pointer: girths.at(index), says }));
        }
        problems
    }
}

impl Girth {
    fn problem(&self) -> Option<String> {
        let Some(site) = SITES.iter().find(|site| site.id == self.site) else {
            let known: Vec<&str> = SITES.iter().map(|site| site.id).collect();
            return Some(format!("the booth has no girth {:?}; it has {}", self.site, known.join(", ")));
        };
        match (site.paired, self.side) {
            (true, None) => return Some(format!("{} needs a side, left or right", site.id)),
            (false, Some(_)) => return Some(format!("{} has no sides", site.id)),
            _ => {}
        }
        let (low, high) = site.bounds_cm;
        (!(low..=high).contains(&self.cm)).then(|| format!("{} of {} cm is outside {low} to {high}", site.id, self.cm))
    }
}
