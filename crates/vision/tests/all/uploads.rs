//! What is no picture to work with is refused in one sentence.

#![allow(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "small pictures, made here")]

use image::codecs::jpeg::JpegEncoder;
use image::{DynamicImage, ExtendedColorType, ImageEncoder, ImageFormat, RgbImage};
use rstest::rstest;
use std::io::Cursor;
use vision::{Format, PhotoError, THUMB_PX, VIEW_PX, ingest};

fn picture(width: u32, height: u32) -> RgbImage {
    RgbImage::from_fn(width, height, |x, y| image::Rgb([(x % 251) as u8, (y % 241) as u8, ((x + y) % 199) as u8]))
}

fn jpeg(width: u32, height: u32) -> Vec<u8> {
    let mut bytes = Vec::new();
    picture(width, height).write_with_encoder(JpegEncoder::new_with_quality(&mut bytes, 85)).unwrap();
    bytes
}

fn encoded(picture: &DynamicImage, format: ImageFormat) -> Vec<u8> {
    let mut out = Cursor::new(Vec::new());
    picture.write_to(&mut out, format).unwrap();
    out.into_inner()
}

/// A JPEG's header with another size written into it.
fn with_size(mut bytes: Vec<u8>, width: u16, height: u16) -> Vec<u8> {
    let frame = bytes.windows(2).position(|pair| pair == [0xFF, 0xC0]).unwrap();
    bytes[frame + 5..frame + 7].copy_from_slice(&height.to_be_bytes());
    bytes[frame + 7..frame + 9].copy_from_slice(&width.to_be_bytes());
    bytes
}

/// A JPEG in CMYK: four components in the frame and the scan.
fn cmyk() -> Vec<u8> {
    let pixels = vec![90_u8; 240 * 240 * 4];
    let source = turbojpeg::Image {
        pixels: pixels.as_slice(),
        width: 240,
        pitch: 960,
        height: 240,
        format: turbojpeg::PixelFormat::CMYK,
    };
    turbojpeg::Compressor::new().unwrap().compress_to_vec(source).unwrap()
}

/// A PNG that says it is animated.
fn animated() -> Vec<u8> {
    let still = encoded(&DynamicImage::ImageRgb8(picture(240, 240)), ImageFormat::Png);
    let mut control = b"acTL".to_vec();
    control.extend([0, 0, 0, 1, 0, 0, 0, 0]);
    let sum = crc32(&control);
    let mut bytes = still[..33].to_vec();
    bytes.extend(8_u32.to_be_bytes());
    bytes.extend(&control);
    bytes.extend(sum.to_be_bytes());
    bytes.extend(&still[33..]);
    bytes
}

fn crc32(bytes: &[u8]) -> u32 {
    let mut crc = flate2::Crc::new();
    crc.update(bytes);
    crc.sum()
}

#[rstest]
#[case::a_text_file_named_jpg(b"not a picture at all".to_vec(), "this is not a JPEG, PNG or WebP picture: it is a text file")]
#[case::nothing(Vec::new(), "this is not a JPEG, PNG or WebP picture: the file is empty")]
#[case::heic(b"\0\0\0\x18ftypheic\0\0\0\0".to_vec(), "this is a HEIC picture")]
#[case::a_film(b"\0\0\0\x18ftypmp42\0\0\0\0".to_vec(), "this is not a JPEG, PNG or WebP picture: it is a film")]
#[case::cut_off(jpeg(800, 600)[..9000].to_vec(), "this picture is damaged or was cut off on the way")]
#[case::only_a_beginning(jpeg(800, 600)[..40].to_vec(), "this picture is damaged or was cut off on the way")]
#[case::two_hundred_megapixels(
    with_size(jpeg(400, 300), 20000, 10000),
    "this picture has 20000 x 10000 pixels; at most 50 megapixels are taken in"
)]
#[case::one_pixel(jpeg(1, 1), "this picture has 1 x 1 pixels; the shorter side needs at least 200")]
#[case::printing_colours(cmyk(), "this JPEG is in CMYK")]
#[case::sixteen_bits(encoded(&DynamicImage::new_rgb16(240, 240), ImageFormat::Png), "this picture has 16 bits a colour")]
#[case::animated(animated(), "this is an animation")]
fn what_is_no_picture_is_refused_in_a_sentence(#[case] bytes: Vec<u8>, #[case] says: &str) {
    let error = ingest(&bytes).unwrap_err();
    assert!(error.to_string().starts_with(says), "{error}");
}

#[test]
fn too_many_bytes_are_refused_before_anything_is_read() {
    let error = ingest(&vec![0; vision::MAX_BYTES + 1]).unwrap_err();
    assert_eq!(error, PhotoError::TooHeavy);
}

#[rstest]
#[case::jpeg(jpeg(2400, 3000), Format::Jpeg)]
#[case::png(encoded(&DynamicImage::ImageRgb8(picture(900, 2000)), ImageFormat::Png), Format::Png)]
#[case::webp(encoded(&DynamicImage::ImageRgb8(picture(700, 500)), ImageFormat::WebP), Format::Webp)]
fn a_view_and_a_thumbnail_keep_the_shape(#[case] bytes: Vec<u8>, #[case] format: Format) {
    let taken = ingest(&bytes).unwrap();
    assert_eq!(taken.format, format);
    let (width, height) = taken.size_px;
    let shape = f64::from(width) / f64::from(height);
    let view = image::load_from_memory(&taken.view_jpeg).unwrap();
    let thumb = image::load_from_memory(&taken.thumb_jpeg).unwrap();
    assert_eq!(view.width().max(view.height()), VIEW_PX.min(width.max(height)));
    assert_eq!(thumb.width().max(thumb.height()), THUMB_PX);
    for small in [view, thumb] {
        assert!((f64::from(small.width()) / f64::from(small.height()) - shape).abs() < 0.01);
    }
    let again = image::load_from_memory(&taken.original).unwrap();
    assert_eq!((again.width(), again.height()), taken.size_px);
    assert_eq!(again.into_rgb8(), image::load_from_memory(&bytes).unwrap().into_rgb8());
}

#[test]
fn a_png_loses_its_texts() {
    let mut bytes = Vec::new();
    let pixels = picture(220, 260);
    let mut encoder = image::codecs::png::PngEncoder::new(&mut bytes);
    encoder.set_exif_metadata(b"MM\0*\0\0\0\x08\0\0secret".to_vec()).unwrap();
    encoder.write_image(pixels.as_raw(), 220, 260, ExtendedColorType::Rgb8).unwrap();
    let has = |bytes: &[u8]| bytes.windows(6).any(|part| part == b"secret");
    assert!(has(&bytes) && !has(&ingest(&bytes).unwrap().original));
}
