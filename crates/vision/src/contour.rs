//! The edge of a mask as lines, to be drawn over a picture.

use crate::plane::Plane;
use image::{GrayImage, Luma};
use imageproc::contours::find_contours;
use imageproc::geometry::approximate_polygon_dp;

/// A line may leave the mask's edge by this much, px: less than can be seen.
const TOLERANCE_PX: f64 = 0.8;
/// Lines shorter than this many points are specks.
const LEAST_POINTS: usize = 12;

/// Closed lines around what a mask covers and around its holes, px from the top left corner.
pub fn contours(mask: &Plane) -> Vec<Vec<[f64; 2]>> {
    let (width, height) = (mask.width as u32, mask.height as u32);
    let pixel = |x: u32, y: u32| {
        let inside = mask.values[y as usize * mask.width + x as usize] >= 0.5;
        Luma([if inside { 255_u8 } else { 0 }])
    };
    let found = find_contours::<u32>(&GrayImage::from_fn(width, height, pixel));
    let lines = found.into_iter().filter(|contour| contour.points.len() >= LEAST_POINTS);
    let thin = lines.map(|contour| approximate_polygon_dp(&contour.points, TOLERANCE_PX, true));
    thin.map(|line| line.iter().map(|p| [f64::from(p.x) + 0.5, f64::from(p.y) + 0.5]).collect()).collect()
}
