//! The whole practice as one archive while it is served, and back.

use super::{MANIFEST, Manifest, VERSION, failed, manifest, options, put, unusable};
use crate::connection::{FILE, Store};
use crate::error::StoreError;
use crate::lock::new_private_file;
use crate::photo_files::PhotoFile;
use diesel::connection::SimpleConnection;
use diesel::prelude::*;
use diesel::sql_query;
use diesel::sql_types::Text;
use serde_json::json;
use std::fs::File;
use std::io::{BufReader, BufWriter, Write};
use std::path::Path;
use units::PhotoId;
use zip::{ZipArchive, ZipWriter};

const FORMAT: &str = "orthomer-backup";

#[derive(QueryableByName)]
struct Id {
    #[diesel(sql_type = Text)]
    id: String,
}

/// Writes one moment of the practice to a new file, while others go on reading and writing. A file that is there is not
/// written over; a broken-off backup leaves none.
pub fn backup(store: &Store, file: &Path) -> Result<(), StoreError> {
    if file.exists() {
        return Err(unusable(format!("{} is there already: choose another name", file.display())));
    }
    let part = file.with_extension("part");
    let copy = file.with_extension("copy");
    let written = write(store, &copy, &part).and_then(|()| std::fs::rename(&part, file).map_err(StoreError::File));
    let _ = std::fs::remove_file(&copy);
    if written.is_err() {
        let _ = std::fs::remove_file(&part);
    }
    written
}

fn write(store: &Store, copy: &Path, part: &Path) -> Result<(), StoreError> {
    let _ = std::fs::remove_file(copy);
    // Made beforehand, as an empty file may be vacuumed into: a copy of everything is for nobody else to read meanwhile.
    new_private_file(copy).map_err(StoreError::File)?;
    sql_query("VACUUM INTO ?").bind::<Text, _>(copy.to_string_lossy()).execute(&mut store.connect()?)?;
    let mut database = SqliteConnection::establish(&copy.to_string_lossy())
        .map_err(|error| unusable(format!("the copy cannot be opened: {error}")))?;
    let mut zip = ZipWriter::new(BufWriter::new(new_private_file(part).map_err(StoreError::File)?));
    let manifest =
        Manifest { format: FORMAT.to_owned(), version: VERSION, schema: store.schema_version()?, client_id: None };
    put(&mut zip, MANIFEST, format!("{:#}\n", json!(manifest)).as_bytes())?;
    let photos: Vec<Id> = sql_query("SELECT id FROM photo ORDER BY id").load(&mut database)?;
    for Id { id } in photos {
        let id = PhotoId::from(id);
        let mut found = false;
        for kind in PhotoFile::ALL {
            match store.files().read(&id, kind) {
                Ok(bytes) => {
                    found = true;
                    put(&mut zip, &format!("photos/{id}.{}", kind.ending()), &bytes)?;
                }
                Err(StoreError::NotFound { .. }) => {}
                Err(other) => return Err(other),
            }
        }
        if !found {
            // Removed since the copy was made, as when consent was withdrawn: it is not in the backup either.
            sql_query("DELETE FROM photo WHERE id = ?").bind::<Text, _>(id.as_str()).execute(&mut database)?;
        }
    }
    database.batch_execute("PRAGMA journal_mode = DELETE; VACUUM")?;
    drop(database);
    zip.start_file(FILE, options(FILE)).map_err(failed)?;
    std::io::copy(&mut File::open(copy).map_err(StoreError::File)?, &mut zip).map_err(StoreError::File)?;
    let mut out = zip.finish().map_err(failed)?;
    out.flush().map_err(StoreError::File)?;
    out.get_ref().sync_all().map_err(StoreError::File)
}

/// Makes a practice from a backup in a directory that has none.
pub fn restore(file: &Path, directory: &Path, schema: &str) -> Result<(), StoreError> {
    if directory.join(FILE).exists() {
        let says = format!("{} holds a practice already: restore into another directory", directory.display());
        return Err(unusable(says));
    }
    let open = File::open(file).map_err(|why| unusable(format!("{} cannot be read: {why}", file.display())))?;
    let no_backup = || unusable(format!("{} is no backup of Orthomer", file.display()));
    let mut zip = ZipArchive::new(BufReader::new(open)).map_err(|_| no_backup())?;
    manifest(&mut zip, FORMAT, schema)?;
    let parent = directory.parent().filter(|parent| !parent.as_os_str().is_empty()).unwrap_or(Path::new("."));
    std::fs::create_dir_all(parent).map_err(StoreError::File)?;
    // Beside its place first, so that a broken-off restore leaves nothing that looks like a practice.
    let name = directory.file_name().map(|name| name.to_string_lossy().into_owned()).unwrap_or_default();
    let part = parent.join(format!(".{name}.part"));
    let _ = std::fs::remove_dir_all(&part);
    let unpacked = unpack(&mut zip, &part).and_then(|()| {
        // An empty directory gives way.
        let _ = std::fs::remove_dir(directory);
        std::fs::rename(&part, directory).map_err(StoreError::File)
    });
    if unpacked.is_err() {
        let _ = std::fs::remove_dir_all(&part);
    }
    unpacked
}

fn unpack(zip: &mut ZipArchive<BufReader<File>>, part: &Path) -> Result<(), StoreError> {
    let photos = part.join("photos");
    std::fs::create_dir_all(&photos).map_err(StoreError::File)?;
    for place in 0..zip.len() {
        let mut entry = zip.by_index(place).map_err(failed)?;
        let name = entry.name().map_err(failed)?.into_owned();
        let target = match name.strip_prefix("photos/") {
            Some(photo) if !photo.contains(['/', '\\']) && !photo.starts_with('.') => photos.join(photo),
            None if name == FILE => part.join(FILE),
            None if name == MANIFEST => continue,
            _ => return Err(unusable(format!("{name:?} does not belong into a backup"))),
        };
        let mut out = new_private_file(&target).map_err(StoreError::File)?;
        std::io::copy(&mut entry, &mut out).map_err(StoreError::File)?;
        out.sync_all().map_err(StoreError::File)?;
    }
    if part.join(FILE).exists() { Ok(()) } else { Err(unusable(format!("there is no {FILE} in this backup"))) }
}
