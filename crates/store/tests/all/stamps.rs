//! What counts as a change of a client, so that what was worked out before is not used for longer than it holds.

use assess::Choices;
use atlas::Atlas;
use casefile::{ClientEntry, check_client};
use jiff::Timestamp;
use jiff::civil::Date;
use roles::Role;
use rstest::rstest;
use store::{NewAccount, NewRound, RatingKind, RatingPlace, Stamp, Store};
use tempfile::TempDir;
use units::{ClientId, RoundId};

struct Practice {
    store: Store,
    clients: [ClientId; 2],
    round: RoundId,
    rater: String,
    _directory: TempDir,
}

fn practice() -> Practice {
    let directory = tempfile::tempdir().unwrap();
    let (store, atlas) = (Store::open(directory.path()).unwrap(), Atlas::load().unwrap());
    let example: serde_json::Value = serde_json::from_str(include_str!("../../../../docs/examples/case.json")).unwrap();
    let entry: ClientEntry = serde_json::from_value(example["client"].clone()).unwrap();
    let day = Date::constant(2026, 3, 2);
    let client = check_client(&atlas, &units::Place::root(), &entry, day).unwrap();
    let clients = [(); 2].map(|()| store.add_client(&atlas, &client).unwrap().id);
    let new = NewRound { taken_on: day, measured_by: "A".into(), weight: None };
    let round = store.add_round(&clients[0], &new).unwrap().id;
    let owner = NewAccount { login: "a".into(), name: "A".into(), role: Role::Owner, password_hash: "none".into() };
    let rater = store.add_owner(&owner).unwrap().id;
    Practice { store, clients, round, rater, _directory: directory }
}

fn place(practice: &Practice) -> RatingPlace {
    let (region, pose) = ("delts.lateral".parse().unwrap(), "F".parse().unwrap());
    RatingPlace { round_id: practice.round.clone(), region, pose, kind: RatingKind::Standing }
}

type Act = fn(&Practice);

#[rstest]
#[case::choices(|p: &Practice| { p.store.save_choices(&p.round, 0, &Choices::default()).map(drop).unwrap(); }, [true, false])]
#[case::a_rating(|p: &Practice| p.store.save_rating(&place(p), Some(1), &p.rater, Timestamp::now()).unwrap(), [true, false])]
// How far a rater is off is learned from everybody they judged.
#[case::a_judgement_repeated(
    |p: &Practice| {
        p.store.save_rating(&place(p), Some(1), &p.rater, Timestamp::now()).unwrap();
        p.store.save_repeat(&place(p), Some(0), &p.rater, Timestamp::now()).unwrap();
    },
    [true, true]
)]
fn a_change_counts_for_those_whose_pages_follow_from_it(#[case] act: Act, #[case] changed: [bool; 2]) {
    let practice = practice();
    let stamps = |p: &Practice| p.clients.clone().map(|id| p.store.stamp(&id).unwrap());
    let before = stamps(&practice);
    act(&practice);
    let after = stamps(&practice);
    assert_eq!([before[0].all < after[0].all, before[1].all < after[1].all], changed);
}

#[test]
fn what_is_said_about_a_log_leaves_the_measurements_alone() {
    let practice = practice();
    let id = &practice.clients[0];
    let before = practice.store.stamp(id).unwrap();
    practice.store.see_to(id, "due:x", "", "A", Date::constant(2026, 3, 3)).unwrap();
    assert_eq!(practice.store.stamp(id).unwrap(), Stamp { log: before.log + 1, ..before });
}
