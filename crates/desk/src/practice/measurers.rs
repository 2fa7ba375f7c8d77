//! What was learned of everyone who held a tape, and what each coach's ratings weigh.

use super::{AccuracyView, LearnedView, MeasurerView, MeasuringPoint, RaterView};
use crate::desk::Desk;
use crate::error::DeskError;
use crate::photos::AgreementView;
use assess::{Calibration, MeasurerErrors, Round};
use atlas::Atlas;
use store::Account;

impl Desk {
    /// What was learned of everyone who held a tape, from all rounds.
    pub fn measurers(&self) -> Result<Vec<MeasurerView>, DeskError> {
        let atlas = &self.knowledge().atlas;
        Ok(measurers(atlas, &self.store.rounds_by_client(atlas)?))
    }

    /// How often the words are right, and what each coach's ratings weigh.
    pub fn accuracy(&self) -> Result<AccuracyView, DeskError> {
        let knowledge = self.knowledge();
        let rater = |account: Account| {
            let agreement = AgreementView::of(&knowledge, &self.store, &account.id)?;
            Ok(RaterView { name: account.name, agreement })
        };
        let raters = self.store.accounts()?.into_iter().map(rater).collect::<Result<_, DeskError>>()?;
        Ok(AccuracyView { calibration: Calibration::shipped().map_err(DeskError::internal)?, raters })
    }
}

fn measurers(atlas: &Atlas, clients: &[Vec<Round>]) -> Vec<MeasurerView> {
    let mut rounds: Vec<&Round> = clients.iter().flatten().collect();
    rounds.sort_by_key(|round| round.date);
    let mut all = MeasurerErrors::default();
    for round in &rounds {
        all.add_readings(atlas, round);
    }
    for rounds in clients {
        all.add_client(atlas, rounds);
    }
    let (hand_pct, hand_pairs) = all.hand_learned(atlas);
    let of = |name: &str| {
        let (tem_pct, pairs) = all.overall(atlas, name);
        let learned = all.learned(atlas, name).into_iter().map(|learned| LearnedView {
            site: learned.site,
            fold: learned.fold,
            tem_pct: learned.tem_pct,
            default_pct: learned.default_pct,
            pairs: learned.pairs,
        });
        let (placing_pct, placing_values) = all.placing_learned(atlas, name);
        MeasurerView {
            name: name.to_owned(),
            placing_pct,
            placing_values,
            hand_pct,
            hand_pairs,
            default_pct: atlas.evidence().error.girth_pct,
            tem_pct,
            pairs,
            sites: learned.collect(),
            over_time: over_time(atlas, &rounds, name),
        }
    };
    all.measurers().into_iter().map(of).collect()
}

/// A measurer's error as it was known after each day on which they measured; `rounds` are oldest first.
fn over_time(atlas: &Atlas, rounds: &[&Round], name: &str) -> Vec<MeasuringPoint> {
    let mut errors = MeasurerErrors::default();
    let mut points: Vec<MeasuringPoint> = Vec::new();
    for round in rounds.iter().filter(|round| round.measured_by == name) {
        errors.add_readings(atlas, round);
        let (tem_pct, pairs) = errors.overall(atlas, name);
        let point = MeasuringPoint { date: round.date.to_string(), tem_pct, pairs };
        match points.last_mut() {
            Some(last) if last.date == point.date => *last = point,
            _ => points.push(point),
        }
    }
    points
}
