//! A region that is trained when the client is tired.

use super::Question;

/// From here on a place in the session is in its last third.
const LAST_THIRD: f64 = 2.0 / 3.0;

pub(super) fn last_in_session(question: &Question) -> Option<(&'static str, String)> {
    let place = question.recent?.median_place(&question.region.id)?;
    (place > LAST_THIRD)
        .then(|| ("last-in-session", "Its direct work usually stands in the last third of the session.".to_owned()))
}
