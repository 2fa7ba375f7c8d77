//! The `orthomer` command line: argument parsing and exit codes, nothing more.

mod commands;
mod failure;

use clap::{Parser, Subcommand};
use std::path::PathBuf;
use std::process::ExitCode;

/// Body proportion, left and right, a week's plan: for physique coaches.
#[derive(Parser)]
#[command(version, about)]
struct Arguments {
    #[command(subcommand)]
    command: Command,
}

#[derive(Subcommand)]
enum Command {
    /// Print the exercise catalogue and the regions as JSON.
    Catalogue,
    /// Print the verdict on a case file as JSON.
    Assess {
        /// The case file.
        case: PathBuf,
        /// Add the rows of the evidence model.
        #[arg(long)]
        explain: bool,
    },
    /// Print assessment and week plan of a case file as JSON.
    Plan {
        /// The case file.
        case: PathBuf,
    },
    /// Write the JSON Schemas of the open files.
    Schema {
        /// The directory to write them to.
        dir: PathBuf,
    },
}

fn main() -> ExitCode {
    let result = match Arguments::parse().command {
        Command::Catalogue => commands::catalogue(),
        Command::Assess { case, explain } => commands::assess(&case, explain),
        Command::Plan { case } => commands::plan(&case),
        Command::Schema { dir } => commands::schema(&dir),
    };
    match result {
        Ok(()) => ExitCode::SUCCESS,
        Err(failure) => failure.report(),
    }
}
