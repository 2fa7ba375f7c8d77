//! The sheet of tests: one side at a time, hangs, where it was felt, and angles from stills.

use crate::auth::SignedIn;
use crate::dto::{FirstSide, SaveTests, TestsSheet};
use crate::error::{ApiError, ProblemDetails, invalid};
use crate::roster::Assessor;
use crate::state::{AppState, PageOf};
use actix_web::{HttpResponse, get, post, put, web};
use assess::{Client, Knowledge, Test, first_side};
use casefile::{NextEntry, Problem, TestEntry, assessment_file, check_tests};
use serde::{Deserialize, Serialize};
use std::collections::BTreeSet;
use store::{RoundRecord, Store};
use utoipa::ToSchema;
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config.service(show_tests).service(save_tests).service(measure_angle);
}

/// The tests of a round.
#[utoipa::path(tag = "tests", responses((status = 200, body = TestsSheet), (status = 404, body = ProblemDetails)))]
#[get("/rounds/{round_id}/tests")]
pub(crate) async fn show_tests(state: web::Data<AppState>, id: web::Path<String>) -> Result<HttpResponse, ApiError> {
    let page = state.page("tests", PageOf::Sheet(id.into_inner()), |store, knowledge, id| {
        sheet(store, knowledge, &store.round(id)?, Vec::new())
    });
    page.await
}

/// Saves the tests. Those that break a rule are not saved and are named in `problems`; what was stored for them stays.
#[utoipa::path(tag = "tests", request_body = SaveTests, responses(
    (status = 200, body = TestsSheet), (status = 409, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[put("/rounds/{round_id}/tests")]
pub(crate) async fn save_tests(
    state: web::Data<AppState>,
    signed_in: SignedIn,
    id: web::Path<String>,
    body: web::Json<SaveTests>,
) -> Result<web::Json<TestsSheet>, ApiError> {
    let saved = state.run(move |store, knowledge| {
        let case = store.case_at(&knowledge.atlas, &id)?;
        let strength = |entry: &TestEntry| matches!(entry, TestEntry::OneSide { .. });
        if let Some(place) = body.tests.iter().position(strength)
            && case.client.age_on(case.as_of) < Client::ADULT_YEARS
        {
            return Err(invalid(&format!("/tests/{place}"), MINOR.to_owned()));
        }
        let (passed, problems) = check_tests(&knowledge.atlas, "/tests", &body.tests);
        let stored = case.rounds.last().map(|round| round.tests.clone()).unwrap_or_default();
        let tests = in_place(passed, &stored, &body.tests);
        let round = store.save_tests(&id, body.revision, &signed_in.0.name, &tests)?;
        sheet(store, knowledge, &round, problems)
    });
    saved.await.map(web::Json)
}

const MINOR: &str = "the client is under 18: no tests to a maximum";

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

fn sheet(
    store: &Store,
    knowledge: &Knowledge,
    round: &RoundRecord,
    problems: Vec<Problem>,
) -> Result<TestsSheet, ApiError> {
    let case = store.case_at(&knowledge.atlas, &round.id)?;
    let assessment = Assessor::new(store, knowledge).assess(&case, &round.client_id)?;
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
        saved_by: round.tests_saved_by.clone(),
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

/// Three points on a still.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MeasureAngle {
    /// The screen they are for.
    screen: String,
    /// x and y of each in pixels, in the order the screen names them; the joint is the second.
    points: [[f64; 2]; 3],
}

/// A range of motion.
#[derive(Serialize, ToSchema)]
pub struct AngleView {
    /// Degrees.
    degrees: f64,
}

/// The range of motion that three points on a still give. The still itself stays in the browser.
#[utoipa::path(tag = "tests", request_body = MeasureAngle, responses(
    (status = 200, body = AngleView), (status = 422, body = ProblemDetails)))]
#[post("/angle")]
pub(crate) async fn measure_angle(
    state: web::Data<AppState>,
    body: web::Json<MeasureAngle>,
) -> Result<web::Json<AngleView>, ApiError> {
    let knowledge = state.knowledge();
    let screen = knowledge.atlas.screen(&body.screen);
    let screen = screen.ok_or_else(|| invalid("/screen", format!("there is no screen {:?}", body.screen)))?;
    let degrees = screen.points.range_deg(body.points);
    let degrees = degrees.ok_or_else(|| invalid("/points", "two of the three points are the same".to_owned()))?;
    Ok(web::Json(AngleView { degrees: degrees.round() }))
}
