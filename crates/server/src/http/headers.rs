//! Headers that keep the browser from doing what the application does not need.

use super::ApiError;
use crate::state::AppState;
use actix_web::body::{EitherBody, MessageBody};
use actix_web::dev::{ServiceRequest, ServiceResponse};
use actix_web::http::header::{ContentDisposition, DispositionParam, DispositionType, HOST, HeaderName, ORIGIN};
use actix_web::middleware::{DefaultHeaders, Next};
use actix_web::{ResponseError, web};
use desk::DeskError;
use std::net::IpAddr;

/// For everything but the page itself: nothing may be loaded from or into an answer of the API.
const CLOSED: &str = "default-src 'none'; frame-ancestors 'none'";

/// The page: scripts and styles from here only; component styles made at run time carry the page's nonce.
pub(crate) fn page_policy(nonce: &str) -> String {
    format!(
        "default-src 'none'; script-src 'self'; style-src 'self' 'nonce-{nonce}'; font-src 'self'; img-src 'self' data: \
         blob:; connect-src 'self'; manifest-src 'self' data:; worker-src 'self'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'"
    )
}

/// The worker that keeps the phone's pages: it may fetch from here and run itself.
pub(crate) const WORKER: &str = "default-src 'none'; script-src 'self'; connect-src 'self'";

/// Headers of every answer that does not set its own.
pub(crate) fn headers(https: bool) -> DefaultHeaders {
    let always = DefaultHeaders::new();
    let always = if https { always.add(("Strict-Transport-Security", "max-age=31536000")) } else { always };
    always
        .add(("Content-Security-Policy", CLOSED))
        .add(("X-Content-Type-Options", "nosniff"))
        .add(("X-Frame-Options", "DENY"))
        .add(("Referrer-Policy", "same-origin"))
        .add(("Cross-Origin-Opener-Policy", "same-origin"))
        .add(("Cross-Origin-Resource-Policy", "same-origin"))
        .add(("Permissions-Policy", "camera=(self), microphone=(), geolocation=()"))
        .add(("Cache-Control", "no-store"))
}

/// Says that an answer is to be kept under a name.
pub(crate) fn attachment(name: String) -> ContentDisposition {
    ContentDisposition { disposition: DispositionType::Attachment, parameters: vec![DispositionParam::Filename(name)] }
}

const FETCH_SITE: HeaderName = HeaderName::from_static("sec-fetch-site");

/// Lets a request pass only when it was sent to a name of this practice, and a write only when a page of this practice sent it:
/// neither another site, nor a page on another port of the same machine, nor a name that was made to point here.
pub(crate) async fn from_here<B: MessageBody + 'static>(
    request: ServiceRequest,
    next: Next<B>,
) -> Result<ServiceResponse<EitherBody<B>>, actix_web::Error> {
    match refusal(&request) {
        None => Ok(next.call(request).await?.map_into_left_body()),
        Some(why) => Ok(request.into_response(why.error_response()).map_into_right_body()),
    }
}

fn refusal(request: &ServiceRequest) -> Option<ApiError> {
    let header = |name: HeaderName| request.headers().get(name).and_then(|value| value.to_str().ok());
    let host = header(HOST);
    let names = request.app_data::<web::Data<AppState>>().map(|state| state.names.clone()).unwrap_or_default();
    if let Some(host) = host.filter(|host| !is_name_of_here(host, &names)) {
        let name = without_port(host);
        let says = format!("This practice is not called {name:?}: whoever runs it can add the name with --name.");
        return Some(DeskError::Refused(says).into());
    }
    let elsewhere = || ApiError::from(DeskError::Refused("Only pages of this practice may write here.".to_owned()));
    if request.method().is_safe() {
        return None;
    }
    match header(FETCH_SITE) {
        // "none" is the address typed by hand.
        Some("same-origin" | "none") => None,
        Some(_) => Some(elsewhere()),
        None => {
            let authority = |origin: &str| origin.split_once("://").map(|(_, authority)| authority.to_owned());
            header(ORIGIN).filter(|origin| authority(origin).as_deref() != host).map(|_| elsewhere())
        }
    }
}

/// An address cannot be made to point elsewhere as a name can.
fn is_name_of_here(host: &str, names: &[String]) -> bool {
    let name = without_port(host);
    let bare = name.trim_start_matches('[').trim_end_matches(']');
    bare.parse::<IpAddr>().is_ok()
        || name.eq_ignore_ascii_case("localhost")
        || names.iter().any(|known| known.eq_ignore_ascii_case(name))
}

fn without_port(host: &str) -> &str {
    match host.rsplit_once(':') {
        Some((name, port)) if port.chars().all(|digit| digit.is_ascii_digit()) && !name.is_empty() => name,
        _ => host,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case::an_address("192.0.2.7:8080", true)]
    #[case::a_long_address("[2001:db8::7]:8080", true)]
    #[case::a_long_address_without_a_port("[2001:db8::7]", true)]
    #[case::this_machine("localhost:8080", true)]
    #[case::its_own_name("Studio.example", true)]
    #[case::a_name_that_was_made_to_point_here("evil.example:8080", false)]
    #[case::a_name_that_begins_like_its_own("studio.example.evil.example", false)]
    fn names_of_here_are_known(#[case] host: &str, #[case] known: bool) {
        assert_eq!(is_name_of_here(host, &["studio.example".to_owned()]), known);
    }
}
