//! The end of a round: what moved against what could be noise, what was done for it, and what to do next.

mod decide;
mod moves;
mod work;

pub use decide::{Decision, asked_of_plan, beside, carried};
pub use moves::{GirthMove, WidthMove, weeks_to_show};
pub use work::{PlannedSession, RoundWork, round_work};

use assess::{Assessment, BulkVerdict, Case, Standing, Tilt};
use atlas::Atlas;
use decide::{Facts, decide};
use moves::{girth_moves, width_moves};
use std::collections::BTreeMap;
use units::{ExerciseId, RegionId};

/// Two-sided 95 % of a normal distribution, SD.
pub(crate) const TWO_SIDED_95: f64 = 1.96;

/// A round as it was assessed.
#[derive(Clone, Copy, Debug)]
pub struct ReviewRound<'a> {
    /// The case as it stood.
    pub case: &'a Case,
    /// Its verdict.
    pub assessment: &'a Assessment,
}

/// What was done for a region over a round.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct WorkDone {
    /// Fractional sets planned up to now, indirect work counted.
    pub planned_sets: f64,
    /// Fractional sets done.
    pub done_sets: f64,
    /// Fractional sets done a week.
    pub weekly_sets: f64,
    /// The band the plan held it to, weekly fractional sets: low and high.
    pub band: Option<[f64; 2]>,
    /// Pain of 3 or more while it was trained, in words.
    pub pain: Option<String>,
    /// What took its work over, when the same did twice, in words.
    pub felt: Option<String>,
    /// Exercises that hurt so or were felt so.
    pub blamed: Vec<ExerciseId>,
    /// The exercise with most of its planned sets.
    pub main: Option<ExerciseId>,
}

impl WorkDone {
    /// Sets done of those planned, 0 to 1 and above; 1 when none were planned.
    pub fn share(&self) -> f64 {
        if self.planned_sets > 0.0 { self.done_sets / self.planned_sets } else { 1.0 }
    }
}

/// A region at the end of a round.
#[derive(Clone, Debug, PartialEq)]
pub struct RegionReview {
    /// The region.
    pub region: RegionId,
    /// Whether it was to be brought up.
    pub chosen: bool,
    /// Its bulk at the beginning.
    pub before: BulkVerdict,
    /// Its bulk now; none before anything was measured again.
    pub now: Option<BulkVerdict>,
    /// Whether the posterior moved by more than both are unsure.
    pub posterior_real: bool,
    /// Its girths.
    pub girths: Vec<GirthMove>,
    /// Its outlines in pictures.
    pub widths: Vec<WidthMove>,
    /// What was done.
    pub work: WorkDone,
    /// What to do; none before anything was measured again.
    pub decision: Option<Decision>,
    /// Why.
    pub why: String,
    /// Whether a difference between the sides is now within error, so that two-sided work is allowed again.
    pub two_sided_again: bool,
    /// Weeks of training until the expected growth would show in its surest girth, from the beginning of the round.
    pub weeks_to_show: Option<u16>,
}

/// A round and what came after it.
#[derive(Clone, Debug, PartialEq)]
pub struct Review {
    /// The chosen regions, then the others that changed really, in the order of the atlas.
    pub regions: Vec<RegionReview>,
}

/// Reviews a round. `now` is the round after it, once it was measured; `work` is by region; `tired` says that sleep,
/// soreness or falling lifts ask for rest.
pub fn review(
    atlas: &Atlas,
    before: ReviewRound,
    now: Option<ReviewRound>,
    work: &BTreeMap<RegionId, WorkDone>,
    tired: bool,
) -> Review {
    let chosen = |region: &RegionId| before.case.choices.bring_up.contains(region);
    let mut regions: Vec<RegionReview> = before
        .assessment
        .regions
        .iter()
        .filter_map(|verdict| {
            let done = work.get(&verdict.region).cloned().unwrap_or_default();
            let review = region_review(atlas, &verdict.region, chosen(&verdict.region), before, now, done, tired)?;
            (review.chosen || review.decision == Some(Decision::Grow)).then_some(review)
        })
        .collect();
    regions.sort_by_key(|review| !review.chosen);
    Review { regions }
}

fn region_review(
    atlas: &Atlas,
    region: &RegionId,
    chosen: bool,
    before: ReviewRound,
    now: Option<ReviewRound>,
    work: WorkDone,
    tired: bool,
) -> Option<RegionReview> {
    let then = before.assessment.region(region)?;
    let new = now.and_then(|now| now.assessment.region(region));
    let girths = girth_moves(atlas, region, before.assessment, now.map(|now| now.assessment));
    let widths = width_moves(atlas, region, before.case, now.map(|now| now.case));
    let shift = new.map(|new| (new.bulk.mean - then.bulk.mean, then.bulk.sd.hypot(new.bulk.sd)));
    let posterior_real = shift.is_some_and(|(change, sd)| change.abs() > TWO_SIDED_95 * sd);
    let moved = |sign: f64| {
        girths.iter().any(|girth| girth.is_real() && girth.change_cm.is_some_and(|cm| cm * sign > 0.0))
            || widths.iter().any(|width| width.real && width.change_pct * sign > 0.0)
            || (posterior_real && shift.is_some_and(|(change, _)| change * sign > 0.0))
    };
    let decided = new.filter(|_| measured(&girths, &widths, posterior_real)).map(|new| {
        decide(&Facts {
            chosen,
            behind: new.standing() == Standing::Behind,
            was_behind: then.standing() == Standing::Behind,
            gained: moved(1.0),
            shrank: moved(-1.0),
            work: &work,
            tired,
        })
    });
    let leaned = |tilt: Option<Tilt>| matches!(tilt, Some(Tilt::LeftSmaller | Tilt::RightSmaller));
    let tilt = |verdict: &assess::RegionVerdict| verdict.asymmetry.map(|asymmetry| asymmetry.tilt);
    let weeks_to_show = girths.iter().filter_map(|girth| girth.weeks_to_show).min();
    let (decision, why) = match decided {
        Some((decision, why)) => (decision, why),
        None => (None, waiting(weeks_to_show)),
    };
    Some(RegionReview {
        region: region.clone(),
        chosen,
        before: then.bulk,
        now: new.map(|new| new.bulk),
        posterior_real,
        girths,
        widths,
        work,
        decision,
        why,
        two_sided_again: new.is_some_and(|new| leaned(tilt(then)) && tilt(new) == Some(Tilt::Equal)),
        weeks_to_show,
    })
}

/// Whether anything that shows the region was measured again.
fn measured(girths: &[GirthMove], widths: &[WidthMove], posterior_real: bool) -> bool {
    girths.iter().any(|girth| girth.now_cm.is_some()) || !widths.is_empty() || posterior_real
}

fn waiting(weeks_to_show: Option<u16>) -> String {
    match weeks_to_show {
        Some(weeks) => format!(
            "Not measured again yet. At the usual rate a change would show in the tape about {weeks} weeks after this round."
        ),
        None => {
            "Not measured again yet: no girth of this region was taped, so only pictures can show a change.".to_owned()
        }
    }
}
