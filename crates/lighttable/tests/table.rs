//! What a round's pictures say together.

#![allow(clippy::unwrap_used, reason = "a test that cannot go on should stop here")]

use atlas::Atlas;
use lighttable::{
    Asked, Frames, MIN_REST_DAYS, Pictured, counts_sides, lay_over, outlines, questions, repeats, unmirrored,
    width_changes,
};
use rstest::{fixture, rstest};
use std::collections::{BTreeMap, BTreeSet};
use units::{PoseId, Segment, Side};
use vision::{Check, Landmark, Limb, Photo, PhotoPose, QualityCheck, Width};

/// A person drawn by hand: 1000 px tall at 0.178 cm to a pixel, the client's left on the right of the picture.
#[fixture]
fn front() -> Photo {
    let middle = [
        ("vertex", 100.0),
        ("chin", 228.0),
        ("sternal-notch", 290.0),
        ("navel", 500.0),
        ("crotch", 590.0),
        ("floor", 1100.0),
    ];
    let sides = [
        ("acromion", 100.0, 295.0),
        ("deltoid", 125.0, 320.0),
        ("armpit", 80.0, 360.0),
        ("elbow", 140.0, 480.0),
        ("wrist", 165.0, 620.0),
        ("waist", 70.0, 470.0),
        ("hip", 95.0, 580.0),
        ("hip-joint", 50.0, 570.0),
        ("knee", 60.0, 820.0),
        ("ankle", 55.0, 1050.0),
        ("mid-thigh-outer", 95.0, 690.0),
        ("mid-thigh-inner", 10.0, 690.0),
    ];
    let mut landmarks = BTreeMap::new();
    let mut put = |name: String, x: f64, y: f64| landmarks.insert(name, Landmark { x, y, confidence: 1.0 });
    for (name, y) in middle {
        put(name.to_owned(), 400.0, y);
    }
    for (name, out, y) in sides {
        put(format!("{name}-left"), 400.0 + out, y);
        put(format!("{name}-right"), 400.0 - out, y);
    }
    Photo {
        format: "orthomer-photo".to_owned(),
        version: 1,
        pose: PhotoPose::F,
        pose_guessed: false,
        width_px: 800,
        height_px: 1200,
        person: true,
        why_not: None,
        scale_cm_per_px: 0.178,
        mask_confidence: 0.95,
        landmarks,
        widths: vec![Width { level: "waist".to_owned(), cm: 30.0, left_cm: Some(15.0), right_cm: Some(15.0) }],
        limbs: vec![Limb { segment: Segment::Calf, left_width_cm: 10.0, right_width_cm: 11.0 }],
        sections: Vec::new(),
        profile: None,
        taper: None,
        tilt: None,
        quality: Vec::new(),
    }
}

#[fixture]
#[once]
fn known() -> Atlas {
    Atlas::load().unwrap()
}

fn moved(photo: &Photo, place: impl Fn((f64, f64)) -> (f64, f64)) -> Photo {
    let mut photo = photo.clone();
    for mark in photo.landmarks.values_mut() {
        (mark.x, mark.y) = place((mark.x, mark.y));
    }
    photo
}

fn failing(check: QualityCheck) -> Vec<Check> {
    vec![Check { check, value: 0.0, unit: String::new(), ok: false, says: String::new() }]
}

#[rstest]
fn every_region_that_a_pose_shows_has_a_place(known: &Atlas) {
    let frames = Frames::load().unwrap();
    let unplaced: Vec<_> =
        known.regions().iter().filter(|r| !r.poses.is_empty() && !frames.knows(&r.id)).map(|r| r.id.as_str()).collect();
    assert_eq!(unplaced, Vec::<&str>::new());
}

#[rstest]
fn both_sides_of_a_region_are_framed_where_they_lie_and_inside_the_picture(known: &Atlas, front: Photo) {
    let boxes = Frames::load().unwrap().in_photo(known, &front);
    let forearm: Vec<_> = boxes.iter().filter(|frame| frame.region.as_str() == "forearm.flexors").collect();
    assert_eq!(forearm.iter().map(|frame| frame.side).collect::<Vec<_>>(), [Some(Side::Left), Some(Side::Right)]);
    let elbow = |side: Side| &front.landmarks[&format!("elbow-{side}")];
    for frame in forearm {
        let elbow = elbow(frame.side.unwrap());
        assert!(
            (frame.x..frame.x + frame.width).contains(&elbow.x) && (frame.y..frame.y + frame.height).contains(&elbow.y)
        );
    }
    assert!(boxes.iter().all(|f| f.x >= 0.0 && f.y >= 0.0 && f.x + f.width <= 800.0 && f.y + f.height <= 1200.0));
    let neck: Vec<_> = boxes.iter().filter(|frame| frame.region.as_str() == "neck").collect();
    assert_eq!((neck.len(), neck[0].side), (1, None));
}

#[rstest]
#[case::from_the_left(PhotoPose::SL, Side::Left)]
#[case::from_the_right(PhotoPose::SR, Side::Right)]
fn from_the_side_only_the_near_side_is_framed(
    known: &Atlas,
    front: Photo,
    #[case] pose: PhotoPose,
    #[case] near: Side,
) {
    let boxes = Frames::load().unwrap().in_photo(known, &Photo { pose, ..front });
    let sides: BTreeSet<_> = boxes.iter().filter_map(|frame| frame.side).map(Side::as_str).collect();
    assert_eq!(sides, BTreeSet::from([near.as_str()]));
    assert!(boxes.iter().any(|frame| frame.region.as_str() == "delts.posterior"));
    assert!(boxes.iter().all(|frame| frame.region.as_str() != "chest.sternal"), "the side does not show the chest");
}

#[rstest]
fn a_pose_that_does_not_show_a_region_is_not_offered_for_it(known: &Atlas) {
    let poses: Vec<PoseId> = ["B", "SL"].iter().map(|pose| pose.parse().unwrap()).collect();
    let asked = questions(known, &poses);
    for question in &asked {
        let region = known.region(&question.region).unwrap();
        assert!(question.poses.iter().all(|pose| region.poses.contains(pose) && poses.contains(pose)), "{question:?}");
    }
    let of = |id: &str| asked.iter().find(|question| question.region.as_str() == id);
    assert!(of("chest.sternal").is_none());
    assert_eq!(of("delts.posterior").map(|q| q.sides), Some(true), "seen from behind, both sides show");
    assert_eq!(of("tibialis").map(|q| q.sides), Some(false), "a flank shows one side");
}

#[rstest]
#[case::shifted(|(x, y)| (x + 40.0, y - 25.0), 1.0, 0.0)]
#[case::farther(|(x, y)| (x * 0.8, y * 0.8), 1.25, 0.0)]
#[case::turned(|(x, y): (f64, f64)| { let (s, c) = 3.0_f64.to_radians().sin_cos(); (c * x - s * y, s * x + c * y) }, 1.0, -3.0)]
fn the_same_pose_taken_otherwise_lies_exactly_over_itself(
    front: Photo,
    #[case] taken: fn((f64, f64)) -> (f64, f64),
    #[case] scale: f64,
    #[case] turn_deg: f64,
) {
    let earlier = moved(&front, taken);
    let laid = lay_over((&earlier, None), (&front, None)).unwrap();
    assert!((laid.a.hypot(laid.b) - scale).abs() < 1e-9 && (laid.turn_deg - turn_deg).abs() < 1e-9, "{laid:?}");
    assert!(laid.residual_cm < 1e-9);
    assert_eq!(laid.warnings.len(), usize::from(turn_deg != 0.0), "{:?}", laid.warnings);
}

#[rstest]
fn muscles_do_not_pull_the_pictures_together_and_another_stance_is_said(front: Photo) {
    let mut grown = front.clone();
    for name in ["deltoid-left", "mid-thigh-outer-left", "waist-left"] {
        grown.landmarks.get_mut(name).unwrap().x += 60.0;
    }
    assert!(lay_over((&front, None), (&grown, None)).unwrap().residual_cm < 1e-9);
    let mut wider = front.clone();
    for (name, by) in [("ankle-left", 90.0), ("ankle-right", -90.0), ("knee-left", 50.0), ("knee-right", -50.0)] {
        wider.landmarks.get_mut(name).unwrap().x += by;
    }
    let laid = lay_over((&front, None), (&wider, None)).unwrap();
    assert!(laid.warnings[0].starts_with("The two do not stand alike"), "{:?}", laid.warnings);
}

#[rstest]
fn a_picture_without_landmarks_lies_over_nothing(front: Photo) {
    assert_eq!(lay_over((&Photo { landmarks: BTreeMap::new(), ..front.clone() }, None), (&front, None)), None);
}

#[rstest]
#[case::as_taken(Some(false), PhotoPose::F, Vec::new(), true)]
#[case::a_mirror_picture_that_is_known_to_be_one(Some(true), PhotoPose::F, Vec::new(), true)]
#[case::nobody_has_said_whether_it_is_a_mirror(None, PhotoPose::F, Vec::new(), false)]
#[case::arms_raised(Some(false), PhotoPose::FDB, Vec::new(), false)]
#[case::turned_away(Some(false), PhotoPose::F, failing(QualityCheck::Turn), false)]
#[case::blurred_bends_nothing(Some(false), PhotoPose::F, failing(QualityCheck::Sharpness), true)]
fn sides_count_only_from_straight_relaxed_pictures_whose_sides_are_known(
    front: Photo,
    #[case] mirrored: Option<bool>,
    #[case] pose: PhotoPose,
    #[case] quality: Vec<Check>,
    #[case] counts: bool,
) {
    let photo = Photo { pose, quality, ..front };
    assert_eq!(counts_sides(Pictured { photo: &photo, mirrored }), counts);
}

#[rstest]
fn front_and_back_are_one_outline(front: Photo) {
    let limb = |left_width_cm: f64| vec![Limb { segment: Segment::Calf, left_width_cm, right_width_cm: 12.0 }];
    let back = Photo { pose: PhotoPose::B, limbs: limb(11.0), ..front.clone() };
    let unsaid = Photo { limbs: limb(30.0), ..front.clone() };
    let said = |photo| Pictured { photo, mirrored: Some(false) };
    let found = outlines(&[said(&front), said(&back), Pictured { photo: &unsaid, mirrored: None }]);
    assert_eq!((found.len(), found[0].segment), (1, Segment::Calf));
    assert!((found[0].width.left.cm() - 10.5).abs() < 1e-9 && (found[0].width.right.cm() - 11.5).abs() < 1e-9);
}

#[rstest]
#[case::one_centimetre_is_noise(31.0, false)]
#[case::two_are_more(32.5, true)]
fn a_width_changed_when_it_did_by_more_than_two_pictures_differ(front: Photo, #[case] now_cm: f64, #[case] real: bool) {
    let now = Photo { widths: vec![Width { cm: now_cm, ..front.widths[0].clone() }], ..front.clone() };
    let change = width_changes(&front, &now, 2.0).remove(0);
    // 1.96 x sqrt(0.60^2 + 0.62^2) = 1.69 cm and 1.96 x sqrt(0.60^2 + 0.65^2) = 1.73 cm.
    assert!((change.mdc_cm - if real { 1.734 } else { 1.691 }).abs() < 0.001, "{change:?}");
    assert_eq!(change.real, real);
}

#[test]
fn what_rests_or_was_repeated_is_not_asked_and_the_order_gives_nothing_away() {
    let asked: Vec<Asked> = (0..40)
        .map(|i| Asked {
            key: format!("rating {i}"),
            days_ago: if i < 30 { MIN_REST_DAYS } else { 2 },
            repeated: i < 5,
        })
        .collect();
    let due = repeats(&asked, 20);
    let numbers: Vec<usize> = due.iter().map(|one| one.key[7..].parse().unwrap()).collect();
    assert_eq!(due.len(), 20);
    assert!(numbers.iter().all(|n| (5..30).contains(n)), "{numbers:?}");
    assert!(!numbers.is_sorted(), "{numbers:?}");
    let mirrored = due.iter().filter(|one| one.mirrored).count();
    assert!((4..=16).contains(&mirrored), "about half are mirrored: {mirrored} of 20");
    assert_eq!(repeats(&asked, 20), due);
}

#[rstest]
#[case(2, true, -2)]
#[case(-1, true, 1)]
#[case(1, false, 1)]
fn a_mirrored_answer_is_turned_back(#[case] seen: i8, #[case] mirrored: bool, #[case] means: i8) {
    assert_eq!(unmirrored(seen, mirrored), means);
}
