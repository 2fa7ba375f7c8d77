//! The figure file: mesh, joints, bone chains and the moves that change its build.

use crate::spec::Problem;
use nalgebra::Vector3;
use safetensors::SafeTensors;
use std::collections::HashMap;
use std::io::Read;
use units::Side;

const FILE: &[u8] = include_bytes!("../data/figure.safetensors.gz");
/// Steps of the file per millimetre.
const STEPS_PER_MM: f64 = 20.0;

/// A position or direction, cm: x to the figure's left, y up, z to its front.
pub(crate) type V3 = Vector3<f64>;

/// Why there is no picture.
#[derive(Debug, thiserror::Error)]
pub enum BoothError {
    /// The spec breaks rules.
    #[error("{}", .0.iter().map(ToString::to_string).collect::<Vec<_>>().join("\n"))]
    Spec(Vec<Problem>),
    /// The figure file does not have its shape.
    #[error("the figure file is damaged: {0}")]
    Figure(String),
    /// A picture could not be written.
    #[error("the picture could not be written: {0}")]
    Encode(String),
}

/// What a face belongs to.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Kind {
    Body,
    Eye,
    Tights,
    Hair,
}

/// Offsets of the vertices and joints that move, cm.
struct Move {
    at: Vec<u16>,
    by: Vec<V3>,
}

/// The figure the booth bends. Load it once.
pub struct Figure {
    pub(crate) faces: Vec<[usize; 3]>,
    pub(crate) kinds: Vec<Kind>,
    vertices: usize,
    joints: Vec<String>,
    chains: HashMap<String, Vec<f32>>,
    moves: HashMap<String, Move>,
}

/// Vertices and joints of a figure, cm.
#[derive(Clone)]
pub(crate) struct Posed {
    pub vertices: Vec<V3>,
    joints: HashMap<String, V3>,
}

impl Posed {
    /// A joint by name, such as `neck`.
    pub fn joint(&self, name: &str) -> V3 {
        self.joints.get(name).copied().unwrap_or_else(V3::zeros)
    }

    /// A joint of a side, such as `elbow`.
    pub fn sided(&self, side: Side, name: &str) -> V3 {
        self.joint(&format!("{}-{name}", prefix(side)))
    }

    /// Moves every vertex and joint.
    pub fn map(&mut self, change: impl Fn(V3) -> V3) {
        self.vertices.iter_mut().chain(self.joints.values_mut()).for_each(|point| *point = change(*point));
    }

    /// Moves the vertices by their share in a chain, and the named joints of the side fully.
    pub fn bend(&mut self, share: &[f32], side: Side, joints: &[&str], change: impl Fn(V3, f64) -> V3) {
        for (vertex, &share) in self.vertices.iter_mut().zip(share).filter(|(_, share)| **share > 0.0) {
            *vertex = change(*vertex, f64::from(share));
        }
        for name in joints {
            if let Some(joint) = self.joints.get_mut(&format!("{}-{name}", prefix(side))) {
                *joint = change(*joint, 1.0);
            }
        }
    }
}

fn prefix(side: Side) -> &'static str {
    match side {
        Side::Left => "l",
        Side::Right => "r",
    }
}

impl Figure {
    /// Reads the figure that ships with the booth.
    ///
    /// # Errors
    /// [`BoothError::Figure`] when the file does not have its shape.
    pub fn load() -> Result<Self, BoothError> {
        let mut bytes = Vec::new();
        flate2::read::GzDecoder::new(FILE).read_to_end(&mut bytes).map_err(damaged)?;
        let (_, header) = SafeTensors::read_metadata(&bytes).map_err(damaged)?;
        let tensors = SafeTensors::deserialize(&bytes).map_err(damaged)?;
        let data = |name: &str| tensors.tensor(name).map(|tensor| tensor.data().to_vec()).map_err(damaged);
        let notes = header.metadata().as_ref().ok_or_else(|| damaged("no notes"))?;
        let list = |name: &str| -> Result<Vec<String>, BoothError> {
            let text = notes.get(name).ok_or_else(|| damaged(name))?;
            Ok(text.split(',').map(str::to_owned).collect())
        };
        let faces = u16s(&data("faces")?).chunks_exact(3).map(|f| [f[0], f[1], f[2]].map(usize::from)).collect();
        let kinds = data("face_kind")?.into_iter().map(kind).collect::<Result<_, _>>()?;
        let mut moves = HashMap::new();
        for name in list("moves")? {
            let at = u16s(&data(&format!("move.{name}.at"))?);
            let by = data(&format!("move.{name}.by"))?;
            let by = if name == "rest" { i32s(&by) } else { i16s(&by) };
            moves.insert(name, Move { at, by: by.chunks_exact(3).map(|v| V3::new(v[0], v[1], v[2])).collect() });
        }
        let joints = list("joints")?;
        let rest = moves.get("rest").map_or(0, |rest: &Move| rest.at.len());
        let vertices = rest.checked_sub(joints.len()).ok_or_else(|| damaged("too few vertices"))?;
        let weights = data("weights")?;
        let shares = weights.chunks_exact(vertices).map(|row| row.iter().map(|&w| f32::from(w) / 255.0).collect());
        let chains = list("chains")?.into_iter().zip(shares).collect();
        Ok(Self { faces, kinds, vertices, joints, chains, moves })
    }

    /// Each vertex's share in the sum of some bone chains of a side, 0 to 1.
    pub(crate) fn share(&self, side: Side, chains: &[&str]) -> Vec<f32> {
        let mut sum = vec![0.0_f32; self.vertices];
        for chain in chains {
            if let Some(shares) = self.chains.get(&format!("{}-{chain}", prefix(side))) {
                sum.iter_mut().zip(shares).for_each(|(sum, share)| *sum = (*sum + share).min(1.0));
            }
        }
        sum
    }

    /// The figure at rest with weighted moves added.
    pub(crate) fn built(&self, weights: &[(String, f64)]) -> Posed {
        let mut points = vec![V3::zeros(); self.vertices + self.joints.len()];
        let rest = ("rest".to_owned(), 1.0);
        for (name, weight) in std::iter::once(&rest).chain(weights) {
            let Some(moved) = self.moves.get(name) else { continue };
            for (&at, by) in moved.at.iter().zip(&moved.by) {
                points[usize::from(at)] += by * *weight;
            }
        }
        let joints = points.split_off(self.vertices);
        Posed { vertices: points, joints: self.joints.iter().cloned().zip(joints).collect() }
    }
}

#[expect(clippy::needless_pass_by_value, reason = "it is handed to map_err, which gives errors by value")]
fn damaged(why: impl ToString) -> BoothError {
    BoothError::Figure(why.to_string())
}

fn kind(code: u8) -> Result<Kind, BoothError> {
    [Kind::Body, Kind::Eye, Kind::Tights, Kind::Hair]
        .get(usize::from(code))
        .copied()
        .ok_or_else(|| damaged("a face kind"))
}

fn u16s(bytes: &[u8]) -> Vec<u16> {
    bytes.as_chunks::<2>().0.iter().map(|pair| u16::from_le_bytes(*pair)).collect()
}

/// Steps of the file as cm.
fn i16s(bytes: &[u8]) -> Vec<f64> {
    let values = bytes.as_chunks::<2>().0.iter().map(|pair| f64::from(i16::from_le_bytes(*pair)));
    values.map(|steps| steps / STEPS_PER_MM / 10.0).collect()
}

fn i32s(bytes: &[u8]) -> Vec<f64> {
    let values = bytes.as_chunks::<4>().0.iter().map(|four| f64::from(i32::from_le_bytes(*four)));
    values.map(|steps| steps / STEPS_PER_MM / 10.0).collect()
}
