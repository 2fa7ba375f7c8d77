//! Girths without the fat that lies over the muscle, so that a fat difference is not read as muscle.

use crate::folds::Folds;
use crate::input::Sex;
use crate::measured::Measurements;
use crate::symmetry::symmetry_index;
use atlas::Atlas;
use std::f64::consts::PI;
use units::{Sides, SiteId};

/// A girth less pi times the fold over it, cm; the fold in mm (Jelliffe 1966).
///
/// ```
/// assert!((assess::corrected_girth_cm(34.0, 10.0) - 30.858).abs() < 0.001);
/// ```
pub fn corrected_girth_cm(girth_cm: f64, fold_mm: f64) -> f64 {
    girth_cm - PI * fold_mm / 10.0
}

/// Area of muscle and bone at a limb, cm^2, from its corrected girth (Jelliffe 1966).
///
/// ```
/// let girth = assess::corrected_girth_cm(34.0, 10.0);
/// assert!((assess::muscle_bone_area_cm2(girth) - 75.78).abs() < 0.005);
/// ```
pub fn muscle_bone_area_cm2(corrected_girth_cm: f64) -> f64 {
    corrected_girth_cm.powi(2) / (4.0 * PI)
}

/// Muscle area of the upper arm, cm^2: without its bone, 10 cm^2 in men and 6.5 cm^2 in women (Heymsfield et al. 1982).
///
/// ```
/// let girth = assess::corrected_girth_cm(34.0, 10.0);
/// assert!((assess::arm_muscle_area_cm2(assess::Sex::Female, girth) - 69.28).abs() < 0.005);
/// ```
pub fn arm_muscle_area_cm2(sex: Sex, corrected_girth_cm: f64) -> f64 {
    let bone_cm2 = if sex == Sex::Male { 10.0 } else { 6.5 };
    muscle_bone_area_cm2(corrected_girth_cm) - bone_cm2
}

/// Left against right at a site after the folds of both sides are taken off; positive = left larger.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct CorrectedSides {
    /// Corrected girths, cm.
    pub sides_cm: Sides<f64>,
    /// Muscle and bone, cm^2.
    pub area_cm2: Sides<f64>,
    /// Muscle alone, cm^2, at the upper arm, whose bone is known on average.
    pub muscle_cm2: Option<Sides<f64>>,
    /// Symmetry index of the corrected girths, %.
    pub symmetry_index: f64,
    /// Its standard error, %.
    pub se_index: f64,
}

/// The corrected sides of a girth site, when both girths and both covering folds were taken.
pub(crate) fn corrected_sides(
    atlas: &Atlas,
    measured: &Measurements,
    folds: &Folds,
    sex: Sex,
    site: &SiteId,
) -> Option<CorrectedSides> {
    let fold = folds.sides(atlas.ideals().covering_fold.get(site)?)?;
    let girth = measured.sides(site)?;
    let pair = Sides { left: (girth.left, fold.left), right: (girth.right, fold.right) };
    let sides_cm = pair.map(|(girth, fold)| corrected_girth_cm(girth.value_cm, fold.value_mm));
    let se_cm = pair.map(|(girth, fold)| girth.se_cm.hypot(PI * fold.se_mm / 10.0));
    Some(CorrectedSides {
        sides_cm,
        area_cm2: sides_cm.map(muscle_bone_area_cm2),
        muscle_cm2: is_arm(site).then(|| sides_cm.map(|cm| arm_muscle_area_cm2(sex, cm))),
        symmetry_index: symmetry_index(sides_cm),
        se_index: 100.0 * se_cm.left.hypot(se_cm.right) / sides_cm.mean(),
    })
}

fn is_arm(site: &SiteId) -> bool {
    matches!(site.as_str(), "arm-relaxed" | "arm-flexed")
}
