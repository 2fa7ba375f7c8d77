//! How the girths and outlines of a region moved between two rounds, against what two measurements may differ by.

use crate::review::{ReviewRound, TWO_SIDED_95};
use assess::{Case, Experience, Outline, Slope, change_noise, mdc95};
use atlas::Atlas;
use serde::Serialize;
use units::{RegionId, Segment, Side, SiteId};
use utoipa::ToSchema;

/// A site speaks for a region from this share of its composition on, beside the site in which it has the largest.
const SPEAKS_FROM: f64 = 0.3;
/// Growth of a girth while its region is brought up, % of the girth a week by training age (from memory).
fn growth_pct_a_week(experience: Experience) -> f64 {
    match experience {
        Experience::Beginner => 0.25,
        Experience::Intermediate => 0.10,
        Experience::Advanced => 0.05,
    }
}

/// A girth at both ends of a round.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct GirthMove {
    /// The site.
    pub site: SiteId,
    /// The side at a paired site.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub side: Option<Side>,
    /// At the beginning, cm.
    pub before_cm: f64,
    /// Now, cm; none when it was not taped again.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub now_cm: Option<f64>,
    /// Now less then, cm.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub change_cm: Option<f64>,
    /// Smallest change that is more than error, so that none of the review's girths is called changed by chance (95 %), cm.
    pub mdc95_cm: f64,
    /// Whether it is; both sides of a site are judged together first.
    pub real: bool,
    /// How it went over three rounds or more.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub slope: Option<Slope>,
    /// Weeks until the expected growth is larger than that.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub weeks_to_show: Option<u16>,
    /// Whether both are from pictures: nobody has taped the site at both ends.
    pub from_pictures: bool,
}

/// The mean width of a limb in pictures, both sides together.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct WidthMove {
    /// The segment.
    pub segment: Segment,
    /// Now against then, %.
    pub change_pct: f64,
    /// Smallest change that is more than error, %.
    pub mdc95_pct: f64,
    /// Whether it is.
    pub real: bool,
}

/// Weeks of growth at the expected rate until a girth has grown by more than `mdc95_cm`; `None` for no girth.
pub fn weeks_to_show(girth_cm: f64, mdc95_cm: f64, experience: Experience) -> Option<u16> {
    let weeks = mdc95_cm / (girth_cm * growth_pct_a_week(experience) / 100.0);
    // Between 1 and a few hundred: checked before it is cut.
    #[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss)]
    (weeks.is_finite() && (0.0..1000.0).contains(&weeks)).then(|| weeks.ceil().max(1.0) as u16)
}

/// The sites that speak for a region: where its share is largest, and every other where it is large.
fn sites<'a>(atlas: &'a Atlas, region: &RegionId) -> Vec<&'a SiteId> {
    let composition = &atlas.evidence().composition;
    let share = |site: &SiteId| composition[site].get(region).copied().unwrap_or(0.0);
    let largest = composition.keys().map(share).fold(0.0, f64::max);
    let speaks = |site: &&SiteId| share(site) > 0.0 && (share(site) >= SPEAKS_FROM || share(site) >= largest);
    composition.keys().filter(speaks).collect()
}

pub(super) fn girth_moves(
    atlas: &Atlas,
    region: &RegionId,
    before: ReviewRound,
    now: Option<ReviewRound>,
) -> Vec<GirthMove> {
    let sites = sites(atlas, region);
    let experience = before.case.client.experience;
    let changes = now.map(|now| now.assessment.changes.as_slice()).unwrap_or_default();
    let pictured = changes.iter().filter(|change| change.from_pictures && sites.contains(&&change.site));
    let taped = before.assessment.measured.sites.iter().filter(|then| sites.contains(&&then.site));
    let taped = taped.map(|then| {
        let moved =
            changes.iter().find(|change| !change.from_pictures && change.site == then.site && change.side == then.side);
        let again =
            now.and_then(|now| now.assessment.measured.find(&then.site, then.side)).filter(|site| !site.carried_over);
        let alone = mdc95(change_noise(then, again.unwrap_or(then), 0.0), 1);
        let mdc95_cm = moved.map_or(alone, |change| change.mdc95_cm);
        GirthMove {
            site: then.site.clone(),
            side: then.side,
            before_cm: then.value_cm,
            now_cm: again.map(|now| now.value_cm),
            change_cm: again.map(|now| now.value_cm - then.value_cm),
            mdc95_cm,
            real: moved.is_some_and(|change| change.real),
            slope: moved.and_then(|change| change.slope),
            weeks_to_show: weeks_to_show(then.value_cm, mdc95_cm, experience),
            from_pictures: false,
        }
    });
    let seen = pictured.map(|change| GirthMove {
        site: change.site.clone(),
        side: change.side,
        before_cm: change.before_cm,
        now_cm: Some(change.before_cm + change.change_cm),
        change_cm: Some(change.change_cm),
        mdc95_cm: change.mdc95_cm,
        real: change.real,
        slope: change.slope,
        weeks_to_show: weeks_to_show(change.before_cm, change.mdc95_cm, experience),
        from_pictures: true,
    });
    taped.chain(seen).collect()
}

pub(super) fn width_moves(atlas: &Atlas, region: &RegionId, before: &Case, now: Option<&Case>) -> Vec<WidthMove> {
    let sites = sites(atlas, region);
    let outlines = |case: &Case| case.rounds.last().map(|round| round.outlines.clone()).unwrap_or_default();
    let (then, new) = (outlines(before), now.map(outlines).unwrap_or_default());
    let mean_cm = |outline: &Outline| f64::midpoint(outline.width.left.cm(), outline.width.right.cm());
    // Each side is a measurement of its own.
    let mdc95_pct = TWO_SIDED_95 * atlas.evidence().width_repeatability_pct;
    new.iter()
        .filter(|now| {
            let site = atlas.evidence().segment_site.get(now.segment.as_str());
            site.is_some_and(|site| sites.contains(&site))
        })
        .filter_map(|now| {
            let then = then.iter().find(|then| then.segment == now.segment)?;
            let change_pct = 100.0 * (mean_cm(now) / mean_cm(then) - 1.0);
            Some(WidthMove { segment: now.segment, change_pct, mdc95_pct, real: change_pct.abs() > mdc95_pct })
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    // An arm of 38 cm grows 0.095 cm a week in the first year: 0.8 cm take 8.4 weeks; later 0.038 and 0.019 cm.
    #[rstest]
    #[case::an_arm(38.0, 0.8, Experience::Beginner, Some(9))]
    #[case::after_the_first_year(38.0, 0.8, Experience::Intermediate, Some(22))]
    #[case::after_many_years(38.0, 0.8, Experience::Advanced, Some(43))]
    #[case::never_less_than_a_week(60.0, 0.01, Experience::Beginner, Some(1))]
    #[case::no_girth(0.0, 0.8, Experience::Beginner, None)]
    fn growth_takes_its_weeks_to_show(
        #[case] girth_cm: f64,
        #[case] mdc95_cm: f64,
        #[case] experience: Experience,
        #[case] weeks: Option<u16>,
    ) {
        assert_eq!(weeks_to_show(girth_cm, mdc95_cm, experience), weeks);
    }

    #[rstest]
    #[case::calf("calves.gastrocnemius", "calf")]
    #[case::upper_arm("biceps.long", "arm-flexed")]
    #[case::thigh("quads.vastus-lateralis", "mid-thigh")]
    fn every_region_has_the_girths_a_coach_would_look_at(#[case] region: &str, #[case] site: &str) {
        let atlas = Atlas::load().unwrap();
        let sites = sites(&atlas, &region.parse().unwrap());
        assert!(sites.iter().any(|found| found.as_str() == site), "{sites:?}");
    }
}
