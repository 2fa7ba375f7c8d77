//! Taking a picture in: from a file that was sent, or from the stand-in camera.

use crate::dto::{NewPhotoQuery, PhotoView};
use crate::error::{ApiError, invalid};
use crate::standin;
use crate::state::AppState;
use sha2::{Digest, Sha256};
use store::NewPhoto;
use vision::PhotoPose;

/// Where the stand-in camera stands, m.
const BOOTH_DISTANCE_M: f64 = 3.5;

impl AppState {
    /// Takes in the bytes of a picture as they came.
    pub(crate) fn take_in(
        &self,
        round_id: &str,
        query: &NewPhotoQuery,
        added_by: &str,
        bytes: &[u8],
    ) -> Result<PhotoView, ApiError> {
        let taken = self.develop(bytes)?;
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
    pub(crate) fn stand_in(&self, round_id: &str, pose: PhotoPose, added_by: &str) -> Result<PhotoView, ApiError> {
        let Some(held) = booth::Pose::ALL.into_iter().find(|known| known.id() == pose.id()) else {
            return Err(invalid("/pose", format!("the stand-in camera cannot hold the pose {}", pose.id())));
        };
        let atlas = &self.knowledge().atlas;
        self.store.photo_admission(atlas, round_id)?;
        let case = self.store.case_at(atlas, round_id)?;
        let missing = || ApiError::NotFound("there is no such round".to_owned());
        let round = case.rounds.last().ok_or_else(missing)?;
        // Another picture of the same pose is another moment.
        let seed = self.store.photo_count(&self.store.round(round_id)?.client_id)? as u64 * 37 + 5;
        let spec = standin::spec(&case.client, round, held, seed);
        let said = |error: booth::BoothError| invalid("/pose", format!("the stand-in camera: {error}"));
        let picture = self.stand_in_camera()?.jpeg(&spec).map_err(said)?;
        let query = NewPhotoQuery { pose: Some(pose), mirrored: Some(false), distance_m: Some(BOOTH_DISTANCE_M) };
        self.take_in(round_id, &query, added_by, &picture)
    }

    /// The stand-in camera for made-up practices.
    ///
    /// # Errors
    /// A sentence.
    pub fn photograph(&self, round_id: &str, pose: PhotoPose, added_by: &str) -> Result<(), String> {
        self.stand_in(round_id, pose, added_by).map(drop).map_err(|error| error.to_string())
    }
}
