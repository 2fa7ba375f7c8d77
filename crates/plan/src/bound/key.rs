//! When two problems are the same model, so that what is proven of one holds for the other.

use crate::anneal::worthwhile;
use crate::problem::{Candidate, PlanProblem};
use crate::timing::item_minutes;
use std::hash::{DefaultHasher, Hash, Hasher};

impl PlanProblem {
    /// A key of everything that the objective and the rules follow from. The same for every week bent from the problem:
    /// refused exercises that a week still has change nothing.
    pub fn model_key(&self) -> u64 {
        let mut hasher = DefaultHasher::new();
        (&self.days, &self.home, self.max_exercises, self.family_limit).hash(&mut hasher);
        self.minutes.to_bits().hash(&mut hasher);
        for demand in &self.demands {
            let numbers = [demand.dose.low, demand.dose.aim, demand.dose.high, demand.weight].map(f64::to_bits);
            (demand.region.as_str(), numbers, demand.dose.sessions_low, demand.daily).hash(&mut hasher);
            (demand.class as u8, demand.weaker.is_some(), demand.stretch_possible).hash(&mut hasher);
        }
        (self.near_direct_sets, self.floor_lifts, self.axial_session.to_bits()).hash(&mut hasher);
        [self.prices.theme, self.prices.merit, self.prices.axial, self.prices.floor_lift]
            .map(f64::to_bits)
            .hash(&mut hasher);
        for limit in &self.limits {
            (&limit.of, limit.most.to_bits()).hash(&mut hasher);
        }
        for floor in &self.floors {
            (floor.part, &floor.demands, [floor.least, floor.price].map(f64::to_bits)).hash(&mut hasher);
        }
        for cover in &self.covers {
            (&cover.of, cover.price.to_bits()).hash(&mut hasher);
        }
        for pair in &self.pairs {
            (pair.of, pair.saves_s.to_bits()).hash(&mut hasher);
        }
        for candidate in worthwhile(self) {
            self.hash_candidate(&self.candidates[candidate], &mut hasher);
        }
        hasher.finish()
    }

    fn hash_candidate(&self, candidate: &Candidate, hasher: &mut DefaultHasher) {
        let exercise = &candidate.exercise;
        (exercise.id.as_str(), &exercise.family, candidate.one_sided, candidate.stands).hash(hasher);
        (candidate.caps, candidate.daily, &candidate.off_theme, candidate.merit.to_bits()).hash(hasher);
        (exercise.axial.to_bits(), &exercise.joints, &exercise.loads_joint).hash(hasher);
        (exercise.movement, &exercise.actions).hash(hasher);
        [item_minutes(candidate, 1), item_minutes(candidate, 2)].map(f64::to_bits).hash(hasher);
        [candidate.usual.counts.once, candidate.usual.counts.a_set].map(f64::to_bits).hash(hasher);
        for (demand, fraction) in &candidate.targets {
            (demand, fraction.to_bits(), exercise.loads_stretched(&self.demands[*demand].region)).hash(hasher);
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::lp;
    use crate::problem::PlanProblem;
    use crate::tests::problem;
    use rstest::rstest;
    use serde_json::json;

    #[rstest]
    #[case::nothing(|_: &mut PlanProblem| ())]
    #[case::minutes(|p: &mut PlanProblem| p.minutes += 5.0)]
    #[case::a_day(|p: &mut PlanProblem| p.days[3] = 6)]
    #[case::a_day_at_home(|p: &mut PlanProblem| p.home[3] = true)]
    #[case::exercises_a_session(|p: &mut PlanProblem| p.max_exercises -= 1)]
    #[case::a_limit(|p: &mut PlanProblem| p.limits[0].most -= 1.0)]
    #[case::a_floor(|p: &mut PlanProblem| p.floors[0].least += 1.0)]
    #[case::the_price_of_a_movement(|p: &mut PlanProblem| p.covers[3].price += 1.0)]
    #[case::the_price_of_a_theme(|p: &mut PlanProblem| p.prices.theme += 1.0)]
    #[case::the_price_of_merit(|p: &mut PlanProblem| p.prices.merit += 0.1)]
    #[case::rest(|p: &mut PlanProblem| p.near_direct_sets += 1)]
    #[case::deadlifts(|p: &mut PlanProblem| p.floor_lifts += 1)]
    #[case::load_along_the_spine(|p: &mut PlanProblem| p.candidates[0].exercise.axial += 0.5)]
    #[case::load_on_a_joint(|p: &mut PlanProblem| { p.candidates[0].exercise.joints.insert("knee".to_owned(), 1); })]
    #[case::a_cap(|p: &mut PlanProblem| p.candidates[0].caps.sets -= 1)]
    #[case::the_family_rule(|p: &mut PlanProblem| p.family_limit += 1)]
    #[case::an_aim(|p: &mut PlanProblem| p.demands[4].dose.aim += 1.0)]
    #[case::a_weight(|p: &mut PlanProblem| p.demands[4].weight *= 1.5)]
    #[case::a_merit(|p: &mut PlanProblem| p.candidates[0].merit += 1.0)]
    #[case::a_fraction(|p: &mut PlanProblem| p.candidates[0].targets[0].1 = 0.25)]
    #[case::a_place(|p: &mut PlanProblem| p.candidates[0].stands = [false, false])]
    #[case::a_rest(|p: &mut PlanProblem| p.candidates[0].usual.seconds.a_set += 15.0)]
    #[case::what_a_scheme_counts(|p: &mut PlanProblem| p.candidates[0].usual.counts.once += 0.5)]
    #[case::a_pair(|p: &mut PlanProblem| p.pairs.push(crate::Pair { of: [0, 1], saves_s: 30.0 }))]
    #[case::an_exercise(|p: &mut PlanProblem| { p.candidates.pop(); })]
    #[case::a_cue_which_no_model_has(|p: &mut PlanProblem| p.candidates[0].cues.clear())]
    fn keys_differ_where_the_exported_models_do(#[case] change: fn(&mut PlanProblem)) {
        let one = problem(&json!({}));
        let mut other = one.clone();
        change(&mut other);
        assert_eq!(one.model_key() == other.model_key(), lp(&one) == lp(&other));
    }
}
