//! The sheet of tests: one side at a time, hangs, where it was felt, and angles from stills.

use crate::auth::SignedIn;
use crate::http::{ApiError, ProblemDetails};
use crate::state::AppState;
use actix_web::{HttpResponse, get, post, put, web};
use desk::trials::{AngleView, MeasureAngle, SaveTests, TestsSheet};
use desk::{Desk, RoundPage};
use units::RoundId;
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config.service(show_tests).service(save_tests).service(measure_angle);
}

/// The tests of a round.
#[utoipa::path(tag = "tests", params(RoundId), responses((status = 200, body = TestsSheet), (status = 404, body = ProblemDetails)))]
#[get("/rounds/{round_id}/tests")]
pub(crate) async fn show_tests(state: web::Data<AppState>, id: web::Path<RoundId>) -> Result<HttpResponse, ApiError> {
    state.page_of_round("tests", (id.into_inner(), RoundPage::Sheet), Desk::trials).await
}

/// Saves the tests. Those that break a rule are not saved and are named in `problems`; what was stored for them stays.
#[utoipa::path(tag = "tests", params(RoundId), request_body = SaveTests, responses(
    (status = 200, body = TestsSheet), (status = 409, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[put("/rounds/{round_id}/tests")]
pub(crate) async fn save_tests(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<RoundId>,
    body: web::Json<SaveTests>,
) -> Result<web::Json<TestsSheet>, ApiError> {
    state.json(move |desk| desk.save_trials(&id, &who.0.name, &body)).await
}

/// The range of motion that three points on a still give. The still itself stays in the browser.
#[utoipa::path(tag = "tests", request_body = MeasureAngle, responses(
    (status = 200, body = AngleView), (status = 422, body = ProblemDetails)))]
#[post("/angle")]
pub(crate) async fn measure_angle(
    state: web::Data<AppState>,
    body: web::Json<MeasureAngle>,
) -> Result<web::Json<AngleView>, ApiError> {
    state.json(move |desk| desk.angle(&body)).await
}
