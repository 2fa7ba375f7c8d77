//! The set-up that loads one region most, or most while it is long: a search over the numbers of a set-up, one after another.

use crate::movement::Movement;
use crate::reach::Reach;
use crate::set_up::{SetUpError, SetUpNumber, set_up, with};
use crate::work::{Levers, levers};
use atlas::Exercise;

/// What is looked for.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Wanted {
    /// The largest share of the work.
    Most,
    /// The largest load while long.
    Longest,
}

/// Steps of each number at first, and how often all numbers are gone through, each time in smaller steps.
const STEPS: u32 = 5;
const ROUNDS: u32 = 2;
/// A set-up in which more of a torque is left to no muscle counts for less.
const POOR: f64 = 0.15;

/// The numbers of a movement's set-up by which a region is loaded most, and what it does then. Other regions may do more; what
/// counts is this one. A set-up beyond a client's reach is taken only where none within it is found, and then the least beyond;
/// what of it is beyond is said.
///
/// # Errors
/// When a number of the movement's own set-up cannot be.
pub fn best(
    exercise: &Exercise,
    own: &Movement,
    region: &str,
    wanted: Wanted,
    reach: Reach,
) -> Result<(Vec<SetUpNumber>, Levers), SetUpError> {
    let mut movement = own.clone();
    let worth = |movement: &Movement| {
        let found = levers(exercise, movement, own);
        let work = found.regions.iter().find(|work| work.region == region);
        let value = work.map_or(0.0, |work| match wanted {
            Wanted::Most => work.share,
            Wanted::Longest => work.long_load,
        });
        // A joint out of its range is no set-up.
        let possible = found.says.iter().filter(|says| says.starts_with("At the")).count();
        let value = if possible > 0 || found.reserve_share > POOR { value / 2.0 } else { value };
        // Work is never below none: the least beyond is better than the more beyond, and worse than anything within.
        reach.beyond(&found.range).first().map_or(value, |(degrees, _)| -degrees)
    };
    let mut most = worth(&movement);
    for round in 0..ROUNDS {
        for turn in &own.turns {
            let (numbers, [low, high]) = (set_up(&movement, own), turn.range());
            let Some(here) = numbers.iter().find(|number| number.name == turn.name()) else { continue };
            let reach = (high - low) / 2.0_f64.powi(i32::try_from(round).unwrap_or(i32::MAX) * 2 + 1);
            for step in 0..=STEPS {
                let value = here.value + reach * (2.0 * f64::from(step) / f64::from(STEPS) - 1.0);
                let value = rounded(value.clamp(low, high));
                let tried = with(&movement, &[(turn.name().to_owned(), value)])?;
                let worth = worth(&tried);
                if worth > most + 1e-4 {
                    (movement, most) = (tried, worth);
                }
            }
        }
    }
    let mut found = levers(exercise, &movement, own);
    let beyond = reach.says(&found.range);
    found.says.extend(beyond);
    Ok((set_up(&movement, own), found))
}

/// To what a coach sets: five degrees, five centimetres.
fn rounded(value: f64) -> f64 {
    (value / 5.0).round() * 5.0
}
