//! The database file: opening, settings of every connection, migrations.

use crate::error::StoreError;
use crate::lock::{Lock, private_directory, private_file};
use crate::photo_files::PhotoFiles;
use crate::plans::IssuedRecord;
use diesel::connection::SimpleConnection;
use diesel::migration::{Migration, MigrationSource};
use diesel::r2d2::{ConnectionManager, CustomizeConnection, Pool, PooledConnection};
use diesel::sqlite::Sqlite;
use diesel::sqlite::SqliteConnection;
use diesel_migrations::{EmbeddedMigrations, MigrationHarness, embed_migrations};
use std::collections::HashMap;
use std::path::{Path, PathBuf};
use std::sync::{Arc, Mutex, PoisonError};
use std::time::SystemTime;
use units::PlanId;

const MIGRATIONS: EmbeddedMigrations = embed_migrations!("migrations");
pub(crate) const FILE: &str = "orthomer.sqlite";
/// Locked by whoever serves the practice.
const SERVED: &str = ".served";
/// Locked with others by whoever takes something in, alone by whoever tidies.
const WRITTEN: &str = ".written";
/// Given plans kept in memory at most.
const GIVEN_KEPT: usize = 2048;
/// Readers and one writer; SQLite lets only one write at a time.
const CONNECTIONS: u32 = 8;

/// The store of one practice. Cheap to clone; all clones share the connections.
#[derive(Clone)]
pub struct Store {
    pool: Pool<ConnectionManager<SqliteConnection>>,
    directory: PathBuf,
    files: PhotoFiles,
    /// Plans as they were given, which never change.
    given: Arc<Mutex<HashMap<PlanId, Arc<IssuedRecord>>>>,
    /// When it was opened: what is newer belongs to somebody at work.
    pub(crate) opened_at: SystemTime,
    /// Held while this program serves the practice; none beside a server.
    _held: Option<Arc<Lock>>,
}

pub(crate) type Connection = PooledConnection<ConnectionManager<SqliteConnection>>;

#[derive(Debug)]
struct Settings;

impl CustomizeConnection<SqliteConnection, diesel::r2d2::Error> for Settings {
    fn on_acquire(&self, connection: &mut SqliteConnection) -> Result<(), diesel::r2d2::Error> {
        // The busy timeout comes first: switching to WAL needs the write lock too. What is acknowledged is on the disk, also when
        // the power goes the moment after.
        connection
            .batch_execute(
                "PRAGMA busy_timeout = 5000; PRAGMA journal_mode = WAL; PRAGMA synchronous = FULL; \
                 PRAGMA foreign_keys = ON; PRAGMA secure_delete = ON;",
            )
            .map_err(diesel::r2d2::Error::QueryError)
    }
}

impl Store {
    /// Opens the practice under `directory` for this program alone, making it when there is none, and migrates it. What earlier
    /// programs left half done is put right by [`Self::tidy`], once it is known that this one can serve.
    ///
    /// # Errors
    /// [`StoreError::Unusable`] with a sentence when the directory or file cannot be made, read or written, when another program
    /// serves it, and when a newer version made it.
    pub fn open(directory: &Path) -> Result<Self, StoreError> {
        let unusable = |why: String| StoreError::Unusable { path: directory.to_owned(), why };
        std::fs::create_dir_all(directory).map_err(|error| unusable(error.to_string()))?;
        private_directory(directory).map_err(|error| unusable(error.to_string()))?;
        writable(directory).map_err(|error| unusable(error.to_string()))?;
        let lock = Lock::alone(directory, SERVED).map_err(|error| unusable(error.to_string()))?;
        let taken = || unusable("another orthomer has it open: stop that one first".to_owned());
        let held = Some(Arc::new(lock.ok_or_else(taken)?));
        private_file(&directory.join(FILE)).map_err(|error| unusable(error.to_string()))?;
        let store = Self::connected(directory, held)?;
        store.refuse_newer()?;
        store.connect()?.run_pending_migrations(MIGRATIONS).map_err(|error| unusable(error.to_string()))?;
        Ok(store)
    }

    /// Removes what an interrupted upload, deletion or import left. What somebody writes beside this program, or wrote since it
    /// opened the practice, is left alone.
    pub fn tidy(&self) -> Result<(), StoreError> {
        let Some(_alone) = Lock::alone(&self.directory, WRITTEN).map_err(StoreError::File)? else { return Ok(()) };
        self.forget_half_imported()?;
        self.sweep_photos()
    }

    /// Size of the database's file.
    ///
    /// # Errors
    /// [`StoreError::File`] when it cannot be seen.
    pub fn database_bytes(&self) -> Result<u64, StoreError> {
        Ok(std::fs::metadata(self.directory.join(FILE)).map_err(StoreError::File)?.len())
    }

    /// Keeps a starting server from tidying away what is being written.
    pub(crate) fn writing(&self) -> Result<Lock, StoreError> {
        Lock::with_others(&self.directory, WRITTEN).map_err(StoreError::File)
    }

    /// A database of a newer version holds what this one does not know.
    fn refuse_newer(&self) -> Result<(), StoreError> {
        let applied = self.schema_version()?;
        if applied > Self::newest_schema() {
            let why = format!("a newer version made it ({applied}): use that one, or restore a backup of before");
            return Err(StoreError::Unusable { path: self.directory.clone(), why });
        }
        Ok(())
    }

    fn connected(directory: &Path, held: Option<Arc<Lock>>) -> Result<Self, StoreError> {
        let unusable = |why: String| StoreError::Unusable { path: directory.to_owned(), why };
        let manager = ConnectionManager::new(directory.join(FILE).to_string_lossy());
        let pool = Pool::builder()
            .max_size(CONNECTIONS)
            .min_idle(Some(1))
            .connection_customizer(Box::new(Settings))
            .connection_timeout(std::time::Duration::from_secs(10))
            .build(manager)
            .map_err(|error| unusable(error.to_string()))?;
        let files = PhotoFiles::open(directory).map_err(|error| unusable(error.to_string()))?;
        let opened_at = SystemTime::now();
        Ok(Self { pool, directory: directory.to_owned(), files, given: Arc::default(), opened_at, _held: held })
    }

    /// Opens a practice that is there beside a server that may be serving it: nothing is made, migrated or swept.
    ///
    /// # Errors
    /// [`StoreError::Unusable`] when there is none, or one of another version.
    pub fn beside(directory: &Path) -> Result<Self, StoreError> {
        let unusable = |why: String| StoreError::Unusable { path: directory.to_owned(), why };
        if !directory.join(FILE).is_file() {
            return Err(unusable("there is no practice in it".to_owned()));
        }
        let store = Self::connected(directory, None)?;
        store.refuse_newer()?;
        let pending =
            store.connect()?.has_pending_migration(MIGRATIONS).map_err(|error| unusable(error.to_string()))?;
        if pending {
            return Err(unusable("it was made by another version: start the server once with this one".to_owned()));
        }
        Ok(store)
    }

    /// The newest migration of this version.
    pub fn newest_schema() -> String {
        let migrations: Vec<Box<dyn Migration<Sqlite>>> = MIGRATIONS.migrations().unwrap_or_default();
        migrations.iter().map(|migration| migration.name().version().to_string()).max().unwrap_or_default()
    }

    /// The newest migration that was applied.
    pub(crate) fn schema_version(&self) -> Result<String, StoreError> {
        let applied = self.connect()?.applied_migrations();
        let corrupt =
            |error: Box<dyn std::error::Error + Send + Sync>| StoreError::corrupt("schema", FILE, error.to_string());
        let versions = applied.map_err(corrupt)?;
        Ok(versions.iter().map(ToString::to_string).max().unwrap_or_default())
    }

    /// Where the practice is kept.
    pub fn directory(&self) -> &Path {
        &self.directory
    }

    /// A given plan that was read before, or is read now.
    pub(crate) fn given(
        &self,
        id: &PlanId,
        read: impl FnOnce() -> Result<IssuedRecord, StoreError>,
    ) -> Result<Arc<IssuedRecord>, StoreError> {
        let known = self.given.lock().unwrap_or_else(PoisonError::into_inner).get(id).cloned();
        if let Some(plan) = known {
            return Ok(plan);
        }
        let plan = Arc::new(read()?);
        let mut given = self.given.lock().unwrap_or_else(PoisonError::into_inner);
        if given.len() >= GIVEN_KEPT {
            given.clear();
        }
        given.insert(id.clone(), plan.clone());
        Ok(plan)
    }

    /// Forgets given plans that were read before, as when they went with their client.
    pub(crate) fn forget_given(&self) {
        self.given.lock().unwrap_or_else(PoisonError::into_inner).clear();
    }

    pub(crate) fn files(&self) -> &PhotoFiles {
        &self.files
    }

    pub(crate) fn connect(&self) -> Result<Connection, StoreError> {
        Ok(self.pool.get()?)
    }
}

/// Whether files can be made in a directory. SQLite would open a read-only file and fail at the first save.
fn writable(directory: &Path) -> std::io::Result<()> {
    let probe = directory.join(format!(".write-test-{}", std::process::id()));
    std::fs::write(&probe, b"")?;
    std::fs::remove_file(&probe)?;
    match std::fs::OpenOptions::new().append(true).open(directory.join(FILE)) {
        Err(error) if error.kind() != std::io::ErrorKind::NotFound => Err(error),
        _ => Ok(()),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use diesel::prelude::*;
    use diesel::sql_types::Text;

    #[derive(QueryableByName)]
    struct Definition {
        #[diesel(sql_type = Text)]
        sql: String,
    }

    fn definitions(connection: &mut SqliteConnection) -> Vec<String> {
        let rows = diesel::sql_query(
            "SELECT sql FROM sqlite_master WHERE sql IS NOT NULL AND name NOT LIKE '__diesel%' ORDER BY name",
        );
        rows.load::<Definition>(connection).unwrap().into_iter().map(|row| row.sql).collect()
    }

    #[test]
    fn every_migration_goes_down_and_up_again_to_the_same_schema() {
        let directory = tempfile::tempdir().unwrap();
        let store = Store::open(directory.path()).unwrap();
        let mut connection = store.connect().unwrap();
        let before = definitions(&mut connection);
        assert!(!before.is_empty());
        connection.revert_all_migrations(MIGRATIONS).unwrap();
        assert_eq!(definitions(&mut connection), Vec::<String>::new());
        connection.run_pending_migrations(MIGRATIONS).unwrap();
        assert_eq!(definitions(&mut connection), before);
    }

    #[test]
    fn every_connection_keeps_foreign_keys_and_waits_for_a_busy_database() {
        #[derive(QueryableByName)]
        struct Pragma {
            #[diesel(sql_type = diesel::sql_types::Integer)]
            on: i32,
        }
        let directory = tempfile::tempdir().unwrap();
        let store = Store::open(directory.path()).unwrap();
        let held: Vec<_> = (0..3).map(|_| store.connect().unwrap()).collect();
        for mut connection in held {
            let keys = diesel::sql_query("SELECT foreign_keys AS \"on\" FROM pragma_foreign_keys");
            assert_eq!(keys.get_result::<Pragma>(&mut connection).unwrap().on, 1);
            let timeout = diesel::sql_query("SELECT timeout AS \"on\" FROM pragma_busy_timeout");
            assert_eq!(timeout.get_result::<Pragma>(&mut connection).unwrap().on, 5000);
        }
    }

    #[test]
    fn a_file_where_the_directory_should_be_is_one_sentence() {
        let file = tempfile::NamedTempFile::new().unwrap();
        let Err(error) = Store::open(file.path()) else { panic!("a file is no directory") };
        assert!(error.to_string().starts_with("the data directory"), "{error}");
    }
}
