//! Everything the planner needs, resolved: days, minutes, demands per region, exercises that are allowed.

use crate::aims::{Cover, Floor, Limit, covers, floors, limits};
use crate::anneal::SETS_HIGH;
pub use crate::candidate::Candidate;
use crate::candidate::candidate;
use crate::dose::{Dose, dose, part_dose};
use crate::draft::CardPlace;
use crate::order::SessionOrder;
use crate::pairs::{self, Pair};
use crate::rules::allowed::{Refusal, refusal};
use crate::split::{Theme, themes};
use crate::usual;
use crate::week::weekday_name;
use crate::words::lower_first;
use assess::{Assessment, Case, Class, Client, Experience, Knowledge, SideVerdict, Test, Tilt, recent_average};
use atlas::{Atlas, Exercise, Movement, PartKind, PartRule, WarmUpMove};
use std::collections::{BTreeMap, BTreeSet};
use units::{EquipmentId, ExerciseId, RegionId, Side, SiteId};

/// What one region asks of the week.
#[derive(Clone, Debug)]
pub struct Demand {
    /// The region.
    pub region: RegionId,
    /// What a coach calls it.
    pub name: String,
    /// Its class.
    pub class: Class,
    /// Its dose.
    pub dose: Dose,
    /// How much a shortfall costs.
    pub weight: f64,
    /// The smaller side, when a real difference is to be acted on.
    pub weaker: Option<Side>,
    /// Sets a week lately, when training is known.
    pub recent: Option<f64>,
    /// May be trained on consecutive days.
    pub daily: bool,
    /// Some allowed exercise loads it where it is stretched.
    pub stretch_possible: bool,
    /// What the client felt instead of it, when it was last asked.
    pub felt_elsewhere: Option<String>,
    /// What its class asks for before the client's history is looked at.
    pub full_aim: f64,
    /// What it does, where that is several things: each in a week where it is chosen, else in turn from week to week.
    pub actions: Vec<String>,
}

/// Which days there are and how long.
#[derive(Clone, Debug, PartialEq)]
pub struct WeekShape {
    /// Weekdays of the sessions, 1 to 7, rising.
    pub days: Vec<u8>,
    /// Which of them are at home.
    pub home: Vec<bool>,
    /// Minutes a session.
    pub minutes: u16,
}

impl WeekShape {
    /// As the brief has it.
    pub fn of(client: &Client) -> Self {
        Self::with(client, client.days_per_week, client.minutes_per_session)
    }

    /// The client's week with other days and minutes. Home sessions come last in the week, so that chosen regions open it
    /// with the gym's choice of exercises.
    pub fn with(client: &Client, days_per_week: u8, minutes: u16) -> Self {
        let days = weekdays(days_per_week);
        let at_gym = days.len().saturating_sub(usize::from(client.home_days()));
        Self { home: (0..days.len()).map(|session| session >= at_gym).collect(), days, minutes }
    }
}

/// A planning problem.
#[derive(Clone, Debug)]
pub struct PlanProblem {
    /// Weekdays of the sessions, 1 to 7.
    pub days: Vec<u8>,
    /// Which sessions are at home: the last of the week.
    pub home: Vec<bool>,
    /// Minutes a session.
    pub minutes: f64,
    /// Exercises a session at most.
    pub max_exercises: usize,
    /// Sums that must not go over a limit, hard sets first.
    pub limits: Vec<Limit>,
    /// Parts that must not be empty.
    pub floors: Vec<Floor>,
    /// What the week should do once.
    pub covers: Vec<Cover>,
    /// Movements that a school drops.
    pub dropped: Vec<Movement>,
    /// What each day is for.
    pub themes: Vec<Theme>,
    /// Wishes that gave way, in words.
    pub gave_way: Vec<String>,
    /// Prices of what is wanted less.
    pub prices: Prices,
    /// Direct sets that two sessions less than 48 hours apart give a region together, at most.
    pub near_direct_sets: u32,
    /// Load along the spine from which a session needs 48 hours before the next such one.
    pub axial_session: f64,
    /// Sessions a week with a lift of the heaviest load along the spine, at most.
    pub floor_lifts: usize,
    /// Training age.
    pub experience: Experience,
    /// Part of the time under which a session is told to be short.
    pub session_used: f64,
    /// Exercises of one family in a session at most.
    pub family_limit: usize,
    /// Order within a session.
    pub order: SessionOrder,
    /// Repetitions in reserve.
    pub reserve: u8,
    /// By region, in the order of the atlas.
    pub demands: Vec<Demand>,
    /// Allowed exercises.
    pub candidates: Vec<Candidate>,
    /// What there is to train with, anywhere.
    pub kit: BTreeSet<EquipmentId>,
    /// What a piece of equipment is called, by id.
    pub kit_names: BTreeMap<String, String>,
    /// Refused exercises with the rule in the way.
    pub refused: Vec<(Exercise, Refusal)>,
    /// What every kind of part counts as and takes, in the order of [`PartKind::ALL`].
    pub part_rules: Vec<PartRule>,
    /// Moves that warm up and restore.
    pub warm_ups: Vec<WarmUpMove>,
    /// Where it hurts, 0 to 10.
    pub pains: Vec<(String, u8)>,
    /// Joints that do not reach what most do, with the range that falls short.
    pub short: Vec<(String, String)>,
    /// What stands at the gym, and at home.
    pub stands: [BTreeSet<EquipmentId>; 2],
    /// Repetitions left in the last set of what may safely end so, where the school says.
    pub last_reserve: Option<u8>,
    /// Whether exercises that go well together are run in turns.
    pub runs_pairs: bool,
    /// Those that are, each exercise in one pair at most.
    pub pairs: Vec<Pair>,
}

/// Prices of what is wanted less than doses, sets of a region trained for growth.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Prices {
    /// An exercise outside the day's theme.
    pub theme: f64,
    /// A point of merit that an exercise lacks.
    pub merit: f64,
    /// A set with a load of 1 along the spine.
    pub axial: f64,
    /// A set of a lift from the floor beside that, unless the back is chosen.
    pub floor_lift: f64,
}

/// Muscles of the back: where one is chosen, deadlifts from the floor may be done more often.
const BACK: [&str; 5] = ["lats", "traps", "rhomboids", "teres-major", "erectors"];
/// Load along the spine of the lifts that are held to few sessions a week.
pub(crate) const FLOOR_LIFT: f64 = 3.0;

impl PlanProblem {
    /// Resolves a case and its assessment.
    pub fn new(knowledge: &Knowledge, case: &Case, assessment: &Assessment) -> Self {
        Self::shaped(knowledge, case, assessment, WeekShape::of(&case.client))
    }

    /// The same for other days and minutes than the brief has.
    pub fn shaped(knowledge: &Knowledge, case: &Case, assessment: &Assessment, shape: WeekShape) -> Self {
        let atlas = &knowledge.atlas;
        let mut demands: Vec<Demand> =
            (0..assessment.regions.len()).map(|i| demand(knowledge, case, assessment, i)).collect();
        let (mut candidates, mut refused) = (Vec::new(), Vec::new());
        let known: BTreeSet<&ExerciseId> = case.training.iter().map(|entry| &entry.exercise).collect();
        let split = atlas.school_option(&case.client.schools, "split").and_then(|option| option.split);
        let themes = themes(atlas, split.unwrap_or_default(), shape.days.len(), &demands);
        for exercise in atlas.exercises() {
            if let Some(reason) = refusal(atlas, exercise, &case.client).or_else(|| since(case, exercise)) {
                refused.push((exercise.clone(), reason));
            } else {
                let known = known.contains(&exercise.id);
                candidates.push(candidate(atlas, exercise, &demands, case, &themes.days, known));
            }
        }
        for demand in &mut demands {
            demand.stretch_possible = candidates.iter().any(|c| c.exercise.loads_stretched(&demand.region));
        }
        let settings = atlas.planning();
        let back_chosen = demands.iter().any(|d| d.class == Class::BringUp && BACK.contains(&d.region.muscle()));
        let mut problem = Self {
            home: shape.home,
            minutes: f64::from(shape.minutes),
            part_rules: atlas.part_rules().to_vec(),
            warm_ups: atlas.warm_ups().to_vec(),
            pains: case.client.pain.iter().filter(|p| p.level > 0).map(|p| (p.area.clone(), p.level)).collect(),
            short: short_ranges(atlas, &case.client),
            stands: [false, true].map(|home| {
                let items = atlas.equipment().iter().map(|item| &item.id);
                items.filter(|item| case.client.has_at(home, item)).cloned().collect()
            }),
            last_reserve: atlas.school_options(&case.client.schools).find_map(|option| option.last_reserve),
            runs_pairs: atlas.school_options(&case.client.schools).any(|option| option.runs_pairs),
            pairs: Vec::new(),
            max_exercises: usize::from(case.client.max_exercises_per_session),
            limits: limits(atlas, &case.client),
            floors: Vec::new(),
            covers: Vec::new(),
            dropped: atlas.school_options(&case.client.schools).flat_map(|o| o.drops.iter().copied()).collect(),
            themes: themes.days,
            gave_way: themes.gave_way.into_iter().collect(),
            prices: Prices {
                theme: settings.theme_price,
                merit: settings.merit_price,
                axial: settings.axial_price,
                floor_lift: if back_chosen { 0.0 } else { settings.floor_lift_price },
            },
            near_direct_sets: whole(settings.near_direct_sets),
            axial_session: settings.axial_session,
            floor_lifts: if back_chosen { shape.days.len() } else { whole(settings.floor_lifts) as usize },
            kit: case
                .client
                .equipment
                .iter()
                .chain(case.client.home.iter().flat_map(|home| &home.equipment))
                .cloned()
                .collect(),
            kit_names: atlas
                .equipment()
                .iter()
                .map(|item| (item.id.as_str().to_owned(), lower_first(&item.name)))
                .collect(),
            days: shape.days,
            experience: case.client.experience,
            session_used: settings.session_used,
            family_limit: if school(knowledge, case, "family_rule") == "several" { 2 } else { 1 },
            order: SessionOrder::from_school(school(knowledge, case, "session_order")),
            reserve: if case.client.experience == Experience::Beginner { 2 } else { 1 },
            demands,
            candidates: extra_sets(candidates, school(knowledge, case, "asymmetry_sets")),
            refused,
        };
        problem.floors = floors(atlas, &problem);
        problem.covers = covers(atlas, &problem);
        usual::settle(&mut problem);
        problem.pairs = pairs::found(atlas, &problem);
        problem
    }
}

/// An exercise that hurt stays out until the coach has cleared it, one that was swapped out at the last review for this week.
fn since(case: &Case, exercise: &Exercise) -> Option<Refusal> {
    let hurt = case.hurts.iter().rev().find(|hurt| hurt.exercise == exercise.id);
    let hurt = hurt.map(|hurt| Refusal::Hurt { level: hurt.level, on: hurt.on });
    let swapped = case.last_review.as_ref().filter(|review| review.swapped.contains(&exercise.id));
    hurt.or_else(|| swapped.map(|review| Refusal::Swapped { of: review.of }))
}

/// Joints of which a screened range falls short of what most adults reach: the joint is the first word of the screen.
fn short_ranges(atlas: &Atlas, client: &Client) -> Vec<(String, String)> {
    let joint = |id: &str| id.split('_').next().unwrap_or_default().to_owned();
    let short = client.screens.taken().filter_map(|(id, sides)| {
        let screen = atlas.screen(id)?;
        (sides.left.min(sides.right) < screen.normal_low_deg).then(|| (joint(id), screen.name.to_lowercase()))
    });
    let blades = (client.screens.blades_retract == Some(false))
        .then(|| ("blades".to_owned(), "drawing the blades together".to_owned()));
    blades.into_iter().chain(short).collect()
}

/// A setting that counts whole things.
// Settings are checked: small numbers of sets and sessions.
#[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss)]
fn whole(number: f64) -> u32 {
    number.max(0.0) as u32
}

impl PlanProblem {
    /// Takes refused exercises in as candidates that carry their refusal, so that a week which has them can be shown.
    pub fn admit(&mut self, knowledge: &Knowledge, case: &Case, exercises: &[ExerciseId]) {
        for id in exercises {
            if self.place_of(id).is_some() {
                continue;
            }
            let Some((exercise, refusal)) = self.refused.iter().find(|(exercise, _)| exercise.id == *id) else {
                continue;
            };
            let mut admitted = candidate(&knowledge.atlas, exercise, &self.demands, case, &self.themes, false);
            admitted.refused = Some(refusal.clone());
            self.candidates.push(admitted);
        }
        usual::settle(self);
    }

    /// What a part counts as and takes.
    pub(crate) fn part_rule(&self, kind: PartKind) -> &PartRule {
        &self.part_rules[PartKind::ALL.iter().position(|other| *other == kind).unwrap_or_default()]
    }

    /// The weekday of a session.
    pub(crate) fn day_name(&self, session: usize) -> &'static str {
        weekday_name(self.days[session])
    }

    /// A card's place on the board.
    pub(crate) fn card_place(&self, session: usize, candidate: usize) -> CardPlace {
        CardPlace { session, exercise: self.candidates[candidate].exercise.id.clone() }
    }

    /// More hard sets than any week holds.
    pub(crate) fn most_sets(&self) -> f64 {
        self.days.len() as f64 * self.max_exercises as f64 * f64::from(SETS_HIGH)
    }

    /// What a piece of equipment is called.
    pub(crate) fn kit_name(&self, id: &str) -> String {
        self.kit_names.get(id).cloned().unwrap_or_else(|| id.to_owned())
    }

    /// Whether the planner would propose a candidate: it is not refused, none of its main regions is held back, and it does not
    /// fail at three of the four things that earn an exercise its place (common practice, no source).
    pub fn worth_doing(&self, candidate: &Candidate) -> bool {
        let exercise = &candidate.exercise;
        let aims = |(demand, f): &(usize, f64)| *f < 1.0 || self.demands[*demand].dose.aim > 0.0;
        let stretched = exercise.targets.keys().any(|region| exercise.loads_stretched(region));
        let fails = [!stretched, exercise.comfort == 0, exercise.steps == 0, exercise.stability == 0];
        let failed = fails.into_iter().filter(|fails| *fails).count();
        candidate.refused.is_none() && failed < 3 && candidate.targets.iter().all(aims)
    }

    /// The place of an exercise among the candidates.
    pub fn place_of(&self, exercise: &ExerciseId) -> Option<usize> {
        self.candidates.iter().position(|candidate| candidate.exercise.id == *exercise)
    }
}

/// The client's answer to a school, else its default; empty where there is no such school.
fn school<'a>(knowledge: &'a Knowledge, case: &'a Case, id: &str) -> &'a str {
    knowledge.atlas.school_option(&case.client.schools, id).map_or("", |option| option.id.as_str())
}

/// Sessions spread over the week, Monday = 1.
fn weekdays(count: u8) -> Vec<u8> {
    match count {
        0 | 1 => vec![1],
        2 => vec![1, 4],
        3 => vec![1, 3, 5],
        4 => vec![1, 2, 4, 5],
        5 => vec![1, 2, 3, 5, 6],
        6 => vec![1, 2, 3, 4, 5, 6],
        _ => (1..=7).collect(),
    }
}

fn demand(knowledge: &Knowledge, case: &Case, assessment: &Assessment, index: usize) -> Demand {
    let verdict = &assessment.regions[index];
    let region = &knowledge.atlas.regions()[index];
    let review = case.last_review.as_ref();
    let class = match assessment.classes[index] {
        Class::Keep if review.is_some_and(|review| review.growing.contains(&region.id)) => Class::Grow,
        class => class,
    };
    let raised = review.and_then(|review| review.raised.iter().find(|(raised, _)| *raised == region.id));
    let insufficient = raised.map(|(_, weekly)| *weekly);
    let recent = recent_average(&knowledge.atlas, case, &region.id);
    let by_class = match class {
        Class::BringUp => 3.0,
        Class::Grow => 1.0,
        Class::Keep => 0.6,
        Class::HoldBack => 0.3,
    };
    let shared = case.choices.with_its_part(region).then(|| share_of_part(knowledge, case, assessment, index));
    let wanted = |recent: Option<f64>| match shared {
        Some(share) => part_dose(share, knowledge.atlas.planning().part_dose, recent),
        None => dose(class, insufficient, recent),
    };
    let mut schools = knowledge.atlas.school_options(&case.client.schools);
    let fewest = schools.find_map(|option| option.fewest_sessions(&region.id));
    let visibility = if class == Class::BringUp { 1.0 } else { region.visibility };
    Demand {
        region: region.id.clone(),
        name: region.name.clone(),
        class,
        dose: with_frequency(wanted(recent), class, fewest),
        weight: by_class * visibility * verdict.look_weight.max(0.1),
        weaker: weaker_side(knowledge, assessment, index),
        recent,
        daily: matches!(region.id.muscle(), "forearm" | "calves"),
        stretch_possible: false,
        felt_elsewhere: felt_elsewhere(&knowledge.atlas, case, &region.id),
        full_aim: wanted(None).aim,
        actions: region.actions.clone(),
    }
}

/// The share of a chosen part's dose that one of its regions gets: half evenly, half by need.
fn share_of_part(knowledge: &Knowledge, case: &Case, assessment: &Assessment, index: usize) -> f64 {
    let regions = knowledge.atlas.regions();
    let together =
        |other: &usize| regions[*other].area == regions[index].area && case.choices.with_its_part(&regions[*other]);
    let heads: Vec<usize> = (0..regions.len()).filter(together).collect();
    let need = |region: usize| assessment.regions[region].bulk.need;
    let all: f64 = heads.iter().map(|head| need(*head)).sum();
    let even = 1.0 / heads.len() as f64;
    if all > 0.0 { f64::midpoint(even, need(index) / all) } else { even }
}

/// What was felt instead of a region, by the newest answers about it: none when the region itself was felt since.
fn felt_elsewhere(atlas: &Atlas, case: &Case, region: &RegionId) -> Option<String> {
    let told = case.rounds.iter().rev().find_map(|round| {
        let answers = round.tests.iter().filter_map(|test| match test {
            Test::Feel(felt) if felt.region == *region => Some(felt.felt.as_str()),
            _ => None,
        });
        let answers: Vec<&str> = answers.collect();
        (!answers.is_empty()).then_some(answers)
    })?;
    if told.contains(&region.as_str()) {
        return None;
    }
    let felt = told[0];
    let named = atlas.regions().iter().find(|r| r.id.as_str() == felt).map(|r| r.name.to_lowercase());
    Some(named.or_else(|| atlas.named_takeover(felt).map(str::to_lowercase)).unwrap_or_else(|| felt.to_owned()))
}

/// How often a chosen region is trained is a school of its own.
fn with_frequency(dose: Dose, class: Class, fewest: Option<u8>) -> Dose {
    let sessions_low = fewest.filter(|_| class == Class::BringUp).unwrap_or(dose.sessions_low);
    Dose { sessions_low, ..dose }
}

/// The smaller side of a region when the difference is real and worth acting on: said by the region's own posterior, or by
/// a girth it shares in whose difference is real and which dominance alone does not explain.
fn weaker_side(knowledge: &Knowledge, assessment: &Assessment, index: usize) -> Option<Side> {
    let verdict = &assessment.regions[index];
    let posterior = verdict.asymmetry?;
    match posterior.tilt {
        Tilt::LeftSmaller => return Some(Side::Left),
        Tilt::RightSmaller => return Some(Side::Right),
        Tilt::Equal | Tilt::Unclear => {}
    }
    let shares = |site: &SiteId| {
        knowledge.atlas.evidence().composition.get(site).is_some_and(|shares| shares.contains_key(&verdict.region))
    };
    let acted_on = assessment.asymmetries.iter().find(|a| {
        a.belief.verdict == SideVerdict::RealAct && !a.dominance_explains && !a.fat_explains && shares(&a.site)
    })?;
    let smaller = acted_on.sides_cm.larger_side()?.other();
    let agrees = if smaller == Side::Left { posterior.mean < 0.0 } else { posterior.mean > 0.0 };
    agrees.then_some(smaller)
}

/// The school "equal sets" takes the extra set away again.
fn extra_sets(mut candidates: Vec<Candidate>, school: &str) -> Vec<Candidate> {
    if school == "match" {
        for candidate in &mut candidates {
            candidate.extra_sets_weaker = 0;
        }
    }
    candidates
}
