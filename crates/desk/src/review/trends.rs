//! Every site, side, region and lift over all rounds, with what is noise.

use super::{LiftTrend, RegionTrend, SiteTrend, TrendMarks, TrendsView};
use crate::desk::{Desk, today};
use crate::error::DeskError;
use crate::roster::{Assessor, rests_on_all};
use assess::{Assessment, Case, Choices, Knowledge, pictured_sites};
use jiff::civil::Date;
use logbook::{Trend, TrendPoint, monday, noise_band};
use std::collections::BTreeMap;
use store::Store;
use units::{ClientId, Side, SiteId};

/// What moved in the measurements, which the log does not touch.
#[derive(Clone)]
pub(crate) struct MeasuredTrends {
    sites: Vec<SiteTrend>,
    regions: Vec<RegionTrend>,
    weights: TrendMarks,
}

impl Desk {
    /// Everything about a client over all rounds.
    pub fn trends(&self, client_id: &ClientId) -> Result<TrendsView, DeskError> {
        let (store, knowledge) = (&self.store, &*self.knowledge());
        let client = store.client(&knowledge.atlas, client_id)?.client;
        let mark = self.mark(store.stamp(client_id)?, 0, today());
        let work_out = || measured_trends(store, knowledge, client_id);
        let MeasuredTrends { sites, regions, weights } = if rests_on_all(knowledge, &client) {
            work_out()?
        } else {
            self.books.moved.get(client_id, mark, work_out)?.as_ref().clone()
        };
        let lifts = lift_trends(store, knowledge, client_id)?;
        Ok(TrendsView { client_name: client.name, sites, regions, lifts, weights })
    }
}

fn measured_trends(store: &Store, knowledge: &Knowledge, client_id: &ClientId) -> Result<MeasuredTrends, DeskError> {
    let assessor = Assessor::new(store, knowledge);
    let mut rounds: Vec<(Case, Assessment)> = Vec::new();
    if let Some(newest) = store.rounds(client_id)?.last() {
        let whole = store.case_at(&knowledge.atlas, &newest.id)?;
        for count in 1..=whole.rounds.len() {
            let case = as_it_stood(&whole, count);
            let assessment = assessor.assess(&case, client_id)?;
            rounds.push((case, assessment));
        }
    }
    let weights = rounds.iter().filter_map(|(case, _)| {
        let round = case.rounds.last()?;
        let band = noise_band(knowledge.atlas.evidence().error.weight_day_pct / 100.0 * round.weight?.kg());
        Some(TrendPoint { on: round.date, value: round.weight?.kg(), band })
    });
    Ok(MeasuredTrends {
        weights: weights.collect(),
        sites: site_trends(knowledge, &rounds),
        regions: region_trends(&rounds),
    })
}

/// The case at one of its rounds; what was chosen and trained does not move a measurement.
fn as_it_stood(whole: &Case, count: usize) -> Case {
    let rounds = whole.rounds[..count].to_vec();
    let as_of = rounds.last().map_or(whole.as_of, |round| round.date);
    Case {
        as_of,
        client: whole.client.clone(),
        rounds,
        training: Vec::new(),
        choices: Choices::default(),
        set_ups: BTreeMap::new(),
        hurts: Vec::new(),
        last_review: None,
    }
}

/// A site's values over the rounds, one a day: the tape's where there is one, else what pictures show.
#[derive(Default)]
struct SiteLine {
    points: Vec<TrendPoint>,
    pictured: Vec<usize>,
    /// The bands that picture values have among their own kind, whose constants are equal and cancel.
    among_pictures: Vec<f64>,
}

impl SiteLine {
    fn marks(self) -> (Trend, Vec<usize>) {
        let mut points = self.points;
        if self.pictured.len() == points.len() {
            points.iter_mut().zip(self.among_pictures).for_each(|(point, band)| point.band = band);
        }
        (Trend { points }, self.pictured)
    }
}

fn site_trends(knowledge: &Knowledge, rounds: &[(Case, Assessment)]) -> Vec<SiteTrend> {
    let mut lines: BTreeMap<(usize, Option<Side>), (SiteId, SiteLine)> = BTreeMap::new();
    let place =
        |site: &SiteId| knowledge.atlas.sites().iter().position(|known| known.id == *site).unwrap_or(usize::MAX);
    let whole = rounds.last().map(|(case, _)| case.rounds.as_slice()).unwrap_or_default();
    for (index, (case, assessment)) in rounds.iter().enumerate() {
        let mut line = |site: &SiteId, side: Option<Side>, value: f64, bands: [f64; 2], from_pictures: bool| {
            let (_, line) = lines.entry((place(site), side)).or_insert_with(|| (site.clone(), SiteLine::default()));
            if from_pictures {
                line.pictured.push(line.points.len());
                line.among_pictures.push(bands[1]);
            }
            line.points.push(TrendPoint { on: case.as_of, value, band: bands[0] });
        };
        for site in assessment.measured.sites.iter().filter(|site| !site.carried_over) {
            line(&site.site, site.side, site.value_cm, [noise_band(site.se_cm), 0.0], false);
        }
        let seen = pictured_sites(&knowledge.atlas, whole, index);
        for seen in seen.into_iter().filter(|seen| seen.tape_cm.is_none()) {
            let band = |pct: f64| noise_band(seen.value_cm * pct / 100.0);
            let bands = [band(seen.error_pct), band(seen.change_error_pct / std::f64::consts::SQRT_2)];
            line(&seen.site, seen.side, seen.value_cm, bands, true);
        }
    }
    lines
        .into_iter()
        .map(|((_, side), (site, line))| {
            let (trend, pictured) = line.marks();
            let moved = trend.moved();
            SiteTrend { site, side, moved, marks: TrendMarks { pictured, ..trend.points.into_iter().collect() } }
        })
        .collect()
}

fn region_trends(rounds: &[(Case, Assessment)]) -> Vec<RegionTrend> {
    let Some((_, newest)) = rounds.last() else { return Vec::new() };
    let known = |(_, assessment): &&(Case, Assessment)| assessment.has_evidence();
    newest
        .regions
        .iter()
        .map(|region| {
            let of = |(case, assessment): &(Case, Assessment)| {
                let verdict = assessment.region(&region.region)?;
                Some((case.as_of, verdict.bulk, verdict.asymmetry))
            };
            let all: Vec<_> = rounds.iter().filter(known).filter_map(of).collect();
            let at = |on: &Date, value: f64, sd: f64| TrendPoint { on: *on, value, band: noise_band(sd) };
            RegionTrend {
                region: region.region.clone(),
                bulk: all.iter().map(|(on, bulk, _)| at(on, bulk.mean, bulk.sd)).collect(),
                sides: all.iter().filter_map(|(on, _, sides)| sides.map(|s| at(on, s.mean, s.sd))).collect(),
            }
        })
        .collect()
}

/// An exercise and the side trained alone.
type Lift = (String, Option<Side>);

/// Whether a load was held, and the best set of each week.
type BestSets = (bool, BTreeMap<Date, f64>);

fn lift_trends(store: &Store, knowledge: &Knowledge, client_id: &ClientId) -> Result<Vec<LiftTrend>, DeskError> {
    let mut lifts: BTreeMap<Lift, BestSets> = BTreeMap::new();
    for (on, done, best) in store.best_sets(client_id)? {
        let sides = [(None, best.both), (Some(Side::Left), best.left), (Some(Side::Right), best.right)];
        for (side, value) in sides.into_iter().filter_map(|(side, value)| Some((side, value?))) {
            let line = lifts.entry((done.clone(), side)).or_default();
            line.0 |= best.loaded;
            // A point a week is enough to see where it goes.
            let known = line.1.entry(monday(on)).or_insert(0.0);
            *known = known.max(value);
        }
    }
    let lift = |((exercise, side), (loaded, best)): (Lift, BestSets)| {
        let known = exercise.parse().ok().and_then(|id| knowledge.atlas.exercise(&id));
        let seconds = known.is_some_and(|exercise| matches!(exercise.work(), atlas::Work::Seconds(_)));
        let unit = match (loaded, seconds) {
            (true, true) => "kg s",
            (true, false) => "kg",
            (false, true) => "s",
            (false, false) => "reps",
        };
        LiftTrend {
            name: known.map_or_else(|| exercise.clone(), |exercise| exercise.name.clone()),
            unit: unit.to_owned(),
            side,
            marks: TrendMarks::bare(best),
            exercise,
        }
    };
    Ok(lifts.into_iter().map(lift).collect())
}
