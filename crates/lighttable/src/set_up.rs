//! Where a client's camera stands, so that the next round is taken alike.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A camera is held no nearer and no farther, m.
pub const DISTANCE_M: [f64; 2] = [0.5, 15.0];
/// It stands no lower and no higher, cm above the floor.
pub const CAMERA_HEIGHT_CM: [f64; 2] = [20.0, 220.0];
/// Longest description of its place, characters.
pub const PLACE_CHARS: usize = 120;

/// Which of a phone's lenses; wide ones bend what is near the edge.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Lens {
    /// Half a time.
    Wide,
    /// Once.
    Main,
    /// Twice or more.
    Long,
}

impl Lens {
    /// All of them.
    pub const ALL: [Self; 3] = [Self::Wide, Self::Main, Self::Long];

    /// As it is written in files.
    pub fn as_str(self) -> &'static str {
        match self {
            Self::Wide => "wide",
            Self::Main => "main",
            Self::Long => "long",
        }
    }
}

/// Where a client's camera stands.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CameraSetUp {
    /// In the client's words: "on the shelf by the door".
    pub place: String,
    /// Height of the lens above the floor, cm.
    pub height_cm: f64,
    /// From the lens to the mark the client stands on, m.
    pub distance_m: f64,
    /// Which lens.
    pub lens: Lens,
}

impl CameraSetUp {
    /// What is out of bounds: the field's name and a sentence each.
    pub fn problems(&self) -> Vec<(&'static str, String)> {
        let bounds = [
            ("height_cm", self.height_cm, CAMERA_HEIGHT_CM, "a camera height", "cm"),
            ("distance_m", self.distance_m, DISTANCE_M, "a distance", "m"),
        ];
        let outside = bounds.into_iter().filter(|(_, value, [low, high], ..)| !(low..=high).contains(&value));
        let mut problems: Vec<_> = outside
            .map(|(field, value, [low, high], what, unit)| {
                (field, format!("{what} of {value} {unit}: expected {low} to {high} {unit}"))
            })
            .collect();
        let count = self.place.chars().count();
        if count > PLACE_CHARS {
            problems.push(("place", format!("{count} characters are too many: expected at most {PLACE_CHARS}")));
        }
        problems
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case::as_it_should_be("on the shelf", 105.0, 3.0, &[])]
    #[case::on_the_floor("", 5.0, 3.0, &["height_cm"])]
    #[case::in_the_hand("", 105.0, 0.2, &["distance_m"])]
    #[case::no_number("", f64::NAN, f64::INFINITY, &["height_cm", "distance_m"])]
    #[case::a_novel("a long way to say where it is, which nobody reads before a picture is taken, as there is a light to be set and a mark to be found", 105.0, 3.0, &["place"])]
    fn a_camera_stands_where_one_can(
        #[case] place: &str,
        #[case] height_cm: f64,
        #[case] distance_m: f64,
        #[case] wrong: &[&str],
    ) {
        let set_up = CameraSetUp { place: place.to_owned(), height_cm, distance_m, lens: Lens::Main };
        let fields: Vec<&str> = set_up.problems().iter().map(|(field, _)| *field).collect();
        assert_eq!(fields, wrong);
    }
}
