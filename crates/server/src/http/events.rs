//! Server-sent events: one at a time, as they come.

use actix_web::HttpResponse;
use actix_web::http::header::{CACHE_CONTROL, CONTENT_ENCODING};
use actix_web::web::Bytes;
use futures_util::stream::unfold;
use serde::Serialize;

/// Everything that comes out of `source` as an event each, until nothing does; who hangs up drops the source.
pub(crate) fn events<S: 'static, E: Serialize>(
    source: S,
    next: impl AsyncFn(&mut S) -> Option<E> + 'static,
) -> HttpResponse {
    // The first line opens the stream at once; without it a browser waits for the first event.
    let open = (source, next, Some(Bytes::from_static(b": open\n\n")));
    let events = unfold(open, |(mut source, next, first)| async move {
        let bytes = match first {
            Some(bytes) => bytes,
            None => written(&next(&mut source).await?),
        };
        Some((Ok::<_, actix_web::Error>(bytes), (source, next, None)))
    });
    HttpResponse::Ok()
        .content_type("text/event-stream")
        // Compressed, an event would wait for the block to fill.
        .insert_header((CONTENT_ENCODING, "identity"))
        .insert_header((CACHE_CONTROL, "no-store"))
        .streaming(events)
}

fn written(event: &impl Serialize) -> Bytes {
    Bytes::from(format!("data: {}\n\n", serde_json::to_string(event).unwrap_or_default()))
}
