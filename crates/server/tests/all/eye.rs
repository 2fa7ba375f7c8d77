//! A coach's sittings before made-up figures, through the routes.

use crate::support::{browser, of, practice};
use actix_web::http::{Method, StatusCode};
use actix_web::test::init_service;
use rstest::rstest;
use serde_json::{Value, json};
use server::application;

const PICTURES: usize = 12;

/// The next picture's place, kind and site; never what is true of it.
fn next(sitting: &Value) -> (usize, String, String) {
    let next = &sitting["next"];
    let place = usize::try_from(next["place"].as_u64().unwrap()).unwrap();
    (place, next["kind"].as_str().unwrap().into(), next["site"].as_str().unwrap().into())
}

#[actix_web::test]
async fn a_sitting_is_answered_to_its_end_and_tells_the_truth_of_each_figure_after_its_last_showing() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let mut sitting = browser.post("/api/v1/eye/sittings", json!({})).await.body;
    let path = format!("/api/v1/eye/sittings/{}/answers", sitting["id"].as_str().unwrap());
    for place in 0..PICTURES {
        assert_eq!((next(&sitting).0, sitting.get("skill")), (place, None));
        let answer = browser.post(&path, json!({"place": place, "value": 1})).await;
        assert_eq!(answer.status, StatusCode::OK, "{}", answer.body);
        sitting = answer.body;
        let told = sitting["told"].as_array().unwrap();
        // Eight figures, four of which come again: until the ninth picture only the other four are told.
        let known = told.iter().filter(|one| one["truth"].is_number()).count();
        assert!(known == told.len() || place < PICTURES - 1 && known < told.len(), "{known} of {}", told.len());
    }
    assert!(sitting.get("next").is_none());
    assert_eq!(sitting["skill"]["answers"], PICTURES);
    let again: Vec<&Value> =
        sitting["told"].as_array().unwrap().iter().filter(|one| one["seen_at"].is_number()).collect();
    assert_eq!(again.len(), 4);
    for one in &again {
        let first = &sitting["told"][usize::try_from(one["seen_at"].as_u64().unwrap()).unwrap()];
        assert_eq!((&first["truth"], &first["site"]), (&one["truth"], &one["site"]));
        // The left was said to be larger in a mirrored picture: of the figure itself, the right.
        let turned = if one["kind"] == "left-right" { -1 } else { 1 };
        assert_eq!((first["answer"].as_i64(), one["answer"].as_i64()), (Some(1), Some(turned)));
    }
    let page = browser.get("/api/v1/eye").await.body;
    assert!(page.get("open").is_none());
    assert_eq!(page["past"].as_array().unwrap().len(), 1);
    assert_eq!(page["kinds"][0]["skill"]["answers"], 6);
    // Two standings were judged twice, alike.
    assert_eq!((&page["agreement"]["repeats"], &page["agreement"]["within_sd_steps"]), (&json!(2), &json!(0.0)));
}

#[actix_web::test]
async fn a_sitting_left_open_is_gone_on_with_and_says_nothing_of_the_eye_yet() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let page = browser.get("/api/v1/eye").await.body;
    assert_eq!((&page["past"], page["kinds"][0].get("skill")), (&json!([]), None));
    let first = browser.post("/api/v1/eye/sittings", json!({})).await.body;
    let path = format!("/api/v1/eye/sittings/{}", first["id"].as_str().unwrap());
    browser.post(&format!("{path}/answers"), json!({"place": 0, "value": null})).await;
    let again = browser.post("/api/v1/eye/sittings", json!({})).await.body;
    assert_eq!((&again["id"], next(&again).0), (&first["id"], 1));
    assert_eq!(browser.get(&path).await.body, again);
    let page = browser.get("/api/v1/eye").await.body;
    assert_eq!(page["open"], json!({"id": first["id"], "place": 1}));
    assert!(page["kinds"][0].get("skill").is_none(), "an open sitting may not give away what it has not told");
}

#[actix_web::test]
async fn pictures_are_the_same_each_time_and_nobody_else_s() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let id = browser.post("/api/v1/eye/sittings", json!({})).await.body["id"].as_str().unwrap().to_owned();
    let path = format!("/api/v1/eye/sittings/{id}/pictures");
    let (answer, bytes) = browser.raw(Method::GET, &format!("{path}/0"), Vec::new()).await;
    assert_eq!(
        (answer.status, answer.headers.get("Content-Type").unwrap().as_bytes()),
        (StatusCode::OK, &b"image/jpeg"[..])
    );
    let picture = image::load_from_memory(&bytes).unwrap();
    assert_eq!((picture.width(), picture.height()), (720, 960));
    assert_eq!(browser.raw(Method::GET, &format!("{path}/0"), Vec::new()).await.1, bytes);
    assert_eq!(browser.get(&format!("{path}/{PICTURES}")).await.status, StatusCode::NOT_FOUND);
    let person = json!({"name": "Jo", "login": "jo", "role": "coach", "password": crate::support::PASSWORD});
    browser.post("/api/v1/practice/people", person).await;
    let mut other = of(&practice, &app);
    other.post("/api/v1/session", json!({"login": "jo", "password": crate::support::PASSWORD})).await;
    for path in [format!("{path}/0"), format!("/api/v1/eye/sittings/{id}")] {
        assert_eq!(other.get(&path).await.status, StatusCode::NOT_FOUND);
    }
}

#[rstest]
#[case::out_of_turn(json!({"place": 1, "value": 0}), StatusCode::CONFLICT, "picture 2 cannot be answered now: picture 1 is next")]
#[case::past_the_end(json!({"place": 12, "value": 0}), StatusCode::NOT_FOUND, "this sitting has no picture 13")]
#[case::off_the_scale(json!({"place": 0, "value": 3}), StatusCode::UNPROCESSABLE_ENTITY, "3 is out of range: expected -2 to 2")]
#[case::with_a_field_nobody_knows(json!({"place": 0, "value": 0, "sure": true}), StatusCode::BAD_REQUEST, "unknown field `sure`")]
#[actix_web::test]
async fn an_answer_that_cannot_be_kept_is_refused_in_a_sentence(
    #[case] body: Value,
    #[case] status: StatusCode,
    #[case] says: &str,
) {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let sitting = browser.post("/api/v1/eye/sittings", json!({})).await.body;
    let path = format!("/api/v1/eye/sittings/{}", sitting["id"].as_str().unwrap());
    let answer = browser.post(&format!("{path}/answers"), body).await;
    assert_eq!(answer.status, status, "{}", answer.body);
    assert!(answer.body.to_string().contains(says), "{}", answer.body);
    assert_eq!(browser.get(&path).await.body, sitting);
}
