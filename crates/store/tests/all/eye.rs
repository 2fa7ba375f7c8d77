//! Sittings before made-up figures, and what the store makes of their answers.

use crate::support::{Fresh, fresh};
use jiff::{Timestamp, ToSpan};
use rstest::{fixture, rstest};
use store::{EyeAnswer, EyeSitting, Kind, RatingKind, Store};

struct Practice {
    fresh: Fresh,
    mara: String,
    jo: String,
}

#[fixture]
fn practice() -> Practice {
    let fresh = fresh();
    let [mara, jo] = fresh.people();
    Practice { fresh, mara, jo }
}

impl Practice {
    fn store(&self) -> &Store {
        &self.fresh.store
    }

    fn sitting(&self, of: &str, hour: i64) -> EyeSitting {
        let at = Timestamp::UNIX_EPOCH + hour.hours();
        self.store().start_eye_sitting(of, u64::MAX - 7, at).unwrap()
    }

    /// Figures and answers of a sitting, in order.
    fn answer(&self, sitting: &EyeSitting, kind: RatingKind, given: &[(usize, Option<i8>)]) {
        for (place, (figure, value)) in given.iter().enumerate() {
            self.store().save_eye_answer(&sitting.id, &answer(place, *figure, kind, *value)).unwrap();
        }
    }

    fn pairs(&self, of: &str, kind: RatingKind) -> Vec<[i8; 2]> {
        self.store().repeat_pairs(of, kind).unwrap()
    }
}

fn answer(place: usize, figure: usize, kind: RatingKind, value: Option<i8>) -> EyeAnswer {
    EyeAnswer {
        place,
        figure,
        kind,
        site: "calf".into(),
        mirrored: place >= 3,
        value,
        truth: -1.25,
        answered_at: Timestamp::UNIX_EPOCH,
    }
}

#[rstest]
fn a_sitting_and_its_answers_are_read_as_they_were_kept(practice: Practice) {
    let sitting = practice.sitting(&practice.mara, 1);
    practice.answer(&sitting, RatingKind::LeftRight, &[(0, Some(-2)), (1, None)]);
    let answers = vec![answer(0, 0, RatingKind::LeftRight, Some(-2)), answer(1, 1, RatingKind::LeftRight, None)];
    let kept = EyeSitting { answers, ..sitting.clone() };
    assert_eq!(practice.store().eye_sitting(&practice.mara, &sitting.id).unwrap(), kept);
    assert_eq!(practice.store().eye_sittings(&practice.mara).unwrap(), [kept]);
}

#[rstest]
fn sittings_come_newest_first_and_each_with_its_own_answers(practice: Practice) {
    let sittings = [2, 5, 3].map(|hour| practice.sitting(&practice.mara, hour));
    practice.answer(&sittings[0], RatingKind::Standing, &[(0, Some(1))]);
    let read = practice.store().eye_sittings(&practice.mara).unwrap();
    let ids: Vec<&str> = read.iter().map(|sitting| sitting.id.as_str()).collect();
    assert_eq!(ids, [&sittings[1].id, &sittings[2].id, &sittings[0].id]);
    assert_eq!(read.iter().map(|sitting| sitting.answers.len()).collect::<Vec<_>>(), [0, 0, 1]);
}

#[rstest]
fn a_sitting_is_nobody_else_s(practice: Practice) {
    let sitting = practice.sitting(&practice.mara, 1);
    assert_eq!(practice.store().eye_sitting(&practice.jo, &sitting.id).unwrap_err().kind(), Kind::NotFound);
    assert!(practice.store().eye_sittings(&practice.jo).unwrap().is_empty());
}

#[rstest]
fn a_picture_is_answered_once(practice: Practice) {
    let sitting = practice.sitting(&practice.mara, 1);
    practice.answer(&sitting, RatingKind::Standing, &[(0, Some(1))]);
    let again = practice.store().save_eye_answer(&sitting.id, &answer(0, 0, RatingKind::Standing, Some(2)));
    assert_eq!(again.unwrap_err().kind(), Kind::Conflict);
    let kept = practice.store().eye_sitting(&practice.mara, &sitting.id).unwrap();
    assert_eq!(kept.answers[0].value, Some(1));
}

#[rstest]
#[case::twice(&[(0, Some(1)), (1, Some(0)), (2, Some(0)), (0, Some(2))], &[[1, 2]])]
#[case::two_of_them(&[(0, Some(1)), (1, Some(0)), (2, Some(0)), (0, Some(2)), (2, Some(-1))], &[[1, 2], [0, -1]])]
#[case::not_told_the_first_time(&[(0, None), (1, Some(0)), (2, Some(0)), (0, Some(2))], &[])]
#[case::not_told_the_second_time(&[(0, Some(1)), (1, Some(0)), (2, Some(0)), (0, None)], &[])]
#[case::none_yet(&[(0, Some(1)), (1, Some(0))], &[])]
fn a_figure_judged_twice_is_a_repeat(
    practice: Practice,
    #[case] given: &[(usize, Option<i8>)],
    #[case] pairs: &[[i8; 2]],
) {
    practice.answer(&practice.sitting(&practice.mara, 1), RatingKind::Standing, given);
    assert_eq!(practice.pairs(&practice.mara, RatingKind::Standing), pairs);
    assert!(practice.pairs(&practice.mara, RatingKind::LeftRight).is_empty());
    assert!(practice.pairs(&practice.jo, RatingKind::Standing).is_empty());
}

#[rstest]
fn the_same_number_in_two_sittings_is_not_the_same_figure(practice: Practice) {
    for (hour, value) in [(1, 1), (2, 2)] {
        practice.answer(&practice.sitting(&practice.mara, hour), RatingKind::Standing, &[(0, Some(value))]);
    }
    assert!(practice.pairs(&practice.mara, RatingKind::Standing).is_empty());
}

/// How far a rater is off is learned from what they judged twice, and every verdict that rests on their ratings follows.
#[rstest]
#[case::the_first_time(2, 0)]
#[case::the_second_time(4, 1)]
fn only_a_figure_s_second_showing_changes_verdicts(practice: Practice, #[case] answers: usize, #[case] changes: i64) {
    let client = practice.fresh.client();
    let before = practice.store().stamp(&client).unwrap().all;
    let given = [(0, Some(1)), (1, Some(1)), (2, Some(1)), (0, Some(0))];
    practice.answer(&practice.sitting(&practice.mara, 1), RatingKind::Standing, &given[..answers]);
    assert_eq!(practice.store().stamp(&client).unwrap().all - before, changes);
}

#[rstest]
fn sittings_go_with_the_person(practice: Practice) {
    let sitting = practice.sitting(&practice.jo, 1);
    practice.answer(&sitting, RatingKind::Standing, &[(0, Some(1))]);
    practice.store().remove_account(&practice.jo).unwrap();
    assert_eq!(practice.store().eye_sitting(&practice.jo, &sitting.id).unwrap_err().kind(), Kind::NotFound);
}
