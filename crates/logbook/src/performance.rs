//! How good a session of an exercise was, as one number that can be compared from session to session.

use crate::entry::{Count, ExerciseLog, LoggedSet};
use assess::{StrengthSet, epley_kg};
use jiff::civil::Date;
use units::{Load, Side};

/// An exercise as it was done on a day.
#[derive(Clone, Copy, Debug)]
pub struct Performed<'a> {
    /// The day.
    pub on: Date,
    /// Whether it was a lighter week, whose numbers say nothing about progress.
    pub lighter: bool,
    /// What was done.
    pub log: &'a ExerciseLog,
}

impl Performed<'_> {
    /// The sets that progress is read from: those of `side`, or all where no side was noted.
    pub(crate) fn sets(&self, side: Option<Side>) -> impl Iterator<Item = &LoggedSet> {
        self.log.sets.iter().filter(move |set| side.is_none() || set.side.is_none() || set.side == side)
    }

    /// The best set of a side.
    pub(crate) fn best(&self, side: Option<Side>) -> Option<f64> {
        self.sets(side).map(performance).max_by(f64::total_cmp)
    }
}

/// The best sets of an exercise as one number each.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct BestSets {
    /// Of both sides together.
    pub both: Option<f64>,
    /// Of the left alone.
    pub left: Option<f64>,
    /// Of the right alone.
    pub right: Option<f64>,
    /// Whether a load was held.
    pub loaded: bool,
}

/// The best sets of what was done.
pub fn best_sets(log: &ExerciseLog) -> BestSets {
    let best =
        |side: Option<Side>| log.sets.iter().filter(|set| set.side == side).map(performance).max_by(f64::total_cmp);
    BestSets {
        both: best(None),
        left: best(Some(Side::Left)),
        right: best(Some(Side::Right)),
        loaded: log.sets.iter().any(|set| set.load.is_some()),
    }
}

/// A body's weight as far as comparing sets with more or less help goes, kg: a choice of ours, near enough for one client's own
/// sets.
const BODY_KG: f64 = 80.0;

/// A set as one number: with a load the estimated maximum (Epley 1985), kg, or kg times seconds; without one what was
/// counted, less the share that help took off. Comparable only within one exercise.
pub fn performance(set: &LoggedSet) -> f64 {
    let count = f64::from(set.count.number());
    let Some(load) = set.load.and_then(Load::held) else {
        let help = set.load.map_or(0.0, |load| -load.kg() / BODY_KG);
        return count * (1.0 - help).max(0.0);
    };
    match set.count {
        Count::Reps(reps) => epley_kg(StrengthSet { load, reps }),
        Count::Seconds(seconds) => load.kg() * f64::from(seconds),
    }
}

#[cfg(test)]
pub(crate) mod tests {
    use super::*;
    use crate::entry::{Entry, Part, SessionKey};
    use rstest::rstest;

    /// Load in kg (0 for none, under 0 for help) and repetitions of both sides together.
    pub(crate) fn set(number: u8, load_kg: f64, reps: u16) -> LoggedSet {
        let load = (load_kg != 0.0).then(|| Load::from_kg(load_kg).unwrap());
        LoggedSet { number, side: None, load, count: Count::Reps(reps), reserve: Some(1), parts: Vec::new() }
    }

    pub(crate) fn log(exercise: &str, sets: &[(f64, u16)]) -> ExerciseLog {
        let sets = sets.iter().zip(1..).map(|((load, reps), number)| set(number, *load, *reps)).collect();
        ExerciseLog {
            exercise: exercise.parse().unwrap(),
            instead: None,
            position: 1,
            scheme: "straight".into(),
            sets,
            felt: None,
            pain: None,
            form: Vec::new(),
            variant: None,
            set_up: std::collections::BTreeMap::new(),
            note: None,
        }
    }

    pub(crate) fn entry(on: &str, exercise: &str, sets: &[(f64, u16)]) -> Entry {
        Entry {
            id: format!("{on}-{exercise}"),
            follows: Vec::new(),
            session: SessionKey { plan_id: "plan".into(), week: 1, day: 1 },
            trained_on: on.parse().unwrap(),
            part: Part::Exercise(log(exercise, sets)),
        }
    }

    // Epley 1985: 100 kg x 10 is 133.33, x 5 is 116.67, one repetition is the load.
    #[rstest]
    #[case::ten(set(1, 100.0, 10), 133.333)]
    #[case::five(set(1, 100.0, 5), 116.667)]
    #[case::one(set(1, 100.0, 1), 100.0)]
    #[case::the_body_alone(set(1, 0.0, 14), 14.0)]
    #[case::half_the_body_helped(set(1, -40.0, 10), 5.0)]
    #[case::a_loaded_hang(LoggedSet { count: Count::Seconds(40), ..set(1, 10.0, 1) }, 400.0)]
    fn a_set_is_one_number(#[case] set: LoggedSet, #[case] expected: f64) {
        assert!((performance(&set) - expected).abs() < 1e-3);
    }

    #[test]
    fn each_side_has_its_own_best_set() {
        let sided = |side, reps| LoggedSet { side: Some(side), ..set(1, 12.0, reps) };
        let sets = vec![sided(Side::Left, 8), sided(Side::Left, 10), sided(Side::Right, 12)];
        let best = best_sets(&ExerciseLog { sets, ..log("db-curl", &[]) });
        // Epley 1985: 12 kg x 10 is 16 kg, x 12 is 16.8 kg.
        let near = |value: Option<f64>, kg: f64| value.is_some_and(|value| (value - kg).abs() < 1e-9);
        assert!(best.both.is_none() && near(best.left, 16.0) && near(best.right, 16.8) && best.loaded, "{best:?}");
    }
}
