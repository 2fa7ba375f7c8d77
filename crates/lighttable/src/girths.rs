//! Girths from the pictures of one day: how broad a level is from the front, how deep the same level is from the side.
//!
//! `ln G = ln g + alpha ln w + (1 - alpha) ln d` for breadth w and depth d, both of the outline; where no depth is seen
//! `ln G = ln g' + ln w`, which knows less. The constants are fitted by `reference/girths.py`.

use crate::outlines::{Pictured, stands};
use assess::{GirthFrom, PictureGirth};
use serde::Deserialize;
use std::collections::BTreeMap;
use units::{Length, Side, SiteId};
use vision::{Photo, PhotoPose, Profile};

/// As `reference/girths.py` writes them.
const SHIPPED: &str = include_str!("../data/girths.toml");
/// How far about a level its depth is looked for, as shares of stature.
const ABOUT: f64 = 0.01;
/// Where the tape lies over the fullest or the thinnest place, the side finds that place for itself nearby.
const FULLEST: (&str, f64) = ("hip", 0.03);
const THINNEST: [(&str, f64); 2] = [("ankle", 0.02), ("neck", 0.02)];

/// Constants of one site.
#[derive(Clone, Copy, Debug, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Shape {
    /// ln g with breadth and depth; left out where the side does not show the site.
    pub ln_g: Option<f64>,
    /// Share of the breadth; the depth has the rest.
    pub alpha: Option<f64>,
    /// ln g' with the breadth alone.
    pub ln_g_breadth: f64,
}

/// Constants by site.
#[derive(Clone, Debug, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct GirthShapes {
    /// On how many made-up bodies they were fitted.
    pub bodies: u32,
    site: BTreeMap<SiteId, Shape>,
}

/// The constants that ship cannot be read.
#[derive(Debug, thiserror::Error)]
#[error("the constants of girths from pictures: {0}")]
pub struct ShapesError(#[from] toml::de::Error);

impl GirthShapes {
    /// The constants that ship.
    ///
    /// # Errors
    /// [`ShapesError`] when the shipped file is damaged.
    pub fn shipped() -> Result<Self, ShapesError> {
        Ok(toml::from_str(SHIPPED)?)
    }

    /// The constants of a site.
    pub fn of(&self, site: &SiteId) -> Option<&Shape> {
        self.site.get(site)
    }
}

/// A girth that the pictures do not show.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct MissingGirth {
    /// The site.
    pub site: SiteId,
    /// Why, and what would show it.
    pub why: String,
}

/// What pictures of one day say of girths.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct PictureGirths {
    /// Girths in the order of the sites, left before right.
    pub girths: Vec<PictureGirth>,
    /// Sites without one, or known by their breadth alone though the side could show them.
    pub missing: Vec<MissingGirth>,
}

/// A breadth: the mean of the pictures that show it.
#[derive(Clone, Debug, PartialEq)]
pub struct Breadth {
    /// The site.
    pub site: SiteId,
    /// The client's side at a paired site.
    pub side: Option<Side>,
    /// cm.
    pub cm: f64,
    /// Height of the level above the floor, as a share of stature.
    pub at: f64,
}

/// Two pictures of a level that differ by more than this share: in one the outline took in something behind it.
const SAME_LEVEL: f64 = 0.06;
/// Both sides of nobody differ by more than this share: beside the larger the outline took in something else.
const NO_LIMBS: f64 = 0.25;

/// Breadths at the tape's levels over all pictures that show them: their mean, or the narrowest where they differ too much, for what
/// is behind a body only widens it. A side that is no limb's against the other is left out.
pub fn breadths(photos: &[&Photo]) -> Vec<Breadth> {
    let mut found: Vec<(Breadth, Vec<f64>)> = Vec::new();
    for section in photos.iter().flat_map(|photo| &photo.sections) {
        let same = |(known, _): &&mut (Breadth, Vec<f64>)| known.site == section.site && known.side == section.side;
        if let Some((known, all)) = found.iter_mut().find(same) {
            all.push(section.cm);
            known.at += (section.at - known.at) / all.len() as f64;
        } else {
            let (site, side) = (section.site.clone(), section.side);
            found.push((Breadth { site, side, cm: section.cm, at: section.at }, vec![section.cm]));
        }
    }
    let breadths: Vec<Breadth> = found.into_iter().map(|(known, all)| Breadth { cm: agreed(&all), ..known }).collect();
    let other = |one: &Breadth| breadths.iter().find(|b| b.site == one.site && b.side != one.side);
    let limb = |one: &&Breadth| other(one).is_none_or(|other| one.cm < other.cm * (1.0 + NO_LIMBS));
    breadths.iter().filter(limb).cloned().collect()
}

fn agreed(all: &[f64]) -> f64 {
    let least = all.iter().copied().fold(f64::INFINITY, f64::min);
    let apart = all.iter().any(|cm| *cm > least * (1.0 + SAME_LEVEL));
    if apart { least } else { all.iter().sum::<f64>() / all.len() as f64 }
}

/// Depths from the side: by flank, pictures with the arms held forward before those with hanging arms.
#[derive(Clone, Debug, Default)]
pub struct Depths<'a>(Vec<Flank<'a>>);

#[derive(Clone, Copy, Debug)]
struct Flank<'a> {
    side: Side,
    arms_forward: bool,
    profile: &'a Profile,
}

/// Sites over which a hanging arm or the shoulder's own roundness lies so far that only arms held forward show how deep they are: on
/// booth figures with hanging arms they came out 6 % too deep and 4 % too shallow.
const ARMS_FORWARD: [&str; 2] = ["abdomen", "neck"];

impl<'a> Depths<'a> {
    /// The depths that pictures show.
    pub fn of(photos: &[&'a Photo]) -> Self {
        let order = [PhotoPose::SLA, PhotoPose::SRA, PhotoPose::SL, PhotoPose::SR];
        let shown = order.into_iter().flat_map(|pose| photos.iter().filter(move |photo| photo.pose == pose));
        let flank = |photo: &&'a Photo| {
            let side = if matches!(photo.pose, PhotoPose::SLA | PhotoPose::SL) { Side::Left } else { Side::Right };
            let arms_forward = matches!(photo.pose, PhotoPose::SLA | PhotoPose::SRA);
            photo.profile.as_ref().map(|profile| Flank { side, arms_forward, profile })
        };
        Self(shown.filter_map(flank).collect())
    }

    /// Whether there is no picture from the side.
    pub fn is_empty(&self) -> bool {
        self.0.is_empty()
    }

    /// The depth at a level, cm. Of a leg its own flank counts where there is one: it is the nearer.
    pub fn at(&self, site: &SiteId, side: Option<Side>, at: f64) -> Option<f64> {
        let needs_forward = ARMS_FORWARD.contains(&site.as_str());
        let shows = self.0.iter().filter(|flank| flank.arms_forward || !needs_forward);
        let all: Vec<(Side, f64)> =
            shows.filter_map(|flank| depth(flank.profile, site, at).map(|cm| (flank.side, cm))).collect();
        if let Some(side) = side {
            let own = all.iter().find(|(flank, _)| *flank == side);
            return own.or(all.first()).map(|(_, cm)| *cm);
        }
        let one = |flank: Side| all.iter().find(|(side, _)| *side == flank).map(|(_, cm)| *cm);
        match (one(Side::Left), one(Side::Right)) {
            (Some(left), Some(right)) => Some(f64::midpoint(left, right)),
            (left, right) => left.or(right),
        }
    }
}

fn depth(profile: &Profile, site: &SiteId, at: f64) -> Option<f64> {
    let site = site.as_str();
    if site == FULLEST.0 {
        return profile.between(at - FULLEST.1, at + FULLEST.1)?.into_iter().max_by(f64::total_cmp);
    }
    if let Some((_, about)) = THINNEST.iter().find(|(thin, _)| *thin == site) {
        return profile.between(at - about, at + about)?.into_iter().min_by(f64::total_cmp);
    }
    let seen = profile.between(at - ABOUT, at + ABOUT)?;
    Some(seen.iter().sum::<f64>() / seen.len() as f64)
}

/// Girths from the pictures of one day, of those that count: a person found for sure, standing straight, whole, and not perhaps the
/// wrong way round.
pub fn girths(shapes: &GirthShapes, pictures: &[Pictured<'_>]) -> PictureGirths {
    let counting: Vec<&Photo> = pictures.iter().filter(|p| counts_girths(**p)).map(|p| p.photo).collect();
    let mut said = PictureGirths::default();
    let (breadths, depths) = (breadths(&counting), Depths::of(&counting));
    for (site, shape) in &shapes.site {
        let of_site: Vec<&Breadth> = breadths.iter().filter(|breadth| breadth.site == *site).collect();
        if of_site.is_empty() {
            said.missing.push(MissingGirth { site: site.clone(), why: unseen(site, pictures) });
            continue;
        }
        let mut shallow = false;
        for breadth in of_site {
            let deep = shape.ln_g.zip(shape.alpha).and_then(|(ln_g, alpha)| {
                let depth = depths.at(site, breadth.side, breadth.at)?;
                Some(ln_g + alpha * breadth.cm.ln() + (1.0 - alpha) * depth.ln())
            });
            shallow |= shape.ln_g.is_some() && deep.is_none();
            let (ln_girth, from) = match deep {
                Some(ln_girth) => (ln_girth, GirthFrom::BreadthDepth),
                None => (shape.ln_g_breadth + breadth.cm.ln(), GirthFrom::Breadth),
            };
            let Ok(value) = Length::from_cm(ln_girth.exp()) else { continue };
            said.girths.push(PictureGirth { site: site.clone(), side: breadth.side, value, from });
        }
        if shallow {
            said.missing.push(MissingGirth { site: site.clone(), why: no_depth(depths.is_empty()).to_owned() });
        }
    }
    said
}

fn counts_girths(picture: Pictured<'_>) -> bool {
    let photo = picture.photo;
    stands(photo) && (photo.pose.from_the_side() || picture.mirrored.is_some())
}

/// Why no breadth is seen: the first thing wrong with a picture that would show it, or that none does.
fn unseen(site: &SiteId, pictures: &[Pictured<'_>]) -> String {
    let (poses, needed): (&[PhotoPose], _) = match site.as_str() {
        "arm-flexed" => (&[PhotoPose::FDB, PhotoPose::BDB], "no picture of a double biceps shows the bent arm"),
        _ => (&[PhotoPose::F, PhotoPose::B], "no front or back picture shows it free of the rest of the body"),
    };
    let shown = pictures.iter().find(|picture| poses.contains(&picture.photo.pose) && !counts_girths(**picture));
    let Some(picture) = shown else { return needed.to_owned() };
    let failed = picture.photo.quality.iter().find(|check| !check.ok);
    let why = match (&picture.photo.why_not, failed) {
        (Some(why), _) => why.clone(),
        (None, Some(check)) if !stands(picture.photo) => check.says.clone(),
        _ if picture.mirrored.is_none() => "nobody has said whether it is a mirror picture".to_owned(),
        _ => "its outline is not sure".to_owned(),
    };
    format!("the {} picture does not count: {why}", picture.photo.pose.id())
}

fn no_depth(no_side: bool) -> &'static str {
    if no_side {
        "no picture from the side: known by its breadth alone"
    } else {
        "from the side an arm or shoulder lies over it: known by its breadth alone; a side picture with the arms held forward shows it"
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;
    use vision::{Check, QualityCheck, Section};

    /// A picture in a pose with nothing wrong with it and nothing measured in it.
    fn photo(pose: PhotoPose) -> Photo {
        let text = format!(
            r#"{{"format": "orthomer-photo", "version": 1, "pose": "{}", "pose_guessed": false, "width_px": 800, "height_px": 1200,
            "person": true, "scale_cm_per_px": 0.178, "mask_confidence": 0.95, "landmarks": {{}}, "widths": [], "limbs": [],
            "quality": []}}"#,
            pose.id()
        );
        serde_json::from_str(&text).unwrap()
    }

    fn section(site: &str, side: Option<Side>, cm: f64) -> Section {
        Section { site: site.parse().unwrap(), side, cm, at: 0.6 }
    }

    fn front(sections: &[Section]) -> Photo {
        Photo { sections: sections.to_vec(), ..photo(PhotoPose::F) }
    }

    /// From the side as deep as `cm` everywhere; nothing seen between two levels.
    fn side(pose: PhotoPose, cm: f64, hidden: std::ops::Range<f64>) -> Photo {
        let depth = |index: usize| (!hidden.contains(&Profile::level(index))).then_some(cm);
        let profile = Profile { depth_cm: (0..Profile::LEVELS).map(depth).collect() };
        Photo { profile: Some(profile), ..photo(pose) }
    }

    /// One site with depth, one without: g and g' are 3, alpha a half.
    fn shapes() -> GirthShapes {
        let ln = 3.0_f64.ln();
        toml::from_str(&format!(
            "bodies = 2\n[site.waist]\nln_g = {ln}\nalpha = 0.5\nln_g_breadth = {ln}\n[site.wrist]\nln_g_breadth = {ln}\n\
             [site.thigh]\nln_g = {ln}\nalpha = 0.5\nln_g_breadth = {ln}\n"
        ))
        .unwrap()
    }

    fn said(photos: &[Photo]) -> PictureGirths {
        let pictures: Vec<Pictured<'_>> =
            photos.iter().map(|photo| Pictured { photo, mirrored: Some(false) }).collect();
        girths(&shapes(), &pictures)
    }

    fn of<'a>(said: &'a PictureGirths, site: &str, side: Option<Side>) -> Option<&'a PictureGirth> {
        said.girths.iter().find(|girth| girth.site.as_str() == site && girth.side == side)
    }

    const NOWHERE: std::ops::Range<f64> = 2.0..3.0;

    // By hand: 3 times the root of 32 and 18 is 72; of the breadth alone 3 times 32 is 96.
    #[rstest]
    #[case::broad_and_deep(vec![side(PhotoPose::SL, 18.0, NOWHERE)], 72.0, GirthFrom::BreadthDepth)]
    #[case::both_sides_count_alike(
        vec![side(PhotoPose::SL, 17.0, NOWHERE), side(PhotoPose::SR, 19.0, NOWHERE)], 72.0, GirthFrom::BreadthDepth
    )]
    #[case::arms_forward_come_before_arms_that_hang(
        vec![side(PhotoPose::SL, 25.0, NOWHERE), side(PhotoPose::SLA, 18.0, NOWHERE)], 72.0, GirthFrom::BreadthDepth
    )]
    #[case::what_an_arm_hides_is_seen_with_the_arms_forward(
        vec![side(PhotoPose::SLA, 18.0, NOWHERE), side(PhotoPose::SL, 25.0, 0.5..0.7)], 72.0, GirthFrom::BreadthDepth
    )]
    #[case::no_side(vec![], 96.0, GirthFrom::Breadth)]
    #[case::an_arm_over_the_level(vec![side(PhotoPose::SL, 18.0, 0.5..0.7)], 96.0, GirthFrom::Breadth)]
    fn a_girth_follows_from_breadth_and_depth(#[case] sides: Vec<Photo>, #[case] cm: f64, #[case] from: GirthFrom) {
        let mut photos = vec![front(&[section("waist", None, 32.0)])];
        photos.extend(sides);
        let said = said(&photos);
        let waist = of(&said, "waist", None).unwrap();
        assert!((waist.value.cm() - cm).abs() < 1e-9 && waist.from == from, "{waist:?}");
        let lacking = said.missing.iter().any(|missing| missing.site.as_str() == "waist");
        assert_eq!(lacking, from == GirthFrom::Breadth);
    }

    #[test]
    fn of_a_leg_its_own_flank_counts() {
        let legs = [section("thigh", Some(Side::Left), 18.0), section("thigh", Some(Side::Right), 18.0)];
        let photos = [front(&legs), side(PhotoPose::SL, 18.0, NOWHERE), side(PhotoPose::SR, 32.0, NOWHERE)];
        let said = said(&photos);
        let cm = |side| of(&said, "thigh", Some(side)).unwrap().value.cm();
        assert!((cm(Side::Left) - 54.0).abs() < 1e-9 && (cm(Side::Right) - 72.0).abs() < 1e-9);
    }

    // By hand: 3 times their mean of 5.1, or 3 times the narrower.
    #[rstest]
    #[case::alike(5.2, 15.3)]
    #[case::something_behind_it_in_one(6.0, 15.0)]
    fn front_and_back_agree_or_the_narrower_counts(#[case] behind: f64, #[case] cm: f64) {
        let back = Photo { sections: vec![section("wrist", Some(Side::Left), behind)], ..photo(PhotoPose::B) };
        let said = said(&[front(&[section("wrist", Some(Side::Left), 5.0)]), back]);
        assert!((of(&said, "wrist", Some(Side::Left)).unwrap().value.cm() - cm).abs() < 1e-9);
    }

    #[test]
    fn a_side_that_is_no_limb_s_against_the_other_is_left_out() {
        let wrists = [section("wrist", Some(Side::Left), 5.0), section("wrist", Some(Side::Right), 6.6)];
        let said = said(&[front(&wrists)]);
        assert!(of(&said, "wrist", Some(Side::Left)).is_some() && of(&said, "wrist", Some(Side::Right)).is_none());
    }

    fn turned() -> Photo {
        let check = Check {
            check: QualityCheck::Turn,
            value: 9.0,
            unit: "%".to_owned(),
            ok: false,
            says: "turned to the left".to_owned(),
        };
        Photo { quality: vec![check], ..front(&[section("waist", None, 32.0)]) }
    }

    #[rstest]
    #[case::nobody_shows_it(front(&[]), Some(false), "no front or back picture shows it free of the rest of the body")]
    #[case::a_turned_picture(turned(), Some(false), "the F picture does not count: turned to the left")]
    #[case::perhaps_the_wrong_way_round(
        front(&[section("waist", None, 32.0)]), None, "the F picture does not count: nobody has said whether it is a mirror picture"
    )]
    #[case::nobody_sure(
        Photo { mask_confidence: 0.2, ..front(&[section("waist", None, 32.0)]) }, Some(false),
        "the F picture does not count: its outline is not sure"
    )]
    fn what_is_not_shown_has_its_reason(#[case] photo: Photo, #[case] mirrored: Option<bool>, #[case] why: &str) {
        let said = girths(&shapes(), &[Pictured { photo: &photo, mirrored }]);
        assert!(said.girths.is_empty());
        let waist = said.missing.iter().find(|missing| missing.site.as_str() == "waist").unwrap();
        assert_eq!(waist.why, why);
    }

    #[test]
    fn what_is_said_of_the_error_holds_on_bodies_that_were_held_out() {
        let settings = &atlas::Atlas::load().unwrap().evidence().pictures_pct.clone();
        let fixture = include_str!("../../../reference/fixtures/girths.csv");
        let rows: Vec<Vec<&str>> = fixture.lines().skip(1).map(|line| line.split(',').collect()).collect();
        let known: Vec<&Vec<&str>> =
            rows.iter().filter(|row| row.len() == 6 && row[0].parse::<SiteId>().is_ok()).collect();
        assert!(known.len() >= 45, "{}", known.len());
        let shipped = GirthShapes::shipped().unwrap();
        for row in known {
            let site: SiteId = row[0].parse().unwrap();
            let (rms, said) =
                (row[4].parse::<f64>().unwrap(), settings.error_pct(&site, shipped.of(&site).unwrap().ln_g.is_some()));
            assert!(rms <= said, "{site}, {}: {rms} % off, said {said}", row[1]);
        }
    }

    #[test]
    fn what_is_said_of_a_change_holds_between_two_days_of_one_body() {
        let settings = &atlas::Atlas::load().unwrap().evidence().pictures_pct.clone();
        let fixture = include_str!("../../../reference/fixtures/girth_changes.csv");
        let rows: Vec<Vec<&str>> = fixture.lines().skip(1).map(|line| line.split(',').collect()).collect();
        assert_eq!(rows.len(), 15, "every site that pictures show");
        for row in rows {
            let site: SiteId = row[0].parse().unwrap();
            let (rms, said) = (row[2].parse::<f64>().unwrap(), settings.repeat_pct(&site) * std::f64::consts::SQRT_2);
            assert!(rms <= said, "{site}: {rms} % apart, said {said}");
        }
    }

    // Sites of the tape that pictures show; where the side shows them, with their depth.
    #[rstest]
    #[case("waist", true)]
    #[case("abdomen", true)]
    #[case("hip", true)]
    #[case("chest", true)]
    #[case("thigh", true)]
    #[case("mid-thigh", true)]
    #[case("knee", true)]
    #[case("calf", true)]
    #[case("ankle", true)]
    #[case("neck", true)]
    #[case("shoulder", false)]
    #[case("arm-relaxed", false)]
    #[case("arm-flexed", false)]
    #[case("forearm", false)]
    #[case("wrist", false)]
    fn every_site_has_constants_of_a_round_body(#[case] site: &str, #[case] deep: bool) {
        let shipped = GirthShapes::shipped().unwrap();
        let shape = shipped.of(&site.parse().unwrap()).unwrap();
        assert_eq!(shape.ln_g.is_some() && shape.alpha.is_some(), deep);
        // A circle's girth is pi times its breadth; a flat strip's twice. Shoulders are seen with the arms hanging beside them.
        let round = shape.ln_g.unwrap_or(shape.ln_g_breadth).exp();
        assert!((2.0..4.2).contains(&round), "{round}");
        assert!(shape.alpha.is_none_or(|alpha| (0.3..1.0).contains(&alpha)), "{:?}", shape.alpha);
    }
}
