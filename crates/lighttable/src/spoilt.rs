//! Which picture of a round spoils a comparison: said before anything is judged, while it can still be taken again.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use vision::{Photo, PhotoPose, QualityCheck};

/// Checks without which two pictures of a pose show the camera's change rather than the body's, worst first. Sharpness and light make
/// judging harder, not wrong.
const SPOIL: [QualityCheck; 5] =
    [QualityCheck::Crop, QualityCheck::Scale, QualityCheck::Turn, QualityCheck::Roll, QualityCheck::Size];

/// A picture that cannot be compared with the round before.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct Spoilt {
    /// Its pose.
    pub pose: PhotoPose,
    /// What is wrong with it, in a sentence.
    pub says: String,
}

/// What spoils the comparison of a picture with an earlier one; `None` when nothing does.
pub fn spoilt(photo: &Photo) -> Option<Spoilt> {
    let failed = |of: &QualityCheck| photo.quality.iter().find(|check| check.check == *of && !check.ok);
    let first = SPOIL.iter().find_map(failed)?;
    Some(Spoilt { pose: photo.pose, says: first.says.clone() })
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;
    use serde_json::json;

    fn photo(failed: &[&str]) -> Photo {
        let checks = ["roll", "turn", "crop", "size", "exposure", "sharpness", "scale", "mask"];
        let quality: Vec<_> = checks
            .iter()
            .map(|name| json!({"check": name, "value": 1.0, "unit": "", "ok": !failed.contains(name), "says": format!("of {name}")}))
            .collect();
        serde_json::from_value(json!({
            "format": "orthomer-photo", "version": 1, "pose": "SL", "pose_guessed": false, "width_px": 600, "height_px": 800,
            "person": true, "scale_cm_per_px": 0.2, "mask_confidence": 0.9, "landmarks": {}, "widths": [], "limbs": [],
            "quality": quality,
        }))
        .expect("a photo")
    }

    #[rstest]
    #[case::nothing(&[], None)]
    #[case::dim_and_soft(&["exposure", "sharpness", "mask"], None)]
    #[case::turned(&["turn"], Some("of turn"))]
    #[case::the_worst_first(&["roll", "scale", "turn"], Some("of scale"))]
    fn what_changes_the_outline_spoils_and_what_only_dims_it_does_not(
        #[case] failed: &[&str],
        #[case] says: Option<&str>,
    ) {
        assert_eq!(spoilt(&photo(failed)).map(|spoilt| spoilt.says).as_deref(), says);
    }
}
