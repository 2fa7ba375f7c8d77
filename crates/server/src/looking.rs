//! Looking at pictures, one at a time, in turn with the uploads on the darkroom's thread; what waits survives a restart
//! because it waits in the store.

use crate::error::ApiError;
use assess::{Client, Knowledge};
use rayon::ThreadPool;
use std::panic::{AssertUnwindSafe, catch_unwind};
use std::sync::Arc;
use std::sync::mpsc::{Receiver, Sender, channel};
use store::{Moved, PhotoFile, PhotoRecord, PhotoState, Store};
use vision::{Ask, Eye, Photo, Plane, View};

/// Wakes the thread that looks. Clones wake the same thread; it ends with the last of them.
#[derive(Clone)]
pub(crate) struct Looker {
    wake: Sender<()>,
}

impl Looker {
    /// Starts the thread; it begins with whatever waits already.
    pub fn start(store: Store, knowledge: Arc<Knowledge>, darkroom: Arc<ThreadPool>) -> Self {
        let (wake, woken) = channel();
        std::thread::spawn(move || look_on(&store, &knowledge, &darkroom, &woken));
        let looker = Self { wake };
        looker.nudge();
        looker
    }

    /// Something may be waiting.
    pub fn nudge(&self) {
        // The thread ends with the last sender, and this is one.
        let _ = self.wake.send(());
    }
}

fn look_on(store: &Store, knowledge: &Knowledge, darkroom: &ThreadPool, woken: &Receiver<()>) {
    // The model is loaded for the first picture: a practice without pictures starts at once and stays small.
    let mut eye: Option<Eye> = None;
    while woken.recv().is_ok() {
        loop {
            let waiting = store.waiting_photos().unwrap_or_else(|error| {
                tracing::error!(why = %error, "waiting pictures cannot be read");
                Vec::new()
            });
            if waiting.is_empty() {
                break;
            }
            for id in waiting {
                darkroom.install(|| look_at(store, knowledge, &mut eye, &id));
            }
        }
    }
}

/// One picture; whatever goes wrong is noted on it, so that the next one gets its turn.
fn look_at(store: &Store, knowledge: &Knowledge, eye: &mut Option<Eye>, id: &str) {
    let looked = catch_unwind(AssertUnwindSafe(|| looked(store, knowledge, eye, id)));
    let why = match looked {
        Ok(Ok(())) => return,
        Ok(Err(why)) => why,
        Err(_) => "looking at it failed".to_owned(),
    };
    tracing::error!(why, "a picture could not be looked at");
    if let Err(error) =
        store.photo_failed(id, "This picture could not be looked at. Take it in again, or mark it by hand.")
    {
        tracing::error!(why = %error, "and that could not be noted");
    }
}

fn looked(store: &Store, knowledge: &Knowledge, eye: &mut Option<Eye>, id: &str) -> Result<(), String> {
    let said = |error: &dyn std::error::Error| error.to_string();
    let Ok(record) = store.photo(id) else { return Ok(()) };
    if record.state != PhotoState::Waiting {
        return Ok(());
    }
    let eye = match eye {
        Some(eye) => eye,
        None => eye.insert(Eye::load().map_err(|error| said(&error))?),
    };
    let client = client_of(store, knowledge, &record).map_err(|error| said(&error))?;
    let bytes = store.photo_bytes(id, PhotoFile::View).map_err(|error| said(&error))?;
    let picture = image::load_from_memory(&bytes).map_err(|error| said(&error))?.into_rgb8();
    let seen = eye.look(&picture, ask(&client, &record, last_scale(store, &record))).map_err(|error| said(&error))?;
    let mask = seen.mask.to_png().map_err(|error| said(&error))?;
    store.photo_seen(id, record.revision, &seen.photo, &mask).map_err(|error| said(&error))
}

/// The client of a picture.
pub(crate) fn client_of(
    store: &Store,
    knowledge: &Knowledge,
    record: &PhotoRecord,
) -> Result<Client, store::StoreError> {
    let round = store.round(&record.round_id)?;
    Ok(store.client(&knowledge.atlas, &round.client_id)?.client)
}

fn ask(client: &Client, record: &PhotoRecord, last_scale: Option<f64>) -> Ask {
    Ask {
        stature_cm: client.height.cm(),
        pose: record.pose,
        mirrored: record.mirrored.unwrap_or(false),
        distance_m: record.distance_m,
        last_scale,
    }
}

/// Centimetres to a pixel in the newest earlier picture of the same pose.
fn last_scale(store: &Store, record: &PhotoRecord) -> Option<f64> {
    let round = store.round(&record.round_id).ok()?;
    let rounds = store.rounds(&round.client_id).ok()?;
    let photos = store.client_photos(&round.client_id).ok()?;
    let counting = store::counting(&photos);
    let earlier = rounds.iter().rev().filter(|other| other.taken_on < round.taken_on);
    let mut found = earlier.flat_map(|other| counting.iter().filter(move |photo| photo.round_id == other.id));
    let same = found.find(|photo| record.pose.is_some() && photo.shows() == record.pose)?;
    same.measured.as_ref().map(|photo| photo.scale_cm_per_px).filter(|scale| *scale > 0.0)
}

/// What is measured with the coach's landmarks and strokes laid over what was found.
pub(crate) fn measured_again(
    store: &Store,
    client: &Client,
    record: &PhotoRecord,
    found: &Photo,
    moved: &Moved,
    distance_m: Option<f64>,
) -> Result<Photo, ApiError> {
    let mask = store.photo_bytes(&record.id, PhotoFile::Mask)?;
    let mask = Plane::from_png(&mask).map_err(|error| ApiError::Internal(error.to_string()))?;
    let view = View { photo: found.clone(), mask: mask.with_strokes(&moved.strokes) };
    if moved.landmarks.is_empty() && moved.strokes.is_empty() && distance_m == record.distance_m {
        return Ok(found.clone());
    }
    Ok(Eye::with_moved(&view, &moved.landmarks, Ask { distance_m, ..ask(client, record, None) }))
}
