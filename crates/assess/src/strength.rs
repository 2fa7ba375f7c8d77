//! One-repetition maximum from load and repetitions, so that two sides can be compared.

use crate::input::StrengthSet;

/// Why no maximum is estimated.
#[derive(Clone, Copy, Debug, PartialEq, Eq, thiserror::Error)]
pub enum StrengthError {
    /// Beyond what the formulas hold for.
    #[error("{0} repetitions say nothing about a maximum: expected 1 to {max}", max = MAX_REPS)]
    Reps(u16),
}

/// More repetitions than this are endurance.
pub const MAX_REPS: u16 = 20;
const BRZYCKI_MAX_REPS: u16 = 10;

/// Epley 1985: `w (1 + r/30)`, kg; a single repetition is the load itself.
///
/// ```
/// let set = assess::StrengthSet { load: units::Mass::from_kg(100.0)?, reps: 5 };
/// assert!((assess::epley_kg(set) - 116.67).abs() < 0.005);
/// # Ok::<(), units::QuantityError>(())
/// ```
pub fn epley_kg(set: StrengthSet) -> f64 {
    if set.reps == 1 { set.load.kg() } else { set.load.kg() * (1.0 + f64::from(set.reps) / 30.0) }
}

/// Brzycki 1993: `36 w / (37 - r)`, kg, for up to 10 repetitions.
///
/// ```
/// let set = assess::StrengthSet { load: units::Mass::from_kg(100.0)?, reps: 5 };
/// assert!(assess::brzycki_kg(set).is_some_and(|found| (found - 112.5).abs() < 1e-9));
/// # Ok::<(), units::QuantityError>(())
/// ```
pub fn brzycki_kg(set: StrengthSet) -> Option<f64> {
    (set.reps <= BRZYCKI_MAX_REPS).then(|| 36.0 * set.load.kg() / (37.0 - f64::from(set.reps)))
}

/// The estimate used: the mean of both below 10 repetitions, Epley from there to [`MAX_REPS`], kg.
///
/// # Errors
/// [`StrengthError::Reps`] for none, or for more than say something.
///
/// ```
/// let set = assess::StrengthSet { load: units::Mass::from_kg(100.0)?, reps: 5 };
/// assert!(assess::one_rep_max_kg(set).is_ok_and(|found| (found - 114.58).abs() < 0.005));
/// # Ok::<(), units::QuantityError>(())
/// ```
pub fn one_rep_max_kg(set: StrengthSet) -> Result<f64, StrengthError> {
    if set.reps == 0 || set.reps > MAX_REPS {
        return Err(StrengthError::Reps(set.reps));
    }
    Ok(match brzycki_kg(set) {
        Some(brzycki) if set.reps < BRZYCKI_MAX_REPS => f64::midpoint(epley_kg(set), brzycki),
        _ => epley_kg(set),
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;
    use units::Mass;

    fn set(reps: u16) -> StrengthSet {
        StrengthSet { load: Mass::from_kg(100.0).unwrap(), reps }
    }

    // Epley 1985 and Brzycki 1993, published formulas at 100 kg.
    #[rstest]
    #[case::ten_repetitions_agree(10, 133.33, 133.33)]
    #[case::five_repetitions(5, 116.67, 112.50)]
    #[case::one_repetition_is_the_load(1, 100.0, 100.0)]
    fn the_published_formulas(#[case] reps: u16, #[case] epley: f64, #[case] brzycki: f64) {
        assert!((epley_kg(set(reps)) - epley).abs() < 0.005);
        assert!((brzycki_kg(set(reps)).unwrap() - brzycki).abs() < 0.005);
    }

    #[rstest]
    #[case::none(0)]
    #[case::endurance(21)]
    fn repetitions_outside_the_formulas_are_refused(#[case] reps: u16) {
        assert_eq!(one_rep_max_kg(set(reps)), Err(StrengthError::Reps(reps)));
    }
}
