//! A given plan as files: every session of every week on its day, one page a session, nothing left out.

#![allow(clippy::unwrap_used, reason = "a test that cannot go on should stop here")]

use assess::{Knowledge, assess};
use casefile::{CaseFile, PlanFile, plan_file};
use handout::{Handout, calendar, pdf, table};
use jiff::civil::{Date, date};
use plan::{Draft, Effort, Locks, PlanProblem, block, present_draft, solve};
use rstest::{fixture, rstest};
use std::collections::BTreeMap;
use std::sync::LazyLock;
use units::{ExerciseId, LengthUnit, MassUnit, Measures};

static KNOWLEDGE: LazyLock<Knowledge> = LazyLock::new(|| Knowledge::load().expect("shipped data"));
static NOTHING: BTreeMap<ExerciseId, Vec<String>> = BTreeMap::new();
const EXAMPLE: &str = include_str!("../../../docs/examples/case.json");

#[fixture]
#[once]
fn given_plan() -> PlanFile {
    let case = CaseFile::parse(EXAMPLE).unwrap().resolve(&KNOWLEDGE.atlas).unwrap();
    let problem = PlanProblem::new(&KNOWLEDGE, &case, &assess(&KNOWLEDGE, &case));
    let week = solve(&problem, Effort { moves: 30_000, seed: 1 });
    let draft = Draft::of_week(&problem, &week, &Locks::default());
    plan_file(&present_draft(&problem, &draft), &block(&problem, &draft, 6), None, 0.0)
}

fn given(plan: &PlanFile, starts_on: Date) -> Handout<'_> {
    Handout {
        id: "3b1d",
        client_name: "Zoë Łukasz-Ångström",
        version: 2,
        issued_on: date(2026, 3, 2),
        starts_on,
        plan,
        atlas: &KNOWLEDGE.atlas,
        reported: &NOTHING,
        measures: Measures::default(),
    }
}

#[rstest]
fn every_session_of_every_week_stands_in_the_calendar_on_its_day(#[from(given_plan)] plan: &PlanFile) {
    let text = calendar(&given(plan, date(2026, 3, 9))).unwrap();
    assert_eq!(text.matches("BEGIN:VEVENT").count(), 6 * plan.sessions.len());
    // Monday and Friday of the first week, Friday of the sixth.
    for day in ["20260309", "20260313", "20260417"] {
        assert!(text.contains(&format!("DTSTART;VALUE=DATE:{day}")), "{day}");
    }
    assert_eq!(text.matches("lighter week").count(), plan.sessions.len());
    // RFC 5545, 3.1: lines of at most 75 octets, ended by CR LF.
    assert!(text.split("\r\n").all(|line| line.len() <= 75));
    let ids: std::collections::BTreeSet<&str> = text.lines().filter(|line| line.starts_with("UID:")).collect();
    assert_eq!(ids.len(), 6 * plan.sessions.len(), "ids differ");
}

#[rstest]
fn the_table_has_every_exercise_of_every_week_with_the_block_s_sets(#[from(given_plan)] plan: &PlanFile) {
    let text = table(&given(plan, date(2026, 3, 9))).unwrap();
    let mut reader = csv::Reader::from_reader(text.as_bytes());
    let rows: Vec<csv::StringRecord> = reader.records().map(Result::unwrap).collect();
    let items: usize = plan.sessions.iter().map(|session| session.items.len()).sum();
    assert_eq!(rows.len(), 6 * items);
    let sets = |week: &str| -> u32 {
        rows.iter().filter(|row| &row[0] == week).map(|row| row[8].parse::<u32>().unwrap()).sum()
    };
    for week in &plan.weeks {
        let planned: u32 = week.sets.iter().flatten().map(|sets| u32::from(*sets)).sum();
        assert_eq!(sets(&week.number.to_string()), planned, "week {}", week.number);
    }
}

#[rstest]
fn what_takes_turns_stands_on_paper_in_its_weeks_alone(#[from(given_plan)] plan: &PlanFile) {
    let mut plan = plan.clone();
    let first = &mut plan.sessions[0].items[0];
    let mut other = first.clone();
    (other.exercise, other.name) = ("rope-pronation".parse().unwrap(), "Rope turning in".to_owned());
    let name = first.name.clone();
    first.in_turn = Some(Box::new(other));
    let handout = given(&plan, date(2026, 3, 9));
    let text = table(&handout).unwrap();
    let weeks = |name: &str| -> Vec<String> {
        let mut reader = csv::Reader::from_reader(text.as_bytes());
        let rows = reader.records().map(Result::unwrap);
        rows.filter(|row| &row[3] == "1" && &row[6] == name).map(|row| row[0].to_owned()).collect()
    };
    assert_eq!(
        (weeks(&name), weeks("Rope turning in")),
        (vec!["1".to_owned(), "3".to_owned(), "5".to_owned()], vec!["2".to_owned(), "4".to_owned(), "6".to_owned()],)
    );
    assert_eq!(calendar(&handout).unwrap().matches("1. Rope turning in").count(), 3);
}

#[rstest]
fn a_session_is_a_page_and_the_same_plan_gives_the_same_bytes(#[from(given_plan)] plan: &PlanFile) {
    let bytes = pdf(&given(plan, date(2026, 3, 9))).unwrap();
    assert!(bytes.starts_with(b"%PDF-1."));
    let text = String::from_utf8_lossy(&bytes);
    let pages = text.matches("/Type/Page").count() + text.matches("/Type /Page").count();
    let tree = text.matches("/Type/Pages").count() + text.matches("/Type /Pages").count();
    assert_eq!(pages - tree, plan.sessions.len());
    assert_eq!(pdf(&given(plan, date(2026, 3, 9))).unwrap(), bytes);
}

// The text itself is packed glyphs: two files of the same length would say the same.
#[rstest]
fn what_was_reported_last_time_stands_on_paper(#[from(given_plan)] plan: &PlanFile) {
    let plain = given(plan, date(2026, 3, 9));
    let first = &plan.sessions[0].items[0].exercise;
    let reported = BTreeMap::from([(first.clone(), vec!["swung".to_owned()])]);
    let of_another = BTreeMap::from([("no-such".parse().unwrap(), vec!["swung".to_owned()])]);
    let length = |reported| pdf(&Handout { reported, ..plain }).unwrap().len();
    assert!(length(&reported) > length(&NOTHING));
    assert_eq!(length(&of_another), length(&NOTHING));
}

#[rstest]
#[case::kilograms_and_centimetres(Measures::default(), "20 kg", "Hands apart 50 cm")]
#[case::pounds_and_inches(Measures { length: LengthUnit::In, mass: MassUnit::Lb }, "44.1 lb", "Hands apart 19.7 in")]
fn loads_and_set_ups_are_put_in_the_client_s_units(
    #[from(given_plan)] plan: &PlanFile,
    #[case] measures: Measures,
    #[case] load: &str,
    #[case] width: &str,
) {
    let mut plan = plan.clone();
    let item = &mut plan.sessions[0].items[0];
    item.load_kg = Some(20.0);
    item.set_up = BTreeMap::from([("hand_width_cm".to_owned(), 50.0)]);
    let text = calendar(&Handout { measures, ..given(&plan, date(2026, 3, 9)) }).unwrap().replace("\r\n ", "");
    for part in [load, width] {
        assert!(text.contains(part), "{part} in {text}");
    }
}

#[rstest]
fn a_week_outside_the_calendar_is_said(#[from(given_plan)] plan: &PlanFile) {
    let error = table(&given(plan, date(9999, 12, 27))).unwrap_err();
    assert!(error.to_string().contains("outside the calendar"), "{error}");
}
