//! The yardstick of the load script: a bare handler that does one indexed query and nothing else.
//! `bare DIR PORT` serves `/ID`: the rounds of a client of the practice in DIR, as JSON.

use actix_web::{App, HttpResponse, HttpServer, web};
use std::path::Path;
use store::Store;
use units::ClientId;

async fn rounds(store: web::Data<Store>, id: web::Path<ClientId>) -> HttpResponse {
    match web::block(move || store.rounds(&id)).await {
        Ok(Ok(rounds)) => {
            let lines: Vec<_> = rounds.iter().map(|round| (&round.id, round.taken_on, &round.measured_by)).collect();
            HttpResponse::Ok().json(lines)
        }
        _ => HttpResponse::InternalServerError().finish(),
    }
}

#[actix_web::main]
async fn main() -> std::io::Result<()> {
    let arguments: Vec<String> = std::env::args().collect();
    let [_, directory, port] = arguments.as_slice() else {
        return Err(std::io::Error::other("expected a directory and a port"));
    };
    let store = Store::beside(Path::new(directory)).map_err(std::io::Error::other)?;
    let port = port.parse().map_err(std::io::Error::other)?;
    let app = move || App::new().app_data(web::Data::new(store.clone())).route("/{id}", web::get().to(rounds));
    HttpServer::new(app).tcp_nodelay(true).bind(("127.0.0.1", port))?.run().await
}
