//! The application: routes, guards and middleware put together; starting and stopping the server.

use crate::auth::{cookie_key, middleware, require_link, require_sign_in, sign_in_limit, told};
use crate::http::{
    ApiError, Certificate, Impersonal, ServeError, at_the_door, counted, from_here, headers, serve_asset, serve_metrics,
};
use crate::state::AppState;
use crate::{
    clients, devices, eye, health, library, log, my, photos, plan, practice, review, rounds, session, tape, today,
    trials,
};
use actix_web::body::MessageBody;
use actix_web::cookie::Key;
use actix_web::dev::{ServiceFactory, ServiceRequest, ServiceResponse};
use actix_web::error::{JsonPayloadError, QueryPayloadError};
use actix_web::middleware::{Compress, from_fn};
use actix_web::{App, HttpRequest, HttpResponse, HttpServer, web};
use desk::DeskError;
use std::time::Duration;
use tracing_actix_web::TracingLogger;
use utoipa::OpenApi;
use utoipa_actix_web::{AppExt, scope};

#[derive(OpenApi)]
#[openapi(info(
    title = "Orthomer",
    description = "Body proportion, left and right, a week's plan: for physique coaches."
))]
struct Document;

/// Largest JSON body: a full tape sheet is a few kilobytes.
const JSON_LIMIT_BYTES: usize = 256 * 1024;

/// Largest text file that is read for a preview.
const FILE_LIMIT_BYTES: usize = 4 * 1024 * 1024;

/// The application without middleware, and the OpenAPI document its routes give.
fn routes(
    state: AppState,
) -> (
    App<
        impl ServiceFactory<
            ServiceRequest,
            Config = (),
            Response = ServiceResponse,
            Error = actix_web::Error,
            InitError = (),
        > + use<>,
    >,
    utoipa::openapi::OpenApi,
) {
    // A file of ten thousand rows is read so that every row can be explained.
    let files = scope("/api/v1/files")
        .wrap(from_fn(require_sign_in))
        .app_data(json_config().limit(FILE_LIMIT_BYTES))
        .service(tape::read_tape_csv);
    let own = scope("/api/v1/my")
        .wrap(from_fn(require_link))
        .configure(my::configure)
        .default_service(web::route().to(no_such_route));
    let guarded = scope("/api/v1")
        .wrap(from_fn(require_sign_in))
        .configure(library::configure)
        .configure(clients::configure)
        .configure(rounds::configure)
        .configure(tape::configure)
        .configure(trials::configure)
        .configure(photos::configure)
        .configure(plan::configure)
        .configure(log::configure)
        .configure(review::configure)
        .configure(today::configure)
        .configure(eye::configure)
        .configure(practice::configure)
        .configure(session::configure)
        .configure(devices::configure)
        .default_service(web::route().to(no_such_route));
    App::new()
        .app_data(web::Data::new(state))
        .app_data(json_config())
        .app_data(query_config())
        .app_data(path_config())
        .into_utoipa_app()
        .openapi(Document::openapi())
        .service(scope("/api/v1/session").wrap(sign_in_limit()).configure(session::at_the_door))
        .service(scope("/api/v1/health").service(health::health))
        .service(scope("/api/v1/figures").service(library::show_figure))
        .service(files)
        .service(own)
        .service(guarded)
        .split_for_parts()
}

fn json_config() -> web::JsonConfig {
    web::JsonConfig::default()
        .limit(JSON_LIMIT_BYTES)
        .error_handler(|error, _| ApiError::from(DeskError::Malformed(malformed(&error))).into())
}

fn query_config() -> web::QueryConfig {
    web::QueryConfig::default().error_handler(|error, _| {
        let says = match &error {
            QueryPayloadError::Deserialize(why) => format!("what follows the ? of the address cannot be read: {why}"),
            other => other.to_string(),
        };
        ApiError::from(DeskError::Malformed(says)).into()
    })
}

fn path_config() -> web::PathConfig {
    web::PathConfig::default().error_handler(|error, _| {
        ApiError::from(DeskError::NotFound(format!("there is no such address: {error}"))).into()
    })
}

/// What is wrong with a body, in a sentence.
fn malformed(error: &JsonPayloadError) -> String {
    let too_large =
        |limit: usize| format!("what was sent is larger than {} kB: nothing of it was taken in", limit / 1024);
    match error {
        JsonPayloadError::Deserialize(why) => why.to_string(),
        JsonPayloadError::OverflowKnownLength { limit, .. } | JsonPayloadError::Overflow { limit } => too_large(*limit),
        JsonPayloadError::ContentType => "what was sent is not said to be JSON: expected application/json".to_owned(),
        JsonPayloadError::Payload(why) => format!("the upload broke off: {why}"),
        other => other.to_string(),
    }
}

/// The OpenAPI document.
pub fn openapi(state: AppState) -> utoipa::openapi::OpenApi {
    routes(state).1
}

async fn no_such_route(request: HttpRequest) -> Result<HttpResponse, ApiError> {
    Err(DeskError::NotFound(format!("there is no {} {}", request.method(), request.path())).into())
}

/// The whole application, as served and as tested.
pub fn application(
    state: AppState,
    key: &Key,
) -> App<
    impl ServiceFactory<
        ServiceRequest,
        Config = (),
        Response = ServiceResponse<impl MessageBody + use<>>,
        Error = actix_web::Error,
        InitError = (),
    > + use<>,
> {
    let https = state.https;
    let sessions = middleware(&state.desk.store, key, https);
    let (app, document) = routes(state);
    app.route(
        "/api/openapi.json",
        web::get().to(move || {
            let document = document.clone();
            async move { HttpResponse::Ok().json(document) }
        }),
    )
    .service(web::scope("/api").default_service(web::route().to(no_such_route)))
    .default_service(web::get().to(serve_asset))
    .wrap(sessions)
    .wrap(from_fn(told))
    .wrap(from_fn(at_the_door))
    .wrap(from_fn(from_here))
    .wrap(headers(https))
    .wrap(Compress::default())
    .wrap(from_fn(counted))
    .wrap(TracingLogger::<Impersonal>::new())
}

/// What the program speaks and tells beside the application.
#[derive(Clone, Debug, Default)]
pub struct Line {
    /// For HTTPS by the program itself.
    pub certificate: Option<Certificate>,
    /// The port of this machine on which it tells how it does.
    pub metrics_port: Option<u16>,
}

/// Threads that answer: on a small machine more than it has processors, so that a thread that takes in a flood of requests leaves others
/// to answer on.
fn workers() -> usize {
    std::thread::available_parallelism().map_or(FEWEST_WORKERS, |count| count.get().max(FEWEST_WORKERS))
}

const FEWEST_WORKERS: usize = 3;

/// How long a line that nobody uses is kept open: longer than most pause on a page, as whoever writes into a line in the moment in
/// which it is closed does not know whether it arrived.
const KEPT_OPEN: Duration = Duration::from_secs(75);

/// Serves the application until it is told to stop, over HTTPS when there is a certificate.
///
/// # Errors
/// A sentence when the address cannot be listened on, the certificate cannot be used or the store cannot be read.
pub async fn serve(
    state: AppState,
    host: &str,
    port: u16,
    line: &Line,
    ready: impl FnOnce(),
) -> Result<(), ServeError> {
    let tls = line.certificate.as_ref().map(Certificate::config).transpose()?;

    let key = cookie_key(&state.desk.store)?;
    let (desk, told) = (state.desk.clone(), state.clone());
    // Without it the end of an answer waits 40 ms for the browser to acknowledge its beginning.
    let server = HttpServer::new(move || application(state.clone(), &key));
    let server = server.tcp_nodelay(true).workers(workers()).keep_alive(KEPT_OPEN);
    let bound = match tls {
        Some(tls) => server.bind_rustls_0_23((host, port), tls),
        None => server.bind((host, port)),
    };
    let unbound = |(host, port, option): (&str, u16, &'static str), why: std::io::Error| {
        let host = host.to_owned();
        match why.kind() {
            std::io::ErrorKind::AddrInUse => ServeError::PortInUse { host, port, option },
            _ => ServeError::Address { host, port, why },
        }
    };
    let server = bound.map_err(|why| unbound((host, port, "--port"), why))?;
    if let Some(port) = line.metrics_port {
        let metrics = serve_metrics(&told, port).map_err(|why| unbound(("127.0.0.1", port, "--metrics-port"), why))?;
        actix_web::rt::spawn(metrics);
    }
    // Only now: a program that cannot serve has nothing to tidy.
    desk.store.tidy()?;
    desk.go_on_learning();
    let running = server.shutdown_timeout(5).run();
    ready();
    Ok(running.await?)
}
