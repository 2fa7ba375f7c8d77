//! CSV files of tape sheets: what is understood, and what is said about what is not.

use atlas::Atlas;
use casefile::{CsvColumn, CsvPreview, CsvUnit, tape_csv};
use rstest::rstest;
use std::fmt::Write;
use std::sync::LazyLock;
use units::Side;

static ATLAS: LazyLock<Atlas> = LazyLock::new(|| Atlas::load().unwrap());

fn read(text: &str) -> CsvPreview {
    tape_csv(&ATLAS, text, None, CsvUnit::Usual)
}

fn readings(preview: &CsvPreview, site: &str, side: Option<Side>) -> Vec<f64> {
    let entry = preview.tape.iter().find(|entry| entry.site == site && entry.side == side);
    entry.map(|entry| entry.readings_cm.clone()).unwrap_or_default()
}

#[rstest]
#[case::commas("site,side,reading 1,reading 2\narm-flexed,left,37.4,37.6\n")]
#[case::semicolons_and_decimal_commas("site;side;1;2\narm-flexed;L;37,4;37,6\n")]
#[case::tabs("Site\tSide\tFirst\tSecond\nUpper arm, flexed\tleft\t37.4\t37.6\n")]
#[case::quoted_decimal_commas("site,side,first,second\narm-flexed,left,\"37,4\",\"37,6\"\n")]
#[case::a_row_for_each_reading("site,side,value\narm-flexed,left,37.4\narm-flexed,left,37.6\n")]
#[case::millimetres_named_in_a_column("site,side,first,second,unit\narm-flexed,left,374,376,mm\n")]
#[case::units_behind_the_numbers("site,side,first,second\narm-flexed,left,37.4 cm,37.6cm\n")]
#[case::without_headings("arm-flexed,left,37.4,37.6\n")]
#[case::a_byte_order_mark_and_empty_lines("\u{feff}site,side,first,second\r\n\r\narm-flexed,left,37.4,37.6\r\n\r\n")]
fn the_same_readings_are_understood_from(#[case] text: &str) {
    let preview = read(text);
    assert_eq!((preview.says.len(), preview.wrong_rows), (0, 0), "{preview:?}");
    assert_eq!(readings(&preview, "arm-flexed", Some(Side::Left)), [37.4, 37.6]);
}

#[test]
fn inches_become_centimetres_and_folds_millimetres() {
    let preview = read("site,side,value,unit\nwaist,,32,in\ntriceps fold,right,0.85,cm\n");
    assert_eq!(readings(&preview, "waist", None), [81.28]);
    assert_eq!(preview.skinfolds[0].readings_mm, [8.5]);
}

#[rstest]
#[case::a_decimal_comma_that_splits_cells(
    "site,side,first,second\narm-flexed,left,37,4,37,6\n",
    "6 cells under 4 headings: with decimal commas put semicolons between the columns"
)]
#[case::millimetres_taken_for_centimetres(
    "site,side,value\narm-flexed,left,374\n",
    "374 cm is outside 15 to 75 cm for arm-flexed; did you mean 37.4 cm?"
)]
#[case::a_side_missing("site,side,value\ncalf,,37.4\n", "calf has two sides: expected \"left\" or \"right\"")]
#[case::a_side_that_is_none("site,side,value\ncalf,outer,37.4\n", "\"outer\" is not a side: expected left or right")]
#[case::an_unknown_site("site,side,value\nelbow,,14\n", "there is no site \"elbow\": did you mean \"elbow-breadth\"?")]
#[case::no_number("site,side,value\ncalf,left,wide\n", "\"wide\" is not a number: expected one such as 37.4")]
#[case::two_decimal_marks(
    "site;side;value\nwaist;;1.080,5\n",
    "\"1.080,5\" has more than one decimal mark: expected a number such as 37.4"
)]
#[case::nothing_measured("site,side,value\ncalf,left,\n", "no reading: expected one to three")]
#[case::two_units_in_a_row(
    "site,side,first,second\ncalf,left,37.4 cm,374 mm\n",
    "the readings of this row have different units: expected one unit"
)]
#[case::too_many_readings(
    "site,side,value\ncalf,left,37\ncalf,left,37\ncalf,left,37\ncalf,left,37\n",
    "4 readings of calf: expected 1 to 3"
)]
fn a_wrong_row_is_explained_and_nothing_of_the_file_is_taken_in(#[case] text: &str, #[case] says: &str) {
    let with_a_good_row =
        format!("{text}waist,,80.5\n").replace(if text.contains(';') { "waist,," } else { "\0" }, "waist;;");
    let preview = read(&with_a_good_row);
    assert_eq!(preview.rows[0].says, [says]);
    assert!(preview.rows.last().unwrap().says.is_empty(), "the good row is not blamed");
    assert!(preview.tape.is_empty() && preview.skinfolds.is_empty());
}

#[rstest]
#[case::empty("", "the file is empty: expected a line for each site")]
#[case::headings_alone("site,side,value\n", "the file has headings and no rows: expected a line for each site")]
#[case::no_site("side,value\nleft,37.4\n", "no column is matched to the site: choose the one that names it")]
#[case::no_reading("site,side\ncalf,left\n", "no column is matched to a reading: choose those that hold numbers")]
fn what_is_wrong_with_a_whole_file_is_said(#[case] text: &str, #[case] says: &str) {
    assert_eq!(read(text).says, [says]);
}

#[test]
fn columns_matched_by_the_coach_count_instead_of_the_headings() {
    let text = "a,b,c\n37.4,calf,left\n";
    assert!(!read(text).says.is_empty());
    let columns = [CsvColumn::Reading, CsvColumn::Site, CsvColumn::Side];
    let preview = tape_csv(&ATLAS, text, Some(&columns), CsvUnit::Usual);
    assert_eq!(readings(&preview, "calf", Some(Side::Left)), [37.4]);
}

#[test]
fn ten_thousand_rows_are_refused_and_every_row_is_explained() {
    let mut text = "site,side,value\n".to_owned();
    for i in 0..10_000 {
        writeln!(text, "calf,left,{}", 30 + i % 5).unwrap();
    }
    let preview = read(&text);
    assert_eq!(
        preview.says,
        ["10000 rows are more than one sheet holds: expected at most 400, one client and one day"]
    );
    assert!(preview.rows.len() == 10_000 && preview.tape.is_empty());
}
