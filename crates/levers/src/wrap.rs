//! The shortest way of a muscle over a sphere or a cylinder, as the engine of the source model goes it: found in the plane of a
//! circle, for a cylinder with the height shared out along the way.

use crate::body::{Shape, Vector};
use crate::chain::Frame;
use nalgebra::Vector2;

type Flat = Vector2<f64>;

const TINY: f64 = 1e-15;

/// Where a way touches first and last, and how long it lies on.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Touch {
    pub first: Vector,
    pub last: Vector,
    pub length: f64,
}

/// The way from one place to another over a wrap; `None` where it goes straight past. `side` chooses between the two ways round; a
/// side within the wrap means a way through it, as through a loop.
pub(crate) fn over(
    from: Vector,
    to: Vector,
    frame: Frame,
    shape: Shape,
    radius: f64,
    side: Option<Vector>,
) -> Option<Touch> {
    let own = |place: Vector| frame.turn.inverse() * (place - frame.at);
    let (p0, p1) = (own(from), own(to));
    if p0.norm() < TINY || p1.norm() < TINY {
        return None;
    }
    let [x, y] = match shape {
        Shape::Cylinder => [Vector::x(), Vector::y()],
        Shape::Sphere => plane(p0, p1),
    };
    let flat = |p: Vector| Flat::new(p.dot(&x), p.dot(&y));
    let (d0, d1) = (flat(p0), flat(p1));
    let own_side = side.map(own);
    let found = match own_side {
        Some(side) if side.norm() < radius => through(d0, d1, radius),
        _ => around(d0, d1, radius, own_side.map(|side| flat(side).normalize() * radius)),
    };
    let (t0, t1, along) = found?;
    let lift = |t: Flat| x * t.x + y * t.y;
    let (mut first, mut last, mut length) = (lift(t0), lift(t1), along);
    if shape == Shape::Cylinder {
        let (before, after) = ((d0 - t0).norm(), (d1 - t1).norm());
        let whole = before + along + after;
        first.z = p0.z + (p1.z - p0.z) * before / whole;
        last.z = p0.z + (p1.z - p0.z) * (before + along) / whole;
        length = along.hypot(last.z - first.z);
    }
    Some(Touch { first: frame.of(first), last: frame.of(last), length })
}

/// Two axes of the plane through the middle of a sphere and both places.
fn plane(p0: Vector, p1: Vector) -> [Vector; 2] {
    let x = p0.normalize();
    let normal = p0.cross(&p1);
    let normal = if normal.norm() < TINY {
        // In line with the middle: any plane.
        let other = if x.x.abs() < 0.9 { Vector::x() } else { Vector::y() };
        x.cross(&other)
    } else {
        normal
    };
    [x, normal.cross(&x).normalize()]
}

/// Around a circle: the two touching points and the length between them.
fn around(d0: Flat, d1: Flat, radius: f64, side: Option<Flat>) -> Option<(Flat, Flat, f64)> {
    let square = radius * radius;
    let (from, way) = (d0, d1 - d0);
    if d0.norm_squared() < square || d1.norm_squared() < square || radius < TINY || way.norm_squared() < TINY {
        return None;
    }
    let nearest = from + way * (-way.dot(&from) / way.norm_squared()).clamp(0.0, 1.0);
    if nearest.norm_squared() > square && side.is_none_or(|side| side.dot(&nearest) >= 0.0) {
        return None;
    }
    let ways = [1.0, -1.0].map(|turn| [touching(d0, radius, turn), touching(d1, radius, -turn)]);
    let good = ways.map(|[t0, t1]| {
        if crosses(d0, t0, d1, t1) {
            return -10_000.0;
        }
        match side {
            Some(side) => (t0 + t1).try_normalize(TINY).unwrap_or_default().dot(&side),
            None => -(t0 - t1).norm_squared(),
        }
    });
    let best = usize::from(good[0] <= good[1]);
    let [t0, t1] = ways[best];
    if crosses(d0, t0, d1, t1) {
        return None;
    }
    let mut angle = (t0.dot(&t1) / square).clamp(-1.0, 1.0).acos();
    let cross = t0.y * t1.x - t0.x * t1.y;
    if (cross > 0.0 && best == 1) || (cross < 0.0 && best == 0) {
        angle = std::f64::consts::TAU - angle;
    }
    Some((t0, t1, radius * angle))
}

/// Where the line from a point touches a circle, on one hand or the other.
fn touching(d: Flat, radius: f64, turn: f64) -> Flat {
    let square = radius * radius;
    let root = (d.norm_squared() - square).max(0.0).sqrt();
    Flat::new(d.x * square + turn * radius * d.y * root, d.y * square - turn * radius * d.x * root) / d.norm_squared()
}

/// Whether the lines p0-p1 and q0-q1 cross.
fn crosses(p0: Flat, p1: Flat, q0: Flat, q1: Flat) -> bool {
    let (p, q) = (p1 - p0, q1 - q0);
    let det = q.y * p.x - q.x * p.y;
    if det.abs() < TINY {
        return false;
    }
    let apart = p0 - q0;
    let a = (q.x * apart.y - q.y * apart.x) / det;
    let b = (p.x * apart.y - p.y * apart.x) / det;
    (0.0..=1.0).contains(&a) && (0.0..=1.0).contains(&b)
}

/// Iterations and the error of the angle at which the search for the touching point of a loop ends, and where it begins.
const NEWTON_STEPS: usize = 20;
const NEWTON_ERROR: f64 = 1e-6;
const NEWTON_START: f64 = 1.0 - 1e-7;

/// Through a loop: the point of the circle by which the way is shortest; nothing where the straight way goes through.
fn through(d0: Flat, d1: Flat, radius: f64) -> Option<(Flat, Flat, f64)> {
    let (far0, far1) = (d0.norm(), d1.norm());
    let way = d1 - d0;
    if far0 <= radius || far1 <= radius || radius < TINY {
        return None;
    }
    if way.norm_squared() > TINY {
        let share = -way.dot(&d0) / way.norm_squared();
        if share > 0.0 && share < 1.0 && (d0 + way * share).norm() <= radius {
            return None;
        }
    }
    let usual = (d0 + d1).try_normalize(TINY).unwrap_or_else(Flat::x) * radius;
    let failed = Some((usual, usual, 0.0));
    let (a, b) = (radius / far0, radius / far1);
    let cosine = (far0 * far0 + far1 * far1 - way.norm_squared()) / (2.0 * far0 * far1);
    if cosine < -1.0 + TINY {
        return None;
    }
    if cosine > 1.0 - TINY {
        return failed;
    }
    let whole = cosine.acos();
    let miss = |z: f64| (a * z).asin() + (b * z).asin() - 2.0 * z.asin() + whole;
    let mut z = NEWTON_START;
    if miss(z) > 0.0 {
        return failed;
    }
    let mut steps = 0;
    while miss(z).abs() > NEWTON_ERROR {
        let root = |x: f64| (1.0 - x * x).max(0.0).sqrt().max(TINY);
        let falls = a / root(z * a) + b / root(z * b) - 2.0 / root(z);
        let next = z - miss(z) / falls;
        steps += 1;
        if falls > -TINY || next > z || steps > NEWTON_STEPS {
            return failed;
        }
        z = next;
    }
    let (start, share) = if d0.x * d1.y - d0.y * d1.x > 0.0 { (d0, a) } else { (d1, b) };
    let turn = nalgebra::Rotation2::new(z.asin() - (share * z).asin());
    let at = turn * start.normalize() * radius;
    Some((at, at, 0.0))
}
