//! What to do with a region at the end of a round: one row for each thing that can be seen, from its most pressing row down.

use crate::review::WorkDone;
use assess::{Choices, LastReview};
use atlas::Atlas;
use jiff::civil::Date;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use units::{RegionId, SiteId};
use utoipa::ToSchema;

/// Below this share of the planned sets nothing is known about the plan itself.
const ADHERENCE: f64 = 0.8;

/// A decision about a region.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Decision {
    /// Go on as planned.
    Keep,
    /// Go on as planned, and first of all do it.
    Adhere,
    /// No longer chosen: kept at what it has.
    Release,
    /// A fifth more sets.
    Raise,
    /// A week of rest, then another exercise and range.
    RestThenChange,
    /// Another exercise now.
    Swap,
    /// A kept region that shrank is trained for growth again.
    Grow,
}

impl Decision {
    /// Whether it asks something of the next week beside the choice of regions.
    pub fn asks_of_plan(self) -> bool {
        matches!(self, Self::Swap | Self::RestThenChange | Self::Raise | Self::Grow)
    }
}

/// What is known when it is decided.
#[derive(Clone, Debug)]
#[allow(clippy::struct_excessive_bools, reason = "each is a fact the table asks for")]
pub struct Facts<'a> {
    /// Whether it was to be brought up.
    pub chosen: bool,
    /// Whether it is behind now.
    pub behind: bool,
    /// Whether it was at the beginning.
    pub was_behind: bool,
    /// Whether it really grew.
    pub gained: bool,
    /// Whether it really shrank.
    pub shrank: bool,
    /// What was done.
    pub work: &'a WorkDone,
    /// Whether something asks for rest.
    pub tired: bool,
}

/// The decision and its reason; no decision for a region that was not chosen and did not shrink.
pub fn decide(facts: &Facts) -> (Option<Decision>, String) {
    let work = facts.work;
    if !facts.chosen {
        let why = "It really shrank while it was kept: train it for growth again and take the sets from elsewhere.";
        return if facts.shrank { (Some(Decision::Grow), why.to_owned()) } else { (None, String::new()) };
    }
    if let Some(pain) = &work.pain {
        return (Some(Decision::Swap), format!("{pain}: swap the exercise now."));
    }
    if let Some(felt) = &work.felt {
        return (Some(Decision::Swap), format!("{felt}: swap the exercise now."));
    }
    if facts.was_behind && !facts.behind {
        let why = "No longer behind: keep it at what it has, and choose the next in line.";
        return (Some(Decision::Release), why.to_owned());
    }
    if facts.gained {
        return (Some(Decision::Keep), "A real gain, and still work to do: go on.".to_owned());
    }
    let done_pct = 100.0 * work.share();
    if work.share() < ADHERENCE {
        let why = format!("No real change, but only {done_pct:.0} % of the sets were done: that comes first.");
        return (Some(Decision::Adhere), why);
    }
    let high = work.band.is_some_and(|[low, high]| work.weekly_sets >= f64::midpoint(low, high));
    let sets = work.weekly_sets;
    if high || facts.tired {
        let because = if high { format!("{sets:.1} sets a week are high in its band") } else { "tired".to_owned() };
        let why =
            format!("No real change with the sets done, {because}: a week of rest, then another exercise and range.");
        return (Some(Decision::RestThenChange), why);
    }
    let why = format!("No real change with the sets done, {sets:.1} a week are low in its band: a fifth more.");
    (Some(Decision::Raise), why)
}

/// What is chosen in the next round: those that are not released go on, a whole part until all of it is, `also` joins them,
/// never more than three; what was held back stays so unless it was chosen. What the client is shown stays as it was.
pub fn carried(
    atlas: &Atlas,
    before: &Choices,
    decisions: &BTreeMap<RegionId, Decision>,
    also: &[RegionId],
) -> Choices {
    let goes_on = |region: &&RegionId| decisions.get(*region) != Some(&Decision::Release);
    let heads = |area: &SiteId| {
        let own = atlas.regions().iter().filter(|region| region.area.as_ref() == Some(area));
        own.map(|region| &region.id).collect::<Vec<_>>()
    };
    let areas: Vec<SiteId> = before.areas.iter().filter(|area| heads(area).iter().any(goes_on)).cloned().collect();
    let mut bring_up: Vec<RegionId> = before.bring_up.iter().filter(goes_on).cloned().collect();
    for region in also {
        if !bring_up.contains(region) {
            bring_up.push(region.clone());
        }
    }
    bring_up.truncate(Choices::MAX_BRING_UP - areas.len().min(Choices::MAX_BRING_UP));
    let hold_back = before.hold_back.iter().filter(|region| !bring_up.contains(region)).cloned().collect();
    Choices { hold_back, bring_up, areas, overrides: Vec::new(), share: before.share.clone() }
}

/// Choices that follow from a review put beside what was chosen already: nothing of that is taken away or turned round.
pub fn beside(chosen: &Choices, follows: &Choices) -> Choices {
    let mut both = chosen.clone();
    for area in &follows.areas {
        if both.priorities() < Choices::MAX_BRING_UP && !both.areas.contains(area) {
            both.areas.push(area.clone());
        }
    }
    for region in &follows.bring_up {
        let free = both.priorities() < Choices::MAX_BRING_UP;
        if free && !both.bring_up.contains(region) && !both.hold_back.contains(region) {
            both.bring_up.push(region.clone());
        }
    }
    for region in &follows.hold_back {
        if !both.hold_back.contains(region) && !both.bring_up.contains(region) {
            both.hold_back.push(region.clone());
        }
    }
    both
}

/// What decisions about a round of a day ask of the next week beside the choice of regions: exercises that hurt or were felt
/// elsewhere are left out, else the one that did most; and who gets more.
pub fn asked_of_plan(
    of: Date,
    decisions: &BTreeMap<RegionId, Decision>,
    work: &BTreeMap<RegionId, WorkDone>,
) -> LastReview {
    let mut asked = LastReview { of, swapped: Vec::new(), raised: Vec::new(), growing: Vec::new() };
    for (region, decision) in decisions {
        let done = work.get(region);
        match decision {
            Decision::Swap | Decision::RestThenChange => {
                let blamed = done.map(|done| done.blamed.clone()).filter(|blamed| !blamed.is_empty());
                let main = || done.and_then(|done| done.main.clone()).into_iter().collect();
                asked.swapped.extend(blamed.unwrap_or_else(main));
            }
            Decision::Raise => asked.raised.push((region.clone(), done.map_or(0.0, |done| done.weekly_sets))),
            Decision::Grow => asked.growing.push(region.clone()),
            Decision::Keep | Decision::Adhere | Decision::Release => {}
        }
    }
    asked
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    fn facts(work: &WorkDone) -> Facts<'_> {
        Facts { chosen: true, behind: true, was_behind: true, gained: false, shrank: false, work, tired: false }
    }

    fn done(planned: f64, done: f64, weekly: f64) -> WorkDone {
        let band = Some([10.0, 20.0]);
        WorkDone { planned_sets: planned, done_sets: done, weekly_sets: weekly, band, ..WorkDone::default() }
    }

    // Row by row; common practice, no source.
    #[rstest]
    #[case::real_gain_still_behind(done(70.0, 70.0, 14.0), |f: &mut Facts| f.gained = true, Decision::Keep)]
    #[case::no_longer_behind(done(70.0, 70.0, 14.0), |f: &mut Facts| f.behind = false, Decision::Release)]
    #[case::under_eighty_percent(done(70.0, 55.0, 11.0), |_: &mut Facts| {}, Decision::Adhere)]
    #[case::just_eighty_percent(done(70.0, 56.0, 11.2), |_: &mut Facts| {}, Decision::Raise)]
    #[case::low_in_the_range(done(60.0, 60.0, 12.0), |_: &mut Facts| {}, Decision::Raise)]
    #[case::high_in_the_range(done(90.0, 90.0, 18.0), |_: &mut Facts| {}, Decision::RestThenChange)]
    #[case::tired(done(60.0, 60.0, 12.0), |f: &mut Facts| f.tired = true, Decision::RestThenChange)]
    #[case::a_gain_outweighs_few_sets(done(70.0, 30.0, 6.0), |f: &mut Facts| f.gained = true, Decision::Keep)]
    fn the_table_decides(#[case] work: WorkDone, #[case] change: impl Fn(&mut Facts), #[case] expected: Decision) {
        let mut facts = facts(&work);
        change(&mut facts);
        assert_eq!(decide(&facts).0, Some(expected));
    }

    #[rstest]
    #[case::pain(WorkDone { pain: Some("Pain 4 of 10 in the elbow".into()), ..done(70.0, 70.0, 14.0) })]
    #[case::felt_elsewhere(WorkDone { felt: Some("Felt in the forearm twice".into()), ..done(70.0, 70.0, 14.0) })]
    fn pain_and_a_neighbour_come_before_everything(#[case] work: WorkDone) {
        let (decision, why) = decide(&Facts { gained: true, behind: false, ..facts(&work) });
        assert_eq!(decision, Some(Decision::Swap));
        assert!(why.ends_with("swap the exercise now."));
    }

    #[rstest]
    #[case::shrank(true, Some(Decision::Grow))]
    #[case::held(false, None)]
    fn a_kept_region_counts_only_when_it_shrank(#[case] shrank: bool, #[case] expected: Option<Decision>) {
        let work = WorkDone::default();
        let (decision, _) = decide(&Facts { chosen: false, shrank, ..facts(&work) });
        assert_eq!(decision, expected);
    }

    fn regions(ids: &[&str]) -> Vec<RegionId> {
        ids.iter().map(|id| id.parse().unwrap()).collect()
    }

    // Released goes to keep, and the next in line is chosen; never more than three. Common practice, no source.
    #[rstest]
    #[case::all_go_on(&[], &[], &["delts.lateral", "lats.lower"])]
    #[case::one_is_released(&["delts.lateral"], &[], &["lats.lower"])]
    #[case::the_next_in_line_joins(&["delts.lateral"], &["calves.soleus"], &["lats.lower", "calves.soleus"])]
    #[case::never_more_than_three(&[], &["calves.soleus", "glutes.max"], &["delts.lateral", "lats.lower", "calves.soleus"])]
    fn what_is_not_released_goes_on(#[case] released: &[&str], #[case] also: &[&str], #[case] expected: &[&str]) {
        let before = Choices {
            bring_up: regions(&["delts.lateral", "lats.lower"]),
            hold_back: regions(&["calves.soleus"]),
            ..Choices::default()
        };
        let decisions = regions(released).into_iter().map(|region| (region, Decision::Release)).collect();
        let next = carried(&Atlas::load().unwrap(), &before, &decisions, &regions(also));
        assert_eq!(next.bring_up, regions(expected));
        assert_eq!(next.hold_back.is_empty(), expected.contains(&"calves.soleus"));
    }

    #[rstest]
    #[case::one_head_of_it(&["calves.soleus"], true)]
    #[case::all_of_it(&["calves.soleus", "calves.gastrocnemius", "tibialis"], false)]
    fn a_whole_part_goes_on_until_all_of_it_is_released(#[case] released: &[&str], #[case] goes_on: bool) {
        let before = Choices { areas: vec!["calf".parse().unwrap()], ..Choices::default() };
        let decisions = regions(released).into_iter().map(|region| (region, Decision::Release)).collect();
        assert_eq!(!carried(&Atlas::load().unwrap(), &before, &decisions, &[]).areas.is_empty(), goes_on);
    }

    // Common practice, no source.
    #[rstest]
    #[case::nothing_was_chosen(&[], &[], &["delts.lateral", "lats.lower"], &["calves.soleus"])]
    #[case::what_was_chosen_stays_first(&["glutes.max"], &[], &["glutes.max", "delts.lateral", "lats.lower"], &["calves.soleus"])]
    #[case::three_are_enough(
        &["glutes.max", "chest.sternal"], &[], &["glutes.max", "chest.sternal", "delts.lateral"], &["calves.soleus"]
    )]
    #[case::what_is_held_back_stays_so(&[], &["lats.lower"], &["delts.lateral"], &["lats.lower", "calves.soleus"])]
    #[case::what_was_chosen_is_not_held_back(
        &["calves.soleus"], &[], &["calves.soleus", "delts.lateral", "lats.lower"], &[]
    )]
    fn what_follows_takes_nothing_away(
        #[case] chosen: &[&str],
        #[case] held: &[&str],
        #[case] brought_up: &[&str],
        #[case] held_back: &[&str],
    ) {
        let of = |up: &[&str], back: &[&str]| Choices {
            bring_up: regions(up),
            hold_back: regions(back),
            ..Choices::default()
        };
        let both = beside(&of(chosen, held), &of(&["delts.lateral", "lats.lower"], &["calves.soleus"]));
        assert_eq!((both.bring_up, both.hold_back), (regions(brought_up), regions(held_back)));
    }

    #[rstest]
    #[case::the_one_that_hurt(Decision::Swap, &["db-curl"], &["db-curl"])]
    #[case::none_hurt_so_the_main_one(Decision::Swap, &[], &["incline-curl"])]
    #[case::another_exercise_after_rest(Decision::RestThenChange, &[], &["incline-curl"])]
    #[case::going_on_swaps_nothing(Decision::Keep, &["db-curl"], &[])]
    fn a_swap_leaves_out_what_hurt_or_did_most(
        #[case] decision: Decision,
        #[case] blamed: &[&str],
        #[case] expected: &[&str],
    ) {
        let ids = |ids: &[&str]| ids.iter().map(|id| id.parse().unwrap()).collect::<Vec<_>>();
        let work =
            WorkDone { blamed: ids(blamed), main: Some("incline-curl".parse().unwrap()), ..done(70.0, 70.0, 9.0) };
        let biceps = &regions(&["biceps.long"])[0];
        let asked = asked_of_plan(
            "2026-03-02".parse().unwrap(),
            &BTreeMap::from([(biceps.clone(), decision)]),
            &BTreeMap::from([(biceps.clone(), work)]),
        );
        assert_eq!(asked.swapped, ids(expected));
    }

    #[rstest]
    fn a_raise_knows_what_was_done_and_what_shrank_grows() {
        let [calf, lats] = [0, 1].map(|place| regions(&["calves.soleus", "lats.lower"])[place].clone());
        let decisions = BTreeMap::from([(calf.clone(), Decision::Raise), (lats.clone(), Decision::Grow)]);
        let work = BTreeMap::from([(calf.clone(), done(60.0, 60.0, 12.0))]);
        let asked = asked_of_plan("2026-03-02".parse().unwrap(), &decisions, &work);
        assert_eq!((asked.raised, asked.growing), (vec![(calf, 12.0)], vec![lats]));
    }
}
