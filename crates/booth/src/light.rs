//! Lamps and the shadows they throw.

use crate::camera::View;
use crate::figure::{Figure, V3};
use crate::raster::{Dressed, rasterise};
use crate::spec::{Light, LightKind};
use rand::rngs::StdRng;
use rand::{RngExt, SeedableRng};

/// Side of a shadow map, in its places.
const MAP: usize = 640;
/// Furthest from the figure's middle that still casts a shadow, cm.
const REACH_CM: f64 = 140.0;

/// One lamp, far away.
pub(crate) struct Lamp {
    /// To the lamp.
    pub towards: V3,
    pub strength: f64,
    across: V3,
    up: V3,
    middle: V3,
    depths: Vec<f32>,
}

/// The lamps of a light and how bright what they do not reach is.
pub(crate) fn lamps(figure: &Figure, dressed: &Dressed, light: Light, view: &View) -> (Vec<Lamp>, f64) {
    let mut wobble = StdRng::seed_from_u64(light.seed);
    let mut near = |x: f64, y: f64, z: f64| {
        let mut at = |v: f64| v + wobble.random_range(-0.08..0.08);
        V3::new(at(x), at(y), at(z)).normalize()
    };
    let (directions, ambient) = match light.kind {
        LightKind::Even => (vec![(near(-0.7, 0.45, 0.75), 0.42), (near(0.7, 0.45, 0.75), 0.42)], 0.34),
        LightKind::Left => (vec![(near(-0.75, 0.4, 0.6), 0.74)], 0.30),
        LightKind::Right => (vec![(near(0.75, 0.4, 0.6), 0.74)], 0.30),
        LightKind::Above => (vec![(near(0.0, 0.85, 0.55), 0.72)], 0.30),
        LightKind::Dim => (vec![(near(-0.5, 0.5, 0.7), 0.26)], 0.16),
    };
    let lamps = directions.into_iter().map(|(towards, strength)| Lamp::new(figure, dressed, view, towards, strength));
    (lamps.collect(), ambient)
}

impl Lamp {
    fn new(figure: &Figure, dressed: &Dressed, view: &View, towards: V3, strength: f64) -> Self {
        let across = V3::y().cross(&towards).normalize();
        let up = towards.cross(&across);
        let middle = V3::new(0.0, view.room.iter().map(|v| v.y).fold(0.0, f64::max) / 2.0, 0.0);
        let mut lamp = Self { towards, strength, across, up, middle, depths: Vec::new() };
        let points: Vec<V3> = view.room.iter().map(|v| lamp.map(*v)).collect();
        lamp.depths = rasterise(figure, dressed, &points, MAP, MAP).1;
        lamp
    }

    /// A point on the shadow map, with its distance from the lamp.
    fn map(&self, p: V3) -> V3 {
        let scale = MAP as f64 / (2.0 * REACH_CM);
        let r = p - self.middle;
        V3::new((r.dot(&self.across) + REACH_CM) * scale, (REACH_CM - r.dot(&self.up)) * scale, -r.dot(&self.towards))
    }

    /// How much of the lamp reaches a point, 0 to 1. `softness` is in places of the map.
    pub fn reaches(&self, p: V3, softness: f64) -> f64 {
        let at = self.map(p);
        let offsets = [(0.0, 0.0), (-1.0, -1.0), (1.0, -1.0), (-1.0, 1.0), (1.0, 1.0)];
        let lit = offsets.iter().filter(|(dx, dy)| {
            let (x, y) = (at.x + dx * softness, at.y + dy * softness);
            let inside = x >= 0.0 && y >= 0.0 && x < MAP as f64 && y < MAP as f64;
            !inside || f64::from(self.depths[y as usize * MAP + x as usize]) > at.z - 0.9
        });
        lit.count() as f64 / offsets.len() as f64
    }
}
