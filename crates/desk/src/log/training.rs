//! What a client trains this week: the given plan, the log so far, and what follows from both for today.

use super::instead::Instead;
use super::{
    FeelChoice, FormChoice, LastTime, LogEntryView, PlanInHand, SessionState, TargetView, TrainingItem,
    TrainingSession, TrainingView,
};
use crate::desk::Desk;
use crate::error::DeskError;
use assess::Knowledge;
use atlas::{Atlas, Exercise, SetUpField};
use casefile::{ItemEntry, LogPart, LogSet, check_log_entry};
use jiff::civil::Date;
use jiff::{Timestamp, ToSpan};
use logbook::{
    DueSession, Entry, Form, LIGHTER_TODAY, Offer, Overrule, Part, Performed, Planned, SessionKey, SessionLog, Target,
    counting, due, lighten, lighter_sets, next, stall, still_holds,
};
use plan::{RunCard, SidePlan, run};
use std::collections::{BTreeMap, BTreeSet, HashMap};
use std::sync::Arc;
use store::{IssuedRecord, LogRecord, Store};
use units::{ClientId, ExerciseId, Place, PlanId, Side};

/// Weeks of log that targets and stalls follow from.
const HISTORY_WEEKS: i64 = 12;

/// A client's log as far as this week follows from it.
pub(crate) struct Training<'a> {
    knowledge: &'a Knowledge,
    pub plans: Vec<Arc<IssuedRecord>>,
    pub records: Vec<LogRecord>,
    pub entries: Vec<Entry>,
    /// Places of the entries that count, of versions side by side one.
    counting: Vec<usize>,
    overrules: HashMap<String, (Overrule, Timestamp)>,
    /// When each exercise of each session was first written down; empty where nothing is overruled.
    first_written: HashMap<(SessionKey, String), Timestamp>,
    today: Date,
}

/// The side that sets the pace.
fn first_side(item: &ItemEntry) -> Option<Side> {
    match item.sides {
        SidePlan::Both => None,
        SidePlan::LeftFirst => Some(Side::Left),
        SidePlan::RightFirst => Some(Side::Right),
    }
}

impl<'a> Training<'a> {
    /// Reads what this week follows from.
    pub fn read(store: &Store, knowledge: &'a Knowledge, client_id: &ClientId, today: Date) -> Result<Self, DeskError> {
        let since = today.checked_sub(HISTORY_WEEKS.weeks()).unwrap_or(Date::MIN);
        Self::since(store, knowledge, client_id, (since, today))
    }

    /// The same from a day on.
    pub fn since(
        store: &Store,
        knowledge: &'a Knowledge,
        client_id: &ClientId,
        (since, today): (Date, Date),
    ) -> Result<Self, DeskError> {
        let records = store.log(client_id, since)?;
        // What does not fit any more, such as an exercise the practice has since taken out, is shown but teaches nothing.
        let entries =
            records.iter().filter_map(|record| check_log_entry(&knowledge.atlas, &Place::root(), &record.entry).ok());
        let entries: Vec<Entry> = entries.collect();
        let counting = counting(0..entries.len(), |place| entries[*place].slot());
        let plans = store.issued_plans(client_id)?;
        let overrules = store.overrules(client_id)?;
        let first_written = if overrules.is_empty() { HashMap::new() } else { first_written(store, &plans, &records)? };
        Ok(Self { knowledge, plans, records, entries, counting, overrules, first_written, today })
    }

    /// What the client has.
    pub fn plan(&self) -> Option<&IssuedRecord> {
        self.plans.first().map(AsRef::as_ref)
    }

    /// What was logged, as far as it counts, in the order of its arrival.
    fn counted(&self) -> impl Iterator<Item = &Entry> {
        self.counting.iter().map(|place| &self.entries[*place])
    }

    fn atlas(&self) -> &'a Atlas {
        &self.knowledge.atlas
    }

    /// Whether the session it is of is under way: nothing follows from half a session.
    fn under_way(&self, entry: &Entry) -> bool {
        let finished =
            |other: &Entry| other.session == entry.session && matches!(&other.part, Part::Session(log) if log.finished);
        entry.trained_on >= self.today && !self.counted().any(finished)
    }

    /// The entries that count in which an exercise was done, oldest first. What is under way is left out.
    fn done(&self, exercise: &str) -> Vec<&Entry> {
        let own = |entry: &&Entry| match &entry.part {
            Part::Exercise(log) => log.done().as_str() == exercise && !self.under_way(entry),
            Part::Session(_) => false,
        };
        let mut done: Vec<&Entry> = self.counted().filter(own).collect();
        done.sort_by_key(|entry| entry.trained_on);
        done
    }

    /// What was logged of an exercise, oldest first.
    fn history(&self, exercise: &str) -> Vec<Performed<'_>> {
        let mut history = Vec::new();
        for entry in self.done(exercise) {
            if let Part::Exercise(log) = &entry.part {
                history.push(Performed { on: entry.trained_on, lighter: self.was_lighter(entry), log });
            }
        }
        history
    }

    /// What was reported of the form the last time each exercise was done, where something was.
    pub fn reported(&self) -> BTreeMap<ExerciseId, Vec<String>> {
        let done = self.counted().filter_map(|entry| match &entry.part {
            Part::Exercise(log) => Some(log.done()),
            Part::Session(_) => None,
        });
        let done: BTreeSet<&ExerciseId> = done.collect();
        let said = |id: &ExerciseId| -> Vec<String> {
            let history = self.history(id.as_str());
            history.last().iter().flat_map(|last| &last.log.form).map(|form| form.says().to_owned()).collect()
        };
        let said = done.into_iter().map(|id| (id.clone(), said(id)));
        said.filter(|(_, says)| !says.is_empty()).collect()
    }

    /// What a coach said of an exercise, as long as it holds.
    fn overrule(&self, exercise: &str) -> Option<&Overrule> {
        let (said, at) = self.overrules.get(exercise)?;
        let done = self.counted().filter(|entry| match &entry.part {
            Part::Exercise(log) => log.done().as_str() == exercise && !log.sets.is_empty() && !self.under_way(entry),
            Part::Session(_) => false,
        });
        let written = done.filter_map(|entry| {
            let (session, planned) = entry.slot();
            self.first_written.get(&(session.clone(), planned?.as_str().to_owned())).copied()
        });
        still_holds(*at, written).then_some(said)
    }

    fn was_lighter(&self, entry: &Entry) -> bool {
        let today = |other: &Entry| {
            other.session == entry.session && matches!(&other.part, Part::Session(session) if session.lighter)
        };
        if self.counted().any(today) {
            return true;
        }
        let plan = self.plans.iter().find(|plan| plan.id == entry.session.plan_id);
        plan.and_then(|plan| plan.plan.block_week(entry.session.week)).is_some_and(|week| week.lighter)
    }

    /// The sessions of this week.
    pub fn due(&self) -> Vec<DueSession> {
        self.plan().map_or_else(Vec::new, |issued| due(issued.starts_on, &trained_days(issued), self.today))
    }

    /// Exercises of the plan that stand still, and what to do.
    pub fn stalls(&self) -> Vec<(ItemEntry, logbook::Stall)> {
        self.items()
            .filter_map(|item| {
                let found = stall(&self.history(item.exercise.as_str()), first_side(item), self.today)?;
                Some((item.clone(), found))
            })
            .collect()
    }

    /// Why the next week should be a lighter one, unless this one is.
    pub fn lighten(&self) -> Option<String> {
        let issued = self.plan()?;
        let week = self.due().first()?.week;
        if issued.plan.block_week(week).is_some_and(|week| week.lighter) {
            return None;
        }
        let histories: Vec<(&str, Option<Side>, Vec<Performed>)> = self
            .items()
            .map(|item| (item.name.as_str(), first_side(item), self.history(item.exercise.as_str())))
            .collect();
        let lifts: Vec<_> = histories.iter().map(|(name, side, done)| (*name, *side, done.as_slice())).collect();
        let mut told: Vec<(Date, &SessionLog)> = Vec::new();
        for entry in self.counted() {
            if let Part::Session(log) = &entry.part
                && entry.session.plan_id == issued.id
            {
                told.push((entry.trained_on, log));
            }
        }
        told.sort_by_key(|(on, _)| *on);
        lighten(&lifts, &told.iter().map(|(_, log)| *log).collect::<Vec<_>>())
    }

    fn items(&self) -> impl Iterator<Item = &ItemEntry> {
        let mut seen = Vec::new();
        self.plan().into_iter().flat_map(|issued| issued.plan.all_items()).filter(move |item| {
            let fresh = !seen.contains(&item.exercise);
            seen.push(item.exercise.clone());
            fresh
        })
    }

    /// This week as it is logged.
    pub fn view(&self, desk: &Desk, client_id: &ClientId) -> Result<TrainingView, DeskError> {
        let store = &desk.store;
        let client = store.client(self.atlas(), client_id)?.client;
        let mut view = TrainingView {
            client_id: client_id.to_owned(),
            client_name: client.name.clone(),
            today: self.today.to_string(),
            plan: None,
            note: None,
            sessions: Vec::new(),
            lighter_today: LIGHTER_TODAY,
            measures: client.measures,
            areas: self.atlas().areas().iter().map(|area| (*area).to_owned()).collect(),
        };
        let Some(issued) = self.plan() else {
            view.note = Some("No plan was given yet.".to_owned());
            return Ok(view);
        };
        let due = self.due();
        // What could stand in a card's place follows from brief and verdict, not from the log.
        let mark = desk.mark(store.stamp(client_id)?, 0, self.today);
        let instead = desk.books.instead.get(&issued.id, mark, || Instead::of(store, self.knowledge, issued))?;
        let weeks = u8::try_from(issued.plan.weeks.len()).unwrap_or(u8::MAX);
        let week = due.first().map_or(0, |session| session.week);
        view.note = match week {
            0 => Some(format!("The plan starts on {}.", issued.starts_on)),
            week if week > weeks => Some(format!(
                "The block of {weeks} weeks is over: its last full week goes on until there is a new plan."
            )),
            _ => None,
        };
        let (id, starts_on) = (issued.id.clone(), issued.starts_on.to_string());
        view.plan = Some(PlanInHand { id, version: issued.version, starts_on, weeks, week });
        view.sessions = due.iter().filter_map(|due| self.session(issued, due, &instead)).collect();
        Ok(view)
    }

    fn session(&self, issued: &IssuedRecord, due: &DueSession, instead: &Instead) -> Option<TrainingSession> {
        let place = *trained_places(issued).get(due.session)?;
        let planned = issued.plan.sessions.get(place)?;
        let own = |record: &&LogRecord| {
            let entry = &record.entry;
            entry.plan == issued.id && entry.week == due.week && entry.day == due.day
        };
        let records: Vec<&LogRecord> = self.records.iter().filter(own).collect();
        let is_lighter = issued.plan.block_week(due.week).is_some_and(|week| week.lighter);
        let items = issued.plan.items(due.week, place);
        let items: Vec<TrainingItem> =
            items.iter().map(|item| self.item(item, is_lighter, &records, instead)).collect();
        let cards: Vec<RunCard> = items.iter().map(|item| item.item.run_card(item.item.sets)).collect();
        let whole = |record: &&&LogRecord| matches!(record.entry.part, LogPart::Session { .. });
        let entries: Vec<LogEntryView> =
            records.iter().filter(whole).map(|record| LogEntryView::from(*record)).collect();
        let finished = entries.iter().any(|view| matches!(view.entry.part, LogPart::Session { finished: true, .. }));
        Some(TrainingSession {
            week: due.week,
            day: due.day,
            on: due.on.to_string(),
            home: planned.home,
            lighter: is_lighter,
            minutes: planned.minutes,
            state: match (finished, records.is_empty(), due.on > self.today) {
                (true, ..) => SessionState::Finished,
                (_, false, _) => SessionState::Begun,
                (_, _, true) => SessionState::Ahead,
                _ => SessionState::Due,
            },
            ladders: planned.ladders.clone(),
            run: run(&cards),
            warm_up: planned.warm_up.clone(),
            items,
            entries,
        })
    }

    fn item(&self, item: &ItemEntry, lighter: bool, records: &[&LogRecord], instead: &Instead) -> TrainingItem {
        let history = self.history(item.exercise.as_str());
        let planned = Planned {
            rule: &item.progression,
            sets: item.sets,
            lighter,
            reserve: item.reserve,
            first_side: first_side(item),
            region: item.region.as_str(),
            per_set: &item.per_set,
            load_kg: item.load_kg,
        };
        let target = next(&planned, &history, self.overrule(item.exercise.as_str()));
        let hurt = self.hurt_last(item.exercise.as_str());
        let stalled = stall(&history, first_side(item), self.today);
        let own = |record: &&&LogRecord| match &record.entry.part {
            LogPart::Exercise { exercise, .. } => *exercise == item.exercise.as_str(),
            LogPart::Session { .. } => false,
        };
        let exercise = self.atlas().exercise(&item.exercise);
        let scheme = self.atlas().scheme(&item.scheme);
        let mut says = item.card_says(self.atlas()).into_iter();
        TrainingItem {
            set_up: says.next().unwrap_or_default(),
            cues: says.collect(),
            faults: exercise.iter().flat_map(|of| &of.faults).map(|fault| fault.fault.clone()).collect(),
            cautions: exercise.map(|exercise| exercise.cautions.clone()).unwrap_or_default(),
            forms: exercise.map(forms).unwrap_or_default(),
            variants: exercise.map(|exercise| exercise.variants.clone()).unwrap_or_default(),
            set_up_fields: exercise.map(|exercise| fields(self.atlas(), exercise, item)).unwrap_or_default(),
            scheme_name: scheme.map(|scheme| scheme.name.clone()).unwrap_or_default(),
            assistable: exercise.is_some_and(Exercise::assistable),
            lighter_sets: lighter_sets(item.sets),
            loads_joint: exercise.map(atlas::Exercise::loaded_joints).unwrap_or_default(),
            scheme_how: scheme.map(|scheme| scheme.how.clone()).unwrap_or_default(),
            scheme_set_s: scheme.and_then(|scheme| scheme.set_s),
            target: target_view(target, hurt, stalled.map(|stall| stall.says)),
            last: self.last(item.exercise.as_str()),
            instead: instead.of_exercise(item.exercise.as_str()),
            entries: records.iter().filter(own).map(|record| LogEntryView::from(*record)).collect(),
            feels: feels(self.atlas(), exercise, item),
            item: item.clone(),
        }
    }

    /// Pain from which the planned exercise stopped last time, whatever was done instead of it.
    fn hurt_last(&self, exercise: &str) -> Option<String> {
        let planned = |entry: &&Entry| match &entry.part {
            Part::Exercise(log) => log.exercise.as_str() == exercise && !self.under_way(entry),
            Part::Session(_) => false,
        };
        let last = self.counted().filter(planned).max_by_key(|entry| entry.trained_on)?;
        let Part::Exercise(log) = &last.part else { return None };
        let pain = log.pain.as_ref().filter(|pain| pain.stops())?;
        let during = pain.during.as_ref().unwrap_or_else(|| log.done());
        (during.as_str() == exercise).then(|| format!("Pain {} of 10 last time: swap it.", pain.level))
    }

    /// What was done of an exercise the last time.
    fn last(&self, exercise: &str) -> Option<LastTime> {
        let entry = *self.done(exercise).last()?;
        let Part::Exercise(log) = &entry.part else { return None };
        let record = self.records.iter().find(|record| record.entry.id == entry.id)?;
        Some(LastTime {
            on: entry.trained_on.to_string(),
            sets: sets_of(&record.entry.part),
            felt: log.felt.clone(),
            form: log.form.iter().map(|form| form.says().to_owned()).collect(),
            pain: log.pain.as_ref().map(|pain| pain.level),
        })
    }
}

fn first_written(
    store: &Store,
    plans: &[Arc<IssuedRecord>],
    records: &[LogRecord],
) -> Result<HashMap<(SessionKey, String), Timestamp>, DeskError> {
    let ids: Vec<PlanId> = plans.iter().map(|plan| plan.id.clone()).collect();
    let standing = records.iter().filter_map(|LogRecord { entry, written_at, .. }| match &entry.part {
        LogPart::Exercise { exercise, .. } => {
            let session = SessionKey { plan_id: entry.plan.clone(), week: entry.week, day: entry.day };
            Some((session, exercise.clone(), *written_at))
        }
        LogPart::Session { .. } => None,
    });
    let mut first = HashMap::new();
    for (session, exercise, at) in store.replaced(&ids)?.into_iter().chain(standing) {
        first.entry((session, exercise)).and_modify(|known: &mut Timestamp| *known = at.min(*known)).or_insert(at);
    }
    Ok(first)
}

fn sets_of(part: &LogPart) -> Vec<LogSet> {
    match part {
        LogPart::Exercise { sets, .. } => sets.clone(),
        LogPart::Session { .. } => Vec::new(),
    }
}

/// Places of the sessions with something in them.
fn trained_places(issued: &IssuedRecord) -> Vec<usize> {
    let sessions = issued.plan.sessions.iter().enumerate();
    sessions.filter(|(_, session)| !session.items.is_empty()).map(|(place, _)| place).collect()
}

fn trained_days(issued: &IssuedRecord) -> Vec<u8> {
    trained_places(issued).into_iter().map(|place| issued.plan.sessions[place].day).collect()
}

fn target_view(target: Target, hurt: Option<String>, stall: Option<String>) -> TargetView {
    let swap = hurt.or(target.offer.map(|Offer::Swap(why)| why));
    TargetView {
        kind: target.kind,
        load_kg: target.load_kg,
        loads_kg: target.loads_kg,
        step: target.step,
        counts: target.counts,
        why: target.why,
        swap,
        stall,
    }
}

/// What may be reported of an exercise: what can go wrong with it, in the order of the list.
fn forms(exercise: &Exercise) -> Vec<FormChoice> {
    let choice = |form: &Form| FormChoice { form: *form, says: form.says().to_owned() };
    Form::ALL.iter().filter(|form| form.fits(exercise)).map(choice).collect()
}

/// The numbers by which its station is set, those that are set now first.
fn fields(atlas: &Atlas, exercise: &Exercise, item: &ItemEntry) -> Vec<SetUpField> {
    let set = |field: &SetUpField| item.set_up.contains_key(&field.name);
    let mut fields: Vec<SetUpField> =
        atlas.set_up_fields().iter().filter(|field| set(field) || field.is_of(exercise)).cloned().collect();
    fields.sort_by_key(|field| !set(field));
    fields
}

/// The region it is there for, what else it works, what takes over; nowhere last.
fn feels(atlas: &Atlas, exercise: Option<&Exercise>, item: &ItemEntry) -> Vec<FeelChoice> {
    let mut ids = vec![item.region.to_string()];
    ids.extend(exercise.iter().flat_map(|exercise| exercise.targets.keys()).map(ToString::to_string));
    ids.extend(exercise.iter().flat_map(|exercise| &exercise.faults).map(|fault| fault.takes_over.clone()));
    ids.push("nowhere".to_owned());
    let mut seen = Vec::new();
    ids.retain(|id| {
        let fresh = !seen.contains(id);
        seen.push(id.clone());
        fresh
    });
    let named = |id: &str| {
        let region = atlas.regions().iter().find(|region| region.id.as_str() == id).map(|region| region.name.clone());
        region.or_else(|| atlas.named_takeover(id).map(ToOwned::to_owned))
    };
    let choice = |id: String| match id.as_str() {
        "nowhere" => Some(FeelChoice { id, name: "Nowhere".to_owned() }),
        _ => named(&id).map(|name| FeelChoice { id, name }),
    };
    ids.into_iter().filter_map(choice).collect()
}
