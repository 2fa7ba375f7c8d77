//! Today: what needs the coach, most pressing first, and the sessions of the day.

use crate::auth::SignedIn;
use crate::dto::{SeeTo, TodayView};
use crate::error::{ApiError, ProblemDetails};
use crate::state::AppState;
use actix_web::{HttpResponse, get, post, web};

/// The queue of the whole practice.
#[utoipa::path(tag = "today", responses((status = 200, body = TodayView), (status = 401, body = ProblemDetails)))]
#[get("/today")]
pub(crate) async fn show_today(state: web::Data<AppState>) -> Result<web::Json<TodayView>, ApiError> {
    let shared = state.clone();
    let shown = state.run(move |store, knowledge| {
        let today = AppState::today();
        let mut view = TodayView { today: today.to_string(), items: Vec::new(), sessions: Vec::new() };
        for day in shared.days(store, knowledge, today)? {
            view.items.extend(day.items.iter().cloned());
            view.sessions.extend(day.session.clone());
        }
        view.items.sort_by(|a, b| (a.kind, &b.on, &a.client_name).cmp(&(b.kind, &a.on, &b.client_name)));
        Ok(view)
    });
    shown.await.map(web::Json)
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
        if undo {
            return Ok(store.unsee(&client_id, &what)?);
        }
        Ok(store.see_to(&client_id, &what, note.trim(), &signed_in.0.name, AppState::today())?)
    });
    seen.await?;
    Ok(HttpResponse::NoContent().finish())
}
