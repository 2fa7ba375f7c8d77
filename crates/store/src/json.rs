//! Documents in columns: written whole, read whole. One that cannot be read is corrupt storage.

use crate::error::StoreError;

pub(crate) fn parsed<T: serde::de::DeserializeOwned>(
    what: &'static str,
    id: impl std::fmt::Display,
    json: &str,
) -> Result<T, StoreError> {
    serde_json::from_str(json).map_err(|error| StoreError::corrupt(what, id, error))
}

pub(crate) fn written<T: serde::Serialize>(
    what: &'static str,
    id: impl std::fmt::Display,
    value: &T,
) -> Result<String, StoreError> {
    serde_json::to_string(value).map_err(|error| StoreError::corrupt(what, id, error))
}
