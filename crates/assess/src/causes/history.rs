//! Plenty of work over a long time, and nothing moved.

use super::Question;

/// More weekly sets than this are plenty.
const PLENTY_SETS: f64 = 16.0;
/// For this many weeks.
pub(crate) const LONG_WEEKS: i64 = 6;

pub(super) fn plenty_without_change(question: &Question) -> Option<(&'static str, String)> {
    let long = question.long?;
    let sets = long.weekly_sets(&question.region.id);
    if sets <= PLENTY_SETS || i64::try_from(long.weeks()).ok()? < LONG_WEEKS {
        return None;
    }
    let composition = &question.atlas.evidence().composition;
    let feeds = |change: &&crate::change::Change| {
        let weeks = (question.case.as_of.duration_since(change.since).as_hours() / 24) / 7;
        weeks >= LONG_WEEKS && composition.get(&change.site).is_some_and(|row| row.contains_key(&question.region.id))
    };
    let mut girths = question.changes.iter().filter(feeds).peekable();
    girths.peek()?;
    let still = girths.all(|change| !change.real);
    let seen = || format!("{sets:.0} sets a week for {LONG_WEEKS} weeks or more, and its girths changed within error.");
    still.then(|| ("plenty-of-work-no-change", seen()))
}
