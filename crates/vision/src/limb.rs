//! A limb's own axis and the widths across it.

use crate::frame::Run;

/// A width that is further from the line through all is no limb's.
const OUTLIER_SHARE: f64 = 0.2;
/// Share of the places of a segment that must be free of the rest of the body.
pub(crate) const FREE_SHARE: f64 = 0.5;

/// Widths along a limb without those that stand out from a straight line through all: a bench behind a calf.
pub(crate) fn steady(widths: Vec<Option<f64>>) -> Vec<Option<f64>> {
    let known: Vec<(f64, f64)> =
        widths.iter().enumerate().filter_map(|(i, width)| width.map(|width| (i as f64, width))).collect();
    let Some((level, slope)) = line(&known) else { return widths };
    let near = |(i, width): &(f64, f64)| (width - level - slope * i).abs() < OUTLIER_SHARE * (level + slope * i);
    let kept: Vec<(f64, f64)> = known.into_iter().filter(near).collect();
    let Some((level, slope)) = line(&kept) else { return widths };
    let fits =
        |i: usize, width: f64| (width - level - slope * i as f64).abs() < OUTLIER_SHARE * (level + slope * i as f64);
    widths.into_iter().enumerate().map(|(i, width)| width.filter(|width| fits(i, *width))).collect()
}

/// Level at 0 and slope of the straight line with the least squares.
fn line(points: &[(f64, f64)]) -> Option<(f64, f64)> {
    let count = points.len() as f64;
    let mean = |of: fn(&(f64, f64)) -> f64| points.iter().map(of).sum::<f64>() / count;
    let (mx, my) = (mean(|p| p.0), mean(|p| p.1));
    let spread: f64 = points.iter().map(|p| (p.0 - mx).powi(2)).sum();
    let slope = points.iter().map(|p| (p.0 - mx) * (p.1 - my)).sum::<f64>() / spread;
    (points.len() >= 2).then_some((my - slope * mx, slope))
}

/// A limb's axis.
#[derive(Clone, Copy)]
pub(crate) struct Axis {
    pub from: (f64, f64),
    pub to: (f64, f64),
}

impl Axis {
    pub fn length(&self) -> f64 {
        (self.to.0 - self.from.0).hypot(self.to.1 - self.from.1).max(1.0)
    }

    /// A place at a share of the way and `right` px across.
    pub fn place(&self, share: f64, right: f64) -> (f64, f64) {
        let (dx, dy) = (self.to.0 - self.from.0, self.to.1 - self.from.1);
        let length = self.length();
        (self.from.0 + dx * share - dy / length * right, self.from.1 + dy * share + dx / length * right)
    }

    /// The axis moved to the middle of the runs across it, by a straight line through their middles.
    pub fn centred(&self, across: &[Option<Run>], (low, high): (f64, f64)) -> Option<Self> {
        let share = |i: usize| low + (high - low) * (i as f64 + 0.5) / across.len() as f64;
        let middles =
            across.iter().enumerate().filter_map(|(i, run)| run.map(|run| (share(i), f64::midpoint(run.0, run.1))));
        let middles: Vec<(f64, f64)> = middles.collect();
        let count = middles.len() as f64;
        if count < FREE_SHARE * across.len() as f64 {
            return None;
        }
        let (level, slope) = line(&middles)?;
        let at = |share: f64| self.place(share, level + slope * share);
        Some(Self { from: at(0.0), to: at(1.0) })
    }
}
