//! How a command fails: 2 for bad input, 1 for anything else, one line per problem on standard error.

use casefile::Problem;
use std::fmt;
use std::process::ExitCode;
use units::Place;

/// Why a command ended early.
#[derive(Debug)]
pub enum Failure {
    /// The input is wrong: one line per problem.
    Input(Vec<Problem>),
    /// An option or a file is wrong: which, and what is wrong and expected.
    Argument(String, String),
    /// Anything else, in one sentence.
    Other(String),
}

impl fmt::Display for Failure {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::Input(problems) => {
                let lines: Vec<String> = problems.iter().map(ToString::to_string).collect();
                f.write_str(&lines.join("\n"))
            }
            Self::Argument(which, says) => write!(f, "{which}: {says}"),
            Self::Other(sentence) => f.write_str(sentence),
        }
    }
}

impl Failure {
    /// Anything that is not the input's fault.
    pub fn other(error: impl std::fmt::Display) -> Self {
        Self::Other(error.to_string())
    }

    /// An option or a file is wrong.
    pub fn argument(which: impl Into<String>, says: impl Into<String>) -> Self {
        Self::Argument(which.into(), says.into())
    }

    /// The input as a whole is wrong.
    pub fn input(says: impl Into<String>) -> Self {
        Self::Input(vec![Problem::new(Place::root(), says)])
    }

    /// Prints the failure and gives its exit code.
    pub fn report(&self) -> ExitCode {
        eprintln!("{self}");
        match self {
            Self::Input(_) | Self::Argument(..) => ExitCode::from(2),
            Self::Other(_) => ExitCode::FAILURE,
        }
    }
}
