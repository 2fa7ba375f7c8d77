//! One span per request, with its id and nothing about a person: no address, no browser, no path with ids filled in.

use actix_web::Error;
use actix_web::body::MessageBody;
use actix_web::dev::{ServiceRequest, ServiceResponse};
use tracing::Span;
use tracing_actix_web::{DefaultRootSpanBuilder, RequestId, RootSpanBuilder};

/// The span of a request.
pub(crate) struct Impersonal;

impl RootSpanBuilder for Impersonal {
    fn on_request_start(request: &ServiceRequest) -> Span {
        use actix_web::HttpMessage;
        let id = request.extensions().get::<RequestId>().map(ToString::to_string).unwrap_or_default();
        let route = request.match_pattern().unwrap_or_else(|| "asset".to_owned());
        tracing::info_span!(
            "request",
            request_id = %id,
            method = %request.method(),
            route = %route,
            http.status_code = tracing::field::Empty,
            otel.status_code = tracing::field::Empty,
            exception.message = tracing::field::Empty,
            exception.details = tracing::field::Empty,
        )
    }

    fn on_request_end<B: MessageBody>(span: Span, outcome: &Result<ServiceResponse<B>, Error>) {
        DefaultRootSpanBuilder::on_request_end(span, outcome);
    }
}
