//! The steps from one week to the next.

use super::state::{Model, State};
use rand::RngExt;
use rand::rngs::Xoshiro256PlusPlus;
use rand::seq::IndexedRandom;

/// Sets of an exercise in one session.
pub(crate) const SETS_LOW: u16 = 2;
pub(crate) const SETS_HIGH: u16 = 5;

/// A cell of the week.
type Cell = (usize, usize);

/// One step.
#[derive(Clone, Debug)]
pub(super) enum Move {
    /// Other sets for an item; 0 takes it out.
    Sets(Cell, u16),
    /// Another exercise in an item's place, with so many sets.
    Swap(Cell, usize, u16),
    /// An item to another session.
    Shift(Cell, usize),
    /// Two items of two sessions change places.
    Exchange(Cell, Cell),
    /// Another exercise in every place of one; where it stands already, it takes the sets over.
    Replace(usize, usize),
    /// A set from one item to another.
    Pass(Cell, Cell),
}

impl Move {
    /// A step that can be tried; `None` when this throw of the dice gives none.
    pub fn random(model: &Model, state: &State, rng: &mut Xoshiro256PlusPlus) -> Option<Self> {
        match rng.random_range(0..100_u32) {
            0..24 => sets(model, state, rng),
            24..46 => add(model, state, rng),
            46..50 => Some(Self::Sets(item(model, state, rng)?, 0)),
            50..66 => swap(model, state, rng),
            66..74 => shift(model, state, rng),
            74..79 => exchange(model, state, rng),
            79..92 => replace(model, state, rng),
            _ => pass(model, state, rng),
        }
    }

    /// Carries the step out and notes how to take it back, last change last.
    pub fn apply(&self, model: &Model, state: &mut State, undo: &mut Vec<(usize, usize, u16)>) {
        let mut change = |state: &mut State, session: usize, candidate: usize, sets: u16| {
            let old = state.change(model, session, candidate, sets);
            undo.push((session, candidate, old));
        };
        match *self {
            Self::Sets((session, candidate), sets) => change(state, session, candidate, sets),
            Self::Swap((session, candidate), other, sets) => {
                change(state, session, candidate, 0);
                change(state, session, other, sets);
            }
            Self::Shift((session, candidate), to) => {
                let sets = state.of(model, session, candidate);
                change(state, session, candidate, 0);
                change(state, to, candidate, sets);
            }
            Self::Exchange((session, candidate), (to, other)) => {
                let (sets, theirs) = (state.of(model, session, candidate), state.of(model, to, other));
                change(state, session, candidate, 0);
                change(state, to, other, 0);
                change(state, session, other, theirs);
                change(state, to, candidate, sets);
            }
            Self::Replace(candidate, other) => {
                for session in 0..model.sessions {
                    let sets = state.of(model, session, candidate);
                    if sets > 0 {
                        let there = state.of(model, session, other);
                        change(state, session, candidate, 0);
                        change(state, session, other, (there + sets).min(SETS_HIGH));
                    }
                }
            }
            Self::Pass((session, candidate), (to, other)) => {
                let (sets, theirs) = (state.of(model, session, candidate), state.of(model, to, other));
                let left = if sets > SETS_LOW { sets - 1 } else { 0 };
                change(state, session, candidate, left);
                change(state, to, other, theirs + 1);
            }
        }
    }
}

/// Any item of the week that is not locked.
fn item(model: &Model, state: &State, rng: &mut Xoshiro256PlusPlus) -> Option<Cell> {
    let count: usize = state.items.iter().map(Vec::len).sum();
    if count == 0 {
        return None;
    }
    let mut place = rng.random_range(0..count);
    for (session, items) in state.items.iter().enumerate() {
        match items.get(place) {
            Some(candidate) => return model.open(session, *candidate).then_some((session, *candidate)),
            None => place -= items.len(),
        }
    }
    None
}

fn sets(model: &Model, state: &State, rng: &mut Xoshiro256PlusPlus) -> Option<Move> {
    let (session, candidate) = item(model, state, rng)?;
    let old = state.of(model, session, candidate);
    let new = if rng.random::<bool>() { old + 1 } else { old - 1 };
    (SETS_LOW..=SETS_HIGH).contains(&new).then_some(Move::Sets((session, candidate), new))
}

/// A candidate that would help: one that the week has already, which costs no new exercise, one for a region in want, or any.
fn wanted(model: &Model, state: &State, rng: &mut Xoshiro256PlusPlus) -> Option<usize> {
    match rng.random_range(0..3_u32) {
        0 => return model.worthwhile.choose(rng).copied(),
        1 => return state.items[rng.random_range(0..model.sessions)].choose(rng).copied(),
        _ => {}
    }
    let demands = &model.problem.demands;
    for _ in 0..4 {
        let demand = rng.random_range(0..demands.len());
        if f64::from(state.total[demand]) < 4.0 * demands[demand].dose.aim
            && let Some(candidate) = model.by_demand[demand].choose(rng)
        {
            return Some(*candidate);
        }
    }
    model.worthwhile.choose(rng).copied()
}

/// Whether a candidate can stand in a session in which it does not stand yet, when `leaving` goes.
fn free(model: &Model, state: &State, session: usize, candidate: usize, leaving: Option<usize>) -> bool {
    state.of(model, session, candidate) == 0
        && model.fits(session, candidate)
        && state.room(model, session, candidate, leaving)
}

fn add(model: &Model, state: &State, rng: &mut Xoshiro256PlusPlus) -> Option<Move> {
    let session = rng.random_range(0..model.sessions);
    let candidate = wanted(model, state, rng)?;
    let sets = rng.random_range(SETS_LOW..=4);
    free(model, state, session, candidate, None).then_some(Move::Sets((session, candidate), sets))
}

fn swap(model: &Model, state: &State, rng: &mut Xoshiro256PlusPlus) -> Option<Move> {
    let (session, candidate) = item(model, state, rng)?;
    let other = relative(model, candidate, rng).filter(|_| rng.random::<bool>());
    let other = other.or_else(|| wanted(model, state, rng))?;
    let same = rng.random::<bool>();
    let sets = if same { state.of(model, session, candidate) } else { rng.random_range(SETS_LOW..=SETS_HIGH) };
    free(model, state, session, other, Some(candidate)).then_some(Move::Swap((session, candidate), other, sets))
}

/// Every step that changes, swaps, shifts or takes out an item of a session, or adds one to it.
pub(super) fn around(model: &Model, state: &State, session: usize) -> Vec<Move> {
    let mut all = Vec::new();
    for &candidate in state.items[session].iter().filter(|candidate| model.open(session, **candidate)) {
        let (cell, now) = ((session, candidate), state.of(model, session, candidate));
        all.extend(
            [0, now - 1, now + 1]
                .into_iter()
                .filter(|n| *n == 0 || (SETS_LOW..=SETS_HIGH).contains(n))
                .map(|n| Move::Sets(cell, n)),
        );
        let others = model.worthwhile.iter().filter(|other| free(model, state, session, **other, Some(candidate)));
        all.extend(others.flat_map(|other| {
            [now, now - 1, now + 1]
                .into_iter()
                .filter(|n| (SETS_LOW..=SETS_HIGH).contains(n))
                .map(move |n| Move::Swap(cell, *other, n))
        }));
        let days = (0..model.sessions).filter(|to| *to != session && free(model, state, *to, candidate, None));
        all.extend(days.map(|to| Move::Shift(cell, to)));
        let passes = (0..model.sessions).flat_map(|to| state.items[to].iter().map(move |other| (to, *other)));
        let passes =
            passes.filter(|to| *to != cell && model.open(to.0, to.1) && state.of(model, to.0, to.1) < SETS_HIGH);
        all.extend(passes.map(|to| Move::Pass(cell, to)));
    }
    let fresh = model.worthwhile.iter().filter(|candidate| free(model, state, session, **candidate, None));
    all.extend(fresh.flat_map(|candidate| (SETS_LOW..=4).map(move |sets| Move::Sets((session, *candidate), sets))));
    all
}

/// Another exercise with one of the same main regions.
fn relative(model: &Model, candidate: usize, rng: &mut Xoshiro256PlusPlus) -> Option<usize> {
    let targets = &model.problem.candidates[candidate].targets;
    let (demand, _) = targets.iter().find(|(_, fraction)| *fraction >= 1.0)?;
    model.by_demand[*demand].choose(rng).copied()
}

fn shift(model: &Model, state: &State, rng: &mut Xoshiro256PlusPlus) -> Option<Move> {
    let (session, candidate) = item(model, state, rng)?;
    let to = rng.random_range(0..model.sessions);
    (to != session && free(model, state, to, candidate, None)).then_some(Move::Shift((session, candidate), to))
}

fn exchange(model: &Model, state: &State, rng: &mut Xoshiro256PlusPlus) -> Option<Move> {
    let (one, other) = (item(model, state, rng)?, item(model, state, rng)?);
    let apart = one.0 != other.0 && one.1 != other.1;
    let fits =
        apart && free(model, state, one.0, other.1, Some(one.1)) && free(model, state, other.0, one.1, Some(other.1));
    fits.then_some(Move::Exchange(one, other))
}

fn replace(model: &Model, state: &State, rng: &mut Xoshiro256PlusPlus) -> Option<Move> {
    let (_, candidate) = item(model, state, rng)?;
    let other = relative(model, candidate, rng).filter(|_| rng.random::<bool>());
    let other = other.or_else(|| wanted(model, state, rng))?;
    let places = (0..model.sessions).filter(|session| state.of(model, *session, candidate) > 0);
    let fits = other != candidate
        && places
            .into_iter()
            .all(|session| model.open(session, candidate) && free(model, state, session, other, Some(candidate)));
    fits.then_some(Move::Replace(candidate, other))
}

fn pass(model: &Model, state: &State, rng: &mut Xoshiro256PlusPlus) -> Option<Move> {
    let (one, other) = (item(model, state, rng)?, item(model, state, rng)?);
    let room = one != other && state.of(model, other.0, other.1) < SETS_HIGH;
    room.then_some(Move::Pass(one, other))
}
