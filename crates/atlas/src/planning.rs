//! Settings of the week: what it may hold at most, what it must not leave empty, and what each shortfall costs.

use crate::scheme::StepWeight;
use serde::{Deserialize, Serialize};

/// Before the path of a setting of the week in [`crate::Setting::id`].
pub(crate) const PREFIX: &str = "planning.";

/// A number by training age.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct ByExperience {
    /// Less than about a year.
    pub beginner: f64,
    /// One to three years.
    pub intermediate: f64,
    /// More.
    pub advanced: f64,
}

/// All settings of `data/planning.toml`.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct PlanningSettings {
    /// Hard sets a week at most.
    pub weekly_sets: ByExperience,
    /// Sets times load along the spine a week, at most.
    pub axial: ByExperience,
    /// Load along the spine from which a session needs two days before the next such one.
    pub axial_session: f64,
    /// Sessions a week with a lift of the heaviest load along the spine, at most, unless the back is chosen.
    pub floor_lifts: f64,
    /// Sets times load a week at most, shoulder and elbow.
    pub joint_upper: ByExperience,
    /// Sets times load a week at most, any other joint.
    pub joint_other: ByExperience,
    /// Part of the joint's limit that is left with a pain of 1 or 2, and of 3 or 4.
    pub pain: PainSettings,
    /// One exercise in a week.
    pub exercise: ExerciseLimits,
    /// Two sessions less than 48 hours apart that both train a region give it together so many direct sets at most.
    pub near_direct_sets: f64,
    /// Fractional sets of a big part a week that must not be missed, and of a small one.
    pub part_floor: f64,
    /// See [`Self::part_floor`].
    pub small_part_floor: f64,
    /// Price of a set that a part is short of its floor, sets of a grown region.
    pub part_price: f64,
    /// Price of a movement that a week does not have.
    pub movement_price: f64,
    /// Price of an action of a chosen region that nothing of the week covers.
    pub action_price: f64,
    /// Price of an exercise outside the day's theme.
    pub theme_price: f64,
    /// Price of a point of merit that an exercise lacks.
    pub merit_price: f64,
    /// Price of a set with a load of 1 along the spine.
    pub axial_price: f64,
    /// Price of a set of a lift from the floor beside that, unless the back is chosen.
    pub floor_lift_price: f64,
    /// Fractional sets a week of a whole part that is brought up, shared by its regions.
    pub part_dose: f64,
    /// Years without a round after which it is asked whether a client's data is still needed.
    pub retention_years: f64,
    /// Part of the time under which a session is told to be short.
    pub session_used: f64,
    /// Steps by which loads go up.
    pub load_step: LoadSteps,
}

/// The smallest steps of a practice's weights.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct LoadSteps {
    /// From one pair of dumbbells to the next, each hand, kg.
    pub dumbbells: f64,
    /// The smallest plates of a bar, both ends together, kg.
    pub bar: f64,
    /// The smallest plate on a belt, kg.
    pub belt: f64,
}

impl LoadSteps {
    pub(crate) fn kg(self, weight: StepWeight) -> f64 {
        match weight {
            StepWeight::Dumbbells => self.dumbbells,
            StepWeight::Bar => self.bar,
            StepWeight::Belt => self.belt,
        }
    }
}

/// How pain lowers what a joint may carry.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct PainSettings {
    /// Part of the limit left with a pain of 1 or 2.
    pub mild: f64,
    /// Part of the limit left with a pain of 3 or 4.
    pub clear: f64,
}

/// How much of one exercise a week may hold.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct ExerciseLimits {
    /// Sessions.
    pub sessions: f64,
    /// Sets.
    pub sets: f64,
    /// Sets of a technical one.
    pub technical_sets: f64,
    /// Sets a session of one made of lowering.
    pub eccentric_session_sets: f64,
    /// Sets a week of one made of lowering, when it is new.
    pub eccentric_first_sets: f64,
    /// By how many sets that rises a week.
    pub eccentric_rise_sets: f64,
    /// And how many are the most.
    pub eccentric_most_sets: f64,
}
