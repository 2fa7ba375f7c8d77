//! Pictures on a client's own page: what is asked for, how the camera stands, what is said of a picture on the spot, sending it; and asking for
//! a pose once more.

use super::looking::{earlier, light_of};
use super::saying::check_distance;
use super::table::outline_of;
use super::{AskAgain, Ghost, LookQuery, NewPhotoQuery, PicturesAsked, PoseAsked};
use crate::desk::{Desk, today};
use crate::error::{DeskError, invalid};
use assess::Client;
use atlas::Atlas;
use casefile::Problem;
use jiff::civil::Date;
use jiff::{Timestamp, ToSpan};
use lighttable::{CameraSetUp, spoilt};
use store::{PhotoRecord, PictureAsk, RoundRecord, Store};
use units::{ClientId, Place, RoundId};
use vision::{Ask, Before, PhotoPose, Taken, taken};

/// Pictures go to the newest round when it is no older than this, days: the same look, the same light.
const SAME_ROUND_DAYS: i64 = 14;

/// The poses a client is asked for: what shows most with no help, and the sides once more with the arms off the trunk, where its depth
/// is seen.
const ASKED: [PhotoPose; 6] =
    [PhotoPose::F, PhotoPose::B, PhotoPose::SL, PhotoPose::SLA, PhotoPose::SR, PhotoPose::SRA];

/// Longest reason, characters.
const REASON_CHARS: usize = 300;

impl Desk {
    /// The pictures a client is asked for, with the outlines of last time.
    pub fn pictures_asked(&self, client_id: &ClientId) -> Result<PicturesAsked, DeskError> {
        let client = self.store.client(&self.knowledge().atlas, client_id)?.client;
        match open_round(self.store.rounds(client_id)?.last(), &client, today()) {
            Ok(round) => self.asked_of(&round),
            Err(refusal) => self.nothing_asked(client_id, refusal),
        }
    }

    /// The same pictures of a round, to be taken in the studio.
    pub fn pictures_to_take(&self, round_id: &RoundId) -> Result<PicturesAsked, DeskError> {
        let round = self.store.round(round_id)?;
        match self.admits_photos(round_id) {
            Ok(()) => self.asked_of(&round),
            Err(DeskError::Refused(refusal)) => self.nothing_asked(&round.client_id, refusal),
            Err(other) => Err(other),
        }
    }

    fn nothing_asked(&self, client_id: &ClientId, refusal: String) -> Result<PicturesAsked, DeskError> {
        let set_up = self.store.camera_set_up(client_id)?;
        Ok(PicturesAsked { refusal: Some(refusal), round_on: None, set_up, poses: Vec::new() })
    }

    fn asked_of(&self, round: &RoundRecord) -> Result<PicturesAsked, DeskError> {
        let (store, atlas) = (&self.store, &self.knowledge().atlas);
        let set_up = store.camera_set_up(&round.client_id)?;
        let rounds = store.rounds(&round.client_id)?;
        let again = store.asked_again(&round.id)?;
        let others = again.iter().map(|ask| ask.pose).filter(|pose| !ASKED.contains(pose));
        let photos = store.client_photos(&round.client_id)?;
        let counting = store::counting(&photos);
        let poses = ASKED.into_iter().chain(others).map(|pose| {
            let sent = photos.iter().filter(|photo| photo.round_id == round.id && photo.shows() == Some(pose)).count();
            let own = counting.iter().find(|photo| photo.round_id == round.id && photo.shows() == Some(pose));
            let measured = own.and_then(|photo| photo.measured.as_ref());
            Ok(PoseAsked {
                pose,
                name: pose_name(atlas, pose),
                sent: u32::try_from(sent).unwrap_or(u32::MAX),
                again: again.iter().find(|ask| ask.pose == pose).map(|ask| ask.reason.clone()),
                doubt: measured.and_then(spoilt).map(|spoilt| spoilt.says),
                ghost: ghost(store, earlier(&rounds, &counting, round, pose))?,
            })
        });
        let poses = poses.collect::<Result<_, DeskError>>()?;
        Ok(PicturesAsked { refusal: None, round_on: Some(round.taken_on.to_string()), set_up, poses })
    }

    /// Whether a client may send a picture now.
    ///
    /// # Errors
    /// [`DeskError::Refused`] with the reason; [`DeskError::Invalid`] when the camera cannot stand so far.
    pub fn admits_photo_of(&self, client_id: &ClientId, query: &NewPhotoQuery) -> Result<(), DeskError> {
        check_distance("/distance_m", query.distance_m)?;
        self.open_now(client_id).map(drop)
    }

    /// Takes in a picture from the client, for the newest round. What is sent again is there already.
    pub fn take_in_from(&self, client_id: &ClientId, query: &NewPhotoQuery, bytes: &[u8]) -> Result<(), DeskError> {
        let (client, round) = self.open_now(client_id)?;
        match self.take_in(&round.id, query, &client.name, bytes) {
            // The same bytes again: the answer to an earlier try was lost on the way.
            Err(DeskError::Conflict { current_revision: None, .. }) | Ok(_) => Ok(()),
            Err(refused) => Err(refused),
        }
    }

    /// Says whether a picture that was just taken will do for a pose. Nothing of it is kept.
    pub fn say_of(&self, client_id: &ClientId, asked: &LookQuery, bytes: &[u8]) -> Result<Taken, DeskError> {
        let (client, round) = self.open_now(client_id)?;
        self.say_in(&client, &round, asked, bytes)
    }

    /// The same of a picture that was taken in the studio.
    pub fn say_of_round(&self, round_id: &RoundId, asked: &LookQuery, bytes: &[u8]) -> Result<Taken, DeskError> {
        self.admits_photos(round_id)?;
        let round = self.store.round(round_id)?;
        let client = self.store.client(&self.knowledge().atlas, &round.client_id)?.client;
        self.say_in(&client, &round, asked, bytes)
    }

    fn say_in(
        &self,
        client: &Client,
        round: &RoundRecord,
        asked: &LookQuery,
        bytes: &[u8],
    ) -> Result<Taken, DeskError> {
        let set_up = self.store.camera_set_up(&round.client_id)?;
        let rounds = self.store.rounds(&round.client_id)?;
        let photos = self.store.client_photos(&round.client_id)?;
        let before = earlier(&rounds, &store::counting(&photos), round, asked.pose).map(|(record, _)| record);
        let view = self.darkroom.develop(bytes)?.view_jpeg;
        self.darkroom.with(|| {
            let picture = image::load_from_memory(&view).map_err(DeskError::internal)?.into_rgb8();
            let measured = before.and_then(|record| record.measured.as_ref()).filter(|photo| photo.person);
            let ask = Ask {
                stature_cm: client.height.cm(),
                pose: Some(asked.pose),
                mirrored: asked.mirrored,
                distance_m: set_up.map(|set_up| set_up.distance_m),
                last_scale: measured.and_then(|photo| photo.scale_in(picture.dimensions())),
            };
            let seen = self.eye.open().and_then(|eye| eye.look(&picture, ask)).map_err(DeskError::internal)?;
            let before = measured.map(|photo| Before {
                photo,
                light: before.and_then(|record| light_of(&self.store, record)),
                distance_m: before.and_then(|record| record.distance_m),
            });
            Ok(taken(&picture, &seen, asked.pose, before))
        })
    }

    /// Keeps where the client's camera stands.
    pub fn keep_camera(&self, client_id: &ClientId, set_up: &CameraSetUp) -> Result<(), DeskError> {
        let set_up = CameraSetUp { place: set_up.place.trim().to_owned(), ..set_up.clone() };
        let problem = |(field, says): (&str, String)| Problem::new(Place::root().at(field), says);
        let problems: Vec<Problem> = set_up.problems().into_iter().map(problem).collect();
        if !problems.is_empty() {
            return Err(DeskError::Invalid(problems));
        }
        Ok(self.store.keep_camera_set_up(client_id, today(), &set_up)?)
    }

    /// The same of the camera before which the client of a round stands.
    pub fn keep_camera_of_round(&self, round_id: &RoundId, set_up: &CameraSetUp) -> Result<(), DeskError> {
        self.keep_camera(&self.store.round(round_id)?.client_id, set_up)
    }

    /// Asks the client for a pose once more: it stands on their page with its reason, and among the messages.
    pub fn ask_again(&self, round_id: &RoundId, by: &str, asked: &AskAgain) -> Result<(), DeskError> {
        let reason = asked.reason.trim();
        if !(1..=REASON_CHARS).contains(&reason.chars().count()) {
            return Err(invalid("/reason", format!("a reason of 1 to {REASON_CHARS} characters is expected")));
        }
        let (store, atlas) = (&self.store, &self.knowledge().atlas);
        let client_id = store.round(round_id)?.client_id;
        let client = store.client(atlas, &client_id)?.client;
        let rounds = store.rounds(&client_id)?;
        let open = open_round(rounds.last(), &client, today()).map_err(DeskError::Refused)?;
        if open.id != *round_id {
            let says = "The client's pictures go to the newest round: ask for the pose there.";
            return Err(DeskError::Refused(says.to_owned()));
        }
        let (asked_by, asked_at) = (by.to_owned(), Timestamp::now());
        let message = format!("Once more, please: {}. {reason}", pose_name(atlas, asked.pose));
        let ask = PictureAsk { pose: asked.pose, reason: reason.to_owned(), asked_by, asked_at };
        store.ask_again(round_id, &ask, &message)?;
        Ok(())
    }

    /// Takes back what was asked of a pose.
    pub fn ask_no_more(&self, round_id: &RoundId, pose: PhotoPose) -> Result<(), DeskError> {
        self.store.round(round_id)?;
        Ok(self.store.ask_no_more(round_id, pose)?)
    }

    /// A client and the round that their pictures go to.
    fn open_now(&self, client_id: &ClientId) -> Result<(Client, RoundRecord), DeskError> {
        let atlas = &self.knowledge().atlas;
        let client = self.store.client(atlas, client_id)?.client;
        let rounds = self.store.rounds(client_id)?;
        let round = open_round(rounds.last(), &client, today()).map_err(DeskError::Refused)?;
        self.store.photo_admission(atlas, &round.id)?;
        Ok((client, round))
    }
}

/// The round that a client's pictures go to today.
///
/// # Errors
/// Why there is none, in a sentence.
fn open_round(newest: Option<&RoundRecord>, client: &Client, today: Date) -> Result<RoundRecord, String> {
    client.may_be_photographed(today).map_err(|why| why.to_string())?;
    let late = "Your coach opens the next round first; then pictures can be sent.".to_owned();
    let fresh = |round: &&RoundRecord| {
        round.taken_on.checked_add(SAME_ROUND_DAYS.days()).is_ok_and(|last| today <= last && today >= round.taken_on)
    };
    newest.filter(fresh).cloned().ok_or(late)
}

/// A pose's name, or its id where the atlas has none.
fn pose_name(atlas: &Atlas, pose: PhotoPose) -> String {
    let known = atlas.poses().iter().find(|known| known.id.as_str() == pose.id());
    known.map_or_else(|| pose.id(), |known| known.name.clone())
}

fn ghost(store: &Store, before: Option<(&PhotoRecord, Date)>) -> Result<Option<Ghost>, DeskError> {
    let Some((record, on)) = before else { return Ok(None) };
    let Some(photo) = record.measured.as_ref().filter(|photo| photo.person) else { return Ok(None) };
    let lines = outline_of(store, record)?;
    Ok(Some(Ghost { on: on.to_string(), width_px: photo.width_px, height_px: photo.height_px, lines }))
}
