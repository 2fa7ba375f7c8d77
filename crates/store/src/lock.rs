//! Locks on a practice's directory between programs, and files that only their owner may read.

use std::fs::{self, File, OpenOptions, TryLockError};
use std::path::Path;

/// A lock of the operating system: it goes with the program, however that ends.
#[derive(Debug)]
pub(crate) struct Lock {
    _file: File,
}

impl Lock {
    /// Locks `name` in a directory against everybody else; `None` when somebody has it.
    pub(crate) fn alone(directory: &Path, name: &str) -> std::io::Result<Option<Self>> {
        let file = private_file(&directory.join(name))?;
        match file.try_lock() {
            Ok(()) => Ok(Some(Self { _file: file })),
            Err(TryLockError::WouldBlock) => Ok(None),
            Err(TryLockError::Error(why)) => Err(why),
        }
    }

    /// Locks it beside others who do the same; waits for whoever has it alone.
    pub(crate) fn with_others(directory: &Path, name: &str) -> std::io::Result<Self> {
        let file = private_file(&directory.join(name))?;
        file.lock_shared()?;
        Ok(Self { _file: file })
    }
}

/// Opens a file to write, making it, for its owner alone.
pub(crate) fn private_file(path: &Path) -> std::io::Result<File> {
    let file = owned(OpenOptions::new().create(true).append(true)).open(path)?;
    restrict(path, 0o600)?;
    Ok(file)
}

/// A new, empty file for its owner alone; one that is there is written over.
pub(crate) fn new_private_file(path: &Path) -> std::io::Result<File> {
    owned(OpenOptions::new().create(true).write(true).truncate(true)).open(path)
}

/// Only the account the server runs as may look in.
pub(crate) fn private_directory(path: &Path) -> std::io::Result<()> {
    restrict(path, 0o700)
}

/// What was renamed in a directory is there after the power has gone.
pub(crate) fn sync_directory(path: &Path) -> std::io::Result<()> {
    if cfg!(unix) { File::open(path)?.sync_all() } else { Ok(()) }
}

#[cfg(unix)]
fn owned(options: &mut OpenOptions) -> &mut OpenOptions {
    use std::os::unix::fs::OpenOptionsExt;
    options.mode(0o600)
}

#[cfg(unix)]
fn restrict(path: &Path, mode: u32) -> std::io::Result<()> {
    use std::os::unix::fs::PermissionsExt;
    fs::set_permissions(path, fs::Permissions::from_mode(mode))
}

#[cfg(not(unix))]
fn owned(options: &mut OpenOptions) -> &mut OpenOptions {
    options
}

#[cfg(not(unix))]
fn restrict(_: &Path, _: u32) -> std::io::Result<()> {
    Ok(())
}
