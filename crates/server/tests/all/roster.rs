//! The list of clients narrowed and ordered, and days agreed on for the next round.

use crate::support::{Practice, browser, example, of, practice};
use actix_web::http::StatusCode;
use actix_web::test::init_service;
use desk::clients::MadeUp;
use jiff::ToSpan;
use rstest::rstest;
use serde_json::{Value, json};
use server::application;
use std::sync::Arc;

/// A practice with three clients: Ada is tagged and was measured lately, Ben was never measured, Cleo long ago.
macro_rules! three {
    ($browser:ident, $ids:ident, $today:ident) => {
        let practice = practice();
        browser!(practice, app);
        let mut $browser = of(&practice, &app);
        $browser.become_owner().await;
        let $today = jiff::ZonedDateTime::now().date();
        let mut $ids = Vec::new();
        for (name, tags, weeks_ago) in
            [("Ada", json!(["online", "Tuesday"]), Some(2)), ("Ben", json!([]), None), ("Cleo", json!(["online"]), Some(20))]
        {
            let mut brief = example()["client"].clone();
            brief["name"] = json!(name);
            brief["tags"] = tags;
            let added = $browser.post("/api/v1/clients", brief).await;
            assert_eq!(added.status, StatusCode::CREATED, "{}", added.body);
            let id = added.body["id"].as_str().unwrap().to_owned();
            if let Some(weeks) = weeks_ago {
                let on = $today.checked_sub(i64::from(weeks).weeks()).unwrap();
                let round = json!({"date": on.to_string(), "measured_by": "A"});
                let opened = $browser.post(&format!("/api/v1/clients/{id}/rounds"), round).await;
                assert_eq!(opened.status, StatusCode::CREATED, "{}", opened.body);
            }
            $ids.push(id);
        }
    };
}

fn names(page: &Value) -> Vec<&str> {
    page["items"].as_array().unwrap().iter().map(|client| client["name"].as_str().unwrap()).collect()
}

#[rstest]
#[case::by_name("", &["Ada", "Ben", "Cleo"])]
#[case::by_tag("tag=online", &["Ada", "Cleo"])]
#[case::by_a_tag_nobody_has("tag=onl", &[])]
#[case::whose_round_is_due("due=true", &["Cleo"])]
#[case::the_longest_ago_first("order=last-round", &["Ben", "Cleo", "Ada"])]
#[case::two_at_once("tag=online&due=true", &["Cleo"])]
#[case::found_and_narrowed("find=a&tag=online", &["Ada"])]
#[case::a_page_of_what_is_left("tag=online&page=2&per_page=1", &["Cleo"])]
#[actix_web::test]
async fn the_list_is_narrowed_and_ordered(#[case] query: &str, #[case] expected: &[&str]) {
    three!(browser, ids, _today);
    assert_eq!(ids.len(), 3);
    let page = browser.get(&format!("/api/v1/clients?{query}")).await;
    assert_eq!((page.status, names(&page.body)), (StatusCode::OK, expected.to_vec()), "{}", page.body);
    assert_eq!(page.body["tags"], json!(["online", "Tuesday"]));
}

#[actix_web::test]
async fn a_day_agreed_on_with_several_orders_the_list_and_is_due_when_it_comes() {
    three!(browser, ids, today);
    let agree = |ids: &[String], on: Value| json!({"client_ids": ids, "on": on});
    let path = "/api/v1/clients/next-round";
    let later = today.checked_add(3.weeks()).unwrap().to_string();
    assert_eq!(browser.post(path, agree(&ids[..2], json!(later))).await.status, StatusCode::NO_CONTENT);
    assert_eq!(browser.post(path, agree(&ids[1..2], json!(today.to_string()))).await.status, StatusCode::NO_CONTENT);
    let ordered = browser.get("/api/v1/clients?order=next-round").await.body;
    assert_eq!(names(&ordered), ["Ben", "Ada", "Cleo"]);
    assert_eq!(names(&browser.get("/api/v1/clients?due=true").await.body), ["Ben", "Cleo"]);
    let queue = browser.get("/api/v1/today").await.body;
    let due: Vec<&Value> =
        queue["items"].as_array().unwrap().iter().filter(|item| item["kind"] == "round-due").collect();
    assert!(
        due.iter().any(|item| item["says"].as_str().unwrap().starts_with("The next round was agreed on for")),
        "{queue}"
    );
    // What is agreed on later is not due because the last round is long ago.
    assert_eq!(browser.post(path, agree(&ids[2..], json!(later))).await.status, StatusCode::NO_CONTENT);
    assert_eq!(names(&browser.get("/api/v1/clients?due=true").await.body), ["Ben"]);
    assert_eq!(browser.post(path, agree(&ids[1..2], Value::Null)).await.status, StatusCode::NO_CONTENT);
    assert_eq!(names(&browser.get("/api/v1/clients?due=true").await.body), [""; 0]);
}

#[rstest]
#[case::yesterday(json!({"on": "2020-01-01"}), "/on", "is not a day to agree on")]
#[case::no_day(json!({"on": "soon"}), "/on", "is not a date of the calendar")]
#[case::far_off(json!({"on": "2199-01-01"}), "/on", "is not a day to agree on")]
#[case::nobody(json!({"client_ids": []}), "/client_ids", "1 to 200")]
#[actix_web::test]
async fn a_day_that_cannot_be_agreed_on_is_refused(#[case] wrong: Value, #[case] pointer: &str, #[case] says: &str) {
    three!(browser, ids, today);
    let mut body = json!({"client_ids": ids, "on": today.to_string()});
    body.as_object_mut().unwrap().extend(wrong.as_object().unwrap().clone());
    let refused = browser.post("/api/v1/clients/next-round", body).await;
    assert_eq!(refused.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(refused.body["errors"][0]["pointer"], pointer);
    assert!(refused.body["errors"][0]["says"].as_str().unwrap().contains(says), "{}", refused.body);
}

#[actix_web::test]
async fn with_one_who_is_not_there_a_day_is_agreed_on_with_nobody() {
    three!(browser, ids, today);
    let body = json!({"client_ids": [ids[0], "nobody"], "on": today.to_string()});
    assert_eq!(browser.post("/api/v1/clients/next-round", body).await.status, StatusCode::NOT_FOUND);
    assert_eq!(names(&browser.get("/api/v1/clients?due=true").await.body), ["Cleo"]);
}

#[actix_web::test]
async fn a_client_is_made_up_by_who_serves_and_by_nobody_else() {
    let practice = practice();
    let serves = practice.state.clone().making_up(Arc::new(|_, _, who, _| {
        Ok(MadeUp { client_id: format!("for {}", who.name).into(), round_id: "newest".into() })
    }));
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let nobody = browser.post("/api/v1/clients/made-up", json!({})).await;
    assert_eq!(
        (nobody.status, &nobody.body["detail"]),
        (StatusCode::NOT_FOUND, &json!("this server makes no clients up"))
    );
    let practice = Practice { state: serves, ..practice };
    browser!(practice, app);
    let mut again = of(&practice, &app);
    again.cookie.clone_from(&browser.cookie);
    let made = again.post("/api/v1/clients/made-up", json!({})).await;
    assert_eq!(made.status, StatusCode::CREATED, "{}", made.body);
    assert_eq!(made.body["round_id"], json!("newest"));
}

/// Two readings a site, whoever holds the tape: what is learned of them comes from clients, not from who is made up.
#[rstest]
#[case::a_client(json!(["online"]), 1)]
#[case::who_is_made_up(json!(["made up"]), 0)]
#[actix_web::test]
async fn nothing_is_learned_of_a_measurer_from_who_is_made_up(#[case] tags: Value, #[case] measurers: usize) {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let mut brief = example()["client"].clone();
    brief["tags"] = tags;
    let id = browser.post("/api/v1/clients", brief).await.body["id"].as_str().unwrap().to_owned();
    let today = jiff::ZonedDateTime::now().date().to_string();
    let round = json!({"date": today, "measured_by": "A"});
    let round =
        browser.post(&format!("/api/v1/clients/{id}/rounds"), round).await.body["id"].as_str().unwrap().to_owned();
    let entries = json!([{"site": "waist", "readings_cm": [80.0, 80.6]}]);
    let sheet = json!({"revision": 0, "measured_by": "A", "folds": [], "levels_cm": {}, "entries": entries});
    let saved = browser.put(&format!("/api/v1/rounds/{round}/tape"), sheet).await;
    assert_eq!(saved.status, StatusCode::OK, "{}", saved.body);
    let learned = browser.get("/api/v1/practice/measurers").await;
    assert_eq!(learned.body.as_array().unwrap().len(), measurers, "{}", learned.body);
}
