//! Text that goes elsewhere: into one line of a file, into a cell of a spreadsheet.

use std::borrow::Cow;

/// Whether a text keeps to one line and shows as it is written: no control characters, no separators of lines, nothing that
/// turns the direction of what follows.
///
/// ```
/// assert!(casefile::is_one_line("Oda Fenwick") && !casefile::is_one_line("Oda\r\nATTENDEE:"));
/// ```
pub fn is_one_line(text: &str) -> bool {
    let turns =
        |letter: char| matches!(letter, '\u{202A}'..='\u{202E}' | '\u{2066}'..='\u{2069}' | '\u{200E}' | '\u{200F}');
    let breaks = |letter: char| letter.is_control() || matches!(letter, '\u{2028}' | '\u{2029}');
    !text.chars().any(|letter| turns(letter) || breaks(letter))
}

/// A text as a cell of a table: what a spreadsheet would run is marked as text by an apostrophe (OWASP, CSV injection).
///
/// ```
/// assert_eq!(casefile::csv_cell("=1+1"), "'=1+1");
/// ```
pub fn csv_cell(text: &str) -> Cow<'_, str> {
    let runs = text.starts_with(['=', '+', '-', '@', '\t', '\r']) && text.parse::<f64>().is_err();
    if runs { Cow::Owned(format!("'{text}")) } else { Cow::Borrowed(text) }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case::accents_and_other_scripts("Zoë Ødegård 山田", true)]
    #[case::a_raw_line_of_a_calendar("Jo\r\nATTENDEE:mailto:x", false)]
    #[case::a_tab("Jo\tJo", false)]
    #[case::a_separator_of_lines("Jo\u{2028}Jo", false)]
    #[case::turned_round("Jo\u{202E}oJ", false)]
    #[case::nothing("", true)]
    fn one_line_is_one_line(#[case] text: &str, #[case] one: bool) {
        assert_eq!(is_one_line(text), one);
    }

    #[rstest]
    #[case::a_formula("=HYPERLINK(1)", "'=HYPERLINK(1)")]
    #[case::a_command("@SUM(1)", "'@SUM(1)")]
    #[case::a_plus("+1+cmd", "'+1+cmd")]
    #[case::a_negative_number("-1.5", "-1.5")]
    #[case::a_name("Jo-Ann", "Jo-Ann")]
    fn a_cell_is_never_run(#[case] text: &str, #[case] cell: &str) {
        assert_eq!(csv_cell(text), cell);
    }
}
