//! Observation rows of the evidence model: what each piece of evidence says about which regions, and how firmly.

use crate::assessment::Reference;
use crate::input::{Outline, Rating, RatingJudgement, Round, Test};
use crate::strength::one_rep_max_kg;
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

/// All rows of a round. Evidence that says nothing about a region (a site without composition, a test beyond the formula's
/// range) gives no row.
pub(crate) fn observations(
    atlas: &Atlas,
    round: &Round,
    reference: &Reference,
    asymmetries: &[Asymmetry],
) -> Vec<Observation> {
    let settings = atlas.evidence();
    let sizes = reference.sites.iter().filter_map(|size| tape_size(atlas, settings, &size.site, size.size.z));
    let sides = asymmetries.iter().filter_map(|asymmetry| tape_sides(atlas, settings, asymmetry));
    let ratings = round.ratings.iter().filter_map(|rating| self::rating(atlas, settings, rating));
    let outlines = round.outlines.iter().filter_map(|outline| self::outline(atlas, settings, outline));
    let tests = round.tests.iter().flat_map(|test| strength(atlas, settings, test));
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
    Some(Observation {
        kind: ObservationKind::TapeSides,
        source: asymmetry.site.to_string(),
        target: Target::Asymmetry,
        y: asymmetry.symmetry_index,
        variance: asymmetry.se_index.powi(2) + settings.observation_sd.tape_asymmetry.powi(2),
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
            variance: settings.observation_sd.rating_bulk.powi(2),
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

/// Repeatability of a photo width, percent (measuring.md 1).
const WIDTH_REPEATABILITY_PCT: f64 = 2.0;

fn outline(atlas: &Atlas, settings: &EvidenceSettings, outline: &Outline) -> Option<Observation> {
    let site = settings.segment_site.get(outline.segment.as_str())?;
    Some(Observation {
        kind: ObservationKind::Outline,
        source: outline.segment.as_str().to_owned(),
        target: Target::Asymmetry,
        y: symmetry_index(outline.width.map(units::Length::cm)),
        variance: settings.observation_sd.outline.powi(2) + WIDTH_REPEATABILITY_PCT.powi(2),
        row: composition(atlas, site)?,
    })
}

/// One row for each main target of the tested exercise.
fn strength(atlas: &Atlas, settings: &EvidenceSettings, test: &Test) -> Vec<Observation> {
    let Test::OneSide(test) = test else { return Vec::new() };
    let Some(exercise) = atlas.exercise(&test.exercise) else { return Vec::new() };
    let (Ok(left), Ok(right)) = (one_rep_max_kg(test.sides.left), one_rep_max_kg(test.sides.right)) else {
        return Vec::new();
    };
    let mains: Vec<usize> = exercise
        .targets
        .iter()
        .filter(|(_, fraction)| **fraction >= 1.0)
        .filter_map(|(region, _)| atlas.region_index(region))
        .collect();
    let share = 1.0 / (mains.len().max(1) as f64);
    vec![Observation {
        kind: ObservationKind::Strength,
        source: test.exercise.to_string(),
        target: Target::Asymmetry,
        y: settings.scale.strength * symmetry_index(units::Sides { left, right }),
        variance: settings.observation_sd.strength.powi(2),
        row: mains.into_iter().map(|region| (region, share)).collect(),
    }]
    .into_iter()
    .filter(|observation| !observation.row.is_empty())
    .collect()
}
