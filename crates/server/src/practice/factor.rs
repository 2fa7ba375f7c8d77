//! Second factors: offered, set up, taken away.

use super::views::{ConfirmFactor, FactorOffer, OwnPassword, RecoveryCodes};
use crate::auth::{
    SignedIn, allowed, factor_address, factor_step, new_secret, recovery_codes, recovery_hash, verify_password,
};
use crate::http::{ApiError, ProblemDetails};
use crate::state::AppState;
use actix_web::{HttpResponse, delete, post, put, web};
use desk::{DeskError, invalid};
use jiff::Timestamp;
use roles::Act;
use store::Factor;
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config.service(offer_factor).service(confirm_factor).service(remove_factor);
}

/// Offers a second factor for one's own account.
#[utoipa::path(tag = "practice", responses((status = 200, body = FactorOffer),
    (status = 401, body = ProblemDetails)))]
#[post("/account/second-factor")]
pub(crate) async fn offer_factor(who: SignedIn) -> Result<web::Json<FactorOffer>, ApiError> {
    let secret = new_secret();
    let address = factor_address(&secret, &who.0.login);
    let address = address.ok_or_else(|| DeskError::Internal("no address of a second factor".to_owned()))?;
    Ok(web::Json(FactorOffer { secret, address }))
}

/// Sets up a second factor that was offered, once the phone has shown that it makes codes of it.
#[utoipa::path(tag = "practice", request_body = ConfirmFactor, responses(
    (status = 200, body = RecoveryCodes), (status = 422, body = ProblemDetails)))]
#[put("/account/second-factor")]
pub(crate) async fn confirm_factor(
    state: web::Data<AppState>,
    who: SignedIn,
    body: web::Json<ConfirmFactor>,
) -> Result<web::Json<RecoveryCodes>, ApiError> {
    let set = state.run(move |store| {
        if !verify_password(&body.password, Some(&who.0.password_hash)) {
            return Err(invalid("/password", "this is not the password you have").into());
        }
        let offered = Factor { secret: body.secret.clone(), last_step: 0 };
        let now_s = u64::try_from(Timestamp::now().as_second()).unwrap_or_default();
        let says = "this code does not fit: look at the phone's clock, and type the next one";
        let last_step = factor_step(&offered, &body.code, now_s).ok_or_else(|| invalid("/code", says))?;
        let codes = recovery_codes();
        let hashes: Vec<String> = codes.iter().map(|code| recovery_hash(code)).collect();
        store.set_factor(&who.0.id, Some(&Factor { last_step, ..offered }), &hashes)?;
        Ok(RecoveryCodes { codes })
    });
    set.await.map(web::Json)
}

/// Takes a second factor away: one's own, or as the owner somebody's who lost their phone.
#[utoipa::path(tag = "practice", request_body = OwnPassword, responses((status = 204),
    (status = 403, body = ProblemDetails), (status = 404, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[delete("/practice/people/{account_id}/second-factor")]
pub(crate) async fn remove_factor(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<String>,
    body: web::Json<OwnPassword>,
) -> Result<HttpResponse, ApiError> {
    if who.0.id != *id {
        allowed(&who.0, Act::People)?;
    }
    let removed = state.run(move |store| {
        if !verify_password(&body.password, Some(&who.0.password_hash)) {
            return Err(invalid("/password", "this is not the password you have").into());
        }
        Ok(store.set_factor(&id, None, &[])?)
    });
    removed.await?;
    Ok(HttpResponse::NoContent().finish())
}
