//! The sheet of tests: one side at a time, hangs, where it was felt, and angles from stills.

mod views;

pub use views::{AngleView, FirstSide, MeasureAngle, SaveTests, TestsSheet};

use crate::desk::Desk;
use crate::error::{DeskError, invalid};
use crate::opened::Opened;
use crate::roster::Assessor;
use assess::{Client, Test, first_side};
use casefile::{NextEntry, Problem, TestEntry, assessment_file, check_tests};
use std::collections::BTreeSet;
use store::RoundRecord;
use units::{Place, RoundId};

const MINOR: &str = "the client is under 18: no tests to a maximum";

impl Desk {
    /// The tests of a round.
    pub fn trials(&self, round_id: &RoundId) -> Result<TestsSheet, DeskError> {
        self.trials_of(self.store.round(round_id)?, Vec::new())
    }

    /// Saves the tests. Those that break a rule are not saved and are named in `problems`; what was stored for them stays.
    pub fn save_trials(&self, round_id: &RoundId, saved_by: &str, save: &SaveTests) -> Result<TestsSheet, DeskError> {
        let atlas = &self.knowledge().atlas;
        let case = self.store.case_at(atlas, round_id)?;
        let strength = |entry: &TestEntry| matches!(entry, TestEntry::OneSide { .. });
        if let Some(place) = save.tests.iter().position(strength)
            && case.client.age_on(case.as_of) < Client::ADULT_YEARS
        {
            return Err(invalid(Place::from("/tests").at(place), MINOR));
        }
        let (passed, problems) = check_tests(atlas, &"/tests".into(), &save.tests);
        let stored = case.rounds.last().map(|round| round.tests.clone()).unwrap_or_default();
        let tests = in_place(passed, &stored, &save.tests);
        self.trials_of(self.store.save_tests(round_id, save.revision, saved_by, &tests)?, problems)
    }

    /// The range of motion that three points on a still give. The still itself stays where it was taken.
    pub fn angle(&self, asked: &MeasureAngle) -> Result<AngleView, DeskError> {
        let knowledge = self.knowledge();
        let screen = knowledge.atlas.screen(&asked.screen);
        let screen = screen.ok_or_else(|| invalid("/screen", format!("there is no screen {:?}", asked.screen)))?;
        let degrees = screen.points.range_deg(asked.points);
        let degrees = degrees.ok_or_else(|| invalid("/points", "two of the three points are the same"))?;
        Ok(AngleView { degrees: degrees.round() })
    }

    fn trials_of(&self, round: RoundRecord, problems: Vec<Problem>) -> Result<TestsSheet, DeskError> {
        let knowledge = &*self.knowledge();
        let Opened { round, case, assessment } =
            Opened::of(&self.store, &Assessor::new(&self.store, knowledge), round)?;
        let earlier = &case.rounds[..case.rounds.len().saturating_sub(1)];
        let first = |exercise: &atlas::Exercise| FirstSide {
            exercise: exercise.id.clone(),
            side: first_side(&knowledge.atlas, &case.client, earlier, &assessment.regions, exercise),
        };
        let one_sided = knowledge.atlas.exercises().iter().filter(|exercise| exercise.one_sided_possible());
        let before = earlier.iter().rev().find(|round| !round.tests.is_empty());
        let file = assessment_file(knowledge, &case, &assessment, false);
        let minor = case.client.age_on(case.as_of) < Client::ADULT_YEARS;
        let entries = |round: &assess::Round| round.tests.iter().map(TestEntry::from).collect();
        Ok(TestsSheet {
            revision: round.tests_revision,
            saved_by: round.tests_saved_by,
            tests: case.rounds.last().map(entries).unwrap_or_default(),
            strength: file.strength,
            hang: file.hang,
            next: assessment.next_tests.iter().map(NextEntry::from).collect(),
            first: one_sided.map(first).collect(),
            no_strength_because: minor.then(|| MINOR.to_owned()),
            earlier_date: before.map(|round| round.date.to_string()),
            earlier: before.map(entries).unwrap_or_default(),
            problems,
        })
    }
}

/// What passed, in the order of the sheet, with the stored test of the same exercise where the new one did not pass.
fn in_place(passed: Vec<(usize, Test)>, stored: &[Test], entries: &[TestEntry]) -> Vec<Test> {
    let exercise = |entry: &TestEntry| match entry {
        TestEntry::OneSide { exercise, .. } => Some(exercise.clone()),
        TestEntry::Hang { .. } | TestEntry::Feel { .. } => None,
    };
    let kept: BTreeSet<usize> = passed.iter().map(|(place, _)| *place).collect();
    let mut all = passed;
    for (place, entry) in entries.iter().enumerate().filter(|(place, _)| !kept.contains(place)) {
        let same = stored
            .iter()
            .find(|test| exercise(entry).is_some() && exercise(&TestEntry::from(*test)) == exercise(entry));
        all.extend(same.map(|test| (place, test.clone())));
    }
    all.sort_by_key(|(place, _)| *place);
    all.into_iter().map(|(_, test)| test).collect()
}
