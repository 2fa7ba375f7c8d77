//! A week as a coach sees and bends it: cards in order, each with its sets and scheme, some locked.

use crate::card::Card;
use crate::order::ordered;
use crate::problem::PlanProblem;
use crate::week::Week;
use atlas::STRAIGHT;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::BTreeSet;
use units::{ExerciseId, RegionId};
use utoipa::ToSchema;

/// A week in the order of its days and cards.
#[derive(Clone, Debug, PartialEq)]
pub struct Draft {
    /// Cards by session, as many sessions as the problem has days.
    pub sessions: Vec<Vec<Card>>,
}

impl Draft {
    /// A solved week in the order and the schemes of the coach's school, its pairs in turns. Cards of `locked` that are still in
    /// their session keep their scheme and stay locked.
    pub fn of_week(problem: &PlanProblem, week: &Week, locked: &Locks) -> Self {
        let card = |session: usize, candidate: usize, sets: u16| {
            let lock = locked.0.iter().find(|(s, card)| *s == session && card.candidate == candidate);
            lock.map_or_else(|| Card::usual(problem, candidate, sets), |(_, card)| Card { sets, ..card.clone() })
        };
        let sessions = (0..week.session_count()).map(|session| {
            let items = ordered(problem, week.items(session).to_vec());
            let cards = items.into_iter().map(|(candidate, sets)| card(session, candidate, sets)).collect();
            gathered(in_pairs(problem, cards))
        });
        Self { sessions: sessions.collect() }
    }

    /// What a coach wrote on the cards of an earlier week, kept where the same exercise still stands: on the same day with its
    /// scheme, else as written. Where a whole group still stands, it stays one, and what the coach took apart stays apart.
    #[must_use]
    pub fn keeping(mut self, before: &Self) -> Self {
        for (session, cards) in self.sessions.iter_mut().enumerate() {
            let day = before.sessions.get(session).map_or(&[] as &[Card], Vec::as_slice);
            relabel(cards, day);
            let apart = stood_together(cards, day);
            for card in cards.iter_mut().filter(|card| !card.locked) {
                let same = |other: &&Card| other.candidate == card.candidate;
                if let Some(here) = day.iter().find(same) {
                    // Straight sets are what nobody chose: there the school's scheme stands.
                    if here.scheme.id != STRAIGHT {
                        card.scheme.clone_from(&here.scheme);
                    }
                    card.written.clone_from(&here.written);
                    if here.group.is_some() || card.group.as_ref().is_some_and(|group| apart.contains(group)) {
                        card.group.clone_from(&here.group);
                    }
                } else if let Some(elsewhere) = before.sessions.iter().flatten().find(same) {
                    card.written.clone_from(&elsewhere.written);
                }
            }
            *cards = gathered(std::mem::take(cards));
        }
        self
    }

    /// A solved week as [`crate::present`] shows it: days without work are left out.
    pub fn worked(problem: &PlanProblem, week: &Week) -> Self {
        let mut draft = Self::of_week(problem, week, &Locks::default());
        draft.sessions.retain(|cards| !cards.is_empty());
        draft
    }

    /// Sets by exercise, without order and schemes.
    pub fn week(&self, problem: &PlanProblem) -> Week {
        let mut week = Week::empty(problem);
        for (session, cards) in self.sessions.iter().enumerate() {
            for card in cards {
                week.set(session, card.candidate, card.sets);
            }
        }
        week
    }

    /// The cards that solving must leave.
    pub fn locks(&self) -> Locks {
        let all =
            self.sessions.iter().enumerate().flat_map(|(s, cards)| cards.iter().map(move |card| (s, card.clone())));
        Locks(all.filter(|(_, card)| card.locked).collect())
    }
}

/// Puts pairs that stand on a day in turns, where neither is in a group yet: the first of a pair first, under a free letter.
fn in_pairs(problem: &PlanProblem, mut cards: Vec<Card>) -> Vec<Card> {
    for pair in &problem.pairs {
        let free = |candidate: usize| {
            cards.iter().position(|card| card.candidate == candidate && card.group.is_none() && !card.locked)
        };
        let [Some(one), Some(other)] = pair.of.map(free) else { continue };
        let letter = free_letter(&cards, &[]);
        for place in [one, other] {
            cards[place].group.clone_from(&letter);
        }
        if other < one {
            cards.swap(one, other);
        }
    }
    cards
}

/// A letter that no card of either day has.
fn free_letter(cards: &[Card], others: &[Card]) -> Option<String> {
    let taken = |letter: &str| cards.iter().chain(others).any(|card| card.group.as_deref() == Some(letter));
    ('A'..='Z').map(String::from).find(|letter| !taken(letter))
}

/// Puts the groups of a day under letters that another day does not use.
fn relabel(cards: &mut [Card], others: &[Card]) {
    let used = |group: &String| others.iter().any(|other| other.group.as_ref() == Some(group));
    let clashes: BTreeSet<String> = cards.iter().filter_map(|card| card.group.clone()).filter(used).collect();
    for old in clashes {
        let new = free_letter(cards, others);
        for card in cards.iter_mut().filter(|card| !card.locked && card.group.as_ref() == Some(&old)) {
            card.group.clone_from(&new);
        }
    }
}

/// Groups of a day all of whose cards stood on the same day before: whether they are in turns is as it was.
fn stood_together(cards: &[Card], before: &[Card]) -> BTreeSet<String> {
    let stood = |card: &Card| before.iter().any(|other| other.candidate == card.candidate);
    let whole = |group: &String| cards.iter().filter(|card| card.group.as_ref() == Some(group)).all(stood);
    cards.iter().filter_map(|card| card.group.clone()).filter(whole).collect()
}

/// Brings the cards of a group side by side, behind its first; a card whose group has no other is by itself.
pub(crate) fn gathered(cards: Vec<Card>) -> Vec<Card> {
    let mut left = cards;
    let mut together = Vec::new();
    while !left.is_empty() {
        let mut card = left.remove(0);
        let (rest, partners): (Vec<Card>, Vec<Card>) =
            left.into_iter().partition(|other| card.group.is_none() || other.group != card.group);
        if partners.is_empty() {
            card.group = None;
        }
        together.push(card);
        together.extend(partners);
        left = rest;
    }
    together
}

/// Cards that stay where they are, with their session.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Locks(pub Vec<(usize, Card)>);

impl Locks {
    /// The locked cards alone.
    pub fn draft(&self, problem: &PlanProblem) -> Draft {
        let mut sessions = vec![Vec::new(); problem.days.len()];
        for (session, card) in &self.0 {
            sessions[*session].push(card.clone());
        }
        Draft { sessions }
    }
}

/// A card of a week.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct CardPlace {
    /// Place of its day in the week, from 0.
    pub session: usize,
    /// The exercise.
    pub exercise: ExerciseId,
}

/// Fractional sets a region gets from a card, and whether as its main target.
pub(crate) fn given(problem: &PlanProblem, card: &Card, region: &RegionId) -> (f64, bool) {
    let fraction = problem.candidates[card.candidate].exercise.fraction(region);
    let between = card.scheme.counts_for.as_ref() == Some(region);
    let carried = if between { f64::from(card.sets) } else { 0.0 };
    (card.counted(problem) * fraction + carried, fraction >= 1.0 || between)
}
