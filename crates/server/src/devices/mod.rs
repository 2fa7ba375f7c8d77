//! The simulated tape, gauge, calipers, scale and dynamometer, and the feed that carries what they read to the open sheets.

mod feed;

pub(crate) use feed::Feed;

use crate::auth::SignedIn;
use crate::http::{ApiError, ProblemDetails, events};
use crate::state::AppState;
use actix_web::{HttpResponse, get, post, web};
use booth::Gauge;
use desk::invalid;
use feed::{Device, Message};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config.service(listen_to_devices).service(ask_device).service(read_device);
}

/// A sheet's wish.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AskDevice {
    /// With which device.
    device: Device,
    /// Of what, in words.
    label: String,
    /// About what it will be, in the device's unit.
    #[serde(default)]
    expected: Option<f64>,
}

/// A device held to something of a known size.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ReadDevice {
    /// Which device.
    device: Device,
    /// The true size, in its unit.
    truth: f64,
    /// What it reads too much, in its unit.
    bias: f64,
    /// SD of a reading, in its unit.
    noise_sd: f64,
}

/// What the device shows.
#[derive(Serialize, ToSchema)]
pub struct DeviceReading {
    /// In the device's unit.
    value: f64,
    /// The unit.
    unit: &'static str,
}

/// Says which reading a sheet waits for, so that a device knows what it is held to.
#[utoipa::path(tag = "devices", request_body = AskDevice, responses((status = 204), (status = 422, body = ProblemDetails)))]
#[post("/devices/asked")]
pub(crate) async fn ask_device(state: web::Data<AppState>, who: SignedIn, body: web::Json<AskDevice>) -> HttpResponse {
    let AskDevice { device, label, expected } = body.into_inner();
    state.feed.send(&who.0.id, Message::Asked { device, label, expected });
    HttpResponse::NoContent().finish()
}

/// Reads a simulated device; what it shows goes to the sheet that waits.
#[utoipa::path(tag = "devices", request_body = ReadDevice, responses(
    (status = 200, body = DeviceReading), (status = 422, body = ProblemDetails)))]
#[post("/devices/read")]
pub(crate) async fn read_device(
    state: web::Data<AppState>,
    who: SignedIn,
    body: web::Json<ReadDevice>,
) -> Result<web::Json<DeviceReading>, ApiError> {
    let ReadDevice { device, truth, bias, noise_sd } = *body;
    let unit = device.unit();
    let gauge = Gauge { bias, noise_sd, step: device.step() };
    let value = gauge.read(truth, &mut rand::rng()).ok_or_else(|| {
        let says = format!("{truth} {unit} with a noise of {noise_sd} {unit} cannot be read: expected sizes above 0");
        invalid("/truth", says)
    })?;
    state.feed.send(&who.0.id, Message::Read { device, value });
    Ok(web::Json(DeviceReading { value, unit }))
}

/// What devices read and sheets ask, as server-sent events with a `Message` each.
#[utoipa::path(tag = "devices", responses((status = 200, description = "text/event-stream of Message", body = Message),
    (status = 401, body = ProblemDetails)))]
#[get("/devices/feed")]
pub(crate) async fn listen_to_devices(state: web::Data<AppState>, who: SignedIn) -> HttpResponse {
    let listener = state.feed.listen(&who.0.id);
    events(listener, async |listener| listener.next().await)
}
