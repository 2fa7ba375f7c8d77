//! What was worked out before, used again until anything about its client, the practice's settings or the day changes.

use jiff::civil::Date;
use std::collections::HashMap;
use std::sync::{Arc, Mutex, PoisonError};

/// What a value follows from.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) struct Mark {
    /// Grows with every change of the client, or of anybody where the value follows from all.
    pub stamp: i64,
    /// Grows with every change of the practice's settings.
    pub settings: u64,
    /// The day it was worked out.
    pub day: Date,
}

type Shelf<V> = HashMap<String, (Mark, Arc<V>)>;

/// Values by what they are of.
pub(crate) struct Kept<V>(Arc<Mutex<Shelf<V>>>);

impl<V> Clone for Kept<V> {
    fn clone(&self) -> Self {
        Self(self.0.clone())
    }
}

impl<V> Default for Kept<V> {
    fn default() -> Self {
        Self(Arc::default())
    }
}

/// Values kept at most: a few for each client of a large practice.
const MOST: usize = 4096;

impl<V> Kept<V> {
    /// The value, worked out anew when what it follows from has changed.
    pub fn get<E>(&self, of: &str, mark: Mark, work_out: impl FnOnce() -> Result<V, E>) -> Result<Arc<V>, E> {
        let known = self.shelf().get(of).filter(|(kept, _)| *kept == mark).map(|(_, value)| value.clone());
        if let Some(value) = known {
            return Ok(value);
        }
        let value = Arc::new(work_out()?);
        let mut shelf = self.shelf();
        if shelf.len() >= MOST {
            shelf.clear();
        }
        shelf.insert(of.to_owned(), (mark, value.clone()));
        Ok(value)
    }

    fn shelf(&self) -> std::sync::MutexGuard<'_, Shelf<V>> {
        self.0.lock().unwrap_or_else(PoisonError::into_inner)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    const MARK: Mark = Mark { stamp: 4, settings: 1, day: Date::constant(2026, 3, 2) };

    #[rstest]
    #[case::nothing_changed(MARK, 1)]
    #[case::the_client_changed(Mark { stamp: 5, ..MARK }, 2)]
    #[case::the_settings_changed(Mark { settings: 2, ..MARK }, 2)]
    #[case::a_new_day(Mark { day: Date::constant(2026, 3, 3), ..MARK }, 2)]
    fn a_value_is_worked_out_again_only_after_a_change(#[case] mark: Mark, #[case] value: i32) {
        let kept = Kept::default();
        kept.get::<()>("a", MARK, || Ok(1)).unwrap();
        assert_eq!(*kept.get::<()>("a", mark, || Ok(2)).unwrap(), value);
    }

    #[test]
    fn a_failure_is_not_kept() {
        let kept = Kept::default();
        assert!(kept.get("a", MARK, || Err("broken")).is_err());
        assert_eq!(*kept.get::<()>("a", MARK, || Ok(3)).unwrap(), 3);
    }
}
