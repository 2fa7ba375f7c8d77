//! What is asked and answered of pictures that a client is asked for, how the camera stands, and what is said of a picture that was just taken.

use lighttable::CameraSetUp;
use serde::{Deserialize, Serialize};
use store::PictureAsk;
use utoipa::{IntoParams, ToSchema};
use vision::PhotoPose;

/// Pictures that a client is asked for.
#[derive(Serialize, ToSchema)]
pub struct PicturesAsked {
    /// Why none can be sent now.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub refusal: Option<String>,
    /// The day of the round they go to.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub round_on: Option<String>,
    /// Where the camera stood last time; none until the client said.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub set_up: Option<CameraSetUp>,
    /// Poses in the order in which they are taken.
    pub poses: Vec<PoseAsked>,
}

/// A pose that a client is asked for.
#[derive(Serialize, ToSchema)]
pub struct PoseAsked {
    /// Its id.
    pub pose: PhotoPose,
    /// Its name.
    pub name: String,
    /// Pictures of it in this round.
    pub sent: u32,
    /// What is to be different, when the coach asks for it once more.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub again: Option<String>,
    /// What keeps the one that counts from being compared.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub doubt: Option<String>,
    /// How the client stood in it in the round before.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub ghost: Option<Ghost>,
}

/// The outline of an earlier picture.
#[derive(Serialize, ToSchema)]
pub struct Ghost {
    /// The day of its round.
    pub on: String,
    /// Width of that picture, px.
    pub width_px: u32,
    /// Its height.
    pub height_px: u32,
    /// Closed lines, px.
    pub lines: Vec<Vec<[f64; 2]>>,
}

/// What is said of a picture as it is looked at on the spot.
#[derive(Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
#[into_params(parameter_in = Query)]
pub struct LookQuery {
    /// The pose that was asked for.
    pub pose: PhotoPose,
    /// Whether it was taken in a mirror.
    #[serde(default)]
    pub mirrored: bool,
}

/// A pose to be asked for once more.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AskAgain {
    /// The pose.
    pub pose: PhotoPose,
    /// What is to be different: 1 to 300 characters.
    pub reason: String,
}

/// A pose that was asked for once more and is not answered yet.
#[derive(Serialize, ToSchema)]
pub struct AskedAgain {
    /// The pose.
    pub pose: PhotoPose,
    /// What is to be different.
    pub reason: String,
    /// Who asked.
    pub asked_by: String,
    /// When, RFC 3339.
    pub asked_at: String,
}

impl From<PictureAsk> for AskedAgain {
    fn from(ask: PictureAsk) -> Self {
        let PictureAsk { pose, reason, asked_by, asked_at } = ask;
        Self { pose, reason, asked_by, asked_at: asked_at.to_string() }
    }
}
