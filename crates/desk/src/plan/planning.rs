//! What planning a round needs: its case, its verdict, the problem for the days and minutes of a week.

use super::{AddableView, Proofs, RefusedView, Solved};
use crate::error::DeskError;
use crate::log::{Since, since};
use crate::opened::Opened;
use crate::review::last_review;
use crate::workshop::Workshop;
use assess::{Assessment, Case, Knowledge};
use casefile::{CheckedWeek, DayDraft, PlanFile, WeekDraft, check_week, plan_file, week_draft};
use plan::{Draft, Effort, PlanProblem, WeekShape, block, present_draft, solve_around};
use std::time::Instant;
use store::Store;
use units::{ClientId, Place, RegionId, RoundId};

/// A round about to be planned.
pub(crate) struct Planning<'a> {
    knowledge: &'a Knowledge,
    pub case: Case,
    pub client_id: ClientId,
    assessment: Assessment,
    /// Signs that nobody has written about yet.
    signs: Vec<String>,
}

/// A week under work with what the planner says of it.
pub(crate) struct Planned {
    pub problem: PlanProblem,
    pub draft: Draft,
    pub weeks: u8,
}

impl<'a> Planning<'a> {
    /// Reads what a round's plan follows from.
    pub fn read(store: &Store, knowledge: &'a Knowledge, round_id: &RoundId) -> Result<Self, DeskError> {
        let Opened { round, mut case, assessment } = Opened::read(store, knowledge, round_id)?;
        let Since { signs, hurts } = since(store, knowledge, &round.client_id)?;
        case.hurts = hurts;
        case.last_review = last_review(store, knowledge, &round)?;
        Ok(Self { knowledge, case, client_id: round.client_id, assessment, signs })
    }

    /// Regions chosen now.
    pub fn bring_up(&self) -> Vec<RegionId> {
        self.case.choices.brought_up(&self.knowledge.atlas)
    }

    /// Regions chosen now, as ids.
    pub fn chosen(&self) -> Vec<String> {
        self.bring_up().iter().map(ToString::to_string).collect()
    }

    /// Why a plan stays a draft.
    pub fn draft_because(&self) -> Option<String> {
        if let Some(sign) = self.signs.first() {
            let sign = sign.trim_end_matches('.');
            return Some(format!("{sign}; write in Today what was done about it, then the week can be given"));
        }
        self.case.client.may_be_given_a_plan().err().map(|why| why.to_string())
    }

    /// The days and minutes of the brief, or others.
    pub fn shape(&self, days: Option<u8>, minutes: Option<u16>) -> WeekShape {
        let client = &self.case.client;
        WeekShape::with(client, days.unwrap_or(client.days_per_week), minutes.unwrap_or(client.minutes_per_session))
    }

    /// Gives a week other days; cards of days that go, go with them. Gives the names of locked ones that did.
    pub fn with_days(&self, week: &mut WeekDraft, days: u8) -> Vec<String> {
        let shape = self.shape(Some(days), Some(week.minutes));
        let mut old = std::mem::take(&mut week.sessions);
        let gone = old.split_off(old.len().min(shape.days.len()));
        let mut cards = old.into_iter().map(|day| day.items);
        let days = shape.days.iter().zip(&shape.home);
        week.sessions = days
            .map(|(day, home)| DayDraft { day: *day, home: *home, items: cards.next().unwrap_or_default() })
            .collect();
        gone.into_iter().flat_map(|day| day.items).filter(|card| card.locked).map(|card| card.exercise).collect()
    }

    /// Puts a week of somebody else onto as many days of this client, with their minutes and nothing locked; days on which
    /// nothing was trained go.
    pub fn onto_days(&self, week: &mut WeekDraft) {
        week.sessions.retain(|day| !day.items.is_empty());
        for card in week.sessions.iter_mut().flat_map(|day| &mut day.items) {
            card.locked = false;
            card.written = card.written.for_another_client();
        }
        week.minutes = self.case.client.minutes_per_session;
        // A checked week has seven days at most.
        let days = u8::try_from(week.sessions.len()).unwrap_or(u8::MAX);
        self.with_days(week, days.max(1));
    }

    /// The planner's own week for the brief's days and minutes; the same problem is searched once.
    pub fn solved_once(&self, solved: &Solved) -> Planned {
        let problem = PlanProblem::shaped(self.knowledge, &self.case, &self.assessment, self.shape(None, None));
        let locks = plan::Locks::default();
        let week = solved.of(&problem);
        Planned { draft: Draft::of_week(&problem, &week, &locks), problem, weeks: plan::WEEKS_USUAL }
    }

    /// What may not be added to the week.
    pub fn addable(&self) -> AddableView {
        let problem = PlanProblem::shaped(self.knowledge, &self.case, &self.assessment, self.shape(None, None));
        let barred = problem.refused.into_iter().filter(|(_, refusal)| !refusal.may_be_added());
        let refused = barred.map(|(exercise, refusal)| RefusedView {
            exercise: exercise.id,
            name: exercise.name,
            because: refusal.to_string(),
        });
        AddableView { refused: refused.collect() }
    }

    /// A coach's week as the planner sees it. `at` is its pointer.
    pub fn of(&self, at: &Place, week: &WeekDraft) -> Result<Planned, DeskError> {
        let checked = check_week(&self.knowledge.atlas, at, week).map_err(DeskError::Invalid)?;
        Ok(self.of_checked(&checked))
    }

    fn of_checked(&self, checked: &CheckedWeek) -> Planned {
        let mut problem = PlanProblem::shaped(self.knowledge, &self.case, &self.assessment, checked.shape.clone());
        problem.admit(self.knowledge, &self.case, &checked.exercises());
        Planned { draft: checked.draft(&problem), problem, weeks: checked.weeks }
    }

    /// As it is kept.
    pub fn week(&self, planned: &Planned) -> WeekDraft {
        week_draft(&planned.problem, &planned.draft, planned.weeks, &self.bring_up())
    }
}

impl Planned {
    /// The week solved anew around its locked cards.
    pub fn solved_around(self, workshop: &Workshop, effort: Effort) -> Self {
        let locks = self.draft.locks();
        let week = workshop.with(|| solve_around(&self.problem, effort, &locks));
        let draft = Draft::of_week(&self.problem, &week, &locks).keeping(&self.draft);
        Self { draft, ..self }
    }

    /// In words, with what has been proven of it.
    pub fn file(&self, proofs: &Proofs) -> PlanFile {
        let start = Instant::now();
        let plan = present_draft(&self.problem, &self.draft);
        let weeks = block(&self.problem, &self.draft, self.weeks);
        let proof = proofs.of(&self.problem, plan.objective).filter(|_| plan.broken.is_empty());
        plan_file(&plan, &weeks, proof.as_ref(), start.elapsed().as_secs_f64() * 1000.0)
    }
}
