//! What one person may keep the machine busy with at a time, so that nobody else waits for it.

use super::ApiError;
use crate::auth::SESSION_COOKIES;
use crate::state::AppState;
use actix_web::body::{EitherBody, MessageBody};
use actix_web::dev::{ServiceRequest, ServiceResponse};
use actix_web::http::header::AUTHORIZATION;
use actix_web::middleware::Next;
use actix_web::{ResponseError, web};
use desk::{Desk, DeskError};
use std::collections::HashMap;
use std::sync::atomic::{AtomicUsize, Ordering};
use std::sync::{Arc, Mutex, PoisonError};
use tokio::sync::{OwnedSemaphorePermit, Semaphore};

/// Of one person so many may wait; more are sent away with a sentence.
const WAITING: usize = 16;

/// Requests of one person that are answered at the same time; a browser sends six.
const AT_ONCE: usize = 48;

/// How many requests of each person, and of each browser or link, are being answered.
#[derive(Clone, Default)]
pub(crate) struct Crowd {
    inside: Arc<Mutex<HashMap<String, usize>>>,
}

/// A place in the crowd, given back when it is dropped.
pub(crate) struct Inside {
    who: String,
    crowd: Crowd,
}

impl Crowd {
    /// Lets a request in, for as long as what is given lives.
    ///
    /// # Errors
    /// [`ApiError::Busy`] when too many of the same are in already.
    pub fn enter(&self, who: &str) -> Result<Inside, ApiError> {
        let mut inside = self.inside.lock().unwrap_or_else(PoisonError::into_inner);
        let count = inside.entry(who.to_owned()).or_default();
        if *count >= AT_ONCE {
            return Err(too_much());
        }
        *count += 1;
        Ok(Inside { who: who.to_owned(), crowd: self.clone() })
    }
}

impl Drop for Inside {
    fn drop(&mut self) {
        let mut inside = self.crowd.inside.lock().unwrap_or_else(PoisonError::into_inner);
        // Whoever has none left is forgotten: names of cookies are anybody's to make up.
        if let Some(count) = inside.get_mut(&self.who) {
            *count -= 1;
            if *count == 0 {
                inside.remove(&self.who);
            }
        }
    }
}

/// Turns a flood of one browser or link away before anything is looked up for it: six hundred lookups are a wait for everybody.
pub(crate) async fn at_the_door<B: MessageBody + 'static>(
    request: ServiceRequest,
    next: Next<B>,
) -> Result<ServiceResponse<EitherBody<B>>, actix_web::Error> {
    let crowd = request.app_data::<web::Data<AppState>>().map(|state| state.crowd.clone());
    let place = match crowd.zip(sent_by(&request)).map(|(crowd, who)| crowd.enter(&who)).transpose() {
        Ok(place) => place,
        Err(refusal) => return Ok(request.into_response(refusal.error_response()).map_into_right_body()),
    };
    let response = next.call(request).await?;
    drop(place);
    Ok(response.map_into_left_body())
}

/// The browser's session or the phone's link, as they are sent; nothing is known of them yet.
fn sent_by(request: &ServiceRequest) -> Option<String> {
    let session = SESSION_COOKIES.iter().find_map(|name| request.cookie(name)).map(|cookie| cookie.value().to_owned());
    let link = || Some(request.headers().get(AUTHORIZATION)?.to_str().ok()?.to_owned());
    session.or_else(link)
}

fn too_much() -> ApiError {
    ApiError::Busy("You have asked for too much at once: wait for what is under way, then ask again.".to_owned())
}

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
pub(crate) struct Place(Arc<AtomicUsize>);

impl Place {
    fn of(count: Arc<AtomicUsize>, most: usize) -> Result<Self, ApiError> {
        if count.fetch_add(1, Ordering::Relaxed) < most {
            return Ok(Self(count));
        }
        count.fetch_sub(1, Ordering::Relaxed);
        Err(too_much())
    }
}

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

impl Turn {
    /// Work that has the turn until it is done.
    pub fn around<T>(
        self,
        work: impl FnOnce(&Desk) -> Result<T, DeskError>,
    ) -> impl FnOnce(&Desk) -> Result<T, DeskError> {
        move |desk| {
            let _turn = self;
            work(desk)
        }
    }
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
        let place = Place::of(person.waiting, WAITING)?;
        let own = person.turn.acquire_owned().await.map_err(|error| DeskError::Internal(error.to_string()))?;
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
        let shared = self.all.clone().acquire_owned().await.map_err(|error| DeskError::Internal(error.to_string()))?;
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

    #[test]
    fn of_one_person_so_many_requests_are_answered_at_once() {
        let crowd = Crowd::default();
        let mut inside: Vec<Inside> = (0..AT_ONCE).map(|_| crowd.enter("jo").unwrap()).collect();
        assert!(matches!(crowd.enter("jo"), Err(ApiError::Busy(_))));
        assert!(crowd.enter("mara").is_ok());
        inside.pop();
        assert!(crowd.enter("jo").is_ok());
        inside.clear();
        assert!(crowd.inside.lock().unwrap().is_empty(), "nobody is remembered who is not inside");
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
