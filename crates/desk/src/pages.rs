//! Answers as they are sent, kept until anything they follow from has changed.

use crate::desk::{Desk, today};
use crate::error::DeskError;
use crate::memo::Mark;
use crate::roster::rests_on_all;
use bytes::Bytes;
use serde::Serialize;
use store::{RoundRecord, Stamp};
use units::{ClientId, RoundId};

/// How much of what is kept a page of a round follows from.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum RoundPage {
    /// Everything logged since, too.
    Now,
    /// The same, and what is proven of its week.
    Board,
    /// The round as it stood on its day: what was logged later does not change it.
    Sheet,
    /// What was logged until the next one.
    Review,
}

impl Desk {
    /// A page of everybody's rounds, and of their logs where `logs` says so, as it is sent: worked out by `work` when anything it
    /// follows from has changed.
    ///
    /// # Errors
    /// Those of `work`.
    pub fn page_of_all<T: Serialize>(
        &self,
        name: &str,
        logs: bool,
        work: impl FnOnce(&Self) -> Result<T, DeskError>,
    ) -> Result<Bytes, DeskError> {
        let stamp = self.store.total_stamp()?;
        let log = if logs { stamp.log } else { 0 };
        let mark = Mark { all: Some(stamp.all), ..self.mark(Stamp::default(), log, today()) };
        let key = (name.to_owned(), String::new());
        Ok(self.books.pages.get(&key, mark, || written(&work(self)?))?.as_ref().clone())
    }

    /// A page of a client.
    ///
    /// # Errors
    /// Those of `work`; [`DeskError::NotFound`] when there is no such client.
    pub fn page_of_client<T: Serialize>(
        &self,
        name: &str,
        id: &ClientId,
        work: impl FnOnce(&Self, &ClientId) -> Result<T, DeskError>,
    ) -> Result<Bytes, DeskError> {
        // Before anything is read: what changes meanwhile makes the kept page an old one.
        let stamp = self.store.stamp(id)?;
        let mark = self.mark(stamp, stamp.log, today());
        self.page_of_one((name, id.as_str()), id, mark, || work(self, id))
    }

    /// A page of a round.
    ///
    /// # Errors
    /// Those of `work`; [`DeskError::NotFound`] when there is no such round.
    pub fn page_of_round<T: Serialize>(
        &self,
        name: &str,
        (id, reach): (&RoundId, RoundPage),
        work: impl FnOnce(&Self, &RoundId) -> Result<T, DeskError>,
    ) -> Result<Bytes, DeskError> {
        let round = self.store.round(id)?;
        // As above.
        let stamp = self.store.stamp(&round.client_id)?;
        let proven = if reach == RoundPage::Board { self.books.proofs.of_round(id) } else { 0 };
        let mark = Mark { proven, ..self.mark(stamp, self.log_of(&round, reach, stamp)?, today()) };
        self.page_of_one((name, id.as_str()), &round.client_id, mark, || work(self, id))
    }

    fn page_of_one<T: Serialize>(
        &self,
        (name, id): (&str, &str),
        client_id: &ClientId,
        mark: Mark,
        work: impl FnOnce() -> Result<T, DeskError>,
    ) -> Result<Bytes, DeskError> {
        let with_all = |all: bool| -> Result<Mark, DeskError> {
            Ok(Mark { all: if all { Some(self.store.total_stamp()?.all) } else { None }, ..mark })
        };
        let key = (name.to_owned(), id.to_owned());
        let page: Result<_, DeskError> = self.books.pages.get_by(
            &key,
            |kept| Ok(*kept == with_all(kept.all.is_some())?),
            || {
                let knowledge = self.knowledge();
                let client = self.store.client(&knowledge.atlas, client_id)?.client;
                let mark = with_all(rests_on_all(&knowledge, &client))?;
                Ok((mark, written(&work()?)?))
            },
        );
        Ok(page?.as_ref().clone())
    }

    /// What of the log a page of a round follows from.
    fn log_of(&self, round: &RoundRecord, reach: RoundPage, stamp: Stamp) -> Result<i64, DeskError> {
        let until = match reach {
            RoundPage::Now | RoundPage::Board => None,
            RoundPage::Sheet => Some(round.taken_on),
            RoundPage::Review => {
                let rounds = self.store.rounds(&round.client_id)?;
                rounds.iter().map(|other| other.taken_on).find(|day| *day > round.taken_on)
            }
        };
        let Some(until) = until else { return Ok(stamp.log) };
        let mark = self.mark(stamp, stamp.log, today());
        let newest = || Ok::<_, DeskError>(self.store.newest_arrival(&round.client_id, until)?);
        Ok(*self.books.arrivals.get(&(round.client_id.clone(), until), mark, newest)?)
    }
}

fn written(value: &impl Serialize) -> Result<Bytes, DeskError> {
    serde_json::to_vec(value).map(Bytes::from).map_err(DeskError::internal)
}
