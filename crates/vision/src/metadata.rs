//! What a camera writes beside the pixels: the turn and the time are kept, everything else is dropped.

use crate::error::PhotoError;
use exif::{Exif, Field, In, Reader, Tag, Value};
use flate2::read::ZlibDecoder;
use img_parts::jpeg::{Jpeg, JpegSegment, markers};
use img_parts::png::Png;
use img_parts::webp::WebP;
use img_parts::{Bytes, ImageEXIF};
use std::io::{Cursor, Read};

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

/// Where the picture ends: behind it some cameras put a film, with its own record of the place. `None` without an end marker.
fn jpeg_end(bytes: &[u8]) -> Option<usize> {
    let mut at = 2;
    loop {
        if *bytes.get(at)? != 0xFF {
            return None;
        }
        let marker = *bytes.get(at + 1)?;
        match marker {
            0xFF => at += 1,
            markers::EOI => return Some(at + 2),
            0x01 | markers::RST0..=markers::RST7 => at += 2,
            _ => {
                at += 2 + usize::from(u16::from_be_bytes([*bytes.get(at + 2)?, *bytes.get(at + 3)?]));
                if marker == markers::SOS {
                    // Within coded pixels 0xFF is followed by 0 or by a restart.
                    let coded = bytes.get(at..)?.windows(2);
                    let is_marker = |two: &[u8]| two[0] == 0xFF && !matches!(two[1], 0 | markers::RST0..=markers::RST7);
                    at += coded.into_iter().position(is_marker)?;
                }
            }
        }
    }
}

/// The frame's density without its thumbnail.
fn without_thumbnail(jfif: &Bytes) -> Option<JpegSegment> {
    const BARE: usize = 14;
    const THUMBNAIL: std::ops::Range<usize> = 12..14;
    let mut bare = jfif.get(..BARE).filter(|bare| bare.starts_with(b"JFIF\0"))?.to_vec();
    bare[THUMBNAIL].fill(0);
    Some(JpegSegment::new_with_contents(markers::APP0, bare.into()))
}

/// A JPEG without its metadata, thumbnails and what lies behind its end; the compressed pixels are the same bytes. The colour
/// profile stays, or colours would change.
pub(crate) fn strip_jpeg(bytes: &[u8], kept: &Kept) -> Result<Vec<u8>, PhotoError> {
    let bytes = &bytes[..jpeg_end(bytes).unwrap_or(bytes.len())];
    let mut jpeg = Jpeg::from_bytes(Bytes::copy_from_slice(bytes)).map_err(damaged)?;
    let mut frames = jpeg.segments().iter().filter(|segment| segment.marker() == markers::APP0);
    let frame = frames.find_map(|segment| without_thumbnail(segment.contents()));
    jpeg.segments_mut().retain(|segment| match segment.marker() {
        markers::APP14 => true,
        markers::APP2 => segment.contents().starts_with(b"ICC_PROFILE\0"),
        marker => !(markers::APP0..=markers::APP15).contains(&marker) && marker != markers::COM,
    });
    if let Some(frame) = frame {
        jpeg.segments_mut().insert(0, frame);
    }
    jpeg.set_exif(written(kept));
    Ok(jpeg.encoder().bytes().to_vec())
}

/// Chunks of a PNG that decide its pixels or their colours.
const PNG_KEPT: [&[u8; 4]; 10] =
    [b"IHDR", b"PLTE", b"IDAT", b"IEND", b"tRNS", b"gAMA", b"cHRM", b"sRGB", b"iCCP", b"sBIT"];

/// Of those, the ones that decide its pixels: nothing else is unpacked here.
const PNG_DECODED: [&[u8; 4]; 6] = [b"IHDR", b"PLTE", b"IDAT", b"IEND", b"tRNS", b"acTL"];
/// A colour profile that unpacks to more is none.
const PROFILE_BYTES: u64 = 1024 * 1024;

/// A PNG with the chunks its pixels need alone.
pub(crate) fn bare_png(bytes: &[u8]) -> Result<Vec<u8>, PhotoError> {
    let mut png = Png::from_bytes(Bytes::copy_from_slice(bytes)).map_err(damaged)?;
    png.chunks_mut().retain(|chunk| PNG_DECODED.contains(&&chunk.kind()));
    Ok(png.encoder().bytes().to_vec())
}

/// Whether a packed profile, after its name and method, stays within bounds; no more than those are ever unpacked.
fn is_modest_profile(chunk: &[u8]) -> bool {
    let Some(name) = chunk.iter().position(|byte| *byte == 0) else { return false };
    let packed = chunk.get(name + 2..).unwrap_or_default();
    let unpacked = std::io::copy(&mut ZlibDecoder::new(packed).take(PROFILE_BYTES + 1), &mut std::io::sink());
    unpacked.is_ok_and(|bytes| bytes <= PROFILE_BYTES)
}

/// A PNG without its metadata.
pub(crate) fn strip_png(bytes: &[u8], kept: &Kept) -> Result<Vec<u8>, PhotoError> {
    let mut png = Png::from_bytes(Bytes::copy_from_slice(bytes)).map_err(damaged)?;
    png.chunks_mut().retain(|chunk| {
        PNG_KEPT.contains(&&chunk.kind()) && (&chunk.kind() != b"iCCP" || is_modest_profile(chunk.contents()))
    });
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
