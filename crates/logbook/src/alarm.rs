//! What must be said at once when something hurts: stop and swap, or stop and refer. Orthomer does not diagnose.

use crate::entry::{Entry, ExercisePain, Part, RedFlag};
use assess::{Hurt, PAIN_STOPS};
use atlas::Atlas;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// How pressing it is; the more pressing first.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum AlarmKind {
    /// A sign for a doctor or physiotherapist.
    Refer,
    /// Pain that stops the exercise.
    Pain,
}

/// What is said.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Alarm {
    /// How pressing it is.
    pub kind: AlarmKind,
    /// What was noticed and what to do.
    pub says: String,
}

impl ExercisePain {
    /// Whether the exercise stops: from 3 of 10, or with any red flag.
    pub fn stops(&self) -> bool {
        self.level >= PAIN_STOPS || !self.red_flags.is_empty()
    }

    fn alarm(&self, exercise: &str) -> Option<Alarm> {
        let side = self.side.map_or(String::new(), |side| format!("{} ", side.as_str()));
        let place = format!("{side}{}", self.area.replace('-', " "));
        if !self.red_flags.is_empty() {
            let seen: Vec<&str> = self.red_flags.iter().copied().map(RedFlag::says).collect();
            let says = format!("{exercise}, {place}: {}. Stop and refer before training goes on.", seen.join(", "));
            return Some(Alarm { kind: AlarmKind::Refer, says });
        }
        let says = format!("{exercise}, {place}: pain {} of 10. Stop this exercise and swap it.", self.level);
        self.stops().then_some(Alarm { kind: AlarmKind::Pain, says })
    }
}

/// The alarm of an entry, if it gives one.
pub fn alarms(atlas: &Atlas, entry: &Entry) -> Option<Alarm> {
    let Part::Exercise(log) = &entry.part else { return None };
    let pain = log.pain.as_ref()?;
    let hurt = pain.during.as_ref().unwrap_or_else(|| log.done());
    pain.alarm(atlas.exercise(hurt).map_or(hurt.as_str(), |exercise| exercise.name.as_str()))
}

/// The exercise that hurt, when it hurt so much that it stops.
pub fn hurt(entry: &Entry) -> Option<Hurt> {
    let Part::Exercise(log) = &entry.part else { return None };
    let pain = log.pain.as_ref().filter(|pain| pain.stops())?;
    let exercise = pain.during.as_ref().unwrap_or_else(|| log.done()).clone();
    Some(Hurt { exercise, level: pain.level, on: entry.trained_on })
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    // Common practice, no source.
    #[rstest]
    #[case::a_twinge(2, &[], None)]
    #[case::three_stops(3, &[], Some(AlarmKind::Pain))]
    #[case::numbness_refers_however_little_it_hurts(0, &[RedFlag::Numbness], Some(AlarmKind::Refer))]
    #[case::a_red_flag_before_the_number(8, &[RedFlag::Swelling, RedFlag::NightPain], Some(AlarmKind::Refer))]
    fn pain_stops_and_red_flags_refer(#[case] level: u8, #[case] flags: &[RedFlag], #[case] kind: Option<AlarmKind>) {
        let pain = ExercisePain { area: "low-back".into(), side: None, level, red_flags: flags.to_vec(), during: None };
        let alarm = pain.alarm("Leg press");
        assert_eq!(alarm.as_ref().map(|alarm| alarm.kind), kind);
        assert_eq!(pain.stops(), kind.is_some());
        assert!(alarm.is_none_or(|alarm| alarm.says.starts_with("Leg press, low back:")));
    }

    #[test]
    fn the_side_and_every_sign_are_named() {
        let red_flags = vec![RedFlag::SharpPain, RedFlag::LossOfStrength];
        let pain =
            ExercisePain { area: "elbow".into(), side: Some(units::Side::Left), level: 4, red_flags, during: None };
        let says = pain.alarm("Curl").unwrap().says;
        assert!(says.contains("left elbow: sharp pain, loss of strength on one side"), "{says}");
    }
}
