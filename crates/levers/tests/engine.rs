//! Bones, lever arms and optima beside the engine and scipy (`reference/levers.py`).

#![allow(clippy::unwrap_used)]

use levers::{Body, Pose, Vector, fibre_length, hold, pull};
use rstest::rstest;
use serde::Deserialize;
use std::collections::HashMap;

#[derive(Deserialize)]
struct Fixture {
    #[serde(flatten)]
    parts: HashMap<String, Part>,
}

#[derive(Deserialize)]
#[serde(untagged)]
enum Part {
    Poses(Poses),
    Optima(Vec<Optimum>),
}

#[derive(Deserialize)]
struct Poses {
    joints: Vec<String>,
    points: Vec<String>,
    origin: String,
    muscles: Vec<String>,
    #[serde(rename = "poses")]
    measured: Vec<Measured>,
}

#[derive(Deserialize)]
struct Measured {
    angles: Vec<f64>,
    points_nm: Vec<[f64; 3]>,
    lengths_um: Vec<f64>,
    arms_um: Vec<Vec<f64>>,
}

#[derive(Deserialize)]
struct Optimum {
    joints: Vec<String>,
    muscles: Vec<String>,
    angles: Vec<f64>,
    tau_nm: Vec<f64>,
    activations: Vec<f64>,
}

fn fixture(name: &str) -> Part {
    let text = include_str!("../../../reference/fixtures/levers.json");
    let mut fixture: Fixture = serde_json::from_str(text).unwrap();
    fixture.parts.remove(name).unwrap()
}

fn poses(name: &str) -> Poses {
    match fixture(name) {
        Part::Poses(poses) => poses,
        Part::Optima(_) => panic!("{name} has poses"),
    }
}

fn joints(body: &Body, names: &[String]) -> Vec<usize> {
    names.iter().map(|name| body.joint(name).unwrap()).collect()
}

#[rstest]
#[case::arm("arm", 500)]
#[case::leg("leg", 500)]
#[case::trunk("trunk", 100)]
fn bones_stand_where_the_engine_puts_them(#[case] part: &str, #[case] count: usize) {
    let (body, part) = (Body::shipped(), poses(part));
    let joints = joints(body, &part.joints);
    assert_eq!(part.measured.len(), count);
    let origin = body.bone(&part.origin).unwrap();
    for measured in &part.measured {
        let given: Vec<_> = joints.iter().copied().zip(measured.angles.iter().copied()).collect();
        let pose = Pose::new(body, &given);
        for (name, expected) in part.points.iter().zip(&measured.points_nm) {
            let here = pose.within(origin, pose.at(body.bone(name).unwrap(), Vector::zeros()));
            let apart = (here - Vector::from(*expected) * 1e-9).norm();
            assert!(apart < 1e-6, "{name}: {apart} m at {:?}", measured.angles);
        }
    }
}

#[rstest]
#[case::arm("arm")]
#[case::leg("leg")]
#[case::trunk("trunk")]
fn muscles_are_as_long_and_pull_by_the_levers_the_engine_says(#[case] part: &str) {
    let (body, part) = (Body::shipped(), poses(part));
    let joints = joints(body, &part.joints);
    let mut worst: Vec<(f64, String)> = Vec::new();
    for (place, name) in part.muscles.iter().enumerate() {
        let muscle = body.muscle(name).unwrap();
        let (mut square, mut longest) = (vec![0.0; joints.len()], 0.0_f64);
        for measured in &part.measured {
            let given: Vec<_> = joints.iter().copied().zip(measured.angles.iter().copied()).collect();
            let here = pull(&Pose::new(body, &given), muscle, &joints);
            longest = longest.max((here.length_m - measured.lengths_um[place] * 1e-6).abs());
            for (joint, arm) in here.arms_m.iter().enumerate() {
                square[joint] += (arm - measured.arms_um[place][joint] * 1e-6).powi(2);
            }
        }
        let rms = square.iter().map(|sum| (sum / part.measured.len() as f64).sqrt()).fold(0.0, f64::max);
        worst.push((rms, format!("{name}: lever arms {:.3} mm rms, length {:.3} mm", rms * 1e3, longest * 1e3)));
    }
    worst.sort_by(|a, b| b.0.total_cmp(&a.0));
    let off: Vec<&String> = worst.iter().filter(|(rms, _)| *rms > 0.000_1).map(|(_, says)| says).collect();
    assert!(off.is_empty(), "{off:#?}");
}

#[test]
fn the_cheapest_way_to_hold_torques_is_scipys() {
    let body = Body::shipped();
    let Part::Optima(optima) = fixture("optima") else { panic!("optima are a list") };
    assert_eq!(optima.len(), 40);
    for optimum in optima {
        let joints = joints(body, &optimum.joints);
        let given: Vec<_> = joints.iter().copied().zip(optimum.angles.iter().copied()).collect();
        let pose = Pose::new(body, &given);
        let muscles: Vec<usize> = optimum.muscles.iter().map(|name| body.muscle(name).unwrap()).collect();
        let pulls: Vec<_> = muscles.iter().map(|muscle| pull(&pose, *muscle, &joints)).collect();
        let lengths: Vec<f64> =
            muscles.iter().zip(&pulls).map(|(muscle, pull)| fibre_length(body, *muscle, pull.length_m)).collect();
        let arms: Vec<Vec<f64>> = pulls.into_iter().map(|pull| pull.arms_m).collect();
        let held = hold(body, &muscles, &arms, &lengths, &optimum.tau_nm);
        for (name, (here, there)) in optimum.muscles.iter().zip(held.activations.iter().zip(&optimum.activations)) {
            assert!((here - there).abs() < 1e-4, "{name}: {here} {there}");
        }
    }
}
