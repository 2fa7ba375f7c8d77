//! Observation rows of the evidence model: what each piece of evidence says about which regions, and how firmly.

use crate::input::{Outline, Rating, RatingJudgement, Round};
use crate::strength_sides::StrengthAsymmetry;
use crate::symmetry::{Asymmetry, symmetry_index};
use atlas::{Atlas, EvidenceSettings};
use units::SiteId;

/// Which half of the state an observation speaks about.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum Target {
    /// How far regions are ahead or behind, SD.
    Bulk,
    /// Left minus right, %.
    Asymmetry,
}

/// Where an observation comes from.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum ObservationKind {
    /// A girth against its expected size.
    TapeSize,
    /// A girth, left against right.
    TapeSides,
    /// A rating of a region.
    Rating,
    /// A rating of left against right.
    RatingSides,
    /// A photo outline, left against right.
    Outline,
    /// Strength, left against right.
    Strength,
}

impl ObservationKind {
    /// The family of evidence: what is set against each other when two kinds conflict.
    pub fn family(self) -> &'static str {
        match self {
            Self::TapeSize | Self::TapeSides => "tape",
            Self::Rating | Self::RatingSides => "rating",
            Self::Outline => "outline",
            Self::Strength => "strength",
        }
    }

    /// As the assessment file writes it.
    pub fn as_str(self) -> &'static str {
        match self {
            Self::TapeSize => "tape-size",
            Self::TapeSides => "tape-sides",
            Self::Rating => "rating",
            Self::RatingSides => "rating-sides",
            Self::Outline => "outline",
            Self::Strength => "strength",
        }
    }
}

/// One row `y = h.state + e`, `e ~ N(0, variance)`.
#[derive(Clone, Debug, PartialEq)]
pub struct Observation {
    /// Where it comes from.
    pub kind: ObservationKind,
    /// What exactly was observed: a site, a region in a pose, a segment, an exercise.
    pub source: String,
    /// Which half of the state.
    pub target: Target,
    /// The observation in the model's unit: SD, or % left minus right.
    pub y: f64,
    /// Variance of its error.
    pub variance: f64,
    /// Weight by region index.
    pub row: Vec<(usize, f64)>,
}

fn composition(atlas: &Atlas, site: &SiteId) -> Option<Vec<(usize, f64)>> {
    let shares = atlas.evidence().composition.get(site)?;
    Some(shares.iter().filter_map(|(region, share)| Some((atlas.region_index(region)?, *share))).collect())
}

/// All rows of a round; `sizes` are the sites judged for size with their z. Evidence that says nothing about a region (a site without composition, a test beyond the formula's
/// range) gives no row.
pub(crate) fn observations(
    atlas: &Atlas,
    round: &Round,
    sizes: &[(SiteId, f64)],
    asymmetries: &[Asymmetry],
    strength: &[StrengthAsymmetry],
) -> Vec<Observation> {
    let settings = atlas.evidence();
    let sizes = sizes.iter().filter_map(|(site, z)| tape_size(atlas, settings, site, *z));
    let sides = asymmetries.iter().filter_map(|asymmetry| tape_sides(atlas, settings, asymmetry));
    let ratings = round.ratings.iter().filter_map(|rating| self::rating(atlas, settings, rating));
    let outlines = round.outlines.iter().filter_map(|outline| self::outline(atlas, settings, outline));
    let tests = strength.iter().filter_map(|test| self::strength(atlas, settings, test));
    sizes.chain(sides).chain(ratings).chain(outlines).chain(tests).collect()
}

fn tape_size(atlas: &Atlas, settings: &EvidenceSettings, site: &SiteId, z: f64) -> Option<Observation> {
    Some(Observation {
        kind: ObservationKind::TapeSize,
        source: site.to_string(),
        target: Target::Bulk,
        y: z,
        variance: settings.observation_sd.tape_bulk.powi(2),
        row: composition(atlas, site)?,
    })
}

fn tape_sides(atlas: &Atlas, settings: &EvidenceSettings, asymmetry: &Asymmetry) -> Option<Observation> {
    // A fat difference must not be read as muscle: with both folds, the corrected girths speak.
    let (index, se_index) = asymmetry.muscle_index();
    Some(Observation {
        kind: ObservationKind::TapeSides,
        source: asymmetry.site.to_string(),
        target: Target::Asymmetry,
        y: index,
        variance: se_index.powi(2) + settings.observation_sd.tape_asymmetry.powi(2),
        row: composition(atlas, &asymmetry.site)?,
    })
}

fn rating(atlas: &Atlas, settings: &EvidenceSettings, rating: &Rating) -> Option<Observation> {
    let row = vec![(atlas.region_index(&rating.region)?, 1.0)];
    let source = format!("{} in {}", rating.region, rating.pose);
    Some(match rating.judgement {
        RatingJudgement::Standing(score) => Observation {
            kind: ObservationKind::Rating,
            source,
            target: Target::Bulk,
            y: settings.scale.rating_bulk * f64::from(score),
            variance: rating
                .rater_sd_steps
                .map_or(settings.observation_sd.rating_bulk, |steps| settings.scale.rating_bulk * steps)
                .powi(2),
            row,
        },
        RatingJudgement::LeftRight(score) => Observation {
            kind: ObservationKind::RatingSides,
            source,
            target: Target::Asymmetry,
            y: settings.scale.rating_asymmetry * f64::from(score),
            variance: settings.observation_sd.rating_asymmetry.powi(2),
            row,
        },
    })
}

fn outline(atlas: &Atlas, settings: &EvidenceSettings, outline: &Outline) -> Option<Observation> {
    let site = settings.segment_site.get(outline.segment.as_str())?;
    Some(Observation {
        kind: ObservationKind::Outline,
        source: outline.segment.as_str().to_owned(),
        target: Target::Asymmetry,
        y: symmetry_index(outline.width.map(units::Length::cm)),
        variance: settings.observation_sd.outline.powi(2) + settings.width_repeatability_pct.powi(2),
        row: composition(atlas, site)?,
    })
}

/// One row for the exercise, shared by its main targets.
fn strength(atlas: &Atlas, settings: &EvidenceSettings, test: &StrengthAsymmetry) -> Option<Observation> {
    let mains: Vec<usize> = test.regions.iter().filter_map(|region| atlas.region_index(region)).collect();
    let share = 1.0 / mains.len() as f64;
    (!mains.is_empty()).then(|| Observation {
        kind: ObservationKind::Strength,
        source: test.exercise.to_string(),
        target: Target::Asymmetry,
        y: settings.scale.strength * test.symmetry_index,
        variance: settings.observation_sd.strength.powi(2),
        row: mains.into_iter().map(|region| (region, share)).collect(),
    })
}
