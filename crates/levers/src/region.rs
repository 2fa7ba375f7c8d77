//! Which muscles are a region's, what ends a set, and what each region does along the range.

use crate::body::Body;
use crate::held::Held;
use crate::work::{Claim, RegionWork, Solved};
use atlas::{Exercise, Hardest};
use serde::Deserialize;
use std::collections::BTreeMap;
use std::sync::LazyLock;

/// A muscle is long from here, best length 1.
const LONG: f64 = 1.05;

/// Under this share of its most a region is as good as idle.
const IDLE: f64 = 0.2;

/// The largest under so many times the mean: even.
const EVEN: f64 = 1.5;

/// Main from this share of the largest, and this much itself.
const MAIN_OF_LARGEST: f64 = 0.5;

const MAIN_ITSELF: f64 = 0.35;

const REGIONS_FILE: &str = include_str!("../data/muscles.toml");

#[derive(Deserialize)]
struct RegionsFile {
    regions: BTreeMap<String, Vec<String>>,
}

/// Muscles of each region.
static REGIONS: LazyLock<BTreeMap<String, Vec<usize>>> = LazyLock::new(|| {
    let file: RegionsFile = toml::from_str(REGIONS_FILE).expect("the shipped regions read");
    let body = Body::shipped();
    let names: Vec<&str> = body.muscle_names().collect();
    let found = |pattern: &String| -> Vec<usize> {
        let fits = |name: &str| pattern.strip_suffix('*').map_or(name == pattern, |start| name.starts_with(start));
        (0..names.len()).filter(|place| fits(names[*place])).collect()
    };
    file.regions.into_iter().map(|(region, patterns)| (region, patterns.iter().flat_map(found).collect())).collect()
});

/// Muscles of the model that are a region's; none of blade, neck and grip.
pub fn muscles_of(region: &str) -> &'static [usize] {
    REGIONS.get(region).map_or(&[], Vec::as_slice)
}

/// By what the load must be multiplied so that the hardest-used region that it is for gives its most over the hardest fifth of the
/// range, whichever of them ends the set. What the catalogue does not name may be asked for at most twice its most: it helps out for
/// a moment, or the body finds another way. The trunk ends a set only where the exercise is for it.
pub(crate) fn limit(exercise: &Exercise, held: &Held, points: &[Solved]) -> f64 {
    let fraction =
        |region: &str| exercise.targets.iter().find(|(id, _)| id.as_str() == region).map_or(0.0, |(_, f)| *f);
    let hardest = |(region, muscles): (&String, &Vec<usize>)| {
        let fraction = fraction(region);
        let counts = fraction >= 1.0 || !TRUNK.contains(&region.as_str());
        let mut uses = mean_use(held, muscles, points);
        uses.sort_by(|a, b| b.total_cmp(a));
        let use_ = uses.iter().take(FIFTH).sum::<f64>() / FIFTH as f64;
        if !counts {
            0.0
        } else if fraction >= 0.5 {
            use_
        } else {
            use_ / HELPS_OUT
        }
    };
    let top = REGIONS.iter().map(hardest).fold(0.0, f64::max);
    if top > 1e-6 { 1.0 / top } else { 1.0 }
}

/// Points of the hardest fifth.
const FIFTH: usize = 4;

/// How much more than its most is asked of a region at most that the exercise is not for.
const HELPS_OUT: f64 = 2.0;

/// Regions whose many small muscles hold the spine.
const TRUNK: [&str; 3] = ["erectors", "abs.rectus", "abs.obliques"];

/// Mean activation of some muscles by their force, at each point.
fn mean_use(held: &Held, muscles: &[usize], points: &[Solved]) -> Vec<f64> {
    let body = Body::shipped();
    let mine = held.muscles.iter().enumerate().filter(|(_, muscle)| muscles.contains(muscle));
    let mine: Vec<(usize, f64)> = mine.map(|(place, muscle)| (place, body.muscles[*muscle].force_n)).collect();
    let whole: f64 = mine.iter().map(|(_, force)| force).sum();
    let of = |point: &Solved| mine.iter().map(|(place, force)| point.activations[*place] * force).sum::<f64>();
    points.iter().map(|point| of(point) / whole.max(1e-9)).collect()
}

/// Regions that do anything, largest share first.
pub(crate) fn regions(exercise: &Exercise, held: &Held, points: &[Solved], scale: f64) -> Vec<RegionWork> {
    let body = Body::shipped();
    let mut all: Vec<RegionWork> = Vec::new();
    for (region, muscles) in REGIONS.iter() {
        let mine: Vec<(usize, f64)> = held
            .muscles
            .iter()
            .enumerate()
            .filter(|(_, muscle)| muscles.contains(muscle))
            .map(|(place, muscle)| (place, body.muscles[*muscle].force_n))
            .collect();
        let whole: f64 = mine.iter().map(|(_, force)| force).sum();
        if whole <= 0.0 {
            continue;
        }
        let mean = |of: &dyn Fn(&Solved, usize) -> f64| -> Vec<f64> {
            points
                .iter()
                .map(|point| mine.iter().map(|(place, force)| of(point, *place) * force).sum::<f64>() / whole)
                .collect()
        };
        let activation: Vec<f64> = mean(&|point, place| point.activations[place] * scale);
        let length: Vec<f64> = mean(&|point, place| point.lengths[place]);
        all.push(region_work(region, &activation, &length));
    }
    let largest = all.iter().map(|work| work.share).fold(0.0, f64::max);
    for work in &mut all {
        let fraction =
            exercise.targets.iter().find(|(id, _)| id.as_str() == work.region).map(|(_, fraction)| *fraction);
        work.catalogue = fraction.map(|fraction| Claim {
            fraction,
            hardest: exercise.hardest.iter().map(|hardest| letter(*hardest).to_owned()).collect(),
            stretch: exercise.stretch,
        });
        let main = work.share >= MAIN_OF_LARGEST * largest && work.share >= MAIN_ITSELF;
        let bites = |catalogue: &Claim| catalogue.hardest.contains(&work.bites);
        work.agrees = work.catalogue.as_ref().map(|catalogue| {
            let named = catalogue.fraction >= 1.0;
            named == main && (!named || bites(catalogue))
        });
    }
    all.retain(|work| work.share >= 0.02 || work.catalogue.is_some());
    all.sort_by(|a, b| b.share.total_cmp(&a.share));
    all
}

fn letter(hardest: Hardest) -> &'static str {
    match hardest {
        Hardest::L => "L",
        Hardest::M => "M",
        Hardest::S => "S",
        Hardest::E => "E",
    }
}

fn region_work(region: &str, activation: &[f64], length: &[f64]) -> RegionWork {
    let count = activation.len() as f64;
    let share = activation.iter().sum::<f64>() / count;
    let most = activation.iter().copied().fold(0.0, f64::max);
    let long = activation.iter().zip(length).filter(|(_, length)| **length > LONG);
    let idle = activation.iter().filter(|use_| **use_ < IDLE * most).count();
    let rounded = |value: f64| (value * 1e4).round() / 1e4;
    RegionWork {
        region: region.to_owned(),
        share: rounded(share),
        bites: bites(activation, length, share, most).to_owned(),
        long_load: rounded(long.map(|(use_, _)| use_).sum::<f64>() / count),
        dead_range: rounded(idle as f64 / count),
        activation: activation.iter().copied().map(rounded).collect(),
        length: length.iter().copied().map(rounded).collect(),
        catalogue: None,
        agrees: None,
    }
}

fn bites(activation: &[f64], length: &[f64], share: f64, most: f64) -> &'static str {
    if most < EVEN * share {
        return "E";
    }
    let (low, high) = length.iter().fold((f64::INFINITY, 0.0_f64), |(low, high), at| (low.min(*at), high.max(*at)));
    let hardest = activation.iter().position(|use_| (*use_ - most).abs() < 1e-12).unwrap_or_default();
    match (length[hardest] - low) / (high - low).max(1e-9) {
        part if part < 1.0 / 3.0 => "S",
        part if part > 2.0 / 3.0 => "L",
        _ => "M",
    }
}
