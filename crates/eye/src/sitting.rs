//! A sitting: whom it shows, in which order, and who comes again.

use crate::error::EyeError;
use crate::person::made_up;
use crate::question::{Asks, Part, Question};
use assess::Norms;
use booth::{Pose, Spec};
use rand::rngs::StdRng;
use rand::seq::{IndexedRandom, SliceRandom};
use rand::{RngExt, SeedableRng};

/// Figures of a kind, and those of them that come again, mirrored.
const OF_A_KIND: usize = 4;
const AGAIN_OF_A_KIND: usize = 2;
/// Pictures of a sitting.
pub const PICTURES: usize = 2 * (OF_A_KIND + AGAIN_OF_A_KIND);

/// One showing of a figure.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Look {
    /// Which figure of the sitting.
    pub figure: usize,
    /// Whether it is shown mirrored, as its second showing is.
    pub mirrored: bool,
}

impl Look {
    /// What an answer to the picture as shown says of the figure itself.
    pub fn of_the_figure(self, asks: Asks, as_shown: i8) -> i8 {
        if self.mirrored && asks == Asks::LeftRight { -as_shown } else { as_shown }
    }
}

/// A sitting of twelve pictures: eight figures, four of which come again, mirrored and unannounced.
#[derive(Clone, Debug, PartialEq)]
pub struct Sitting {
    figures: Vec<(Question, Spec)>,
    looks: Vec<Look>,
}

impl Sitting {
    /// The sitting of a seed; the same seed gives the same one.
    ///
    /// # Errors
    /// [`EyeError::Reference`] when the norms lack a site.
    pub fn new(norms: &Norms, seed: u64) -> Result<Self, EyeError> {
        let mut rng = StdRng::seed_from_u64(seed);
        let once_more = *Part::SIZED.choose(&mut rng).unwrap_or(&Part::Calf);
        let sides = Part::ALL.map(|part| (Asks::LeftRight, part));
        let standings = Part::SIZED.into_iter().chain([once_more]).map(|part| (Asks::Standing, part));
        let mut asked: Vec<(Asks, Part)> = sides.into_iter().chain(standings).collect();
        asked.shuffle(&mut rng);
        let figures = asked.iter().map(|&(asks, part)| {
            let pose = if rng.random() { Pose::F } else { Pose::B };
            let question = Question { asks, part, pose };
            Ok((question, made_up(norms, question, &mut rng)?))
        });
        let figures = figures.collect::<Result<Vec<_>, EyeError>>()?;
        let mut again: Vec<usize> = Asks::ALL
            .iter()
            .flat_map(|kind| {
                let mut of_kind: Vec<usize> = (0..asked.len()).filter(|&figure| asked[figure].0 == *kind).collect();
                of_kind.shuffle(&mut rng);
                of_kind.truncate(AGAIN_OF_A_KIND);
                of_kind
            })
            .collect();
        // In the order in which they were first shown: at least three pictures lie between.
        again.sort_unstable();
        let first = (0..figures.len()).map(|figure| Look { figure, mirrored: false });
        let looks = first.chain(again.into_iter().map(|figure| Look { figure, mirrored: true })).collect();
        Ok(Self { figures, looks })
    }

    /// The showings, in order.
    pub fn looks(&self) -> &[Look] {
        &self.looks
    }

    /// What is asked of a figure of this sitting.
    pub fn question(&self, look: Look) -> Option<Question> {
        self.figures.get(look.figure).map(|(question, _)| *question)
    }

    /// A figure of this sitting.
    pub fn spec(&self, look: Look) -> Option<&Spec> {
        self.figures.get(look.figure).map(|(_, spec)| spec)
    }

    /// Whether the truth about a figure may be told when so many pictures were answered: it does not come again.
    pub fn may_tell(&self, figure: usize, answered: usize) -> bool {
        let last = self.looks.iter().rposition(|look| look.figure == figure);
        last.is_some_and(|last| last < answered)
    }
}
