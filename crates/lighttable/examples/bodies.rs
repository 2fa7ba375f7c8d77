//! Breadths, depths and true girths of made-up bodies, as CSV: what `reference/girths.py` fits the constants to.
//! `cargo run --profile quick -p lighttable --example bodies > reference/fixtures/girth_bodies.csv`

use booth::{Body, Figure, Girth, LightKind, Pose, Room, SITES, Sex, Sitter, Skin, Spec};
use lighttable::{Breadth, Depths, breadths};
use std::collections::BTreeMap;
use units::Side;
use vision::{Ask, Eye, Photo, PhotoPose};

type Outcome<T> = Result<T, Box<dyn std::error::Error>>;

/// Bodies that the constants are fitted to, and those they are held against.
const FITTED: u32 = 32;
const HELD_OUT: u32 = 12;
/// Poses that say something of a girth.
const POSES: [Pose; 7] = [Pose::F, Pose::B, Pose::SL, Pose::SR, Pose::SLA, Pose::SRA, Pose::FDB];

/// Numbers without a pattern, the same on every machine (Knuth's constants for a 64-bit congruential generator).
struct Chance(u64);

impl Chance {
    fn between(&mut self, low: f64, high: f64) -> f64 {
        self.0 = self.0.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        low + (high - low) * f64::from((self.0 >> 40) as u32) / f64::from(1_u32 << 24)
    }
}

/// A body of its own: sex, stature, build, and every girth a little off what the build gives.
fn body(figure: &Figure, number: u32) -> Outcome<Spec> {
    let mut chance = Chance(u64::from(number) * 7919 + 17);
    let sex = if number.is_multiple_of(2) { Sex::Male } else { Sex::Female };
    let stature = if sex == Sex::Male { chance.between(166.0, 194.0) } else { chance.between(154.0, 180.0) };
    let mut spec = Spec::standing(stature, sex, Pose::F);
    spec.body = Body { muscle: chance.between(0.2, 1.0), weight: chance.between(0.2, 0.85), ..Body::default() };
    spec.image.width = 300;
    spec.image.height = 400;
    let plain = booth::shoot(figure, &spec)?.truth.girths;
    let mut asked = Vec::new();
    for girth in plain {
        let Some(site) = SITES.iter().find(|site| site.id == girth.site) else { continue };
        let cm = (girth.cm * chance.between(0.95, 1.06)).clamp(site.bounds_cm.0, site.bounds_cm.1);
        asked.push(Girth { cm, ..girth });
    }
    spec.body.girths = asked;
    (spec.image.width, spec.image.height) = (900, 1200);
    spec.skin = [Skin::Light, Skin::Middle, Skin::Dark][number as usize % 3];
    spec.light.kind = [LightKind::Even, LightKind::Left, LightKind::Right, LightKind::Above][number as usize % 4];
    spec.light.seed = u64::from(number);
    Ok(spec)
}

fn look(figure: &Figure, eye: &Eye, sitter: &Sitter, spec: &Spec) -> Outcome<(Photo, Vec<Girth>)> {
    let shot = sitter.shoot(figure, spec)?;
    let pose = PhotoPose::ALL.into_iter().find(|pose| pose.id() == spec.pose.id());
    let ask = Ask { stature_cm: spec.stature_cm, pose, distance_m: Some(spec.camera.distance_m), ..Ask::default() };
    Ok((eye.look(&shot.picture, ask)?.photo, shot.truth.girths))
}

fn main() -> Outcome<()> {
    let (figure, eye) = (Figure::load()?, Eye::load()?);
    // A part of them, when asked for: so that two halves can be made side by side.
    let asked = |place: usize, all: u32| std::env::args().nth(place).and_then(|text| text.parse().ok()).unwrap_or(all);
    let (from, to) = (asked(1, 0), asked(2, FITTED + HELD_OUT));
    if from == 0 {
        println!("body,sex,held_out,room,turn_deg,site,side,breadth_cm,depth_cm,depth_arms_forward_cm,girth_cm");
    }
    for number in from..to {
        let spec = body(&figure, number)?;
        let sitter = Sitter::of(&figure, &spec)?;
        let held_out = number >= FITTED;
        let mut chance = Chance(u64::from(number) * 104_729 + 3);
        let ways: &[(Room, f64)] =
            if held_out { &[(Room::Plain, 0.0), (Room::Busy, 0.0), (Room::Plain, 3.0)] } else { &[(Room::Plain, 1.5)] };
        for (room, most) in ways {
            let mut photos = BTreeMap::new();
            let mut truth = Vec::new();
            for pose in POSES {
                let mut spec = Spec { pose, room: *room, ..spec.clone() };
                spec.camera.yaw_deg = chance.between(-most, *most);
                spec.image.seed = u64::from(number) * 16 + pose as u64;
                let (photo, girths) = look(&figure, &eye, &sitter, &spec)?;
                photos.insert(pose.id(), photo);
                truth = girths;
            }
            rows(&format!("{number},{:?},{},{room:?},{most}", spec.sex, u8::from(held_out)), &photos, &truth);
        }
    }
    Ok(())
}

fn rows(begins: &str, photos: &BTreeMap<String, Photo>, truth: &[Girth]) {
    let of = |poses: &[&str]| -> Vec<&Photo> { poses.iter().filter_map(|pose| photos.get(*pose)).collect() };
    let fronts = breadths(&of(&["F", "B", "FDB"]));
    let [hanging, forward] = [["SL", "SR"], ["SLA", "SRA"]].map(|poses| Depths::of(&of(&poses)));
    for Breadth { site, side, cm, at } in fronts {
        let Some(girth) = truth.iter().find(|girth| girth.site == site.as_str() && girth.side == side) else {
            continue;
        };
        let depth = |depths: &Depths| depths.at(&site, side, at).map_or(String::new(), |cm| format!("{cm:.2}"));
        let side = side.map_or(String::new(), |side: Side| side.to_string());
        println!("{begins},{site},{side},{cm:.2},{},{},{:.2}", depth(&hanging), depth(&forward), girth.cm);
    }
}
