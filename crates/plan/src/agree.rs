//! What the exported model and the bound say a week costs, against what the objective says of it.
//!
//! Each of them is written for another reader: a solver of whole numbers, branch and bound. What they must not do is mean
//! another week.

use crate::anneal::{Effort, solve};
use crate::bound::relaxed_cost;
use crate::cost::cost;
use crate::lp::lp;
use crate::problem::PlanProblem;
use crate::rules::broken_while_building;
use crate::tests::problem;
use crate::week::Week;
use microlp::{ComparisonOp, OptimizationDirection, Problem, Variable};
use rstest::rstest;
use serde_json::{Value, json};
use std::collections::{BTreeMap, BTreeSet};

/// Sums of numbers rounded to the digits that are written.
const NEAR: f64 = 1e-6;

/// A row of the exported file: terms, relation, right side.
struct Row<'a> {
    terms: Vec<(f64, &'a str)>,
    relation: &'a str,
    right: f64,
}

/// The exported file, read again.
struct Exported<'a> {
    objective: Vec<(f64, &'a str)>,
    rows: Vec<Row<'a>>,
    most: BTreeMap<&'a str, f64>,
    binary: BTreeSet<&'a str>,
}

fn terms<'a>(words: &[&'a str]) -> Vec<(f64, &'a str)> {
    // A sum of nothing.
    if words == ["0", "one"] {
        return Vec::new();
    }
    let (triples, rest) = words.as_chunks::<3>();
    assert!(rest.is_empty(), "{words:?}");
    let signed = |[sign, factor, variable]: &[&'a str; 3]| {
        let factor: f64 = factor.parse().unwrap();
        (if *sign == "-" { -factor } else { factor }, *variable)
    };
    triples.iter().map(signed).collect()
}

fn read(text: &str) -> Exported<'_> {
    let words: Vec<&str> =
        text.lines().filter(|line| !line.starts_with('\\')).flat_map(str::split_whitespace).collect();
    let at = |section: &str| words.iter().position(|word| *word == section).unwrap();
    let (subject, bounds, general, binary, end) = (at("Subject"), at("Bounds"), at("General"), at("Binary"), at("End"));
    let mut rows = Vec::new();
    let mut left: &[&str] = &words[subject + 2..bounds];
    while let Some((name, after)) = left.split_first() {
        assert!(name.ends_with(':'), "{name} names no row");
        let relation = after.iter().position(|word| matches!(*word, "<=" | ">=" | "=")).unwrap();
        let right = after[relation + 1].parse().unwrap();
        rows.push(Row { terms: terms(&after[..relation]), relation: after[relation], right });
        left = &after[relation + 2..];
    }
    let most =
        words[bounds + 1..general].windows(5).filter(|line| line[0] == "0" && line[1] == "<=" && line[3] == "<=");
    Exported {
        objective: terms(&words[2..subject]),
        rows,
        most: most.map(|line| (line[2], line[4].parse().unwrap())).collect(),
        binary: words[binary + 1..end].iter().copied().collect(),
    }
}

/// What the sets of a week make of a variable of the model; none where the solver is free.
fn fixed(problem: &PlanProblem, week: &Week, variable: &str) -> Option<f64> {
    let parts: Vec<&str> = variable.split('_').collect();
    let place = |text: &str| text.parse::<usize>().unwrap();
    let one = |is: bool| f64::from(u8::from(is));
    match parts.as_slice() {
        ["one"] => Some(1.0),
        ["x", session, candidate] => Some(f64::from(week.sets(place(session), place(candidate)))),
        ["y", session, candidate] => Some(one(week.sets(place(session), place(candidate)) > 0)),
        ["u", candidate] => Some(one((0..problem.days.len()).any(|session| week.sets(session, place(candidate)) > 0))),
        _ => None,
    }
}

/// The least that the exported model costs with the sets of a week.
fn exported_cost(problem: &PlanProblem, week: &Week) -> f64 {
    let text = lp(problem);
    let exported = read(&text);
    let mut model = Problem::new(OptimizationDirection::Minimize);
    let mut known = 0.0;
    let mut prices: BTreeMap<&str, f64> = BTreeMap::new();
    for (factor, variable) in &exported.objective {
        match fixed(problem, week, variable) {
            Some(value) => known += factor * value,
            None => *prices.entry(variable).or_default() += factor,
        }
    }
    let mut free: BTreeMap<&str, Variable> = BTreeMap::new();
    let named = exported.rows.iter().flat_map(|row| &row.terms).map(|(_, variable)| *variable);
    for variable in named.filter(|variable| fixed(problem, week, variable).is_none()) {
        free.entry(variable).or_insert_with(|| {
            let price = prices.get(variable).copied().unwrap_or_default();
            if exported.binary.contains(variable) {
                model.add_binary_var(price)
            } else {
                model.add_var(price, (0.0, exported.most.get(variable).copied().unwrap_or(f64::INFINITY)))
            }
        });
    }
    for row in &exported.rows {
        let set: f64 = row.terms.iter().filter_map(|(factor, of)| Some(factor * fixed(problem, week, of)?)).sum();
        let open: Vec<(Variable, f64)> = row.terms.iter().filter_map(|(f, of)| Some((*free.get(of)?, *f))).collect();
        let relation = match row.relation {
            "<=" => ComparisonOp::Le,
            ">=" => ComparisonOp::Ge,
            _ => ComparisonOp::Eq,
        };
        if open.is_empty() {
            let over = set - row.right;
            let holds = match relation {
                ComparisonOp::Le => over <= NEAR,
                ComparisonOp::Ge => over >= -NEAR,
                ComparisonOp::Eq => over.abs() <= NEAR,
            };
            assert!(holds, "{:?} {} {} does not hold", row.terms, row.relation, row.right);
        } else {
            model.add_constraint(open, relation, row.right - set);
        }
    }
    known + model.solve().unwrap().solution().unwrap().objective()
}

/// Weeks that keep the rules, from short searches that begin differently.
fn weeks(problem: &PlanProblem) -> Vec<Week> {
    let found =
        [300, 1_000, 5_000, 20_000].into_iter().zip(11..).map(|(moves, seed)| solve(problem, Effort { moves, seed }));
    let kept: Vec<Week> = found.filter(|week| broken_while_building(problem, week).is_empty()).collect();
    assert!(kept.len() >= 2, "{} weeks keep the rules", kept.len());
    kept
}

#[rstest]
#[case::four_days(json!({}))]
#[case::two_short_days(json!({"days_per_week": 2, "minutes_per_session": 40}))]
#[case::six_days(json!({"days_per_week": 6}))]
#[case::a_day_at_home(json!({"home": {"days_per_week": 1, "equipment": ["band", "dumbbell"]}}))]
#[case::a_beginner(json!({"experience": "beginner", "days_per_week": 3}))]
#[case::drops_and_pairs(json!({"schools": {"past_failure": "drops", "turns": "pairs"}}))]
#[case::upper_and_lower(json!({"schools": {"split": "upper-lower"}}))]
fn a_week_costs_the_same_by_the_objective_and_by_the_exported_model_and_no_less_than_its_bound(#[case] change: Value) {
    let problem = problem(&change);
    for week in weeks(&problem) {
        let costs = cost(&problem, &week);
        let exported = exported_cost(&problem, &week);
        assert!((exported - costs).abs() < NEAR * costs.abs().max(1.0), "exported {exported}, objective {costs}");
        let bound = relaxed_cost(&problem, &week);
        assert!(bound <= costs + NEAR, "no week of these sums costs less than {bound}, and this one costs {costs}");
    }
}
