//! A grid of numbers over a picture.

use crate::error::PhotoError;
use crate::resample::resampled;
use fast_image_resize::pixels::F32;
use fast_image_resize::{FilterType, ResizeAlg};

/// Numbers over the pixels of a picture, row by row.
#[derive(Clone, Debug, PartialEq)]
pub struct Plane {
    /// Across.
    pub width: usize,
    /// Down.
    pub height: usize,
    /// Values.
    pub values: Vec<f32>,
}

impl Plane {
    /// A plane of one value.
    pub fn filled(width: usize, height: usize, value: f32) -> Self {
        Self { width, height, values: vec![value; width * height] }
    }

    /// The value between pixels, by straight lines; pixel centres are at halves. Outside it is 0.
    pub fn at(&self, x: f64, y: f64) -> f64 {
        let (x, y) = (x - 0.5, y - 0.5);
        // Nearly every place lies between four pixels: no bounds to ask for each, and cutting off is cheaper than a floor.
        if x >= 0.0 && y >= 0.0 {
            let (left, top) = (x as usize, y as usize);
            if left + 1 < self.width && top + 1 < self.height {
                let (u, v) = (x - left as f64, y - top as f64);
                let place = top * self.width + left;
                let corner = |place: usize| f64::from(self.values[place]);
                let upper = corner(place) * (1.0 - u) + corner(place + 1) * u;
                let below = place + self.width;
                let lower = corner(below) * (1.0 - u) + corner(below + 1) * u;
                return upper * (1.0 - v) + lower * v;
            }
        }
        self.at_edge(x, y)
    }

    fn at_edge(&self, x: f64, y: f64) -> f64 {
        let (left, top) = (x.floor(), y.floor());
        let (u, v) = (x - left, y - top);
        let pixel = |dx: f64, dy: f64| {
            let (px, py) = (left + dx, top + dy);
            let inside = px >= 0.0 && py >= 0.0 && px < self.width as f64 && py < self.height as f64;
            if inside { f64::from(self.values[py as usize * self.width + px as usize]) } else { 0.0 }
        };
        let upper = pixel(0.0, 0.0) * (1.0 - u) + pixel(1.0, 0.0) * u;
        let lower = pixel(0.0, 1.0) * (1.0 - u) + pixel(1.0, 1.0) * u;
        upper * (1.0 - v) + lower * v
    }

    /// Which values reach a half.
    pub fn inside(&self) -> Vec<bool> {
        self.values.iter().map(|&value| value >= 0.5).collect()
    }

    /// Sums over squares of `radius` to every side, cut off at the edges, divided by their number of pixels.
    pub(crate) fn box_mean(&self, radius: usize) -> Self {
        let rows = self.row_means(radius);
        rows.transposed().row_means(radius).transposed()
    }

    fn row_means(&self, radius: usize) -> Self {
        let width = self.width;
        let mut values = vec![0.0; self.values.len()];
        for (row, out) in self.values.chunks_exact(width).zip(values.chunks_exact_mut(width)) {
            let mut sum: f64 = row.iter().take(radius).map(|&value| f64::from(value)).sum();
            let mut count = radius.min(width);
            for x in 0..width {
                if let Some(&value) = row.get(x + radius) {
                    sum += f64::from(value);
                    count += 1;
                }
                if x > radius {
                    sum -= f64::from(row[x - radius - 1]);
                    count -= 1;
                }
                out[x] = (sum / count as f64) as f32;
            }
        }
        Self { values, ..*self }
    }

    fn transposed(&self) -> Self {
        let mut values = vec![0.0; self.values.len()];
        // In blocks: both sides of the copy stay in the cache.
        for (by, bx) in (0..self.height).step_by(32).flat_map(|by| (0..self.width).step_by(32).map(move |bx| (by, bx)))
        {
            for y in by..(by + 32).min(self.height) {
                for x in bx..(bx + 32).min(self.width) {
                    values[x * self.height + y] = self.values[y * self.width + x];
                }
            }
        }
        Self { width: self.height, height: self.width, values }
    }

    /// The plane at another size, by straight lines between its pixels.
    ///
    /// # Errors
    /// [`PhotoError::Model`] when there is nothing to resize; a picture has pixels.
    pub(crate) fn resized(&self, width: usize, height: usize) -> Result<Self, PhotoError> {
        let (from, to) = ((self.width as u32, self.height as u32), (width as u32, height as u32));
        let straight = ResizeAlg::Interpolation(FilterType::Bilinear);
        let pixels = resampled::<F32>(bytemuck::cast_slice(&self.values), from, to, straight);
        Ok(Self { width, height, values: bytemuck::pod_collect_to_vec(&pixels.map_err(PhotoError::Model)?) })
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    /// Three across, two down.
    fn small() -> Plane {
        Plane { width: 3, height: 2, values: vec![0.0, 10.0, 20.0, 30.0, 40.0, 50.0] }
    }

    /// Numbers without a pattern.
    fn rough(width: usize, height: usize) -> Plane {
        let values = (0..width * height).map(|i| ((i * 7919 + 13) % 101) as f32).collect();
        Plane { width, height, values }
    }

    #[rstest]
    #[case::the_middle_of_a_pixel(1.5, 0.5, 10.0)]
    #[case::half_way_across(1.0, 0.5, 5.0)]
    #[case::half_way_down(0.5, 1.0, 15.0)]
    #[case::between_four(1.0, 1.0, 20.0)]
    #[case::the_middle_of_the_last_pixel(2.5, 1.5, 50.0)]
    #[case::half_over_the_edge(3.0, 1.5, 25.0)]
    #[case::half_over_a_corner(3.0, 2.0, 12.5)]
    #[case::outside(9.0, 9.0, 0.0)]
    #[case::before_the_first(-2.0, 0.5, 0.0)]
    fn between_pixels_lie_straight_lines_and_outside_is_nothing(#[case] x: f64, #[case] y: f64, #[case] value: f64) {
        assert!((small().at(x, y) - value).abs() < 1e-9, "{}", small().at(x, y));
    }

    #[test]
    fn the_short_way_inside_gives_what_the_long_way_gives() {
        let plane = rough(9, 7);
        for step in 0..600 {
            let (x, y) = (f64::from(step % 30) * 0.31, f64::from(step / 30) * 0.37);
            assert!((plane.at(x, y) - plane.at_edge(x - 0.5, y - 0.5)).abs() < 1e-9, "{x} {y}");
        }
    }

    #[rstest]
    #[case::a_little(9, 7, 1)]
    #[case::more(12, 5, 2)]
    #[case::as_wide_as_the_picture(6, 6, 6)]
    #[case::one_row(8, 1, 2)]
    fn a_box_s_mean_is_the_mean_of_the_pixels_in_it(
        #[case] width: usize,
        #[case] height: usize,
        #[case] radius: usize,
    ) {
        let plane = rough(width, height);
        let means = plane.box_mean(radius);
        for (place, mean) in means.values.iter().enumerate() {
            let (x, y) = (place % width, place / width);
            let across = x.saturating_sub(radius)..=(x + radius).min(width - 1);
            let down = y.saturating_sub(radius)..=(y + radius).min(height - 1);
            let pixels: Vec<f32> =
                down.flat_map(|y| across.clone().map(move |x| y * width + x)).map(|i| plane.values[i]).collect();
            let wanted = pixels.iter().sum::<f32>() / pixels.len() as f32;
            assert!((mean - wanted).abs() < 1e-3, "{x} {y}: {mean} {wanted}");
        }
    }

    #[rstest]
    #[case(3, 2)]
    #[case(33, 70)]
    #[case(64, 32)]
    fn rows_become_columns_and_back(#[case] width: usize, #[case] height: usize) {
        let plane = rough(width, height);
        let turned = plane.transposed();
        assert_eq!((turned.width, turned.height), (height, width));
        assert!((turned.values[1] - plane.values[width]).abs() < 1e-6);
        assert_eq!(turned.transposed(), plane);
    }

    #[test]
    fn another_size_keeps_what_is_even_and_the_order_of_what_is_not() {
        let even = Plane::filled(5, 4, 0.25).resized(11, 3).unwrap();
        assert_eq!((even.width, even.height), (11, 3));
        assert!(even.values.iter().all(|value| (value - 0.25).abs() < 1e-6));
        let rising = small().resized(9, 6).unwrap();
        assert!(rising.values[..9].is_sorted());
    }

    #[test]
    fn from_a_half_on_it_is_inside() {
        let plane = Plane { width: 3, height: 1, values: vec![0.49, 0.5, 1.0] };
        assert_eq!(plane.inside(), [false, true, true]);
    }
}
