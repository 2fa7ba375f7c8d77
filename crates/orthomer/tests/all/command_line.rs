//! The binary as a user at a terminal meets it: exit codes, the place of every problem, the same bytes every time.

use rstest::rstest;
use serde_json::{Value, json};
use std::collections::BTreeMap;
use std::net::TcpListener;
use std::path::{Path, PathBuf};
use std::process::{Command, Output};

fn orthomer(arguments: &[&str]) -> Output {
    Command::new(env!("CARGO_BIN_EXE_orthomer")).args(arguments).output().unwrap()
}

fn example() -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("../../docs/examples/case.json")
}

fn stderr(output: &Output) -> String {
    String::from_utf8_lossy(&output.stderr).into_owned()
}

/// The example case with one value changed, in a file of its own.
fn changed(directory: &Path, pointer: &str, value: Value) -> PathBuf {
    let mut case: Value = serde_json::from_str(&std::fs::read_to_string(example()).unwrap()).unwrap();
    let (parent, key) = pointer.rsplit_once('/').unwrap();
    match case.pointer_mut(parent).unwrap() {
        Value::Object(object) => {
            object.insert(key.to_owned(), value);
        }
        Value::Array(list) => list[key.parse::<usize>().unwrap()] = value,
        other => panic!("{parent} holds {other}"),
    }
    let path = directory.join("case.json");
    std::fs::write(&path, case.to_string()).unwrap();
    path
}

#[rstest]
#[case::catalogue(&["catalogue"])]
#[case::levers(&["levers", "cable-curl", "--set", "pulley_height_cm=40", "--stature", "182"])]
#[case::assess(&["assess"])]
#[case::assess_with_rows(&["assess", "--explain"])]
fn the_same_input_gives_the_same_bytes(#[case] command: &[&str]) {
    let path = example();
    let arguments: Vec<&str> = if ["catalogue", "levers"].contains(&command[0]) {
        command.to_vec()
    } else {
        command.iter().copied().chain([path.to_str().unwrap()]).collect()
    };
    let (first, second) = (orthomer(&arguments), orthomer(&arguments));
    assert_eq!(first.status.code(), Some(0), "{}", stderr(&first));
    assert!(serde_json::from_slice::<Value>(&first.stdout).is_ok());
    assert_eq!(first.stdout, second.stdout);
}

#[test]
fn a_plan_is_the_same_every_time_but_for_the_solver_s_clock() {
    let path = example();
    let plans = [(); 2].map(|()| {
        let output = orthomer(&["plan", path.to_str().unwrap()]);
        assert_eq!(output.status.code(), Some(0), "{}", stderr(&output));
        let mut plan: Value = serde_json::from_slice(&output.stdout).unwrap();
        assert!(plan["solve_ms"].take().as_f64().is_some());
        plan
    });
    assert_eq!(plans[0], plans[1]);
    assert!(!plans[0]["sessions"].as_array().unwrap().is_empty());
}

#[rstest]
#[case::a_slipped_decimal_point("/rounds/0/tape/0/readings_cm/0", json!(1210.0), "/rounds/0/tape/0/readings_cm/0: ")]
#[case::an_unknown_field("/client/shoe_size", json!(43), "/client/shoe_size: unknown field")]
#[case::an_unknown_site("/rounds/0/tape/0/site", json!("elbow"), "did you mean \"elbow-breadth\"?")]
#[case::a_date_that_does_not_exist("/rounds/0/date", json!("2026-02-30"), "/rounds/0/date: ")]
#[case::a_round_in_the_future("/rounds/0/date", json!("2031-01-01"), "is after as_of")]
#[case::another_version("/version", json!(2), "/version: ")]
#[case::a_word_for_a_number("/client/height_cm", json!("tall"), "/client/height_cm: ")]
fn bad_input_ends_with_2_and_one_line_that_names_the_place(
    #[case] pointer: &str,
    #[case] value: Value,
    #[case] says: &str,
) {
    let directory = tempfile::tempdir().unwrap();
    let path = changed(directory.path(), pointer, value);
    for command in ["assess", "plan"] {
        let output = orthomer(&[command, path.to_str().unwrap()]);
        let said = stderr(&output);
        assert_eq!(output.status.code(), Some(2), "{said}");
        assert!(output.stdout.is_empty());
        assert_eq!(said.lines().filter(|line| line.contains(says)).count(), 1, "{said}");
    }
}

#[rstest]
#[case::cut_off("{\"format\": \"orthomer-case\", ", "EOF")]
#[case::not_json("waist 80", "expected value at line 1 column 1")]
fn a_broken_file_ends_with_2(#[case] text: &str, #[case] says: &str) {
    let directory = tempfile::tempdir().unwrap();
    let path = directory.path().join("broken.json");
    std::fs::write(&path, text).unwrap();
    let output = orthomer(&["assess", path.to_str().unwrap()]);
    assert_eq!(output.status.code(), Some(2));
    assert!(stderr(&output).contains(says), "{}", stderr(&output));
}

#[test]
fn a_port_in_use_is_said_in_one_line() {
    let directory = tempfile::tempdir().unwrap();
    let taken = TcpListener::bind("127.0.0.1:0").unwrap();
    let port = taken.local_addr().unwrap().port().to_string();
    let output = orthomer(&["serve", "--data", directory.path().to_str().unwrap(), "--port", &port]);
    let said = stderr(&output);
    assert_eq!(output.status.code(), Some(1), "{said}");
    assert!(said.contains(&format!("port {port}")) && said.contains("in use"), "{said}");
}

#[rstest]
#[case::read_only("/proc/orthomer-data")]
#[case::a_file(env!("CARGO_BIN_EXE_orthomer"))]
fn a_data_directory_that_cannot_be_written_is_named(#[case] data: &str) {
    let output = orthomer(&["serve", "--data", data, "--port", "0"]);
    assert_eq!(output.status.code(), Some(1));
    assert!(stderr(&output).contains(data), "{}", stderr(&output));
}

#[test]
fn a_booth_picture_is_drawn_and_measured_from_the_command_line() {
    let directory = tempfile::tempdir().unwrap();
    let out = directory.path().to_str().unwrap();
    let spec = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../docs/examples/booth.json");
    let drawn = orthomer(&["booth", spec.to_str().unwrap(), "--out", out]);
    assert_eq!(drawn.status.code(), Some(0), "{}", stderr(&drawn));
    let picture = directory.path().join("picture.jpg");
    let mask = directory.path().join("found.png");
    let photo =
        ["photo", picture.to_str().unwrap(), "--stature", "178", "--pose", "F", "--mask", mask.to_str().unwrap()];
    let first = orthomer(&photo);
    assert_eq!(first.status.code(), Some(0), "{}", stderr(&first));
    let seen: Value = serde_json::from_slice(&first.stdout).unwrap();
    let truth: Value =
        serde_json::from_str(&std::fs::read_to_string(directory.path().join("truth.json")).unwrap()).unwrap();
    let width = |file: &Value, level: &str| {
        let all = file["widths"].as_array().unwrap();
        all.iter().find(|width| width["level"] == level).unwrap()["cm"].as_f64().unwrap()
    };
    assert!((width(&seen, "waist") / width(&truth, "waist") - 1.0).abs() < 0.02);
    let upper = seen["limbs"].as_array().unwrap().iter().find(|limb| limb["segment"] == "upper-arm").unwrap();
    assert!(upper["left_width_cm"].as_f64() < upper["right_width_cm"].as_f64(), "{upper}");
    let size = |path: &Path| image::image_dimensions(path).unwrap();
    assert_eq!(size(&mask), size(&picture));
    assert_eq!(first.stdout, orthomer(&photo).stdout);
}

/// The example figure's picture in a pose.
fn pictured(directory: &Path, pose: &str) -> String {
    let example = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../docs/examples/booth.json");
    let mut spec: Value = serde_json::from_str(&std::fs::read_to_string(example).unwrap()).unwrap();
    spec["pose"] = json!(pose);
    let (path, out) = (directory.join(format!("{pose}.json")), directory.join(pose));
    std::fs::write(&path, spec.to_string()).unwrap();
    let drawn = orthomer(&["booth", path.to_str().unwrap(), "--out", out.to_str().unwrap()]);
    assert!(drawn.status.success(), "{}", String::from_utf8_lossy(&drawn.stderr));
    out.join("picture.jpg").to_str().unwrap().to_owned()
}

#[test]
fn girths_of_a_figure_follow_from_its_pictures() {
    let directory = tempfile::tempdir().unwrap();
    let [front, side] = ["F", "SL"].map(|pose| pictured(directory.path(), pose));
    let output = orthomer(&["girths", "--stature", "178", "--front", &front, "--side", &side]);
    assert!(output.status.success(), "{}", String::from_utf8_lossy(&output.stderr));
    let said: Value = serde_json::from_slice(&output.stdout).unwrap();
    let truth: Value =
        serde_json::from_str(&std::fs::read_to_string(directory.path().join("F/truth.json")).unwrap()).unwrap();
    let girths = |file: &Value, field: &str| -> BTreeMap<(String, String), f64> {
        let each = file["girths"].as_array().unwrap().iter();
        let key = |girth: &Value, of: &str| girth[of].as_str().unwrap_or_default().to_owned();
        each.map(|girth| ((key(girth, "site"), key(girth, "side")), girth[field].as_f64().unwrap())).collect()
    };
    let (seen, errors, known) = (girths(&said, "cm"), girths(&said, "error_pct"), girths(&truth, "cm"));
    // Three of its own errors at the outside: seen from one side alone, in one picture each.
    for (place, cm) in &seen {
        let off = 100.0 * (cm / known[place] - 1.0).abs();
        assert!(off < 3.0 * errors[place], "{place:?}: {cm} against {}", known[place]);
    }
    assert!(seen.len() >= 18, "{seen:?}");
    let missing = said["missing"].as_array().unwrap();
    assert!(missing.iter().any(|one| one["site"] == "arm-flexed"), "{missing:?}");

    let swapped = orthomer(&["girths", "--stature", "178", "--front", &side, "--side", &front]);
    let says = String::from_utf8_lossy(&swapped.stderr).into_owned();
    assert!(swapped.status.code() == Some(2) && says.contains("--front") && says.contains("shows a side"), "{says}");
}

#[rstest]
#[case::an_unknown_field(json!({"format": "orthomer-booth", "version": 1, "stature_cm": 178, "sex": "male", "pose": "F", "hat": 1}), "unknown field `hat`")]
#[case::a_child(json!({"format": "orthomer-booth", "version": 1, "stature_cm": 120, "sex": "male", "pose": "F"}), "/stature_cm: 120 is outside 140 to 215")]
fn a_wrong_booth_spec_is_bad_input(#[case] spec: Value, #[case] says: &str) {
    let directory = tempfile::tempdir().unwrap();
    let path = directory.path().join("spec.json");
    std::fs::write(&path, spec.to_string()).unwrap();
    let output = orthomer(&["booth", path.to_str().unwrap(), "--out", directory.path().to_str().unwrap()]);
    assert_eq!(output.status.code(), Some(2));
    assert!(stderr(&output).contains(says), "{}", stderr(&output));
}

#[rstest]
#[case::no_picture(&["--stature", "178"], "it is a text file")]
#[case::no_such_pose(&["--stature", "178", "--pose", "Q"], "there is no pose \"Q\"")]
#[case::no_such_person(&["--stature", "1.78"], "--stature: 1.78 cm is outside 100 to 250")]
fn a_wrong_photo_request_is_bad_input(#[case] more: &[&str], #[case] says: &str) {
    let path = example();
    let arguments: Vec<&str> = ["photo", path.to_str().unwrap()].iter().chain(more).copied().collect();
    let output = orthomer(&arguments);
    assert_eq!(output.status.code(), Some(2));
    assert!(stderr(&output).contains(says), "{}", stderr(&output));
}

#[rstest]
#[case::no_such_exercise(&["levers", "no-such"], "no-such: no exercise of the catalogue")]
#[case::no_number(&["levers", "incline-curl", "--set", "bench_deg"], "\"bench_deg\" is no NAME=VALUE with a number")]
#[case::no_such_number(&["levers", "bb-curl", "--set", "bench_deg=30"], "bb-curl has no bench_deg to set")]
#[case::out_of_range(&["levers", "incline-curl", "--set", "bench_deg=200"], "bench_deg 200 is out of range: -20 to 90 expected")]
#[case::no_such_stature(&["levers", "incline-curl", "--stature", "1.75"], "--stature: 1.75 cm is outside 120 to 230")]
fn a_line_of_pull_that_cannot_be_asked_for_is_bad_input(#[case] arguments: &[&str], #[case] says: &str) {
    let output = orthomer(arguments);
    assert_eq!(output.status.code(), Some(2));
    assert!(stderr(&output).contains(says), "{}", stderr(&output));
}

#[rstest]
#[case::a_leg(json!({"leg": {"knee_angle_r": 30, "hip_flexion_r": 60}}), 0, "")]
#[case::an_arm(json!({"arm": {"elbow_flexion_r": 90}}), 0, "")]
#[case::a_knee_of_an_arm(json!({"arm": {"knee_angle_r": 30}}), 2, "/arm/knee_angle_r: not a joint of the arm")]
#[case::no_limb(json!({"tail": {}}), 2, "unknown variant `tail`")]
fn a_pose_is_worked_out_or_refused(#[case] pose: Value, #[case] code: i32, #[case] says: &str) {
    let directory = tempfile::tempdir().unwrap();
    let path = directory.path().join("pose.json");
    std::fs::write(&path, pose.to_string()).unwrap();
    let output = orthomer(&["levers", "--pose", path.to_str().unwrap()]);
    assert_eq!(output.status.code(), Some(code), "{}", stderr(&output));
    assert!(stderr(&output).contains(says), "{}", stderr(&output));
    if code == 0 {
        let posed: Value = serde_json::from_slice(&output.stdout).unwrap();
        assert_eq!(posed["joints"].as_object().unwrap().len(), 6);
        assert!(posed["muscles"].as_object().unwrap().len() > 30);
    }
}
