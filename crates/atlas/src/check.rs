//! Whether the data files fit together: every id resolves, every entry is complete.

use crate::lift::MOST;
use crate::scheme::PartKind;
use crate::school::names;
use crate::{Atlas, AtlasError, Exercise};
use std::collections::{BTreeMap, HashSet};
use units::RegionId;

const FRACTIONS: [f64; 3] = [1.0, 0.5, 0.25];

fn fail<T>(what: String) -> Result<T, AtlasError> {
    Err(AtlasError::Inconsistent(what))
}

fn unique<'a>(kind: &str, ids: impl Iterator<Item = &'a str>) -> Result<(), AtlasError> {
    let mut seen = HashSet::new();
    for id in ids {
        if !seen.insert(id) {
            return fail(format!("{kind} {id} stands twice"));
        }
    }
    Ok(())
}

pub(crate) fn consistent(atlas: &Atlas) -> Result<(), AtlasError> {
    unique("region", atlas.regions.iter().map(|r| r.id.as_str()))?;
    unique("site", atlas.sites.iter().map(|s| s.id.as_str()))?;
    unique("readiness question", atlas.readiness.iter().map(|q| q.id.as_str()))?;
    unique("warm-up move", atlas.warm_ups.iter().map(|one| one.id.as_str()))?;
    for one in &atlas.warm_ups {
        if let Some(joint) = one.joints.iter().find(|joint| **joint != BLADES && !AREAS.contains(&joint.as_str())) {
            return fail(format!("warm-up move {}: no joint {joint}", one.id));
        }
        if one.reps.is_some() == one.seconds.is_some()
            || one.kit.iter().any(|item| atlas.equipment_item(item).is_none())
        {
            return fail(format!("warm-up move {}: expected reps or seconds, and kit that is known", one.id));
        }
    }
    unique("set scheme", atlas.schemes.iter().map(|s| s.id.as_str()))?;
    pairs(atlas)?;
    unique("exercise", atlas.exercises.iter().map(|e| e.id.as_str()))?;
    regions(atlas)?;
    looks_and_kits(atlas)?;
    schools(atlas)?;
    screens(atlas)?;
    ideals(atlas)?;
    composition(atlas)?;
    atlas.exercises.iter().try_for_each(|exercise| self::exercise(atlas, exercise))
}

fn pairs(atlas: &Atlas) -> Result<(), AtlasError> {
    if atlas.part_rules.iter().map(|part| part.kind).ne(PartKind::ALL) {
        return fail("set schemes: expected one part of every kind, in their order".to_owned());
    }
    let mut paired = atlas.pairings.iter().flat_map(|pairing| &pairing.exercises);
    if let Some(id) = paired.find(|id| atlas.exercise(id).is_none()) {
        return fail(format!("pairings: no exercise {id}"));
    }
    let mut counted = atlas.schemes.iter().filter_map(|scheme| scheme.counts_for.as_ref());
    match counted.find(|region| atlas.region(region).is_none()) {
        Some(region) => fail(format!("set schemes: no region {region}")),
        None => Ok(()),
    }
}

fn known_takeover(atlas: &Atlas, name: &str) -> bool {
    atlas.takes_over.contains_key(name) || atlas.regions.iter().any(|r| r.id.as_str() == name)
}

fn regions(atlas: &Atlas) -> Result<(), AtlasError> {
    for region in &atlas.regions {
        if let Some(pose) = region.poses.iter().find(|p| atlas.pose(p).is_none()) {
            return fail(format!("region {}: no pose {pose}", region.id));
        }
        if let Some(area) = region.area.as_ref().filter(|area| atlas.site(area).is_none()) {
            return fail(format!("region {}: no site {area}", region.id));
        }
        if let Some(name) = region.taken_over_by.iter().find(|n| !known_takeover(atlas, n)) {
            return fail(format!("region {}: {name} is neither a region nor a named cause", region.id));
        }
    }
    Ok(())
}

fn looks_and_kits(atlas: &Atlas) -> Result<(), AtlasError> {
    for look in &atlas.looks {
        let known = |key: &str| atlas.regions.iter().any(|r| names(key, &r.id));
        if let Some(key) = look.weights.keys().find(|key| !known(key)) {
            return fail(format!("look {}: no region or muscle {key}", look.id));
        }
    }
    for kit in &atlas.kits {
        if let Some(item) = kit.items.iter().find(|item| atlas.equipment_item(item).is_none()) {
            return fail(format!("kit {}: no equipment {item}", kit.id));
        }
    }
    Ok(())
}

fn schools(atlas: &Atlas) -> Result<(), AtlasError> {
    if let Some(school) = atlas.schools.iter().find(|s| !s.options.iter().any(|o| o.id == s.default)) {
        return fail(format!("school {}: its default is none of its options", school.id));
    }
    let options = || atlas.schools.iter().flat_map(|s| &s.options);
    if let Some(id) = options().flat_map(|o| &o.excludes).find(|id| atlas.exercise(id).is_none()) {
        return fail(format!("schools: no exercise {id}"));
    }
    let credits = || options().flat_map(|o| &o.credits);
    if let Some(id) = credits().flat_map(|credit| &credit.exercises).find(|id| atlas.exercise(id).is_none()) {
        return fail(format!("schools: no exercise {id}"));
    }
    if let Some(credit) = credits().find(|credit| atlas.region(&credit.region).is_none()) {
        return fail(format!("schools: no region {}", credit.region));
    }
    known_families(atlas, "schools", credits().flat_map(|credit| &credit.families))?;
    for school in &atlas.schools {
        let mut named = school.options.iter().filter_map(|option| option.instead.as_ref());
        if let Some(id) = named.find(|id| school.options.iter().all(|option| option.id != **id)) {
            return fail(format!("school {}: no answer {id}", school.id));
        }
    }
    let mut schemes = options().flat_map(|o| &o.schemes);
    if let Some(scheme) = schemes.find(|scheme| atlas.scheme(&scheme.scheme).is_none()) {
        return fail(format!("schools: no set scheme {}", scheme.scheme));
    }
    let cues = || options().flat_map(|o| &o.cues);
    let families = options().flat_map(|o| &o.prefers).chain(cues().flat_map(|cue| &cue.families));
    known_families(atlas, "schools", families)?;
    let keys = options().flat_map(|o| o.region_weights.keys().chain(o.sessions_low.keys()));
    let mut keys = keys.chain(cues().flat_map(|cue| &cue.regions)).chain(options().flat_map(|o| &o.in_turn));
    let ranges = options().flat_map(|o| &o.ranges).flat_map(|range| &range.regions);
    let mut keys = keys.by_ref().chain(ranges);
    let unknown = keys.find(|key| !atlas.regions.iter().any(|r| names(key, &r.id)));
    unknown.map_or(Ok(()), |key| fail(format!("schools: no region or muscle {key}")))
}

fn known_families<'a>(
    atlas: &Atlas,
    what: &str,
    mut families: impl Iterator<Item = &'a String>,
) -> Result<(), AtlasError> {
    let unknown = families.find(|family| !atlas.exercises.iter().any(|e| e.family == **family));
    unknown.map_or(Ok(()), |family| fail(format!("{what}: no exercise family {family}")))
}

fn screens(atlas: &Atlas) -> Result<(), AtlasError> {
    known_families(atlas, "screens", atlas.screens.iter().flat_map(|screen| screen.families.keys()))?;
    let mut asked = atlas.exercises.iter().flat_map(|e| e.avoid.screen_below_deg.keys());
    let unknown = asked.find(|id| atlas.screen(id).is_none());
    unknown.map_or(Ok(()), |id| fail(format!("exercises: no screen {id}")))
}

fn ideals(atlas: &Atlas) -> Result<(), AtlasError> {
    let ideals = &atlas.ideals;
    let mut girths = ideals.frame_ratios.iter().flat_map(|r| [&r.site, &r.of]).chain(ideals.covering_fold.keys());
    if let Some(site) = girths.find(|site| atlas.site(site).is_none()) {
        return fail(format!("ideals: no site {site}"));
    }
    let unknown = ideals.covering_fold.values().find(|fold| atlas.skinfold(fold).is_none());
    unknown.map_or(Ok(()), |fold| fail(format!("ideals: no skinfold {fold}")))
}

fn composition(atlas: &Atlas) -> Result<(), AtlasError> {
    for (site, shares) in &atlas.evidence.composition {
        if atlas.site(site).is_none() {
            return fail(format!("composition: no site {site}"));
        }
        shares_resolve(atlas, site.as_str(), shares)?;
    }
    let missing = atlas.evidence.segment_site.values().find(|s| !atlas.evidence.composition.contains_key(*s));
    missing.map_or(Ok(()), |site| fail(format!("segment: no composition for {site}")))
}

fn shares_resolve(atlas: &Atlas, site: &str, shares: &BTreeMap<RegionId, f64>) -> Result<(), AtlasError> {
    if let Some(region) = shares.keys().find(|r| atlas.region(r).is_none()) {
        return fail(format!("composition of {site}: no region {region}"));
    }
    let total: f64 = shares.values().sum();
    if (total - 1.0).abs() > 1e-9 {
        return fail(format!("composition of {site} adds to {total}, not 1"));
    }
    Ok(())
}

fn exercise(atlas: &Atlas, exercise: &Exercise) -> Result<(), AtlasError> {
    let first = atlas.problems_of(exercise).into_iter().next();
    first.map_or(Ok(()), |problem| fail(format!("exercise {}: {}", exercise.id, problem.says)))
}

/// What moves round the ribs rather than in a joint.
const BLADES: &str = "blades";

/// Areas in which pain is noted, and joints that carry load.
pub(crate) const AREAS: [&str; 8] = ["shoulder", "elbow", "wrist", "low-back", "neck", "knee", "hip", "ankle"];

/// Something wrong with an exercise.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct ExerciseProblem {
    /// The field it is wrong in.
    pub field: &'static str,
    /// What is wrong, and what is expected.
    pub says: String,
}

impl Atlas {
    /// What is wrong with an exercise, whoever wrote it; nothing for those that ship.
    pub fn problems_of(&self, exercise: &Exercise) -> Vec<ExerciseProblem> {
        let mut found = Vec::new();
        let mut wrong = |field, says: String| found.push(ExerciseProblem { field, says });
        if exercise.name.trim().is_empty() {
            wrong("name", "a name is needed".to_owned());
        }
        if exercise.family.trim().is_empty() {
            wrong("family", "a family is needed: exercises that do the same movement share one".to_owned());
        }
        if let Some(region) = exercise.targets.keys().find(|r| self.region(r).is_none()) {
            wrong("targets", format!("no region {region}"));
        }
        if exercise.targets.values().any(|f| !FRACTIONS.contains(f)) {
            wrong("targets", "a target fraction is none of 1, 0.5, 0.25".to_owned());
        } else if exercise.advised_against.is_none() && !exercise.targets.values().any(|f| *f >= 1.0) {
            wrong("targets", "no region is its main target: one needs the fraction 1".to_owned());
        }
        if let Some(item) = exercise.equipment.iter().find(|e| self.equipment_item(e).is_none()) {
            wrong("equipment", format!("no equipment {item}"));
        }
        if let Some(item) = exercise.kits().flatten().find(|item| self.equipment_item(item).is_none()) {
            wrong("variants", format!("no equipment {item}"));
        }
        if let Err(AtlasError::Inconsistent(says)) = unique("variant", exercise.variants.iter().map(|v| v.id.as_str()))
        {
            wrong("variants", says);
        }
        if let Some(fault) = exercise.faults.iter().find(|f| !known_takeover(self, &f.takes_over)) {
            wrong("faults", format!("{} is neither a region nor a named cause", fault.takes_over));
        }
        if exercise.reps.is_some() == exercise.seconds.is_some() {
            wrong("reps", "needs either reps or seconds".to_owned());
        }
        if let Some([low, high]) = exercise.reps.or(exercise.seconds).filter(|[low, high]| *low == 0 || low > high) {
            wrong("reps", format!("{low} to {high} is no range"));
        }
        if exercise.hardest.is_empty() || exercise.stretch > 3 {
            wrong("hardest", "a hardest point and a stretch of 0 to 3 are needed".to_owned());
        }
        if exercise.stability > 2 {
            wrong("stability", format!("stability {} is out of range: expected 0 to 2", exercise.stability));
        }
        if exercise.set_up.trim().is_empty() {
            wrong("set_up", "how to get into position is needed".to_owned());
        }
        if exercise.cues.iter().all(|cue| cue.trim().is_empty()) {
            wrong("cues", "at least one cue is needed".to_owned());
        }
        let unknown = |place: &&String| !AREAS.contains(&place.as_str());
        let no_joint = |place: &String| format!("no joint {place}: expected one of {}", AREAS.join(", "));
        if let Some(place) = exercise.joints.keys().find(unknown) {
            wrong("joints", no_joint(place));
        }
        if let Some(place) = exercise.loads_joint.iter().chain(&exercise.avoid.pain).find(unknown) {
            wrong("loads_joint", no_joint(place));
        }
        self.problems_of_lift(exercise, &mut wrong);
        if let Some(id) = exercise.avoid.screen_below_deg.keys().find(|id| self.screen(id).is_none()) {
            wrong("avoid", format!("no screen {id}"));
        }
        found
    }

    /// What is wrong with what it costs and is.
    fn problems_of_lift(&self, exercise: &Exercise, wrong: &mut impl FnMut(&'static str, String)) {
        if let Some((joint, load)) = exercise.joints.iter().find(|(_, load)| **load > MOST) {
            wrong("joints", format!("a load of {load} on the {joint} is out of range: expected 0 to {MOST}"));
        }
        // Loads along the spine are added up in halves.
        if !(0.0..=f64::from(MOST)).contains(&exercise.axial) || (exercise.axial * 2.0).fract() > 0.0 {
            let axial = exercise.axial;
            wrong(
                "axial",
                format!("a load of {axial} along the spine is out of range: expected 0 to {MOST} in halves"),
            );
        }
        let ranged = [("skill", exercise.skill), ("comfort", exercise.comfort), ("steps", exercise.steps)];
        for (field, value) in ranged.into_iter().filter(|(_, value)| *value > 2) {
            wrong(field, format!("{field} {value} is out of range: expected 0 to 2"));
        }
        if self.scheme(&exercise.usual_scheme).is_none() {
            wrong("usual_scheme", format!("no set scheme {}", exercise.usual_scheme));
        }
        let mains = self.regions.iter().filter(|region| exercise.trains(&region.id));
        let known: Vec<&String> = mains.flat_map(|region| &region.actions).collect();
        if let Some(action) = exercise.actions.iter().find(|action| !known.contains(action)) {
            wrong("actions", format!("none of its main regions has the action {action}"));
        }
    }

    /// Areas in which pain is noted, and joints that carry load.
    pub fn areas(&self) -> &'static [&'static str] {
        &AREAS
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    fn id<T: std::str::FromStr<Err: std::fmt::Debug>>(text: &str) -> T {
        text.parse().unwrap()
    }

    /// The shipped atlas with one thing broken.
    fn broken(change: fn(&mut Atlas)) -> String {
        let mut atlas = Atlas::load().unwrap();
        change(&mut atlas);
        consistent(&atlas).unwrap_err().to_string()
    }

    #[rstest]
    #[case::a_region_twice(|a: &mut Atlas| a.regions.push(a.regions[0].clone()), "region delts.anterior stands twice")]
    #[case::an_exercise_twice(
        |a: &mut Atlas| a.exercises.push(a.exercises[0].clone()), "exercise cross-cable-incline-raise stands twice"
    )]
    #[case::a_pose_nobody_holds(
        |a: &mut Atlas| a.regions[0].poses.push(id("XX")), "region delts.anterior: no pose XX"
    )]
    #[case::a_takeover_by_nothing(
        |a: &mut Atlas| a.regions[0].taken_over_by.push("ghost".into()),
        "region delts.anterior: ghost is neither a region nor a named cause"
    )]
    #[case::a_look_at_nothing(
        |a: &mut Atlas| { a.looks[0].weights.insert("tail".into(), 2.0); }, "look balanced: no region or muscle tail"
    )]
    #[case::a_kit_with_a_dream(
        |a: &mut Atlas| a.kits[0].items.push(id("machine:dream")), "kit full-gym: no equipment machine:dream"
    )]
    #[case::a_default_that_is_no_answer(
        |a: &mut Atlas| a.schools[0].default = "both".parse().unwrap(), "school session_order: its default is none of its options"
    )]
    #[case::a_school_that_excludes_nothing(
        |a: &mut Atlas| a.schools[0].options[0].excludes.push(id("ghost-curl")), "schools: no exercise ghost-curl"
    )]
    #[case::a_school_that_prefers_nothing(
        |a: &mut Atlas| a.schools[0].options[0].prefers.push("ghost".into()), "schools: no exercise family ghost"
    )]
    #[case::a_school_with_a_scheme_that_is_not_there(
        |a: &mut Atlas| a.schools[0].options[0].schemes.push(crate::SchoolScheme {
            efforts: Vec::new(), equipment: Vec::new(), scheme: "ghost".into(),
        }),
        "schools: no set scheme ghost"
    )]
    #[case::a_school_that_weighs_nothing(
        |a: &mut Atlas| { a.schools[0].options[0].region_weights.insert("tail".into(), 0.0); },
        "schools: no region or muscle tail"
    )]
    #[case::a_screen_of_no_family(
        |a: &mut Atlas| { a.screens[0].families.insert("ghost".into(), 40.0); }, "screens: no exercise family ghost"
    )]
    #[case::an_exercise_that_asks_for_an_unknown_range(
        |a: &mut Atlas| { a.exercises[0].avoid.screen_below_deg.insert("toe".into(), 5.0); }, "exercises: no screen toe"
    )]
    #[case::a_ratio_to_nowhere(
        |a: &mut Atlas| a.ideals.frame_ratios[0].of = id("toe"), "ideals: no site toe"
    )]
    #[case::a_fold_that_is_none(
        |a: &mut Atlas| { a.ideals.covering_fold.insert(id("calf"), id("toe")); }, "ideals: no skinfold toe"
    )]
    #[case::shares_that_do_not_add_up(
        |a: &mut Atlas| { a.evidence.composition.get_mut(&id::<units::SiteId>("calf")).unwrap().insert(id("neck"), 0.5); },
        "composition of calf adds to 1.5, not 1"
    )]
    #[case::a_target_that_is_no_fraction(
        |a: &mut Atlas| { a.exercises[0].targets.insert(id("neck"), 0.3); },
        "exercise cross-cable-incline-raise: a target fraction is none of 1, 0.5, 0.25"
    )]
    #[case::reps_and_seconds_at_once(
        |a: &mut Atlas| a.exercises[0].seconds = Some([30, 45]),
        "exercise cross-cable-incline-raise: needs either reps or seconds"
    )]
    #[case::no_way_into_position(
        |a: &mut Atlas| a.exercises[0].set_up.clear(),
        "exercise cross-cable-incline-raise: how to get into position is needed"
    )]
    fn a_data_file_that_does_not_fit_is_named(#[case] change: fn(&mut Atlas), #[case] says: &str) {
        assert_eq!(broken(change), format!("atlas: {says}"));
    }
}
