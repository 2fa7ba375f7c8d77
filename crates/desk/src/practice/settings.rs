//! What the practice sets beside what ships, and its own exercises.

use super::{ActView, PracticeView, SaveExercise, SavePractice, SettingView};
use crate::desk::Desk;
use crate::error::{DeskError, invalid};
use assess::Knowledge;
use casefile::{PracticeEntry, Problem, check_practice};
use roles::{Act, TABLE};
use store::{Account, Store};
use units::Place;

impl Desk {
    /// What the practice sets, as somebody sees it.
    pub fn practice(&self, who: &Account) -> Result<PracticeView, DeskError> {
        view(&self.store, self.shipped(), who)
    }

    /// Saves what the practice sets; every verdict from now on follows it.
    pub fn save_practice(&self, who: &Account, save: &SavePractice) -> Result<PracticeView, DeskError> {
        let checked =
            check_practice(&self.shipped().atlas, &"/settings".into(), &save.settings).map_err(DeskError::Invalid)?;
        none_taken_away(&self.store.practice()?.settings, &save.settings)?;
        self.store.save_practice(save.revision, &who.name, &PracticeEntry::from(&checked))?;
        self.take_up(&checked);
        self.practice(who)
    }

    /// Adds an exercise of the practice's own, or changes one; the planner uses it from now on.
    pub fn save_exercise(&self, who: &Account, save: SaveExercise) -> Result<PracticeView, DeskError> {
        let SaveExercise { revision, exercise } = save;
        let mut entry = self.store.practice()?.settings;
        let place = entry.exercises.iter().position(|own| own.id == exercise.id).unwrap_or(entry.exercises.len());
        if place == entry.exercises.len() {
            entry.exercises.push(exercise);
        } else {
            entry.exercises[place] = exercise;
        }
        let checked = check_practice(&self.shipped().atlas, &Place::root(), &entry)
            .map_err(|problems| of_one(place, problems))?;
        self.store.save_practice(revision, &who.name, &PracticeEntry::from(&checked))?;
        self.take_up(&checked);
        self.practice(who)
    }
}

/// The sheet shows one exercise: its places are named from there.
fn of_one(place: usize, problems: Vec<Problem>) -> DeskError {
    let own = Place::from("/exercises").at(place);
    let named = |problem: Problem| {
        let pointer = problem.pointer.within(&own).map(|field| Place::from("/exercise").then(&field));
        Problem { pointer: pointer.unwrap_or(problem.pointer), says: problem.says }
    };
    DeskError::Invalid(problems.into_iter().map(named).collect())
}

fn view(store: &Store, shipped: &Knowledge, account: &Account) -> Result<PracticeView, DeskError> {
    let record = store.practice()?;
    let (atlas, settings) = (&shipped.atlas, &record.settings);
    let setting = |setting: &atlas::Setting| SettingView {
        shipped: atlas.number(&setting.id).unwrap_or_default(),
        value: settings.numbers.get(&setting.id).copied(),
        setting: setting.clone(),
    };
    Ok(PracticeView {
        revision: record.revision,
        saved_by: record.saved_by,
        may_change: account.role.may(Act::Settings),
        numbers: atlas.settings().iter().map(setting).collect(),
        shipped_schools: atlas.schools().iter().map(|school| (school.id.clone(), school.default.clone())).collect(),
        shipped_composition: atlas.evidence().composition.clone(),
        settings: record.settings,
        acts: TABLE.iter().map(ActView::from).collect(),
    })
}

/// Own exercises stand in plans and logs, so none is taken away: what is no longer wanted is advised against.
fn none_taken_away(stored: &PracticeEntry, new: &PracticeEntry) -> Result<(), DeskError> {
    let kept = |id| new.exercises.iter().any(|exercise| exercise.id == id);
    match stored.exercises.iter().position(|exercise| !kept(exercise.id.clone())) {
        None => Ok(()),
        Some(place) => {
            let name = &stored.exercises[place].name;
            let says = format!("{name} may stand in plans and cannot be taken away: advise against it instead");
            Err(invalid("/settings/exercises", says))
        }
    }
}
