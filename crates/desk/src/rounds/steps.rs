//! How far each of the eight steps of a round has come.

use super::{StepState, StepView};
use assess::{AreaVerdict, Assessment, Case, NotReady, Standing};
use store::{PhotoRecord, PhotoState};
use units::RegionId;

fn view(step: &str, state: StepState, says: impl Into<String>) -> StepView {
    StepView { step: step.to_owned(), state, says: says.into() }
}

/// What was logged and decided in a round.
pub struct Afterwards {
    /// Sessions logged; none when no plan was given.
    pub sessions: Option<usize>,
    /// Whether the next round is opened.
    pub measured_again: bool,
    /// Whether something was decided.
    pub decided: bool,
}

/// The steps in order.
pub fn steps(case: &Case, assessment: &Assessment, pictures: &[PhotoRecord], after: &Afterwards) -> Vec<StepView> {
    vec![
        brief(case),
        photos(case, pictures),
        tape(assessment),
        tests(case, assessment),
        verdict(assessment),
        plan(case),
        log(after),
        review(after),
    ]
}

fn brief(case: &Case) -> StepView {
    if case.client.equipment.is_empty() && case.client.home.is_none() {
        return view("brief", StepState::Look, "no equipment");
    }
    match case.client.may_be_given_a_plan() {
        Err(NotReady::NotAsked) => return view("brief", StepState::Look, "readiness not asked"),
        Err(NotReady::NotCleared) => return view("brief", StepState::Look, "clearance needed"),
        Ok(()) => {}
    }
    view("brief", StepState::Enough, format!("{} a week", counted(case.client.days_per_week.into(), "day")))
}

/// So many of a thing.
fn counted(count: usize, thing: &str) -> String {
    if count == 1 { format!("1 {thing}") } else { format!("{count} {thing}s") }
}

fn photos(case: &Case, pictures: &[PhotoRecord]) -> StepView {
    if pictures.is_empty() {
        let refusal = case.client.may_be_photographed(case.as_of).err();
        return view("photos", StepState::Empty, refusal.map_or("no pictures", |_| "not allowed yet"));
    }
    let count = pictures.len();
    let failing = |photo: &PhotoRecord| {
        let measured = photo.measured.as_ref();
        measured.is_some_and(|m| !m.person || m.quality.iter().any(|check| !check.ok))
    };
    let unsaid = pictures.iter().filter(|photo| photo.mirrored.is_none()).count();
    let doubtful =
        pictures.iter().filter(|photo| failing(photo) || matches!(photo.state, PhotoState::Failed(_))).count();
    let waiting = pictures.iter().filter(|photo| photo.state == PhotoState::Waiting).count();
    match (waiting, unsaid, doubtful) {
        (0, 0, 0) => {
            let rated = case.rounds.last().map_or(0, |round| round.ratings.len());
            view("photos", StepState::Enough, format!("{}, {}", counted(count, "picture"), counted(rated, "rating")))
        }
        (0, 0, doubtful) => view("photos", StepState::Look, format!("{doubtful} of {count} in doubt")),
        (0, unsaid, _) => view("photos", StepState::Look, format!("{unsaid} of {count}: mirror?")),
        (waiting, ..) => view("photos", StepState::Look, format!("{waiting} being looked at")),
    }
}

fn tape(assessment: &Assessment) -> StepView {
    let current: Vec<_> = assessment.measured.sites.iter().filter(|site| !site.carried_over).collect();
    let thirds = current.iter().filter(|site| site.needs_third).count();
    match (current.len(), thirds, assessment.reference.missing.len()) {
        (0, ..) => view("tape", StepState::Empty, "nothing taped"),
        (_, 1, _) => view("tape", StepState::Look, "1 third reading due"),
        (_, due, _) if due > 0 => view("tape", StepState::Look, format!("{due} third readings due")),
        (_, _, missing) if missing > 0 => view("tape", StepState::Look, "too little to judge size"),
        (count, ..) => view("tape", StepState::Enough, counted(count, "value")),
    }
}

fn tests(case: &Case, assessment: &Assessment) -> StepView {
    let count = case.rounds.last().map_or(0, |round| round.tests.len());
    let leaning = assessment.strength.iter().filter(|test| test.weaker().is_some()).count();
    match (count, leaning) {
        (0, _) => view("tests", StepState::Empty, "nothing tested"),
        (1, 0) => view("tests", StepState::Enough, "1 test"),
        (count, 0) => view("tests", StepState::Enough, counted(count, "test")),
        (count, leaning) => view("tests", StepState::Enough, format!("{}, {leaning} lean", counted(count, "test"))),
    }
}

fn verdict(assessment: &Assessment) -> StepView {
    if !assessment.has_evidence() {
        return view("verdict", StepState::Empty, "no evidence");
    }
    if assessment.reference.outside {
        return view("verdict", StepState::Look, "outside the reference");
    }
    // A part of the body counts once; a head only where its part does not.
    let behind = |area: &&AreaVerdict| area.bulk.standing == Standing::Behind;
    let areas: Vec<&AreaVerdict> = assessment.areas.iter().filter(behind).collect();
    let counted = |region: &RegionId| areas.iter().any(|area| area.heads.contains(region));
    let heads = assessment.regions.iter().filter(|r| r.standing() == Standing::Behind && !counted(&r.region)).count();
    view("verdict", StepState::Enough, format!("{} behind", areas.len() + heads))
}

fn plan(case: &Case) -> StepView {
    match case.choices.priorities() {
        0 => view("plan", StepState::Empty, "nothing chosen"),
        count => view("plan", StepState::Enough, format!("{count} to bring up")),
    }
}

fn log(after: &Afterwards) -> StepView {
    match after.sessions {
        None => view("log", StepState::Empty, "no plan given"),
        Some(0) => view("log", StepState::Empty, "nothing logged"),
        Some(count) => view("log", StepState::Enough, counted(count, "session")),
    }
}

fn review(after: &Afterwards) -> StepView {
    match (after.decided, after.measured_again) {
        (true, _) => view("review", StepState::Enough, "decided"),
        (_, true) => view("review", StepState::Look, "to decide"),
        _ => view("review", StepState::Empty, "after the next round"),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case::none(0, "0 ratings")]
    #[case::one(1, "1 rating")]
    #[case::several(4, "4 ratings")]
    fn one_is_no_plural(#[case] count: usize, #[case] says: &str) {
        assert_eq!(counted(count, "rating"), says);
    }
}
