//! Rows of any table as JSON objects and back, so that what a migration adds is carried without a line here.

use super::unusable;
use crate::error::StoreError;
use casefile::csv_cell;
use diesel::prelude::*;
use diesel::sql_query;
use diesel::sql_types::{BigInt, Text};
use serde_json::{Map, Value};

pub(super) type Row = Map<String, Value>;

#[derive(QueryableByName)]
struct Name {
    #[diesel(sql_type = Text)]
    name: String,
}

#[derive(QueryableByName)]
struct Json {
    #[diesel(sql_type = Text)]
    row: String,
}

/// The columns of a table that are kept; what is generated from others is not.
pub(super) fn columns(connection: &mut SqliteConnection, table: &str) -> Result<Vec<String>, StoreError> {
    let names: Vec<Name> =
        sql_query("SELECT name FROM pragma_table_info(?) ORDER BY cid").bind::<Text, _>(table).load(connection)?;
    Ok(names.into_iter().map(|column| column.name).collect())
}

/// Rows of a table, each with every column. `condition` has one parameter or none.
pub(super) fn read(
    connection: &mut SqliteConnection,
    table: &str,
    condition: Option<(&str, &str)>,
    order: &str,
) -> Result<Vec<Row>, StoreError> {
    let columns = columns(connection, table)?;
    let pairs: Vec<String> = columns.iter().map(|column| format!("'{column}', {column}")).collect();
    let filter = condition.map_or_else(String::new, |(sql, _)| format!(" WHERE {sql}"));
    let sql = format!("SELECT json_object({}) AS row FROM {table}{filter} ORDER BY {order}", pairs.join(", "));
    let found: Vec<Json> = match condition {
        Some((_, value)) => sql_query(sql).bind::<Text, _>(value).load(connection)?,
        None => sql_query(sql).load(connection)?,
    };
    found
        .iter()
        .map(|json| serde_json::from_str(&json.row).map_err(|error| StoreError::corrupt("row of", table, error)))
        .collect()
}

/// Adds a row. Every column of the row has to be one of the table.
pub(super) fn add(
    connection: &mut SqliteConnection,
    table: &str,
    known: &[String],
    row: &Row,
) -> Result<(), StoreError> {
    let mut names = Vec::new();
    let mut values = Vec::new();
    for (name, value) in row {
        if !known.contains(name) {
            return Err(unusable(format!("table {table} has no column {name:?} here")));
        }
        names.push(name.as_str());
        // Whole numbers and decimals keep their kind on the way through JSON.
        values.push(match value {
            Value::Null => "NULL".to_owned(),
            _ => format!("json_extract(?1, '$.{name}')"),
        });
    }
    let sql = format!("INSERT INTO {table} ({}) SELECT {} WHERE ?1 IS NOT NULL", names.join(", "), values.join(", "));
    let json = Value::Object(row.clone()).to_string();
    sql_query(sql).bind::<Text, _>(json).execute(connection)?;
    Ok(())
}

#[derive(QueryableByName)]
struct Count {
    #[diesel(sql_type = BigInt)]
    count: i64,
}

/// How many rows of a table meet a condition with one parameter.
pub(super) fn count(
    connection: &mut SqliteConnection,
    table: &str,
    condition: &str,
    value: &str,
) -> Result<i64, StoreError> {
    let sql = format!("SELECT COUNT(*) AS count FROM {table} WHERE {condition}");
    Ok(sql_query(sql).bind::<Text, _>(value).get_result::<Count>(connection)?.count)
}

/// Rows as CSV with a head; nothing is written for a null, `""` for an empty text.
pub(super) fn csv(columns: &[String], rows: &[Row]) -> Result<String, StoreError> {
    let failed = |error: csv::Error| unusable(format!("the table cannot be written: {error}"));
    let mut writer = csv::Writer::from_writer(Vec::new());
    writer.write_record(columns).map_err(failed)?;
    for row in rows {
        let fields = columns.iter().map(|column| match row.get(column) {
            None | Some(Value::Null) => String::new(),
            Some(Value::String(text)) => csv_cell(text).into_owned(),
            Some(other) => other.to_string(),
        });
        writer.write_record(fields).map_err(failed)?;
    }
    let bytes = writer.into_inner().map_err(|error| unusable(error.to_string()))?;
    String::from_utf8(bytes).map_err(|error| unusable(error.to_string()))
}
