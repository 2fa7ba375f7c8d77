//! Headers that keep the browser from doing what the application does not need.

use actix_web::middleware::DefaultHeaders;

/// For everything but the page itself: nothing may be loaded from or into an answer of the API.
const CLOSED: &str = "default-src 'none'; frame-ancestors 'none'";

/// The page: scripts and styles from here only; component styles made at run time carry the page's nonce.
pub(crate) fn page_policy(nonce: &str) -> String {
    format!(
        "default-src 'none'; script-src 'self'; style-src 'self' 'nonce-{nonce}'; font-src 'self'; img-src 'self' data: \
         blob:; connect-src 'self'; manifest-src 'self'; worker-src 'self'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'"
    )
}

/// The worker that keeps the phone's pages: it may fetch from here and run itself.
pub(crate) const WORKER: &str = "default-src 'none'; script-src 'self'; connect-src 'self'";

/// Headers of every answer that does not set its own.
pub(crate) fn headers() -> DefaultHeaders {
    DefaultHeaders::new()
        .add(("Content-Security-Policy", CLOSED))
        .add(("X-Content-Type-Options", "nosniff"))
        .add(("X-Frame-Options", "DENY"))
        .add(("Referrer-Policy", "same-origin"))
        .add(("Cross-Origin-Opener-Policy", "same-origin"))
        .add(("Cross-Origin-Resource-Policy", "same-origin"))
        .add(("Permissions-Policy", "camera=(self), microphone=(), geolocation=()"))
        .add(("Cache-Control", "no-store"))
}
