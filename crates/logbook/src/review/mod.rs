//! The end of a round: what moved against what could be noise, what was done for it, and what to do next.

mod decide;
mod moves;
mod work;

pub use decide::{Decision, asked_of_plan, beside, carried};
pub use moves::{GirthMove, WidthMove, weeks_to_show};
pub use work::{PlannedSession, RoundWork, round_work};

use assess::{Assessment, BulkVerdict, Case, Knowledge, Moved, Moves, Standing, Tilt, moves};
use decide::{Facts, decide};
use moves::{girth_moves, width_moves};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use units::{ExerciseId, RegionId, SiteId};
use utoipa::ToSchema;

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
    /// What moved against the rest of this body, by both rounds at once; none before anything was measured again.
    pub moved: Option<Moved>,
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
    /// The parts of the body.
    pub areas: Vec<AreaReview>,
    /// The chosen regions, then the others that changed really, in the order of the atlas.
    pub regions: Vec<RegionReview>,
}

/// How a part of the body moved.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum PartMoved {
    /// It grew against the rest of this body.
    Gained,
    /// It shrank against the rest of this body.
    Lost,
    /// Its girth changed really, as the whole body did.
    WithTheBody,
    /// Nothing beyond noise.
    NotMoved,
}

/// A part of the body at the end of a round.
#[derive(Clone, Debug, PartialEq)]
pub struct AreaReview {
    /// The site that mixes its muscles.
    pub site: SiteId,
    /// How it moved.
    pub movement: PartMoved,
    /// How sure that is, 0 to 1; none where nothing moved beyond noise.
    pub sure: Option<f64>,
    /// Change against the rest of this body.
    pub moved: Moved,
    /// What of its girth's change the whole body explains, %.
    pub with_the_body_pct: f64,
}

/// Reviews a round. `now` is the round after it, once it was measured; `work` is by region; `tired` says that sleep,
/// soreness or falling lifts ask for rest.
pub fn review(
    knowledge: &Knowledge,
    before: ReviewRound,
    now: Option<ReviewRound>,
    work: &BTreeMap<RegionId, WorkDone>,
    tired: bool,
) -> Review {
    let brought_up = before.case.choices.brought_up(&knowledge.atlas);
    let chosen = |region: &RegionId| brought_up.contains(region);
    let moves = now
        .filter(|now| now.assessment.has_evidence())
        .map(|now| moves(knowledge, (before.case, before.assessment), (now.case, now.assessment)));
    let mut regions: Vec<RegionReview> = before
        .assessment
        .regions
        .iter()
        .filter_map(|verdict| {
            let done = work.get(&verdict.region).cloned().unwrap_or_default();
            let moved = moves.as_ref().and_then(|moves| moves.region(&verdict.region));
            let rounds = Rounds { knowledge, before, now, moved };
            let review = region_review(&rounds, &verdict.region, chosen(&verdict.region), done, tired)?;
            (review.chosen || review.decision == Some(Decision::Grow)).then_some(review)
        })
        .collect();
    regions.sort_by_key(|review| !review.chosen);
    let areas = moves.iter().zip(now).flat_map(|(moves, now)| area_reviews(moves, now));
    Review { areas: areas.collect(), regions }
}

/// Each part of the body in one word.
fn area_reviews(moves: &Moves, now: ReviewRound) -> Vec<AreaReview> {
    let taped_change =
        |site: &SiteId| now.assessment.changes.iter().any(|change| change.site == *site && change.together);
    let compared = |site: &SiteId| now.assessment.changes.iter().any(|change| change.site == *site);
    let review = |(site, moved, whole): &(SiteId, Moved, f64)| {
        let (movement, sure) = if moved.gained() {
            (PartMoved::Gained, Some(moved.p_gained))
        } else if moved.lost() {
            (PartMoved::Lost, Some(moved.p_lost))
        } else if taped_change(site) {
            (PartMoved::WithTheBody, Some(1.0 - moved.p_gained.max(moved.p_lost)))
        } else {
            (PartMoved::NotMoved, None)
        };
        AreaReview { site: site.clone(), movement, sure, moved: *moved, with_the_body_pct: *whole }
    };
    moves.areas.iter().filter(|(site, ..)| compared(site)).map(review).collect()
}

/// What a region is reviewed by.
struct Rounds<'a> {
    knowledge: &'a Knowledge,
    before: ReviewRound<'a>,
    now: Option<ReviewRound<'a>>,
    moved: Option<Moved>,
}

fn region_review(
    rounds: &Rounds,
    region: &RegionId,
    chosen: bool,
    work: WorkDone,
    tired: bool,
) -> Option<RegionReview> {
    let Rounds { knowledge, before, now, moved } = *rounds;
    let atlas = &knowledge.atlas;
    let then = before.assessment.region(region)?;
    let new = now.and_then(|now| now.assessment.region(region));
    let girths = girth_moves(atlas, region, before, now);
    let widths = width_moves(atlas, region, before.case, now.map(|now| now.case));
    let decided = new.zip(moved).filter(|_| measured(&girths, &widths, new)).map(|(new, moved)| {
        // What the coach has overruled stands.
        let overruled = new.overruled.is_some();
        let behind = if overruled { new.standing() == Standing::Behind } else { !moved.no_longer_behind() };
        decide(&Facts {
            chosen,
            behind,
            was_behind: matches!(then.standing(), Standing::Behind | Standing::LeansBehind),
            gained: moved.gained(),
            shrank: moved.lost(),
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
        now: new.map(|new| moved.map_or(new.bulk, |moved| moved.now)),
        moved,
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
fn measured(girths: &[GirthMove], widths: &[WidthMove], now: Option<&assess::RegionVerdict>) -> bool {
    let rated = now.is_some_and(|now| now.pieces.iter().any(|piece| matches!(piece.of, assess::PieceOf::Row(_))));
    girths.iter().any(|girth| girth.now_cm.is_some()) || !widths.is_empty() || rated
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
