//! A figure as it is shown, with what is true of it.

use crate::error::EyeError;
use crate::question::Question;
use crate::truth::truth;
use assess::Norms;
use booth::{Figure, Shot, Spec, shoot};
use image::imageops::flip_horizontal_in_place;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use units::Side;
use utoipa::ToSchema;

/// Where one side of the part is in the picture as shown, all as shares of the picture's width or height.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct Frame {
    /// The side as it is seen: of a mirrored picture, the other one.
    pub side: Side,
    /// Left edge.
    pub x: f64,
    /// Upper edge.
    pub y: f64,
    /// Across.
    pub width: f64,
    /// Down.
    pub height: f64,
}

/// A showing.
#[derive(Clone, Debug)]
pub struct Shown {
    /// The picture.
    pub jpeg: Vec<u8>,
    /// The part, both sides.
    pub frames: Vec<Frame>,
    /// What is true of the figure itself, mirrored or not; see [`truth`].
    pub truth: f64,
}

/// Around the part, as a share of its length.
const PAD: f64 = 0.22;

/// Draws a figure and measures it.
///
/// # Errors
/// [`EyeError`] when it cannot be drawn, or the booth or the reference do not know what is asked.
pub fn show(
    figure: &Figure,
    norms: &Norms,
    (spec, question): (&Spec, Question),
    mirrored: bool,
) -> Result<Shown, EyeError> {
    let mut shot = shoot(figure, spec)?;
    let truth = truth(norms, spec, &shot.truth.girths, question)?;
    let frames = [Side::Left, Side::Right].map(|side| frame(&shot, question, side, mirrored));
    if mirrored {
        flip_horizontal_in_place(&mut shot.picture);
    }
    let jpeg = shot.jpeg(spec.image.jpeg_quality)?;
    Ok(Shown { jpeg, frames: frames.into_iter().collect::<Result<_, _>>()?, truth })
}

fn frame(shot: &Shot, question: Question, side: Side, mirrored: bool) -> Result<Frame, EyeError> {
    let (width, height) = (f64::from(shot.picture.width()), f64::from(shot.picture.height()));
    let end = |name: &'static str| {
        let found = shot.truth.landmarks.get(&format!("{name}-{side}"));
        found.map(|point| (point.x, point.y)).ok_or(EyeError::Part(name))
    };
    let (upper, lower) = question.part.ends();
    let (from, to) = (end(upper)?, end(lower)?);
    let pad = PAD * (from.0 - to.0).hypot(from.1 - to.1);
    let (left, right) = (from.0.min(to.0) - pad, from.0.max(to.0) + pad);
    let (top, bottom) = (from.1.min(to.1), from.1.max(to.1));
    let x = if mirrored { width - right } else { left };
    Ok(Frame {
        side: if mirrored { side.other() } else { side },
        x: x / width,
        y: top / height,
        width: (right - left) / width,
        height: (bottom - top) / height,
    })
}
