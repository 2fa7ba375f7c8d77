//! Bytes of pictures, beside the database: written whole or not at all, found by random id, removed for good.

use crate::error::StoreError;
use crate::lock::{new_private_file, private_directory, sync_directory};
use std::collections::HashSet;
use std::fs;
use std::io::{ErrorKind, Write};
use std::path::{Path, PathBuf};
use std::time::SystemTime;
use units::PhotoId;

const DIRECTORY: &str = "photos";
/// A file that is still being written begins with this.
const UNFINISHED: &str = ".part-";

/// One of the files of a picture.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum PhotoFile {
    /// As it came, without its metadata.
    Original,
    /// At the size it is judged and measured in, JPEG.
    View,
    /// For strips, JPEG.
    Thumb,
    /// The person as found, PNG.
    Mask,
}

impl PhotoFile {
    pub(crate) const ALL: [Self; 4] = [Self::Original, Self::View, Self::Thumb, Self::Mask];

    pub(crate) fn ending(self) -> &'static str {
        match self {
            Self::Original => "original",
            Self::View => "view.jpg",
            Self::Thumb => "thumb.jpg",
            Self::Mask => "mask.png",
        }
    }
}

/// The pictures' directory.
#[derive(Clone, Debug)]
pub(crate) struct PhotoFiles {
    directory: PathBuf,
}

impl PhotoFiles {
    /// Under the practice's directory, made when there is none.
    pub fn open(practice: &Path) -> std::io::Result<Self> {
        let directory = practice.join(DIRECTORY);
        fs::create_dir_all(&directory)?;
        private_directory(&directory)?;
        Ok(Self { directory })
    }

    fn path(&self, id: &PhotoId, file: PhotoFile) -> PathBuf {
        self.directory.join(format!("{id}.{}", file.ending()))
    }

    /// Writes files of a picture. When one of them cannot be written, none of this call stays.
    ///
    /// # Errors
    /// [`StoreError::Full`] when the disk is, [`StoreError::File`] otherwise.
    pub fn keep(&self, id: &PhotoId, files: &[(PhotoFile, &[u8])]) -> Result<(), StoreError> {
        for (file, bytes) in files {
            if let Err(why) = self.write(id, *file, bytes) {
                for (file, _) in files {
                    let _ = fs::remove_file(self.path(id, *file));
                }
                return Err(match why.kind() {
                    ErrorKind::StorageFull | ErrorKind::QuotaExceeded | ErrorKind::FileTooLarge => StoreError::Full,
                    _ => StoreError::File(why),
                });
            }
        }
        Ok(())
    }

    /// A reader never sees half a file: it is renamed when all of it is on the disk.
    fn write(&self, id: &PhotoId, file: PhotoFile, bytes: &[u8]) -> std::io::Result<()> {
        let part = self.directory.join(format!("{UNFINISHED}{id}.{}", file.ending()));
        let written = new_private_file(&part).and_then(|mut open| {
            open.write_all(bytes)?;
            open.sync_all()
        });
        let done = written.and_then(|()| fs::rename(&part, self.path(id, file)));
        let done = done.and_then(|()| sync_directory(&self.directory));
        if done.is_err() {
            let _ = fs::remove_file(&part);
        }
        done
    }

    /// The bytes of a file.
    pub fn read(&self, id: &PhotoId, file: PhotoFile) -> Result<Vec<u8>, StoreError> {
        fs::read(self.path(id, file)).map_err(|why| match why.kind() {
            ErrorKind::NotFound => StoreError::not_found("picture", id),
            _ => StoreError::File(why),
        })
    }

    /// Removes every file of a picture; one that is not there is no error.
    pub fn remove(&self, id: &PhotoId) -> Result<(), StoreError> {
        for file in PhotoFile::ALL {
            match fs::remove_file(self.path(id, file)) {
                Err(why) if why.kind() != ErrorKind::NotFound => return Err(StoreError::File(why)),
                _ => {}
            }
        }
        Ok(())
    }

    /// Files that belong to no picture in `known`; what is being written at this moment is left out.
    pub fn strangers(&self, known: &HashSet<PhotoId>) -> std::io::Result<Vec<String>> {
        let mut strangers = Vec::new();
        for entry in fs::read_dir(&self.directory)? {
            let name = entry?.file_name().to_string_lossy().into_owned();
            let id = name.split('.').next().unwrap_or_default();
            if !name.starts_with(UNFINISHED) && !known.contains(id) {
                strangers.push(name);
            }
        }
        strangers.sort_unstable();
        Ok(strangers)
    }

    /// Removes what an interrupted upload or deletion left: files of pictures that are not in `known` and older than `before`.
    pub fn sweep(&self, known: &HashSet<PhotoId>, before: SystemTime) -> std::io::Result<usize> {
        let mut removed = 0;
        for entry in fs::read_dir(&self.directory)? {
            let entry = entry?;
            let name = entry.file_name();
            let name = name.to_string_lossy();
            let id = name.split('.').next().unwrap_or_default();
            let old = || entry.metadata().and_then(|about| about.modified()).is_ok_and(|modified| modified < before);
            if (name.starts_with(UNFINISHED) || !known.contains(id)) && old() {
                fs::remove_file(entry.path())?;
                removed += 1;
            }
        }
        Ok(removed)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn names(files: &PhotoFiles) -> Vec<String> {
        let entries = fs::read_dir(&files.directory).unwrap();
        let mut names: Vec<String> =
            entries.map(|entry| entry.unwrap().file_name().to_string_lossy().into_owned()).collect();
        names.sort();
        names
    }

    #[test]
    #[cfg(target_os = "linux")]
    fn a_disk_that_fills_in_the_middle_leaves_nothing_behind() {
        let directory = tempfile::tempdir().unwrap();
        let files = PhotoFiles::open(directory.path()).unwrap();
        // The second of two files meets a device that is always full.
        std::os::unix::fs::symlink("/dev/full", files.directory.join(".part-a1.view.jpg")).unwrap();
        let refused = files.keep(&"a1".into(), &[(PhotoFile::Original, b"one"), (PhotoFile::View, b"two")]);
        assert!(matches!(refused, Err(StoreError::Full)), "{refused:?}");
        assert_eq!(names(&files), Vec::<String>::new());
        assert!(refused.unwrap_err().to_string().contains("the disk is full"));
    }

    #[test]
    fn what_nobody_knows_is_swept_and_what_is_known_stays() {
        let directory = tempfile::tempdir().unwrap();
        let files = PhotoFiles::open(directory.path()).unwrap();
        files.keep(&"known".into(), &[(PhotoFile::Original, b"one"), (PhotoFile::Thumb, b"two")]).unwrap();
        files.keep(&"orphan".into(), &[(PhotoFile::Original, b"three")]).unwrap();
        fs::write(files.directory.join(".part-known.view.jpg"), b"half").unwrap();
        let known = HashSet::from([PhotoId::from("known")]);
        assert_eq!(files.sweep(&known, SystemTime::UNIX_EPOCH).unwrap(), 0, "all of it is newer");
        assert_eq!(files.sweep(&known, SystemTime::now() + std::time::Duration::from_secs(5)).unwrap(), 2);
        assert_eq!(names(&files), ["known.original", "known.thumb.jpg"]);
    }

    #[test]
    fn a_removed_picture_is_gone_from_the_disk() {
        let directory = tempfile::tempdir().unwrap();
        let files = PhotoFiles::open(directory.path()).unwrap();
        files.keep(&"a1".into(), &[(PhotoFile::Original, b"one"), (PhotoFile::Mask, b"two")]).unwrap();
        files.remove(&"a1".into()).unwrap();
        assert_eq!(names(&files), Vec::<String>::new());
        assert!(files.read(&"a1".into(), PhotoFile::Original).is_err());
        files.remove(&"a1".into()).unwrap();
    }
}
