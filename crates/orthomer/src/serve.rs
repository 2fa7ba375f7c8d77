//! The commands that run the server.

use crate::demo;
use crate::failure::Failure;
use assess::Knowledge;
use jiff::civil::Date;
use rand::RngExt;
use server::{AppState, Line};
use std::io::Write as _;
use std::net::IpAddr;
use std::path::Path;
use std::sync::Arc;
use store::{Account, Store};
use tracing_subscriber::EnvFilter;

/// How browsers reach the practice.
pub struct Door {
    /// Address to listen on.
    pub host: String,
    /// Port to listen on.
    pub port: u16,
    /// Names beside addresses.
    pub names: Vec<String>,
    /// Whether a proxy before it speaks HTTPS.
    pub behind_https: bool,
    /// Proxies whose word on a caller's address is taken.
    pub proxies: Vec<IpAddr>,
    /// What it speaks and tells beside the application.
    pub line: Line,
}

/// Digits of the code that the first owner is asked for.
const CODE_BELOW: u32 = 100_000_000;

/// Serves the practice under `data`.
pub fn serve(data: &Path, door: Door) -> Result<(), Failure> {
    log("info");
    let state = state(data)?;
    let new = state.desk.store.is_new().map_err(Failure::other)?;
    let code = new.then(|| format!("{:08}", rand::rng().random_range(0..CODE_BELOW)));
    let says = code.as_ref().map(|code| format!("The first start: the owner is asked for the code {code}.\n"));
    let https = door.behind_https || door.line.certificate.is_some();
    let state = state.called(door.names).behind_https(https).behind_proxies(door.proxies).asking_for(code);
    run(&state, &door.host, door.port, &door.line, &says.unwrap_or_default())
}

/// Serves fresh demo data from a directory of its own, which goes when the server stops; or from `data`, where it stays.
pub fn serve_demo(host: &str, port: u16, clients: usize, pictures: bool, data: Option<&Path>) -> Result<(), Failure> {
    log("warn");
    let directory = tempfile::Builder::new().prefix("orthomer-demo-").tempdir().map_err(Failure::other)?;
    let state = state(data.unwrap_or(directory.path()))?;
    if !state.desk.store.is_new().map_err(Failure::other)? {
        return Err(Failure::other("this directory holds a practice already: serve it, or choose another one"));
    }
    demo::fill(&state.desk.store, &state.desk.knowledge(), clients, jiff::ZonedDateTime::now().date())?;
    if pictures {
        let camera = state.desk.clone();
        std::thread::spawn(move || {
            if let Err(why) = demo::pictures::draw(&camera) {
                tracing::warn!(why, "demo pictures");
            }
        });
    }
    let sign_in = format!("Sign in as {} with the password {}.\n", demo::LOGIN, demo::PASSWORD);
    run(&state, host, port, &Line::default(), &sign_in)
}

/// Prints the OpenAPI document of the server's own routes.
pub fn openapi() -> Result<(), Failure> {
    let directory = tempfile::tempdir().map_err(Failure::other)?;
    let state = state(directory.path())?;
    println!("{}", server::openapi(state).to_pretty_json().map_err(Failure::other)?);
    Ok(())
}

fn state(data: &Path) -> Result<AppState, Failure> {
    let store = Store::open(data).map_err(Failure::other)?;
    let made_up = |store: &Store, knowledge: &Knowledge, who: &Account, today: Date| {
        let by = demo::Coach { name: &who.name, id: &who.id };
        demo::made_up(store, knowledge, by, today).map_err(|failure| failure.to_string())
    };
    Ok(AppState::new(store, knowledge()?).map_err(Failure::other)?.making_up(Arc::new(made_up)))
}

fn knowledge() -> Result<Arc<Knowledge>, Failure> {
    Knowledge::load().map(Arc::new).map_err(Failure::other)
}

fn run(state: &AppState, host: &str, port: u16, line: &Line, sign_in: &str) -> Result<(), Failure> {
    let scheme = if line.certificate.is_some() { "https" } else { "http" };
    // Nobody need read it: a server whose output was closed goes on serving.
    let ready =
        || drop(writeln!(std::io::stdout(), "Orthomer is at {scheme}://{host}:{port}\n{sign_in}Stop it with Ctrl-C."));
    actix_web::rt::System::new().block_on(server::serve(state.clone(), host, port, line, ready)).map_err(Failure::other)
}

/// Structured logs on standard error, at `level` unless `ORTHOMER_LOG` says otherwise.
fn log(level: &str) {
    let filter = EnvFilter::try_from_env("ORTHOMER_LOG").unwrap_or_else(|_| EnvFilter::new(level));
    tracing_subscriber::fmt().json().with_env_filter(filter).with_writer(std::io::stderr).init();
}
