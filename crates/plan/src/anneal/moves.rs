//! The steps from one week to the next.

use super::model::Model;
use super::state::{State, partner};
use super::weigh::Change;
use rand::RngExt;
use rand::rngs::Xoshiro256PlusPlus;
use rand::seq::IndexedRandom;

/// Sets of an exercise in one session.
pub(crate) const SETS_LOW: u16 = 2;
pub(crate) const SETS_HIGH: u16 = 5;

/// Sets that pass from one item to another at once, at most.
const PASSED: u16 = 3;

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
    /// Another exercise in every place of one.
    Replace(usize, usize),
    /// Two sessions change all that is not locked.
    Days(usize, usize),
    /// Sets from one item to another.
    Pass(Cell, Cell, u16),
    /// The sets that an exercise has in two sessions, shared out anew: so many for the item, the rest for the other session.
    Share(Cell, usize, u16),
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
            79..90 => replace(model, state, rng),
            90..94 => share(model, state, rng),
            94 => days(model, state, rng),
            _ => pass(model, state, rng),
        }
    }

    /// The cells that the step changes.
    pub fn changes(&self, model: &Model, state: &State, changes: &mut Vec<Change>) {
        let of = |(session, candidate): Cell| state.of(model, session, candidate);
        changes.clear();
        match *self {
            Self::Sets((session, candidate), sets) => changes.push((session, candidate, sets)),
            Self::Swap((session, candidate), other, sets) => {
                changes.extend([(session, candidate, 0), (session, other, sets)]);
            }
            Self::Shift((session, candidate), to) => {
                changes.extend([(session, candidate, 0), (to, candidate, of((session, candidate)))]);
            }
            Self::Exchange(one, two) => {
                changes.extend([
                    (one.0, one.1, 0),
                    (two.0, two.1, 0),
                    (one.0, two.1, of(two)),
                    (two.0, one.1, of(one)),
                ]);
            }
            Self::Replace(candidate, other) => {
                for session in 0..model.sessions {
                    let sets = of((session, candidate));
                    if sets > 0 {
                        changes.extend([(session, candidate, 0), (session, other, sets)]);
                    }
                }
            }
            Self::Days(one, other) => {
                for (from, to) in [(one, other), (other, one)] {
                    for &candidate in &state.items[from] {
                        if of((to, candidate)) != of((from, candidate)) {
                            changes.push((to, candidate, of((from, candidate))));
                        }
                        if of((to, candidate)) == 0 {
                            changes.push((from, candidate, 0));
                        }
                    }
                }
            }
            Self::Share((session, candidate), other, sets) => {
                let all = of((session, candidate)) + of((other, candidate));
                changes.extend([(session, candidate, sets), (other, candidate, all - sets)]);
            }
            Self::Pass(one, other, sets) => {
                // Too few to stay are left out.
                let left = if of(one) >= SETS_LOW + sets { of(one) - sets } else { 0 };
                changes.extend([(one.0, one.1, left), (other.0, other.1, of(other) + sets)]);
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

/// Of ten candidates so many are favourites, where there are any.
const FAVOURITES_OF_TEN: u32 = 7;
/// Candidates of which the most promising one is taken.
const THROWS: usize = 12;

/// A candidate that would help: a favourite, one whose doses are missed, one that the week has already, which costs no new exercise,
/// one for a region in want, or any.
fn wanted(model: &Model, state: &State, rng: &mut Xoshiro256PlusPlus) -> Option<usize> {
    if !model.favourites.is_empty() && rng.random_ratio(FAVOURITES_OF_TEN, 10) {
        return model.favourites.choose(rng).copied();
    }
    match rng.random_range(0..3_u32) {
        0 => return promising(model, state, rng),
        1 => return state.items[rng.random_range(0..model.sessions)].choose(rng).copied(),
        _ => {}
    }
    for _ in 0..4 {
        let demand = rng.random_range(0..model.demands);
        if model.asks[demand].is_short(state.total[demand])
            && let Some(candidate) = model.by_demand[demand].choose(rng)
        {
            return Some(*candidate);
        }
    }
    model.worthwhile.choose(rng).copied()
}

/// The one of a few candidates whose doses the week misses most for the time it takes.
fn promising(model: &Model, state: &State, rng: &mut Xoshiro256PlusPlus) -> Option<usize> {
    let mut best = None;
    for _ in 0..THROWS {
        let candidate = *model.worthwhile.choose(rng)?;
        let worth = state.worth(model, candidate);
        if best.is_none_or(|(most, _)| worth > most) {
            best = Some((worth, candidate));
        }
    }
    best.map(|(_, candidate)| candidate)
}

/// Whether a candidate can stand in a session in which it does not stand yet, when `leaving` goes.
fn free(model: &Model, state: &State, session: usize, candidate: usize, leaving: Option<usize>) -> bool {
    state.of(model, session, candidate) == 0
        && model.fits(session, candidate)
        && state.room(model, session, candidate, leaving)
}

/// Whether an exercise may come into a session as far as its own caps and the days beside go.
fn rested(model: &Model, state: &State, session: usize, candidate: usize) -> bool {
    let of = model.held[candidate];
    let there =
        |pair: &(usize, usize)| partner(*pair, session).is_some_and(|other| state.of(model, other, candidate) > 0);
    state.used[candidate] < of.caps.sessions && (of.daily || !model.near_pairs.iter().any(there))
}

fn add(model: &Model, state: &State, rng: &mut Xoshiro256PlusPlus) -> Option<Move> {
    let session = rng.random_range(0..model.sessions);
    let candidate = wanted(model, state, rng)?;
    let sets = rng.random_range(SETS_LOW..=4);
    let comes = free(model, state, session, candidate, None) && rested(model, state, session, candidate);
    comes.then_some(Move::Sets((session, candidate), sets))
}

fn swap(model: &Model, state: &State, rng: &mut Xoshiro256PlusPlus) -> Option<Move> {
    let (session, candidate) = item(model, state, rng)?;
    let other = relative(model, candidate, rng).filter(|_| rng.random::<bool>());
    let other = other.or_else(|| wanted(model, state, rng))?;
    let same = rng.random::<bool>();
    let sets = if same { state.of(model, session, candidate) } else { rng.random_range(SETS_LOW..=SETS_HIGH) };
    let comes = free(model, state, session, other, Some(candidate)) && rested(model, state, session, other);
    comes.then_some(Move::Swap((session, candidate), other, sets))
}

/// Every step that changes, swaps, shifts or takes out an item of a session, or adds one to it.
pub(super) fn around(model: &Model, state: &State, session: usize, all: &mut Vec<Move>) {
    let near = |sets: u16| [sets, sets - 1, sets + 1].into_iter().filter(|n| (SETS_LOW..=SETS_HIGH).contains(n));
    for &candidate in state.items[session].iter().filter(|candidate| model.open(session, **candidate)) {
        let (cell, now) = ((session, candidate), state.of(model, session, candidate));
        all.extend(near(now).filter(|n| *n != now).chain([0]).map(|n| Move::Sets(cell, n)));
        let comes =
            |other: usize| free(model, state, session, other, Some(candidate)) && rested(model, state, session, other);
        let others = model.worthwhile.iter().filter(|other| comes(**other));
        all.extend(others.flat_map(|other| near(now).map(move |n| Move::Swap(cell, *other, n))));
        for to in 0..model.sessions {
            if to != session && free(model, state, to, candidate, None) {
                all.push(Move::Shift(cell, to));
            }
            let shared = (0..=SETS_HIGH).map(|sets| Move::Share(cell, to, sets));
            all.extend(shared.filter(|step| shareable(model, state, step)));
            for &other in state.items[to].iter().filter(|other| model.open(to, **other)) {
                if (to, other) != cell {
                    let room = SETS_HIGH.saturating_sub(state.of(model, to, other)).min(PASSED);
                    all.extend((1..=room).map(|sets| Move::Pass(cell, (to, other), sets)));
                }
                if to > session && exchangeable(model, state, cell, (to, other)) {
                    all.push(Move::Exchange(cell, (to, other)));
                }
            }
        }
    }
    let comes =
        |candidate: usize| free(model, state, session, candidate, None) && rested(model, state, session, candidate);
    let fresh = model.worthwhile.iter().filter(|candidate| comes(**candidate));
    all.extend(fresh.flat_map(|candidate| (SETS_LOW..=4).map(move |sets| Move::Sets((session, *candidate), sets))));
}

/// Every replacement of an exercise of more than one session by another one.
pub(super) fn everywhere(model: &Model, state: &State, all: &mut Vec<Move>) {
    for candidate in 0..model.candidates {
        if state.used[candidate] > 1 {
            let others = model.worthwhile.iter().filter(|other| replaceable(model, state, candidate, **other));
            all.extend(others.map(|other| Move::Replace(candidate, *other)));
        }
    }
}

/// Another exercise with one of the same main regions.
fn relative(model: &Model, candidate: usize, rng: &mut Xoshiro256PlusPlus) -> Option<usize> {
    let main = model.targets_of(candidate).iter().find(|target| target.main)?;
    model.by_demand[main.to as usize].choose(rng).copied()
}

fn shift(model: &Model, state: &State, rng: &mut Xoshiro256PlusPlus) -> Option<Move> {
    let (session, candidate) = item(model, state, rng)?;
    let to = rng.random_range(0..model.sessions);
    (to != session && free(model, state, to, candidate, None)).then_some(Move::Shift((session, candidate), to))
}

fn exchange(model: &Model, state: &State, rng: &mut Xoshiro256PlusPlus) -> Option<Move> {
    let (one, other) = (item(model, state, rng)?, item(model, state, rng)?);
    exchangeable(model, state, one, other).then_some(Move::Exchange(one, other))
}

fn exchangeable(model: &Model, state: &State, one: Cell, other: Cell) -> bool {
    let apart = one.0 != other.0 && one.1 != other.1;
    apart && free(model, state, one.0, other.1, Some(one.1)) && free(model, state, other.0, one.1, Some(other.1))
}

fn replace(model: &Model, state: &State, rng: &mut Xoshiro256PlusPlus) -> Option<Move> {
    let (_, candidate) = item(model, state, rng)?;
    let other = relative(model, candidate, rng).filter(|_| rng.random::<bool>());
    let other = other.or_else(|| wanted(model, state, rng))?;
    replaceable(model, state, candidate, other).then_some(Move::Replace(candidate, other))
}

fn replaceable(model: &Model, state: &State, candidate: usize, other: usize) -> bool {
    let mut places = (0..model.sessions).filter(|session| state.of(model, *session, candidate) > 0);
    let fits = |session| model.open(session, candidate) && free(model, state, session, other, Some(candidate));
    other != candidate && places.all(fits)
}

/// Whether sets can be so many: none, or as many as an exercise has in a session.
fn fitting(sets: u16) -> bool {
    sets == 0 || (SETS_LOW..=SETS_HIGH).contains(&sets)
}

fn share(model: &Model, state: &State, rng: &mut Xoshiro256PlusPlus) -> Option<Move> {
    let (session, candidate) = item(model, state, rng)?;
    let other = rng.random_range(0..model.sessions);
    let step = Move::Share((session, candidate), other, rng.random_range(0..=SETS_HIGH));
    shareable(model, state, &step).then_some(step)
}

fn shareable(model: &Model, state: &State, step: &Move) -> bool {
    let Move::Share((session, candidate), other, sets) = *step else { return false };
    let (here, there) = (state.of(model, session, candidate), state.of(model, other, candidate));
    let place = if there > 0 { model.open(other, candidate) } else { free(model, state, other, candidate, None) };
    other != session && sets != here && here + there >= sets && fitting(sets) && fitting(here + there - sets) && place
}

/// Two days of one place that change all they have: where one is heavy the day before, the other may stand there.
fn days(model: &Model, state: &State, rng: &mut Xoshiro256PlusPlus) -> Option<Move> {
    let [one, other] = [rng.random_range(0..model.sessions), rng.random_range(0..model.sessions)];
    let open = |session: usize| state.items[session].iter().all(|candidate| model.open(session, *candidate));
    let fits = model.problem.home[one] == model.problem.home[other];
    (one != other && fits && open(one) && open(other)).then_some(Move::Days(one, other))
}

fn pass(model: &Model, state: &State, rng: &mut Xoshiro256PlusPlus) -> Option<Move> {
    let one = item(model, state, rng)?;
    let other = if rng.random::<bool>() {
        // Within a session the time stays much the same.
        let other = *state.items[one.0].choose(rng)?;
        model.open(one.0, other).then_some((one.0, other))?
    } else {
        item(model, state, rng)?
    };
    let sets = rng.random_range(1..=PASSED);
    let room = one != other && state.of(model, other.0, other.1) + sets <= SETS_HIGH;
    room.then_some(Move::Pass(one, other, sets))
}
