//! A round's skinfolds as values with errors.

use crate::input::Round;
use crate::measured::reading_error;
use crate::measurer::MeasurerErrors;
use crate::replicate::replicate;
use atlas::Atlas;
use units::{Side, Sides, SiteId, Skinfold};

/// The value of one skinfold.
#[derive(Clone, Debug, PartialEq)]
pub struct MeasuredFold {
    /// The skinfold site.
    pub site: SiteId,
    /// The side, when noted.
    pub side: Option<Side>,
    /// Value, mm.
    pub value_mm: f64,
    /// Standard error: reading it and finding its place, mm.
    pub se_mm: f64,
    /// How many readings.
    pub readings: usize,
    /// Whether a third reading is due.
    pub needs_third: bool,
}

/// Percent by which two readings of a fold may differ without a third: the rule, and never less than this measurer's own error
/// calls for.
pub fn third_fold_from(atlas: &Atlas, tem_pct: f64) -> f64 {
    let error = &atlas.evidence().error;
    error.third_reading_skinfold_pct.max(error.third_reading_tem * tem_pct)
}

/// All folds of a round.
#[derive(Clone, Debug, Default)]
pub struct Folds {
    /// Values in the order taken.
    pub sites: Vec<MeasuredFold>,
}

impl Folds {
    /// The folds of a round, with what is known of their measurer.
    pub fn measure(atlas: &Atlas, round: &Round, errors: &MeasurerErrors) -> Self {
        let error = &atlas.evidence().error;
        let fold = |entry: &crate::input::Skinfolds| {
            let readings: Vec<f64> = entry.readings.iter().map(|r| Skinfold::mm(*r)).collect();
            let tem_pct = errors.fold_tem_pct(atlas, &round.measured_by, &entry.site);
            let combined = replicate(&readings, third_fold_from(atlas, tem_pct))?;
            Some(MeasuredFold {
                site: entry.site.clone(),
                side: entry.side,
                value_mm: combined.value,
                se_mm: combined.value * reading_error(tem_pct, combined.readings).hypot(error.placing_skinfold_pct)
                    / 100.0,
                readings: combined.readings,
                needs_third: combined.needs_third,
            })
        };
        Self { sites: round.skinfolds.iter().filter_map(fold).collect() }
    }

    /// Both sides of a fold, when both were taken.
    pub fn sides(&self, site: &SiteId) -> Option<Sides<&MeasuredFold>> {
        let of = |side| self.sites.iter().find(|fold| fold.site == *site && fold.side == Some(side));
        Sides { left: of(Side::Left), right: of(Side::Right) }.both()
    }

    /// One value for a fold, mm: the mean of what was taken.
    pub fn overall_mm(&self, site: &str) -> Option<f64> {
        let taken: Vec<f64> = self.sites.iter().filter(|fold| fold.site.as_str() == site).map(|f| f.value_mm).collect();
        (!taken.is_empty()).then(|| taken.iter().sum::<f64>() / taken.len() as f64)
    }
}
