//! Cards as a coach writes them: kept, given, run and remembered; words with a client; what was kept before there were any.

use crate::support::{browser, of, practice};
use actix_web::http::{Method, StatusCode};
use actix_web::test::init_service;
use rstest::rstest;
use serde_json::{Value, json};
use server::application;

/// A practice with one client, one round, and a plan of two cards on the first day.
macro_rules! with_cards {
    ($practice:ident, $browser:ident, $client:ident, $path:ident, $saved:ident, $cards:expr) => {
        let $practice = practice();
        browser!($practice, app);
        let mut $browser = of(&$practice, &app);
        $browser.become_owner().await;
        let round = $browser.round().await;
        let shown = $browser.get(&format!("/api/v1/rounds/{round}")).await.body;
        let $client = shown["client_id"].as_str().unwrap().to_owned();
        let $path = format!("/api/v1/rounds/{round}/plan");
        let plan = $browser.get(&$path).await.body;
        let mut week = plan["week"].clone();
        week["sessions"][0]["items"] = $cards;
        let $saved = $browser.put(&$path, json!({"revision": plan["revision"], "week": week})).await;
    };
}

fn pair(change: &Value) -> Value {
    let mut first = json!({"exercise": "db-curl", "sets": 3, "group": "A"});
    for (field, value) in change.as_object().unwrap() {
        first[field] = value.clone();
    }
    json!([first, {"exercise": "db-overhead-ext", "sets": 2, "group": "A"}])
}

#[actix_web::test]
async fn what_is_written_on_a_card_is_kept_and_stands_in_the_plan() {
    let written = json!({"reps": [6, 8], "rest_s": 30, "tempo": [3, 0, 1, 0], "load_kg": 14.0, "note": "Slowly.",
        "set_up": {"bench_deg": 30.0}, "per_set": [{"reserve": 2}]});
    with_cards!(practice, browser, _client, _path, saved, pair(&json!({"scheme": "drop", "written": written})));
    assert_eq!(saved.status, StatusCode::OK, "{}", saved.body);
    assert_eq!(saved.body["week"]["sessions"][0]["items"][0]["written"], written);
    let item = &saved.body["plan"]["sessions"][0]["items"][0];
    for (field, value) in
        [("reps", json!([6, 8])), ("tempo", json!([3, 0, 1, 0])), ("note", json!("Slowly.")), ("group", json!("A"))]
    {
        assert_eq!(item[field], value, "{field}");
    }
    assert_eq!(item["per_set"][2]["parts"][0]["kind"], "drop");
    let run = saved.body["plan"]["sessions"][0]["run"].as_array().unwrap();
    assert_eq!((run[0]["card"].clone(), run[run.len() - 1]["card"].clone()), (json!(0), json!(0)));
    assert!(run.iter().any(|step| step["card"] == 1), "in turns");
}

#[rstest]
#[case::reps_upside_down(json!({"written": {"reps": [8, 6]}}), "/written/reps", "the lower number first")]
#[case::reps_and_seconds(json!({"written": {"reps": [6, 8], "seconds": [30, 40]}}), "/written", "not both")]
#[case::an_hour_of_rest(json!({"written": {"rest_s": 3600}}), "/written/rest_s", "expected 0 to 600 s")]
#[case::help_with_a_curl(json!({"written": {"load_kg": -10.0}}), "/written/load_kg", "is help")]
#[case::a_note_of_two_lines(json!({"written": {"note": "one\ntwo"}}), "/written/note", "one line")]
#[case::no_such_variant(json!({"written": {"variant": "in-turn"}}), "/written/variant", "in-turns")]
#[case::no_such_number(json!({"written": {"set_up": {"bench": 30.0}}}), "/written/set_up/bench", "bench_deg")]
#[case::more_sets_than_planned(json!({"written": {"per_set": [{}, {}, {}, {}]}}), "/written/per_set", "3 are planned")]
#[case::a_group_of_a_word(json!({"group": "arms"}), "/group", "one capital letter")]
#[case::a_group_of_one(json!({"group": "B"}), "/group", "expected 2 to 4")]
#[case::a_field_that_is_none(json!({"written": {"colour": "red"}}), "", "unknown field")]
#[actix_web::test]
async fn what_cannot_be_written_is_refused_with_its_place(
    #[case] change: Value,
    #[case] place: &str,
    #[case] says: &str,
) {
    with_cards!(practice, browser, _client, _path, saved, pair(&change));
    assert!(saved.status.is_client_error(), "{}", saved.status);
    let text = saved.body.to_string();
    assert!(text.contains(place) && text.contains(says), "{text}");
}

#[actix_web::test]
async fn a_week_of_before_there_were_groups_is_read_as_one() {
    let old =
        json!([{"exercise": "db-curl", "sets": 3, "scheme": "superset"}, {"exercise": "db-overhead-ext", "sets": 3}]);
    with_cards!(practice, browser, _client, _path, saved, old);
    assert_eq!(saved.status, StatusCode::OK, "{}", saved.body);
    let groups: Vec<&Value> =
        saved.body["plan"]["sessions"][0]["items"].as_array().unwrap().iter().map(|item| &item["group"]).collect();
    assert_eq!(groups, ["A", "A"]);
}

/// A week that is planned where the practice gives its schools an answer.
#[rstest]
#[case::top_sets("effort", "top-set", "ramp-top")]
#[case::drops("past_failure", "drops", "drop")]
#[actix_web::test]
async fn a_school_s_scheme_stands_on_the_board_and_in_the_plan(
    #[case] school: &str,
    #[case] answer: &str,
    #[case] scheme: &str,
) {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let shown = browser.get("/api/v1/practice").await.body;
    let settings = json!({"schools": {school: answer}, "numbers": {}, "composition": {}, "exercises": []});
    let saved = browser.put("/api/v1/practice", json!({"revision": shown["revision"], "settings": settings})).await;
    assert_eq!(saved.status, StatusCode::OK, "{}", saved.body);
    let round = browser.round().await;
    let solved = browser.get(&format!("/api/v1/rounds/{round}/plan")).await.body;
    for part in ["week", "plan"] {
        let sessions = solved[part]["sessions"].as_array().unwrap();
        let cards = sessions.iter().flat_map(|day| day["items"].as_array().unwrap());
        assert!(cards.into_iter().any(|card| card["scheme"] == scheme), "{part} {}", solved[part]);
    }
    assert!(solved["plan"]["broken"].is_null(), "{}", solved["plan"]["broken"]);
}

#[actix_web::test]
async fn a_set_up_is_remembered_and_stands_on_the_next_card() {
    with_cards!(practice, browser, client, path, _saved, pair(&json!({})));
    let at = format!("/api/v1/clients/{client}/set-ups/db-curl");
    let kept = json!({"numbers": {"bench_deg": 60.0}, "variant": "in-turns",
        "check": {"soft_at_rest": true, "hard_at_work": true, "hardest_deg": 90.0}});
    let put = browser.patch(&at, kept.clone()).await;
    assert_eq!((put.status, &put.body["kept"]), (StatusCode::OK, &kept), "{}", put.body);
    let item = browser.get(&path).await.body["plan"]["sessions"][0]["items"][0].clone();
    assert_eq!((&item["set_up"]["bench_deg"], &item["variant"]), (&json!(60.0), &json!("in-turns")));
    let case = browser.get(&path.replace("/plan", "/case")).await.body;
    assert_eq!(case["set_ups"]["db-curl"], kept);
}

#[rstest]
#[case::a_note_leaves_the_numbers(json!({"note": "Narrow."}), json!({"numbers": {"bench_deg": 60.0}, "note": "Narrow."}))]
#[case::a_number_of_one_name(json!({"numbers": {"lean_deg": 20.0}}), json!({"numbers": {"bench_deg": 60.0, "lean_deg": 20.0}}))]
#[case::null_forgets(json!({"numbers": {"bench_deg": null}, "variant": "in-turns"}), json!({"variant": "in-turns"}))]
#[actix_web::test]
async fn a_change_of_a_set_up_leaves_what_it_does_not_name(#[case] change: Value, #[case] left: Value) {
    with_cards!(practice, browser, client, _path, _saved, pair(&json!({})));
    let at = format!("/api/v1/clients/{client}/set-ups/db-curl");
    browser.patch(&at, json!({"numbers": {"bench_deg": 60.0}})).await;
    let changed = browser.patch(&at, change).await;
    assert_eq!(changed.body["kept"], left, "{}", changed.body);
}

#[rstest]
#[case::too_steep(json!({"numbers": {"bench_deg": 400.0}}), StatusCode::UNPROCESSABLE_ENTITY)]
#[case::unknown_part(json!({"colour": "red"}), StatusCode::BAD_REQUEST)]
#[case::no_object(json!(7), StatusCode::BAD_REQUEST)]
#[actix_web::test]
async fn a_change_of_a_set_up_that_does_not_read_changes_nothing(#[case] change: Value, #[case] status: StatusCode) {
    with_cards!(practice, browser, client, _path, _saved, pair(&json!({})));
    let at = format!("/api/v1/clients/{client}/set-ups/db-curl");
    browser.patch(&at, json!({"note": "Narrow."})).await;
    let refused = browser.patch(&at, change).await;
    assert_eq!(refused.status, status, "{}", refused.body);
    assert_eq!(browser.get(&at).await.body["kept"], json!({"note": "Narrow."}));
}

#[actix_web::test]
async fn a_note_is_kept_found_and_not_overwritten_unseen() {
    with_cards!(practice, browser, client, path, _saved, pair(&json!({})));
    let at = format!("/api/v1/clients/{client}/note");
    let put = browser.put(&at, json!({"was": "", "note": "Broke the left wrist in 2019."})).await;
    assert_eq!(put.status, StatusCode::OK);
    let late = browser.put(&at, json!({"was": "", "note": "Travels."})).await;
    assert_eq!(late.status, StatusCode::CONFLICT);
    browser.put(&path.replace("/plan", "/note"), json!({"was": "", "note": "Had the flu."})).await;
    for (find, total) in [("WRIST", 1), ("flu", 1), ("knee", 0)] {
        assert_eq!(browser.get(&format!("/api/v1/clients?find={find}")).await.body["total"], total, "{find}");
    }
}

#[rstest]
#[case::words("  See you on Monday. ", StatusCode::OK)]
#[case::nothing("   ", StatusCode::UNPROCESSABLE_ENTITY)]
#[actix_web::test]
async fn a_message_needs_words(#[case] words: &str, #[case] status: StatusCode) {
    with_cards!(practice, browser, client, _path, _saved, pair(&json!({})));
    let sent = browser.post(&format!("/api/v1/clients/{client}/messages"), json!({"words": words})).await;
    assert_eq!(sent.status, status, "{}", sent.body);
    if status.is_success() {
        assert_eq!(sent.body["messages"][0]["words"], words.trim());
    }
}

// A client as the version before cards could be written on exported them.
#[actix_web::test]
async fn a_client_of_the_version_before_is_taken_in_with_plan_and_log() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let archive = include_bytes!("../archives/before-cards.zip").to_vec();
    let (taken, _) = browser.raw(Method::POST, "/api/v1/clients/archive", archive).await;
    assert_eq!(taken.status, StatusCode::CREATED, "{}", taken.body);
    let client = browser.get("/api/v1/clients").await.body["items"][0].clone();
    let id = client["id"].as_str().unwrap();
    let log = browser.get(&format!("/api/v1/clients/{id}/log?all=true")).await;
    assert_eq!(log.status, StatusCode::OK, "{}", log.body);
    assert!(!log.body["done"].as_array().unwrap().is_empty());
    let week = browser.get(&format!("/api/v1/clients/{id}/week")).await;
    assert_eq!(week.status, StatusCode::OK, "{}", week.body);
    let session = &week.body["sessions"][0];
    let (sets, steps) = (&session["items"][0]["item"]["sets"], session["run"].as_array().unwrap());
    assert!(steps.iter().filter(|step| step["card"] == 0).count() as u64 >= sets.as_u64().unwrap());
    assert!(session["items"][0]["cues"].as_array().is_some_and(|cues| !cues.is_empty()));
    let round = client["newest"]["id"].as_str().unwrap();
    assert_eq!(browser.get(&format!("/api/v1/rounds/{round}/plan")).await.status, StatusCode::OK);
}
