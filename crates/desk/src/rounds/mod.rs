//! A round: opened, its steps, its verdict, the choices made on it, its case file.

mod steps;
mod views;

pub use views::{NewRoundRequest, RoundView, SaveChoices, SaveRound, StepState, StepView, VerdictView};

use crate::clients::RoundSummary;
use crate::desk::{Desk, today};
use crate::error::{DeskError, invalid};
use crate::opened::Opened;
use casefile::{CaseFile, ChoicesEntry, Problem, assessment_file, case_file, check_choices, is_one_line};
use jiff::civil::Date;
use steps::{Afterwards, steps};
use store::{ClientRecord, NewRound};
use units::{ClientId, Mass, RoundId};

impl Desk {
    /// Opens a round.
    pub fn open_round(&self, client_id: &ClientId, request: &NewRoundRequest) -> Result<RoundSummary, DeskError> {
        let new = checked_round(request, today())?;
        not_before_birth(&self.store.client(&self.knowledge().atlas, client_id)?, new.taken_on)?;
        Ok(RoundSummary::from(&self.store.add_round(client_id, &new)?))
    }

    /// Gives a round another day.
    pub fn redate_round(&self, id: &RoundId, save: &SaveRound) -> Result<(), DeskError> {
        let day = past_day(&save.date, today()).map_err(|says| invalid("/date", says))?;
        let client_id = self.store.round(id)?.client_id;
        not_before_birth(&self.store.client(&self.knowledge().atlas, &client_id)?, day)?;
        self.store.redate_round(id, day)?;
        Ok(())
    }

    /// A round with its steps.
    pub fn round(&self, id: &RoundId) -> Result<RoundView, DeskError> {
        let store = &self.store;
        let Opened { round, case, assessment } = Opened::read(store, &self.knowledge(), id)?;
        let rounds = store.rounds(&round.client_id)?;
        let mut own = store.client_photos(&round.client_id)?;
        own.retain(|photo| photo.round_id == round.id);
        let after = Afterwards {
            sessions: store.logged_sessions(&round.id)?,
            measured_again: rounds.iter().any(|other| other.taken_on > round.taken_on),
            decided: store.decisions(&round.id)?.1 > 0,
        };
        Ok(RoundView {
            id: round.id,
            client_id: round.client_id,
            client_name: case.client.name.clone(),
            date: round.taken_on.to_string(),
            measured_by: round.measured_by,
            weight_kg: round.weight.map(Mass::kg),
            rounds: rounds.iter().rev().map(RoundSummary::from).collect(),
            steps: steps(&case, &assessment, &own, &after),
        })
    }

    /// The verdict of a round with its evidence.
    pub fn verdict(&self, id: &RoundId) -> Result<VerdictView, DeskError> {
        let knowledge = self.knowledge();
        let Opened { round, case, assessment } = Opened::read(&self.store, &knowledge, id)?;
        Ok(VerdictView {
            assessment: assessment_file(&knowledge, &case, &assessment, true),
            choices: ChoicesEntry::from(&case.choices),
            choices_revision: round.choices_revision,
        })
    }

    /// Saves what to bring up, what to hold back, and verdicts overruled.
    pub fn save_choices(&self, id: &RoundId, save: &SaveChoices) -> Result<VerdictView, DeskError> {
        let atlas = &self.knowledge().atlas;
        let choices = check_choices(atlas, &"/choices".into(), &save.choices).map_err(DeskError::Invalid)?;
        self.store.save_choices(id, save.revision, &choices)?;
        self.verdict(id)
    }

    /// The client's case file as of a round: with the practice's settings the command line comes to the same verdict as the screen.
    pub fn case_file(&self, id: &RoundId) -> Result<CaseFile, DeskError> {
        let case = self.store.case_at(&self.knowledge().atlas, id)?;
        Ok(CaseFile { practice: self.store.practice()?.settings, ..case_file(&case) })
    }
}

/// A round of a day on which the client was there.
fn not_before_birth(record: &ClientRecord, day: Date) -> Result<(), DeskError> {
    let born = record.client.birth_date;
    if day >= born {
        return Ok(());
    }
    let says = format!("{day} is before the client was born, on {born}");
    Err(invalid("/date", says))
}

/// A day that is over or today, from what was typed.
fn past_day(text: &str, today: Date) -> Result<Date, String> {
    match text.parse::<Date>() {
        Err(_) => Err(format!("{text:?} is not a date of the calendar: expected YYYY-MM-DD")),
        Ok(date) if date > today => Err(format!("{date} is in the future: today is {today}")),
        Ok(date) => Ok(date),
    }
}

fn checked_round(request: &NewRoundRequest, today: Date) -> Result<NewRound, DeskError> {
    let mut problems = Vec::new();
    let mut fail = |pointer: &str, says: String| problems.push(Problem::new(pointer, says));
    let date = past_day(&request.date, today);
    if let Err(says) = &date {
        fail("/date", says.clone());
    }
    if request.measured_by.trim().is_empty() || !is_one_line(request.measured_by.trim()) {
        fail("/measured_by", "who holds the tape is needed: expected initials or a name".to_owned());
    }
    let weight = request.weight_kg.map(Mass::from_kg).transpose();
    if let Err(error) = &weight {
        fail("/weight_kg", error.to_string());
    }
    match (date, weight, problems.is_empty()) {
        (Ok(taken_on), Ok(weight), true) => {
            Ok(NewRound { taken_on, measured_by: request.measured_by.trim().to_owned(), weight })
        }
        _ => Err(DeskError::Invalid(problems)),
    }
}
