//! Judging pictures, judging them again blind, and taking consent back.

use crate::auth::SignedIn;
use crate::dto::{
    AgreementView, JudgedKind, PhotoView, RatingQuery, RatingView, RepeatView, RepeatsView, SaveRating, SaveRepeat,
    WithdrawConsent, Withdrawn,
};
use crate::error::{ApiError, ProblemDetails};
use crate::state::AppState;
use actix_web::{HttpResponse, delete, get, post, put, web};
use assess::Knowledge;
use casefile::{RatingEntry, check_rating};
use jiff::Timestamp;
use lighttable::{Asked, MIN_REST_DAYS, repeats, unmirrored};
use store::{PhotoRecord, RatingPlace, RatingRecord, Store};
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config
        .service(save_rating)
        .service(delete_rating)
        .service(show_repeats)
        .service(save_repeat)
        .service(withdraw_consent);
}

/// Repeats asked in one sitting: two minutes.
const A_SITTING: usize = 8;

/// Gives a rating, or changes it.
#[utoipa::path(tag = "photos", request_body = SaveRating, responses((status = 200, body = RatingView),
    (status = 404, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[put("/rounds/{round_id}/ratings")]
pub(crate) async fn save_rating(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<String>,
    body: web::Json<SaveRating>,
) -> Result<web::Json<RatingView>, ApiError> {
    let saved = state.run(move |store, knowledge| {
        let place = place(knowledge, &id, (&body.region, &body.pose), body.kind, body.value)?;
        shown(store, &place)?;
        store.save_rating(&place, body.value, &who.0.id, Timestamp::now())?;
        Ok(RatingView {
            round_id: place.round_id,
            region: place.region,
            pose: place.pose,
            kind: body.kind,
            value: body.value,
        })
    });
    saved.await.map(web::Json)
}

/// Takes a rating back.
#[utoipa::path(tag = "photos", params(RatingQuery), responses((status = 204), (status = 422, body = ProblemDetails)))]
#[delete("/rounds/{round_id}/ratings")]
pub(crate) async fn delete_rating(
    state: web::Data<AppState>,
    id: web::Path<String>,
    query: web::Query<RatingQuery>,
) -> Result<HttpResponse, ApiError> {
    let deleted = state.run(move |store, knowledge| {
        Ok(store.delete_rating(&place(knowledge, &id, (&query.region, &query.pose), query.kind, None)?)?)
    });
    deleted.await?;
    Ok(HttpResponse::NoContent().finish())
}

/// The place of a rating, by the same rules as a case file's.
fn place(
    knowledge: &Knowledge,
    round_id: &str,
    (region, pose): (&str, &str),
    kind: JudgedKind,
    value: Option<i8>,
) -> Result<RatingPlace, ApiError> {
    let value = Some(value.unwrap_or(0));
    let (score, left_right) = match kind {
        JudgedKind::Standing => (value, None),
        JudgedKind::LeftRight => (None, value),
    };
    let entry = RatingEntry {
        region: region.to_owned(),
        pose: pose.to_owned(),
        score,
        left_right,
        rater_sd_steps: None,
        sitting: None,
    };
    let rating = check_rating(&knowledge.atlas, "", &entry).map_err(ApiError::Invalid)?;
    Ok(RatingPlace { round_id: round_id.to_owned(), region: rating.region, pose: rating.pose, kind: kind.into() })
}

/// Nothing is judged in a picture that is not there.
fn shown(store: &Store, place: &RatingPlace) -> Result<(), ApiError> {
    let photos = store.client_photos(&store.round(&place.round_id)?.client_id)?;
    let there = photos.iter().any(|photo| photo.round_id == place.round_id && in_pose(photo, place.pose.as_str()));
    let pose = &place.pose;
    there.then_some(()).ok_or_else(|| ApiError::NotFound(format!("this round has no picture in the pose {pose}")))
}

fn in_pose(photo: &PhotoRecord, pose: &str) -> bool {
    photo.shows().is_some_and(|shows| shows.id() == pose)
}

/// Own ratings of a client that are due to be asked again, and how well they agreed so far.
#[utoipa::path(tag = "photos", responses((status = 200, body = RepeatsView), (status = 404, body = ProblemDetails)))]
#[get("/clients/{client_id}/repeats")]
pub(crate) async fn show_repeats(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<String>,
) -> Result<web::Json<RepeatsView>, ApiError> {
    let shared = state.clone();
    let due = state.run(move |store, knowledge| repeats_view(&shared, store, knowledge, &id, &who.0.id));
    due.await.map(web::Json)
}

fn repeats_view(
    state: &AppState,
    store: &Store,
    knowledge: &Knowledge,
    client_id: &str,
    rater: &str,
) -> Result<RepeatsView, ApiError> {
    store.client(&knowledge.atlas, client_id)?;
    let photos = store.client_photos(client_id)?;
    let counting = store::counting(&photos);
    let picture = |rating: &RatingRecord| -> Option<PhotoRecord> {
        let mut own =
            counting.iter().filter(|photo| photo.round_id == rating.place.round_id && photo.measured.is_some());
        own.find(|photo| in_pose(photo, rating.place.pose.as_str())).map(|photo| (*photo).clone())
    };
    let ratings = store.client_ratings(client_id, rater)?;
    let mine = ratings.into_iter().filter(|rating| rating.rated_by == rater && rating.value.is_some());
    let mine: Vec<(RatingRecord, PhotoRecord)> =
        mine.filter_map(|rating| picture(&rating).map(|photo| (rating, photo))).collect();
    let now = Timestamp::now();
    let asked: Vec<Asked> = mine
        .iter()
        .map(|(rating, _)| Asked {
            key: key(&rating.place),
            days_ago: i32::try_from(now.duration_since(rating.rated_at).as_hours() / 24).unwrap_or(i32::MAX),
            repeated: rating.repeated,
        })
        .collect();
    let due = repeats(&asked, A_SITTING).into_iter().filter_map(|repeat| {
        let (rating, photo) = mine.iter().find(|(rating, _)| key(&rating.place) == repeat.key)?;
        let place = rating.place.clone();
        Some(RepeatView {
            round_id: place.round_id,
            region: place.region,
            pose: place.pose,
            kind: place.kind.into(),
            mirrored: repeat.mirrored,
            photo: PhotoView::of(&knowledge.atlas, &state.frames, photo.clone(), true),
        })
    });
    let due = due.collect();
    let agreement = AgreementView::of(knowledge, store, rater)?;
    Ok(RepeatsView { due, agreement, rest_days: MIN_REST_DAYS })
}

fn key(place: &RatingPlace) -> String {
    format!("{} {} {} {:?}", place.round_id, place.region, place.pose, place.kind)
}

/// Keeps a blind answer.
#[utoipa::path(tag = "photos", request_body = SaveRepeat, responses((status = 204),
    (status = 404, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[post("/repeats")]
pub(crate) async fn save_repeat(
    state: web::Data<AppState>,
    who: SignedIn,
    body: web::Json<SaveRepeat>,
) -> Result<HttpResponse, ApiError> {
    let saved = state.run(move |store, knowledge| {
        let place = place(knowledge, &body.round_id, (&body.region, &body.pose), body.kind, body.value)?;
        let again = body.value.map(|value| match body.kind {
            JudgedKind::Standing => value,
            JudgedKind::LeftRight => unmirrored(value, body.mirrored),
        });
        Ok(store.save_repeat(&place, again, &who.0.id, Timestamp::now())?)
    });
    saved.await?;
    Ok(HttpResponse::NoContent().finish())
}

/// Takes consent to photos back and removes every picture of the client.
#[utoipa::path(tag = "photos", request_body = WithdrawConsent, responses((status = 200, body = Withdrawn),
    (status = 404, body = ProblemDetails), (status = 409, body = ProblemDetails)))]
#[post("/clients/{client_id}/consent/withdraw")]
pub(crate) async fn withdraw_consent(
    state: web::Data<AppState>,
    id: web::Path<String>,
    body: web::Json<WithdrawConsent>,
) -> Result<web::Json<Withdrawn>, ApiError> {
    let withdrawn = state.read(move |store, knowledge| {
        let pictures = store.withdraw_photo_consent(&knowledge.atlas, &id, body.revision)?;
        Ok(Withdrawn { pictures })
    });
    withdrawn.await.map(web::Json)
}
