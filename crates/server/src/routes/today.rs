//! Today: what needs the coach, most pressing first, and the sessions of the day.

use crate::auth::SignedIn;
use crate::dto::{QueueItem, SeeTo, TodaySession, TodayView};
use crate::error::{ApiError, ProblemDetails, invalid};
use crate::since::REFER;
use crate::state::{AppState, PageOf};
use actix_web::{HttpResponse, get, post, web};
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config.service(show_today).service(see_to);
}

/// A sentence or two on what was done.
const NOTE_CHARS: usize = 500;

/// Of the queue so much is shown at once: more than anybody sees to in a day.
const AT_ONCE: usize = 60;

/// The queue of the whole practice.
#[utoipa::path(tag = "today", responses((status = 200, body = TodayView), (status = 401, body = ProblemDetails)))]
#[get("/today")]
pub(crate) async fn show_today(state: web::Data<AppState>) -> Result<HttpResponse, ApiError> {
    let shared = state.clone();
    let page = state.page("today", PageOf::Days, move |store, knowledge, _| {
        let today = AppState::today();
        let days = shared.days(store, knowledge, today)?;
        let mut items: Vec<&QueueItem> = days.iter().flat_map(|day| &day.items).collect();
        items.sort_by(|a, b| (a.kind, &b.on, &a.client_name).cmp(&(b.kind, &a.on, &b.client_name)));
        let mut sessions: Vec<TodaySession> = days.iter().filter_map(|day| day.session.clone()).collect();
        sessions.sort_by(|a, b| a.client_name.cmp(&b.client_name));
        Ok(TodayView {
            today: today.to_string(),
            total: u32::try_from(items.len()).unwrap_or(u32::MAX),
            items: items.into_iter().take(AT_ONCE).cloned().collect(),
            sessions,
        })
    });
    page.await
}

/// Notes that something of the queue was seen to, or puts it back.
#[utoipa::path(tag = "today", request_body = SeeTo, responses((status = 204), (status = 404, body = ProblemDetails)))]
#[post("/today/seen")]
pub(crate) async fn see_to(
    state: web::Data<AppState>,
    signed_in: SignedIn,
    body: web::Json<SeeTo>,
) -> Result<HttpResponse, ApiError> {
    let seen = state.run(move |store, knowledge| {
        let SeeTo { client_id, what, note, undo } = body.into_inner();
        store.client(&knowledge.atlas, &client_id)?;
        let sign = what.starts_with(REFER);
        if sign && !undo && note.trim().is_empty() {
            let says = "A sign for a doctor is only put away with a sentence on what was done about it.";
            return Err(invalid("/note", says.to_owned()));
        }
        if note.chars().count() > NOTE_CHARS {
            return Err(invalid("/note", format!("a note of up to {NOTE_CHARS} characters is kept")));
        }
        if undo {
            return Ok(store.unsee(&client_id, &what)?);
        }
        Ok(store.see_to(&client_id, &what, note.trim(), &signed_in.0.name, AppState::today())?)
    });
    seen.await?;
    Ok(HttpResponse::NoContent().finish())
}
