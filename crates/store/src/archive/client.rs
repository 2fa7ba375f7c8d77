//! Everything about a client as one archive, and back without loss.

use super::cells::misfit;
use super::rows::{Row, add, columns, count, csv, read};
use super::tables::{TABLES, Table};
use super::{MANIFEST, Manifest, VERSION, capped, failed, manifest, put, text, unusable};
use crate::accounts::NO_WAY_IN;
use crate::connection::Store;
use crate::error::StoreError;
use crate::new_id;
use crate::photo_files::PhotoFile;
use crate::schema::{deed, half_imported, photo};
use atlas::Atlas;
use casefile::{CaseFile, case_file};
use diesel::connection::SimpleConnection;
use diesel::prelude::*;
use serde::Serialize;
use serde_json::{Value, json};
use std::collections::{BTreeMap, HashMap};
use std::io::{Read, Seek, Write};
use units::{ClientId, PhotoId};
use utoipa::ToSchema;
use zip::{ZipArchive, ZipWriter};

const FORMAT: &str = "orthomer-client";
const ROWS: &str = "rows.json";
/// Larger files are no pictures.
const PICTURE_BYTES: u64 = 64 * 1024 * 1024;

fn here_already() -> StoreError {
    StoreError::Exists("this client is here already: nothing was changed".to_owned())
}

type Tables = BTreeMap<String, Vec<Row>>;

/// A client that was taken in.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct Imported {
    /// The id, as it was.
    pub client_id: ClientId,
    /// Display name.
    pub name: String,
    /// Rounds.
    pub rounds: usize,
    /// Log entries.
    pub log_entries: usize,
    /// Pictures.
    pub pictures: usize,
}

/// What is kept about a client.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct Belongings {
    /// Display name.
    pub name: String,
    /// Rounds.
    pub rounds: usize,
    /// Pictures.
    pub pictures: usize,
    /// Plans given.
    pub plans: usize,
    /// Log entries.
    pub log_entries: usize,
    /// Private links.
    pub links: usize,
}

impl Store {
    /// Writes everything about a client: rows as they are, every table as CSV, the case file of the newest round, pictures.
    pub fn export_client<W: Write + Seek>(&self, atlas: &Atlas, client_id: &ClientId, to: W) -> Result<(), StoreError> {
        self.client(atlas, client_id)?;
        let mut connection = self.connect()?;
        // One moment of the practice, whatever is written meanwhile.
        let (tables, heads) = connection.transaction(|connection| gathered(connection, client_id))?;
        let mut zip = ZipWriter::new(to);
        let schema = self.schema_version()?;
        let manifest =
            Manifest { format: FORMAT.to_owned(), version: VERSION, schema, client_id: Some(client_id.to_owned()) };
        put(&mut zip, MANIFEST, &pretty(&json!(manifest)))?;
        put(&mut zip, ROWS, &pretty(&json!(tables)))?;
        for table in &TABLES {
            let text = csv(&heads[table.name], &tables[table.name])?;
            put(&mut zip, &format!("tables/{}.csv", table.name), text.as_bytes())?;
        }
        if let Some(newest) = self.rounds(client_id)?.last() {
            let case = self.case_at(atlas, &newest.id)?;
            let file = CaseFile { practice: self.practice()?.settings, ..case_file(&case) };
            put(&mut zip, "case.json", &pretty(&json!(file)))?;
        }
        for photo in &tables["photo"] {
            let id = PhotoId::from(photo.get("id").and_then(Value::as_str).unwrap_or_default());
            for file in PhotoFile::ALL {
                match self.files().read(&id, file) {
                    Ok(bytes) => put(&mut zip, &picture_name(&id, file), &bytes)?,
                    // A picture that nobody has looked at yet has no mask.
                    Err(StoreError::NotFound { .. }) => {}
                    Err(other) => return Err(other),
                }
            }
        }
        zip.finish().map_err(failed)?;
        Ok(())
    }

    /// Takes in a client that was exported. Nothing is taken in when anything is wrong with it.
    ///
    /// # Errors
    /// [`StoreError::Exists`] when the client is here, [`StoreError::Archive`] when the archive cannot be used.
    pub fn import_client<R: Read + Seek>(&self, atlas: &Atlas, from: R) -> Result<Imported, StoreError> {
        let mut zip = ZipArchive::new(from).map_err(|_| unusable("this file is no archive of Orthomer"))?;
        let manifest = manifest(&mut zip, FORMAT, &self.schema_version()?)?;
        let client_id = manifest.client_id.clone().ok_or_else(|| unusable(format!("{MANIFEST} names no client")))?;
        let mut tables: Tables = serde_json::from_str(&text(&mut zip, ROWS)?)
            .map_err(|error| unusable(format!("{ROWS} does not have its shape: {error}")))?;
        for table in TABLES.iter().filter(|table| table.since > manifest.schema.as_str()) {
            tables.entry(table.name.to_owned()).or_default();
        }
        checked(&tables, &client_id)?;
        let pictures = picture_ids(&mut zip, &tables)?;
        // Files first: those that no row knows are swept at the next start, which waits for this lock. The rows come in one
        // transaction with the note that they were not read yet: until that is gone, a start removes the client again.
        let _writing = self.writing()?;
        if self.has_client(&client_id)? {
            return Err(here_already());
        }
        if let Some(id) = self.known_pictures(&pictures)?.first() {
            return Err(unusable(format!("picture {id} belongs to somebody else here: nothing was changed")));
        }
        let kept = self.keep_pictures(&mut zip, &pictures).and_then(|()| self.take_rows_in(&tables, &client_id));
        if let Err(why) = kept {
            self.forget_strangers(&pictures)?;
            return Err(why);
        }
        match self.readable(atlas, &client_id) {
            Ok(name) => {
                self.read_to_the_end(&client_id)?;
                Ok(Imported {
                    name,
                    rounds: tables["round"].len(),
                    log_entries: tables["log_entry"].len(),
                    pictures: pictures.len(),
                    client_id,
                })
            }
            Err(why) => {
                self.forget_client(&client_id)?;
                Err(unusable(format!("what this archive holds cannot be read here: {why}")))
            }
        }
    }

    /// What erasing a client would take.
    pub fn belongings(&self, atlas: &Atlas, client_id: &ClientId) -> Result<Belongings, StoreError> {
        let name = self.client(atlas, client_id)?.client.name;
        let (tables, _) = gathered(&mut *self.connect()?, client_id)?;
        let rows = |table: &str| tables.get(table).map_or(0, Vec::len);
        Ok(Belongings {
            name,
            rounds: rows("round"),
            pictures: rows("photo"),
            plans: rows("issued_plan"),
            log_entries: rows("log_entry"),
            links: rows("client_link"),
        })
    }

    /// Removes a client with everything about them for good: rows and files, and their bytes from the database's file.
    pub fn erase_client(&self, client_id: &ClientId) -> Result<(), StoreError> {
        let _writing = self.writing()?;
        self.forget_client(client_id)?;
        diesel::update(deed::table.filter(deed::client_id.eq(client_id.as_str())))
            .set(deed::client_id.eq(None::<String>))
            .execute(&mut self.connect()?)?;
        self.connect()?.batch_execute("VACUUM; PRAGMA wal_checkpoint(TRUNCATE)")?;
        Ok(())
    }

    fn has_client(&self, client_id: &ClientId) -> Result<bool, StoreError> {
        Ok(count(&mut *self.connect()?, "client", "id = ?", client_id.as_str())? > 0)
    }

    /// Those of the pictures that this practice has a row of.
    fn known_pictures(&self, ids: &[PhotoId]) -> Result<Vec<PhotoId>, StoreError> {
        let known = photo::table.filter(photo::id.eq_any(ids.iter().map(PhotoId::as_str))).select(photo::id);
        Ok(known.load::<String>(&mut self.connect()?)?.into_iter().map(PhotoId::from).collect())
    }

    /// Removes files of pictures that no row knows.
    fn forget_strangers(&self, ids: &[PhotoId]) -> Result<(), StoreError> {
        let known = self.known_pictures(ids)?;
        ids.iter().filter(|id| !known.contains(id)).try_for_each(|id| self.files().remove(id))
    }

    /// Keeps the files of an archive's pictures, one picture in memory at a time.
    fn keep_pictures<R: Read + Seek>(&self, zip: &mut ZipArchive<R>, ids: &[PhotoId]) -> Result<(), StoreError> {
        for id in ids {
            let mut files: Vec<(PhotoFile, Vec<u8>)> = Vec::new();
            for file in PhotoFile::ALL {
                if let Ok(entry) = zip.by_name(&picture_name(id, file)) {
                    files.push((file, capped(entry, PICTURE_BYTES)?));
                }
            }
            let files: Vec<(PhotoFile, &[u8])> = files.iter().map(|(file, bytes)| (*file, bytes.as_slice())).collect();
            self.files().keep(id, &files)?;
        }
        Ok(())
    }

    fn take_rows_in(&self, tables: &Tables, client_id: &ClientId) -> Result<(), StoreError> {
        self.connect()?.immediate_transaction(|connection| {
            if count(connection, "client", "id = ?", client_id.as_str())? > 0 {
                return Err(here_already());
            }
            let tables = strangers(connection, tables)?;
            for table in &TABLES {
                for (place, row) in tables.get(table.name).into_iter().flatten().enumerate() {
                    take_in(connection, table, row).map_err(|why| placed(why, table.name, place))?;
                }
            }
            diesel::insert_into(half_imported::table)
                .values(half_imported::client_id.eq(client_id.as_str()))
                .execute(connection)?;
            Ok(())
        })
    }

    /// What was taken in has been read: it stays.
    fn read_to_the_end(&self, client_id: &ClientId) -> Result<(), StoreError> {
        diesel::delete(half_imported::table.find(client_id.as_str())).execute(&mut self.connect()?)?;
        Ok(())
    }

    /// Removes clients whose import was broken off before what it brought was read.
    pub(crate) fn forget_half_imported(&self) -> Result<(), StoreError> {
        let half: Vec<String> = half_imported::table.select(half_imported::client_id).load(&mut self.connect()?)?;
        half.into_iter().try_for_each(|id| self.forget_client(&id.into()))
    }

    /// Removes a client with everything about them, pictures included.
    fn forget_client(&self, client_id: &ClientId) -> Result<(), StoreError> {
        let photos = self.client_photos(client_id)?;
        diesel::delete(crate::schema::client::table.find(client_id.as_str())).execute(&mut self.connect()?)?;
        self.forget_given();
        photos.iter().try_for_each(|photo| self.files().remove(&photo.id))
    }

    /// Reads everything of a client through the checks; gives the name.
    pub(super) fn readable(&self, atlas: &Atlas, client_id: &ClientId) -> Result<String, StoreError> {
        let record = self.client(atlas, client_id)?;
        for round in self.rounds(client_id)? {
            self.case_at(atlas, &round.id)?;
            self.plan_draft(&round.id)?;
            self.decisions(&round.id)?;
        }
        self.issued_plans(client_id)?;
        self.log(client_id, jiff::civil::Date::MIN)?;
        self.overrules(client_id)?;
        self.links(client_id)?;
        self.client_photos(client_id)?;
        self.usual_week(client_id)?;
        Ok(record.client.name)
    }

    /// Every row of a table of the practice as CSV; passwords are in no table that is given.
    pub fn table_csv(&self, table: &str) -> Result<String, StoreError> {
        let Some(name) = super::TABLE_NAMES.iter().find(|known| **known == table) else {
            return Err(StoreError::not_found("table", table));
        };
        let mut connection = self.connect()?;
        let rows = read(&mut connection, name, None, "1")?;
        csv(&columns(&mut connection, name)?, &rows)
    }
}

fn pretty(value: &Value) -> Vec<u8> {
    format!("{value:#}\n").into_bytes()
}

type Heads = BTreeMap<&'static str, Vec<String>>;

fn gathered(connection: &mut SqliteConnection, client_id: &ClientId) -> Result<(Tables, Heads), StoreError> {
    let (mut tables, mut heads) = (Tables::new(), Heads::new());
    for table in &TABLES {
        let mut rows = read(connection, table.name, Some((table.of_client, client_id.as_str())), table.order)?;
        let mut head = columns(connection, table.name)?;
        let left_out = |column: &str| table.anew.contains(&column) || WAY_IN.contains(&(table.name, column));
        head.retain(|column| !left_out(column));
        for row in &mut rows {
            row.retain(|column, _| !left_out(column));
        }
        tables.insert(table.name.to_owned(), rows);
        heads.insert(table.name, head);
    }
    Ok((tables, heads))
}

/// A way in, and what it opens, is never carried along.
const WAY_IN: [(&str, &str); 4] =
    [("account", "role"), ("account", "password_hash"), ("account", "factor_secret"), ("account", "factor_step")];

/// All tables, no others, and rows of nobody else.
fn checked(tables: &Tables, client_id: &ClientId) -> Result<(), StoreError> {
    if let Some(strange) = tables.keys().find(|name| TABLES.iter().all(|table| table.name != name.as_str())) {
        return Err(unusable(format!("{ROWS}: there is no table {strange:?}")));
    }
    if let Some(missing) = TABLES.iter().find(|table| !tables.contains_key(table.name)) {
        return Err(unusable(format!("{ROWS}: the table {} is missing", missing.name)));
    }
    let text = |row: &Row, column: &str| row.get(column).and_then(Value::as_str).map(ToOwned::to_owned);
    let own_client =
        tables["client"].len() == 1 && text(&tables["client"][0], "id").as_deref() == Some(client_id.as_str());
    if !own_client {
        return Err(unusable(format!("{ROWS}: the client named in {MANIFEST} is not in it")));
    }
    let rounds: Vec<String> = tables["round"].iter().filter_map(|row| text(row, "id")).collect();
    for (name, rows) in tables {
        for (place, row) in rows.iter().enumerate() {
            let client = text(row, "client_id").is_none_or(|id| id == client_id.as_str());
            let round = text(row, "round_id").is_none_or(|id| rounds.contains(&id));
            if !client || !round {
                return Err(unusable(format!("{ROWS}: /{name}/{place} belongs to another client")));
            }
            if let Some(says) = misfit(row) {
                return Err(unusable(format!("{ROWS}: /{name}/{place}/{says}")));
            }
        }
    }
    Ok(())
}

/// A row that the database does not take is the archive's fault.
fn placed(why: StoreError, table: &str, place: usize) -> StoreError {
    match why {
        StoreError::Database(diesel::result::Error::DatabaseError(kind, message))
            if !matches!(kind, diesel::result::DatabaseErrorKind::Unknown) =>
        {
            unusable(format!("{ROWS}: /{table}/{place} cannot be read here: {}", message.message()))
        }
        other => other,
    }
}

fn take_in(connection: &mut SqliteConnection, table: &Table, row: &Row) -> Result<(), StoreError> {
    connection.batch_execute("PRAGMA defer_foreign_keys = ON")?;
    if table.name == "account" {
        return person(connection, row);
    }
    let mut known = columns(connection, table.name)?;
    known.retain(|column| !table.anew.contains(&column.as_str()));
    add(connection, table.name, &known, row)
}

/// Who judged is added by name, without a way in: their judgements stay theirs.
fn person(connection: &mut SqliteConnection, row: &Row) -> Result<(), StoreError> {
    let text = |column: &str| row.get(column).and_then(Value::as_str).unwrap_or_default().to_owned();
    let (id, login) = (text("id"), text("login"));
    if count(connection, "account", "id = ?", &id)? > 0 {
        return Ok(());
    }
    let mut added = row.clone();
    if count(connection, "account", "login = ?", &login)? > 0 {
        added.insert("login".to_owned(), json!(format!("{login}-{id}")));
    }
    added.insert("role".to_owned(), json!("assistant"));
    added.insert("password_hash".to_owned(), json!(NO_WAY_IN));
    let known = columns(connection, "account")?;
    add(connection, "account", &known, &added)
}

/// The same rows with every person who can sign in here under another id: whoever wrote the file says whose judgements they are,
/// and nobody here answers for that.
fn strangers(connection: &mut SqliteConnection, tables: &Tables) -> Result<Tables, StoreError> {
    let mut known: HashMap<String, String> = HashMap::new();
    let named = |table: &str, column: &str| -> Vec<String> {
        let rows = tables[table].iter().filter_map(|row| row.get(column).and_then(Value::as_str));
        rows.map(ToOwned::to_owned).collect()
    };
    let ids = [("account", "id"), ("issued_plan", "issued_by_id"), ("client_link", "made_by_id")];
    for id in ids.iter().flat_map(|(table, column)| named(table, column)) {
        if count(connection, "account", &format!("password_hash <> '{NO_WAY_IN}' AND id = ?"), &id)? > 0 {
            known.entry(id).or_insert_with(new_id);
        }
    }
    let mut tables = tables.clone();
    let columns = [
        ("account", "id"),
        ("rating", "rated_by"),
        ("rating_repeat", "rated_by"),
        ("issued_plan", "issued_by_id"),
        ("client_link", "made_by_id"),
    ];
    for (table, column) in columns {
        for row in tables.get_mut(table).into_iter().flatten() {
            let stranger = row.get(column).and_then(Value::as_str).and_then(|id| known.get(id));
            if let Some(stranger) = stranger {
                row.insert(column.to_owned(), json!(stranger));
            }
        }
    }
    Ok(tables)
}

/// The ids of an archive's pictures, each with all its files in it and none larger than a picture's.
fn picture_ids<R: Read + Seek>(zip: &mut ZipArchive<R>, tables: &Tables) -> Result<Vec<PhotoId>, StoreError> {
    let mut ids = Vec::new();
    for photo in &tables["photo"] {
        let Some(id) = photo.get("id").and_then(Value::as_str).filter(|id| uuid::Uuid::try_parse(id).is_ok()) else {
            return Err(unusable(format!("{ROWS}: a picture has no id")));
        };
        let id = PhotoId::from(id);
        let mut files = 0;
        for file in PhotoFile::ALL {
            let name = picture_name(&id, file);
            let Ok(entry) = zip.by_name(&name) else { continue };
            if entry.size() > PICTURE_BYTES {
                return Err(unusable(format!("{name} is larger than a picture can be")));
            }
            files += 1;
        }
        if files < 3 {
            return Err(unusable(format!("pictures/{id}: the picture's files are not all in this archive")));
        }
        ids.push(id);
    }
    Ok(ids)
}

fn picture_name(id: &PhotoId, file: PhotoFile) -> String {
    format!("pictures/{id}.{}", file.ending())
}
