//! A fresh practice behind the real router, and a browser that keeps its cookie.

use actix_web::body::MessageBody;
use actix_web::cookie::Key;
use actix_web::dev::{Service, ServiceResponse};
use actix_web::http::{Method, StatusCode};
use actix_web::test::{TestRequest, call_service, read_body};
use actix_web::web::Bytes;
use assess::Knowledge;
use futures_util::Stream;
use futures_util::stream::poll_fn;
use serde_json::{Value, json};
use server::AppState;
use std::net::SocketAddr;
use std::sync::atomic::{AtomicU16, Ordering};
use std::sync::{Arc, LazyLock};
use store::Store;
use tempfile::TempDir;

pub static KNOWLEDGE: LazyLock<Arc<Knowledge>> = LazyLock::new(|| Arc::new(Knowledge::load().expect("shipped data")));

pub const PASSWORD: &str = "plumb-line-test";

/// A fresh practice; sign-in attempts are counted per address, so each test calls from its own.
pub struct Practice {
    pub state: AppState,
    pub key: Key,
    pub peer: SocketAddr,
    pub directory: TempDir,
}

pub fn practice() -> Practice {
    static CALLERS: AtomicU16 = AtomicU16::new(1);
    let [high, low] = CALLERS.fetch_add(1, Ordering::Relaxed).to_be_bytes();
    let directory = tempfile::tempdir().unwrap();
    let state = AppState::new(Store::open(directory.path()).unwrap(), KNOWLEDGE.clone()).unwrap();
    Practice { state, key: Key::generate(), peer: SocketAddr::from(([127, 0, high, low], 40_000)), directory }
}

impl Practice {
    /// The same practice as it stands after a new start.
    pub fn again(&self) -> AppState {
        AppState::new(self.state.desk.store.clone(), KNOWLEDGE.clone()).unwrap()
    }
}

pub struct Answer {
    pub status: StatusCode,
    pub headers: actix_web::http::header::HeaderMap,
    pub body: Value,
}

/// A browser: keeps its cookie from one request to the next.
pub struct Browser<'a, S> {
    pub app: &'a S,
    pub peer: SocketAddr,
    pub cookie: Option<String>,
}

impl<S, B> Browser<'_, S>
where
    S: Service<actix_http::Request, Response = ServiceResponse<B>, Error = actix_web::Error>,
    B: MessageBody,
{
    pub async fn send(&mut self, method: Method, path: &str, body: Option<Value>) -> Answer {
        let mut request = TestRequest::default().method(method).uri(path).peer_addr(self.peer);
        if let Some(cookie) = &self.cookie {
            request = request.insert_header(("Cookie", cookie.clone()));
        }
        if let Some(body) = body {
            request = request.set_json(body);
        }
        let response = call_service(self.app, request.to_request()).await;
        let (status, headers) = (response.status(), response.headers().clone());
        for set in headers.get_all("Set-Cookie") {
            self.keep_cookie(set.to_str().unwrap());
        }
        let body = read_body(response).await;
        Answer { status, headers, body: serde_json::from_slice(&body).unwrap_or(Value::Null) }
    }

    /// Keeps a cookie beside others, in place of one of the same name.
    fn keep_cookie(&mut self, set: &str) {
        let cookie = set.split(';').next().unwrap();
        let name = cookie.split('=').next().unwrap();
        let others = self.cookie.iter().flat_map(|all| all.split("; "));
        let mut all: Vec<&str> = others.filter(|other| other.split('=').next() != Some(name)).collect();
        all.push(cookie);
        self.cookie = Some(all.join("; "));
    }

    /// Sends bytes as they are; gives status, headers and the bytes of the answer.
    pub async fn raw(&mut self, method: Method, path: &str, bytes: Vec<u8>) -> (Answer, Vec<u8>) {
        let mut request = TestRequest::default().method(method).uri(path).peer_addr(self.peer);
        if let Some(cookie) = &self.cookie {
            request = request.insert_header(("Cookie", cookie.clone()));
        }
        let request = request.insert_header(("Content-Type", "application/octet-stream")).set_payload(bytes);
        let response = call_service(self.app, request.to_request()).await;
        let (status, headers) = (response.status(), response.headers().clone());
        let bytes = read_body(response).await.to_vec();
        (Answer { status, headers, body: serde_json::from_slice(&bytes).unwrap_or(Value::Null) }, bytes)
    }

    /// An answer that goes on: its pieces as they come.
    pub async fn stream(&mut self, path: &str) -> impl Stream<Item = Bytes> + use<S, B> {
        let cookie = self.cookie.clone().unwrap_or_default();
        let request = TestRequest::get().uri(path).peer_addr(self.peer).insert_header(("Cookie", cookie));
        let response = call_service(self.app, request.to_request()).await;
        assert_eq!(response.headers().get("Content-Type").unwrap(), "text/event-stream");
        let mut body = Box::pin(response.into_body());
        poll_fn(move |context| body.as_mut().poll_next(context).map(|piece| piece?.ok()))
    }

    pub async fn delete(&mut self, path: &str) -> Answer {
        self.send(Method::DELETE, path, None).await
    }

    pub async fn get(&mut self, path: &str) -> Answer {
        self.send(Method::GET, path, None).await
    }

    pub async fn post(&mut self, path: &str, body: Value) -> Answer {
        self.send(Method::POST, path, Some(body)).await
    }

    pub async fn put(&mut self, path: &str, body: Value) -> Answer {
        self.send(Method::PUT, path, Some(body)).await
    }

    pub async fn patch(&mut self, path: &str, body: Value) -> Answer {
        self.send(Method::PATCH, path, Some(body)).await
    }

    pub async fn become_owner(&mut self) {
        let owner = json!({"name": "Mara", "login": "mara", "password": PASSWORD});
        assert_eq!(self.post("/api/v1/session/owner", owner).await.status, StatusCode::CREATED);
    }

    /// A client with one empty round; gives the round's id.
    pub async fn round(&mut self) -> String {
        let brief = example()["client"].clone();
        let client = self.post("/api/v1/clients", brief).await;
        assert_eq!(client.status, StatusCode::CREATED, "{}", client.body);
        let path = format!("/api/v1/clients/{}/rounds", client.body["id"].as_str().unwrap());
        let round = self.post(&path, json!({"date": "2026-03-02", "measured_by": "A", "weight_kg": 82.4})).await;
        assert_eq!(round.status, StatusCode::CREATED, "{}", round.body);
        round.body["id"].as_str().unwrap().to_owned()
    }
}

pub fn example() -> Value {
    serde_json::from_str(include_str!("../../../../../docs/examples/case.json")).unwrap()
}

/// Puts the application of a practice into a variable.
macro_rules! browser {
    ($practice:expr, $app:ident) => {
        let $app = init_service(application($practice.state.clone(), &$practice.key)).await;
    };
}

pub(crate) use browser;

pub fn of<'a, S>(practice: &Practice, app: &'a S) -> Browser<'a, S> {
    Browser { app, peer: practice.peer, cookie: None }
}
