//! What a coach says of a picture: its pose, mirrored or not, landmarks moved and strokes drawn.

use super::looking::{client_of, measured_again};
use super::{MovedBody, PhotoView, SavePhoto};
use crate::desk::Desk;
use crate::error::{DeskError, invalid};
use assess::Knowledge;
use casefile::Problem;
use lighttable::DISTANCE_M;
use store::{Moved, PhotoRecord, SavedPhoto, Store};
use units::{PhotoId, Place};
use vision::{Landmark, Photo};

/// More and longer strokes are a fault of the program, not a coach with a brush.
const MAX_STROKES: usize = 400;

const MAX_STROKE_POINTS: usize = 4000;

const STROKE_RADIUS_PX: [f64; 2] = [0.5, 200.0];

impl Desk {
    /// Saves what the coach says of a picture, measures it again, or sends it to be looked at again.
    pub fn save_photo(&self, photo_id: &PhotoId, save: &SavePhoto) -> Result<PhotoView, DeskError> {
        check_distance("/distance_m", save.distance_m)?;
        let (store, knowledge) = (&self.store, &*self.knowledge());
        let record = store.photo(photo_id)?;
        let moved = checked_moves(&save.moved, &record)?;
        let saved = SavedPhoto {
            revision: save.revision,
            pose: save.pose,
            mirrored: save.mirrored,
            distance_m: save.distance_m,
            measured: measured_for(store, knowledge, &record, save, &moved)?,
            moved,
        };
        let saved = store.save_photo(photo_id, &saved)?;
        self.looker.nudge();
        let counts = store.photo_counts(&saved)?;
        Ok(PhotoView::of(&knowledge.atlas, &self.frames, saved, counts))
    }
}

/// None when the picture reads differently now: another pose or mirroring names other sides.
fn measured_for(
    store: &Store,
    knowledge: &Knowledge,
    record: &PhotoRecord,
    body: &SavePhoto,
    moved: &Moved,
) -> Result<Option<Photo>, DeskError> {
    let turned = body.mirrored.unwrap_or(false) != record.mirrored.unwrap_or(false);
    let same_pose = |found: &&Photo| body.pose.is_none_or(|pose| pose == found.pose);
    let Some(found) = record.found.as_ref().filter(|_| !turned).filter(same_pose) else { return Ok(None) };
    let client = client_of(store, knowledge, record)?;
    measured_again(store, &client, record, found, moved, body.distance_m).map(Some)
}

fn checked_moves(body: &MovedBody, record: &PhotoRecord) -> Result<Moved, DeskError> {
    let mut problems = Vec::new();
    let moved = Place::from("/moved");
    let mut fail = |at: Place, says: String| problems.push(Problem::new(at, says));
    let found = record.found.as_ref();
    let (width, height) = found.map_or((0.0, 0.0), |photo| (f64::from(photo.width_px), f64::from(photo.height_px)));
    let inside = |x: f64, y: f64| (0.0..=width).contains(&x) && (0.0..=height).contains(&y);
    for (name, spot) in &body.landmarks {
        let at = moved.at("landmarks").at(name);
        if found.is_none_or(|photo| !photo.landmarks.contains_key(name)) {
            fail(at, format!("this picture has no landmark {name:?}"));
        } else if !inside(spot.x, spot.y) {
            fail(at, format!("{name} lies outside the picture"));
        }
    }
    if body.strokes.len() > MAX_STROKES {
        fail(moved.at("strokes"), format!("{} strokes: at most {MAX_STROKES}", body.strokes.len()));
    }
    for (i, stroke) in body.strokes.iter().enumerate() {
        let radius = (STROKE_RADIUS_PX[0]..=STROKE_RADIUS_PX[1]).contains(&stroke.radius_px);
        let points = (1..=MAX_STROKE_POINTS).contains(&stroke.points.len());
        if !radius || !points || !stroke.points.iter().flatten().all(|value| value.is_finite()) {
            let [least, most] = STROKE_RADIUS_PX;
            let says = format!("a stroke needs a radius of {least} to {most} px and 1 to {MAX_STROKE_POINTS} points");
            fail(moved.at("strokes").at(i), says);
        }
    }
    if !problems.is_empty() {
        return Err(DeskError::Invalid(problems));
    }
    let marks = body.landmarks.iter();
    let placed = marks.map(|(name, spot)| (name.clone(), Landmark { x: spot.x, y: spot.y, confidence: 1.0 }));
    Ok(Moved { landmarks: placed.collect(), strokes: body.strokes.clone() })
}

/// A distance that a camera can stand at.
pub fn check_distance(at: &str, distance_m: Option<f64>) -> Result<(), DeskError> {
    let [low, high] = DISTANCE_M;
    match distance_m {
        Some(m) if !(low..=high).contains(&m) => {
            Err(invalid(at, format!("a distance of {m} m: expected {low} to {high} m")))
        }
        _ => Ok(()),
    }
}
