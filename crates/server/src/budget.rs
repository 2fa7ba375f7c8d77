//! What one person may keep the machine busy with at a time, so that nobody else waits for it.

use crate::error::ApiError;
use std::collections::HashMap;
use std::sync::atomic::{AtomicUsize, Ordering};
use std::sync::{Arc, Mutex, PoisonError};
use tokio::sync::{OwnedSemaphorePermit, Semaphore};

/// Of one person so many may wait; more are sent away with a sentence.
const WAITING: usize = 16;

/// One turn at a time for everybody, and so many for all together. Whoever gives up while waiting gives up their place.
#[derive(Clone)]
pub(crate) struct Budget {
    people: Arc<Mutex<HashMap<String, Person>>>,
    all: Arc<Semaphore>,
}

#[derive(Clone)]
struct Person {
    turn: Arc<Semaphore>,
    waiting: Arc<AtomicUsize>,
}

/// A place in a person's own line, given back when it is dropped.
struct Place(Arc<AtomicUsize>);

impl Drop for Place {
    fn drop(&mut self) {
        self.0.fetch_sub(1, Ordering::Relaxed);
    }
}

/// A person's own turn; work of theirs waits for its end.
pub(crate) struct OwnTurn {
    _own: OwnedSemaphorePermit,
    all: Arc<Semaphore>,
}

/// A turn at the work itself.
pub(crate) struct Turn {
    _own: OwnTurn,
    _shared: OwnedSemaphorePermit,
}

impl Budget {
    /// A budget of `at_once` turns for all together.
    pub fn new(at_once: usize) -> Self {
        Self { people: Arc::default(), all: Arc::new(Semaphore::new(at_once)) }
    }

    /// Waits for whatever else this person has under way.
    ///
    /// # Errors
    /// [`ApiError::Busy`] when too much of theirs waits already.
    pub async fn own_turn(&self, who: &str) -> Result<OwnTurn, ApiError> {
        let person = self.person(who);
        if person.waiting.fetch_add(1, Ordering::Relaxed) >= WAITING {
            person.waiting.fetch_sub(1, Ordering::Relaxed);
            let says = "You have asked for too much at once: wait for what is under way, then ask again.";
            return Err(ApiError::Busy(says.to_owned()));
        }
        let place = Place(person.waiting);
        let own = person.turn.acquire_owned().await.map_err(|error| ApiError::Internal(error.to_string()))?;
        drop(place);
        Ok(OwnTurn { _own: own, all: self.all.clone() })
    }

    /// Waits for this person's own turn and then for one of those for all.
    ///
    /// # Errors
    /// As [`Self::own_turn`].
    pub async fn turn(&self, who: &str) -> Result<Turn, ApiError> {
        self.own_turn(who).await?.and_shared().await
    }

    fn person(&self, who: &str) -> Person {
        let mut people = self.people.lock().unwrap_or_else(PoisonError::into_inner);
        let new = || Person { turn: Arc::new(Semaphore::new(1)), waiting: Arc::default() };
        people.entry(who.to_owned()).or_insert_with(new).clone()
    }
}

impl OwnTurn {
    /// Waits for one of the turns for all.
    pub async fn and_shared(self) -> Result<Turn, ApiError> {
        let shared = self.all.clone().acquire_owned().await.map_err(|error| ApiError::Internal(error.to_string()))?;
        Ok(Turn { _own: self, _shared: shared })
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use futures_util::FutureExt;

    #[actix_web::test]
    async fn one_person_s_second_turn_waits_and_another_s_first_does_not() {
        let budget = Budget::new(2);
        let first = budget.turn("jo").await.unwrap();
        let mut second = Box::pin(budget.turn("jo"));
        assert!(second.as_mut().now_or_never().is_none());
        assert!(budget.turn("mara").now_or_never().unwrap().is_ok());
        drop(first);
        assert!(second.await.is_ok());
    }

    #[actix_web::test]
    async fn whoever_waits_too_often_is_told_and_whoever_gives_up_gives_their_place_back() {
        let budget = Budget::new(2);
        let _held = budget.turn("jo").await.unwrap();
        let mut waiting: Vec<_> = (0..WAITING).map(|_| Box::pin(budget.turn("jo"))).collect();
        for one in &mut waiting {
            assert!(one.as_mut().now_or_never().is_none());
        }
        assert!(matches!(budget.turn("jo").now_or_never(), Some(Err(ApiError::Busy(_)))));
        waiting.pop();
        assert!(budget.turn("jo").now_or_never().is_none());
    }
}
