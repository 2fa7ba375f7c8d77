//! A week read as a coach would read it before signing: what they would object to. It looks at the cards alone, so that a
//! fault of the search or of a rule shows here.

use crate::aims::{Limit, LoadOf, allowed_load};
use crate::anneal::{SETS_HIGH, SETS_LOW};
use crate::card::Card;
use crate::draft::{CardPlace, Draft};
use crate::missing::{Explained, is_short};
use crate::order::{needs_grip, tires_grip};
use crate::problem::{Candidate, PlanProblem};
use crate::rules::neighbours;
use crate::timing::cards_minutes;
use crate::words::{load_name, lower_first, number, upper_first};
use assess::{Class, Experience};
use atlas::Part;

/// Kinds of objections.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum ObjectionKind {
    /// A big part without work, and nothing that would explain it.
    EmptyPart(Part),
    /// More load along the spine than this client's training age bears.
    Spine,
    /// Too much of an exercise made of lowering.
    Eccentric,
    /// Grip work before a pull or a hinge.
    GripFirst,
    /// Much of the time unused, and nothing that would explain it.
    ShortSession,
    /// An exercise that a pain forbids.
    Pain,
    /// A technical exercise for a beginner.
    Skill,
    /// Sets of an exercise that are too few or too many.
    SetCount,
    /// The same on two days running, of what is no daily region.
    Daily,
    /// A session that opens with neither a chosen region nor a heavy lift.
    Opening,
}

impl ObjectionKind {
    /// A word for it in files.
    pub fn id(self) -> &'static str {
        match self {
            Self::EmptyPart(_) => "empty-part",
            Self::Spine => "spine",
            Self::Eccentric => "eccentric",
            Self::GripFirst => "grip-first",
            Self::ShortSession => "short-session",
            Self::Pain => "pain",
            Self::Skill => "skill",
            Self::SetCount => "set-count",
            Self::Daily => "daily",
            Self::Opening => "opening",
        }
    }
}

/// Something a coach would object to.
#[derive(Clone, Debug, PartialEq)]
pub struct Objection {
    /// Of which kind.
    pub kind: ObjectionKind,
    /// In words.
    pub says: String,
    /// The cards it concerns.
    pub cards: Vec<CardPlace>,
}

/// Sets of a big part under this are as good as none. Small parts may wait for another week.
const EMPTY: f64 = 2.0;

/// What a coach would object to; nothing in a week they would sign.
pub(crate) fn objections(problem: &PlanProblem, draft: &Draft, explained: &Explained) -> Vec<Objection> {
    let read = Read { problem, draft, explained };
    let mut found = read.parts();
    found.extend(read.spine());
    found.extend(read.cards());
    found.extend(read.sessions());
    found
}

struct Read<'a> {
    problem: &'a PlanProblem,
    draft: &'a Draft,
    explained: &'a Explained,
}

impl Read<'_> {
    fn of(&self, card: &Card) -> &Candidate {
        &self.problem.candidates[card.candidate]
    }

    fn all(&self) -> impl Iterator<Item = (usize, &Card)> {
        self.draft
            .sessions
            .iter()
            .enumerate()
            .flat_map(|(session, cards)| cards.iter().map(move |card| (session, card)))
    }

    fn place(&self, session: usize, card: &Card) -> CardPlace {
        self.problem.card_place(session, card.candidate)
    }

    fn parts(&self) -> Vec<Objection> {
        let mut found = Vec::new();
        for (floor, missing) in self.problem.floors.iter().zip(&self.explained.parts) {
            let sets = floor.sets_of(self.problem, self.draft);
            if !floor.part.small() && floor.least > 0.0 && sets < EMPTY && missing.is_none() {
                let (name, sets, least) = (upper_first(floor.part.name()), number(sets), number(floor.least));
                let says = format!("{name} get {sets} sets; {least} are the least, and there is room.");
                found.push(Objection { kind: ObjectionKind::EmptyPart(floor.part), says, cards: Vec::new() });
            }
        }
        found
    }

    fn spine(&self) -> Option<Objection> {
        let limit = self.problem.limits.iter().find(|limit| limit.of == LoadOf::Axial)?;
        let load: f64 = self.all().map(|(_, card)| f64::from(card.sets) * self.of(card).exercise.axial).sum();
        let heavy = self.all().filter(|(_, card)| self.of(card).exercise.axial >= 1.0);
        (load > limit.most + 1e-9).then(|| Objection {
            kind: ObjectionKind::Spine,
            says: format!("The spine carries {}; {} are the most.", number(load), number(limit.most)),
            cards: heavy.map(|(session, card)| self.place(session, card)).collect(),
        })
    }

    /// Each card by itself, and against the day after.
    fn cards(&self) -> Vec<Objection> {
        let mut found = Vec::new();
        for (session, card) in self.all() {
            let candidate = self.of(card);
            let (name, day) = (&candidate.exercise.name, self.problem.day_name(session));
            let mut object = |kind, says: String| {
                found.push(Objection { kind, says, cards: vec![self.place(session, card)] });
            };
            if !(SETS_LOW..=SETS_HIGH).contains(&card.sets) {
                object(
                    ObjectionKind::SetCount,
                    format!("{name} has {} sets on {day}: {SETS_LOW} to {SETS_HIGH} are usual.", card.sets),
                );
            }
            let week: u16 = self.all().filter(|(_, c)| c.candidate == card.candidate).map(|(_, c)| c.sets).sum();
            if candidate.exercise.eccentric && (card.sets > candidate.caps.session_sets || week > candidate.caps.sets) {
                let says = format!(
                    "{name}: {} sets a session and {} a week are enough.",
                    candidate.caps.session_sets, candidate.caps.sets
                );
                object(ObjectionKind::Eccentric, says);
            }
            if self.problem.experience == Experience::Beginner && candidate.exercise.skill >= 2 {
                object(ObjectionKind::Skill, format!("{name} is technical: a beginner learns it first."));
            }
            if let Some(limit) = self.hurts(candidate) {
                let joint = load_name(&limit.of);
                let says = format!("{name} loads the {joint}, which hurts {}/10.", limit.pain);
                object(ObjectionKind::Pain, says);
            }
            let again = self.all().find(|(other, c)| {
                *other > session
                    && c.candidate == card.candidate
                    && neighbours(self.problem.days[*other], self.problem.days[session])
            });
            if let Some((other, _)) = again.filter(|_| !candidate.daily) {
                let says = format!("{name} stands on {day} and on {}.", self.problem.day_name(other));
                object(ObjectionKind::Daily, says);
            }
        }
        found
    }

    /// The limit of a joint that hurts too much for an exercise.
    fn hurts(&self, candidate: &Candidate) -> Option<&Limit> {
        self.problem.limits.iter().find(|limit| limit.per_set(candidate) > f64::from(allowed_load(limit.pain)))
    }

    fn sessions(&self) -> Vec<Objection> {
        let mut found = Vec::new();
        for (session, cards) in self.draft.sessions.iter().enumerate() {
            let day = self.problem.day_name(session);
            let minutes = cards_minutes(self.problem, cards);
            if is_short(self.problem, cards) && self.explained.short[session].is_none() {
                let says =
                    format!("{day} uses {minutes:.0} of {:.0} minutes, and there is work left.", self.problem.minutes);
                found.push(Objection { kind: ObjectionKind::ShortSession, says, cards: Vec::new() });
            }
            for (place, card) in cards.iter().enumerate().filter(|(_, card)| tires_grip(self.problem, self.of(card))) {
                let pull = cards[place + 1..].iter().find(|later| needs_grip(self.problem, self.of(later)));
                if let Some(pull) = pull {
                    let later = lower_first(&self.of(pull).exercise.name);
                    let says = format!("{} tires the grip before {later}.", self.of(card).exercise.name);
                    let cards = vec![self.place(session, card), self.place(session, pull)];
                    found.push(Objection { kind: ObjectionKind::GripFirst, says, cards });
                }
            }
            found.extend(self.opening(session, cards));
        }
        found
    }

    fn opening(&self, session: usize, cards: &[Card]) -> Option<Objection> {
        let first = cards.first()?;
        let serves = |card: &Card| {
            let of = self.of(card);
            let chosen = |(d, f): &(usize, f64)| *f >= 1.0 && self.problem.demands[*d].class == Class::BringUp;
            of.exercise.heavy() || of.targets.iter().any(chosen)
        };
        // Chosen grip work waits for the pulls.
        let free = |card: &&Card| serves(card) && !tires_grip(self.problem, self.of(card));
        let better = cards.iter().any(|card| free(&card)) && !serves(first);
        better.then(|| Objection {
            kind: ObjectionKind::Opening,
            says: format!(
                "{} opens with {}: a chosen region or a heavy lift comes first.",
                self.problem.day_name(session),
                lower_first(&self.of(first).exercise.name)
            ),
            cards: vec![self.place(session, first)],
        })
    }
}
