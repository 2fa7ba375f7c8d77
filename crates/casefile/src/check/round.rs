//! One round: date, weight, tape, skinfolds, ratings, outlines, tests.

use super::{Checker, tape, tests};
use crate::problem::{Problem, unknown};
use crate::raw::{RatingEntry, RoundEntry, SkinfoldEntry};
use crate::text::is_one_line;
use assess::{Outline, Rating, RatingJudgement, Round, Skinfolds};
use atlas::Atlas;
use jiff::civil::Date;
use std::collections::{BTreeMap, HashSet};
use units::{Length, Mass, Place, PoseId, Sides, SiteId, Skinfold};

const WEIGHT_KG: [f64; 2] = [30.0, 300.0];
const OUTLINE_CM: [f64; 2] = [3.0, 40.0];
const LEVEL_CM: [f64; 2] = [0.0, 80.0];
const RATER_SD: [f64; 2] = [0.1, 4.0];
const SITTING_CHARS: usize = 60;
const SCORE: std::ops::RangeInclusive<i8> = -2..=2;

pub(super) fn resolve_all(check: &mut Checker, entries: &[RoundEntry], as_of: Option<Date>) -> Vec<Round> {
    let mut rounds: Vec<Round> = Vec::new();
    for (i, entry) in entries.iter().enumerate() {
        let at = Place::root().at("rounds").at(i);
        let Some(round) = resolve(check, &at, entry, as_of) else { continue };
        if rounds.iter().any(|other| other.date == round.date) {
            check.fail::<()>(at.at("date"), format!("there are two rounds on {}", round.date));
        }
        rounds.push(round);
    }
    rounds.sort_by_key(|round| round.date);
    rounds
}

fn resolve(check: &mut Checker, at: &Place, entry: &RoundEntry, as_of: Option<Date>) -> Option<Round> {
    let date = check.date(&at.at("date"), &entry.date);
    if let (Some(date), Some(as_of)) = (date, as_of)
        && date > as_of
    {
        check.fail::<()>(at.at("date"), format!("the round of {date} is after as_of, {as_of}"));
    }
    if entry.measured_by.trim().is_empty() {
        check.fail::<()>(at.at("measured_by"), "who held the tape is needed: expected initials or a name");
    }
    let weight = entry.weight_kg.and_then(|kg| weight(check, &at.at("weight_kg"), kg));
    let tape = tape::resolve(check, &at.at("tape"), &entry.tape);
    let skinfolds = skinfolds(check, &at.at("skinfolds"), &entry.skinfolds);
    let ratings = ratings(check, &at.at("ratings"), &entry.ratings);
    let outlines = outlines(check, &at.at("outlines"), entry);
    let picture_girths = tape::pictured(check, &at.at("picture_girths"), &entry.picture_girths);
    let levels = levels(check, &at.at("levels_cm"), &entry.levels_cm);
    let tests = tests::resolve(check, &at.at("tests"), &entry.tests);
    let measured_by = entry.measured_by.trim().to_owned();
    Some(Round { date: date?, weight, measured_by, tape, levels, skinfolds, ratings, outlines, picture_girths, tests })
}

fn weight(check: &mut Checker, at: &Place, kg: f64) -> Option<Mass> {
    let kg = check.number(at, "a weight of", kg, WEIGHT_KG, " kg")?;
    check.take(at, Mass::from_kg(kg))
}

/// Checks a body mass on its own. `at` is its pointer.
///
/// # Errors
/// The problem.
pub fn check_weight(atlas: &Atlas, at: &Place, kg: f64) -> Result<Mass, Vec<Problem>> {
    let mut check = Checker::new(atlas);
    weight(&mut check, at, kg).ok_or(check.problems)
}

/// Checks levels of the tape; what passes is returned beside the problems of the rest. `at` is the pointer of the map.
pub fn check_levels(
    atlas: &Atlas,
    at: &Place,
    entries: &BTreeMap<String, f64>,
) -> (BTreeMap<SiteId, Length>, Vec<Problem>) {
    let mut check = Checker::new(atlas);
    let levels = levels(&mut check, at, entries);
    (levels, check.problems)
}

fn levels(check: &mut Checker, at: &Place, entries: &BTreeMap<String, f64>) -> BTreeMap<SiteId, Length> {
    let mut resolved = BTreeMap::new();
    for (id, cm) in entries {
        let at = at.at(id);
        let found = id.parse::<SiteId>().ok().and_then(|id| check.atlas.site(&id));
        let Some(site) = found.filter(|site| site.level_from.is_some()) else {
            let with = check.atlas.sites().iter().filter(|site| site.level_from.is_some());
            let says = unknown("site whose level is noted", id, with.map(|site| site.id.as_str()));
            check.fail::<()>(at, says);
            continue;
        };
        let cm = check.number(&at, "a level of", *cm, LEVEL_CM, " cm");
        let level = cm.and_then(|cm| check.take(&at, Length::from_cm(cm)));
        resolved.extend(level.map(|level| (site.id.clone(), level)));
    }
    resolved
}

/// Checks skinfolds; what passes is returned beside the problems of the rest. `at` is the pointer of the list.
pub fn check_skinfolds(atlas: &Atlas, at: &Place, entries: &[SkinfoldEntry]) -> (Vec<Skinfolds>, Vec<Problem>) {
    let mut check = Checker::new(atlas);
    let folds = skinfolds(&mut check, at, entries);
    (folds, check.problems)
}

fn skinfolds(check: &mut Checker, at: &Place, entries: &[SkinfoldEntry]) -> Vec<Skinfolds> {
    let mut seen = HashSet::new();
    let mut resolved = Vec::new();
    for (i, entry) in entries.iter().enumerate() {
        let at = at.at(i);
        if !seen.insert((&entry.site, entry.side)) {
            check.fail::<()>(&at, format!("the {} skinfold stands twice in this round", entry.site));
            continue;
        }
        resolved.extend(skinfold(check, &at, entry));
    }
    resolved
}

fn skinfold(check: &mut Checker, at: &Place, entry: &SkinfoldEntry) -> Option<Skinfolds> {
    let found = entry.site.parse::<SiteId>().ok().and_then(|id| check.atlas.skinfold(&id));
    let Some(site) = found else {
        let says = unknown("skinfold site", &entry.site, check.atlas.skinfolds().iter().map(|s| s.id.as_str()));
        return check.fail(at.at("site"), says);
    };
    let list = at.at("readings_mm");
    let count = entry.readings_mm.len();
    if count == 0 || count > tape::MAX_READINGS {
        return check.fail(list, format!("{count} readings of {}: expected 1 to {}", site.id, tape::MAX_READINGS));
    }
    let each: Vec<Option<Skinfold>> = (entry.readings_mm.iter().enumerate())
        .map(|(i, mm)| {
            let at = list.at(i);
            let mm = check.number(&at, "a skinfold of", *mm, site.bounds_mm, " mm")?;
            check.take(&at, Skinfold::from_mm(mm))
        })
        .collect();
    Some(Skinfolds { site: site.id.clone(), side: entry.side, readings: each.into_iter().collect::<Option<_>>()? })
}

/// Checks one rating on its own. `at` is its pointer.
///
/// # Errors
/// All problems.
pub fn check_rating(atlas: &Atlas, at: &Place, entry: &RatingEntry) -> Result<Rating, Vec<Problem>> {
    let mut check = Checker::new(atlas);
    let rating = rating(&mut check, at, entry);
    rating.filter(|_| check.problems.is_empty()).ok_or(check.problems)
}

fn ratings(check: &mut Checker, at: &Place, entries: &[RatingEntry]) -> Vec<Rating> {
    let each = entries.iter().enumerate();
    each.filter_map(|(i, entry)| rating(check, &at.at(i), entry)).collect()
}

fn rating(check: &mut Checker, at: &Place, entry: &RatingEntry) -> Option<Rating> {
    let region = check.region(&at.at("region"), &entry.region);
    let pose = pose(check, &at.at("pose"), &entry.pose);
    let judgement = judgement(check, at, entry);
    let (region, pose) = (region?, pose?);
    let shows = check.atlas.region(&region).is_some_and(|r| r.poses.contains(&pose));
    if !shows {
        let poses = check.atlas.region(&region).map(|r| r.poses.iter().map(PoseId::as_str).collect::<Vec<_>>());
        let says =
            format!("pose {pose} does not show {region}: expected one of {}", poses.unwrap_or_default().join(", "));
        return check.fail(at.at("pose"), says);
    }
    let sided = check.atlas.region(&region).is_some_and(|r| r.paired);
    if !sided && matches!(judgement, Some(RatingJudgement::LeftRight(_))) {
        return check.fail(at.at("left_right"), format!("{region} has no sides"));
    }
    let rater_sd_steps = match entry.rater_sd_steps {
        Some(steps) => Some(check.number(&at.at("rater_sd_steps"), "a rater's SD of", steps, RATER_SD, " steps")?),
        None => None,
    };
    let sitting = entry.sitting.clone().unwrap_or_default();
    if sitting.chars().count() > SITTING_CHARS || !is_one_line(&sitting) {
        let says = format!("a sitting is named in one line of at most {SITTING_CHARS} characters");
        return check.fail(at.at("sitting"), says);
    }
    Some(Rating { region, pose, judgement: judgement?, rater_sd_steps, sitting })
}

fn pose(check: &mut Checker, at: &Place, id: &str) -> Option<PoseId> {
    if let Some(pose) = check.atlas.poses().iter().find(|pose| pose.id.as_str() == id) {
        return Some(pose.id.clone());
    }
    let says = unknown("pose", id, check.atlas.poses().iter().map(|p| p.id.as_str()));
    check.fail(at, says)
}

fn judgement(check: &mut Checker, at: &Place, entry: &RatingEntry) -> Option<RatingJudgement> {
    let (field, value, judgement) = match (entry.score, entry.left_right) {
        (Some(score), None) => ("score", score, RatingJudgement::Standing(score)),
        (None, Some(sides)) => ("left_right", sides, RatingJudgement::LeftRight(sides)),
        _ => return check.fail(at, "a rating has either a score or a left_right: expected one of the two"),
    };
    if SCORE.contains(&value) {
        return Some(judgement);
    }
    check.fail(at.at(field), format!("{field} {value} is out of range: expected -2 to 2"))
}

fn outlines(check: &mut Checker, at: &Place, round: &RoundEntry) -> Vec<Outline> {
    let mut seen = HashSet::new();
    let mut resolved = Vec::new();
    for (i, entry) in round.outlines.iter().enumerate() {
        let at = at.at(i);
        if !seen.insert(entry.segment.as_str()) {
            check.problems.push(Problem::new(&at, format!("{} stands twice", entry.segment.as_str())));
        }
        let mut width = |field: &str, cm: f64| {
            let at = at.at(field);
            let cm = check.number(&at, "a width of", cm, OUTLINE_CM, " cm")?;
            check.take(&at, Length::from_cm(cm))
        };
        let widths = entry.widths();
        let both = Sides { left: width("left_width_cm", widths.left), right: width("right_width_cm", widths.right) };
        resolved.extend(both.both().map(|width| Outline { segment: entry.segment, width }));
    }
    resolved
}
