//! Observation rows of the evidence model: what each piece of evidence says about which regions, and how firmly.

use crate::body::composition;
use crate::input::Round;
use crate::photographed::{Outline, Rating, RatingJudgement};
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
    /// The sitting whose ratings of size are off together.
    pub sitting: Option<String>,
}

/// All rows of a round but what was taped for size; `sizes` are sites judged for size by the practice's own clients, with their z.
/// Evidence that says nothing about a region (a site without composition, a test beyond the formula's range) gives no row.
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
    let ratings = ratings(atlas, settings, &round.ratings);
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
        sitting: None,
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
        sitting: None,
    })
}

/// One row for each region, sitting and kind of judgement: poses of one sitting are one judgement looked at again.
fn ratings(atlas: &Atlas, settings: &EvidenceSettings, ratings: &[Rating]) -> Vec<Observation> {
    let mut rows: Vec<(&Rating, Vec<&Rating>)> = Vec::new();
    for rating in ratings {
        let same = |(first, _): &&mut (&Rating, Vec<&Rating>)| {
            first.region == rating.region
                && first.sitting == rating.sitting
                && std::mem::discriminant(&first.judgement) == std::mem::discriminant(&rating.judgement)
        };
        match rows.iter_mut().find(same) {
            Some((_, all)) => all.push(rating),
            None => rows.push((rating, vec![rating])),
        }
    }
    rows.into_iter().filter_map(|(first, all)| rating(atlas, settings, first, &all)).collect()
}

fn rating(atlas: &Atlas, settings: &EvidenceSettings, first: &Rating, all: &[&Rating]) -> Option<Observation> {
    let row = vec![(atlas.region_index(&first.region)?, 1.0)];
    let poses: Vec<&str> = all.iter().map(|rating| rating.pose.as_str()).collect();
    let source = format!("{} in {}", first.region, poses.join(", "));
    let scores = all.iter().map(|rating| match rating.judgement {
        RatingJudgement::Standing(score) | RatingJudgement::LeftRight(score) => f64::from(score),
    });
    let score = scores.sum::<f64>() / all.len() as f64;
    let (scale, sd) = (&settings.scale, &settings.observation_sd);
    Some(match first.judgement {
        RatingJudgement::Standing(_) => Observation {
            kind: ObservationKind::Rating,
            source,
            target: Target::Bulk,
            y: scale.rating_bulk * score,
            variance: first
                .rater_sd_steps
                .map_or(sd.rating_bulk, |steps| scale.rating_bulk * steps)
                .max(sd.rating_least)
                .powi(2),
            row,
            sitting: Some(first.sitting.clone()),
        },
        RatingJudgement::LeftRight(_) => Observation {
            kind: ObservationKind::RatingSides,
            source,
            target: Target::Asymmetry,
            y: scale.rating_asymmetry * score,
            variance: sd.rating_asymmetry.powi(2),
            row,
            sitting: None,
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
        sitting: None,
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
        sitting: None,
    })
}
