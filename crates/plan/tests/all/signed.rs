//! Weeks that a coach would sign: ten by hand that break nothing, ten that are told off for their one mistake, and what the planner
//! finds for hundreds of made-up clients, read as a coach reads it.

use assess::{Knowledge, assess};
use casefile::CaseFile;
use plan::{Card, Draft, Effort, Locks, PlanProblem, Theme, in_turn, present, present_draft, solve, turned};
use rstest::rstest;
use serde::Deserialize;
use serde_json::{Value, json};
use std::collections::BTreeMap;
use std::sync::LazyLock;
use units::ExerciseId;

static KNOWLEDGE: LazyLock<Knowledge> = LazyLock::new(|| Knowledge::load().expect("shipped data"));

const EXAMPLE: &str = include_str!("../../../../docs/examples/case.json");
const WEEKS: &str = include_str!("by_hand.toml");

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct File {
    week: Vec<ByHand>,
}

#[derive(Clone, Deserialize)]
#[serde(deny_unknown_fields)]
struct ByHand {
    id: String,
    experience: String,
    kit: String,
    minutes: u16,
    #[serde(default)]
    days: Vec<u8>,
    bring_up: Vec<String>,
    #[serde(default)]
    pain: BTreeMap<String, u8>,
    #[serde(default)]
    told: Vec<String>,
    sessions: Vec<String>,
}

fn weeks() -> Vec<ByHand> {
    toml::from_str::<File>(WEEKS).unwrap().week
}

impl ByHand {
    fn kit(&self) -> Value {
        match self.kit.as_str() {
            "home" => json!(["dumbbell", "bench", "incline-bench"]),
            "bands" => json!(["band"]),
            _ => json!(KNOWLEDGE.atlas.equipment().iter().map(|item| item.id.as_str()).collect::<Vec<_>>()),
        }
    }

    /// A client for whom nothing is known but what the week's heading says.
    fn problem(&self) -> PlanProblem {
        let mut file: Value = serde_json::from_str(EXAMPLE).unwrap();
        let pain: Vec<Value> = self.pain.iter().map(|(area, level)| json!({"area": area, "level": level})).collect();
        let client = &mut file["client"];
        client["experience"] = json!(self.experience);
        client["look"] = json!("balanced");
        client["look_weights"] = json!({});
        client["days_per_week"] = json!(self.sessions.len());
        client["minutes_per_session"] = json!(self.minutes);
        client["max_exercises_per_session"] = json!(8);
        client["equipment"] = self.kit();
        client["pain"] = json!(pain);
        client["screens"] = json!({});
        client["excluded_exercises"] = json!([]);
        file["training"] = json!([]);
        file["rounds"][0]["tape"] = json!([]);
        file["rounds"][0]["tests"] = json!([]);
        file["rounds"][0]["ratings"] = json!([]);
        file["rounds"][0]["outlines"] = json!([]);
        file["choices"] = json!({"bring_up": self.bring_up, "hold_back": [], "overrides": []});
        let case = CaseFile::parse(&file.to_string()).unwrap().resolve(&KNOWLEDGE.atlas).unwrap();
        let mut problem = PlanProblem::new(&KNOWLEDGE, &case, &assess(&KNOWLEDGE, &case));
        let ids: Vec<ExerciseId> = self.cards().into_iter().flatten().map(|(id, _)| id).collect();
        problem.admit(&KNOWLEDGE, &case, &ids);
        if !self.days.is_empty() {
            problem.days.clone_from(&self.days);
        }
        problem
    }

    fn cards(&self) -> Vec<Vec<(ExerciseId, u16)>> {
        let card = |text: &str| {
            let (id, sets) = text.trim().rsplit_once(' ').unwrap();
            (id.parse().unwrap(), sets.parse().unwrap())
        };
        self.sessions.iter().map(|session| session.split(',').map(card).collect()).collect()
    }

    fn draft(&self, problem: &PlanProblem) -> Draft {
        let card = |(id, sets): (ExerciseId, u16)| {
            let candidate = problem.place_of(&id).unwrap_or_else(|| panic!("{}: no {id}", self.id));
            Card::usual(problem, candidate, sets)
        };
        Draft { sessions: self.cards().into_iter().map(|day| day.into_iter().map(card).collect()).collect() }
    }

    /// Everything that is said against it.
    fn said(&self) -> Vec<String> {
        let problem = self.problem();
        let plan = present_draft(&problem, &self.draft(&problem));
        let broken = plan.broken.into_iter().map(|broken| broken.says);
        broken.chain(plan.objections.into_iter().map(|objection| objection.says)).collect()
    }
}

/// What is to be planned for a made-up client.
fn made_up_problem(number: u64) -> PlanProblem {
    taught_problem(number, &json!({}))
}

/// The same for a coach who answers some schools otherwise.
fn taught_problem(number: u64, schools: &Value) -> PlanProblem {
    let mut case = crate::made_up::case(&KNOWLEDGE, number);
    for (school, answer) in schools.as_object().unwrap() {
        case.client.schools.insert(school.parse().unwrap(), answer.as_str().unwrap().parse().unwrap());
    }
    PlanProblem::new(&KNOWLEDGE, &case, &assess(&KNOWLEDGE, &case))
}

/// What a coach says against the week that is found for a made-up client.
fn said_of(number: u64, problem: &PlanProblem) -> Vec<String> {
    let week = solve(problem, Effort::for_ms(25, problem.days.len()));
    let draft = Draft::of_week(problem, &week, &Locks::default());
    let turns = in_turn(problem, &draft);
    let second = (!turns.is_empty()).then(|| present_draft(problem, &turned(&draft, &turns)));
    let in_week_two = second.iter().flat_map(|plan| {
        let objections = plan.objections.iter().map(|o| format!("client {number}, week 2: {:?}: {}", o.kind, o.says));
        objections.chain(plan.broken.iter().map(|broken| format!("client {number}, week 2: broken: {}", broken.says)))
    });
    let plan = present(problem, &week);
    assert!(!plan.sessions.is_empty(), "client {number} gets a week");
    let objections = plan.objections.iter().map(|o| format!("client {number}: {:?}: {}", o.kind, o.says));
    let broken = plan.broken.iter().map(|broken| format!("client {number}: broken: {}", broken.says));
    let parts = plan.parts.iter().filter(|row| row.sets < row.floor - 1e-9 && row.reason.is_none());
    let movements = plan.movements.iter().filter(|row| row.sessions == 0 && row.reason.is_none());
    objections
        .chain(broken)
        .chain(in_week_two)
        .chain(parts.map(|row| format!("client {number}: {} are empty without a word", row.part.name())))
        .chain(movements.map(|row| format!("client {number}: no {:?} without a word", row.movement)))
        .collect()
}

#[test]
fn ten_weeks_by_hand_break_nothing_and_ten_make_one_mistake_each() {
    let weeks = weeks();
    let good = weeks.iter().filter(|week| week.told.is_empty()).count();
    assert_eq!((good, weeks.len()), (10, 20));
    let mut wrong = Vec::new();
    for week in &weeks {
        let said = week.said();
        let known = |says: &String| week.told.iter().any(|told| says.contains(told.as_str()));
        wrong.extend(said.iter().filter(|says| !known(says)).map(|says| format!("{}: said: {says}", week.id)));
        let missed = week.told.iter().filter(|told| !said.iter().any(|says| says.contains(told.as_str())));
        wrong.extend(missed.map(|told| format!("{}: not said: {told}", week.id)));
    }
    assert!(wrong.is_empty(), "{}", wrong.join("\n"));
}

/// What the search finds is no dearer than a week by hand, and a good week costs little more: the objective agrees with coaches.
#[test]
fn a_good_week_by_hand_costs_little_more_than_what_the_search_finds() {
    let mut told = Vec::new();
    for week in weeks().into_iter().filter(|week| week.told.is_empty()) {
        let problem = week.problem();
        let by_hand = present_draft(&problem, &week.draft(&problem)).objective;
        let found = present(&problem, &solve(&problem, Effort::for_ms(60, problem.days.len()))).objective;
        // A week without any work, as what there is to gain.
        let nothing = present_draft(&problem, &Draft { sessions: vec![Vec::new(); problem.days.len()] }).objective;
        let short = (by_hand - found) / (nothing - found);
        told.push(format!("{}: {by_hand:.1} by hand, {found:.1} found, {nothing:.1} empty: {short:.3}", week.id));
        assert!(found <= by_hand + 1e-9 && short < 0.3, "{}", told.join("\n"));
    }
}

/// Three hundred made-up clients, by number, a part of them in each case so that they run side by side.
#[rstest]
fn a_coach_has_nothing_to_object_to(#[values(0, 1, 2, 3)] part: u64) {
    let numbers = (part * 75)..(part * 75 + 75);
    let found: Vec<String> = numbers.flat_map(|number| said_of(number, &made_up_problem(number))).collect();
    assert!(found.is_empty(), "{} objections:\n{}", found.len(), found.join("\n"));
}

/// Nor to the weeks of coaches with other ways of working.
#[rstest]
#[case::top_sets(json!({"effort": "top-set"}))]
#[case::one_hard_set(json!({"hard_sets": "one"}))]
#[case::past_failure(json!({"past_failure": "drops", "rests": "short"}))]
#[case::pairs_in_turns(json!({"turns": "pairs", "curls_arms": "in-turn"}))]
#[case::one_of_a_path(json!({"redundancy": "plane", "rests": "long", "side_delt_press": "clearly"}))]
fn nor_to_weeks_in_other_schools(#[case] schools: Value) {
    let said = |number: u64| said_of(number, &taught_problem(number, &schools));
    let found: Vec<String> = (300..320).flat_map(said).collect();
    assert!(found.is_empty(), "{} objections:\n{}", found.len(), found.join("\n"));
}

/// Made-up clients differ in everything that is said of them.
#[test]
fn made_up_clients_are_of_every_kind() {
    let cases: Vec<_> = (0..300).map(|number| crate::made_up::case(&KNOWLEDGE, number)).collect();
    let count = |of: &dyn Fn(&assess::Case) -> bool| cases.iter().filter(|case| of(case)).count();
    for days in 2..=6 {
        assert!(count(&|case| case.client.days_per_week == days) > 20, "{days} days");
    }
    for minutes in [30, 40, 50, 60, 75, 90] {
        assert!(count(&|case| case.client.minutes_per_session == minutes) > 20, "{minutes} minutes");
    }
    for look in KNOWLEDGE.atlas.looks() {
        assert!(count(&|case| case.client.look == look.id) > 10, "{}", look.id);
    }
    assert!(count(&|case| case.client.pain.iter().any(|pain| pain.level >= 5)) > 40, "pains that bar a joint");
    assert!(count(&|case| case.choices.bring_up.is_empty()) > 30, "nothing chosen");
    let themed = |number: u64| made_up_problem(number).themes.contains(&Theme::Push);
    assert!((0..60).filter(|number| themed(*number)).count() > 5, "push, pull and legs");
    let problem = made_up_problem(1);
    let empty = Draft { sessions: vec![Vec::new(); problem.days.len()] };
    assert!(present_draft(&problem, &empty).objections.len() >= 5, "an empty week is objected to part by part");
}
