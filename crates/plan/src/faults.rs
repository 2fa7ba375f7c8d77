//! What is wrong with a week as a coach has it: every broken rule in words, with the cards it concerns.

use crate::aims::LoadOf;
use crate::candidate::BEGINNER_REPS;
use crate::card::Card;
use crate::draft::{CardPlace, Draft};
use crate::order::{Misplaced, out_of_order};
use crate::problem::{FLOOR_LIFT, PlanProblem};
use crate::rules::{Violation, broken};
use crate::run::{ROUND_REST_S, rounds};
use crate::timing::cards_minutes;
use crate::words::{limit_overdrawn, lower_first};
use assess::Experience;
use atlas::{PartKind, PlannedPart};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use units::RegionId;
use utoipa::ToSchema;

/// A broken rule.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct Broken {
    /// What is wrong, and what would be right.
    pub says: String,
    /// The cards it concerns.
    pub cards: Vec<CardPlace>,
    /// The days it concerns, Monday = 1.
    pub days: Vec<u8>,
    /// The region it concerns.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub region: Option<RegionId>,
    /// Whether a plan may be given to the client in spite of it: only what is refused for the client's safety may not.
    pub forbids: bool,
    /// Whether it is the order within a day alone: the week's exercises and sets keep every rule as far as this goes.
    #[serde(default)]
    pub order_only: bool,
}

/// Every rule that a week breaks, the most serious first.
pub fn faults(problem: &PlanProblem, draft: &Draft) -> Vec<Broken> {
    let place = Faults { problem, draft };
    let mut found = place.refused();
    // Schemes change what a session takes, so its time is counted here.
    let week = draft.week(problem);
    let hard = broken(problem, &week).into_iter().filter(|violation| !matches!(violation, Violation::Time { .. }));
    found.extend(place.time());
    found.extend(hard.map(|violation| place.said(&violation)));
    found.extend(place.order());
    found.extend(place.written());
    found
}

struct Faults<'a> {
    problem: &'a PlanProblem,
    draft: &'a Draft,
}

impl Faults<'_> {
    fn name(&self, candidate: usize) -> &str {
        &self.problem.candidates[candidate].exercise.name
    }

    fn broken(&self, says: String, sessions: &[usize], cards: Vec<CardPlace>, demand: Option<usize>) -> Broken {
        let days = sessions.iter().map(|session| self.problem.days[*session]).collect();
        let region = demand.map(|demand| self.problem.demands[demand].region.clone());
        Broken { says, cards, days, region, forbids: false, order_only: false }
    }

    /// Cards of a session for which `concerned` holds.
    fn cards(&self, session: usize, concerned: impl Fn(usize) -> bool) -> Vec<CardPlace> {
        let cards = self.draft.sessions[session].iter().map(|card| card.candidate);
        cards
            .filter(|candidate| concerned(*candidate))
            .map(|candidate| self.problem.card_place(session, candidate))
            .collect()
    }

    /// Cards of the whole week for which `concerned` holds.
    fn everywhere(&self, concerned: impl Fn(usize) -> bool + Copy) -> Vec<CardPlace> {
        (0..self.draft.sessions.len()).flat_map(|session| self.cards(session, concerned)).collect()
    }

    fn refused(&self) -> Vec<Broken> {
        let mut found = Vec::new();
        for (session, cards) in self.draft.sessions.iter().enumerate() {
            for card in cards {
                let Some(refusal) = &self.problem.candidates[card.candidate].refused else { continue };
                let says = format!("{} {refusal}: swap it.", self.name(card.candidate));
                let card = vec![self.problem.card_place(session, card.candidate)];
                let forbids = !refusal.may_be_added();
                found.push(Broken { forbids, ..self.broken(says, &[session], card, None) });
            }
        }
        found
    }

    fn time(&self) -> Vec<Broken> {
        let minutes = self.draft.sessions.iter().map(|cards| cards_minutes(self.problem, cards)).enumerate();
        let late = minutes.filter(|(_, minutes)| *minutes > self.problem.minutes + 1e-9);
        late.map(|(session, minutes)| {
            let says = format!(
                "{} takes {:.0} of {:.0} minutes.",
                self.problem.day_name(session),
                minutes.ceil(),
                self.problem.minutes
            );
            self.broken(says, &[session], Vec::new(), None)
        })
        .collect()
    }

    fn said(&self, violation: &Violation) -> Broken {
        let problem = self.problem;
        let trains = |demand: usize| move |candidate: usize| problem.candidates[candidate].trains(demand);
        match violation {
            Violation::Time { session, minutes } => self.broken(
                format!("{} takes {minutes:.0} minutes.", self.problem.day_name(*session)),
                &[*session],
                Vec::new(),
                None,
            ),
            Violation::TooManyExercises { session, count } => {
                let most = problem.max_exercises;
                let says = format!("{} has {count} exercises; {most} are the most.", self.problem.day_name(*session));
                self.broken(says, &[*session], Vec::new(), None)
            }
            Violation::Place { session, candidate } => {
                let says = format!(
                    "What {} needs does not stand where {} is trained.",
                    lower_first(self.name(*candidate)),
                    self.problem.day_name(*session)
                );
                self.broken(says, &[*session], vec![self.problem.card_place(*session, *candidate)], None)
            }
            Violation::Load { limit, load } => {
                let limit = &problem.limits[*limit];
                let concerned = |c: usize| limit.of != LoadOf::Sets && limit.per_set(&problem.candidates[c]) > 0.0;
                self.broken(limit_overdrawn(limit, *load), &[], self.everywhere(concerned), None)
            }
            Violation::OneExercise { candidate, sets, sessions } => {
                let caps = problem.candidates[*candidate].caps;
                let says = format!(
                    "{} has {sets} sets on {sessions} days; {} sets on {} days are the most.",
                    self.name(*candidate),
                    caps.sets,
                    caps.sessions
                );
                self.broken(says, &[], self.everywhere(|c| c == *candidate), None)
            }
            Violation::SessionSets { session, candidate, sets } => {
                let most = problem.candidates[*candidate].caps.session_sets;
                let day = self.problem.day_name(*session);
                let says = format!("{} has {sets} sets on {day}; {most} are the most.", self.name(*candidate));
                self.broken(says, &[*session], vec![self.problem.card_place(*session, *candidate)], None)
            }
            Violation::DayAfter { sessions, candidate } => {
                let days = format!("{} and {}", self.problem.day_name(sessions[0]), self.problem.day_name(sessions[1]));
                let says = format!("{} stands on {days}: not on two days running.", self.name(*candidate));
                let cards = sessions.iter().map(|session| self.problem.card_place(*session, *candidate)).collect();
                self.broken(says, sessions, cards, None)
            }
            Violation::SpineRest { sessions } => {
                let days = format!("{} and {}", self.problem.day_name(sessions[0]), self.problem.day_name(sessions[1]));
                let says = format!("{days} both load the spine heavily: 48 hours must lie between.");
                let heavy = |c: usize| problem.candidates[c].exercise.axial >= 1.0;
                let cards = sessions.iter().flat_map(|session| self.cards(*session, heavy)).collect();
                self.broken(says, sessions, cards, None)
            }
            Violation::FloorLifts { sessions } => {
                let says = format!(
                    "Deadlifts from the floor stand on {} days: {} a week is the most unless the back is chosen.",
                    sessions.len(),
                    problem.floor_lifts
                );
                let lifts = |c: usize| problem.candidates[c].exercise.axial >= FLOOR_LIFT;
                let cards = sessions.iter().flat_map(|session| self.cards(*session, lifts)).collect();
                self.broken(says, sessions, cards, None)
            }
            Violation::Family { session, family } => {
                let cards = self.cards(*session, |c| problem.candidates[c].exercise.family == *family);
                let says = format!(
                    "{} does the same movement twice: one of a family a session.",
                    self.problem.day_name(*session)
                );
                self.broken(says, &[*session], cards, None)
            }
            Violation::DirectSets { session, demand } => {
                let name = lower_first(&problem.demands[*demand].name);
                let says = format!("{} gives {name} more than ten direct sets.", self.problem.day_name(*session));
                self.broken(says, &[*session], self.cards(*session, trains(*demand)), Some(*demand))
            }
            Violation::Spacing { sessions, demand } => {
                let name = lower_first(&problem.demands[*demand].name);
                let days = format!("{} and {}", self.problem.day_name(sessions[0]), self.problem.day_name(sessions[1]));
                let most = problem.near_direct_sets;
                let says = format!("{days} give {name} more than {most} direct sets: 48 hours must lie between.");
                let cards = sessions.iter().flat_map(|session| self.cards(*session, trains(*demand))).collect();
                self.broken(says, sessions, cards, Some(*demand))
            }
            Violation::OneSidedShare { demand } => {
                let name = lower_first(&problem.demands[*demand].name);
                let says = format!(
                    "Less than half of the direct sets for {name} go one side at a time, though its sides differ."
                );
                let both = |c: usize| problem.candidates[c].trains(*demand) && !problem.candidates[c].one_sided;
                self.broken(says, &[], self.everywhere(both), Some(*demand))
            }
        }
    }

    fn order(&self) -> Vec<Broken> {
        let mut found = Vec::new();
        for (session, cards) in self.draft.sessions.iter().enumerate() {
            let order: Vec<usize> = cards.iter().map(|card| card.candidate).collect();
            for misplaced in out_of_order(self.problem, &order) {
                let (card, says) = match misplaced {
                    Misplaced::Late(late, early, why) => {
                        let before = lower_first(self.name(early));
                        (late, format!("{} belongs before {before}: {why}.", self.name(late)))
                    }
                    Misplaced::Early(early) => (early, format!("{} comes last: a finisher.", self.name(early))),
                };
                let broken = self.broken(says, &[session], vec![self.problem.card_place(session, card)], None);
                found.push(Broken { order_only: true, ..broken });
            }
        }
        found
    }

    /// What a coach wrote on a card that does not go with the client or with the rest of the card.
    fn written(&self) -> Vec<Broken> {
        let mut found = Vec::new();
        for (session, cards) in self.draft.sessions.iter().enumerate() {
            for card in cards {
                for says in self.said_of(card) {
                    let place = vec![self.problem.card_place(session, card.candidate)];
                    found.push(self.broken(says, &[session], place, None));
                }
            }
            for range in rounds(cards.iter().map(|card| card.group.as_deref())).into_iter().filter(|r| r.len() > 1) {
                let long = |(turn, card): &(usize, &Card)| {
                    let most = if turn + 1 == range.len() { LONG_ROUND_REST_S } else { ROUND_REST_S };
                    card.written.rest_s.is_some_and(|rest_s| rest_s > most)
                };
                let together = cards[range.clone()].iter().enumerate();
                found.extend(together.filter(long).map(|(_, card)| {
                    let name = if range.len() == 2 { "superset" } else { "giant set" };
                    let rest_s = card.written.rest_s.unwrap_or_default();
                    let says =
                        format!("{} rests {rest_s} s in a {name}: that is no {name}.", self.name(card.candidate));
                    let place = vec![self.problem.card_place(session, card.candidate)];
                    self.broken(says, &[session], place, None)
                }));
            }
        }
        found
    }

    fn said_of(&self, card: &Card) -> Vec<String> {
        let problem = self.problem;
        let candidate = &problem.candidates[card.candidate];
        let name = self.name(card.candidate);
        let mut says = Vec::new();
        let sets = card.sets_planned(problem);
        if problem.experience == Experience::Beginner {
            let past = |part: &PlannedPart| !matches!(part.kind, PartKind::Hold | PartKind::Carry);
            if sets.iter().flat_map(|set| &set.parts).any(past) {
                says.push(format!("{name} goes on past the set: not in a beginner's first twelve weeks."));
            }
            if sets.iter().any(|set| set.reps.is_some_and(|[low, _]| low < BEGINNER_REPS)) {
                says.push(format!("{name} goes under {BEGINNER_REPS} repetitions: not for a beginner."));
            }
        }
        let weaker = candidate.targets.iter().filter(|(_, f)| *f >= 1.0).find_map(|(d, _)| problem.demands[*d].weaker);
        if let (Some(weaker), Some(first), true) = (weaker, card.written.first, candidate.one_sided)
            && weaker != first
        {
            says.push(format!("{name} begins with the {first} side: the {weaker} is smaller and goes first."));
        }
        says
    }
}

/// Rest after a round from which a group is none (common practice, no source), s.
const LONG_ROUND_REST_S: u16 = 119;
