//! Judging pictures, judging them again blind, and taking consent back.

use super::{
    AgreementView, PhotoView, RatingQuery, RatingView, RepeatView, RepeatsView, SaveRating, SaveRepeat,
    WithdrawConsent, Withdrawn,
};
use crate::desk::Desk;
use crate::error::DeskError;
use assess::Knowledge;
use casefile::{RatingEntry, check_rating};
use jiff::Timestamp;
use lighttable::{Asked, MIN_REST_DAYS, repeats, unmirrored};
use store::{PhotoRecord, RatingKind, RatingPlace, RatingRecord, Store};
use units::{ClientId, Place, RoundId};

/// Repeats asked in one sitting: two minutes.
const A_SITTING: usize = 8;

impl Desk {
    /// Gives a rating, or changes it.
    pub fn save_rating(&self, round_id: &RoundId, rater: &str, save: &SaveRating) -> Result<RatingView, DeskError> {
        let SaveRating { region, pose, kind, value } = save;
        let place = place(&self.knowledge(), round_id, (region, pose), *kind, *value)?;
        shown(&self.store, &place)?;
        self.store.save_rating(&place, *value, rater, Timestamp::now())?;
        let RatingPlace { round_id, region, pose, .. } = place;
        Ok(RatingView { round_id, region, pose, kind: *kind, value: *value })
    }

    /// Takes a rating back.
    pub fn delete_rating(&self, round_id: &RoundId, asked: &RatingQuery) -> Result<(), DeskError> {
        let place = place(&self.knowledge(), round_id, (&asked.region, &asked.pose), asked.kind, None)?;
        Ok(self.store.delete_rating(&place)?)
    }

    /// A rater's own ratings of a client that are due to be asked again, and how well they agreed so far.
    pub fn repeats(&self, client_id: &ClientId, rater: &str) -> Result<RepeatsView, DeskError> {
        repeats_view(self, &self.knowledge(), client_id, rater)
    }

    /// Keeps a blind answer.
    pub fn save_repeat(&self, rater: &str, save: &SaveRepeat) -> Result<(), DeskError> {
        let SaveRepeat { round_id, region, pose, kind, mirrored, value } = save;
        let place = place(&self.knowledge(), round_id, (region, pose), *kind, *value)?;
        let again = value.map(|value| match kind {
            RatingKind::Standing => value,
            RatingKind::LeftRight => unmirrored(value, *mirrored),
        });
        Ok(self.store.save_repeat(&place, again, rater, Timestamp::now())?)
    }

    /// Takes consent to photos back and removes every picture of the client.
    pub fn withdraw_consent(&self, client_id: &ClientId, asked: &WithdrawConsent) -> Result<Withdrawn, DeskError> {
        let atlas = &self.knowledge().atlas;
        Ok(Withdrawn { pictures: self.store.withdraw_photo_consent(atlas, client_id, asked.revision)? })
    }
}

/// The place of a rating, by the same rules as a case file's.
fn place(
    knowledge: &Knowledge,
    round_id: &RoundId,
    (region, pose): (&str, &str),
    kind: RatingKind,
    value: Option<i8>,
) -> Result<RatingPlace, DeskError> {
    let value = Some(value.unwrap_or(0));
    let (score, left_right) = match kind {
        RatingKind::Standing => (value, None),
        RatingKind::LeftRight => (None, value),
    };
    let entry = RatingEntry {
        region: region.to_owned(),
        pose: pose.to_owned(),
        score,
        left_right,
        rater_sd_steps: None,
        sitting: None,
    };
    let rating = check_rating(&knowledge.atlas, &Place::root(), &entry).map_err(DeskError::Invalid)?;
    Ok(RatingPlace { round_id: round_id.to_owned(), region: rating.region, pose: rating.pose, kind })
}

/// Nothing is judged in a picture that is not there.
fn shown(store: &Store, place: &RatingPlace) -> Result<(), DeskError> {
    let photos = store.client_photos(&store.round(&place.round_id)?.client_id)?;
    let there = photos.iter().any(|photo| photo.round_id == place.round_id && in_pose(photo, place.pose.as_str()));
    let pose = &place.pose;
    there.then_some(()).ok_or_else(|| DeskError::NotFound(format!("this round has no picture in the pose {pose}")))
}

fn in_pose(photo: &PhotoRecord, pose: &str) -> bool {
    photo.shows().is_some_and(|shows| shows.id() == pose)
}

fn repeats_view(
    desk: &Desk,
    knowledge: &Knowledge,
    client_id: &ClientId,
    rater: &str,
) -> Result<RepeatsView, DeskError> {
    let store = &desk.store;
    store.client(&knowledge.atlas, client_id)?;
    let photos = store.client_photos(client_id)?;
    let counting = store::counting(&photos);
    let picture = |rating: &RatingRecord| -> Option<PhotoRecord> {
        let mut own =
            counting.iter().filter(|photo| photo.round_id == rating.place.round_id && photo.measured.is_some());
        own.find(|photo| in_pose(photo, rating.place.pose.as_str())).map(|photo| (*photo).clone())
    };
    let ratings = store.client_ratings(client_id, rater)?;
    let mine = ratings.into_iter().filter(|rating| rating.rated_by == rater && rating.value.is_some());
    let mine: Vec<(RatingRecord, PhotoRecord)> =
        mine.filter_map(|rating| picture(&rating).map(|photo| (rating, photo))).collect();
    let now = Timestamp::now();
    let asked: Vec<Asked> = mine
        .iter()
        .map(|(rating, _)| Asked {
            key: key(&rating.place),
            days_ago: i32::try_from(now.duration_since(rating.rated_at).as_hours() / 24).unwrap_or(i32::MAX),
            repeated: rating.repeated,
        })
        .collect();
    let due = repeats(&asked, A_SITTING).into_iter().filter_map(|repeat| {
        let (rating, photo) = mine.iter().find(|(rating, _)| key(&rating.place) == repeat.key)?;
        let place = rating.place.clone();
        Some(RepeatView {
            round_id: place.round_id,
            region: place.region,
            pose: place.pose,
            kind: place.kind,
            mirrored: repeat.mirrored,
            photo: PhotoView::of(&knowledge.atlas, &desk.frames, photo.clone(), true),
        })
    });
    let due = due.collect();
    let agreement = AgreementView::of(knowledge, store, rater)?;
    Ok(RepeatsView { due, agreement, rest_days: MIN_REST_DAYS })
}

fn key(place: &RatingPlace) -> String {
    format!("{} {} {} {:?}", place.round_id, place.region, place.pose, place.kind)
}
