//! What is wrong with a booth spec is said with its place and with what is expected.

use booth::{Pose, Sex, Spec};
use rstest::rstest;
use serde_json::{Value, json};

const EXAMPLE: &str = include_str!("../../../../docs/examples/booth.json");

/// The example with one value changed.
fn with(pointer: &str, value: Value) -> Result<Spec, String> {
    let mut spec = serde_json::to_value(Spec::standing(178.0, Sex::Male, Pose::F)).unwrap();
    let (parent, key) = pointer.rsplit_once('/').unwrap();
    spec.pointer_mut(parent).unwrap()[key] = value;
    serde_json::from_value(spec).map_err(|error| error.to_string())
}

fn problems(pointer: &str, value: Value) -> Vec<String> {
    with(pointer, value).unwrap().problems().iter().map(ToString::to_string).collect()
}

#[test]
fn the_example_is_in_order_and_comes_back_the_same() {
    let spec: Spec = serde_json::from_str(EXAMPLE).unwrap();
    assert_eq!(spec.problems(), []);
    let again: Spec = serde_json::from_value(serde_json::to_value(&spec).unwrap()).unwrap();
    assert_eq!(again, spec);
}

#[test]
fn what_is_left_out_is_as_in_the_studio() {
    let short = json!({"format": "orthomer-booth", "version": 1, "stature_cm": 178, "sex": "male", "pose": "F"});
    let spec: Spec = serde_json::from_value(short).unwrap();
    assert_eq!(spec, Spec::standing(178.0, Sex::Male, Pose::F));
}

#[rstest]
#[case::another_format("/format", json!("photo"), "/format: \"photo\" is not \"orthomer-booth\"")]
#[case::another_version("/version", json!(2), "/version: 2 is outside 1 to 1")]
#[case::a_child("/stature_cm", json!(120), "/stature_cm: 120 is outside 140 to 215")]
#[case::a_giant("/stature_cm", json!(216), "/stature_cm: 216 is outside 140 to 215")]
#[case::a_camera_too_near("/camera/distance_m", json!(1.0), "/camera/distance_m: 1 is outside 1.2 to 8")]
#[case::a_camera_on_the_floor("/camera/height_m", json!(0.1), "/camera/height_m: 0.1 is outside 0.3 to 2")]
#[case::turned_away("/camera/yaw_deg", json!(90), "/camera/yaw_deg: 90 is outside -30 to 30")]
#[case::upside_down("/camera/roll_deg", json!(-180), "/camera/roll_deg: -180 is outside -20 to 20")]
#[case::out_of_the_picture("/camera/shift", json!(0.6), "/camera/shift: 0.6 is outside -0.5 to 0.5")]
#[case::a_dot("/camera/fill", json!(0.1), "/camera/fill: 0.1 is outside 0.2 to 1.3")]
#[case::more_than_all_muscle("/body/muscle", json!(1.5), "/body/muscle: 1.5 is outside 0 to 1")]
#[case::less_than_nothing("/body/weight", json!(-0.1), "/body/weight: -0.1 is outside 0 to 1")]
#[case::a_wall_of_pixels("/image/width", json!(9000), "/image/width: 9000 is outside 64 to 5000")]
#[case::no_picture("/image/height", json!(0), "/image/height: 0 is outside 64 to 5000")]
#[case::snow("/image/noise", json!(99), "/image/noise: 99 is outside 0 to 40")]
#[case::no_quality("/image/jpeg_quality", json!(0), "/image/jpeg_quality: 0 is outside 1 to 100")]
#[case::a_door("/body/shoulder_width_cm", json!(95), "/body/shoulder_width_cm: 95 is outside 25 to 80")]
#[case::a_wasp("/body/waist_width_cm", json!(10), "/body/waist_width_cm: 10 is outside 15 to 60")]
#[case::a_girth_of_no_site("/body/girths", json!([{"site": "toe", "cm": 8}]), "/body/girths/0: the booth has no girth \"toe\"")]
#[case::a_side_missing("/body/girths", json!([{"site": "calf", "cm": 37}]), "/body/girths/0: calf needs a side, left or right")]
#[case::a_side_too_many(
    "/body/girths", json!([{"site": "waist", "side": "left", "cm": 80}]), "/body/girths/0: waist has no sides"
)]
#[case::a_slipped_decimal_point(
    "/body/girths", json!([{"site": "calf", "side": "left", "cm": 37}, {"site": "calf", "side": "right", "cm": 370}]),
    "/body/girths/1: calf of 370 cm is outside"
)]
fn a_value_out_of_bounds_is_named_with_its_bounds(#[case] pointer: &str, #[case] value: Value, #[case] says: &str) {
    let found = problems(pointer, value);
    assert_eq!(found.len(), 1, "{found:?}");
    assert!(found[0].starts_with(says), "{found:?}");
}

#[rstest]
#[case::a_misspelt_field("/camera/distanz_m", json!(3), "unknown field `distanz_m`")]
#[case::a_pose_nobody_holds("/pose", json!("XX"), "unknown variant `XX`")]
#[case::a_word_for_a_number("/stature_cm", json!("tall"), "invalid type: string \"tall\"")]
#[case::light_from_below("/light/kind", json!("below"), "unknown variant `below`")]
fn what_a_spec_cannot_say_is_refused(#[case] pointer: &str, #[case] value: Value, #[case] says: &str) {
    let refused = with(pointer, value).unwrap_err();
    assert!(refused.contains(says), "{refused}");
}

#[test]
fn everything_that_is_wrong_is_said_at_once_in_the_order_of_the_fields() {
    let mut spec = Spec::standing(90.0, Sex::Female, Pose::B);
    spec.camera.fill = 3.0;
    spec.image.noise = f64::NAN;
    let places: Vec<String> = spec.problems().into_iter().map(|problem| problem.pointer.to_string()).collect();
    assert_eq!(places, ["/stature_cm", "/camera/fill", "/image/noise"]);
}

#[rstest]
#[case(Pose::SL, true)]
#[case(Pose::SR, true)]
#[case(Pose::F, false)]
#[case(Pose::BLS, false)]
fn flanks_are_the_two_side_poses(#[case] pose: Pose, #[case] side: bool) {
    assert_eq!(pose.is_side(), side);
}
