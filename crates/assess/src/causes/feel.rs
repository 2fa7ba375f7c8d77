//! Where a region's work was felt.

use super::Question;
use crate::input::{Felt, Round, Test};
use std::collections::BTreeMap;

/// Named this often, a neighbour is no accident.
const REPORTS: usize = 2;
const NOWHERE: &str = "nowhere";

fn reports<'a>(rounds: &'a [Round], question: &'a Question) -> impl Iterator<Item = &'a Felt> {
    let feel = |test: &'a Test| match test {
        Test::Feel(felt) => Some(felt),
        Test::OneSide(_) | Test::Hang(_) => None,
    };
    let all = rounds.iter().flat_map(|round| &round.tests).filter_map(feel);
    all.filter(|felt| felt.region == question.region.id)
}

pub(super) fn neighbour_takes_over(question: &Question) -> Option<(&'static str, String)> {
    let mut counts: BTreeMap<&str, usize> = BTreeMap::new();
    for felt in reports(&question.case.rounds, question) {
        if felt.felt != NOWHERE && felt.felt != question.region.id.as_str() {
            *counts.entry(&felt.felt).or_default() += 1;
        }
    }
    let (neighbour, count) = counts.into_iter().max_by_key(|(_, count)| *count)?;
    let seen = || format!("Felt in the {} {count} times.", question.called(neighbour));
    (count >= REPORTS).then(|| ("neighbour-takes-over", seen()))
}

pub(super) fn not_felt(question: &Question) -> Option<(&'static str, String)> {
    let newest = question.case.rounds.last()?;
    let nowhere = reports(std::slice::from_ref(newest), question).find(|felt| felt.felt == NOWHERE)?;
    let exercise = question.atlas.exercise(&nowhere.exercise).map_or("the exercise", |e| e.name.as_str());
    Some(("cannot-feel-it", format!("Felt nowhere in {}.", exercise.to_lowercase())))
}
