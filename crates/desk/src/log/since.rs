//! What happened since a plan was given, as far as it reaches the next one: signs that stop training, exercises that hurt.

use crate::error::DeskError;
use assess::{Hurt, Knowledge};
use casefile::check_log_entry;
use logbook::{Alarm, AlarmKind, Entry, alarms, hurt};
use std::collections::HashSet;
use store::Store;
use units::{ClientId, Place};

/// Something that hurts and that nobody has seen to.
pub(crate) struct Open {
    pub alarm: Alarm,
    pub entry: Entry,
    /// What it is known by: its part of the session and what was told, so that another set of the same exercise does not bring it
    /// back, and a new sign does.
    pub what: String,
}

/// Whether something known by this is a sign for a doctor or physiotherapist: only the queue says so, by its kind in front.
pub(crate) const REFER: &str = "refer:";

/// What hurts and has not been seen to, however long ago it was.
pub(crate) fn open(store: &Store, knowledge: &Knowledge, client_id: &ClientId) -> Result<Vec<Open>, DeskError> {
    let seen: HashSet<String> = store.seen_to(client_id)?;
    let mut found = Vec::new();
    for record in store.log_alarms(client_id)? {
        let Ok(entry) = check_log_entry(&knowledge.atlas, &Place::root(), &record.entry) else { continue };
        let Some(alarm) = alarms(&knowledge.atlas, &entry) else { continue };
        let session = &entry.session;
        let told = format!("{}:{}:{}:{}", session.plan_id, session.week, session.day, alarm.says);
        let refer = alarm.kind == AlarmKind::Refer;
        let what = if refer { format!("{REFER}log:{told}") } else { format!("log:{told}") };
        // Seen to before signs were told apart.
        if !seen.contains(&what) && !seen.contains(&format!("log:{told}")) {
            found.push(Open { alarm, entry, what });
        }
    }
    Ok(found)
}

/// What of it reaches the plan.
pub(crate) struct Since {
    /// Signs that nobody has written about yet: they stop giving.
    pub signs: Vec<String>,
    /// Exercises that hurt: they stay out of the next week.
    pub hurts: Vec<Hurt>,
}

pub(crate) fn since(store: &Store, knowledge: &Knowledge, client_id: &ClientId) -> Result<Since, DeskError> {
    let open = open(store, knowledge, client_id)?;
    let signs = open.iter().filter(|open| open.alarm.kind == AlarmKind::Refer).map(|open| open.alarm.says.clone());
    Ok(Since { signs: signs.collect(), hurts: open.iter().filter_map(|open| hurt(&open.entry)).collect() })
}
