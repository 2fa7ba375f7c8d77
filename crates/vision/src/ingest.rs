//! Taking an upload in: what it is, which way up, a view, a thumbnail, and the original without its metadata.

use crate::error::PhotoError;
use crate::metadata::{self, Kept, strip_jpeg, strip_png, strip_webp};
use crate::resample::resampled;
use fast_image_resize::pixels::U8x3;
use fast_image_resize::{FilterType, ResizeAlg};
use image::codecs::png::PngDecoder;
use image::codecs::webp::WebPDecoder;
use image::{DynamicImage, ImageDecoder, Limits, RgbImage, imageops};
use std::io::Cursor;
use turbojpeg::{Colorspace, Compressor, Decompressor, PixelFormat, ScalingFactor, Subsamp};

/// Longer side of a view, px.
pub const VIEW_PX: u32 = 1600;
/// Longer side of a thumbnail, px.
pub const THUMB_PX: u32 = 320;
/// Most pixels taken in, in millions: what the phones of today make, and what eight at once leave room for in memory.
pub const MAX_MEGAPIXELS: u64 = 50;
/// Most bytes taken in.
pub const MAX_BYTES: usize = 40_000_000;
const MIN_SIDE_PX: u64 = 200;
const VIEW_QUALITY: i32 = 88;
const THUMB_QUALITY: i32 = 80;
/// Passes over a progressive picture; more are only made to keep a decoder busy.
const MAX_SCANS: u32 = 64;

/// A format taken in.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Format {
    /// JPEG.
    Jpeg,
    /// PNG.
    Png,
    /// WebP.
    Webp,
}

impl Format {
    /// What the bytes are, whatever the file is called.
    ///
    /// # Errors
    /// [`PhotoError::Heic`] or [`PhotoError::NotAPicture`].
    pub fn of(bytes: &[u8]) -> Result<Self, PhotoError> {
        let starts = |magic: &[u8]| bytes.starts_with(magic);
        if starts(&[0xFF, 0xD8, 0xFF]) {
            return Ok(Self::Jpeg);
        }
        if starts(b"\x89PNG\r\n\x1a\n") {
            return Ok(Self::Png);
        }
        if starts(b"RIFF") && bytes.get(8..12) == Some(b"WEBP") {
            return Ok(Self::Webp);
        }
        if bytes.get(4..8) == Some(b"ftyp") {
            let brand = bytes.get(8..12).unwrap_or_default();
            let still = [b"heic", b"heix", b"hevc", b"heim", b"heis", b"mif1", b"msf1", b"avif"];
            let heic = still.iter().any(|known| brand == known.as_slice());
            return Err(if heic { PhotoError::Heic } else { PhotoError::NotAPicture(": it is a film") });
        }
        Err(PhotoError::NotAPicture(match bytes {
            [] => ": the file is empty",
            [b'G', b'I', b'F', ..] => ": it is a GIF",
            [b'%', b'P', b'D', b'F', ..] => ": it is a PDF",
            [b'B', b'M', ..] => ": it is a BMP",
            [b'I', b'I', b'*', 0, ..] | [b'M', b'M', 0, b'*', ..] => ": it is a TIFF or a camera's raw file",
            _ if std::str::from_utf8(&bytes[..bytes.len().min(256)]).is_ok() => ": it is a text file",
            _ => "",
        }))
    }

    /// Its media type.
    pub fn media_type(self) -> &'static str {
        match self {
            Self::Jpeg => "image/jpeg",
            Self::Png => "image/png",
            Self::Webp => "image/webp",
        }
    }

    /// The usual ending of a file's name.
    pub fn extension(self) -> &'static str {
        match self {
            Self::Jpeg => "jpg",
            Self::Png => "png",
            Self::Webp => "webp",
        }
    }
}

/// An upload taken apart.
#[derive(Clone, Debug)]
pub struct Ingested {
    /// What it is.
    pub format: Format,
    /// The original without its metadata; its compressed pixels are the same bytes.
    pub original: Vec<u8>,
    /// Width and height of the original the right way up, px.
    pub size_px: (u32, u32),
    /// When it was taken by the camera's clock, `YYYY-MM-DDThh:mm:ss`.
    pub taken_at: Option<String>,
    /// The right way up, its longer side at most [`VIEW_PX`].
    pub view: RgbImage,
    /// The view as JPEG.
    pub view_jpeg: Vec<u8>,
    /// The thumbnail as JPEG, its longer side at most [`THUMB_PX`].
    pub thumb_jpeg: Vec<u8>,
}

/// Takes an upload apart.
///
/// # Errors
/// [`PhotoError`] with the sentence for whoever sent it.
pub fn ingest(bytes: &[u8]) -> Result<Ingested, PhotoError> {
    if bytes.len() > MAX_BYTES {
        return Err(PhotoError::TooHeavy);
    }
    let format = Format::of(bytes)?;
    let (decoded, size_px) = match format {
        Format::Jpeg => decode_jpeg(bytes)?,
        Format::Png => decode_png(bytes)?,
        Format::Webp => decode_webp(bytes)?,
    };
    let kept = metadata::read(bytes);
    let original = match format {
        Format::Jpeg => strip_jpeg(bytes, &kept)?,
        Format::Png => strip_png(bytes, &kept)?,
        Format::Webp => strip_webp(bytes, &kept)?,
    };
    // The small picture is turned, not the large one.
    let view = upright(fitted(decoded, VIEW_PX)?, &kept);
    let thumb = fitted(view.clone(), THUMB_PX)?;
    let size_px = if kept.orientation >= 5 { (size_px.1, size_px.0) } else { size_px };
    let (view_jpeg, thumb_jpeg) = (encode(&view, VIEW_QUALITY)?, encode(&thumb, THUMB_QUALITY)?);
    Ok(Ingested { format, original, size_px, taken_at: kept.taken_at, view, view_jpeg, thumb_jpeg })
}

fn damaged(error: impl std::fmt::Display) -> PhotoError {
    PhotoError::Damaged(error.to_string())
}

fn check_size(width: u64, height: u64) -> Result<(u32, u32), PhotoError> {
    if width * height > MAX_MEGAPIXELS * 1_000_000 {
        return Err(PhotoError::TooLarge { width, height });
    }
    if width.min(height) < MIN_SIDE_PX {
        return Err(PhotoError::TooSmall { width, height });
    }
    Ok((width as u32, height as u32))
}

/// Decodes at the smallest scale of the format's own that still covers a view.
fn decode_jpeg(bytes: &[u8]) -> Result<(RgbImage, (u32, u32)), PhotoError> {
    let mut decoder = Decompressor::new().map_err(damaged)?;
    decoder.set_scan_limit(MAX_SCANS).map_err(damaged)?;
    let header = decoder.read_header(bytes).map_err(damaged)?;
    let size_px = check_size(header.width as u64, header.height as u64)?;
    if matches!(header.colorspace, Colorspace::CMYK | Colorspace::YCCK) {
        return Err(PhotoError::Cmyk);
    }
    let longer = header.width.max(header.height);
    let scales = [ScalingFactor::ONE_EIGHTH, ScalingFactor::ONE_QUARTER, ScalingFactor::ONE_HALF];
    let enough = scales.into_iter().find(|scale| scale.scale(longer) >= VIEW_PX as usize);
    let scale = if header.is_lossless { ScalingFactor::ONE } else { enough.unwrap_or(ScalingFactor::ONE) };
    decoder.set_scaling_factor(scale).map_err(damaged)?;
    let scaled = header.scaled(scale);
    let mut pixels = vec![0; scaled.width * scaled.height * 3];
    let (width, height, pitch) = (scaled.width, scaled.height, scaled.width * 3);
    let output = turbojpeg::Image { pixels: pixels.as_mut_slice(), width, pitch, height, format: PixelFormat::RGB };
    decoder.decompress(bytes, output).map_err(damaged)?;
    let picture = RgbImage::from_raw(width as u32, height as u32, pixels);
    Ok((picture.ok_or_else(|| damaged("its size and its pixels differ"))?, size_px))
}

/// What a decoder may take: the largest picture at four bytes a pixel, twice.
fn limits() -> Limits {
    let mut limits = Limits::default();
    limits.max_alloc = Some(MAX_MEGAPIXELS * 1_000_000 * 8);
    limits
}

fn decode_png(bytes: &[u8]) -> Result<(RgbImage, (u32, u32)), PhotoError> {
    // Packed profiles and texts unpack to whatever their sender wished: they are taken out before anything is unpacked.
    let bare = metadata::bare_png(bytes)?;
    let decoder = PngDecoder::with_limits(Cursor::new(bare), limits()).map_err(damaged)?;
    let (width, height) = decoder.dimensions();
    let size_px = check_size(width.into(), height.into())?;
    if decoder.is_apng().map_err(damaged)? {
        return Err(PhotoError::Animated);
    }
    if decoder.color_type().bytes_per_pixel() / decoder.color_type().channel_count() > 1 {
        return Err(PhotoError::SixteenBit);
    }
    Ok((DynamicImage::from_decoder(decoder).map_err(damaged)?.into_rgb8(), size_px))
}

fn decode_webp(bytes: &[u8]) -> Result<(RgbImage, (u32, u32)), PhotoError> {
    let mut decoder = WebPDecoder::new(Cursor::new(bytes)).map_err(damaged)?;
    let (width, height) = decoder.dimensions();
    let size_px = check_size(width.into(), height.into())?;
    decoder.set_limits(limits()).map_err(damaged)?;
    if decoder.has_animation() {
        return Err(PhotoError::Animated);
    }
    Ok((DynamicImage::from_decoder(decoder).map_err(damaged)?.into_rgb8(), size_px))
}

/// The picture with its longer side at most `longest_px`; a smaller one stays as it is.
fn fitted(picture: RgbImage, longest_px: u32) -> Result<RgbImage, PhotoError> {
    let (width, height) = picture.dimensions();
    let longer = width.max(height);
    if longer <= longest_px {
        return Ok(picture);
    }
    let scaled = |side: u32| ((f64::from(side) * f64::from(longest_px) / f64::from(longer)).round() as u32).max(1);
    let to = (scaled(width), scaled(height));
    let how = ResizeAlg::Convolution(FilterType::Bilinear);
    let pixels = resampled::<U8x3>(picture.as_raw(), (width, height), to, how).map_err(damaged)?;
    RgbImage::from_raw(to.0, to.1, pixels).ok_or_else(|| damaged("it could not be made smaller"))
}

/// The picture turned as its EXIF orientation says.
fn upright(picture: RgbImage, kept: &Kept) -> RgbImage {
    match kept.orientation {
        2 => imageops::flip_horizontal(&picture),
        3 => imageops::rotate180(&picture),
        4 => imageops::flip_vertical(&picture),
        5 => imageops::flip_horizontal(&imageops::rotate90(&picture)),
        6 => imageops::rotate90(&picture),
        7 => imageops::flip_horizontal(&imageops::rotate270(&picture)),
        8 => imageops::rotate270(&picture),
        _ => picture,
    }
}

fn encode(picture: &RgbImage, quality: i32) -> Result<Vec<u8>, PhotoError> {
    let mut encoder = Compressor::new().map_err(damaged)?;
    encoder.set_quality(quality).map_err(damaged)?;
    encoder.set_subsamp(Subsamp::Sub2x2).map_err(damaged)?;
    let (width, height) = (picture.width() as usize, picture.height() as usize);
    let pixels = picture.as_raw().as_slice();
    let source = turbojpeg::Image { pixels, width, pitch: width * 3, height, format: PixelFormat::RGB };
    encoder.compress_to_vec(source).map_err(damaged)
}
