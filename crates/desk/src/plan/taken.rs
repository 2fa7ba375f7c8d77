//! Weeks that can be taken for a client: those the practice keeps under a name, and what its other clients have.

use super::{
    CopiedWeek, CopyWeek, KeepWeek, KeptWeek, OthersWeek, Planned, Planning, ReplacedView, WeekSource, WeeksView,
};
use crate::desk::Desk;
use crate::error::DeskError;
use casefile::{WeekDraft, check_week, check_week_name};
use jiff::tz::TimeZone;
use plan::fitted;
use store::{GivenWeek, SavedWeek, Store};
use units::RoundId;

impl Desk {
    /// Every week that can be taken.
    pub fn weeks(&self) -> Result<WeeksView, DeskError> {
        let kept = |SavedWeek { id, name, week, saved_by, saved_at }| KeptWeek {
            days: trained_days(&week),
            minutes: week.minutes,
            saved_on: saved_at.to_zoned_datetime(TimeZone::system()).date().to_string(),
            id,
            name,
            saved_by,
        };
        let other = |GivenWeek { client_id, client_name, plan_id, starts_on, week }| OthersWeek {
            days: trained_days(&week),
            minutes: week.minutes,
            client_id,
            client_name,
            plan: plan_id,
            starts_on,
        };
        Ok(WeeksView {
            kept: self.store.saved_weeks()?.into_iter().map(kept).collect(),
            others: self.store.given_weeks()?.into_iter().map(other).collect(),
        })
    }

    /// Keeps a week under a name.
    pub fn keep_week(&self, by: &str, asked: &KeepWeek) -> Result<(), DeskError> {
        let KeepWeek { name, week, replace } = asked;
        let name = check_week_name(&"/name".into(), name).map_err(|problem| DeskError::Invalid(vec![problem]))?;
        check_week(&self.knowledge().atlas, &"/week".into(), week).map_err(DeskError::Invalid)?;
        let taken = || DeskError::Conflict {
            detail: format!("There is a week called {name} already: replace it, or choose another name."),
            current_revision: None,
        };
        self.store.save_week(&name, week, by, *replace)?.then_some(()).ok_or_else(taken)
    }

    /// A week of somebody else as this round's client can train it: on their days, in their minutes, with what pain, kit and the
    /// brief rule out swapped or left out. Nothing is kept.
    pub fn copy_week(&self, round_id: &RoundId, asked: &CopyWeek) -> Result<CopiedWeek, DeskError> {
        let mut week = source(&self.store, &asked.from)?;
        let knowledge = self.knowledge();
        let planning = Planning::read(&self.store, &knowledge, round_id)?;
        planning.onto_days(&mut week);
        let Planned { problem, draft, weeks } = planning.of(&"/from".into(), &week)?;
        let (draft, replaced) = fitted(&problem, &draft);
        let week = planning.week(&Planned { problem, draft, weeks });
        let replaced = replaced.into_iter().map(|replaced| ReplacedView {
            day: week.sessions[replaced.session].day,
            name: replaced.name,
            because: replaced.because,
            instead: replaced.instead,
        });
        Ok(CopiedWeek { replaced: replaced.collect(), week })
    }
}

fn trained_days(week: &WeekDraft) -> usize {
    week.sessions.iter().filter(|day| !day.items.is_empty()).count()
}

fn source(store: &Store, from: &WeekSource) -> Result<WeekDraft, DeskError> {
    Ok(match from {
        WeekSource::Kept(id) => store.saved_week(id)?.week,
        WeekSource::Plan(id) => store.issued_plan(id)?.week,
    })
}
