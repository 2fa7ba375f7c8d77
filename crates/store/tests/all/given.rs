//! What a client was given: weeks under work, plans, private links; and what was decided and seen to.

use crate::support::{Fresh, fresh};
use casefile::{PlanFile, WeekDraft};
use jiff::civil::{Date, date};
use logbook::Decision;
use rstest::{fixture, rstest};
use serde_json::json;
use std::collections::BTreeMap;
use store::{Kind, NewIssue, NewLink, Store};
use units::{ClientId, RoundId};

struct Practice {
    fresh: Fresh,
    ada: ClientId,
    ben: ClientId,
    /// Ada's.
    round: RoundId,
}

#[fixture]
fn practice() -> Practice {
    let fresh = fresh();
    let [ada, ben] = [(); 2].map(|()| fresh.client());
    let round = fresh.round(&ada, 3);
    Practice { fresh, ada, ben, round }
}

fn week(minutes: u16) -> WeekDraft {
    WeekDraft { minutes, weeks: 5, bring_up: Vec::new(), sessions: Vec::new() }
}

fn issue(round: &RoundId, minutes: u16) -> NewIssue {
    let plan = json!({
        "format": "orthomer-plan", "version": 1, "status": "feasible", "objective": 12.5, "bound": null, "gap": null,
        "solve_ms": 300.0, "sessions": [], "ledger": [], "blocked": [], "weeks": [],
    });
    NewIssue {
        round_id: round.to_owned(),
        issued_on: date(2026, 3, 4),
        starts_on: date(2026, 3, 9),
        issued_by: "Mara".into(),
        issued_by_id: None,
        week: week(minutes),
        plan: serde_json::from_value::<PlanFile>(plan).unwrap(),
    }
}

#[rstest]
fn a_week_under_work_comes_back(practice: Practice) {
    let store = &practice.fresh.store;
    assert!(store.plan_draft(&practice.round).unwrap().is_none());
    assert_eq!(store.save_plan_draft(&practice.round, 0, "Mara", &week(60)).unwrap(), 1);
    assert_eq!(store.save_plan_draft(&practice.round, 1, "Jo", &week(45)).unwrap(), 2);
    let draft = store.plan_draft(&practice.round).unwrap().unwrap();
    assert_eq!((draft.week, draft.revision, draft.saved_by.as_str()), (week(45), 2, "Jo"));
}

#[rstest]
#[case::opened_before_the_other_saved(1)]
#[case::from_a_future_that_never_was(7)]
fn a_week_saved_by_somebody_else_is_not_written_over(practice: Practice, #[case] revision: i32) {
    let store = &practice.fresh.store;
    for (revision, minutes) in [(0, 60), (1, 45)] {
        store.save_plan_draft(&practice.round, revision, "Mara", &week(minutes)).unwrap();
    }
    let error = store.save_plan_draft(&practice.round, revision, "Jo", &week(30)).unwrap_err();
    assert_eq!(error.kind(), Kind::Conflict);
    assert_eq!(error.to_string(), "the week was saved by Mara since you opened it; your changes are not saved yet");
    assert_eq!(store.plan_draft(&practice.round).unwrap().unwrap().week, week(45));
}

#[rstest]
fn versions_count_over_all_rounds_of_a_client_and_the_newest_stands_first(practice: Practice) {
    let store = &practice.fresh.store;
    let (second, bens) = (practice.fresh.round(&practice.ada, 5), practice.fresh.round(&practice.ben, 4));
    for (round, minutes) in [(&practice.round, 60), (&bens, 75), (&practice.round, 50), (&second, 40)] {
        store.issue_plan(&issue(round, minutes)).unwrap();
    }
    let given = |client: &ClientId| -> Vec<(i32, u16)> {
        store.issued_plans(client).unwrap().iter().map(|plan| (plan.version, plan.week.minutes)).collect()
    };
    assert_eq!(given(&practice.ada), [(3, 40), (2, 50), (1, 60)]);
    assert_eq!(given(&practice.ben), [(1, 75)]);
}

#[rstest]
fn a_plan_stays_as_it_was_given_whatever_becomes_of_the_week(practice: Practice) {
    let store = &practice.fresh.store;
    store.save_plan_draft(&practice.round, 0, "Mara", &week(60)).unwrap();
    let given = store.issue_plan(&issue(&practice.round, 60)).unwrap();
    store.save_plan_draft(&practice.round, 1, "Mara", &week(45)).unwrap();
    let kept = store.issued_plan(&given.id).unwrap();
    assert_eq!((kept.week, kept.starts_on, kept.issued_by.as_str()), (week(60), date(2026, 3, 9), "Mara"));
    assert_eq!(kept.client_id, practice.ada);
}

type Act = fn(&Store) -> Result<(), store::StoreError>;

#[rstest]
#[case::a_week_of_no_round(|s: &Store| s.save_plan_draft(&"none".into(), 0, "Mara", &week(60)).map(drop), "round")]
#[case::a_plan_for_no_round(|s: &Store| s.issue_plan(&issue(&"none".into(), 60)).map(drop), "round")]
#[case::a_plan_nobody_was_given(|s: &Store| s.issued_plan(&"none".into()).map(drop), "plan")]
#[case::a_link_of_nobody(|s: &Store| s.add_link(&link(&"none".into(), "aa")).map(drop), "client")]
#[case::a_review_of_no_round(|s: &Store| s.save_decisions(&"none".into(), 0, "Mara", &BTreeMap::new()).map(drop), "round")]
#[case::nobody_s_picture(|s: &Store| s.photo(&"none".into()).map(drop), "picture")]
fn what_is_not_there_is_said_by_its_name(practice: Practice, #[case] act: Act, #[case] what: &str) {
    let error = act(&practice.fresh.store).unwrap_err();
    assert_eq!(error.kind(), Kind::NotFound);
    assert_eq!(error.to_string(), format!("there is no {what} \"none\""));
}

fn link<'a>(client_id: &'a ClientId, token_sha256: &'a str) -> NewLink<'a> {
    NewLink {
        client_id,
        token_sha256,
        made_by: "Mara",
        made_by_id: "m",
        made_on: date(2026, 3, 1),
        expires_on: date(2026, 3, 31),
    }
}

#[rstest]
#[case::the_day_it_is_made(date(2026, 3, 1), None, true)]
#[case::its_last_day(date(2026, 3, 31), None, true)]
#[case::the_day_after(date(2026, 4, 1), None, false)]
#[case::taken_back_that_day(date(2026, 3, 10), Some(date(2026, 3, 10)), false)]
#[case::taken_back_before(date(2026, 3, 10), Some(date(2026, 3, 2)), false)]
fn a_link_opens_until_its_last_day_or_until_it_is_taken_back(
    practice: Practice,
    #[case] day: Date,
    #[case] revoked: Option<Date>,
    #[case] opens: bool,
) {
    let store = &practice.fresh.store;
    let made = store.add_link(&link(&practice.ada, "aa")).unwrap();
    if let Some(revoked) = revoked {
        store.revoke_link(&practice.ada, &made.id, revoked).unwrap();
    }
    let found = store.link_by_hash("aa", day).unwrap().unwrap();
    assert_eq!((found.client_id.as_str(), found.opens_on(day)), (practice.ada.as_str(), opens));
    let used = store.links(&practice.ada).unwrap()[0].used_on;
    assert_eq!(used, opens.then_some(day), "only what opens is noted as used");
}

#[rstest]
fn a_link_belongs_to_one_client(practice: Practice) {
    let store = &practice.fresh.store;
    let made = store.add_link(&link(&practice.ada, "aa")).unwrap();
    assert!(store.link_by_hash("ab", date(2026, 3, 5)).unwrap().is_none());
    assert!(store.links(&practice.ben).unwrap().is_empty());
    let error = store.revoke_link(&practice.ben, &made.id, date(2026, 3, 5)).unwrap_err();
    assert_eq!(error.kind(), Kind::NotFound);
    assert!(store.link_by_hash("aa", date(2026, 3, 5)).unwrap().unwrap().revoked_on.is_none());
}

#[rstest]
fn decisions_come_back_and_the_second_of_two_savers_is_told(practice: Practice) {
    let store = &practice.fresh.store;
    assert_eq!(store.decisions(&practice.round).unwrap(), (BTreeMap::new(), 0));
    let grow = BTreeMap::from([("calves.soleus".parse().unwrap(), Decision::Raise)]);
    assert_eq!(store.save_decisions(&practice.round, 0, "Mara", &grow).unwrap(), 1);
    let error = store.save_decisions(&practice.round, 0, "Jo", &BTreeMap::new()).unwrap_err();
    assert_eq!(error.kind(), Kind::Conflict);
    assert!(error.to_string().starts_with("the review was saved by Mara"), "{error}");
    assert_eq!(store.decisions(&practice.round).unwrap(), (grow, 1));
}

#[rstest]
fn what_was_seen_to_leaves_the_queue_of_its_client_and_can_come_back(practice: Practice) {
    let (store, day) = (&practice.fresh.store, date(2026, 3, 5));
    let seen = |client: &ClientId| {
        let mut seen: Vec<String> = store.seen_to(client).unwrap().into_iter().collect();
        seen.sort_unstable();
        seen
    };
    for (what, note) in [("due:a", ""), ("pain:b", "rang"), ("pain:b", "rang twice")] {
        store.see_to(&practice.ada, what, note, "Mara", day).unwrap();
    }
    assert_eq!(seen(&practice.ada), ["due:a", "pain:b"]);
    assert!(seen(&practice.ben).is_empty());
    store.unsee(&practice.ada, "due:a").unwrap();
    assert_eq!(seen(&practice.ada), ["pain:b"]);
}

#[rstest]
fn a_kept_week_has_a_name_of_its_own_whatever_its_case(practice: Practice) {
    let store = &practice.fresh.store;
    assert!(store.save_week("Push and pull", &week(60), "Mara", false).unwrap());
    assert!(!store.save_week("push and PULL", &week(45), "Jo", false).unwrap(), "the name is taken");
    assert!(store.save_week("push and pull", &week(30), "Jo", true).unwrap());
    let kept = store.saved_weeks().unwrap();
    let only = (kept.len(), kept[0].name.as_str(), kept[0].week.minutes, kept[0].saved_by.as_str());
    assert_eq!(only, (1, "push and pull", 30, "Jo"));
    store.forget_saved_week(&kept[0].id).unwrap();
    assert_eq!(store.forget_saved_week(&kept[0].id).unwrap_err().kind(), Kind::NotFound);
    assert!(store.saved_weeks().unwrap().is_empty());
}

#[rstest]
fn of_what_a_client_was_given_the_newest_can_be_taken(practice: Practice) {
    let store = &practice.fresh.store;
    assert!(store.given_weeks().unwrap().is_empty());
    store.issue_plan(&issue(&practice.round, 60)).unwrap();
    let newest = store.issue_plan(&issue(&practice.round, 45)).unwrap();
    let given = store.given_weeks().unwrap();
    assert_eq!((given.len(), &given[0].plan_id), (1, &newest.id));
}
