//! The guided filter (He, Sun & Tang 2013), with the colour picture as the guide, in its fast form (He & Sun 2015):
//! the coefficients are found on a smaller picture and applied on the full one.

use crate::error::PhotoError;
use crate::plane::Plane;
use image::RgbImage;

/// Red, green and blue of a picture, 0 to 1.
pub(crate) fn channels(picture: &RgbImage) -> [Plane; 3] {
    let (width, height) = (picture.width() as usize, picture.height() as usize);
    let plane = |channel: usize| Plane {
        width,
        height,
        values: picture.as_raw().iter().skip(channel).step_by(3).map(|&value| f32::from(value) / 255.0).collect(),
    };
    [plane(0), plane(1), plane(2)]
}

/// `soft` with its edges drawn to the edges of the picture.
///
/// `radius` is in pixels of the full picture, `eps` the squared colour difference (0 to 1) below which nothing counts as
/// an edge, `step` how many times smaller the picture is on which the coefficients are found.
#[expect(clippy::many_single_char_names, reason = "p, a and m are the letters of the paper")]
pub(crate) fn guided(
    picture: &RgbImage,
    soft: &Plane,
    radius: usize,
    eps: f32,
    step: usize,
) -> Result<Plane, PhotoError> {
    let (width, height) = (soft.width, soft.height);
    let (w, h) = ((width / step).max(1), (height / step).max(1));
    let small_picture = image::imageops::thumbnail(picture, w as u32, h as u32);
    let guide = channels(&small_picture);
    let p = soft.resized(w, h)?;
    let radius = (radius / step).max(1);
    let mean = |plane: &Plane| plane.box_mean(radius);
    let product = |a: &Plane, b: &Plane| {
        let values = a.values.iter().zip(&b.values).map(|(a, b)| a * b).collect();
        Plane { width: w, height: h, values }.box_mean(radius)
    };
    let means = [mean(&guide[0]), mean(&guide[1]), mean(&guide[2])];
    let mean_p = mean(&p);
    let with_p = [product(&guide[0], &p), product(&guide[1], &p), product(&guide[2], &p)];
    let pairs = [(0, 0), (0, 1), (0, 2), (1, 1), (1, 2), (2, 2)].map(|(a, b)| product(&guide[a], &guide[b]));
    let mut lines =
        [Plane::filled(w, h, 0.0), Plane::filled(w, h, 0.0), Plane::filled(w, h, 0.0), Plane::filled(w, h, 0.0)];
    for i in 0..w * h {
        let m = [means[0].values[i], means[1].values[i], means[2].values[i]];
        let covariance = [
            pairs[0].values[i] - m[0] * m[0] + eps,
            pairs[1].values[i] - m[0] * m[1],
            pairs[2].values[i] - m[0] * m[2],
            pairs[3].values[i] - m[1] * m[1] + eps,
            pairs[4].values[i] - m[1] * m[2],
            pairs[5].values[i] - m[2] * m[2] + eps,
        ];
        let with = [0, 1, 2].map(|c| with_p[c].values[i] - m[c] * mean_p.values[i]);
        let a = solve(covariance, with);
        for c in 0..3 {
            lines[c].values[i] = a[c];
        }
        lines[3].values[i] = mean_p.values[i] - a[0] * m[0] - a[1] * m[1] - a[2] * m[2];
    }
    // One full plane at a time: four of them at once are what a look would need most memory for.
    let full = |line: &Plane| line.box_mean(radius).resized(width, height);
    let mut sharp = full(&lines[3])?;
    let colours = picture.as_raw().as_chunks::<3>().0;
    for (channel, line) in lines.iter().take(3).enumerate() {
        let slopes = full(line)?;
        for ((value, slope), colour) in sharp.values.iter_mut().zip(&slopes.values).zip(colours) {
            *value += slope * f32::from(colour[channel]) / 255.0;
        }
    }
    for value in &mut sharp.values {
        *value = value.clamp(0.0, 1.0);
    }
    Ok(sharp)
}

/// The solution of a symmetric system of three, given as its upper triangle, by its adjugate.
#[expect(clippy::many_single_char_names, reason = "the letters of a three by three matrix")]
fn solve([a, b, c, d, e, f]: [f32; 6], v: [f32; 3]) -> [f32; 3] {
    let minors = [d * f - e * e, c * e - b * f, b * e - c * d, a * f - c * c, b * c - a * e, a * d - b * b];
    let determinant = a * minors[0] + b * minors[1] + c * minors[2];
    let row = |x: f32, y: f32, z: f32| (x * v[0] + y * v[1] + z * v[2]) / determinant.max(1e-12);
    [row(minors[0], minors[1], minors[2]), row(minors[1], minors[3], minors[4]), row(minors[2], minors[4], minors[5])]
}
