//! Sessions as they were done.

use super::{DoneSession, LogEntryView};
use casefile::LogPart;
use std::collections::BTreeMap;
use std::sync::Arc;
use store::{IssuedRecord, LogRecord};
use units::PlanId;

/// The newest sessions, and all in which something stands side by side.
pub(super) fn newest(all: Vec<DoneSession>, count: usize) -> Vec<DoneSession> {
    let shown = all.into_iter().enumerate().filter(|(place, session)| *place < count || session.conflicts > 0);
    shown.map(|(_, session)| session).collect()
}

/// Sessions as they were done, newest first.
pub(super) fn done(plans: &[Arc<IssuedRecord>], records: &[LogRecord]) -> Vec<DoneSession> {
    let mut sessions: BTreeMap<(&PlanId, u8, u8), Vec<&LogRecord>> = BTreeMap::new();
    for record in records {
        let entry = &record.entry;
        sessions.entry((&entry.plan, entry.week, entry.day)).or_default().push(record);
    }
    let mut all: Vec<DoneSession> = sessions
        .into_iter()
        .map(|((plan, week, day), records)| {
            let version = plans.iter().find(|issued| issued.id == *plan).map_or(0, |issued| issued.version);
            session(version, week, day, &records)
        })
        .collect();
    all.sort_by(|a, b| b.on.cmp(&a.on));
    all
}

fn session(version: i32, week: u8, day: u8, records: &[&LogRecord]) -> DoneSession {
    let mut parts: BTreeMap<&str, u32> = BTreeMap::new();
    let mut exercises: Vec<(u8, LogEntryView)> = Vec::new();
    let mut done = DoneSession {
        version,
        week,
        day,
        on: records.iter().map(|record| record.entry.trained_on.clone()).max().unwrap_or_default(),
        finished: false,
        exercises: Vec::new(),
        whole: Vec::new(),
        conflicts: 0,
        sleep: None,
        soreness: None,
        note: None,
    };
    for record in records {
        match &record.entry.part {
            LogPart::Exercise { exercise, position, .. } => {
                *parts.entry(exercise).or_default() += 1;
                exercises.push((*position, LogEntryView::from(*record)));
            }
            LogPart::Session { finished, sleep, soreness, note, lighter: _ } => {
                *parts.entry("").or_default() += 1;
                done.whole.push(LogEntryView::from(*record));
                done.finished |= finished;
                done.sleep = done.sleep.or(*sleep);
                done.soreness = done.soreness.or(*soreness);
                done.note = done.note.or_else(|| note.clone());
            }
        }
    }
    exercises.sort_by_key(|(position, _)| *position);
    done.exercises = exercises.into_iter().map(|(_, view)| view).collect();
    done.conflicts = u32::try_from(parts.values().filter(|count| **count > 1).count()).unwrap_or(u32::MAX);
    done
}
