//! Taking in log entries from a device: checked one by one, so that one that cannot be kept holds up no other.

use super::{EntryFate, EntryOutcome, SendEntries, SentEntries};
use crate::desk::Desk;
use crate::error::{DeskError, invalid};
use assess::Knowledge;
use casefile::{LogEntry, LogPart, Problem, check_log_entry};
use jiff::Timestamp;
use jiff::tz::TimeZone;
use logbook::{Alarm, Part, alarms, best_sets, put_right, training_entry};
use store::{NewLogEntry, SetUpSaid, Store};
use units::{ClientId, Place};

/// Entries in one sending at most: a phone that was away for long sends again.
const MOST: usize = 200;

/// An entry as it is kept, and what it says at once.
pub type Received = (NewLogEntry, Option<Alarm>);

/// What of an entry is kept beside its words, written at a moment that is put right.
///
/// # Errors
/// What of the entry is not right.
pub fn received(knowledge: &Knowledge, entry: LogEntry, written_at: Timestamp) -> Result<Received, Vec<Problem>> {
    let resolved = check_log_entry(&knowledge.atlas, &Place::root(), &entry)?;
    let alarm = alarms(&knowledge.atlas, &resolved);
    let training = training_entry(&knowledge.atlas, &resolved);
    let kind = alarm.as_ref().map(|alarm| alarm.kind);
    let best = match &resolved.part {
        Part::Exercise(log) => Some(best_sets(log)),
        Part::Session(_) => None,
    };
    Ok((NewLogEntry { entry, written_at, training, alarm: kind, best }, alarm))
}

impl Desk {
    /// Takes in what a device of `by`, or of the client themselves, logged for a client. What is sent again makes no double.
    pub fn receive(&self, client_id: &ClientId, by: Option<&str>, sent: SendEntries) -> Result<SentEntries, DeskError> {
        let knowledge = &*self.knowledge();
        let client = self.store.client(&knowledge.atlas, client_id)?.client;
        receive(&self.store, knowledge, client_id, by.unwrap_or(&client.name), sent)
    }
}

/// Keeps what a device sent.
fn receive(
    store: &Store,
    knowledge: &Knowledge,
    client_id: &ClientId,
    by: &str,
    sent: SendEntries,
) -> Result<SentEntries, DeskError> {
    let received_at = Timestamp::now();
    let says =
        || invalid("/sent_at", format!("{:?} is no time: expected one such as 2026-03-02T18:05:00Z", sent.sent_at));
    let sent_at: Timestamp = sent.sent_at.parse().map_err(|_| says())?;
    if sent.entries.len() > MOST {
        return Err(invalid("/entries", format!("{} entries at once are more than {MOST}", sent.entries.len())));
    }
    let mut outcomes: Vec<EntryOutcome> = Vec::with_capacity(sent.entries.len());
    let mut good: Vec<(usize, Received)> = Vec::new();
    for (place, entry) in sent.entries.into_iter().enumerate() {
        let id = entry.id.clone();
        let refused = match checked(knowledge, entry, sent_at, received_at) {
            Ok(received) => {
                good.push((place, received));
                None
            }
            Err(says) => Some(says),
        };
        outcomes.push(EntryOutcome { id, fate: EntryFate::Refused, says: refused, alarm: None });
    }
    let new: Vec<NewLogEntry> = good.iter().map(|(_, (new, _))| new.clone()).collect();
    for (kept, (place, (one, alarm))) in store.keep_log(client_id, by, &new)?.into_iter().zip(good) {
        let outcome = EntryOutcome::of(std::mem::take(&mut outcomes[place].id), kept);
        if outcome.fate != EntryFate::Refused {
            remember(store, client_id, by, &one.entry)?;
        }
        outcomes[place] = match alarm.filter(|_| outcome.fate != EntryFate::Refused) {
            Some(alarm) => EntryOutcome { says: Some(alarm.says), alarm: Some(alarm.kind), ..outcome },
            None => outcome,
        };
    }
    let clock_ahead_s = put_right(sent_at, sent_at, received_at).ahead_s;
    Ok(SentEntries { outcomes, clock_ahead_s })
}

/// Keeps how a station was set, for the next time.
fn remember(store: &Store, client_id: &ClientId, by: &str, entry: &LogEntry) -> Result<(), DeskError> {
    let LogPart::Exercise { exercise, instead, variant, set_up, .. } = &entry.part else { return Ok(()) };
    let done = instead.as_ref().unwrap_or(exercise).parse();
    let (Ok(done), Ok(on)) = (done, entry.trained_on.parse()) else { return Ok(()) };
    let said = SetUpSaid { exercise: done, numbers: set_up.clone(), variant: variant.clone() };
    Ok(store.keep_said(client_id, (on, by), &[said])?)
}

fn checked(
    knowledge: &Knowledge,
    mut entry: LogEntry,
    sent_at: Timestamp,
    received_at: Timestamp,
) -> Result<Received, String> {
    let first = |problems: Vec<Problem>| problems.first().map(|problem| problem.says.clone()).unwrap_or_default();
    check_log_entry(&knowledge.atlas, &Place::root(), &entry).map_err(first)?;
    let written: Timestamp = entry.at.parse().map_err(|error: jiff::Error| error.to_string())?;
    let fix = put_right(written, sent_at, received_at);
    let today = received_at.to_zoned_datetime(TimeZone::system()).date();
    let ahead = entry.trained_on.parse().is_ok_and(|day: jiff::civil::Date| day > today);
    if fix.ahead_s != 0 || ahead {
        entry.trained_on = fix.at.to_zoned_datetime(TimeZone::system()).date().to_string();
    }
    received(knowledge, entry, fix.at).map_err(first)
}
