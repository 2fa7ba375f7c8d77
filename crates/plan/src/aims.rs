//! What a week is held to beside the doses of its regions: sums that must not go over a limit, parts that must not be empty,
//! things that must be there once. The one description of these for the objective, the search, the bound and the exported model.

use crate::draft::Draft;
use crate::problem::{Candidate, PlanProblem};
use assess::{Class, Client, Experience};
use atlas::{Atlas, ByExperience, Movement, Part, PlanningSettings};

/// What is added up against a limit, over all sets of a week.
#[derive(Clone, Debug, PartialEq, Eq, Hash)]
pub enum LoadOf {
    /// Hard sets.
    Sets,
    /// Load along the spine.
    Axial,
    /// Load on a joint.
    Joint(String),
}

impl LoadOf {
    /// `sets`, `axial` or the joint.
    pub fn id(&self) -> &str {
        match self {
            Self::Sets => "sets",
            Self::Axial => "axial",
            Self::Joint(joint) => joint,
        }
    }
}

/// A sum over the week that must not go over a limit.
#[derive(Clone, Debug, PartialEq)]
pub struct Limit {
    /// What is added up.
    pub of: LoadOf,
    /// The most.
    pub most: f64,
    /// The pain that lowers it, 0 to 10.
    pub pain: u8,
}

impl Limit {
    /// What one set adds.
    pub fn per_set(&self, candidate: &Candidate) -> f64 {
        match &self.of {
            LoadOf::Sets => 1.0,
            LoadOf::Axial => candidate.exercise.axial,
            LoadOf::Joint(joint) => f64::from(candidate.exercise.load_on(joint)),
        }
    }
}

/// A part of the body that a week must not leave empty.
#[derive(Clone, Debug, PartialEq)]
pub struct Floor {
    /// Which.
    pub part: Part,
    /// Its regions, as demand indices.
    pub demands: Vec<usize>,
    /// Fractional sets, all its regions together, below which it counts as empty; 0 where it is held back.
    pub least: f64,
    /// Price of a set below that.
    pub price: f64,
}

impl Floor {
    /// What a hard set adds.
    pub fn share(&self, candidate: &Candidate) -> f64 {
        candidate.targets.iter().filter(|(demand, _)| self.demands.contains(demand)).map(|(_, f)| f).sum()
    }

    /// Fractional sets of the part on a board, with what its cards' schemes count as.
    pub(crate) fn sets_of(&self, problem: &PlanProblem, draft: &Draft) -> f64 {
        let cards = draft.sessions.iter().flatten();
        // Not minus zero, which a sum of nothing is.
        cards.map(|card| card.counted(problem) * self.share(&problem.candidates[card.candidate])).sum::<f64>() + 0.0
    }

    /// Whether all its regions are held back.
    pub(crate) fn held_back(&self, problem: &PlanProblem) -> bool {
        self.demands.iter().all(|demand| problem.demands[*demand].class == Class::HoldBack)
    }
}

/// What something in the week must do at least once.
#[derive(Clone, Debug, PartialEq, Eq, Hash)]
pub enum CoverOf {
    /// Load a chosen region where it is stretched.
    Stretch(usize),
    /// A movement.
    Movement(Movement),
    /// An action of a chosen region.
    Action(usize, String),
}

/// Something that a week should do at least once.
#[derive(Clone, Debug, PartialEq)]
pub struct Cover {
    /// What.
    pub of: CoverOf,
    /// Price of a week without it.
    pub price: f64,
}

impl Cover {
    /// Whether an exercise does it.
    pub fn by(&self, problem: &PlanProblem, candidate: &Candidate) -> bool {
        match &self.of {
            CoverOf::Stretch(demand) => candidate.exercise.loads_stretched(&problem.demands[*demand].region),
            CoverOf::Movement(movement) => candidate.exercise.movement == *movement,
            CoverOf::Action(demand, action) => candidate.trains(*demand) && candidate.exercise.actions.contains(action),
        }
    }
}

/// A number of the practice for a client's training age.
pub(crate) fn by_experience(of: &ByExperience, experience: Experience) -> f64 {
    match experience {
        Experience::Beginner => of.beginner,
        Experience::Intermediate => of.intermediate,
        Experience::Advanced => of.advanced,
    }
}

/// How much load on a joint a pain still allows an exercise, 0 to 3. Common practice, no source.
pub(crate) fn allowed_load(pain: u8) -> u8 {
    match pain {
        0 => 3,
        1 | 2 => 2,
        3 | 4 => 1,
        _ => 0,
    }
}

/// Part of a joint's weekly limit that a pain leaves.
fn left_by_pain(settings: &PlanningSettings, pain: u8) -> f64 {
    match pain {
        0 => 1.0,
        1 | 2 => settings.pain.mild,
        3 | 4 => settings.pain.clear,
        _ => 0.0,
    }
}

/// Sums that must not go over a limit, for a client.
pub(crate) fn limits(atlas: &Atlas, client: &Client) -> Vec<Limit> {
    let settings = atlas.planning();
    let most = |of: &ByExperience| by_experience(of, client.experience);
    let pain_of = |joint: &str| client.pain.iter().filter(|p| p.area == joint).map(|p| p.level).max().unwrap_or(0);
    let mut limits = vec![
        Limit { of: LoadOf::Sets, most: most(&settings.weekly_sets), pain: 0 },
        Limit { of: LoadOf::Axial, most: most(&settings.axial), pain: 0 },
    ];
    for joint in atlas.areas() {
        let of = if matches!(*joint, "shoulder" | "elbow") { &settings.joint_upper } else { &settings.joint_other };
        let pain = pain_of(joint);
        let most = most(of) * left_by_pain(settings, pain);
        limits.push(Limit { of: LoadOf::Joint((*joint).to_owned()), most, pain });
    }
    limits
}

/// Each part's price is a little lower than that of the part before it, so that a short week fills them in this order.
const LATER_PART: f64 = 0.03;

/// Parts that must not be empty. Those that nothing allowed trains, or that are held back, have a floor of 0.
pub(crate) fn floors(atlas: &Atlas, problem: &PlanProblem) -> Vec<Floor> {
    let settings = atlas.planning();
    let floor = |(place, part): (usize, &Part)| {
        let belongs = |d: &usize| atlas.regions()[*d].part == Some(*part);
        let demands: Vec<usize> = (0..problem.demands.len()).filter(belongs).collect();
        let floor = Floor { part: *part, demands, least: 0.0, price: 0.0 };
        let wanted = !floor.held_back(problem);
        let possible = problem.candidates.iter().any(|c| problem.worth_doing(c) && floor.share(c) > 0.0);
        let least = if part.small() { settings.small_part_floor } else { settings.part_floor };
        let price = settings.part_price * (1.0 - LATER_PART * place as f64);
        Floor { least: if wanted && possible { least } else { 0.0 }, price, ..floor }
    };
    Part::ALL.iter().enumerate().map(floor).collect()
}

/// A chosen region that nothing loads where it is stretched, though something could: dearer than any dose.
pub(crate) const NOT_STRETCHED: f64 = 60.0;

/// What a week should do once: only what some allowed exercise does.
pub(crate) fn covers(atlas: &Atlas, problem: &PlanProblem) -> Vec<Cover> {
    let settings = atlas.planning();
    let chosen = || (0..problem.demands.len()).filter(|d| problem.demands[*d].class == Class::BringUp);
    let stretch = chosen().map(|demand| Cover { of: CoverOf::Stretch(demand), price: NOT_STRETCHED });
    let movements = Movement::WEEKLY.iter().filter(|movement| !problem.dropped.contains(movement));
    let movements =
        movements.map(|movement| Cover { of: CoverOf::Movement(*movement), price: settings.movement_price });
    let actions = chosen().flat_map(|demand| {
        let actions = atlas.regions()[demand].actions.iter();
        actions.map(move |action| Cover { of: CoverOf::Action(demand, action.clone()), price: settings.action_price })
    });
    let all = stretch.chain(movements).chain(actions);
    all.filter(|cover| problem.candidates.iter().any(|c| problem.worth_doing(c) && cover.by(problem, c))).collect()
}
