//! A block of weeks: sets rise where a chosen region is still short of its full aim, and the last week lightens.

use crate::anneal::{SETS_HIGH, SETS_LOW};
use crate::dose::ceiling;
use crate::draft::{Draft, given};
use crate::problem::{Demand, PlanProblem};
use crate::rules::broken;
use crate::timing::cards_minutes;
use crate::turns::{InTurn, in_turn, turned};
use crate::words::lower_first;
use assess::Class;
use units::RegionId;

/// Weeks of a block: the fewest and the most (common practice, no source).
pub const WEEKS: [u8; 2] = [4, 8];
/// Weeks of a block unless the coach says otherwise (common practice, no source).
pub const WEEKS_USUAL: u8 = 6;
/// Weeks whose average the next week's dose is held to.
const LOOK_BACK: usize = 4;
/// Sets a chosen region gains in one week at most, so that a rise can be taken back.
const RISE_A_WEEK: usize = 2;

/// One week of a block.
#[derive(Clone, Debug, PartialEq)]
pub struct BlockWeek {
    /// From 1.
    pub number: u8,
    /// Half the sets at the same load.
    pub lighter: bool,
    /// Cards that take turns stand with their other.
    pub turned: bool,
    /// Sets by session and card.
    pub sets: Vec<Vec<u16>>,
    /// Fractional sets of the chosen regions.
    pub doses: Vec<(RegionId, f64)>,
    /// What changes against the week before, in words.
    pub says: Vec<String>,
}

impl BlockWeek {
    /// Whether the cards that take turns stand with their other in a week counted from the plan's first.
    pub fn turned(number: u8) -> bool {
        number.is_multiple_of(2)
    }
}

/// The weeks that follow from a week.
pub fn block(problem: &PlanProblem, draft: &Draft, weeks: u8) -> Vec<BlockWeek> {
    let weeks = weeks.clamp(WEEKS[0], WEEKS[1]);
    let chosen: Vec<usize> =
        (0..problem.demands.len()).filter(|d| problem.demands[*d].class == Class::BringUp).collect();
    let turns = in_turn(problem, draft);
    let mut now = draft.clone();
    let mut past: Vec<Vec<f64>> = chosen
        .iter()
        .map(|demand| {
            vec![problem.demands[*demand].recent.unwrap_or_else(|| dose_of(problem, draft, *demand)); LOOK_BACK]
        })
        .collect();
    let mut all = Vec::new();
    for number in 1..=weeks {
        let lighter = number == weeks;
        let mut says = match (number, lighter) {
            (_, true) => {
                now = lightened(&now);
                vec!["Half the sets at the same load, so that the work can settle.".to_owned()]
            }
            (1, _) => Vec::new(),
            _ => rise(problem, (&mut now, &turns), &chosen, &past),
        };
        says.extend(turns.iter().filter(|_| number > 1).map(|turn| said_of(problem, draft, turn, number)));
        let is_turned = BlockWeek::turned(number) && !turns.is_empty();
        let stands = if is_turned { turned(&now, &turns) } else { now.clone() };
        for (place, demand) in chosen.iter().enumerate() {
            past[place].push(dose_of(problem, &stands, *demand));
        }
        let doses = chosen.iter().map(|d| (problem.demands[*d].region.clone(), dose_of(problem, &stands, *d)));
        let sets = now.sessions.iter().map(|cards| cards.iter().map(|card| card.sets).collect());
        all.push(BlockWeek { number, lighter, turned: is_turned, sets: sets.collect(), doses: doses.collect(), says });
    }
    all
}

pub(crate) fn dose_of(problem: &PlanProblem, draft: &Draft, demand: usize) -> f64 {
    let region = &problem.demands[demand].region;
    draft.sessions.iter().flatten().map(|card| given(problem, card, region).0).sum()
}

fn lightened(draft: &Draft) -> Draft {
    let mut lighter = draft.clone();
    for card in lighter.sessions.iter_mut().flatten() {
        card.sets = card.sets.div_ceil(2);
    }
    lighter
}

/// Which of two exercises that take turns stands in a week.
fn said_of(problem: &PlanProblem, draft: &Draft, turn: &InTurn, number: u8) -> String {
    let first = draft.sessions[turn.session][turn.place].candidate;
    let of = if BlockWeek::turned(number) { [turn.card.candidate, first] } else { [first, turn.card.candidate] };
    let [now, before] = of.map(|candidate| &problem.candidates[candidate].exercise.name);
    format!("{now} in place of {}.", lower_first(before))
}

/// Adds sets for the chosen regions that are short of their full aim, as far as the last weeks and the rules allow.
fn rise(
    problem: &PlanProblem,
    (draft, turns): (&mut Draft, &[InTurn]),
    chosen: &[usize],
    past: &[Vec<f64>],
) -> Vec<String> {
    let mut says = Vec::new();
    for (place, demand) in chosen.iter().enumerate() {
        let wanted = &problem.demands[*demand];
        let recent = &past[place][past[place].len() - LOOK_BACK..];
        let most = ceiling(recent.iter().sum::<f64>() / LOOK_BACK as f64).min(wanted.full_aim);
        let gains: Vec<Gain> =
            (0..RISE_A_WEEK).map_while(|_| one_more(problem, (draft, turns), *demand, most)).collect();
        if !gains.is_empty() {
            says.push(said(problem, wanted, &gains));
        }
    }
    says
}

/// A set gained, and the card that gave one for it, where there was no room.
struct Gain {
    from: Option<usize>,
}

fn said(problem: &PlanProblem, wanted: &Demand, gains: &[Gain]) -> String {
    let sets = if gains.len() == 1 { "one set".to_owned() } else { format!("{} sets", gains.len()) };
    let mut givers: Vec<&str> =
        gains.iter().filter_map(|gain| Some(problem.candidates[gain.from?].exercise.name.as_str())).collect();
    givers.dedup();
    if givers.is_empty() {
        format!("{} gains {sets}.", wanted.name)
    } else {
        format!("{} gains {sets}, taken from: {}.", wanted.name, givers.join("; "))
    }
}

/// One more set on the smallest card that trains the region and takes it without breaking a rule; where the session is
/// full, another card of it that can spare one gives it.
fn one_more(problem: &PlanProblem, (draft, turns): (&mut Draft, &[InTurn]), demand: usize, most: f64) -> Option<Gain> {
    if dose_of(problem, draft, demand) + 1.0 > most + 1e-9 {
        return None;
    }
    let in_other_week = |draft: &Draft| if turns.is_empty() { 0 } else { faults(problem, &turned(draft, turns)) };
    let faults = |draft: &Draft| faults(problem, draft) + in_other_week(draft);
    let before = faults(draft);
    let mut places: Vec<(u16, usize, usize)> = Vec::new();
    for (session, cards) in draft.sessions.iter().enumerate() {
        for (place, card) in cards.iter().enumerate() {
            if problem.candidates[card.candidate].trains(demand) && !card.locked && card.sets < SETS_HIGH {
                places.push((card.sets, session, place));
            }
        }
    }
    places.sort_unstable();
    for (_, session, place) in places {
        draft.sessions[session][place].sets += 1;
        if faults(draft) <= before {
            return Some(Gain { from: None });
        }
        for giver in 0..draft.sessions[session].len() {
            if !spares(problem, draft, session, giver) {
                continue;
            }
            draft.sessions[session][giver].sets -= 1;
            if faults(draft) <= before {
                return Some(Gain { from: Some(draft.sessions[session][giver].candidate) });
            }
            draft.sessions[session][giver].sets += 1;
        }
        draft.sessions[session][place].sets -= 1;
    }
    None
}

/// Whether a card can give a set: nothing that is chosen loses, and what it trains stays at or above its low line.
fn spares(problem: &PlanProblem, draft: &Draft, session: usize, place: usize) -> bool {
    let card = &draft.sessions[session][place];
    let keeps = |(demand, fraction): &(usize, f64)| {
        let wanted = &problem.demands[*demand];
        let left = dose_of(problem, draft, *demand) - fraction;
        wanted.class != Class::BringUp && (*fraction < 1.0 || left >= wanted.dose.low - 1e-9)
    };
    !card.locked && card.sets > SETS_LOW && problem.candidates[card.candidate].targets.iter().all(keeps)
}

/// Rules broken, the time of schemes included.
fn faults(problem: &PlanProblem, draft: &Draft) -> usize {
    let late = draft.sessions.iter().filter(|cards| cards_minutes(problem, cards) > problem.minutes + 1e-9).count();
    broken(problem, &draft.week(problem)).len() + late
}
