//! What the server logs. In a process of its own: a log is watched per process, and other tests would be heard too.

#![allow(clippy::unwrap_used, reason = "a test that cannot go on should stop here")]

#[allow(dead_code, unused_macros, unused_imports, reason = "written for the other binary")]
#[path = "all/support/mod.rs"]
mod support;

use actix_web::test::init_service;
use serde_json::{Value, json};
use server::application;
use std::sync::{Arc, Mutex};
use support::{PASSWORD, browser, of, practice};

/// Where a test's log goes.
#[derive(Clone, Default)]
struct Log(Arc<Mutex<Vec<u8>>>);

impl Log {
    fn text(&self) -> String {
        String::from_utf8(self.0.lock().unwrap().clone()).unwrap()
    }
}

impl std::io::Write for Log {
    fn write(&mut self, bytes: &[u8]) -> std::io::Result<usize> {
        self.0.lock().unwrap().write(bytes)
    }

    fn flush(&mut self) -> std::io::Result<()> {
        Ok(())
    }
}

#[actix_web::test]
async fn the_log_has_a_line_per_request_with_its_id_and_names_nobody() {
    let practice = practice();
    let log = Log::default();
    let writer = log.clone();
    let subscriber = tracing_subscriber::fmt().json().with_writer(move || writer.clone()).finish();
    let _guard = tracing::subscriber::set_default(subscriber);
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let path = format!("/api/v1/rounds/{}/tape", browser.round().await);
    let sheet = json!({"revision": 0, "measured_by": "Jo", "folds": [], "levels_cm": {}, "entries": [{"site": "waist", "readings_cm": [81.0]}]});
    browser.put(&path, sheet.clone()).await;
    let conflict = browser.put(&path, sheet).await;
    assert!(conflict.body["detail"].as_str().unwrap().contains("Mara"), "the coach is told who");
    let lines: Vec<Value> = log.text().lines().map(|line| serde_json::from_str(line).unwrap()).collect();
    let answered: Vec<&Value> = lines.iter().filter(|line| line["fields"]["message"] == "answered").collect();
    assert_eq!(answered.len(), 5);
    let last = answered[4];
    assert_eq!((last["fields"]["status"].as_u64(), last["span"]["method"].as_str()), (Some(409), Some("PUT")));
    assert_eq!(last["span"]["route"], "/api/v1/rounds/{round_id}/tape");
    let mut ids: Vec<&str> = answered.iter().map(|line| line["span"]["request_id"].as_str().unwrap()).collect();
    ids.dedup();
    assert_eq!(ids.len(), 5);
    for person in ["Mara", "mara", "Example", "Jo", PASSWORD, "127.0.0.16"] {
        assert!(!log.text().contains(person), "{person}: {}", log.text());
    }
}
