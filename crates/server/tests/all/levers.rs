//! The movement behind an exercise, asked of the server.

use crate::support::{browser, example, of, practice};
use actix_web::http::StatusCode;
use actix_web::test::init_service;
use rstest::rstest;
use serde_json::{Value, json};
use server::application;

#[actix_web::test]
async fn a_set_up_is_worked_out_and_the_figure_drawn_where_it_is_asked_for() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let usual = browser.get("/api/v1/exercises/incline-curl/levers?at=0.5").await.body;
    let flat = browser.get("/api/v1/exercises/incline-curl/levers?set=bench_deg:20").await.body;
    assert!(usual["figure"].as_str().unwrap().contains("Incline dumbbell curl"));
    assert_ne!(usual["regions"][0]["activation"], flat["regions"][0]["activation"]);
    assert_eq!((&usual["set_up"][0]["default"], &flat["set_up"][0]["default"]), (&true.into(), &false.into()));
    let best = browser.get("/api/v1/exercises/incline-curl/best-set-up?region=biceps.long&by=longest").await.body;
    let long_load = |of: &serde_json::Value| {
        let all = of["regions"].as_array().unwrap();
        all.iter().find(|one| one["region"] == "biceps.long").unwrap()["long_load"].as_f64().unwrap()
    };
    assert!(long_load(&best) >= long_load(&usual));
}

#[actix_web::test]
async fn a_set_up_beyond_a_client_s_reach_is_told_and_another_one_found() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let mut brief = example()["client"].clone();
    brief["screens"] = json!({"shoulder_flexion_deg": {"left": 118, "right": 140}});
    let client = browser.post("/api/v1/clients", brief).await;
    assert_eq!(client.status, StatusCode::CREATED, "{}", client.body);
    let id = client.body["id"].as_str().unwrap();
    let path = "/api/v1/exercises/overhead-cable-ext";
    let told =
        |of: &Value| of["says"].as_array().unwrap().iter().filter(|says| says.to_string().contains("118°")).count();
    let usual = browser.get(&format!("{path}/levers?client={id}")).await.body;
    let anyone = browser.get(&format!("{path}/levers")).await.body;
    let theirs = browser.get(&format!("{path}/best-set-up?region=triceps.long&by=longest&client={id}")).await.body;
    assert_eq!((told(&usual), told(&anyone), told(&theirs)), (1, 0, 0), "{}", usual["says"]);
    let nobody = browser.get(&format!("{path}/levers?client=nobody")).await;
    assert_eq!(nobody.status, StatusCode::NOT_FOUND);
}

#[rstest]
#[case::no_such_exercise("no-such/levers", StatusCode::NOT_FOUND, "There is no such exercise.")]
#[case::no_number("incline-curl/levers?set=bench_deg", StatusCode::UNPROCESSABLE_ENTITY, "is no name:value")]
#[case::out_of_range("incline-curl/levers?set=bench_deg:500", StatusCode::UNPROCESSABLE_ENTITY, "out of range")]
#[case::no_region_to_tint("incline-curl/levers?tint=nope", StatusCode::UNPROCESSABLE_ENTITY, "there is no region")]
#[case::no_region_to_load(
    "incline-curl/best-set-up?region=nope&by=most",
    StatusCode::UNPROCESSABLE_ENTITY,
    "there is no region"
)]
#[case::past_the_end("incline-curl/levers?at=2", StatusCode::UNPROCESSABLE_ENTITY, "2 is outside 0 to 1")]
#[actix_web::test]
async fn what_cannot_be_is_refused_in_a_sentence(#[case] path: &str, #[case] status: StatusCode, #[case] says: &str) {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let answer = browser.get(&format!("/api/v1/exercises/{path}")).await;
    assert_eq!(answer.status, status);
    assert!(answer.body.to_string().contains(says), "{}", answer.body);
}

#[actix_web::test]
async fn the_picture_of_an_exercise_is_everybodys_and_that_of_another_nobodys() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    let missing = browser.get("/api/v1/figures/no-such").await;
    assert_eq!(missing.status, StatusCode::NOT_FOUND);
    let picture = browser.get("/api/v1/figures/back-squat").await;
    assert_eq!(picture.status, StatusCode::OK);
    assert_eq!(picture.headers.get("Content-Type").unwrap(), "image/svg+xml");
}
