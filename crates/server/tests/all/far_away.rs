//! A client far away: what their page asks for, what is said of a picture on the spot, and what the coach asks for once more.

use crate::support::{Browser, browser, example, of, practice};
use actix_web::body::MessageBody;
use actix_web::dev::{Service, ServiceResponse};
use actix_web::http::{Method, StatusCode};
use actix_web::test::{TestRequest, call_service, init_service, read_body};
use booth::{Camera, Figure, Pose, Sex, Spec};
use jiff::ToSpan;
use rstest::rstest;
use serde_json::{Value, json};
use server::application;
use std::net::SocketAddr;
use std::sync::LazyLock;

static FIGURE: LazyLock<Figure> = LazyLock::new(|| Figure::load().unwrap());

/// A made-up man of the example's stature, as a phone that stands upright sees him.
fn picture(pose: Pose, camera: Camera) -> Vec<u8> {
    let mut spec = Spec::standing(178.0, Sex::Male, pose);
    (spec.camera, spec.image.width, spec.image.height) = (camera, 600, 1066);
    booth::shoot(&FIGURE, &spec).unwrap().jpeg(90).unwrap()
}

static FRONT: LazyLock<Vec<u8>> = LazyLock::new(|| picture(Pose::F, Camera::default()));
static TURNED: LazyLock<Vec<u8>> = LazyLock::new(|| picture(Pose::F, Camera { yaw_deg: 16.0, ..Camera::default() }));

/// The phone of a client, with the private link it was sent.
struct Phone<'a, S> {
    app: &'a S,
    peer: SocketAddr,
    token: String,
}

impl<S, B> Phone<'_, S>
where
    S: Service<actix_http::Request, Response = ServiceResponse<B>, Error = actix_web::Error>,
    B: MessageBody,
{
    async fn send(&self, request: TestRequest, path: &str) -> (StatusCode, Value) {
        let bearer = ("Authorization", format!("Bearer {}", self.token));
        let request = request.uri(&format!("/api/v1/my{path}")).peer_addr(self.peer).insert_header(bearer);
        let response = call_service(self.app, request.to_request()).await;
        let status = response.status();
        (status, serde_json::from_slice(&read_body(response).await).unwrap_or(Value::Null))
    }

    async fn get(&self, path: &str) -> Value {
        let (status, body) = self.send(TestRequest::get(), path).await;
        assert_eq!(status, StatusCode::OK, "{body}");
        body
    }

    async fn post(&self, path: &str, bytes: &[u8]) -> (StatusCode, Value) {
        let request = TestRequest::post().insert_header(("Content-Type", "application/octet-stream"));
        self.send(request.set_payload(bytes.to_vec()), path).await
    }

    async fn put(&self, path: &str, body: Value) -> (StatusCode, Value) {
        self.send(TestRequest::put().set_json(body), path).await
    }

    async fn asked(&self, pose: &str) -> Value {
        let asked = self.get("/photos").await;
        let poses = asked["poses"].as_array().unwrap().clone();
        poses.into_iter().find(|one| one["pose"] == pose).unwrap()
    }
}

/// A client's two rounds, four weeks ago and today, and the token of their page.
struct Far {
    earlier: String,
    round: String,
    token: String,
}

async fn far<S, B>(browser: &mut Browser<'_, S>, brief: Value) -> Far
where
    S: Service<actix_http::Request, Response = ServiceResponse<B>, Error = actix_web::Error>,
    B: MessageBody,
{
    browser.become_owner().await;
    let client = browser.post("/api/v1/clients", brief).await.body["id"].as_str().unwrap().to_owned();
    let today = jiff::ZonedDateTime::now().date();
    let mut rounds = Vec::new();
    for date in [today.checked_sub(28.days()).unwrap(), today] {
        let new = json!({"date": date.to_string(), "measured_by": "A"});
        let made = browser.post(&format!("/api/v1/clients/{client}/rounds"), new).await.body;
        rounds.push(made["id"].as_str().unwrap().to_owned());
    }
    let made = browser.post(&format!("/api/v1/clients/{client}/links"), json!({"days": 5})).await.body;
    let token = made["token"].as_str().unwrap().to_owned();
    Far { round: rounds.remove(1), earlier: rounds.remove(0), token }
}

/// A practice, its coach's browser, a client's two rounds and their phone.
macro_rules! far_away {
    ($practice:ident, $app:ident, $browser:ident, $phone:ident, $far:ident) => {
        let $practice = practice();
        browser!($practice, $app);
        let mut $browser = of(&$practice, &$app);
        let $far = far(&mut $browser, example()["client"].clone()).await;
        let $phone = Phone { app: &$app, peer: $practice.peer, token: $far.token.clone() };
    };
}

#[actix_web::test]
async fn the_page_shows_how_the_client_stood_last_time() {
    far_away!(practice, app, browser, phone, far);
    let asked = phone.get("/photos").await;
    let poses: Vec<&str> = asked["poses"].as_array().unwrap().iter().map(|one| one["pose"].as_str().unwrap()).collect();
    assert_eq!(poses, ["F", "B", "SL", "SLA", "SR", "SRA"]);
    assert!(asked["poses"][0]["ghost"].is_null() && asked["set_up"].is_null(), "{asked}");

    let upload = format!("/api/v1/rounds/{}/photos?pose=F&mirrored=false", far.earlier);
    let added = browser.raw(Method::POST, &upload, FRONT.clone()).await.0;
    assert_eq!(added.status, StatusCode::CREATED, "{}", added.body);
    let ghost = until(async || Some(phone.asked("F").await["ghost"].clone()).filter(|ghost| !ghost.is_null())).await;
    assert_eq!((ghost["width_px"].as_u64(), ghost["height_px"].as_u64()), (Some(600), Some(1066)));
    let ys = ghost["lines"][0].as_array().unwrap().iter().map(|point| point[1].as_f64().unwrap());
    let (top, bottom) = ys.fold((f64::MAX, f64::MIN), |(top, bottom), y| (top.min(y), bottom.max(y)));
    let share = (bottom - top) / 1066.0;
    assert!(
        (share - Camera::default().fill).abs() < 0.045,
        "the outline, toes included, is {share} of the picture's height"
    );
}

/// Asks until something is there: pictures are looked at in turn.
async fn until<T>(mut ask: impl AsyncFnMut() -> Option<T>) -> T {
    for _ in 0..1200 {
        if let Some(found) = ask().await {
            return found;
        }
        actix_web::rt::time::sleep(std::time::Duration::from_millis(50)).await;
    }
    panic!("nothing came within a minute");
}

#[rstest]
#[case::as_it_should_be(&FRONT, "F", None, "Good")]
#[case::turned(&TURNED, "F", Some("turned"), "face the camera squarely")]
#[case::the_front_for_the_back(&FRONT, "B", Some("pose"), "This is your front")]
#[actix_web::test]
async fn a_picture_is_judged_on_the_spot_and_not_kept(
    #[case] bytes: &LazyLock<Vec<u8>>,
    #[case] pose: &str,
    #[case] fault: Option<&str>,
    #[case] says: &str,
) {
    far_away!(practice, app, browser, phone, far);
    let (status, said) = phone.post(&format!("/photos/look?pose={pose}"), bytes).await;
    assert_eq!(status, StatusCode::OK, "{said}");
    assert_eq!(said["fault"].as_str(), fault, "{said}");
    assert!(said["says"].as_str().unwrap().contains(says), "{said}");
    let table = browser.get(&format!("/api/v1/rounds/{}/photos", far.round)).await.body;
    assert_eq!(table["rounds"][1]["photos"], json!([]), "nothing of it is kept");
}

#[rstest]
#[case::no_picture(b"not a picture".as_slice(), StatusCode::UNPROCESSABLE_ENTITY)]
#[case::nothing(b"".as_slice(), StatusCode::UNPROCESSABLE_ENTITY)]
#[actix_web::test]
async fn what_is_no_picture_is_refused_in_a_sentence(#[case] bytes: &[u8], #[case] expected: StatusCode) {
    far_away!(practice, app, _browser, phone, _far);
    let (status, refused) = phone.post("/photos/look?pose=F", bytes).await;
    assert_eq!(status, expected);
    assert!(refused["detail"].as_str().is_some_and(|says| !says.is_empty()), "{refused}");
}

#[actix_web::test]
async fn a_picture_that_is_sent_twice_is_there_once() {
    far_away!(practice, app, browser, phone, far);
    for _ in 0..2 {
        let (status, body) = phone.post("/photos?pose=F&mirrored=false&distance_m=3", &FRONT).await;
        assert_eq!(status, StatusCode::NO_CONTENT, "{body}");
    }
    assert_eq!(phone.asked("F").await["sent"], json!(1));
    let table = browser.get(&format!("/api/v1/rounds/{}/photos", far.round)).await.body;
    assert_eq!(table["rounds"][1]["photos"][0]["distance_m"], json!(3.0));
    let (status, refused) = phone.post("/photos?pose=F&distance_m=40", &FRONT).await;
    assert_eq!((status, &refused["errors"][0]["pointer"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("/distance_m")));
}

#[actix_web::test]
async fn in_the_studio_the_same_is_asked_and_said_of_a_round() {
    far_away!(practice, app, browser, phone, far);
    let photos = format!("/api/v1/rounds/{}/photos", far.round);
    let set_up = json!({"place": "on the shelf", "height_cm": 104.0, "distance_m": 3.2, "lens": "main"});
    let kept = browser.put(&format!("{photos}/set-up"), set_up).await;
    assert_eq!(kept.status, StatusCode::NO_CONTENT, "{}", kept.body);
    assert_eq!(browser.get(&format!("{photos}/asked")).await.body, phone.get("/photos").await);
    let look = format!("{photos}/look?pose=F&mirrored=false");
    let said = browser.raw(Method::POST, &look, TURNED.clone()).await.0;
    assert_eq!((said.status, said.body["fault"].as_str()), (StatusCode::OK, Some("turned")), "{}", said.body);
    assert_eq!(browser.get(&photos).await.body["rounds"][1]["photos"], json!([]), "nothing of it is kept");
}

/// Of the round before a month ago nothing is asked of the client any more; the studio may still take it.
#[actix_web::test]
async fn an_older_round_is_open_in_the_studio_alone() {
    far_away!(practice, app, browser, phone, far);
    let asked = browser.get(&format!("/api/v1/rounds/{}/photos/asked", far.earlier)).await.body;
    assert!(asked["refusal"].is_null() && asked["round_on"] != phone.get("/photos").await["round_on"], "{asked}");
}

#[actix_web::test]
async fn where_the_camera_stands_is_asked_once_and_shown_to_both() {
    far_away!(practice, app, browser, phone, far);
    let set_up = json!({"place": " on the shelf ", "height_cm": 104.0, "distance_m": 3.2, "lens": "main"});
    assert_eq!(phone.put("/photos/set-up", set_up.clone()).await.0, StatusCode::NO_CONTENT);
    let mut kept = set_up.clone();
    kept["place"] = json!("on the shelf");
    assert_eq!(phone.get("/photos").await["set_up"], kept);
    assert_eq!(browser.get(&format!("/api/v1/rounds/{}/photos", far.round)).await.body["set_up"], kept);

    let mut floor = set_up;
    floor["height_cm"] = json!(2.0);
    let (status, refused) = phone.put("/photos/set-up", floor).await;
    assert_eq!((status, &refused["errors"][0]["pointer"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("/height_cm")));
    assert_eq!(phone.get("/photos").await["set_up"], kept, "what was there stays");
}

#[actix_web::test]
async fn a_pose_asked_for_once_more_stands_on_the_page_until_a_picture_answers_it() {
    far_away!(practice, app, browser, phone, far);
    phone.post("/photos?pose=F", &TURNED).await;
    let path = format!("/api/v1/rounds/{}/photos", far.round);
    let spoilt =
        until(async || Some(browser.get(&path).await.body["spoilt"].clone()).filter(|all| *all != json!([]))).await;
    assert_eq!(spoilt[0]["pose"], "F");
    assert!(spoilt[0]["says"].as_str().unwrap().contains("stand square"), "{spoilt}");
    assert_eq!(phone.asked("F").await["doubt"], spoilt[0]["says"]);

    let asks = format!("/api/v1/rounds/{}/asks", far.round);
    let empty = browser.post(&asks, json!({"pose": "F", "reason": "  "})).await;
    assert_eq!(empty.body["errors"][0]["pointer"], "/reason", "{}", empty.body);
    for pose in ["F", "FDB"] {
        let asked = browser.post(&asks, json!({"pose": pose, "reason": "Feet on the mark."})).await;
        assert_eq!(asked.status, StatusCode::NO_CONTENT, "{}", asked.body);
    }
    let older =
        browser.post(&format!("/api/v1/rounds/{}/asks", far.earlier), json!({"pose": "F", "reason": "Again."})).await;
    assert!(older.body["detail"].as_str().unwrap().contains("go to the newest round"), "{}", older.body);
    assert_eq!(phone.asked("F").await["again"], "Feet on the mark.");
    assert_eq!(phone.asked("FDB").await["again"], "Feet on the mark.", "a pose that is not asked of everybody");
    let words = phone.get("/messages").await["messages"][0]["words"].clone();
    assert_eq!(words, "Once more, please: Front relaxed. Feet on the mark.");

    phone.post("/photos?pose=F", &FRONT).await;
    assert!(phone.asked("F").await["again"].is_null());
    let asked = browser.get(&path).await.body["asked"].clone();
    assert_eq!((asked[0]["pose"].as_str(), asked[1].is_null()), (Some("FDB"), true), "{asked}");
    let unknown = browser.delete(&format!("{asks}/Q")).await;
    assert_eq!(unknown.status, StatusCode::NOT_FOUND);
    assert!(unknown.body["detail"].as_str().unwrap().contains("unknown variant `Q`"), "{}", unknown.body);
    assert_eq!(browser.delete(&format!("{asks}/FDB")).await.status, StatusCode::NO_CONTENT);
    assert_eq!(browser.get(&path).await.body["asked"], json!([]));
}

#[actix_web::test]
async fn nothing_is_asked_of_a_client_who_did_not_agree() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    let mut brief = example()["client"].clone();
    brief.as_object_mut().unwrap().remove("photo_consent");
    let far = far(&mut browser, brief).await;
    let phone = Phone { app: &app, peer: practice.peer, token: far.token.clone() };
    let asked = phone.get("/photos").await;
    assert!(asked["refusal"].as_str().unwrap().contains("no consent to photos"), "{asked}");
    assert_eq!(phone.post("/photos/look?pose=F", &FRONT).await.0, StatusCode::FORBIDDEN);
    let asks = format!("/api/v1/rounds/{}/asks", far.round);
    let refused = browser.post(&asks, json!({"pose": "F", "reason": "once more"})).await;
    assert_eq!(refused.status, StatusCode::FORBIDDEN, "{}", refused.body);
    assert_eq!(phone.get("/messages").await["messages"], json!([]), "and nothing is written to them");
}
