//! How many hard sets a week a region should get.

use assess::Class;

/// Weekly fractional sets: below `low` is too little, `aim` is wanted, above `high` is too much.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Dose {
    /// Too little below this.
    pub low: f64,
    /// Wanted.
    pub aim: f64,
    /// Too much above this.
    pub high: f64,
    /// Fewest sessions a week that give it work.
    pub sessions_low: u8,
}

impl Dose {
    fn raised(self, weekly: f64) -> Self {
        Self { aim: (RISE * weekly).clamp(self.aim, self.high.max(self.aim)), ..self }
    }
}

/// A rise that can be taken back.
const RISE: f64 = 1.2;

/// The dose of a class before the client's history is looked at. Common practice, no source.
fn of_class(class: Class) -> Dose {
    match class {
        Class::BringUp => Dose { low: 10.0, aim: 14.0, high: 20.0, sessions_low: 2 },
        Class::Grow => Dose { low: 6.0, aim: 9.0, high: 14.0, sessions_low: 1 },
        Class::Keep => Dose { low: 3.0, aim: 5.0, high: 8.0, sessions_low: 1 },
        Class::HoldBack => Dose { low: 0.0, aim: 0.0, high: 6.0, sessions_low: 0 },
    }
}

/// The most a dose may be after four weeks at `average`: a fifth more, at least 2 sets.
pub(crate) fn ceiling(average: f64) -> f64 {
    const RISE_AT_LEAST: f64 = 2.0;
    (average * RISE).max(average + RISE_AT_LEAST)
}

/// The dose of a class, a fifth above `insufficient` weekly sets that a review found too few, its aim never more than a fifth
/// (at least 2 sets) above what the client has been doing.
pub fn dose(class: Class, insufficient: Option<f64>, recent_average: Option<f64>) -> Dose {
    let full = of_class(class);
    let full = insufficient.map_or(full, |weekly| full.raised(weekly));
    let Some(average) = recent_average else { return full };
    let ceiling = ceiling(average);
    Dose { aim: full.aim.min(ceiling), low: full.low.min(ceiling), ..full }
}

/// The dose of a region that is brought up with its whole part: its share of the part's weekly sets, between what keeps a
/// region and what brings one up; never more than a fifth (at least 2 sets) above what the client has been doing.
pub fn part_dose(share: f64, part_sets: f64, recent_average: Option<f64>) -> Dose {
    let (chosen, kept) = (of_class(Class::BringUp), of_class(Class::Keep));
    let aim = (share * part_sets).clamp(kept.aim, chosen.aim);
    let ceiling = recent_average.map_or(f64::INFINITY, ceiling);
    let scale = aim / chosen.aim;
    Dose { low: (chosen.low * scale).min(ceiling), aim: aim.min(ceiling), high: chosen.high * scale, ..chosen }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    // Common practice, no source.
    #[rstest]
    #[case::nothing_known(None, 14.0)]
    #[case::from_nothing_two_sets(Some(0.0), 2.0)]
    #[case::small_doses_rise_by_two(Some(5.0), 7.0)]
    #[case::larger_ones_by_a_fifth(Some(11.0), 13.2)]
    #[case::never_past_the_class(Some(18.0), 14.0)]
    fn the_aim_rises_by_a_fifth_or_two_sets(#[case] average: Option<f64>, #[case] aim: f64) {
        assert!((dose(Class::BringUp, None, average).aim - aim).abs() < 1e-12);
    }

    #[rstest]
    #[case::low_in_the_band_keeps_the_aim(11.0, None, 14.0)]
    #[case::a_fifth_more(15.0, Some(15.0), 18.0)]
    #[case::within_the_band(19.0, None, 20.0)]
    #[case::never_far_above_what_was_done_lately(15.0, Some(5.0), 7.0)]
    fn what_did_not_suffice_is_raised_by_a_fifth(#[case] weekly: f64, #[case] recent: Option<f64>, #[case] aim: f64) {
        assert!((dose(Class::BringUp, Some(weekly), recent).aim - aim).abs() < 1e-12);
    }

    #[rstest]
    #[case::a_third_of_thirty(1.0 / 3.0, None, 10.0)]
    #[case::never_less_than_keeps_it(0.05, None, 5.0)]
    #[case::never_more_than_a_chosen_region(0.9, None, 14.0)]
    #[case::never_far_above_what_was_done_lately(0.4, Some(4.0), 6.0)]
    fn the_heads_of_a_chosen_part_share_its_dose(#[case] share: f64, #[case] recent: Option<f64>, #[case] aim: f64) {
        assert!((part_dose(share, 30.0, recent).aim - aim).abs() < 1e-12);
    }

    #[rstest]
    fn a_held_back_region_aims_for_no_direct_work() {
        let held = dose(Class::HoldBack, None, Some(20.0));
        assert!(held.aim.abs() < 1e-12 && held.sessions_low == 0);
    }
}
