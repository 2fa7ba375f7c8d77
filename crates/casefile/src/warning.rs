//! What is possible but looks wrong: said, not refused.

use assess::{
    Case, Contradiction, Knowledge, LevelShift, MeasurerErrors, Misread, Reference, Round, Skinfolds, TapeMeasure,
    level_shifts, replicate, third_fold_from, third_reading_from,
};
use atlas::Atlas;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use units::{Side, Sides, SiteId};
use utoipa::ToSchema;

/// A warning about one site of a round.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct Warning {
    /// Round date and site, for the reader.
    pub place: String,
    /// The site.
    pub site: SiteId,
    /// The side, when only one is meant.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub side: Option<Side>,
    /// Whether the site is a skinfold's; girths and folds share names.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub fold: bool,
    /// What looks wrong, and what to do.
    pub says: String,
}

impl std::fmt::Display for Warning {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        write!(f, "{}: {}", self.place, self.says)
    }
}

/// Warnings about the newest round, `reference` being its place in the reference: readings too far apart, sides too different,
/// sides that look swapped against the round before, and the value that the rest of the body contradicts.
pub fn warnings(knowledge: &Knowledge, case: &Case, reference: &Reference) -> Vec<Warning> {
    let atlas = &knowledge.atlas;
    let Some((newest, earlier)) = case.rounds.split_last() else { return Vec::new() };
    let errors = MeasurerErrors::learn(atlas, &case.rounds);
    let mut found: Vec<Warning> =
        newest.tape.iter().filter_map(|measure| third_reading(atlas, &errors, newest, measure)).collect();
    found.extend(newest.skinfolds.iter().filter_map(|fold| third_fold(atlas, &errors, newest, fold)));
    found.extend(turned_arm(atlas, newest));
    found.extend(reference.contradiction.and_then(|against| contradicted(knowledge, newest, against)));
    found.extend(level_shifts(&case.rounds).into_iter().map(|shift| moved_tape(newest, shift)));
    let paired = atlas.sites().iter().filter(|site| site.paired);
    found.extend(paired.filter_map(|site| sides_warning(atlas, newest, earlier.last(), &site.id)));
    found
}

fn value(atlas: &Atlas, measure: &TapeMeasure) -> Option<f64> {
    let readings: Vec<f64> = measure.readings.iter().map(|r| r.cm()).collect();
    replicate(&readings, atlas.evidence().error.third_reading_girth_pct).map(|r| r.value)
}

fn third_reading(atlas: &Atlas, errors: &MeasurerErrors, round: &Round, measure: &TapeMeasure) -> Option<Warning> {
    let readings: Vec<f64> = measure.readings.iter().map(|r| r.cm()).collect();
    let own = errors.tem_pct(atlas, &round.measured_by, &measure.site);
    let combined = replicate(&readings, third_reading_from(atlas, own))?;
    combined.needs_third.then(|| Warning {
        place: place(round, &measure.site, measure.side),
        site: measure.site.clone(),
        side: measure.side,
        fold: false,
        says: format!("the two readings differ by {:.1} %: take a third", combined.difference_pct.unwrap_or(0.0)),
    })
}

fn third_fold(atlas: &Atlas, errors: &MeasurerErrors, round: &Round, fold: &Skinfolds) -> Option<Warning> {
    let readings: Vec<f64> = fold.readings.iter().map(|reading| reading.mm()).collect();
    let own = errors.fold_tem_pct(atlas, &round.measured_by, &fold.site);
    let combined = replicate(&readings, third_fold_from(atlas, own))?;
    combined.needs_third.then(|| Warning {
        place: format!("{} skinfold", place(round, &fold.site, fold.side)),
        site: fold.site.clone(),
        side: fold.side,
        fold: true,
        says: format!("the two readings differ by {:.0} %: take a third", combined.difference_pct.unwrap_or(0.0)),
    })
}

fn moved_tape(round: &Round, shift: LevelShift) -> Warning {
    let LevelShift { site, now_cm, then_cm } = shift;
    let says =
        format!("the tape lies at {now_cm:.1} cm and lay at {then_cm:.1} cm last time: a change here may be the tape");
    Warning { place: place(round, &site, None), site, side: None, fold: false, says }
}

fn both(atlas: &Atlas, round: &Round, site: &SiteId) -> Option<Sides<f64>> {
    let of = |side| round.tape.iter().find(|m| m.site == *site && m.side == Some(side)).and_then(|m| value(atlas, m));
    Sides { left: of(Side::Left), right: of(Side::Right) }.both()
}

fn sides_warning(atlas: &Atlas, newest: &Round, before: Option<&Round>, site: &SiteId) -> Option<Warning> {
    let now = both(atlas, newest, site)?;
    let percent = 100.0 * (now.left - now.right).abs() / now.mean();
    let settings = &atlas.evidence().error;
    let says = if before.and_then(|round| both(atlas, round, site)).is_some_and(|then| look_swapped(now, then)) {
        "left and right look swapped against the round before: check which side is which".to_owned()
    } else if percent > settings.swapped_sides_pct {
        format!("the sides differ by {percent:.1} %: check the sides and the tape's level")
    } else {
        return None;
    };
    Some(Warning { place: place(newest, site, None), site: site.clone(), side: None, fold: false, says })
}

/// The arm whose sides lean the other way than the same arm's other girths: one of them was taken on the other side.
fn turned_arm(atlas: &Atlas, round: &Round) -> Option<Warning> {
    const APART_PCT: f64 = 4.0;
    let lean = |id: &str| {
        let site: SiteId = id.parse().ok()?;
        let sides = both(atlas, round, &site)?;
        Some((site, 100.0 * (sides.left - sides.right) / sides.mean()))
    };
    let arm: Vec<(SiteId, f64)> = ["arm-relaxed", "arm-flexed", "forearm"].into_iter().filter_map(lean).collect();
    let turned = arm.iter().find(|(site, lean)| {
        let others: Vec<f64> = arm.iter().filter(|(other, _)| other != site).map(|(_, lean)| *lean).collect();
        !others.is_empty() && others.iter().all(|other| other * lean < 0.0 && (other - lean).abs() > APART_PCT)
    });
    let (site, _) = turned.filter(|_| arm.len() > 1)?;
    let says = "left and right look swapped against the same arm's other girths: check which side is which".to_owned();
    Some(Warning { place: place(round, site, None), site: site.clone(), side: None, fold: false, says })
}

/// The value everything else contradicts. Stature is not taped: where it is the one, the brief has to be looked at.
fn contradicted(knowledge: &Knowledge, round: &Round, against: Contradiction) -> Option<Warning> {
    let (atlas, sites) = (&knowledge.atlas, knowledge.norms.sites());
    let site = sites.get(against.place)?;
    let name = |place: usize| {
        let site = sites.get(place).and_then(|site| atlas.site(site));
        site.map_or_else(|| "stature".to_owned(), |site| site.name.to_lowercase())
    };
    let expected = format!("the rest of this body expects about {:.0} cm", against.expected_cm);
    let says = match against.misread {
        Some(Misread::Inches) => format!("this looks like inches: {expected}"),
        Some(Misread::ChangedPlaces(other)) => {
            format!("this and the {} look written in each other's line: {expected}", name(other))
        }
        None => format!("everything else contradicts this value: {expected}; measure it again"),
    };
    let says = if atlas.site(site).is_some() { says } else { format!("{}: {says}", name(against.place)) };
    Some(Warning { place: place(round, site, None), site: site.clone(), side: None, fold: false, says })
}

/// Whether the sides match the round before better when exchanged, by more than readings scatter.
fn look_swapped(now: Sides<f64>, then: Sides<f64>) -> bool {
    const SCATTER_PCT: f64 = 2.0;
    let apart = |a: Sides<f64>, b: Sides<f64>| (a.left - b.left).abs() + (a.right - b.right).abs();
    let gained = apart(now, then) - apart(now.swapped(), then);
    100.0 * gained / now.mean() > 2.0 * SCATTER_PCT
}

fn place(round: &Round, site: &SiteId, side: Option<Side>) -> String {
    side.map_or_else(|| format!("{} {site}", round.date), |side| format!("{} {site} {side}", round.date))
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case::the_same_lean_as_before(Sides { left: 36.0, right: 38.0 }, false)]
    #[case::the_lean_turned_round(Sides { left: 38.0, right: 36.0 }, true)]
    #[case::both_sides_grew(Sides { left: 37.0, right: 39.0 }, false)]
    fn sides_that_match_better_exchanged_look_swapped(#[case] now: Sides<f64>, #[case] swapped: bool) {
        assert_eq!(look_swapped(now, Sides { left: 36.0, right: 38.0 }), swapped);
    }
}
