//! What is asked of a figure.

use booth::Pose;

/// Which of the two things an answer judges.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Asks {
    /// The part against the rest of this body: -2 clearly behind to 2 clearly ahead.
    Standing,
    /// Left against right: -2 the right much larger to 2 the left much larger.
    LeftRight,
}

impl Asks {
    /// Both.
    pub const ALL: [Self; 2] = [Self::Standing, Self::LeftRight];
}

/// A part of a figure whose girth is known.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Part {
    /// The relaxed upper arm. The reference population was taped flexed, so it is only asked left against right.
    UpperArm,
    /// The forearm.
    Forearm,
    /// The thigh.
    Thigh,
    /// The calf.
    Calf,
}

impl Part {
    /// All of them.
    pub const ALL: [Self; 4] = [Self::UpperArm, Self::Forearm, Self::Thigh, Self::Calf];

    /// Those that the reference knows an expected size of.
    pub const SIZED: [Self; 3] = [Self::Forearm, Self::Thigh, Self::Calf];

    /// The tape's site, which is the booth's.
    pub fn site(self) -> &'static str {
        match self {
            Self::UpperArm => "arm-relaxed",
            Self::Forearm => "forearm",
            Self::Thigh => "thigh",
            Self::Calf => "calf",
        }
    }

    /// The landmarks at its ends, upper and lower.
    pub(crate) fn ends(self) -> (&'static str, &'static str) {
        match self {
            Self::UpperArm => ("acromion", "elbow"),
            Self::Forearm => ("elbow", "wrist"),
            Self::Thigh => ("hip-joint", "knee"),
            Self::Calf => ("knee", "ankle"),
        }
    }
}

/// What is asked of a figure.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Question {
    /// What is judged.
    pub asks: Asks,
    /// Of which part.
    pub part: Part,
    /// How the figure stands.
    pub pose: Pose,
}
