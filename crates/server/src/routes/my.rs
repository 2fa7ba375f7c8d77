//! A client's own page, behind a private link: their week, their log, and what the coach shares.

use crate::auth::LinkedClient;
use crate::dto::{
    AreaMark, MyPage, SendEntries, SentEntries, SharedGirth, SharedPhoto, SharedRegion, SharedSides, SharedView,
    TrainingView,
};
use crate::error::{ApiError, ProblemDetails};
use crate::receiving::receive;
use crate::roster::Assessor;
use crate::state::{AppState, PageOf};
use crate::training::Training;
use actix_web::{HttpResponse, get, post, web};
use assess::{Assessment, Case, Client, Knowledge, PhotoPurpose, RegionVerdict, Shared, Standing};
use store::{PhotoFile, RoundRecord, Store};

/// The client's week.
#[utoipa::path(tag = "my", responses((status = 200, body = TrainingView), (status = 401, body = ProblemDetails)))]
#[get("/week")]
pub(crate) async fn show_my_week(state: web::Data<AppState>, who: LinkedClient) -> Result<HttpResponse, ApiError> {
    let shared = state.clone();
    let page = state.page("week", PageOf::Client(who.client_id), move |store, knowledge, id| {
        Training::read(store, knowledge, id, AppState::today())?.view(&shared, id)
    });
    page.await
}

/// Takes in what the client logged. What is sent again makes no double.
#[utoipa::path(tag = "my", request_body = SendEntries, responses(
    (status = 200, body = SentEntries), (status = 401, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[post("/log")]
pub(crate) async fn send_my_entries(
    state: web::Data<AppState>,
    who: LinkedClient,
    body: web::Json<SendEntries>,
) -> Result<web::Json<SentEntries>, ApiError> {
    let kept = state.run(move |store, knowledge| {
        let name = store.client(&knowledge.atlas, &who.client_id)?.client.name;
        receive(store, knowledge, &who.client_id, &name, body.into_inner())
    });
    kept.await.map(web::Json)
}

/// What the client's page is for, beside the week.
#[utoipa::path(tag = "my", responses((status = 200, body = MyPage), (status = 401, body = ProblemDetails)))]
#[get("/page")]
pub(crate) async fn show_my_page(state: web::Data<AppState>, who: LinkedClient) -> Result<web::Json<MyPage>, ApiError> {
    let shown = state.run(move |store, knowledge| {
        let client = store.client(&knowledge.atlas, &who.client_id)?.client;
        let rounds = store.rounds(&who.client_id)?;
        Ok(MyPage {
            client_name: client.name.clone(),
            expires_on: who.expires_on.to_string(),
            shared: shared(store, knowledge, &who.client_id, &client, &rounds)?,
            measures: client.measures,
        })
    });
    shown.await.map(web::Json)
}

/// What the coach shares of the newest round in which something is shared; pictures only with consent to that.
fn shared(
    store: &Store,
    knowledge: &Knowledge,
    client_id: &str,
    client: &Client,
    rounds: &[RoundRecord],
) -> Result<SharedView, ApiError> {
    let mut view = SharedView { photos: shared_photos(store, client_id, client, rounds)?, ..SharedView::default() };
    for round in rounds.iter().rev() {
        let case = store.case_at(&knowledge.atlas, &round.id)?;
        if case.choices.share.is_empty() {
            continue;
        }
        let assessment = Assessor::new(store, knowledge).assess(&case, client_id)?;
        view.date = Some(round.taken_on.to_string());
        fill(&mut view, knowledge, &case, &assessment);
        break;
    }
    Ok(view)
}

fn fill(view: &mut SharedView, knowledge: &Knowledge, case: &Case, assessment: &Assessment) {
    let atlas = &knowledge.atlas;
    let region = |verdict: &RegionVerdict| SharedRegion {
        region: verdict.region.clone(),
        name: atlas.region(&verdict.region).map_or_else(|| verdict.region.to_string(), |region| region.name.clone()),
        mean: verdict.bulk.mean,
        sd: verdict.bulk.sd,
        standing: verdict.standing(),
    };
    let site_name = |id: &units::SiteId| atlas.site(id).map_or_else(|| id.to_string(), |site| site.name.clone());
    for shared in &case.choices.share {
        match shared {
            Shared::Priorities => {
                let chosen = case.choices.brought_up(atlas);
                let chosen = chosen.iter().filter_map(|id| assessment.region(id));
                view.priorities = chosen.map(region).collect();
            }
            Shared::Standings => {
                let said = assessment.areas.iter().filter(|area| area.bulk.standing != Standing::Unclear);
                view.areas = said.map(|area| AreaMark::of(atlas, area)).collect();
                let told = assessment.regions.iter().filter(|verdict| verdict.standing() != Standing::Unclear);
                view.standings = told.map(region).collect();
            }
            Shared::Sides => {
                let sided = assessment.asymmetries.iter().map(|sides| SharedSides {
                    site: sides.site.clone(),
                    name: site_name(&sides.site),
                    left_cm: sides.sides_cm.left,
                    right_cm: sides.sides_cm.right,
                    verdict: sides.belief.verdict,
                });
                view.sides = sided.collect();
            }
            Shared::Girths => {
                let taped = assessment.measured.sites.iter().filter(|site| !site.carried_over);
                view.girths = taped
                    .map(|site| {
                        let same = assessment
                            .changes
                            .iter()
                            .find(|c| !c.from_pictures && c.site == site.site && c.side == site.side);
                        SharedGirth {
                            site: site.site.clone(),
                            name: site_name(&site.site),
                            side: site.side,
                            value_cm: site.value_cm,
                            change_cm: same.map(|change| change.change_cm),
                            real: same.is_some_and(|change| change.real),
                        }
                    })
                    .collect();
            }
        }
    }
}

fn agreed_to_see(client: &Client) -> bool {
    client.photo_consent.as_ref().is_some_and(|consent| consent.purposes.contains(&PhotoPurpose::SharingWithClient))
}

fn shared_photos(
    store: &Store,
    client_id: &str,
    client: &Client,
    rounds: &[RoundRecord],
) -> Result<Vec<SharedPhoto>, ApiError> {
    if !agreed_to_see(client) {
        return Ok(Vec::new());
    }
    let date = |id: &str| rounds.iter().find(|round| round.id == id).map(|round| round.taken_on.to_string());
    let photos = store.client_photos(client_id)?;
    let shown = photos.iter().rev().filter_map(|photo| {
        Some(SharedPhoto { id: photo.id.clone(), date: date(&photo.round_id)?, pose: photo.shows() })
    });
    Ok(shown.collect())
}

/// A picture of the client's own, when they agreed to be shown it.
#[utoipa::path(tag = "my", responses((status = 200, content_type = "image/jpeg"), (status = 404, body = ProblemDetails)))]
#[get("/photos/{photo_id}/view")]
pub(crate) async fn show_my_photo(
    state: web::Data<AppState>,
    who: LinkedClient,
    id: web::Path<String>,
) -> Result<HttpResponse, ApiError> {
    let found = state.run(move |store, knowledge| {
        let client = store.client(&knowledge.atlas, &who.client_id)?.client;
        let own = store.photo(&id).and_then(|photo| store.round(&photo.round_id));
        let own = own.is_ok_and(|round| round.client_id == who.client_id);
        if !own || !agreed_to_see(&client) {
            return Err(ApiError::NotFound("there is no such picture here".to_owned()));
        }
        Ok(store.photo_bytes(&id, PhotoFile::View)?)
    });
    Ok(HttpResponse::Ok()
        .content_type("image/jpeg")
        .insert_header(("Cache-Control", "private, no-store"))
        .body(found.await?))
}
