//! Numbers of a set-up: what each means, how far it goes, and what it changes of a movement.

use crate::movement::{LoadKind, Movement, SetUp};
use schemars::JsonSchema;
use serde::Serialize;
use utoipa::ToSchema;

/// A number of a set-up.
#[derive(Clone, Debug, PartialEq, Serialize, JsonSchema, ToSchema)]
#[serde(rename_all = "snake_case")]
pub struct SetUpNumber {
    /// `bench_deg`, `pulley_height_cm` and their like.
    pub name: String,
    /// In words.
    pub says: String,
    /// In the name's unit.
    pub value: f64,
    /// The least it goes to.
    pub low: f64,
    /// The most.
    pub high: f64,
    /// Whether it is the movement's own.
    pub default: bool,
}

/// A number that cannot be.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
pub enum SetUpError {
    /// This exercise has no such number.
    #[error("{exercise} has no {name} to set; it has {has}")]
    NoSuch {
        /// Id of the exercise.
        exercise: String,
        /// What was asked for.
        name: String,
        /// What there is.
        has: String,
    },
    /// Out of its range.
    #[error("{name} {value} is out of range: {low} to {high} expected")]
    OutOfRange {
        /// The number.
        name: &'static str,
        /// What was asked for.
        value: f64,
        /// The least it goes to.
        low: f64,
        /// The most.
        high: f64,
    },
}

impl SetUp {
    const ALL: [Self; 10] = [
        Self::BenchDeg,
        Self::PulleyHeightCm,
        Self::PulleyDistanceCm,
        Self::PulleySideCm,
        Self::ElbowFromBodyDeg,
        Self::ForearmTurnDeg,
        Self::LeanDeg,
        Self::HipDeg,
        Self::KneeDeg,
        Self::StanceCm,
    ];

    /// As files and commands name it.
    pub fn name(self) -> &'static str {
        match self {
            Self::BenchDeg => "bench_deg",
            Self::PulleyHeightCm => "pulley_height_cm",
            Self::PulleyDistanceCm => "pulley_distance_cm",
            Self::PulleySideCm => "pulley_side_cm",
            Self::ElbowFromBodyDeg => "elbow_from_body_deg",
            Self::ForearmTurnDeg => "forearm_turn_deg",
            Self::LeanDeg => "lean_deg",
            Self::HipDeg => "hip_deg",
            Self::KneeDeg => "knee_deg",
            Self::StanceCm => "stance_cm",
        }
    }

    fn says(self) -> &'static str {
        match self {
            Self::BenchDeg => "Bench, 0 flat, 90 upright",
            Self::PulleyHeightCm => "Pulley above the floor",
            Self::PulleyDistanceCm => "Pulley in front of the hips",
            Self::PulleySideCm => "Pulley to the working side",
            Self::ElbowFromBodyDeg => "Upper arm from the body",
            Self::ForearmTurnDeg => "Palm, 90 up, -90 down",
            Self::LeanDeg => "Lean forward",
            Self::HipDeg => "Hip bent",
            Self::KneeDeg => "Knee bent",
            Self::StanceCm => "Between the feet",
        }
    }

    /// How far it goes, in its unit.
    pub fn range(self) -> [f64; 2] {
        match self {
            Self::BenchDeg => [-20.0, 90.0],
            Self::PulleyHeightCm => [0.0, 220.0],
            Self::PulleyDistanceCm => [-150.0, 200.0],
            Self::PulleySideCm => [-150.0, 150.0],
            Self::ElbowFromBodyDeg => [-60.0, 170.0],
            Self::ForearmTurnDeg => [-90.0, 90.0],
            Self::LeanDeg => [-60.0, 90.0],
            Self::HipDeg => [-20.0, 120.0],
            Self::KneeDeg => [0.0, 120.0],
            Self::StanceCm => [0.0, 90.0],
        }
    }

    /// What a movement has of it now.
    fn of(self, movement: &Movement) -> f64 {
        let pulley = |place: usize| pulley(movement).map_or(0.0, |load| load.from[place]);
        match self {
            Self::BenchDeg => 90.0 - movement.lean.abs(),
            Self::PulleyHeightCm => pulley(0),
            Self::PulleyDistanceCm => pulley(1),
            Self::PulleySideCm => pulley(2),
            Self::ElbowFromBodyDeg => movement.start.up.unwrap_or_default(),
            Self::ForearmTurnDeg => movement.start.fore.unwrap_or_default(),
            Self::LeanDeg => movement.lean,
            Self::HipDeg => movement.start.hip.unwrap_or_default(),
            Self::KneeDeg => movement.start.knee.unwrap_or_default(),
            Self::StanceCm => between_feet(movement.start.abduct.unwrap_or_default()),
        }
    }

    fn put(self, movement: &mut Movement, value: f64) {
        let by = value - self.of(movement);
        let Movement { start, end, .. } = movement;
        // What the end has of its own moves along, so that the range stays as long as it is.
        let shift = |end: &mut Option<f64>| *end = end.map(|own| own + by);
        match self {
            Self::BenchDeg => movement.lean = (90.0 - value) * if movement.lean > 0.0 { 1.0 } else { -1.0 },
            Self::PulleyHeightCm => put_pulley(movement, 0, value),
            Self::PulleyDistanceCm => put_pulley(movement, 1, value),
            Self::PulleySideCm => put_pulley(movement, 2, value),
            Self::ElbowFromBodyDeg => {
                start.up = Some(value);
                shift(&mut end.up);
            }
            Self::ForearmTurnDeg => {
                start.fore = Some(value);
                shift(&mut end.fore);
            }
            Self::LeanDeg => movement.lean = value,
            Self::HipDeg => {
                start.hip = Some(value);
                shift(&mut end.hip);
            }
            Self::KneeDeg => {
                start.knee = Some(value);
                shift(&mut end.knee);
            }
            Self::StanceCm => {
                start.abduct = Some(abducted(value));
                end.abduct = None;
            }
        }
    }
}

/// Between the ankles with both thighs out by so much: hips 16 cm apart, legs 80 cm long (the source model's).
fn between_feet(abduct_deg: f64) -> f64 {
    16.0 + 160.0 * abduct_deg.to_radians().sin()
}

fn abducted(stance_cm: f64) -> f64 {
    ((stance_cm - 16.0) / 160.0).asin().to_degrees()
}

fn pulley(movement: &Movement) -> Option<&crate::movement::Load> {
    movement.loads.iter().find(|load| matches!(load.kind, LoadKind::Cable | LoadKind::Band))
}

fn put_pulley(movement: &mut Movement, place: usize, value: f64) {
    let pulleys = movement.loads.iter_mut().filter(|load| matches!(load.kind, LoadKind::Cable | LoadKind::Band));
    pulleys.for_each(|load| load.from[place] = value);
}

/// The numbers of a movement, and which of them are its own.
pub fn set_up(movement: &Movement, own: &Movement) -> Vec<SetUpNumber> {
    let number = |turn: &SetUp| {
        let ([low, high], value) = (turn.range(), turn.of(movement));
        let default = (value - turn.of(own)).abs() < 1e-6;
        SetUpNumber { name: turn.name().to_owned(), says: turn.says().to_owned(), value, low, high, default }
    };
    movement.turns.iter().map(number).collect()
}

/// A movement with numbers of its set-up put as given.
///
/// # Errors
/// [`SetUpError`] for a number that the movement does not have, or that lies outside its bounds.
pub fn with(movement: &Movement, numbers: &[(String, f64)]) -> Result<Movement, SetUpError> {
    let mut changed = movement.clone();
    for (name, value) in numbers {
        let turn = SetUp::ALL.into_iter().find(|turn| turn.name() == name && movement.turns.contains(turn));
        let Some(turn) = turn else {
            let has: Vec<&str> = movement.turns.iter().map(|turn| turn.name()).collect();
            let has = if has.is_empty() { "none".to_owned() } else { has.join(", ") };
            return Err(SetUpError::NoSuch { exercise: movement.exercise.clone(), name: name.clone(), has });
        };
        let [low, high] = turn.range();
        if !(low..=high).contains(value) {
            return Err(SetUpError::OutOfRange { name: turn.name(), value: *value, low, high });
        }
        turn.put(&mut changed, *value);
    }
    Ok(changed)
}
