//! Whom a sitting shows, what is true of them, and what is told when.

use assess::Norms;
use atlas::Atlas;
use booth::{Figure, Sex};
use eye::{Asks, Look, Part, Question, Shown, Sitting, in_steps, show, truth};
use rstest::{fixture, rstest};
use std::collections::BTreeSet;
use std::sync::LazyLock;
use units::Side;

static NORMS: LazyLock<Norms> = LazyLock::new(|| Norms::load().unwrap());

#[fixture]
#[once]
fn figure() -> Figure {
    Figure::load().unwrap()
}

fn sitting(seed: u64) -> Sitting {
    Sitting::new(&NORMS, seed).unwrap()
}

/// Every figure's question and the truth of its girths as asked for.
fn truths(sitting: &Sitting) -> Vec<(Question, f64)> {
    let first = sitting.looks().iter().filter(|look| !look.mirrored);
    first
        .map(|look| {
            let (question, spec) = (sitting.question(*look).unwrap(), sitting.spec(*look).unwrap());
            (question, truth(&NORMS, spec, &spec.body.girths, question).unwrap())
        })
        .collect()
}

/// The figure as shown, small: what is true does not depend on the size of the picture.
fn shown(figure: &Figure, sitting: &Sitting, look: Look) -> Shown {
    let mut spec = sitting.spec(look).unwrap().clone();
    (spec.image.width, spec.image.height) = (150, 200);
    show(figure, &NORMS, (&spec, sitting.question(look).unwrap()), look.mirrored).unwrap()
}

#[rstest]
fn a_sitting_asks_both_kinds_alike_and_every_limb_left_against_right(#[values(1, 2, 3, 4, 5)] seed: u64) {
    let asked: Vec<Question> = truths(&sitting(seed)).into_iter().map(|(question, _)| question).collect();
    let of = |kind| asked.iter().filter(move |question| question.asks == kind);
    assert_eq!(of(Asks::LeftRight).count(), of(Asks::Standing).count());
    assert!(Part::ALL.iter().all(|part| of(Asks::LeftRight).any(|question| question.part == *part)));
    assert!(of(Asks::Standing).all(|question| question.part != Part::UpperArm), "the reference has no relaxed arm");
}

#[rstest]
fn two_figures_of_a_kind_come_again_mirrored_with_three_pictures_between(#[values(1, 2, 3, 4, 5)] seed: u64) {
    let sitting = sitting(seed);
    let looks = sitting.looks();
    assert_eq!(looks.len(), eye::PICTURES);
    let again: Vec<(usize, &Look)> = looks.iter().enumerate().filter(|(_, look)| look.mirrored).collect();
    let sides = again.iter().filter(|(_, look)| sitting.question(**look).unwrap().asks == Asks::LeftRight).count();
    assert_eq!((again.len(), sides), (4, 2));
    for (place, look) in again {
        let first = looks.iter().position(|other| other.figure == look.figure).unwrap();
        assert!(!looks[first].mirrored && place - first > 3, "{first} and {place}");
    }
}

#[test]
fn the_truth_is_told_after_the_last_showing_of_a_figure() {
    let sitting = sitting(1);
    for (place, look) in sitting.looks().iter().enumerate() {
        let comes_again = sitting.looks()[place + 1..].iter().any(|later| later.figure == look.figure);
        assert!(!sitting.may_tell(look.figure, place));
        assert_eq!(sitting.may_tell(look.figure, place + 1), !comes_again);
    }
}

#[test]
fn the_same_seed_gives_the_same_sitting_and_another_seed_another() {
    assert_eq!(sitting(7), sitting(7));
    assert_ne!(sitting(7), sitting(8));
}

#[test]
fn truths_go_to_both_sides_and_to_the_ends_of_the_scale() {
    let settings = Atlas::load().unwrap();
    let all: Vec<(Question, f64)> = (0..40).flat_map(|seed| truths(&sitting(seed))).collect();
    for kind in Asks::ALL {
        let steps: Vec<f64> = all
            .iter()
            .filter(|(question, _)| question.asks == kind)
            .map(|(_, truth)| in_steps(settings.evidence(), kind, *truth))
            .collect();
        let share = |is: fn(&&f64) -> bool| steps.iter().filter(is).count() as f64 / steps.len() as f64;
        assert!(steps.iter().all(|step| step.abs() < 2.01), "{kind:?}");
        assert!((share(|step| **step > 0.0) - 0.5).abs() < 0.1, "{kind:?}");
        assert!(share(|step| step.abs() > 1.5) > 0.2 && share(|step| step.abs() < 0.5) > 0.1, "{kind:?}");
    }
}

/// What is not asked about is in proportion and even, so that nothing else of a figure tells the answer.
#[rstest]
fn only_the_part_that_is_asked_about_is_out_of_line(#[values(1, 2, 3)] seed: u64) {
    let sitting = sitting(seed);
    for look in sitting.looks() {
        let (asked, spec) = (sitting.question(*look).unwrap(), sitting.spec(*look).unwrap());
        for part in Part::ALL.into_iter().filter(|part| *part != asked.part) {
            let question = Question { asks: Asks::LeftRight, part, ..asked };
            assert!(truth(&NORMS, spec, &spec.body.girths, question).unwrap().abs() < 1e-9, "{part:?}");
        }
        if asked.asks == Asks::LeftRight {
            for part in Part::SIZED {
                let question = Question { asks: Asks::Standing, part, ..asked };
                // The stature is written to the millimetre.
                assert!(truth(&NORMS, spec, &spec.body.girths, question).unwrap().abs() < 0.01, "{part:?}");
            }
        }
    }
}

/// The booth measures what it has drawn; the tolerance is a twelfth of a step of each scale: 0.25 % and 0.1 SD.
#[rstest]
fn what_is_told_is_measured_on_the_figure_and_is_what_was_asked_of_the_booth(
    figure: &Figure,
    #[values(11, 12)] seed: u64,
) {
    let sitting = sitting(seed);
    for (look, (question, asked)) in sitting.looks().iter().zip(truths(&sitting)) {
        let drawn = shown(figure, &sitting, *look);
        let near = if question.asks == Asks::LeftRight { 0.25 } else { 0.1 };
        assert!((drawn.truth - asked).abs() < near, "{question:?}: {} for {asked}", drawn.truth);
    }
}

#[rstest]
fn a_mirrored_showing_is_the_same_picture_turned_with_its_sides_named_as_seen(figure: &Figure) {
    let sitting = sitting(1);
    let again = *sitting.looks().iter().find(|look| look.mirrored).unwrap();
    let (first, turned) = (shown(figure, &sitting, Look { mirrored: false, ..again }), shown(figure, &sitting, again));
    assert_eq!(first.truth.to_bits(), turned.truth.to_bits());
    for (frame, other) in first.frames.iter().zip(&turned.frames) {
        assert_eq!(other.side, frame.side.other());
        assert!((frame.x + frame.width + other.x - 1.0).abs() < 1e-9 && (frame.y - other.y).abs() < 1e-9);
    }
    let open = |jpeg: &[u8]| image::load_from_memory(jpeg).unwrap().to_rgb8();
    let (plain, back) = (open(&first.jpeg), image::imageops::flip_horizontal(&open(&turned.jpeg)));
    let apart = plain.as_raw().iter().zip(back.as_raw()).map(|(a, b)| f64::from(a.abs_diff(*b)));
    assert!(apart.sum::<f64>() / (plain.as_raw().len() as f64) < 3.0, "they differ by more than JPEG does");
}

#[rstest]
fn the_frames_lie_in_the_picture_on_the_sides_they_name(figure: &Figure) {
    let sitting = sitting(2);
    for look in sitting.looks() {
        let front = sitting.question(*look).unwrap().pose == booth::Pose::F;
        let drawn = shown(figure, &sitting, *look);
        let x = |side| drawn.frames.iter().find(|frame| frame.side == side).map(|frame| frame.x).unwrap();
        // Someone who faces the camera has their left on the right of the picture, and a mirrored one seems to.
        assert_eq!(x(Side::Left) > x(Side::Right), front);
        let inside = |low: f64, length: f64| low >= 0.0 && low + length <= 1.0 && length > 0.02;
        assert!(drawn.frames.iter().all(|f| inside(f.x, f.width) && inside(f.y, f.height)), "{:?}", drawn.frames);
    }
}

#[rstest]
#[case::left_right(Asks::LeftRight, -2)]
#[case::standing(Asks::Standing, 2)]
fn an_answer_to_a_mirrored_picture_is_turned_back(#[case] asks: Asks, #[case] of_the_figure: i8) {
    assert_eq!(Look { figure: 0, mirrored: true }.of_the_figure(asks, 2), of_the_figure);
    assert_eq!(Look { figure: 0, mirrored: false }.of_the_figure(asks, 2), 2);
}

#[test]
fn sittings_show_both_sexes() {
    let of = |seed| {
        let sitting = sitting(seed);
        sitting.looks().iter().map(|look| sitting.spec(*look).unwrap().sex == Sex::Male).collect::<BTreeSet<_>>()
    };
    assert_eq!((0..4).flat_map(of).collect::<BTreeSet<_>>().len(), 2);
}
