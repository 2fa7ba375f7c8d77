//! What a review needs: both rounds with their verdicts, the plans of the round, and the log between.

use super::{AreaReviewView, Carry, InLine, PicturePair, RegionReviewView, ReviewView};
use crate::clients::RoundSummary;
use crate::desk::today;
use crate::error::DeskError;
use crate::log::Training;
use crate::opened::Opened;
use crate::roster::Assessor;
use assess::{Assessment, Case, Choices, Class, Knowledge, LastReview, Standing};
use atlas::Atlas;
use casefile::{ChoicesEntry, check_log_entry};
use jiff::ToSpan;
use jiff::civil::Date;
use logbook::{
    Decision, Entry, PlannedSession, Review, ReviewRound, RoundWork, asked_of_plan, beside, carried, review, round_work,
};
use std::collections::BTreeMap;
use store::{IssuedRecord, PhotoRecord, RoundRecord, Store};
use units::{Place, RegionId, RoundId};

/// A round about to be reviewed.
pub(super) struct Reviewing {
    pub round: RoundRecord,
    pub next: Option<RoundRecord>,
    case: Case,
    assessment: Assessment,
    after: Option<(Case, Assessment)>,
    work: RoundWork,
    tired: Option<String>,
}

impl Reviewing {
    pub fn read(store: &Store, knowledge: &Knowledge, round_id: &RoundId) -> Result<Self, DeskError> {
        let assessor = Assessor::new(store, knowledge);
        let Opened { round, case, assessment } = Opened::of(store, &assessor, store.round(round_id)?)?;
        let next = store.rounds(&round.client_id)?.into_iter().find(|other| other.taken_on > round.taken_on);
        let after = next.clone().map(|next| Opened::of(store, &assessor, next)).transpose()?;
        let until = next.as_ref().map_or_else(today, |next| next.taken_on);
        let (work, tired) = done(store, knowledge, &round, until)?;
        let after = after.map(|after| (after.case, after.assessment));
        Ok(Self { round, next, case, assessment, after, work, tired })
    }

    fn review(&self, knowledge: &Knowledge) -> Review {
        let before = ReviewRound { case: &self.case, assessment: &self.assessment };
        let now = self.after.as_ref().map(|(case, assessment)| ReviewRound { case, assessment });
        review(knowledge, before, now, &self.work.by_region, self.tired.is_some())
    }

    /// The choices that follow for the next round; verdicts overruled there stay.
    pub fn carried(
        &self,
        atlas: &Atlas,
        decisions: &BTreeMap<RegionId, Decision>,
        also: &[RegionId],
        how: Carry,
    ) -> Choices {
        let there = self.after.as_ref().map(|(case, _)| case.choices.clone()).unwrap_or_default();
        let follows = carried(atlas, &self.case.choices, decisions, also);
        match how {
            Carry::Beside => beside(&there, &follows),
            Carry::Instead => Choices { overrides: there.overrides, ..follows },
        }
    }

    /// Regions that are behind and neither chosen nor held back, by need.
    fn in_line(&self, atlas: &Atlas) -> Vec<InLine> {
        let Some((_, now)) = &self.after else { return Vec::new() };
        let chosen = self.case.choices.brought_up(atlas);
        let mut line: Vec<InLine> = now
            .regions
            .iter()
            .zip(&now.classes)
            .filter(|(verdict, class)| {
                verdict.standing() == Standing::Behind
                    && !chosen.contains(&verdict.region)
                    && **class != Class::HoldBack
            })
            .map(|(verdict, _)| InLine { region: verdict.region.clone(), need: verdict.bulk.need })
            .collect();
        line.sort_by(|a, b| b.need.total_cmp(&a.need));
        line.truncate(5);
        line
    }

    pub fn view(&self, store: &Store, knowledge: &Knowledge) -> Result<ReviewView, DeskError> {
        let (decisions, revision) = store.decisions(&self.round.id)?;
        let reviewed = self.review(knowledge);
        let was = self.case.choices.brought_up(&knowledge.atlas);
        let is_carried = self.after.as_ref().is_some_and(|(case, _)| {
            let chosen_now = case.choices.brought_up(&knowledge.atlas);
            revision > 0
                && decisions.iter().all(|(region, decision)| {
                    let chosen = chosen_now.contains(region);
                    !was.contains(region) || chosen != (*decision == Decision::Release)
                })
        });
        let photos = store.client_photos(&self.round.client_id)?;
        Ok(ReviewView {
            client_id: self.round.client_id.clone(),
            client_name: self.case.client.name.clone(),
            date: self.round.taken_on.to_string(),
            measured_by: self.round.measured_by.clone(),
            next: self.next.as_ref().map(RoundSummary::from),
            next_choices: self.after.as_ref().map(|(case, _)| ChoicesEntry::from(&case.choices)),
            next_choices_revision: self.next.as_ref().map_or(0, |next| next.choices_revision),
            weeks: self.work.weeks,
            sessions_planned: count(self.work.sessions_planned),
            sessions_kept: count(self.work.sessions_kept),
            tired: self.tired.clone(),
            areas: reviewed.areas.iter().map(|area| AreaReviewView::of(&knowledge.atlas, area)).collect(),
            regions: reviewed.regions.iter().map(RegionReviewView::from).collect(),
            in_line: self.in_line(&knowledge.atlas),
            pictures: self.next.as_ref().map_or_else(Vec::new, |next| pairs(&photos, &self.round.id, &next.id)),
            decisions,
            revision,
            carried: is_carried,
        })
    }
}

/// What was planned and done over a round up to a day, and why rest is asked for.
fn done(
    store: &Store,
    knowledge: &Knowledge,
    round: &RoundRecord,
    until: Date,
) -> Result<(RoundWork, Option<String>), DeskError> {
    let atlas = &knowledge.atlas;
    let training = Training::since(store, knowledge, &round.client_id, (round.taken_on, until))?;
    let own = training.plans.iter().filter(|plan| plan.round_id == round.id);
    let plans: Vec<&IssuedRecord> = own.map(AsRef::as_ref).collect();
    let entries: Vec<Entry> = training
        .records
        .iter()
        .filter(|record| plans.iter().any(|plan| plan.id == record.entry.plan))
        .filter_map(|record| check_log_entry(atlas, &Place::root(), &record.entry).ok())
        .collect();
    let work = round_work(atlas, &planned(&plans, until), &entries, &bands(&plans), until);
    Ok((work, training.lighten()))
}

/// What the review of the round before asks of a round's week.
pub(crate) fn last_review(
    store: &Store,
    knowledge: &Knowledge,
    round: &RoundRecord,
) -> Result<Option<LastReview>, DeskError> {
    let rounds = store.rounds(&round.client_id)?;
    let Some(before) = rounds.into_iter().rfind(|other| other.taken_on < round.taken_on) else { return Ok(None) };
    let (decisions, _) = store.decisions(&before.id)?;
    if !decisions.values().any(|decision| decision.asks_of_plan()) {
        return Ok(None);
    }
    let (work, _) = done(store, knowledge, &before, round.taken_on)?;
    Ok(Some(asked_of_plan(before.taken_on, &decisions, &work.by_region)))
}

fn count(number: usize) -> u32 {
    u32::try_from(number).unwrap_or(u32::MAX)
}

fn pairs(photos: &[PhotoRecord], before: &RoundId, now: &RoundId) -> Vec<PicturePair> {
    let of = |round: &RoundId| store::counting(photos.iter().filter(|photo| photo.round_id == *round));
    let (then, new) = (of(before), of(now));
    then.iter()
        .filter_map(|old| {
            let pose = old.shows()?;
            let same = new.iter().find(|photo| photo.shows() == Some(pose))?;
            Some(PicturePair { pose, before: old.id.clone(), now: same.id.clone() })
        })
        .collect()
}

/// The band of every region in the newest plan of a round.
fn bands(plans: &[&IssuedRecord]) -> BTreeMap<RegionId, [f64; 2]> {
    let ledger = plans.first().map(|plan| plan.plan.ledger.iter());
    ledger.into_iter().flatten().map(|row| (row.region.clone(), [row.low, row.high])).collect()
}

/// Every session of a round's plans on its day up to `until`; a later version takes over from its first week on.
fn planned(plans: &[&IssuedRecord], until: Date) -> Vec<PlannedSession> {
    let mut all = Vec::new();
    for (index, issued) in plans.iter().enumerate() {
        let ends = if index == 0 { until } else { plans[index - 1].starts_on.min(until) };
        for week in 1_u8..=250 {
            let Ok(monday) = issued.starts_on.checked_add((i64::from(week) - 1).weeks()) else { break };
            if monday >= ends {
                break;
            }
            for (place, session) in issued.plan.sessions.iter().enumerate().filter(|(_, s)| !s.items.is_empty()) {
                let Ok(on) = monday.checked_add((i64::from(session.day) - 1).days()) else { continue };
                if on >= ends {
                    continue;
                }
                let items = issued.plan.items(week, place).into_iter();
                let items = items.map(|item| (item.exercise, item.sets, item.region));
                all.push(PlannedSession { on, items: items.collect() });
            }
        }
    }
    all
}
