//! Pictures of rounds: what is known of them, what was found in them, what the coach made of that.

use crate::connection::Store;
use crate::error::{Kind, StoreError};
use crate::photo_files::PhotoFile;
use crate::schema::{outline, photo, picture_ask, picture_girth, round};
use crate::shown::refresh_shown;
use crate::{clients, new_id, rounds};
use assess::Client;
use atlas::Atlas;
use diesel::prelude::*;
use jiff::Timestamp;
use lighttable::Candidate;
use serde::{Deserialize, Serialize};
use std::collections::{BTreeMap, HashSet};
use units::{ClientId, PhotoId, RoundId};
use vision::{Landmark, Photo, PhotoPose, Stroke};

/// A picture to be kept.
#[derive(Clone, Debug)]
pub struct NewPhoto<'a> {
    /// Media type of the original.
    pub media_type: &'a str,
    /// Width and height of the original the right way up, px.
    pub size_px: (u32, u32),
    /// SHA-256 of the original without metadata, hexadecimal.
    pub sha256: &'a str,
    /// When the camera says it was taken.
    pub taken_at: Option<&'a str>,
    /// The pose, when somebody named it.
    pub pose: Option<PhotoPose>,
    /// Whether it is a mirror picture, when somebody said.
    pub mirrored: Option<bool>,
    /// Distance of the camera, m.
    pub distance_m: Option<f64>,
    /// Who took it in.
    pub added_by: &'a str,
    /// The original without metadata.
    pub original: &'a [u8],
    /// The view.
    pub view_jpeg: &'a [u8],
    /// The thumbnail.
    pub thumb_jpeg: &'a [u8],
}

/// What the coach moved and drew over what was found.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize)]
pub struct Moved {
    /// Landmarks by name, px of the view.
    pub landmarks: BTreeMap<String, Landmark>,
    /// Strokes over the mask, px of the view.
    pub strokes: Vec<Stroke>,
}

/// How far a picture has come.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum PhotoState {
    /// Nobody has looked yet.
    Waiting,
    /// Looked at.
    Seen,
    /// It could not be looked at, and why.
    Failed(String),
}

/// A picture as stored, without its bytes.
#[derive(Clone, Debug)]
pub struct PhotoRecord {
    /// Random id.
    pub id: PhotoId,
    /// Which round it belongs to.
    pub round_id: RoundId,
    /// Grows whenever the coach changes something.
    pub revision: i32,
    /// How far it has come.
    pub state: PhotoState,
    /// The pose the coach named.
    pub pose: Option<PhotoPose>,
    /// Whether it is a mirror picture; `None` until somebody has said.
    pub mirrored: Option<bool>,
    /// Distance of the camera, m.
    pub distance_m: Option<f64>,
    /// Media type of the original.
    pub media_type: String,
    /// SHA-256 of the original, hexadecimal.
    pub sha256: String,
    /// When the camera says it was taken.
    pub taken_at: Option<String>,
    /// Who took it in.
    pub added_by: String,
    /// When it was taken in.
    pub added_at: Timestamp,
    /// What was found.
    pub found: Option<Photo>,
    /// What the coach moved.
    pub moved: Moved,
    /// Both together.
    pub measured: Option<Photo>,
    /// Whether the coach let it count for its pose.
    pub chosen: bool,
}

impl PhotoRecord {
    /// The pose it counts as: named, or guessed once it was looked at.
    pub fn shows(&self) -> Option<PhotoPose> {
        self.pose.or_else(|| self.measured.as_ref().filter(|photo| photo.person).map(|photo| photo.pose))
    }
}

/// Of each round and pose the one picture that counts, of pictures in the order in which they were taken in, as
/// [`lighttable::counting`] has it.
pub fn counting<'a>(photos: impl IntoIterator<Item = &'a PhotoRecord>) -> Vec<&'a PhotoRecord> {
    lighttable::counting(photos, |photo| {
        let candidate = Candidate { pose: photo.shows(), chosen: photo.chosen, measured: photo.measured.as_ref() };
        (photo.round_id.as_str(), candidate)
    })
}

/// What a coach says of a picture.
#[derive(Clone, Debug)]
pub struct SavedPhoto {
    /// The revision it was read at.
    pub revision: i32,
    /// The pose, when named.
    pub pose: Option<PhotoPose>,
    /// Whether it is a mirror picture.
    pub mirrored: Option<bool>,
    /// Distance of the camera, m.
    pub distance_m: Option<f64>,
    /// What was moved and drawn.
    pub moved: Moved,
    /// What found and moved give together; `None` sends it to be looked at again.
    pub measured: Option<Photo>,
}

#[derive(Queryable, Selectable)]
#[diesel(table_name = photo)]
struct Row {
    id: String,
    round_id: String,
    revision: i32,
    state: String,
    failure: Option<String>,
    pose: Option<String>,
    mirrored: Option<bool>,
    distance_m: Option<f64>,
    format: String,
    sha256: String,
    taken_at: Option<String>,
    added_by: String,
    added_at: String,
    found_json: Option<String>,
    moved_json: String,
    measured_json: Option<String>,
    chosen: bool,
}

impl TryFrom<Row> for PhotoRecord {
    type Error = StoreError;
    fn try_from(row: Row) -> Result<Self, StoreError> {
        let corrupt = |why: String| StoreError::corrupt("picture", &row.id, why);
        let state = match row.state.as_str() {
            "waiting" => PhotoState::Waiting,
            "seen" => PhotoState::Seen,
            _ => PhotoState::Failed(row.failure.unwrap_or_default()),
        };
        let measurement = |json: Option<String>| -> Result<Option<Photo>, StoreError> {
            json.map(|json| serde_json::from_str(&json)).transpose().map_err(|error| corrupt(error.to_string()))
        };
        let pose = |id: &str| pose_of(id).ok_or_else(|| corrupt(format!("{id:?} is no pose")));
        Ok(Self {
            state,
            pose: row.pose.as_deref().map(pose).transpose()?,
            found: measurement(row.found_json)?,
            measured: measurement(row.measured_json)?,
            moved: serde_json::from_str(&row.moved_json).map_err(|error| corrupt(error.to_string()))?,
            round_id: row.round_id.into(),
            revision: row.revision,
            mirrored: row.mirrored,
            distance_m: row.distance_m,
            media_type: row.format,
            sha256: row.sha256,
            taken_at: row.taken_at,
            added_by: row.added_by,
            added_at: row.added_at.parse().map_err(|error: jiff::Error| corrupt(error.to_string()))?,
            chosen: row.chosen,
            id: row.id.into(),
        })
    }
}

pub(crate) fn pose_of(id: &str) -> Option<PhotoPose> {
    PhotoPose::ALL.into_iter().find(|pose| pose.id() == id)
}

fn json<T: Serialize>(id: &PhotoId, value: &T) -> Result<String, StoreError> {
    serde_json::to_string(value).map_err(|error| StoreError::corrupt("picture", id, error))
}

impl Store {
    /// Keeps a picture: bytes first, then what is known of it, so that nothing points at bytes that are not there.
    ///
    /// Whether pictures of this client may be taken in is asked inside the same transaction.
    ///
    /// # Errors
    /// [`StoreError::Refused`] for a client under 18 or without consent, [`StoreError::Exists`] when the round has the same
    /// picture, [`StoreError::Full`] when the disk is full; nothing stays behind.
    pub fn add_photo(&self, atlas: &Atlas, round_id: &RoundId, new: &NewPhoto<'_>) -> Result<PhotoRecord, StoreError> {
        self.photo_admission(atlas, round_id)?;
        let id = PhotoId::from(new_id());
        let files =
            [(PhotoFile::Original, new.original), (PhotoFile::View, new.view_jpeg), (PhotoFile::Thumb, new.thumb_jpeg)];
        self.files().keep(&id, &files)?;
        let inserted = self.insert_photo(atlas, round_id, &id, new);
        if inserted.is_err() {
            self.files().remove(&id)?;
        }
        inserted?;
        self.photo(&id)
    }

    fn insert_photo(
        &self,
        atlas: &Atlas,
        round_id: &RoundId,
        id: &PhotoId,
        new: &NewPhoto<'_>,
    ) -> Result<(), StoreError> {
        let pixels = |side: u32| i32::try_from(side).unwrap_or(i32::MAX);
        self.connect()?.immediate_transaction(|connection| {
            admitted(connection, atlas, round_id)?;
            let same = photo::table.filter(photo::round_id.eq(round_id.as_str())).filter(photo::sha256.eq(new.sha256));
            if same.count().get_result::<i64>(connection)? > 0 {
                return Err(StoreError::Exists("this round has this very picture already".to_owned()));
            }
            diesel::insert_into(photo::table)
                .values((
                    photo::id.eq(id.as_str()),
                    photo::round_id.eq(round_id.as_str()),
                    photo::revision.eq(1),
                    photo::state.eq("waiting"),
                    photo::pose.eq(new.pose.map(PhotoPose::id)),
                    photo::mirrored.eq(new.mirrored),
                    photo::distance_m.eq(new.distance_m),
                    photo::format.eq(new.media_type),
                    photo::width_px.eq(pixels(new.size_px.0)),
                    photo::height_px.eq(pixels(new.size_px.1)),
                    photo::byte_count.eq(i32::try_from(new.original.len()).unwrap_or(i32::MAX)),
                    photo::sha256.eq(new.sha256),
                    photo::taken_at.eq(new.taken_at),
                    photo::added_by.eq(new.added_by),
                    photo::added_at.eq(Timestamp::now().to_string()),
                    photo::moved_json.eq(json(id, &Moved::default())?),
                ))
                .execute(connection)?;
            Ok(())
        })
    }

    /// Whether a picture may be taken into a round.
    ///
    /// # Errors
    /// [`StoreError::Refused`] with the reason.
    pub fn photo_admission(&self, atlas: &Atlas, round_id: &RoundId) -> Result<(), StoreError> {
        admitted(&mut *self.connect()?, atlas, round_id)
    }

    /// A picture by id.
    pub fn photo(&self, id: &PhotoId) -> Result<PhotoRecord, StoreError> {
        find(&mut *self.connect()?, id)
    }

    /// The bytes of one of a picture's files.
    pub fn photo_bytes(&self, id: &PhotoId, file: PhotoFile) -> Result<Vec<u8>, StoreError> {
        self.files().read(id, file)
    }

    /// A client's pictures, in the order they were taken in.
    pub fn client_photos(&self, client_id: &ClientId) -> Result<Vec<PhotoRecord>, StoreError> {
        let rows: Vec<Row> = photo::table
            .inner_join(round::table)
            .filter(round::client_id.eq(client_id.as_str()))
            .order((photo::added_at.asc(), photo::id.asc()))
            .select(Row::as_select())
            .load(&mut self.connect()?)?;
        rows.into_iter().map(PhotoRecord::try_from).collect()
    }

    /// Pictures nobody has looked at yet, oldest first.
    pub fn waiting_photos(&self) -> Result<Vec<PhotoId>, StoreError> {
        let waiting = photo::table.filter(photo::state.eq("waiting")).order(photo::added_at.asc());
        let ids: Vec<String> = waiting.select(photo::id).load(&mut self.connect()?)?;
        Ok(ids.into_iter().map(PhotoId::from).collect())
    }

    /// Keeps what was found in a picture as it stood at `revision`. When the coach changed it since, nothing is kept and it
    /// stays waiting.
    pub fn photo_seen(&self, id: &PhotoId, revision: i32, found: &Photo, mask_png: &[u8]) -> Result<(), StoreError> {
        self.files().keep(id, &[(PhotoFile::Mask, mask_png)])?;
        let found_json = json(id, found)?;
        let kept = self.connect()?.immediate_transaction(|connection| {
            let same = photo::table.filter(photo::id.eq(id.as_str())).filter(photo::revision.eq(revision));
            let kept = diesel::update(same)
                .set((
                    photo::state.eq("seen"),
                    photo::failure.eq(None::<String>),
                    photo::found_json.eq(&found_json),
                    photo::measured_json.eq(&found_json),
                    // Landmarks were moved on another reading of the picture.
                    photo::moved_json.eq(json(id, &Moved::default())?),
                ))
                .execute(connection)?;
            if kept == 0 {
                return Ok(());
            }
            let round_id = find(connection, id)?.round_id;
            refresh_shown(connection, &round_id)
        });
        // Removed while it was looked at, consent withdrawn perhaps: its outline must not outlive it.
        if self.photo(id).is_err_and(|error| error.kind() == Kind::NotFound) {
            self.files().remove(id)?;
        }
        kept
    }

    /// Notes that a picture could not be looked at.
    pub fn photo_failed(&self, id: &PhotoId, why: &str) -> Result<(), StoreError> {
        diesel::update(photo::table.find(id.as_str()))
            .set((photo::state.eq("failed"), photo::failure.eq(why)))
            .execute(&mut self.connect()?)?;
        Ok(())
    }

    /// Saves what a coach says of a picture that was read at a revision.
    ///
    /// # Errors
    /// [`StoreError::Stale`] when someone else saved it since.
    pub fn save_photo(&self, id: &PhotoId, saved: &SavedPhoto) -> Result<PhotoRecord, StoreError> {
        let mut connection = self.connect()?;
        connection.immediate_transaction(|connection| {
            let stored = find(connection, id)?;
            if stored.revision != saved.revision {
                return Err(StoreError::Stale { what: "this picture", current: stored.revision, saved_by: None });
            }
            let measured_json = saved.measured.as_ref().map(|photo| json(id, photo)).transpose()?;
            diesel::update(photo::table.find(id.as_str()))
                .set((
                    photo::revision.eq(saved.revision + 1),
                    photo::state.eq(if saved.measured.is_some() { "seen" } else { "waiting" }),
                    photo::pose.eq(saved.pose.map(PhotoPose::id)),
                    photo::mirrored.eq(saved.mirrored),
                    photo::distance_m.eq(saved.distance_m),
                    photo::moved_json.eq(json(id, &saved.moved)?),
                    photo::measured_json.eq(measured_json),
                ))
                .execute(connection)?;
            refresh_shown(connection, &stored.round_id)
        })?;
        find(&mut connection, id)
    }

    /// Lets a picture count for its pose, instead of any other one of its round.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] for an unknown picture.
    pub fn let_photo_count(&self, id: &PhotoId) -> Result<(), StoreError> {
        self.connect()?.immediate_transaction(|connection| {
            let chosen = find(connection, id)?;
            for other in of_round(connection, &chosen.round_id)? {
                if other.shows() == chosen.shows() {
                    let change = photo::chosen.eq(other.id == *id);
                    diesel::update(photo::table.find(other.id.as_str())).set(change).execute(connection)?;
                }
            }
            refresh_shown(connection, &chosen.round_id)
        })
    }

    /// Whether a picture counts for its pose.
    pub fn photo_counts(&self, record: &PhotoRecord) -> Result<bool, StoreError> {
        let own = of_round(&mut *self.connect()?, &record.round_id)?;
        Ok(counting(&own).iter().any(|counts| counts.id == record.id))
    }

    /// Removes a picture and its bytes.
    pub fn delete_photo(&self, id: &PhotoId) -> Result<(), StoreError> {
        self.connect()?.immediate_transaction(|connection| {
            let stored = find(connection, id)?;
            diesel::delete(photo::table.find(id.as_str())).execute(connection)?;
            refresh_shown(connection, &stored.round_id)
        })?;
        self.files().remove(id)
    }

    /// Takes consent away and with it every picture of the client; gives how many there were.
    ///
    /// # Errors
    /// [`StoreError::Stale`] when the brief was saved by someone else since it was read.
    pub fn withdraw_photo_consent(
        &self,
        atlas: &Atlas,
        client_id: &ClientId,
        revision: i32,
    ) -> Result<usize, StoreError> {
        let record = self.client(atlas, client_id)?;
        let without = Client { photo_consent: None, ..record.client };
        let removed: Vec<String> = self.connect()?.immediate_transaction(|connection| {
            clients::write(connection, client_id, revision, &without)?;
            let own = round::table
                .filter(round::client_id.eq(client_id.as_str()))
                .select(round::id)
                .load::<String>(connection)?;
            let ids = photo::table.filter(photo::round_id.eq_any(&own)).select(photo::id).load::<String>(connection)?;
            diesel::delete(photo::table.filter(photo::id.eq_any(&ids))).execute(connection)?;
            diesel::delete(outline::table.filter(outline::round_id.eq_any(&own))).execute(connection)?;
            diesel::delete(picture_girth::table.filter(picture_girth::round_id.eq_any(&own))).execute(connection)?;
            diesel::delete(picture_ask::table.filter(picture_ask::round_id.eq_any(&own))).execute(connection)?;
            Ok::<_, StoreError>(ids)
        })?;
        for id in &removed {
            self.files().remove(&id.as_str().into())?;
        }
        Ok(removed.len())
    }

    /// How many pictures there are of a client.
    pub fn photo_count(&self, client_id: &ClientId) -> Result<usize, StoreError> {
        let own = photo::table.inner_join(round::table).filter(round::client_id.eq(client_id.as_str()));
        let count: i64 = own.count().get_result(&mut self.connect()?)?;
        Ok(usize::try_from(count).unwrap_or_default())
    }

    /// Removes bytes that no picture of the database owns.
    pub(crate) fn sweep_photos(&self) -> Result<(), StoreError> {
        let known: Vec<String> = photo::table.select(photo::id).load(&mut self.connect()?)?;
        let known: HashSet<PhotoId> = known.into_iter().map(PhotoId::from).collect();
        self.files().sweep(&known, self.opened_at).map_err(StoreError::File)?;
        Ok(())
    }
}

fn find(connection: &mut SqliteConnection, id: &PhotoId) -> Result<PhotoRecord, StoreError> {
    let row: Option<Row> = photo::table.find(id.as_str()).select(Row::as_select()).first(connection).optional()?;
    row.ok_or_else(|| StoreError::not_found("picture", id))?.try_into()
}

/// A round's pictures, in the order they were taken in.
pub(crate) fn of_round(connection: &mut SqliteConnection, round_id: &RoundId) -> Result<Vec<PhotoRecord>, StoreError> {
    let own =
        photo::table.filter(photo::round_id.eq(round_id.as_str())).order((photo::added_at.asc(), photo::id.asc()));
    let rows: Vec<Row> = own.select(Row::as_select()).load(connection)?;
    rows.into_iter().map(PhotoRecord::try_from).collect()
}

fn admitted(connection: &mut SqliteConnection, atlas: &Atlas, round_id: &RoundId) -> Result<(), StoreError> {
    let round = rounds::find(connection, round_id)?;
    let client = clients::find(connection, atlas, &round.client_id)?.client;
    client.may_be_photographed(round.taken_on).map_err(StoreError::Refused)
}
