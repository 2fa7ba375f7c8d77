//! Pictures on a client's own page: what is asked for, how the camera stands, what is said of a picture on the spot, sending it.

use crate::auth::LinkedClient;
use crate::dto::{Ghost, LookQuery, NewPhotoQuery, PicturesAsked, PoseAsked};
use crate::error::{ApiError, ProblemDetails};
use crate::looking::earlier;
use crate::routes::photos::{A_PICTURE, check_distance, outline_of, pose_name};
use crate::spool::{Limits, spool};
use crate::state::{AppState, PageOf};
use actix_web::{HttpResponse, get, post, put, web};
use assess::{Client, Knowledge};
use casefile::Problem;
use jiff::ToSpan;
use jiff::civil::Date;
use lighttable::{CameraSetUp, spoilt};
use std::time::Duration;
use store::{PhotoRecord, RoundRecord, Store};
use utoipa_actix_web::service_config::ServiceConfig;
use vision::{PhotoError, PhotoPose, Taken};

/// Its routes, below a client's own page.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config.service(show_asked).service(send_my_photo).service(look_at_mine).service(keep_my_camera);
}

/// Pictures go to the newest round when it is no older than this, days: the same look, the same light.
const SAME_ROUND_DAYS: i64 = 14;
/// The poses a client is asked for: what shows most with no help, and the sides once more with the arms off the trunk, where its depth
/// is seen.
const ASKED: [PhotoPose; 6] =
    [PhotoPose::F, PhotoPose::B, PhotoPose::SL, PhotoPose::SLA, PhotoPose::SR, PhotoPose::SRA];
/// What a picture's look may take: who stands before the camera waits.
const A_LOOK: Limits = Limits { idle: Duration::from_secs(10), whole: Duration::from_secs(30), ..A_PICTURE };

/// The round that a client's pictures go to today.
///
/// # Errors
/// Why there is none, in a sentence.
pub(crate) fn open_round(newest: Option<&RoundRecord>, client: &Client, today: Date) -> Result<RoundRecord, String> {
    client.may_be_photographed(today).map_err(|why| why.to_string())?;
    let late = "Your coach opens the next round first; then pictures can be sent.".to_owned();
    let fresh = |round: &&RoundRecord| {
        round.taken_on.checked_add(SAME_ROUND_DAYS.days()).is_ok_and(|last| today <= last && today >= round.taken_on)
    };
    newest.filter(fresh).cloned().ok_or(late)
}

/// The client of a link and the round that their pictures go to.
fn open_now(store: &Store, knowledge: &Knowledge, client_id: &str) -> Result<(Client, RoundRecord), ApiError> {
    let client = store.client(&knowledge.atlas, client_id)?.client;
    let rounds = store.rounds(client_id)?;
    let round = open_round(rounds.last(), &client, AppState::today()).map_err(ApiError::Refused)?;
    store.photo_admission(&knowledge.atlas, &round.id)?;
    Ok((client, round))
}

/// The pictures asked for, with the outlines of last time.
#[utoipa::path(tag = "my", responses((status = 200, body = PicturesAsked), (status = 401, body = ProblemDetails)))]
#[get("/photos")]
pub(crate) async fn show_asked(state: web::Data<AppState>, who: LinkedClient) -> Result<HttpResponse, ApiError> {
    let page = state.page("pictures-asked", PageOf::Client(who.client_id), |store, knowledge, id| {
        asked(store, knowledge, id, AppState::today())
    });
    page.await
}

fn asked(store: &Store, knowledge: &Knowledge, client_id: &str, today: Date) -> Result<PicturesAsked, ApiError> {
    let client = store.client(&knowledge.atlas, client_id)?.client;
    let set_up = store.camera_set_up(client_id)?;
    let rounds = store.rounds(client_id)?;
    let round = match open_round(rounds.last(), &client, today) {
        Ok(round) => round,
        Err(refusal) => {
            return Ok(PicturesAsked { refusal: Some(refusal), round_on: None, set_up, poses: Vec::new() });
        }
    };
    let again = store.asked_again(&round.id)?;
    let others = again.iter().map(|ask| ask.pose).filter(|pose| !ASKED.contains(pose));
    let photos = store.client_photos(client_id)?;
    let counting = store::counting(&photos);
    let poses = ASKED.into_iter().chain(others).map(|pose| {
        let sent = photos.iter().filter(|photo| photo.round_id == round.id && photo.shows() == Some(pose)).count();
        let own = counting.iter().find(|photo| photo.round_id == round.id && photo.shows() == Some(pose));
        let measured = own.and_then(|photo| photo.measured.as_ref());
        Ok(PoseAsked {
            pose,
            name: pose_name(&knowledge.atlas, pose),
            sent: u32::try_from(sent).unwrap_or(u32::MAX),
            again: again.iter().find(|ask| ask.pose == pose).map(|ask| ask.reason.clone()),
            doubt: measured.and_then(spoilt).map(|spoilt| spoilt.says),
            ghost: ghost(store, earlier(&rounds, &counting, &round, pose))?,
        })
    });
    let poses = poses.collect::<Result<_, ApiError>>()?;
    Ok(PicturesAsked { refusal: None, round_on: Some(round.taken_on.to_string()), set_up, poses })
}

fn ghost(store: &Store, before: Option<(&PhotoRecord, Date)>) -> Result<Option<Ghost>, ApiError> {
    let Some((record, on)) = before else { return Ok(None) };
    let Some(photo) = record.measured.as_ref().filter(|photo| photo.person) else { return Ok(None) };
    let lines = outline_of(store, record)?;
    Ok(Some(Ghost { on: on.to_string(), width_px: photo.width_px, height_px: photo.height_px, lines }))
}

/// Takes in a picture from the client, for the newest round. What is sent again is there already.
#[utoipa::path(tag = "my", params(NewPhotoQuery),
    request_body(content = Vec<u8>, content_type = "application/octet-stream"), responses(
    (status = 204), (status = 401, body = ProblemDetails), (status = 403, body = ProblemDetails),
    (status = 413, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[post("/photos")]
pub(crate) async fn send_my_photo(
    state: web::Data<AppState>,
    who: LinkedClient,
    query: web::Query<NewPhotoQuery>,
    body: web::Payload,
) -> Result<HttpResponse, ApiError> {
    check_distance("/distance_m", query.distance_m)?;
    let id = who.client_id.clone();
    let admitted = state.run(move |store, knowledge| open_now(store, knowledge, &id));
    let (client, round) = admitted.await?;
    let own = state.taking.own_turn(&who.client_id).await?;
    let body = spool(state.store.directory(), body, A_PICTURE, || PhotoError::TooHeavy.into()).await?;
    let turn = own.and_shared().await?;
    let shared = state.clone();
    let added = state.run(move |_, _| {
        let _turn = turn;
        shared.take_in(&round.id, &query, &client.name, &body.read()?).map(drop)
    });
    match added.await {
        // The same bytes again: the answer to an earlier try was lost on the way.
        Err(ApiError::Conflict { current_revision: None, .. }) | Ok(()) => Ok(HttpResponse::NoContent().finish()),
        Err(refused) => Err(refused),
    }
}

/// Says at once whether a picture will do, while the client still stands before the camera. Nothing of it is kept.
#[utoipa::path(tag = "my", params(LookQuery),
    request_body(content = Vec<u8>, content_type = "application/octet-stream"), responses(
    (status = 200, body = Taken), (status = 401, body = ProblemDetails), (status = 403, body = ProblemDetails),
    (status = 413, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[post("/photos/look")]
pub(crate) async fn look_at_mine(
    state: web::Data<AppState>,
    who: LinkedClient,
    query: web::Query<LookQuery>,
    body: web::Payload,
) -> Result<web::Json<Taken>, ApiError> {
    let own = state.taking.own_turn(&who.client_id).await?;
    let body = spool(state.store.directory(), body, A_LOOK, || PhotoError::TooHeavy.into()).await?;
    let turn = own.and_shared().await?;
    let shared = state.clone();
    let said = state.run(move |store, knowledge| {
        let _turn = turn;
        let (client, round) = open_now(store, knowledge, &who.client_id)?;
        shared.say_of(store, &client, &round, &query, &body.read()?)
    });
    said.await.map(web::Json)
}

/// Keeps where the client's camera stands.
#[utoipa::path(tag = "my", request_body = CameraSetUp, responses(
    (status = 204), (status = 401, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[put("/photos/set-up")]
pub(crate) async fn keep_my_camera(
    state: web::Data<AppState>,
    who: LinkedClient,
    body: web::Json<CameraSetUp>,
) -> Result<HttpResponse, ApiError> {
    let set_up = CameraSetUp { place: body.place.trim().to_owned(), ..body.into_inner() };
    let problems: Vec<Problem> =
        set_up.problems().into_iter().map(|(field, says)| Problem { pointer: format!("/{field}"), says }).collect();
    if !problems.is_empty() {
        return Err(ApiError::Invalid(problems));
    }
    state.read(move |store, _| store.keep_camera_set_up(&who.client_id, AppState::today(), &set_up)).await?;
    Ok(HttpResponse::NoContent().finish())
}
