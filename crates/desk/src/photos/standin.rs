//! The stand-in camera: a made-up figure with a client's own girths, for practices without a camera at hand and for demo
//! data.

use assess::{Client, Experience, Round, Sex};
use booth::{BoothError, Camera, Figure, Girth, Image, Light, LightKind, Pose, Sitter, Spec};
use std::sync::{Arc, Mutex, PoisonError};

/// Sites the figure is bent to. Chest and shoulders follow from the build: asked for by tape they distort the figure.
const SITES: [&str; 6] = ["waist", "hip", "arm-relaxed", "forearm", "thigh", "calf"];

/// Smaller than a phone's picture: enough to be measured in, and quick to draw.
const SIZE_PX: (u32, u32) = (960, 1280);

const JPEG_QUALITY: u8 = 88;

/// The spec of a client as taped in a round. `seed` moves camera, light and noise a little, as between two days.
pub(super) fn spec(client: &Client, round: &Round, pose: Pose, seed: u64) -> Spec {
    let sex = if client.sex == Sex::Male { booth::Sex::Male } else { booth::Sex::Female };
    let mut spec = Spec::standing(client.height.cm(), sex, pose);
    spec.body.muscle = match client.experience {
        Experience::Beginner => 0.45,
        Experience::Intermediate => 0.6,
        Experience::Advanced => 0.75,
    };
    spec.body.girths = girths(round);
    // Three small numbers from one seed, each from -2 to 2.
    let small = |shift: u32| ((seed >> shift) % 5) as f64 - 2.0;
    spec.camera = Camera { yaw_deg: 0.4 * small(0), roll_deg: 0.3 * small(3), shift: 0.006 * small(6), ..spec.camera };
    spec.light = Light { kind: LightKind::Even, seed };
    spec.image = Image { width: SIZE_PX.0, height: SIZE_PX.1, jpeg_quality: JPEG_QUALITY, seed, ..spec.image };
    spec
}

/// Mean readings at the booth's sites, held inside what the figure can take on.
fn girths(round: &Round) -> Vec<Girth> {
    let known = booth::SITES.iter().filter(|site| SITES.contains(&site.id));
    let taped = known.flat_map(|site| {
        let measures = round.tape.iter().filter(|measure| measure.site.as_str() == site.id);
        measures.map(|measure| {
            let sum: f64 = measure.readings.iter().map(|reading| reading.cm()).sum();
            let cm = sum / measure.readings.len() as f64;
            Girth { site: site.id.to_owned(), side: measure.side, cm: cm.clamp(site.bounds_cm.0, site.bounds_cm.1) }
        })
    });
    taped.collect()
}

/// The stand-in camera and who sat for it last: pictures of one client in several poses follow each other.
pub(crate) struct StandIn {
    figure: Figure,
    last: Mutex<Option<Arc<Sitter>>>,
}

impl StandIn {
    /// Loads the figure.
    ///
    /// # Errors
    /// [`BoothError`] when its file is damaged.
    pub fn load() -> Result<Self, BoothError> {
        Ok(Self { figure: Figure::load()?, last: Mutex::new(None) })
    }

    /// The figure it pictures.
    pub fn figure(&self) -> &Figure {
        &self.figure
    }

    /// The picture as a JPEG, as a camera would send it.
    ///
    /// # Errors
    /// [`BoothError`] when the figure cannot be drawn.
    pub fn jpeg(&self, spec: &Spec) -> Result<Vec<u8>, BoothError> {
        let sitter = self.sitter(spec)?;
        sitter.shoot(&self.figure, spec)?.jpeg(spec.image.jpeg_quality)
    }

    fn sitter(&self, spec: &Spec) -> Result<Arc<Sitter>, BoothError> {
        let last = self.last.lock().unwrap_or_else(PoisonError::into_inner).clone();
        if let Some(sitter) = last.filter(|sitter| sitter.is(spec)) {
            return Ok(sitter);
        }
        let sitter = Arc::new(Sitter::of(&self.figure, spec)?);
        *self.last.lock().unwrap_or_else(PoisonError::into_inner) = Some(Arc::clone(&sitter));
        Ok(sitter)
    }
}
