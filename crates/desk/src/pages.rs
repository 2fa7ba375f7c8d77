//! Answers as they are sent, kept until anything they follow from has changed.

use crate::desk::{Desk, today};
use crate::error::DeskError;
use crate::memo::Mark;
use crate::roster::rests_on_all;
use bytes::Bytes;
use jiff::civil::Date;
use serde::Serialize;
use store::Stamp;

/// What a page is of.
pub enum PageOf {
    /// Everybody's rounds.
    Practice,
    /// Everybody's rounds and logs.
    Days,
    /// A client, by id.
    Client(String),
    /// A round, by id, with everything logged since.
    Round(String),
    /// The same, with what is proven of its week.
    Board(String),
    /// A round as it stood on its day, by id: what was logged later does not change it.
    Sheet(String),
    /// A round until the next one, by id.
    Review(String),
}

impl Desk {
    /// A page as it is sent: worked out by `work`, which is given the id it is of, when anything it follows from has changed.
    ///
    /// # Errors
    /// Those of `work`; [`DeskError::NotFound`] when there is no such client or round.
    pub fn page<T: Serialize>(
        &self,
        name: &str,
        of: &PageOf,
        work: impl FnOnce(&Self, &str) -> Result<T, DeskError>,
    ) -> Result<Bytes, DeskError> {
        match of {
            PageOf::Practice | PageOf::Days => self.page_of_all(name, matches!(of, PageOf::Days), work),
            PageOf::Client(id) => self.page_of_one(name, (of, None), (id, id), work),
            PageOf::Round(id) | PageOf::Board(id) | PageOf::Sheet(id) | PageOf::Review(id) => {
                let round = self.store.round(id)?;
                self.page_of_one(name, (of, Some(round.taken_on)), (id, &round.client_id), work)
            }
        }
    }

    fn page_of_all<T: Serialize>(
        &self,
        name: &str,
        logs: bool,
        work: impl FnOnce(&Self, &str) -> Result<T, DeskError>,
    ) -> Result<Bytes, DeskError> {
        let stamp = self.store.total_stamp()?;
        let log = if logs { stamp.log } else { 0 };
        let mark = Mark { all: Some(stamp.all), ..self.mark(Stamp::default(), log, today()) };
        let key = (name.to_owned(), String::new());
        Ok(self.books.pages.get(&key, mark, || written(&work(self, "")?))?.as_ref().clone())
    }

    fn page_of_one<T: Serialize>(
        &self,
        name: &str,
        (of, taken_on): (&PageOf, Option<Date>),
        (id, client_id): (&str, &str),
        work: impl FnOnce(&Self, &str) -> Result<T, DeskError>,
    ) -> Result<Bytes, DeskError> {
        // Before anything is read: what changes meanwhile makes the kept page an old one.
        let stamp = self.store.stamp(client_id)?;
        let proven = if let PageOf::Board(id) = of { self.books.proofs.of_round(id) } else { 0 };
        let mark = Mark { proven, ..self.mark(stamp, self.log_of((of, taken_on), client_id, stamp)?, today()) };
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
                Ok((mark, written(&work(self, id)?)?))
            },
        );
        Ok(page?.as_ref().clone())
    }

    /// What of the log a page follows from.
    fn log_of(&self, of: (&PageOf, Option<Date>), client_id: &str, stamp: Stamp) -> Result<i64, DeskError> {
        let until = match of {
            (PageOf::Sheet(_), taken_on) => taken_on,
            (PageOf::Review(_), Some(taken_on)) => {
                self.store.rounds(client_id)?.iter().map(|other| other.taken_on).find(|day| *day > taken_on)
            }
            _ => None,
        };
        let Some(until) = until else { return Ok(stamp.log) };
        let mark = self.mark(stamp, stamp.log, today());
        let newest = || Ok::<_, DeskError>(self.store.newest_arrival(client_id, until)?);
        Ok(*self.books.arrivals.get(&(client_id.to_owned(), until), mark, newest)?)
    }
}

fn written(value: &impl Serialize) -> Result<Bytes, DeskError> {
    serde_json::to_vec(value).map(Bytes::from).map_err(DeskError::internal)
}
