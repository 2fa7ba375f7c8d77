//! Everything about a client as a file and back, and the practice as one.

use crate::desk::Desk;
use crate::error::DeskError;
use std::fs::File;
use std::io::{BufReader, Seek, SeekFrom};
use store::{Imported, backup};
use units::ClientId;

impl Desk {
    /// Everything about a client as a zip archive that is in no directory any more. Written whole before anything of it is sent: what
    /// fails is said, and years of pictures are not kept in memory.
    pub fn export_client(&self, id: &ClientId) -> Result<File, DeskError> {
        let mut file = tempfile::tempfile_in(self.store.directory()).map_err(DeskError::internal)?;
        self.store.export_client(&self.knowledge().atlas, id, &mut file)?;
        file.seek(SeekFrom::Start(0)).map_err(DeskError::internal)?;
        Ok(file)
    }

    /// Takes in a client that was exported.
    pub fn import_client(&self, archive: File) -> Result<Imported, DeskError> {
        Ok(self.store.import_client(&self.knowledge().atlas, BufReader::new(archive))?)
    }

    /// One moment of the whole practice as a zip archive that is in no directory any more, while others go on.
    pub fn back_up(&self) -> Result<File, DeskError> {
        let path = self.store.directory().join(format!("backup-{}.zip", rand::random::<u64>()));
        backup(&self.store, &path)?;
        let open = File::open(&path);
        // Nobody finds it by its name: it goes when it was sent.
        let _ = std::fs::remove_file(&path);
        open.map_err(DeskError::internal)
    }
}
