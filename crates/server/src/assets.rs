//! The front end, embedded in the binary.

use crate::security::{WORKER, page_policy};
use actix_web::http::header;
use actix_web::{HttpRequest, HttpResponse};
use rand::distr::{Alphanumeric, SampleString};
use rust_embed::RustEmbed;

#[derive(RustEmbed)]
#[folder = "$CARGO_MANIFEST_DIR/../../web/dist"]
#[allow_missing = true]
struct Dist;

/// Stands in the built page where each answer puts its own nonce.
const NONCE_PLACE: &str = "__NONCE__";

/// The worker that keeps the phone's pages.
const WORKER_FILE: &str = "sw.js";

/// What is served when the binary was built without a front end.
const PLACEHOLDER: &str = "<!doctype html><html lang=\"en\"><title>Orthomer</title><p>The front end is not built: run \
                           <code>make build</code>. The API is at <code>/api/v1</code>.</p></html>";

/// A built file by its path, or the page itself for the addresses of the application.
pub(crate) async fn serve(request: HttpRequest) -> HttpResponse {
    let path = request.path().trim_start_matches('/');
    match Dist::get(path).filter(|_| path != "index.html") {
        Some(file) => {
            let lasting = path.starts_with("assets/");
            let cache = if lasting { "public, max-age=31536000, immutable" } else { "no-cache" };
            let mut response = HttpResponse::Ok();
            response
                .content_type(mime_guess::from_path(path).first_or_octet_stream())
                .insert_header((header::CACHE_CONTROL, cache));
            if path == WORKER_FILE {
                response.insert_header((header::CONTENT_SECURITY_POLICY, WORKER));
            }
            response.body(file.data.into_owned())
        }
        None if path.starts_with("assets/") => HttpResponse::NotFound().finish(),
        None => page(),
    }
}

fn page() -> HttpResponse {
    let nonce = Alphanumeric.sample_string(&mut rand::rng(), 24);
    let html = Dist::get("index.html").map_or_else(
        || PLACEHOLDER.to_owned(),
        |file| String::from_utf8_lossy(&file.data).replace(NONCE_PLACE, &nonce),
    );
    HttpResponse::Ok()
        .content_type("text/html; charset=utf-8")
        .insert_header((header::CACHE_CONTROL, "no-store"))
        .insert_header(("Content-Security-Policy", page_policy(&nonce)))
        .body(html)
}
