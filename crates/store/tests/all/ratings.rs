//! Judgements of pictures and their blind repeats on a real SQLite file.

use crate::support::{Fresh, fresh};
use jiff::Timestamp;
use rstest::{fixture, rstest};
use store::{Kind, RatingKind, RatingPlace};
use units::{ClientId, RoundId};

struct Practice {
    fresh: Fresh,
    client: ClientId,
    round: RoundId,
    mara: String,
    jo: String,
}

#[fixture]
fn practice() -> Practice {
    let fresh = fresh();
    let client = fresh.client();
    let round = fresh.round(&client, 3);
    let [mara, jo] = fresh.people();
    Practice { fresh, client, round, mara, jo }
}

impl Practice {
    fn place(&self, region: &str, kind: RatingKind) -> RatingPlace {
        let (region, pose) = (region.parse().unwrap(), "F".parse().unwrap());
        RatingPlace { round_id: self.round.clone(), region, pose, kind }
    }

    fn rate(&self, region: &str, value: Option<i8>, rater: &str) {
        self.fresh
            .store
            .save_rating(&self.place(region, RatingKind::Standing), value, rater, Timestamp::UNIX_EPOCH)
            .unwrap();
    }

    fn again(&self, region: &str, value: Option<i8>, rater: &str) -> Result<(), store::StoreError> {
        self.fresh.store.save_repeat(&self.place(region, RatingKind::Standing), value, rater, Timestamp::UNIX_EPOCH)
    }

    /// Region and value of each rating, by region.
    fn ratings(&self) -> Vec<(String, Option<i8>)> {
        let all = self.fresh.store.client_ratings(&self.client, &self.mara).unwrap();
        let mut all: Vec<_> = all.iter().map(|record| (record.place.region.to_string(), record.value)).collect();
        all.sort();
        all
    }
}

#[rstest]
fn a_rating_is_given_changed_and_taken_back(practice: Practice) {
    practice.rate("calves.soleus", Some(-1), &practice.mara);
    practice.rate("delts.lateral", None, &practice.mara);
    practice.rate("calves.soleus", Some(2), &practice.jo);
    assert_eq!(practice.ratings(), [("calves.soleus".into(), Some(2)), ("delts.lateral".into(), None)]);
    assert!(practice.fresh.store.round_is_rated(&practice.round).unwrap());
    for region in ["calves.soleus", "delts.lateral"] {
        practice.fresh.store.delete_rating(&practice.place(region, RatingKind::Standing)).unwrap();
    }
    assert!(!practice.fresh.store.round_is_rated(&practice.round).unwrap());
}

#[rstest]
fn standing_and_sides_of_a_region_are_two_judgements(practice: Practice) {
    practice.rate("calves.soleus", Some(-1), &practice.mara);
    let sides = practice.place("calves.soleus", RatingKind::LeftRight);
    practice.fresh.store.save_rating(&sides, Some(1), &practice.mara, Timestamp::UNIX_EPOCH).unwrap();
    assert_eq!(practice.ratings(), [("calves.soleus".into(), Some(-1)), ("calves.soleus".into(), Some(1))]);
    practice.fresh.store.delete_rating(&sides).unwrap();
    assert_eq!(practice.ratings(), [("calves.soleus".into(), Some(-1))]);
}

#[rstest]
fn a_rating_needs_its_round(practice: Practice) {
    let place = RatingPlace { round_id: "none".into(), ..practice.place("calves.soleus", RatingKind::Standing) };
    let error = practice.fresh.store.save_rating(&place, Some(1), &practice.mara, Timestamp::UNIX_EPOCH).unwrap_err();
    assert_eq!((error.kind(), error.to_string().as_str()), (Kind::NotFound, "there is no round \"none\""));
}

/// Only who judged, and could tell, can be asked again.
#[rstest]
#[case::never_judged(&[], "mara")]
#[case::could_not_be_told(&[None], "mara")]
#[case::judged_by_somebody_else(&[Some(1)], "jo")]
fn what_one_did_not_judge_cannot_be_repeated(practice: Practice, #[case] first: &[Option<i8>], #[case] asked: &str) {
    for value in first {
        practice.rate("calves.soleus", *value, &practice.mara);
    }
    let asked = if asked == "jo" { &practice.jo } else { &practice.mara };
    assert_eq!(practice.again("calves.soleus", Some(1), asked).unwrap_err().kind(), Kind::NotFound);
    assert!(practice.fresh.store.repeat_pairs(asked, RatingKind::Standing).unwrap().is_empty());
}

#[rstest]
fn repeats_pair_with_what_was_said_first_and_a_second_repeat_replaces_the_first(practice: Practice) {
    practice.rate("calves.soleus", Some(-1), &practice.mara);
    practice.rate("delts.lateral", Some(2), &practice.mara);
    practice.rate("neck", Some(0), &practice.jo);
    practice.again("calves.soleus", Some(0), &practice.mara).unwrap();
    practice.again("calves.soleus", Some(-2), &practice.mara).unwrap();
    practice.again("delts.lateral", None, &practice.mara).unwrap();
    practice.again("neck", Some(1), &practice.jo).unwrap();
    // A rating that changes later leaves the pair as it was judged.
    practice.rate("calves.soleus", Some(2), &practice.mara);
    let pairs = |rater: &str, kind| practice.fresh.store.repeat_pairs(rater, kind).unwrap();
    assert_eq!(pairs(&practice.mara, RatingKind::Standing), [[-1, -2]], "what could not be told is no pair");
    assert_eq!(pairs(&practice.jo, RatingKind::Standing), [[0, 1]]);
    assert!(pairs(&practice.mara, RatingKind::LeftRight).is_empty());
}

#[rstest]
fn whose_repeat_it_was_is_told_to_its_rater_alone(practice: Practice) {
    practice.rate("calves.soleus", Some(-1), &practice.mara);
    practice.again("calves.soleus", Some(-1), &practice.mara).unwrap();
    let repeated = |rater: &str| practice.fresh.store.client_ratings(&practice.client, rater).unwrap()[0].repeated;
    assert_eq!((repeated(&practice.mara), repeated(&practice.jo)), (true, false));
}

#[rstest]
fn a_case_holds_what_could_be_told_with_its_rater_s_own_error(practice: Practice) {
    practice.rate("calves.soleus", Some(-1), &practice.mara);
    practice.rate("delts.lateral", None, &practice.mara);
    practice.rate("neck", Some(1), &practice.jo);
    practice.again("calves.soleus", Some(1), &practice.mara).unwrap();
    let case = practice.fresh.store.case_at(&practice.fresh.atlas, &practice.round).unwrap();
    let errors: Vec<(String, Option<f64>)> =
        case.rounds[0].ratings.iter().map(|rating| (rating.region.to_string(), rating.rater_sd_steps)).collect();
    assert_eq!(errors.len(), 2);
    let of = |region: &str| errors.iter().find(|(name, _)| name == region).unwrap().1;
    assert!(of("calves.soleus").is_some_and(|sd| sd > 0.0));
    assert_eq!(of("neck"), None, "nothing is known of Jo yet");
}
