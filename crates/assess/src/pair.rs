//! What moved between two rounds, from the evidence of both at once: the second round does not drift back to the middle by noise,
//! and what the whole body did is taken out.

use crate::assessment::{Assessment, Knowledge};
use crate::body::{BodyModel, TapeJoint};
use crate::evidence::{Evidence, SizeEvidence, Taped, bulk_rows, settled};
use crate::input::Case;
use crate::measurer::MeasurerErrors;
use crate::observe::Observation;
use crate::posterior::Prior;
use crate::verdict::{BulkVerdict, bulk_verdict, probability_above};
use nalgebra::{DMatrix, DVector};
use units::{RegionId, SiteId};

/// The change of a region or a part of the body between two rounds, and where it stands at the second.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Moved {
    /// Change against the rest of this body, SD.
    pub mean: f64,
    /// SD of that.
    pub sd: f64,
    /// Probability that it gained more than can be passed over.
    pub p_gained: f64,
    /// Probability that it gained at all.
    pub p_up: f64,
    /// Probability that it lost more than can be passed over.
    pub p_lost: f64,
    /// Where it stands at the second round, by both.
    pub now: BulkVerdict,
}

impl Moved {
    /// A change smaller than this is passed over, SD.
    const PASSED_OVER: f64 = 0.1;
    /// Probability from which a gain or loss is said (common practice, no source).
    pub const SURE: f64 = 0.9;

    /// A real gain.
    pub fn gained(&self) -> bool {
        self.p_gained >= Self::SURE
    }

    /// A real loss.
    pub fn lost(&self) -> bool {
        self.p_lost >= Self::SURE
    }

    /// Whether it is no longer behind, by both rounds and not by one lucky one.
    pub fn no_longer_behind(&self) -> bool {
        const STILL_BEHIND: f64 = 0.3;
        const ROSE: f64 = 0.8;
        self.now.p_behind < STILL_BEHIND && self.p_up >= ROSE
    }
}

/// What moved between two rounds.
#[derive(Clone, Debug, PartialEq)]
pub struct Moves {
    /// Every region, in the order of the atlas.
    pub regions: Vec<(RegionId, Moved)>,
    /// The parts of the body, with how much of the girth's change the whole body explains, %.
    pub areas: Vec<(SiteId, Moved, f64)>,
}

impl Moves {
    /// What became of one region.
    pub fn region(&self, id: &RegionId) -> Option<Moved> {
        self.regions.iter().find(|(region, _)| region == id).map(|(_, moved)| *moved)
    }
}

/// Variance of a region's change per week, as a share of its prior variance: 0.15 in 12 weeks (common practice, no source).
const CHANGE_A_WEEK: f64 = 0.15 / 12.0;
/// SD of the change of the whole body in 12 weeks: fatness, % of the waist; and general muscularity, in its unit (common
/// practice, no source).
const FATNESS_PCT: f64 = 4.0;
const MUSCULARITY: f64 = 0.35;
const WEEKS: f64 = 12.0;
/// Rounds closer than this are taken as so far apart: a body needs time.
const LEAST_WEEKS: f64 = 1.0;

/// What moved from one round to another that was assessed later.
pub fn moves(knowledge: &Knowledge, before: (&Case, &Assessment), now: (&Case, &Assessment)) -> Moves {
    let evidence = knowledge.evidence();
    let sex = now.0.client.sex;
    let pair = Pair {
        evidence,
        body: evidence.body(sex),
        weeks: weeks_between(before.0, now.0).max(LEAST_WEEKS),
        other_hand: measurer(before.0) != measurer(now.0),
        hand_variance: hand_variance(knowledge, now.0),
        girths: knowledge.norms.sites().iter().map(|site| is_girth(knowledge, site)).collect(),
        waist: knowledge.norms.sites().iter().position(|site| site.as_str() == "waist"),
    };
    // Both rounds' pictures by the same constants, of which neither round's own tape has told: what it says of them follows here.
    let (then, last) = (before.0.rounds.len().saturating_sub(1), now.0.rounds.len().saturating_sub(1));
    let pictures = |tape: TapeJoint, round: usize| {
        if tape.pictured.is_empty() { tape } else { tape.with_pictures(knowledge, now.0, round, &[then, last]) }
    };
    let first = pictures(before.1.tape.clone(), then);
    let repeated = pictures(repeated(knowledge, before.1, now.1), last);
    let first = SizeEvidence { sex, tape: &first, rows: &before.1.observations };
    let second = SizeEvidence { sex, tape: &repeated, rows: &now.1.observations };
    pair.weighed(knowledge, first, second, now.1)
}

fn weeks_between(before: &Case, now: &Case) -> f64 {
    let days = now.as_of.duration_since(before.as_of).as_hours() as f64 / 24.0;
    days / 7.0
}

fn hand_variance(knowledge: &Knowledge, case: &Case) -> f64 {
    let errors = MeasurerErrors::learn(&knowledge.atlas, &case.rounds);
    (errors.hand_learned(&knowledge.atlas).0 / 100.0).powi(2)
}

fn measurer(case: &Case) -> Option<&str> {
    case.rounds.last().map(|round| round.measured_by.as_str())
}

fn is_girth(knowledge: &Knowledge, site: &SiteId) -> bool {
    knowledge.atlas.site(site).is_some_and(|site| site.kind == atlas::SiteKind::Girth)
}

/// The second round's tape without what says nothing new: the stature of the brief, and breadths carried over.
fn repeated(knowledge: &Knowledge, before: &Assessment, now: &Assessment) -> TapeJoint {
    let sites = knowledge.norms.sites();
    let carried = |site: &SiteId| now.measured.sites.iter().any(|m| m.site == *site && m.carried_over);
    let known = |place: usize| before.tape.places.contains(&place);
    let fresh = |place: usize| sites[place].as_str() != crate::norms::Norms::STATURE && !carried(&sites[place]);
    let kept: Vec<usize> =
        (0..now.tape.places.len()).filter(|i| !known(now.tape.places[*i]) || fresh(now.tape.places[*i])).collect();
    let of = |values: &[f64]| kept.iter().map(|i| values[*i]).collect();
    TapeJoint {
        places: kept.iter().map(|i| now.tape.places[*i]).collect(),
        x: of(&now.tape.x),
        error_variance: of(&now.tape.error_variance),
        // Pictures show neither stature nor breadths: all of theirs are kept.
        pictured: now.tape.pictured.clone(),
    }
}

struct Pair<'a> {
    evidence: &'a Evidence,
    body: &'a BodyModel,
    weeks: f64,
    other_hand: bool,
    hand_variance: f64,
    /// By place in the norms.
    girths: Vec<bool>,
    waist: Option<usize>,
}

impl Pair<'_> {
    /// How a body grows fatter: what goes with one percent of waist in the reference, ln by site; bones stay.
    fn fatness(&self) -> DVector<f64> {
        let covariance = &self.body.moments.covariance_ln;
        let Some(waist) = self.waist else { return DVector::zeros(covariance.nrows()) };
        let along = |site: usize| 0.01 * covariance[(site, waist)] / covariance[(waist, waist)];
        DVector::from_fn(covariance.nrows(), |site, _| if self.girths[site] { along(site) } else { 0.0 })
    }

    /// The state: regions at the first round, then their changes, then the two changes of the whole body.
    fn prior(&self) -> Prior {
        let bulk = self.evidence.bulk_prior();
        let regions = bulk.regions.len();
        let size = 2 * regions + 2;
        let mut covariance = DMatrix::zeros(size, size);
        covariance.view_mut((0, 0), (regions, regions)).copy_from(&bulk.covariance);
        let changed = &bulk.covariance * (CHANGE_A_WEEK * self.weeks);
        covariance.view_mut((regions, regions), (regions, regions)).copy_from(&changed);
        let share = self.weeks / WEEKS;
        covariance[(size - 2, size - 2)] = FATNESS_PCT.powi(2) * share;
        covariance[(size - 1, size - 1)] = MUSCULARITY.powi(2) * share;
        let places: Vec<Option<usize>> = (0..size).map(Some).collect();
        Prior { places: places.into(), regions: (0..size).collect(), mean: DVector::zeros(size), covariance }
    }

    fn weighed(
        &self,
        knowledge: &Knowledge,
        first: SizeEvidence<'_>,
        second: SizeEvidence<'_>,
        now: &Assessment,
    ) -> Moves {
        let prior = self.prior();
        let regions = self.evidence.bulk_prior().regions.len();
        let (fatness, muscular) = (self.fatness(), &self.body.muscular);
        let taped = self.taped(&prior, first.tape, second.tape, &fatness);
        let rows = rows_of_both(first.rows, second.rows, regions);
        let posterior = settled(&prior, self.evidence.stacked(&prior, &taped, &rows.iter().collect::<Vec<_>>()));
        let settings = knowledge.atlas.evidence();
        let moved = |row: &[(usize, f64)], look_weight: f64| {
            let change: Vec<(usize, f64)> = row.iter().map(|(region, weight)| (regions + region, *weight)).collect();
            let (mean, sd) = posterior.along(&change);
            let both: Vec<(usize, f64)> = row.iter().copied().chain(change).collect();
            Moved {
                mean,
                sd,
                p_gained: probability_above(Moved::PASSED_OVER, mean, sd),
                p_up: probability_above(0.0, mean, sd),
                p_lost: probability_above(Moved::PASSED_OVER, -mean, sd),
                now: bulk_verdict(settings, posterior.along(&both), look_weight),
            }
        };
        let each = now.regions.iter().enumerate();
        let each = each.map(|(index, verdict)| (verdict.region.clone(), moved(&[(index, 1.0)], verdict.look_weight)));
        let whole = |place: usize| {
            posterior.along(&[(2 * regions, fatness[place]), (2 * regions + 1, muscular[place])]).0 * 100.0
        };
        let areas = self.body.areas.iter().zip(&now.areas);
        let areas =
            areas.map(|(area, verdict)| (area.site.clone(), moved(&area.row, verdict.look_weight), whole(area.place)));
        Moves { regions: each.collect(), areas: areas.collect() }
    }

    /// Both rounds' tape: the same body, but for what its regions and the whole of it changed by.
    fn taped(&self, prior: &Prior, first: &TapeJoint, second: &TapeJoint, fatness: &DVector<f64>) -> Taped {
        let (body, regions) = (self.body, self.evidence.bulk_prior().regions.len());
        let (size, one, both) = (prior.regions.len(), first.places.len(), first.places.len() + second.places.len());
        let place = |i: usize| if i < one { first.places[i] } else { second.places[i - one] };
        let grown = CHANGE_A_WEEK * self.weeks;
        let (fat, muscle) = (prior.covariance[(size - 2, size - 2)], prior.covariance[(size - 1, size - 1)]);
        let cross = DMatrix::from_fn(size, both, |row, i| match (row, i >= one) {
            (row, _) if row < regions => body.carried[(row, place(i))],
            (_, false) => 0.0,
            (row, true) if row < 2 * regions => grown * body.carried[(row - regions, place(i))],
            (row, true) if row == size - 2 => fat * fatness[place(i)],
            (_, true) => muscle * body.muscular[place(i)],
        });
        let local = |i: usize, j: usize| {
            let area = |place: usize| body.areas.iter().find(|area| area.place == place);
            let (Some(a), Some(b)) = (area(place(i)), area(place(j))) else { return 0.0 };
            let shared = body.carried.column(b.place);
            a.growth_ln * self.evidence.bulk_prior().dot(&a.row, &shared.clone_owned())
        };
        let covariance = DMatrix::from_fn(both, both, |i, j| {
            let (p, q) = (place(i), place(j));
            let mut shared = body.moments.covariance_ln[(p, q)];
            if i >= one && j >= one {
                shared +=
                    grown * local(i, j) + fat * fatness[p] * fatness[q] + muscle * body.muscular[p] * body.muscular[q];
                if self.other_hand && self.girths[p] && self.girths[q] {
                    shared += self.hand_variance;
                }
            }
            shared
                + match (i < one, j < one) {
                    (true, true) => first.error(i, j),
                    (false, false) => second.error(i - one, j - one),
                    (true, false) => first.error_with(i, second, j - one),
                    (false, true) => first.error_with(j, second, i - one),
                }
        });
        let mut deviation = DVector::zeros(both);
        deviation.rows_mut(0, one).copy_from(&body.deviation(first));
        deviation.rows_mut(one, both - one).copy_from(&body.deviation(second));
        Taped { deviation, cross, covariance }
    }
}

/// Rows about size of both rounds: those of the second speak about where the change has led.
fn rows_of_both(first: &[Observation], second: &[Observation], regions: usize) -> Vec<Observation> {
    let of = |row: &Observation, round: u8, both: bool| {
        let changed = row.row.iter().filter(|_| both).map(|(region, weight)| (regions + region, *weight));
        Observation {
            row: row.row.iter().copied().chain(changed).collect(),
            sitting: row.sitting.as_ref().map(|sitting| format!("{round} {sitting}")),
            ..row.clone()
        }
    };
    let first = bulk_rows(first).map(|row| of(row, 1, false));
    first.chain(bulk_rows(second).map(|row| of(row, 2, true))).collect()
}
