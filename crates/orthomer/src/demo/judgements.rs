//! What the demo's coach has judged in pictures so far, and again blind.

use crate::demo::RoundIds;
use crate::failure::Failure;
use jiff::Timestamp;
use jiff::tz::TimeZone;
use store::{RatingKind, RatingPlace, Store};

const STANDING: RatingKind = RatingKind::Standing;
const SIDES: RatingKind = RatingKind::LeftRight;

/// Client, weeks ago, region, pose, what is judged, first answer, answer when asked again blind.
type Judgement = (&'static str, i64, &'static str, &'static str, RatingKind, i8, Option<i8>);

const JUDGEMENTS: [Judgement; 26] = [
    ("Oda Fenwick", 16, "calves.gastrocnemius", "B", STANDING, -2, Some(-2)),
    ("Oda Fenwick", 16, "calves.gastrocnemius", "B", SIDES, 0, Some(0)),
    ("Oda Fenwick", 16, "calves.soleus", "B", STANDING, -1, Some(-1)),
    ("Oda Fenwick", 16, "delts.lateral", "F", STANDING, 0, Some(0)),
    ("Oda Fenwick", 16, "glutes.max", "B", STANDING, 1, Some(0)),
    ("Oda Fenwick", 16, "quads.vastus-lateralis", "F", STANDING, 0, Some(1)),
    ("Oda Fenwick", 8, "calves.gastrocnemius", "B", STANDING, -2, Some(-1)),
    ("Oda Fenwick", 8, "calves.soleus", "B", STANDING, -1, None),
    ("Oda Fenwick", 8, "delts.lateral", "F", STANDING, 0, None),
    ("Oda Fenwick", 8, "quads.vastus-lateralis", "F", STANDING, 0, None),
    ("Oda Fenwick", 0, "calves.gastrocnemius", "B", STANDING, -1, None),
    ("Oda Fenwick", 0, "calves.gastrocnemius", "B", SIDES, 0, None),
    ("Bram Quillan", 9, "triceps.lateral", "B", SIDES, -1, Some(-1)),
    ("Bram Quillan", 9, "delts.lateral", "F", STANDING, 1, Some(1)),
    ("Bram Quillan", 9, "lats.upper", "B", STANDING, 0, None),
    ("Bram Quillan", 9, "calves.gastrocnemius", "B", STANDING, 0, None),
    ("Rune Castellan", 14, "calves.gastrocnemius", "B", STANDING, -2, Some(-2)),
    ("Rune Castellan", 14, "delts.lateral", "F", STANDING, 1, Some(1)),
    ("Rune Castellan", 14, "quads.vastus-lateralis", "F", STANDING, 1, Some(1)),
    ("Rune Castellan", 14, "lats.upper", "B", STANDING, 1, Some(0)),
    ("Juno Halvard", 12, "delts.lateral", "F", STANDING, 0, Some(0)),
    ("Juno Halvard", 12, "glutes.max", "B", STANDING, 0, Some(0)),
    ("Matteo Brask", 20, "forearm.flexors", "F", STANDING, -1, Some(-2)),
    ("Matteo Brask", 20, "delts.lateral", "F", STANDING, 0, Some(0)),
    ("Matteo Brask", 11, "forearm.flexors", "F", STANDING, -1, None),
    ("Matteo Brask", 3, "forearm.flexors", "F", STANDING, -1, None),
];

/// Gives the judgements on the days of their rounds.
pub fn give(store: &Store, rounds: &RoundIds, rater: &str) -> Result<(), Failure> {
    for (client, weeks_ago, region, pose, kind, first, again) in JUDGEMENTS {
        let Some((round_id, day)) = rounds.get(&(client, weeks_ago)) else { continue };
        let place = RatingPlace {
            round_id: round_id.clone(),
            region: region.parse().map_err(Failure::other)?,
            pose: pose.parse().map_err(Failure::other)?,
            kind,
        };
        let at = TimeZone::UTC.to_timestamp(day.at(18, 0, 0, 0)).map_err(Failure::other)?;
        store.save_rating(&place, Some(first), rater, at).map_err(Failure::other)?;
        if let Some(again) = again {
            store.save_repeat(&place, Some(again), rater, Timestamp::now()).map_err(Failure::other)?;
        }
    }
    Ok(())
}
