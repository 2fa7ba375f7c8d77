//! Pictures of a round: taking them in, showing them, what the coach says of them, laying them over each other.

use crate::auth::SignedIn;
use crate::dto::{
    AskAgain, AskedAgain, BoothQuery, LightTable, MovedBody, NewPhotoQuery, OutlineView, OverView, PhotoRound,
    PhotoView, RatingView, RoundGirths, SavePhoto, UnseenGirth,
};
use crate::error::{ApiError, ProblemDetails, invalid};
use crate::looking::{client_of, measured_again};
use crate::routes::my_photos::open_round;
use crate::spool::{Limits, spool};
use crate::state::AppState;
use actix_web::http::header::ContentType;
use actix_web::{HttpResponse, delete, get, post, put, web};
use assess::{Knowledge, pictured_sites};
use atlas::Atlas;
use casefile::{PicturedEntry, Problem};
use jiff::Timestamp;
use lighttable::{DISTANCE_M, Pictured, girths, lay_over, questions, spoilt, width_changes};
use std::collections::HashSet;
use std::time::Duration;
use store::{Account, Moved, PhotoFile, PhotoRecord, PictureAsk, SavedPhoto, Store};
use units::{PoseId, SiteId};
use utoipa_actix_web::service_config::ServiceConfig;
use vision::{Landmark, MAX_BYTES, Photo, PhotoError, PhotoPose, Plane, contours};

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config
        .service(show_light_table)
        .service(add_photo)
        .service(use_booth)
        .service(save_photo)
        .service(let_photo_count)
        .service(delete_photo)
        .service(show_view)
        .service(show_thumb)
        .service(show_outline)
        .service(show_over)
        .service(ask_again)
        .service(ask_no_more);
}

/// More and longer strokes are a fault of the program, not a coach with a brush.
const MAX_STROKES: usize = 400;
const MAX_STROKE_POINTS: usize = 4000;
const STROKE_RADIUS_PX: [f64; 2] = [0.5, 200.0];

/// The light table of a round: every picture of the client, what can be asked, what was judged.
#[utoipa::path(tag = "photos", responses((status = 200, body = LightTable), (status = 404, body = ProblemDetails)))]
#[get("/rounds/{round_id}/photos")]
pub(crate) async fn show_light_table(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<String>,
) -> Result<web::Json<LightTable>, ApiError> {
    let shared = state.clone();
    state.run(move |store, knowledge| light_table(&shared, store, knowledge, &who.0, &id)).await.map(web::Json)
}

fn light_table(
    state: &AppState,
    store: &Store,
    knowledge: &Knowledge,
    who: &Account,
    round_id: &str,
) -> Result<LightTable, ApiError> {
    let round = store.round(round_id)?;
    let client = store.client(&knowledge.atlas, &round.client_id)?.client;
    let photos = store.client_photos(&round.client_id)?;
    let own = photos.iter().filter(|photo| photo.round_id == round_id);
    let mut poses: Vec<PoseId> = own.filter_map(|photo| photo.shows()?.id().parse().ok()).collect();
    poses.sort_unstable();
    poses.dedup();
    let counting: HashSet<String> = store::counting(&photos).into_iter().map(|photo| photo.id.clone()).collect();
    let of_round = |id: &str| -> Vec<PhotoView> {
        let own = photos.iter().filter(|photo| photo.round_id == id).cloned();
        own.map(|record| {
            let counts = counting.contains(&record.id);
            PhotoView::of(&knowledge.atlas, &state.frames, record, counts)
        })
        .collect()
    };
    let counts = |photo: &&PhotoRecord| photo.round_id == round_id && counting.contains(&photo.id);
    let spoils = |photo: &PhotoRecord| photo.measured.as_ref().filter(|photo| photo.person).and_then(spoilt);
    let spoilt = photos.iter().filter(counts).filter_map(spoils).collect();
    let rounds = store.rounds(&round.client_id)?;
    let rounds = rounds.iter().map(|round| PhotoRound {
        round_id: round.id.clone(),
        date: round.taken_on.to_string(),
        photos: of_round(&round.id),
    });
    let ratings = store.client_ratings(&round.client_id, &who.id)?;
    Ok(LightTable {
        refusal: client.may_be_photographed(round.taken_on).err().map(|why| why.to_string()),
        rounds: rounds.collect(),
        questions: questions(&knowledge.atlas, &poses),
        ratings: ratings.into_iter().map(RatingView::from).collect(),
        girths: round_girths(state, store, knowledge, round_id, &photos)?,
        spoilt,
        asked: store.asked_again(round_id)?.into_iter().map(AskedAgain::from).collect(),
        set_up: store.camera_set_up(&round.client_id)?,
    })
}

fn round_girths(
    state: &AppState,
    store: &Store,
    knowledge: &Knowledge,
    round_id: &str,
    photos: &[PhotoRecord],
) -> Result<RoundGirths, ApiError> {
    let own: Vec<PhotoRecord> = photos.iter().filter(|photo| photo.round_id == round_id).cloned().collect();
    let counting = store::counting(&own);
    let pictures = counting
        .iter()
        .filter_map(|record| Some(Pictured { photo: record.measured.as_ref()?, mirrored: record.mirrored }));
    let pictures: Vec<Pictured<'_>> = pictures.collect();
    let mut missing = if pictures.is_empty() { Vec::new() } else { girths(&state.shapes, &pictures).missing };
    let case = store.case_at(&knowledge.atlas, round_id)?;
    // As they are taped, head to foot.
    let place = |site: &SiteId| knowledge.atlas.sites().iter().position(|known| known.id == *site);
    missing.sort_by_key(|unseen| place(&unseen.site));
    let mut seen = pictured_sites(&knowledge.atlas, &case.rounds, case.rounds.len().saturating_sub(1));
    seen.sort_by_key(|girth| place(&girth.site));
    Ok(RoundGirths {
        bodies: state.shapes.bodies,
        sites: seen.iter().map(PicturedEntry::from).collect(),
        missing: missing.into_iter().map(|unseen| UnseenGirth { site: unseen.site, why: unseen.why }).collect(),
    })
}

/// What a picture's upload may take.
pub(crate) const A_PICTURE: Limits =
    Limits { most: MAX_BYTES, idle: Duration::from_secs(20), whole: Duration::from_mins(5) };

/// Takes a picture in: the body is the file as it is. It is looked at afterwards, in turn.
#[utoipa::path(tag = "photos", params(NewPhotoQuery),
    request_body(content = Vec<u8>, content_type = "application/octet-stream"), responses(
    (status = 201, body = PhotoView), (status = 403, body = ProblemDetails), (status = 409, body = ProblemDetails),
    (status = 413, body = ProblemDetails), (status = 422, body = ProblemDetails), (status = 507, body = ProblemDetails)))]
#[post("/rounds/{round_id}/photos")]
pub(crate) async fn add_photo(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<String>,
    query: web::Query<NewPhotoQuery>,
    body: web::Payload,
) -> Result<HttpResponse, ApiError> {
    check_distance("/distance_m", query.distance_m)?;
    let round = id.clone();
    state.read(move |store, knowledge| store.photo_admission(&knowledge.atlas, &round)).await?;
    // Of one person one at a time, and none takes a turn before it is whole: who sends slowly waits for nobody but themselves.
    let own = state.taking.own_turn(&who.0.id).await?;
    let body = spool(state.store.directory(), body, A_PICTURE, || PhotoError::TooHeavy.into()).await?;
    let turn = own.and_shared().await?;
    let shared = state.clone();
    let added = state.run(move |_, _| {
        let _turn = turn;
        shared.take_in(&id, &query, &who.0.name, &body.read()?)
    });
    Ok(HttpResponse::Created().json(added.await?))
}

/// Takes a picture with the stand-in camera: a made-up figure with the girths of this round.
#[utoipa::path(tag = "photos", params(BoothQuery), responses((status = 201, body = PhotoView),
    (status = 403, body = ProblemDetails), (status = 409, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[post("/rounds/{round_id}/booth")]
pub(crate) async fn use_booth(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<String>,
    query: web::Query<BoothQuery>,
) -> Result<HttpResponse, ApiError> {
    let turn = state.taking.turn(&who.0.id).await?;
    let shared = state.clone();
    let added = state.run(move |_, _| {
        let _turn = turn;
        shared.stand_in(&id, query.pose, &who.0.name)
    });
    Ok(HttpResponse::Created().json(added.await?))
}

/// Saves what the coach says of a picture, measures it again, or sends it to be looked at again.
#[utoipa::path(tag = "photos", request_body = SavePhoto, responses((status = 200, body = PhotoView),
    (status = 404, body = ProblemDetails), (status = 409, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[put("/photos/{photo_id}")]
pub(crate) async fn save_photo(
    state: web::Data<AppState>,
    id: web::Path<String>,
    body: web::Json<SavePhoto>,
) -> Result<web::Json<PhotoView>, ApiError> {
    check_distance("/distance_m", body.distance_m)?;
    let shared = state.clone();
    let saved = state.run(move |store, knowledge| {
        let record = store.photo(&id)?;
        let moved = checked_moves(&body.moved, &record)?;
        let saved = SavedPhoto {
            revision: body.revision,
            pose: body.pose,
            mirrored: body.mirrored,
            distance_m: body.distance_m,
            measured: measured_for(store, knowledge, &record, &body, &moved)?,
            moved,
        };
        let saved = store.save_photo(&id, &saved)?;
        let counts = store.photo_counts(&saved)?;
        Ok(PhotoView::of(&knowledge.atlas, &shared.frames, saved, counts))
    });
    let saved = saved.await?;
    state.looker.nudge();
    Ok(web::Json(saved))
}

/// None when the picture reads differently now: another pose or mirroring names other sides.
fn measured_for(
    store: &Store,
    knowledge: &Knowledge,
    record: &PhotoRecord,
    body: &SavePhoto,
    moved: &Moved,
) -> Result<Option<Photo>, ApiError> {
    let turned = body.mirrored.unwrap_or(false) != record.mirrored.unwrap_or(false);
    let same_pose = |found: &&Photo| body.pose.is_none_or(|pose| pose == found.pose);
    let Some(found) = record.found.as_ref().filter(|_| !turned).filter(same_pose) else { return Ok(None) };
    let client = client_of(store, knowledge, record)?;
    measured_again(store, &client, record, found, moved, body.distance_m).map(Some)
}

fn checked_moves(body: &MovedBody, record: &PhotoRecord) -> Result<Moved, ApiError> {
    let mut problems = Vec::new();
    let mut fail = |pointer: String, says: String| problems.push(Problem { pointer, says });
    let found = record.found.as_ref();
    let (width, height) = found.map_or((0.0, 0.0), |photo| (f64::from(photo.width_px), f64::from(photo.height_px)));
    let inside = |x: f64, y: f64| (0.0..=width).contains(&x) && (0.0..=height).contains(&y);
    for (name, spot) in &body.landmarks {
        let at = format!("/moved/landmarks/{name}");
        if found.is_none_or(|photo| !photo.landmarks.contains_key(name)) {
            fail(at, format!("this picture has no landmark {name:?}"));
        } else if !inside(spot.x, spot.y) {
            fail(at, format!("{name} lies outside the picture"));
        }
    }
    if body.strokes.len() > MAX_STROKES {
        fail("/moved/strokes".to_owned(), format!("{} strokes: at most {MAX_STROKES}", body.strokes.len()));
    }
    for (i, stroke) in body.strokes.iter().enumerate() {
        let radius = (STROKE_RADIUS_PX[0]..=STROKE_RADIUS_PX[1]).contains(&stroke.radius_px);
        let points = (1..=MAX_STROKE_POINTS).contains(&stroke.points.len());
        if !radius || !points || !stroke.points.iter().flatten().all(|value| value.is_finite()) {
            let says = "a stroke needs a radius of 0.5 to 200 px and 1 to 4000 points";
            fail(format!("/moved/strokes/{i}"), says.to_owned());
        }
    }
    if !problems.is_empty() {
        return Err(ApiError::Invalid(problems));
    }
    let marks = body.landmarks.iter();
    let placed = marks.map(|(name, spot)| (name.clone(), Landmark { x: spot.x, y: spot.y, confidence: 1.0 }));
    Ok(Moved { landmarks: placed.collect(), strokes: body.strokes.clone() })
}

/// A distance that a camera can stand at.
pub(crate) fn check_distance(at: &str, distance_m: Option<f64>) -> Result<(), ApiError> {
    let [low, high] = DISTANCE_M;
    match distance_m {
        Some(m) if !(low..=high).contains(&m) => {
            Err(invalid(at, format!("a distance of {m} m: expected {low} to {high} m")))
        }
        _ => Ok(()),
    }
}

/// Lets a picture count for its pose, instead of any other one of its round.
#[utoipa::path(tag = "photos", responses((status = 204), (status = 404, body = ProblemDetails)))]
#[put("/photos/{photo_id}/counts")]
pub(crate) async fn let_photo_count(
    state: web::Data<AppState>,
    id: web::Path<String>,
) -> Result<HttpResponse, ApiError> {
    state.read(move |store, _| store.let_photo_count(&id)).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// Longest reason, characters.
const REASON_CHARS: usize = 300;

/// Asks the client for a pose once more: it stands on their page with its reason, and among the messages.
#[utoipa::path(tag = "photos", request_body = AskAgain, responses((status = 204), (status = 403, body = ProblemDetails),
    (status = 404, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[post("/rounds/{round_id}/asks")]
pub(crate) async fn ask_again(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<String>,
    body: web::Json<AskAgain>,
) -> Result<HttpResponse, ApiError> {
    let asked = state.run(move |store, knowledge| {
        let reason = body.reason.trim();
        if !(1..=REASON_CHARS).contains(&reason.chars().count()) {
            return Err(invalid("/reason", format!("a reason of 1 to {REASON_CHARS} characters is expected")));
        }
        let client_id = store.round(&id)?.client_id;
        let client = store.client(&knowledge.atlas, &client_id)?.client;
        let rounds = store.rounds(&client_id)?;
        let open = open_round(rounds.last(), &client, AppState::today()).map_err(ApiError::Refused)?;
        if open.id != *id {
            let says = "The client's pictures go to the newest round: ask for the pose there.";
            return Err(ApiError::Refused(says.to_owned()));
        }
        let (asked_by, asked_at) = (who.0.name, Timestamp::now());
        let known = knowledge.atlas.poses().iter().find(|known| known.id.as_str() == body.pose.id());
        let name = known.map_or_else(|| body.pose.id(), |known| known.name.clone());
        store.write_message(
            &client_id,
            (&asked_by, false),
            &format!("Once more, please: {name}. {reason}"),
            asked_at,
        )?;
        store.ask_again(&id, &PictureAsk { pose: body.pose, reason: reason.to_owned(), asked_by, asked_at })?;
        Ok(())
    });
    asked.await?;
    Ok(HttpResponse::NoContent().finish())
}

/// Takes back what was asked of a pose.
#[utoipa::path(tag = "photos", responses((status = 204), (status = 404, body = ProblemDetails)))]
#[delete("/rounds/{round_id}/asks/{pose}")]
pub(crate) async fn ask_no_more(
    state: web::Data<AppState>,
    path: web::Path<(String, PhotoPose)>,
) -> Result<HttpResponse, ApiError> {
    let (round_id, pose) = path.into_inner();
    state.read(move |store, _| store.round(&round_id).and_then(|_| store.ask_no_more(&round_id, pose))).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// Removes a picture for good.
#[utoipa::path(tag = "photos", responses((status = 204), (status = 404, body = ProblemDetails)))]
#[delete("/photos/{photo_id}")]
pub(crate) async fn delete_photo(state: web::Data<AppState>, id: web::Path<String>) -> Result<HttpResponse, ApiError> {
    state.read(move |store, _| store.delete_photo(&id)).await?;
    Ok(HttpResponse::NoContent().finish())
}

async fn bytes(state: &AppState, id: String, file: PhotoFile, kind: ContentType) -> Result<HttpResponse, ApiError> {
    // Through the row, so that a picture taken from the database is gone at once.
    let found = state.read(move |store, _| store.photo(&id).and_then(|photo| store.photo_bytes(&photo.id, file)));
    let found = found.await?;
    Ok(HttpResponse::Ok().content_type(kind).insert_header(("Cache-Control", "private, no-store")).body(found))
}

/// The picture at the size it is judged in.
#[utoipa::path(tag = "photos", responses((status = 200, content_type = "image/jpeg"), (status = 404, body = ProblemDetails)))]
#[get("/photos/{photo_id}/view")]
pub(crate) async fn show_view(state: web::Data<AppState>, id: web::Path<String>) -> Result<HttpResponse, ApiError> {
    bytes(&state, id.into_inner(), PhotoFile::View, ContentType::jpeg()).await
}

/// The picture small.
#[utoipa::path(tag = "photos", responses((status = 200, content_type = "image/jpeg"), (status = 404, body = ProblemDetails)))]
#[get("/photos/{photo_id}/thumb")]
pub(crate) async fn show_thumb(state: web::Data<AppState>, id: web::Path<String>) -> Result<HttpResponse, ApiError> {
    bytes(&state, id.into_inner(), PhotoFile::Thumb, ContentType::jpeg()).await
}

/// The outline of the person, with the coach's strokes.
#[utoipa::path(tag = "photos", responses((status = 200, body = OutlineView), (status = 404, body = ProblemDetails)))]
#[get("/photos/{photo_id}/outline")]
pub(crate) async fn show_outline(
    state: web::Data<AppState>,
    id: web::Path<String>,
) -> Result<web::Json<OutlineView>, ApiError> {
    let outline = state.run(move |store, _| {
        let record = store.photo(&id)?;
        if record.found.is_none() {
            return Ok(OutlineView { lines: Vec::new() });
        }
        Ok(OutlineView { lines: outline_of(store, &record)? })
    });
    outline.await.map(web::Json)
}

/// The outline of the person in a picture that was looked at, with the coach's strokes: closed lines, px of the view.
pub(crate) fn outline_of(store: &Store, record: &PhotoRecord) -> Result<Vec<Vec<[f64; 2]>>, ApiError> {
    let png = store.photo_bytes(&record.id, PhotoFile::Mask)?;
    let mask = Plane::from_png(&png).map_err(|error| ApiError::Internal(error.to_string()))?;
    Ok(contours(&mask.with_strokes(&record.moved.strokes)))
}

/// A pose's name, or its id where the atlas has none.
pub(crate) fn pose_name(atlas: &Atlas, pose: PhotoPose) -> String {
    let known = atlas.poses().iter().find(|known| known.id.as_str() == pose.id());
    known.map_or_else(|| pose.id(), |known| known.name.clone())
}

/// How this picture lies over another one, and what changed between the two.
#[utoipa::path(tag = "photos", responses((status = 200, body = OverView), (status = 404, body = ProblemDetails)))]
#[get("/photos/{photo_id}/over/{onto_id}")]
pub(crate) async fn show_over(
    state: web::Data<AppState>,
    ids: web::Path<(String, String)>,
) -> Result<web::Json<OverView>, ApiError> {
    let over = state.run(move |store, knowledge| {
        let (from, onto) = (store.photo(&ids.0)?, store.photo(&ids.1)?);
        let apart =
            || ApiError::NotFound("these two pictures share too few landmarks to be laid over each other".to_owned());
        let (Some(then), Some(now)) = (&from.measured, &onto.measured) else { return Err(apart()) };
        let laid = lay_over((then, from.distance_m), (now, onto.distance_m)).ok_or_else(apart)?;
        let repeatability_pct = knowledge.atlas.evidence().width_repeatability_pct;
        Ok(OverView { laid, widths: width_changes(then, now, repeatability_pct) })
    });
    over.await.map(web::Json)
}
