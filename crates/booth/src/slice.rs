//! Cutting the mesh: the truth about girths and widths.

use crate::figure::{Figure, Kind, Posed, V3};
use units::{Side, Sides};

/// Which faces belong to which part of the body, by the bones that move them.
#[derive(Clone)]
pub(crate) struct Parts {
    /// Trunk, neck, head and legs.
    pub trunk: Vec<usize>,
    /// Each arm from the shoulder down.
    pub arm: Sides<Vec<usize>>,
    /// Each half of what is not arm.
    pub half: Sides<Vec<usize>>,
    /// All skin.
    pub skin: Vec<usize>,
}

impl Parts {
    pub fn of(figure: &Figure, body: &Posed) -> Self {
        let arm = Sides { left: Side::Left, right: Side::Right }
            .map(|side| figure.share(side, &["upper-arm", "forearm", "hand"]));
        let skin: Vec<usize> = (0..figure.faces.len()).filter(|&face| figure.kinds[face] == Kind::Body).collect();
        let share = |face: usize, shares: &[f32]| figure.faces[face].iter().map(|&v| shares[v]).sum::<f32>() / 3.0;
        let of_arm = |face: usize| share(face, &arm.left).max(share(face, &arm.right)) >= 0.5;
        let across = |face: usize| figure.faces[face].iter().map(|&v| body.vertices[v].x).sum::<f64>();
        let pick = |keep: &dyn Fn(usize) -> bool| skin.iter().copied().filter(|&face| keep(face)).collect::<Vec<_>>();
        Self {
            trunk: pick(&|face| !of_arm(face)),
            arm: Sides {
                left: pick(&|face| share(face, &arm.left) >= 0.5),
                right: pick(&|face| share(face, &arm.right) >= 0.5),
            },
            half: Sides {
                left: pick(&|face| !of_arm(face) && across(face) > 0.0),
                right: pick(&|face| !of_arm(face) && across(face) <= 0.0),
            },
            skin,
        }
    }
}

impl Parts {
    /// The parts as they are seen, with clothes over them.
    pub fn worn(mut self, figure: &Figure, body: &Posed, clothes: impl Iterator<Item = usize>) -> Self {
        for face in clothes {
            let across: f64 = figure.faces[face].iter().map(|&v| body.vertices[v].x).sum();
            self.trunk.push(face);
            if across > 0.0 { self.half.left.push(face) } else { self.half.right.push(face) }
        }
        self
    }
}

/// A plane through a point.
#[derive(Clone, Copy)]
pub(crate) struct Plane {
    pub at: V3,
    /// Of length 1.
    pub normal: V3,
}

impl Plane {
    /// Level with the floor at a height.
    pub fn level(y: f64) -> Self {
        Self { at: V3::new(0.0, y, 0.0), normal: V3::y() }
    }

    /// Across a bone, at a share of the way from one joint to the next.
    pub fn across(from: V3, to: V3, share: f64) -> Self {
        Self { at: from + (to - from) * share, normal: (to - from).normalize() }
    }
}

/// A mesh that can be cut.
pub(crate) struct Mesh<'a> {
    figure: &'a Figure,
    body: &'a Posed,
    /// Lowest and highest point of each face.
    spans: Vec<(f64, f64)>,
}

impl<'a> Mesh<'a> {
    pub fn new(figure: &'a Figure, body: &'a Posed) -> Self {
        let span = |face: &[usize; 3]| {
            let [a, b, c] = face.map(|v| body.vertices[v].y);
            (a.min(b).min(c), a.max(b).max(c))
        };
        Self { figure, body, spans: figure.faces.iter().map(span).collect() }
    }

    /// The points in which a plane cuts some faces, two to a face.
    pub fn cut(&self, faces: &[usize], plane: Plane) -> Vec<V3> {
        let level = plane.normal.y > 0.999_999;
        let mut points = Vec::new();
        for &face in faces {
            let (low, high) = self.spans[face];
            if level && (low > plane.at.y || high < plane.at.y) {
                continue;
            }
            let corner = self.figure.faces[face].map(|v| self.body.vertices[v]);
            let height = corner.map(|p| (p - plane.at).dot(&plane.normal));
            for (from, to) in [(0, 1), (1, 2), (2, 0)] {
                if (height[from] < 0.0) != (height[to] < 0.0) {
                    let share = height[from] / (height[from] - height[to]);
                    points.push(corner[from] + (corner[to] - corner[from]) * share);
                }
            }
        }
        points
    }

    /// Height of the crotch, cm: the highest level at which the legs are apart.
    pub fn crotch(&self, parts: &Parts) -> f64 {
        let hip = self.body.sided(Side::Left, "upper-leg").y;
        let knee = self.body.sided(Side::Left, "knee").y;
        let apart = |y: f64| {
            let left = reach(&self.cut(&parts.half.left, Plane::level(y)), V3::x());
            let right = reach(&self.cut(&parts.half.right, Plane::level(y)), V3::x());
            matches!((left, right), (Some(left), Some(right)) if left.0 > right.1 + 0.3)
        };
        let mut y = hip;
        while y > knee && !apart(y) {
            y -= 0.25;
        }
        y
    }
}

/// Length of a tape round the points of a cut, cm: the convex hull's perimeter, as a tape bridges hollows.
pub(crate) fn tape(points: &[V3], normal: V3) -> f64 {
    let across = if normal.y.abs() > 0.9 { V3::x() } else { V3::y() };
    let u = normal.cross(&across).normalize();
    let v = normal.cross(&u);
    let mut flat: Vec<(f64, f64)> = points.iter().map(|p| (p.dot(&u), p.dot(&v))).collect();
    flat.sort_by(|a, b| a.0.total_cmp(&b.0).then(a.1.total_cmp(&b.1)));
    let mut round = half_hull(flat.iter());
    round.extend(half_hull(flat.iter().rev()));
    let next = round.iter().cycle().skip(1);
    round.iter().zip(next).map(|(a, b)| (a.0 - b.0).hypot(a.1 - b.1)).sum()
}

/// One chain of the convex hull (Andrew's monotone chain, 1979), without its last point.
fn half_hull<'a>(points: impl Iterator<Item = &'a (f64, f64)>) -> Vec<(f64, f64)> {
    let mut chain: Vec<(f64, f64)> = Vec::new();
    for &p in points {
        while let [.., a, b] = chain[..] {
            if (b.0 - a.0) * (p.1 - a.1) - (b.1 - a.1) * (p.0 - a.0) > 0.0 {
                break;
            }
            chain.pop();
        }
        chain.push(p);
    }
    chain.pop();
    chain
}

/// How far points reach along a direction.
pub(crate) fn reach(points: &[V3], along: V3) -> Option<(f64, f64)> {
    let mut places = points.iter().map(|p| p.dot(&along));
    let first = places.next()?;
    Some(places.fold((first, first), |(low, high), place| (low.min(place), high.max(place))))
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case::a_square_with_a_dent(&[(0.0, 0.0), (4.0, 0.0), (4.0, 4.0), (2.0, 1.0), (0.0, 4.0)], 16.0)]
    #[case::a_triangle_of_sides_3_4_5(&[(0.0, 0.0), (3.0, 0.0), (0.0, 4.0)], 12.0)]
    fn a_tape_bridges_hollows(#[case] flat: &[(f64, f64)], #[case] cm: f64) {
        let points: Vec<V3> = flat.iter().map(|(x, z)| V3::new(*x, 7.0, *z)).collect();
        assert!((tape(&points, V3::y()) - cm).abs() < 1e-9);
    }
}
