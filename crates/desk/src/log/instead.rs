//! What could be done instead of a planned exercise.

use super::InsteadView;
use crate::error::DeskError;
use crate::plan::Planning;
use assess::Knowledge;
use atlas::Work;
use plan::Alternative;
use std::collections::HashMap;
use store::{IssuedRecord, Store};

/// What could be done instead: so many.
const INSTEAD: usize = 4;

/// What could be done instead of each exercise of a plan, for this client as the brief has them now.
pub(crate) struct Instead(HashMap<String, Vec<InsteadView>>);

impl Instead {
    pub(super) fn of(store: &Store, knowledge: &Knowledge, issued: &IssuedRecord) -> Result<Self, DeskError> {
        let planning = Planning::read(store, knowledge, &issued.round_id)?;
        let planned = planning.of(&"/week".into(), &issued.week)?;
        let mut found = HashMap::new();
        let turned = plan::turned(&planned.draft, &plan::in_turn(&planned.problem, &planned.draft));
        for draft in [&planned.draft, &turned] {
            let days = draft.sessions.iter().enumerate();
            for (session, place) in
                days.flat_map(|(session, cards)| (0..cards.len()).map(move |place| (session, place)))
            {
                let card = &draft.sessions[session][place];
                let exercise = planned.problem.candidates[card.candidate].exercise.id.to_string();
                if found.contains_key(&exercise) {
                    continue;
                }
                let Some(swaps) = plan::swaps(&planned.problem, draft, session, place) else { continue };
                let others = swaps.alternatives.iter().take(INSTEAD).filter_map(|other| other_view(knowledge, other));
                found.insert(exercise, others.collect());
            }
        }
        Ok(Self(found))
    }

    pub(super) fn of_exercise(&self, exercise: &str) -> Vec<InsteadView> {
        self.0.get(exercise).cloned().unwrap_or_default()
    }
}

fn other_view(knowledge: &Knowledge, other: &Alternative) -> Option<InsteadView> {
    let exercise = knowledge.atlas.exercise(&other.exercise)?;
    Some(InsteadView {
        exercise: other.exercise.clone(),
        name: other.name.clone(),
        set_up: exercise.set_up.clone(),
        seconds: matches!(exercise.work(), Work::Seconds(_)),
        loads_joint: exercise.loaded_joints(),
    })
}
