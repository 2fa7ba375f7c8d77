//! A solved week as sessions, a ledger, reasons, and what stood in the way.

use crate::aims::{Floor, Limit};
use crate::blocked::{Blocked, blocked};
use crate::card::Card;
use crate::cost::cost;
use crate::dose::Dose;
use crate::draft::{Draft, Locks, given};
use crate::eye::{Objection, objections};
use crate::faults::{Broken, faults};
use crate::item::{Item, item, why_in_turn};
use crate::ladder::{Ladder, ladders};
use crate::missing::{Explained, Missing, nothing_allowed, why_missing};
use crate::problem::{Demand, PlanProblem};
use crate::rules::loads::load;
use crate::run::{Step, cards_s, run, run_cards};
use crate::timing::{cards_minutes, session_minutes};
use crate::turns::{in_turn, turned};
use crate::warm_up::{self, WarmUpEntry};
use crate::week::Week;
use crate::words::{limit_reached, sets_spent};
use assess::Class;
use atlas::{Movement, Part};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use units::RegionId;
use utoipa::ToSchema;

/// How a plan stands.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "lowercase")]
pub enum Status {
    /// Proven best.
    Optimal,
    /// Keeps every rule; not proven best.
    Feasible,
    /// No session could be filled.
    Infeasible,
}

/// A day's work.
#[derive(Clone, Debug, PartialEq)]
pub struct Session {
    /// Weekday, Monday = 1.
    pub day: u8,
    /// Whether it is trained at home.
    pub home: bool,
    /// What it takes.
    pub minutes: f64,
    /// In order.
    pub items: Vec<Item>,
    /// Set by set as it is run.
    pub run: Vec<Step>,
    /// What comes before and after the work.
    pub warm_up: WarmUpEntry,
    /// What it is for, where the days have themes.
    pub theme: Option<&'static str>,
    /// Why much of its time is left, where it is.
    pub short_because: Option<String>,
    /// For chosen regions that are not felt, in the first session that trains them.
    pub ladders: Vec<Ladder>,
}

/// A region's week.
#[derive(Clone, Debug, PartialEq)]
pub struct LedgerRow {
    /// The region.
    pub region: RegionId,
    /// Its class.
    pub class: Class,
    /// The band, fractional sets.
    pub low: f64,
    /// The aim.
    pub aim: f64,
    /// The upper end.
    pub high: f64,
    /// Sets as main target.
    pub direct: f64,
    /// Fractions of sets of other work.
    pub indirect: f64,
    /// Why it gets nothing, where it gets nothing.
    pub empty_because: Option<String>,
}

/// A big part's week.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct PartRow {
    /// Which.
    pub part: Part,
    /// Its regions.
    pub regions: Vec<RegionId>,
    /// Fractional sets, all its regions together.
    pub sets: f64,
    /// Below this it counts as empty; 0 where it is held back or nothing may train it.
    pub floor: f64,
    /// Why it is below.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub reason: Option<String>,
    /// The nearest change that would help.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub nearest: Option<String>,
}

/// A movement that a sound week has.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct MovementRow {
    /// Which.
    pub movement: Movement,
    /// Sessions that have it.
    pub sessions: usize,
    /// Why none has.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub reason: Option<String>,
    /// The nearest change that would help.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub nearest: Option<String>,
}

/// What a week adds up to against a limit.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct LoadRow {
    /// What is added up: `sets`, `axial` (load along the spine), or a joint.
    pub of: String,
    /// The sum.
    pub load: f64,
    /// The most.
    pub limit: f64,
    /// The pain that lowers it, 0 to 10.
    pub pain: u8,
}

/// A week's plan.
#[derive(Clone, Debug, PartialEq)]
pub struct Plan {
    /// How it stands.
    pub status: Status,
    /// Its cost; lower is better.
    pub objective: f64,
    /// Days with work.
    pub sessions: Vec<Session>,
    /// Every region.
    pub ledger: Vec<LedgerRow>,
    /// Every big part, in the order in which a short week fills them.
    pub parts: Vec<PartRow>,
    /// The movements that a sound week has.
    pub movements: Vec<MovementRow>,
    /// Sets, load along the spine and on every joint.
    pub loads: Vec<LoadRow>,
    /// What a coach would object to.
    pub objections: Vec<Objection>,
    /// Wishes that gave way, in words.
    pub gave_way: Vec<String>,
    /// What could not be met.
    pub blocked: Vec<Blocked>,
    /// Rules that the week breaks; none in a week that was solved.
    pub broken: Vec<Broken>,
}

/// Puts a solved week into words, ordered by the coach's school; days without work are left out.
pub fn present(problem: &PlanProblem, week: &Week) -> Plan {
    let mut plan = present_draft(problem, &Draft::of_week(problem, week, &Locks::default()));
    plan.sessions.retain(|session| !session.items.is_empty());
    plan
}

/// Puts a week as a coach has it into words, every day and in its order.
pub fn present_draft(problem: &PlanProblem, draft: &Draft) -> Plan {
    let week = draft.week(problem);
    let mut sessions: Vec<Session> = (0..draft.sessions.len()).map(|index| session(problem, draft, index)).collect();
    let explained = Explained::of(problem, draft, &week);
    for (session, because) in sessions.iter_mut().zip(&explained.short) {
        session.short_because.clone_from(because);
    }
    put_in_turn(problem, draft, &mut sessions);
    let mut taught: Vec<RegionId> = Vec::new();
    for session in &mut sessions {
        let trains = |ladder: &Ladder| session.items.iter().any(|item| item.region == ladder.region);
        session.ladders =
            ladders(problem, session.home).into_iter().filter(|l| trains(l) && !taught.contains(&l.region)).collect();
        taught.extend(session.ladders.iter().map(|ladder| ladder.region.clone()));
    }
    let status = if week.total_sets() == 0 { Status::Infeasible } else { Status::Feasible };
    Plan {
        status,
        objective: cost(problem, &week),
        sessions,
        ledger: (0..problem.demands.len()).map(|demand| draft_row(problem, draft, &week, demand)).collect(),
        parts: problem
            .floors
            .iter()
            .zip(&explained.parts)
            .map(|(floor, missing)| part_row(problem, draft, floor, missing.as_ref()))
            .collect(),
        movements: movements(problem, &week),
        loads: loads(problem, &week),
        objections: objections(problem, draft, &explained),
        gave_way: problem.gave_way.clone(),
        blocked: blocked(problem, &week),
        broken: faults(problem, draft),
    }
}

/// Puts behind each card what stands in its place in every second week.
fn put_in_turn(problem: &PlanProblem, draft: &Draft, sessions: &mut [Session]) {
    let turns = in_turn(problem, draft);
    let other = turned(draft, &turns);
    for turn in &turns {
        let mut day = session(problem, &other, turn.session);
        let mut item = day.items.swap_remove(turn.place);
        let first = &mut sessions[turn.session].items[turn.place];
        let why = why_in_turn(problem, turn);
        for of in [&mut item, first] {
            of.why.insert(0, why.clone());
        }
        first.in_turn = Some(Box::new(item));
    }
}

fn session(problem: &PlanProblem, draft: &Draft, index: usize) -> Session {
    let cards = &draft.sessions[index];
    // Ramps are for what is loaded: the body's own weight needs none.
    let first_compound = cards.iter().position(|card| problem.candidates[card.candidate].exercise.heavy());
    let minutes = cards_s(problem, cards);
    let runs = run_cards(problem, cards);
    let items = cards.iter().enumerate().map(|(position, card)| {
        let ramp = first_compound == Some(position);
        let variant = &problem.candidates[card.candidate].instead[usize::from(problem.home[index])];
        let item = item(problem, card, position, ramp, &runs[position]);
        Item { minutes: minutes[position] / 60.0, variant: item.variant.or_else(|| variant.clone()), ..item }
    });
    Session {
        day: problem.days[index],
        home: problem.home[index],
        minutes: cards_minutes(problem, cards),
        items: items.collect(),
        run: run(&runs),
        warm_up: warm_up::warm_up(problem, cards, index),
        ladders: Vec::new(),
        theme: problem.themes[index].name().filter(|_| on_theme(problem, cards, index)),
        short_because: None,
    }
}

/// Whether a day is what its theme says: a coach's own day may be about something else.
fn on_theme(problem: &PlanProblem, cards: &[Card], session: usize) -> bool {
    let off = cards.iter().filter(|card| problem.candidates[card.candidate].off_theme[session]).count();
    2 * off <= cards.len()
}

fn part_row(problem: &PlanProblem, draft: &Draft, floor: &Floor, missing: Option<&Missing>) -> PartRow {
    let sets = floor.sets_of(problem, draft);
    let (reason, nearest) = match missing {
        Some(missing) => (Some(missing.rule.clone()), Some(missing.nearest.clone())),
        None if floor.held_back(problem) => (Some("held back".to_owned()), None),
        None if sets < floor.least - 1e-9 => (Some("the week has room for it".to_owned()), None),
        None => (None, None),
    };
    let regions = floor.demands.iter().map(|demand| problem.demands[*demand].region.clone());
    PartRow { part: floor.part, sets, floor: floor.least, reason, nearest, regions: regions.collect() }
}

fn movements(problem: &PlanProblem, week: &Week) -> Vec<MovementRow> {
    let row = |movement: &Movement| {
        let is = |c: usize| problem.candidates[c].exercise.movement == *movement;
        let sessions = (0..week.session_count()).filter(|s| week.items(*s).iter().any(|(c, _)| is(*c))).count();
        let dropped = problem.dropped.contains(movement);
        let missing = if sessions == 0 && !dropped {
            why_missing(problem, week, &|exercise| exercise.movement == *movement)
        } else {
            None
        };
        let left_out =
            || if dropped { "the coach's school drops it" } else { "what it trains gets its sets from other work" };
        let (reason, nearest) = match missing {
            Some(missing) => (Some(missing.rule), Some(missing.nearest)),
            None if sessions == 0 => (Some(left_out().to_owned()), None),
            None => (None, None),
        };
        MovementRow { movement: *movement, sessions, reason, nearest }
    };
    Movement::WEEKLY.iter().map(row).collect()
}

fn loads(problem: &PlanProblem, week: &Week) -> Vec<LoadRow> {
    let row = |limit: &Limit| LoadRow {
        of: limit.of.id().to_owned(),
        load: load(problem, week, limit),
        limit: limit.most,
        pain: limit.pain,
    };
    problem.limits.iter().map(row).collect()
}

/// A region's direct and indirect sets with what its cards' schemes count as.
pub(crate) fn draft_sets(problem: &PlanProblem, draft: &Draft, index: usize) -> [f64; 2] {
    let region = &problem.demands[index].region;
    let (mut direct, mut indirect) = (0.0, 0.0);
    for card in draft.sessions.iter().flatten() {
        let (sets, main) = given(problem, card, region);
        *(if main { &mut direct } else { &mut indirect }) += sets;
    }
    [direct, indirect]
}

/// A region's week on the board.
fn draft_row(problem: &PlanProblem, draft: &Draft, week: &Week, index: usize) -> LedgerRow {
    let Demand { region, class, dose, .. } = &problem.demands[index];
    let [direct, indirect] = draft_sets(problem, draft, index);
    let mut row = bare_row(region, *class, dose, [direct, indirect]);
    if direct + indirect <= 0.0 {
        row.empty_because = Some(empty_because(problem, week, index));
    }
    row
}

fn bare_row(region: &RegionId, class: Class, dose: &Dose, [direct, indirect]: [f64; 2]) -> LedgerRow {
    let (region, low, aim, high) = (region.clone(), dose.low, dose.aim, dose.high);
    LedgerRow { region, class, low, aim, high, direct, indirect, empty_because: None }
}

/// Why a region gets nothing at all.
fn empty_because(problem: &PlanProblem, week: &Week, index: usize) -> String {
    let demand = &problem.demands[index];
    let allowed = problem.candidates.iter().any(|c| problem.worth_doing(c) && c.trains(index));
    if demand.class == Class::HoldBack || demand.dose.aim <= 0.0 {
        return "held back or left alone".to_owned();
    }
    if !allowed {
        return nothing_allowed(problem, &|exercise| exercise.trains(&demand.region)).rule;
    }
    let full = (0..week.session_count()).all(|session| {
        week.items(session).len() >= problem.max_exercises
            || session_minutes(problem, week.items(session)) > problem.minutes - ROOM_FOR_ANOTHER
    });
    match sets_spent(problem, week) {
        Some(limit) => limit_reached(limit),
        None if full => format!("{:.0} minutes a session are full", problem.minutes),
        None => "other regions need the room more".to_owned(),
    }
}

/// Two sets of a small exercise with their setting up take about this, minutes.
const ROOM_FOR_ANOTHER: f64 = 4.5;

pub(crate) fn ledger_row(problem: &PlanProblem, week: &Week, index: usize) -> LedgerRow {
    let demand = &problem.demands[index];
    let (mut direct, mut indirect) = (0.0, 0.0);
    for (candidate, sets) in week.all_items() {
        let fraction = problem.candidates[candidate].fraction(index);
        *(if fraction >= 1.0 { &mut direct } else { &mut indirect }) +=
            problem.candidates[candidate].usual.counts.of(sets) * fraction;
    }
    bare_row(&demand.region, demand.class, &demand.dose, [direct, indirect])
}
