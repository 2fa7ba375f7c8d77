//! The commands that carry data out of and into a practice.

use crate::failure::Failure;
use assess::Knowledge;
use std::fs::File;
use std::io::{BufReader, BufWriter, Write};
use std::path::Path;
use store::{Kind, Store, StoreError};
use units::{ClientId, Place};

/// What was given is wrong, or something else went wrong.
#[allow(clippy::needless_pass_by_value, reason = "maps an error")]
fn failure(error: StoreError) -> Failure {
    match error.kind() {
        Kind::Invalid | Kind::Conflict | Kind::NotFound => Failure::input(error.to_string()),
        _ => Failure::other(error),
    }
}

fn beside(data: &Path) -> Result<(Store, Knowledge), Failure> {
    let store = Store::beside(data).map_err(Failure::other)?;
    let shipped = Knowledge::load().map_err(Failure::other)?;
    let settings = store.practice().map_err(Failure::other)?.settings;
    let practice = casefile::check_practice(&shipped.atlas, &Place::root(), &settings).map_err(Failure::Input)?;
    Ok((store, shipped.with_practice(&practice)))
}

/// Writes everything about a client. A broken-off export leaves no file.
pub fn export(data: &Path, client: &ClientId, out: &Path) -> Result<(), Failure> {
    let (store, knowledge) = beside(data)?;
    let part = out.with_extension("part");
    let file = File::create(&part).map_err(|why| Failure::other(format!("{}: {why}", part.display())))?;
    let mut buffered = BufWriter::new(file);
    let written = store.export_client(&knowledge.atlas, client, &mut buffered).map_err(failure);
    let written = written.and_then(|()| buffered.flush().map_err(Failure::other));
    match written.and_then(|()| std::fs::rename(&part, out).map_err(Failure::other)) {
        Ok(()) => {
            println!("{} holds everything about client {client}.", out.display());
            Ok(())
        }
        Err(why) => {
            let _ = std::fs::remove_file(&part);
            Err(why)
        }
    }
}

/// Takes in a client that was exported.
pub fn import(data: &Path, file: &Path) -> Result<(), Failure> {
    let (store, knowledge) = beside(data)?;
    let open = File::open(file).map_err(|why| {
        let says = format!("{} cannot be read: {why}", file.display());
        Failure::input(says)
    })?;
    let taken = store.import_client(&knowledge.atlas, BufReader::new(open)).map_err(failure)?;
    println!(
        "{} is here: {} rounds, {} log entries, {} pictures.",
        taken.name, taken.rounds, taken.log_entries, taken.pictures
    );
    Ok(())
}

/// Removes a client for good when that is confirmed; else says what would go. Nobody may serve the practice meanwhile.
pub fn erase(data: &Path, client: &ClientId, confirmed: bool) -> Result<(), Failure> {
    let (beside, knowledge) = beside(data)?;
    let all = beside.belongings(&knowledge.atlas, client).map_err(failure)?;
    drop(beside);
    let what = format!(
        "{}: {} rounds, {} pictures, {} plans, {} log entries, {} links",
        all.name, all.rounds, all.pictures, all.plans, all.log_entries, all.links
    );
    if !confirmed {
        println!("{what}. Nothing was erased: export first what must stay, then say --yes.");
        return Ok(());
    }
    let store = Store::open(data).map_err(Failure::other)?;
    store.erase_client(client).map_err(failure)?;
    println!("{what}: erased. Backups made before still hold them.");
    Ok(())
}

/// Writes the whole practice to a file.
pub fn backup(data: &Path, file: &Path) -> Result<(), Failure> {
    let store = Store::beside(data).map_err(Failure::other)?;
    store::backup(&store, file).map_err(failure)?;
    println!("{} is a backup of the practice in {}.", file.display(), data.display());
    Ok(())
}

/// Makes a practice from a backup, and looks whether it is whole.
pub fn restore(data: &Path, file: &Path) -> Result<(), Failure> {
    store::restore(file, data, &Store::newest_schema()).map_err(failure)?;
    // An older practice is brought up to this version.
    drop(Store::open(data).map_err(Failure::other)?);
    check(data)
}

/// Looks whether a practice is whole: one line per finding, and exit code 1 when there is any.
pub fn check(data: &Path) -> Result<(), Failure> {
    let (store, knowledge) = beside(data)?;
    let findings = store.check(&knowledge.atlas).map_err(Failure::other)?;
    if findings.is_empty() {
        println!("The practice in {} is whole.", data.display());
        return Ok(());
    }
    let lines: Vec<String> = findings.iter().map(|finding| format!("{}: {}", finding.place, finding.says)).collect();
    Err(Failure::other(lines.join("\n")))
}
