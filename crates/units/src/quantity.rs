//! Lengths, masses and skinfolds as guarded newtypes.

use serde::Serialize;

/// Why a number is no quantity.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
pub enum QuantityError {
    /// Not a finite number above zero.
    #[error("{value} {unit} is not a length or mass: expected a number above 0")]
    NotPositive {
        /// The refused number.
        value: f64,
        /// Its unit.
        unit: &'static str,
    },
    /// Beyond what the unit can mean on a human body.
    #[error("{value} {unit} is out of range: expected at most {max} {unit}")]
    TooLarge {
        /// The refused number.
        value: f64,
        /// The largest accepted number.
        max: f64,
        /// The unit of both.
        unit: &'static str,
    },
}

fn guarded(value: f64, max: f64, unit: &'static str) -> Result<f64, QuantityError> {
    if !value.is_finite() || value <= 0.0 {
        return Err(QuantityError::NotPositive { value, unit });
    }
    if value > max {
        return Err(QuantityError::TooLarge { value, max, unit });
    }
    Ok(value)
}

/// A girth, a breadth or a stature, above 0 and at most [`Length::MAX_CM`].
#[derive(Clone, Copy, Debug, PartialEq, PartialOrd, Serialize)]
#[serde(transparent)]
pub struct Length(f64);

impl Length {
    /// Longer than any human measure.
    pub const MAX_CM: f64 = 300.0;

    /// From centimetres.
    ///
    /// # Errors
    /// [`QuantityError`] for 0 and less, for what is no number, and beyond the most.
    pub fn from_cm(cm: f64) -> Result<Self, QuantityError> {
        guarded(cm, Self::MAX_CM, "cm").map(Self)
    }

    /// In centimetres.
    pub fn cm(self) -> f64 {
        self.0
    }
}

/// A body mass or a load, above 0 and at most [`Mass::MAX_KG`].
#[derive(Clone, Copy, Debug, PartialEq, PartialOrd, Serialize)]
#[serde(transparent)]
pub struct Mass(f64);

impl Mass {
    /// Heavier than any client or bar.
    pub const MAX_KG: f64 = 700.0;

    /// From kilograms.
    ///
    /// # Errors
    /// [`QuantityError`] for 0 and less, for what is no number, and beyond [`Self::MAX_KG`].
    pub fn from_kg(kg: f64) -> Result<Self, QuantityError> {
        guarded(kg, Self::MAX_KG, "kg").map(Self)
    }

    /// In kilograms.
    pub fn kg(self) -> f64 {
        self.0
    }
}

/// What is held in an exercise beside the body's own weight, kg; under 0 it is help that takes weight off. Never 0: nothing held
/// is no load.
#[derive(Clone, Copy, Debug, PartialEq, PartialOrd, Serialize)]
#[serde(transparent)]
pub struct Load(f64);

impl Load {
    /// More help than anybody needs.
    pub const MOST_HELP_KG: f64 = 200.0;

    /// From kilograms, signed.
    ///
    /// # Errors
    /// [`QuantityError`] for 0, for what is no number, and beyond [`Mass::MAX_KG`] or [`Self::MOST_HELP_KG`].
    pub fn from_kg(kg: f64) -> Result<Self, QuantityError> {
        let most = if kg < 0.0 { Self::MOST_HELP_KG } else { Mass::MAX_KG };
        guarded(kg.abs(), most, "kg").map(|size| Self(size.copysign(kg)))
    }

    /// In kilograms, under 0 for help.
    pub fn kg(self) -> f64 {
        self.0
    }

    /// The mass that is held; none where it is help.
    pub fn held(self) -> Option<Mass> {
        (self.0 > 0.0).then_some(Mass(self.0))
    }
}

/// A caliper reading, above 0 and at most [`Skinfold::MAX_MM`].
#[derive(Clone, Copy, Debug, PartialEq, PartialOrd, Serialize)]
#[serde(transparent)]
pub struct Skinfold(f64);

impl Skinfold {
    /// Wider than calipers open.
    pub const MAX_MM: f64 = 100.0;

    /// From millimetres.
    ///
    /// # Errors
    /// [`QuantityError`] for 0 and less, for what is no number, and beyond the most.
    pub fn from_mm(mm: f64) -> Result<Self, QuantityError> {
        guarded(mm, Self::MAX_MM, "mm").map(Self)
    }

    /// In millimetres.
    pub fn mm(self) -> f64 {
        self.0
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case::zero(0.0)]
    #[case::negative(-3.0)]
    #[case::not_a_number(f64::NAN)]
    #[case::infinite(f64::INFINITY)]
    #[case::longer_than_anyone(300.1)]
    fn a_length_that_cannot_be_is_refused(#[case] cm: f64) {
        assert!(Length::from_cm(cm).is_err());
    }

    #[rstest]
    #[case::held(12.5, Some(12.5), true)]
    #[case::help(-20.0, Some(-20.0), false)]
    #[case::nothing(0.0, None, false)]
    #[case::more_help_than_anybody_needs(-201.0, None, false)]
    fn a_load_is_held_or_helps(#[case] kg: f64, #[case] expected: Option<f64>, #[case] held: bool) {
        let load = Load::from_kg(kg).ok();
        assert_eq!(load.map(Load::kg), expected);
        assert_eq!(load.and_then(Load::held).is_some(), held);
    }

    #[test]
    fn the_refusal_names_value_unit_and_limit() {
        let said = Mass::from_kg(7000.0).unwrap_err().to_string();
        assert_eq!(said, "7000 kg is out of range: expected at most 700 kg");
    }
}
