//! A round's skinfolds as values with errors.

use crate::input::Round;
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
    /// Standard error: TEM / sqrt(readings), mm.
    pub se_mm: f64,
    /// How many readings.
    pub readings: usize,
    /// Whether a third reading is due.
    pub needs_third: bool,
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
        let third = atlas.evidence().error.third_reading_skinfold_pct;
        let fold = |entry: &crate::input::Skinfolds| {
            let readings: Vec<f64> = entry.readings.iter().map(|r| Skinfold::mm(*r)).collect();
            let combined = replicate(&readings, third)?;
            let tem_pct = errors.fold_tem_pct(atlas, &round.measured_by, &entry.site);
            Some(MeasuredFold {
                site: entry.site.clone(),
                side: entry.side,
                value_mm: combined.value,
                se_mm: combined.value * tem_pct / 100.0 / (combined.readings as f64).sqrt(),
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
