//! Pictures over HTTP: what comes in, what is refused, what is found, what the coach makes of it, and that it goes for good.

use crate::support::{Browser, Practice, browser, example, of, practice};
use actix_web::body::MessageBody;
use actix_web::dev::{Service, ServiceResponse};
use actix_web::http::{Method, StatusCode};
use actix_web::test::init_service;
use booth::{Figure, Pose, Sex, Shot, Spec};
use jiff::{Timestamp, ToSpan};
use serde_json::{Value, json};
use server::application;
use std::sync::LazyLock;
use store::{RatingKind, RatingPlace};

static FIGURE: LazyLock<Figure> = LazyLock::new(|| Figure::load().unwrap());

/// A made-up man of the example's stature, small enough to be drawn quickly.
fn shot(pose: Pose, seed: u64) -> Shot {
    let mut spec = Spec::standing(178.0, Sex::Male, pose);
    (spec.image.width, spec.image.height, spec.image.seed) = (600, 800, seed);
    booth::shoot(&FIGURE, &spec).unwrap()
}

static FRONT: LazyLock<Vec<u8>> = LazyLock::new(|| shot(Pose::F, 1).jpeg(90).unwrap());
static BACK: LazyLock<Vec<u8>> = LazyLock::new(|| shot(Pose::B, 2).jpeg(90).unwrap());

/// What is on the disk for pictures.
fn files(practice: &Practice) -> usize {
    std::fs::read_dir(practice.directory.path().join("photos")).unwrap().count()
}

impl<S, B> Browser<'_, S>
where
    S: Service<actix_http::Request, Response = ServiceResponse<B>, Error = actix_web::Error>,
    B: MessageBody,
{
    async fn upload(&mut self, round: &str, query: &str, bytes: &[u8]) -> crate::support::Answer {
        self.raw(Method::POST, &format!("/api/v1/rounds/{round}/photos{query}"), bytes.to_vec()).await.0
    }

    async fn photos(&mut self, round: &str) -> Vec<Value> {
        let table = self.get(&format!("/api/v1/rounds/{round}/photos")).await.body;
        let rounds = table["rounds"].as_array().unwrap().clone();
        let own = rounds.into_iter().find(|one| one["round_id"] == round).unwrap();
        own["photos"].as_array().unwrap().clone()
    }

    /// Waits until every picture of a round was looked at.
    async fn seen(&mut self, round: &str) -> Vec<Value> {
        for _ in 0..1200 {
            let photos = self.photos(round).await;
            if photos.iter().all(|photo| photo["state"] != "waiting") {
                return photos;
            }
            actix_web::rt::time::sleep(std::time::Duration::from_millis(50)).await;
        }
        panic!("pictures were not looked at within a minute");
    }

    async fn client_of(&mut self, round: &str) -> Value {
        let id = self.get(&format!("/api/v1/rounds/{round}")).await.body["client_id"].as_str().unwrap().to_owned();
        self.get(&format!("/api/v1/clients/{id}")).await.body
    }
}

#[actix_web::test]
async fn a_picture_is_taken_in_looked_at_and_becomes_evidence() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let round = browser.round().await;
    let added = browser.upload(&round, "?mirrored=false&distance_m=3.5", &FRONT).await;
    assert_eq!(added.status, StatusCode::CREATED, "{}", added.body);
    assert_eq!((&added.body["state"], &added.body["added_by"]), (&json!("waiting"), &json!("Mara")));

    let photo = browser.seen(&round).await.remove(0);
    assert_eq!((photo["pose"].as_str(), photo["pose_guessed"].as_bool()), (Some("F"), Some(true)));
    let widths = photo["measured"]["widths"].as_array().unwrap();
    let waist = widths.iter().find(|width| width["level"] == "waist").unwrap()["cm"].as_f64().unwrap();
    let truth = shot(Pose::F, 1).truth.widths.into_iter().find(|width| width.level == "waist").unwrap().cm;
    assert!((waist / truth - 1.0).abs() < 0.02, "{waist} against {truth}");
    assert!((photo["perspective_pct"].as_f64().unwrap() - 100.0 * (3.5 / 3.4 - 1.0)).abs() < 1e-9);

    let case = browser.get(&format!("/api/v1/rounds/{round}/case")).await.body;
    let segments = case["rounds"][0]["outlines"].as_array().unwrap().len();
    assert!(segments >= 3, "{}", case["rounds"][0]["outlines"]);
    let verdict = browser.get(&format!("/api/v1/rounds/{round}/verdict")).await.body;
    let kinds: Vec<_> = verdict["assessment"]["observations"].as_array().unwrap().iter().map(|o| &o["kind"]).collect();
    assert!(kinds.contains(&&json!("outline")), "{kinds:?}");
    let steps = browser.get(&format!("/api/v1/rounds/{round}")).await.body["steps"][1].clone();
    assert_eq!((&steps["step"], &steps["state"]), (&json!("photos"), &json!("enough")), "{steps}");
}

#[actix_web::test]
async fn left_and_right_count_only_once_it_is_said_whether_it_is_a_mirror_picture() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let round = browser.round().await;
    browser.upload(&round, "", &FRONT).await;
    let photo = browser.seen(&round).await.remove(0);
    let outlines = |case: &Value| case["rounds"][0]["outlines"].as_array().unwrap().len();
    let case = format!("/api/v1/rounds/{round}/case");
    assert_eq!(outlines(&browser.get(&case).await.body), 0);
    assert_eq!(browser.get(&format!("/api/v1/rounds/{round}")).await.body["steps"][1]["says"], "1 of 1: mirror?");

    let path = format!("/api/v1/photos/{}", photo["id"].as_str().unwrap());
    let elbow =
        |photo: &Value, side: &str| photo["measured"]["landmarks"][format!("elbow-{side}")]["x"].as_f64().unwrap();
    let said = browser.put(&path, json!({"revision": 1, "mirrored": false})).await.body;
    assert_eq!(said["state"], "seen", "nothing reads differently");
    let counted = browser.get(&case).await.body;
    assert!(outlines(&counted) >= 3);
    // The same girths in the case and on the light table; how deep the body is nobody has seen.
    let table = browser.get(&format!("/api/v1/rounds/{round}/photos")).await.body;
    let (kept, shown) = (&counted["rounds"][0]["picture_girths"], table["girths"]["sites"].as_array().unwrap());
    assert!(shown.len() >= 10 && kept.as_array().unwrap().len() == shown.len(), "{table}");
    assert!(shown.iter().all(|girth| girth["from"] == "breadth" && girth["error_pct"].as_f64().unwrap() > 4.0));
    let missing = table["girths"]["missing"].as_array().unwrap();
    assert!(
        missing
            .iter()
            .any(|one| one["site"] == "waist" && one["why"].as_str().unwrap().contains("no picture from the side"))
    );
    assert!(elbow(&said, "left") > elbow(&said, "right"), "the client's left is on the right of a front picture");

    let mirror = browser.put(&path, json!({"revision": 2, "mirrored": true})).await.body;
    assert_eq!(mirror["state"], "waiting", "the sides change places");
    let mirror = browser.seen(&round).await.remove(0);
    assert!(elbow(&mirror, "left") < elbow(&mirror, "right"));
}

#[actix_web::test]
async fn what_is_moved_is_kept_apart_from_what_was_found_and_measured_again() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let round = browser.round().await;
    browser.upload(&round, "?mirrored=false", &FRONT).await;
    let photo = browser.seen(&round).await.remove(0);
    let id = photo["id"].as_str().unwrap();
    let path = format!("/api/v1/photos/{id}");
    let waist = |photo: &Value| {
        let widths = photo["measured"]["widths"].as_array().unwrap();
        widths.iter().find(|width| width["level"] == "waist").unwrap()["cm"].as_f64().unwrap()
    };
    let found = &photo["measured"]["landmarks"]["waist-left"];
    let (x, y) = (found["x"].as_f64().unwrap(), found["y"].as_f64().unwrap());
    let scale = photo["measured"]["scale_cm_per_px"].as_f64().unwrap();
    let body =
        json!({"revision": 1, "mirrored": false, "moved": {"landmarks": {"waist-left": {"x": x + 20.0, "y": y}}}});
    let moved = browser.put(&path, body.clone()).await;
    assert_eq!(moved.status, StatusCode::OK, "{}", moved.body);
    let wider = waist(&moved.body) - waist(&photo);
    assert!((wider - 20.0 * scale).abs() < 0.2, "20 px outwards are {} cm, not {wider}", 20.0 * scale);
    assert_eq!(moved.body["moved"]["landmarks"]["waist-left"]["x"], x + 20.0);
    let stored = practice.state.desk.store.photo(&id.into()).unwrap();
    assert!((stored.found.unwrap().landmarks["waist-left"].x - x).abs() < 1e-9);

    assert_eq!(browser.put(&path, body).await.status, StatusCode::CONFLICT, "read before it was saved");
    let back = browser.put(&path, json!({"revision": 2, "mirrored": false})).await.body;
    assert_eq!(back["measured"], photo["measured"], "undone, it is as it was found");

    let stroke = json!({"adds": true, "radius_px": 12.0, "points": [[x, y - 60.0], [x, y + 60.0]]});
    let painted =
        browser.put(&path, json!({"revision": 3, "mirrored": false, "moved": {"strokes": [stroke]}})).await.body;
    assert!(waist(&painted) > waist(&photo) + 6.0 * scale, "{} against {}", waist(&painted), waist(&photo));
    let outline = browser.get(&format!("{path}/outline")).await.body;
    assert!(!outline["lines"].as_array().unwrap().is_empty());

    for (moves, says) in [
        (json!({"landmarks": {"nose": {"x": 1.0, "y": 1.0}}}), "no landmark \"nose\""),
        (json!({"landmarks": {"waist-left": {"x": -5.0, "y": 1.0}}}), "outside the picture"),
        (json!({"strokes": [{"adds": true, "radius_px": 0.0, "points": [[1.0, 1.0]]}]}), "a stroke needs"),
    ] {
        let refused = browser.put(&path, json!({"revision": 4, "moved": moves})).await;
        assert_eq!(refused.status, StatusCode::UNPROCESSABLE_ENTITY);
        assert!(refused.body["detail"].as_str().unwrap().contains(says), "{}", refused.body);
    }
}

#[actix_web::test]
async fn what_is_no_picture_is_refused_in_a_sentence_and_nothing_of_it_stays() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let round = browser.round().await;
    let heic = b"\0\0\0\x18ftypheic\0\0\0\0".to_vec();
    for (bytes, status, says) in [
        (b"Dear coach, see attached.".to_vec(), 422, "it is a text file"),
        (Vec::new(), 422, "the file is empty"),
        (FRONT[..FRONT.len() / 2].to_vec(), 422, "damaged or was cut off"),
        (heic, 422, "HEIC"),
        (vec![0_u8; 41_000_000], 413, "more than 40 MB"),
    ] {
        let refused = browser.upload(&round, "", &bytes).await;
        assert_eq!(refused.status.as_u16(), status, "{}", refused.body);
        assert!(refused.body["detail"].as_str().unwrap().contains(says), "{}", refused.body);
    }
    let far = browser.upload(&round, "?distance_m=40", &FRONT).await;
    assert!(far.body["detail"].as_str().unwrap().contains("expected 0.5 to 15 m"), "{}", far.body);
    let unknown = browser.upload(&round, "?pose=handstand", &FRONT).await;
    assert_eq!(unknown.status, StatusCode::BAD_REQUEST);
    assert_eq!((browser.photos(&round).await.len(), files(&practice)), (0, 0));

    assert_eq!(browser.upload(&round, "", &FRONT).await.status, StatusCode::CREATED, "others go on");
    let again = browser.upload(&round, "", &FRONT).await;
    assert_eq!(
        (again.status, &again.body["detail"]),
        (StatusCode::CONFLICT, &json!("this round has this very picture already"))
    );
    assert_eq!(browser.photos(&round).await.len(), 1);
}

#[actix_web::test]
async fn a_picture_without_a_person_says_so_and_can_still_be_seen() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let round = browser.round().await;
    let mut wall = Vec::new();
    let plain = image::RgbImage::from_pixel(300, 400, image::Rgb([200, 198, 190]));
    plain.write_with_encoder(image::codecs::jpeg::JpegEncoder::new(&mut wall)).unwrap();
    browser.upload(&round, "", &wall).await;
    let photo = browser.seen(&round).await.remove(0);
    assert_eq!(photo["measured"]["person"], false);
    assert!(photo["measured"]["why_not"].as_str().unwrap().starts_with("nobody was found"), "{photo}");
    let (answer, bytes) =
        browser.raw(Method::GET, &format!("/api/v1/photos/{}/view", photo["id"].as_str().unwrap()), vec![]).await;
    assert_eq!((answer.status, &bytes[..2]), (StatusCode::OK, &[0xFF, 0xD8][..]));
    assert_eq!(browser.get(&format!("/api/v1/rounds/{round}")).await.body["steps"][1]["state"], "look");
}

#[actix_web::test]
async fn without_consent_or_under_18_no_picture_is_taken_in() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let mut no_consent = example()["client"].clone();
    no_consent.as_object_mut().unwrap().remove("photo_consent");
    let mut minor = example()["client"].clone();
    minor["birth_date"] = json!("2009-06-11");
    for (brief, says) in [(no_consent, "no consent to photos"), (minor, "under 18")] {
        let client = browser.post("/api/v1/clients", brief).await.body;
        let path = format!("/api/v1/clients/{}/rounds", client["id"].as_str().unwrap());
        let round = browser.post(&path, json!({"date": "2026-03-02", "measured_by": "A"})).await.body;
        let round = round["id"].as_str().unwrap();
        for sent in [
            browser.upload(round, "", &FRONT).await,
            browser.send(Method::POST, &format!("/api/v1/rounds/{round}/booth?pose=F"), None).await,
        ] {
            assert_eq!(sent.status, StatusCode::FORBIDDEN);
            assert!(sent.body["detail"].as_str().unwrap().contains(says), "{}", sent.body);
        }
        let table = browser.get(&format!("/api/v1/rounds/{round}/photos")).await.body;
        assert!(table["refusal"].as_str().unwrap().contains(says), "{table}");
    }
    assert_eq!(files(&practice), 0);
    let mut for_teaching = example()["client"].clone();
    for_teaching["photo_consent"]["purposes"] = json!(["teaching"]);
    let refused = browser.post("/api/v1/clients", for_teaching).await;
    assert_eq!(refused.body["errors"][0]["pointer"], "/photo_consent/purposes", "{}", refused.body);
    let mut tomorrow = example()["client"].clone();
    tomorrow["photo_consent"]["given_on"] = json!("2999-01-01");
    assert_eq!(browser.post("/api/v1/clients", tomorrow).await.body["errors"][0]["pointer"], "/photo_consent/given_on");
}

#[actix_web::test]
async fn pictures_are_shown_to_no_stranger_and_kept_by_no_cache() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let round = browser.round().await;
    let photo = browser.upload(&round, "", &FRONT).await.body;
    let path = format!("/api/v1/photos/{}", photo["id"].as_str().unwrap());
    for part in ["view", "thumb"] {
        let (answer, bytes) = browser.raw(Method::GET, &format!("{path}/{part}"), vec![]).await;
        assert_eq!(answer.status, StatusCode::OK);
        assert_eq!(answer.headers.get("Content-Type").unwrap(), "image/jpeg");
        assert_eq!(answer.headers.get("Cache-Control").unwrap(), "private, no-store");
        assert!(image::load_from_memory(&bytes).is_ok());
        let mut stranger = of(&practice, &app);
        assert_eq!(stranger.get(&format!("{path}/{part}")).await.status, StatusCode::UNAUTHORIZED);
    }
}

#[actix_web::test]
async fn a_removed_picture_and_a_withdrawn_consent_take_the_bytes_with_them() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let round = browser.round().await;
    let front = browser.upload(&round, "?mirrored=false", &FRONT).await.body;
    browser.upload(&round, "?mirrored=false", &BACK).await;
    browser.seen(&round).await;
    assert_eq!(files(&practice), 8, "original, view, thumbnail and mask of each");
    let path = format!("/api/v1/photos/{}", front["id"].as_str().unwrap());
    assert_eq!(browser.delete(&path).await.status, StatusCode::NO_CONTENT);
    assert_eq!((files(&practice), browser.get(&format!("{path}/view")).await.status), (4, StatusCode::NOT_FOUND));

    let client = browser.client_of(&round).await;
    let id = client["id"].as_str().unwrap();
    let mut brief = client["brief"].clone();
    brief.as_object_mut().unwrap().remove("photo_consent");
    let left_out = browser.put(&format!("/api/v1/clients/{id}"), json!({"revision": 1, "brief": brief})).await;
    assert_eq!(left_out.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(left_out.body["detail"].as_str().unwrap().contains("withdraw the consent"), "{}", left_out.body);

    let withdrawn = browser.post(&format!("/api/v1/clients/{id}/consent/withdraw"), json!({"revision": 1})).await;
    assert_eq!(withdrawn.body, json!({"pictures": 1}));
    assert_eq!((files(&practice), browser.photos(&round).await.len()), (0, 0));
    let case = browser.get(&format!("/api/v1/rounds/{round}/case")).await.body;
    assert_eq!(case["rounds"][0]["outlines"], json!([]));
    assert_eq!(browser.upload(&round, "", &FRONT).await.status, StatusCode::FORBIDDEN);
}

#[actix_web::test]
async fn a_rating_stands_in_the_case_and_none_is_taken_for_what_cannot_be_seen() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let round = browser.round().await;
    browser.upload(&round, "?pose=B&mirrored=false", &BACK).await;
    let table = browser.get(&format!("/api/v1/rounds/{round}/photos")).await.body;
    let asked: Vec<&str> =
        table["questions"].as_array().unwrap().iter().map(|q| q["region"].as_str().unwrap()).collect();
    assert!(asked.contains(&"delts.posterior") && !asked.contains(&"chest.sternal"), "{asked:?}");

    let path = format!("/api/v1/rounds/{round}/ratings");
    let rate = |pose: &str, kind: &str, value: Value| json!({"region": "delts.posterior", "pose": pose, "kind": kind, "value": value});
    for (body, status, says) in [
        (rate("F", "standing", json!(-1)), 422, "pose F does not show delts.posterior"),
        (rate("SL", "standing", json!(-1)), 404, "no picture in the pose SL"),
        (rate("B", "standing", json!(3)), 422, "out of range"),
    ] {
        let refused = browser.put(&path, body).await;
        assert_eq!(refused.status.as_u16(), status);
        assert!(refused.body["detail"].as_str().unwrap().contains(says), "{}", refused.body);
    }
    assert_eq!(browser.put(&path, rate("B", "standing", json!(-2))).await.status, StatusCode::OK);
    assert_eq!(browser.put(&path, rate("B", "standing", json!(-1))).await.status, StatusCode::OK, "minds change");
    assert_eq!(browser.put(&path, rate("B", "left-right", Value::Null)).await.status, StatusCode::OK);
    let case = format!("/api/v1/rounds/{round}/case");
    let expected = json!([{"region": "delts.posterior", "pose": "B", "score": -1}]);
    assert_eq!(
        browser.get(&case).await.body["rounds"][0]["ratings"],
        expected,
        "what could not be told is no evidence"
    );
    let gone = browser.delete(&format!("{path}?region=delts.posterior&pose=B&kind=standing")).await;
    assert_eq!(gone.status, StatusCode::NO_CONTENT);
    assert_eq!(browser.get(&case).await.body["rounds"][0]["ratings"], json!([]));
}

#[actix_web::test]
async fn a_rested_rating_is_asked_again_blind_and_teaches_what_the_eye_is_worth() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let round = browser.round().await;
    browser.upload(&round, "?pose=B&mirrored=false", &BACK).await;
    browser.seen(&round).await;
    let client = browser.client_of(&round).await["id"].as_str().unwrap().to_owned();
    let rater = practice.state.desk.store.account_by_login("mara").unwrap().unwrap().id;
    let rate = |region: &str, kind: RatingKind, value: i8, days: i64| {
        let place = RatingPlace {
            round_id: round.as_str().into(),
            region: region.parse().unwrap(),
            pose: "B".parse().unwrap(),
            kind,
        };
        let at = Timestamp::now() - (24 * days).hours();
        practice.state.desk.store.save_rating(&place, Some(value), &rater, at).unwrap();
    };
    rate("delts.posterior", RatingKind::Standing, -1, 10);
    rate("glutes.max", RatingKind::LeftRight, 1, 10);
    rate("lats.upper", RatingKind::Standing, 0, 2);
    let path = format!("/api/v1/clients/{client}/repeats");
    let before = browser.get(&path).await.body;
    let due = before["due"].as_array().unwrap().clone();
    let mut regions: Vec<&str> = due.iter().map(|one| one["region"].as_str().unwrap()).collect();
    regions.sort_unstable();
    assert_eq!(regions, ["delts.posterior", "glutes.max"], "the one of two days ago still rests");
    assert!(due.iter().all(|one| one.get("value").is_none()), "the first answer is not shown");

    for one in &due {
        let mut answer = json!({"mirrored": true, "value": -1});
        for field in ["round_id", "region", "pose", "kind"] {
            answer[field] = one[field].clone();
        }
        let kept = browser.post("/api/v1/repeats", answer).await;
        assert_eq!(kept.status, StatusCode::NO_CONTENT, "{}", kept.body);
    }
    let sides = practice.state.desk.store.repeat_pairs(&rater, RatingKind::LeftRight).unwrap();
    assert_eq!(sides, [[1, 1]], "right larger in a mirrored picture is left larger");
    let after = browser.get(&path).await.body;
    let agreement = &after["agreement"];
    assert_eq!((agreement["repeats"].as_i64(), agreement["within_sd_steps"].as_f64()), (Some(1), Some(0.0)));
    let worth = |view: &Value| view["agreement"]["pooled_sd_steps"].as_f64().unwrap();
    assert!(worth(&after) < worth(&before) && after["due"] == json!([]));
    let case = browser.get(&format!("/api/v1/rounds/{round}/case")).await.body;
    let rating = &case["rounds"][0]["ratings"][0];
    assert_eq!(rating["rater_sd_steps"], agreement["pooled_sd_steps"], "{rating}");
}

#[actix_web::test]
async fn of_two_pictures_of_a_pose_the_coach_says_which_counts() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let round = browser.round().await;
    for shot in [&*FRONT, &shot(Pose::F, 3).jpeg(90).unwrap()] {
        browser.upload(&round, "?mirrored=false", shot).await;
    }
    let counts = |photos: &[Value]| photos.iter().map(|photo| photo["counts"].clone()).collect::<Vec<_>>();
    let photos = browser.seen(&round).await;
    assert_eq!(counts(&photos), [false, true]);
    let first = photos[0]["id"].as_str().unwrap();
    let chosen = browser.send(Method::PUT, &format!("/api/v1/photos/{first}/counts"), None).await;
    assert_eq!(chosen.status, StatusCode::NO_CONTENT, "{}", chosen.body);
    assert_eq!(counts(&browser.photos(&round).await), [true, false]);
    let unknown = browser.send(Method::PUT, "/api/v1/photos/nobody/counts", None).await;
    assert_eq!(unknown.status, StatusCode::NOT_FOUND, "{}", unknown.body);
}

#[actix_web::test]
async fn the_stand_in_camera_takes_pictures_that_fit_the_tape() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let round = browser.round().await;
    let tape: Vec<Value> = example()["rounds"][0]["tape"].as_array().unwrap().clone();
    let sheet = json!({"revision": 0, "measured_by": "A", "folds": [], "levels_cm": {}, "entries": tape});
    browser.put(&format!("/api/v1/rounds/{round}/tape"), sheet).await;
    let taken = browser.send(Method::POST, &format!("/api/v1/rounds/{round}/booth?pose=F"), None).await;
    assert_eq!(taken.status, StatusCode::CREATED, "{}", taken.body);
    let photo = browser.seen(&round).await.remove(0);
    let thigh =
        photo["measured"]["limbs"].as_array().unwrap().iter().find(|limb| limb["segment"] == "thigh").unwrap().clone();
    let girth = |side: &str| {
        tape.iter().find(|e| e["site"] == "thigh" && e["side"] == side).unwrap()["readings_cm"][0].as_f64().unwrap()
    };
    // A round thigh of this girth is girth / pi wide; the segment lies lower, where thighs are narrower.
    let share = thigh["left_width_cm"].as_f64().unwrap() / (girth("left") / std::f64::consts::PI);
    assert!((0.75..1.0).contains(&share), "{share}");
    let side = browser.send(Method::POST, &format!("/api/v1/rounds/{round}/booth?pose=ST"), None).await;
    assert!(side.body["detail"].as_str().unwrap().contains("cannot hold the pose ST"), "{}", side.body);
}

#[actix_web::test]
async fn two_rounds_lie_over_each_other_and_a_change_is_set_against_its_error() {
    let practice = practice();
    browser!(practice, app);
    let mut browser = of(&practice, &app);
    browser.become_owner().await;
    let round = browser.round().await;
    let client = browser.client_of(&round).await["id"].as_str().unwrap().to_owned();
    let later = browser
        .post(&format!("/api/v1/clients/{client}/rounds"), json!({"date": "2026-03-30", "measured_by": "A"}))
        .await;
    let later = later.body["id"].as_str().unwrap().to_owned();
    browser.upload(&round, "?pose=F&distance_m=2.5", &FRONT).await;
    browser.upload(&later, "?pose=F&distance_m=3.5", &shot(Pose::F, 9).jpeg(90).unwrap()).await;
    let (then, now) = (browser.seen(&round).await.remove(0), browser.seen(&later).await.remove(0));
    let id = |photo: &Value| photo["id"].as_str().unwrap().to_owned();
    let over = browser.get(&format!("/api/v1/photos/{}/over/{}", id(&then), id(&now))).await.body;
    // The same camera: scale 1, no turn, no shift.
    let laid = &over["laid"];
    assert!((laid["a"].as_f64().unwrap() - 1.0).abs() < 0.01 && laid["b"].as_f64().unwrap().abs() < 0.01, "{laid}");
    assert!(laid["dx"].as_f64().unwrap().abs() < 4.0 && laid["residual_cm"].as_f64().unwrap() < 1.0, "{laid}");
    assert!(laid["warnings"][0].as_str().unwrap().starts_with("Taken from 2.5 m then and 3.5 m now"), "{laid}");
    for width in over["widths"].as_array().unwrap() {
        assert_eq!(width["real"], false, "{width}");
    }
}
