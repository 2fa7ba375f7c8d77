//! What of a client needs the coach.

use super::{QueueItem, TodaySession};
use crate::error::{DeskError, UNREADABLE};
use crate::log::{self, SessionState, Training};
use assess::{Knowledge, day_in_words};
use casefile::LogPart;
use jiff::ToSpan;
use jiff::civil::Date;
use logbook::{AlarmKind, Due, QueueKind, ROUND_WEEKS, heads};
use std::collections::HashSet;
use std::sync::Arc;
use store::{ClientRecord, IssuedRecord, RoundRecord, Store};
use units::ClientId;

/// A client's part of the queue, and their session of today.
#[derive(Clone)]
pub(crate) struct ClientDay {
    /// Whose it is.
    pub client_id: ClientId,
    /// Whether the next round is due, seen to or not.
    pub round_due: bool,
    pub items: Vec<QueueItem>,
    pub session: Option<TodaySession>,
}

struct Asking<'a> {
    record: &'a ClientRecord,
    seen: HashSet<String>,
    items: Vec<QueueItem>,
}

impl Asking<'_> {
    fn ask(&mut self, kind: QueueKind, what: String, on: String, place: String, says: String) {
        if !self.seen.contains(&what) {
            let (client_id, client_name) = (self.record.id.clone(), self.record.client.name.clone());
            self.items.push(QueueItem { kind, client_id, client_name, says, on, place, what });
        }
    }
}

/// What of a client needs the coach on a day.
pub(super) fn client_day(
    store: &Store,
    knowledge: &Knowledge,
    record: &ClientRecord,
    today: Date,
) -> Result<ClientDay, DeskError> {
    let training = Training::read(store, knowledge, &record.id, today)?;
    let rounds = store.rounds(&record.id)?;
    let mut asking = Asking { record, seen: store.seen_to(&record.id)?, items: Vec::new() };
    let log_place = rounds.last().map_or_else(
        || format!("/clients/{}", record.id),
        |round| format!("/clients/{}/rounds/{}/log", record.id, round.id),
    );
    let plan_place = rounds.last().map(|round| format!("/clients/{}/rounds/{}/plan", record.id, round.id));
    written(&mut asking, store, &training, (&log_place, today))?;
    hurts(&mut asking, store, knowledge, (&log_place, plan_place.as_deref()))?;
    conflicts(&mut asking, knowledge, &training, &log_place);
    let round_due = round_due(&mut asking, rounds.last(), training.plan(), today);
    if let Some(newest) = rounds.last() {
        photos(&mut asking, store, newest)?;
        retention(&mut asking, knowledge, newest, today);
        to_issue(&mut asking, store, knowledge, newest, &training.plans)?;
    }
    if let Some(says) = training.lighten() {
        let monday = training.due().first().map(|due| due.on.to_string()).unwrap_or_default();
        let what = format!("lighten:{monday}");
        asking.ask(QueueKind::Lighten, what, today.to_string(), log_place.clone(), says);
    }
    stalls(&mut asking, &training, &log_place);
    let session = session(record, &training, today);
    Ok(ClientDay { client_id: record.id.clone(), round_due, items: asking.items, session })
}

/// What of a client who was put away still needs somebody.
pub(super) fn put_away_day(
    store: &Store,
    knowledge: &Knowledge,
    record: &ClientRecord,
    today: Date,
) -> Result<ClientDay, DeskError> {
    let mut asking = Asking { record, seen: store.seen_to(&record.id)?, items: Vec::new() };
    if let Some(newest) = store.rounds(&record.id)?.last() {
        retention(&mut asking, knowledge, newest, today);
    }
    Ok(ClientDay { client_id: record.id.clone(), round_due: false, items: asking.items, session: None })
}

/// That a client's rows cannot be read: named, so that somebody looks, while everybody else's are read on.
pub(super) fn unreadable_day(
    store: &Store,
    client_id: &ClientId,
    why: &str,
    today: Date,
) -> Result<ClientDay, DeskError> {
    tracing::error!(%client_id, why, "what is stored of a client cannot be read");
    let item = QueueItem {
        kind: QueueKind::Unreadable,
        client_id: client_id.to_owned(),
        client_name: store.client_name(client_id)?,
        says: UNREADABLE.to_owned(),
        on: today.to_string(),
        place: format!("/clients/{client_id}"),
        what: "unreadable".to_owned(),
    };
    Ok(ClientDay { client_id: client_id.to_owned(), round_due: false, items: vec![item], session: None })
}

/// Whether data of years ago is still needed.
fn retention(asking: &mut Asking, knowledge: &Knowledge, newest: &RoundRecord, today: Date) {
    let months = (knowledge.atlas.planning().retention_years * 12.0).round();
    #[allow(clippy::cast_possible_truncation, reason = "bounds of the setting")]
    let Ok(until) = newest.taken_on.checked_add((months as i32).months()) else { return };
    if today < until {
        return;
    }
    let place = format!("/clients/{}/rounds/{}/brief", newest.client_id, newest.id);
    let since = day_in_words(newest.taken_on);
    let says = format!("No round since {since}: take them out as a file, erase them, or keep them for a reason.");
    asking.ask(QueueKind::Retention, format!("retention:{}", newest.id), until.to_string(), place, says);
}

/// What hurts stays until the coach has seen to it, however long ago it was. A pain leads to the card that hurts and what could
/// stand in its place.
fn hurts(
    asking: &mut Asking,
    store: &Store,
    knowledge: &Knowledge,
    (log, plan): (&str, Option<&str>),
) -> Result<(), DeskError> {
    for open in log::open(store, knowledge, &asking.record.id)? {
        let kind = match open.alarm.kind {
            AlarmKind::Refer => QueueKind::Refer,
            AlarmKind::Pain => QueueKind::Pain,
        };
        let swap = || Some(format!("{}?swap={}", plan?, logbook::hurt(&open.entry)?.exercise));
        let place = if kind == QueueKind::Pain { swap() } else { None };
        let place = place.unwrap_or_else(|| log.to_owned());
        asking.ask(kind, open.what, open.entry.trained_on.to_string(), place, open.alarm.says);
    }
    Ok(())
}

/// Days for which a line in the log is brought to the coach: older ones stay in the log.
const LINE_DAYS: i64 = 21;

/// Characters of a line or message that the queue shows.
const SHOWN_CHARS: usize = 140;

/// What the client wrote: messages that nobody has read, and lines in the log, each once with its day.
fn written(
    asking: &mut Asking,
    store: &Store,
    training: &Training,
    (log, today): (&str, Date),
) -> Result<(), DeskError> {
    for message in store.unread_messages(&asking.record.id)? {
        let on = message.written_at.get(..10).unwrap_or_default().to_owned();
        let place = format!("/clients/{}/messages", asking.record.id);
        asking.ask(QueueKind::Message, format!("message:{}", message.id), on, place, shown(&message.words));
    }
    let since = today.checked_sub(LINE_DAYS.days()).unwrap_or(Date::MIN);
    for record in &training.records {
        let note = match &record.entry.part {
            LogPart::Exercise { note, .. } | LogPart::Session { note, .. } => note,
        };
        let recent = record.entry.trained_on.parse().is_ok_and(|on: Date| on >= since);
        // Another version of the same session with the same words is the same line.
        if let (Some(note), true, true) = (note, recent, record.written_by == asking.record.client.name) {
            let entry = &record.entry;
            let part = match &entry.part {
                LogPart::Exercise { exercise, .. } => exercise.as_str(),
                LogPart::Session { .. } => "",
            };
            let what = format!("line:{}:{}:{}:{part}:{note}", entry.plan, entry.week, entry.day);
            asking.ask(QueueKind::Line, what, entry.trained_on.clone(), log.to_owned(), shown(note));
        }
    }
    Ok(())
}

/// Somebody's words in quotes, no longer than a line of the queue.
fn shown(words: &str) -> String {
    let short: String = words.chars().take(SHOWN_CHARS).collect();
    let more = if short.len() < words.len() { " \u{2026}" } else { "" };
    format!("\u{201c}{}{more}\u{201d}", short.trim_end())
}

fn conflicts(asking: &mut Asking, knowledge: &Knowledge, training: &Training, place: &str) {
    for part in heads(&training.entries).iter().filter(|part| part.conflict()) {
        let Some(entry) = part.counts() else { continue };
        let what = format!("conflict:{}", entry.id);
        let name = |id| knowledge.atlas.exercise(id).map_or("an exercise", |exercise| exercise.name.as_str());
        let says = format!(
            "{}, week {}: logged {} times side by side; say which counts.",
            part.exercise.map_or("The session", name),
            part.session.week,
            part.entries.len()
        );
        asking.ask(QueueKind::Conflict, what, entry.trained_on.to_string(), place.to_owned(), says);
    }
}

/// All exercises of a client that stand still, in one line.
fn stalls(asking: &mut Asking, training: &Training, place: &str) {
    let still = training.stalls();
    let Some(newest) = still.iter().map(|(_, stall)| stall.best_on).max() else { return };
    let says = match still.as_slice() {
        [(item, stall)] => format!("{}. {}", item.name, stall.says),
        [(first, _), (second, _), others @ ..] => {
            let more = if others.is_empty() { String::new() } else { format!(" and {} more", others.len()) };
            format!(
                "{} exercises without a better set in three weeks or more: {}; {}{more}.",
                still.len(),
                first.name,
                second.name
            )
        }
        [] => return,
    };
    let what: Vec<&str> = still.iter().map(|(item, _)| item.exercise.as_str()).collect();
    asking.ask(QueueKind::Stall, format!("stall:{}", what.join(",")), newest.to_string(), place.to_owned(), says);
}

fn photos(asking: &mut Asking, store: &Store, newest: &RoundRecord) -> Result<(), DeskError> {
    let photos = store.client_photos(&newest.client_id)?;
    let count = photos.iter().filter(|photo| photo.round_id == newest.id).count();
    if count == 0 || store.round_is_rated(&newest.id)? {
        return Ok(());
    }
    let place = format!("/clients/{}/rounds/{}/photos", newest.client_id, newest.id);
    let says = if count == 1 {
        "1 picture that nobody has judged.".to_owned()
    } else {
        format!("{count} pictures that nobody has judged.")
    };
    asking.ask(QueueKind::Photos, format!("photos:{}:{count}", newest.id), newest.taken_on.to_string(), place, says);
    Ok(())
}

/// That the next round is due: agreed on, at the end of a block, or long after the last.
fn round_due(asking: &mut Asking, newest: Option<&RoundRecord>, plan: Option<&IssuedRecord>, today: Date) -> bool {
    let place = newest.map_or_else(
        || format!("/clients/{}", asking.record.id),
        |newest| format!("/clients/{}/rounds/{}/review", newest.client_id, newest.id),
    );
    let own = plan
        .filter(|plan| newest.is_some_and(|newest| plan.starts_on >= newest.taken_on || plan.round_id == newest.id));
    let weeks = own.map_or(0, |plan| i64::try_from(plan.plan.weeks.len()).unwrap_or_default());
    let over = own.filter(|_| weeks > 0).and_then(|plan| plan.starts_on.checked_add(weeks.weeks()).ok());
    let of_round = newest.map_or("none", |newest| newest.id.as_str());
    let due = Due::on(today, newest.map(|newest| newest.taken_on), asking.record.next_round_on, over);
    let (what, on, says) = match due {
        None => return false,
        Some(Due::Agreed(on)) => {
            let says = format!("The next round was agreed on for {}.", day_in_words(on));
            (format!("due:{on}"), on, says)
        }
        Some(Due::BlockOver(on)) => {
            let says = format!("The block of {weeks} weeks ended on {}: measure again and review.", day_in_words(on));
            (format!("due:{}", own.map_or(of_round, |plan| plan.id.as_str())), on, says)
        }
        Some(Due::LongAgo(on)) => {
            let says = format!("The last round was more than {ROUND_WEEKS} weeks ago.");
            (format!("due:{of_round}"), on, says)
        }
    };
    asking.ask(QueueKind::RoundDue, what, on.to_string(), place, says);
    true
}

fn to_issue(
    asking: &mut Asking,
    store: &Store,
    knowledge: &Knowledge,
    newest: &RoundRecord,
    plans: &[Arc<IssuedRecord>],
) -> Result<(), DeskError> {
    if plans.iter().any(|plan| plan.round_id == newest.id) {
        return Ok(());
    }
    let chosen = store.choices(&newest.id)?.brought_up(&knowledge.atlas);
    if !chosen.is_empty() {
        let place = format!("/clients/{}/rounds/{}/plan", newest.client_id, newest.id);
        let name = |id| knowledge.atlas.region(id).map_or("a region", |region| region.name.as_str());
        let names: Vec<&str> = chosen.iter().map(name).collect();
        let says = format!("To bring up: {}. No plan was given for this round.", names.join(", "));
        asking.ask(QueueKind::PlanToIssue, format!("plan:{}", newest.id), newest.taken_on.to_string(), place, says);
    }
    Ok(())
}

fn session(record: &ClientRecord, training: &Training, today: Date) -> Option<TodaySession> {
    let issued = training.plan()?;
    let due = training.due().into_iter().find(|due| due.on == today)?;
    let planned = issued.plan.sessions.iter().find(|session| session.day == due.day)?;
    let of_today: Vec<_> = training
        .records
        .iter()
        .filter(|log| log.entry.plan == issued.id && log.entry.week == due.week && log.entry.day == due.day)
        .collect();
    let finished = of_today.iter().any(|log| matches!(log.entry.part, LogPart::Session { finished: true, .. }));
    Some(TodaySession {
        client_id: record.id.clone(),
        client_name: record.client.name.clone(),
        exercises: u32::try_from(planned.items.len()).unwrap_or_default(),
        minutes: planned.minutes,
        state: match (finished, of_today.is_empty()) {
            (true, _) => SessionState::Finished,
            (_, false) => SessionState::Begun,
            _ => SessionState::Due,
        },
    })
}
