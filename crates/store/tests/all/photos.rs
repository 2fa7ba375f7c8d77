//! Pictures on a real SQLite file and a real directory.

use assess::{GirthFrom, PictureGirth, PracticeConstant};
use atlas::Atlas;
use casefile::CaseFile;
use jiff::civil::date;
use rstest::{fixture, rstest};
use serde_json::json;
use std::collections::BTreeMap;
use store::{Kind, Moved, NewPhoto, NewRound, PhotoFile, PhotoRecord, PhotoState, PictureAsk, SavedPhoto, Store};
use tempfile::TempDir;
use units::{ClientId, RoundId, Side};
use vision::{Photo, PhotoPose};

struct Practice {
    store: Store,
    atlas: Atlas,
    directory: TempDir,
    client: ClientId,
    round: RoundId,
}

/// One client who agreed, with one round.
#[fixture]
fn practice() -> Practice {
    let directory = tempfile::tempdir().unwrap();
    let (store, atlas) = (Store::open(directory.path()).unwrap(), Atlas::load().unwrap());
    let file = CaseFile::parse(include_str!("../../../../docs/examples/case.json")).unwrap();
    let client = store.add_client(&atlas, &file.resolve(&atlas).unwrap().client).unwrap().id;
    let new = NewRound { taken_on: date(2026, 3, 2), measured_by: "A".into(), weight: None };
    let round = store.add_round(&client, &new).unwrap().id;
    Practice { store, atlas, directory, client, round }
}

impl Practice {
    fn add(&self, sha256: &str) -> Result<PhotoRecord, store::StoreError> {
        let new = NewPhoto {
            media_type: "image/jpeg",
            size_px: (3000, 4000),
            sha256,
            taken_at: None,
            pose: None,
            mirrored: None,
            distance_m: None,
            added_by: "Mara",
            original: b"original",
            view_jpeg: b"view",
            thumb_jpeg: b"thumb",
        };
        self.store.add_photo(&self.atlas, &self.round, &new)
    }

    fn files(&self) -> usize {
        std::fs::read_dir(self.directory.path().join("photos")).unwrap().count()
    }
}

/// A front picture with calves of 10 and 11 cm.
fn found() -> Photo {
    serde_json::from_value(json!({
        "format": "orthomer-photo", "version": 1, "pose": "F", "pose_guessed": true, "width_px": 1200, "height_px": 1600,
        "person": true, "scale_cm_per_px": 0.13, "mask_confidence": 0.95, "landmarks": {}, "widths": [],
        "limbs": [{"segment": "calf", "left_width_cm": 10.0, "right_width_cm": 11.0}], "quality": [],
        "sections": [{"site": "calf", "side": "left", "cm": 12.0, "at": 0.2}]
    }))
    .unwrap()
}

fn said(revision: i32, mirrored: bool, measured: Option<Photo>) -> SavedPhoto {
    SavedPhoto { revision, pose: None, mirrored: Some(mirrored), distance_m: None, moved: Moved::default(), measured }
}

#[rstest]
fn a_picture_waits_is_seen_and_what_it_shows_enters_the_case_once_its_sides_are_known(practice: Practice) {
    let photo = practice.add("a").unwrap();
    assert_eq!((practice.store.waiting_photos().unwrap(), photo.shows()), (vec![photo.id.clone()], None));
    practice.store.photo_seen(&photo.id, photo.revision, &found(), b"mask").unwrap();
    let seen = practice.store.photo(&photo.id).unwrap();
    assert_eq!((seen.state, practice.store.waiting_photos().unwrap().len()), (PhotoState::Seen, 0));
    let outlines = || practice.store.case_at(&practice.atlas, &practice.round).unwrap().rounds[0].outlines.clone();
    let girths = || practice.store.case_at(&practice.atlas, &practice.round).unwrap().rounds[0].picture_girths.clone();
    assert!(outlines().is_empty() && girths().is_empty());
    practice.store.save_photo(&photo.id, &said(1, false, Some(found()))).unwrap();
    let calf = outlines().remove(0).width.map(units::Length::cm);
    assert!((calf.left - 10.0).abs() < 1e-9 && (calf.right - 11.0).abs() < 1e-9);
    // A round calf of 12 cm is about 37 cm about; nobody has seen how deep it is.
    let [seen]: [PictureGirth; 1] = girths().try_into().unwrap();
    let PictureGirth { site, side, value, from } = seen;
    assert_eq!((site.as_str(), side, from), ("calf", Some(Side::Left), GirthFrom::Breadth));
    assert!((36.0..40.0).contains(&value.cm()), "{value:?}");
    practice.store.delete_photo(&photo.id).unwrap();
    assert!(outlines().is_empty() && girths().is_empty() && practice.files() == 0);
}

/// What the practice's pairs say moves the girths of everybody's pictures, is no part of what it is learned from, and makes what was worked
/// out of clients with pictures an old one; what moves nothing does not.
#[rstest]
fn a_constant_of_the_practice_lies_over_the_girths_of_pictures(practice: Practice) {
    let Practice { store, atlas, client, round, .. } = &practice;
    let photo = practice.add("a").unwrap();
    store.photo_seen(&photo.id, photo.revision, &found(), b"mask").unwrap();
    store.save_photo(&photo.id, &said(1, false, Some(found()))).unwrap();
    let calf = || store.case_at(atlas, round).unwrap().rounds[0].picture_girths[0].value.cm();
    let (shipped, before) = (calf(), store.stamp(client).unwrap().all);
    let of = |ln, pairs| {
        let constant = PracticeConstant { ln, pairs, clients: 4 };
        BTreeMap::from([(("calf".parse().unwrap(), GirthFrom::Breadth), constant)])
    };
    store.keep_girth_constants(&of(0.02, 6)).unwrap();
    assert!((calf() / shipped - 0.02_f64.exp()).abs() < 1e-9);
    assert_eq!(store.girth_constants().unwrap(), of(0.02, 6));
    let raw = store.rounds_as_shipped(atlas).unwrap()[0][0].picture_girths[0].value.cm();
    assert!((raw - shipped).abs() < 1e-9 && store.stamp(client).unwrap().all > before);
    let now = store.stamp(client).unwrap();
    store.keep_girth_constants(&of(0.020_1, 7)).unwrap();
    assert_eq!((store.stamp(client).unwrap(), store.girth_constants().unwrap()), (now, of(0.02, 7)));
    store.keep_girth_constants(&BTreeMap::new()).unwrap();
    assert!((calf() - shipped).abs() < 1e-9 && store.stamp(client).unwrap().all > now.all);
}

/// A picture in which something bends one side against the other.
fn turned() -> Photo {
    let mut photo = serde_json::to_value(found()).unwrap();
    photo["quality"] = json!([{"check": "turn", "value": 9.0, "unit": "deg", "ok": false, "says": "turned"}]);
    serde_json::from_value(photo).unwrap()
}

/// The same with calves of 12 and 13 cm.
fn wider() -> Photo {
    let mut photo = serde_json::to_value(found()).unwrap();
    photo["limbs"] = json!([{"segment": "calf", "left_width_cm": 12.0, "right_width_cm": 13.0}]);
    serde_json::from_value(photo).unwrap()
}

#[rstest]
#[case::the_newest_of_two_good_ones(found(), wider(), None, Some(12.0))]
#[case::the_good_one_before_a_turned_one(found(), turned(), None, Some(10.0))]
#[case::the_older_one_when_the_coach_says_so(found(), wider(), Some(0), Some(10.0))]
#[case::a_turned_one_when_the_coach_says_so_gives_no_outline(found(), turned(), Some(1), None)]
fn of_two_pictures_of_a_pose_one_counts(
    practice: Practice,
    #[case] first: Photo,
    #[case] second: Photo,
    #[case] chosen: Option<usize>,
    #[case] left_calf_cm: Option<f64>,
) {
    let ids = [("a", first), ("b", second)].map(|(sha256, measured)| {
        let photo = practice.add(sha256).unwrap();
        practice.store.save_photo(&photo.id, &said(1, false, Some(measured))).unwrap().id
    });
    if let Some(chosen) = chosen {
        // A word before is taken back by the one after it.
        practice.store.let_photo_count(&ids[1 - chosen]).unwrap();
        practice.store.let_photo_count(&ids[chosen]).unwrap();
    }
    let photos = practice.store.client_photos(&practice.client).unwrap();
    assert_eq!(store::counting(&photos).len(), 1);
    let outlines = practice.store.case_at(&practice.atlas, &practice.round).unwrap().rounds[0].outlines.clone();
    assert_eq!(outlines.first().map(|calf| calf.width.left.cm().round()), left_calf_cm);
}

#[rstest]
fn what_was_found_for_a_picture_that_was_changed_meanwhile_is_thrown_away(practice: Practice) {
    let photo = practice.add("a").unwrap();
    practice.store.save_photo(&photo.id, &said(1, true, None)).unwrap();
    practice.store.photo_seen(&photo.id, 1, &found(), b"mask").unwrap();
    let stored = practice.store.photo(&photo.id).unwrap();
    assert_eq!((stored.state, stored.found, stored.mirrored), (PhotoState::Waiting, None, Some(true)));
}

#[rstest]
fn a_picture_removed_while_it_is_looked_at_leaves_no_outline(practice: Practice) {
    let photo = practice.add("a").unwrap();
    practice.store.withdraw_photo_consent(&practice.atlas, &practice.client, 1).unwrap();
    practice.store.photo_seen(&photo.id, photo.revision, &found(), b"mask").unwrap();
    assert_eq!(practice.files(), 0);
}

#[rstest]
fn the_second_of_two_savers_is_told(practice: Practice) {
    let photo = practice.add("a").unwrap();
    practice.store.save_photo(&photo.id, &said(1, true, None)).unwrap();
    let late = practice.store.save_photo(&photo.id, &said(1, false, None)).unwrap_err();
    assert_eq!(late.kind(), Kind::Conflict);
    assert_eq!(practice.store.photo(&photo.id).unwrap().mirrored, Some(true));
}

#[rstest]
fn a_refused_picture_leaves_no_bytes(practice: Practice) {
    practice.add("a").unwrap();
    assert_eq!(practice.files(), 3);
    assert_eq!(practice.add("a").unwrap_err().kind(), Kind::Conflict);
    assert_eq!(practice.files(), 3);
    assert_eq!(practice.store.withdraw_photo_consent(&practice.atlas, &practice.client, 1).unwrap(), 1);
    assert_eq!(practice.files(), 0);
    assert_eq!(practice.add("b").unwrap_err().kind(), Kind::Refused);
    assert_eq!(practice.files(), 0);
}

#[rstest]
fn asking_for_a_pose_again_is_written_to_the_client_or_not_asked_at_all(practice: Practice) {
    let Practice { store, client, round, .. } = &practice;
    let ask = PictureAsk {
        pose: PhotoPose::F,
        reason: "Hands off the hips.".into(),
        asked_by: "Mara".into(),
        asked_at: "2026-03-02T10:00:00Z".parse().unwrap(),
    };
    let unknown = store.ask_again(&"no-such-round".into(), &ask, "Once more, please.").unwrap_err();
    assert_eq!((unknown.kind(), store.messages(client).unwrap().len()), (Kind::NotFound, 0));
    store.ask_again(round, &ask, "Once more, please.").unwrap();
    let words: Vec<String> = store.messages(client).unwrap().into_iter().map(|message| message.words).collect();
    assert_eq!((words, store.asked_again(round).unwrap()), (vec!["Once more, please.".to_owned()], vec![ask]));
}

#[rstest]
fn consent_read_before_someone_elses_save_is_not_withdrawn(practice: Practice) {
    practice.add("a").unwrap();
    let record = practice.store.client(&practice.atlas, &practice.client).unwrap();
    practice.store.save_client(&practice.atlas, &practice.client, 1, &record.client).unwrap();
    let late = practice.store.withdraw_photo_consent(&practice.atlas, &practice.client, 1).unwrap_err();
    assert_eq!((late.kind(), practice.files()), (Kind::Conflict, 3));
}

#[rstest]
fn what_a_crash_left_is_tidied_at_the_next_start_and_pictures_stay(practice: Practice) {
    let photo = practice.add("a").unwrap();
    let Practice { store, directory, .. } = practice;
    drop(store);
    let photos = directory.path().join("photos");
    std::fs::write(photos.join("0000.original"), b"its row was never written").unwrap();
    std::fs::write(photos.join(".part-0000.view.jpg"), b"half").unwrap();
    let again = Store::open(directory.path()).unwrap();
    again.tidy().unwrap();
    assert_eq!(std::fs::read_dir(&photos).unwrap().count(), 3);
    assert_eq!(again.photo_bytes(&photo.id, PhotoFile::View).unwrap(), b"view");
}

#[cfg(unix)]
#[rstest]
fn only_the_server_looks_into_the_directory_of_pictures(practice: Practice) {
    use std::os::unix::fs::PermissionsExt;
    let mode = std::fs::metadata(practice.directory.path().join("photos")).unwrap().permissions().mode();
    assert_eq!(mode & 0o077, 0);
}
