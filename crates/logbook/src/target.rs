//! What is done next time: double progression, the weaker side's rule, backing off, holding.

use crate::entry::LoggedSet;
use crate::performance::Performed;
use assess::PAIN_STOPS;
use jiff::Timestamp;
use plan::{ProgressKind, Progression};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use units::Side;
use utoipa::ToSchema;

/// Repetitions added where repetitions go up before load.
const HIGH_REPS_STEP: u16 = 2;
/// Seconds added to a timed set (common practice, no source).
const SECONDS_STEP: u16 = 5;
/// Sessions in a row below the bottom before load comes off.
const SESSIONS_BELOW: usize = 2;
/// Sessions in a row in which the same neighbour took over before a swap is offered.
const SESSIONS_FELT_ELSEWHERE: usize = 2;

/// What the plan says of an exercise.
#[derive(Clone, Copy, Debug)]
pub struct Planned<'a> {
    /// How it goes on.
    pub rule: &'a Progression,
    /// Sets this time.
    pub sets: u16,
    /// Whether it is a lighter week.
    pub lighter: bool,
    /// Repetitions to be left.
    pub reserve: u8,
    /// The side that goes first, when sides take turns: the weaker one.
    pub first_side: Option<Side>,
    /// The region it is there for.
    pub region: &'a str,
}

/// What to do with load and repetitions.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum TargetKind {
    /// Nothing is known yet: find a load.
    Find,
    /// More load.
    Load,
    /// More repetitions or seconds.
    Count,
    /// The same again.
    Hold,
    /// Less load.
    BackOff,
    /// The same load, half the sets.
    Lighter,
    /// As the coach said.
    Overruled,
}

/// What is done next time.
#[derive(Clone, Debug, PartialEq)]
pub struct Target {
    /// What goes up or down.
    pub kind: TargetKind,
    /// The load; none when nothing is held, or none is known yet.
    pub load_kg: Option<f64>,
    /// A step that has no weight of its own, in words, such as a plate of the stack.
    pub step: Option<String>,
    /// Repetitions or seconds, set by set.
    pub counts: Vec<u16>,
    /// Why, in a sentence.
    pub why: String,
    /// What is offered beside it.
    pub offer: Option<Offer>,
}

/// Something else to do, offered with its reason.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Offer {
    /// Another exercise.
    Swap(String),
}

/// What a coach says instead of the rules, until the exercise has been done.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Overrule {
    /// The load, kg; none when nothing is held.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub load_kg: Option<f64>,
    /// Repetitions or seconds of every set.
    pub count: u16,
    /// Why.
    pub note: String,
}

/// Whether what a coach said still holds: until the exercise is done in a session that was first written down later, so that
/// neither the session of the same afternoon nor a correction of it ends what is said in the evening. `done` are the moments
/// at which sessions of the exercise were first written down.
pub fn still_holds(said: Timestamp, done: impl IntoIterator<Item = Timestamp>) -> bool {
    done.into_iter().all(|written| written <= said)
}

/// What is done next time. `history` is of this exercise, oldest first; `overruled` goes before the rules.
pub fn next(planned: &Planned, history: &[Performed], overruled: Option<&Overrule>) -> Target {
    let sets = usize::from(planned.sets.max(1));
    if let Some(said) = overruled {
        let why = format!("Your coach says so: {}", said.note);
        let counts = vec![said.count; sets];
        return Target { kind: TargetKind::Overruled, load_kg: said.load_kg, step: None, counts, why, offer: None };
    }
    let side = planned.first_side;
    let full: Vec<&Performed> =
        history.iter().filter(|done| !done.lighter && done.sets(side).next().is_some()).collect();
    let Some(last) = full.last() else { return find(planned, sets) };
    let target = went(planned, side, &full, last, sets);
    let side_note = side.map_or(String::new(), |side| format!(" The {} side sets the pace.", side.as_str()));
    Target { why: target.why + &side_note, ..target }
}

fn find(planned: &Planned, sets: usize) -> Target {
    let rule = planned.rule;
    let unit = unit(rule.kind);
    let why = format!(
        "First time: find a load that leaves {} after {} {unit}; stay on the light side.",
        planned.reserve, rule.bottom
    );
    Target { kind: TargetKind::Find, load_kg: None, step: None, counts: vec![rule.bottom; sets], why, offer: None }
}

fn went(planned: &Planned, side: Option<Side>, full: &[&Performed], last: &Performed, sets: usize) -> Target {
    let rule = planned.rule;
    let done: Vec<&LoggedSet> = last.sets(side).collect();
    let load_kg = working_load(&done);
    let counts: Vec<u16> =
        (0..sets).map(|n| done.get(n).or(done.last()).map_or(rule.bottom, |s| s.count.number())).collect();
    let target = |kind, load_kg, step, counts, why: String| Target { kind, load_kg, step, counts, why, offer: None };
    if planned.lighter {
        let why = "Lighter week: the same load, half the sets, nothing added.".to_owned();
        return target(TargetKind::Lighter, load_kg, None, counts, why);
    }
    if let Some(offer) = swap_offer(planned, full) {
        let why = "Held where it is until that is settled.".to_owned();
        return Target { offer: Some(offer), ..target(TargetKind::Hold, load_kg, None, counts, why) };
    }
    let below = full.iter().rev().take(SESSIONS_BELOW).filter(|session| fell_short(rule, session, side)).count();
    if below == SESSIONS_BELOW {
        return backed_off(rule, load_kg, sets);
    }
    let reached =
        done.iter().all(|set| set.count.number() >= rule.top && set.reserve.is_none_or(|left| left >= planned.reserve));
    let enough = done.len() >= sets.min(usize::from(planned.sets));
    if reached && enough {
        return more_load(rule, load_kg, sets);
    }
    let step = match rule.kind {
        ProgressKind::Double => 1,
        ProgressKind::RepsThenLoad => HIGH_REPS_STEP,
        ProgressKind::Seconds => SECONDS_STEP,
    };
    let more = counts.iter().map(|count| (count + step).clamp(rule.bottom.min(rule.top), rule.top)).collect();
    let why = format!("Not yet {} in every set: keep the load, add {}.", rule.top, unit(rule.kind));
    target(TargetKind::Count, load_kg, None, more, why)
}

fn unit(kind: ProgressKind) -> &'static str {
    match kind {
        ProgressKind::Seconds => "seconds",
        ProgressKind::Double | ProgressKind::RepsThenLoad => "repetitions",
    }
}

/// The load most of the work was done with: the heaviest that two sets share, else the heaviest.
fn working_load(sets: &[&LoggedSet]) -> Option<f64> {
    let loads: Vec<f64> = sets.iter().filter_map(|set| set.load.map(units::Mass::kg)).collect();
    let shared = |load: &&f64| loads.iter().filter(|other| (**other - **load).abs() < 1e-9).count() > 1;
    let heaviest = |loads: &mut dyn Iterator<Item = f64>| loads.max_by(f64::total_cmp);
    heaviest(&mut loads.iter().filter(shared).copied()).or_else(|| heaviest(&mut loads.iter().copied()))
}

/// Whether most sets of a session ended below the bottom of the range.
fn fell_short(rule: &Progression, session: &Performed, side: Option<Side>) -> bool {
    let all = session.sets(side).count();
    2 * session.sets(side).filter(|set| set.count.number() < rule.bottom).count() > all
}

fn swap_offer(planned: &Planned, full: &[&Performed]) -> Option<Offer> {
    let last = full.last()?;
    if let Some(pain) = &last.log.pain
        && (pain.level >= PAIN_STOPS || pain.stops())
    {
        return Some(Offer::Swap(format!("Pain {} of 10 last time.", pain.level)));
    }
    let elsewhere = last.log.felt.as_deref().filter(|felt| *felt != planned.region)?;
    let same = |done: &&&Performed| done.log.felt.as_deref() == Some(elsewhere);
    let again = full.iter().rev().take(SESSIONS_FELT_ELSEWHERE).filter(same).count();
    (again == SESSIONS_FELT_ELSEWHERE).then(|| Offer::Swap("Felt in the same other place twice.".to_owned()))
}

fn backed_off(rule: &Progression, load_kg: Option<f64>, sets: usize) -> Target {
    let share = 1.0 - f64::from(rule.back_off_pct) / 100.0;
    let step = rule.step_kg.unwrap_or(0.5);
    let load_kg = load_kg.map(|kg| rounded(kg * share, step));
    let why = format!("Under {} two times in a row: {} % less load.", rule.bottom, rule.back_off_pct);
    Target { kind: TargetKind::BackOff, load_kg, step: None, counts: vec![rule.bottom; sets], why, offer: None }
}

fn more_load(rule: &Progression, load_kg: Option<f64>, sets: usize) -> Target {
    let why = format!("Every set reached {}: {}, and back to {}.", rule.top, rule.step, rule.bottom);
    // A step without a weight of its own is said in words; the load it is added to stays in sight.
    let (load, step) = match (load_kg, rule.step_kg) {
        (Some(kg), Some(step)) => (Some(kg + step), None),
        (load, _) => (load, Some(rule.step.clone())),
    };
    Target { kind: TargetKind::Load, load_kg: load, step, counts: vec![rule.bottom; sets], why, offer: None }
}

/// A load that can be put together from steps, never above what was asked, never nothing.
fn rounded(kg: f64, step: f64) -> f64 {
    ((kg / step + 1e-9).floor() * step).max(step)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::entry::{Count, ExerciseLog, ExercisePain};
    use crate::performance::tests::{log, set};
    use rstest::rstest;
    use units::Mass;

    fn rule(kind: ProgressKind, range: [u16; 2], step_kg: Option<f64>) -> Progression {
        Progression {
            kind,
            bottom: range[0],
            top: range[1],
            step_kg,
            step: "one plate of the stack".into(),
            back_off_pct: 10,
            says: String::new(),
        }
    }

    fn of(rule: &Progression, logs: &[ExerciseLog]) -> Target {
        with(rule, logs, |_| {})
    }

    fn with(rule: &Progression, logs: &[ExerciseLog], change: impl Fn(&mut Planned)) -> Target {
        let mut planned =
            Planned { rule, sets: 3, lighter: false, reserve: 1, first_side: None, region: "biceps.long" };
        change(&mut planned);
        let day = |n: usize| format!("2026-03-{:02}", n + 1).parse().unwrap();
        let history: Vec<Performed> =
            logs.iter().enumerate().map(|(n, log)| Performed { on: day(n), lighter: false, log }).collect();
        next(&planned, &history, None)
    }

    fn double() -> Progression {
        rule(ProgressKind::Double, [8, 12], Some(2.0))
    }

    fn curl(sets: &[(f64, u16)]) -> ExerciseLog {
        log("db-curl", sets)
    }

    // Common practice, no source.
    #[rstest]
    #[case::every_set_at_the_top(&[(12.0, 12), (12.0, 12), (12.0, 12)], TargetKind::Load, 14.0, &[8, 8, 8])]
    #[case::one_set_short(&[(12.0, 12), (12.0, 12), (12.0, 11)], TargetKind::Count, 12.0, &[12, 12, 12])]
    #[case::on_the_way(&[(12.0, 10), (12.0, 9), (12.0, 8)], TargetKind::Count, 12.0, &[11, 10, 9])]
    #[case::once_below(&[(12.0, 7), (12.0, 7), (12.0, 6)], TargetKind::Count, 12.0, &[8, 8, 8])]
    #[case::too_few_sets_are_not_every_set(&[(12.0, 12)], TargetKind::Count, 12.0, &[12, 12, 12])]
    #[case::a_warm_up_among_them(&[(8.0, 12), (12.0, 10), (12.0, 9)], TargetKind::Count, 12.0, &[12, 11, 10])]
    fn load_goes_up_when_every_set_reaches_the_top(
        #[case] sets: &[(f64, u16)],
        #[case] kind: TargetKind,
        #[case] kg: f64,
        #[case] counts: &[u16],
    ) {
        let target = of(&double(), &[curl(sets)]);
        assert_eq!((target.kind, target.load_kg, target.counts.as_slice()), (kind, Some(kg), counts));
    }

    #[test]
    fn sets_taken_further_than_planned_do_not_raise_the_load() {
        let mut hard = curl(&[(12.0, 12), (12.0, 12), (12.0, 12)]);
        hard.sets[2].reserve = Some(0);
        assert_eq!(of(&double(), &[hard]).kind, TargetKind::Count);
    }

    #[test]
    fn two_sessions_below_the_bottom_take_a_tenth_off_in_steps() {
        let below = || curl(&[(30.0, 7), (30.0, 6), (30.0, 6)]);
        let target = of(&double(), &[below(), below()]);
        assert_eq!((target.kind, target.load_kg), (TargetKind::BackOff, Some(26.0)));
    }

    #[test]
    fn a_stack_goes_up_by_a_plate_in_words() {
        let target = of(&rule(ProgressKind::Double, [8, 12], None), &[curl(&[(22.5, 12), (22.5, 12), (22.5, 12)])]);
        assert_eq!((target.load_kg, target.step.as_deref()), (Some(22.5), Some("one plate of the stack")));
    }

    #[rstest]
    #[case::high_repetitions(ProgressKind::RepsThenLoad, [15, 25], 20, 22)]
    #[case::by_the_clock(ProgressKind::Seconds, [30, 45], 30, 35)]
    #[case::never_past_the_top(ProgressKind::Seconds, [30, 45], 43, 45)]
    fn what_is_added_follows_from_the_rule(
        #[case] kind: ProgressKind,
        #[case] range: [u16; 2],
        #[case] done: u16,
        #[case] next: u16,
    ) {
        let target = of(&rule(kind, range, None), &[curl(&[(0.0, done), (0.0, done), (0.0, done)])]);
        assert_eq!((target.counts, target.load_kg), (vec![next; 3], None));
    }

    // The stronger side never progresses ahead of the weaker one.
    #[test]
    fn the_weaker_side_alone_decides() {
        let sided = |side, reps| LoggedSet { side: Some(side), ..set(1, 12.0, reps) };
        let done = ExerciseLog { sets: vec![sided(Side::Left, 9), sided(Side::Right, 12)], ..curl(&[]) };
        let one = |planned: &mut Planned| planned.sets = 1;
        let left = with(&double(), std::slice::from_ref(&done), |planned| {
            one(planned);
            planned.first_side = Some(Side::Left);
        });
        assert_eq!((left.kind, left.counts.as_slice()), (TargetKind::Count, [10].as_slice()));
        assert!(left.why.ends_with("The left side sets the pace."));
    }

    #[test]
    fn pain_of_three_holds_the_load_and_offers_a_swap() {
        let mut sore = curl(&[(12.0, 12), (12.0, 12), (12.0, 12)]);
        sore.pain =
            Some(ExercisePain { area: "elbow".into(), side: None, level: 3, red_flags: Vec::new(), during: None });
        let target = of(&double(), &[sore]);
        assert_eq!((target.kind, target.load_kg), (TargetKind::Hold, Some(12.0)));
        assert!(target.offer.is_some());
    }

    #[rstest]
    #[case::once(&["delts.anterior"], false)]
    #[case::twice_the_same(&["delts.anterior", "delts.anterior"], true)]
    #[case::twice_different(&["forearm.flexors", "delts.anterior"], false)]
    #[case::twice_where_it_should_be(&["biceps.long", "biceps.long"], false)]
    fn the_same_neighbour_twice_offers_a_swap(#[case] felt: &[&str], #[case] offered: bool) {
        let logs: Vec<ExerciseLog> =
            felt.iter().map(|felt| ExerciseLog { felt: Some((*felt).to_owned()), ..curl(&[(12.0, 10)]) }).collect();
        assert_eq!(of(&double(), &logs).offer.is_some(), offered);
    }

    #[test]
    fn a_lighter_week_keeps_the_load_and_does_not_count_afterwards() {
        let full = curl(&[(12.0, 12), (12.0, 12), (12.0, 12)]);
        let light = with(&double(), std::slice::from_ref(&full), |planned| planned.lighter = true);
        assert_eq!((light.kind, light.load_kg), (TargetKind::Lighter, Some(12.0)));
        let eased = curl(&[(12.0, 8)]);
        let rule = double();
        let planned =
            Planned { rule: &rule, sets: 3, lighter: false, reserve: 1, first_side: None, region: "biceps.long" };
        let on = |day: &str| day.parse().unwrap();
        let history = [
            Performed { on: on("2026-03-02"), lighter: false, log: &full },
            Performed { on: on("2026-03-09"), lighter: true, log: &eased },
        ];
        assert_eq!(next(&planned, &history, None).kind, TargetKind::Load);
    }

    #[test]
    fn the_coach_s_word_goes_before_the_rules() {
        let rule = double();
        let planned =
            Planned { rule: &rule, sets: 2, lighter: false, reserve: 1, first_side: None, region: "biceps.long" };
        let done = curl(&[(12.0, 10), (12.0, 10)]);
        let history = [Performed { on: "2026-03-02".parse().unwrap(), lighter: false, log: &done }];
        let said = Overrule { load_kg: Some(10.0), count: 15, note: "slower".into() };
        let target = next(&planned, &history, Some(&said));
        assert_eq!((target.kind, target.load_kg, target.counts), (TargetKind::Overruled, Some(10.0), vec![15, 15]));
    }

    #[rstest]
    #[case::never_done(&[], true)]
    #[case::done_the_same_afternoon(&["2026-02-27T17:00:00Z", "2026-03-02T17:00:00Z"], true)]
    #[case::done_later_the_same_day(&["2026-03-02T17:00:00Z", "2026-03-02T20:00:00Z"], false)]
    #[case::done_since(&["2026-03-05T17:00:00Z"], false)]
    fn the_coach_s_word_holds_until_it_was_done(#[case] done: &[&str], #[case] holds: bool) {
        let said = "2026-03-02T18:30:00Z".parse().unwrap();
        assert_eq!(still_holds(said, done.iter().map(|at| at.parse().unwrap())), holds);
    }

    #[test]
    fn the_first_time_looks_for_a_load() {
        let target = of(&double(), &[]);
        assert_eq!((target.kind, target.load_kg, target.counts), (TargetKind::Find, None, vec![8; 3]));
    }

    #[test]
    fn a_load_taken_off_is_never_nothing() {
        let tiny = || ExerciseLog {
            sets: vec![LoggedSet { load: Some(Mass::from_kg(2.0).unwrap()), count: Count::Reps(5), ..set(1, 2.0, 5) }],
            ..curl(&[])
        };
        assert_eq!(of(&double(), &[tiny(), tiny()]).load_kg, Some(2.0));
    }
}
