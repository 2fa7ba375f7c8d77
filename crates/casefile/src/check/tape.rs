//! Tape and breadth readings: known sites, the right sides, plausible values, each place once.

use super::Checker;
use crate::problem::{Problem, unknown};
use crate::raw::{PictureGirthEntry, TapeEntry};
use assess::{PictureGirth, TapeMeasure};
use atlas::{Atlas, Site, SiteKind};
use std::collections::HashSet;
use units::{Length, Place, Side, SiteId};

/// Readings of one site beyond this many say nothing more.
pub(super) const MAX_READINGS: usize = 3;

/// Checks tape entries; what passes is returned beside the problems of the rest. `at` is the pointer of the list.
pub fn check_tape(atlas: &Atlas, at: &Place, entries: &[TapeEntry]) -> (Vec<TapeMeasure>, Vec<Problem>) {
    let mut check = Checker::new(atlas);
    let measures = resolve(&mut check, at, entries);
    (measures, check.problems)
}

pub(super) fn resolve(check: &mut Checker, at: &Place, entries: &[TapeEntry]) -> Vec<TapeMeasure> {
    let mut seen = HashSet::new();
    let mut measures = Vec::new();
    for (i, entry) in entries.iter().enumerate() {
        let at = at.at(i);
        let Some(measure) = self::entry(check, &at, entry) else { continue };
        if seen.insert((measure.site.clone(), measure.side)) {
            measures.push(measure);
        } else {
            check.fail::<()>(at, format!("{} stands twice in this round", place(&measure.site, measure.side)));
        }
    }
    measures
}

fn entry(check: &mut Checker, at: &Place, entry: &TapeEntry) -> Option<TapeMeasure> {
    let site = site(check, &at.at("site"), &entry.site)?;
    let sided = side(check, &at.at("side"), site, entry.side);
    let readings = readings(check, at, site, &entry.readings_cm);
    sided?;
    Some(TapeMeasure { site: site.id.clone(), side: entry.side, readings: readings? })
}

/// Girths from pictures: the tape's sites and bounds, each place once.
pub(super) fn pictured(check: &mut Checker, at: &Place, entries: &[PictureGirthEntry]) -> Vec<PictureGirth> {
    let mut girths: Vec<PictureGirth> = Vec::new();
    for (i, entry) in entries.iter().enumerate() {
        let at = at.at(i);
        let Some(site) = site(check, &at.at("site"), &entry.site) else { continue };
        if site.kind != SiteKind::Girth {
            check.fail::<()>(at.at("site"), format!("{} is no girth: pictures tell of girths alone", site.id));
            continue;
        }
        let sided = side(check, &at.at("side"), site, entry.side);
        let value = reading(check, &at.at("cm"), site, entry.cm);
        let Some(value) = sided.and(value) else { continue };
        if girths.iter().any(|girth| girth.site == site.id && girth.side == entry.side) {
            check.fail::<()>(at, format!("{} stands twice in this round", place(&site.id, entry.side)));
            continue;
        }
        girths.push(PictureGirth { site: site.id.clone(), side: entry.side, value, from: entry.from });
    }
    girths
}

fn site<'a>(check: &mut Checker<'a>, at: &Place, id: &str) -> Option<&'a Site> {
    let found = id.parse::<SiteId>().ok().and_then(|id| check.atlas.site(&id));
    if found.is_none() {
        let says = unknown("tape site", id, check.atlas.sites().iter().map(|s| s.id.as_str()));
        check.problems.push(Problem::new(at, says));
    }
    found
}

fn side(check: &mut Checker, at: &Place, site: &Site, side: Option<Side>) -> Option<()> {
    match (site.paired, side) {
        (true, None) => check.fail(at, format!("{} has two sides: expected \"left\" or \"right\"", site.id)),
        (false, Some(_)) => check.fail(at, format!("{} has no sides: leave the side out", site.id)),
        _ => Some(()),
    }
}

fn readings(check: &mut Checker, at: &Place, site: &Site, cm: &[f64]) -> Option<Vec<Length>> {
    let list = at.at("readings_cm");
    if cm.is_empty() || cm.len() > MAX_READINGS {
        return check.fail(list, format!("{} readings of {}: expected 1 to {MAX_READINGS}", cm.len(), site.id));
    }
    let each: Vec<Option<Length>> =
        cm.iter().enumerate().map(|(i, cm)| reading(check, &list.at(i), site, *cm)).collect();
    each.into_iter().collect()
}

fn reading(check: &mut Checker, at: &Place, site: &Site, cm: f64) -> Option<Length> {
    let [low, high] = site.bounds;
    if cm.is_finite() && (low..=high).contains(&cm) {
        return check.take(at, Length::from_cm(cm));
    }
    let inches = Some(cm * CM_PER_INCH).filter(|cm| (low..=high).contains(cm));
    let hint = match (slipped_point(cm, site.bounds), inches) {
        (Some(meant), _) => format!("; did you mean {meant} cm?"),
        (None, Some(cm)) => format!("; if this is inches, it is {cm:.1} cm"),
        (None, None) => String::new(),
    };
    check.fail(at, format!("{cm} cm is outside {low} to {high} cm for {}{hint}", site.id))
}

const CM_PER_INCH: f64 = 2.54;

/// The value a slipped decimal point would explain: 374 for 37.4.
fn slipped_point(cm: f64, [low, high]: [f64; 2]) -> Option<f64> {
    [cm / 10.0, cm * 10.0, cm / 100.0].into_iter().find(|meant| (low..=high).contains(meant))
}

fn place(site: &SiteId, side: Option<Side>) -> String {
    side.map_or_else(|| site.to_string(), |side| format!("{site} {side}"))
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    fn entry(site: &str, side: Option<Side>, cm: &[f64]) -> TapeEntry {
        TapeEntry { site: site.into(), side, readings_cm: cm.to_vec() }
    }

    #[rstest]
    #[case::a_slipped_decimal_point(
        &[entry("arm-flexed", Some(Side::Left), &[374.0])],
        "/tape/0/readings_cm/0", "374 cm is outside 15 to 75 cm for arm-flexed; did you mean 37.4 cm?"
    )]
    #[case::inches(
        &[entry("hip", None, &[38.6])],
        "/tape/0/readings_cm/0", "38.6 cm is outside 60 to 210 cm for hip; if this is inches, it is 98.0 cm"
    )]
    #[case::an_unknown_site(
        &[entry("elbow", None, &[14.0])],
        "/tape/0/site", "there is no tape site \"elbow\": did you mean \"elbow-breadth\"?"
    )]
    #[case::a_side_missing(
        &[entry("calf", None, &[37.0])],
        "/tape/0/side", "calf has two sides: expected \"left\" or \"right\""
    )]
    #[case::a_side_too_many(
        &[entry("waist", Some(Side::Left), &[80.0])],
        "/tape/0/side", "waist has no sides: leave the side out"
    )]
    #[case::no_readings(&[entry("waist", None, &[])], "/tape/0/readings_cm", "0 readings of waist: expected 1 to 3")]
    #[case::the_same_place_twice(
        &[entry("calf", Some(Side::Left), &[37.0]), entry("calf", Some(Side::Left), &[37.1])],
        "/tape/1", "calf left stands twice in this round"
    )]
    fn a_bad_entry_is_named_with_its_place(#[case] tape: &[TapeEntry], #[case] pointer: &str, #[case] says: &str) {
        let atlas = Atlas::load().unwrap();
        let (_, problems) = check_tape(&atlas, &"/tape".into(), tape);
        assert_eq!(problems, [Problem::new(pointer, says)]);
    }

    #[test]
    fn what_is_right_is_kept_beside_what_is_wrong() {
        let atlas = Atlas::load().unwrap();
        let tape = [entry("calf", Some(Side::Left), &[37.0, 37.1]), entry("calf", Some(Side::Right), &[371.0])];
        let (measures, problems) = check_tape(&atlas, &"/tape".into(), &tape);
        assert_eq!((measures.len(), problems.len()), (1, 1));
    }
}
