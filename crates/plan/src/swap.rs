//! What could stand in a card's place, best first, and what each would change.

use crate::cost::cost;
use crate::draft::Draft;
use crate::faults::faults;
use crate::item::main_region;
use crate::present::draft_sets;
use crate::problem::{Candidate, PlanProblem};
use crate::rules::allowed::Refusal;
use crate::timing::cards_minutes;
use serde::Serialize;
use units::{EquipmentId, ExerciseId, RegionId};
use utoipa::ToSchema;

/// An exercise in the place of another.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Alternative {
    /// Which.
    pub exercise: ExerciseId,
    /// Its name.
    pub name: String,
    /// How much the week's cost changes; less is better.
    pub cost: f64,
    /// How much longer the session takes, minutes.
    pub minutes: f64,
    /// How the regions' weekly sets change, largest change first.
    pub ledger: Vec<LedgerChange>,
    /// Whether it loads the card's region where it is stretched.
    pub stretched: bool,
    /// Whether the exercise it replaces does.
    pub was_stretched: bool,
    /// What it needs.
    pub kit: Vec<EquipmentId>,
    /// What speaks for it, in words.
    #[schema(value_type = Vec<String>)]
    pub merits: Vec<&'static str>,
    /// Rules that it would break and that are not broken now.
    pub breaks: Vec<String>,
}

/// A change of a region's weekly sets.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct LedgerChange {
    /// The region.
    pub region: RegionId,
    /// Fractional sets more, or less where negative.
    pub sets: f64,
}

/// An exercise that would serve the same region but is not for this client.
#[derive(Clone, Debug, PartialEq)]
pub struct NotFor {
    /// Which.
    pub exercise: ExerciseId,
    /// Its name.
    pub name: String,
    /// The rule in the way.
    pub refusal: Refusal,
}

/// Alternatives for a card, and what is not for this client.
#[derive(Clone, Debug, PartialEq)]
pub struct Swaps {
    /// The region the card is there for.
    pub region: RegionId,
    /// Best first: what breaks no rule, then by what the week would cost.
    pub alternatives: Vec<Alternative>,
    /// With the rule in the way.
    pub refused: Vec<NotFor>,
}

/// A change of a region's sets smaller than this is none.
const NO_CHANGE: f64 = 0.05;

/// What could stand in the place of a card; `None` when there is no such card.
pub fn swaps(problem: &PlanProblem, draft: &Draft, session: usize, place: usize) -> Option<Swaps> {
    let card = draft.sessions.get(session)?.get(place)?;
    let now = Weighed::of(problem, draft, session);
    let region = main_region(problem, card)?;
    let demand = problem.demands.iter().position(|demand| demand.region == region)?;
    let was_stretched = problem.candidates[card.candidate].exercise.loads_stretched(&region);
    let here = |c: usize| draft.sessions[session].iter().any(|card| card.candidate == c);
    let stands = |c: &Candidate| c.stands[usize::from(problem.home[session])];
    let serves = (0..problem.candidates.len()).filter(|c| {
        let candidate = &problem.candidates[*c];
        candidate.trains(demand) && candidate.refused.is_none() && stands(candidate) && !here(*c)
    });
    let mut alternatives: Vec<Alternative> = serves
        .map(|index| {
            let mut other = draft.clone();
            other.sessions[session][place].candidate = index;
            let then = Weighed::of(problem, &other, session);
            let candidate = &problem.candidates[index];
            let regions = problem.demands.iter().map(|demand| &demand.region);
            let mut ledger: Vec<LedgerChange> = regions
                .zip(then.sets.iter().zip(&now.sets))
                .map(|(region, (then, now))| LedgerChange { region: region.clone(), sets: then - now })
                .filter(|change| change.sets.abs() > NO_CHANGE)
                .collect();
            ledger.sort_by(|a, b| b.sets.abs().total_cmp(&a.sets.abs()).then_with(|| a.region.cmp(&b.region)));
            Alternative {
                exercise: candidate.exercise.id.clone(),
                name: candidate.exercise.name.clone(),
                cost: then.cost - now.cost,
                minutes: then.minutes - now.minutes,
                ledger,
                stretched: candidate.exercise.loads_stretched(&region),
                was_stretched,
                kit: candidate.exercise.equipment.clone(),
                merits: merits(candidate, &region),
                breaks: then.broken.into_iter().filter(|says| !now.broken.contains(says)).collect(),
            }
        })
        .collect();
    alternatives.sort_by(|a, b| {
        let breaks = a.breaks.len().cmp(&b.breaks.len());
        breaks.then(a.cost.total_cmp(&b.cost)).then_with(|| a.exercise.cmp(&b.exercise))
    });
    let refused = problem.refused.iter().filter(|(exercise, _)| exercise.trains(&region));
    let refused = refused.map(|(exercise, refusal)| NotFor {
        exercise: exercise.id.clone(),
        name: exercise.name.clone(),
        refusal: refusal.clone(),
    });
    let refused = refused.collect();
    Some(Swaps { region, alternatives, refused })
}

/// What is compared of two weeks.
struct Weighed {
    cost: f64,
    minutes: f64,
    /// By demand.
    sets: Vec<f64>,
    broken: Vec<String>,
}

impl Weighed {
    fn of(problem: &PlanProblem, draft: &Draft, session: usize) -> Self {
        let week = draft.week(problem);
        Self {
            cost: cost(problem, &week),
            minutes: cards_minutes(problem, &draft.sessions[session]),
            sets: (0..problem.demands.len()).map(|demand| draft_sets(problem, draft, demand).iter().sum()).collect(),
            broken: faults(problem, draft).into_iter().map(|broken| broken.says).collect(),
        }
    }
}

fn merits(candidate: &Candidate, region: &RegionId) -> Vec<&'static str> {
    let said = [
        (candidate.exercise.loads_stretched(region), "loads the region where it is stretched"),
        (candidate.exercise.stability == 2, "holds the body, so that the region does the work"),
        (candidate.one_sided, "each side by itself"),
        (candidate.known, "the client knows it"),
    ];
    said.into_iter().filter(|(holds, _)| *holds).map(|(_, says)| says).collect()
}
