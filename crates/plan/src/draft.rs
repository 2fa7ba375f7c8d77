//! A week as a coach sees and bends it: cards in order, each with its sets and scheme, some locked.

use crate::order::ordered;
use crate::problem::PlanProblem;
use crate::week::Week;
use atlas::Scheme;
use units::{ExerciseId, RegionId};

/// One exercise of a day.
#[derive(Clone, Debug, PartialEq)]
pub struct Card {
    /// Candidate index.
    pub candidate: usize,
    /// Sets.
    pub sets: u16,
    /// How they are done.
    pub scheme: Scheme,
    /// Whether solving must leave it as it is.
    pub locked: bool,
}

impl Card {
    /// Hard sets it counts as.
    pub fn counted(&self) -> f64 {
        self.scheme.counted(self.sets)
    }
}

/// A week in the order of its days and cards.
#[derive(Clone, Debug, PartialEq)]
pub struct Draft {
    /// Cards by session, as many sessions as the problem has days.
    pub sessions: Vec<Vec<Card>>,
}

impl Draft {
    /// A solved week in the order of the coach's school, straight sets throughout. Cards of `locked` that are still in their
    /// session keep their scheme and stay locked.
    pub fn of_week(problem: &PlanProblem, week: &Week, locked: &Locks) -> Self {
        let card = |session: usize, candidate: usize, sets: u16| {
            let lock = locked.0.iter().find(|(s, card)| *s == session && card.candidate == candidate);
            let straight = || Card { candidate, sets, scheme: problem.straight.clone(), locked: false };
            lock.map_or_else(straight, |(_, card)| Card { sets, ..card.clone() })
        };
        let sessions = (0..week.session_count()).map(|session| {
            let items = ordered(problem, week.items(session).to_vec());
            items.into_iter().map(|(candidate, sets)| card(session, candidate, sets)).collect()
        });
        Self { sessions: sessions.collect() }
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

/// An exercise or region that a card names.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct CardPlace {
    /// Session index.
    pub session: usize,
    /// The exercise.
    pub exercise: ExerciseId,
}

/// Fractional sets a region gets from a card, and whether as its main target.
pub(crate) fn given(problem: &PlanProblem, card: &Card, region: &RegionId) -> (f64, bool) {
    let fraction = problem.candidates[card.candidate].exercise.fraction(region);
    let between = card.scheme.counts_for.as_ref() == Some(region);
    let carried = if between { f64::from(card.sets) } else { 0.0 };
    (card.counted() * fraction + carried, fraction >= 1.0 || between)
}
