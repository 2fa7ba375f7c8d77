//! Colours: skin, hair, clothes and room in the light, then the camera's own noise.

use crate::camera::{Camera, View};
use crate::figure::{Figure, Kind, Posed, V3};
use crate::light::{Lamp, lamps};
use crate::raster::{Dressed, Hit, Seen};
use crate::room::{Colour, behind, grain};
use crate::spec::{Skin, Spec};
use image::RgbImage;
use rand::rngs::StdRng;
use rand::{RngExt, SeedableRng};
use rayon::prelude::*;
use units::Side;

/// Steps of the tone curve: finer than 8 bits can tell.
const TONES: u32 = 65_536;

/// What is needed to colour a place on the figure.
struct Painter<'a> {
    figure: &'a Figure,
    spec: &'a Spec,
    view: &'a View,
    /// As in the figure file: colours stick to the skin, not to the room.
    body: &'a Posed,
    normals: Vec<V3>,
    lamps: Vec<Lamp>,
    ambient: f64,
    eye: V3,
    face: Face,
}

/// Where the face's parts are, cm, in the figure file's stance.
struct Face {
    eye: V3,
    mouth: V3,
    head: V3,
}

/// The picture of a view, and which of its pixels show the figure.
pub(crate) fn paint(
    figure: &Figure,
    spec: &Spec,
    body: &Posed,
    dressed: &Dressed,
    camera: &Camera,
    (view, seen): (&View, &Seen),
) -> (RgbImage, Vec<bool>) {
    let (lamps, ambient) = lamps(figure, dressed, spec.light, view);
    let face = Face { eye: body.sided(Side::Left, "eye"), mouth: body.joint("mouth"), head: body.joint("head") };
    let normals = normals(figure, view);
    let painter = Painter { figure, spec, view, body, normals, lamps, ambient, eye: camera.at(), face };
    let (width, height) = (spec.image.width as usize, spec.image.height as usize);
    let places = (0..width * height).into_par_iter();
    let (linear, mask): (Vec<Colour>, Vec<bool>) = places
        .map(|place| {
            let (colour, covered) = pixel(&painter, camera, seen, place % width, place / width);
            (colour, covered > 0.5)
        })
        .unzip();
    (developed(spec, &linear), mask)
}

/// Colour of a pixel, and the share of it that shows the figure.
fn pixel(painter: &Painter, camera: &Camera, seen: &Seen, x: usize, y: usize) -> (Colour, f64) {
    let fine = seen.fine;
    let mut sum = Colour::zeros();
    let mut covered = 0.0;
    let mut open = 0.0;
    for dy in 0..fine {
        for dx in 0..fine {
            match seen.hits[(y * fine + dy) * seen.width + x * fine + dx] {
                Some(hit) => {
                    sum += painter.figure_colour(hit);
                    covered += 1.0;
                }
                None => open += 1.0,
            }
        }
    }
    let all = covered + open;
    if open > 0.0 {
        let ray = camera.ray(x as f64 + 0.5, y as f64 + 0.5);
        sum += painter.room_colour(camera.at(), ray) * open;
    }
    (sum / all, covered / all)
}

/// Smooth normals in the room.
fn normals(figure: &Figure, view: &View) -> Vec<V3> {
    let mut normals = vec![V3::zeros(); view.room.len()];
    for face in &figure.faces {
        let [a, b, c] = face.map(|v| view.room[v]);
        let normal = (b - a).cross(&(c - a));
        for &v in face {
            normals[v] += normal;
        }
    }
    normals
}

impl Painter<'_> {
    fn figure_colour(&self, hit: Hit) -> Colour {
        let corner = self.figure.faces[hit.face as usize];
        let mix = |of: &[V3]| {
            let shares = hit.shares.map(f64::from);
            of[corner[0]] * shares[0] + of[corner[1]] * shares[1] + of[corner[2]] * shares[2]
        };
        let (at, own) = (mix(&self.view.room), mix(&self.body.vertices));
        let normal = mix(&self.normals).normalize();
        let (colour, shine, skin) = self.surface(self.figure.kinds[hit.face as usize], own);
        let to_eye = (self.eye - at).normalize();
        // Ground and walls throw light back, less from below.
        let mut light = Colour::new(0.96, 1.0, 1.04) * (self.ambient * (0.72 + 0.28 * normal.y));
        let mut gloss = 0.0;
        for lamp in &self.lamps {
            let facing = normal.dot(&lamp.towards);
            let lit = lamp.reaches(at + normal * 0.6, 1.3) * lamp.strength;
            light += Colour::new(1.04, 1.0, 0.94) * (facing.max(0.0) * lit);
            if skin {
                // Light that enters the skin comes out redder a little further round.
                light += Colour::new(0.10, 0.035, 0.025) * (((facing + 0.25) / 1.25).max(0.0) - facing.max(0.0)) * lit;
            }
            let half = (lamp.towards + to_eye).normalize();
            gloss += normal.dot(&half).max(0.0).powi(26) * lit * shine;
        }
        colour.component_mul(&light) * 1.25 + Colour::repeat(gloss)
    }

    fn room_colour(&self, eye: V3, ray: V3) -> Colour {
        let (at, colour) = behind(self.spec.room, eye, ray);
        // Large lamps and a light room: what is far behind the figure is never quite dark.
        let lit: f64 = self.lamps.iter().map(|lamp| lamp.strength * (0.72 + 0.28 * lamp.reaches(at, 7.0))).sum();
        let feet = (at.x.hypot(at.z) / 24.0).powi(2);
        let contact = if at.y.abs() < 1.0 { 1.0 - 0.25 * (-feet).exp() } else { 1.0 };
        colour * ((self.ambient * 1.2 + lit * 0.95) * contact)
    }

    /// Colour and shine of what is at a place of the figure, and whether it is skin.
    fn surface(&self, kind: Kind, p: V3) -> (Colour, f64, bool) {
        let mottle = grain(p.x * 0.35 + p.z * 0.21, p.y * 0.35) * 0.035 + grain(p.x * 2.1 + p.z, p.y * 2.3) * 0.015;
        match kind {
            Kind::Tights => (Colour::new(0.055, 0.065, 0.11) * (1.0 + mottle * 2.0), 0.015, false),
            Kind::Eye => (self.iris(p), 0.4, false),
            Kind::Hair => (hair_colour(p), 0.05, false),
            Kind::Body if self.is_scalp(p) => (hair_colour(p), 0.05, false),
            Kind::Body => (self.skin_colour(p) * (1.0 + mottle), 0.05, true),
        }
    }

    fn iris(&self, p: V3) -> Colour {
        let off = (p.x.abs() - self.face.eye.x.abs()).hypot(p.y - self.face.eye.y);
        match off {
            off if off < 0.28 => Colour::repeat(0.02),
            off if off < 0.62 => Colour::new(0.14, 0.10, 0.06),
            _ => Colour::new(0.72, 0.70, 0.68),
        }
    }

    /// The hair line, by where the eyes and the head's joint are.
    fn is_scalp(&self, p: V3) -> bool {
        let (eye, head) = (self.face.eye, self.face.head);
        let above = (eye.y + 2.0 - p.y).clamp(0.0, 8.0);
        let temple = p.x.abs() > 6.8 && p.y < eye.y + 3.0 && p.z > head.z - 4.0 && p.z < eye.z - 2.0;
        let crown = p.y > eye.y + 6.8 || (p.y > eye.y - 3.5 && p.z < eye.z - 5.5 - 0.55 * above);
        let nape = p.z < head.z - 1.0 && p.y > eye.y - 7.5;
        p.y > head.y - 8.0 && ((crown && !temple) || nape)
    }

    fn skin_colour(&self, p: V3) -> Colour {
        let base = match self.spec.skin {
            Skin::Light => Colour::new(0.62, 0.43, 0.34),
            Skin::Middle => Colour::new(0.46, 0.29, 0.20),
            Skin::Dark => Colour::new(0.17, 0.095, 0.065),
        };
        let (eye, mouth) = (self.face.eye, self.face.mouth);
        let lips = (p.x / 2.6).powi(2) + ((p.y - mouth.y + 4.2) / 0.8).powi(2) < 1.0 && p.z > mouth.z - 1.0;
        let brow =
            ((p.x.abs() - eye.x.abs()) / 1.9).powi(2) + ((p.y - eye.y - 2.3) / 0.36).powi(2) < 1.0 && p.z > eye.z - 0.5;
        match (lips, brow) {
            (true, _) => base.component_mul(&Colour::new(0.82, 0.55, 0.55)),
            (_, true) => base * 0.35,
            _ => base,
        }
    }
}

fn hair_colour(p: V3) -> Colour {
    Colour::new(0.045, 0.030, 0.022) * (1.0 + 0.5 * grain(p.x * 3.0, p.y * 1.2 + p.z))
}

/// Tone curve, the lens's slight softness, and the sensor's noise, which is drawn anew for every row.
fn developed(spec: &Spec, linear: &[Colour]) -> RgbImage {
    let (width, height) = (spec.image.width as usize, spec.image.height as usize);
    let tones: Vec<f64> = (0..=TONES).map(|i| (f64::from(i) / f64::from(TONES)).powf(1.0 / 2.2) * 255.0).collect();
    let tone = |value: f64| tones[(value.clamp(0.0, 1.0) * f64::from(TONES)) as usize];
    let at = |x: usize, y: usize| linear[y.min(height - 1) * width + x.min(width - 1)];
    let mut picture = RgbImage::new(spec.image.width, spec.image.height);
    picture.par_chunks_exact_mut(width * 3).enumerate().for_each(|(y, row)| {
        let mut noise = StdRng::seed_from_u64(spec.image.seed.wrapping_mul(1_000_003).wrapping_add(y as u64));
        for (x, pixel) in row.as_chunks_mut::<3>().0.iter_mut().enumerate() {
            let near = at(x.saturating_sub(1), y) + at(x + 1, y) + at(x, y.saturating_sub(1)) + at(x, y + 1);
            let soft = at(x, y) * 0.6 + near * 0.1;
            *pixel = [soft.x, soft.y, soft.z]
                .map(|value| (tone(value) + spec.image.noise * normal(&mut noise)).round().clamp(0.0, 255.0) as u8);
        }
    });
    picture
}

/// Nearly normal: the sum of six even draws, scaled to a variance of 1.
fn normal(random: &mut StdRng) -> f64 {
    let sum: f64 = (0..6).map(|_| f64::from(random.random::<f32>())).sum();
    (sum - 3.0) * std::f64::consts::SQRT_2
}
