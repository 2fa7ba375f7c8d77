//! Who may use which route, and what is noted of it.

use crate::support::{PASSWORD, browser, example, of, practice};
use actix_web::http::{Method, StatusCode};
use actix_web::test::{TestRequest, call_service, init_service, read_body};
use roles::Role;
use rstest::rstest;
use serde_json::{Value, json};
use server::{AppState, application, openapi};
use totp_rs::{Builder, Secret};

/// What is the coaches' work, by the routes' own names.
const NOT_FOR_ASSISTANTS: [&str; 27] = [
    "import_client",
    "add_client",
    "make_client_up",
    "save_client",
    "save_client_note",
    "export_client",
    "withdraw_consent",
    "make_link",
    "revoke_link",
    "save_target",
    "save_repeat",
    "show_case_file",
    "save_choices",
    "save_plan",
    "copy_week",
    "issue_plan",
    "solve_plan",
    "show_swaps",
    "save_rating",
    "delete_rating",
    "save_review",
    "see_to",
    "keep_week",
    "forget_week",
    "delete_round",
    "put_away",
    "save_round",
];

/// What is the owner's alone.
const FOR_THE_OWNER: [&str; 10] = [
    "erase_client",
    "save_exercise",
    "save_practice",
    "show_backup",
    "list_tables",
    "show_table",
    "show_deeds",
    "add_person",
    "save_person",
    "remove_person",
];

/// Every route that asks for somebody signed in: its method, path with made-up ids, and name.
fn guarded(state: AppState) -> Vec<(Method, String, String)> {
    let document = serde_json::to_value(openapi(state)).unwrap();
    let paths = document["paths"].as_object().unwrap().clone();
    let open = |path: &str| ["/session", "/my/", "/health", "/figures/"].iter().any(|open| path.contains(open));
    let mut found = Vec::new();
    for (path, methods) in paths.into_iter().filter(|(path, _)| !open(path)) {
        let parts = path.split('/').map(|part| if part.starts_with('{') { "x" } else { part });
        let address = parts.collect::<Vec<_>>().join("/");
        for (method, operation) in methods.as_object().unwrap().iter().filter(|(_, it)| it.get("operationId").is_some())
        {
            let method: Method = method.to_uppercase().parse().unwrap();
            found.push((method, address.clone(), operation["operationId"].as_str().unwrap().to_owned()));
        }
    }
    found
}

#[rstest]
#[case::owner(Role::Owner)]
#[case::coach(Role::Coach)]
#[case::assistant(Role::Assistant)]
#[actix_web::test]
async fn every_route_lets_in_whose_work_it_is(#[case] role: Role) {
    let practice = practice();
    browser!(practice, app);
    let mut owner = of(&practice, &app);
    owner.become_owner().await;
    let mut someone = of(&practice, &app);
    if role == Role::Owner {
        someone.cookie = owner.cookie.clone();
    } else {
        let new = json!({"name": "Jo", "login": "jo", "password": PASSWORD, "role": role});
        assert_eq!(owner.post("/api/v1/practice/people", new).await.status, StatusCode::CREATED);
        someone.post("/api/v1/session", json!({"login": "jo", "password": PASSWORD})).await;
    }
    let cookie = someone.cookie.unwrap();
    let routes = guarded(practice.state.clone());
    assert!(routes.len() > 70, "{}", routes.len());
    for (method, path, name) in routes {
        // Both kinds of body are sent as JSON: whom a route lets in is decided before it is read.
        let request = TestRequest::default().method(method.clone()).uri(&path).peer_addr(practice.peer);
        let request = request.insert_header(("Cookie", cookie.clone())).set_json(json!({"role": "coach"}));
        let answer = call_service(&app, request.to_request()).await;
        let refused = answer.status() == StatusCode::FORBIDDEN;
        if answer.status() == StatusCode::NOT_FOUND {
            let says = String::from_utf8_lossy(&read_body(answer).await).into_owned();
            assert!(!says.contains(&format!("there is no {method}")), "{name} is in no table");
        }
        let for_owner = FOR_THE_OWNER.contains(&name.as_str());
        let expected = match role {
            Role::Owner => false,
            Role::Coach => for_owner,
            Role::Assistant => for_owner || NOT_FOR_ASSISTANTS.contains(&name.as_str()),
        };
        assert_eq!(refused, expected, "{method} {path} ({name}) for {role:?}");
    }
}

#[actix_web::test]
async fn who_did_what_for_whom_is_noted_once_an_hour_and_read_by_the_owner() {
    let practice = practice();
    browser!(practice, app);
    let mut owner = of(&practice, &app);
    owner.become_owner().await;
    let new = json!({"name": "Jo", "login": "jo", "password": PASSWORD, "role": "assistant"});
    owner.post("/api/v1/practice/people", new).await;
    let round = owner.round().await;
    let mut jo = of(&practice, &app);
    jo.post("/api/v1/session", json!({"login": "jo", "password": PASSWORD})).await;
    for cm in [30.0, 31.0] {
        let sheet = jo.get(&format!("/api/v1/rounds/{round}/tape")).await.body;
        let tape = json!({"revision": sheet["revision"], "measured_by": "Jo", "folds": [], "levels_cm": {}, "weight_kg": 82.4,
            "entries": [{"site": "neck", "readings_cm": [cm]}]});
        let saved = jo.put(&format!("/api/v1/rounds/{round}/tape"), tape).await;
        assert_eq!(saved.status, StatusCode::OK, "{}", saved.body);
    }
    let given = jo.post(&format!("/api/v1/rounds/{round}/plan/issue"), json!({})).await;
    assert_eq!(given.body["detail"], "An assistant does not give a week: ask a coach.", "{}", given.body);
    assert_eq!(jo.get("/api/v1/practice/deeds").await.status, StatusCode::FORBIDDEN);

    let deeds = owner.get("/api/v1/practice/deeds").await.body;
    let mut told: Vec<(&str, &str, &Value)> = deeds
        .as_array()
        .unwrap()
        .iter()
        .rev()
        .map(|deed| (deed["name"].as_str().unwrap(), deed["act"].as_str().unwrap(), &deed["client_name"]))
        .collect();
    // A new hour may begin between the two saves.
    told.dedup();
    let client = &example()["client"]["name"];
    let none = &Value::Null;
    let expected = [
        ("Mara", "people", none),
        ("Mara", "brief", none),
        ("Mara", "measure", client),
        ("Jo", "sign-in", none),
        ("Jo", "measure", client),
    ];
    assert_eq!(told, expected);
}

#[actix_web::test]
async fn people_are_told_apart_by_name() {
    let practice = practice();
    browser!(practice, app);
    let mut owner = of(&practice, &app);
    owner.become_owner().await;
    let new = |name: &str| json!({"name": name, "login": "jo", "password": PASSWORD, "role": "coach"});
    let taken = owner.post("/api/v1/practice/people", new("mara")).await;
    assert_eq!(taken.status, StatusCode::CONFLICT, "{}", taken.body);
    assert!(taken.body["detail"].as_str().unwrap().contains("choose another name"), "{}", taken.body);
    let jo = owner.post("/api/v1/practice/people", new("Jo")).await;
    let jo = format!("/api/v1/practice/people/{}", jo.body["id"].as_str().unwrap());
    assert_eq!(owner.put(&jo, json!({"name": "MARA"})).await.status, StatusCode::CONFLICT);
    assert_eq!(owner.put(&jo, json!({"name": "Jo"})).await.status, StatusCode::OK);
}

/// The code that a phone makes of a secret now.
fn code(secret: &str) -> String {
    let secret = Secret::try_from_base32(secret).unwrap();
    let totp = Builder::new().with_secret(secret).with_account_name("jo").build().unwrap();
    totp.generate(jiff::Timestamp::now().as_second().try_into().unwrap()).to_string()
}

#[actix_web::test]
async fn a_second_factor_is_asked_for_once_it_was_shown_and_opens_once() {
    let practice = practice();
    browser!(practice, app);
    let mut mara = of(&practice, &app);
    mara.become_owner().await;
    let own = "/api/v1/account/second-factor";
    let offer = mara.post(own, json!({})).await.body;
    let secret = offer["secret"].as_str().unwrap();
    let confirm = |code: &str, password: &str| json!({"secret": secret, "code": code, "password": password});
    for (code, password, pointer) in [("000000", PASSWORD, "/code"), (code(secret).as_str(), "not this", "/password")] {
        let refused = mara.put(own, confirm(code, password)).await;
        assert_eq!(
            (refused.status, &refused.body["errors"][0]["pointer"]),
            (StatusCode::UNPROCESSABLE_ENTITY, &json!(pointer))
        );
    }
    let codes = mara.put(own, confirm(&code(secret), PASSWORD)).await.body["codes"].clone();
    assert_eq!(codes.as_array().unwrap().len(), 10);

    let mut browser = of(&practice, &app);
    let sign_in = |code: &Value| json!({"login": "mara", "password": PASSWORD, "code": code});
    let asked = browser.post("/api/v1/session", sign_in(&json!(""))).await;
    assert_eq!((asked.status, &asked.body["errors"][0]["pointer"]), (StatusCode::UNAUTHORIZED, &json!("/code")));
    // The code that was shown when it was set up is used.
    let used = browser.post("/api/v1/session", sign_in(&json!(code(secret)))).await;
    assert_eq!(used.status, StatusCode::UNAUTHORIZED, "{}", used.body);
    let recovered = browser.post("/api/v1/session", sign_in(&codes[0])).await;
    assert_eq!(recovered.status, StatusCode::OK, "{}", recovered.body);
    assert_eq!(browser.post("/api/v1/session", sign_in(&codes[0])).await.status, StatusCode::UNAUTHORIZED);
    let wrong = browser.post("/api/v1/session", json!({"login": "mara", "password": "no", "code": codes[1]})).await;
    assert_eq!(wrong.body["detail"], "Login and password do not match.");

    let people = mara.get("/api/v1/practice/people").await.body;
    assert_eq!(people[0]["second_factor"], true);
    let path = format!("/api/v1/practice/people/{}/second-factor", people[0]["id"].as_str().unwrap());
    let left_open = mara.send(Method::DELETE, &path, Some(json!({"password": "a guess"}))).await;
    assert_eq!(left_open.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(
        mara.send(Method::DELETE, &path, Some(json!({"password": PASSWORD}))).await.status,
        StatusCode::NO_CONTENT
    );
    assert_eq!(browser.post("/api/v1/session", sign_in(&json!(""))).await.status, StatusCode::OK);
}
