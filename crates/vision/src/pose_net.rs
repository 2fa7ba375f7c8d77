//! The pose model that ships with the program (`models/`, Apache-2.0): a detector, then landmarks and a mask of the one
//! person it found. Its pipeline is the published one of the model: anchors, weighted suppression, heat-map refinement.

use crate::error::PhotoError;
use crate::plane::Plane;
use flate2::read::GzDecoder;
use image::RgbImage;
use rten::{Model, ValueOrView};
use rten_tensor::prelude::*;
use rten_tensor::{NdTensor, Tensor};
use std::io::Read;

const DETECTION: &[&[u8]] = &[include_bytes!("../models/pose_detection.onnx.gz")];
const LANDMARKS: &[&[u8]] =
    &[include_bytes!("../models/pose_landmark.onnx.gz.00"), include_bytes!("../models/pose_landmark.onnx.gz.01")];
const DETECTION_PX: usize = 224;
const LANDMARK_PX: usize = 256;
const HEAT_PX: usize = 64;
/// Values to a landmark in the model's answer.
const LANDMARK_VALUES: usize = 5;
/// Landmarks to a place of the heat map.
const HEAT_LANDMARKS: usize = 39;
/// Landmarks of the model; two more say where to look again.
pub(crate) const POINTS: usize = 33;
const DETECTION_SCORE: f32 = 0.3;
/// From here a second detection is a second person.
const SECOND_SCORE: f32 = 0.6;
/// Detections that overlap more are of one person.
const SAME_PERSON: f32 = 0.3;

/// A place the model found, px of the picture.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Found {
    pub x: f64,
    pub y: f64,
    /// How sure the model is that it is to be seen, 0 to 1.
    pub visible: f64,
}

/// A square of the picture, turned: centre and side in px, turn in radians.
#[derive(Clone, Copy, Debug)]
struct Square {
    x: f64,
    y: f64,
    side: f64,
    turn: f64,
}

impl Square {
    fn whole(picture: &RgbImage) -> Self {
        let (width, height) = (f64::from(picture.width()), f64::from(picture.height()));
        Self { x: width / 2.0, y: height / 2.0, side: width.max(height), turn: 0.0 }
    }

    /// The square about a person whose hips are at `from` and whose reach goes to `to`.
    fn about(from: (f64, f64), to: (f64, f64)) -> Self {
        let (dx, dy) = (to.0 - from.0, to.1 - from.1);
        let turn = std::f64::consts::FRAC_PI_2 - (-dy).atan2(dx);
        Self { x: from.0, y: from.1, side: dx.hypot(dy) * 2.0 * 1.25, turn }
    }

    /// A place of the square (-0.5 to 0.5) in the picture.
    fn place(&self, u: f64, v: f64) -> (f64, f64) {
        let (sin, cos) = self.turn.sin_cos();
        let (a, b) = (u * self.side, v * self.side);
        (self.x + a * cos - b * sin, self.y + a * sin + b * cos)
    }

    /// From a place of the picture to the square. The turn is worked out once: this is asked of every pixel.
    fn back(&self) -> impl Fn(f64, f64) -> (f64, f64) {
        let (sin, cos) = self.turn.sin_cos();
        let Self { x: x0, y: y0, side, .. } = *self;
        move |x, y| {
            let (dx, dy) = (x - x0, y - y0);
            ((dx * cos + dy * sin) / side, (-dx * sin + dy * cos) / side)
        }
    }
}

/// One detected person.
struct Detection {
    score: f32,
    /// Centre and size of the head box, then four points, as shares of the square.
    values: [f32; 12],
}

/// What the model says of a person.
pub(crate) struct Person {
    /// How sure it is that there is one.
    pub score: f64,
    pub points: Vec<Found>,
    /// Where shoulders and hips face by the model's places in the room, degrees from square to the camera; `None` when it gave none.
    pub facing_deg: Option<f64>,
    /// Person or not, 0 to 1.
    pub mask: Plane,
    /// Whether another person was found beside this one.
    pub accompanied: bool,
}

/// One look of the landmark network.
struct Answer {
    score: f64,
    points: Vec<Found>,
    facing_deg: Option<f64>,
    /// The network's own mask, over its square.
    mask: Vec<f32>,
    square: Square,
}

/// Both networks.
pub(crate) struct PoseNet {
    detection: Model,
    landmarks: Model,
}

impl PoseNet {
    /// # Errors
    /// [`PhotoError::Model`] when the shipped file does not load.
    pub fn load() -> Result<Self, PhotoError> {
        Ok(Self { detection: load(DETECTION)?, landmarks: load(LANDMARKS)? })
    }

    /// The most likely person of a picture.
    ///
    /// # Errors
    /// [`PhotoError::Model`] when the model does not run.
    pub fn person(&self, picture: &RgbImage) -> Result<Option<Person>, PhotoError> {
        let whole = Square::whole(picture);
        let detections = self.detect(picture, whole)?;
        let Some(best) = detections.first() else { return Ok(None) };
        let place = |x: f32, y: f32| whole.place(f64::from(x) - 0.5, f64::from(y) - 0.5);
        let [.., hip_x, hip_y, reach_x, reach_y, _, _, _, _] = best.values;
        let square = Square::about(place(hip_x, hip_y), place(reach_x, reach_y));
        let mut answer = self.look(picture, square)?;
        if answer.score >= 0.5 {
            let [from, to] = [POINTS, POINTS + 1].map(|i| (answer.points[i].x, answer.points[i].y));
            answer = self.look(picture, Square::about(from, to))?;
        }
        let mask = unwarped(&answer.mask, answer.square, picture);
        let accompanied = detections.get(1).is_some_and(|second| second.score >= SECOND_SCORE);
        answer.points.truncate(POINTS);
        Ok(Some(Person {
            score: answer.score,
            points: answer.points,
            facing_deg: answer.facing_deg,
            mask,
            accompanied,
        }))
    }

    /// People, the surest first, each once.
    fn detect(&self, picture: &RgbImage, whole: Square) -> Result<Vec<Detection>, PhotoError> {
        let answer = run(&self.detection, DETECTION_PX, cropped(picture, whole, DETECTION_PX, (-1.0, 1.0), true))?;
        let [values, scores, ..] = answer.as_slice() else { return Err(shape()) };
        let mut found: Vec<Detection> = Vec::new();
        for ((anchor, &score), values) in anchors().zip(scores).zip(values.as_chunks::<12>().0) {
            let score = sigmoid(score);
            if score >= DETECTION_SCORE {
                found.push(Detection { score, values: beside(anchor, *values) });
            }
        }
        found.sort_by(|a, b| b.score.total_cmp(&a.score));
        let mut people = Vec::new();
        while let Some(best) = found.first() {
            let best = Detection { score: best.score, values: best.values };
            let (same, others): (Vec<_>, Vec<_>) =
                found.into_iter().partition(|d| overlap(&d.values, &best.values) > SAME_PERSON);
            if same.is_empty() {
                break;
            }
            let weight: f32 = same.iter().map(|d| d.score).sum();
            let mean = |i: usize| same.iter().map(|d| d.values[i] * d.score).sum::<f32>() / weight;
            people.push(Detection { score: best.score, values: std::array::from_fn(mean) });
            found = others;
        }
        Ok(people)
    }

    fn look(&self, picture: &RgbImage, square: Square) -> Result<Answer, PhotoError> {
        let answer = run(&self.landmarks, LANDMARK_PX, cropped(picture, square, LANDMARK_PX, (0.0, 1.0), false))?;
        let [values, score, mask, heat, room @ ..] = answer.as_slice() else { return Err(shape()) };
        let points = values.chunks_exact(LANDMARK_VALUES).take(POINTS + 2).enumerate().map(|(i, values)| {
            let (u, v) = refined(heat, i, values[0] / LANDMARK_PX as f32, values[1] / LANDMARK_PX as f32);
            let (x, y) = square.place(f64::from(u) - 0.5, f64::from(v) - 0.5);
            Found { x, y, visible: f64::from(sigmoid(values[3])) }
        });
        let points: Vec<Found> = points.collect();
        if points.len() < POINTS + 2 {
            return Err(shape());
        }
        let score = f64::from(*score.first().ok_or_else(shape)?);
        let facing_deg = room.first().and_then(|room| facing_deg(room));
        Ok(Answer { score, points, facing_deg, mask: mask.clone(), square })
    }
}

/// The model's numbers of shoulders and hips, left and right.
const SHOULDERS: [usize; 2] = [11, 12];
const HIPS: [usize; 2] = [23, 24];

/// Mean turn of the lines through shoulders and hips about the vertical, from the places in the room (x, y, z each, m; z away from the camera);
/// -90 to 90, whether the front or the back is seen.
fn facing_deg(room: &[f32]) -> Option<f64> {
    let turn = |[left, right]: [usize; 2]| {
        let at = |landmark: usize, axis: usize| room.get(3 * landmark + axis).copied().map(f64::from);
        let across = at(left, 0)? - at(right, 0)?;
        let away = at(left, 2)? - at(right, 2)?;
        (across.abs() > f64::EPSILON).then(|| (away / across).atan().to_degrees())
    };
    Some(f64::midpoint(turn(SHOULDERS)?, turn(HIPS)?))
}

fn load(parts: &[&[u8]]) -> Result<Model, PhotoError> {
    let broken = |why: String| PhotoError::Model(why);
    let mut bytes = Vec::new();
    let joined = parts.concat();
    GzDecoder::new(joined.as_slice()).read_to_end(&mut bytes).map_err(|error| broken(error.to_string()))?;
    Model::load(bytes).map_err(|error| broken(error.to_string()))
}

fn shape() -> PhotoError {
    PhotoError::Model("its answer does not have the expected shape".to_owned())
}

fn run(model: &Model, side: usize, pixels: Vec<f32>) -> Result<Vec<Vec<f32>>, PhotoError> {
    let broken = |why: String| PhotoError::Model(why);
    let input = NdTensor::<f32, 4>::from_data([1, side, side, 3], pixels);
    let id = *model.input_ids().first().ok_or_else(shape)?;
    let inputs: Vec<(_, ValueOrView)> = vec![(id, input.into())];
    let outputs = model.run(inputs, model.output_ids(), None).map_err(|error| broken(error.to_string()))?;
    let plain = |value: rten::Value| -> Result<Vec<f32>, PhotoError> {
        let tensor: Tensor<f32> = value.try_into().map_err(|_| shape())?;
        Ok(tensor.to_vec())
    };
    outputs.into_iter().map(plain).collect()
}

fn sigmoid(x: f32) -> f32 {
    1.0 / (1.0 + (-x.clamp(-100.0, 100.0)).exp())
}

/// Middles of the cells in which the detector looks, as shares of its square.
fn anchors() -> impl Iterator<Item = (f32, f32)> {
    [(28_u16, 2), (14, 2), (7, 6)].into_iter().flat_map(|(cells, per_cell)| {
        (0..cells).flat_map(move |y| {
            (0..cells).flat_map(move |x| {
                let middle = |i: u16| (f32::from(i) + 0.5) / f32::from(cells);
                std::iter::repeat_n((middle(x), middle(y)), per_cell)
            })
        })
    })
}

/// A detection's values as shares of the square: all but the size are beside the anchor.
fn beside(anchor: (f32, f32), values: [f32; 12]) -> [f32; 12] {
    std::array::from_fn(|i| {
        let own = values[i] / DETECTION_PX as f32;
        match i {
            2 | 3 => own,
            i if i % 2 == 0 => own + anchor.0,
            _ => own + anchor.1,
        }
    })
}

/// Shared area of two boxes over the area of both.
fn overlap(a: &[f32; 12], b: &[f32; 12]) -> f32 {
    let along = |i: usize| {
        let (low, high) =
            ((a[i] - a[i + 2] / 2.0).max(b[i] - b[i + 2] / 2.0), (a[i] + a[i + 2] / 2.0).min(b[i] + b[i + 2] / 2.0));
        (high - low).max(0.0)
    };
    let shared = along(0) * along(1);
    shared / (a[2] * a[3] + b[2] * b[3] - shared)
}

/// A landmark moved to the middle of its hill on the heat map, where there is one.
fn refined(heat: &[f32], landmark: usize, u: f32, v: f32) -> (f32, f32) {
    let size = HEAT_PX as i32;
    let (cx, cy) = ((u * HEAT_PX as f32) as i32, (v * HEAT_PX as f32) as i32);
    if !(0..size).contains(&cx) || !(0..size).contains(&cy) {
        return (u, v);
    }
    let (mut sum, mut sum_x, mut sum_y, mut highest) = (0.0_f32, 0.0_f32, 0.0_f32, 0.0_f32);
    for y in (cy - 3).max(0)..(cy + 4).min(size) {
        for x in (cx - 3).max(0)..(cx + 4).min(size) {
            let Some(&value) = heat.get((y * size + x) as usize * HEAT_LANDMARKS + landmark) else { continue };
            let value = sigmoid(value);
            sum += value;
            sum_x += value * x as f32;
            sum_y += value * y as f32;
            highest = highest.max(value);
        }
    }
    if highest < 0.5 {
        return (u, v);
    }
    (sum_x / HEAT_PX as f32 / sum, sum_y / HEAT_PX as f32 / sum)
}

/// A square of the picture at the size of a network, its values between `range`; outside it is black or the edge.
fn cropped(picture: &RgbImage, square: Square, side: usize, range: (f32, f32), black: bool) -> Vec<f32> {
    let (width, height) = (i64::from(picture.width()), i64::from(picture.height()));
    let pixels = picture.as_raw();
    let pixel = |x: i64, y: i64| -> [f32; 3] {
        if black && (x < 0 || y < 0 || x >= width || y >= height) {
            return [0.0; 3];
        }
        let place = (y.clamp(0, height - 1) * width + x.clamp(0, width - 1)) as usize * 3;
        [0, 1, 2].map(|c| f32::from(pixels[place + c]))
    };
    let mut values = Vec::with_capacity(side * side * 3);
    for place in 0..side * side {
        let share = |i: usize| (i as f64 + 0.5) / side as f64 - 0.5;
        let (x, y) = square.place(share(place % side), share(place / side));
        let (x, y) = (x - 0.5, y - 0.5);
        let (u, v) = ((x - x.floor()) as f32, (y - y.floor()) as f32);
        let (x, y) = (x.floor() as i64, y.floor() as i64);
        let corners = [pixel(x, y), pixel(x + 1, y), pixel(x, y + 1), pixel(x + 1, y + 1)];
        values.extend([0, 1, 2].map(|c| {
            let upper = corners[0][c] * (1.0 - u) + corners[1][c] * u;
            let lower = corners[2][c] * (1.0 - u) + corners[3][c] * u;
            range.0 + (range.1 - range.0) * (upper * (1.0 - v) + lower * v) / 255.0
        }));
    }
    values
}

/// The network's mask over the picture; 0 outside its square.
fn unwarped(mask: &[f32], square: Square, picture: &RgbImage) -> Plane {
    let (width, height) = (picture.width() as usize, picture.height() as usize);
    let mask = Plane { width: LANDMARK_PX, height: LANDMARK_PX, values: mask.iter().map(|&v| sigmoid(v)).collect() };
    let back = square.back();
    let rows = (0..height).flat_map(|y| (0..width).map(move |x| (x as f64 + 0.5, y as f64 + 0.5)));
    let values = rows.map(|(x, y)| {
        let (u, v) = back(x, y);
        mask.at((u + 0.5) * LANDMARK_PX as f64, (v + 0.5) * LANDMARK_PX as f64) as f32
    });
    Plane { width, height, values: values.collect() }
}
