//! What was worked out before, used again until anything about its client, the practice's settings or the day changes.

use jiff::civil::Date;
use std::collections::HashMap;
use std::hash::{DefaultHasher, Hash, Hasher};
use std::sync::{Arc, Mutex, MutexGuard, PoisonError, TryLockError};

/// What a value follows from.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) struct Mark {
    /// Grows with every change of the client but for the log.
    pub stamp: i64,
    /// What of the log it follows from.
    pub log: i64,
    /// Grows with every change of anybody; only where the value follows from everybody.
    pub all: Option<i64>,
    /// Grows with every change of the practice's settings.
    pub settings: u64,
    /// The day it was worked out.
    pub day: Date,
}

type Shelf<V> = HashMap<String, (Mark, Arc<V>)>;

/// Values by what they are of.
pub(crate) struct Kept<V> {
    shelf: Arc<Mutex<Shelf<V>>>,
    turns: Arc<[Mutex<()>]>,
}

impl<V> Clone for Kept<V> {
    fn clone(&self) -> Self {
        Self { shelf: self.shelf.clone(), turns: self.turns.clone() }
    }
}

impl<V> Default for Kept<V> {
    fn default() -> Self {
        Self { shelf: Arc::default(), turns: (0..TURNS).map(|_| Mutex::default()).collect() }
    }
}

/// Values worked out at once at most: more than there are cores.
const TURNS: usize = 64;

/// Values kept at most: a few for each client of a large practice.
const MOST: usize = 8192;

impl<V> Kept<V> {
    /// A value and what it followed from, if one is kept.
    pub fn find(&self, of: &str) -> Option<(Mark, Arc<V>)> {
        self.shelf().get(of).cloned()
    }

    /// Keeps a value with what it follows from.
    pub fn keep(&self, of: &str, mark: Mark, value: V) -> Arc<V> {
        let value = Arc::new(value);
        let mut shelf = self.shelf();
        if shelf.len() >= MOST {
            shelf.clear();
        }
        shelf.insert(of.to_owned(), (mark, value.clone()));
        value
    }

    /// The value, worked out anew when what it follows from has changed.
    pub fn get<E>(&self, of: &str, mark: Mark, work_out: impl FnOnce() -> Result<V, E>) -> Result<Arc<V>, E> {
        let found = || self.find(of).filter(|(kept, _)| *kept == mark).map(|(_, value)| value);
        if let Some(value) = found() {
            return Ok(value);
        }
        let _turn = self.turn(of);
        // Whoever had the turn before may have worked it out.
        found().map_or_else(|| Ok(self.keep(of, mark, work_out()?)), Ok)
    }

    /// The same, but while somebody else works it out anew the old value still serves.
    pub fn get_soon<E>(&self, of: &str, mark: Mark, work_out: impl FnOnce() -> Result<V, E>) -> Result<Arc<V>, E> {
        match self.find(of) {
            Some((kept, value)) if kept == mark || self.is_worked_out(of) => Ok(value),
            _ => self.get(of, mark, work_out),
        }
    }

    fn is_worked_out(&self, of: &str) -> bool {
        matches!(self.turns[place(of)].try_lock(), Err(TryLockError::WouldBlock))
    }

    /// One at a time works out the same value; the others wait for it.
    pub fn turn(&self, of: &str) -> MutexGuard<'_, ()> {
        self.turns[place(of)].lock().unwrap_or_else(PoisonError::into_inner)
    }

    /// Forgets everything.
    pub fn clear(&self) {
        self.shelf().clear();
    }

    fn shelf(&self) -> MutexGuard<'_, Shelf<V>> {
        self.shelf.lock().unwrap_or_else(PoisonError::into_inner)
    }
}

fn place(of: &str) -> usize {
    let mut hasher = DefaultHasher::new();
    of.hash(&mut hasher);
    usize::try_from(hasher.finish() % TURNS as u64).unwrap_or_default()
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    const MARK: Mark = Mark { stamp: 4, log: 7, all: None, settings: 1, day: Date::constant(2026, 3, 2) };

    #[rstest]
    #[case::nothing_changed(MARK, 1)]
    #[case::the_client_changed(Mark { stamp: 5, ..MARK }, 2)]
    #[case::something_was_logged(Mark { log: 8, ..MARK }, 2)]
    #[case::somebody_changed(Mark { all: Some(9), ..MARK }, 2)]
    #[case::the_settings_changed(Mark { settings: 2, ..MARK }, 2)]
    #[case::a_new_day(Mark { day: Date::constant(2026, 3, 3), ..MARK }, 2)]
    fn a_value_is_worked_out_again_only_after_a_change(#[case] mark: Mark, #[case] value: i32) {
        let kept = Kept::default();
        kept.get::<()>("a", MARK, || Ok(1)).unwrap();
        assert_eq!(*kept.get::<()>("a", mark, || Ok(2)).unwrap(), value);
    }

    #[test]
    fn the_old_value_serves_while_a_new_one_is_worked_out() {
        let kept = Kept::default();
        kept.get::<()>("a", MARK, || Ok(1)).unwrap();
        let later = Mark { log: 8, ..MARK };
        let turn = kept.turn("a");
        assert_eq!(*kept.get_soon::<()>("a", later, || Ok(2)).unwrap(), 1);
        drop(turn);
        assert_eq!(*kept.get_soon::<()>("a", later, || Ok(2)).unwrap(), 2);
    }

    #[test]
    fn a_failure_is_not_kept() {
        let kept = Kept::default();
        assert!(kept.get("a", MARK, || Err("broken")).is_err());
        assert_eq!(*kept.get::<()>("a", MARK, || Ok(3)).unwrap(), 3);
    }
}
