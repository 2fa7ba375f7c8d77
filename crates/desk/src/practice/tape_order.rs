//! The order in which somebody tapes, and what they leave out.

use super::TapeOrder;
use crate::desk::Desk;
use crate::error::{DeskError, invalid};
use atlas::Atlas;
use serde_json::{json, to_value};
use units::Place;

const TAPE_ORDER: &str = "tape-order";

impl Desk {
    /// The order in which somebody tapes.
    pub fn tape_order(&self, account_id: &str) -> Result<TapeOrder, DeskError> {
        let stored = self.store.preference(account_id, TAPE_ORDER)?;
        let order: TapeOrder = stored.and_then(|value| serde_json::from_value(value).ok()).unwrap_or_default();
        Ok(completed(&self.knowledge().atlas, order))
    }

    /// Keeps it.
    pub fn save_tape_order(&self, account_id: &str, order: TapeOrder) -> Result<TapeOrder, DeskError> {
        let atlas = &self.knowledge().atlas;
        for (list, ids) in [("sites", &order.sites), ("left_out", &order.left_out)] {
            let wrong = ids.iter().position(|id| !atlas.sites().iter().any(|site| site.id.as_str() == id));
            if let Some(place) = wrong {
                return Err(invalid(
                    Place::root().at(list).at(place),
                    format!("there is no tape site {:?}", ids[place]),
                ));
            }
        }
        let value = to_value(&order).unwrap_or_else(|_| json!({}));
        self.store.save_preference(account_id, TAPE_ORDER, &value)?;
        Ok(completed(atlas, order))
    }
}

/// Sites that the order does not name stand at the end, so that a site of a newer version is not lost.
fn completed(atlas: &Atlas, mut order: TapeOrder) -> TapeOrder {
    let known = |id: &String| atlas.sites().iter().any(|site| site.id.as_str() == id);
    order.sites.retain(known);
    order.left_out.retain(known);
    let missing = atlas.sites().iter().map(|site| site.id.to_string()).filter(|id| !order.sites.contains(id));
    let missing: Vec<String> = missing.collect();
    order.sites.extend(missing);
    order
}
