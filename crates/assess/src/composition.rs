//! Fat, muscle and lean mass from folds and girths: context for a verdict, never a target.
//!
//! The equations were made on other people; each estimate carries its standard error. Coefficients are from memory of the
//! papers named (`docs/references.md`).

use crate::folds::Folds;
use crate::input::{Client, Round, Sex};
use crate::measured::Measurements;
use atlas::Atlas;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use units::SiteId;
use utoipa::ToSchema;

/// What an estimate is of.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Quantity {
    /// Fat, % of body mass.
    FatPct,
    /// Skeletal muscle, kg.
    MuscleKg,
    /// Lean mass over stature squared, kg/m^2.
    LeanIndex,
}

/// One equation's answer.
#[derive(Clone, Debug, PartialEq)]
pub struct Estimate {
    /// What of.
    pub quantity: Quantity,
    /// Whose equation.
    pub equation: &'static str,
    /// In the quantity's unit.
    pub value: f64,
    /// Standard error of the equation in other people, same unit.
    pub se: f64,
}

/// All estimates that were possible, and what the others lack.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Composition {
    /// Estimates, fat first.
    pub estimates: Vec<Estimate>,
    /// What is missing for an equation, one sentence each.
    pub missing: Vec<String>,
}

impl Composition {
    /// The fat estimate with the smallest error, %.
    pub fn fat(&self) -> Option<&Estimate> {
        let fat = self.estimates.iter().filter(|e| e.quantity == Quantity::FatPct);
        fat.min_by(|a, b| a.se.total_cmp(&b.se))
    }
}

/// Body density, g/ml, from three folds: chest, abdominal, thigh (men; Jackson & Pollock 1978) or triceps, suprailiac, thigh
/// (women; Jackson, Pollock & Ward 1980). `sum_mm` is their sum, `age` in years.
///
/// ```
/// let density = assess::density_three_folds(assess::Sex::Male, 60.0, 30.0);
/// assert!((density - 1.057_816).abs() < 1e-9);
/// ```
pub fn density_three_folds(sex: Sex, sum_mm: f64, age: f64) -> f64 {
    match sex {
        Sex::Male => 1.109_38 - 0.000_826_7 * sum_mm + 0.000_001_6 * sum_mm.powi(2) - 0.000_257_4 * age,
        Sex::Female => 1.099_492_1 - 0.000_992_9 * sum_mm + 0.000_002_3 * sum_mm.powi(2) - 0.000_139_2 * age,
    }
}

/// Body density, g/ml, from seven folds: chest, midaxillary, triceps, subscapular, abdominal, suprailiac, thigh (the same
/// papers).
///
/// ```
/// let density = assess::density_seven_folds(assess::Sex::Female, 120.0, 30.0);
/// assert!((density - 1.044_850_4).abs() < 1e-9);
/// ```
pub fn density_seven_folds(sex: Sex, sum_mm: f64, age: f64) -> f64 {
    match sex {
        Sex::Male => 1.112 - 0.000_434_99 * sum_mm + 0.000_000_55 * sum_mm.powi(2) - 0.000_288_26 * age,
        Sex::Female => 1.097 - 0.000_469_71 * sum_mm + 0.000_000_56 * sum_mm.powi(2) - 0.000_128_28 * age,
    }
}

/// Fat, % of body mass, from density in g/ml (Siri 1961).
///
/// ```
/// assert!((assess::siri_fat_pct(1.057_816) - 17.945).abs() < 0.001);
/// ```
pub fn siri_fat_pct(density: f64) -> f64 {
    495.0 / density - 450.0
}

/// Body density, g/ml, from girths in cm (Hodgdon & Beckett 1984, men). `None` unless the abdomen is larger than the neck.
///
/// ```
/// assert!(assess::density_girths_male(85.0, 38.0, 178.0).is_some_and(|found| (found - 1.061_239).abs() < 1e-6));
/// ```
pub fn density_girths_male(abdomen_cm: f64, neck_cm: f64, height_cm: f64) -> Option<f64> {
    let difference = abdomen_cm - neck_cm;
    (difference > 0.0).then(|| 1.0324 - 0.190_77 * difference.log10() + 0.154_56 * height_cm.log10())
}

/// Body density, g/ml, from girths in cm (Hodgdon & Beckett 1984, women). `None` unless waist and hips outweigh the neck.
///
/// ```
/// assert!(assess::density_girths_female(70.0, 95.0, 32.0, 165.0).is_some_and(|found| (found - 1.042_421).abs() < 1e-6));
/// ```
pub fn density_girths_female(waist_cm: f64, hip_cm: f64, neck_cm: f64, height_cm: f64) -> Option<f64> {
    let difference = waist_cm + hip_cm - neck_cm;
    (difference > 0.0).then(|| 1.295_79 - 0.350_04 * difference.log10() + 0.221 * height_cm.log10())
}

/// Corrected girths of arm, thigh and calf, cm: the girth less pi times its fold.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct LimbGirths {
    /// Upper arm less triceps fold.
    pub arm_cm: f64,
    /// Thigh less thigh fold.
    pub thigh_cm: f64,
    /// Calf less calf fold.
    pub calf_cm: f64,
}

/// Skeletal muscle, kg (Lee et al. 2000); the ancestry term is left at 0. Stature in cm, age in years.
///
/// ```
/// let limbs = assess::LimbGirths { arm_cm: 34.0, thigh_cm: 54.0, calf_cm: 37.0 };
/// assert!((assess::lee_muscle_kg(assess::Sex::Male, 178.0, 30.0, limbs) - 39.383).abs() < 0.001);
/// ```
pub fn lee_muscle_kg(sex: Sex, height_cm: f64, age: f64, limbs: LimbGirths) -> f64 {
    let girths = 0.007_44 * limbs.arm_cm.powi(2) + 0.000_88 * limbs.thigh_cm.powi(2) + 0.004_41 * limbs.calf_cm.powi(2);
    let male = if sex == Sex::Male { 2.4 } else { 0.0 };
    height_cm / 100.0 * girths + male - 0.048 * age + 7.8
}

/// Lean mass over stature squared, kg/m^2.
///
/// ```
/// assert!((assess::lean_index(80.0, 15.0, 180.0) - 20.988).abs() < 0.001);
/// ```
pub fn lean_index(weight_kg: f64, fat_pct: f64, height_cm: f64) -> f64 {
    weight_kg * (1.0 - fat_pct / 100.0) / (height_cm / 100.0).powi(2)
}

/// Standard errors of the equations in the people they were made on, from memory; fat in % of body mass, muscle in kg.
mod equation_error {
    pub(super) const THREE_FOLDS_MALE: f64 = 3.4;
    pub(super) const THREE_FOLDS_FEMALE: f64 = 3.9;
    pub(super) const SEVEN_FOLDS_MALE: f64 = 3.4;
    pub(super) const SEVEN_FOLDS_FEMALE: f64 = 3.8;
    pub(super) const GIRTHS_MALE: f64 = 3.5;
    pub(super) const GIRTHS_FEMALE: f64 = 3.7;
    pub(super) const LEE_KG: f64 = 2.2;
}

const SEVEN: [&str; 7] = ["chest", "midaxillary", "triceps", "subscapular", "abdominal", "suprailiac", "thigh"];
const THREE_MALE: [&str; 3] = ["chest", "abdominal", "thigh"];
const THREE_FEMALE: [&str; 3] = ["triceps", "suprailiac", "thigh"];

/// Every estimate the round allows.
pub(crate) fn composition(
    atlas: &Atlas,
    client: &Client,
    round: &Round,
    measured: &Measurements,
    folds: &Folds,
) -> Composition {
    let body = Body { atlas, client, measured, folds, age: client.age_on(round.date) };
    let mut found = Composition::default();
    let mut take = |estimate: Result<Estimate, String>| match estimate {
        Ok(estimate) => found.estimates.push(estimate),
        Err(missing) => found.missing.push(missing),
    };
    take(body.seven_folds());
    take(body.three_folds());
    take(body.girths());
    take(body.muscle());
    match (found.fat().cloned(), round.weight) {
        (Some(fat), Some(weight)) => {
            let metres2 = (client.height.cm() / 100.0).powi(2);
            found.estimates.push(Estimate {
                quantity: Quantity::LeanIndex,
                equation: fat.equation,
                value: lean_index(weight.kg(), fat.value, client.height.cm()),
                se: weight.kg() * fat.se / 100.0 / metres2,
            });
        }
        (None, _) => {}
        (Some(_), None) => found.missing.push("Lean mass over stature: the body weight.".to_owned()),
    }
    found
}

struct Body<'a> {
    atlas: &'a Atlas,
    client: &'a Client,
    measured: &'a Measurements,
    folds: &'a Folds,
    age: f64,
}

impl Body<'_> {
    fn three_folds(&self) -> Result<Estimate, String> {
        let (sites, se) = match self.client.sex {
            Sex::Male => (THREE_MALE, equation_error::THREE_FOLDS_MALE),
            Sex::Female => (THREE_FEMALE, equation_error::THREE_FOLDS_FEMALE),
        };
        let sum_mm = self.fold_sum(&sites, "Fat from three folds")?;
        let equation = match self.client.sex {
            Sex::Male => "Jackson & Pollock 1978, three folds; Siri 1961",
            Sex::Female => "Jackson, Pollock & Ward 1980, three folds; Siri 1961",
        };
        Ok(fat(equation, density_three_folds(self.client.sex, sum_mm, self.age), se))
    }

    fn seven_folds(&self) -> Result<Estimate, String> {
        let sum_mm = self.fold_sum(&SEVEN, "Fat from seven folds")?;
        let (equation, se) = match self.client.sex {
            Sex::Male => ("Jackson & Pollock 1978, seven folds; Siri 1961", equation_error::SEVEN_FOLDS_MALE),
            Sex::Female => ("Jackson, Pollock & Ward 1980, seven folds; Siri 1961", equation_error::SEVEN_FOLDS_FEMALE),
        };
        Ok(fat(equation, density_seven_folds(self.client.sex, sum_mm, self.age), se))
    }

    fn girths(&self) -> Result<Estimate, String> {
        const EQUATION: &str = "Hodgdon & Beckett 1984, girths; Siri 1961";
        let height_cm = self.client.height.cm();
        let needed: &[&str] = match self.client.sex {
            Sex::Male => &["abdomen", "neck"],
            Sex::Female => &["waist", "hip", "neck"],
        };
        let cm = all(needed, "Fat from girths", |site| self.girth(site), |site| self.site_name(site))?;
        let (density, se) = match (self.client.sex, cm.as_slice()) {
            (Sex::Male, [abdomen, neck]) => {
                (density_girths_male(*abdomen, *neck, height_cm), equation_error::GIRTHS_MALE)
            }
            (Sex::Female, [waist, hip, neck]) => {
                (density_girths_female(*waist, *hip, *neck, height_cm), equation_error::GIRTHS_FEMALE)
            }
            _ => (None, 0.0),
        };
        let density = density.ok_or("Fat from girths: a neck smaller than the trunk.")?;
        Ok(fat(EQUATION, density, se))
    }

    fn muscle(&self) -> Result<Estimate, String> {
        let limbs = [("arm-relaxed", "triceps"), ("mid-thigh", "thigh"), ("calf", "calf")];
        let girths = all(&limbs.map(|l| l.0), "Muscle mass", |s| self.girth(s), |s| self.site_name(s))?;
        let folds = all(&limbs.map(|l| l.1), "Muscle mass", |s| self.folds.overall_mm(s), |s| self.fold_name(s))?;
        let corrected = |i: usize| crate::corrected::corrected_girth_cm(girths[i], folds[i]);
        let limbs = LimbGirths { arm_cm: corrected(0), thigh_cm: corrected(1), calf_cm: corrected(2) };
        Ok(Estimate {
            quantity: Quantity::MuscleKg,
            equation: "Lee et al. 2000; ancestry term left at 0",
            value: lee_muscle_kg(self.client.sex, self.client.height.cm(), self.age, limbs),
            se: equation_error::LEE_KG,
        })
    }

    fn fold_sum(&self, sites: &[&str], what: &str) -> Result<f64, String> {
        let folds = all(sites, what, |site| self.folds.overall_mm(site), |site| self.fold_name(site))?;
        Ok(folds.into_iter().sum())
    }

    fn girth(&self, site: &str) -> Option<f64> {
        site.parse::<SiteId>().ok().and_then(|id| self.measured.overall(&id)).map(|overall| overall.value_cm)
    }

    fn site_name(&self, site: &str) -> String {
        let found = site.parse::<SiteId>().ok().and_then(|id| self.atlas.site(&id));
        format!("{} girth", found.map_or(site.to_owned(), |s| s.name.to_lowercase()))
    }

    fn fold_name(&self, site: &str) -> String {
        let found = site.parse::<SiteId>().ok().and_then(|id| self.atlas.skinfold(&id));
        found.map_or(site.to_owned(), |s| s.name.to_lowercase())
    }
}

/// A value for every site, or a sentence with the names of those without.
fn all(
    sites: &[&str],
    what: &str,
    value: impl Fn(&str) -> Option<f64>,
    name: impl Fn(&str) -> String,
) -> Result<Vec<f64>, String> {
    let missing: Vec<String> = sites.iter().filter(|site| value(site).is_none()).map(|site| name(site)).collect();
    if missing.is_empty() {
        return Ok(sites.iter().filter_map(|site| value(site)).collect());
    }
    Err(format!("{what}: {}.", missing.join(", ")))
}

fn fat(equation: &'static str, density: f64, se: f64) -> Estimate {
    Estimate { quantity: Quantity::FatPct, equation, value: siri_fat_pct(density), se }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    // Worked values of the published equations: Jackson & Pollock 1978, Jackson, Pollock & Ward 1980, Siri 1961.
    #[rstest]
    #[case::men_three_folds(density_three_folds(Sex::Male, 60.0, 30.0), 17.95)]
    #[case::women_three_folds(density_three_folds(Sex::Female, 60.0, 30.0), 24.13)]
    #[case::men_seven_folds(density_seven_folds(Sex::Male, 100.0, 30.0), 14.63)]
    #[case::women_seven_folds(density_seven_folds(Sex::Female, 120.0, 28.0), 23.64)]
    // Hodgdon & Beckett 1984.
    #[case::men_girths(density_girths_male(85.0, 38.0, 178.0).unwrap(), 16.44)]
    #[case::women_girths(density_girths_female(70.0, 97.0, 32.0, 165.0).unwrap(), 25.89)]
    fn fat_is_what_the_published_equation_gives(#[case] density: f64, #[case] expected_pct: f64) {
        assert!((siri_fat_pct(density) - expected_pct).abs() < 0.005, "{}", siri_fat_pct(density));
    }

    // Lee et al. 2000: man of 30 years, 178 cm, arm 34 cm under 10 mm, thigh 56 under 12, calf 37 under 8.
    #[test]
    fn muscle_is_what_the_published_equation_gives() {
        let girth = crate::corrected::corrected_girth_cm;
        let limbs = LimbGirths { arm_cm: girth(34.0, 10.0), thigh_cm: girth(56.0, 12.0), calf_cm: girth(37.0, 8.0) };
        assert!((lee_muscle_kg(Sex::Male, 178.0, 30.0, limbs) - 34.98).abs() < 0.005);
    }

    #[test]
    fn girths_that_make_no_sense_give_no_density() {
        assert_eq!(density_girths_male(38.0, 40.0, 178.0), None);
        assert_eq!(density_girths_female(20.0, 10.0, 32.0, 165.0), None);
    }
}
