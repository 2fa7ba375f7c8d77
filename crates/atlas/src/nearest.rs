//! The valid name closest to a wrong one.

/// The candidate most like `word`, if any is like it at all.
///
/// Likeness is the Jaro-Winkler similarity, which favours a common beginning: `elbow` finds `elbow-breadth`.
pub fn nearest<'a>(word: &str, candidates: impl IntoIterator<Item = &'a str>) -> Option<&'a str> {
    const ALIKE: f64 = 0.7;
    let word = word.to_lowercase();
    candidates
        .into_iter()
        .map(|candidate| (strsim::jaro_winkler(&word, candidate), candidate))
        .filter(|(likeness, _)| *likeness >= ALIKE)
        .max_by(|a, b| a.0.total_cmp(&b.0))
        .map(|(_, candidate)| candidate)
}

#[cfg(test)]
mod tests {
    use super::nearest;
    use rstest::rstest;

    #[rstest]
    #[case::a_bare_joint_finds_its_breadth("elbow", Some("elbow-breadth"))]
    #[case::a_missing_letter("caf", Some("calf"))]
    #[case::another_case("Calf", Some("calf"))]
    #[case::nothing_like_it("zzz", None)]
    fn a_wrong_name_is_answered_with_the_closest(#[case] word: &str, #[case] expected: Option<&str>) {
        assert_eq!(nearest(word, ["calf", "elbow-breadth", "wrist"]), expected);
    }
}
