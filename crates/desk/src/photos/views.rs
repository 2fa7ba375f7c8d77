//! What is asked and answered of pictures: they, what was found in them, how they lie over each other, and what was judged.

use super::{AgreementView, AskedAgain};
use casefile::PicturedEntry;
use lighttable::{CameraSetUp, Frames, Laid, Question, RegionFrame, Spoilt, WidthChange};
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use store::{Moved, PhotoRecord, PhotoState, RatingKind, RatingRecord};
use units::{PhotoId, PoseId, RegionId, RoundId, SiteId};
use utoipa::{IntoParams, ToSchema};
use vision::{Photo, PhotoPose, Stroke, perspective_pct};

/// Part of a body that lies this much nearer the camera than its plane is the example for perspective, cm.
const NEARER_CM: f64 = 10.0;

/// What is said of a picture as it is sent.
#[derive(Clone, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
#[into_params(parameter_in = Query)]
pub struct NewPhotoQuery {
    /// The pose, when known; guessed otherwise.
    #[serde(default)]
    pub pose: Option<PhotoPose>,
    /// Whether it was taken in a mirror, when known.
    #[serde(default)]
    pub mirrored: Option<bool>,
    /// Distance of the camera, m, when known.
    #[serde(default)]
    pub distance_m: Option<f64>,
}

/// The pose asked of the stand-in camera.
#[derive(Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
#[into_params(parameter_in = Query)]
pub struct BoothQuery {
    /// One of the poses the booth can hold.
    pub pose: PhotoPose,
}

/// How far a picture has come.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum PhotoStateView {
    /// Not looked at yet.
    Waiting,
    /// Looked at.
    Seen,
    /// It could not be looked at.
    Failed,
}

/// A place a coach gave a landmark, px of the view.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Spot {
    /// From the left edge.
    pub x: f64,
    /// From the top edge.
    pub y: f64,
}

/// What a coach moved and drew over what was found.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct MovedBody {
    /// Landmarks by name.
    pub landmarks: BTreeMap<String, Spot>,
    /// Strokes over the outline.
    pub strokes: Vec<Stroke>,
}

impl From<&Moved> for MovedBody {
    fn from(moved: &Moved) -> Self {
        let spots = moved.landmarks.iter().map(|(name, mark)| (name.clone(), Spot { x: mark.x, y: mark.y }));
        Self { landmarks: spots.collect(), strokes: moved.strokes.clone() }
    }
}

/// A picture.
#[derive(Serialize, ToSchema)]
pub struct PhotoView {
    /// Random id: `/api/v1/photos/{id}/view` and `/thumb` are its pictures.
    pub id: PhotoId,
    /// The round it belongs to.
    pub round_id: RoundId,
    /// Grows with every change.
    pub revision: i32,
    /// How far it has come.
    pub state: PhotoStateView,
    /// Why it could not be looked at.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub failure: Option<String>,
    /// The pose it counts as; none while nobody has named it and nobody has looked.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub pose: Option<PhotoPose>,
    /// Whether that is a guess.
    pub pose_guessed: bool,
    /// Whether it was taken in a mirror; none until someone has said.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub mirrored: Option<bool>,
    /// Distance of the camera, m.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub distance_m: Option<f64>,
    /// How much larger a part looks that is 10 cm nearer the camera, %.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub perspective_pct: Option<f64>,
    /// When the camera says it was taken.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub taken_at: Option<String>,
    /// Who took it in.
    pub added_by: String,
    /// Whether it is the one of its pose that counts in its round: outlines and comparisons are taken from it.
    pub counts: bool,
    /// What is measured in it, in px of the view.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub measured: Option<Photo>,
    /// What the coach moved.
    pub moved: MovedBody,
    /// Where the regions are that its pose shows.
    pub frames: Vec<RegionFrame>,
}

impl PhotoView {
    pub(crate) fn of(atlas: &atlas::Atlas, frames: &Frames, record: PhotoRecord, counts: bool) -> Self {
        let pose = record.shows();
        let regions = record.measured.as_ref().filter(|photo| photo.person);
        let (state, failure) = match record.state {
            PhotoState::Waiting => (PhotoStateView::Waiting, None),
            PhotoState::Seen => (PhotoStateView::Seen, None),
            PhotoState::Failed(why) => (PhotoStateView::Failed, Some(why)),
        };
        Self {
            frames: regions.map(|photo| frames.in_photo(atlas, photo)).unwrap_or_default(),
            moved: MovedBody::from(&record.moved),
            perspective_pct: record.distance_m.map(|distance_m| perspective_pct(NEARER_CM, distance_m)),
            pose_guessed: record.pose.is_none(),
            id: record.id,
            round_id: record.round_id,
            revision: record.revision,
            state,
            failure,
            pose,
            mirrored: record.mirrored,
            distance_m: record.distance_m,
            taken_at: record.taken_at,
            added_by: record.added_by,
            counts,
            // Every level of a side is of use to the girths alone.
            measured: record.measured.map(|photo| Photo { profile: None, ..photo }),
        }
    }
}

/// What a coach says of a picture.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SavePhoto {
    /// The revision it was read at.
    pub revision: i32,
    /// The pose, when named; guessed otherwise.
    #[serde(default)]
    pub pose: Option<PhotoPose>,
    /// Whether it was taken in a mirror.
    #[serde(default)]
    pub mirrored: Option<bool>,
    /// Distance of the camera, m.
    #[serde(default)]
    pub distance_m: Option<f64>,
    /// What was moved and drawn.
    #[serde(default)]
    pub moved: MovedBody,
}

/// The pictures of one round.
#[derive(Serialize, ToSchema)]
pub struct PhotoRound {
    /// Random id.
    pub round_id: RoundId,
    /// The day it was taken.
    pub date: String,
    /// Its pictures.
    pub photos: Vec<PhotoView>,
}

/// A rating that was given.
#[derive(Serialize, ToSchema)]
pub struct RatingView {
    /// The round.
    pub round_id: RoundId,
    /// The region.
    pub region: RegionId,
    /// The pose it was judged in.
    pub pose: PoseId,
    /// What was judged.
    pub kind: RatingKind,
    /// -2 to 2; none when it could not be told.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub value: Option<i8>,
}

impl From<RatingRecord> for RatingView {
    fn from(record: RatingRecord) -> Self {
        let place = record.place;
        Self { round_id: place.round_id, region: place.region, pose: place.pose, kind: place.kind, value: record.value }
    }
}

/// A rating to be given; without a value it could not be told.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SaveRating {
    /// The region.
    pub region: String,
    /// The pose it was judged in.
    pub pose: String,
    /// What was judged.
    pub kind: RatingKind,
    /// -2 to 2.
    #[serde(default)]
    pub value: Option<i8>,
}

/// A rating to be taken back.
#[derive(Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
#[into_params(parameter_in = Query)]
pub struct RatingQuery {
    /// The region.
    pub region: String,
    /// The pose it was judged in.
    pub pose: String,
    /// What was judged.
    pub kind: RatingKind,
}

/// The light table of a round.
#[derive(Serialize, ToSchema)]
pub struct LightTable {
    /// Why no picture may be taken in; none when pictures may.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub refusal: Option<String>,
    /// All rounds of the client with their pictures, oldest first.
    pub rounds: Vec<PhotoRound>,
    /// What this round's pictures can be asked.
    pub questions: Vec<Question>,
    /// What was judged, in all rounds.
    pub ratings: Vec<RatingView>,
    /// Girths that this round's pictures show.
    pub girths: RoundGirths,
    /// Pictures of this round that cannot be compared with another round's.
    pub spoilt: Vec<Spoilt>,
    /// Poses that the client was asked for once more.
    pub asked: Vec<AskedAgain>,
    /// Where the client's camera stands, when they said.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub set_up: Option<CameraSetUp>,
}

/// Girths that a round's pictures show.
#[derive(Serialize, ToSchema)]
pub struct RoundGirths {
    /// On how many made-up bodies the common constants were fitted.
    pub bodies: u32,
    /// What the practice's own pairs of tape and pictures pull them by; none while there are no pairs.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub practice: Option<PracticePairs>,
    /// Girths, left before right.
    pub sites: Vec<PicturedEntry>,
    /// What the pictures do not show, or only in part.
    pub missing: Vec<UnseenGirth>,
}

/// Pairs of tape and pictures of one day, of the site that has most.
#[derive(Serialize, ToSchema)]
pub struct PracticePairs {
    /// Rounds with both.
    pub pairs: usize,
    /// Clients whose rounds they are.
    pub clients: usize,
}

/// A girth that the pictures do not show, or only in part.
#[derive(Serialize, ToSchema)]
pub struct UnseenGirth {
    /// The site.
    pub site: SiteId,
    /// Why, and what would show it.
    pub why: String,
}

/// How an earlier picture lies over another.
#[derive(Serialize, ToSchema)]
pub struct OverView {
    /// The transform and what keeps the two from being compared.
    pub laid: Laid,
    /// Widths then and now.
    pub widths: Vec<WidthChange>,
}

/// The outline of the person in a picture.
#[derive(Serialize, ToSchema)]
pub struct OutlineView {
    /// Closed lines, px of the view.
    pub lines: Vec<Vec<[f64; 2]>>,
}

/// A rating asked again, blind.
#[derive(Serialize, ToSchema)]
pub struct RepeatView {
    /// Goes back with the answer; the page does not show it.
    pub round_id: RoundId,
    /// The region.
    pub region: RegionId,
    /// The pose.
    pub pose: PoseId,
    /// What is judged.
    pub kind: RatingKind,
    /// Whether to show the picture mirrored.
    pub mirrored: bool,
    /// The picture to show.
    pub photo: PhotoView,
}

/// Blind repeats and what they have shown so far.
#[derive(Serialize, ToSchema)]
pub struct RepeatsView {
    /// What to ask again.
    pub due: Vec<RepeatView>,
    /// What the repeats so far have shown.
    pub agreement: AgreementView,
    /// Days a rating rests before it is asked again.
    pub rest_days: i32,
}

/// A blind answer.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SaveRepeat {
    /// The round of the rating.
    pub round_id: RoundId,
    /// The region.
    pub region: String,
    /// The pose.
    pub pose: String,
    /// What was judged.
    pub kind: RatingKind,
    /// Whether the picture was shown mirrored: left and right are turned back.
    pub mirrored: bool,
    /// -2 to 2 as seen; none when it could not be told.
    #[serde(default)]
    pub value: Option<i8>,
}

/// Consent taken back.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct WithdrawConsent {
    /// The revision the brief was read at.
    pub revision: i32,
}

/// What went with the consent.
#[derive(Serialize, ToSchema)]
pub struct Withdrawn {
    /// Pictures removed.
    pub pictures: usize,
}
