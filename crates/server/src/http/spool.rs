//! Bodies that are sent slowly: kept in a file until they are whole, and broken off when they take too long.

use super::ApiError;
use actix_web::rt::time::{Instant, timeout};
use actix_web::web;
use desk::DeskError;
use futures_util::StreamExt;
use std::fs::File;
use std::io::{Read, Seek, SeekFrom, Write};
use std::path::Path;
use std::time::Duration;

/// How large a body may be, and how long it may take.
#[derive(Clone, Copy)]
pub(crate) struct Limits {
    /// Bytes.
    pub most: usize,
    /// Without a byte for so long it is over.
    pub idle: Duration,
    /// From its first byte to its last.
    pub whole: Duration,
}

/// A body that is whole, in a file that nobody else sees and that goes with it.
pub(crate) struct Spooled {
    file: File,
    bytes: usize,
}

impl Spooled {
    /// Reads it into memory.
    pub fn read(mut self) -> Result<Vec<u8>, DeskError> {
        let mut bytes = Vec::with_capacity(self.bytes);
        self.file.read_to_end(&mut bytes).map_err(|error| DeskError::Internal(error.to_string()))?;
        Ok(bytes)
    }

    /// The file, at its beginning.
    pub fn into_file(self) -> File {
        self.file
    }
}

/// Keeps a body in a file of a directory until it is whole.
///
/// # Errors
/// `too_large` when it is larger than its limit; a sentence when it takes too long or breaks off, or the disk is full.
pub(crate) async fn spool(
    directory: &Path,
    mut body: web::Payload,
    limits: Limits,
    too_large: impl Fn() -> ApiError,
) -> Result<Spooled, ApiError> {
    let mut file = tempfile::tempfile_in(directory).map_err(|error| unwritten(&error))?;
    let (end, mut bytes) = (Instant::now() + limits.whole, 0);
    loop {
        let left = end.saturating_duration_since(Instant::now()).min(limits.idle);
        let piece = timeout(left, body.next()).await;
        let slow = |_| ApiError::Slow("The upload took too long and was broken off: send it again.".to_owned());
        let Some(piece) = piece.map_err(slow)? else { break };
        let piece = piece.map_err(actix_web::Error::from)?;
        bytes += piece.len();
        if bytes > limits.most {
            return Err(too_large());
        }
        // A piece is some kilobytes, and goes to the system's memory first: no thread is worth that.
        file.write_all(&piece).map_err(|error| unwritten(&error))?;
    }
    file.seek(SeekFrom::Start(0)).map_err(|error| unwritten(&error))?;
    Ok(Spooled { file, bytes })
}

fn unwritten(error: &std::io::Error) -> ApiError {
    if error.kind() == std::io::ErrorKind::StorageFull {
        let says = "The disk of the studio's computer is full: nothing was taken in; make room and send it again.";
        return DeskError::Full(says.to_owned()).into();
    }
    DeskError::Internal(error.to_string()).into()
}

#[cfg(test)]
mod tests {
    use super::*;
    use actix_web::dev::Payload;
    use actix_web::error::PayloadError;
    use actix_web::test::TestRequest;
    use actix_web::web::Bytes;
    use actix_web::{FromRequest, rt};
    use futures_util::Stream;
    use futures_util::stream::{iter, pending, unfold};
    use rstest::rstest;
    use std::pin::Pin;

    type Pieces = Pin<Box<dyn Stream<Item = Result<Bytes, PayloadError>>>>;

    const LIMITS: Limits = Limits { most: 9, idle: Duration::from_millis(200), whole: Duration::from_millis(600) };

    fn sent() -> Pieces {
        Box::pin(iter(["abc", "def"].map(|piece| Ok(Bytes::from(piece)))))
    }

    fn too_much() -> Pieces {
        Box::pin(iter(["abcdef", "ghij"].map(|piece| Ok(Bytes::from(piece)))))
    }

    fn stops() -> Pieces {
        Box::pin(iter(["abc"].map(|piece| Ok(Bytes::from(piece)))).chain(pending()))
    }

    fn trickles() -> Pieces {
        Box::pin(unfold((), |()| async {
            rt::time::sleep(Duration::from_millis(100)).await;
            Some((Ok(Bytes::new()), ()))
        }))
    }

    #[rstest]
    #[case::whole(sent, Ok("abcdef"))]
    #[case::too_large(too_much, Err("too large"))]
    #[case::stopping(stops, Err("took too long"))]
    #[case::trickling(trickles, Err("took too long"))]
    #[actix_web::test]
    async fn a_body_is_whole_or_a_sentence(#[case] pieces: fn() -> Pieces, #[case] expected: Result<&str, &str>) {
        let directory = tempfile::tempdir().unwrap();
        let mut payload = Payload::Stream { payload: pieces() };
        let body = web::Payload::from_request(&TestRequest::default().to_http_request(), &mut payload).await.unwrap();
        let spooled =
            spool(directory.path(), body, LIMITS, || DeskError::Malformed("too large".to_owned()).into()).await;
        match (spooled.and_then(|spooled| Ok(spooled.read()?)), expected) {
            (Ok(bytes), Ok(text)) => assert_eq!(bytes, text.as_bytes()),
            (Err(error), Err(says)) => assert!(error.to_string().contains(says), "{error}"),
            (got, _) => panic!("{:?}", got.map(|bytes| bytes.len())),
        }
        assert_eq!(std::fs::read_dir(directory.path()).unwrap().count(), 0);
    }
}
