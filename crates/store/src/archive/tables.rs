//! The tables that hold something about a client, parents before children, and how a client's rows are found.

/// A table of a client's data.
#[derive(Clone, Copy, Debug)]
pub(super) struct Table {
    pub name: &'static str,
    /// Condition on its rows, with the client's id as the only parameter.
    pub of_client: &'static str,
    /// The order of its rows.
    pub order: &'static str,
    /// Columns that are made anew where it is taken in.
    pub anew: &'static [&'static str],
    /// The migration that brought it: archives of before do not have it.
    pub since: &'static str,
}

/// Since there are archives.
const FIRST: &str = "";
const CARDS_AND_WORDS: &str = "20261130000015";
const GIRTHS_FROM_PICTURES: &str = "20261201000019";
const TAKING_PICTURES: &str = "20261202000020";
const OF_ROUND: &str = "round_id IN (SELECT id FROM round WHERE client_id = ?)";
const OWN: &str = "client_id = ?";

const fn of_round(name: &'static str, order: &'static str) -> Table {
    Table { name, of_client: OF_ROUND, order, anew: &[], since: FIRST }
}

const fn own(name: &'static str, order: &'static str) -> Table {
    Table { name, of_client: OWN, order, anew: &[], since: FIRST }
}

/// Parents before children.
pub(super) const TABLES: [Table; 23] = [
    Table { name: "client", of_client: "id = ?", order: "id", anew: &[], since: FIRST },
    own("round", "taken_on"),
    of_round("tape_reading", "round_id, site, side, ordinal"),
    of_round("skinfold_reading", "round_id, site, side, ordinal"),
    of_round("tape_level", "round_id, site"),
    of_round("region_choice", "round_id, kind, ordinal"),
    of_round("photo", "added_at, id"),
    of_round("outline", "round_id, segment"),
    Table { since: GIRTHS_FROM_PICTURES, ..of_round("picture_girth", "round_id, site, side") },
    Table { since: TAKING_PICTURES, ..of_round("picture_ask", "round_id, pose") },
    Table { since: TAKING_PICTURES, ..own("camera_set_up", "client_id") },
    of_round("rating", "round_id, region, pose, kind"),
    of_round("rating_repeat", "round_id, region, pose, kind, rated_by"),
    of_round("plan_draft", "round_id"),
    of_round("review", "round_id"),
    own("issued_plan", "version"),
    // The order of arrival counts, not its numbers.
    Table { name: "log_entry", of_client: OWN, order: "arrival", anew: &["arrival"], since: FIRST },
    own("target_overrule", "exercise"),
    own("client_link", "made_on, id"),
    own("seen_to", "what"),
    Table { since: CARDS_AND_WORDS, ..own("set_up", "exercise") },
    Table { since: CARDS_AND_WORDS, ..own("message", "written_at, id") },
    Table {
        name: "account",
        of_client: "id IN (SELECT rated_by FROM rating WHERE round_id IN (SELECT id FROM round WHERE client_id = ?))",
        order: "id",
        anew: &[],
        since: FIRST,
    },
];

/// Every table that can be had as CSV; accounts only without their passwords.
pub const TABLE_NAMES: [&str; 23] = [
    "client",
    "round",
    "tape_reading",
    "skinfold_reading",
    "tape_level",
    "region_choice",
    "photo",
    "outline",
    "picture_girth",
    "picture_ask",
    "camera_set_up",
    "rating",
    "rating_repeat",
    "plan_draft",
    "review",
    "issued_plan",
    "log_entry",
    "target_overrule",
    "seen_to",
    "set_up",
    "message",
    "practice",
    "deed",
];
