//! An exercise as one client may do it in this week: its share of each region, its time, its limits, what speaks for it.

use crate::problem::Demand;
use crate::rules::allowed::Refusal;
use crate::split::{Theme, belongs};
use crate::timing::ItemTime;
use crate::usual::Usual;
use assess::{Case, Experience, Hand, KeptSetUp, Test};
use atlas::{Atlas, Exercise, LoadStep, Scheme, SchoolOption, SidesUse};
use units::{ExerciseId, RegionId, Side};

/// An exercise the client may do.
#[derive(Clone, Debug)]
pub struct Candidate {
    /// The exercise.
    pub exercise: Exercise,
    /// Demand index and fraction.
    pub targets: Vec<(usize, f64)>,
    /// Whether it is done one side at a time in this plan.
    pub one_sided: bool,
    /// The side that goes first when one-sided.
    pub first: Side,
    /// Extra sets for the weaker side.
    pub extra_sets_weaker: u16,
    /// Time of a straight set.
    pub time: ItemTime,
    /// How it is done where nothing is written.
    pub usual: Usual,
    /// The client has done it lately.
    pub known: bool,
    /// Whether what it needs stands at the gym, and at home.
    pub stands: [bool; 2],
    /// The variant it is done in at the gym, and at home, where its own kit does not stand and another's does.
    pub instead: [Option<String>; 2],
    /// How its station is set for the client, and what the coach's hand found.
    pub kept: KeptSetUp,
    /// What speaks for it, in points.
    pub merit: f64,
    /// Sentences the coach's schools add.
    pub cues: Vec<String>,
    /// All that its card says, how to get into position first, without what contradicts.
    pub says: Vec<String>,
    /// Why the client may not do it: only a week made before the rule was known has such a card.
    pub refused: Option<Refusal>,
    /// How its load goes up.
    pub step: LoadStep,
    /// How much of it a week and a session may hold.
    pub caps: Caps,
    /// All its main regions may be trained on consecutive days.
    pub daily: bool,
    /// By session: whether it lies outside the day's theme.
    pub off_theme: Vec<bool>,
}

impl Candidate {
    /// Time of the extra sets of the weaker side, s.
    pub fn extra_set_s(&self) -> f64 {
        f64::from(self.extra_sets_weaker) * (self.time.work_s + f64::from(self.time.rest_s))
    }

    /// Whether `demand` is a main target.
    pub fn trains(&self, demand: usize) -> bool {
        self.fraction(demand) >= 1.0
    }

    /// Fraction of a set that counts for `demand`.
    pub fn fraction(&self, demand: usize) -> f64 {
        self.targets.iter().find(|(d, _)| *d == demand).map_or(0.0, |(_, f)| *f)
    }
}

/// How much of an exercise a week and a session may hold.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub struct Caps {
    /// Sessions a week.
    pub sessions: u16,
    /// Sets a week.
    pub sets: u16,
    /// Sets a session.
    pub session_sets: u16,
}

/// No range goes under this for a beginner (common practice, no source).
pub(crate) const BEGINNER_REPS: u16 = 6;

pub(crate) fn candidate(
    atlas: &Atlas,
    exercise: &Exercise,
    demands: &[Demand],
    case: &Case,
    themes: &[Theme],
    known: bool,
) -> Candidate {
    let schools = schools(atlas, case);
    let mut seen = exercise.clone();
    for option in &schools {
        option.seen(&mut seen);
    }
    let exercise = &seen;
    let place = |region: &RegionId| demands.iter().position(|d| d.region == *region);
    let targets: Vec<(usize, f64)> =
        exercise.targets.iter().filter_map(|(region, fraction)| Some((place(region)?, *fraction))).collect();
    let mains = || targets.iter().filter(|(_, f)| *f >= 1.0).map(|(d, _)| &demands[*d]);
    let weaker = mains().find_map(|demand| demand.weaker);
    let one_sided = match exercise.sides {
        SidesUse::One => true,
        SidesUse::Both => false,
        SidesUse::Either => weaker.is_some() || schools.iter().any(|option| option.in_turn(exercise)),
    };
    let non_dominant = if case.client.dominant_hand == Hand::Left { Side::Right } else { Side::Left };
    let mut exercise = exercise.clone();
    if case.client.experience == Experience::Beginner
        && let Some([low, high]) = exercise.reps.as_mut()
        && *low < BEGINNER_REPS
    {
        *high = (*high).max(BEGINNER_REPS + 2);
        *low = BEGINNER_REPS;
    }
    let mut candidate = Candidate {
        daily: mains().all(|demand| demand.daily),
        one_sided,
        first: weaker.unwrap_or(non_dominant),
        extra_sets_weaker: u16::from(one_sided && weaker.is_some()),
        time: ItemTime::of(&exercise).rested(schools.iter().find_map(|option| option.rest_for(&exercise))),
        usual: Usual::in_scheme(scheme(atlas, &exercise, &schools)),
        known,
        stands: [false, true].map(|home| exercise.stands(|item| case.client.has_at(home, item))),
        instead: [false, true]
            .map(|home| exercise.variant_for(|item| case.client.has_at(home, item)).map(|variant| variant.id.clone())),
        kept: case.set_ups.get(&exercise.id).cloned().unwrap_or_default(),
        merit: merit(&exercise, &schools, case, known),
        cues: schools.iter().flat_map(|option| option.cues_for(&exercise)).map(str::to_owned).collect(),
        says: says(atlas, &exercise, &schools, case),
        refused: None,
        step: atlas.load_step(&exercise),
        caps: caps(atlas, &exercise, case),
        off_theme: Vec::new(),
        targets,
        exercise,
    };
    if schools.iter().any(|option| option.one_per_plane) {
        candidate.exercise.family = path(&candidate.exercise.family).to_owned();
    }
    candidate.off_theme = themes.iter().map(|theme| !belongs(atlas, demands, &candidate, *theme)).collect();
    candidate
}

/// The schools that hold for a client: a pain, or too little training, may stand against an answer.
fn schools<'a>(atlas: &'a Atlas, case: &'a Case) -> Vec<&'a SchoolOption> {
    let client = &case.client;
    let hurts = |area: &str| client.pain.iter().any(|pain| pain.area == area && pain.level > 0);
    atlas.holding_options(&client.schools, hurts, client.experience == Experience::Beginner).collect()
}

/// All that a card says: how to get into position, what is remembered of the client's station, then the cues.
fn says(atlas: &Atlas, exercise: &Exercise, schools: &[&SchoolOption], case: &Case) -> Vec<String> {
    let mut says = atlas.compose(exercise, schools);
    let kept = case.set_ups.get(&exercise.id).and_then(|kept| kept.note.clone());
    let place = says.len().min(1);
    says.splice(place..place, kept);
    says
}

/// The scheme of the first school that has one for it; straight sets where none has.
fn scheme(atlas: &Atlas, exercise: &Exercise, schools: &[&SchoolOption]) -> Scheme {
    let said = schools.iter().find_map(|option| option.scheme_for(exercise)).and_then(|id| atlas.scheme(id));
    said.unwrap_or_else(|| atlas.straight()).clone()
}

/// A family's path without where it is hardest, which is the letter after the last dash.
fn path(family: &str) -> &str {
    ["-S", "-M", "-L", "-E"].iter().find_map(|hardest| family.strip_suffix(hardest)).unwrap_or(family)
}

/// What speaks for an exercise, in points: it loads a main region where that is stretched, it holds the body, it is easy on
/// joints and goes up in small steps (a half for each point of the catalogue), the client knows it, the region was felt, by the client or under
/// the coach's hand. A school
/// that prefers it gives two, and schools add up. Common practice, no source.
fn merit(exercise: &Exercise, schools: &[&SchoolOption], case: &Case, known: bool) -> f64 {
    let stretched = exercise.targets.keys().any(|region| exercise.loads_stretched(region));
    let schools = schools.iter().filter(|option| option.prefers(exercise)).count();
    let point = |holds: bool| f64::from(u8::from(holds));
    point(stretched)
        + point(exercise.stability == 2)
        + f64::from(exercise.comfort) / 2.0
        + f64::from(exercise.steps) / 2.0
        + point(known)
        + felt(exercise, case)
        + case.set_ups.get(&exercise.id).map_or(0.0, KeptSetUp::speaks)
        + 2.0 * schools as f64
}

/// 1 when the newest answer about an exercise names a main region, -1 when it names something else, 0 when nobody asked.
fn felt(exercise: &Exercise, case: &Case) -> f64 {
    let answers = case.rounds.iter().rev().flat_map(|round| &round.tests);
    let told = answers.filter_map(|test| match test {
        Test::Feel(felt) if felt.exercise == exercise.id => {
            Some(exercise.trains(&felt.region) && felt.felt == felt.region.as_str())
        }
        _ => None,
    });
    told.map(|right| if right { 1.0 } else { -1.0 }).next().unwrap_or(0.0)
}

fn caps(atlas: &Atlas, exercise: &Exercise, case: &Case) -> Caps {
    // Settings are checked: small numbers of sets and sessions.
    #[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss)]
    let whole = |number: f64| number.max(0.0) as u16;
    let limits = &atlas.planning().exercise;
    let sets = if exercise.skill == 2 { limits.technical_sets } else { limits.sets };
    let caps = Caps { sessions: whole(limits.sessions), sets: whole(sets), session_sets: crate::anneal::SETS_HIGH };
    if !exercise.eccentric {
        return caps;
    }
    let last = f64::from(sets_of_last_week(case, &exercise.id));
    let risen = (last + limits.eccentric_rise_sets).clamp(limits.eccentric_first_sets, limits.eccentric_most_sets);
    Caps { sets: whole(risen), session_sets: whole(limits.eccentric_session_sets), ..caps }
}

/// Sets of an exercise in the newest week of training that is known.
fn sets_of_last_week(case: &Case, exercise: &ExerciseId) -> u16 {
    let newest = case.training.iter().map(|entry| entry.week_of).max();
    let there = case.training.iter().filter(|entry| Some(entry.week_of) == newest && entry.exercise == *exercise);
    there.map(|entry| entry.sets).sum()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::problem::PlanProblem;
    use crate::tests::{candidate, kept, problem};
    use rstest::rstest;
    use serde_json::json;

    fn taught(school: &str, answer: &str, exercise: &str) -> Candidate {
        let problem = problem(&json!({"schools": {school: answer}}));
        problem.candidates[candidate(&problem, exercise)].clone()
    }

    // Common practice, no source.
    #[rstest]
    #[case::a_small_exercise("by-size", "face-pull", 60)]
    #[case::short("short", "face-pull", 45)]
    #[case::short_leaves_compounds("short", "leg-press", 120)]
    #[case::long("long", "leg-extension", 120)]
    #[case::long_for_a_compound("long", "leg-press", 180)]
    fn rests_are_a_school(#[case] answer: &str, #[case] exercise: &str, #[case] rest_s: u16) {
        assert_eq!(taught("rests", answer, exercise).time.rest_s, rest_s);
    }

    #[rstest]
    #[case::little("little", 0.25)]
    #[case::clearly("clearly", 0.5)]
    fn what_a_press_counts_for_the_side_of_the_shoulder_is_a_school(#[case] answer: &str, #[case] fraction: f64) {
        let press = taught("side_delt_press", answer, "shoulder-press-db");
        assert!((press.exercise.fraction(&"delts.lateral".parse().unwrap()) - fraction).abs() < 1e-12);
    }

    #[rstest]
    #[case::by_where_they_are_hardest("hardest-point", false)]
    #[case::by_their_path("plane", true)]
    fn raises_that_differ_in_where_they_are_hardest_are_one_movement_by_school(
        #[case] answer: &str,
        #[case] same: bool,
    ) {
        let family = |exercise: &str| taught("redundancy", answer, exercise).exercise.family;
        assert_eq!(family("machine-side-raise") == family("db-side-raise"), same);
    }

    #[test]
    fn what_is_remembered_of_a_station_stands_behind_how_to_get_into_position() {
        let problem: PlanProblem = kept(&json!({"leg-press": {"note": "Feet high, seat on 4."}}));
        let says = &problem.candidates[candidate(&problem, "leg-press")].says;
        assert_eq!(says[1], "Feet high, seat on 4.");
        assert!(says[0].starts_with(char::is_uppercase) && says.len() > 2, "{says:?}");
    }
}
