//! What is no picture to work with is refused in one sentence.

#![allow(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "small pictures, made here")]

use image::codecs::jpeg::JpegEncoder;
use image::{DynamicImage, ExtendedColorType, ImageEncoder, ImageFormat, RgbImage};
use img_parts::png::{Png, PngChunk};
use proptest::prelude::*;
use rstest::rstest;
use std::io::{Cursor, Write};
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

/// A PNG with one more chunk after its header.
fn with_chunk(kind: [u8; 4], contents: Vec<u8>) -> Vec<u8> {
    let still = encoded(&DynamicImage::ImageRgb8(picture(240, 240)), ImageFormat::Png);
    let mut png = Png::from_bytes(still.into()).unwrap();
    png.chunks_mut().insert(1, PngChunk::new(kind, contents.into()));
    png.encoder().bytes().to_vec()
}

/// Zeros by the gigabyte in under two megabytes: one packed stretch, over and over.
fn bomb(before: &[u8]) -> Vec<u8> {
    const STRETCH: usize = 8 << 20;
    const STRETCHES: usize = 200;
    let mut packer = flate2::Compress::new(flate2::Compression::best(), false);
    let mut packed = Vec::with_capacity(STRETCH / 64);
    packer.compress_vec(&vec![0; STRETCH], &mut packed, flate2::FlushCompress::Full).unwrap();
    let zlib_header = [0x78, 0x9C];
    let mut bytes = [before, &zlib_header].concat();
    for _ in 0..STRETCHES {
        bytes.extend(&packed);
    }
    bytes
}

/// The most memory this program ever held, bytes.
fn peak() -> u64 {
    let status = std::fs::read_to_string("/proc/self/status").unwrap_or_default();
    let line = status.lines().find_map(|line| line.strip_prefix("VmHWM:")).unwrap_or("0");
    line.trim().trim_end_matches(" kB").parse::<u64>().unwrap_or_default() * 1024
}

#[rstest]
#[case::a_profile(*b"iCCP", b"profile\0\0")]
#[case::a_packed_text(*b"zTXt", b"Comment\0\0")]
#[case::a_packed_text_of_any_language(*b"iTXt", b"Comment\0\x01\0\0\0")]
fn what_unpacks_without_end_is_left_packed(#[case] kind: [u8; 4], #[case] before: &[u8]) {
    const BEYOND_OTHER_TESTS: u64 = 1 << 30;
    let hostile = with_chunk(kind, bomb(before));
    assert!(hostile.len() < 4 << 20, "{} bytes", hostile.len());
    let taken = ingest(&hostile).unwrap();
    assert_eq!(taken.size_px, (240, 240));
    assert!(taken.original.len() < hostile.len() / 4, "the packed chunk is gone from the original");
    assert!(peak() < BEYOND_OTHER_TESTS, "{} bytes", peak());
}

#[test]
fn a_modest_profile_stays_with_the_original() {
    let mut packed = b"profile\0\0".to_vec();
    let mut packer = flate2::write::ZlibEncoder::new(&mut packed, flate2::Compression::fast());
    packer.write_all(&[7; 3000]).unwrap();
    packer.finish().unwrap();
    let taken = ingest(&with_chunk(*b"iCCP", packed)).unwrap();
    assert!(taken.original.windows(4).any(|kind| kind == b"iCCP"));
}

#[test]
fn an_original_ends_where_its_picture_does_and_has_no_thumbnail() {
    let plain = jpeg(240, 240);
    let mut with_more = plain[..2].to_vec();
    // A frame with a thumbnail of one pixel, and an extension with another.
    with_more.extend([0xFF, 0xE0, 0, 19]);
    with_more.extend(b"JFIF\0\x01\x02\0\0\x01\0\x01\x01\x01THU");
    with_more.extend([0xFF, 0xE0, 0, 11]);
    with_more.extend(b"JFXX\0\x10THU");
    with_more.extend(&plain[2..]);
    with_more.extend(b"ftypmp42 a film with the place in it \xFF\xD9");
    let original = ingest(&with_more).unwrap().original;
    let holds = |what: &[u8]| original.windows(what.len()).any(|part| part == what);
    assert!(original.ends_with(&[0xFF, 0xD9]) && holds(b"JFIF\0"));
    assert!(!holds(b"ftyp") && !holds(b"THU"), "nothing of the film or the thumbnails");
    assert_eq!(ingest(&original).unwrap().view, ingest(&plain).unwrap().view, "the pixels are as they were");
}

/// What is done to a file.
#[derive(Clone, Debug)]
enum Harm {
    /// A byte becomes another one.
    Byte(usize, u8),
    /// Four bytes become a number: where that is a length or a size, it is a large one.
    Number(usize, u32),
    /// A stretch is cut out.
    Cut(usize, usize),
    /// A stretch stands there twice.
    Double(usize, usize),
    /// It ends there.
    End(usize),
}

impl Harm {
    fn done_to(&self, bytes: &mut Vec<u8>) {
        let length = bytes.len().max(1);
        match *self {
            Self::Byte(at, value) => {
                if let Some(byte) = bytes.get_mut(at % length) {
                    *byte = value;
                }
            }
            Self::Number(at, value) => {
                let at = at % length;
                for (byte, new) in bytes[at..].iter_mut().zip(value.to_be_bytes()) {
                    *byte = new;
                }
            }
            Self::Cut(at, count) => {
                let at = at % length;
                let end = (at + count).min(bytes.len());
                bytes.drain(at..end);
            }
            Self::Double(at, count) => {
                let at = at % length;
                let end = (at + count).min(bytes.len());
                let stretch = bytes[at..end].to_vec();
                bytes.splice(end..end, stretch);
            }
            Self::End(at) => bytes.truncate(at % length),
        }
    }
}

fn harm() -> impl Strategy<Value = Harm> {
    // Heads of files say how large what follows is: half of the harm is done there.
    let at = || prop_oneof![0..200_usize, 0..100_000_usize];
    let number = prop_oneof![Just(u32::MAX), Just(0x7FFF_FFFF), Just(0x0001_0000), any::<u32>()];
    prop_oneof![
        (at(), any::<u8>()).prop_map(|(at, value)| Harm::Byte(at, value)),
        (at(), number).prop_map(|(at, value)| Harm::Number(at, value)),
        (at(), 1..400_usize).prop_map(|(at, count)| Harm::Cut(at, count)),
        (at(), 1..400_usize).prop_map(|(at, count)| Harm::Double(at, count)),
        at().prop_map(Harm::End),
    ]
}

fn sound() -> impl Strategy<Value = Vec<u8>> {
    let drawn = || DynamicImage::ImageRgb8(picture(240, 320));
    prop_oneof![
        Just(jpeg(240, 320)),
        Just(cmyk()),
        Just(animated()),
        Just(encoded(&drawn(), ImageFormat::Png)),
        Just(encoded(&drawn(), ImageFormat::WebP)),
    ]
}

/// Set for the test's own child, which does the harm itself.
const CHILD: &str = "ORTHOMER_HARM";

proptest! {
    #![proptest_config(ProptestConfig { cases: if std::env::var_os(CHILD).is_some() { 600 } else { 60 }, ..ProptestConfig::default() })]

    #[test]
    fn a_harmed_file_is_a_picture_or_a_sentence(mut bytes in sound(), harm in prop::collection::vec(harm(), 1..6)) {
        for harm in harm {
            harm.done_to(&mut bytes);
        }
        if let Err(refused) = ingest(&bytes) {
            prop_assert!(!refused.to_string().is_empty());
        }
    }
}

#[test]
fn harmed_files_need_less_than_half_a_gigabyte_of_addresses() {
    if std::env::var_os(CHILD).is_some() {
        return;
    }
    let own = std::env::current_exe().unwrap();
    let harmed = std::process::Command::new("prlimit")
        .arg("--as=536870912")
        .arg(own)
        .args(["uploads::a_harmed_file_is_a_picture_or_a_sentence", "--exact", "--test-threads=1"])
        .env(CHILD, "1")
        .output()
        .unwrap();
    let says = String::from_utf8_lossy(&harmed.stdout).into_owned();
    assert!(harmed.status.success() && says.contains("1 passed"), "{says}{}", String::from_utf8_lossy(&harmed.stderr));
}
