//! What is true of a figure.

use crate::error::EyeError;
use crate::person::Body;
use crate::question::{Asks, Part, Question};
use assess::{Norms, symmetry_index};
use atlas::EvidenceSettings;
use booth::{Girth, Spec};
use units::{Side, Sides};

/// The answer to a question about a figure with these girths, asked for or measured.
///
/// Left against right: the symmetry index, %, positive when the left is larger. Standing: z of the part given stature,
/// waist, hips and the other limbs, negative when behind.
///
/// # Errors
/// [`EyeError::Part`] when a girth is missing, [`EyeError::Reference`] when the norms lack a site.
pub fn truth(norms: &Norms, spec: &Spec, girths: &[Girth], question: Question) -> Result<f64, EyeError> {
    let sides = |part: Part| {
        let of = |side| girth(girths, part.site(), Some(side));
        Ok::<_, EyeError>(Sides { left: of(Side::Left)?, right: of(Side::Right)? })
    };
    if question.asks == Asks::LeftRight {
        return Ok(symmetry_index(sides(question.part)?));
    }
    let mut body = Body::new(norms, spec.sex);
    body.set(Norms::STATURE, spec.stature_cm)?;
    for site in ["waist", "hip"] {
        body.set(site, girth(girths, site, None)?)?;
    }
    for part in Part::SIZED {
        body.set(part.site(), sides(part)?.mean())?;
    }
    Ok(body.size(question.part.site())?.z)
}

fn girth(girths: &[Girth], site: &'static str, side: Option<Side>) -> Result<f64, EyeError> {
    let found = girths.iter().find(|girth| girth.site == site && girth.side == side);
    found.map(|girth| girth.cm).ok_or(EyeError::Part(site))
}

/// A truth in steps of the scale the answers are given on.
pub fn in_steps(settings: &EvidenceSettings, asks: Asks, truth: f64) -> f64 {
    match asks {
        Asks::Standing => truth / settings.scale.rating_bulk,
        Asks::LeftRight => truth / settings.scale.rating_asymmetry,
    }
}
