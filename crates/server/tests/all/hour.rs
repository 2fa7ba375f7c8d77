//! The assessment hour over HTTP: folds and levels with the tape, CSV, tests, usual week, devices, practice.

use crate::support::{PASSWORD, browser, example, of, practice};
use actix_web::http::{Method, StatusCode};
use actix_web::test::init_service;
use futures_util::StreamExt;
use rstest::rstest;
use serde_json::{Value, json};
use server::application;

fn sheet(revision: i64, more: &Value) -> Value {
    let mut sheet = json!({"revision": revision, "measured_by": "A", "entries": [], "folds": [], "levels_cm": {}, "weight_kg": 82.4});
    for (field, value) in more.as_object().unwrap() {
        sheet[field] = value.clone();
    }
    sheet
}

#[actix_web::test]
async fn folds_levels_and_weight_are_kept_with_the_tape_and_a_slip_deletes_none_of_them() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let path = format!("/api/v1/rounds/{}/tape", browser.round().await);
    let fold = |mm: f64| json!([{"site": "triceps", "side": "right", "readings_mm": [mm, 8.5]}]);
    let good = sheet(0, &json!({"folds": fold(8.5), "levels_cm": {"mid-thigh": 20.5}}));
    let saved = browser.put(&path, good).await.body;
    assert_eq!((&saved["problems"], &saved["fold_values"][0]["value_mm"]), (&json!([]), &json!(8.5)));
    let slipped = sheet(1, &json!({"folds": fold(820.0), "levels_cm": {"mid-thigh": 205.0}, "weight_kg": 824.0}));
    let refused = browser.put(&path, slipped).await.body;
    let pointers: Vec<&str> =
        refused["problems"].as_array().unwrap().iter().map(|p| p["pointer"].as_str().unwrap()).collect();
    assert_eq!(pointers, ["/folds/0/readings_mm/0", "/levels_cm/mid-thigh", "/weight_kg"]);
    let kept = browser.get(&path).await.body;
    assert_eq!(kept["folds"], fold(8.5));
    assert_eq!((&kept["levels_cm"], &kept["weight_kg"]), (&json!({"mid-thigh": 20.5}), &json!(82.4)));
}

#[actix_web::test]
async fn a_csv_file_is_read_without_saving_anything_and_its_limit_is_its_own() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let round = browser.round().await;
    let read = browser.post("/api/v1/files/tape/csv", json!({"text": "site,side,value\nwaist,,81.5\n"})).await;
    assert_eq!(read.body["tape"], json!([{"site": "waist", "readings_cm": [81.5]}]));
    assert_eq!(browser.get(&format!("/api/v1/rounds/{round}/tape")).await.body["entries"], json!([]));
    let long = format!("site,side,value\n{}", "calf,left,37.123456\n".repeat(40_000));
    let long = browser.post("/api/v1/files/tape/csv", json!({"text": long})).await;
    assert_eq!(long.body["rows"].as_array().unwrap().len(), 40_000, "longer than a sheet's own limit");
    let endless = browser.post("/api/v1/files/tape/csv", json!({"text": "x".repeat(5_000_000)})).await;
    assert_eq!(endless.status, StatusCode::BAD_REQUEST);
    assert_eq!(endless.body["detail"], "what was sent is larger than 4096 kB: nothing of it was taken in");
}

#[actix_web::test]
async fn tests_are_kept_compared_and_refused_where_they_break_a_rule() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let path = format!("/api/v1/rounds/{}/tests", browser.round().await);
    let curl = |left: u16| json!({"kind": "one-side", "exercise": "db-curl", "left": {"load_kg": 14.0, "reps": left}, "right": {"load_kg": 14.0, "reps": 18}});
    let saved =
        browser.put(&path, json!({"revision": 0, "tests": [curl(1), {"kind": "hang", "seconds": 84}]})).await.body;
    assert_eq!((&saved["strength"][0]["verdict"], &saved["hang"]["short"]), (&json!("real-act"), &json!(true)));
    let wrong =
        browser.put(&path, json!({"revision": 1, "tests": [{"kind": "hang", "seconds": 9999}, curl(40)]})).await.body;
    let pointers: Vec<&Value> = wrong["problems"].as_array().unwrap().iter().map(|p| &p["pointer"]).collect();
    assert_eq!(pointers, ["/tests/0/seconds", "/tests/1/left/reps"]);
    assert_eq!(wrong["tests"], json!([curl(1)]), "the stored test of that exercise stays; a hang is typed anew");
    let stale = browser.put(&path, json!({"revision": 0, "tests": []})).await;
    assert_eq!(stale.status, StatusCode::CONFLICT);
}

#[actix_web::test]
async fn nobody_under_age_is_tested_to_a_maximum() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let mut young = example()["client"].clone();
    young["birth_date"] = json!("2011-03-01");
    let client = browser.post("/api/v1/clients", young).await.body["id"].as_str().unwrap().to_owned();
    let rounds = format!("/api/v1/clients/{client}/rounds");
    let round = browser.post(&rounds, json!({"date": "2026-03-02", "measured_by": "A"})).await.body;
    let path = format!("/api/v1/rounds/{}/tests", round["id"].as_str().unwrap());
    let curl = json!({"kind": "one-side", "exercise": "db-curl", "left": {"load_kg": 5, "reps": 8}, "right": {"load_kg": 5, "reps": 8}});
    let refused = browser.put(&path, json!({"revision": 0, "tests": [{"kind": "hang", "seconds": 20}, curl]})).await;
    assert_eq!(
        (refused.status, refused.body["errors"][0]["pointer"].as_str()),
        (StatusCode::UNPROCESSABLE_ENTITY, Some("/tests/1"))
    );
    let hang = browser.put(&path, json!({"revision": 0, "tests": [{"kind": "hang", "seconds": 20}]})).await;
    assert_eq!(hang.status, StatusCode::OK, "a hang is no maximal lift");
}

#[rstest]
#[case::square(json!({"screen": "shoulder_extension", "points": [[0, 100], [0, 0], [80, 0]]}), Ok(90.0))]
#[case::no_such_screen(json!({"screen": "elbow", "points": [[0, 1], [0, 0], [1, 0]]}), Err("/screen"))]
#[case::no_angle(json!({"screen": "hip_flexion", "points": [[0, 0], [0, 0], [1, 0]]}), Err("/points"))]
#[actix_web::test]
async fn three_points_become_degrees(#[case] asked: Value, #[case] expected: Result<f64, &str>) {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let answer = browser.post("/api/v1/angle", asked).await;
    let pointer = answer.body["errors"][0]["pointer"].as_str();
    assert_eq!(answer.body["degrees"].as_f64().ok_or(pointer.unwrap_or_default()), expected);
}

#[actix_web::test]
async fn a_usual_week_counts_its_sets_and_names_what_is_wrong_in_it() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let client =
        browser.post("/api/v1/clients", example()["client"].clone()).await.body["id"].as_str().unwrap().to_owned();
    let path = format!("/api/v1/clients/{client}/usual-week");
    let week = |exercise: &str, until: &str| json!({"until": until, "weeks": 4, "exercises": [{"session": 1, "exercise": exercise, "sets": 4, "one_sided": false}]});
    let saved = browser.put(&path, json!({"revision": 0, "week": week("bb-curl", "2026-02-25")})).await;
    assert_eq!((saved.status, &saved.body["sets_by_region"]["biceps.long"]), (StatusCode::OK, &json!(4.0)));
    for (exercise, until, pointer) in
        [("curl-of-dreams", "2026-02-25", "/week/exercises/0/exercise"), ("bb-curl", "2040-01-02", "/week/until")]
    {
        let refused = browser.put(&path, json!({"revision": 1, "week": week(exercise, until)})).await;
        assert_eq!(refused.body["errors"][0]["pointer"], json!(pointer));
    }
    assert_eq!(browser.put(&path, json!({"revision": 1})).await.body["week"], Value::Null);
}

#[actix_web::test]
async fn what_the_practice_sets_changes_every_verdict_and_comes_back_with_a_new_start() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let tape = format!("/api/v1/rounds/{}/tape", browser.round().await);
    let calf = |side: &str, cm: f64| json!({"site": "calf", "side": side, "readings_cm": [cm, cm]});
    let entries = json!({"entries": [calf("left", 36.0), calf("right", 37.8)]});
    let verdict = browser.put(&tape, sheet(0, &entries)).await.body["asymmetries"][0]["verdict"].clone();
    assert_eq!(verdict, json!("real-act"));
    let settings = json!({
        "schools": {"sizing": "own-past"}, "numbers": {"act_threshold_pct.girth": 6.0}, "composition": {}, "exercises": []
    });
    let saved = browser.put("/api/v1/practice", json!({"revision": 0, "settings": settings})).await;
    assert_eq!((saved.status, &saved.body["settings"]), (StatusCode::OK, &settings));
    assert_eq!(browser.get(&tape).await.body["asymmetries"][0]["verdict"], json!("real-small"));
    let atlas = browser.get("/api/v1/atlas").await.body;
    let sizing = atlas["schools"].as_array().unwrap().iter().find(|school| school["id"] == "sizing").unwrap();
    assert_eq!(sizing["default"], json!("own-past"));
    let again = practice.again();
    let reading = again.desk.knowledge().atlas.evidence().act_threshold_pct.girth;
    assert!((reading - 6.0).abs() < 1e-12);
    let wrong = browser
        .put("/api/v1/practice", json!({"revision": 1, "settings": {"numbers": {"error.girth_pct": 90.0}}}))
        .await;
    assert_eq!(wrong.body["errors"][0]["pointer"], json!("/settings/numbers/error.girth_pct"));
}

#[actix_web::test]
async fn people_are_the_owners_business_but_everyone_keeps_their_own_password() {
    let practice = practice();
    browser!(practice, app);
    let mut owner = of(&practice, &app);
    owner.become_owner().await;
    let new = json!({"login": "jo", "name": "Jo", "role": "assistant", "password": PASSWORD});
    let jo = owner.post("/api/v1/practice/people", new.clone()).await;
    assert_eq!(jo.status, StatusCode::CREATED);
    assert_eq!(owner.post("/api/v1/practice/people", new).await.status, StatusCode::CONFLICT);
    let jo = format!("/api/v1/practice/people/{}", jo.body["id"].as_str().unwrap());
    let mut theirs = of(&practice, &app);
    theirs.post("/api/v1/session", json!({"login": "jo", "password": PASSWORD})).await;
    assert_eq!(theirs.put(&jo, json!({"role": "owner"})).await.status, StatusCode::FORBIDDEN);
    assert_eq!(
        theirs.put("/api/v1/practice", json!({"revision": 0, "settings": {}})).await.status,
        StatusCode::FORBIDDEN
    );
    let change = json!({"password": "another long one", "old_password": PASSWORD});
    assert_eq!(theirs.put(&jo, change).await.status, StatusCode::OK);
    assert_eq!(owner.put(&jo, json!({"password": "one that was forgotten"})).await.status, StatusCode::OK);
    assert_eq!(theirs.get("/api/v1/clients").await.status, StatusCode::UNAUTHORIZED, "the owner set another one");
    let people = owner.get("/api/v1/practice/people").await.body;
    let owner_path = people.as_array().unwrap().iter().find(|person| person["role"] == "owner").unwrap();
    let own = format!("/api/v1/practice/people/{}", owner_path["id"].as_str().unwrap());
    assert_eq!(owner.send(Method::DELETE, &own, None).await.status, StatusCode::CONFLICT, "an owner stays");
    assert_eq!(owner.send(Method::DELETE, &jo, None).await.status, StatusCode::NO_CONTENT);
    assert_eq!(theirs.get("/api/v1/clients").await.status, StatusCode::UNAUTHORIZED, "the way in is gone at once");
}

#[actix_web::test]
async fn a_new_password_ends_every_session_but_the_one_it_was_typed_in() {
    let practice = practice();
    browser!(practice, app);
    let mut desk = of(&practice, &app);
    desk.become_owner().await;
    let mut lost_phone = of(&practice, &app);
    lost_phone.post("/api/v1/session", json!({"login": "mara", "password": PASSWORD})).await;
    assert_eq!(lost_phone.get("/api/v1/clients").await.status, StatusCode::OK);
    let people = desk.get("/api/v1/practice/people").await.body;
    let own = format!("/api/v1/practice/people/{}", people[0]["id"].as_str().unwrap());
    assert_eq!(desk.put(&own, json!({"name": "Mara T."})).await.status, StatusCode::OK);
    assert_eq!(lost_phone.get("/api/v1/clients").await.status, StatusCode::OK, "a name is no password");
    for old in [json!(null), json!("a guess at the desk")] {
        let refused = desk.put(&own, json!({"password": "quite another one", "old_password": old})).await;
        assert_eq!(refused.body["errors"][0]["pointer"], json!("/old_password"));
    }
    let change = json!({"password": "quite another one", "old_password": PASSWORD});
    assert_eq!(desk.put(&own, change).await.status, StatusCode::OK);
    assert_eq!(desk.get("/api/v1/clients").await.status, StatusCode::OK);
    assert_eq!(lost_phone.get("/api/v1/clients").await.status, StatusCode::UNAUTHORIZED);
    assert_eq!(lost_phone.get("/api/v1/session").await.body["standing"], "signed-out");
}

#[actix_web::test]
async fn a_measurer_s_error_is_told_as_it_came_to_be_known() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let tape = format!("/api/v1/rounds/{}/tape", browser.round().await);
    let waist = json!({"entries": [{"site": "waist", "readings_cm": [80.0, 80.4]}]});
    browser.put(&tape, sheet(0, &waist)).await;
    let measurers = browser.get("/api/v1/practice/measurers").await.body;
    let one = &measurers[0];
    assert_eq!(
        (&one["name"], &one["pairs"], &one["over_time"][0]["date"]),
        (&json!("A"), &json!(1.0), &json!("2026-03-02"))
    );
    // By hand: ten pairs' worth of 0.5 % and one pair 0.4 cm apart about 80.2 cm, d^2/2 with d in percent.
    let expected = ((2.5 + (100.0 * 0.4 / 80.2_f64).powi(2) / 2.0) / 11.0).sqrt();
    assert!((one["tem_pct"].as_f64().unwrap() - expected).abs() < 1e-9);
}

#[actix_web::test]
async fn the_order_of_taping_is_each_persons_own_and_names_every_site() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let path = "/api/v1/preferences/tape-order";
    let kept = browser.put(path, json!({"sites": ["calf", "neck"], "left_out": ["head"]})).await.body;
    let sites = kept["sites"].as_array().unwrap();
    assert_eq!((&sites[..2], sites.len()), (&[json!("calf"), json!("neck")][..], 22));
    let wrong = browser.put(path, json!({"sites": ["calf", "knea"], "left_out": []})).await;
    assert_eq!(wrong.body["errors"][0]["pointer"], json!("/sites/1"));
}

#[actix_web::test]
async fn a_device_s_reading_reaches_the_sheets_of_whoever_read_it_and_nobody_elses() {
    let practice = practice();
    browser!(practice, app);
    let mut owner = of(&practice, &app);
    owner.become_owner().await;
    owner
        .post("/api/v1/practice/people", json!({"login": "jo", "name": "Jo", "role": "coach", "password": PASSWORD}))
        .await;
    let mut theirs = of(&practice, &app);
    theirs.post("/api/v1/session", json!({"login": "jo", "password": PASSWORD})).await;
    let mut feed = Box::pin(owner.stream("/api/v1/devices/feed").await);
    assert_eq!(&feed.next().await.unwrap()[..], b": open\n\n");
    let read = json!({"device": "tape", "truth": 37.44, "bias": 0.0, "noise_sd": 0.0});
    theirs.post("/api/v1/devices/read", read.clone()).await;
    let shown = owner.post("/api/v1/devices/read", read).await;
    assert_eq!(shown.body, json!({"value": 37.4, "unit": "cm"}));
    let event = feed.next().await.unwrap();
    assert_eq!(&event[..], b"data: {\"kind\":\"read\",\"device\":\"tape\",\"value\":37.4}\n\n");
    theirs.post("/api/v1/devices/asked", json!({"device": "tape", "label": "Waist"})).await;
    owner.post("/api/v1/devices/asked", json!({"device": "tape", "label": "Calf"})).await;
    let event = String::from_utf8(feed.next().await.unwrap().to_vec()).unwrap();
    assert!(event.contains("Calf"), "{event}");
    let nothing = owner
        .post("/api/v1/devices/read", json!({"device": "scale", "truth": 0.0, "bias": 0.0, "noise_sd": 0.0}))
        .await;
    assert_eq!(nothing.body["errors"][0]["pointer"], json!("/truth"));
}
