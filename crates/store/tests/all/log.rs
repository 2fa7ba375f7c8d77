//! The log on a real SQLite file: every version is kept, in whatever order they arrive.

use crate::support::{Fresh, fresh};
use assess::TrainingEntry;
use casefile::{LogEntry, WeekDraft};
use jiff::Timestamp;
use jiff::civil::{Date, date};
use logbook::{AlarmKind, BestSets, Overrule};
use rstest::{fixture, rstest};
use serde_json::json;
use store::{Kept, NewIssue, NewLogEntry};
use units::{ClientId, PlanId, RoundId};

struct Practice {
    fresh: Fresh,
    ada: ClientId,
    ben: ClientId,
    round: RoundId,
    /// Ada's and Ben's.
    plans: [PlanId; 2],
}

#[fixture]
fn practice() -> Practice {
    let fresh = fresh();
    let [ada, ben] = [(); 2].map(|()| fresh.client());
    let [round, bens] = [&ada, &ben].map(|client| fresh.round(client, 3));
    let plans = [&round, &bens].map(|round| fresh.store.issue_plan(&issue(round)).unwrap().id);
    Practice { fresh, ada, ben, round, plans }
}

fn issue(round: &RoundId) -> NewIssue {
    let plan = json!({
        "format": "orthomer-plan", "version": 1, "status": "feasible", "objective": 0.0, "bound": null, "gap": null,
        "solve_ms": 0.0, "sessions": [], "ledger": [], "blocked": [], "weeks": [],
    });
    NewIssue {
        round_id: round.to_owned(),
        issued_on: date(2026, 3, 2),
        starts_on: date(2026, 3, 2),
        issued_by: "Mara".into(),
        issued_by_id: None,
        week: WeekDraft { minutes: 60, weeks: 5, bring_up: Vec::new(), sessions: Vec::new() },
        plan: serde_json::from_value(plan).unwrap(),
    }
}

/// Ids are told apart by one letter.
fn id(letter: char) -> String {
    format!("6f2c7b0e-3a0f-4c9e-9a57-00000000000{letter}")
}

/// Something that was trained once.
struct Done<'a> {
    letter: char,
    follows: &'a [char],
    plan: &'a PlanId,
    week: u8,
    day: u8,
    on: Date,
    exercise: &'a str,
}

impl Done<'_> {
    fn new(plan: &PlanId, letter: char) -> Done<'_> {
        Done { letter, follows: &[], plan, week: 1, day: 1, on: date(2026, 3, 2), exercise: "db-curl" }
    }

    fn entry(&self) -> NewLogEntry {
        let follows: Vec<String> = self.follows.iter().copied().map(id).collect();
        let entry: LogEntry = serde_json::from_value(json!({
            "id": id(self.letter), "plan": self.plan, "week": self.week, "day": self.day, "follows": follows,
            "trained_on": self.on.to_string(), "at": "2026-03-02T18:05:00Z",
            "part": {
                "kind": "exercise", "exercise": self.exercise, "position": 1, "scheme": "straight",
                "sets": [{"number": 1, "load_kg": 12.0, "reps": 9, "reserve": 1}],
            },
        }))
        .unwrap();
        let training = TrainingEntry {
            week_of: self.on,
            session: self.day,
            position: 1,
            exercise: self.exercise.parse().unwrap(),
            sets: 1,
            one_sided: false,
            reps: Some(9),
            swung: false,
        };
        let best = BestSets { both: Some(15.6), left: None, right: None, loaded: true };
        let written_at = "2026-03-02T18:05:00Z".parse().unwrap();
        NewLogEntry { entry, written_at, training: Some(training), alarm: None, best: Some(best) }
    }
}

impl Practice {
    fn keep(&self, entries: &[NewLogEntry]) -> Vec<Kept> {
        self.fresh.store.keep_log(&self.ada, "Ada", entries).unwrap()
    }

    /// The last letters of what stands.
    fn standing(&self) -> Vec<char> {
        let log = self.fresh.store.log(&self.ada, Date::MIN).unwrap();
        let mut letters: Vec<char> = log.iter().map(|record| record.entry.id.chars().last().unwrap()).collect();
        letters.sort_unstable();
        letters
    }
}

/// A correction (b) of an entry (a), a correction (c) of that, and an entry (d) of a phone that had seen none of them.
#[rstest]
#[case::as_they_were_written(['a', 'b', 'c', 'd'])]
#[case::backwards(['d', 'c', 'b', 'a'])]
#[case::the_last_correction_first(['c', 'a', 'd', 'b'])]
#[case::the_correction_before_what_it_corrects(['b', 'a', 'c', 'd'])]
#[case::the_other_phone_in_the_middle(['a', 'd', 'c', 'b'])]
fn the_same_versions_stand_in_whatever_order_they_arrive(practice: Practice, #[case] order: [char; 4]) {
    let plan = &practice.plans[0];
    for letter in order {
        let follows: &[char] = match letter {
            'b' => &['a'],
            'c' => &['a', 'b'],
            _ => &[],
        };
        practice.keep(&[Done { follows, ..Done::new(plan, letter) }.entry()]);
    }
    assert_eq!(practice.standing(), ['c', 'd']);
    let replaced = practice.fresh.store.replaced(std::slice::from_ref(plan)).unwrap();
    assert_eq!(replaced.len(), 2, "what was corrected is kept");
}

#[rstest]
fn what_became_of_each_entry_is_told(practice: Practice) {
    let [plan, bens] = &practice.plans;
    let first = Done::new(plan, 'a').entry();
    assert_eq!(practice.keep(&[first.clone(), first.clone()]), [Kept::New, Kept::Known]);
    let corrected = Done { follows: &['a'], ..Done::new(plan, 'b') }.entry();
    let unseen = Done::new(plan, 'c').entry();
    assert_eq!(practice.keep(&[corrected, unseen]), [Kept::New, Kept::Beside]);
    let refused = |kept: &Kept| match kept {
        Kept::Refused(why) => why.clone(),
        other => panic!("{other:?}"),
    };
    let foreign = practice.keep(&[Done::new(bens, 'd').entry()]);
    assert_eq!(refused(&foreign[0]), "this session's plan is not one of this client's plans");
    let same_id = practice.fresh.store.keep_log(&practice.ben, "Ben", &[Done::new(bens, 'a').entry()]).unwrap();
    assert_eq!(refused(&same_id[0]), "this entry's id belongs to something else: start it anew");
    assert!(practice.fresh.store.log(&practice.ben, Date::MIN).unwrap().is_empty());
}

#[rstest]
#[case::another_day(1, 2, "db-curl")]
#[case::another_week(2, 1, "db-curl")]
#[case::another_exercise(1, 1, "cable-curl")]
fn an_entry_follows_only_what_stands_in_its_own_place(
    practice: Practice,
    #[case] week: u8,
    #[case] day: u8,
    #[case] exercise: &str,
) {
    let plan = &practice.plans[0];
    practice.keep(&[Done::new(plan, 'a').entry()]);
    let other = Done { follows: &['a'], week, day, exercise, ..Done::new(plan, 'b') };
    assert_eq!(practice.keep(&[other.entry()]), [Kept::New]);
    assert_eq!(practice.standing(), ['a', 'b']);
}

#[rstest]
#[case::half_a_year_to_the_day(date(2025, 9, 1), true)]
#[case::a_day_more(date(2025, 8, 31), false)]
#[case::the_day_itself(date(2026, 3, 2), true)]
#[case::still_to_come(date(2026, 3, 3), false)]
fn past_training_is_the_half_year_up_to_a_day(practice: Practice, #[case] on: Date, #[case] counts: bool) {
    practice.keep(&[Done { on, ..Done::new(&practice.plans[0], 'a') }.entry()]);
    let trained = practice.fresh.store.logged_training(&practice.ada, date(2026, 3, 2)).unwrap();
    assert_eq!(trained.len(), usize::from(counts));
    assert!(practice.fresh.store.logged_training(&practice.ben, date(2026, 3, 2)).unwrap().is_empty());
}

#[rstest]
fn past_training_stands_in_the_week_of_its_monday(practice: Practice) {
    let sunday = Done { on: date(2026, 3, 8), day: 7, ..Done::new(&practice.plans[0], 'a') };
    practice.keep(&[sunday.entry()]);
    let trained = practice.fresh.store.logged_training(&practice.ada, date(2026, 3, 9)).unwrap();
    assert_eq!((trained[0].week_of, trained[0].session, trained[0].reps), (date(2026, 3, 2), 7, Some(9)));
}

#[rstest]
fn of_two_versions_side_by_side_one_counts_as_training(practice: Practice) {
    let plan = &practice.plans[0];
    practice.keep(&[Done::new(plan, 'a').entry(), Done::new(plan, 'b').entry()]);
    assert_eq!(practice.standing(), ['a', 'b']);
    assert_eq!(practice.fresh.store.logged_training(&practice.ada, date(2026, 3, 9)).unwrap().len(), 1);
}

#[rstest]
fn best_sets_run_from_the_oldest_day_and_leave_out_what_was_corrected(practice: Practice) {
    let plan = &practice.plans[0];
    let later = Done { day: 4, on: date(2026, 3, 5), ..Done::new(plan, 'a') };
    let first = Done::new(plan, 'b');
    let corrected = Done { follows: &['b'], ..Done::new(plan, 'c') };
    practice.keep(&[later.entry(), first.entry(), corrected.entry()]);
    let best = practice.fresh.store.best_sets(&practice.ada).unwrap();
    let days: Vec<Date> = best.iter().map(|(on, ..)| *on).collect();
    assert_eq!(days, [date(2026, 3, 2), date(2026, 3, 5)]);
    assert_eq!((best[0].1.as_str(), best[0].2.both, best[0].2.loaded), ("db-curl", Some(15.6), true));
}

#[rstest]
fn alarms_are_what_stands_and_hurts(practice: Practice) {
    let plan = &practice.plans[0];
    let alarm = |done: Done, alarm: Option<AlarmKind>| NewLogEntry { alarm, ..done.entry() };
    practice.keep(&[
        alarm(Done::new(plan, 'a'), Some(AlarmKind::Pain)),
        alarm(Done { day: 2, ..Done::new(plan, 'b') }, None),
        alarm(Done { day: 3, ..Done::new(plan, 'c') }, Some(AlarmKind::Refer)),
        // It was a slip of the thumb.
        alarm(Done { follows: &['a'], ..Done::new(plan, 'd') }, None),
    ]);
    let alarms = practice.fresh.store.log_alarms(&practice.ada).unwrap();
    assert_eq!(alarms.iter().map(|record| record.entry.id.clone()).collect::<Vec<_>>(), [id('c')]);
}

#[rstest]
fn sessions_of_a_round_are_counted_once_each_and_none_is_not_zero(practice: Practice) {
    let plan = &practice.plans[0];
    let unplanned = practice.fresh.round(&practice.ada, 4);
    assert_eq!(practice.fresh.store.logged_sessions(&practice.round).unwrap(), Some(0));
    assert_eq!(practice.fresh.store.logged_sessions(&unplanned).unwrap(), None, "no plan was given");
    practice.keep(&[
        Done::new(plan, 'a').entry(),
        Done { exercise: "cable-curl", ..Done::new(plan, 'b') }.entry(),
        Done { day: 3, ..Done::new(plan, 'c') }.entry(),
        Done { week: 2, ..Done::new(plan, 'd') }.entry(),
    ]);
    assert_eq!(practice.fresh.store.logged_sessions(&practice.round).unwrap(), Some(3));
}

#[rstest]
fn the_newest_arrival_grows_with_what_stands_up_to_a_day(practice: Practice) {
    let plan = &practice.plans[0];
    let until = |day| practice.fresh.store.newest_arrival(&practice.ada, day).unwrap();
    assert_eq!(until(date(2026, 3, 9)), 0);
    practice.keep(&[Done::new(plan, 'a').entry()]);
    let first = until(date(2026, 3, 9));
    practice.keep(&[Done { day: 4, on: date(2026, 3, 5), ..Done::new(plan, 'b') }.entry()]);
    assert!(first > 0 && until(date(2026, 3, 9)) > first);
    assert_eq!(until(date(2026, 3, 4)), first);
}

#[rstest]
fn what_a_coach_said_is_kept_by_exercise_said_anew_and_taken_back(practice: Practice) {
    let (store, ada) = (&practice.fresh.store, &practice.ada);
    let said = |count| Overrule { load_kg: Some(10.0), count, note: "Slower.".into() };
    let at: Timestamp = "2026-03-02T19:00:00Z".parse().unwrap();
    let later: Timestamp = "2026-03-03T19:00:00Z".parse().unwrap();
    for (exercise, count, at) in [("db-curl", 8, at), ("dead-hang", 30, at), ("db-curl", 12, later)] {
        store.save_overrule(ada, exercise, Some(&said(count)), "Mara", at).unwrap();
    }
    let mut all: Vec<_> = store.overrules(ada).unwrap().into_iter().collect();
    all.sort_by(|a, b| a.0.cmp(&b.0));
    assert_eq!(all, [("db-curl".to_owned(), (said(12), later)), ("dead-hang".to_owned(), (said(30), at))]);
    store.save_overrule(ada, "db-curl", None, "Mara", later).unwrap();
    assert_eq!(store.overrules(ada).unwrap().len(), 1);
    assert!(store.overrules(&practice.ben).unwrap().is_empty());
}
