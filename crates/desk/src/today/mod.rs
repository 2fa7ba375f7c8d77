//! Today: what needs the coach, most pressing first, and the sessions of the day.

mod queue;
mod views;

pub(crate) use queue::ClientDay;
pub use views::{QueueItem, SeeTo, TodaySession, TodayView};

use crate::desk::{Desk, today};
use crate::error::{DeskError, invalid};
use crate::log::REFER;
use jiff::civil::Date;
use queue::{client_day, put_away_day, unreadable_day};
use std::sync::Arc;

/// A sentence or two on what was done.
const NOTE_CHARS: usize = 500;

/// Of the queue so much is shown at once: more than anybody sees to in a day.
const AT_ONCE: usize = 60;

impl Desk {
    /// The queue of the whole practice.
    pub fn today(&self) -> Result<TodayView, DeskError> {
        let today = today();
        let days = self.days(today)?;
        let mut items: Vec<&QueueItem> = days.iter().flat_map(|day| &day.items).collect();
        items.sort_by(|a, b| (a.kind, &b.on, &a.client_name).cmp(&(b.kind, &a.on, &b.client_name)));
        let mut sessions: Vec<TodaySession> = days.iter().filter_map(|day| day.session.clone()).collect();
        sessions.sort_by(|a, b| a.client_name.cmp(&b.client_name));
        Ok(TodayView {
            today: today.to_string(),
            total: u32::try_from(items.len()).unwrap_or(u32::MAX),
            items: items.into_iter().take(AT_ONCE).cloned().collect(),
            sessions,
        })
    }

    /// Notes that something of the queue was seen to, or puts it back.
    pub fn see_to(&self, by: &str, seen: SeeTo) -> Result<(), DeskError> {
        let SeeTo { client_id, what, note, undo } = seen;
        self.store.client(&self.knowledge().atlas, &client_id)?;
        let sign = what.starts_with(REFER);
        if sign && !undo && note.trim().is_empty() {
            let says = "A sign for a doctor is only put away with a sentence on what was done about it.";
            return Err(invalid("/note", says));
        }
        if note.chars().count() > NOTE_CHARS {
            return Err(invalid("/note", format!("a note of up to {NOTE_CHARS} characters is kept")));
        }
        if undo {
            return Ok(self.store.unsee(&client_id, &what)?);
        }
        Ok(self.store.see_to(&client_id, &what, note.trim(), by, today())?)
    }

    /// Every client's part of the queue.
    pub(crate) fn days(&self, day: Date) -> Result<Vec<Arc<ClientDay>>, DeskError> {
        let (store, knowledge) = (&self.store, &*self.knowledge());
        let mut days = Vec::new();
        for (client_id, stamp) in store.stamps()? {
            let worked_out = self.books.days.get_soon(&client_id, self.mark(stamp, stamp.log, day), || {
                let record = store.client(&knowledge.atlas, &client_id)?;
                // Who was put away asks for nothing but whether they are still needed.
                if record.put_away_on.is_some() {
                    return put_away_day(store, knowledge, &record, day);
                }
                client_day(store, knowledge, &record, day)
            });
            match worked_out {
                // A client that was removed meanwhile needs nobody.
                Err(DeskError::NotFound(_)) => {}
                // One whose rows cannot be read says so, and keeps nobody else's from being seen.
                Err(DeskError::Unreadable(why)) => {
                    days.push(Arc::new(unreadable_day(store, &client_id, &why, day)?));
                }
                other => days.push(other?),
            }
        }
        Ok(days)
    }
}
