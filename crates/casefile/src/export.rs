//! A case back into its file, so that the same client can be assessed from the command line.

use crate::raw::{
    CaseFile, ChoicesEntry, ClearanceEntry, ClientEntry, ConsentEntry, HomeEntry, OutlineEntry, OverrideEntry,
    PictureGirthEntry, PracticeEntry, RatingEntry, ReadinessEntry, RoundEntry, SkinfoldEntry, StrengthEntry, TapeEntry,
    TestEntry, TrainingRow,
};
use assess::{Case, Choices, Client, Rating, RatingJudgement, Round, StrengthSet, Test, TrainingEntry};
use atlas::PracticeSettings;
use std::collections::BTreeMap;
use units::{AnswerId, RegionId, SchoolId};

fn texts<T: ToString>(ids: impl IntoIterator<Item = T>) -> Vec<String> {
    ids.into_iter().map(|id| id.to_string()).collect()
}

/// The file of a case; [`CaseFile::resolve`] gives the same case again.
pub fn case_file(case: &Case) -> CaseFile {
    CaseFile {
        format: CaseFile::FORMAT.to_owned(),
        version: CaseFile::VERSION,
        as_of: case.as_of.to_string(),
        client: ClientEntry::from(&case.client),
        rounds: case.rounds.iter().map(round).collect(),
        training: case.training.iter().map(TrainingRow::from).collect(),
        choices: ChoicesEntry::from(&case.choices),
        set_ups: case.set_ups.iter().map(|(exercise, kept)| (exercise.to_string(), kept.clone())).collect(),
        practice: PracticeEntry::default(),
    }
}

impl From<&PracticeSettings> for PracticeEntry {
    fn from(settings: &PracticeSettings) -> Self {
        let row = |row: &BTreeMap<RegionId, f64>| row.iter().map(|(id, share)| (id.to_string(), *share)).collect();
        Self {
            schools: answers(&settings.schools),
            numbers: settings.numbers.clone(),
            exercises: settings.exercises.clone(),
            composition: settings.composition.iter().map(|(site, shares)| (site.to_string(), row(shares))).collect(),
        }
    }
}

impl From<&Client> for ClientEntry {
    fn from(client: &Client) -> Self {
        Self {
            name: client.name.clone(),
            sex: client.sex,
            birth_date: client.birth_date.to_string(),
            height_cm: client.height.cm(),
            dominant_hand: client.dominant_hand,
            experience: client.experience,
            look: client.look.to_string(),
            look_weights: client.look_weights.iter().map(|(region, weight)| (region.to_string(), *weight)).collect(),
            days_per_week: client.days_per_week,
            minutes_per_session: client.minutes_per_session,
            max_exercises_per_session: client.max_exercises_per_session,
            equipment: texts(&client.equipment),
            home: client
                .home
                .as_ref()
                .map(|home| HomeEntry { days_per_week: home.days_per_week, equipment: texts(&home.equipment) }),
            pain: client.pain.clone(),
            screens: client.screens.clone(),
            excluded_exercises: texts(&client.excluded_exercises),
            schools: answers(&client.schools),
            photo_consent: client.photo_consent.as_ref().map(|consent| ConsentEntry {
                given_on: consent.given_on.to_string(),
                purposes: consent.purposes.iter().copied().collect(),
            }),
            readiness: client.readiness.as_ref().map(|readiness| ReadinessEntry {
                asked_on: readiness.asked_on.to_string(),
                yes: texts(&readiness.yes),
            }),
            clearance: client.clearance.as_ref().map(|clearance| ClearanceEntry {
                given_on: clearance.given_on.to_string(),
                note: clearance.note.clone(),
            }),
            measures: client.measures,
            tags: client.tags.clone(),
        }
    }
}

impl From<&Choices> for ChoicesEntry {
    fn from(choices: &Choices) -> Self {
        let overrides = choices.overrides.iter().map(|o| OverrideEntry {
            region: o.region.to_string(),
            verdict: o.verdict,
            reason: o.reason.clone(),
        });
        Self {
            bring_up: texts(&choices.bring_up),
            areas: choices.areas.iter().map(ToString::to_string).collect(),
            hold_back: texts(&choices.hold_back),
            overrides: overrides.collect(),
            share: choices.share.iter().copied().collect(),
        }
    }
}

fn round(round: &Round) -> RoundEntry {
    let tape = round.tape.iter().map(|m| TapeEntry {
        site: m.site.to_string(),
        side: m.side,
        readings_cm: m.readings.iter().map(|r| r.cm()).collect(),
    });
    let skinfolds = round.skinfolds.iter().map(|m| SkinfoldEntry {
        site: m.site.to_string(),
        side: m.side,
        readings_mm: m.readings.iter().map(|r| r.mm()).collect(),
    });
    let outlines = round.outlines.iter().map(|outline| OutlineEntry {
        segment: outline.segment,
        left_width_cm: outline.width.left.cm(),
        right_width_cm: outline.width.right.cm(),
    });
    let picture_girths = round.picture_girths.iter().map(|girth| PictureGirthEntry {
        site: girth.site.to_string(),
        side: girth.side,
        cm: girth.value.cm(),
        from: girth.from,
    });
    RoundEntry {
        date: round.date.to_string(),
        weight_kg: round.weight.map(units::Mass::kg),
        measured_by: round.measured_by.clone(),
        tape: tape.collect(),
        levels_cm: round.levels.iter().map(|(site, level)| (site.to_string(), level.cm())).collect(),
        skinfolds: skinfolds.collect(),
        ratings: round.ratings.iter().map(rating).collect(),
        outlines: outlines.collect(),
        picture_girths: picture_girths.collect(),
        tests: round.tests.iter().map(TestEntry::from).collect(),
    }
}

fn rating(rating: &Rating) -> RatingEntry {
    let (score, left_right) = match rating.judgement {
        RatingJudgement::Standing(score) => (Some(score), None),
        RatingJudgement::LeftRight(sides) => (None, Some(sides)),
    };
    RatingEntry {
        region: rating.region.to_string(),
        pose: rating.pose.to_string(),
        score,
        left_right,
        rater_sd_steps: rating.rater_sd_steps,
        sitting: (!rating.sitting.is_empty()).then(|| rating.sitting.clone()),
    }
}

fn strength(set: StrengthSet) -> StrengthEntry {
    StrengthEntry { load_kg: set.load.kg(), reps: set.reps }
}

impl From<&Test> for TestEntry {
    fn from(test: &Test) -> Self {
        match test {
            Test::OneSide(test) => Self::OneSide {
                exercise: test.exercise.to_string(),
                left: strength(test.sides.left),
                right: strength(test.sides.right),
            },
            Test::Hang(seconds) => Self::Hang { seconds: *seconds },
            Test::Feel(felt) => Self::Feel {
                exercise: felt.exercise.to_string(),
                region: felt.region.to_string(),
                felt: felt.felt.clone(),
            },
        }
    }
}

impl From<&TrainingEntry> for TrainingRow {
    fn from(entry: &TrainingEntry) -> Self {
        Self {
            week_of: entry.week_of.to_string(),
            session: entry.session,
            position: entry.position,
            exercise: entry.exercise.to_string(),
            sets: entry.sets,
            one_sided: entry.one_sided,
            reps: entry.reps,
            swung: entry.swung,
        }
    }
}

/// Answers to schools as files write them.
fn answers(schools: &BTreeMap<SchoolId, AnswerId>) -> BTreeMap<String, String> {
    schools.iter().map(|(school, answer)| (school.to_string(), answer.to_string())).collect()
}
