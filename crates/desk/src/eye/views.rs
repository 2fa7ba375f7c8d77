//! What is asked and answered of the eye: sittings before made-up figures, and what they say of a coach.

use crate::photos::AgreementView;
use ::eye::{Frame, Skill};
use serde::{Deserialize, Serialize};
use store::RatingKind;
use units::{PoseId, SiteId};
use utoipa::ToSchema;

/// A coach's own eye, as far as it is known.
#[derive(Serialize, ToSchema)]
pub struct EyePage {
    /// A sitting that was begun and not ended.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub open: Option<OpenSitting>,
    /// Pictures of a sitting.
    pub pictures: usize,
    /// By kind of question, from all ended sittings.
    pub kinds: Vec<KindSkill>,
    /// Ended sittings, newest first.
    pub past: Vec<PastSitting>,
    /// Agreement with oneself, from standings judged twice, here and on the light table.
    pub agreement: AgreementView,
}

/// A sitting that was left before its end.
#[derive(Serialize, ToSchema)]
pub struct OpenSitting {
    /// Its id.
    pub id: String,
    /// The place of the next picture, from 0.
    pub place: usize,
}

/// What is known of one kind of question.
#[derive(Serialize, ToSchema)]
pub struct KindSkill {
    /// Which.
    pub kind: RatingKind,
    /// A step of the scale: % for left-right, SD of the expected size for standing.
    pub step: f64,
    /// Over all parts; none before the first ended sitting.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub skill: Option<Skill>,
    /// By part.
    pub parts: Vec<PartSkill>,
}

/// What is known of a part.
#[derive(Serialize, ToSchema)]
pub struct PartSkill {
    /// The tape's site of the part.
    pub site: SiteId,
    /// The eye for it.
    pub skill: Skill,
}

/// An ended sitting in a line.
#[derive(Serialize, ToSchema)]
pub struct PastSitting {
    /// Its id.
    pub id: String,
    /// The day it was begun.
    pub date: String,
    /// Differences of a step or more whose direction was named rightly.
    pub right: usize,
    /// Differences of a step or more.
    pub of: usize,
}

/// A sitting as far as it has come.
#[derive(Serialize, ToSchema)]
pub struct EyeSittingView {
    /// Its id.
    pub id: String,
    /// Pictures in it.
    pub pictures: usize,
    /// What was answered, in order.
    pub told: Vec<EyeToldView>,
    /// What its answers say together, once it is over and one of them could be told.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub skill: Option<Skill>,
    /// The next picture; none when the sitting is over.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub next: Option<EyeLook>,
}

/// A picture to judge.
#[derive(Serialize, ToSchema)]
pub struct EyeLook {
    /// Its place in the sitting, from 0.
    pub place: usize,
    /// What is judged.
    pub kind: RatingKind,
    /// The tape's site of the part.
    pub site: SiteId,
    /// How the figure stands.
    pub pose: PoseId,
    /// Where the part is, both sides.
    pub frames: Vec<Frame>,
}

/// An answer, with the truth once the figure does not come again. All of the figure itself, however it was shown.
#[derive(Serialize, ToSchema)]
pub struct EyeToldView {
    /// Its place in the sitting, from 0.
    pub place: usize,
    /// What was judged.
    pub kind: RatingKind,
    /// The tape's site of the part.
    pub site: SiteId,
    /// The place at which the same figure was shown before; it was mirrored this time.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub seen_at: Option<usize>,
    /// -2 to 2; left out when it could not be told.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub answer: Option<i8>,
    /// % (left larger positive) or SD (ahead positive); left out until it may be told.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub truth: Option<f64>,
    /// The truth in steps of the scale.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub truth_steps: Option<f64>,
}

/// An answer to the next picture.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AnswerEye {
    /// The picture's place in the sitting.
    pub place: usize,
    /// -2 to 2, as the picture shows it; null when it cannot be told.
    #[serde(default)]
    pub value: Option<i8>,
}
