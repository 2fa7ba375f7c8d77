//! A place in a document.

use jsonptr::{PointerBuf, Token};
use serde::{Deserialize, Serialize};
use std::fmt;

/// A place in a JSON document (RFC 6901), built and read by its parts: a key with a slash in it stays one part.
///
/// ```
/// use units::Place;
/// let reading = Place::from("/tape").at(3).at("readings_cm");
/// assert_eq!(reading.to_string(), "/tape/3/readings_cm");
/// assert_eq!(reading.within(&Place::from("/tape")), Some(Place::root().at(3).at("readings_cm")));
/// assert_eq!(Place::root().at("in/out").to_string(), "/in~1out");
/// ```
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
#[serde(transparent)]
pub struct Place(PointerBuf);

impl Place {
    /// The whole document.
    pub fn root() -> Self {
        Self::default()
    }

    /// A field or an entry of what stands here.
    #[must_use]
    pub fn at<'t>(&self, part: impl Into<Token<'t>>) -> Self {
        Self(self.0.with_trailing_token(part))
    }

    /// This place as seen from another one that it lies in; `None` where it does not.
    pub fn within(&self, outer: &Self) -> Option<Self> {
        let mut own = self.0.tokens();
        let inside = outer.0.tokens().all(|part| own.next() == Some(part));
        inside.then(|| Self(PointerBuf::from_tokens(own)))
    }

    /// A place in what stands here.
    #[must_use]
    pub fn then(&self, inner: &Self) -> Self {
        Self(self.0.concat(&inner.0))
    }

    /// Its first part.
    pub fn first(&self) -> Option<String> {
        self.0.first().map(|token| token.decoded().into_owned())
    }

    /// Its last part.
    pub fn last(&self) -> Option<String> {
        self.0.last().map(|token| token.decoded().into_owned())
    }
}

/// A place as the code writes it down, `/client/pain`; what does not begin with a slash is one part.
impl From<&str> for Place {
    fn from(text: &str) -> Self {
        Self(PointerBuf::parse(text).unwrap_or_else(|_| PointerBuf::root().with_trailing_token(text)))
    }
}

impl From<&Place> for Place {
    fn from(place: &Place) -> Self {
        place.clone()
    }
}

impl fmt::Display for Place {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(self.0.as_str())
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case::a_field("/client/pain", Some("pain"))]
    #[case::an_entry("/rounds/2", Some("2"))]
    #[case::a_key_with_a_slash("/set_ups/in~1out", Some("in/out"))]
    #[case::a_key_with_a_tilde("/set_ups/in~0out", Some("in~out"))]
    #[case::the_whole("", None)]
    #[case::no_place_at_all("pain", Some("pain"))]
    fn a_place_is_read_by_its_parts(#[case] text: &str, #[case] last: Option<&str>) {
        assert_eq!(Place::from(text).last().as_deref(), last);
    }

    #[rstest]
    #[case::inside("/tape/3/side", "/tape", Some("/3/side"))]
    #[case::itself("/tape", "/tape", Some(""))]
    #[case::beside_it("/tape_levels/3", "/tape", None)]
    fn a_place_within_another_is_told_from_one_that_only_begins_alike(
        #[case] place: &str,
        #[case] outer: &str,
        #[case] inner: Option<&str>,
    ) {
        let found = Place::from(place).within(&Place::from(outer));
        assert_eq!(found.map(|found| found.to_string()).as_deref(), inner);
    }
}
