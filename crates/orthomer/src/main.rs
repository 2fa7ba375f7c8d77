//! The `orthomer` command line: argument parsing and exit codes, nothing more.

mod commands;
mod data;
mod demo;
mod failure;
mod pictures;
mod serve;

use crate::serve::Door;
use clap::{Parser, Subcommand};
use server::{Certificate, Line};
use std::net::IpAddr;
use std::path::PathBuf;
use std::process::ExitCode;
use units::ClientId;

#[global_allocator]
static ALLOCATOR: mimalloc::MiMalloc = mimalloc::MiMalloc;

/// Where a practice is kept unless said otherwise.
const DATA: &str = "data";

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
        #[arg(long, default_value = DATA)]
        data: PathBuf,
        /// Address to listen on.
        #[arg(long, default_value = "127.0.0.1")]
        host: String,
        /// Port to listen on.
        #[arg(long, default_value_t = 8080)]
        port: u16,
        /// A name by which browsers reach it, beside addresses and localhost; may be given more than once.
        #[arg(long)]
        name: Vec<String>,
        /// A proxy before it speaks HTTPS to browsers: cookies go over HTTPS alone, and browsers are told to use nothing else.
        #[arg(long)]
        behind_https: bool,
        /// The address of a proxy whose X-Forwarded-For is believed; may be given more than once.
        #[arg(long)]
        trust_proxy: Vec<IpAddr>,
        /// Speak HTTPS with this certificate (PEM, with those that vouch for it).
        #[arg(long, requires = "key", conflicts_with = "behind_https")]
        cert: Option<PathBuf>,
        /// The certificate's private key (PEM).
        #[arg(long, requires = "cert")]
        key: Option<PathBuf>,
        /// A port of this machine alone on which it tells how it does, for Prometheus.
        #[arg(long)]
        metrics_port: Option<u16>,
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
        /// Do not draw pictures of the clients; drawing goes on for some minutes while the demo is served.
        #[arg(long)]
        no_pictures: bool,
        /// Keep the demo data there, in a directory that has no practice yet, instead of removing it at the end.
        #[arg(long)]
        data: Option<PathBuf>,
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
        /// How long to search, ms; about that, and the same week for the same number on every machine.
        #[arg(long, default_value_t = 300)]
        time_limit_ms: u32,
        /// How long to prove how far from the best possible the week is, s; 0 proves nothing.
        #[arg(long, default_value_t = 0)]
        prove_s: u32,
        /// Write the optimisation model there, in LP format.
        #[arg(long)]
        lp: Option<PathBuf>,
    },
    /// Print the line of pull of an exercise as JSON: who works, where in the range, at what length.
    Levers {
        /// Id of the exercise.
        #[arg(required_unless_present = "pose")]
        exercise: Option<String>,
        /// A number of its set-up, `NAME=VALUE`; may be given more than once.
        #[arg(long, value_name = "NAME=VALUE")]
        set: Vec<String>,
        /// Stature, cm; that of the model when not given.
        #[arg(long, default_value_t = levers::STATURE_CM)]
        stature: f64,
        /// Instead of an exercise: joint angles of an arm or a leg, of which lever arms, lengths and places are printed.
        #[arg(long, conflicts_with = "exercise")]
        pose: Option<PathBuf>,
    },
    /// Print what a photo says: quality, landmarks, widths.
    Photo {
        /// The picture: JPEG, PNG or WebP.
        image: PathBuf,
        /// Stature, cm.
        #[arg(long)]
        stature: f64,
        /// The pose; guessed when not given.
        #[arg(long)]
        pose: Option<String>,
        /// Distance of the camera, m; 3.5 when not given.
        #[arg(long)]
        distance: Option<f64>,
        /// The picture was taken in a mirror.
        #[arg(long)]
        mirrored: bool,
        /// Write the person mask there, as PNG.
        #[arg(long)]
        mask: Option<PathBuf>,
    },
    /// Print the girths that the pictures of one day show.
    Girths {
        /// Stature, cm.
        #[arg(long)]
        stature: f64,
        /// The picture from the front.
        #[arg(long)]
        front: PathBuf,
        /// The picture of the client's left side.
        #[arg(long)]
        side: PathBuf,
        /// The picture from behind.
        #[arg(long)]
        back: Option<PathBuf>,
        /// The picture of the client's right side.
        #[arg(long)]
        other_side: Option<PathBuf>,
        /// The front double biceps, for the bent arm.
        #[arg(long)]
        flexed: Option<PathBuf>,
        /// Distance of the camera, m.
        #[arg(long)]
        distance: Option<f64>,
    },
    /// Draw a made-up figure in the simulated photo booth, with its true measures.
    Booth {
        /// The spec.
        spec: PathBuf,
        /// The directory to write picture, mask and truth to.
        #[arg(long)]
        out: PathBuf,
    },
    /// Write everything about a client to a file: case, tables, pictures.
    Export {
        /// The client's id.
        #[arg(long)]
        client: ClientId,
        /// The file to write.
        #[arg(long)]
        out: PathBuf,
        /// Where the practice is kept.
        #[arg(long, default_value = DATA)]
        data: PathBuf,
    },
    /// Take in a client that was exported.
    Import {
        /// The file.
        file: PathBuf,
        /// Where the practice is kept.
        #[arg(long, default_value = DATA)]
        data: PathBuf,
    },
    /// Remove a client with everything about them for good, while nobody serves the practice.
    Erase {
        /// The client's id.
        #[arg(long)]
        client: ClientId,
        /// Erase; without it, only what would go is said.
        #[arg(long)]
        yes: bool,
        /// Where the practice is kept.
        #[arg(long, default_value = DATA)]
        data: PathBuf,
    },
    /// Write the whole practice to a file, while it is served.
    Backup {
        /// The file to write.
        file: PathBuf,
        /// Where the practice is kept.
        #[arg(long, default_value = DATA)]
        data: PathBuf,
    },
    /// Make a practice from a backup, in a directory that has none.
    Restore {
        /// The backup.
        file: PathBuf,
        /// Where the practice shall be kept.
        #[arg(long, default_value = DATA)]
        data: PathBuf,
    },
    /// Look whether database and pictures of a practice are whole.
    Check {
        /// Where the practice is kept.
        #[arg(long, default_value = DATA)]
        data: PathBuf,
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
        Command::Serve { data, host, port, name, behind_https, trust_proxy, cert, key, metrics_port } => {
            let certificate = cert.zip(key).map(|(chain, key)| Certificate { chain, key });
            serve::serve(
                &data,
                Door {
                    host,
                    port,
                    names: name,
                    behind_https,
                    proxies: trust_proxy,
                    line: Line { certificate, metrics_port },
                },
            )
        }
        Command::Demo { host, port, clients, no_pictures, data } => {
            serve::serve_demo(&host, port, usize::from(clients), !no_pictures, data.as_deref())
        }
        Command::Export { client, out, data } => data::export(&data, &client, &out),
        Command::Import { file, data } => data::import(&data, &file),
        Command::Erase { client, yes, data } => data::erase(&data, &client, yes),
        Command::Backup { file, data } => data::backup(&data, &file),
        Command::Restore { file, data } => data::restore(&data, &file),
        Command::Check { data } => data::check(&data),
        Command::Openapi => serve::openapi(),
        Command::Catalogue => commands::catalogue(),
        Command::Assess { case, explain } => commands::assess(&case, explain),
        Command::Plan { case, time_limit_ms, prove_s, lp } => {
            commands::plan(&case, time_limit_ms, prove_s, lp.as_deref())
        }
        Command::Levers { exercise: Some(exercise), set, stature, .. } => commands::levers(&exercise, &set, stature),
        Command::Levers { pose, .. } => commands::pose(&pose.unwrap_or_default()),
        Command::Photo { image, stature, pose, distance, mirrored, mask } => pictures::photo(&pictures::PhotoRequest {
            image: &image,
            stature_cm: stature,
            pose: pose.as_deref(),
            distance_m: distance,
            mirrored,
            mask: mask.as_deref(),
        }),
        Command::Girths { stature, front, side, back, other_side, flexed, distance } => {
            let given =
                [("--front", Some(front)), ("--back", back), ("--side", Some(side)), ("--other-side", other_side)];
            let given = given.into_iter().chain([("--flexed", flexed)]);
            let given: Vec<_> = given.filter_map(|(option, path)| Some((option, path?))).collect();
            pictures::girths(&given, stature, distance)
        }
        Command::Booth { spec, out } => pictures::booth(&spec, &out),
        Command::Schema { dir } => commands::schema(&dir),
    };
    match result {
        Ok(()) => ExitCode::SUCCESS,
        Err(failure) => failure.report(),
    }
}
