//! Which pictures' limb outlines count as evidence on left and right, and what they say together.

use assess::Outline;
use units::{Length, Segment, Sides};
use vision::{Photo, PhotoPose, QualityCheck};

/// Under this the outline itself is in doubt.
const LEAST_CONFIDENCE: f64 = 0.5;
/// Checks that, when failed, bend one side against the other.
const BENDING: [QualityCheck; 4] = [QualityCheck::Roll, QualityCheck::Turn, QualityCheck::Crop, QualityCheck::Mask];

/// A measured picture and whether it was taken in a mirror; nobody has said while it is `None`.
#[derive(Clone, Copy, Debug)]
pub struct Pictured<'a> {
    /// What it says.
    pub photo: &'a Photo,
    /// Whether it was taken in a mirror.
    pub mirrored: Option<bool>,
}

/// Whether left against right may be read off a picture. Until someone has said whether it is a mirror picture, its sides
/// may be the wrong way round.
pub fn counts_sides(picture: Pictured<'_>) -> bool {
    picture.mirrored.is_some() && stands(picture.photo) && matches!(picture.photo.pose, PhotoPose::F | PhotoPose::B)
}

/// Whether somebody stands in a picture straight and whole, for sure.
pub(crate) fn stands(photo: &Photo) -> bool {
    let straight = photo.quality.iter().all(|check| check.ok || !BENDING.contains(&check.check));
    photo.person && straight && photo.mask_confidence >= LEAST_CONFIDENCE
}

/// Mean limb widths over the pictures that count, relaxed and straight: front and back of one round. Segments none of them
/// shows are left out.
pub fn outlines(pictures: &[Pictured<'_>]) -> Vec<Outline> {
    let counting: Vec<&Photo> = pictures.iter().filter(|p| counts_sides(**p)).map(|p| p.photo).collect();
    Segment::ALL.into_iter().filter_map(|segment| together(segment, &counting)).collect()
}

fn together(segment: Segment, photos: &[&Photo]) -> Option<Outline> {
    let limbs = photos.iter().flat_map(|photo| &photo.limbs).filter(|limb| limb.segment == segment);
    let widths: Vec<Sides<f64>> =
        limbs.map(|limb| Sides { left: limb.left_width_cm, right: limb.right_width_cm }).collect();
    let count = widths.len() as f64;
    let mean = |side: fn(&Sides<f64>) -> f64| Length::from_cm(widths.iter().map(side).sum::<f64>() / count).ok();
    let (left, right) = (mean(|w| w.left)?, mean(|w| w.right)?);
    Some(Outline { segment, width: Sides { left, right } })
}
