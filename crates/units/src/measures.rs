//! In which units a person thinks. What is kept is metric; this only says how it is shown and printed.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Centimetres of an inch: the international inch of 1959, exact.
const CM_OF_AN_INCH: f64 = 2.54;
/// Kilograms of a pound: the international avoirdupois pound of 1959, exact.
const KG_OF_A_POUND: f64 = 0.453_592_37;

/// Units of length.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum LengthUnit {
    /// Centimetres.
    #[default]
    Cm,
    /// Inches and tenths.
    In,
    /// Inches and eighths.
    InEighths,
}

/// Units of weights and loads.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum MassUnit {
    /// Kilograms.
    #[default]
    Kg,
    /// Pounds.
    Lb,
}

/// The units a person thinks in.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Measures {
    /// Girths, widths, heights.
    #[serde(default)]
    pub length: LengthUnit,
    /// Body weight, loads, strength.
    #[serde(default)]
    pub mass: MassUnit,
}

impl Measures {
    /// Whether these are centimetres and kilograms.
    pub fn are_metric(&self) -> bool {
        *self == Self::default()
    }
}

impl LengthUnit {
    /// A length with its unit, as in `37.4 cm`, `14.7 in`, `14 3/4 in`.
    pub fn text(self, cm: f64) -> String {
        match self {
            Self::Cm => format!("{} cm", plain(cm)),
            Self::In => format!("{} in", plain(cm / CM_OF_AN_INCH)),
            Self::InEighths => format!("{} in", eighths(cm / CM_OF_AN_INCH)),
        }
    }
}

impl MassUnit {
    /// A mass with its unit, as in `22.5 kg`, `45 lb`.
    pub fn text(self, kg: f64) -> String {
        match self {
            Self::Kg => format!("{} kg", plain(kg)),
            Self::Lb => format!("{} lb", plain(kg / KG_OF_A_POUND)),
        }
    }
}

/// A number as it was typed, where it was typed in this unit: up to two decimals; else to a tenth, without false digits.
fn plain(value: f64) -> String {
    let hundredths = (value * 100.0).round() / 100.0;
    if (hundredths - value).abs() < 1e-6 { hundredths.to_string() } else { ((value * 10.0).round() / 10.0).to_string() }
}

/// Whole inches and the nearest eighth, shortened: `14`, `14 3/4`, `1/8`.
fn eighths(inches: f64) -> String {
    let sign = if inches < -1.0 / 16.0 { "-" } else { "" };
    // A girth has far fewer eighths than a whole number holds.
    let all = (inches.abs() * 8.0).round();
    let (whole, part) = ((all / 8.0).floor(), all % 8.0);
    let fraction = match part {
        0.0 => None,
        4.0 => Some("1/2".to_owned()),
        2.0 | 6.0 => Some(format!("{}/4", part / 2.0)),
        _ => Some(format!("{part}/8")),
    };
    match fraction {
        None => format!("{sign}{whole}"),
        Some(fraction) if whole == 0.0 => format!("{sign}{fraction}"),
        Some(fraction) => format!("{sign}{whole} {fraction}"),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case::a_girth(LengthUnit::Cm, 37.4, "37.4 cm")]
    #[case::a_mean_of_readings(LengthUnit::Cm, 37.433_333, "37.4 cm")]
    #[case::a_girth_taken_in_centimetres(LengthUnit::In, 37.4, "14.7 in")]
    #[case::one_typed_in_inches(LengthUnit::In, 14.75 * 2.54, "14.75 in")]
    #[case::eighths(LengthUnit::InEighths, 14.125 * 2.54, "14 1/8 in")]
    #[case::a_half(LengthUnit::InEighths, 14.5 * 2.54, "14 1/2 in")]
    #[case::six_eighths_are_three_quarters(LengthUnit::InEighths, 37.4, "14 3/4 in")]
    #[case::up_to_the_next_inch(LengthUnit::InEighths, 14.97 * 2.54, "15 in")]
    #[case::less_than_an_inch(LengthUnit::InEighths, 0.3 * 2.54, "1/4 in")]
    #[case::a_loss(LengthUnit::InEighths, -0.3 * 2.54, "-1/4 in")]
    #[case::next_to_nothing(LengthUnit::InEighths, -0.1, "0 in")]
    fn a_length_is_told_in_a_person_s_units(#[case] unit: LengthUnit, #[case] cm: f64, #[case] text: &str) {
        assert_eq!(unit.text(cm), text);
    }

    #[rstest]
    #[case::kilograms(MassUnit::Kg, 22.5, "22.5 kg")]
    #[case::a_bar_with_two_plates(MassUnit::Lb, 135.0 * 0.453_592_37, "135 lb")]
    #[case::a_load_of_kilograms(MassUnit::Lb, 22.5, "49.6 lb")]
    #[case::a_step_of_small_plates(MassUnit::Lb, 2.5 * 0.453_592_37, "2.5 lb")]
    fn a_load_is_told_in_a_person_s_units(#[case] unit: MassUnit, #[case] kg: f64, #[case] text: &str) {
        assert_eq!(unit.text(kg), text);
    }
}
