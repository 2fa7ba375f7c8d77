//! The commands that run the server.

use crate::demo;
use crate::failure::Failure;
use assess::Knowledge;
use server::AppState;
use std::io::Write as _;
use std::path::Path;
use std::sync::Arc;
use store::Store;
use tracing_subscriber::EnvFilter;

/// Serves the practice under `data`, called by `names` beside its addresses.
pub fn serve(data: &Path, host: &str, port: u16, names: Vec<String>, https: bool) -> Result<(), Failure> {
    log("info");
    let state = state(data)?.called(names).behind_https(https);
    run(&state, host, port, "")
}

/// Serves fresh demo data from a directory of its own, which goes when the server stops; or from `data`, where it stays.
pub fn serve_demo(host: &str, port: u16, clients: usize, pictures: bool, data: Option<&Path>) -> Result<(), Failure> {
    log("warn");
    let directory = tempfile::Builder::new().prefix("orthomer-demo-").tempdir().map_err(Failure::other)?;
    let state = state(data.unwrap_or(directory.path()))?;
    if !state.store.is_new().map_err(Failure::other)? {
        return Err(Failure::other("this directory holds a practice already: serve it, or choose another one"));
    }
    demo::fill(&state.store, &state.knowledge(), clients, jiff::ZonedDateTime::now().date())?;
    if pictures {
        let camera = state.clone();
        std::thread::spawn(move || {
            if let Err(why) = demo::pictures::draw(&camera) {
                tracing::warn!(why, "demo pictures");
            }
        });
    }
    let sign_in = format!("Sign in as {} with the password {}.\n", demo::LOGIN, demo::PASSWORD);
    run(&state, host, port, &sign_in)
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
    AppState::new(store, knowledge()?).map_err(Failure::other)
}

fn knowledge() -> Result<Arc<Knowledge>, Failure> {
    Knowledge::load().map(Arc::new).map_err(Failure::other)
}

fn run(state: &AppState, host: &str, port: u16, sign_in: &str) -> Result<(), Failure> {
    // Nobody need read it: a server whose output was closed goes on serving.
    let ready =
        || drop(writeln!(std::io::stdout(), "Orthomer is at http://{host}:{port}\n{sign_in}Stop it with Ctrl-C."));
    actix_web::rt::System::new().block_on(server::serve(state.clone(), host, port, ready)).map_err(Failure::other)
}

/// Structured logs on standard error, at `level` unless `ORTHOMER_LOG` says otherwise.
fn log(level: &str) {
    let filter = EnvFilter::try_from_env("ORTHOMER_LOG").unwrap_or_else(|_| EnvFilter::new(level));
    tracing_subscriber::fmt().json().with_env_filter(filter).with_writer(std::io::stderr).init();
}
