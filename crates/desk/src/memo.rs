//! What was worked out before, used again as long as what it follows from is the same; of what was not asked for lately the oldest goes.

use jiff::civil::Date;
use moka::ops::compute::{CompResult, Op};
use moka::sync::Cache;
use std::collections::HashSet;
use std::hash::Hash;
use std::sync::{Arc, Mutex, PoisonError};

/// What a value follows from that was worked out of a client or a round.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) struct Mark {
    /// Grows with every change of the client but for the log.
    pub stamp: i64,
    /// What of the log it follows from.
    pub log: i64,
    /// Grows with every change of anybody; only where the value follows from everybody.
    pub all: Option<i64>,
    /// Grows with what is proven of the round's week; only where the value tells of it.
    pub proven: u64,
    /// Grows with every change of the practice's settings.
    pub settings: u64,
    /// The day it was worked out.
    pub day: Date,
}

/// A value with what it follows from.
type Marked<V, M> = (M, Arc<V>);

/// Values by what they are of, each with the mark of what it follows from. Clones share them.
pub(crate) struct Memo<K, V, M = Mark> {
    shelf: Cache<K, Marked<V, M>>,
    /// Keys that somebody is working out anew.
    under_way: Arc<Mutex<HashSet<K>>>,
}

impl<K, V, M> Clone for Memo<K, V, M> {
    fn clone(&self) -> Self {
        Self { shelf: self.shelf.clone(), under_way: self.under_way.clone() }
    }
}

/// Takes a key off the list of those under way, however its work ends.
struct UnderWay<'a, K: Hash + Eq>(&'a Mutex<HashSet<K>>, K);

impl<K: Hash + Eq> Drop for UnderWay<'_, K> {
    fn drop(&mut self) {
        self.0.lock().unwrap_or_else(PoisonError::into_inner).remove(&self.1);
    }
}

impl<K, V, M> Memo<K, V, M>
where
    K: Hash + Eq + Clone + Send + Sync + 'static,
    V: Send + Sync + 'static,
    M: PartialEq + Clone + Send + Sync + 'static,
{
    /// So many values at most.
    pub fn of(most: u64) -> Self {
        Self { shelf: Cache::new(most), under_way: Arc::default() }
    }

    /// Values that weigh so much together at most, each as `weigh` says.
    pub fn weighing(most: u64, weigh: impl Fn(&V) -> u32 + Send + Sync + 'static) -> Self {
        let shelf = Cache::builder().max_capacity(most).weigher(move |_, (_, value): &Marked<V, M>| weigh(value));
        Self { shelf: shelf.build(), under_way: Arc::default() }
    }

    /// A value and what it followed from, if one is kept.
    pub fn find(&self, of: &K) -> Option<Marked<V, M>> {
        self.shelf.get(of)
    }

    /// Keeps a value with what it follows from.
    pub fn keep(&self, of: K, mark: M, value: V) -> Arc<V> {
        let value = Arc::new(value);
        self.shelf.insert(of, (mark, value.clone()));
        value
    }

    /// The value, worked out anew when what it follows from has changed; whoever asks for the same meanwhile waits for it.
    pub fn get<E>(&self, of: &K, mark: M, work_out: impl FnOnce() -> Result<V, E>) -> Result<Arc<V>, E>
    where
        E: Send + Sync + 'static,
    {
        let now = mark.clone();
        self.get_by(of, |kept| Ok(*kept == now), || Ok((mark, work_out()?)))
    }

    /// The same, where only the value tells what it follows from.
    pub fn get_by<E>(
        &self,
        of: &K,
        is_fresh: impl Fn(&M) -> Result<bool, E>,
        work_out: impl FnOnce() -> Result<(M, V), E>,
    ) -> Result<Arc<V>, E>
    where
        E: Send + Sync + 'static,
    {
        // Without a turn: most of what is asked for is there.
        if let Some((mark, value)) = self.find(of)
            && is_fresh(&mark)?
        {
            return Ok(value);
        }
        let kept = self.shelf.entry_by_ref(of).and_try_compute_with(|entry| {
            // Whoever had the turn before may have worked it out.
            if let Some((mark, _)) = entry.map(moka::Entry::into_value)
                && is_fresh(&mark)?
            {
                return Ok(Op::Nop);
            }
            self.under_way.lock().unwrap_or_else(PoisonError::into_inner).insert(of.clone());
            let _under_way = UnderWay(&self.under_way, of.clone());
            let (mark, value) = work_out()?;
            Ok(Op::Put((mark, Arc::new(value))))
        })?;
        match kept {
            CompResult::Inserted(entry)
            | CompResult::ReplacedWith(entry)
            | CompResult::Unchanged(entry)
            | CompResult::Removed(entry) => Ok(entry.into_value().1),
            CompResult::StillNone(_) => unreachable!("where nothing is, something is put"),
        }
    }

    /// The same as [`Self::get`], but while somebody else works it out anew the old value still serves.
    pub fn get_soon<E>(&self, of: &K, mark: M, work_out: impl FnOnce() -> Result<V, E>) -> Result<Arc<V>, E>
    where
        E: Send + Sync + 'static,
    {
        match self.find(of) {
            Some((kept, value)) if kept == mark || self.is_under_way(of) => Ok(value),
            _ => self.get(of, mark, work_out),
        }
    }

    fn is_under_way(&self, of: &K) -> bool {
        self.under_way.lock().unwrap_or_else(PoisonError::into_inner).contains(of)
    }

    /// Forgets everything.
    pub fn clear(&self) {
        self.shelf.invalidate_all();
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;
    use std::sync::mpsc::channel;

    const MARK: Mark = Mark { stamp: 4, log: 7, all: None, proven: 0, settings: 1, day: Date::constant(2026, 3, 2) };

    fn memo() -> Memo<&'static str, i32> {
        Memo::of(8)
    }

    #[rstest]
    #[case::nothing_changed(MARK, 1)]
    #[case::the_client_changed(Mark { stamp: 5, ..MARK }, 2)]
    #[case::something_was_logged(Mark { log: 8, ..MARK }, 2)]
    #[case::somebody_changed(Mark { all: Some(9), ..MARK }, 2)]
    #[case::something_was_proven(Mark { proven: 1, ..MARK }, 2)]
    #[case::the_settings_changed(Mark { settings: 2, ..MARK }, 2)]
    #[case::a_new_day(Mark { day: Date::constant(2026, 3, 3), ..MARK }, 2)]
    fn a_value_is_worked_out_again_only_after_a_change(#[case] mark: Mark, #[case] value: i32) {
        let memo = memo();
        memo.get::<()>(&"a", MARK, || Ok(1)).unwrap();
        assert_eq!(*memo.get::<()>(&"a", mark, || Ok(2)).unwrap(), value);
    }

    #[test]
    fn the_old_value_serves_while_a_new_one_is_worked_out_and_who_needs_the_new_one_waits() {
        let memo = memo();
        memo.keep("a", MARK, 1);
        let later = Mark { log: 8, ..MARK };
        let (begun, has_begun) = channel();
        let (go_on, may_go_on) = channel();
        let other = memo.clone();
        let slow = std::thread::spawn(move || {
            other.get::<()>(&"a", later, || {
                begun.send(()).unwrap();
                may_go_on.recv().unwrap();
                Ok(2)
            })
        });
        has_begun.recv().unwrap();
        assert_eq!(*memo.get_soon::<()>(&"a", later, || Ok(3)).unwrap(), 1);
        go_on.send(()).unwrap();
        assert_eq!(*memo.get::<()>(&"a", later, || Ok(3)).unwrap(), 2);
        assert_eq!(*slow.join().unwrap().unwrap(), 2);
        assert_eq!(*memo.get_soon::<()>(&"a", later, || Ok(3)).unwrap(), 2);
    }

    #[test]
    fn a_failure_is_not_kept_and_is_under_way_no_longer() {
        let memo = memo();
        memo.keep("a", MARK, 1);
        let later = Mark { log: 8, ..MARK };
        assert!(memo.get(&"a", later, || Err("broken")).is_err());
        assert_eq!(*memo.get_soon::<()>(&"a", later, || Ok(3)).unwrap(), 3);
    }

    #[test]
    fn what_weighs_too_much_together_is_not_all_kept() {
        let memo: Memo<u8, Vec<u8>> = Memo::weighing(100, |value: &Vec<u8>| u32::try_from(value.len()).unwrap());
        for key in 0..20 {
            memo.keep(key, MARK, vec![0; 40]);
        }
        memo.shelf.run_pending_tasks();
        let kept = (0..20).filter(|key| memo.find(key).is_some()).count();
        assert!((1..=2).contains(&kept), "{kept} of 20 were kept");
    }

    #[test]
    fn nothing_is_left_of_what_is_forgotten() {
        let memo = memo();
        memo.keep("a", MARK, 1);
        memo.clear();
        assert!(memo.find(&"a").is_none());
    }
}
