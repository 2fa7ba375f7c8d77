//! Taking a picture in: from a file that was sent, or from the stand-in camera.

use super::{NewPhotoQuery, PhotoView, standin};
use crate::desk::Desk;
use crate::error::{DeskError, invalid};
use sha2::{Digest, Sha256};
use store::NewPhoto;
use units::RoundId;
use vision::PhotoPose;

/// Where the stand-in camera stands, m.
const BOOTH_DISTANCE_M: f64 = 3.5;

impl Desk {
    /// Whether pictures may be taken in for a round.
    ///
    /// # Errors
    /// [`DeskError::Refused`] with the reason.
    pub fn admits_photos(&self, round_id: &RoundId) -> Result<(), DeskError> {
        Ok(self.store.photo_admission(&self.knowledge().atlas, round_id)?)
    }

    /// Takes in the bytes of a picture as they came.
    pub fn take_in(
        &self,
        round_id: &RoundId,
        query: &NewPhotoQuery,
        added_by: &str,
        bytes: &[u8],
    ) -> Result<PhotoView, DeskError> {
        let taken = self.darkroom.develop(bytes)?;
        let sha256 = hex::encode(Sha256::digest(&taken.original));
        let new = NewPhoto {
            media_type: taken.format.media_type(),
            size_px: taken.size_px,
            sha256: &sha256,
            taken_at: taken.taken_at.as_deref(),
            pose: query.pose,
            mirrored: query.mirrored,
            distance_m: query.distance_m,
            added_by,
            original: &taken.original,
            view_jpeg: &taken.view_jpeg,
            thumb_jpeg: &taken.thumb_jpeg,
        };
        let atlas = &self.knowledge().atlas;
        let record = self.store.add_photo(atlas, round_id, &new)?;
        self.looker.nudge();
        let counts = self.store.photo_counts(&record)?;
        Ok(PhotoView::of(atlas, &self.frames, record, counts))
    }

    /// Takes a picture of a made-up figure with the girths of a round.
    pub fn stand_in(&self, round_id: &RoundId, pose: PhotoPose, added_by: &str) -> Result<PhotoView, DeskError> {
        let Some(held) = booth::Pose::ALL.into_iter().find(|known| known.id() == pose.id()) else {
            return Err(invalid("/pose", format!("the stand-in camera cannot hold the pose {}", pose.id())));
        };
        let atlas = &self.knowledge().atlas;
        self.store.photo_admission(atlas, round_id)?;
        let case = self.store.case_at(atlas, round_id)?;
        let missing = || DeskError::NotFound("there is no such round".to_owned());
        let round = case.rounds.last().ok_or_else(missing)?;
        // Another picture of the same pose is another moment.
        let seed = self.store.photo_count(&self.store.round(round_id)?.client_id)? as u64 * 37 + 5;
        let spec = standin::spec(&case.client, round, held, seed);
        let said = |error: booth::BoothError| invalid("/pose", format!("the stand-in camera: {error}"));
        let picture = self.stand_in_camera()?.jpeg(&spec).map_err(said)?;
        let query = NewPhotoQuery { pose: Some(pose), mirrored: Some(false), distance_m: Some(BOOTH_DISTANCE_M) };
        self.take_in(round_id, &query, added_by, &picture)
    }
}
