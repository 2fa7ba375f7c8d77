//! A session as it is run: set by set, side by side, the cards of a group in turns. Its time is what these steps take, and
//! the phone follows them.

use crate::card::Card;
use crate::problem::PlanProblem;
use crate::timing::{RAMP_REST_S, item_minutes};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use units::Side;
use utoipa::ToSchema;

/// Going from one exercise of a group to the next, s (common practice, no source).
const CHANGE_S: f64 = 10.0;
/// Rest after a round of a group at most, unless the coach writes another, s: 30 to 60 are usual (common practice, no source).
pub(crate) const ROUND_REST_S: u16 = 60;

/// One set of one side or of both.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct Step {
    /// Place of the card in the session, from 0.
    pub card: usize,
    /// The set, from 1; extra sets of the weaker side come after the others.
    pub set: u16,
    /// The side, when they take turns.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<Side>,
    /// Under tension, with what follows straight on the set, s.
    pub work_s: f64,
    /// Rest after it, s.
    pub rest_s: f64,
    /// Going to the next exercise of the group, s.
    #[serde(default, skip_serializing_if = "is_nothing")]
    pub change_s: f64,
}

/// Whether nothing is to be written down.
#[allow(clippy::trivially_copy_pass_by_ref, reason = "the serialiser gives a reference")]
fn is_nothing(s: &f64) -> bool {
    *s == 0.0
}

/// What a run needs of a card.
#[derive(Clone, Debug, PartialEq)]
pub struct RunCard {
    /// Work of each set, one side, s.
    pub work_s: Vec<f64>,
    /// Rest after a set, s. Within a group, rest before the next of the group; of its last card, rest after a round.
    pub rest_s: f64,
    /// Rest after a set that the others of the group have no partner for, s.
    pub alone_s: f64,
    /// The side that goes first, when they take turns.
    pub first: Option<Side>,
    /// Extra sets for the side that goes first.
    pub extra: u16,
    /// The group it is part of.
    pub group: Option<String>,
}

/// The places of cards that are run together: every card by itself, but neighbours of one group at once.
pub fn rounds<'a>(groups: impl IntoIterator<Item = Option<&'a str>>) -> Vec<std::ops::Range<usize>> {
    let mut found: Vec<(std::ops::Range<usize>, Option<&str>)> = Vec::new();
    for (place, group) in groups.into_iter().enumerate() {
        match found.last_mut() {
            Some((range, before)) if group.is_some() && *before == group => range.end = place + 1,
            _ => found.push((place..place + 1, group)),
        }
    }
    found.into_iter().map(|(range, _)| range).collect()
}

/// The steps of a session in order.
pub fn run(cards: &[RunCard]) -> Vec<Step> {
    let groups = rounds(cards.iter().map(|card| card.group.as_deref()));
    groups.into_iter().flat_map(|range| together(cards, range)).collect()
}

fn together(cards: &[RunCard], range: std::ops::Range<usize>) -> Vec<Step> {
    let grouped = range.len() > 1;
    let most = range.clone().map(|place| cards[place].work_s.len()).max().unwrap_or_default();
    let after_round = cards[range.end - 1].rest_s;
    let mut steps = Vec::new();
    for (set, number) in (0..most).zip(1..) {
        let here: Vec<usize> = range.clone().filter(|place| set < cards[*place].work_s.len()).collect();
        for (turn, place) in here.iter().enumerate() {
            let card = &cards[*place];
            let last = turn + 1 == here.len();
            let (rest_s, change_s) = match (grouped, last) {
                (false, _) => (card.rest_s, 0.0),
                (true, false) => (card.rest_s, CHANGE_S),
                // A card that goes on alone rests as it does alone.
                (true, true) if turn == 0 => (card.alone_s, 0.0),
                (true, true) => (after_round, 0.0),
            };
            sides(card, *place, (set, number), (rest_s, change_s), &mut steps);
        }
    }
    for place in range {
        let card = &cards[place];
        for extra in 0..card.extra {
            let set = u16::try_from(card.work_s.len()).unwrap_or(u16::MAX).saturating_add(extra + 1);
            // A set more is a usual one: what ends the last set is not done twice.
            let work_s = card.work_s.first().copied().unwrap_or_default();
            let rest_s = if grouped { card.alone_s } else { card.rest_s };
            steps.push(Step { card: place, set, side: card.first, work_s, rest_s, change_s: 0.0 });
        }
    }
    steps
}

/// A set of both sides, or of one after the other: while the second works the first rests.
fn sides(
    card: &RunCard,
    place: usize,
    (set, number): (usize, u16),
    (rest_s, change_s): (f64, f64),
    steps: &mut Vec<Step>,
) {
    let work_s = card.work_s[set];
    let step = |side, rest_s, change_s| Step { card: place, set: number, side, work_s, rest_s, change_s };
    match card.first {
        None => steps.push(step(None, rest_s, change_s)),
        Some(first) => {
            steps.push(step(Some(first), 0.0, 0.0));
            steps.push(step(Some(first.other()), (rest_s - work_s).max(0.0), change_s));
        }
    }
}

/// What a run needs of a day's cards.
pub(crate) fn run_cards(problem: &PlanProblem, cards: &[Card]) -> Vec<RunCard> {
    let groups = rounds(cards.iter().map(|card| card.group.as_deref()));
    let mut found = Vec::new();
    for range in groups {
        for place in range.clone() {
            let card = &cards[place];
            let candidate = &problem.candidates[card.candidate];
            let sets = card.sets_planned(problem);
            found.push(RunCard {
                work_s: sets.iter().map(|set| card.set_work_s(problem, set)).collect(),
                rest_s: f64::from(rest_s(problem, cards, &range, place)),
                alone_s: f64::from(card.written.rest_s.unwrap_or(candidate.time.rest_s)),
                first: candidate.one_sided.then(|| card.first(candidate)),
                extra: candidate.extra_sets_weaker,
                group: card.group.clone().filter(|_| range.len() > 1),
            });
        }
    }
    found
}

/// Rest after a set of a card: within a group none before the next of the group, and a short one after a round.
fn rest_s(problem: &PlanProblem, cards: &[Card], range: &std::ops::Range<usize>, place: usize) -> u16 {
    let usual = |place: usize| problem.candidates[cards[place].candidate].time.rest_s;
    let default = match (range.len() > 1, place + 1 == range.end) {
        (false, _) => usual(place),
        (true, false) => 0,
        (true, true) => range.clone().map(usual).max().unwrap_or_default().min(ROUND_REST_S),
    };
    cards[place].written.rest_s.unwrap_or(default)
}

/// Seconds of each card of a day, setting up and sets on the way up included.
pub(crate) fn cards_s(problem: &PlanProblem, cards: &[Card]) -> Vec<f64> {
    // A board is timed hundreds of times at an edit: plain cards by themselves need no steps to add up.
    let plain = |card: &Card| card.group.is_none() && card.is_plain(problem);
    if cards.iter().all(plain) {
        let minutes = |card: &Card| item_minutes(&problem.candidates[card.candidate], card.sets);
        return cards.iter().map(|card| minutes(card) * 60.0).collect();
    }
    stepped_s(problem, cards)
}

/// The same by the steps of the run.
pub(crate) fn stepped_s(problem: &PlanProblem, cards: &[Card]) -> Vec<f64> {
    let mut seconds: Vec<f64> = cards
        .iter()
        .map(|card| {
            let time = &problem.candidates[card.candidate].time;
            time.set_up_s + f64::from(card.scheme.warm_up_sets) * (time.work_s + RAMP_REST_S)
        })
        .collect();
    for step in run(&run_cards(problem, cards)) {
        seconds[step.card] += step.work_s + step.rest_s + step.change_s;
    }
    seconds
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    fn card(sets: usize, work_s: f64, rest_s: f64, group: Option<&str>) -> RunCard {
        RunCard {
            work_s: vec![work_s; sets],
            rest_s,
            alone_s: 45.0,
            first: None,
            extra: 0,
            group: group.map(str::to_owned),
        }
    }

    fn order(steps: &[Step]) -> Vec<(usize, u16)> {
        steps.iter().map(|step| (step.card, step.set)).collect()
    }

    #[test]
    fn a_group_is_run_in_turns_and_rests_after_the_round() {
        let steps = run(&[card(2, 40.0, 0.0, Some("A")), card(2, 40.0, 45.0, Some("A")), card(1, 30.0, 60.0, None)]);
        assert_eq!(order(&steps), [(0, 1), (1, 1), (0, 2), (1, 2), (2, 1)]);
        let rests: Vec<(f64, f64)> = steps.iter().map(|step| (step.rest_s, step.change_s)).collect();
        assert_eq!(rests, [(0.0, CHANGE_S), (45.0, 0.0), (0.0, CHANGE_S), (45.0, 0.0), (60.0, 0.0)]);
    }

    #[test]
    fn the_card_with_more_sets_goes_on_alone() {
        let steps = run(&[card(3, 40.0, 0.0, Some("A")), card(1, 40.0, 45.0, Some("A"))]);
        assert_eq!(order(&steps), [(0, 1), (1, 1), (0, 2), (0, 3)]);
        assert!((steps[3].rest_s - 45.0).abs() < 1e-12);
    }

    #[rstest]
    #[case::the_second_side_s_work_is_the_first_s_rest(40.0, 60.0, 20.0)]
    #[case::long_sets_need_no_rest_beside(80.0, 60.0, 0.0)]
    fn sides_take_turns_without_extra_rest(#[case] work_s: f64, #[case] rest_s: f64, #[case] left_s: f64) {
        let one_sided = RunCard { first: Some(Side::Right), extra: 1, ..card(1, work_s, rest_s, None) };
        let steps = run(&[one_sided]);
        let sides: Vec<_> = steps.iter().map(|step| (step.set, step.side)).collect();
        assert_eq!(sides, [(1, Some(Side::Right)), (1, Some(Side::Left)), (2, Some(Side::Right))]);
        assert!((steps[1].rest_s - left_s).abs() < 1e-12 && (steps[2].rest_s - rest_s).abs() < 1e-12);
    }

    // What is added up in one step is what the steps add up to, both sides and a set more for the weaker one included.
    #[rstest]
    #[case::both_sides_together("leg-extension")]
    #[case::one_side_after_the_other("one-arm-reverse-fly")]
    #[case::by_the_clock("dead-hang")]
    fn a_plain_card_takes_what_its_steps_take(#[case] exercise: &str) {
        let problem = crate::tests::problem(&serde_json::json!({}));
        let card = Card::usual(&problem, crate::tests::candidate(&problem, exercise), 3);
        let steps = run(&run_cards(&problem, std::slice::from_ref(&card)));
        let set_up_s = problem.candidates[card.candidate].time.set_up_s;
        let stepped: f64 = steps.iter().map(|step| step.work_s + step.rest_s).sum::<f64>() + set_up_s;
        assert!((cards_s(&problem, &[card])[0] - stepped).abs() < 1e-9, "{stepped}");
    }

    #[rstest]
    #[case::alone(&[None, None], &[0..1, 1..2])]
    #[case::two_groups_side_by_side(&[Some("A"), Some("A"), Some("B"), Some("B")], &[0..2, 2..4])]
    #[case::torn_apart(&[Some("A"), None, Some("A")], &[0..1, 1..2, 2..3])]
    fn neighbours_with_one_letter_are_run_together(
        #[case] groups: &[Option<&str>],
        #[case] expected: &[std::ops::Range<usize>],
    ) {
        assert_eq!(rounds(groups.iter().copied()), expected);
    }
}
