//! Looking at pictures, one at a time, in turn with the uploads on the darkroom's thread; what waits survives a restart
//! because it waits in the store.

use super::{Darkroom, OneEye};
use crate::error::DeskError;
use assess::{Client, Knowledge};
use jiff::civil::Date;
use std::panic::{AssertUnwindSafe, catch_unwind};
use std::sync::Arc;
use std::sync::mpsc::{Receiver, Sender, channel};
use store::{Moved, PhotoFile, PhotoRecord, PhotoState, RoundRecord, Store, StoreError};
use units::PhotoId;
use vision::{Ask, Eye, Light, Photo, PhotoPose, Plane, View, light};

/// Wakes the thread that looks. Clones wake the same thread; it ends with the last of them.
#[derive(Clone)]
pub(crate) struct Looker {
    wake: Sender<()>,
}

impl Looker {
    /// Starts the thread; it begins with whatever waits already.
    pub fn start(store: Store, knowledge: Arc<Knowledge>, darkroom: Darkroom, eye: OneEye) -> Self {
        let (wake, woken) = channel();
        std::thread::spawn(move || look_on(&store, &knowledge, &darkroom, &eye, &woken));
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

fn look_on(store: &Store, knowledge: &Knowledge, darkroom: &Darkroom, eye: &OneEye, woken: &Receiver<()>) {
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
                darkroom.with(|| look_at(store, knowledge, eye, &id));
            }
        }
    }
}

/// One picture; whatever goes wrong is noted on it, so that the next one gets its turn.
fn look_at(store: &Store, knowledge: &Knowledge, eye: &OneEye, id: &PhotoId) {
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

fn looked(store: &Store, knowledge: &Knowledge, eye: &OneEye, id: &PhotoId) -> Result<(), String> {
    let said = |error: &dyn std::error::Error| error.to_string();
    let Ok(record) = store.photo(id) else { return Ok(()) };
    if record.state != PhotoState::Waiting {
        return Ok(());
    }
    let eye = eye.open().map_err(|error| said(&error))?;
    let client = client_of(store, knowledge, &record).map_err(|error| said(&error))?;
    let bytes = store.photo_bytes(id, PhotoFile::View).map_err(|error| said(&error))?;
    let picture = image::load_from_memory(&bytes).map_err(|error| said(&error))?.into_rgb8();
    let last_scale = last_scale(store, &record, picture.dimensions());
    let seen = eye.look(&picture, ask(&client, &record, last_scale)).map_err(|error| said(&error))?;
    let mask = seen.mask.to_png().map_err(|error| said(&error))?;
    store.photo_seen(id, record.revision, &seen.photo, &mask).map_err(|error| said(&error))
}

/// The client of a picture.
pub(super) fn client_of(store: &Store, knowledge: &Knowledge, record: &PhotoRecord) -> Result<Client, StoreError> {
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

/// Centimetres to a pixel that the newest earlier picture of the same pose would have at this size.
fn last_scale(store: &Store, record: &PhotoRecord, size_px: (u32, u32)) -> Option<f64> {
    let round = store.round(&record.round_id).ok()?;
    let rounds = store.rounds(&round.client_id).ok()?;
    let photos = store.client_photos(&round.client_id).ok()?;
    let (before, _) = earlier(&rounds, &store::counting(&photos), &round, record.pose?)?;
    before.measured.as_ref()?.scale_in(size_px)
}

/// Of the pictures that count, the one of a pose in the newest round before this one that has it, and that round's day.
pub(crate) fn earlier<'a>(
    rounds: &[RoundRecord],
    counting: &[&'a PhotoRecord],
    round: &RoundRecord,
    pose: PhotoPose,
) -> Option<(&'a PhotoRecord, Date)> {
    let mut before = rounds.iter().rev().filter(|other| other.taken_on < round.taken_on);
    let of = |other: &RoundRecord| counting.iter().find(|p| p.round_id == other.id && p.shows() == Some(pose)).copied();
    before.find_map(|other| Some((of(other)?, other.taken_on)))
}

/// How the body was lit in a stored picture; `None` when its files cannot be read, as nothing is compared then.
pub(super) fn light_of(store: &Store, record: &PhotoRecord) -> Option<Light> {
    let view = store.photo_bytes(&record.id, PhotoFile::View).ok()?;
    let mask = Plane::from_png(&store.photo_bytes(&record.id, PhotoFile::Mask).ok()?).ok()?;
    light(&image::load_from_memory(&view).ok()?.into_rgb8(), &mask)
}

/// What is measured with the coach's landmarks and strokes laid over what was found.
pub(super) fn measured_again(
    store: &Store,
    client: &Client,
    record: &PhotoRecord,
    found: &Photo,
    moved: &Moved,
    distance_m: Option<f64>,
) -> Result<Photo, DeskError> {
    let mask = store.photo_bytes(&record.id, PhotoFile::Mask)?;
    let mask = Plane::from_png(&mask).map_err(DeskError::internal)?;
    let view = View { photo: found.clone(), mask: mask.with_strokes(&moved.strokes), looks_like: None };
    if moved.landmarks.is_empty() && moved.strokes.is_empty() && distance_m == record.distance_m {
        return Ok(found.clone());
    }
    Ok(Eye::with_moved(&view, &moved.landmarks, Ask { distance_m, ..ask(client, record, None) }))
}
