//! The commands about pictures: measuring one, girths of a day's, and drawing made-up ones.

use crate::commands::print;
use crate::failure::Failure;
use assess::{GirthFrom, PictureGirth};
use atlas::Atlas;
use booth::{BoothError, Figure, Spec};
use casefile::Problem;
use image::{GrayImage, Luma};
use lighttable::{GirthShapes, Pictured};
use schemars::JsonSchema;
use serde::Serialize;
use std::path::{Path, PathBuf};
use units::{Side, SiteId};
use vision::{Ask, Eye, Photo, PhotoPose, View};

/// Statures a grown person can have, cm.
const STATURE_CM: std::ops::RangeInclusive<f64> = 100.0..=250.0;
/// Distances of a camera, m.
const DISTANCE_M: std::ops::RangeInclusive<f64> = 1.0..=20.0;

/// What `orthomer photo` is asked.
pub struct PhotoRequest<'a> {
    /// The picture.
    pub image: &'a Path,
    /// Stature, cm.
    pub stature_cm: f64,
    /// The pose's id.
    pub pose: Option<&'a str>,
    /// Distance of the camera, m.
    pub distance_m: Option<f64>,
    /// Whether it was taken in a mirror.
    pub mirrored: bool,
    /// Where to write the mask.
    pub mask: Option<&'a Path>,
}

/// Prints what a photo says.
pub fn photo(request: &PhotoRequest) -> Result<(), Failure> {
    let ask = asked(request)?;
    let path = request.image.display();
    let bytes =
        std::fs::read(request.image).map_err(|error| Failure::input(format!("{path} cannot be read: {error}")))?;
    let picture = vision::ingest(&bytes).map_err(|error| Failure::input(format!("{path}: {error}")))?;
    let eye = Eye::load().map_err(Failure::other)?;
    let mut view = eye.look(&picture.view, ask).map_err(Failure::other)?;
    if let Some(mask) = request.mask {
        write_mask(&view, picture.size_px, mask)?;
    }
    view.photo.enlarge(picture.size_px);
    print(&view.photo)
}

fn asked(request: &PhotoRequest) -> Result<Ask, Failure> {
    if !STATURE_CM.contains(&request.stature_cm) {
        return Err(Failure::argument("--stature", format!("{} cm is outside 100 to 250", request.stature_cm)));
    }
    if let Some(metres) = request.distance_m.filter(|metres| !DISTANCE_M.contains(metres)) {
        return Err(Failure::argument("--distance", format!("{metres} m is outside 1 to 20")));
    }
    let pose = request.pose.map(|id| {
        let known = PhotoPose::ALL.into_iter().find(|pose| pose.id() == id);
        known.ok_or_else(|| {
            let all: Vec<String> = PhotoPose::ALL.iter().map(|pose| pose.id()).collect();
            Failure::argument("--pose", format!("there is no pose {id:?}; there are {}", all.join(", ")))
        })
    });
    Ok(Ask {
        stature_cm: request.stature_cm,
        pose: pose.transpose()?,
        mirrored: request.mirrored,
        distance_m: request.distance_m,
        last_scale: None,
    })
}

/// A girth as the file of a day's pictures has it.
#[derive(Serialize, JsonSchema)]
struct GirthEntry {
    site: SiteId,
    #[serde(skip_serializing_if = "Option::is_none")]
    side: Option<Side>,
    cm: f64,
    /// Standard error of the size, %.
    error_pct: f64,
    from: GirthFrom,
}

#[derive(Serialize, JsonSchema)]
struct MissingEntry {
    site: SiteId,
    why: String,
}

/// What the pictures of one day say of girths (`orthomer-girths`, version 1).
#[derive(Serialize, JsonSchema)]
pub struct GirthsFile {
    format: &'static str,
    version: u32,
    /// What the constants were fitted on.
    fitted_on: String,
    girths: Vec<GirthEntry>,
    missing: Vec<MissingEntry>,
}

/// Prints the girths of one day's pictures, each with the option it was given by.
pub fn girths(given: &[(&str, PathBuf)], stature_cm: f64, distance_m: Option<f64>) -> Result<(), Failure> {
    let atlas = Atlas::load().map_err(Failure::other)?;
    let shapes = GirthShapes::shipped().map_err(Failure::other)?;
    let eye = Eye::load().map_err(Failure::other)?;
    let mut photos = Vec::new();
    for (option, path) in given {
        let request = PhotoRequest { image: path, stature_cm, pose: None, distance_m, mirrored: false, mask: None };
        photos.push(shown(&eye, option, &request)?);
    }
    let pictures: Vec<Pictured<'_>> = photos.iter().map(|photo| Pictured { photo, mirrored: Some(false) }).collect();
    let said = lighttable::girths(&shapes, &pictures);
    let errors = &atlas.evidence().pictures_pct;
    let entry = |girth: PictureGirth| GirthEntry {
        error_pct: tenth(errors.error_pct(&girth.site, girth.from == GirthFrom::BreadthDepth)),
        cm: tenth(girth.value.cm()),
        site: girth.site,
        side: girth.side,
        from: girth.from,
    };
    print(&GirthsFile {
        format: "orthomer-girths",
        version: 1,
        fitted_on: format!("{} made-up bodies", shapes.bodies),
        girths: said.girths.into_iter().map(entry).collect(),
        missing: said
            .missing
            .into_iter()
            .map(|missing| MissingEntry { site: missing.site, why: missing.why })
            .collect(),
    })
}

fn tenth(value: f64) -> f64 {
    (value * 10.0).round() / 10.0
}

/// What a picture shows in the pose its option names. One that plainly shows another is refused.
fn shown(eye: &Eye, option: &str, request: &PhotoRequest) -> Result<Photo, Failure> {
    let pose = match option {
        "--front" => PhotoPose::F,
        "--back" => PhotoPose::B,
        "--side" => PhotoPose::SL,
        "--other-side" => PhotoPose::SR,
        _ => PhotoPose::FDB,
    };
    let wrong = |says: String| Failure::argument(option, says);
    let path = request.image.display();
    let ask = asked(request)?;
    let bytes = std::fs::read(request.image).map_err(|error| wrong(format!("{path} cannot be read: {error}")))?;
    let picture = vision::ingest(&bytes).map_err(|error| wrong(format!("{path}: {error}")))?;
    let look = |pose: Option<PhotoPose>| eye.look(&picture.view, Ask { pose, ..ask }).map_err(Failure::other);
    let guessed = look(None)?.photo;
    if !guessed.person {
        let why = guessed.why_not.unwrap_or_else(|| "nobody is found".to_owned());
        return Err(wrong(format!("{path}: {why}")));
    }
    if guessed.pose.from_the_side() != pose.from_the_side() {
        let seen = if guessed.pose.from_the_side() { "a side" } else { "front or back" };
        return Err(wrong(format!("{path} shows {seen}, not the pose {}", pose.id())));
    }
    Ok(if guessed.pose == pose { guessed } else { look(Some(pose))?.photo })
}

/// The mask at the picture's own size, 0 or 255.
fn write_mask(view: &View, (width, height): (u32, u32), path: &Path) -> Result<(), Failure> {
    let (sx, sy) = (view.mask.width as f64 / f64::from(width), view.mask.height as f64 / f64::from(height));
    let mask = GrayImage::from_fn(width, height, |x, y| {
        let inside = view.mask.at((f64::from(x) + 0.5) * sx, (f64::from(y) + 0.5) * sy) >= 0.5;
        Luma([if inside { 255 } else { 0 }])
    });
    mask.save_with_format(path, image::ImageFormat::Png).map_err(Failure::other)
}

/// Draws the picture of a spec and writes it with its truth.
pub fn booth(spec: &Path, out: &Path) -> Result<(), Failure> {
    let text = std::fs::read_to_string(spec)
        .map_err(|error| Failure::input(format!("{} cannot be read: {error}", spec.display())))?;
    let spec: Spec = casefile::parse_json(&text).map_err(|problem| Failure::Input(vec![problem]))?;
    let figure = Figure::load().map_err(Failure::other)?;
    let shot = booth::shoot(&figure, &spec).map_err(|error| match error {
        BoothError::Spec(problems) => {
            Failure::Input(problems.into_iter().map(|problem| Problem::new(problem.pointer, problem.says)).collect())
        }
        other => Failure::other(other),
    })?;
    std::fs::create_dir_all(out).map_err(Failure::other)?;
    let truth = serde_json::to_string_pretty(&shot.truth).map_err(Failure::other)? + "\n";
    let files = [
        ("picture.jpg", shot.jpeg(spec.image.jpeg_quality).map_err(Failure::other)?),
        ("mask.png", shot.mask_png().map_err(Failure::other)?),
        ("truth.json", truth.into_bytes()),
    ];
    for (name, bytes) in files {
        std::fs::write(out.join(name), bytes).map_err(Failure::other)?;
    }
    Ok(())
}
