//! What is known: the atlas as the front end names it, and the movement behind every exercise.

mod atlas_view;
mod movement;

pub use atlas_view::AtlasView;
pub use movement::{BestQuery, LeversQuery, LeversView, LoadedBy, picture};

use crate::desk::Desk;

impl Desk {
    /// Regions, sites, looks, equipment and exercises.
    pub fn atlas(&self) -> AtlasView {
        AtlasView::of(&self.knowledge().atlas)
    }
}
