//! What a client is given: a week as a version of theirs, and what of it is taken out as a file.

use super::{IssuePlan, IssuedSummary, IssuedView, PlanView};
use crate::desk::{Desk, today};
use crate::error::{DeskError, invalid};
use crate::log::Training;
use casefile::WeekDraft;
use handout::{Handout, HandoutError};
use jiff::Unit;
use jiff::civil::Date;
use logbook::monday;
use serde::Deserialize;
use store::{Account, NewIssue, SetUpSaid};
use units::{PlanId, RoundId};
use utoipa::ToSchema;

/// A week starts within so many years of today.
const MOST_YEARS: i16 = 5;

/// A kind of file.
#[derive(Clone, Copy, Deserialize, ToSchema)]
#[serde(rename_all = "lowercase")]
pub enum FileKind {
    /// A4, one session a page.
    Pdf,
    /// Calendar entries.
    Ics,
    /// A table.
    Csv,
}

impl FileKind {
    /// What it is called on the web.
    pub fn content_type(self) -> &'static str {
        match self {
            Self::Pdf => "application/pdf",
            Self::Ics => "text/calendar; charset=utf-8",
            Self::Csv => "text/csv; charset=utf-8",
        }
    }

    fn ending(self) -> &'static str {
        match self {
            Self::Pdf => "pdf",
            Self::Ics => "ics",
            Self::Csv => "csv",
        }
    }

    fn written(self, handout: &Handout) -> Result<Vec<u8>, HandoutError> {
        match self {
            Self::Pdf => handout::pdf(handout),
            Self::Ics => handout::calendar(handout).map(String::into_bytes),
            Self::Csv => handout::table(handout).map(String::into_bytes),
        }
    }
}

/// A plan as a file for the client.
pub struct PlanPaper {
    /// A name for it.
    pub name: String,
    /// What is in it.
    pub bytes: Vec<u8>,
}

impl Desk {
    /// Gives the client the week that is kept, as their next version.
    pub fn issue_plan(&self, round_id: &RoundId, by: &Account, asked: &IssuePlan) -> Result<IssuedSummary, DeskError> {
        let starts_on = first_monday(&asked.starts_on)?;
        let PlanView { week, plan, revision, draft_because, .. } = self.plan(round_id)?;
        if let Some(why) = draft_because {
            return Err(DeskError::Refused(format!("The plan stays a draft: {why}.")));
        }
        if revision != asked.revision {
            let detail = "The week was changed since it was shown; look at it again before it is given.".to_owned();
            return Err(DeskError::Conflict { detail, current_revision: Some(revision) });
        }
        if let Some(broken) = plan.broken.iter().find(|broken| broken.forbids) {
            return Err(DeskError::Refused(broken.says.clone()));
        }
        if plan.sessions.iter().all(|session| session.items.is_empty()) {
            return Err(DeskError::Refused("The week has no exercise yet: nothing can be given.".to_owned()));
        }
        let issued_on = today();
        // What the coach wrote of a set-up is remembered for the next plans.
        let client_id = self.store.round(round_id)?.client_id;
        self.store.keep_said(&client_id, (issued_on, &by.name), &said(&week))?;
        let new = NewIssue {
            round_id: round_id.to_owned(),
            issued_on,
            starts_on,
            issued_by: by.name.clone(),
            issued_by_id: Some(by.id.clone()),
            week,
            plan,
        };
        Ok(IssuedSummary::from(&self.store.issue_plan(&new)?))
    }

    /// A plan a client was given.
    pub fn issued_plan(&self, plan_id: &PlanId) -> Result<IssuedView, DeskError> {
        let record = self.store.issued_plan(plan_id)?;
        let client_name = self.store.client(&self.knowledge().atlas, &record.client_id)?.client.name;
        Ok(IssuedView { summary: IssuedSummary::from(&record), client_name, week: record.week, plan: record.plan })
    }

    /// A plan a client was given, as a file for them.
    pub fn plan_paper(&self, plan_id: &PlanId, kind: FileKind) -> Result<PlanPaper, DeskError> {
        let knowledge = &*self.knowledge();
        let record = self.store.issued_plan(plan_id)?;
        let client = self.store.client(&knowledge.atlas, &record.client_id)?.client;
        let reported = Training::read(&self.store, knowledge, &record.client_id, today())?.reported();
        let handout = Handout {
            id: record.id.as_str(),
            client_name: &client.name,
            version: record.version,
            issued_on: record.issued_on,
            starts_on: record.starts_on,
            plan: &record.plan,
            atlas: &knowledge.atlas,
            reported: &reported,
            measures: client.measures,
        };
        let bytes = kind.written(&handout).map_err(DeskError::internal)?;
        let name = format!("plan-{}-version-{}.{}", record.starts_on, record.version, kind.ending());
        Ok(PlanPaper { name, bytes })
    }
}

/// What a coach wrote of the set-ups of a week.
fn said(week: &WeekDraft) -> Vec<SetUpSaid> {
    let cards = week.sessions.iter().flat_map(|day| &day.items);
    let said = cards.filter_map(|card| {
        let (numbers, variant) = (card.written.set_up.clone(), card.written.variant.clone());
        Some(SetUpSaid { exercise: card.exercise.parse().ok()?, numbers, variant })
    });
    said.collect()
}

/// The Monday of the week of a day that was typed.
fn first_monday(text: &str) -> Result<Date, DeskError> {
    let says = || invalid("/starts_on", format!("{text:?} is not a date of the calendar: expected YYYY-MM-DD"));
    let day: Date = text.parse().ok().filter(|_| text.len() == 10).ok_or_else(says)?;
    let far = day.since((Unit::Year, today())).map_or(i16::MAX, |span| span.get_years().abs());
    if far >= MOST_YEARS {
        return Err(invalid("/starts_on", format!("{day} is more than {MOST_YEARS} years from today")));
    }
    Ok(monday(day))
}
