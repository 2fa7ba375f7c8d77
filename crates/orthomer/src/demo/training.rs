//! What the demo's clients were given and trained: plans of the planner's own, and logs that follow the rules of progress with
//! a scatter, a sore elbow, a numb foot and two phones that did not see each other.

use crate::demo::stories::Story;
use crate::demo::{Coach, RoundIds};
use crate::failure::Failure;
use assess::{Knowledge, assess};
use atlas::{Exercise, Work};
use casefile::{
    ItemEntry, LogEntry, LogPain, LogPart, LogSet, PlanFile, WeekDraft, check_log_entry, plan_file, week_draft,
};
use desk::log::received;
use jiff::civil::{Date, Weekday};
use jiff::tz::TimeZone;
use jiff::{Timestamp, ToSpan};
use logbook::{ExerciseLog, Part, Performed, Planned, RedFlag, TargetKind, next};
use plan::{Draft, Effort, Locks, PlanProblem, SidePlan, WEEKS_USUAL, block, present_draft, solve_around};
use rand::rngs::StdRng;
use rand::{Rng, RngExt, SeedableRng};
use std::collections::HashMap;
use store::{NewIssue, NewLogEntry, Store};
use units::{ClientId, ExerciseId, Place, PlanId, RoundId, Side};

/// A short search: the demo starts at once.
const DEMO_MOVES: u32 = 60_000;
/// Sessions that what comes next is read from.
const MEMORY: usize = 6;
/// The hour at which the made-up clients train.
const HOUR: i8 = 18;

/// How somebody trains.
#[derive(Clone, Copy)]
pub struct Habit {
    /// Sessions kept, 0 to 1.
    kept: f64,
    /// What is told of the last session of an exercise that loads a joint.
    tells: Tells,
    /// Whether repetitions rise at all.
    rises: bool,
}

#[derive(Clone, Copy, PartialEq, Eq)]
enum Tells {
    Nothing,
    SoreElbow,
    NumbFoot,
}

const STEADY: Habit = Habit { kept: 0.95, tells: Tells::Nothing, rises: true };

/// Client, weeks ago of the round the plan belongs to, habit.
const TRAINED: [(&str, i64, Habit); 5] = [
    ("Oda Fenwick", 8, STEADY),
    ("Bram Quillan", 9, Habit { kept: 0.85, ..STEADY }),
    ("Rune Castellan", 3, STEADY),
    ("Matteo Brask", 11, Habit { kept: 0.9, tells: Tells::SoreElbow, rises: false }),
    ("Ilse Tarrow", 2, Habit { kept: 1.0, tells: Tells::NumbFoot, rises: true }),
];

/// A plan as it is given.
#[derive(Clone)]
pub struct Given {
    week: WeekDraft,
    plan: PlanFile,
}

/// Gives plans and writes logs for those who have a story of training.
pub fn keep(store: &Store, knowledge: &Knowledge, rounds: &RoundIds, by: Coach, today: Date) -> Result<(), Failure> {
    for (seed, (client, weeks_ago, habit)) in (1_u64..).zip(TRAINED) {
        let Some((round_id, day)) = rounds.get(&(client, weeks_ago)) else { continue };
        let client_id = store.round(round_id).map_err(Failure::other)?.client_id;
        let given = solve(store, knowledge, round_id)?;
        let starts_on = next_monday(*day)?;
        let plan_id = issue(store, &given, round_id, by, *day, starts_on)?;
        let log = Training { knowledge, given: &given, plan_id: &plan_id, starts_on, habit, seed };
        let written = log.written(today, u8::MAX)?;
        store.keep_log(&client_id, client, &written).map_err(Failure::other)?;
        if client == "Bram Quillan"
            && let Some(twice) = written.iter().rev().find(|new| matches!(new.entry.part, LogPart::Exercise { .. }))
        {
            let other = log.side_by_side(twice);
            store.keep_log(&client_id, by.name, &[other]).map_err(Failure::other)?;
        }
    }
    Ok(())
}

/// The plan of the made-up client's second round and their log up to `today`.
pub fn of_made_up(
    store: &Store,
    knowledge: &Knowledge,
    rounds: &RoundIds,
    story: &Story,
    by: Coach,
    today: Date,
) -> Result<(), Failure> {
    let [.., before, _] = story.rounds else { return Ok(()) };
    let Some((round_id, day)) = rounds.get(&(story.name, before.weeks_ago)) else { return Ok(()) };
    let client_id = store.round(round_id).map_err(Failure::other)?.client_id;
    let given = solve(store, knowledge, round_id)?;
    let starts_on = next_monday(*day)?;
    let plan_id = issue(store, &given, round_id, by, *day, starts_on)?;
    // Ids of entries are drawn from the seed: of an archive's client they must not come twice.
    let seed = rand::rng().next_u64();
    let log = Training { knowledge, given: &given, plan_id: &plan_id, starts_on, habit: STEADY, seed };
    store.keep_log(&client_id, story.name, &log.written(today, u8::MAX)?).map_err(Failure::other)?;
    Ok(())
}

/// Three years of weekly logs up to `today`, a plan a year, for a client whose rounds are given oldest first.
pub fn keep_years(
    store: &Store,
    knowledge: &Knowledge,
    client_id: &ClientId,
    name: &str,
    rounds: &[(RoundId, Date)],
    (by, today, seed): (Coach, Date, u64),
) -> Result<(), Failure> {
    const PLAN_WEEKS: usize = 52;
    let Some((newest, _)) = rounds.last() else { return Ok(()) };
    let given = solve(store, knowledge, newest)?;
    let first = rounds.first().map_or(today, |(_, day)| *day);
    let mut starts_on = next_monday(first)?;
    let mut luck = StdRng::seed_from_u64(seed);
    while starts_on < today {
        let of = rounds.iter().rev().find(|(_, day)| *day <= starts_on).map_or(newest, |(id, _)| id);
        let plan_id = issue(store, &given, of, by, starts_on, starts_on)?;
        let seed = luck.next_u64();
        let log = Training { knowledge, given: &given, plan_id: &plan_id, starts_on, habit: STEADY, seed };
        let written = log.written(today, u8::try_from(PLAN_WEEKS).unwrap_or(u8::MAX))?;
        store.add_history(client_id, name, &written).map_err(Failure::other)?;
        starts_on = starts_on.checked_add(i64::try_from(PLAN_WEEKS).unwrap_or(52).weeks()).map_err(Failure::other)?;
    }
    Ok(())
}

fn next_monday(day: Date) -> Result<Date, Failure> {
    let since = i64::from(day.weekday().since(Weekday::Monday));
    day.checked_add(((7 - since) % 7).days()).map_err(Failure::other)
}

fn solve(store: &Store, knowledge: &Knowledge, round_id: &RoundId) -> Result<Given, Failure> {
    let case = store.case_at(&knowledge.atlas, round_id).map_err(Failure::other)?;
    let problem = PlanProblem::new(knowledge, &case, &assess(knowledge, &case));
    let locks = Locks::default();
    let week = solve_around(&problem, Effort { moves: DEMO_MOVES, seed: 1 }, &locks);
    let draft = Draft::of_week(&problem, &week, &locks);
    let weeks = block(&problem, &draft, WEEKS_USUAL);
    Ok(Given {
        week: week_draft(&problem, &draft, WEEKS_USUAL, &case.choices.bring_up),
        plan: plan_file(&present_draft(&problem, &draft), &weeks, None, 0.0),
    })
}

fn issue(
    store: &Store,
    given: &Given,
    round_id: &RoundId,
    by: Coach,
    issued_on: Date,
    starts_on: Date,
) -> Result<PlanId, Failure> {
    let new = NewIssue {
        round_id: round_id.to_owned(),
        issued_on,
        starts_on,
        issued_by: by.name.to_owned(),
        issued_by_id: Some(by.id.to_owned()),
        week: given.week.clone(),
        plan: given.plan.clone(),
    };
    Ok(store.issue_plan(&new).map_err(Failure::other)?.id)
}

struct Training<'a> {
    knowledge: &'a Knowledge,
    given: &'a Given,
    plan_id: &'a PlanId,
    starts_on: Date,
    habit: Habit,
    seed: u64,
}

/// What was done lately, by exercise.
type Memory = HashMap<ExerciseId, Vec<(Date, bool, ExerciseLog)>>;

impl Training<'_> {
    /// Every session before `today`, for so many weeks at most.
    fn written(&self, today: Date, weeks: u8) -> Result<Vec<NewLogEntry>, Failure> {
        let mut luck = StdRng::seed_from_u64(self.seed);
        let mut memory = Memory::new();
        let mut written = Vec::new();
        for week in 1..=weeks {
            let monday = self.starts_on.checked_add((i64::from(week) - 1).weeks()).map_err(Failure::other)?;
            if monday >= today {
                break;
            }
            for place in 0..self.given.plan.sessions.len() {
                let day = self.given.plan.sessions[place].day;
                let on = monday.checked_add((i64::from(day) - 1).days()).map_err(Failure::other)?;
                if on >= today || self.given.plan.sessions[place].items.is_empty() || !luck.random_bool(self.habit.kept)
                {
                    continue;
                }
                self.session(&mut luck, &mut memory, (week, place), on, &mut written)?;
            }
        }
        self.tell(&mut written);
        // What was told late changes what has to be said at once.
        written.iter().map(|new| self.checked(new.entry.clone())).collect()
    }

    fn session(
        &self,
        luck: &mut StdRng,
        memory: &mut Memory,
        (week, place): (u8, usize),
        on: Date,
        written: &mut Vec<NewLogEntry>,
    ) -> Result<(), Failure> {
        let session = &self.given.plan.sessions[place];
        let lighter = self.given.plan.block_week(week).is_some_and(|week| week.lighter);
        for (index, item) in self.given.plan.items(week, place).iter().enumerate() {
            let sets = item.sets;
            let Some(exercise) = self.knowledge.atlas.exercise(&item.exercise) else { continue };
            let sets = self.sets(luck, memory, exercise, item, (sets, lighter));
            let minute = i8::try_from(index * 7).unwrap_or(59).min(59);
            let felt = luck.random_bool(0.25).then(|| item.region.to_string());
            let part = LogPart::Exercise {
                exercise: item.exercise.to_string(),
                instead: None,
                position: u8::try_from(index + 1).unwrap_or(u8::MAX),
                scheme: item.scheme.clone(),
                sets,
                felt,
                pain: None,
                form: Vec::new(),
                variant: None,
                set_up: std::collections::BTreeMap::new(),
                note: None,
            };
            let new = self.checked(self.entry(luck, (week, session.day), on, minute, part)?)?;
            self.remember(memory, &new.entry, on, lighter);
            written.push(new);
        }
        let part = LogPart::Session {
            finished: true,
            sleep: Some(luck.random_range(3..=5)),
            soreness: Some(luck.random_range(1..=3)),
            lighter: false,
            note: None,
        };
        written.push(self.checked(self.entry(luck, (week, session.day), on, 59, part)?)?);
        Ok(())
    }

    fn entry(
        &self,
        luck: &mut StdRng,
        (week, day): (u8, u8),
        on: Date,
        minute: i8,
        part: LogPart,
    ) -> Result<LogEntry, Failure> {
        let at = on.at(HOUR, minute, 0, 0).to_zoned_datetime(TimeZone::UTC).map_err(Failure::other)?.timestamp();
        Ok(LogEntry {
            id: random_id(luck),
            follows: Vec::new(),
            plan: self.plan_id.to_owned(),
            week,
            day,
            trained_on: on.to_string(),
            at: at.to_string(),
            part,
        })
    }

    fn checked(&self, entry: LogEntry) -> Result<NewLogEntry, Failure> {
        let written_at: Timestamp = entry.at.parse().map_err(Failure::other)?;
        Ok(received(self.knowledge, entry, written_at).map_err(Failure::Input)?.0)
    }

    /// What the rules ask for, done nearly so.
    fn sets(
        &self,
        luck: &mut StdRng,
        memory: &Memory,
        exercise: &Exercise,
        item: &ItemEntry,
        (sets, lighter): (u16, bool),
    ) -> Vec<LogSet> {
        let first_side = match item.sides {
            SidePlan::Both => None,
            SidePlan::LeftFirst => Some(Side::Left),
            SidePlan::RightFirst => Some(Side::Right),
        };
        let history: Vec<Performed> = memory
            .get(&item.exercise)
            .map(|done| done.iter().map(|(on, lighter, log)| Performed { on: *on, lighter: *lighter, log }).collect())
            .unwrap_or_default();
        let rule = &item.progression;
        let planned = Planned {
            rule,
            sets,
            lighter,
            reserve: item.reserve,
            first_side,
            region: item.region.as_str(),
            per_set: &item.per_set,
            load_kg: item.load_kg,
        };
        let target = next(&planned, &history, None);
        let load_kg = match (target.kind, target.load_kg) {
            (TargetKind::Find, _) => first_load(luck, exercise),
            // A plate of the stack is 5 kg in this studio.
            (TargetKind::Load, Some(kg)) if target.step.is_some() => Some(kg + 5.0),
            (_, load) => load,
        };
        let seconds = matches!(exercise.work(), Work::Seconds(_));
        let sides: Vec<Option<Side>> =
            first_side.map_or_else(|| vec![None], |side| vec![Some(side), Some(side.other())]);
        let mut done = Vec::new();
        for (number, count) in (1..).zip(&target.counts) {
            let slack = if self.habit.rises && luck.random_bool(0.7) { 0 } else { -1 };
            let least = i32::from(rule.bottom);
            let count = (i32::from(*count) + slack).max(least);
            let count = u16::try_from(count).unwrap_or(rule.bottom).min(rule.top);
            for side in &sides {
                done.push(LogSet {
                    number,
                    side: *side,
                    load_kg,
                    reps: (!seconds).then_some(count),
                    seconds: seconds.then_some(count),
                    reserve: (!seconds).then_some(item.reserve),
                    parts: Vec::new(),
                });
            }
        }
        done
    }

    fn remember(&self, memory: &mut Memory, entry: &LogEntry, on: Date, lighter: bool) {
        let Ok(resolved) = check_log_entry(&self.knowledge.atlas, &Place::root(), entry) else { return };
        let Part::Exercise(log) = resolved.part else { return };
        let done = memory.entry(log.exercise.clone()).or_default();
        if done.len() >= MEMORY {
            done.remove(0);
        }
        done.push((on, lighter, log));
    }

    /// What the last session tells beside its numbers.
    fn tell(&self, written: &mut [NewLogEntry]) {
        let (joint, area, level, red_flags) = match self.habit.tells {
            Tells::Nothing => return,
            Tells::SoreElbow => ("elbow", "elbow", 4, Vec::new()),
            Tells::NumbFoot => ("", "low-back", 2, vec![RedFlag::Numbness]),
        };
        let loads = |new: &&mut NewLogEntry| match &new.entry.part {
            LogPart::Exercise { exercise, .. } => {
                let known = exercise.parse().ok().and_then(|id| self.knowledge.atlas.exercise(&id));
                known.is_some_and(|known| joint.is_empty() || known.load_on(joint) > 0)
            }
            LogPart::Session { .. } => false,
        };
        if let Some(new) = written.iter_mut().rev().find(loads)
            && let LogPart::Exercise { pain, note, .. } = &mut new.entry.part
        {
            *pain = Some(LogPain { area: area.to_owned(), side: Some(Side::Right), level, red_flags, during: None });
            *note = Some("Came on in the second set.".to_owned());
        }
    }

    /// The same exercise as another phone has it, which did not see the first.
    fn side_by_side(&self, first: &NewLogEntry) -> NewLogEntry {
        let mut other = first.clone();
        other.entry.id = random_id(&mut StdRng::seed_from_u64(self.seed + 9_000));
        if let LogPart::Exercise { sets, .. } = &mut other.entry.part {
            for set in sets {
                set.reps = set.reps.map(|reps| reps + 1);
                set.seconds = set.seconds.map(|seconds| seconds + 5);
            }
        }
        other
    }
}

fn random_id(luck: &mut StdRng) -> String {
    let mut bytes = [0_u8; 16];
    luck.fill_bytes(&mut bytes);
    uuid::Builder::from_random_bytes(bytes).into_uuid().to_string()
}

/// A load somebody might begin with; none where nothing is held.
fn first_load(luck: &mut StdRng, exercise: &Exercise) -> Option<f64> {
    let held = |item: &units::EquipmentId| {
        let id = item.as_str();
        ["barbell", "dumbbell", "cable", "dual-cable", "kettlebell"].contains(&id) || id.starts_with("machine:")
    };
    if !exercise.equipment.iter().any(held) {
        return None;
    }
    let [low, high] = match exercise.effort {
        atlas::Effort::Small => [3_i32, 6],
        atlas::Effort::Isolation => [6, 14],
        atlas::Effort::Compound => [20, 36],
    };
    Some(f64::from(luck.random_range(low..=high)) * 2.0)
}
