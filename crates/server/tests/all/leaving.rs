//! Clients put away and erased; rounds given another day and removed.

use crate::support::{browser, of, practice};
use actix_web::http::StatusCode;
use actix_web::test::init_service;
use diesel::connection::SimpleConnection;
use diesel::{Connection, SqliteConnection};
use rstest::rstest;
use serde_json::{Value, json};
use server::application;

/// A practice with one client who has one round.
macro_rules! with_a_round {
    ($practice:ident, $browser:ident, $client:ident, $round:ident) => {
        let $practice = practice();
        browser!($practice, app);
        let mut $browser = of(&$practice, &app);
        $browser.become_owner().await;
        let $round = $browser.round().await;
        let shown = $browser.get(&format!("/api/v1/rounds/{}", $round)).await.body;
        let $client = shown["client_id"].as_str().unwrap().to_owned();
    };
}

#[actix_web::test]
async fn whoever_is_put_away_is_out_of_the_lists_and_comes_back_whole() {
    with_a_round!(practice, browser, client, round);
    let whole = browser.get(&format!("/api/v1/clients/{client}")).await.body;
    for (away, listed, put_away) in [(false, 1, 0), (true, 0, 1), (false, 1, 0)] {
        let put = browser.put(&format!("/api/v1/clients/{client}/away"), json!({"away": away})).await;
        assert_eq!((put.status, put.body["put_away_on"].is_string()), (StatusCode::OK, away));
        assert_eq!(browser.get("/api/v1/clients").await.body["total"], listed);
        assert_eq!(browser.get("/api/v1/clients?away=true").await.body["total"], put_away);
    }
    assert_eq!(browser.get(&format!("/api/v1/clients/{client}")).await.body, whole);
    assert_eq!(browser.put("/api/v1/clients/x/away", json!({"away": true})).await.status, StatusCode::NOT_FOUND);
}

#[actix_web::test]
async fn an_erased_client_is_gone_from_every_page() {
    with_a_round!(practice, browser, client, round);
    let pages = [
        format!("/api/v1/clients/{client}"),
        format!("/api/v1/clients/{client}/belongings"),
        format!("/api/v1/clients/{client}/archive"),
        format!("/api/v1/rounds/{round}"),
        format!("/api/v1/rounds/{round}/verdict"),
        format!("/api/v1/rounds/{round}/plan"),
    ];
    for page in &pages {
        assert_eq!(browser.get(page).await.status, StatusCode::OK, "{page}");
    }
    assert_eq!(browser.get(&pages[1]).await.body["rounds"], 1);
    assert_eq!(browser.delete(&pages[0]).await.status, StatusCode::NO_CONTENT);
    for page in &pages {
        assert_eq!(browser.get(page).await.status, StatusCode::NOT_FOUND, "{page}");
    }
    assert_eq!(browser.get("/api/v1/clients").await.body["total"], 0);
    assert_eq!(browser.delete(&pages[0]).await.status, StatusCode::NOT_FOUND);
    let deeds = browser.get("/api/v1/practice/deeds").await.body;
    assert_eq!((&deeds[0]["act"], &deeds[0]["client_name"]), (&json!("erase"), &Value::Null));
}

#[rstest]
#[case::another_day("2026-02-20", StatusCode::NO_CONTENT, "")]
#[case::the_day_of_another_round("2026-01-05", StatusCode::CONFLICT, "another round on 5 Jan 2026")]
#[case::before_birth("1901-01-01", StatusCode::UNPROCESSABLE_ENTITY, "before the client was born")]
#[case::to_come("2999-01-01", StatusCode::UNPROCESSABLE_ENTITY, "in the future")]
#[case::no_day("2026-02-30", StatusCode::UNPROCESSABLE_ENTITY, "not a date of the calendar")]
#[actix_web::test]
async fn a_round_gets_another_day(#[case] date: &str, #[case] status: StatusCode, #[case] says: &str) {
    with_a_round!(practice, browser, client, round);
    let earlier = json!({"date": "2026-01-05", "measured_by": "A", "weight_kg": 82.4});
    browser.post(&format!("/api/v1/clients/{client}/rounds"), earlier).await;
    let path = format!("/api/v1/rounds/{round}");
    let saved = browser.put(&path, json!({"date": date})).await;
    assert_eq!(saved.status, status, "{}", saved.body);
    assert!(saved.body["detail"].as_str().unwrap_or_default().contains(says), "{}", saved.body);
    let shown = browser.get(&path).await.body["date"].clone();
    assert_eq!(shown, if status.is_success() { date } else { "2026-03-02" });
}

#[actix_web::test]
async fn a_round_from_which_no_week_was_given_can_be_removed() {
    with_a_round!(practice, browser, client, round);
    let path = format!("/api/v1/rounds/{round}");
    assert_eq!(browser.delete(&path).await.status, StatusCode::NO_CONTENT);
    assert_eq!(browser.get(&path).await.status, StatusCode::NOT_FOUND);
    assert!(practice.state.desk.store.rounds(&client.into()).unwrap().is_empty());
}

#[actix_web::test]
async fn after_years_without_a_round_it_is_asked_whether_a_client_is_still_needed() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let client = browser.post("/api/v1/clients", crate::support::example()["client"].clone()).await;
    let client = client.body["id"].as_str().unwrap().to_owned();
    let long_ago = json!({"date": "2015-05-04", "measured_by": "A", "weight_kg": 82.4});
    assert_eq!(browser.post(&format!("/api/v1/clients/{client}/rounds"), long_ago).await.status, StatusCode::CREATED);
    for (away, expected) in [(false, vec!["round-due", "retention"]), (true, vec!["retention"])] {
        browser.put(&format!("/api/v1/clients/{client}/away"), json!({"away": away})).await;
        let today = browser.get("/api/v1/today").await.body;
        let kinds: Vec<&str> =
            today["items"].as_array().unwrap().iter().map(|item| item["kind"].as_str().unwrap()).collect();
        assert_eq!(kinds, expected);
    }
    let recent = json!({"date": "2026-03-02", "measured_by": "A", "weight_kg": 82.4});
    browser.post(&format!("/api/v1/clients/{client}/rounds"), recent).await;
    assert_eq!(browser.get("/api/v1/today").await.body["total"], 0);
}

#[actix_web::test]
async fn a_client_whose_row_does_not_read_is_named_and_keeps_nobody_else_from_being_seen() {
    with_a_round!(practice, browser, spoilt, round);
    browser.round().await;
    let row =
        format!("UPDATE client SET brief_json = json_set(brief_json, '$.height_cm', 'tall') WHERE id = '{spoilt}'");
    let database = practice.directory.path().join("orthomer.sqlite");
    SqliteConnection::establish(&database.to_string_lossy()).unwrap().batch_execute(&row).unwrap();
    let list = browser.get("/api/v1/clients").await.body;
    assert_eq!((&list["total"], list["items"].as_array().unwrap().len()), (&json!(2), 1));
    assert_eq!(list["unreadable"][0]["id"], json!(spoilt));
    for narrowed in ["order=last-round", "due=true", "tag=nobody"] {
        let list = browser.get(&format!("/api/v1/clients?{narrowed}")).await.body;
        assert_eq!(list["unreadable"][0]["id"], json!(spoilt), "{narrowed}");
    }
    let today = browser.get("/api/v1/today").await;
    assert_eq!(today.status, StatusCode::OK);
    let asked = today.body["items"].as_array().unwrap().iter().find(|item| item["kind"] == "unreadable").unwrap();
    assert_eq!(asked["client_id"], json!(spoilt));
    let own = browser.get(&format!("/api/v1/clients/{spoilt}")).await;
    assert_eq!(own.status, StatusCode::INTERNAL_SERVER_ERROR);
    assert!(own.body["detail"].as_str().unwrap().starts_with("What is stored here cannot be read"), "{}", own.body);
    assert_eq!(browser.get(&format!("/api/v1/rounds/{round}")).await.status, StatusCode::INTERNAL_SERVER_ERROR);
}
