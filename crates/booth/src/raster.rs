//! Which face of the figure each place of the picture shows.

use crate::camera::View;
use crate::figure::{Figure, Kind, Posed, V3};
use crate::spec::Spec;
use units::Side;

/// A face and the shares of its corners at a place.
#[derive(Clone, Copy)]
pub(crate) struct Hit {
    pub face: u32,
    pub shares: [f32; 3],
}

/// What a grid of places shows, row by row.
pub(crate) struct Seen {
    pub width: usize,
    /// Places to a pixel's side.
    pub fine: usize,
    pub hits: Vec<Option<Hit>>,
}

/// Above this many pixels one place a pixel is fine enough, and memory is spared.
const FINE_UP_TO_PX: u32 = 5_000_000;

/// What the picture of a spec shows of the figure.
pub(crate) fn visible(figure: &Figure, spec: &Spec, view: &View, dressed: &Dressed) -> Seen {
    let fine = if spec.image.width * spec.image.height > FINE_UP_TO_PX { 1 } else { 2 };
    let scale = fine as f64;
    let points: Vec<V3> = view.pixels.iter().map(|p| V3::new(p.x * scale, p.y * scale, p.z)).collect();
    let (width, height) = (spec.image.width as usize * fine, spec.image.height as usize * fine);
    let (hits, _) = rasterise(figure, dressed, &points, width, height);
    Seen { width, fine, hits }
}

/// What is worn: which faces are drawn, and between which heights the clothes end.
pub(crate) struct Dressed {
    faces: Vec<(usize, Option<(f64, f64)>)>,
    heights: Vec<f64>,
}

impl Dressed {
    /// Dresses the figure that stands as in the figure file.
    pub fn of(figure: &Figure, spec: &Spec, body: &Posed) -> Self {
        let heights: Vec<f64> = body.vertices.iter().map(|v| v.y).collect();
        let stature = spec.stature_cm;
        let joint = |name| body.sided(Side::Left, name).y;
        let trunks = (joint("knee") * 0.42 + joint("upper-leg") * 0.58, joint("upper-leg") + 0.055 * stature);
        let top = (joint("shoulder") - 0.114 * stature, joint("shoulder") - 0.034 * stature);
        let arm: Vec<f32> = {
            let of = |side| figure.share(side, &["upper-arm", "forearm", "hand"]);
            of(Side::Left).into_iter().zip(of(Side::Right)).map(|(left, right)| left.max(right)).collect()
        };
        let worn = |face: usize| {
            let corner = figure.faces[face];
            let middle = corner.iter().map(|&v| heights[v]).sum::<f64>() / 3.0;
            let near = |(low, high): (f64, f64)| middle > low - 6.0 && middle < high + 5.0;
            match figure.kinds[face] {
                Kind::Body | Kind::Eye => Some(None),
                Kind::Hair => (spec.hair == crate::Hair::Long).then_some(None),
                Kind::Tights if corner.iter().any(|&v| arm[v] > 0.3) => None,
                Kind::Tights if near(trunks) => Some(Some(trunks)),
                Kind::Tights if spec.wears_top() && near(top) => Some(Some(top)),
                Kind::Tights => None,
            }
        };
        let faces = (0..figure.faces.len()).filter_map(|face| worn(face).map(|ends| (face, ends))).collect();
        Self { faces, heights }
    }
}

impl Dressed {
    /// Faces of the clothes that are seen whole: the outline runs over them.
    pub fn clothes<'a>(&'a self, figure: &'a Figure) -> impl Iterator<Item = usize> + 'a {
        self.faces.iter().filter_map(|&(face, ends)| {
            let (low, high) = ends?;
            figure.faces[face].iter().all(|&v| self.heights[v] > low && self.heights[v] < high).then_some(face)
        })
    }
}

/// Draws faces into a depth buffer. `points` are x, y in places of the grid and z away from the eye.
pub(crate) fn rasterise(
    figure: &Figure,
    dressed: &Dressed,
    points: &[V3],
    width: usize,
    height: usize,
) -> (Vec<Option<Hit>>, Vec<f32>) {
    let mut hits = vec![None; width * height];
    let mut depths = vec![f32::INFINITY; width * height];
    for &(face, ends) in &dressed.faces {
        let corner = figure.faces[face].map(|v| points[v]);
        let high = figure.faces[face].map(|v| dressed.heights[v]);
        let area = cross(corner[0], corner[1], corner[2].x, corner[2].y);
        if area.abs() < 1e-9 {
            continue;
        }
        let span = |of: fn(&V3) -> f64, most: usize| {
            let low = corner.iter().map(of).fold(f64::INFINITY, f64::min).floor().max(0.0);
            let high = corner.iter().map(of).fold(f64::NEG_INFINITY, f64::max).ceil() + 1.0;
            index(low)..index(high).min(most)
        };
        for y in span(|p| p.y, height) {
            for x in span(|p| p.x, width) {
                let (px, py) = (x as f64 + 0.5, y as f64 + 0.5);
                let a = cross(corner[1], corner[2], px, py) / area;
                let b = cross(corner[2], corner[0], px, py) / area;
                let c = 1.0 - a - b;
                if a < 0.0 || b < 0.0 || c < 0.0 {
                    continue;
                }
                let depth = (a * corner[0].z + b * corner[1].z + c * corner[2].z) as f32;
                let place = y * width + x;
                let hem = a * high[0] + b * high[1] + c * high[2];
                if depth < depths[place] && ends.is_none_or(|(low, high)| hem > low && hem < high) {
                    depths[place] = depth;
                    hits[place] = Some(Hit { face: face as u32, shares: [a as f32, b as f32, c as f32] });
                }
            }
        }
    }
    (hits, depths)
}

/// Twice the signed area of a triangle whose third corner is at x, y.
fn cross(a: V3, b: V3, x: f64, y: f64) -> f64 {
    (b.x - a.x) * (y - a.y) - (x - a.x) * (b.y - a.y)
}

/// A place on the grid; what lies before it is 0.
fn index(place: f64) -> usize {
    place.max(0.0) as usize
}
