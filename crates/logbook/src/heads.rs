//! Which version of each part counts, and where two stand side by side because neither writer had seen the other's.

use crate::entry::{Entry, SessionKey};
use std::collections::{BTreeMap, HashSet};
use std::hash::Hash;
use units::ExerciseId;

/// The versions of one part that nothing follows.
#[derive(Clone, Debug)]
pub struct Heads<'a> {
    /// The session.
    pub session: &'a SessionKey,
    /// The planned exercise; none for the session as a whole.
    pub exercise: Option<&'a ExerciseId>,
    /// In the order given. More than one: they were written side by side, and somebody has to say which counts.
    pub entries: Vec<&'a Entry>,
}

impl<'a> Heads<'a> {
    /// The one that counts until somebody has decided, as [`counting`] has it.
    pub fn counts(&self) -> Option<&'a Entry> {
        self.entries.first().copied()
    }

    /// Whether versions stand side by side.
    pub fn conflict(&self) -> bool {
        self.entries.len() > 1
    }
}

/// Of versions that nothing follows, in the order in which they arrived, those that count until somebody has decided: what came first of
/// each part. `part` says of which part of which session a version is, whatever was done instead of it.
pub fn counting<V, P: Hash + Eq>(versions: impl IntoIterator<Item = V>, part: impl Fn(&V) -> P) -> Vec<V> {
    let mut seen: HashSet<P> = HashSet::new();
    versions.into_iter().filter(|version| seen.insert(part(version))).collect()
}

/// The newest versions by part. Entries are in the order in which they arrived.
pub fn heads(entries: &[Entry]) -> Vec<Heads<'_>> {
    let followed: HashSet<&str> = entries.iter().flat_map(|entry| entry.follows.iter().map(String::as_str)).collect();
    let mut slots: BTreeMap<(&SessionKey, Option<&ExerciseId>), Vec<&Entry>> = BTreeMap::new();
    for entry in entries.iter().filter(|entry| !followed.contains(entry.id.as_str())) {
        slots.entry(entry.slot()).or_default().push(entry);
    }
    slots.into_iter().map(|((session, exercise), entries)| Heads { session, exercise, entries }).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::performance::tests::entry;
    use proptest::prelude::*;
    use rstest::rstest;

    fn version(id: &str, follows: &[&str]) -> Entry {
        let mut version = entry("2026-03-02", "db-curl", &[]);
        version.id = id.to_owned();
        version.follows = follows.iter().map(|id| (*id).to_owned()).collect();
        version
    }

    #[rstest]
    #[case::one_alone(vec![version("a", &[])], &["a"])]
    #[case::a_correction_counts(vec![version("a", &[]), version("b", &["a"])], &["b"])]
    #[case::two_phones_at_once_are_both_kept(
        vec![version("a", &[]), version("b", &["a"]), version("c", &["a"])], &["b", "c"]
    )]
    #[case::what_was_decided_ends_it(
        vec![version("a", &[]), version("b", &[]), version("c", &["a", "b"])], &["c"]
    )]
    #[case::a_late_arrival_stays_behind_what_follows_it(vec![version("b", &["a"]), version("a", &[])], &["b"])]
    fn what_nothing_follows_counts(#[case] entries: Vec<Entry>, #[case] left: &[&str]) {
        let heads = heads(&entries);
        let ids: Vec<&str> = heads[0].entries.iter().map(|entry| entry.id.as_str()).collect();
        assert_eq!((heads.len(), ids.as_slice()), (1, left));
        assert_eq!(heads[0].conflict(), left.len() > 1);
    }

    // A swap on one phone and none on the other: the part is the planned exercise's, and one of the two counts, not each for what was done.
    #[test]
    fn of_a_swap_beside_none_one_counts() {
        let mut swapped = version("b", &[]);
        let crate::entry::Part::Exercise(log) = &mut swapped.part else { panic!("a curl is no session") };
        log.instead = Some("leg-press".parse().unwrap());
        let both = [version("a", &[]), swapped];
        let ids: Vec<&str> = counting(&both, |entry| entry.slot()).iter().map(|entry| entry.id.as_str()).collect();
        assert_eq!(ids, ["a"]);
    }

    #[test]
    fn exercises_and_weeks_do_not_touch_each_other() {
        let mut other_week = version("b", &[]);
        other_week.session.week = 2;
        let other_exercise = Entry { id: "c".into(), ..entry("2026-03-02", "leg-press", &[]) };
        assert!(heads(&[version("a", &[]), other_week, other_exercise]).iter().all(|slot| !slot.conflict()));
    }

    proptest! {
        // A chain in any order of arrival ends in one version: its last.
        #[test]
        fn a_chain_has_one_end_whatever_the_order_of_arrival(order in Just((0..6).collect::<Vec<usize>>()).prop_shuffle()) {
            let names: Vec<String> = (0..6).map(|n| n.to_string()).collect();
            let chain: Vec<Entry> = (0..6).map(|n| {
                let before: Vec<&str> = if n == 0 { Vec::new() } else { vec![&names[n - 1]] };
                version(&names[n], &before)
            }).collect();
            let arrived: Vec<Entry> = order.iter().map(|n| chain[*n].clone()).collect();
            let heads = heads(&arrived);
            prop_assert_eq!(heads[0].entries.iter().map(|e| e.id.as_str()).collect::<Vec<_>>(), vec!["5"]);
        }
    }
}
