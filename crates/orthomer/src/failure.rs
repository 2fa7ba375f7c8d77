//! How a command fails: 2 for bad input, 1 for anything else, one line per problem on standard error.

use casefile::Problem;
use std::fmt;
use std::process::ExitCode;

/// Why a command ended early.
#[derive(Debug)]
pub enum Failure {
    /// The input is wrong: one line per problem.
    Input(Vec<Problem>),
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
            Self::Other(sentence) => f.write_str(sentence),
        }
    }
}

impl Failure {
    /// Anything that is not the input's fault.
    pub fn other(error: impl std::fmt::Display) -> Self {
        Self::Other(error.to_string())
    }

    /// One thing wrong with the input: where, and what is wrong and expected.
    pub fn input(place: impl Into<String>, says: impl Into<String>) -> Self {
        Self::Input(vec![Problem { pointer: place.into(), says: says.into() }])
    }

    /// Prints the failure and gives its exit code.
    pub fn report(&self) -> ExitCode {
        eprintln!("{self}");
        match self {
            Self::Input(_) => ExitCode::from(2),
            Self::Other(_) => ExitCode::FAILURE,
        }
    }
}
