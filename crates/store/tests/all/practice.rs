//! A practice on a real SQLite file.

use assess::{Choices, Override, Shared, Skinfolds, Standing, TapeMeasure, Test};
use atlas::Atlas;
use casefile::{CaseFile, PracticeEntry, UsualExercise, UsualWeek};
use jiff::civil::date;
use roles::Role;
use rstest::{fixture, rstest};
use std::collections::{BTreeMap, BTreeSet};
use store::{ChangedAccount, Kind, NewAccount, NewRound, Page, SavedTape, Store};
use tempfile::TempDir;
use units::{ClientId, Length, Mass, RoundId, Side, Skinfold};

struct Practice {
    store: Store,
    atlas: Atlas,
    _directory: TempDir,
}

#[fixture]
fn practice() -> Practice {
    let directory = tempfile::tempdir().unwrap();
    Practice { store: Store::open(directory.path()).unwrap(), atlas: Atlas::load().unwrap(), _directory: directory }
}

impl Practice {
    fn client(&self, name: &str) -> ClientId {
        let file = CaseFile::parse(include_str!("../../../../docs/examples/case.json")).unwrap();
        let mut client = file.resolve(&self.atlas).unwrap().client;
        name.clone_into(&mut client.name);
        self.store.add_client(&self.atlas, &client).unwrap().id
    }

    fn round(&self, client: &ClientId, month: i8) -> RoundId {
        let new = NewRound { taken_on: date(2026, month, 2), measured_by: "A".into(), weight: None };
        self.store.add_round(client, &new).unwrap().id
    }
}

fn calf(cm: &[f64]) -> TapeMeasure {
    let readings = cm.iter().map(|cm| Length::from_cm(*cm).unwrap()).collect();
    TapeMeasure { site: "calf".parse().unwrap(), side: Some(Side::Left), readings }
}

fn sheet(revision: i32, measures: &[TapeMeasure]) -> SavedTape<'_> {
    SavedTape {
        revision,
        saved_by: "Mara",
        measured_by: "MT",
        weight: None,
        measures,
        folds: &[],
        levels: const { &BTreeMap::new() },
    }
}

#[rstest]
fn a_sheet_comes_back_as_it_was_saved(practice: Practice) {
    let round = practice.round(&practice.client("Ada"), 3);
    let measures = [calf(&[37.1, 37.3, 37.2])];
    let saved = practice.store.save_tape(&round, &sheet(0, &measures)).unwrap();
    assert_eq!((saved.tape_revision, saved.measured_by.as_str()), (1, "MT"));
    assert_eq!(practice.store.tape(&round).unwrap(), measures);
}

#[rstest]
fn folds_levels_and_weight_are_saved_with_their_sheet(practice: Practice) {
    let round = practice.round(&practice.client("Ada"), 3);
    let readings = [8.2, 8.6].map(|mm| Skinfold::from_mm(mm).unwrap()).to_vec();
    let folds = [Skinfolds { site: "triceps".parse().unwrap(), side: Some(Side::Right), readings }];
    let levels = BTreeMap::from([("mid-thigh".parse().unwrap(), Length::from_cm(18.5).unwrap())]);
    let weight = Some(Mass::from_kg(71.3).unwrap());
    let full = SavedTape { weight, folds: &folds, levels: &levels, ..sheet(0, &[]) };
    practice.store.save_tape(&round, &full).unwrap();
    let kept = practice.store.case_at(&practice.atlas, &round).unwrap().rounds.remove(0);
    assert_eq!((kept.skinfolds.as_slice(), &kept.levels, kept.weight), (folds.as_slice(), &levels, weight));
    practice.store.save_tape(&round, &sheet(1, &[])).unwrap();
    let emptied = practice.store.case_at(&practice.atlas, &round).unwrap().rounds.remove(0);
    assert!(emptied.skinfolds.is_empty() && emptied.levels.is_empty() && emptied.weight.is_none());
}

#[rstest]
fn tests_of_a_round_are_part_of_its_case_and_are_not_overwritten_unseen(practice: Practice) {
    let round = practice.round(&practice.client("Ada"), 3);
    practice.store.save_tests(&round, 0, "Mara", &[Test::Hang(84.0)]).unwrap();
    let error = practice.store.save_tests(&round, 0, "Jo", &[]).unwrap_err();
    assert!(error.to_string().starts_with("this sheet of tests was saved by Mara"), "{error}");
    assert_eq!(practice.store.case_at(&practice.atlas, &round).unwrap().rounds[0].tests, [Test::Hang(84.0)]);
}

#[rstest]
fn a_usual_week_is_training_up_to_the_day_of_the_round(practice: Practice) {
    let client = practice.client("Ada");
    let round = practice.round(&client, 3);
    let curl =
        UsualExercise { session: 1, exercise: "db-curl".into(), sets: 3, one_sided: true, reps: None, swung: false };
    let week = UsualWeek { until: "2026-03-09".into(), weeks: 4, exercises: vec![curl] };
    assert_eq!(practice.store.usual_week(&client).unwrap(), (None, 0));
    practice.store.save_usual_week(&client, 0, Some(&week)).unwrap();
    let trained = practice.store.case_at(&practice.atlas, &round).unwrap().training;
    let weeks: Vec<_> = trained.iter().map(|entry| entry.week_of).collect();
    assert_eq!(
        weeks,
        [date(2026, 2, 16), date(2026, 2, 23), date(2026, 3, 2)],
        "the week of the 9th was still to come"
    );
    assert_eq!(practice.store.save_usual_week(&client, 0, None).unwrap_err().kind(), Kind::Conflict);
}

#[rstest]
fn what_the_practice_sets_comes_back_with_who_set_it(practice: Practice) {
    let numbers = BTreeMap::from([("observation_sd.strength".to_owned(), 4.0)]);
    let settings = PracticeEntry { numbers, ..PracticeEntry::default() };
    assert_eq!(practice.store.practice().unwrap().settings, PracticeEntry::default());
    practice.store.save_practice(0, "Mara", &settings).unwrap();
    let record = practice.store.practice().unwrap();
    assert_eq!((record.settings, record.revision, record.saved_by.as_deref()), (settings.clone(), 1, Some("Mara")));
    assert_eq!(practice.store.save_practice(0, "Jo", &settings).unwrap_err().kind(), Kind::Conflict);
}

fn person(login: &str, role: Role) -> NewAccount {
    NewAccount { login: login.into(), name: login.to_uppercase(), role, password_hash: "hash".into() }
}

#[rstest]
fn people_come_and_go_but_an_owner_stays(practice: Practice) {
    let store = &practice.store;
    let owner = store.add_owner(&person("mara", Role::Owner)).unwrap();
    let jo = store.add_account(&person("jo", Role::Assistant)).unwrap();
    assert_eq!(store.add_account(&person("JO", Role::Coach)).unwrap_err().kind(), Kind::Conflict);
    assert_eq!(store.remove_account(&owner.id).unwrap_err().kind(), Kind::Conflict);
    let demoted = ChangedAccount { role: Some(Role::Coach), ..ChangedAccount::default() };
    assert_eq!(store.change_account(&owner.id, &demoted).unwrap_err().kind(), Kind::Conflict);
    let promoted = ChangedAccount { role: Some(Role::Owner), name: Some("Jo".into()), password_hash: None };
    assert_eq!(store.change_account(&jo.id, &promoted).unwrap().name, "Jo");
    store.remove_account(&owner.id).unwrap();
    let left: Vec<_> = store.accounts().unwrap().into_iter().map(|account| account.login).collect();
    assert_eq!(left, ["jo"]);
}

#[rstest]
fn the_second_of_two_savers_is_told_and_overwrites_nothing(practice: Practice) {
    let round = practice.round(&practice.client("Ada"), 3);
    practice.store.save_tape(&round, &sheet(0, &[calf(&[37.1])])).unwrap();
    let error = practice.store.save_tape(&round, &sheet(0, &[calf(&[36.0])])).unwrap_err();
    assert_eq!(error.kind(), Kind::Conflict);
    assert_eq!(
        error.to_string(),
        "this tape sheet was saved by Mara since you opened it; your changes are not saved yet"
    );
    assert_eq!(practice.store.tape(&round).unwrap(), [calf(&[37.1])]);
}

#[rstest]
fn choices_come_back_in_their_order(practice: Practice) {
    let round = practice.round(&practice.client("Ada"), 3);
    let choices = Choices {
        areas: vec!["calf".parse().unwrap()],
        bring_up: vec!["neck".parse().unwrap(), "cuff".parse().unwrap()],
        hold_back: vec!["grip".parse().unwrap()],
        overrides: vec![Override {
            region: "erectors".parse().unwrap(),
            verdict: Standing::Level,
            reason: "Seen from behind.".into(),
        }],
        share: BTreeSet::from([Shared::Sides]),
    };
    practice.store.save_choices(&round, 0, &choices).unwrap();
    let back = practice.store.choices(&round).unwrap();
    assert_eq!((back.bring_up, back.areas), (choices.bring_up, choices.areas));
    assert_eq!(back.hold_back, choices.hold_back);
    assert_eq!(back.overrides, choices.overrides);
    assert_eq!(back.share, choices.share);
    assert_eq!(practice.store.save_choices(&round, 0, &Choices::default()).unwrap_err().kind(), Kind::Conflict);
}

#[rstest]
fn a_case_holds_its_round_and_those_before_it_only(practice: Practice) {
    let client = practice.client("Ada");
    let rounds = [practice.round(&client, 3), practice.round(&client, 1), practice.round(&client, 5)];
    practice.store.save_tape(&rounds[1], &sheet(0, &[calf(&[36.0])])).unwrap();
    let case = practice.store.case_at(&practice.atlas, &rounds[0]).unwrap();
    let days: Vec<_> = case.rounds.iter().map(|round| (round.date.month(), round.tape.len())).collect();
    assert_eq!((days, case.as_of), (vec![(1, 1), (3, 0)], date(2026, 3, 2)));
}

#[rstest]
fn newest_cases_agree_with_the_case_at_the_newest_round(practice: Practice) {
    let (ada, ben) = (practice.client("Ada"), practice.client("Ben"));
    practice.client("Without a round");
    for client in [&ada, &ben] {
        practice.round(client, 1);
        let round = practice.round(client, 3);
        practice.store.save_tape(&round, &sheet(0, &[calf(&[37.0])])).unwrap();
    }
    let (clients, total) = practice.store.clients(&practice.atlas, None, Page { number: 1, size: 10 }).unwrap();
    let cases = practice.store.newest_cases(&practice.atlas, &clients).unwrap();
    assert_eq!((total, cases.len()), (3, 2));
    for (round, case) in cases {
        let alone = practice.store.case_at(&practice.atlas, &round.id).unwrap();
        assert_eq!(casefile::case_file(&case), casefile::case_file(&alone));
    }
}

#[rstest]
#[case::all(None, 1, &["Ada", "Ben"])]
#[case::second_page(None, 2, &["Cyr"])]
#[case::by_part_of_the_name(Some("y"), 1, &["Cyr"])]
#[case::wildcards_are_letters(Some("%"), 1, &[])]
fn clients_are_listed_by_name_page_by_page(
    practice: Practice,
    #[case] find: Option<&str>,
    #[case] number: u32,
    #[case] names: &[&str],
) {
    for name in ["Cyr", "Ada", "Ben"] {
        practice.client(name);
    }
    let (page, _) = practice.store.clients(&practice.atlas, find, Page { number, size: 2 }).unwrap();
    assert_eq!(page.iter().map(|record| record.client.name.as_str()).collect::<Vec<_>>(), names);
}

#[rstest]
#[case::letters_of_any_case("ÖZ", &["Özlem"])]
#[case::without_accents("ozl", &["Özlem"])]
#[case::with_accents_where_there_are_none("zoë", &["Zoe"])]
#[case::a_ligature_by_its_letters("ﬁ", &["Fiona"])]
#[case::spaces_around(" ada ", &["Ada"])]
#[case::nobody("xyz", &[])]
fn a_client_is_found_by_any_way_of_typing_the_name(practice: Practice, #[case] find: &str, #[case] names: &[&str]) {
    for name in ["Zoe", "Ada", "Özlem", "Fiona"] {
        practice.client(name);
    }
    let page = Page { number: 1, size: 10 };
    let (found, total) = practice.store.clients(&practice.atlas, Some(find), page).unwrap();
    assert_eq!(found.iter().map(|record| record.client.name.as_str()).collect::<Vec<_>>(), names);
    assert_eq!(total as usize, names.len());
}

#[rstest]
fn names_stand_in_the_order_of_the_alphabet_whatever_their_letters(practice: Practice) {
    for name in ["Zoe", "émile", "Özlem", "Dana", "Peter", "Éva"] {
        practice.client(name);
    }
    let (all, _) = practice.store.clients(&practice.atlas, None, Page { number: 1, size: 10 }).unwrap();
    let names: Vec<&str> = all.iter().map(|record| record.client.name.as_str()).collect();
    assert_eq!(names, ["Dana", "émile", "Éva", "Özlem", "Peter", "Zoe"]);
}

#[rstest]
fn a_brief_saved_elsewhere_is_not_overwritten(practice: Practice) {
    let id = practice.client("Ada");
    let mut client = practice.store.client(&practice.atlas, &id).unwrap().client;
    client.days_per_week = 5;
    practice.store.save_client(&practice.atlas, &id, 1, &client).unwrap();
    let error = practice.store.save_client(&practice.atlas, &id, 1, &client).unwrap_err();
    assert_eq!(error.kind(), Kind::Conflict);
}

#[rstest]
fn two_rounds_on_one_day_are_refused(practice: Practice) {
    let client = practice.client("Ada");
    practice.round(&client, 3);
    let new = NewRound { taken_on: date(2026, 3, 2), measured_by: "A".into(), weight: None };
    assert_eq!(practice.store.add_round(&client, &new).unwrap_err().kind(), Kind::Conflict);
}

#[rstest]
fn the_first_start_makes_one_owner(practice: Practice) {
    let owner = NewAccount {
        login: "mara".into(),
        name: "Mara".into(),
        role: Role::Owner,
        password_hash: "$argon2id$...".into(),
    };
    assert!(practice.store.is_new().unwrap());
    practice.store.add_owner(&owner).unwrap();
    assert_eq!(practice.store.add_owner(&owner).unwrap_err().kind(), Kind::Conflict);
    assert!(practice.store.account_by_login("MARA").unwrap().is_some(), "letters of any case");
}

#[rstest]
fn a_session_is_lengthened_by_use_but_not_at_every_request(practice: Practice) {
    let store = &practice.store;
    store.keep_browser_session("used", "{}", 1).unwrap();
    store.lengthen_browser_session("used", 30, 60).unwrap();
    std::thread::sleep(std::time::Duration::from_millis(2100));
    assert!(store.browser_session("used").unwrap().is_none(), "less than a step is not written");
    store.keep_browser_session("used", "{}", 1).unwrap();
    store.lengthen_browser_session("used", 90, 60).unwrap();
    std::thread::sleep(std::time::Duration::from_millis(2100));
    assert!(store.browser_session("used").unwrap().is_some());
}

#[rstest]
fn an_expired_browser_session_is_none(practice: Practice) {
    practice.store.keep_browser_session("alive", "{}", 60).unwrap();
    practice.store.keep_browser_session("gone", "{}", -1).unwrap();
    assert!(practice.store.browser_session("alive").unwrap().is_some());
    assert!(practice.store.browser_session("gone").unwrap().is_none());
}
