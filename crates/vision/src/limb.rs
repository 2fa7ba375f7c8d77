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
#[derive(Clone, Copy, Debug)]
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

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    const GONE: f64 = -1.0;

    /// Widths where a negative one is none.
    fn widths(all: &[f64]) -> Vec<Option<f64>> {
        all.iter().map(|width| (*width >= 0.0).then_some(*width)).collect()
    }

    #[rstest]
    #[case::a_straight_limb(&[30.0, 30.0, 30.0, 30.0], &[30.0, 30.0, 30.0, 30.0])]
    #[case::one_that_tapers(&[40.0, 36.0, 32.0, 28.0, 24.0], &[40.0, 36.0, 32.0, 28.0, 24.0])]
    #[case::a_bench_behind_it(
        &[40.0, 39.0, 38.0, 80.0, 36.0, 35.0, 34.0, 33.0], &[40.0, 39.0, 38.0, GONE, 36.0, 35.0, 34.0, 33.0]
    )]
    #[case::a_gap_stays_a_gap(&[40.0, GONE, 38.0, 37.0], &[40.0, GONE, 38.0, 37.0])]
    #[case::one_width_alone(&[40.0], &[40.0])]
    #[case::none(&[], &[])]
    fn widths_that_stand_out_from_the_line_are_no_limb_s(#[case] seen: &[f64], #[case] kept: &[f64]) {
        assert_eq!(steady(widths(seen)), widths(kept));
    }

    /// Straight down, 100 px long.
    const DOWN: Axis = Axis { from: (50.0, 10.0), to: (50.0, 110.0) };

    #[rstest]
    #[case::where_it_begins(0.0, 0.0, (50.0, 10.0))]
    #[case::half_way(0.5, 0.0, (50.0, 60.0))]
    #[case::across_at_the_end(1.0, 8.0, (42.0, 110.0))]
    fn a_place_lies_along_and_across(#[case] share: f64, #[case] right: f64, #[case] place: (f64, f64)) {
        let found = DOWN.place(share, right);
        assert!((found.0 - place.0).abs() < 1e-9 && (found.1 - place.1).abs() < 1e-9, "{found:?}");
    }

    #[test]
    fn the_axis_moves_to_the_middle_of_what_lies_across_it() {
        let across: Vec<Option<Run>> = vec![Some((-6.0, 10.0)); 8];
        let centred = DOWN.centred(&across, (0.0, 1.0)).unwrap();
        // Across is to the left of one who looks down the picture: 2 px of it are 2 px less of x.
        assert!((centred.from.0 - 48.0).abs() < 1e-9 && (centred.to.0 - 48.0).abs() < 1e-9, "{centred:?}");
        assert!((centred.length() - DOWN.length()).abs() < 1e-9);
    }

    #[rstest]
    #[case::half_of_it_free(4, true)]
    #[case::less_than_half(3, false)]
    fn an_axis_needs_half_of_its_places_free(#[case] free: usize, #[case] found: bool) {
        let across: Vec<Option<Run>> = (0..8).map(|i| (i < free).then_some((-5.0, 5.0))).collect();
        assert_eq!(DOWN.centred(&across, (0.0, 1.0)).is_some(), found);
    }
}
