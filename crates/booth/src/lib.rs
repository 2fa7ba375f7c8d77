//! The simulated photo booth: the stand-in camera of the application and the source of pictures with a known truth.
//!
//! A [`Spec`] says who stands how before which camera; [`shoot`] bends the figure until its girths are those asked for,
//! poses it, draws it and says what is true of it: girths and widths by slicing the mesh, landmarks, the person mask.
//! The same spec gives the same bytes on every machine. The figure is a CC0 base mesh (`data/`, made by `make_figure.py`);
//! it is grown up and always clothed.

#![warn(clippy::missing_errors_doc)]
// Pixels are whole numbers made from fractions on every other line; every cast is clamped or bounded by the picture.
#![allow(clippy::cast_possible_truncation, clippy::cast_sign_loss, clippy::cast_possible_wrap)]

mod camera;
mod figure;
mod fit;
mod gauge;
mod light;
mod paint;
mod pose;
mod raster;
mod room;
mod slice;
mod spec;
mod swell;
mod truth;

pub use figure::{BoothError, Figure};
pub use fit::SITES;
pub use gauge::Gauge;
pub use spec::{Body, Camera, Clothes, Girth, Hair, Image, Light, LightKind, Pose, Problem, Room, Sex, Skin, Spec};
pub use truth::{LimbTruth, Point, Truth, WidthTruth};

use image::RgbImage;

/// What the booth gives for a spec.
#[derive(Clone, Debug)]
pub struct Shot {
    /// The picture.
    pub picture: RgbImage,
    /// Which pixels show the person, row by row.
    pub mask: Vec<bool>,
    /// What is true of the figure.
    pub truth: Truth,
}

impl Shot {
    /// The picture as JPEG of a quality from 1 to 100.
    ///
    /// # Errors
    /// [`BoothError::Encode`] when the encoder refuses the picture.
    pub fn jpeg(&self, quality: u8) -> Result<Vec<u8>, BoothError> {
        let mut bytes = Vec::new();
        let encoder = image::codecs::jpeg::JpegEncoder::new_with_quality(&mut bytes, quality);
        self.picture.write_with_encoder(encoder).map_err(|error| BoothError::Encode(error.to_string()))?;
        Ok(bytes)
    }

    /// The mask as PNG, 0 or 255.
    ///
    /// # Errors
    /// [`BoothError::Encode`] when the encoder refuses it.
    pub fn mask_png(&self) -> Result<Vec<u8>, BoothError> {
        let (width, height) = self.picture.dimensions();
        let values: Vec<u8> = self.mask.iter().map(|&inside| if inside { 255 } else { 0 }).collect();
        let mut bytes = Vec::new();
        let encoder = image::codecs::png::PngEncoder::new(&mut bytes);
        image::ImageEncoder::write_image(encoder, &values, width, height, image::ExtendedColorType::L8)
            .map_err(|error| BoothError::Encode(error.to_string()))?;
        Ok(bytes)
    }
}

/// Somebody who can be pictured: a figure of a sex, stature and build. Bending the figure to its girths takes most of the time of a
/// picture; of one body in several poses it is done once.
pub struct Sitter {
    body: fit::Shaped,
    of: (f64, Sex, Body),
}

impl Sitter {
    /// The body that a spec asks for.
    ///
    /// # Errors
    /// [`BoothError::Spec`] with every problem of the spec.
    pub fn of(figure: &Figure, spec: &Spec) -> Result<Self, BoothError> {
        let problems = spec.problems();
        if !problems.is_empty() {
            return Err(BoothError::Spec(problems));
        }
        let of = (spec.stature_cm, spec.sex, spec.body.clone());
        Ok(Self { body: fit::shape(figure, spec), of })
    }

    /// Whether a spec asks for this body.
    pub fn is(&self, spec: &Spec) -> bool {
        (spec.stature_cm, spec.sex, &spec.body) == (self.of.0, self.of.1, &self.of.2)
    }

    /// Takes the picture that a spec asks for of this body; stature, sex and build of the spec are not looked at.
    ///
    /// # Errors
    /// [`BoothError::Spec`] with every problem of the spec.
    pub fn shoot(&self, figure: &Figure, spec: &Spec) -> Result<Shot, BoothError> {
        let spec = &Spec { stature_cm: self.of.0, sex: self.of.1, body: self.of.2.clone(), ..spec.clone() };
        let problems = spec.problems();
        if !problems.is_empty() {
            return Err(BoothError::Spec(problems));
        }
        let shaped = &self.body;
        let posed = pose::pose(figure, &shaped.body, spec.pose);
        let camera = camera::Camera::of(spec);
        let view = camera.view(&posed);
        let dressed = raster::Dressed::of(figure, spec, &shaped.body);
        let seen = raster::visible(figure, spec, &view, &dressed);
        let (picture, mask) = paint::paint(figure, spec, &shaped.body, &dressed, &camera, (&view, &seen));
        let truth = truth::truth(figure, spec, (shaped, &dressed), &posed, &camera);
        Ok(Shot { picture, mask, truth })
    }
}

/// Takes the picture a checked spec asks for.
///
/// # Errors
/// [`BoothError::Spec`] with every problem of the spec.
pub fn shoot(figure: &Figure, spec: &Spec) -> Result<Shot, BoothError> {
    Sitter::of(figure, spec)?.shoot(figure, spec)
}
