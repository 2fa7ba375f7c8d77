//! A tape sheet from a CSV file: columns matched by their headings or by the coach, every row checked, all or nothing.
//!
//! One row holds a site, a side where the site has two, and up to three readings. Rows of the same place are readings of it.

use crate::check::{check_skinfolds, check_tape};
use crate::problem::{Problem, unknown};
use crate::raw::{SkinfoldEntry, TapeEntry};
use atlas::Atlas;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use units::Side;
use utoipa::ToSchema;

/// What a column holds.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum CsvColumn {
    /// The site, by id or name.
    Site,
    /// `left` or `right`.
    Side,
    /// A reading.
    Reading,
    /// The unit of the row's readings: `cm`, `mm` or `in`.
    Unit,
    /// Nothing of interest.
    Ignore,
}

/// The unit of readings whose row names none.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum CsvUnit {
    /// Centimetres for tape and gauge, millimetres for calipers.
    #[default]
    Usual,
    /// Centimetres.
    Cm,
    /// Millimetres.
    Mm,
    /// Inches.
    In,
}

/// One line of the file as it was read.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct CsvRow {
    /// Line in the file, from 1.
    pub line: u64,
    /// The cells as they stand there.
    pub cells: Vec<String>,
    /// What is wrong with it and what is expected; empty when it can be taken in.
    pub says: Vec<String>,
}

/// A file read, nothing of it kept yet.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct CsvPreview {
    /// The headings; empty when the first line is data.
    pub headings: Vec<String>,
    /// What each column is taken for.
    pub columns: Vec<CsvColumn>,
    /// Every data row.
    pub rows: Vec<CsvRow>,
    /// What is wrong with the file as a whole.
    pub says: Vec<String>,
    /// How many rows have something wrong.
    pub wrong_rows: usize,
    /// Readings of tape and gauge; empty while anything is wrong.
    pub tape: Vec<TapeEntry>,
    /// Readings of the calipers; empty while anything is wrong.
    pub skinfolds: Vec<SkinfoldEntry>,
}

const CM_AN_INCH: f64 = 2.54;
/// A sheet holds some 30 places; a file much longer is not one sheet.
const MOST_ROWS: usize = 400;

/// Reads a file. `columns` is the coach's own matching, one for each column; headings are matched without it.
pub fn tape_csv(atlas: &Atlas, text: &str, columns: Option<&[CsvColumn]>, unit: CsvUnit) -> CsvPreview {
    let mut preview = CsvPreview {
        headings: Vec::new(),
        columns: Vec::new(),
        rows: Vec::new(),
        says: Vec::new(),
        wrong_rows: 0,
        tape: Vec::new(),
        skinfolds: Vec::new(),
    };
    if let Err(why) = read(text, &mut preview) {
        preview.says.push(why);
        return preview;
    }
    match_columns(&mut preview, columns);
    let mut found = Found { atlas, headings: preview.headings.len(), places: BTreeMap::new() };
    if preview.says.is_empty() {
        for index in 0..preview.rows.len() {
            let says = found.row(&preview.columns, unit, &preview.rows[index], index);
            preview.rows[index].says.extend(says);
        }
        found.check(&mut preview);
    }
    preview.wrong_rows = preview.rows.iter().filter(|row| !row.says.is_empty()).count();
    if preview.wrong_rows > 0 || !preview.says.is_empty() {
        preview.tape.clear();
        preview.skinfolds.clear();
    }
    preview
}

/// Splits the text into headings and rows by the delimiter that the first line holds most of.
fn read(text: &str, preview: &mut CsvPreview) -> Result<(), String> {
    let text = text.trim_start_matches('\u{feff}');
    let first = text.lines().next().unwrap_or_default();
    let delimiter = [b';', b'\t', b','].into_iter().max_by_key(|d| first.bytes().filter(|b| b == d).count());
    let mut reader = csv::ReaderBuilder::new()
        .delimiter(delimiter.unwrap_or(b','))
        .has_headers(false)
        .flexible(true)
        .trim(csv::Trim::All)
        .from_reader(text.as_bytes());
    for record in reader.records() {
        let record = record.map_err(|error| format!("this is not a CSV file: {error}"))?;
        let line = record.position().map_or(0, csv::Position::line);
        let cells: Vec<String> = record.iter().map(str::to_owned).collect();
        if cells.iter().all(String::is_empty) {
            continue;
        }
        preview.rows.push(CsvRow { line, cells, says: Vec::new() });
    }
    let Some(head) = preview.rows.first() else {
        return Err("the file is empty: expected a line for each site".into());
    };
    // A heading may be a number, as for the first and second reading, but then another names the site or the side.
    let heads = |cell: &String| matches!(cell.to_lowercase().as_str(), "site" | "side" | "place" | "girth");
    if head.cells.iter().any(heads) || head.cells.iter().all(|cell| number(cell).is_err()) {
        preview.headings = preview.rows.remove(0).cells;
    }
    if preview.rows.is_empty() {
        return Err("the file has headings and no rows: expected a line for each site".to_owned());
    }
    Ok(())
}

fn match_columns(preview: &mut CsvPreview, columns: Option<&[CsvColumn]>) {
    let width = preview.rows.iter().map(|row| row.cells.len()).max().unwrap_or_default().max(preview.headings.len());
    preview.columns = match columns {
        Some(chosen) => (0..width).map(|i| chosen.get(i).copied().unwrap_or(CsvColumn::Ignore)).collect(),
        None if preview.headings.is_empty() => by_place(width),
        None => (0..width).map(|i| by_heading(preview.headings.get(i).map_or("", String::as_str))).collect(),
    };
    let count = |column| preview.columns.iter().filter(|one| **one == column).count();
    let wanted = [(CsvColumn::Site, "site", 1), (CsvColumn::Side, "side", 1), (CsvColumn::Unit, "unit", 1)];
    for (column, name, most) in wanted {
        if count(column) > most {
            preview.says.push(format!("{} columns are matched to the {name}: expected one", count(column)));
        }
    }
    if count(CsvColumn::Site) == 0 {
        preview.says.push("no column is matched to the site: choose the one that names it".to_owned());
    }
    if count(CsvColumn::Reading) == 0 {
        preview.says.push("no column is matched to a reading: choose those that hold numbers".to_owned());
    }
    if preview.rows.len() > MOST_ROWS {
        let rows = preview.rows.len();
        preview.says.push(format!(
            "{rows} rows are more than one sheet holds: expected at most {MOST_ROWS}, one client and one day"
        ));
    }
}

/// Without headings: site, side, readings.
fn by_place(width: usize) -> Vec<CsvColumn> {
    let known = [CsvColumn::Site, CsvColumn::Side];
    (0..width).map(|i| known.get(i).copied().unwrap_or(CsvColumn::Reading)).collect()
}

fn by_heading(heading: &str) -> CsvColumn {
    let heading = heading.to_lowercase();
    let holds = |words: &[&str]| words.iter().any(|word| heading.contains(word));
    match () {
        () if holds(&["unit"]) => CsvColumn::Unit,
        () if holds(&["side", "l/r"]) => CsvColumn::Side,
        () if holds(&["reading", "value", "measure", "first", "second", "third", "cm", "mm"]) => CsvColumn::Reading,
        () if holds(&["site", "place", "girth", "where", "region"]) => CsvColumn::Site,
        () if !heading.is_empty() && heading.bytes().all(|b| b.is_ascii_digit()) => CsvColumn::Reading,
        () => CsvColumn::Ignore,
    }
}

/// A number with a point or a comma, or why it is none.
fn number(cell: &str) -> Result<f64, String> {
    let plain = cell.replace(',', ".");
    if plain.matches('.').count() > 1 {
        return Err(format!("{cell:?} has more than one decimal mark: expected a number such as 37.4"));
    }
    let digits = !plain.is_empty() && plain.bytes().all(|b| b.is_ascii_digit() || b == b'.');
    let value = digits.then(|| plain.parse::<f64>().ok()).flatten();
    value.ok_or_else(|| format!("{cell:?} is not a number: expected one such as 37.4"))
}

/// A reading with its own unit behind it, such as `37.4 cm`.
fn reading(cell: &str) -> Result<(f64, Option<CsvUnit>), String> {
    let trimmed = cell.trim_end_matches(|c: char| c.is_alphabetic() || c == '"');
    let suffix = cell[trimmed.len()..].trim();
    let bare = suffix.is_empty() || trimmed.trim().is_empty();
    let unit = if bare { None } else { Some(unit_of(suffix)?) };
    let trimmed = if bare { cell } else { trimmed };
    Ok((number(trimmed.trim())?, unit))
}

fn unit_of(text: &str) -> Result<CsvUnit, String> {
    match text.to_lowercase().as_str() {
        "cm" => Ok(CsvUnit::Cm),
        "mm" => Ok(CsvUnit::Mm),
        "in" | "inch" | "inches" | "\"" => Ok(CsvUnit::In),
        _ => Err(format!("{text:?} is not a unit: expected cm, mm or in")),
    }
}

fn side_of(text: &str) -> Result<Option<Side>, String> {
    match text.to_lowercase().as_str() {
        "" | "-" | "both" | "none" => Ok(None),
        "left" | "l" => Ok(Some(Side::Left)),
        "right" | "r" => Ok(Some(Side::Right)),
        _ => Err(format!("{text:?} is not a side: expected left or right")),
    }
}

/// Whether it is a fold, the site's place in the atlas and its side.
type Spot = (bool, usize, Option<Side>);

/// Readings by place, with the rows they come from.
struct Found<'a> {
    atlas: &'a Atlas,
    /// How many headings there are; 0 without.
    headings: usize,
    places: BTreeMap<Spot, (Vec<f64>, Vec<usize>)>,
}

impl Found<'_> {
    /// Takes a row in, or says what is wrong with it.
    fn row(&mut self, columns: &[CsvColumn], unit: CsvUnit, row: &CsvRow, index: usize) -> Vec<String> {
        let of = |column| columns.iter().zip(&row.cells).filter(move |(c, _)| **c == column).map(|(_, cell)| cell);
        let one = |column| of(column).next().map(String::as_str).unwrap_or_default();
        let mut says = Vec::new();
        if self.headings > 0 && row.cells.len() > self.headings {
            let (cells, width) = (row.cells.len(), self.headings);
            says.push(format!(
                "{cells} cells under {width} headings: with decimal commas put semicolons between the columns"
            ));
            return says;
        }
        let mut keep = |result: Result<(), String>| says.extend(result.err());
        let site = self.site(one(CsvColumn::Site));
        let side = side_of(one(CsvColumn::Side));
        let named = Some(one(CsvColumn::Unit)).filter(|text| !text.is_empty()).map(unit_of).transpose();
        keep(site.as_ref().map(|_| ()).map_err(Clone::clone));
        keep(side.as_ref().map(|_| ()).map_err(Clone::clone));
        keep(named.as_ref().map(|_| ()).map_err(Clone::clone));
        let readings: Vec<_> =
            of(CsvColumn::Reading).filter(|cell| !cell.is_empty()).map(|cell| reading(cell)).collect();
        if readings.is_empty() {
            keep(Err("no reading: expected one to three".to_owned()));
        }
        for each in &readings {
            keep(each.as_ref().map(|_| ()).map_err(Clone::clone));
        }
        let mut own: Vec<CsvUnit> = readings.iter().flatten().filter_map(|(_, unit)| *unit).collect();
        own.dedup();
        if own.len() > 1 {
            keep(Err("the readings of this row have different units: expected one unit".to_owned()));
        }
        let (Ok((fold, site)), Ok(side), Ok(named)) = (site, side, named) else { return says };
        if !says.is_empty() {
            return says;
        }
        let unit = own.first().copied().or(named).unwrap_or(unit);
        let (values, rows) = self.places.entry((fold, site, side)).or_default();
        values.extend(readings.into_iter().flatten().map(|(value, _)| in_own_unit(value, unit, fold)));
        rows.push(index);
        says
    }

    /// A site or a fold by id, name, or name with "fold" or "skinfold" behind it.
    fn site(&self, text: &str) -> Result<(bool, usize), String> {
        let same = |a: &str, b: &str| {
            a.to_lowercase().replace([' ', '_', ','], "-") == b.to_lowercase().replace([' ', '_', ','], "-")
        };
        if text.is_empty() {
            return Err("no site: expected one such as arm-flexed".to_owned());
        }
        let girth = self.atlas.sites().iter().position(|s| same(text, s.id.as_str()) || same(text, &s.name));
        if let Some(place) = girth {
            return Ok((false, place));
        }
        let bare = text.to_lowercase().replace("skinfold", "").replace("fold", "");
        let bare = bare.trim_matches(|c: char| !c.is_alphanumeric());
        let folds = self.atlas.skinfolds();
        let fold = folds.iter().position(|s| same(bare, s.id.as_str()) || same(text, &s.name));
        let known = self.atlas.sites().iter().map(|s| s.id.as_str()).chain(folds.iter().map(|s| s.id.as_str()));
        fold.map(|place| (true, place)).ok_or_else(|| unknown("site", text, known))
    }

    /// Checks every place by the rules of the sheet; what is wrong is said at the rows it comes from.
    fn check(self, preview: &mut CsvPreview) {
        let (mut rows_of_tape, mut rows_of_folds) = (Vec::new(), Vec::new());
        for ((fold, site, side), (values, rows)) in self.places {
            if fold {
                let site = self.atlas.skinfolds()[site].id.to_string();
                preview.skinfolds.push(SkinfoldEntry { site, side, readings_mm: values });
                rows_of_folds.push(rows);
            } else {
                let site = self.atlas.sites()[site].id.to_string();
                preview.tape.push(TapeEntry { site, side, readings_cm: values });
                rows_of_tape.push(rows);
            }
        }
        let (_, tape) = check_tape(self.atlas, &units::Place::root(), &preview.tape);
        let (_, folds) = check_skinfolds(self.atlas, &units::Place::root(), &preview.skinfolds);
        for (problems, sources) in [(tape, rows_of_tape), (folds, rows_of_folds)] {
            for Problem { pointer, says } in problems {
                let place = pointer.first().and_then(|index| index.parse::<usize>().ok());
                for row in place.and_then(|index| sources.get(index)).into_iter().flatten() {
                    preview.rows[*row].says.push(says.clone());
                }
            }
        }
    }
}

/// Centimetres for tape and gauge, millimetres for calipers, rounded to what a tape shows.
fn in_own_unit(value: f64, unit: CsvUnit, fold: bool) -> f64 {
    let cm = match unit {
        CsvUnit::Usual => return value,
        CsvUnit::Cm => value,
        CsvUnit::Mm => value / 10.0,
        CsvUnit::In => value * CM_AN_INCH,
    };
    let own = if fold { 10.0 * cm } else { cm };
    (own * 100.0).round() / 100.0
}
