//! Typed identifiers, so that a region is never passed where a site is meant.
//!
//! An id here is well formed; whether it *exists* is for the atlas to say.

use std::str::FromStr;

/// Why a text is no id.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
#[error("{0:?} is not an id: expected letters, digits, '-', '_', '.' or ':', starting with a letter")]
pub struct IdError(String);

fn well_formed(text: &str) -> bool {
    text.starts_with(|c: char| c.is_ascii_alphabetic())
        && text.len() <= 80
        && text.chars().all(|c| c.is_ascii_alphanumeric() || matches!(c, '-' | '.' | ':' | '_'))
}

/// What files of before called otherwise: the old id and today's. No two kinds of ids share one of these.
const FORMERLY: [(&str, &str); 3] =
    [("smith", "guided-bar"), ("smith-press", "guided-press"), ("plate-waiter-curl", "palms-under-plate-curl")];

fn today(text: String) -> String {
    FORMERLY.iter().find(|(old, _)| *old == text).map_or(text, |(_, new)| (*new).to_owned())
}

/// What every id of text has, whether or not its text is checked: it is read as text, written as it, and found by it.
macro_rules! text_id {
    ($name:ident) => {
        impl $name {
            /// The id as it is written.
            pub fn as_str(&self) -> &str {
                &self.0
            }
        }

        impl From<$name> for String {
            fn from(id: $name) -> Self {
                id.0
            }
        }

        impl std::borrow::Borrow<str> for $name {
            fn borrow(&self) -> &str {
                &self.0
            }
        }

        impl std::fmt::Display for $name {
            fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
                f.write_str(&self.0)
            }
        }
    };
}
pub(crate) use text_id;

macro_rules! typed_id {
    ($($(#[$doc:meta])* $name:ident),+ $(,)?) => {$(
        $(#[$doc])*
        #[derive(
            Clone, Debug, PartialEq, Eq, Hash, PartialOrd, Ord, serde::Serialize, serde::Deserialize,
            schemars::JsonSchema, utoipa::ToSchema,
        )]
        #[serde(try_from = "String", into = "String")]
        #[schemars(with = "String")]
        #[schema(value_type = String)]
        pub struct $name(String);

        text_id!($name);

        impl FromStr for $name {
            type Err = IdError;
            fn from_str(text: &str) -> Result<Self, IdError> {
                text.to_owned().try_into()
            }
        }

        impl TryFrom<String> for $name {
            type Error = IdError;
            fn try_from(text: String) -> Result<Self, IdError> {
                if well_formed(&text) { Ok(Self(today(text))) } else { Err(IdError(text)) }
            }
        }

        impl PartialEq<str> for $name {
            fn eq(&self, other: &str) -> bool {
                self.0 == other
            }
        }

        impl PartialEq<&str> for $name {
            fn eq(&self, other: &&str) -> bool {
                self.0 == *other
            }
        }
    )+};
}

typed_id! {
    /// A region of muscle, such as `delts.posterior`.
    RegionId,
    /// A place of the tape, the calipers or the breadth gauge, such as `arm-flexed`.
    SiteId,
    /// A pose, such as `FDB`.
    PoseId,
    /// An exercise, such as `incline-curl`.
    ExerciseId,
    /// A piece of equipment, such as `machine:leg-press`.
    EquipmentId,
    /// A look: a weighting over regions, such as `taper`.
    LookId,
    /// A question on which coaches disagree, such as `sizing`.
    SchoolId,
    /// An answer to one, such as `own-roster`.
    AnswerId,
}

impl RegionId {
    /// The muscle the region belongs to: the id before the dot.
    pub fn muscle(&self) -> &str {
        self.0.split('.').next().unwrap_or(&self.0)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case::of_a_head("delts.posterior", "delts")]
    #[case::of_a_region_without_heads("neck", "neck")]
    fn the_muscle_is_what_stands_before_the_dot(#[case] id: &str, #[case] muscle: &str) {
        assert_eq!(id.parse::<RegionId>().unwrap().muscle(), muscle);
    }

    #[rstest]
    #[case::a_press("smith-press", "guided-press")]
    #[case::a_curl("plate-waiter-curl", "palms-under-plate-curl")]
    #[case::what_was_never_called_otherwise("db-curl", "db-curl")]
    fn an_exercise_is_known_by_the_id_it_had_before(#[case] before: &str, #[case] now: &str) {
        assert_eq!(before.parse::<ExerciseId>().unwrap().as_str(), now);
        assert_eq!(ExerciseId::try_from(before.to_owned()).unwrap().as_str(), now);
    }

    #[rstest]
    #[case::empty("")]
    #[case::blank(" ")]
    #[case::with_a_space("front delt")]
    #[case::with_a_slash("../etc")]
    fn a_malformed_id_is_refused(#[case] text: &str) {
        assert!(text.parse::<SiteId>().is_err());
    }
}
