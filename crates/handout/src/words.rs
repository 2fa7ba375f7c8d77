//! How a plan's parts are put for the client.

use casefile::ItemEntry;
use plan::SidePlan;

/// `8 to 12 repetitions`, `30 to 45 s`.
pub(crate) fn work(item: &ItemEntry) -> String {
    match (item.reps, item.seconds) {
        (Some([low, high]), _) => format!("{low} to {high} repetitions"),
        (None, Some([low, high])) => format!("{low} to {high} s"),
        (None, None) => String::new(),
    }
}

/// Which side goes first, and what it has more of.
pub(crate) fn sides(item: &ItemEntry) -> String {
    let side = match item.sides {
        SidePlan::Both => return "Both sides together".to_owned(),
        SidePlan::LeftFirst => "left",
        SidePlan::RightFirst => "right",
    };
    match item.extra_sets_weaker {
        0 => format!("One side at a time, {side} first; the other does the same, no more"),
        1 => format!("One side at a time, {side} first, with one set more; the other matches it, no more"),
        more => format!("One side at a time, {side} first, with {more} sets more; the other matches it, no more"),
    }
}

/// Said at the foot of every page.
pub(crate) const STOP: &str = "Stop an exercise that hurts 3 of 10 or more and tell your coach. Sharp pain, numbness, \
    swelling or sudden weakness: stop and see a doctor.";
