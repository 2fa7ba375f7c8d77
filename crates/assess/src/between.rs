//! What readings taken a minute apart hide: finding a site's place anew on another day, and another measurer's hand.

use crate::change::slope;
use crate::input::{Round, TapeMeasure};
use crate::measurer::{Spread, kind};
use atlas::{Atlas, SiteKind};
use jiff::civil::Date;
use std::collections::BTreeMap;
use units::{Side, SiteId};

/// Scatter between rounds, percent squared.
#[derive(Clone, Debug, Default)]
pub(crate) struct Between {
    /// Of one measurer's values about a client's own straight line over their rounds, what reading explains taken off; girths and
    /// breadths.
    placing: BTreeMap<String, [Spread; 2]>,
    /// Of the mean difference of all girths between two measurers.
    hand: Spread,
}

/// A value of a round: when, ln(cm) in percent, variance of reading it, percent squared.
pub(crate) struct Value {
    pub(crate) on: Date,
    pub(crate) percent: f64,
    pub(crate) reading: f64,
}

/// One site of one side as one measurer has taken it.
type Series<'a> = BTreeMap<(&'a str, &'a SiteId, Option<Side>), Vec<Value>>;

/// Rounds of two measurers further apart than this say more about the body than about their hands, days (common practice, no
/// source).
const SAME_BODY_DAYS: i64 = 28;
/// Learning never brings an error under this share of its default.
const LEAST_SHARE: f64 = 0.5;

impl Between {
    /// Learns from one client's rounds, oldest first; `value` tells a reading's logarithm and reading error.
    pub(crate) fn add(
        &mut self,
        atlas: &Atlas,
        rounds: &[Round],
        value: impl Fn(&Round, &TapeMeasure) -> Option<Value>,
    ) {
        if rounds.len() < 2 {
            return;
        }
        let mut series = Series::new();
        for round in rounds {
            for measure in &round.tape {
                let Some(value) = value(round, measure) else { continue };
                series.entry((&round.measured_by, &measure.site, measure.side)).or_default().push(value);
            }
        }
        for ((measurer, site, _), values) in &series {
            if let Some((squares, freedom)) = scatter(values) {
                let kinds = self.placing.entry((*measurer).to_owned()).or_default();
                kinds[place(kind(atlas, site))].add_squares(squares, freedom);
            }
        }
        for pair in rounds.windows(2) {
            let [then, now] = pair else { continue };
            let days = now.date.duration_since(then.date).as_hours() / 24;
            if then.measured_by != now.measured_by && days <= SAME_BODY_DAYS {
                self.add_hands(atlas, &series, then, now);
            }
        }
    }

    fn add_hands<'a>(&mut self, atlas: &Atlas, series: &Series<'a>, then: &'a Round, now: &'a Round) {
        let placing = atlas.evidence().error.placing_girth_pct.powi(2);
        let girths = now.tape.iter().filter(|measure| kind(atlas, &measure.site) == SiteKind::Girth);
        let pairs = girths.filter_map(|m| Some((at(series, then, m)?, at(series, now, m)?)));
        let apart: Vec<(f64, f64)> =
            pairs.map(|(then, now)| (now.percent - then.percent, now.reading + then.reading + 2.0 * placing)).collect();
        if apart.is_empty() {
            return;
        }
        let n = apart.len() as f64;
        let mean = apart.iter().map(|(difference, _)| difference).sum::<f64>() / n;
        let noise = apart.iter().map(|(_, variance)| variance).sum::<f64>() / n.powi(2);
        self.hand.add_squares(mean.powi(2) - noise, 1.0);
    }

    /// Error of finding a site's place anew, % of the value, and the values beyond a straight line it was learned from.
    pub(crate) fn placing(&self, atlas: &Atlas, measurer: &str, kind: SiteKind) -> (f64, f64) {
        let settings = &atlas.evidence().error;
        let default = match kind {
            SiteKind::Girth => settings.placing_girth_pct,
            SiteKind::Breadth => settings.placing_breadth_pct,
        };
        let learned = self.placing.get(measurer).map(|kinds| kinds[place(kind)]).unwrap_or_default();
        (shrunk(default, settings.prior_pairs, learned), learned.freedom)
    }

    /// How far two measurers' girths of one body differ, all alike, % of the value; and the pairs of rounds it was learned from.
    pub(crate) fn hand(&self, atlas: &Atlas) -> (f64, f64) {
        let settings = &atlas.evidence().error;
        (shrunk(settings.hand_pct, settings.prior_pairs, self.hand), self.hand.freedom)
    }
}

/// What a round's measurer found where `measure` was taken.
fn at<'a, 's>(series: &'s Series<'a>, round: &'a Round, measure: &'a TapeMeasure) -> Option<&'s Value> {
    let values = series.get(&(round.measured_by.as_str(), &measure.site, measure.side))?;
    values.iter().find(|value| value.on == round.date)
}

fn place(kind: SiteKind) -> usize {
    usize::from(kind == SiteKind::Breadth)
}

fn shrunk(default_pct: f64, prior: f64, learned: Spread) -> f64 {
    let variance = (prior * default_pct.powi(2) + learned.squares) / (prior + learned.freedom);
    variance.max((LEAST_SHARE * default_pct).powi(2)).sqrt()
}

/// Squares about the least-squares line over time less what reading alone leaves there, and their degrees of freedom. `None`
/// from fewer than three days: two lie on a line.
fn scatter(values: &[Value]) -> Option<(f64, f64)> {
    let days: Vec<f64> = values.iter().map(|value| since(values[0].on, value.on)).collect();
    let y: Vec<f64> = values.iter().map(|value| value.percent).collect();
    let line = slope(&days, &y, &vec![1.0; values.len()])?;
    let squares: f64 = days.iter().zip(&y).map(|(day, y)| (y - line.at(*day)).powi(2)).sum();
    let reading: f64 = days.iter().zip(values).map(|(day, value)| (1.0 - line.leverage(*day)) * value.reading).sum();
    Some((squares - reading, values.len() as f64 - 2.0))
}

/// Days from one date to another.
pub(crate) fn since(from: Date, to: Date) -> f64 {
    to.duration_since(from).as_hours() as f64 / 24.0
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    fn values(percent: &[f64]) -> Vec<Value> {
        let first = jiff::civil::date(2026, 1, 5);
        let on = |week: usize| first + jiff::Span::new().weeks(i64::try_from(week).unwrap());
        percent.iter().enumerate().map(|(i, p)| Value { on: on(4 * i), percent: *p, reading: 0.0 }).collect()
    }

    // By hand: 0, 3, 0 lie 1, 2, 1 off their mean of 1, which is their line.
    #[rstest]
    #[case::growing_evenly_is_no_error(&[0.0, 1.0, 2.0, 3.0], Some((0.0, 2.0)))]
    #[case::up_and_down(&[0.0, 3.0, 0.0], Some((6.0, 1.0)))]
    #[case::two_lie_on_a_line(&[0.0, 3.0], None)]
    fn what_is_off_a_client_s_own_line_is_the_tape_s_place(#[case] percent: &[f64], #[case] found: Option<(f64, f64)>) {
        let close = |(a, b): ((f64, f64), (f64, f64))| (a.0 - b.0).abs() < 1e-9 && (a.1 - b.1).abs() < 1e-9;
        let seen = scatter(&values(percent));
        assert_eq!(seen.is_some(), found.is_some());
        assert!(seen.zip(found).is_none_or(close), "{seen:?}");
    }

    // By hand: (10 * 0.8^2 + 6) / 11 is 1.127; nothing off the line leaves 6.4 / 40 = 0.16, a half of the default squared.
    #[rstest]
    #[case::a_tape_that_wanders(6.0, 1.0, 1.127_272_727_f64.sqrt())]
    #[case::a_tape_that_never_does(0.0, 90.0, 0.4)]
    fn placing_is_shrunk_to_its_default(#[case] squares: f64, #[case] freedom: f64, #[case] expected: f64) {
        assert!((shrunk(0.8, 10.0, Spread { squares, freedom }) - expected).abs() < 1e-6);
    }
}
