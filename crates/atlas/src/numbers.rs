//! Numbers of settings by their path, such as `observation_sd.tape_bulk`.

use serde::Serialize;
use serde::de::DeserializeOwned;

/// The number at a path; `None` where there is none.
pub(crate) fn get(settings: &impl Serialize, path: &str) -> Option<f64> {
    let mut value = &toml::Value::try_from(settings).ok()?;
    for key in path.split('.') {
        value = value.get(key)?;
    }
    value.as_float()
}

/// The same settings with some numbers replaced. Paths that lead nowhere are left alone.
pub(crate) fn set<'a, T>(settings: &T, numbers: impl Iterator<Item = (&'a str, f64)>) -> Option<T>
where
    T: Serialize + DeserializeOwned,
{
    let mut table = toml::Value::try_from(settings).ok()?;
    for (path, number) in numbers {
        let place = path.split('.').try_fold(&mut table, |table, key| table.get_mut(key));
        if let Some(place) = place {
            *place = toml::Value::Float(number);
        }
    }
    table.try_into().ok()
}
