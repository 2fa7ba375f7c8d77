//! How a client's pictures are taken: where the camera stands, and which pose is asked for once more.

use crate::connection::Store;
use crate::error::StoreError;
use crate::notes::insert_message;
use crate::photos::{of_round, pose_of};
use crate::schema::{camera_set_up, picture_ask, round};
use diesel::prelude::*;
use jiff::Timestamp;
use jiff::civil::Date;
use lighttable::{CameraSetUp, Lens};
use units::{ClientId, RoundId};
use vision::PhotoPose;

/// A pose asked for once more.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct PictureAsk {
    /// The pose.
    pub pose: PhotoPose,
    /// What is to be different.
    pub reason: String,
    /// Who asked.
    pub asked_by: String,
    /// When.
    pub asked_at: Timestamp,
}

impl Store {
    /// Asks for a pose of a round once more and writes it to the client, both or neither; what was asked of the pose before is replaced.
    pub fn ask_again(&self, round_id: &RoundId, ask: &PictureAsk, message: &str) -> Result<(), StoreError> {
        self.connect()?.immediate_transaction(|connection| {
            let of =
                round::table.find(round_id.as_str()).select(round::client_id).first::<String>(connection).optional()?;
            let client_id = of.ok_or_else(|| StoreError::not_found("round", round_id))?;
            diesel::replace_into(picture_ask::table)
                .values((
                    picture_ask::round_id.eq(round_id.as_str()),
                    picture_ask::pose.eq(ask.pose.id()),
                    picture_ask::reason.eq(&ask.reason),
                    picture_ask::asked_by.eq(&ask.asked_by),
                    picture_ask::asked_at.eq(ask.asked_at.to_string()),
                ))
                .execute(connection)?;
            insert_message(connection, &client_id.into(), (&ask.asked_by, false), message, ask.asked_at)
        })
    }

    /// Takes back what was asked of a pose.
    pub fn ask_no_more(&self, round_id: &RoundId, pose: PhotoPose) -> Result<(), StoreError> {
        let asked = picture_ask::table.find((round_id.as_str(), pose.id()));
        diesel::delete(asked).execute(&mut self.connect()?)?;
        Ok(())
    }

    /// What is asked of a round's poses and no picture has answered yet, oldest first.
    pub fn asked_again(&self, round_id: &RoundId) -> Result<Vec<PictureAsk>, StoreError> {
        let connection = &mut *self.connect()?;
        let rows: Vec<(String, String, String, String)> = picture_ask::table
            .filter(picture_ask::round_id.eq(round_id.as_str()))
            .order((picture_ask::asked_at, picture_ask::pose))
            .select((picture_ask::pose, picture_ask::reason, picture_ask::asked_by, picture_ask::asked_at))
            .load(connection)?;
        if rows.is_empty() {
            return Ok(Vec::new());
        }
        let photos = of_round(connection, round_id)?;
        let corrupt = |why: String| StoreError::corrupt("asked pose of round", round_id, why);
        let asks = rows.into_iter().map(|(pose, reason, asked_by, asked_at)| {
            let asked_at = asked_at.parse::<Timestamp>().map_err(|error| corrupt(error.to_string()))?;
            let pose = pose_of(&pose).ok_or_else(|| corrupt(format!("{pose:?} is no pose")))?;
            Ok(PictureAsk { pose, reason, asked_by, asked_at })
        });
        let asks: Vec<PictureAsk> = asks.collect::<Result<_, StoreError>>()?;
        let answered =
            |ask: &PictureAsk| photos.iter().any(|p| p.shows() == Some(ask.pose) && p.added_at > ask.asked_at);
        Ok(asks.into_iter().filter(|ask| !answered(ask)).collect())
    }

    /// Where a client's camera stands; none until somebody said.
    pub fn camera_set_up(&self, client_id: &ClientId) -> Result<Option<CameraSetUp>, StoreError> {
        let row: Option<(String, f64, f64, String)> = camera_set_up::table
            .find(client_id.as_str())
            .select((camera_set_up::place, camera_set_up::height_cm, camera_set_up::distance_m, camera_set_up::lens))
            .first(&mut self.connect()?)
            .optional()?;
        row.map(|(place, height_cm, distance_m, lens)| {
            let known = Lens::ALL.into_iter().find(|known| known.as_str() == lens);
            let says = || StoreError::corrupt("camera of client", client_id, format!("{lens:?} is no lens"));
            Ok(CameraSetUp { place, height_cm, distance_m, lens: known.ok_or_else(says)? })
        })
        .transpose()
    }

    /// Keeps where a client's camera stands.
    pub fn keep_camera_set_up(&self, client_id: &ClientId, on: Date, set_up: &CameraSetUp) -> Result<(), StoreError> {
        diesel::replace_into(camera_set_up::table)
            .values((
                camera_set_up::client_id.eq(client_id.as_str()),
                camera_set_up::place.eq(&set_up.place),
                camera_set_up::height_cm.eq(set_up.height_cm),
                camera_set_up::distance_m.eq(set_up.distance_m),
                camera_set_up::lens.eq(set_up.lens.as_str()),
                camera_set_up::kept_on.eq(on.to_string()),
            ))
            .execute(&mut self.connect()?)?;
        Ok(())
    }
}
