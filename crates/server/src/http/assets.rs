//! The front end, embedded in the binary.

use super::headers::{WORKER, page_policy};
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

/// The page of a coach's desk.
const DESK: &str = "index.html";
/// The page that works without a line: a client's own, and a client's session on the coach's phone.
const PHONE: &str = "phone.html";

/// Which page an address opens: the phone's two have a page of their own.
fn page_of(path: &str) -> &'static str {
    let parts: Vec<&str> = path.split_terminator('/').collect();
    match parts.as_slice() {
        ["my"] | ["train", _] => PHONE,
        _ if path == PHONE => PHONE,
        _ => DESK,
    }
}

/// A built file by its path, or the page itself for the addresses of the application.
pub(crate) async fn serve(request: HttpRequest) -> HttpResponse {
    let path = request.path().trim_start_matches('/');
    match Dist::get(path).filter(|_| ![DESK, PHONE].contains(&path)) {
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
        None => page(page_of(path)),
    }
}

fn page(name: &str) -> HttpResponse {
    let nonce = Alphanumeric.sample_string(&mut rand::rng(), 24);
    let html = Dist::get(name).map_or_else(
        || PLACEHOLDER.to_owned(),
        |file| String::from_utf8_lossy(&file.data).replace(NONCE_PLACE, &nonce),
    );
    HttpResponse::Ok()
        .content_type("text/html; charset=utf-8")
        .insert_header((header::CACHE_CONTROL, "no-store"))
        .insert_header(("Content-Security-Policy", page_policy(&nonce)))
        .body(html)
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case::a_client_s_own("my", PHONE)]
    #[case::a_session_on_the_coach_s_phone("train/7f3c", PHONE)]
    #[case::what_the_worker_keeps("phone.html", PHONE)]
    #[case::the_desk("clients/7f3c", DESK)]
    #[case::the_root("", DESK)]
    #[case::a_name_that_only_begins_alike("mystery", DESK)]
    fn an_address_opens_its_page(#[case] path: &str, #[case] page: &str) {
        assert_eq!(page_of(path), page);
    }
}
