//! The end of a round, and everything over all rounds.

use crate::clients::RoundSummary;
use assess::{BulkVerdict, Moved, Standing};
use atlas::Atlas;
use casefile::ChoicesEntry;
use jiff::civil::Date;
use logbook::{AreaReview, Decision, GirthMove, PartMoved, RegionReview, TrendPoint, WidthMove};
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use units::{ClientId, PhotoId, RegionId, Side, SiteId};
use utoipa::ToSchema;
use vision::PhotoPose;

/// A round reviewed.
#[derive(Serialize, ToSchema)]
pub struct ReviewView {
    /// Whose it is.
    pub client_id: ClientId,
    /// Display name.
    pub client_name: String,
    /// The day of the round.
    pub date: String,
    /// Who held the tape.
    pub measured_by: String,
    /// The round after it, once it is opened.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub next: Option<RoundSummary>,
    /// What is chosen there.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub next_choices: Option<ChoicesEntry>,
    /// Revision of that; 0 while nothing was chosen.
    pub next_choices_revision: i32,
    /// Weeks trained.
    pub weeks: f64,
    /// Sessions planned up to the next round, or today.
    pub sessions_planned: u32,
    /// Sessions kept.
    pub sessions_kept: u32,
    /// Why rest is asked for.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub tired: Option<String>,
    /// The parts of the body, one line each.
    pub areas: Vec<AreaReviewView>,
    /// Chosen regions first.
    pub regions: Vec<RegionReviewView>,
    /// Regions that are behind now and not chosen, by need: next in line.
    pub in_line: Vec<InLine>,
    /// The same pose in both rounds.
    pub pictures: Vec<PicturePair>,
    /// What was decided.
    pub decisions: BTreeMap<RegionId, Decision>,
    /// Revision of the decisions; 0 while nothing was decided.
    pub revision: i32,
    /// Whether the next round has the choices that follow from the decisions.
    pub carried: bool,
}

/// A region next in line.
#[derive(Serialize, ToSchema)]
pub struct InLine {
    /// The region.
    pub region: RegionId,
    /// Its need.
    pub need: f64,
}

/// A pose then and now.
#[derive(Serialize, ToSchema)]
pub struct PicturePair {
    /// The pose.
    pub pose: PhotoPose,
    /// Picture of the round.
    pub before: PhotoId,
    /// Picture of the next round.
    pub now: PhotoId,
}

/// A region's bulk.
#[derive(Serialize, ToSchema)]
pub struct BulkMark {
    /// SD; negative = behind.
    pub mean: f64,
    /// SD of that.
    pub sd: f64,
    /// In a word.
    pub standing: Standing,
}

impl From<&BulkVerdict> for BulkMark {
    fn from(bulk: &BulkVerdict) -> Self {
        Self { mean: bulk.mean, sd: bulk.sd, standing: bulk.standing }
    }
}

/// A region at the end of a round.
#[derive(Serialize, ToSchema)]
pub struct RegionReviewView {
    /// The region.
    pub region: RegionId,
    /// Whether it was to be brought up.
    pub chosen: bool,
    /// At the beginning.
    pub before: BulkMark,
    /// Now.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub now: Option<BulkMark>,
    /// How it moved against the rest of this body.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub moved: Option<MovedView>,
    /// Its girths.
    pub girths: Vec<GirthMove>,
    /// Its outlines in pictures.
    pub widths: Vec<WidthMove>,
    /// Fractional sets planned.
    pub planned_sets: f64,
    /// Fractional sets done.
    pub done_sets: f64,
    /// Fractional sets done a week.
    pub weekly_sets: f64,
    /// The plan's band, weekly fractional sets.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub band: Option<[f64; 2]>,
    /// Pain while it was trained.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub pain: Option<String>,
    /// What took its work over.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub felt: Option<String>,
    /// What is proposed.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub proposed: Option<Decision>,
    /// Why.
    pub why: String,
    /// Whether two-sided work is allowed again.
    pub two_sided_again: bool,
    /// Weeks of training until the expected growth shows.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub weeks_to_show: Option<u16>,
}

/// A change against the rest of this body, by both rounds at once.
#[derive(Serialize, ToSchema)]
pub struct MovedView {
    /// SD.
    pub mean: f64,
    /// SD of that.
    pub sd: f64,
    /// Probability of a real gain.
    pub p_gained: f64,
    /// Probability of a real loss.
    pub p_lost: f64,
}

impl From<&Moved> for MovedView {
    fn from(moved: &Moved) -> Self {
        Self { mean: moved.mean, sd: moved.sd, p_gained: moved.p_gained, p_lost: moved.p_lost }
    }
}

/// A part of the body at the end of a round, in one word.
#[derive(Serialize, ToSchema)]
pub struct AreaReviewView {
    /// The site that mixes its muscles.
    pub area: SiteId,
    /// What a coach calls it.
    pub name: String,
    /// How it moved.
    pub movement: PartMoved,
    /// How sure that is; none where nothing moved beyond noise.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub sure: Option<f64>,
    /// What of its girth's change the whole body explains, %.
    pub with_the_body_pct: f64,
}

impl AreaReviewView {
    /// With the name of the part.
    pub fn of(atlas: &Atlas, review: &AreaReview) -> Self {
        Self {
            area: review.site.clone(),
            name: atlas.part_name(&review.site),
            movement: review.movement,
            sure: review.sure,
            with_the_body_pct: review.with_the_body_pct,
        }
    }
}

impl From<&RegionReview> for RegionReviewView {
    fn from(review: &RegionReview) -> Self {
        Self {
            region: review.region.clone(),
            chosen: review.chosen,
            before: BulkMark::from(&review.before),
            now: review.now.as_ref().map(BulkMark::from),
            moved: review.moved.as_ref().map(MovedView::from),
            girths: review.girths.clone(),
            widths: review.widths.clone(),
            planned_sets: review.work.planned_sets,
            done_sets: review.work.done_sets,
            weekly_sets: review.work.weekly_sets,
            band: review.work.band,
            pain: review.work.pain.clone(),
            felt: review.work.felt.clone(),
            proposed: review.decision,
            why: review.why.clone(),
            two_sided_again: review.two_sided_again,
            weeks_to_show: review.weeks_to_show,
        }
    }
}

/// Decisions to be saved.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SaveReview {
    /// The revision they were read at.
    pub revision: i32,
    /// By region.
    pub decisions: BTreeMap<RegionId, Decision>,
    /// Regions to be brought up beside those that go on.
    #[serde(default)]
    pub also: Vec<String>,
    /// How to write the choices that follow into the next round; they are not when it is left out.
    #[serde(default)]
    pub carry: Option<Carry>,
}

/// How the choices that follow from a review meet those of the next round.
#[derive(Clone, Copy, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Carry {
    /// What is chosen there stays; they join it as far as there is room.
    Beside,
    /// They take its place.
    Instead,
}

/// Everything over all rounds.
#[derive(Serialize, ToSchema)]
pub struct TrendsView {
    /// Display name.
    pub client_name: String,
    /// Girths and breadths.
    pub sites: Vec<SiteTrend>,
    /// Regions against the rest of this body.
    pub regions: Vec<RegionTrend>,
    /// The best set of every exercise, session by session.
    pub lifts: Vec<LiftTrend>,
    /// Weighings.
    pub weights: TrendMarks,
}

/// Values over days, side by side: a page of trends holds thousands.
#[derive(Clone, Default, Serialize, ToSchema)]
pub struct TrendMarks {
    /// The days, rising.
    pub on: Vec<String>,
    /// The value of each day, to three decimals.
    pub values: Vec<f64>,
    /// Half the width of the 95 % band of each; none where no error is known.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub bands: Vec<f64>,
    /// Places of the values that are from pictures.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub pictured: Vec<usize>,
}

impl TrendMarks {
    /// Marks without a known error.
    pub fn bare(marks: impl IntoIterator<Item = (Date, f64)>) -> Self {
        let (on, values) = marks.into_iter().map(|(on, value)| (on.to_string(), drawn(value))).unzip();
        Self { on, values, ..Self::default() }
    }
}

impl FromIterator<TrendPoint> for TrendMarks {
    fn from_iter<I: IntoIterator<Item = TrendPoint>>(points: I) -> Self {
        let mut marks = Self::default();
        for TrendPoint { on, value, band } in points {
            marks.on.push(on.to_string());
            marks.values.push(drawn(value));
            marks.bands.push(drawn(band));
        }
        marks
    }
}

/// Three decimals are more than a line or a table shows.
fn drawn(value: f64) -> f64 {
    (value * 1e3).round() / 1e3
}

/// A site over the rounds.
#[derive(Clone, Serialize, ToSchema)]
pub struct SiteTrend {
    /// The site.
    pub site: SiteId,
    /// The side at a paired site.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub side: Option<Side>,
    /// cm.
    pub marks: TrendMarks,
    /// Change from first to last, when it is more than both may differ by, cm.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub moved: Option<f64>,
}

/// A region over the rounds.
#[derive(Clone, Serialize, ToSchema)]
pub struct RegionTrend {
    /// The region.
    pub region: RegionId,
    /// Bulk, SD; negative = behind.
    pub bulk: TrendMarks,
    /// Left less right, %; empty for regions without sides.
    pub sides: TrendMarks,
}

/// An exercise over its sessions.
#[derive(Serialize, ToSchema)]
pub struct LiftTrend {
    /// The exercise.
    pub exercise: String,
    /// Its name.
    pub name: String,
    /// `kg` for an estimated maximum, otherwise what is counted.
    pub unit: String,
    /// The side, where each was trained alone.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub side: Option<Side>,
    /// The best set of each day.
    pub marks: TrendMarks,
}
