//! What a camera writes beside the pixels: the turn and the time are kept, everything else is dropped.

use crate::error::PhotoError;
use exif::{Exif, Field, In, Reader, Tag, Value};
use img_parts::jpeg::{Jpeg, markers};
use img_parts::png::Png;
use img_parts::webp::WebP;
use img_parts::{Bytes, ImageEXIF};
use std::io::Cursor;

/// What is kept of an upload's metadata.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub(crate) struct Kept {
    /// The EXIF orientation, 1 to 8.
    pub orientation: u16,
    /// `YYYY-MM-DDThh:mm:ss`, the camera's own clock.
    pub taken_at: Option<String>,
}

/// Reads what is kept. Metadata that cannot be read counts as none: the pixels are what matters.
pub(crate) fn read(bytes: &[u8]) -> Kept {
    let Ok(exif) = Reader::new().read_from_container(&mut Cursor::new(bytes)) else {
        return Kept { orientation: 1, taken_at: None };
    };
    let orientation = exif.get_field(Tag::Orientation, In::PRIMARY).and_then(|field| field.value.get_uint(0));
    let orientation = orientation.filter(|turn| (1..=8).contains(turn)).unwrap_or(1);
    Kept { orientation: orientation as u16, taken_at: taken_at(&exif) }
}

fn taken_at(exif: &Exif) -> Option<String> {
    let field = exif.get_field(Tag::DateTimeOriginal, In::PRIMARY).or(exif.get_field(Tag::DateTime, In::PRIMARY))?;
    let Value::Ascii(texts) = &field.value else { return None };
    let time = exif::DateTime::from_ascii(texts.first()?).ok()?;
    let known = (1..=12).contains(&time.month) && (1..=31).contains(&time.day) && time.hour < 24 && time.minute < 60;
    known.then(|| {
        format!(
            "{:04}-{:02}-{:02}T{:02}:{:02}:{:02}",
            time.year, time.month, time.day, time.hour, time.minute, time.second
        )
    })
}

/// The metadata written back: the turn and the time alone.
fn written(kept: &Kept) -> Option<Bytes> {
    let orientation =
        Field { tag: Tag::Orientation, ifd_num: In::PRIMARY, value: Value::Short(vec![kept.orientation]) };
    let time = kept.taken_at.as_ref().map(|time| {
        let text = time.replacen('-', ":", 2).replace('T', " ").into_bytes();
        Field { tag: Tag::DateTimeOriginal, ifd_num: In::PRIMARY, value: Value::Ascii(vec![text]) }
    });
    let mut writer = exif::experimental::Writer::new();
    writer.push_field(&orientation);
    if let Some(time) = &time {
        writer.push_field(time);
    }
    let mut out = Cursor::new(Vec::new());
    writer.write(&mut out, true).ok()?;
    Some(out.into_inner().into())
}

fn damaged(error: impl std::fmt::Display) -> PhotoError {
    PhotoError::Damaged(error.to_string())
}

/// A JPEG without its metadata; the compressed pixels are the same bytes. The colour profile stays, or colours would change.
pub(crate) fn strip_jpeg(bytes: &[u8], kept: &Kept) -> Result<Vec<u8>, PhotoError> {
    let mut jpeg = Jpeg::from_bytes(Bytes::copy_from_slice(bytes)).map_err(damaged)?;
    jpeg.segments_mut().retain(|segment| match segment.marker() {
        markers::APP0 | markers::APP14 => true,
        markers::APP2 => segment.contents().starts_with(b"ICC_PROFILE\0"),
        marker => !(markers::APP0..=markers::APP15).contains(&marker) && marker != markers::COM,
    });
    jpeg.set_exif(written(kept));
    Ok(jpeg.encoder().bytes().to_vec())
}

/// Chunks of a PNG that decide its pixels or their colours.
const PNG_KEPT: [&[u8; 4]; 10] =
    [b"IHDR", b"PLTE", b"IDAT", b"IEND", b"tRNS", b"gAMA", b"cHRM", b"sRGB", b"iCCP", b"sBIT"];

/// A PNG without its metadata.
pub(crate) fn strip_png(bytes: &[u8], kept: &Kept) -> Result<Vec<u8>, PhotoError> {
    let mut png = Png::from_bytes(Bytes::copy_from_slice(bytes)).map_err(damaged)?;
    png.chunks_mut().retain(|chunk| PNG_KEPT.contains(&&chunk.kind()));
    png.set_exif(written(kept));
    Ok(png.encoder().bytes().to_vec())
}

/// A WebP without its metadata.
pub(crate) fn strip_webp(bytes: &[u8], kept: &Kept) -> Result<Vec<u8>, PhotoError> {
    let mut webp = WebP::from_bytes(Bytes::copy_from_slice(bytes)).map_err(damaged)?;
    webp.chunks_mut().retain(|chunk| matches!(&chunk.id(), b"VP8 " | b"VP8L" | b"VP8X" | b"ALPH" | b"ICCP"));
    webp.set_exif(written(kept));
    Ok(webp.encoder().bytes().to_vec())
}
