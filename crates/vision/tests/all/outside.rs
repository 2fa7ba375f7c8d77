//! Against scikit-image, scipy and Pillow: figures made by reference/vision.py.

#![allow(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "small pictures, made here")]

use image::GrayImage;
use rstest::{fixture, rstest};
use serde_json::Value;
use vision::{align, filled, ingest, lab, largest_component, otsu, sharpness};

fn fixtures(name: &str) -> std::path::PathBuf {
    std::path::Path::new(env!("CARGO_MANIFEST_DIR")).join("../../reference/fixtures").join(name)
}

#[fixture]
#[once]
fn figures() -> Value {
    serde_json::from_str(&std::fs::read_to_string(fixtures("vision.json")).unwrap()).unwrap()
}

fn list(value: &Value) -> Vec<f64> {
    value.as_array().unwrap().iter().map(|v| v.as_f64().unwrap()).collect()
}

fn points(value: &Value) -> Vec<(f64, f64)> {
    value.as_array().unwrap().iter().map(|p| (p[0].as_f64().unwrap(), p[1].as_f64().unwrap())).collect()
}

#[rstest]
fn alignment_is_the_least_squares_similarity_of_scikit_image(figures: &Value) {
    for case in figures["alignments"].as_array().unwrap() {
        let found = align(&points(&case["from"]), &points(&case["to"])).unwrap();
        let shift = list(&case["shift"]);
        let near = |a: f64, b: f64| assert!((a - b).abs() < 1e-7, "{a} against {b}");
        near(found.scale(), case["scale"].as_f64().unwrap());
        near(found.turn_deg(), case["turn_deg"].as_f64().unwrap());
        near(found.dx, shift[0]);
        near(found.dy, shift[1]);
        near(found.residual_px, case["residual_px"].as_f64().unwrap());
    }
}

#[rstest]
#[case::one_point(&[(1.0, 2.0)])]
#[case::the_same_point_twice(&[(1.0, 2.0), (1.0, 2.0)])]
fn points_that_do_not_differ_cannot_be_aligned(#[case] from: &[(f64, f64)]) {
    assert_eq!(align(from, &[(0.0, 0.0), (5.0, 5.0)]), None);
}

#[rstest]
fn threshold_component_and_holes_are_those_of_scikit_image_and_scipy(figures: &Value) {
    let case = &figures["segmentation"];
    let width = usize::try_from(case["width"].as_u64().unwrap()).unwrap();
    let grey: Vec<u8> = list(&case["grey"]).into_iter().map(|v| v as u8).collect();
    let height = grey.len() / width;
    let picture = GrayImage::from_raw(width as u32, height as u32, grey.clone()).unwrap();
    let level = otsu(&picture);
    let inside: Vec<bool> = grey.iter().map(|&v| v > level).collect();
    let theirs: Vec<bool> = grey.iter().map(|&v| u64::from(v) > case["otsu"].as_u64().unwrap()).collect();
    assert_eq!(inside, theirs, "level {level} against {}", case["otsu"]);
    let flags = |name: &str| list(&case[name]).into_iter().map(|v| v > 0.5).collect::<Vec<_>>();
    let largest = largest_component(&inside, width);
    assert_eq!(largest, flags("largest"));
    assert_eq!(filled(&largest, width), flags("filled"));
    let variance = case["laplacian_variance"].as_f64().unwrap();
    assert!((sharpness(&picture, None) - variance).abs() < 1e-6 * variance);
}

#[rstest]
fn lab_colours_are_those_of_scikit_image(figures: &Value) {
    for case in figures["colours"].as_array().unwrap() {
        let rgb = list(&case["rgb"]);
        let ours = lab([rgb[0] as u8, rgb[1] as u8, rgb[2] as u8]);
        for (ours, theirs) in ours.iter().zip(list(&case["lab"])) {
            assert!((ours - theirs).abs() < 0.01, "{rgb:?}: {ours} against {theirs}");
        }
    }
}

#[rstest]
fn all_eight_orientations_come_out_as_pillow_turns_them(figures: &Value) {
    for case in figures["orientations"].as_array().unwrap() {
        let bytes = std::fs::read(fixtures(&format!("orientation-{}.jpg", case["turn"]))).unwrap();
        let taken = ingest(&bytes).unwrap();
        let size = list(&case["size"]);
        let (width, height) = taken.size_px;
        assert_eq!(vec![f64::from(width), f64::from(height)], size, "turn {}", case["turn"]);
        let quarters =
            [(1, 1), (3, 1), (1, 3), (3, 3)].map(|(x, y)| taken.view.get_pixel(x * width / 4, y * height / 4).0);
        for (ours, theirs) in quarters.iter().zip(case["quarters"].as_array().unwrap()) {
            let apart = ours.iter().zip(list(theirs)).map(|(a, b)| (f64::from(*a) - b).abs()).fold(0.0, f64::max);
            assert!(apart <= 3.0, "turn {}: {ours:?} against {theirs}", case["turn"]);
        }
    }
}

#[rstest]
#[case(1)]
#[case(6)]
fn the_stored_original_keeps_turn_and_time_and_nothing_else(#[case] turn: u8) {
    let bytes = std::fs::read(fixtures(&format!("orientation-{turn}.jpg"))).unwrap();
    let taken = ingest(&bytes).unwrap();
    assert_eq!(taken.taken_at.as_deref(), Some("2026-03-02T09:31:11"));
    let has = |bytes: &[u8], text: &[u8]| bytes.windows(text.len()).any(|part| part == text);
    assert!(has(&bytes, b"Made-up Camera") && has(&bytes, b"a comment"));
    assert!(!has(&taken.original, b"Made-up Camera") && !has(&taken.original, b"a comment"));
    let exif = exif::Reader::new().read_from_container(&mut std::io::Cursor::new(&taken.original)).unwrap();
    let mut tags: Vec<String> = exif.fields().map(|field| field.tag.to_string()).collect();
    tags.sort();
    assert_eq!(tags, ["DateTimeOriginal", "Orientation"]);
    assert_eq!(exif.get_field(exif::Tag::Orientation, exif::In::PRIMARY).unwrap().value.get_uint(0), Some(turn.into()));
    // The compressed pixels are the same bytes.
    let scan = |bytes: &[u8]| bytes[bytes.windows(2).rposition(|pair| pair == [0xFF, 0xDA]).unwrap()..].to_vec();
    assert_eq!(scan(&taken.original), scan(&bytes));
    assert_eq!(ingest(&taken.original).unwrap().view, taken.view);
}
