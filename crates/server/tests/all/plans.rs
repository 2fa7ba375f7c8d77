//! The plan over HTTP: bent, checked, kept, solved anew, proven, given out; and the practice's own exercises in it.

use crate::support::{Browser, Practice, browser, example, of, practice};
use actix_web::http::{Method, StatusCode};
use actix_web::test::init_service;
use futures_util::StreamExt;
use rstest::rstest;
use serde_json::{Value, json};
use server::application;

/// Opens a practice with one client whose readiness was asked for, and takes the page of a round's plan.
macro_rules! plan {
    ($practice:ident, $browser:ident, $path:ident) => {
        let $practice = practice();
        browser!($practice, app);
        let mut $browser = of(&$practice, &app);
        $browser.become_owner().await;
        let brief = ready_brief();
        let client = $browser.post("/api/v1/clients", brief).await;
        assert_eq!(client.status, StatusCode::CREATED, "{}", client.body);
        let rounds = format!("/api/v1/clients/{}/rounds", client.body["id"].as_str().unwrap());
        let round = $browser.post(&rounds, json!({"date": "2026-03-02", "measured_by": "A"})).await;
        let $path = format!("/api/v1/rounds/{}/plan", round.body["id"].as_str().unwrap());
    };
}

fn ready_brief() -> Value {
    let mut brief = example()["client"].clone();
    brief["readiness"] = json!({"asked_on": "2026-03-01", "yes": []});
    brief
}

fn items(view: &Value, session: usize) -> &Vec<Value> {
    view["week"]["sessions"][session]["items"].as_array().unwrap()
}

#[actix_web::test]
async fn a_bent_week_is_kept_with_what_it_breaks_and_the_planner_s_own_comes_back() {
    plan!(practice, browser, path);
    let solved = browser.get(&path).await.body;
    assert_eq!(solved["revision"], 0);
    assert!(solved["plan"]["broken"].is_null(), "a solved week breaks nothing: {}", solved["plan"]["broken"]);
    let mut week = solved["week"].clone();
    week["sessions"][0]["items"][0]["sets"] = json!(10);
    week["sessions"][0]["items"][0]["locked"] = json!(true);
    let saved = browser.put(&path, json!({"revision": 0, "week": week})).await;
    assert_eq!(saved.status, StatusCode::OK, "{}", saved.body);
    assert_eq!((&saved.body["revision"], &saved.body["week"]), (&json!(1), &week));
    assert!(!saved.body["plan"]["broken"].as_array().unwrap().is_empty());
    assert_eq!(browser.get(&path).await.body["week"], week);
    assert_eq!(browser.get(&format!("{path}/own")).await.body, solved["week"]);
}

#[actix_web::test]
async fn a_kept_week_is_taken_for_a_client_with_what_they_may_not_do_swapped() {
    plan!(practice, browser, path);
    let mut week = browser.get(&path).await.body["week"].clone();
    let mut days = week["sessions"].as_array().unwrap().clone();
    days.truncate(2);
    for (day, cards) in days.iter_mut().zip([["skull-crusher", "db-side-raise"], ["db-curl", "leg-press"]]) {
        day["items"] = cards.iter().map(|id| json!({"exercise": id, "sets": 3, "locked": true})).collect();
    }
    week["sessions"] = json!(days);
    let kept = browser.post("/api/v1/weeks", json!({"name": " Two days ", "week": week})).await;
    assert_eq!(kept.status, StatusCode::CREATED, "{}", kept.body);
    let again = browser.post("/api/v1/weeks", json!({"name": "two DAYS", "week": week})).await;
    assert_eq!(again.status, StatusCode::CONFLICT);
    assert!(again.body["detail"].as_str().unwrap().contains("replace it, or choose another name"));
    let nameless = browser.post("/api/v1/weeks", json!({"name": "", "week": week})).await;
    assert_eq!(nameless.body["errors"][0]["pointer"], "/name", "{}", nameless.body);
    let listed = browser.get("/api/v1/weeks").await.body;
    let shown = &listed["kept"][0];
    assert_eq!((&shown["name"], &shown["days"], &shown["saved_by"]), (&json!("Two days"), &json!(2), &json!("Mara")));

    let mut brief = ready_brief();
    brief["name"] = json!("Somebody Else");
    brief["minutes_per_session"] = json!(40);
    brief["pain"] = json!([{"area": "elbow", "level": 2}]);
    brief["equipment"].as_array_mut().unwrap().push(json!("ez-bar"));
    let client = browser.post("/api/v1/clients", brief).await.body;
    let rounds = format!("/api/v1/clients/{}/rounds", client["id"].as_str().unwrap());
    let round = browser.post(&rounds, json!({"date": "2026-03-02", "measured_by": "A"})).await.body;
    let theirs = format!("/api/v1/rounds/{}/plan", round["id"].as_str().unwrap());
    let from = json!({"from": {"kept": shown["id"]}});
    let copied = browser.post(&format!("{theirs}/copy"), from.clone()).await.body;
    assert_eq!((&copied["week"]["minutes"], copied["week"]["sessions"].as_array().unwrap().len()), (&json!(40), 2));
    let replaced = copied["replaced"].as_array().unwrap();
    assert!(replaced.iter().any(|one| one["because"].as_str().unwrap().contains("elbow")), "{copied}");
    let cards: Vec<&Value> = (0..2).flat_map(|day| items(&copied, day)).collect();
    assert!(cards.iter().all(|card| card["exercise"] != "skull-crusher" && card["locked"].is_null()), "{cards:?}");
    assert_eq!(browser.get(&theirs).await.body["revision"], 0, "nothing is kept by asking");

    let id = shown["id"].as_str().unwrap();
    assert_eq!(browser.delete(&format!("/api/v1/weeks/{id}")).await.status, StatusCode::NO_CONTENT);
    assert_eq!(browser.post(&format!("{theirs}/copy"), from).await.status, StatusCode::NOT_FOUND);
}

#[actix_web::test]
async fn what_another_client_has_can_be_taken() {
    plan!(practice, browser, path);
    let own = browser.get(&path).await.body["week"].clone();
    let today = jiff::ZonedDateTime::now().date().to_string();
    let given = browser.post(&format!("{path}/issue"), json!({"revision": 0, "starts_on": today})).await;
    assert_eq!(given.status, StatusCode::CREATED, "{}", given.body);
    let others = browser.get("/api/v1/weeks").await.body["others"].clone();
    let copied = browser.post(&format!("{path}/copy"), json!({"from": {"plan": others[0]["plan"]}})).await.body;
    assert_eq!((&copied["replaced"], &copied["week"]["sessions"]), (&json!([]), &own["sessions"]));
}

#[actix_web::test]
async fn the_second_of_two_coaches_is_told_who_saved_first() {
    plan!(practice, browser, path);
    let week = browser.get(&path).await.body["week"].clone();
    assert_eq!(browser.put(&path, json!({"revision": 0, "week": week})).await.status, StatusCode::OK);
    let late = browser.put(&path, json!({"revision": 0, "week": week})).await;
    assert_eq!(late.status, StatusCode::CONFLICT);
    assert!(late.body["detail"].as_str().unwrap().contains("Mara"), "{}", late.body);
}

#[rstest]
#[case::minutes("/minutes", json!(5), "/week/minutes", "expected 10 to 240")]
#[case::an_unknown_exercise("/sessions/0/items/0/exercise", json!("bench-pres"), "/week/sessions/0/items/0/exercise", "bench-press")]
#[case::an_unknown_scheme("/sessions/0/items/0/scheme", json!("dorp"), "/week/sessions/0/items/0/scheme", "drop")]
#[case::eleven_sets("/sessions/0/items/0/sets", json!(11), "/week/sessions/0/items/0/sets", "expected 1 to 10")]
#[case::days_out_of_order("/sessions/1/day", json!(1), "/week/sessions/1/day", "out of order")]
#[actix_web::test]
async fn what_is_wrong_in_a_week_is_said_with_its_place_and_nothing_is_kept(
    #[case] at: &str,
    #[case] value: Value,
    #[case] pointer: &str,
    #[case] says: &str,
) {
    plan!(practice, browser, path);
    let mut week = browser.get(&path).await.body["week"].clone();
    let (parent, field) = at.rsplit_once('/').unwrap();
    let parent = if parent.is_empty() { &mut week } else { week.pointer_mut(parent).unwrap() };
    parent[field] = value;
    let answer = browser.put(&path, json!({"revision": 0, "week": week})).await;
    assert_eq!(answer.status, StatusCode::UNPROCESSABLE_ENTITY);
    let errors = answer.body["errors"].as_array().unwrap();
    let told = errors.iter().any(|e| e["pointer"] == pointer && e["says"].as_str().unwrap().contains(says));
    assert!(told, "{errors:?}");
    assert_eq!(browser.get(&path).await.body["revision"], 0);
}

#[actix_web::test]
async fn solving_keeps_locked_cards_and_names_those_whose_day_is_gone() {
    plan!(practice, browser, path);
    let mut week = browser.get(&path).await.body["week"].clone();
    let last = week["sessions"].as_array().unwrap().len() - 1;
    for session in [0, last] {
        week["sessions"][session]["items"][0]["locked"] = json!(true);
    }
    let (kept, gone) =
        (week["sessions"][0]["items"][0].clone(), week["sessions"][last]["items"][0]["exercise"].clone());
    let answer = browser.post(&format!("{path}/solve"), json!({"days": last, "week": week})).await;
    assert_eq!(answer.status, StatusCode::OK, "{}", answer.body);
    assert_eq!(answer.body["week"]["sessions"].as_array().unwrap().len(), last);
    assert!(items(&answer.body, 0).contains(&kept), "{kept} in {:?}", items(&answer.body, 0));
    assert_eq!(answer.body["dropped"], json!([gone]));
    let none = browser.post(&format!("{path}/solve"), json!({"days": 9, "week": week})).await;
    assert_eq!(none.status, StatusCode::UNPROCESSABLE_ENTITY);
}

#[actix_web::test]
async fn alternatives_are_ranked_and_a_card_that_is_not_there_is_said() {
    plan!(practice, browser, path);
    let week = browser.get(&path).await.body["week"].clone();
    let swaps = browser.post(&format!("{path}/swaps"), json!({"week": week, "session": 0, "place": 0})).await;
    assert_eq!(swaps.status, StatusCode::OK);
    assert!(swaps.body["refused"].as_array().unwrap().iter().all(|r| !r["because"].as_str().unwrap().is_empty()));
    let none = browser.post(&format!("{path}/swaps"), json!({"week": week, "session": 0, "place": 19})).await;
    assert_eq!(none.status, StatusCode::NOT_FOUND);
}

#[actix_web::test]
async fn a_proof_comes_as_events_and_what_was_proven_stays_with_the_plan() {
    plan!(practice, browser, path);
    assert!(browser.get(&path).await.body["plan"]["bound"].is_null());
    let mut events = browser.stream(&format!("{path}/proof?seconds=1")).await;
    let mut last = Value::Null;
    while let Some(piece) = events.next().await {
        let text = String::from_utf8(piece.to_vec()).unwrap();
        // The line that opens the stream says nothing.
        let Some(event) = text.strip_prefix("data: ") else { continue };
        last = serde_json::from_str(event.trim()).unwrap();
    }
    let (bound, objective) = (last["bound"].as_f64().unwrap(), last["objective"].as_f64().unwrap());
    assert!(bound <= objective && last["gap"].as_f64().unwrap() >= 0.0);
    let plan = browser.get(&path).await.body["plan"].clone();
    assert!((plan["bound"].as_f64().unwrap() - bound).abs() < 1e-9);
}

#[actix_web::test]
async fn plans_are_given_as_versions_that_later_changes_do_not_touch() {
    plan!(practice, browser, path);
    let view = browser.get(&path).await.body;
    let issue = format!("{path}/issue");
    // A Wednesday: the plan starts on the Monday of its week.
    let first = browser.post(&issue, json!({"revision": 0, "starts_on": "2026-03-11"})).await;
    assert_eq!(first.status, StatusCode::CREATED, "{}", first.body);
    assert_eq!((&first.body["version"], &first.body["starts_on"]), (&json!(1), &json!("2026-03-09")));
    assert_eq!(browser.get(&path).await.body["is_issued"], true);

    let mut week = view["week"].clone();
    let sets = week["sessions"][0]["items"][0]["sets"].as_u64().unwrap();
    week["sessions"][0]["items"][0]["sets"] = json!(sets % 5 + 1);
    let saved = browser.put(&path, json!({"revision": 0, "week": week})).await.body;
    assert_eq!(saved["is_issued"], false);
    let stale = browser.post(&issue, json!({"revision": 0, "starts_on": "2026-03-16"})).await;
    assert_eq!(stale.status, StatusCode::CONFLICT);
    let second = browser.post(&issue, json!({"revision": 1, "starts_on": "2026-03-16"})).await;
    assert_eq!(second.body["version"], 2);
    let given = browser.get(&format!("/api/v1/plans/{}", first.body["id"].as_str().unwrap())).await.body;
    assert_eq!(given["week"], view["week"], "the first version is as it was given");
    let no_date = browser.post(&issue, json!({"revision": 1, "starts_on": "2026-02-30"})).await;
    assert_eq!(no_date.status, StatusCode::UNPROCESSABLE_ENTITY);
}

#[rstest]
#[case::nobody_asked_yet(json!(null), "1994-06-11")]
#[case::a_yes_without_clearance(json!({"asked_on": "2026-03-01", "yes": ["heart"]}), "1994-06-11")]
#[actix_web::test]
async fn a_plan_is_not_given_to_who_may_not_train(#[case] readiness: Value, #[case] born: &str) {
    plan!(practice, browser, path);
    let _ = path;
    let mut brief = ready_brief();
    brief["birth_date"] = json!(born);
    if readiness.is_null() {
        brief.as_object_mut().unwrap().remove("readiness");
    } else {
        brief["readiness"] = readiness;
    }
    let client = browser.post("/api/v1/clients", brief).await.body;
    let rounds = format!("/api/v1/clients/{}/rounds", client["id"].as_str().unwrap());
    let round = browser.post(&rounds, json!({"date": "2026-03-02", "measured_by": "A"})).await.body;
    let path = format!("/api/v1/rounds/{}/plan", round["id"].as_str().unwrap());
    let answer = browser.post(&format!("{path}/issue"), json!({"revision": 0, "starts_on": "2026-03-09"})).await;
    assert_eq!(answer.status, StatusCode::FORBIDDEN, "{}", answer.body);
    assert!(answer.body["detail"].as_str().unwrap().starts_with("The plan stays a draft: "));
    assert!(browser.get(&path).await.body["issued"].as_array().unwrap().is_empty());
}

#[rstest]
#[case::pdf("pdf", "application/pdf", "%PDF-1.")]
#[case::calendar("ics", "text/calendar; charset=utf-8", "BEGIN:VCALENDAR")]
#[case::table("csv", "text/csv; charset=utf-8", "week,date,day,session")]
#[actix_web::test]
async fn a_given_plan_comes_as_a_file(#[case] kind: &str, #[case] media: &str, #[case] starts: &str) {
    plan!(practice, browser, path);
    let given = browser.post(&format!("{path}/issue"), json!({"revision": 0, "starts_on": "2026-03-09"})).await.body;
    let file = format!("/api/v1/plans/{}/files/{kind}", given["id"].as_str().unwrap());
    let (answer, bytes) = browser.raw(Method::GET, &file, Vec::new()).await;
    assert_eq!(answer.status, StatusCode::OK);
    assert_eq!(answer.headers.get("Content-Type").unwrap(), media);
    assert!(answer.headers.get("Content-Disposition").unwrap().to_str().unwrap().contains("plan-2026-03-09-version-1"));
    assert!(bytes.starts_with(starts.as_bytes()));
    let none = browser.get(&format!("/api/v1/plans/none/files/{kind}")).await;
    assert_eq!(none.status, StatusCode::NOT_FOUND);
}

fn own_exercise() -> Value {
    json!({
        "id": "own-tray-raise", "name": "Tin tray calf raise", "family": "own-tray-raise", "equipment": ["bodyweight"],
        "sides": "both", "targets": {"calves.gastrocnemius": 1.0}, "hardest": ["L"], "stretch": 3, "stability": 2,
        "reps": [10, 15], "effort": "small", "loads_joint": ["ankle"], "set_up": "Stand on the tray.",
        "cues": ["Rise slowly."], "faults": [], "cautions": []
    })
}

async fn with_own<S, B>(browser: &mut Browser<'_, S>, exercise: &Value) -> crate::support::Answer
where
    S: actix_web::dev::Service<
            actix_http::Request,
            Response = actix_web::dev::ServiceResponse<B>,
            Error = actix_web::Error,
        >,
    B: actix_web::body::MessageBody,
{
    let revision = browser.get("/api/v1/practice").await.body["revision"].clone();
    browser.put("/api/v1/library/exercises", json!({"revision": revision, "exercise": exercise})).await
}

#[actix_web::test]
async fn an_own_exercise_is_known_everywhere_and_survives_a_new_start() {
    plan!(practice, browser, path);
    let saved = with_own(&mut browser, &own_exercise()).await;
    assert_eq!(saved.status, StatusCode::OK, "{}", saved.body);
    let mut week = browser.get(&path).await.body["week"].clone();
    week["sessions"][0]["items"] = json!([{"exercise": "own-tray-raise", "sets": 4}]);
    let view = browser.put(&path, json!({"revision": 0, "week": week})).await;
    assert_eq!(view.status, StatusCode::OK, "{}", view.body);
    assert_eq!(view.body["plan"]["sessions"][0]["items"][0]["name"], "Tin tray calf raise");
    let again: &Practice = &practice;
    assert!(again.again().desk.knowledge().atlas.exercise(&"own-tray-raise".parse().unwrap()).is_some());
    let mut renamed = own_exercise();
    renamed["name"] = json!("Tray raise");
    with_own(&mut browser, &renamed).await;
    let names = browser.get(&path).await.body["plan"]["sessions"][0]["items"][0]["name"].clone();
    assert_eq!(names, "Tray raise");
}

#[rstest]
#[case::no_main_target("targets", json!({"calves.soleus": 0.5}), "/exercise/targets", "one needs the fraction 1")]
#[case::no_such_region("targets", json!({"calves.left": 1.0}), "/exercise/targets", "no region calves.left")]
#[case::no_such_equipment("equipment", json!(["tray"]), "/exercise/equipment", "no equipment tray")]
#[case::no_such_joint("loads_joint", json!(["ankel"]), "/exercise/loads_joint", "no joint ankel")]
#[case::a_shipped_name("id", json!("bench-press"), "/exercise/id", "there is an exercise bench-press already")]
#[case::a_range_backwards("reps", json!([15, 10]), "/exercise/reps", "15 to 10 is no range")]
#[actix_web::test]
async fn an_own_exercise_keeps_the_rules_of_those_that_ship(
    #[case] field: &str,
    #[case] value: Value,
    #[case] pointer: &str,
    #[case] says: &str,
) {
    plan!(practice, browser, path);
    let _ = path;
    let mut exercise = own_exercise();
    exercise[field] = value;
    let answer = with_own(&mut browser, &exercise).await;
    assert_eq!(answer.status, StatusCode::UNPROCESSABLE_ENTITY);
    let errors = answer.body["errors"].as_array().unwrap();
    assert!(errors.iter().any(|e| e["pointer"] == pointer && e["says"].as_str().unwrap().contains(says)), "{errors:?}");
}

#[actix_web::test]
async fn an_own_exercise_is_not_taken_away_by_saving_the_settings_without_it() {
    plan!(practice, browser, path);
    let _ = path;
    with_own(&mut browser, &own_exercise()).await;
    let revision = browser.get("/api/v1/practice").await.body["revision"].clone();
    let answer = browser.put("/api/v1/practice", json!({"revision": revision, "settings": {}})).await;
    assert_eq!(answer.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(answer.body.to_string().contains("advise against it instead"), "{}", answer.body);
}
