//! The tape sheet: read, checked while it is typed, saved without overwriting anyone.

mod views;

pub use views::{EarlierFold, EarlierValue, ReadCsv, SaveTape, TapeSheet};

use crate::desk::Desk;
use crate::error::{DeskError, invalid};
use crate::opened::Opened;
use crate::roster::Assessor;
use assess::{Case, Folds, Knowledge, MeasurerErrors, Skinfolds, TapeMeasure, measure_round};
use casefile::{
    CsvPreview, Problem, assessment_file, case_file, check_levels, check_skinfolds, check_tape, check_weight,
    is_one_line, tape_csv,
};
use std::collections::{BTreeMap, BTreeSet};
use store::{RoundRecord, SavedTape, Store};
use units::{Length, Mass, Place, RoundId, SiteId};

/// Longest name of who holds the tape, characters.
const NAME_CHARS: usize = 40;

impl Desk {
    /// The tape sheet of a round.
    pub fn tape(&self, round_id: &RoundId) -> Result<TapeSheet, DeskError> {
        self.sheet(self.store.round(round_id)?, Vec::new())
    }

    /// Saves the sheet. Entries that break a rule are not saved and are named in `problems`; what was stored for them stays.
    pub fn save_tape(&self, round_id: &RoundId, saved_by: &str, save: &SaveTape) -> Result<TapeSheet, DeskError> {
        let measured_by = measured_by(save)?;
        let (sheet, problems) = Checked::of(&self.store, &self.knowledge(), round_id, save)?;
        let tape = SavedTape {
            revision: save.revision,
            saved_by,
            measured_by,
            weight: sheet.weight,
            measures: &sheet.measures,
            folds: &sheet.folds,
            levels: &sheet.levels,
        };
        self.sheet(self.store.save_tape(round_id, &tape)?, problems)
    }

    /// Reads a CSV file as a sheet and says row by row what is wrong; nothing is saved.
    pub fn read_tape_csv(&self, file: &ReadCsv) -> CsvPreview {
        tape_csv(&self.knowledge().atlas, &file.text, file.columns.as_deref(), file.unit)
    }

    fn sheet(&self, round: RoundRecord, problems: Vec<Problem>) -> Result<TapeSheet, DeskError> {
        let knowledge = &*self.knowledge();
        let Opened { round, case, assessment } =
            Opened::of(&self.store, &Assessor::new(&self.store, knowledge), round)?;
        let file = assessment_file(knowledge, &case, &assessment, false);
        let newest = case_file(&case).rounds.pop();
        let (mut entries, folds, levels_cm) =
            newest.map(|round| (round.tape, round.skinfolds, round.levels_cm)).unwrap_or_default();
        let order = |site: &str| knowledge.atlas.sites().iter().position(|s| s.id.as_str() == site);
        entries.sort_by_key(|entry| (order(&entry.site), entry.side));
        let (earlier_date, earlier) = earlier(knowledge, &case);
        Ok(TapeSheet {
            revision: round.tape_revision,
            saved_by: round.tape_saved_by,
            measured_by: round.measured_by,
            weight_kg: round.weight.map(Mass::kg),
            entries,
            folds,
            levels_cm,
            fold_values: file.skinfolds,
            sites: file.sites,
            asymmetries: file.asymmetries,
            changes: file.changes,
            warnings: file.warnings,
            problems,
            earlier_date,
            earlier,
            earlier_folds: earlier_folds(knowledge, &case),
            earlier_levels_cm: earlier_levels(&case),
        })
    }
}

/// What of a sheet may be saved: what passed, and what is stored where something did not.
struct Checked {
    weight: Option<Mass>,
    measures: Vec<TapeMeasure>,
    folds: Vec<Skinfolds>,
    levels: BTreeMap<SiteId, Length>,
}

impl Checked {
    fn of(
        store: &Store,
        knowledge: &Knowledge,
        id: &RoundId,
        body: &SaveTape,
    ) -> Result<(Self, Vec<Problem>), DeskError> {
        let atlas = &knowledge.atlas;
        let (measures, mut problems) = check_tape(atlas, &"/entries".into(), &body.entries);
        let (folds, wrong_folds) = check_skinfolds(atlas, &"/folds".into(), &body.folds);
        let (mut levels, wrong_levels) = check_levels(atlas, &"/levels_cm".into(), &body.levels_cm);
        let stored = if [&problems, &wrong_folds, &wrong_levels].iter().all(|p| p.is_empty()) {
            None
        } else {
            store.case_at(atlas, id)?.rounds.pop()
        };
        let stored = stored.as_ref();
        let measures =
            with_stored(measures, refused(&problems, &"/entries".into()), stored.map_or(&[], |s| &s.tape), |index| {
                let entry = &body.entries[index];
                move |m: &TapeMeasure| m.site.as_str() == entry.site && m.side == entry.side
            });
        let folds = with_stored(
            folds,
            refused(&wrong_folds, &"/folds".into()),
            stored.map_or(&[], |s| &s.skinfolds),
            |index| {
                let entry = &body.folds[index];
                move |m: &Skinfolds| m.site.as_str() == entry.site && m.side == entry.side
            },
        );
        for site in wrong_levels.iter().filter_map(|problem| problem.pointer.last()) {
            let kept = stored.and_then(|s| s.levels.iter().find(|(id, _)| id.as_str() == site));
            levels.extend(kept.map(|(id, level)| (id.clone(), *level)));
        }
        problems.extend(wrong_folds);
        problems.extend(wrong_levels);
        let weight = match body.weight_kg.map(|kg| check_weight(atlas, &"/weight_kg".into(), kg)).transpose() {
            Ok(weight) => weight,
            Err(wrong) => {
                problems.extend(wrong);
                store.round(id)?.weight
            }
        };
        Ok((Self { weight, measures, folds, levels }, problems))
    }
}

/// The places in a list that problems are about.
fn refused(problems: &[Problem], list: &Place) -> BTreeSet<usize> {
    let place = |problem: &Problem| problem.pointer.within(list)?.first()?.parse().ok();
    problems.iter().filter_map(place).collect()
}

/// Adds what is stored for places whose new readings were refused, so that a slip of the finger deletes nothing.
fn with_stored<T: Clone, M: Fn(&T) -> bool>(
    mut passed: Vec<T>,
    refused: BTreeSet<usize>,
    stored: &[T],
    same_place: impl Fn(usize) -> M,
) -> Vec<T> {
    for index in refused {
        let same = same_place(index);
        let kept = stored.iter().find(|one| same(one)).filter(|_| !passed.iter().any(&same));
        passed.extend(kept.cloned());
    }
    passed
}

fn measured_by(body: &SaveTape) -> Result<&str, DeskError> {
    let name = body.measured_by.trim();
    if name.is_empty() || name.chars().count() > NAME_CHARS || !is_one_line(name) {
        return Err(invalid("/measured_by", "who holds the tape is needed: expected initials or a name"));
    }
    Ok(name)
}

/// Where the tape lay the last time it was noted.
fn earlier_levels(case: &Case) -> BTreeMap<String, f64> {
    let earlier = case.rounds.iter().rev().skip(1).collect::<Vec<_>>();
    // Oldest first, so that the newest of them stands in the end.
    let noted = earlier.into_iter().rev().flat_map(|round| &round.levels);
    noted.map(|(site, level)| (site.to_string(), level.cm())).collect()
}

/// Skinfolds of the latest round before this one with some.
fn earlier_folds(knowledge: &Knowledge, case: &Case) -> Vec<EarlierFold> {
    let before = case.rounds.iter().rev().skip(1).find(|round| !round.skinfolds.is_empty());
    let folds = before.map(|round| Folds::measure(&knowledge.atlas, round, &MeasurerErrors::default()));
    let sites = folds.into_iter().flat_map(|folds| folds.sites);
    sites.map(|fold| EarlierFold { site: fold.site, side: fold.side, value_mm: fold.value_mm }).collect()
}

/// The values of the round before, so that a new reading can be read against them.
fn earlier(knowledge: &Knowledge, case: &Case) -> (Option<String>, Vec<EarlierValue>) {
    let mut before = case.clone();
    before.rounds.pop();
    let Some(date) = before.rounds.last().map(|round| round.date.to_string()) else { return (None, Vec::new()) };
    let errors = MeasurerErrors::learn(&knowledge.atlas, &before.rounds);
    let values = measure_round(&knowledge.atlas, &before.rounds, &errors).sites.into_iter();
    (Some(date), values.map(|m| EarlierValue { site: m.site, side: m.side, value_cm: m.value_cm }).collect())
}
