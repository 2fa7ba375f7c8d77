//! The person before a plain wall: what differs from the colour of the picture's border.

use crate::lab::{Lab, lab};
use crate::plane::Plane;
use image::{GrayImage, Luma, RgbImage};
use imageproc::contrast::otsu_level;
use imageproc::region_labelling::{Connectivity, connected_components};
use std::collections::HashMap;

/// Distances are cut off here, or dark trunks would win over skin.
const FURTHEST: f64 = 40.0;
/// Share of the width at either side that is taken for wall.
const BORDER_SHARE: f64 = 0.06;
/// Shares of the picture a person can take.
const PERSON_SHARE: (f64, f64) = (0.04, 0.6);

/// The person's mask before a plain wall, `None` when what stands out is no upright figure.
pub(crate) fn before_a_wall(picture: &RgbImage) -> Option<Plane> {
    let (width, height) = picture.dimensions();
    let colours: Vec<Lab> = picture.pixels().map(|pixel| lab(pixel.0)).collect();
    let border = (f64::from(width) * BORDER_SHARE).max(1.0) as usize;
    let distances = GrayImage::from_fn(width, height, |x, y| {
        let row = &colours[y as usize * width as usize..(y as usize + 1) * width as usize];
        // The wall's colour at this height, so that a shaded foot of the wall is wall still.
        let wall = row[..border].iter().chain(&row[row.len() - border..]);
        let count = (2 * border) as f64;
        let mean = wall.fold([0.0; 3], |sum: Lab, c| [sum[0] + c[0], sum[1] + c[1], sum[2] + c[2]]).map(|s| s / count);
        let colour = row[x as usize];
        let apart = (0..3).map(|i| (colour[i] - mean[i]).powi(2)).sum::<f64>().sqrt();
        Luma([(apart.min(FURTHEST) / FURTHEST * 255.0).round() as u8])
    });
    let level = otsu(&distances);
    let inside: Vec<bool> = distances.pixels().map(|pixel| pixel.0[0] > level).collect();
    let (width, height) = (width as usize, height as usize);
    let person = filled(&largest_component(&inside, width), width);
    let share = person.iter().filter(|&&inside| inside).count() as f64 / person.len() as f64;
    let rows: Vec<usize> = person.iter().enumerate().filter(|(_, inside)| **inside).map(|(i, _)| i / width).collect();
    let tall = rows.iter().max()? - rows.iter().min()?;
    let upright = tall as f64 > 0.45 * height as f64;
    let plausible = upright && share > PERSON_SHARE.0 && share < PERSON_SHARE.1;
    let values = person.iter().map(|&inside| f32::from(u8::from(inside))).collect();
    plausible.then_some(Plane { width, height, values })
}

/// Otsu's threshold (Otsu 1979): values above it are the brighter class.
pub fn otsu(picture: &GrayImage) -> u8 {
    otsu_level(picture)
}

/// The largest connected set, by the four neighbours.
pub fn largest_component(inside: &[bool], width: usize) -> Vec<bool> {
    let (labels, sizes) = labelled(inside, width);
    let largest =
        sizes.into_iter().max_by_key(|&(label, size)| (size, std::cmp::Reverse(label))).map(|(label, _)| label);
    labels.into_iter().map(|label| label != 0 && Some(label) == largest).collect()
}

/// The set with its holes filled: what cannot be reached from outside by the four neighbours belongs to it.
pub fn filled(inside: &[bool], width: usize) -> Vec<bool> {
    let height = inside.len() / width;
    // A rim of outside, so that all that lies outside is one component.
    let rim = width + 2;
    let outside: Vec<bool> = (0..rim * (height + 2))
        .map(|place| {
            let (x, y) = (place % rim, place / rim);
            let on_rim = x == 0 || y == 0 || x == rim - 1 || y == height + 1;
            on_rim || !inside[(y - 1) * width + x - 1]
        })
        .collect();
    let (labels, _) = labelled(&outside, rim);
    (0..inside.len()).map(|place| labels[(place / width + 1) * rim + place % width + 1] != labels[0]).collect()
}

/// Places of each connected set.
pub(crate) fn components(inside: &[bool], width: usize) -> Vec<Vec<usize>> {
    let (labels, sizes) = labelled(inside, width);
    let mut sets = vec![Vec::new(); sizes.len()];
    for (place, label) in labels.into_iter().enumerate().filter(|(_, label)| *label != 0) {
        sets[label as usize - 1].push(place);
    }
    sets
}

/// Labels of connected sets, 0 outside them, and their sizes.
fn labelled(inside: &[bool], width: usize) -> (Vec<u32>, HashMap<u32, usize>) {
    let height = inside.len() / width;
    let picture = GrayImage::from_fn(width as u32, height as u32, |x, y| {
        Luma([u8::from(inside[y as usize * width + x as usize])])
    });
    let labels = connected_components(&picture, Connectivity::Four, Luma([0])).into_raw();
    let mut sizes = HashMap::new();
    for &label in labels.iter().filter(|&&label| label != 0) {
        *sizes.entry(label).or_insert(0) += 1;
    }
    (labels, sizes)
}
