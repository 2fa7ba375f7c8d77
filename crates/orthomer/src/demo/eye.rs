//! Sittings the demo's coach has had before made-up figures.

use crate::failure::Failure;
use assess::Knowledge;
use eye::{Asks, Sitting, in_steps, truth};
use jiff::ToSpan;
use jiff::civil::Date;
use jiff::tz::TimeZone;
use rand::rngs::StdRng;
use rand::{RngExt, SeedableRng};
use store::{EyeAnswer, RatingKind, Store};

/// Days ago, and how far answers scatter about what she sees, steps: she gets better.
const SITTINGS: [(i64, f64); 4] = [(33, 2.2), (24, 1.9), (12, 1.7), (3, 1.4)];

/// What she sees where it is not: steps by what is asked and where.
fn seen_off(asks: Asks, site: &str) -> f64 {
    match (asks, site) {
        (Asks::Standing, "thigh") => -0.9,
        (Asks::LeftRight, "forearm") => 0.9,
        _ => 0.0,
    }
}

/// Keeps the coach's sittings.
pub fn keep(store: &Store, knowledge: &Knowledge, coach: &str, today: Date) -> Result<(), Failure> {
    for (days_ago, scatter) in SITTINGS {
        let day = today.checked_sub(days_ago.days()).map_err(Failure::other)?;
        let at = day.at(8, 30, 0, 0).to_zoned_datetime(TimeZone::system()).map_err(Failure::other)?.timestamp();
        let seed = days_ago.unsigned_abs();
        let sitting = Sitting::new(&knowledge.norms, seed).map_err(Failure::other)?;
        let record = store.start_eye_sitting(coach, seed, at).map_err(Failure::other)?;
        let mut rng = StdRng::seed_from_u64(seed);
        for (place, look) in sitting.looks().iter().enumerate() {
            let (Some(question), Some(spec)) = (sitting.question(*look), sitting.spec(*look)) else { continue };
            let truth = truth(&knowledge.norms, spec, &spec.body.girths, question).map_err(Failure::other)?;
            let site = question.part.site();
            let steps = in_steps(knowledge.atlas.evidence(), question.asks, truth);
            let seen = steps + seen_off(question.asks, site) + rng.random_range(-scatter..scatter);
            let kind = match question.asks {
                Asks::Standing => RatingKind::Standing,
                Asks::LeftRight => RatingKind::LeftRight,
            };
            // Held to the scale, so that it fits.
            #[allow(clippy::cast_possible_truncation)]
            let value = Some(seen.round().clamp(-2.0, 2.0) as i8);
            let (figure, mirrored, site) = (look.figure, look.mirrored, site.to_owned());
            let answer = EyeAnswer { place, figure, kind, site, mirrored, value, truth, answered_at: at };
            store.save_eye_answer(&record.id, &answer).map_err(Failure::other)?;
        }
    }
    Ok(())
}
