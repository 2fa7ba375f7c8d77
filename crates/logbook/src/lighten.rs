//! When to lighten before the block says so: two lifts fall for two sessions, or sleep and soreness say so.

use crate::entry::SessionLog;
use crate::performance::Performed;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use units::Side;
use utoipa::ToSchema;

/// Lifts that have to fall.
const LIFTS: usize = 2;
/// Sessions in which they have to.
const SESSIONS: usize = 2;
/// Sleep at or below this is bad; soreness at or above it is much.
const BAD_SLEEP: u8 = 2;
const MUCH_SORENESS: u8 = 4;

/// From when on sleep or soreness offer a lighter session today: half the sets at the same load.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct LighterToday {
    /// Sleep at or below this is bad, 1 to 5.
    pub sleep_at_most: u8,
    /// Soreness at or above this is much, 1 to 5.
    pub soreness_at_least: u8,
    /// How many times the warm-up is done on such a day.
    pub warm_up_times: u8,
}

/// When a lighter session is offered.
pub const LIGHTER_TODAY: LighterToday =
    LighterToday { sleep_at_most: BAD_SLEEP, soreness_at_least: MUCH_SORENESS, warm_up_times: 2 };

/// Sets of an exercise in a lighter session.
pub fn lighter_sets(sets: u16) -> u16 {
    sets.div_ceil(2)
}

/// Why the next week should be lighter; none when nothing says so. `lifts` are the exercises of the plan with the side that
/// sets the pace and their history, oldest first; `sessions` are told by feel, oldest first.
pub fn lighten(lifts: &[(&str, Option<Side>, &[Performed])], sessions: &[&SessionLog]) -> Option<String> {
    let falling: Vec<&str> =
        lifts.iter().filter(|(_, side, history)| falls(history, *side)).map(|(name, ..)| *name).collect();
    if falling.len() >= LIFTS {
        return Some(format!(
            "{} fell two sessions in a row: make the next week a lighter one.",
            falling.join(" and ")
        ));
    }
    let last: Vec<&&SessionLog> = sessions.iter().rev().take(SESSIONS).collect();
    let tired = |log: &&&SessionLog| {
        log.sleep.is_some_and(|sleep| sleep <= BAD_SLEEP) || log.soreness.is_some_and(|sore| sore >= MUCH_SORENESS)
    };
    let says = "Bad sleep or much soreness two sessions in a row: make the next week a lighter one.";
    (last.len() == SESSIONS && last.iter().all(tired)).then(|| says.to_owned())
}

fn falls(history: &[Performed], side: Option<Side>) -> bool {
    let best: Vec<f64> = history.iter().filter(|done| !done.lighter).filter_map(|done| done.best(side)).collect();
    let last = &best[best.len().saturating_sub(SESSIONS + 1)..];
    last.len() == SESSIONS + 1 && last.windows(2).all(|pair| pair[1] < pair[0] - 1e-6)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::performance::tests::log;
    use rstest::rstest;

    fn lifts(reps: &[[u16; 3]]) -> Option<String> {
        let logs: Vec<Vec<_>> =
            reps.iter().map(|reps| reps.iter().map(|r| log("db-curl", &[(12.0, *r)])).collect()).collect();
        let on = "2026-03-02".parse().unwrap();
        let histories: Vec<Vec<Performed>> =
            logs.iter().map(|logs| logs.iter().map(|log| Performed { on, lighter: false, log }).collect()).collect();
        let lifts: Vec<_> = histories.iter().map(|history| ("Curl", None, history.as_slice())).collect();
        lighten(&lifts, &[])
    }

    #[rstest]
    #[case::two_fall_twice(&[[10, 9, 8], [12, 11, 10]], true)]
    #[case::only_one_falls(&[[10, 9, 8], [12, 11, 11]], false)]
    #[case::they_fell_once(&[[9, 10, 9], [11, 12, 11]], false)]
    fn two_lifts_that_fall_twice_ask_for_a_lighter_week(#[case] reps: &[[u16; 3]], #[case] asked: bool) {
        assert_eq!(lifts(reps).is_some(), asked);
    }

    #[rstest]
    #[case::slept_badly_twice(&[(Some(2), None), (Some(1), None)], true)]
    #[case::sore_then_badly_slept(&[(None, Some(5)), (Some(2), Some(1))], true)]
    #[case::once(&[(Some(4), Some(2)), (Some(1), None)], false)]
    #[case::nobody_said(&[(None, None), (None, None)], false)]
    fn sleep_and_soreness_have_a_say(#[case] told: &[(Option<u8>, Option<u8>)], #[case] asked: bool) {
        let logs: Vec<SessionLog> = told
            .iter()
            .map(|(sleep, soreness)| SessionLog { sleep: *sleep, soreness: *soreness, ..SessionLog::default() })
            .collect();
        assert_eq!(lighten(&[], &logs.iter().collect::<Vec<_>>()).is_some(), asked);
    }
}
