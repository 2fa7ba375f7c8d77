//! Tests: one side at a time, hangs, where it was felt.

use super::Checker;
use crate::problem::{Problem, unknown};
use crate::raw::{StrengthEntry, TestEntry};
use assess::{Felt, MAX_REPS, OneSideTest, StrengthSet, Test};
use atlas::Atlas;
use std::collections::HashSet;
use units::{Mass, Place, Sides};

const HANG_S: [f64; 2] = [1.0, 900.0];
/// More than any one arm or leg moves in an exercise of the catalogue.
const LOAD_KG: [f64; 2] = [0.5, 500.0];

/// Checks tests; what passes is returned with its place in the list, beside the problems of the rest. `at` is the pointer of
/// the list.
pub fn check_tests(atlas: &Atlas, at: &Place, entries: &[TestEntry]) -> (Vec<(usize, Test)>, Vec<Problem>) {
    let mut check = Checker::new(atlas);
    let tests = placed(&mut check, at, entries);
    (tests, check.problems)
}

pub(super) fn resolve(check: &mut Checker, at: &Place, entries: &[TestEntry]) -> Vec<Test> {
    placed(check, at, entries).into_iter().map(|(_, test)| test).collect()
}

fn placed(check: &mut Checker, at: &Place, entries: &[TestEntry]) -> Vec<(usize, Test)> {
    let mut seen = HashSet::new();
    let mut resolved = Vec::new();
    for (i, entry) in entries.iter().enumerate() {
        let at = at.at(i);
        if let TestEntry::OneSide { exercise, .. } = entry
            && !seen.insert(exercise)
        {
            check.fail::<()>(at, format!("{exercise} is tested twice in this round"));
            continue;
        }
        resolved.extend(one(check, &at, entry).map(|test| (i, test)));
    }
    resolved
}

fn one(check: &mut Checker, at: &Place, entry: &TestEntry) -> Option<Test> {
    match entry {
        TestEntry::OneSide { exercise, left, right } => {
            let found = check.exercise(&at.at("exercise"), exercise);
            let left = strength(check, &at.at("left"), *left);
            let right = strength(check, &at.at("right"), *right);
            let sides = Sides { left, right }.both()?;
            Some(Test::OneSide(OneSideTest { exercise: found?.id.clone(), sides }))
        }
        TestEntry::Hang { seconds } => {
            check.number(&at.at("seconds"), "a hang of", *seconds, HANG_S, " s").map(Test::Hang)
        }
        TestEntry::Feel { exercise, region, felt } => {
            let found = check.exercise(&at.at("exercise"), exercise);
            let region = check.region(&at.at("region"), region);
            let felt = felt_where(check, &at.at("felt"), felt)?;
            Some(Test::Feel(Felt { exercise: found?.id.clone(), region: region?, felt }))
        }
    }
}

fn strength(check: &mut Checker, at: &Place, entry: StrengthEntry) -> Option<StrengthSet> {
    let load = check.number(&at.at("load_kg"), "a load of", entry.load_kg, LOAD_KG, " kg");
    let load = load.and_then(|kg| check.take(&at.at("load_kg"), Mass::from_kg(kg)));
    let reps = [1.0, f64::from(MAX_REPS)];
    check.number(&at.at("reps"), "repetitions", f64::from(entry.reps), reps, "")?;
    Some(StrengthSet { load: load?, reps: entry.reps })
}

/// A region, a named takeover such as a joint, or nowhere.
pub(crate) fn felt_where(check: &mut Checker, at: &Place, felt: &str) -> Option<String> {
    let region = check.atlas.regions().iter().any(|r| r.id.as_str() == felt);
    if region || felt == "nowhere" || check.atlas.named_takeover(felt).is_some() {
        return Some(felt.to_owned());
    }
    let known = check.atlas.regions().iter().map(|r| r.id.as_str()).chain(["nowhere", "elbow", "shoulder"]);
    let says = unknown("region", felt, known);
    check.fail(at, says)
}
