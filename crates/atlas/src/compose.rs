//! What a card says: the exercise's own sentences and those of the coach's schools, without what contradicts.

use crate::Atlas;
use crate::exercise::Exercise;
use crate::school::SchoolOption;
use serde::Deserialize;
use std::borrow::Cow;

/// Things that cannot be said on one card.
#[derive(Clone, Debug, PartialEq, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Opposite {
    /// What they are about.
    pub about: String,
    /// Phrases in small letters; those of one side contradict those of every other.
    pub sides: Vec<Vec<String>>,
}

impl Opposite {
    /// The side that a sentence in small letters is on, if it is on one.
    fn side(&self, small: &str) -> Option<usize> {
        self.sides.iter().position(|side| side.iter().any(|phrase| small.contains(phrase.as_str())))
    }
}

/// Where a sentence stands in every opposite, in their order.
pub(crate) type Stand = Vec<Option<usize>>;

fn stand(opposites: &[Opposite], sentence: &str) -> Stand {
    let small = sentence.to_lowercase();
    opposites.iter().map(|opposite| opposite.side(&small)).collect()
}

/// Where the sentences of a text stand.
pub(crate) fn stands<'a>(
    opposites: &'a [Opposite],
    texts: impl Iterator<Item = &'a String> + 'a,
) -> impl Iterator<Item = (String, Stand)> + 'a {
    let known = |sentence: &str| (sentence.to_owned(), stand(opposites, sentence));
    texts.flat_map(move |text| std::iter::once(known(text)).chain(sentences(text).map(known)))
}

/// The sentences of a text.
fn sentences(text: &str) -> impl Iterator<Item = &str> {
    let ends = text.match_indices(". ").map(|(at, _)| at + 1).chain(std::iter::once(text.len()));
    let mut from = 0;
    ends.map(move |end| {
        let sentence = text[from..end].trim();
        from = end;
        sentence
    })
    .filter(|sentence| !sentence.is_empty())
}

impl Atlas {
    /// Whether two sentences cannot stand on one card.
    pub fn contradict(&self, one: &str, other: &str) -> bool {
        let (one, other) = (self.stand(one), self.stand(other));
        let against = |pair: (&Option<usize>, &Option<usize>)| matches!(pair, (Some(a), Some(b)) if a != b);
        one.iter().zip(other.iter()).any(against)
    }

    /// Where a sentence stands: what the catalogue says was looked at when it was read, for a card is composed of every exercise
    /// at every edit of a week.
    fn stand(&self, sentence: &str) -> Cow<'_, Stand> {
        let known = self.stands.get(sentence).map(Cow::Borrowed);
        known.unwrap_or_else(|| Cow::Owned(stand(&self.opposites, sentence)))
    }

    /// What a card of an exercise says under the coach's schools, how to get into position first: a school's sentence takes the
    /// place of what it contradicts, and of two schools the first.
    pub fn compose(&self, exercise: &Exercise, schools: &[&SchoolOption]) -> Vec<String> {
        let mut said: Vec<&str> = Vec::new();
        for cue in schools.iter().flat_map(|option| option.cues_for(exercise)) {
            if said.iter().all(|other| !self.contradict(cue, other)) {
                said.push(cue);
            }
        }
        let own = std::iter::once(&exercise.set_up).chain(&exercise.cues).flat_map(|text| sentences(text));
        let own = own.filter(|sentence| said.iter().all(|cue| !self.contradict(sentence, cue)));
        own.chain(said.iter().copied()).map(str::to_owned).collect()
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::{fixture, rstest};
    use std::collections::BTreeMap;

    #[fixture]
    #[once]
    fn atlas() -> Atlas {
        Atlas::load().unwrap()
    }

    fn card(atlas: &Atlas, exercise: &str, school: &str, option: &str) -> String {
        let chosen = BTreeMap::from([(school.parse().unwrap(), option.parse().unwrap())]);
        let options: Vec<&SchoolOption> = atlas.school_options(&chosen).collect();
        atlas.compose(atlas.exercise(&exercise.parse().unwrap()).unwrap(), &options).join(" ")
    }

    #[rstest]
    #[case::blades_set(
        "one-arm-reverse-fly",
        "rear_delt_blades",
        "back",
        "Set the shoulder blades back",
        "rolled forward"
    )]
    #[case::blades_pinned("low-high-cable-fly", "press_blades", "pinned", "Pin the shoulder blades", "roll round")]
    #[case::chest_up("one-arm-hip-row", "row_upper_back", "chest-up", "chest up", "Round the upper back")]
    #[case::palms_down("incline-db-side-raise", "side_raise_hand", "neutral", "Palms face the floor", "Little finger")]
    #[case::short_of_the_ends("wide-pullup", "range", "constant", "before either end lets go", "Hang fully")]
    #[case::close_grip(
        "bb-curl",
        "biceps_long",
        "close-grip",
        "narrower than the shoulders",
        "Hands at shoulder width"
    )]
    #[case::heavy_bells("circle-raise", "small_head_load", "heavy", "add load first", "light bells")]
    fn a_school_s_sentence_takes_the_place_of_what_it_contradicts(
        atlas: &Atlas,
        #[case] exercise: &str,
        #[case] school: &str,
        #[case] option: &str,
        #[case] says: &str,
        #[case] not: &str,
    ) {
        let text = card(atlas, exercise, school, option);
        assert!(text.contains(says) && !text.contains(not), "{text}");
    }

    // Every exercise under every answer to every question, the others at their defaults.
    #[rstest]
    fn no_card_contradicts_itself_whatever_the_school(atlas: &Atlas) {
        let mut found = Vec::new();
        for (school, option) in atlas.schools().iter().flat_map(|s| s.options.iter().map(move |o| (s, o))) {
            let chosen = BTreeMap::from([(school.id.clone(), option.id.clone())]);
            let options: Vec<&SchoolOption> = atlas.school_options(&chosen).collect();
            for exercise in atlas.exercises() {
                let text = atlas.compose(exercise, &options);
                assert!(!text.is_empty(), "{} says nothing", exercise.id);
                for (place, one) in text.iter().enumerate() {
                    let against = text[place + 1..].iter().filter(|other| atlas.contradict(one, other));
                    found.extend(against.map(|other| format!("{} / {}: {one} | {other}", exercise.id, option.id)));
                }
            }
        }
        assert!(found.is_empty(), "{found:#?}");
    }

    // A table of opposites that finds nothing in any text is no test of anything.
    #[rstest]
    fn every_side_of_every_opposite_is_said_somewhere(atlas: &Atlas) {
        let schools = atlas.schools().iter().flat_map(|school| &school.options).flat_map(|option| &option.cues);
        let own = atlas.exercises().iter().flat_map(|e| std::iter::once(&e.set_up).chain(&e.cues));
        let texts: Vec<String> = own.chain(schools.map(|cue| &cue.says)).map(|text| text.to_lowercase()).collect();
        for opposite in &atlas.opposites {
            for phrase in opposite.sides.iter().flatten() {
                assert!(texts.iter().any(|text| text.contains(phrase.as_str())), "{}: {phrase}", opposite.about);
            }
        }
    }

    #[rstest]
    #[case::two("Sit down. Hold on.", &["Sit down.", "Hold on."])]
    #[case::one("Lower slowly", &["Lower slowly"])]
    #[case::none("", &[])]
    fn a_text_is_taken_apart_by_its_sentences(#[case] text: &str, #[case] expected: &[&str]) {
        assert_eq!(sentences(text).collect::<Vec<_>>(), expected);
    }
}
