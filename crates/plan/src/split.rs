//! How the body is shared out over the days of a week: what each day is for, by the coach's school.

use crate::problem::{Candidate, Demand};
use assess::Class;
use atlas::{Atlas, Day, Split};

/// What a day is for.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum Theme {
    /// Anything.
    Any,
    /// What pushes and what pulls.
    Upper,
    /// The lower body.
    Lower,
    /// What pushes.
    Push,
    /// What pulls.
    Pull,
    /// The lower body, after pushing and pulling.
    Legs,
}

impl Theme {
    /// What a coach calls such a day; none for a day without theme.
    pub fn name(self) -> Option<&'static str> {
        match self {
            Self::Any => None,
            Self::Upper => Some("upper body"),
            Self::Lower => Some("lower body"),
            Self::Push => Some("push"),
            Self::Pull => Some("pull"),
            Self::Legs => Some("legs"),
        }
    }

    fn holds(self, day: Day) -> bool {
        match self {
            Self::Any => true,
            Self::Upper => day != Day::Legs,
            Self::Lower | Self::Legs => day == Day::Legs,
            Self::Push => day == Day::Push,
            Self::Pull => day == Day::Pull,
        }
    }
}

/// The themes of a week's days, and what gave way where the days cannot hold the split.
#[derive(Clone, Debug, PartialEq)]
pub(crate) struct Themes {
    pub days: Vec<Theme>,
    pub gave_way: Option<String>,
}

/// Days a split needs at least.
fn needs(split: Split) -> usize {
    match split {
        Split::PushPullLegs => 3,
        Split::UpperLower => 2,
        _ => 0,
    }
}

/// The themes of so many days.
pub(crate) fn themes(atlas: &Atlas, split: Split, days: usize, demands: &[Demand]) -> Themes {
    use Theme::{Any, Legs, Lower, Pull, Push, Upper};
    if days < needs(split) {
        let name = if split == Split::PushPullLegs { "Push, pull, legs" } else { "Upper and lower" };
        let says = format!("{name} needs {} days; with {days} every day trains the whole body.", needs(split));
        return Themes { days: vec![Any; days], gave_way: Some(says) };
    }
    let in_turn = |themes: &[Theme]| themes.iter().copied().cycle().take(days).collect();
    // A lower day comes first where more is chosen there.
    let chosen = |legs: bool| {
        let wanted = demands.iter().zip(atlas.regions()).filter(|(d, _)| d.class == Class::BringUp);
        wanted.filter(|(_, region)| (region.day == Some(Day::Legs)) == legs).map(|(d, _)| d.weight).sum::<f64>()
    };
    let halves = if chosen(true) > chosen(false) { [Lower, Upper] } else { [Upper, Lower] };
    let days = match (split, days) {
        (Split::ByDays, 0..=3) | (Split::WholeBody | Split::Free, _) => vec![Any; days],
        (Split::ByDays, 4) | (Split::UpperLower, _) => in_turn(&halves),
        (Split::ByDays, 5) => vec![Push, Pull, Legs, Upper, Lower],
        (Split::ByDays, 7) => vec![Push, Pull, Legs, Push, Pull, Legs, Any],
        (Split::ByDays | Split::PushPullLegs, _) => in_turn(&[Push, Pull, Legs]),
    };
    Themes { days, gave_way: None }
}

/// Whether a candidate belongs to a day: some main region does, or fits any day, or is chosen.
pub(crate) fn belongs(atlas: &Atlas, demands: &[Demand], candidate: &Candidate, theme: Theme) -> bool {
    let mut mains = candidate.targets.iter().filter(|(_, fraction)| *fraction >= 1.0).map(|(demand, _)| *demand);
    mains.any(|demand| {
        demands[demand].class == Class::BringUp || atlas.regions()[demand].day.is_none_or(|day| theme.holds(day))
    })
}

#[cfg(test)]
mod tests {
    use crate::tests::problem;
    use rstest::rstest;
    use serde_json::json;

    // Common practice, no source.
    #[rstest]
    #[case::three_days_train_everything("by-days", 3, &[None; 3])]
    #[case::four_take_turns("by-days", 4, &[Some("upper body"), Some("lower body"), Some("upper body"), Some("lower body")])]
    #[case::six_push_pull_and_legs(
        "by-days", 6, &[Some("push"), Some("pull"), Some("legs"), Some("push"), Some("pull"), Some("legs")]
    )]
    #[case::a_free_week_has_no_themes("free", 5, &[None; 5])]
    #[case::two_days_cannot_hold_three_themes("push-pull-legs", 2, &[None; 2])]
    fn days_have_the_themes_of_their_split(#[case] split: &str, #[case] days: u8, #[case] themes: &[Option<&str>]) {
        let problem = problem(&json!({"days_per_week": days, "schools": {"split": split}}));
        let names: Vec<Option<&str>> = problem.themes.iter().map(|theme| theme.name()).collect();
        assert_eq!(names, themes);
        assert_eq!(problem.gave_way.len(), usize::from(split == "push-pull-legs"), "{:?}", problem.gave_way);
    }
}
