//! What a coach must look at before training anything: differences and changes that may be an injury or illness, and pain.
//! Orthomer does not diagnose.

use crate::assessment::asymmetries_of;
use crate::composition::Composition;
use crate::input::{Case, Sex};
use crate::measured::measure_one_round;
use crate::measurer::MeasurerErrors;
use crate::readiness::NotReady;
use crate::strength_sides::StrengthAsymmetry;
use crate::symmetry::{Asymmetry, SideVerdict};
use atlas::{Atlas, ReferSettings};
use jiff::ToSpan;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// The kind of a flag.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum FlagKind {
    /// Girths of both sides far apart.
    LargeSideDifference,
    /// Strength of both sides far apart.
    LargeStrengthDifference,
    /// A difference that was not there in the last round.
    NewSideDifference,
    /// Body weight falls fast.
    FastWeightLoss,
    /// Very low fat by an equation.
    VeryLowFat,
    /// Pain of 3 of 10 or more.
    Pain,
    /// A readiness question was answered with yes.
    Clearance,
}

/// A flag with its sentence.
#[derive(Clone, Debug, PartialEq)]
pub struct Flag {
    /// Its kind.
    pub kind: FlagKind,
    /// What was seen and what to do.
    pub says: String,
    /// Whether to refer before training goes on as planned.
    pub refer: bool,
}

/// Pain from this level on stops the exercises that load the joint.
pub const PAIN_STOPS: u8 = 3;

pub(crate) fn flags(
    atlas: &Atlas,
    case: &Case,
    errors: &MeasurerErrors,
    asymmetries: &[Asymmetry],
    strength: &[StrengthAsymmetry],
    composition: &Composition,
) -> Vec<Flag> {
    let refer = &atlas.evidence().refer;
    let large = asymmetries.iter().filter_map(|a| large_side_difference(atlas, refer, a));
    let strong = strength.iter().filter_map(|s| large_strength_difference(atlas, refer, s));
    let new = new_side_differences(atlas, case, errors, asymmetries);
    let weight = weight_loss(refer, case);
    let fat = low_fat(refer, case.client.sex, composition);
    let ready = clearance(case);
    ready.into_iter().chain(large).chain(strong).chain(new).chain(weight).chain(fat).chain(pain(case)).collect()
}

fn clearance(case: &Case) -> Option<Flag> {
    let why = case.client.may_be_given_a_plan().err().filter(|why| *why == NotReady::NotCleared)?;
    let mut says = why.to_string();
    says.replace_range(..1, "A");
    Some(Flag { kind: FlagKind::Clearance, says: format!("{says}."), refer: true })
}

fn site_name(atlas: &Atlas, site: &units::SiteId) -> String {
    atlas.site(site).map_or_else(|| site.to_string(), |s| s.name.to_lowercase())
}

fn large_side_difference(atlas: &Atlas, refer: &ReferSettings, asymmetry: &Asymmetry) -> Option<Flag> {
    let index = asymmetry.symmetry_index.abs();
    (index > refer.girth_pct).then(|| Flag {
        kind: FlagKind::LargeSideDifference,
        says: format!(
            "The sides of the {} differ by {index:.1} %. If the readings are right this may be an injury or a nerve: refer \
             before training it up.",
            site_name(atlas, &asymmetry.site)
        ),
        refer: true,
    })
}

fn large_strength_difference(atlas: &Atlas, refer: &ReferSettings, strength: &StrengthAsymmetry) -> Option<Flag> {
    let index = strength.symmetry_index.abs();
    let name = atlas.exercise(&strength.exercise).map_or("the test", |e| e.name.as_str()).to_lowercase();
    (index > refer.strength_pct).then(|| Flag {
        kind: FlagKind::LargeStrengthDifference,
        says: format!(
            "The sides differ by {index:.0} % in strength in the {name}. This may be an injury or a nerve: refer before training \
             it up."
        ),
        refer: true,
    })
}

/// Differences worth acting on that were within error or small in the round before, and changed by more than error.
fn new_side_differences(atlas: &Atlas, case: &Case, errors: &MeasurerErrors, asymmetries: &[Asymmetry]) -> Vec<Flag> {
    let Some(before) = case.rounds.iter().rev().nth(1) else { return Vec::new() };
    let measured = measure_one_round(atlas, before, errors);
    let earlier = asymmetries_of(atlas, &measured, &case.client);
    let is_new = |now: &&Asymmetry| {
        let then = earlier.iter().find(|then| then.site == now.site);
        then.is_some_and(|then| {
            let jump = (now.symmetry_index - then.symmetry_index).abs();
            now.belief.verdict == SideVerdict::RealAct
                && then.belief.verdict != SideVerdict::RealAct
                && jump > 1.96 * now.se_index.hypot(then.se_index)
        })
    };
    let flag = |now: &Asymmetry| Flag {
        kind: FlagKind::NewSideDifference,
        says: format!(
            "The {} leans by {:.1} % and did not on {}: a new difference may be an injury; ask, and refer before training it \
             up.",
            site_name(atlas, &now.site),
            now.symmetry_index.abs(),
            before.date
        ),
        refer: true,
    };
    asymmetries.iter().filter(is_new).map(flag).collect()
}

/// Weight that fell by more than the limit a week, seen over at least four weeks.
fn weight_loss(refer: &ReferSettings, case: &Case) -> Option<Flag> {
    let newest = case.rounds.last()?;
    let now_kg = newest.weight?.kg();
    let since = newest.date.checked_sub(refer.weight_loss_weeks.weeks()).ok()?;
    let earlier = case.rounds.iter().rev().find(|round| round.date <= since && round.weight.is_some())?;
    let then_kg = earlier.weight?.kg();
    let weeks = newest.date.duration_since(earlier.date).as_hours() as f64 / (24.0 * 7.0);
    let pct_a_week = 100.0 * (then_kg - now_kg) / then_kg / weeks;
    (pct_a_week > refer.weight_loss_pct_a_week).then(|| Flag {
        kind: FlagKind::FastWeightLoss,
        says: format!(
            "Body weight fell by {pct_a_week:.1} % a week since {}: ask how the client is doing, and refer when it was not meant.",
            earlier.date
        ),
        refer: true,
    })
}

fn low_fat(refer: &ReferSettings, sex: Sex, composition: &Composition) -> Option<Flag> {
    let limit = if sex == Sex::Male { refer.low_fat_male_pct } else { refer.low_fat_female_pct };
    let fat = composition.fat().filter(|fat| fat.value < limit)?;
    Some(Flag {
        kind: FlagKind::VeryLowFat,
        says: format!(
            "Fat is estimated at {:.0} ± {:.0} % ({}), under {limit:.0} %: ask how the client is doing, and refer.",
            fat.value, fat.se, fat.equation
        ),
        refer: true,
    })
}

fn pain(case: &Case) -> impl Iterator<Item = Flag> {
    let strong = case.client.pain.iter().filter(|pain| pain.level >= PAIN_STOPS);
    strong.map(|pain| Flag {
        kind: FlagKind::Pain,
        says: format!(
            "The {}{} hurts {}/10: exercises that load it are left out. Sharp pain, numbness, swelling or night pain: stop and \
             refer.",
            pain.side.map(|side| format!("{side} ")).unwrap_or_default(),
            pain.area.replace('-', " "),
            pain.level
        ),
        refer: false,
    })
}
