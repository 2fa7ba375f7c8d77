//! How a client's stations are set, and what the coach's hand found.

use crate::desk::{Desk, today};
use crate::error::DeskError;
use assess::{KeptSetUp, Knowledge};
use atlas::{Atlas, Exercise, SetUpField, Variant};
use casefile::check_set_up;
use serde::Serialize;
use serde_json::Value;
use units::{ClientId, ExerciseId, Place};
use utoipa::ToSchema;

/// All set-ups of a client.
#[derive(Serialize, ToSchema)]
pub struct SetUpsView {
    /// By exercise.
    pub set_ups: Vec<SetUpView>,
}

/// How one exercise's station is set.
#[derive(Serialize, ToSchema)]
pub struct SetUpView {
    /// Which exercise.
    pub exercise: ExerciseId,
    /// What is remembered.
    pub kept: KeptSetUp,
    /// The numbers its kit has.
    pub fields: Vec<SetUpField>,
    /// Its variants.
    pub variants: Vec<Variant>,
}

impl Desk {
    /// What is remembered of every exercise of a client.
    pub fn set_ups(&self, client_id: &ClientId) -> Result<SetUpsView, DeskError> {
        let atlas = &self.knowledge().atlas;
        self.store.client(atlas, client_id)?;
        let kept = self.store.set_ups(client_id)?.into_iter();
        let views = kept.filter_map(|(id, kept)| Some(view(atlas, atlas.exercise(&id)?, kept)));
        Ok(SetUpsView { set_ups: views.collect() })
    }

    /// What is remembered of one, with the numbers its kit has.
    pub fn set_up(&self, client_id: &ClientId, exercise: &str) -> Result<SetUpView, DeskError> {
        let knowledge = &*self.knowledge();
        self.store.client(&knowledge.atlas, client_id)?;
        let exercise = known(knowledge, exercise)?;
        let kept = self.store.set_ups(client_id)?.remove(&exercise.id).unwrap_or_default();
        Ok(view(&knowledge.atlas, exercise, kept))
    }

    /// Remembers it otherwise: what the change names takes the place of what was, null forgets it, and the rest stays as it is
    /// stored (a merge patch, RFC 7396).
    pub fn change_set_up(
        &self,
        client_id: &ClientId,
        exercise: &str,
        by: &str,
        change: &Value,
    ) -> Result<SetUpView, DeskError> {
        let knowledge = &*self.knowledge();
        self.store.client(&knowledge.atlas, client_id)?;
        let exercise = known(knowledge, exercise)?;
        let change = |kept| changed(&knowledge.atlas, &exercise.id, kept, change);
        let kept = self.store.change_set_up(client_id, &exercise.id, (today(), by), change)?;
        Ok(view(&knowledge.atlas, exercise, kept))
    }
}

fn view(atlas: &Atlas, exercise: &Exercise, kept: KeptSetUp) -> SetUpView {
    let fields = atlas.set_up_fields().iter();
    let shown = |field: &&SetUpField| kept.numbers.contains_key(&field.name) || field.is_of(exercise);
    SetUpView {
        exercise: exercise.id.clone(),
        fields: fields.filter(shown).cloned().collect(),
        variants: exercise.variants.clone(),
        kept,
    }
}

fn known<'a>(knowledge: &'a Knowledge, id: &str) -> Result<&'a Exercise, DeskError> {
    let found = id.parse().ok().and_then(|id| knowledge.atlas.exercise(&id));
    found.ok_or_else(|| DeskError::NotFound(format!("there is no exercise {id}")))
}

/// What a change leaves of a set-up.
fn changed(atlas: &Atlas, id: &ExerciseId, kept: KeptSetUp, change: &Value) -> Result<KeptSetUp, DeskError> {
    let wrong = |error: serde_json::Error| DeskError::Malformed(format!("the set-up cannot be read: {error}"));
    let mut value = serde_json::to_value(kept).map_err(wrong)?;
    json_patch::merge(&mut value, change);
    let kept = serde_json::from_value(value).map_err(wrong)?;
    check_set_up(atlas, &Place::root(), id, &kept).map_err(DeskError::Invalid)?;
    Ok(kept)
}
