//! Laying an earlier round's picture over this round's.

use assess::mdc95;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use vision::{Photo, align};

/// Places that training does not move: bones, head and floor. What the muscles change must not pull the pictures together.
const FIXED: [&str; 12] = [
    "vertex",
    "floor",
    "acromion-left",
    "acromion-right",
    "hip-joint-left",
    "hip-joint-right",
    "knee-left",
    "knee-right",
    "ankle-left",
    "ankle-right",
    "sternal-notch",
    "chin",
];
/// Residual above which the two do not stand alike, share of stature.
const UNLIKE_SHARE: f64 = 0.015;
/// Turn above which a camera was held differently, degrees.
const UNLIKE_TURN_DEG: f64 = 2.0;
/// Share by which a distance may differ.
const UNLIKE_DISTANCE: f64 = 0.1;

/// How one picture lies over another.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct Laid {
    /// Scale times the cosine of the turn: `x' = a x - b y + dx`, `y' = b x + a y + dy`.
    pub a: f64,
    /// Scale times the sine of the turn.
    pub b: f64,
    /// Shift to the right, px of the picture laid upon.
    pub dx: f64,
    /// Shift down, px.
    pub dy: f64,
    /// Turn, degrees, clockwise positive.
    pub turn_deg: f64,
    /// Root mean square of what is left between the landmarks, cm.
    pub residual_cm: f64,
    /// What keeps the two from being judged alike, in sentences.
    pub warnings: Vec<String>,
}

/// Lays `from` over `onto` by bones, head and floor (Umeyama 1991). Distances in m where entered. `None` when they share too
/// few landmarks.
pub fn lay_over(from: (&Photo, Option<f64>), onto: (&Photo, Option<f64>)) -> Option<Laid> {
    let shared = FIXED.iter().filter_map(|name| {
        let (a, b) = (from.0.landmarks.get(*name)?, onto.0.landmarks.get(*name)?);
        Some(((a.x, a.y), (b.x, b.y)))
    });
    let (points, targets): (Vec<_>, Vec<_>) = shared.unzip();
    if points.len() < 4 {
        return None;
    }
    let laid = align(&points, &targets)?;
    let residual_cm = laid.residual_px * onto.0.scale_cm_per_px;
    let stature_cm =
        onto.0.scale_cm_per_px * (onto.0.landmarks.get("floor")?.y - onto.0.landmarks.get("vertex")?.y).abs();
    Some(Laid {
        a: laid.a,
        b: laid.b,
        dx: laid.dx,
        dy: laid.dy,
        turn_deg: laid.turn_deg(),
        residual_cm,
        warnings: warnings(laid.turn_deg(), residual_cm / stature_cm, residual_cm, from.1.zip(onto.1)),
    })
}

fn warnings(turn_deg: f64, residual_share: f64, residual_cm: f64, distances_m: Option<(f64, f64)>) -> Vec<String> {
    let mut says = Vec::new();
    if turn_deg.abs() > UNLIKE_TURN_DEG {
        says.push(format!("The camera was tilted {:.1} degrees against the other picture.", turn_deg.abs()));
    }
    if residual_share > UNLIKE_SHARE {
        says.push(format!(
            "The two do not stand alike: {residual_cm:.1} cm are left between their landmarks. Judge shape, not size."
        ));
    }
    if let Some((before, now)) = distances_m.filter(|(a, b)| (a / b - 1.0).abs() > UNLIKE_DISTANCE) {
        let pct = vision::perspective_pct(10.0, before) - vision::perspective_pct(10.0, now);
        says.push(format!(
            "Taken from {before:.1} m then and {now:.1} m now: a part 10 cm nearer the camera looks {:.1} % {} then.",
            pct.abs(),
            if pct > 0.0 { "larger" } else { "smaller" }
        ));
    }
    says
}

/// A width then and now.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct WidthChange {
    /// `deltoid`, `chest`, `waist` or `hip`.
    pub level: String,
    /// In the earlier picture, cm.
    pub then_cm: f64,
    /// In this round's, cm.
    pub now_cm: f64,
    /// What two pictures of one body may differ by (95 %), cm.
    pub mdc_cm: f64,
    /// Whether it changed by more than that.
    pub real: bool,
}

/// Widths both pictures show; `repeatability_pct` is the SD of a width over repeated pictures, percent of the value.
pub fn width_changes(then: &Photo, now: &Photo, repeatability_pct: f64) -> Vec<WidthChange> {
    let changes = now.widths.iter().filter_map(|width| {
        let before = then.widths.iter().find(|before| before.level == width.level)?;
        let se = |cm: f64| cm * repeatability_pct / 100.0;
        let mdc_cm = mdc95(se(before.cm).hypot(se(width.cm)), 1);
        Some(WidthChange {
            level: width.level.clone(),
            then_cm: before.cm,
            now_cm: width.cm,
            mdc_cm,
            real: (width.cm - before.cm).abs() > mdc_cm,
        })
    });
    changes.collect()
}
