//! Who may open a practice, what only its owner may read, and what is tidied at a start.

use crate::support::{Fresh, fresh};
use diesel::connection::SimpleConnection;
use diesel::prelude::*;
use rstest::rstest;
use std::path::Path;
use store::Store;

/// Changes a practice's database as no Orthomer would.
fn change(directory: &Path, sql: &str) {
    let file = directory.join("orthomer.sqlite");
    SqliteConnection::establish(&file.to_string_lossy()).unwrap().batch_execute(sql).unwrap();
}

fn refusal(directory: &Path) -> String {
    Store::open(directory).map(drop).unwrap_err().to_string()
}

#[test]
fn a_practice_is_open_in_one_program_at_a_time() {
    let directory = tempfile::tempdir().unwrap();
    let first = Store::open(directory.path()).unwrap();
    assert!(refusal(directory.path()).contains("another orthomer has it open: stop that one first"));
    assert!(Store::beside(directory.path()).is_ok(), "reading beside it goes on");
    drop(first);
    assert!(Store::open(directory.path()).is_ok());
}

#[test]
fn a_practice_of_a_newer_version_is_refused_and_stays_as_it_is() {
    let directory = tempfile::tempdir().unwrap();
    drop(Store::open(directory.path()).unwrap());
    change(directory.path(), "INSERT INTO __diesel_schema_migrations (version) VALUES ('29990101000001')");
    for refused in [refusal(directory.path()), Store::beside(directory.path()).map(drop).unwrap_err().to_string()] {
        assert!(refused.contains("a newer version made it (29990101000001)"), "{refused}");
    }
}

#[cfg(unix)]
#[rstest]
#[case::the_directory("", 0o700)]
#[case::the_database("orthomer.sqlite", 0o600)]
#[case::what_is_not_yet_in_it("orthomer.sqlite-wal", 0o600)]
#[case::the_pictures("photos", 0o700)]
fn only_its_own_account_may_read_a_practice(#[case] name: &str, #[case] mode: u32) {
    use std::os::unix::fs::PermissionsExt;
    let Fresh { store, .. } = &fresh();
    let about = std::fs::metadata(store.directory().join(name)).unwrap();
    assert_eq!(about.permissions().mode() & 0o777, mode);
}

#[test]
fn a_backup_is_for_its_own_account_alone() {
    let practice = fresh();
    let elsewhere = tempfile::tempdir().unwrap();
    let file = elsewhere.path().join("backup.zip");
    store::backup(&practice.store, &file).unwrap();
    #[cfg(unix)]
    {
        use std::os::unix::fs::PermissionsExt;
        assert_eq!(std::fs::metadata(&file).unwrap().permissions().mode() & 0o777, 0o600);
    }
    assert_eq!(std::fs::read_dir(elsewhere.path()).unwrap().count(), 1, "no copy stays beside it");
}

#[test]
fn a_client_whose_import_was_broken_off_is_gone_after_the_next_start() {
    let practice = fresh();
    let [whole, half] = [practice.client(), practice.client()];
    change(practice.store.directory(), &format!("INSERT INTO half_imported (client_id) VALUES ('{half}')"));
    practice.store.tidy().unwrap();
    assert!(practice.store.client(&practice.atlas, &whole).is_ok());
    assert!(practice.store.client(&practice.atlas, &half).is_err());
}

#[test]
fn what_was_written_since_the_start_is_not_tidied_away() {
    let practice = fresh();
    let photos = practice.store.directory().join("photos");
    let [old, new] = ["old.original", "new.original"].map(|name| photos.join(name));
    std::fs::write(&old, b"from before").unwrap();
    let before = std::time::SystemTime::now() - std::time::Duration::from_hours(1);
    std::fs::File::options().append(true).open(&old).unwrap().set_modified(before).unwrap();
    std::fs::write(&new, b"an upload under way").unwrap();
    practice.store.tidy().unwrap();
    assert_eq!([old.exists(), new.exists()], [false, true]);
}
