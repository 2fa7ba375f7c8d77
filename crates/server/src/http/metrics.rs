//! How the program does, in the text format of Prometheus, on a port of this machine alone.

use super::ServeError;
use crate::state::AppState;
use actix_web::body::MessageBody;
use actix_web::dev::{ServiceRequest, ServiceResponse};
use actix_web::middleware::Next;
use actix_web::{App, HttpResponse, HttpServer, get, web};
use prometheus::{Encoder, Histogram, HistogramOpts, IntCounterVec, IntGauge, Opts, Registry, TextEncoder};
use std::time::Instant;

/// What is counted.
#[derive(Clone)]
pub(crate) struct Metrics {
    registry: Registry,
    requests: IntCounterVec,
    seconds: Histogram,
    database: IntGauge,
    waiting: IntGauge,
}

impl Metrics {
    /// # Errors
    /// A sentence when two of them had the same name.
    pub fn new() -> Result<Self, ServeError> {
        let named = || -> Result<Self, prometheus::Error> {
            let requests = Opts::new("orthomer_requests_total", "Requests answered, by the class of their status.");
            let seconds = HistogramOpts::new("orthomer_request_seconds", "Time until the head of an answer.")
                .buckets(vec![0.005, 0.02, 0.05, 0.1, 0.2, 0.5, 1.0, 5.0]);
            let metrics = Self {
                registry: Registry::new(),
                requests: IntCounterVec::new(requests, &["status"])?,
                seconds: Histogram::with_opts(seconds)?,
                database: IntGauge::new("orthomer_database_bytes", "Size of the database's file.")?,
                waiting: IntGauge::new("orthomer_waiting_pictures", "Pictures that nobody has looked at yet.")?,
            };
            metrics.registry.register(Box::new(metrics.requests.clone()))?;
            metrics.registry.register(Box::new(metrics.seconds.clone()))?;
            metrics.registry.register(Box::new(metrics.database.clone()))?;
            metrics.registry.register(Box::new(metrics.waiting.clone()))?;
            Ok(metrics)
        };
        named().map_err(|error| ServeError::Metrics(error.to_string()))
    }

    /// Everything as text, sizes as they are now.
    fn text(&self, state: &AppState) -> Result<String, Box<dyn std::error::Error>> {
        let bytes = state.desk.store.database_bytes()?;
        self.database.set(i64::try_from(bytes).unwrap_or(i64::MAX));
        self.waiting.set(i64::try_from(state.desk.store.waiting_photos()?.len()).unwrap_or(i64::MAX));
        let mut text = Vec::new();
        TextEncoder::new().encode(&self.registry.gather(), &mut text)?;
        Ok(String::from_utf8(text)?)
    }
}

/// Counts a request and how long it took.
pub(crate) async fn counted<B: MessageBody>(
    request: ServiceRequest,
    next: Next<B>,
) -> Result<ServiceResponse<B>, actix_web::Error> {
    let metrics = request.app_data::<web::Data<AppState>>().map(|state| state.metrics.clone());
    let began = Instant::now();
    let response = next.call(request).await?;
    if let Some(metrics) = metrics {
        let class = format!("{}xx", response.status().as_u16() / 100);
        metrics.requests.with_label_values(&[class.as_str()]).inc();
        metrics.seconds.observe(began.elapsed().as_secs_f64());
    }
    Ok(response)
}

#[get("/metrics")]
async fn show_metrics(state: web::Data<AppState>) -> HttpResponse {
    let shown = state.clone();
    let text = web::block(move || shown.metrics.text(&shown).map_err(|error| error.to_string())).await;
    match text {
        Ok(Ok(text)) => HttpResponse::Ok().content_type("text/plain; version=0.0.4").body(text),
        Ok(Err(why)) => HttpResponse::InternalServerError().body(why),
        Err(why) => HttpResponse::InternalServerError().body(why.to_string()),
    }
}

/// Serves them to programs of this machine.
pub(crate) fn serve(state: &AppState, port: u16) -> std::io::Result<actix_web::dev::Server> {
    let data = web::Data::new(state.clone());
    let server = HttpServer::new(move || App::new().app_data(data.clone()).service(show_metrics));
    Ok(server.workers(1).disable_signals().bind(("127.0.0.1", port))?.run())
}
