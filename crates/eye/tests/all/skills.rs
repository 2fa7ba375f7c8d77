//! What answers say of an eye.

use eye::{Answered, Skill, skill};
use rstest::rstest;

fn answers(given: &[(f64, i8)]) -> Vec<Answered> {
    given.iter().map(|&(truth_steps, answer)| Answered { answer: Some(answer), truth_steps }).collect()
}

fn of(given: &[(f64, i8)]) -> Skill {
    skill(&answers(given)).unwrap()
}

#[test]
fn nothing_is_said_before_the_first_answer() {
    assert_eq!(skill(&[]), None);
    assert_eq!(skill(&[Answered { answer: None, truth_steps: 1.0 }]), None);
}

#[test]
fn what_could_not_be_told_is_counted_apart() {
    let mut given = answers(&[(1.0, 1)]);
    given.push(Answered { answer: None, truth_steps: 1.0 });
    let skill = skill(&given).unwrap();
    assert_eq!((skill.answers, skill.not_told, skill.sd_steps), (1, 1, None));
}

#[rstest]
#[case::exactly(&[(-2.0, -2), (-1.0, -1), (0.0, 0), (1.0, 1), (2.0, 2)], 0.0, 0.0)]
#[case::always_a_step_more(&[(-2.0, -1), (-1.0, 0), (0.0, 1), (1.0, 2)], 1.0, 0.0)]
#[case::past_the_end_of_the_scale(&[(3.5, 2), (-2.8, -2)], 0.0, 0.0)]
// numpy.std([1, -1, 1, -1], ddof=1), numpy 2.3.4
#[case::a_step_to_either_side(&[(0.0, 1), (0.0, -1), (0.0, 1), (0.0, -1)], 0.0, 1.154_700_538_379_251_7)]
fn the_bias_and_the_spread_are_those_of_answer_minus_truth(
    #[case] given: &[(f64, i8)],
    #[case] bias: f64,
    #[case] sd: f64,
) {
    let skill = of(given);
    assert!((skill.bias_steps - bias).abs() < 1e-12 && (skill.sd_steps.unwrap() - sd).abs() < 1e-12, "{skill:?}");
}

#[rstest]
#[case::the_right_way(&[(1.0, 1), (-1.4, -2)], 2, 2)]
#[case::the_wrong_way(&[(1.0, -1), (-1.4, 1)], 0, 2)]
#[case::said_to_be_the_same(&[(1.0, 0)], 0, 1)]
#[case::too_small_to_count(&[(0.9, -1), (-0.4, 0)], 0, 0)]
fn a_direction_is_right_or_wrong_from_a_step_on(#[case] given: &[(f64, i8)], #[case] right: usize, #[case] all: usize) {
    let skill = of(given);
    assert_eq!((skill.right, skill.of), (right, all));
}

/// Answers of a made-up coach, with `scipy.stats.linregress` and `norm.ppf(0.9)` (`reference/eye.py`, scipy 1.16.3).
#[test]
fn the_difference_that_is_surely_seen_agrees_with_scipy() {
    let fixture: serde_json::Value =
        serde_json::from_str(include_str!("../../../../reference/fixtures/eye.json")).unwrap();
    for case in fixture["cases"].as_array().unwrap() {
        let truths: Vec<f64> = serde_json::from_value(case["truth"].clone()).unwrap();
        let answers: Vec<i8> = serde_json::from_value(case["answer"].clone()).unwrap();
        let given: Vec<(f64, i8)> = truths.into_iter().zip(answers).collect();
        let (found, expected) = (of(&given).sure_from_steps.unwrap(), case["sure_from"].as_f64().unwrap());
        assert!((found - expected).abs() < 1e-9, "{found} for {expected}");
    }
}

#[rstest]
#[case::few_answers(&[(-2.0, -2), (-1.0, -1), (1.0, 1), (2.0, 1), (0.5, 0)])]
#[case::against_the_truth(&[(-2.0, 2), (-1.5, 1), (-1.0, 1), (-0.5, 0), (0.5, 0), (1.0, -1), (1.5, -1), (2.0, -2)])]
#[case::no_difference_to_see(&[(1.0, 1), (1.0, 1), (1.0, 0), (1.0, 1), (1.0, 2), (1.0, 1), (1.0, 1), (1.0, 0)])]
fn no_difference_is_surely_seen_without_a_line_to_tell_it_from(#[case] given: &[(f64, i8)]) {
    assert_eq!(of(given).sure_from_steps, None);
}
