//! Actions of a region that nobody chose take turns from week to week: in every second week another exercise stands in a card's
//! place. A chosen region has all of its actions in every week ([`crate::CoverOf::Action`]).

use crate::aims::Cover;
use crate::block::dose_of;
use crate::card::Card;
use crate::cost::cost;
use crate::draft::Draft;
use crate::faults::faults;
use crate::problem::PlanProblem;
use assess::Class;

/// A card in whose place another stands in every second week.
#[derive(Clone, Debug, PartialEq)]
pub struct InTurn {
    /// Its day.
    pub session: usize,
    /// Its place in the day.
    pub place: usize,
    /// What stands there in the second week, the fourth and so on: as usual, as many sets, in the same group.
    pub card: Card,
    /// Of which region, as demand index.
    pub demand: usize,
    /// What it does of the region's work that no card of the first week does.
    pub action: String,
}

/// The cards that others take turns with. Locked cards stay every week. No rule more is broken in the other week, no part, movement or
/// stretch more is missing, and no chosen region gets less.
pub fn in_turn(problem: &PlanProblem, draft: &Draft) -> Vec<InTurn> {
    let mut found: Vec<InTurn> = Vec::new();
    for (demand, wanted) in problem.demands.iter().enumerate().filter(|(_, wanted)| wanted.class != Class::BringUp) {
        let is_there = |action: &&String| {
            draft.sessions.iter().flatten().any(|card| does(problem, card.candidate, demand, action))
        };
        let there: Vec<&String> = wanted.actions.iter().filter(is_there).collect();
        if there.is_empty() {
            continue;
        }
        for action in wanted.actions.iter().filter(|action| !there.contains(action)) {
            let other = turned(draft, &found);
            found.extend(best(problem, (draft, &other), (demand, action), &found));
        }
    }
    found
}

/// The week in which the others stand.
pub fn turned(draft: &Draft, turns: &[InTurn]) -> Draft {
    let mut other = draft.clone();
    for InTurn { session, place, card, .. } in turns {
        let sets = other.sessions[*session][*place].sets;
        other.sessions[*session][*place] = Card { sets, ..card.clone() };
    }
    other
}

/// Whether an exercise does an action of a region.
fn does(problem: &PlanProblem, candidate: usize, demand: usize, action: &String) -> bool {
    let candidate = &problem.candidates[candidate];
    candidate.trains(demand) && candidate.exercise.actions.contains(action)
}

/// What would stand for an action of a region, and in whose place: where the other week costs least.
fn best(
    problem: &PlanProblem,
    (first, other): (&Draft, &Draft),
    (demand, action): (usize, &String),
    taken: &[InTurn],
) -> Option<InTurn> {
    let standing = [first, other].map(|draft| Standing::of(problem, draft));
    let able: Vec<usize> = (0..problem.candidates.len())
        .filter(|c| does(problem, *c, demand, action) && problem.worth_doing(&problem.candidates[*c]))
        .collect();
    let mut best: Option<(f64, InTurn)> = None;
    for (session, place) in places(other) {
        let cards = &other.sessions[session];
        let card = &cards[place];
        let acts = problem.demands[demand].actions.iter().any(|own| does(problem, card.candidate, demand, own));
        if card.locked || !acts || taken.iter().any(|turn| (turn.session, turn.place) == (session, place)) {
            continue;
        }
        for candidate in able.iter().copied() {
            let stands = problem.candidates[candidate].stands[usize::from(problem.home[session])];
            if !stands || cards.iter().any(|card| card.candidate == candidate) {
                continue;
            }
            let card = Card { group: card.group.clone(), ..Card::usual(problem, candidate, card.sets) };
            let turn = InTurn { session, place, card, demand, action: action.clone() };
            let then = turned(other, std::slice::from_ref(&turn));
            let price = cost(problem, &then.week(problem));
            let better = best.as_ref().is_none_or(|(least, _)| price < *least - 1e-9);
            let then = Standing::of(problem, &then);
            if better && standing.iter().all(|before| then.no_worse_than(before)) {
                best = Some((price, turn));
            }
        }
    }
    best.map(|(_, turn)| turn)
}

/// Every card's day and place.
fn places(draft: &Draft) -> impl Iterator<Item = (usize, usize)> {
    let days = draft.sessions.iter().enumerate();
    days.flat_map(|(session, cards)| (0..cards.len()).map(move |place| (session, place)))
}

/// What another week must not make worse.
struct Standing {
    faults: usize,
    missing: usize,
    /// Of the chosen regions.
    doses: Vec<f64>,
}

impl Standing {
    fn of(problem: &PlanProblem, draft: &Draft) -> Self {
        let cards = || draft.sessions.iter().flatten();
        let empty = problem.floors.iter().filter(|floor| floor.sets_of(problem, draft) < floor.least - 1e-9).count();
        let done = |cover: &&Cover| cards().any(|card| cover.by(problem, &problem.candidates[card.candidate]));
        let without = problem.covers.iter().filter(|cover| !done(cover)).count();
        let chosen = (0..problem.demands.len()).filter(|demand| problem.demands[*demand].class == Class::BringUp);
        Self {
            faults: faults(problem, draft).len(),
            missing: empty + without,
            doses: chosen.map(|demand| dose_of(problem, draft, demand)).collect(),
        }
    }

    fn no_worse_than(&self, other: &Self) -> bool {
        let doses = self.doses.iter().zip(&other.doses);
        self.faults <= other.faults && self.missing <= other.missing && doses.into_iter().all(|(a, b)| *a >= b - 1e-9)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::tests::{candidate, problem};
    use rstest::rstest;
    use serde_json::{Value, json};

    /// Four days of which the last has these cards of two sets.
    fn with(problem: &PlanProblem, ids: &[&str]) -> Draft {
        let mut sessions = vec![Vec::new(); problem.days.len()];
        let day = ids.iter().map(|id| Card::usual(problem, candidate(problem, id), 2));
        sessions[3] =
            [Card::usual(problem, candidate(problem, "seated-row-close"), 2)].into_iter().chain(day).collect();
        Draft { sessions }
    }

    fn said(problem: &PlanProblem, draft: &Draft) -> Vec<(String, String)> {
        let name = |turn: &InTurn| problem.candidates[turn.card.candidate].exercise.id.to_string();
        in_turn(problem, draft).iter().map(|turn| (turn.action.clone(), name(turn))).collect()
    }

    // Which exercise does which action is common practice, no source.
    #[rstest]
    #[case::nothing_that_acts(&[], json!({}), None)]
    #[case::turning_out_has_turning_in(&["rope-supination"], json!({}), Some("turning-in"))]
    #[case::turning_in_has_turning_out(&["rope-pronation"], json!({}), Some("turning-out"))]
    #[case::both_are_there(&["rope-pronation", "rope-supination"], json!({}), None)]
    #[case::it_is_excluded(&["rope-pronation"], json!({"excluded_exercises": ["rope-supination", "band-forearm-turn"]}), None)]
    #[case::wrists_up_have_wrists_aside(&["roll-and-reverse-curl"], json!({}), Some("radial-deviation"))]
    fn an_action_that_is_missing_takes_its_turn(
        #[case] ids: &[&str],
        #[case] change: Value,
        #[case] action: Option<&str>,
    ) {
        let problem = problem(&change);
        let said = said(&problem, &with(&problem, ids));
        assert_eq!(said.iter().map(|(action, _)| action.as_str()).next(), action, "{said:?}");
    }

    #[test]
    fn a_locked_card_stays_every_week() {
        let problem = problem(&json!({}));
        let mut draft = with(&problem, &["rope-pronation"]);
        draft.sessions[3][1].locked = true;
        assert_eq!(in_turn(&problem, &draft), []);
    }

    #[test]
    fn a_chosen_region_has_all_it_does_every_week() {
        let mut problem = problem(&json!({}));
        let draft = with(&problem, &["rope-pronation"]);
        for demand in &mut problem.demands {
            demand.class = Class::BringUp;
        }
        assert_eq!(in_turn(&problem, &draft), []);
    }

    #[test]
    fn the_other_week_stands_in_the_same_place_with_the_same_sets_and_no_rule_more_is_broken() {
        let problem = problem(&json!({}));
        let draft = with(&problem, &["rope-pronation"]);
        let turns = in_turn(&problem, &draft);
        let other = turned(&draft, &turns);
        let ids = |draft: &Draft| -> Vec<(usize, u16)> {
            draft.sessions[3].iter().map(|card| (card.candidate, card.sets)).collect()
        };
        assert_eq!(ids(&other), [ids(&draft)[0], (candidate(&problem, "rope-supination"), 2)]);
        assert!(faults(&problem, &other).len() <= faults(&problem, &draft).len());
    }
}
