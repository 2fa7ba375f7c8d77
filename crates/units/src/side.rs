//! Left and right, always the **client's** own sides.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One of the client's sides.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "lowercase")]
pub enum Side {
    /// The client's left.
    Left,
    /// The client's right.
    Right,
}

impl Side {
    /// The other side.
    pub fn other(self) -> Self {
        match self {
            Self::Left => Self::Right,
            Self::Right => Self::Left,
        }
    }

    /// `left` or `right`, as the case file writes it.
    pub fn as_str(self) -> &'static str {
        match self {
            Self::Left => "left",
            Self::Right => "right",
        }
    }
}

impl std::fmt::Display for Side {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        f.write_str(self.as_str())
    }
}

/// A value for each of the client's sides.
///
/// There is no order on `Sides`: which of two pairs is "larger" has no one meaning.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Default, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Sides<T> {
    /// The client's left.
    pub left: T,
    /// The client's right.
    pub right: T,
}

impl<T> Sides<T> {
    /// The value of one side.
    pub fn get(&self, side: Side) -> &T {
        match side {
            Side::Left => &self.left,
            Side::Right => &self.right,
        }
    }

    /// The value of one side, to be changed.
    pub fn get_mut(&mut self, side: Side) -> &mut T {
        match side {
            Side::Left => &mut self.left,
            Side::Right => &mut self.right,
        }
    }

    /// The same pair with the sides exchanged.
    #[must_use]
    pub fn swapped(self) -> Self {
        Self { left: self.right, right: self.left }
    }

    /// Applies `f` to both sides.
    pub fn map<U>(self, mut f: impl FnMut(T) -> U) -> Sides<U> {
        Sides { left: f(self.left), right: f(self.right) }
    }
}

impl<T> Sides<Option<T>> {
    /// Both values when both are there.
    pub fn both(self) -> Option<Sides<T>> {
        Some(Sides { left: self.left?, right: self.right? })
    }
}

impl Sides<f64> {
    /// The larger side, `None` when both are equal.
    pub fn larger_side(&self) -> Option<Side> {
        if self.left > self.right {
            Some(Side::Left)
        } else if self.right > self.left {
            Some(Side::Right)
        } else {
            None
        }
    }

    /// The mean of both sides, in their unit.
    pub fn mean(&self) -> f64 {
        f64::midpoint(self.left, self.right)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case::left_is_larger(Sides { left: 38.0, right: 37.0 }, Some(Side::Left))]
    #[case::right_is_larger(Sides { left: 37.0, right: 38.0 }, Some(Side::Right))]
    #[case::equal_sides_have_no_larger_one(Sides { left: 37.0, right: 37.0 }, None)]
    fn the_larger_side_is_the_clients_own(#[case] sides: Sides<f64>, #[case] larger: Option<Side>) {
        assert_eq!(sides.larger_side(), larger);
        assert_eq!(sides.swapped().larger_side(), larger.map(Side::other));
    }

    #[test]
    fn a_pair_with_one_side_missing_is_no_pair() {
        assert_eq!(Sides { left: Some(1), right: None }.both(), None);
        assert_eq!(Sides { left: Some(1), right: Some(2) }.both(), Some(Sides { left: 1, right: 2 }));
    }
}
