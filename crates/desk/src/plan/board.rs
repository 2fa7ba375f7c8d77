//! The week under work: shown, kept, solved anew, what could stand instead, and how good it is proven to be.

use super::{
    AddableView, AskSwaps, IssuedSummary, PlanView, Planned, Planning, ProofView, SavePlan, SolvePlan, SolvedPlan,
    SwapsView,
};
use crate::desk::Desk;
use crate::error::{DeskError, invalid};
use casefile::WeekDraft;
use plan::{Effort, Proof, prove, swaps};
use std::time::Instant;
use units::RoundId;

/// Between two looks at a proof.
const PROOF_STEP_MS: u128 = 150;

/// A week that is to be proven.
pub struct ToProve {
    round_id: RoundId,
    planned: Planned,
}

impl Desk {
    /// The week's plan of a round.
    pub fn plan(&self, round_id: &RoundId) -> Result<PlanView, DeskError> {
        let knowledge = self.knowledge();
        let planning = Planning::read(&self.store, &knowledge, round_id)?;
        let (planned, week, revision) = self.shown(&planning, round_id)?;
        self.plan_view(&planning, &planned, week, revision)
    }

    /// Keeps a week as the coach has bent it, and says what that makes of it.
    pub fn save_plan(&self, round_id: &RoundId, by: &str, save: SavePlan) -> Result<PlanView, DeskError> {
        let SavePlan { revision, week } = save;
        let knowledge = self.knowledge();
        let planning = Planning::read(&self.store, &knowledge, round_id)?;
        let planned = planning.of(&"/week".into(), &week)?;
        let revision = self.store.save_plan_draft(round_id, revision, by, &week)?;
        self.plan_view(&planning, &planned, week, revision)
    }

    /// The planner's own week for the brief's days and minutes. Nothing is kept.
    pub fn own_plan(&self, round_id: &RoundId) -> Result<WeekDraft, DeskError> {
        let knowledge = self.knowledge();
        let planning = Planning::read(&self.store, &knowledge, round_id)?;
        Ok(planning.week(&planning.solved_once(&self.books.solved)))
    }

    /// What may not be added to the week, each with its reason.
    pub fn addable(&self, round_id: &RoundId) -> Result<AddableView, DeskError> {
        Ok(Planning::read(&self.store, &self.knowledge(), round_id)?.addable())
    }

    /// Solves a week anew around its locked cards, for as many days as asked and its own minutes. Nothing is kept.
    pub fn solve_plan(&self, round_id: &RoundId, asked: SolvePlan) -> Result<SolvedPlan, DeskError> {
        let SolvePlan { days, mut week, seed } = asked;
        if let Some(days) = days.filter(|days| !(1..=7).contains(days)) {
            return Err(invalid("/days", format!("{days} days a week is out of range: expected 1 to 7")));
        }
        let knowledge = self.knowledge();
        let planning = Planning::read(&self.store, &knowledge, round_id)?;
        let dropped = days.map_or_else(Vec::new, |days| planning.with_days(&mut week, days));
        let planned = planning.of(&"/week".into(), &week)?;
        let effort = Effort { seed: u64::from(seed.unwrap_or(1)), ..Effort::usual(&planned.problem) };
        let week = planning.week(&planned.solved_around(&self.workshop, effort));
        Ok(SolvedPlan { week, dropped })
    }

    /// What could stand in a card's place, and what each would change.
    pub fn swaps(&self, round_id: &RoundId, asked: &AskSwaps) -> Result<SwapsView, DeskError> {
        let AskSwaps { week, session, place } = asked;
        let knowledge = self.knowledge();
        let planned = Planning::read(&self.store, &knowledge, round_id)?.of(&"/week".into(), week)?;
        let none = || DeskError::NotFound(format!("there is no card {place} on day {session}"));
        let found = swaps(&planned.problem, &planned.draft, *session, *place).ok_or_else(none)?;
        Ok(SwapsView::from(found))
    }

    /// The week of a round, as it is to be proven.
    pub fn to_prove(&self, round_id: &RoundId) -> Result<ToProve, DeskError> {
        let knowledge = self.knowledge();
        let planning = Planning::read(&self.store, &knowledge, round_id)?;
        Ok(ToProve { round_id: round_id.to_owned(), planned: self.shown(&planning, round_id)?.0 })
    }

    /// Raises its bound until so many seconds are over, nothing more can be proven, or `tell` says that nobody listens any more.
    pub fn prove(&self, week: &ToProve, seconds: u32, mut tell: impl FnMut(ProofView) -> bool + Send) {
        let ToProve { round_id, planned } = week;
        let start = Instant::now();
        let proof = self.workshop.with(|| proven(planned, start, seconds, &mut tell));
        if let Some(proof) = proof {
            // Kept before it is told, and when nobody listens any more too.
            self.books.proofs.keep(round_id, &planned.problem, proof);
            tell(ProofView::of(&proof, start.elapsed().as_secs_f64()));
        }
    }

    /// The week a round's board shows: as it is kept; else what the client was given in this round; else the planner's own.
    fn shown(&self, planning: &Planning, id: &RoundId) -> Result<(Planned, WeekDraft, i32), DeskError> {
        if let Some(kept) = self.store.plan_draft(id)? {
            return Ok((planning.of(&"/week".into(), &kept.week)?, kept.week, kept.revision));
        }
        let given = self.store.issued_plans(&planning.client_id)?;
        if let Some(given) = given.first().filter(|given| given.round_id == *id)
            && let Ok(planned) = planning.of(&"/week".into(), &given.week)
        {
            return Ok((planned, given.week.clone(), 0));
        }
        let planned = planning.solved_once(&self.books.solved);
        let week = planning.week(&planned);
        Ok((planned, week, 0))
    }

    fn plan_view(
        &self,
        planning: &Planning,
        planned: &Planned,
        week: WeekDraft,
        revision: i32,
    ) -> Result<PlanView, DeskError> {
        let issued = self.store.issued_plans(&planning.client_id)?;
        let client = &planning.case.client;
        Ok(PlanView {
            client_name: client.name.clone(),
            date: planning.case.as_of.to_string(),
            brief_minutes: client.minutes_per_session,
            brief_days: client.days_per_week,
            draft_because: planning.draft_because(),
            clearance: client.clearance.as_ref().map(|clearance| clearance.note.clone()),
            bring_up: planning.chosen(),
            choices_changed: week.bring_up != planning.bring_up(),
            revision,
            plan: planned.file(&self.books.proofs),
            is_issued: issued.first().is_some_and(|last| last.week == week),
            week,
            issued: issued.iter().map(|given| IssuedSummary::from(given.as_ref())).collect(),
        })
    }
}

/// Proves until the time is over, nothing more can be proven, or nobody listens any more.
fn proven(planned: &Planned, start: Instant, seconds: u32, tell: &mut impl FnMut(ProofView) -> bool) -> Option<Proof> {
    let mut told = 0;
    let week = planned.draft.week(&planned.problem);
    let go_on = |proof: &Proof| {
        let elapsed = start.elapsed();
        let in_time = elapsed.as_secs() < u64::from(seconds);
        if elapsed.as_millis() < told + PROOF_STEP_MS {
            return in_time;
        }
        told = elapsed.as_millis();
        in_time && tell(ProofView::of(proof, elapsed.as_secs_f64()))
    };
    prove(&planned.problem, &week, go_on)
}
