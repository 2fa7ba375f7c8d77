//! How far each of the eight steps of a round has come.

use crate::dto::{StepState, StepView};
use assess::{Assessment, Case, Standing};

fn view(step: &str, state: StepState, says: impl Into<String>) -> StepView {
    StepView { step: step.to_owned(), state, says: says.into() }
}

/// The steps in order.
pub(crate) fn steps(case: &Case, assessment: &Assessment) -> Vec<StepView> {
    vec![
        brief(case),
        view("photos", StepState::Later, "not yet"),
        tape(assessment),
        view("tests", StepState::Later, "not yet"),
        verdict(assessment),
        plan(case),
        view("log", StepState::Later, "not yet"),
        view("review", StepState::Later, "not yet"),
    ]
}

fn brief(case: &Case) -> StepView {
    if case.client.equipment.is_empty() {
        return view("brief", StepState::Look, "no equipment");
    }
    view("brief", StepState::Enough, format!("{} days a week", case.client.days_per_week))
}

fn tape(assessment: &Assessment) -> StepView {
    let current: Vec<_> = assessment.measured.sites.iter().filter(|site| !site.carried_over).collect();
    let thirds = current.iter().filter(|site| site.needs_third).count();
    match (current.len(), thirds, assessment.reference.missing.len()) {
        (0, ..) => view("tape", StepState::Empty, "nothing taped"),
        (_, 1, _) => view("tape", StepState::Look, "1 third reading due"),
        (_, due, _) if due > 0 => view("tape", StepState::Look, format!("{due} third readings due")),
        (_, _, missing) if missing > 0 => view("tape", StepState::Look, "too little to judge size"),
        (count, ..) => view("tape", StepState::Enough, format!("{count} values")),
    }
}

fn verdict(assessment: &Assessment) -> StepView {
    if assessment.observations.is_empty() {
        return view("verdict", StepState::Empty, "no evidence");
    }
    if assessment.reference.outside {
        return view("verdict", StepState::Look, "outside the reference");
    }
    let behind = assessment.regions.iter().filter(|region| region.standing() == Standing::Behind).count();
    view("verdict", StepState::Enough, format!("{behind} behind"))
}

fn plan(case: &Case) -> StepView {
    match case.choices.bring_up.len() {
        0 => view("plan", StepState::Empty, "nothing chosen"),
        count => view("plan", StepState::Enough, format!("{count} to bring up")),
    }
}
