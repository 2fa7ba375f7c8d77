//! What is wrong with a file, and where.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use units::Place;
use utoipa::ToSchema;

/// One problem of an input: a place and a sentence that says what is wrong and what is expected.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct Problem {
    /// JSON pointer (RFC 6901).
    #[schemars(with = "String")]
    #[schema(value_type = String)]
    pub pointer: Place,
    /// What is wrong, and what is expected.
    pub says: String,
}

impl Problem {
    /// A problem at a place.
    pub fn new(pointer: impl Into<Place>, says: impl Into<String>) -> Self {
        Self { pointer: pointer.into(), says: says.into() }
    }
}

impl std::fmt::Display for Problem {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        let (place, says) = (&self.pointer, &self.says);
        if *place == Place::root() { write!(f, "/: {says}") } else { write!(f, "{place}: {says}") }
    }
}

/// "no site named X: did you mean Y?", or a list of what there is when nothing is alike.
pub(crate) fn unknown<'a>(kind: &str, word: &str, known: impl Iterator<Item = &'a str> + Clone) -> String {
    match atlas::nearest(word, known.clone()) {
        Some(near) => format!("there is no {kind} {word:?}: did you mean {near:?}?"),
        None => format!("there is no {kind} {word:?}: expected one of {}", known.collect::<Vec<_>>().join(", ")),
    }
}
