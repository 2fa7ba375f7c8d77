//! A sheet of A4 on which lines of text and boxes are set from the top down. Lengths in points.

use crate::HandoutError;
use krilla::geom::{PathBuilder, Point};
use krilla::num::NormalizedF32;
use krilla::paint::{Fill, Stroke};
use krilla::surface::Surface;
use krilla::text::{Font, TextDirection};

pub(crate) const WIDTH: f32 = 595.0;
pub(crate) const HEIGHT: f32 = 842.0;
pub(crate) const MARGIN: f32 = 42.0;

/// A font that can be set and measured.
#[derive(Clone)]
pub(crate) struct Face {
    font: Font,
    face: ttf_parser::Face<'static>,
}

impl Face {
    /// # Errors
    /// [`HandoutError::Font`] when the file is no font.
    pub fn read(name: &'static str, bytes: &'static [u8]) -> Result<Self, HandoutError> {
        let font = Font::new(bytes.to_vec().into(), 0).ok_or(HandoutError::Font(name))?;
        let face = ttf_parser::Face::parse(bytes, 0).map_err(|_| HandoutError::Font(name))?;
        Ok(Self { font, face })
    }

    /// Width of a text at a size.
    pub fn width(&self, text: &str, size: f32) -> f32 {
        let units = f32::from(self.face.units_per_em());
        let advance = |letter| self.face.glyph_index(letter).and_then(|glyph| self.face.glyph_hor_advance(glyph));
        text.chars().map(|letter| f32::from(advance(letter).unwrap_or(500))).sum::<f32>() * size / units
    }

    /// A text in lines no wider than `width`; a word that is wider stands alone.
    pub fn lines(&self, text: &str, size: f32, width: f32) -> Vec<String> {
        let mut lines: Vec<String> = Vec::new();
        for word in text.split_whitespace() {
            match lines.last_mut() {
                Some(line) if self.width(&format!("{line} {word}"), size) <= width => {
                    line.push(' ');
                    line.push_str(word);
                }
                _ => lines.push(word.to_owned()),
            }
        }
        lines
    }
}

/// The two weights of a handout.
pub(crate) struct Faces {
    pub regular: Face,
    pub bold: Face,
}

impl Faces {
    /// # Errors
    /// [`HandoutError::Font`] when a shipped font is broken.
    pub fn load() -> Result<Self, HandoutError> {
        Ok(Self {
            regular: Face::read("regular", include_bytes!("../fonts/regular.ttf"))?,
            bold: Face::read("bold", include_bytes!("../fonts/bold.ttf"))?,
        })
    }
}

pub(crate) fn text(surface: &mut Surface, face: &Face, size: f32, at: (f32, f32), says: &str) {
    surface.set_fill(Some(Fill::default()));
    surface.set_stroke(None);
    surface.draw_text(Point::from_xy(at.0, at.1), face.font.clone(), size, says, false, TextDirection::Auto);
}

fn path(surface: &mut Surface, width: f32, corners: &[(f32, f32)], close: bool) {
    let mut builder = PathBuilder::new();
    for (place, (x, y)) in corners.iter().enumerate() {
        if place == 0 {
            builder.move_to(*x, *y);
        } else {
            builder.line_to(*x, *y);
        }
    }
    if close {
        builder.close();
    }
    let Some(path) = builder.finish() else { return };
    surface.set_fill(None);
    surface.set_stroke(Some(Stroke { width, opacity: NormalizedF32::ONE, ..Stroke::default() }));
    surface.draw_path(&path);
}

/// A line from side to side.
pub(crate) fn rule(surface: &mut Surface, y: f32) {
    path(surface, 0.7, &[(MARGIN, y), (WIDTH - MARGIN, y)], false);
}

/// A box to write in.
pub(crate) fn frame(surface: &mut Surface, x: f32, y: f32, width: f32, height: f32) {
    path(surface, 0.5, &[(x, y), (x + width, y), (x + width, y + height), (x, y + height)], true);
}
