//! How a command fails: 2 for bad input, 1 for anything else, one line per problem on standard error.

use casefile::Problem;
use std::process::ExitCode;

/// Why a command ended early.
#[derive(Debug)]
pub enum Failure {
    /// The input is wrong: one line per problem.
    Input(Vec<Problem>),
    /// Anything else, in one sentence.
    Other(String),
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
        match self {
            Self::Input(problems) => {
                for problem in problems {
                    eprintln!("{problem}");
                }
                ExitCode::from(2)
            }
            Self::Other(sentence) => {
                eprintln!("{sentence}");
                ExitCode::FAILURE
            }
        }
    }
}
