//! How long a text and how large a number of an archive's row may be: what typing and the program itself keep to.

use super::rows::Row;
use casefile::is_one_line;
use serde_json::Value;

/// Documents as JSON: a given plan is some hundred kilobytes.
const DOCUMENT_BYTES: usize = 4 * 1024 * 1024;
/// What a coach wrote in their own words: as much as one request may bring.
const WORDS_BYTES: usize = 256 * 1024;
/// Anything else that is text: sentences of the program are the longest.
const TEXT_CHARS: usize = 400;
/// Names of people.
const NAME_CHARS: usize = 80;
/// Counters and sizes: a counter this high could be counted up for a lifetime and not wrap.
const LARGEST: f64 = 1e9;

/// Why a row cannot be taken in, with the column it is about; `None` when it fits.
pub(super) fn misfit(row: &Row) -> Option<String> {
    row.iter().find_map(|(column, value)| {
        let says = match value {
            Value::String(text) => text_misfit(column, text),
            Value::Number(number) => number
                .as_f64()
                .is_none_or(|number| number.abs() > LARGEST)
                .then(|| format!("{number} is larger than anything here can be")),
            Value::Null | Value::Bool(_) => None,
            Value::Array(_) | Value::Object(_) => Some("a text or a number belongs here".to_owned()),
        };
        says.map(|says| format!("{column}: {says}"))
    })
}

fn text_misfit(column: &str, text: &str) -> Option<String> {
    let bytes = match column {
        "reason" | "note" => Some(WORDS_BYTES),
        _ => column.ends_with("_json").then_some(DOCUMENT_BYTES),
    };
    if let Some(most) = bytes {
        return (text.len() > most).then(|| format!("{} bytes are more than {most}", text.len()));
    }
    let is_name = column.ends_with("_by") || matches!(column, "name" | "login");
    let most = if is_name { NAME_CHARS } else { TEXT_CHARS };
    let count = text.chars().count();
    if count > most {
        return Some(format!("{count} characters are more than {most}"));
    }
    (!is_one_line(text)).then(|| "line breaks and other control characters do not belong here".to_owned())
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;
    use serde_json::json;

    #[rstest]
    #[case::a_name("name", json!("Oda Fenwick"), None)]
    #[case::a_name_of_a_page("name", json!("O".repeat(81)), Some("name: 81 characters are more than 80"))]
    #[case::a_name_that_adds_a_line("saved_by", json!("Mara\r\nATTENDEE:"), Some("saved_by: line breaks"))]
    #[case::a_reason_in_two_lines("reason", json!("Old injury.\nCleared."), None)]
    #[case::what_was_done_about_a_sign("note", json!("Rang the clinic.\n".repeat(30)), None)]
    #[case::a_note_of_a_library("note", json!("x".repeat(262_145)), Some("note: 262145 bytes"))]
    #[case::a_sentence_of_a_book("failure", json!("x".repeat(401)), Some("failure: 401 characters"))]
    #[case::a_plan("plan_json", json!("x".repeat(500_000)), None)]
    #[case::a_plan_without_end("plan_json", json!("x".repeat(5_000_000)), Some("plan_json: 5000000 bytes"))]
    #[case::a_counter("revision", json!(41), None)]
    #[case::a_counter_about_to_wrap("revision", json!(i32::MAX), Some("revision: 2147483647 is larger"))]
    #[case::a_judgement_below_nothing("value", json!(-2), None)]
    #[case::a_list("name", json!(["a"]), Some("name: a text or a number"))]
    #[case::nothing("used_on", json!(null), None)]
    fn a_cell_keeps_to_what_typing_keeps_to(#[case] column: &str, #[case] value: Value, #[case] says: Option<&str>) {
        let found = misfit(&Row::from_iter([(column.to_owned(), value)]));
        assert_eq!(found.is_some(), says.is_some(), "{found:?}");
        assert!(found.unwrap_or_default().starts_with(says.unwrap_or_default()));
    }
}
