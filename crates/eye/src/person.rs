//! Made-up people in proportion, with one thing that is not.

use crate::error::EyeError;
use crate::question::{Asks, Part, Question};
use assess::{ConditionalSize, Norms, SexNorms, conditional_size};
use booth::{Girth, Image, Sex, Skin, Spec};
use rand::rngs::StdRng;
use rand::seq::IndexedRandom;
use rand::{Rng, RngExt};
use units::Side;

/// How far stature, waist and hips are from what is expected at most, SD: a build the booth can draw.
const BUILD_SD: f64 = 0.7;
/// Largest difference of the sides, %, and from the expected size, SD: both are two steps of the scale, about as
/// far as the booth can draw.
const SIDES_PCT: f64 = 6.0;
const STANDING_SD: f64 = 2.4;
/// A relaxed arm over a flexed one (common practice, no source). It decides how a figure looks, never what is true of it.
const RELAXED: f64 = 0.93;
/// Large enough to judge, and quick to draw, px.
const SIZE_PX: (u32, u32) = (720, 960);

/// What the frame of a figure is drawn by, and what follows from it.
const FRAME: [&str; 3] = [Norms::STATURE, "waist", "hip"];
const LIMBS: [&str; 3] = ["forearm", "thigh", "calf"];

/// The logs of some sites, by place in the norms.
pub(crate) struct Body<'a> {
    norms: &'a Norms,
    of_sex: &'a SexNorms,
    ln: Vec<(usize, f64)>,
}

impl<'a> Body<'a> {
    pub fn new(norms: &'a Norms, sex: Sex) -> Self {
        let sex = if sex == Sex::Male { assess::Sex::Male } else { assess::Sex::Female };
        Self { norms, of_sex: norms.of(sex), ln: Vec::new() }
    }

    fn place(&self, site: &'static str) -> Result<usize, EyeError> {
        self.norms.sites().iter().position(|known| known.as_str() == site).ok_or(EyeError::Reference(site))
    }

    /// Gives a site a size, cm.
    ///
    /// # Errors
    /// [`EyeError`] for a site that the norms do not have.
    pub fn set(&mut self, site: &'static str, cm: f64) -> Result<(), EyeError> {
        let place = self.place(site)?;
        self.ln.retain(|(known, _)| *known != place);
        self.ln.push((place, cm.ln()));
        Ok(())
    }

    fn cm(&self, site: &'static str) -> Result<f64, EyeError> {
        let place = self.place(site)?;
        self.ln.iter().find(|(known, _)| *known == place).map(|(_, ln)| ln.exp()).ok_or(EyeError::Reference(site))
    }

    /// The size of a site that the others predict.
    ///
    /// # Errors
    /// [`EyeError`] for a site that the norms do not have.
    pub fn size(&self, site: &'static str) -> Result<ConditionalSize, EyeError> {
        let place = self.place(site)?;
        let mut observed = self.ln.clone();
        if !observed.iter().any(|(known, _)| *known == place) {
            observed.push((place, self.of_sex.mean_ln[place]));
        }
        conditional_size(self.of_sex, &observed, place, 0.0).ok_or(EyeError::Reference(site))
    }

    /// The mean of the reference.
    fn mean_cm(&self, site: &'static str) -> Result<f64, EyeError> {
        Ok(self.of_sex.mean_ln[self.place(site)?].exp())
    }

    /// Somebody whose limbs are exactly what stature, waist and hips predict.
    fn in_proportion(norms: &'a Norms, sex: Sex, rng: &mut StdRng) -> Result<Self, EyeError> {
        let mut body = Self::new(norms, sex);
        for site in FRAME {
            let expected = if body.ln.is_empty() { body.mean_cm(site)? } else { body.size(site)?.expected_cm };
            let sd_ln = if body.ln.is_empty() { body.sd_ln(site)? } else { body.size(site)?.sd_ln };
            body.set(site, expected * (sd_ln * rng.random_range(-BUILD_SD..BUILD_SD)).exp())?;
        }
        // All from the frame, so that each is what frame and the other limbs together predict.
        let limbs = LIMBS.map(|site| body.size(site).map(|size| (site, size.expected_cm)));
        for limb in limbs {
            let (site, cm) = limb?;
            body.set(site, cm)?;
        }
        Ok(body)
    }

    fn sd_ln(&self, site: &'static str) -> Result<f64, EyeError> {
        let place = self.place(site)?;
        Ok(self.of_sex.covariance_ln[(place, place)].sqrt())
    }
}

/// A figure of whom one thing is to be judged; the rest of it is in proportion and even.
pub(crate) fn made_up(norms: &Norms, question: Question, rng: &mut StdRng) -> Result<Spec, EyeError> {
    let sex = if rng.random() { Sex::Male } else { Sex::Female };
    let mut body = Body::in_proportion(norms, sex, rng)?;
    let mut arm = RELAXED * body.size("arm-flexed")?.expected_cm;
    let mut sides_pct = 0.0;
    match question.asks {
        Asks::LeftRight => sides_pct = rng.random_range(-SIDES_PCT..SIDES_PCT),
        Asks::Standing => {
            let size = body.size(question.part.site())?;
            let cm = size.expected_cm * (size.sd_ln * rng.random_range(-STANDING_SD..STANDING_SD)).exp();
            body.set(question.part.site(), cm)?;
        }
    }
    // Whole millimetres, as nobody could tape it finer.
    let stature_cm = (10.0 * body.cm(Norms::STATURE)?).round() / 10.0;
    let mut spec = Spec::standing(stature_cm, sex, question.pose);
    let mut girth = |site: &'static str, side: Option<Side>, cm: f64| {
        let bounds = booth::SITES.iter().find(|known| known.id == site).map(|known| known.bounds_cm);
        let cm = bounds.map_or(cm, |(low, high)| cm.clamp(low, high));
        spec.body.girths.push(Girth { site: site.to_owned(), side, cm });
    };
    girth("waist", None, body.cm("waist")?);
    girth("hip", None, body.cm("hip")?);
    for part in Part::ALL {
        let cm = if part == Part::UpperArm { &mut arm } else { &mut body.cm(part.site())? };
        let apart = if part == question.part { sides_pct } else { 0.0 };
        girth(part.site(), Some(Side::Left), *cm * (1.0 + apart / 200.0));
        girth(part.site(), Some(Side::Right), *cm * (1.0 - apart / 200.0));
    }
    // Hair stays short: long hair hides arms from behind.
    spec.skin = *[Skin::Light, Skin::Middle, Skin::Dark].choose(rng).unwrap_or(&Skin::Middle);
    spec.light.seed = rng.next_u64() % 1000;
    spec.image = Image { width: SIZE_PX.0, height: SIZE_PX.1, seed: spec.light.seed, ..Image::default() };
    Ok(spec)
}
