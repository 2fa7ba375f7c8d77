//! What one exercise more would change in a week: the search's own scales, for those who ask why something is not there.

use super::model::Model;
use super::state::State;
use super::weigh::Scratch;
use super::{NOTHING, SETS_LOW};
use crate::draft::Locks;
use crate::problem::PlanProblem;
use crate::week::Week;

/// A week to which something could be added.
pub(crate) struct Adding<'a> {
    model: Model<'a>,
    state: State,
    scratch: Scratch,
}

/// What adding something breaks anew.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub(crate) enum InTheWay {
    /// Nothing.
    Nothing,
    /// Time alone.
    Time,
    /// A limit of the week.
    Limit,
    /// Rest between sessions.
    Rest,
    /// Exercises of a session.
    Count,
    /// A rule of one exercise or its family.
    Exercise,
}

/// Something added.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Added {
    pub candidate: usize,
    pub session: usize,
    /// Sets of the exercise in the session then.
    pub sets: u16,
    /// What is in the way first.
    pub first: InTheWay,
    /// Kinds of things in the way.
    pub kinds: usize,
    /// Minutes over the session's time.
    pub over_minutes: f64,
    /// By how much the week becomes dearer.
    pub cost: f64,
}

impl<'a> Adding<'a> {
    pub fn to(problem: &'a PlanProblem, week: &Week) -> Self {
        let model = Model::whole(problem, &Locks::default());
        let mut sets = vec![0; model.sessions * model.candidates];
        for session in 0..week.session_count() {
            for (candidate, count) in week.items(session) {
                sets[session * model.candidates + candidate] = *count;
            }
        }
        Self { state: State::of_sets(&model, &sets), scratch: Scratch::new(&model), model }
    }

    /// An exercise where its equipment stands: as few sets as an exercise has, or one more where it is already; none where it
    /// has its most.
    pub fn try_one(&mut self, session: usize, candidate: usize) -> Option<Added> {
        let now = self.state.of(&self.model, session, candidate);
        let sets = if now == 0 { SETS_LOW } else { now + 1 };
        let most = self.model.held[candidate].caps.session_sets;
        if !self.model.fits(session, candidate) || sets > most {
            return None;
        }
        let room = now > 0 || self.state.family_room(&self.model, session, candidate);
        let weighed = self.state.weigh(&self.model, &[(session, candidate, sets)], &mut self.scratch);
        let ways = [
            (weighed.over_minutes > NOTHING, InTheWay::Time),
            (weighed.over_loads > 0, InTheWay::Limit),
            (weighed.tired > 0, InTheWay::Rest),
            (weighed.crowded > 0, InTheWay::Count),
            (weighed.broken > 0 || !room, InTheWay::Exercise),
        ];
        let mut there = ways.into_iter().filter(|(there, _)| *there).map(|(_, way)| way);
        let first = there.next().unwrap_or(InTheWay::Nothing);
        let kinds = usize::from(first != InTheWay::Nothing) + there.count();
        Some(Added { candidate, session, sets, first, kinds, over_minutes: weighed.over_minutes, cost: weighed.cost })
    }
}
