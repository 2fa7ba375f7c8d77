//! The real router on a real SQLite file.

use crate::support::{Browser, KNOWLEDGE, PASSWORD, Practice, browser, example, of, practice};
use actix_web::http::{Method, StatusCode};
use actix_web::test::{TestRequest, call_service, init_service};
use casefile::{CaseFile, assessment_file};
use rand::rngs::StdRng;
use rand::{RngExt, SeedableRng};
use rstest::rstest;
use serde_json::{Value, json};
use server::{application, openapi};
use std::collections::BTreeMap;
use std::net::{IpAddr, SocketAddr};

#[actix_web::test]
async fn every_route_but_sign_in_health_and_pictures_of_the_catalogue_needs_someone_to_be_signed_in() {
    let practice = practice();
    let document = serde_json::to_value(openapi(practice.state.clone())).unwrap();
    browser!(practice, app);
    let mut closed = 0;
    for (path, methods) in document["paths"].as_object().unwrap() {
        if path.starts_with("/api/v1/session") || path.starts_with("/api/v1/figures") || path == "/api/v1/health" {
            continue;
        }
        for method in methods.as_object().unwrap().keys() {
            let uri = path.replace(['{', '}'], "");
            let method: Method = method.to_uppercase().parse().unwrap();
            let answer = of(&practice, &app).send(method, &uri, None).await;
            assert_eq!(answer.status, StatusCode::UNAUTHORIZED, "{path}");
            assert_eq!(answer.headers.get("Content-Type").unwrap(), "application/problem+json");
            closed += 1;
        }
    }
    assert!(closed >= 12, "{closed} routes");
}

/// Every object that a body may hold, by the name or place it has in the document.
fn objects<'a>(document: &'a Value, place: &str, schema: &'a Value, found: &mut BTreeMap<String, &'a Value>) {
    if let Some(name) = schema["$ref"].as_str() {
        let name = name.trim_start_matches("#/components/schemas/");
        if !found.contains_key(name) {
            objects(document, name, &document["components"]["schemas"][name], found);
        }
        return;
    }
    if schema.get("properties").is_some() {
        found.insert(place.to_owned(), schema);
    }
    let named = schema["properties"].as_object().into_iter().flatten();
    let several = ["oneOf", "anyOf", "allOf", "prefixItems"];
    let several = several.iter().flat_map(|key| schema[*key].as_array().into_iter().flatten());
    let inner = [&schema["items"], &schema["additionalProperties"]].into_iter().filter(|inner| inner.is_object());
    for (number, part) in named.map(|(_, part)| part).chain(several).chain(inner).enumerate() {
        objects(document, &format!("{place}/{number}"), part, found);
    }
}

/// Parts told apart by their kind: the document does not say that they are closed, `casefile`'s tests do.
const BY_KIND: [&str; 3] = ["LogPart/", "TestEntry/", "WeekSource/"];

#[actix_web::test]
async fn no_field_of_any_body_is_ignored() {
    let practice = practice();
    let document = serde_json::to_value(openapi(practice.state.clone())).unwrap();
    let mut found = BTreeMap::new();
    for (path, methods) in document["paths"].as_object().unwrap() {
        for (method, operation) in methods.as_object().unwrap() {
            let body = &operation["requestBody"]["content"]["application/json"]["schema"];
            objects(&document, &format!("{method} {path}"), body, &mut found);
        }
    }
    assert!(found.len() > 40, "{:?}", found.keys());
    let by_kind = |name: &str| BY_KIND.iter().any(|kind| name.starts_with(kind));
    let open = found.iter().filter(|(name, schema)| schema["additionalProperties"] != json!(false) && !by_kind(name));
    let open: Vec<&String> = open.map(|(name, _)| name).collect();
    assert_eq!(open, Vec::<&String>::new());
}

#[actix_web::test]
async fn the_first_start_makes_the_owner_and_only_the_first() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    assert_eq!(browser.get("/api/v1/session").await.body["standing"], "new");
    let short = json!({"name": "Mara", "login": "mara", "password": "short"});
    let refused = browser.post("/api/v1/session/owner", short).await;
    assert_eq!(refused.body["errors"][0]["says"], "a password needs at least 10 characters");
    browser.become_owner().await;
    let session = browser.get("/api/v1/session").await.body;
    assert_eq!((&session["standing"], &session["name"]), (&json!("signed-in"), &json!("Mara")));
    let second = json!({"name": "Eve", "login": "eve", "password": PASSWORD});
    assert_eq!(browser.post("/api/v1/session/owner", second).await.status, StatusCode::CONFLICT);
}

#[actix_web::test]
async fn signing_in_gives_a_cookie_scripts_cannot_read_and_signing_out_ends_it_for_good() {
    let practice = practice();
    browser!(practice, app);
    of(&practice, &app).become_owner().await;
    let mut browser = of(&practice, &app);
    let wrong = browser.post("/api/v1/session", json!({"login": "mara", "password": "not the password"})).await;
    assert_eq!(
        (wrong.status, wrong.body["detail"].as_str()),
        (StatusCode::UNAUTHORIZED, Some("Login and password do not match."))
    );
    let right = browser.post("/api/v1/session", json!({"login": "Mara ", "password": PASSWORD})).await;
    for cookie in right.headers.get_all("Set-Cookie") {
        let cookie = cookie.to_str().unwrap();
        assert!(cookie.contains("HttpOnly") && cookie.contains("SameSite=Strict"), "{cookie}");
    }
    assert_eq!(browser.get("/api/v1/clients").await.status, StatusCode::OK);
    let kept = browser.cookie.clone();
    assert_eq!(browser.send(Method::DELETE, "/api/v1/session", None).await.status, StatusCode::NO_CONTENT);
    browser.cookie = kept;
    assert_eq!(browser.get("/api/v1/clients").await.status, StatusCode::UNAUTHORIZED);
}

#[actix_web::test]
async fn whoever_was_here_before_gets_in_while_others_guess_at_their_login() {
    let practice = practice();
    browser!(practice, app);
    of(&practice, &app).become_owner().await;
    let right = json!({"login": "mara", "password": PASSWORD});
    let mut mara = of(&practice, &app);
    assert_eq!(mara.post("/api/v1/session", right.clone()).await.status, StatusCode::OK);
    let strangers = |last: u8| SocketAddr::from(([127, 3, 1, last], 40_000));
    for last in 0..6 {
        let mut stranger = Browser { app: &app, peer: strangers(last), cookie: None };
        stranger.post("/api/v1/session", json!({"login": "mara", "password": "a guess of theirs"})).await;
    }
    let mut stranger = Browser { app: &app, peer: strangers(9), cookie: None };
    let refused = stranger.post("/api/v1/session", right.clone()).await;
    assert_eq!(refused.status, StatusCode::TOO_MANY_REQUESTS, "{}", refused.body);
    assert!(refused.body["detail"].as_str().unwrap().starts_with("Too many wrong passwords"), "{}", refused.body);
    assert_eq!(mara.post("/api/v1/session", right).await.status, StatusCode::OK);
}

#[rstest]
#[case::the_line_s_other_end(&[], "8.8.8.8", true)]
#[case::a_proxy_that_is_trusted(&["127.0.0.9"], "8.8.8.8", false)]
#[case::a_proxy_that_is_not(&["127.0.0.8"], "8.8.8.8", true)]
#[case::what_callers_write_before_it(&["127.0.0.9"], "1.1.1.1, 8.8.8.8", false)]
#[actix_web::test]
async fn tries_are_counted_by_the_address_that_is_believed(
    #[case] proxies: &[&str],
    #[case] forwarded: &str,
    #[case] together: bool,
) {
    let practice = practice();
    let proxies: Vec<IpAddr> = proxies.iter().map(|proxy| proxy.parse().unwrap()).collect();
    let app = init_service(application(practice.state.clone().behind_proxies(proxies), &practice.key)).await;
    let send = async |forwarded: &str| {
        let request = TestRequest::post().uri("/api/v1/session").peer_addr("127.0.0.9:40000".parse().unwrap());
        let request = request.insert_header(("X-Forwarded-For", forwarded));
        let body = json!({"login": forwarded, "password": "y"});
        call_service(&app, request.set_json(body).to_request()).await.status()
    };
    for _ in 0..12 {
        send(forwarded).await;
    }
    let other = send("9.9.9.9").await;
    assert_eq!(other == StatusCode::TOO_MANY_REQUESTS, together);
}

#[rstest]
#[case::that_was_printed("12345678", StatusCode::CREATED)]
#[case::that_was_guessed("12345679", StatusCode::UNPROCESSABLE_ENTITY)]
#[case::that_is_none("", StatusCode::UNPROCESSABLE_ENTITY)]
#[actix_web::test]
async fn the_first_owner_shows_the_code(#[case] code: &str, #[case] status: StatusCode) {
    let practice = practice();
    let state = practice.state.clone().asking_for(Some("12345678".to_owned()));
    let app = init_service(application(state, &practice.key)).await;
    let mut browser = of(&practice, &app);
    assert_eq!(browser.get("/api/v1/session").await.body["asks_for_code"], true);
    let owner = json!({"name": "Mara", "login": "mara", "password": PASSWORD, "code": code});
    let made = browser.post("/api/v1/session/owner", owner).await;
    assert_eq!(made.status, status, "{}", made.body);
}

#[actix_web::test]
async fn guessing_passwords_is_slowed_down() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    let mut last = None;
    for _ in 0..12 {
        last = Some(browser.post("/api/v1/session", json!({"login": "x", "password": "y"})).await);
    }
    let last = last.unwrap();
    assert_eq!(last.status, StatusCode::TOO_MANY_REQUESTS);
    assert!(last.body["detail"].as_str().unwrap().starts_with("Too many attempts to sign in: try again in"));
    assert_eq!(browser.get("/api/v1/session").await.status, StatusCode::OK, "only attempts are limited");
}

#[actix_web::test]
async fn every_answer_tells_the_browser_what_not_to_do() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    for path in ["/", "/clients", "/api/v1/health", "/api/v1/clients", "/api/nothing"] {
        let answer = browser.get(path).await;
        let policy = answer.headers.get("Content-Security-Policy").unwrap().to_str().unwrap();
        assert!(policy.starts_with("default-src 'none'") && !policy.contains("unsafe"), "{path}: {policy}");
        assert_eq!(answer.headers.get("X-Content-Type-Options").unwrap(), "nosniff", "{path}");
        assert_eq!(answer.headers.get("Cache-Control").unwrap(), "no-store", "{path}");
    }
}

#[actix_web::test]
async fn the_api_gives_the_same_verdict_as_the_command_line() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let round = browser.round().await;
    let sheet = json!({"revision": 0, "measured_by": "A", "folds": [], "levels_cm": {}, "entries": example()["rounds"][0]["tape"]});
    let saved = browser.put(&format!("/api/v1/rounds/{round}/tape"), sheet).await;
    assert_eq!((saved.status, saved.body["problems"].clone()), (StatusCode::OK, json!([])));
    let served = browser.get(&format!("/api/v1/rounds/{round}/verdict")).await.body["assessment"].clone();
    let file = browser.get(&format!("/api/v1/rounds/{round}/case")).await.body;
    let case = CaseFile::parse(&file.to_string()).unwrap().resolve(&KNOWLEDGE.atlas).unwrap();
    let assessment = assess::assess(&KNOWLEDGE, &case);
    assert!(served == json!(assessment_file(&KNOWLEDGE, &case, &assessment, true)));
}

#[actix_web::test]
async fn choosing_a_region_changes_the_plan() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let round = browser.round().await;
    let choose = |revision: i32, regions: Value| json!({"revision": revision, "choices": {"bring_up": regions}});
    let path = format!("/api/v1/rounds/{round}/choices");
    let four = browser.put(&path, choose(0, json!(["neck", "cuff", "grip", "erectors"]))).await;
    assert_eq!(four.status, StatusCode::UNPROCESSABLE_ENTITY);
    let chosen = browser.put(&path, choose(0, json!(["delts.posterior"]))).await;
    assert_eq!((chosen.status, chosen.body["choices_revision"].as_i64()), (StatusCode::OK, Some(1)));
    assert_eq!(browser.put(&path, choose(0, json!([]))).await.status, StatusCode::CONFLICT);
    let plan = browser.get(&format!("/api/v1/rounds/{round}/plan")).await.body;
    let row = plan["plan"]["ledger"].as_array().unwrap().iter().find(|row| row["region"] == "delts.posterior").unwrap();
    assert_eq!(row["class"], "bring-up");
    assert!(row["total"].as_f64().unwrap() >= row["low"].as_f64().unwrap());
}

#[actix_web::test]
async fn a_slip_of_the_finger_is_named_and_deletes_nothing() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let path = format!("/api/v1/rounds/{}/tape", browser.round().await);
    let arm = |left: Value| json!([{"site": "arm-flexed", "side": "left", "readings_cm": left}, {"site": "waist", "readings_cm": [81.0]}]);
    let sheet = |revision: i64, entries: Value| json!({"revision": revision, "measured_by": "A", "folds": [], "levels_cm": {}, "entries": entries});
    browser.put(&path, sheet(0, arm(json!([37.4])))).await;
    let slipped = browser.put(&path, sheet(1, arm(json!([37.4, 374])))).await;
    let problem = &slipped.body["problems"][0];
    assert_eq!(problem["pointer"], "/entries/0/readings_cm/1");
    assert_eq!(problem["says"], "374 cm is outside 15 to 75 cm for arm-flexed; did you mean 37.4 cm?");
    assert_eq!(browser.get(&path).await.body["entries"], arm(json!([37.4])), "what was stored stays");
}

#[actix_web::test]
async fn the_second_of_two_tabs_is_told_who_saved_first() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let path = format!("/api/v1/rounds/{}/tape", browser.round().await);
    let sheet = |cm: f64| json!({"revision": 0, "measured_by": "A", "folds": [], "levels_cm": {}, "entries": [{"site": "waist", "readings_cm": [cm]}]});
    assert_eq!(browser.put(&path, sheet(81.0)).await.status, StatusCode::OK);
    let second = browser.put(&path, sheet(90.0)).await;
    assert_eq!((second.status, second.body["current_revision"].as_i64()), (StatusCode::CONFLICT, Some(1)));
    assert!(second.body["detail"].as_str().unwrap().contains("saved by Mara"), "{}", second.body);
    assert_eq!(browser.get(&path).await.body["entries"][0]["readings_cm"], json!([81.0]));
}

#[rstest]
#[case::a_round_in_the_future("clients/ID/rounds", json!({"date": "2999-01-01", "measured_by": "A"}), 422, "in the future")]
#[case::a_round_on_no_day("clients/ID/rounds", json!({"date": "2026-02-30", "measured_by": "A"}), 422, "not a date")]
#[case::a_round_by_nobody("clients/ID/rounds", json!({"date": "2026-01-05", "measured_by": " "}), 422, "who holds the tape")]
#[case::an_unknown_field("clients/ID/rounds", json!({"date": "2026-01-05", "by": "A"}), 400, "unknown field `by`")]
#[case::a_client_born_tomorrow("clients", json!({"birth_date": "2999-01-01"}), 422, "is not before")]
#[case::a_client_of_unknown_look("clients", json!({"look": "tapper"}), 422, "did you mean \"taper\"?")]
#[actix_web::test]
async fn bad_input_is_one_clear_sentence(
    #[case] path: &str,
    #[case] mut body: Value,
    #[case] status: u16,
    #[case] says: &str,
) {
    let practice = practice();
    browser!(practice, app);
    // The owner is made in the store: this test signs in once, through one address, for all its cases.
    let owner = store::NewAccount {
        login: "mara".into(),
        name: "Mara".into(),
        role: roles::Role::Owner,
        password_hash: server::hash_password(PASSWORD).unwrap(),
    };
    practice.state.desk.store.add_owner(&owner).unwrap();
    let mut browser = of(&practice, &app);
    browser.post("/api/v1/session", json!({"login": "mara", "password": PASSWORD})).await;
    if path == "clients" {
        let mut brief = example()["client"].clone();
        brief.as_object_mut().unwrap().extend(body.as_object().unwrap().clone());
        body = brief;
    }
    let client = browser.post("/api/v1/clients", example()["client"].clone()).await.body["id"].clone();
    let path = format!("/api/v1/{}", path.replace("ID", client.as_str().unwrap()));
    let answer = browser.post(&path, body).await;
    assert_eq!(answer.status.as_u16(), status, "{}", answer.body);
    assert!(answer.body["detail"].as_str().unwrap().contains(says), "{}", answer.body);
}

#[actix_web::test]
async fn the_committed_api_description_is_the_one_the_routes_give() {
    let practice = practice();
    let path = concat!(env!("CARGO_MANIFEST_DIR"), "/../../web/openapi.json");
    let committed: Value = serde_json::from_str(&std::fs::read_to_string(path).unwrap()).unwrap();
    let given = serde_json::to_value(openapi(practice.state.clone())).unwrap();
    assert_eq!(committed, given, "run `make api`");
}

#[rstest]
#[case::no_such_client("/api/v1/clients/nobody", 404, "there is no client \"nobody\"")]
#[case::no_such_round("/api/v1/rounds/none/verdict", 404, "there is no round \"none\"")]
#[case::no_such_plan("/api/v1/rounds/none/plan", 404, "there is no round \"none\"")]
#[case::no_such_route("/api/v1/planets", 404, "there is no GET /api/v1/planets")]
#[case::a_page_that_is_no_number(
    "/api/v1/clients?page=first",
    400,
    "what follows the ? of the address cannot be read: invalid digit"
)]
#[actix_web::test]
async fn what_is_not_there_is_said_as_a_problem(#[case] path: &str, #[case] status: u16, #[case] says: &str) {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let answer = browser.get(path).await;
    assert_eq!(answer.status.as_u16(), status, "{}", answer.body);
    assert_eq!(answer.headers.get("Content-Type").unwrap(), "application/problem+json");
    assert!(answer.body["detail"].as_str().unwrap().contains(says), "{}", answer.body);
}

#[actix_web::test]
async fn every_page_has_a_nonce_of_its_own() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    let mut nonces = Vec::new();
    for _ in 0..3 {
        let answer = browser.get("/clients/anyone").await;
        let policy = answer.headers.get("Content-Security-Policy").unwrap().to_str().unwrap().to_owned();
        let nonce = policy.split("'nonce-").nth(1).unwrap().split('\'').next().unwrap().to_owned();
        assert!(nonce.len() >= 22, "{policy}");
        nonces.push(nonce);
    }
    nonces.sort();
    nonces.dedup();
    assert_eq!(nonces.len(), 3);
}

#[actix_web::test]
async fn a_brief_keeps_its_screens_and_schools_and_names_an_answer_nobody_gives() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let mut brief = example()["client"].clone();
    brief["screens"] = json!({"ankle_dorsiflexion_deg": {"left": 30.0, "right": 34.0}, "blades_retract": false});
    brief["schools"] = json!({"rear_delt_blades": "back"});
    let added = browser.post("/api/v1/clients", brief.clone()).await;
    let path = format!("/api/v1/clients/{}", added.body["id"].as_str().unwrap());
    let stored = browser.get(&path).await.body["brief"].clone();
    assert_eq!(
        (stored["screens"].clone(), stored["schools"].clone()),
        (brief["screens"].clone(), brief["schools"].clone())
    );
    brief["schools"]["rear_delt_blades"] = json!("forwards");
    let refused = browser.put(&path, json!({"revision": 0, "brief": brief})).await;
    let problem = &refused.body["errors"][0];
    assert_eq!(refused.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(problem["pointer"], "/brief/schools/rear_delt_blades");
    assert_eq!(problem["says"], "there is no option \"forwards\": did you mean \"forward\"?");
}

/// Adds a client whose newest round holds the example's tape, a little larger or smaller, straight in the store.
fn taped_client(practice: &Practice, i: u32, schools: Value) -> String {
    let mut file = example();
    file["client"]["name"] = json!(format!("Client {i}"));
    file["client"]["schools"] = schools;
    // Bodies that differ site by site, or their covariance says nothing.
    let mut chance = StdRng::seed_from_u64(u64::from(i));
    file["client"]["height_cm"] = json!(chance.random_range(170.0..186.0));
    for entry in file["rounds"][0]["tape"].as_array_mut().unwrap() {
        let wobble = chance.random_range(0.98..1.02);
        let readings = entry["readings_cm"].as_array().unwrap().iter();
        entry["readings_cm"] = readings.map(|cm| json!(cm.as_f64().unwrap() * wobble)).collect();
    }
    let case = CaseFile::parse(&file.to_string()).unwrap().resolve(&KNOWLEDGE.atlas).unwrap();
    let store = &practice.state.desk.store;
    let client = store.add_client(&KNOWLEDGE.atlas, &case.client).unwrap();
    let new = store::NewRound { taken_on: case.as_of, measured_by: "A".into(), weight: None };
    let round = store.add_round(&client.id, &new).unwrap();
    let tape = store::SavedTape {
        revision: 0,
        saved_by: "A",
        measured_by: "A",
        weight: None,
        measures: &case.rounds[0].tape,
        folds: &[],
        levels: &case.rounds[0].levels,
    };
    store.save_tape(&round.id, &tape).unwrap();
    round.id.into()
}

#[rstest]
#[case::thirty_others_are_enough(30, true)]
#[case::ten_are_not(10, false)]
#[actix_web::test]
async fn the_own_roster_judges_size_once_it_is_large_enough(#[case] others: u32, #[case] judged: bool) {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    for i in 1..=others {
        taped_client(&practice, i, json!({}));
    }
    let round = taped_client(&practice, 0, json!({"sizing": "own-roster"}));
    let assessment = browser.get(&format!("/api/v1/rounds/{round}/verdict")).await.body["assessment"].clone();
    let by = |school: &str| assessment["schools"].as_array().unwrap().iter().any(|s| s["school"] == school);
    assert_eq!((by("own-roster"), by("frame-ratios")), (judged, true));
    let sized = assessment["observations"].as_array().unwrap().iter().any(|o| o["kind"] == "tape-size");
    assert_eq!(sized, judged);
}

#[actix_web::test]
async fn a_large_difference_is_referred_on_the_verdict() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let round = browser.round().await;
    let calf = |side: &str, cm: f64| json!({"site": "calf", "side": side, "readings_cm": [cm, cm]});
    let sheet = json!({"revision": 0, "measured_by": "A", "folds": [], "levels_cm": {}, "entries": [calf("left", 34.0), calf("right", 37.5)]});
    browser.put(&format!("/api/v1/rounds/{round}/tape"), sheet).await;
    let verdict = browser.get(&format!("/api/v1/rounds/{round}/verdict")).await.body;
    let flag = &verdict["assessment"]["flags"].as_array().unwrap().iter().find(|f| f["refer"] == true).unwrap();
    assert_eq!(flag["kind"], "large-side-difference");
}

fn girth(site: &str, cm: f64) -> Value {
    json!({"site": site, "readings_cm": [cm, cm]})
}

#[rstest]
#[case::nothing_taped(json!([]), "tape", "empty", "nothing taped")]
#[case::nothing_to_judge_by(json!([]), "verdict", "empty", "no evidence")]
#[case::one_girth_alone(json!([girth("waist", 81.0)]), "tape", "look", "too little to judge size")]
#[case::two_readings_apart(
    json!([{"site": "waist", "readings_cm": [80.0, 83.0]}]), "tape", "look", "1 third reading due"
)]
#[case::nothing_chosen(json!([girth("waist", 81.0)]), "plan", "empty", "nothing chosen")]
#[case::no_pictures_yet(json!([]), "photos", "empty", "no pictures")]
#[case::nothing_tested(json!([]), "tests", "empty", "nothing tested")]
#[case::no_plan_was_given_yet(json!([]), "log", "empty", "no plan given")]
#[case::nobody_asked_whether_they_are_ready(json!([]), "brief", "look", "readiness not asked")]
#[actix_web::test]
async fn each_step_of_a_round_says_how_far_it_has_come(
    #[case] entries: Value,
    #[case] step: &str,
    #[case] state: &str,
    #[case] says: &str,
) {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let round = browser.round().await;
    let sheet = json!({"revision": 0, "measured_by": "A", "folds": [], "levels_cm": {}, "entries": entries});
    browser.put(&format!("/api/v1/rounds/{round}/tape"), sheet).await;
    let view = browser.get(&format!("/api/v1/rounds/{round}")).await.body;
    let steps = view["steps"].as_array().unwrap();
    assert_eq!(steps.len(), 8);
    let found = steps.iter().find(|s| s["step"] == step).unwrap();
    assert_eq!((found["state"].as_str(), found["says"].as_str()), (Some(state), Some(says)));
}

const HOST: (&str, &str) = ("Host", "127.0.0.1:8080");

// Wrong credentials are refused with 401: that is how far a request came that was let pass.
#[rstest]
#[case::the_page_itself(&[HOST, ("Sec-Fetch-Site", "same-origin"), ("Origin", "http://127.0.0.1:8080")], 401)]
#[case::an_address_typed_by_hand(&[HOST, ("Sec-Fetch-Site", "none")], 401)]
#[case::no_browser_at_all(&[HOST], 401)]
#[case::another_site(&[HOST, ("Sec-Fetch-Site", "cross-site"), ("Origin", "https://evil.example")], 403)]
#[case::another_port_of_this_machine(&[HOST, ("Sec-Fetch-Site", "same-site"), ("Origin", "http://127.0.0.1:9000")], 403)]
#[case::an_old_browser_on_another_port(&[HOST, ("Origin", "http://127.0.0.1:9000")], 403)]
#[case::a_page_without_an_origin(&[HOST, ("Origin", "null")], 403)]
#[case::a_name_made_to_point_here(&[("Host", "evil.example:8080"), ("Sec-Fetch-Site", "same-origin")], 403)]
#[case::its_own_name(&[("Host", "studio.example"), ("Origin", "https://studio.example")], 401)]
#[actix_web::test]
async fn only_pages_of_this_practice_write(#[case] headers: &[(&str, &str)], #[case] status: u16) {
    let practice = practice();
    let state = practice.state.clone().called(["studio.example".to_owned()]);
    let app = init_service(application(state, &practice.key)).await;
    let body = json!({"login": "nobody", "password": "nothing at all"});
    let mut request = TestRequest::post().uri("/api/v1/session").peer_addr(practice.peer).set_json(body);
    for header in headers {
        request = request.insert_header(*header);
    }
    assert_eq!(call_service(&app, request.to_request()).await.status().as_u16(), status);
}

#[rstest]
#[case::in_the_studio_s_own_network(false, "orthomer-session=", false)]
#[case::behind_https(true, "__Host-orthomer-session=", true)]
#[actix_web::test]
async fn a_cookie_is_as_safe_as_the_line(#[case] https: bool, #[case] cookie: &str, #[case] safe: bool) {
    let practice = practice();
    let app = init_service(application(practice.state.clone().behind_https(https), &practice.key)).await;
    let owner = json!({"name": "Mara", "login": "mara", "password": PASSWORD});
    let request = TestRequest::post().uri("/api/v1/session/owner").peer_addr(practice.peer).set_json(owner);
    let answer = call_service(&app, request.to_request()).await;
    let set = answer.headers().get("Set-Cookie").unwrap().to_str().unwrap();
    assert!(set.starts_with(cookie) && set.contains("HttpOnly") && set.contains("SameSite=Strict"), "{set}");
    assert_eq!([set.contains("; Secure"), answer.headers().contains_key("Strict-Transport-Security")], [safe; 2]);
}

#[actix_web::test]
async fn a_round_before_birth_is_refused() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let client = browser.post("/api/v1/clients", example()["client"].clone()).await;
    let path = format!("/api/v1/clients/{}/rounds", client.body["id"].as_str().unwrap());
    let answer = browser.post(&path, json!({"date": "1961-01-05", "measured_by": "A"})).await;
    assert_eq!(
        (answer.status, answer.body["errors"][0]["pointer"].as_str()),
        (StatusCode::UNPROCESSABLE_ENTITY, Some("/date"))
    );
}
