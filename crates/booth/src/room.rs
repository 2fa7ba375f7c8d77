//! What is behind the figure: a plain wall and a floor, or a gym.

use crate::figure::V3;
use crate::spec::Room;

/// Linear light, red, green and blue.
pub(crate) type Colour = V3;

/// The wall stands this far behind the figure, cm.
const WALL_Z: f64 = -60.0;

/// What a look from `eye` along `ray` falls on, and its colour in full light.
pub(crate) fn behind(room: Room, eye: V3, ray: V3) -> (V3, Colour) {
    let wall = eye + ray * (eye.z - WALL_Z);
    if wall.y < 0.0 && ray.y < 0.0 {
        let floor = eye + ray * (eye.y / -ray.y);
        return (floor, floor_colour(room, floor));
    }
    let skirting = if wall.y < 7.0 { 1.08 } else { 1.0 };
    let colour = if room == Room::Busy { gym(wall) } else { plain(wall) };
    (wall, colour * skirting)
}

fn plain(p: V3) -> Colour {
    let fall_off = 1.03 - 0.08 * ((p.x / 130.0 + 0.2).powi(2) + ((p.y - 130.0) / 170.0).powi(2));
    Colour::new(0.66, 0.67, 0.66) * fall_off.max(0.6)
}

fn floor_colour(room: Room, p: V3) -> Colour {
    match room {
        Room::Plain => Colour::new(0.40, 0.37, 0.34) * (0.95 + 0.03 * grain(p.x * 0.5, p.z * 3.0)),
        Room::Busy => {
            let mat = ((p.x / 50.0).floor() + (p.z / 50.0).floor()).rem_euclid(2.0);
            Colour::new(0.22, 0.24, 0.27) * (1.0 + 0.25 * mat) * (0.95 + 0.1 * grain(p.x * 2.0, p.z * 2.0))
        }
    }
}

/// A wooden door, a rack with weights, a framed print and a bench, some in the colours of skin.
fn gym(p: V3) -> Colour {
    let within = |low: f64, high: f64, bottom: f64, top: f64| p.x > low && p.x < high && p.y > bottom && p.y < top;
    if within(45.0, 95.0, 0.0, 198.0) {
        return Colour::new(0.56, 0.38, 0.24) * (0.9 + 0.14 * grain(p.x * 1.4, p.y * 0.12));
    }
    if within(-92.0, -40.0, 128.0, 176.0) {
        let inner = within(-88.0, -44.0, 132.0, 172.0);
        let print = Colour::new(0.4 + 0.25 * (p.x * 0.3).sin(), 0.38 + 0.2 * (p.y * 0.25).sin(), 0.36);
        return if inner { print } else { Colour::new(0.12, 0.1, 0.08) };
    }
    if within(-110.0, -28.0, 0.0, 92.0) {
        let shelf = (p.y / 30.0).fract();
        let (u, v) = (((p.x + 110.0) / 16.0).fract() - 0.5, shelf - 0.45);
        let plate = (u * 16.0).hypot(v * 30.0) < 7.0;
        let hub = (u * 16.0).hypot(v * 30.0) < 2.0;
        let frame = shelf < 0.12;
        return match (frame, hub, plate) {
            (true, ..) => Colour::new(0.42, 0.30, 0.22),
            (_, true, _) => Colour::new(0.5, 0.5, 0.48),
            (_, _, true) => Colour::new(0.13, 0.13, 0.15),
            _ => Colour::new(0.34, 0.37, 0.38),
        };
    }
    if within(-20.0, 45.0, 0.0, 44.0) && (p.y > 36.0 || p.x < -12.0 || p.x > 37.0) {
        return Colour::new(0.45, 0.22, 0.18);
    }
    Colour::new(0.54, 0.58, 0.57) * (1.0 - 0.06 * (p.x / 120.0).powi(2))
}

/// Smooth noise in the plane, -1 to 1.
pub(crate) fn grain(x: f64, y: f64) -> f64 {
    let (x0, y0) = (x.floor(), y.floor());
    let ease = |t: f64| t * t * (3.0 - 2.0 * t);
    let (u, v) = (ease(x - x0), ease(y - y0));
    let at = |dx: f64, dy: f64| lattice(x0 + dx, y0 + dy);
    let upper = at(0.0, 0.0) * (1.0 - u) + at(1.0, 0.0) * u;
    let lower = at(0.0, 1.0) * (1.0 - u) + at(1.0, 1.0) * u;
    upper * (1.0 - v) + lower * v
}

/// A value from -1 to 1 for a point of the lattice, by mixing its coordinates' bits (as in splitmix64).
fn lattice(x: f64, y: f64) -> f64 {
    let mixed =
        (x as i64 as u64).wrapping_mul(0x9E37_79B9_7F4A_7C15) ^ (y as i64 as u64).wrapping_mul(0xBF58_476D_1CE4_E5B9);
    let mixed = (mixed ^ (mixed >> 30)).wrapping_mul(0x94D0_49BB_1331_11EB);
    let mixed = mixed ^ (mixed >> 31);
    (mixed >> 11) as f64 / (1u64 << 52) as f64 - 1.0
}
