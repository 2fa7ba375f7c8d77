//! The brief: who the client is, what they aim at, what they have and what hurts.

use super::Checker;
use crate::problem::{Problem, unknown};
use crate::raw::{ClearanceEntry, ClientEntry, ConsentEntry, HomeEntry, ReadinessEntry};
use crate::text::is_one_line;
use assess::{Clearance, Client, Home, PhotoConsent, PhotoPurpose, Readiness};
use atlas::Atlas;
use jiff::civil::Date;
use std::collections::{BTreeMap, BTreeSet};
use units::{AnswerId, EquipmentId, ExerciseId, Length, LookId, Place, RegionId, SchoolId};

const HEIGHT_CM: [f64; 2] = [120.0, 230.0];
const LOOK_WEIGHT: [f64; 2] = [0.0, 3.0];
const DAYS: [f64; 2] = [1.0, 7.0];
const MINUTES: [f64; 2] = [10.0, 240.0];
const EXERCISES: [f64; 2] = [1.0, 12.0];
const PAIN: [f64; 2] = [0.0, 10.0];
/// Tags of a client at most, and characters of one.
const MOST_TAGS: usize = 12;
const TAG_CHARS: usize = 30;
/// Years a client can have lived.
const OLDEST_YEARS: i16 = 110;
/// Checks a brief on its own, as of a day. `at` is the pointer of the brief.
///
/// # Errors
/// All problems.
pub fn check_client(atlas: &Atlas, at: &Place, entry: &ClientEntry, as_of: Date) -> Result<Client, Vec<Problem>> {
    let mut check = Checker::new(atlas);
    let client = resolve(&mut check, at, entry, Some(as_of));
    // A case may be looked at as of a day before these; a brief is saved on the day itself.
    let dated = client.as_ref().map(|client| {
        let consent = client.photo_consent.as_ref().map(|c| (["photo_consent", "given_on"], "consent", c.given_on));
        let asked = client.readiness.as_ref().map(|r| (["readiness", "asked_on"], "answers", r.asked_on));
        let cleared = client.clearance.as_ref().map(|c| (["clearance", "given_on"], "clearance", c.given_on));
        [consent, asked, cleared]
    });
    for ([of, field], what, day) in dated.into_iter().flatten().flatten().filter(|(_, _, day)| *day > as_of) {
        check.fail::<()>(at.at(of).at(field), format!("{what} of {day} is after today, {as_of}"));
    }
    client.filter(|_| check.problems.is_empty()).ok_or(check.problems)
}

/// A brief as it was checked when it was stored: what depends on today is not asked again, or a clock that was put back would take
/// everybody's pages down.
///
/// # Errors
/// All problems.
pub fn stored_client(atlas: &Atlas, entry: &ClientEntry) -> Result<Client, Vec<Problem>> {
    let mut check = Checker::new(atlas);
    let client = resolve(&mut check, &Place::root(), entry, None);
    client.filter(|_| check.problems.is_empty()).ok_or(check.problems)
}

/// `as_of` is the day it comes in; none for a brief that is here already.
pub(super) fn resolve(check: &mut Checker, at: &Place, entry: &ClientEntry, as_of: Option<Date>) -> Option<Client> {
    let name = entry.name.trim();
    if name.is_empty() || name.chars().count() > 80 {
        check.fail::<()>(at.at("name"), "a client needs a name of 1 to 80 characters");
    }
    if as_of.is_some() && !is_one_line(name) {
        check.fail::<()>(at.at("name"), "a client's name is one line of letters as they are read");
    }
    let birth_date = birth_date(check, &at.at("birth_date"), &entry.birth_date, as_of);
    let height = check
        .number(&at.at("height_cm"), "a stature of", entry.height_cm, HEIGHT_CM, " cm")
        .and_then(|cm| check.take(&at.at("height_cm"), Length::from_cm(cm)));
    numbers(check, at, entry);
    let look = look(check, &at.at("look"), &entry.look);
    let look_weights = look_weights(check, &at.at("look_weights"), &entry.look_weights);
    let equipment = equipment(check, &at.at("equipment"), &entry.equipment);
    let excluded_exercises = excluded(check, &at.at("excluded_exercises"), &entry.excluded_exercises);
    pain_and_screens(check, at, entry);
    let schools = schools(check, &at.at("schools"), &entry.schools);
    tags(check, &at.at("tags"), &entry.tags);
    let agreed = entry.photo_consent.as_ref();
    let home = entry.home.as_ref().and_then(|home| self::home(check, &at.at("home"), home, entry));
    let asked = entry.readiness.as_ref();
    let readiness = asked.and_then(|asked| readiness(check, &at.at("readiness"), asked));
    let cleared = entry.clearance.as_ref();
    let clearance = cleared.and_then(|cleared| clearance(check, &at.at("clearance"), cleared));
    let photo_consent = agreed.and_then(|agreed| consent(check, &at.at("photo_consent"), agreed));
    Some(Client {
        name: name.to_owned(),
        sex: entry.sex,
        birth_date: birth_date?,
        height: height?,
        dominant_hand: entry.dominant_hand,
        experience: entry.experience,
        look: look?,
        look_weights,
        days_per_week: entry.days_per_week,
        minutes_per_session: entry.minutes_per_session,
        max_exercises_per_session: entry.max_exercises_per_session,
        equipment,
        home,
        pain: entry.pain.clone(),
        screens: entry.screens.clone(),
        excluded_exercises,
        schools,
        photo_consent,
        readiness,
        clearance,
        measures: entry.measures,
        tags: entry.tags.iter().map(|tag| tag.trim().to_owned()).collect(),
    })
}

fn tags(check: &mut Checker, at: &Place, tags: &[String]) {
    if tags.len() > MOST_TAGS {
        check.fail::<()>(at, format!("{} tags: a client has at most {MOST_TAGS}", tags.len()));
    }
    for (place, tag) in tags.iter().map(|tag| tag.trim()).enumerate() {
        let at = at.at(place);
        if tag.is_empty() || tag.chars().count() > TAG_CHARS || !is_one_line(tag) {
            check.fail::<()>(at, format!("{tag:?} is no tag: expected 1 to {TAG_CHARS} characters in one line"));
        } else if tags[..place].iter().any(|other| other.trim().to_lowercase() == tag.to_lowercase()) {
            check.fail::<()>(at, format!("the tag {tag:?} stands twice"));
        }
    }
}

fn home(check: &mut Checker, at: &Place, entry: &HomeEntry, client: &ClientEntry) -> Option<Home> {
    let days = [0.0, f64::from(client.days_per_week)];
    check.number(&at.at("days_per_week"), "days at home", f64::from(entry.days_per_week), days, "")?;
    let equipment = equipment(check, &at.at("equipment"), &entry.equipment);
    Some(Home { days_per_week: entry.days_per_week, equipment })
}

fn readiness(check: &mut Checker, at: &Place, entry: &ReadinessEntry) -> Option<Readiness> {
    let asked_on = check.date(&at.at("asked_on"), &entry.asked_on);
    for (i, id) in entry.yes.iter().enumerate() {
        if !check.atlas.readiness().iter().any(|question| question.id == *id) {
            let says = unknown("readiness question", id, check.atlas.readiness().iter().map(|q| q.id.as_str()));
            check.fail::<()>(at.at("yes").at(i), says);
        }
    }
    Some(Readiness { asked_on: asked_on?, yes: entry.yes.iter().cloned().collect() })
}

fn clearance(check: &mut Checker, at: &Place, entry: &ClearanceEntry) -> Option<Clearance> {
    let given_on = check.date(&at.at("given_on"), &entry.given_on);
    let note = entry.note.trim();
    if note.is_empty() || note.chars().count() > 400 {
        let says = "who gave the clearance, and with what limits, is needed: expected 1 to 400 characters";
        return check.fail(at.at("note"), says);
    }
    Some(Clearance { given_on: given_on?, note: note.to_owned() })
}

fn birth_date(check: &mut Checker, at: &Place, text: &str, as_of: Option<Date>) -> Option<Date> {
    let born = check.date(at, text)?;
    let Some(as_of) = as_of else { return Some(born) };
    if born >= as_of {
        return check.fail(at, format!("{born} is not before {as_of}"));
    }
    if as_of.year() - born.year() > OLDEST_YEARS {
        return check.fail(at, format!("{born} is more than {OLDEST_YEARS} years before {as_of}"));
    }
    Some(born)
}

fn consent(check: &mut Checker, at: &Place, entry: &ConsentEntry) -> Option<PhotoConsent> {
    let given_on = check.date(&at.at("given_on"), &entry.given_on);
    let purposes: BTreeSet<PhotoPurpose> = entry.purposes.iter().copied().collect();
    if !purposes.contains(&PhotoPurpose::Assessment) {
        let says = "consent to photos covers assessment at least: expected \"assessment\" among the purposes";
        return check.fail(at.at("purposes"), says);
    }
    Some(PhotoConsent { given_on: given_on?, purposes })
}

fn numbers(check: &mut Checker, at: &Place, entry: &ClientEntry) {
    let fields = [
        ("days_per_week", f64::from(entry.days_per_week), DAYS),
        ("minutes_per_session", f64::from(entry.minutes_per_session), MINUTES),
        ("max_exercises_per_session", f64::from(entry.max_exercises_per_session), EXERCISES),
    ];
    for (field, value, bounds) in fields {
        check.number(&at.at(field), &field.replace('_', " "), value, bounds, "");
    }
}

fn look(check: &mut Checker, at: &Place, id: &str) -> Option<LookId> {
    let found = check.atlas.looks().iter().find(|look| look.id.as_str() == id);
    if let Some(look) = found {
        return Some(look.id.clone());
    }
    let says = unknown("look", id, check.atlas.looks().iter().map(|l| l.id.as_str()));
    check.fail(at, says)
}

fn look_weights(check: &mut Checker, at: &Place, weights: &BTreeMap<String, f64>) -> BTreeMap<RegionId, f64> {
    let mut resolved = BTreeMap::new();
    for (id, weight) in weights {
        let at = at.at(id);
        let region = check.region(&at, id);
        let weight = check.number(&at, "a weight of", *weight, LOOK_WEIGHT, "");
        resolved.extend(region.zip(weight));
    }
    resolved
}

fn equipment(check: &mut Checker, at: &Place, items: &[String]) -> BTreeSet<EquipmentId> {
    let mut resolved = BTreeSet::new();
    for (i, id) in items.iter().enumerate() {
        let parsed = id.parse::<EquipmentId>().ok();
        let found = check.atlas.equipment().iter().find(|item| parsed.as_ref() == Some(&item.id));
        if let Some(item) = found {
            resolved.insert(item.id.clone());
        } else {
            let says = unknown("equipment", id, check.atlas.equipment().iter().map(|e| e.id.as_str()));
            check.fail::<()>(at.at(i), says);
        }
    }
    resolved
}

fn excluded(check: &mut Checker, at: &Place, ids: &[String]) -> BTreeSet<ExerciseId> {
    let each = ids.iter().enumerate();
    each.filter_map(|(i, id)| check.exercise(&at.at(i), id).map(|e| e.id.clone())).collect()
}

fn pain_and_screens(check: &mut Checker, at: &Place, entry: &ClientEntry) {
    for (i, pain) in entry.pain.iter().enumerate() {
        if !check.atlas.areas().contains(&pain.area.as_str()) {
            let says = unknown("area", &pain.area, check.atlas.areas().iter().copied());
            check.fail::<()>(at.at("pain").at(i).at("area"), says);
        }
        check.number(&at.at("pain").at(i).at("level"), "a pain of", f64::from(pain.level), PAIN, "");
    }
    for (id, degrees) in entry.screens.taken() {
        let Some(screen) = check.atlas.screen(id) else { continue };
        let what = format!("{} of", screen.name.to_lowercase());
        for (side, value) in [("left", degrees.left), ("right", degrees.right)] {
            check.number(
                &at.at("screens").at(format!("{id}_deg")).at(side),
                &what,
                value,
                screen.bounds_deg,
                " degrees",
            );
        }
    }
}

/// Answers to schools by the school.
pub(super) fn schools(
    check: &mut Checker,
    at: &Place,
    chosen: &BTreeMap<String, String>,
) -> BTreeMap<SchoolId, AnswerId> {
    let mut answers = BTreeMap::new();
    for (id, option) in chosen {
        let at = at.at(id);
        let Some(school) = check.atlas.school(id) else {
            let says = unknown("school", id, check.atlas.schools().iter().map(|s| s.id.as_str()));
            check.fail::<()>(at, says);
            continue;
        };
        match school.options.iter().find(|known| known.id == option.as_str()) {
            Some(known) => {
                answers.insert(school.id.clone(), known.id.clone());
            }
            None => {
                check.fail::<()>(at, unknown("option", option, school.options.iter().map(|o| o.id.as_str())));
            }
        }
    }
    answers
}
