//! The clients of Millrace Studio, each with a different story in the tape. All invented.

use assess::{Experience, Hand, Knowledge, Pain, Screens, Sex};
use casefile::ClientEntry;
use std::collections::BTreeMap;
use store::MADE_UP;
use units::{Measures, Side, Sides};

/// A site, a side (both when none), and what its expected size is multiplied by.
pub type Factor = (&'static str, Option<Side>, f64);

/// One round of a story.
pub struct RoundStory {
    pub weeks_ago: i64,
    pub measured_by: &'static str,
    pub weight_kg: f64,
    pub factors: &'static [Factor],
    /// A place whose two readings disagree.
    pub disagree: Option<(&'static str, Side)>,
    pub bring_up: &'static [&'static str],
}

/// A client's story.
pub struct Story {
    pub name: &'static str,
    sex: Sex,
    birth_date: &'static str,
    height_cm: f64,
    hand: Hand,
    experience: Experience,
    look: &'static str,
    week: (u8, u16),
    kit: &'static str,
    tags: &'static [&'static str],
    pain: Option<(&'static str, Option<Side>, u8)>,
    shoulder_extension_deg: Option<Sides<f64>>,
    /// Bends the body in every round.
    pub factors: &'static [Factor],
    /// The only sites taped, when not all.
    pub sites: Option<&'static [&'static str]>,
    pub rounds: &'static [RoundStory],
}

impl Story {
    /// The brief, without a name of its own.
    pub fn brief(&self, knowledge: &Knowledge) -> ClientEntry {
        let kit = knowledge.atlas.kits().iter().find(|kit| kit.id == self.kit);
        let pain = self.pain.map(|(area, side, level)| Pain { area: area.to_owned(), side, level });
        ClientEntry {
            name: self.name.to_owned(),
            sex: self.sex,
            birth_date: self.birth_date.to_owned(),
            height_cm: self.height_cm,
            dominant_hand: self.hand,
            experience: self.experience,
            look: self.look.to_owned(),
            look_weights: BTreeMap::new(),
            days_per_week: self.week.0,
            minutes_per_session: self.week.1,
            max_exercises_per_session: 8,
            equipment: kit.map(|kit| kit.items.iter().map(ToString::to_string).collect()).unwrap_or_default(),
            pain: pain.into_iter().collect(),
            screens: Screens { shoulder_extension_deg: self.shoulder_extension_deg, ..Screens::default() },
            excluded_exercises: Vec::new(),
            schools: BTreeMap::new(),
            photo_consent: None,
            home: None,
            readiness: None,
            clearance: None,
            measures: Measures::default(),
            tags: self.tags.iter().map(ToString::to_string).collect(),
        }
    }
}

const L: Option<Side> = Some(Side::Left);
const R: Option<Side> = Some(Side::Right);

/// A round without anything special.
const fn round(
    weeks_ago: i64,
    measured_by: &'static str,
    weight_kg: f64,
    factors: &'static [Factor],
    bring_up: &'static [&'static str],
) -> RoundStory {
    RoundStory { weeks_ago, measured_by, weight_kg, factors, disagree: None, bring_up }
}

/// All stories, in the order they are added.
pub fn stories() -> Vec<Story> {
    vec![
        small_calf(),
        left_arm_behind(),
        everything_level(),
        outside_the_reference(),
        too_little_measured(),
        narrow_shoulders_at_home(),
        hips_behind_with_bands(),
        sore_shoulder(),
        readings_that_disagree(),
        sides_far_apart(),
    ]
}

/// The one to look around with: small calves, a left arm behind, and a log between the second round and the third.
pub fn made_up() -> Story {
    Story {
        name: "Wren Hollis",
        birth_date: "1996-06-11",
        tags: &[MADE_UP],
        factors: &[("calf", None, 0.905), ("arm-flexed", L, 0.955), ("arm-relaxed", L, 0.96)],
        ..small_calf()
    }
}

fn small_calf() -> Story {
    Story {
        name: "Oda Fenwick",
        sex: Sex::Female,
        birth_date: "1995-02-17",
        height_cm: 168.0,
        hand: Hand::Right,
        experience: Experience::Intermediate,
        look: "sweep",
        week: (4, 70),
        kit: "full-gym",
        tags: &[],
        pain: None,
        shoulder_extension_deg: None,
        factors: &[("calf", None, 0.905)],
        sites: None,
        rounds: &const {
            [
                round(16, "MT", 62.4, &[], &["calves.gastrocnemius"]),
                round(8, "MT", 62.9, &[("calf", None, 1.006)], &["calves.gastrocnemius"]),
                round(0, "MT", 63.1, &[("calf", None, 1.018)], &["calves.gastrocnemius"]),
            ]
        },
    }
}

fn left_arm_behind() -> Story {
    Story {
        name: "Bram Quillan",
        sex: Sex::Male,
        birth_date: "1998-09-03",
        height_cm: 181.0,
        hand: Hand::Right,
        experience: Experience::Intermediate,
        look: "full-arms",
        week: (4, 70),
        kit: "small-studio",
        tags: &[],
        pain: None,
        shoulder_extension_deg: Some(Sides { left: 66.0, right: 64.0 }),
        factors: &[("arm-flexed", L, 0.95), ("arm-relaxed", L, 0.955), ("forearm", L, 0.985), ("shoulder", None, 1.03)],
        sites: None,
        rounds: &const {
            [round(9, "JV", 80.2, &[("arm-flexed", L, 0.99)], &["biceps.long"]), round(1, "MT", 81.0, &[], &[])]
        },
    }
}

fn everything_level() -> Story {
    Story {
        name: "Juno Halvard",
        sex: Sex::Female,
        birth_date: "2000-05-21",
        height_cm: 172.0,
        hand: Hand::Right,
        experience: Experience::Advanced,
        look: "balanced",
        week: (3, 60),
        kit: "full-gym",
        tags: &[],
        pain: None,
        shoulder_extension_deg: None,
        factors: &[],
        sites: None,
        rounds: &const { [round(12, "MT", 65.0, &[], &[]), round(2, "MT", 65.2, &[], &[])] },
    }
}

fn outside_the_reference() -> Story {
    Story {
        name: "Rune Castellan",
        sex: Sex::Male,
        birth_date: "1992-11-30",
        height_cm: 184.0,
        hand: Hand::Right,
        experience: Experience::Advanced,
        look: "stage-full",
        week: (6, 90),
        kit: "full-gym",
        tags: &[],
        pain: None,
        shoulder_extension_deg: Some(Sides { left: 70.0, right: 68.0 }),
        factors: &[
            ("shoulder", None, 1.19),
            ("chest", None, 1.14),
            ("arm-flexed", None, 1.33),
            ("arm-relaxed", None, 1.30),
            ("forearm", None, 1.15),
            ("thigh", None, 1.14),
            ("mid-thigh", None, 1.14),
            ("waist", None, 0.90),
            ("calf", None, 1.01),
        ],
        sites: None,
        rounds: &const {
            [
                round(14, "MT", 98.5, &[], &["calves.gastrocnemius"]),
                round(3, "MT", 99.1, &[("thigh", None, 1.01)], &["calves.gastrocnemius"]),
            ]
        },
    }
}

fn too_little_measured() -> Story {
    Story {
        name: "Nadia Pell",
        sex: Sex::Female,
        birth_date: "1987-01-08",
        height_cm: 164.0,
        hand: Hand::Both,
        experience: Experience::Beginner,
        look: "balanced",
        week: (2, 45),
        kit: "small-studio",
        tags: &[],
        pain: None,
        shoulder_extension_deg: None,
        factors: &[],
        sites: Some(&["waist", "arm-flexed"]),
        rounds: &const { [round(0, "JV", 60.3, &[], &[])] },
    }
}

fn narrow_shoulders_at_home() -> Story {
    Story {
        name: "Corvin Ashby",
        sex: Sex::Male,
        birth_date: "2004-03-12",
        height_cm: 175.0,
        hand: Hand::Left,
        experience: Experience::Beginner,
        look: "taper",
        week: (3, 50),
        kit: "home-dumbbells",
        tags: &["online"],
        pain: None,
        shoulder_extension_deg: None,
        factors: &[("shoulder", None, 0.945), ("waist", None, 1.03)],
        sites: None,
        rounds: &const { [round(1, "MT", 74.8, &[], &["delts.lateral"])] },
    }
}

fn hips_behind_with_bands() -> Story {
    Story {
        name: "Ilse Tarrow",
        sex: Sex::Female,
        birth_date: "1981-07-25",
        height_cm: 170.0,
        hand: Hand::Right,
        experience: Experience::Intermediate,
        look: "stage-hourglass",
        week: (3, 45),
        kit: "home-bands",
        tags: &["online"],
        pain: Some(("low-back", None, 3)),
        shoulder_extension_deg: None,
        factors: &[("hip", None, 0.955), ("thigh", None, 0.985)],
        sites: None,
        rounds: &const { [round(10, "MT", 61.0, &[], &["glutes.max"]), round(2, "JV", 61.4, &[("hip", None, 1.004)], &[])] },
    }
}

fn sore_shoulder() -> Story {
    Story {
        name: "Matteo Brask",
        sex: Sex::Male,
        birth_date: "1985-12-02",
        height_cm: 178.0,
        hand: Hand::Right,
        experience: Experience::Advanced,
        look: "full-arms",
        week: (4, 60),
        kit: "full-gym",
        tags: &[],
        pain: Some(("shoulder", Some(Side::Right), 3)),
        shoulder_extension_deg: Some(Sides { left: 63.0, right: 52.0 }),
        factors: &[("forearm", None, 0.94), ("arm-flexed", None, 0.97), ("arm-relaxed", None, 0.97)],
        sites: None,
        rounds: &const {
            [
                round(20, "MT", 84.0, &[], &["forearm.flexors"]),
                round(11, "JV", 83.6, &[("forearm", None, 1.004)], &["forearm.flexors"]),
                round(3, "MT", 83.1, &[("forearm", None, 1.008)], &["forearm.flexors", "triceps.long"]),
            ]
        },
    }
}

fn readings_that_disagree() -> Story {
    Story {
        name: "Sefa Orrin",
        sex: Sex::Female,
        birth_date: "1997-04-14",
        height_cm: 166.0,
        hand: Hand::Left,
        experience: Experience::Intermediate,
        look: "stage-hourglass",
        week: (5, 60),
        kit: "small-studio",
        tags: &[],
        pain: None,
        shoulder_extension_deg: None,
        factors: &[("thigh", R, 0.96), ("mid-thigh", R, 0.965)],
        sites: None,
        rounds: &const {
            [
                round(13, "MT", 59.2, &[], &[]),
                RoundStory {
                    weeks_ago: 0,
                    measured_by: "JV",
                    weight_kg: 59.9,
                    factors: &[],
                    disagree: Some(("thigh", Side::Left)),
                    bring_up: &[],
                },
            ]
        },
    }
}

fn sides_far_apart() -> Story {
    Story {
        name: "Tobin Achter",
        sex: Sex::Male,
        birth_date: "1974-08-19",
        height_cm: 180.0,
        hand: Hand::Right,
        experience: Experience::Intermediate,
        look: "balanced",
        week: (2, 60),
        kit: "small-studio",
        tags: &[],
        pain: Some(("knee", R, 2)),
        shoulder_extension_deg: None,
        factors: &[("calf", R, 0.945), ("calf", L, 1.03)],
        sites: None,
        rounds: &const { [round(5, "MT", 88.4, &[], &[])] },
    }
}
