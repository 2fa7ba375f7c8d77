//! Nobody under 18 is photographed or tested to a maximum.

use super::Checker;
use crate::raw::{RoundEntry, TestEntry};
use assess::Client;
use units::Place;

pub(super) fn resolve(check: &mut Checker, client: &Client, rounds: &[RoundEntry]) {
    for (i, round) in rounds.iter().enumerate() {
        let Ok(date) = round.date.parse() else { continue };
        if client.age_on(date) >= Client::ADULT_YEARS {
            continue;
        }
        let mut refuse = |what: &str, why: &str| check.fail::<()>(Place::root().at("rounds").at(i).at(what), why);
        if !round.ratings.is_empty() {
            refuse("ratings", "the client is under 18: no body pictures, so nothing rated on them");
        }
        if !round.picture_girths.is_empty() {
            refuse("picture_girths", "the client is under 18: no body pictures, so nothing measured on them");
        }
        if !round.outlines.is_empty() {
            refuse("outlines", "the client is under 18: no body pictures, so nothing measured on them");
        }
        if round.tests.iter().any(|test| matches!(test, TestEntry::OneSide { .. })) {
            refuse("tests", "the client is under 18: no tests to a maximum");
        }
    }
}
