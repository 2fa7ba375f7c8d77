//! The log: this week for coach and phone, entries from devices, what the coach says instead of the rules.

mod done;
mod instead;
mod receiving;
mod since;
mod training;
mod views;

pub(crate) use instead::Instead;
pub use receiving::{Received, received};
pub(crate) use since::{REFER, Since, open, since};
pub(crate) use training::Training;
pub use views::{
    DoneSession, EntryFate, EntryOutcome, FeelChoice, FormChoice, InsteadView, LastTime, LogEntryView, LogPage,
    PlanInHand, ReportedView, SaveTarget, SendEntries, SentEntries, SessionState, TargetView, TrainingItem,
    TrainingSession, TrainingView,
};

use crate::desk::{Desk, today};
use crate::error::{DeskError, invalid};
use assess::Knowledge;
use done::{done, newest};
use jiff::Timestamp;
use logbook::Overrule;
use units::ClientId;

/// Sessions shown before all are asked for.
const SESSIONS: usize = 6;
/// What a coach may ask for next time: kg, and repetitions or seconds.
const LOAD_KG: [f64; 2] = [0.25, 600.0];
const COUNT: [u16; 2] = [1, 200];

impl Desk {
    /// This week of a client: sessions, targets, what was logged.
    pub fn week(&self, client_id: &ClientId) -> Result<TrainingView, DeskError> {
        let knowledge = self.knowledge();
        Training::read(&self.store, &knowledge, client_id, today())?.view(self, client_id)
    }

    /// What was reported of the form the last time each exercise was done, for a card and for paper.
    pub fn reported(&self, client_id: &ClientId) -> Result<ReportedView, DeskError> {
        let knowledge = self.knowledge();
        let training = Training::read(&self.store, &knowledge, client_id, today())?;
        Ok(ReportedView { reported: training.reported() })
    }

    /// The log of a client under their plans, newest first, with this week; the newest few sessions, or all of the last twelve weeks.
    pub fn log(&self, client_id: &ClientId, all: bool) -> Result<LogPage, DeskError> {
        let knowledge = self.knowledge();
        let training = Training::read(&self.store, &knowledge, client_id, today())?;
        let sessions = done(&training.plans, &training.records);
        Ok(LogPage {
            now: training.view(self, client_id)?,
            sessions: u32::try_from(sessions.len()).unwrap_or(u32::MAX),
            done: newest(sessions, if all { usize::MAX } else { SESSIONS }),
            lighten: training.lighten(),
            weeks: training.plan().map(|issued| issued.plan.weeks.clone()).unwrap_or_default(),
        })
    }

    /// Says what is done next time of an exercise, or takes that back.
    pub fn save_target(
        &self,
        client_id: &ClientId,
        exercise: &str,
        by: &str,
        save: &SaveTarget,
    ) -> Result<(), DeskError> {
        let knowledge = self.knowledge();
        self.store.client(&knowledge.atlas, client_id)?;
        known(&knowledge, exercise)?;
        if let Some(said) = &save.overrule {
            check_overrule(said)?;
        }
        Ok(self.store.save_overrule(client_id, exercise, save.overrule.as_ref(), by, Timestamp::now())?)
    }
}

fn known(knowledge: &Knowledge, exercise: &str) -> Result<(), DeskError> {
    let known = exercise.parse().ok().and_then(|id| knowledge.atlas.exercise(&id));
    known.map(drop).ok_or_else(|| DeskError::NotFound(format!("there is no exercise {exercise:?}")))
}

fn check_overrule(said: &Overrule) -> Result<(), DeskError> {
    let [least, most] = LOAD_KG;
    if !said.load_kg.is_none_or(|kg| (least..=most).contains(&kg)) {
        return Err(invalid("/overrule/load_kg", format!("a load is {least} to {most} kg")));
    }
    let [least, most] = COUNT;
    if !(least..=most).contains(&said.count) {
        return Err(invalid("/overrule/count", format!("repetitions or seconds are {least} to {most}")));
    }
    if said.note.trim().is_empty() {
        return Err(invalid("/overrule/note", "a reason is needed: it is shown to the client"));
    }
    Ok(())
}
