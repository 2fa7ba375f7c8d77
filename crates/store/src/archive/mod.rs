//! Everything about a client in one file and back, the whole practice in one file and back, and whether it is whole.

mod backup;
mod cells;
mod check;
mod client;
mod rows;
mod tables;

pub use backup::{backup, restore};
pub use check::Finding;
pub use client::{Belongings, Imported};
pub use tables::TABLE_NAMES;

use crate::error::StoreError;
use crate::photo_files::PhotoFile;
use serde::{Deserialize, Serialize};
use std::io::{Read, Seek, Write};
use units::ClientId;
use zip::read::ZipFile;
use zip::write::SimpleFileOptions;
use zip::{CompressionMethod, DateTime, ZipArchive, ZipWriter};

/// What an archive is, first in it.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct Manifest {
    /// `orthomer-client` or `orthomer-backup`.
    format: String,
    /// Of the archive.
    version: u32,
    /// The newest migration of the database it was made from.
    schema: String,
    /// Whose it is, in a client's archive.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    client_id: Option<ClientId>,
}

const VERSION: u32 = 1;
const MANIFEST: &str = "manifest.json";

/// Why an archive cannot be used; `what` is said to whoever gave it.
fn unusable(what: impl Into<String>) -> StoreError {
    StoreError::Archive(what.into())
}

/// Entries carry no time of their own, so that the same data gives the same bytes. What is compressed already is not again.
fn options(name: &str) -> SimpleFileOptions {
    let pressed = PhotoFile::ALL.iter().any(|file| name.ends_with(file.ending()));
    let method = if pressed { CompressionMethod::Stored } else { CompressionMethod::Deflated };
    SimpleFileOptions::default().compression_method(method).last_modified_time(DateTime::default()).large_file(true)
}

fn put<W: Write + Seek>(zip: &mut ZipWriter<W>, name: &str, bytes: &[u8]) -> Result<(), StoreError> {
    zip.start_file(name, options(name)).map_err(failed)?;
    zip.write_all(bytes).map_err(StoreError::File)
}

#[allow(clippy::needless_pass_by_value, reason = "maps an error")]
fn failed(error: zip::result::ZipError) -> StoreError {
    match error {
        zip::result::ZipError::Io(why) => StoreError::File(why),
        other => unusable(format!("the archive cannot be read or written: {other}")),
    }
}

fn text<R: Read + Seek>(zip: &mut ZipArchive<R>, name: &str) -> Result<String, StoreError> {
    let file = zip.by_name(name).map_err(|_| unusable(format!("there is no {name} in this archive")))?;
    String::from_utf8(capped(file, TEXT_BYTES)?).map_err(|_| unusable(format!("{name} in this archive is no text")))
}

/// Decades of a client's rows stay under this.
const TEXT_BYTES: u64 = 64 * 1024 * 1024;

/// An entry's bytes, as long as both what it says of itself and what it holds stay under a limit.
fn capped<R: Read>(entry: ZipFile<'_, R>, most: u64) -> Result<Vec<u8>, StoreError> {
    let name = entry.name().map_err(failed)?.into_owned();
    let too_large = || unusable(format!("{name} in this archive is larger than {} MB", most / 1024 / 1024));
    if entry.size() > most {
        return Err(too_large());
    }
    let mut bytes = Vec::new();
    entry.take(most + 1).read_to_end(&mut bytes).map_err(|_| unusable(format!("{name} in this archive is broken")))?;
    if bytes.len() as u64 > most { Err(too_large()) } else { Ok(bytes) }
}

/// The manifest of an archive of one format, made by a version that this one knows.
fn manifest<R: Read + Seek>(zip: &mut ZipArchive<R>, format: &str, schema: &str) -> Result<Manifest, StoreError> {
    let manifest: Manifest = serde_json::from_str(&text(zip, MANIFEST)?)
        .map_err(|error| unusable(format!("{MANIFEST} does not have its shape: {error}")))?;
    if manifest.format != format {
        return Err(unusable(format!("this archive is {:?}: expected {format:?}", manifest.format)));
    }
    if manifest.version != VERSION {
        let says = format!("this archive is of version {}: this Orthomer reads {VERSION}", manifest.version);
        return Err(unusable(says));
    }
    if manifest.schema.as_str() > schema {
        let says = format!("this archive was made by a newer Orthomer ({}): update this one first", manifest.schema);
        return Err(unusable(says));
    }
    Ok(manifest)
}
