//! The log over HTTP: a plan given, logged by coach and client, corrected, sent twice, sent from two phones, reviewed.

use crate::support::{browser, example, of, practice};
use actix_web::http::{Method, StatusCode};
use actix_web::test::{TestRequest, call_service, init_service, read_body};
use jiff::{Timestamp, ToSpan};
use rstest::rstest;
use serde_json::{Value, json};
use server::application;
use std::slice::from_ref;
use uuid::Uuid;

/// Opens a practice with one client who has a plan since this week's Monday; gives the client's id, the round's id, the first
/// session and its first exercise.
macro_rules! trained {
    ($practice:ident, $app:ident, $browser:ident, $client:ident, $round:ident, $week:ident) => {
        let $practice = practice();
        browser!($practice, $app);
        let mut $browser = of(&$practice, &$app);
        $browser.become_owner().await;
        let mut brief = example()["client"].clone();
        brief["readiness"] = json!({"asked_on": "2026-03-01", "yes": []});
        let client = $browser.post("/api/v1/clients", brief).await;
        let $client = client.body["id"].as_str().unwrap().to_owned();
        let rounds = format!("/api/v1/clients/{}/rounds", $client);
        let round = $browser.post(&rounds, json!({"date": "2026-03-02", "measured_by": "A"})).await;
        let $round = round.body["id"].as_str().unwrap().to_owned();
        let today = jiff::ZonedDateTime::now().date().to_string();
        let issue = json!({"revision": 0, "starts_on": today});
        let issued = $browser.post(&format!("/api/v1/rounds/{}/plan/issue", $round), issue).await;
        assert_eq!(issued.status, StatusCode::CREATED, "{}", issued.body);
        let $week = $browser.get(&format!("/api/v1/clients/{}/week", $client)).await.body;
    };
}

fn now() -> String {
    Timestamp::now().to_string()
}

/// An entry of the first exercise of this week's first session.
fn entry(week: &Value, sets: &[Value]) -> Value {
    let session = &week["sessions"][0];
    let item = &session["items"][0]["item"];
    json!({
        "id": Uuid::new_v4().to_string(), "plan": week["plan"]["id"], "week": session["week"], "day": session["day"],
        "trained_on": week["today"], "at": now(),
        "part": {"kind": "exercise", "exercise": item["exercise"], "position": 1, "scheme": "straight", "sets": sets},
    })
}

fn set(number: u8, reps: u16) -> Value {
    json!({"number": number, "load_kg": 20.0, "reps": reps, "reserve": 1})
}

fn sent(entries: &[Value]) -> Value {
    json!({"sent_at": now(), "entries": entries})
}

fn fates(answer: &Value) -> Vec<String> {
    let outcomes = answer["outcomes"].as_array().unwrap();
    outcomes.iter().map(|outcome| outcome["fate"].as_str().unwrap().to_owned()).collect()
}

#[actix_web::test]
async fn what_is_sent_twice_is_kept_once_and_a_correction_counts() {
    trained!(practice, app, browser, client, round, week);
    let path = format!("/api/v1/clients/{client}/log");
    let first = entry(&week, &[set(1, 8)]);
    assert_eq!(fates(&browser.post(&path, sent(from_ref(&first))).await.body), ["kept"]);
    assert_eq!(fates(&browser.post(&path, sent(from_ref(&first))).await.body), ["known"]);
    let mut second = entry(&week, &[set(1, 8), set(2, 7)]);
    second["follows"] = json!([first["id"]]);
    assert_eq!(fates(&browser.post(&path, sent(&[second.clone(), first])).await.body), ["kept", "known"]);
    let shown = browser.get(&format!("/api/v1/clients/{client}/week")).await.body;
    let entries = shown["sessions"][0]["items"][0]["entries"].as_array().unwrap().clone();
    assert_eq!(entries.len(), 1);
    assert_eq!((&entries[0]["entry"]["id"], &entries[0]["written_by"]), (&second["id"], &json!("Mara")));
    assert_eq!(shown["sessions"][0]["state"], "begun");
    let steps = browser.get(&format!("/api/v1/rounds/{round}")).await.body["steps"].clone();
    assert_eq!(steps[6]["says"], "1 session");
}

#[actix_web::test]
async fn two_phones_that_did_not_see_each_other_are_both_kept_and_somebody_decides() {
    trained!(practice, app, browser, client, _round, week);
    let path = format!("/api/v1/clients/{client}/log");
    let (one, other) = (entry(&week, &[set(1, 8)]), entry(&week, &[set(1, 11)]));
    assert_eq!(fates(&browser.post(&path, sent(from_ref(&one))).await.body), ["kept"]);
    assert_eq!(fates(&browser.post(&path, sent(from_ref(&other))).await.body), ["beside"]);
    let today = browser.get("/api/v1/today").await.body;
    let kinds: Vec<&str> = today["items"].as_array().unwrap().iter().map(|i| i["kind"].as_str().unwrap()).collect();
    assert!(kinds.contains(&"conflict"), "{today}");
    let mut decided = entry(&week, &[set(1, 11)]);
    decided["follows"] = json!([one["id"], other["id"]]);
    assert_eq!(fates(&browser.post(&path, sent(&[decided])).await.body), ["kept"]);
    let log = browser.get(&path).await.body;
    assert_eq!((&log["done"][0]["conflicts"], &log["done"][0]["exercises"].as_array().unwrap().len()), (&json!(0), &1));
}

#[rstest]
#[case::while_it_is_under_way(false, None)]
#[case::once_it_is_finished(true, Some(json!(["swung", "cut short"])))]
#[actix_web::test]
async fn what_was_reported_of_the_form_is_told_at_the_next_time(#[case] finished: bool, #[case] told: Option<Value>) {
    trained!(practice, app, browser, client, _round, week);
    let mut swung = entry(&week, &[set(1, 8)]);
    swung["part"]["form"] = json!(["swung", "cut-short"]);
    let mut end = entry(&week, &[]);
    end["part"] = json!({"kind": "session", "finished": finished});
    let answer = browser.post(&format!("/api/v1/clients/{client}/log"), sent(&[swung.clone(), end])).await;
    assert_eq!(fates(&answer.body), ["kept", "kept"]);
    let told_of = browser.get(&format!("/api/v1/clients/{client}/reported")).await.body;
    let exercise = swung["part"]["exercise"].as_str().unwrap();
    assert_eq!(told_of["reported"].get(exercise), told.as_ref(), "{told_of}");
}

#[rstest]
#[case::an_unknown_exercise("/part/exercise", json!("db-curll"), "db-curl")]
#[case::no_count("/part/sets/0/reps", Value::Null, "expected reps or seconds")]
#[case::too_heavy("/part/sets/0/load_kg", json!(5000), "expected -200 to 600 kg")]
#[case::no_uuid("/id", json!("7"), "is no UUID")]
#[case::a_plan_of_nobody("/plan", json!("other"), "not one of this client's plans")]
#[case::a_day_that_does_not_exist("/trained_on", json!("2026-02-30"), "not a date")]
#[actix_web::test]
async fn an_entry_that_cannot_be_kept_holds_up_no_other(
    #[case] at: &str,
    #[case] value: Value,
    #[case] expected: &str,
) {
    trained!(practice, app, browser, client, _round, week);
    let (mut bad, good) = (entry(&week, &[set(1, 8)]), entry(&week, &[set(1, 8)]));
    *bad.pointer_mut(at).unwrap() = value;
    let answer = browser.post(&format!("/api/v1/clients/{client}/log"), sent(&[bad, good])).await;
    assert_eq!(fates(&answer.body), ["refused", "kept"]);
    let says = answer.body["outcomes"][0]["says"].as_str().unwrap();
    assert!(says.contains(expected), "{says}");
}

#[actix_web::test]
async fn a_clock_that_is_a_day_ahead_is_put_right_and_told() {
    trained!(practice, app, browser, client, _round, week);
    let ahead = Timestamp::now().checked_add(26.hours()).unwrap();
    let mut late = entry(&week, &[set(1, 8)]);
    late["at"] = json!(ahead.to_string());
    late["trained_on"] = json!("2999-01-01");
    let answer = browser
        .post(&format!("/api/v1/clients/{client}/log"), json!({"sent_at": ahead.to_string(), "entries": [late]}))
        .await;
    let off = answer.body["clock_ahead_s"].as_i64().unwrap();
    assert!((26 * 3600 - off).abs() < 60, "{off}");
    let log = browser.get(&format!("/api/v1/clients/{client}/log")).await.body;
    assert_eq!(log["done"][0]["on"], week["today"]);
}

#[actix_web::test]
async fn a_red_flag_is_said_at_once_and_stands_first_in_the_queue_until_seen_to() {
    trained!(practice, app, browser, client, _round, week);
    let mut sore = entry(&week, &[set(1, 8)]);
    sore["part"]["pain"] = json!({"area": "knee", "side": "left", "level": 1, "red_flags": ["numbness"]});
    let answer = browser.post(&format!("/api/v1/clients/{client}/log"), sent(from_ref(&sore))).await.body;
    assert_eq!(answer["outcomes"][0]["alarm"], "refer");
    assert!(answer["outcomes"][0]["says"].as_str().unwrap().contains("left knee: numbness. Stop and refer"));
    let first = browser.get("/api/v1/today").await.body["items"][0].clone();
    assert_eq!((&first["kind"], first["client_id"].as_str()), (&json!("refer"), Some(client.as_str())));
    let seen = json!({"client_id": client, "what": first["what"], "note": "called"});
    assert_eq!(browser.post("/api/v1/today/seen", seen).await.status, StatusCode::NO_CONTENT);
    let refers = |view: &Value| view["items"].as_array().unwrap().iter().filter(|item| item["kind"] == "refer").count();
    let after = browser.get("/api/v1/today").await.body;
    assert_eq!(refers(&after), 0, "{after}");
    let path = format!("/api/v1/clients/{client}/log");
    let mut again = entry(&week, &[set(1, 8), set(2, 8)]);
    again["follows"] = json!([sore["id"]]);
    again["part"]["pain"] = sore["part"]["pain"].clone();
    browser.post(&path, sent(from_ref(&again))).await;
    assert_eq!(refers(&browser.get("/api/v1/today").await.body), 0, "another set tells nothing new");
    let mut worse = entry(&week, &[set(1, 8), set(2, 8)]);
    worse["follows"] = json!([again["id"]]);
    worse["part"]["pain"] = json!({"area": "knee", "side": "left", "level": 1, "red_flags": ["numbness", "swelling"]});
    browser.post(&path, sent(from_ref(&worse))).await;
    assert_eq!(refers(&browser.get("/api/v1/today").await.body), 1, "a new sign does");
}

#[actix_web::test]
async fn the_coach_s_word_goes_before_the_rules_and_is_taken_back() {
    trained!(practice, app, browser, client, _round, week);
    let exercise = week["sessions"][0]["items"][0]["item"]["exercise"].as_str().unwrap();
    let path = format!("/api/v1/clients/{client}/targets/{exercise}");
    let said = json!({"overrule": {"load_kg": 17.5, "count": 15, "note": "slower"}});
    assert_eq!(browser.put(&path, said).await.status, StatusCode::NO_CONTENT);
    let target = |view: &Value| view["sessions"][0]["items"][0]["target"].clone();
    let shown = target(&browser.get(&format!("/api/v1/clients/{client}/week")).await.body);
    assert_eq!((&shown["kind"], &shown["load_kg"]), (&json!("overruled"), &json!(17.5)));
    let without = json!({"overrule": {"load_kg": 17.5, "count": 15, "note": " "}});
    assert_eq!(browser.put(&path, without).await.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(browser.put(&path, json!({})).await.status, StatusCode::NO_CONTENT);
    let back = target(&browser.get(&format!("/api/v1/clients/{client}/week")).await.body);
    assert_eq!(back["kind"], "find");
}

/// The session of `entry` as finished.
fn finished(week: &Value) -> Value {
    let mut whole = entry(week, &[]);
    whole["part"] = json!({"kind": "session", "finished": true});
    whole
}

#[actix_web::test]
async fn a_finished_session_counts_at_once_for_next_time_and_one_under_way_does_not() {
    trained!(practice, app, browser, client, _round, week);
    let path = format!("/api/v1/clients/{client}/log");
    let mut sore = entry(&week, &[set(1, 8)]);
    sore["part"]["pain"] = json!({"area": "knee", "level": 4});
    browser.post(&path, sent(&[sore])).await;
    let target = |view: &Value| view["sessions"][0]["items"][0]["target"].clone();
    let under_way = target(&browser.get(&format!("/api/v1/clients/{client}/week")).await.body);
    assert_eq!((&under_way["kind"], &under_way["swap"]), (&json!("find"), &Value::Null));
    browser.post(&path, sent(&[finished(&week)])).await;
    let after = target(&browser.get(&format!("/api/v1/clients/{client}/week")).await.body);
    assert_eq!(after["swap"], "Pain 4 of 10 last time: swap it.");
    assert_eq!((&after["kind"], &after["load_kg"]), (&json!("hold"), &json!(20.0)));
}

#[actix_web::test]
async fn what_is_said_after_a_session_holds_until_the_next_one_also_when_the_session_is_corrected() {
    trained!(practice, app, browser, client, _round, week);
    let path = format!("/api/v1/clients/{client}/log");
    let first = entry(&week, &[set(1, 8)]);
    browser.post(&path, sent(&[first.clone(), finished(&week)])).await;
    let exercise = first["part"]["exercise"].as_str().unwrap();
    let said = json!({"overrule": {"load_kg": 17.5, "count": 15, "note": "slower"}});
    browser.put(&format!("/api/v1/clients/{client}/targets/{exercise}"), said).await;
    let mut corrected = entry(&week, &[set(1, 9)]);
    corrected["follows"] = json!([first["id"]]);
    assert_eq!(fates(&browser.post(&path, sent(&[corrected])).await.body), ["kept"]);
    let shown = browser.get(&format!("/api/v1/clients/{client}/week")).await.body;
    assert_eq!(shown["sessions"][0]["items"][0]["target"]["kind"], "overruled");
}

/// A request with the token of a private link.
macro_rules! linked {
    ($practice:ident, $app:ident, $method:expr, $path:expr, $token:expr, $body:expr) => {{
        let mut request = TestRequest::default().method($method).uri($path).peer_addr($practice.peer);
        if let Some(token) = $token {
            request = request.insert_header(("Authorization", format!("Bearer {token}")));
        }
        let body: Option<Value> = $body;
        if let Some(body) = body {
            request = request.set_json(body);
        }
        let response = call_service(&$app, request.to_request()).await;
        let status = response.status();
        (status, serde_json::from_slice::<Value>(&read_body(response).await).unwrap_or(Value::Null))
    }};
}

#[actix_web::test]
async fn a_private_link_opens_one_client_s_page_and_nothing_else() {
    trained!(practice, app, browser, client, round, week);
    let links = format!("/api/v1/clients/{client}/links");
    let made = browser.post(&links, json!({"days": 30})).await;
    assert_eq!(made.status, StatusCode::CREATED);
    let token = made.body["token"].as_str().unwrap().to_owned();
    assert_eq!(token.len(), 64);
    let (status, own) = linked!(practice, app, Method::GET, "/api/v1/my/week", Some(&token), None);
    assert_eq!((status, own["client_id"].as_str()), (StatusCode::OK, Some(client.as_str())));
    let mine = sent(&[entry(&week, &[set(1, 9)])]);
    let (status, kept) = linked!(practice, app, Method::POST, "/api/v1/my/log", Some(&token), Some(mine));
    assert_eq!((status, fates(&kept)), (StatusCode::OK, vec!["kept".to_owned()]));
    let written = browser.get(&format!("/api/v1/clients/{client}/log")).await.body;
    assert_eq!(written["done"][0]["exercises"][0]["written_by"], example()["client"]["name"]);
    for closed in [
        format!("/api/v1/clients/{client}"),
        format!("/api/v1/rounds/{round}/verdict"),
        "/api/v1/clients".to_owned(),
        "/api/v1/today".to_owned(),
        links.clone(),
    ] {
        let (status, _) = linked!(practice, app, Method::GET, &closed, Some(&token), None);
        assert_eq!(status, StatusCode::UNAUTHORIZED, "{closed}");
    }
    let kept = browser.get(&links).await.body;
    assert!(kept[0]["token"].is_null() && kept[0]["used_on"] == week["today"], "{kept}");
}

#[rstest]
#[case::none(None, "does not open anything")]
#[case::guessed(Some("0".repeat(64)), "does not open anything")]
#[actix_web::test]
async fn a_guessed_link_opens_nothing(#[case] token: Option<String>, #[case] expected: &str) {
    trained!(practice, app, browser, _client, _round, week);
    assert_eq!(week["sessions"].as_array().map(Vec::is_empty), Some(false));
    let (status, refused) = linked!(practice, app, Method::GET, "/api/v1/my/week", token.as_ref(), None);
    assert_eq!(status, StatusCode::UNAUTHORIZED);
    assert!(refused["detail"].as_str().unwrap().contains(expected), "{refused}");
    assert_eq!(browser.get("/api/v1/today").await.status, StatusCode::OK);
}

#[actix_web::test]
async fn a_link_that_was_taken_back_says_so() {
    trained!(practice, app, browser, client, _round, week);
    let links = format!("/api/v1/clients/{client}/links");
    let made = browser.post(&links, json!({"days": 30})).await.body;
    let path = format!("{links}/{}", made["id"].as_str().unwrap());
    assert_eq!(browser.delete(&path).await.status, StatusCode::NO_CONTENT);
    let token = made["token"].as_str().unwrap();
    let mine = sent(&[entry(&week, &[set(1, 9)])]);
    let (status, refused) = linked!(practice, app, Method::POST, "/api/v1/my/log", Some(token), Some(mine));
    assert_eq!(status, StatusCode::UNAUTHORIZED);
    assert!(refused["detail"].as_str().unwrap().contains("taken back"), "{refused}");
}

#[actix_web::test]
async fn a_client_is_shown_only_what_the_coach_shares() {
    trained!(practice, app, browser, client, round, _week);
    let made = browser.post(&format!("/api/v1/clients/{client}/links"), json!({"days": 1})).await.body;
    let token = made["token"].as_str().unwrap();
    let (_, page) = linked!(practice, app, Method::GET, "/api/v1/my/page", Some(token), None);
    assert!(page["shared"]["date"].is_null() && page["shared"]["standings"] == json!([]), "{page}");
    let (_, asked) = linked!(practice, app, Method::GET, "/api/v1/my/photos", Some(token), None);
    assert!(asked["refusal"].as_str().unwrap().contains("opens the next round first"), "{asked}");
    let choices = json!({"revision": 0, "choices": {"bring_up": ["delts.lateral"], "share": ["priorities"]}});
    let saved = browser.put(&format!("/api/v1/rounds/{round}/choices"), choices).await;
    assert_eq!(saved.status, StatusCode::OK, "{}", saved.body);
    let (_, page) = linked!(practice, app, Method::GET, "/api/v1/my/page", Some(token), None);
    assert_eq!(page["shared"]["priorities"][0]["region"], "delts.lateral");
    assert_eq!(page["shared"]["standings"], json!([]));
}

#[actix_web::test]
async fn decisions_of_a_review_are_carried_into_the_next_round() {
    trained!(practice, app, browser, client, round, _week);
    let review = format!("/api/v1/rounds/{round}/review");
    let choices = json!({"revision": 0, "choices": {"bring_up": ["delts.lateral", "calves.gastrocnemius"]}});
    browser.put(&format!("/api/v1/rounds/{round}/choices"), choices).await;
    let alone = browser.get(&review).await.body;
    assert!(alone["next"].is_null() && alone["regions"][0]["proposed"].is_null(), "{alone}");
    let decisions = json!({"delts.lateral": "release", "calves.gastrocnemius": "keep"});
    let early = browser.put(&review, json!({"revision": 0, "decisions": decisions, "carry": "instead"})).await;
    assert_eq!(early.status, StatusCode::FORBIDDEN);
    assert!(early.body["detail"].as_str().unwrap().contains("no next round yet"));
    let next = json!({"date": "2026-04-13", "measured_by": "A"});
    let next = browser.post(&format!("/api/v1/clients/{client}/rounds"), next).await.body;
    let body = json!({"revision": 0, "decisions": decisions, "also": ["delts.posterior"], "carry": "instead"});
    let saved = browser.put(&review, body).await;
    assert_eq!((saved.status, &saved.body["carried"]), (StatusCode::OK, &json!(true)), "{}", saved.body);
    let verdict = browser.get(&format!("/api/v1/rounds/{}/verdict", next["id"].as_str().unwrap())).await.body;
    assert_eq!(verdict["choices"]["bring_up"], json!(["calves.gastrocnemius", "delts.posterior"]));
    let stale = browser.put(&review, json!({"revision": 0, "decisions": {}})).await;
    assert_eq!(stale.status, StatusCode::CONFLICT);
}

#[actix_web::test]
async fn what_was_chosen_in_the_next_round_stays_unless_it_is_replaced() {
    trained!(practice, app, browser, client, round, _week);
    let choose = |revision: u8, region: &str| json!({"revision": revision, "choices": {"bring_up": [region]}});
    browser.put(&format!("/api/v1/rounds/{round}/choices"), choose(0, "delts.lateral")).await;
    let next = json!({"date": "2026-04-13", "measured_by": "A"});
    let next = browser.post(&format!("/api/v1/clients/{client}/rounds"), next).await.body;
    let next = format!("/api/v1/rounds/{}", next["id"].as_str().unwrap());
    browser.put(&format!("{next}/choices"), choose(0, "glutes.max")).await;
    let review = format!("/api/v1/rounds/{round}/review");
    let decided = |revision: u8, carry: &Value| json!({"revision": revision, "decisions": {"delts.lateral": "keep"}, "carry": carry});
    let unasked = browser.put(&review, decided(0, &Value::Null)).await.body;
    assert_eq!(unasked["next_choices"]["bring_up"], json!(["glutes.max"]), "{unasked}");
    let beside = browser.put(&review, decided(1, &json!("beside"))).await.body;
    assert_eq!(beside["next_choices"]["bring_up"], json!(["glutes.max", "delts.lateral"]));
    let instead = browser.put(&review, decided(2, &json!("instead"))).await.body;
    assert_eq!(instead["next_choices"]["bring_up"], json!(["delts.lateral"]));
    let back = json!({"revision": instead["next_choices_revision"], "choices": beside["next_choices"]});
    assert_eq!(browser.put(&format!("{next}/choices"), back).await.status, StatusCode::OK);
    let shown = browser.get(&review).await.body;
    assert_eq!(shown["next_choices"]["bring_up"], json!(["glutes.max", "delts.lateral"]));
}

#[actix_web::test]
async fn what_a_review_swaps_is_not_in_the_next_rounds_week_until_the_coach_adds_it() {
    trained!(practice, app, browser, client, round, week);
    let item = &week["sessions"][0]["items"][0]["item"];
    let (exercise, region) = (item["exercise"].clone(), item["region"].as_str().unwrap().to_owned());
    let mut hurt = entry(&week, &[set(1, 8)]);
    hurt["part"]["pain"] = json!({"area": "wrist", "level": 3});
    let today = jiff::ZonedDateTime::now().date();
    hurt["trained_on"] = json!((today - 1.day()).to_string());
    browser.post(&format!("/api/v1/clients/{client}/log"), sent(&[hurt])).await;
    let next = json!({"date": today.to_string(), "measured_by": "A"});
    let next = browser.post(&format!("/api/v1/clients/{client}/rounds"), next).await;
    assert_eq!(next.status, StatusCode::CREATED, "{}", next.body);
    let next = format!("/api/v1/rounds/{}", next.body["id"].as_str().unwrap());
    // The pain itself is cleared, so that the decision alone keeps it out.
    let queue = browser.get("/api/v1/today").await.body;
    let asks = queue["items"].as_array().unwrap().iter().find(|item| item["kind"] == "pain").unwrap().clone();
    let seen = browser.post("/api/v1/today/seen", json!({"client_id": client, "what": asks["what"]})).await;
    assert!(seen.status.is_success(), "{}", seen.body);
    let decisions = json!({"revision": 0, "decisions": {region: "swap"}});
    let saved = browser.put(&format!("/api/v1/rounds/{round}/review"), decisions).await;
    assert_eq!(saved.status, StatusCode::OK, "{}", saved.body);
    let own = browser.get(&format!("{next}/plan/own")).await.body;
    let cards = |week: &Value| -> Vec<Value> {
        let days = week["sessions"].as_array().unwrap().iter();
        days.flat_map(|day| day["items"].as_array().unwrap()).map(|card| card["exercise"].clone()).collect()
    };
    assert!(!cards(&own).is_empty() && !cards(&own).contains(&exercise), "{own}");
    let mut added = own.clone();
    added["sessions"][0]["items"].as_array_mut().unwrap().push(json!({"exercise": exercise, "sets": 2}));
    let kept = browser.put(&format!("{next}/plan"), json!({"revision": 0, "week": added})).await.body;
    let broken = kept["plan"]["broken"].as_array().unwrap().iter();
    let told = broken.filter(|broken| broken["says"].as_str().unwrap().contains("swapped out at the review")).count();
    assert_eq!(told, 1, "{}", kept["plan"]["broken"]);
}

#[actix_web::test]
async fn what_was_logged_is_past_training_of_the_next_verdict() {
    trained!(practice, app, browser, client, _round, week);
    let done = entry(&week, &[set(1, 8), set(2, 8), set(3, 8)]);
    browser.post(&format!("/api/v1/clients/{client}/log"), sent(&[done])).await;
    let today = week["today"].as_str().unwrap();
    let next = json!({"date": today, "measured_by": "A"});
    let next = browser.post(&format!("/api/v1/clients/{client}/rounds"), next).await.body;
    let case = browser.get(&format!("/api/v1/rounds/{}/case", next["id"].as_str().unwrap())).await.body;
    let exercise = &week["sessions"][0]["items"][0]["item"]["exercise"];
    let rows = case["training"].as_array().unwrap();
    assert!(rows.iter().any(|row| row["exercise"] == *exercise && row["sets"] == 3), "{rows:?}");
}

/// Two phones wrote the same exercise down, one as it was planned, one with another in its place: of one part one version counts, whatever
/// was done and wherever in the session.
#[actix_web::test]
async fn of_a_swap_beside_none_one_is_past_training_and_swinging_is_known_of_it() {
    trained!(practice, app, browser, client, _round, week);
    let mut first = entry(&week, &[set(1, 8), set(2, 8)]);
    first["part"]["form"] = json!(["swung"]);
    let mut swapped = entry(&week, &[set(1, 9), set(2, 9), set(3, 9)]);
    swapped["part"]["instead"] = json!("leg-press");
    swapped["part"]["position"] = json!(4);
    swapped["trained_on"] = first["trained_on"].clone();
    let log = format!("/api/v1/clients/{client}/log");
    assert_eq!(fates(&browser.post(&log, sent(from_ref(&first))).await.body), ["kept"]);
    assert_eq!(fates(&browser.post(&log, sent(from_ref(&swapped))).await.body), ["beside"]);
    let next = json!({"date": week["today"], "measured_by": "A"});
    let next = browser.post(&format!("/api/v1/clients/{client}/rounds"), next).await.body;
    let case = browser.get(&format!("/api/v1/rounds/{}/case", next["id"].as_str().unwrap())).await.body;
    let rows = case["training"].as_array().unwrap();
    let told: Vec<_> = rows.iter().map(|row| (&row["exercise"], &row["sets"], &row["swung"])).collect();
    assert_eq!(told, [(&first["part"]["exercise"], &json!(2), &json!(true))]);
}

#[actix_web::test]
async fn trends_run_over_all_rounds_with_their_noise() {
    trained!(practice, app, browser, client, _round, week);
    browser.post(&format!("/api/v1/clients/{client}/log"), sent(&[entry(&week, &[set(1, 10)])])).await;
    let trends = browser.get(&format!("/api/v1/clients/{client}/trends")).await.body;
    let lift = &trends["lifts"][0];
    // Epley 1985: 20 kg x 10 is 26.67 kg.
    assert!((lift["marks"]["values"][0].as_f64().unwrap() - 26.667).abs() < 0.01, "{lift}");
    assert_eq!(lift["unit"], "kg");
}

#[actix_web::test]
async fn only_an_owner_takes_the_practice_out() {
    trained!(practice, app, browser, client, _round, _week);
    let (answer, bytes) = browser.raw(Method::GET, &format!("/api/v1/clients/{client}/archive"), Vec::new()).await;
    assert!(answer.status == StatusCode::OK && bytes.starts_with(b"PK"));
    let (answer, bytes) = browser.raw(Method::GET, "/api/v1/practice/backup", Vec::new()).await;
    assert!(answer.status == StatusCode::OK && bytes.starts_with(b"PK"));
    let (answer, bytes) = browser.raw(Method::GET, "/api/v1/practice/tables/client", Vec::new()).await;
    assert!(answer.status == StatusCode::OK && bytes.starts_with(b"id,brief_json,revision"));
    let person = json!({"name": "Jo", "login": "jo", "password": "plumb-line-too", "role": "coach"});
    assert_eq!(browser.post("/api/v1/practice/people", person).await.status, StatusCode::CREATED);
    let mut other = of(&practice, &app);
    other.post("/api/v1/session", json!({"login": "jo", "password": "plumb-line-too"})).await;
    assert_eq!(other.get("/api/v1/practice/backup").await.status, StatusCode::FORBIDDEN);
    assert_eq!(other.get("/api/v1/practice/tables/account").await.status, StatusCode::FORBIDDEN);
    assert_eq!(browser.get("/api/v1/practice/tables/account").await.status, StatusCode::NOT_FOUND);
}

/// Every page that is kept is asked for before and after something it shows.
#[actix_web::test]
async fn kept_pages_show_what_happened_since() {
    trained!(practice, app, browser, client, round, week);
    let review = format!("/api/v1/rounds/{round}/review");
    let choices = json!({"revision": 0, "choices": {"bring_up": ["delts.lateral"]}});
    browser.put(&format!("/api/v1/rounds/{round}/choices"), choices).await;
    let pages = ["/api/v1/today".to_owned(), format!("/api/v1/clients/{client}/trends"), review.clone()];
    let mut before = Vec::new();
    for page in &pages {
        before.push(browser.get(page).await.body);
    }
    let mut hurts = entry(&week, &[set(1, 8)]);
    hurts["part"]["pain"] = json!({"area": "wrist", "level": 5});
    assert_eq!(fates(&browser.post(&format!("/api/v1/clients/{client}/log"), sent(&[hurts])).await.body), ["kept"]);
    for (page, before) in pages.iter().zip(before).take(2) {
        assert_ne!(browser.get(page).await.body, before, "{page}");
    }
    let list = |body: &Value| body["items"][0]["newest"]["date"].clone();
    assert_eq!(list(&browser.get("/api/v1/clients").await.body), "2026-03-02");
    let next = json!({"date": "2026-04-13", "measured_by": "A"});
    browser.post(&format!("/api/v1/clients/{client}/rounds"), next).await;
    assert_eq!(list(&browser.get("/api/v1/clients").await.body), "2026-04-13");
    assert_eq!(browser.get(&review).await.body["next"]["date"], "2026-04-13");
}

#[actix_web::test]
async fn a_sign_stops_giving_until_somebody_wrote_what_was_done() {
    trained!(practice, app, browser, client, round, week);
    let plan = format!("/api/v1/rounds/{round}/plan");
    let mut sore = entry(&week, &[set(1, 8)]);
    sore["part"]["pain"] = json!({"area": "knee", "side": "left", "level": 1, "red_flags": ["numbness"]});
    browser.post(&format!("/api/v1/clients/{client}/log"), sent(from_ref(&sore))).await;
    let because = browser.get(&plan).await.body["draft_because"].clone();
    assert!(because.as_str().unwrap().contains("numbness"), "{because}");
    let issue = json!({"revision": 0, "starts_on": week["today"]});
    assert_eq!(browser.post(&format!("{plan}/issue"), issue.clone()).await.status, StatusCode::FORBIDDEN);
    let first = browser.get("/api/v1/today").await.body["items"][0].clone();
    let silent = json!({"client_id": client, "what": first["what"], "note": " "});
    let refused = browser.post("/api/v1/today/seen", silent).await;
    assert_eq!(refused.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(refused.body.to_string().contains("a sentence on what was done"), "{}", refused.body);
    let seen = json!({"client_id": client, "what": first["what"], "note": "Called; sees a doctor on Friday."});
    assert_eq!(browser.post("/api/v1/today/seen", seen).await.status, StatusCode::NO_CONTENT);
    assert!(browser.get(&plan).await.body["draft_because"].is_null());
    assert_eq!(browser.post(&format!("{plan}/issue"), issue).await.status, StatusCode::CREATED);
}

#[actix_web::test]
async fn an_exercise_that_hurt_leaves_the_next_week_and_marks_its_card_until_it_is_cleared() {
    trained!(practice, app, browser, client, round, week);
    let plan = format!("/api/v1/rounds/{round}/plan");
    let kept = browser.get(&plan).await.body["week"].clone();
    let mut sore = entry(&week, &[set(1, 8)]);
    sore["part"]["pain"] = json!({"area": "elbow", "side": "left", "level": 4, "red_flags": []});
    browser.post(&format!("/api/v1/clients/{client}/log"), sent(from_ref(&sore))).await;
    let hurt = sore["part"]["exercise"].as_str().unwrap().to_owned();
    let own = browser.get(&format!("{plan}/own")).await.body;
    assert!(!own.to_string().contains(&format!("\"{hurt}\"")), "{hurt} is not in {own}");
    let bent = browser.put(&plan, json!({"revision": 0, "week": kept})).await;
    let says = bent.body["plan"]["broken"].to_string();
    assert!(says.contains("hurt 4/10") && says.contains("\"forbids\":true"), "{says}");
    let refused = browser.get(&format!("{plan}/exercises")).await.body;
    let barred = refused["refused"].as_array().unwrap().iter().find(|one| one["exercise"] == json!(hurt)).unwrap();
    assert!(barred["because"].as_str().unwrap().starts_with("hurt 4/10 on "), "{barred}");
    let items = browser.get("/api/v1/today").await.body["items"].clone();
    let item = items.as_array().unwrap().iter().find(|item| item["kind"] == "pain").unwrap().clone();
    assert_eq!(item["place"], json!(format!("/clients/{client}/rounds/{round}/plan?swap={hurt}")));
    let cleared = json!({"client_id": client, "what": item["what"]});
    assert_eq!(browser.post("/api/v1/today/seen", cleared).await.status, StatusCode::NO_CONTENT);
    let after = browser.get(&plan).await.body;
    assert!(!after["plan"]["broken"].to_string().contains("hurt 4/10"), "{}", after["plan"]["broken"]);
}

#[actix_web::test]
async fn in_the_second_week_what_takes_turns_stands_on_the_phone_and_is_logged() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let mut brief = example()["client"].clone();
    brief["readiness"] = json!({"asked_on": "2026-03-01", "yes": []});
    brief["equipment"] = json!(["cable", "rope", "dumbbell", "bench"]);
    let client = browser.post("/api/v1/clients", brief).await.body["id"].as_str().unwrap().to_owned();
    let rounds = format!("/api/v1/clients/{client}/rounds");
    let round = browser.post(&rounds, json!({"date": "2026-03-02", "measured_by": "A"})).await.body;
    let plan = format!("/api/v1/rounds/{}/plan", round["id"].as_str().unwrap());
    let mut week = browser.get(&plan).await.body["week"].clone();
    for day in week["sessions"].as_array_mut().unwrap() {
        day["items"] = json!([{"exercise": "seated-row-close", "sets": 2}]);
    }
    week["sessions"][0]["items"].as_array_mut().unwrap().push(json!({"exercise": "rope-pronation", "sets": 3}));
    let bent = browser.put(&plan, json!({"revision": 0, "week": week})).await.body;
    let card = &bent["plan"]["sessions"][0]["items"][1];
    assert_eq!(
        (&card["exercise"], &card["in_turn"]["exercise"]),
        (&json!("rope-pronation"), &json!("rope-supination"))
    );
    let a_week_ago = jiff::ZonedDateTime::now().date().checked_sub(1.week()).unwrap().to_string();
    let issue = json!({"revision": bent["revision"], "starts_on": a_week_ago});
    assert_eq!(browser.post(&format!("{plan}/issue"), issue).await.status, StatusCode::CREATED);
    let now = browser.get(&format!("/api/v1/clients/{client}/week")).await.body;
    let item = &now["sessions"][0]["items"][1];
    let stands = [&item["item"]["exercise"], &item["item"]["sets"], &now["plan"]["week"]];
    assert_eq!(stands, [&json!("rope-supination"), &json!(3), &json!(2)]);
    let mut done = entry(&now, &[set(1, 12)]);
    done["part"]["exercise"] = json!("rope-supination");
    let answer = browser.post(&format!("/api/v1/clients/{client}/log"), sent(&[done])).await.body;
    assert_eq!(fates(&answer), ["kept"], "{answer}");
    let after = browser.get(&format!("/api/v1/clients/{client}/week")).await.body;
    assert_eq!(after["sessions"][0]["items"][1]["entries"].as_array().unwrap().len(), 1);
}

#[actix_web::test]
async fn a_round_from_which_a_week_was_given_stays() {
    trained!(practice, app, browser, _client, round, _week);
    let path = format!("/api/v1/rounds/{round}");
    let refused = browser.delete(&path).await;
    assert_eq!(refused.status, StatusCode::CONFLICT, "{}", refused.body);
    assert!(refused.body["detail"].as_str().unwrap().contains("the round stays"), "{}", refused.body);
    assert_eq!(browser.get(&path).await.status, StatusCode::OK);
}

#[rstest]
#[case::years_ahead("2040-01-02")]
#[case::years_ago("2010-01-04")]
#[actix_web::test]
async fn a_week_far_from_today_is_not_given(#[case] starts_on: &str) {
    trained!(practice, app, browser, _client, round, _week);
    let issue = json!({"revision": 0, "starts_on": starts_on});
    let refused = browser.post(&format!("/api/v1/rounds/{round}/plan/issue"), issue).await;
    assert_eq!(refused.status, StatusCode::UNPROCESSABLE_ENTITY, "{}", refused.body);
    assert!(refused.body["detail"].as_str().unwrap().contains("5 years from today"), "{}", refused.body);
}

#[actix_web::test]
async fn a_client_reads_in_their_own_units_and_a_coach_in_theirs() {
    trained!(practice, app, browser, client, _round, week);
    assert_eq!(week["measures"], json!({"length": "cm", "mass": "kg"}));
    let own = browser.put("/api/v1/account/measures", json!({"length": "in-eighths", "mass": "lb"})).await;
    assert_eq!((own.status, &own.body["measures"]["length"]), (StatusCode::OK, &json!("in-eighths")));
    let session = browser.get("/api/v1/session").await.body;
    assert_eq!(session["measures"], json!({"length": "in-eighths", "mass": "lb"}));
    // The client's stand in the brief: a coach of pounds changes nothing about them.
    let path = format!("/api/v1/clients/{client}");
    assert_eq!(browser.get(&format!("{path}/week")).await.body["measures"]["mass"], "kg");
    let mut kept = browser.get(&path).await.body;
    assert_eq!(kept["brief"]["measures"], Value::Null, "metric is what nobody has to say");
    kept["brief"]["measures"] = json!({"mass": "lb"});
    let saved = browser.put(&path, json!({"revision": kept["revision"], "brief": kept["brief"]})).await;
    assert_eq!((saved.status, &saved.body["brief"]["measures"]["length"]), (StatusCode::OK, &json!("cm")));
    let token = browser.post(&format!("{path}/links"), json!({"days": 3})).await.body["token"].clone();
    for page in ["/api/v1/my/week", "/api/v1/my/page"] {
        let (_, shown) = linked!(practice, app, Method::GET, page, token.as_str(), None);
        assert_eq!(shown["measures"], json!({"length": "cm", "mass": "lb"}), "{page}");
    }
    let refused = browser.put("/api/v1/account/measures", json!({"length": "ell"})).await;
    assert_eq!(refused.status, StatusCode::BAD_REQUEST);
    assert!(refused.body["detail"].as_str().unwrap().contains("ell"), "{}", refused.body);
}

#[actix_web::test]
async fn links_of_a_client_are_counted_by_the_day() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let client = browser.post("/api/v1/clients", example()["client"].clone()).await;
    let path = format!("/api/v1/clients/{}/links", client.body["id"].as_str().unwrap());
    for _ in 0..20 {
        assert_eq!(browser.post(&path, json!({"days": 30})).await.status, StatusCode::CREATED);
    }
    let refused = browser.post(&path, json!({"days": 30})).await;
    assert_eq!(refused.status, StatusCode::TOO_MANY_REQUESTS, "{}", refused.body);
    assert!(refused.body["detail"].as_str().unwrap().starts_with("20 links were made"), "{}", refused.body);
}
