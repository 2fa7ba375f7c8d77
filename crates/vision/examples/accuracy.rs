//! How well booth pictures are measured: the figures of docs/benchmarks.md. `cargo run --release -p vision --example accuracy`

use booth::{Body, Figure, Girth, LightKind, Pose, Room, Sex, Shot, Skin, Spec};
use std::collections::BTreeMap;
use units::{Segment, Side};
use vision::{Ask, Eye, PhotoPose, View};

type Outcome<T> = Result<T, Box<dyn std::error::Error>>;

/// Twelve bodies, each with its own build, skin, room and light.
fn bodies() -> Vec<Spec> {
    let lights = [LightKind::Even, LightKind::Left, LightKind::Right, LightKind::Above];
    let skins = [Skin::Light, Skin::Middle, Skin::Dark];
    (0..12_u32)
        .map(|i| {
            let sex = if i % 2 == 0 { Sex::Male } else { Sex::Female };
            let stature = if i % 2 == 0 { 170.0 + f64::from(i) * 1.7 } else { 158.0 + f64::from(i) * 1.4 };
            let mut spec = Spec::standing(stature, sex, Pose::F);
            spec.body =
                Body { muscle: 0.45 + 0.04 * f64::from(i), weight: 0.3 + 0.03 * f64::from(i), ..Body::default() };
            spec.light.kind = lights[i as usize % 4];
            spec.light.seed = u64::from(i);
            spec.skin = skins[i as usize % 3];
            spec.room = if i % 3 == 1 { Room::Busy } else { Room::Plain };
            spec.image.seed = u64::from(i);
            spec
        })
        .collect()
}

fn photo_pose(pose: Pose) -> PhotoPose {
    *PhotoPose::ALL.iter().find(|p| p.id() == pose.id()).unwrap_or(&PhotoPose::F)
}

fn look(figure: &Figure, eye: &Eye, spec: &Spec) -> Outcome<(Shot, View)> {
    let shot = booth::shoot(figure, spec)?;
    let ask = Ask { stature_cm: spec.stature_cm, pose: Some(photo_pose(spec.pose)), ..Ask::default() };
    let view = eye.look(&shot.picture, ask)?;
    Ok((shot, view))
}

fn iou(shot: &Shot, view: &View) -> f64 {
    let (mut both, mut either) = (0.0, 0.0);
    for (a, b) in shot.mask.iter().zip(view.mask.inside()) {
        both += f64::from(u8::from(*a && b));
        either += f64::from(u8::from(*a || b));
    }
    both / either
}

/// Mean distance of the joints from the truth, % of stature.
fn joints_pct(shot: &Shot, view: &View, stature_px: f64) -> Option<f64> {
    let names = ["acromion", "elbow", "wrist", "hip-joint", "knee", "ankle"];
    let all = names.iter().flat_map(|name| ["left", "right"].map(|side| format!("{name}-{side}")));
    let errors: Vec<f64> = all
        .filter_map(|name| {
            let (truth, found) = (shot.truth.landmarks.get(&name)?, view.photo.landmarks.get(&name)?);
            Some((truth.x - found.x).hypot(truth.y - found.y) / stature_px * 100.0)
        })
        .collect();
    (!errors.is_empty()).then(|| errors.iter().sum::<f64>() / errors.len() as f64)
}

fn widths_pct(shot: &Shot, view: &View) -> Vec<(String, f64)> {
    let of = |level: &str, cm: f64| (level.to_owned(), cm);
    let found = |level: &str| view.photo.widths.iter().find(|w| w.level == level).map(|w| w.cm);
    let limb =
        |segment| view.photo.limbs.iter().find(|l| l.segment == segment).map(|l| (l.left_width_cm, l.right_width_cm));
    let mut errors = Vec::new();
    for width in &shot.truth.widths {
        errors.extend(found(&width.level).map(|cm| of(&width.level, 100.0 * (cm / width.cm - 1.0))));
    }
    for truth in &shot.truth.limbs {
        if let Some((left, right)) = limb(truth.segment) {
            errors.push(of(truth.segment.as_str(), 100.0 * (left / truth.left_width_cm - 1.0)));
            errors.push(of(truth.segment.as_str(), 100.0 * (right / truth.right_width_cm - 1.0)));
        }
    }
    errors
}

fn summary(name: &str, values: &[f64]) {
    if values.is_empty() {
        println!("{name:28} none");
        return;
    }
    let count = values.len() as f64;
    let mean = values.iter().sum::<f64>() / count;
    let worst = values.iter().fold(0.0_f64, |w, v| if v.abs() > w.abs() { *v } else { w });
    let low = values.iter().copied().fold(f64::INFINITY, f64::min);
    let rms = (values.iter().map(|v| v * v).sum::<f64>() / count).sqrt();
    println!("{name:28} n {count:4} mean {mean:8.3} rms {rms:7.3} least {low:8.3} largest {worst:8.3}");
}

fn main() -> Outcome<()> {
    let only = std::env::args().nth(1);
    let wanted = |part: &str| only.as_deref().is_none_or(|only| only == part);
    let (figure, eye) = (Figure::load()?, Eye::load()?);
    if wanted("poses") {
        let one = std::env::args().nth(2);
        for pose in Pose::ALL.into_iter().filter(|pose| one.as_ref().is_none_or(|one| *one == pose.id())) {
            poses(&figure, &eye, pose)?;
        }
    }
    if wanted("sides") {
        sides(&figure, &eye)?;
    }
    if wanted("repeat") {
        repeat(&figure, &eye)?;
    }
    Ok(())
}

fn poses(figure: &Figure, eye: &Eye, pose: Pose) -> Outcome<()> {
    let (mut masks, mut joints, mut scales) = (Vec::new(), Vec::new(), Vec::new());
    let mut widths: BTreeMap<String, Vec<f64>> = BTreeMap::new();
    for spec in bodies() {
        let (shot, view) = look(figure, eye, &Spec { pose, ..spec.clone() })?;
        let (top, floor) = (shot.truth.landmarks["vertex"].y, shot.truth.landmarks["floor"].y);
        masks.push(iou(&shot, &view));
        joints.extend(joints_pct(&shot, &view, floor - top));
        scales.push(100.0 * (view.photo.scale_cm_per_px / (spec.stature_cm / (floor - top)) - 1.0));
        for (level, error) in widths_pct(&shot, &view) {
            widths.entry(level).or_default().push(error);
        }
    }
    println!("== {} ==", pose.id());
    summary("mask IoU", &masks);
    summary("joints, % of stature", &joints);
    summary("scale error, %", &scales);
    for (level, errors) in widths {
        summary(&format!("{level} width, %"), &errors);
    }
    Ok(())
}

/// Difference of the girths of both sides; the widths seen from the front differ by about two thirds of it.
const DIFFERENCE: f64 = 0.06;

/// Whether the larger side of a limb that differs by 4 % is told.
fn sides(figure: &Figure, eye: &Eye) -> Outcome<()> {
    let base = [
        ("arm-relaxed", Segment::UpperArm, 33.0),
        ("forearm", Segment::Forearm, 27.0),
        ("thigh", Segment::Thigh, 56.0),
        ("calf", Segment::Calf, 37.0),
    ];
    let (mut right, mut all) = (0, 0);
    for (i, spec) in bodies().into_iter().enumerate() {
        for (site, segment, cm) in base {
            let cm = cm * if spec.sex == Sex::Male { 1.0 } else { 0.88 };
            let larger = if (i + segment.as_str().len()) % 2 == 0 { Side::Left } else { Side::Right };
            let of = |side: Side| {
                let share = if side == larger { 1.0 + DIFFERENCE / 2.0 } else { 1.0 - DIFFERENCE / 2.0 };
                Girth { site: site.into(), side: Some(side), cm: cm * share }
            };
            let mut spec = spec.clone();
            spec.body.girths = vec![of(Side::Left), of(Side::Right)];
            let (shot, view) = look(figure, eye, &spec)?;
            let Some(limb) = view.photo.limbs.iter().find(|l| l.segment == segment) else {
                println!("{} of body {i}: not measured", segment.as_str());
                continue;
            };
            let truth = shot.truth.limbs.iter().find(|l| l.segment == segment).ok_or("no such segment")?;
            let si = |l: f64, r: f64| 200.0 * (l - r) / (l + r);
            let (seen, real) =
                (si(limb.left_width_cm, limb.right_width_cm), si(truth.left_width_cm, truth.right_width_cm));
            all += 1;
            right += i32::from((seen > 0.0) == (larger == Side::Left));
            println!("{} of body {i}: seen {seen:.1} %, true {real:.1} %", segment.as_str());
        }
    }
    println!("larger side right: {right} of {all}");
    Ok(())
}

/// Spread of the widths of one body under small shifts, turns and lights.
fn repeat(figure: &Figure, eye: &Eye) -> Outcome<()> {
    let mut by_level: BTreeMap<String, Vec<f64>> = BTreeMap::new();
    let spec = &bodies()[0];
    for (i, (yaw, shift)) in
        [(0.0, 0.0), (3.0, 0.02), (-3.0, -0.02), (1.5, 0.01), (-1.5, 0.03), (2.0, -0.03)].into_iter().enumerate()
    {
        for light in [LightKind::Even, LightKind::Left, LightKind::Above] {
            let mut spec = spec.clone();
            (spec.camera.yaw_deg, spec.camera.shift, spec.light.kind, spec.image.seed) = (yaw, shift, light, i as u64);
            let (_, view) = look(figure, eye, &spec)?;
            let limbs = view.photo.limbs.iter().flat_map(|l| {
                [
                    (format!("{} left", l.segment.as_str()), l.left_width_cm),
                    (format!("{} right", l.segment.as_str()), l.right_width_cm),
                ]
            });
            for (level, cm) in view.photo.widths.iter().map(|w| (w.level.clone(), w.cm)).chain(limbs) {
                by_level.entry(level).or_default().push(cm);
            }
        }
    }
    println!("== repeatability under shifts, turns of up to 3 degrees and three lights ==");
    for (level, cms) in by_level {
        let mean = cms.iter().sum::<f64>() / cms.len() as f64;
        let sd = (cms.iter().map(|cm| (cm - mean).powi(2)).sum::<f64>() / (cms.len() - 1) as f64).sqrt();
        println!("{level:28} n {:3} mean {mean:6.2} cm, SD {:.2} %", cms.len(), 100.0 * sd / mean);
    }
    Ok(())
}
