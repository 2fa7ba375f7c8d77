//! One line per request, with its id and nothing about a person: no address, no browser, no path with ids filled in, and no
//! sentence of an error, which may name someone.

use actix_web::Error;
use actix_web::body::MessageBody;
use actix_web::dev::{ServiceRequest, ServiceResponse};
use tracing::Span;
use tracing_actix_web::{RequestId, RootSpanBuilder};

/// The span of a request.
pub(crate) struct Impersonal;

impl RootSpanBuilder for Impersonal {
    fn on_request_start(request: &ServiceRequest) -> Span {
        use actix_web::HttpMessage;
        let id = request.extensions().get::<RequestId>().map(ToString::to_string).unwrap_or_default();
        let route = request.match_pattern().unwrap_or_else(|| "asset".to_owned());
        tracing::info_span!("request", request_id = %id, method = %request.method(), route = %route)
    }

    fn on_request_end<B: MessageBody>(span: Span, outcome: &Result<ServiceResponse<B>, Error>) {
        let status = match outcome {
            Ok(response) => response.status(),
            Err(error) => error.as_response_error().status_code(),
        };
        tracing::info!(parent: &span, status = status.as_u16(), "answered");
    }
}
