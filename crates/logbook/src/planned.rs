//! What a plan says of an exercise, set by set, as far as progress follows from it.

use plan::{PlannedSet, Progression};
use units::Side;

/// What the plan says of an exercise.
#[derive(Clone, Copy, Debug)]
pub struct Planned<'a> {
    /// How it goes on.
    pub rule: &'a Progression,
    /// Sets this time.
    pub sets: u16,
    /// Whether it is a lighter week.
    pub lighter: bool,
    /// Repetitions to be left.
    pub reserve: u8,
    /// The side that goes first, when sides take turns: the weaker one.
    pub first_side: Option<Side>,
    /// The region it is there for.
    pub region: &'a str,
    /// Set by set, where sets differ.
    pub per_set: &'a [PlannedSet],
    /// Load of the first set as the coach wrote it, kg.
    pub load_kg: Option<f64>,
}

impl Planned<'_> {
    /// Set `number`, from 1, where it differs from the others.
    pub(crate) fn set(&self, number: usize) -> Option<&PlannedSet> {
        self.per_set.get(number.checked_sub(1)?)
    }

    /// Where set `number` starts again, and where its load goes up.
    pub(crate) fn range(&self, number: usize) -> [u16; 2] {
        self.set(number).map_or([self.rule.bottom, self.rule.top], PlannedSet::range)
    }

    pub(crate) fn reserve_of(&self, number: usize) -> u8 {
        self.set(number).map_or(self.reserve, |set| set.reserve)
    }

    /// Whether set `number` says how it goes on: sets that end at failure on purpose and sets of another load do not, unless
    /// all are such.
    pub(crate) fn judged(&self, number: usize) -> bool {
        let own = |set: &PlannedSet| set.reserve > 0 && set.load_pct == 100;
        let heaviest = self.per_set.iter().map(|set| set.load_pct).max().unwrap_or(100);
        match self.set(number) {
            None => true,
            Some(set) if self.per_set.iter().any(own) => own(set),
            // A top set and its back-offs, or loads that rise: the heaviest says it.
            Some(set) => set.load_pct == heaviest,
        }
    }

    /// The load of set `number` when the card's is `kg`.
    pub(crate) fn load_of(&self, number: usize, kg: f64) -> f64 {
        let pct = self.set(number).map_or(100, |set| set.load_pct);
        let step = self.rule.step_kg.unwrap_or(0.5);
        if pct == 100 { kg } else { rounded(kg * f64::from(pct) / 100.0, step) }
    }
}

/// A load that can be put together from steps, never above what was asked, never nothing.
pub(crate) fn rounded(kg: f64, step: f64) -> f64 {
    if kg < 0.0 {
        return (kg / step - 1e-9).floor() * step;
    }
    ((kg / step + 1e-9).floor() * step).max(step)
}
