//! The coach's own strokes over a mask that was found: kept apart from it, laid over it whenever it is measured.

use crate::error::PhotoError;
use crate::plane::Plane;
use image::{ExtendedColorType, ImageEncoder, ImageFormat};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One stroke of the brush.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Stroke {
    /// Adds to the person; takes away otherwise.
    pub adds: bool,
    /// Half the brush's width, px.
    pub radius_px: f64,
    /// Where it went, px.
    pub points: Vec<[f64; 2]>,
}

impl Plane {
    /// The mask with strokes over it, in their order.
    pub fn with_strokes(&self, strokes: &[Stroke]) -> Self {
        let mut mask = self.clone();
        for stroke in strokes {
            let ends = stroke.points.iter().zip(stroke.points.iter().skip(1).chain(stroke.points.last()));
            for (from, to) in ends {
                mask.draw(*from, *to, stroke.radius_px, stroke.adds);
            }
        }
        mask
    }

    fn draw(&mut self, from: [f64; 2], to: [f64; 2], radius: f64, adds: bool) {
        let bound = |value: f64, most: usize| value.clamp(0.0, most as f64) as usize;
        let (left, right) = (from[0].min(to[0]) - radius - 1.0, from[0].max(to[0]) + radius + 2.0);
        let (top, bottom) = (from[1].min(to[1]) - radius - 1.0, from[1].max(to[1]) + radius + 2.0);
        let (dx, dy) = (to[0] - from[0], to[1] - from[1]);
        let length2 = (dx * dx + dy * dy).max(1e-9);
        for y in bound(top, self.height)..bound(bottom, self.height) {
            for x in bound(left, self.width)..bound(right, self.width) {
                let (px, py) = (x as f64 + 0.5 - from[0], y as f64 + 0.5 - from[1]);
                let along = ((px * dx + py * dy) / length2).clamp(0.0, 1.0);
                let away = (px - along * dx).hypot(py - along * dy);
                // Half a pixel of ramp, so that edges keep lying between pixels.
                let cover = (radius + 0.5 - away).clamp(0.0, 1.0) as f32;
                let value = &mut self.values[y * self.width + x];
                *value = if adds { value.max(cover) } else { value.min(1.0 - cover) };
            }
        }
    }

    /// The plane as an 8-bit PNG, 0 to 1 as 0 to 255.
    ///
    /// # Errors
    /// [`PhotoError::Damaged`] when it cannot be encoded.
    pub fn to_png(&self) -> Result<Vec<u8>, PhotoError> {
        let bytes: Vec<u8> = self.values.iter().map(|value| (value * 255.0).round().clamp(0.0, 255.0) as u8).collect();
        let mut png = Vec::new();
        image::codecs::png::PngEncoder::new(&mut png)
            .write_image(&bytes, self.width as u32, self.height as u32, ExtendedColorType::L8)
            .map_err(|error| PhotoError::Damaged(error.to_string()))?;
        Ok(png)
    }

    /// A plane from such a PNG.
    ///
    /// # Errors
    /// [`PhotoError::Damaged`].
    pub fn from_png(png: &[u8]) -> Result<Self, PhotoError> {
        let picture = image::load_from_memory_with_format(png, ImageFormat::Png)
            .map_err(|error| PhotoError::Damaged(error.to_string()))?
            .into_luma8();
        let (width, height) = (picture.width() as usize, picture.height() as usize);
        Ok(Self { width, height, values: picture.into_raw().iter().map(|&byte| f32::from(byte) / 255.0).collect() })
    }
}

#[cfg(test)]
#[allow(clippy::unwrap_used, reason = "a broken fixture should stop the test")]
mod tests {
    use super::*;

    fn stroke(adds: bool, points: Vec<[f64; 2]>) -> Stroke {
        Stroke { adds, radius_px: 4.0, points }
    }

    #[test]
    fn a_straight_stroke_covers_a_bar_with_round_ends() {
        let mask = Plane::filled(60, 40, 0.0).with_strokes(&[stroke(true, vec![[20.0, 20.0], [40.0, 20.0]])]);
        let area: f32 = mask.values.iter().sum();
        let expected = 20.0 * 8.0 + std::f32::consts::PI * 16.0;
        assert!((area - expected).abs() < 0.03 * expected, "{area} against {expected}");
    }

    #[test]
    fn what_was_added_can_be_taken_away_again_and_the_found_mask_stays() {
        let found = Plane::filled(60, 40, 0.0);
        let dot = vec![[30.0, 20.0]];
        let after = found.with_strokes(&[stroke(true, dot.clone()), stroke(false, dot)]);
        assert!(after.values.iter().all(|&value| value < 0.5));
        assert!(found.values.iter().all(|&value| value == 0.0));
    }

    #[test]
    fn a_stroke_past_the_edge_is_cut_off() {
        let mask = Plane::filled(10, 10, 1.0).with_strokes(&[stroke(false, vec![[-50.0, 5.0], [80.0, 5.0]])]);
        assert!(mask.values[5 * 10 + 5] < 0.5 && mask.values[0] > 0.5);
    }

    #[test]
    fn a_mask_comes_back_from_its_png_to_a_255th() {
        let mask = Plane::filled(30, 20, 0.0).with_strokes(&[stroke(true, vec![[10.0, 10.0], [20.0, 12.0]])]);
        let back = Plane::from_png(&mask.to_png().unwrap()).unwrap();
        assert!(mask.values.iter().zip(&back.values).all(|(a, b)| (a - b).abs() <= 0.5 / 255.0 + 1e-6));
    }
}
