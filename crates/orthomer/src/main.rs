//! The `orthomer` command line: argument parsing and exit codes, nothing more.

mod commands;
mod demo;
mod failure;
mod serve;

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
    /// Serve the application: API and front end.
    Serve {
        /// Where the practice is kept.
        #[arg(long, default_value = "data")]
        data: PathBuf,
        /// Address to listen on.
        #[arg(long, default_value = "127.0.0.1")]
        host: String,
        /// Port to listen on.
        #[arg(long, default_value_t = 8080)]
        port: u16,
    },
    /// Serve fresh demo data from a directory of its own.
    Demo {
        /// Address to listen on.
        #[arg(long, default_value = "127.0.0.1")]
        host: String,
        /// Port to listen on.
        #[arg(long, default_value_t = 8080)]
        port: u16,
        /// How many clients.
        #[arg(long, default_value_t = 10, value_parser = clap::value_parser!(u16).range(1..=2000))]
        clients: u16,
    },
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
    /// Print the OpenAPI document of the server.
    Openapi,
    /// Write the JSON Schemas of the open files.
    Schema {
        /// The directory to write them to.
        dir: PathBuf,
    },
}

fn main() -> ExitCode {
    let result = match Arguments::parse().command {
        Command::Serve { data, host, port } => serve::serve(&data, &host, port),
        Command::Demo { host, port, clients } => serve::serve_demo(&host, port, usize::from(clients)),
        Command::Openapi => serve::openapi(),
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
