//! HTTPS by the program itself.

use rcgen::{CertifiedKey, generate_simple_self_signed};
use rstest::rstest;
use rustls::pki_types::{CertificateDer, ServerName};
use rustls::{ClientConfig, ClientConnection, RootCertStore, StreamOwned};
use std::fs;
use std::io::{BufRead, BufReader, Read, Write};
use std::net::TcpStream;
use std::path::Path;
use std::process::{Child, Command, Stdio};
use std::sync::Arc;
use tempfile::TempDir;

/// A certificate for localhost and its key, as files.
fn certificate(directory: &Path) -> CertificateDer<'static> {
    let CertifiedKey { cert, signing_key } = generate_simple_self_signed(["localhost".to_owned()]).unwrap();
    fs::write(directory.join("cert.pem"), cert.pem()).unwrap();
    fs::write(directory.join("key.pem"), signing_key.serialize_pem()).unwrap();
    cert.der().clone()
}

struct Served {
    server: Child,
    line: String,
    directory: TempDir,
}

impl Drop for Served {
    fn drop(&mut self) {
        let _ = self.server.kill();
        let _ = self.server.wait();
    }
}

fn command(directory: &Path, port: u16) -> Command {
    let path = |name: &str| directory.join(name).to_str().unwrap().to_owned();
    let mut command = Command::new(env!("CARGO_BIN_EXE_orthomer"));
    command.args(["serve", "--data", &path("data"), "--port", &port.to_string()]);
    command.args(["--cert", &path("cert.pem"), "--key", &path("key.pem")]);
    command
}

#[test]
fn a_certificate_makes_it_speak_https_with_cookies_for_https_alone() {
    let directory = tempfile::tempdir().unwrap();
    let trusted = certificate(directory.path());
    let mut server = command(directory.path(), 8193).stdout(Stdio::piped()).stderr(Stdio::null()).spawn().unwrap();
    let mut prints = BufReader::new(server.stdout.take().unwrap());
    let mut served = Served { server, line: String::new(), directory };
    prints.read_line(&mut served.line).unwrap();
    assert_eq!(served.line, "Orthomer is at https://127.0.0.1:8193\n");

    let mut roots = RootCertStore::empty();
    roots.add(trusted).unwrap();
    let provider = Arc::new(rustls::crypto::ring::default_provider());
    let config = ClientConfig::builder_with_provider(provider).with_safe_default_protocol_versions().unwrap();
    let config = config.with_root_certificates(roots).with_no_client_auth();
    let name = ServerName::try_from("localhost").unwrap();
    let connection = ClientConnection::new(Arc::new(config), name).unwrap();
    let mut line = StreamOwned::new(connection, TcpStream::connect("127.0.0.1:8193").unwrap());
    line.write_all(b"GET /api/v1/session HTTP/1.1\r\nHost: localhost:8193\r\nConnection: close\r\n\r\n").unwrap();
    let mut answer = String::new();
    let _ = line.read_to_string(&mut answer);
    assert!(answer.starts_with("HTTP/1.1 200"), "{answer}");
    assert!(answer.to_lowercase().contains("strict-transport-security: max-age=31536000"), "{answer}");
    assert!(served.directory.path().join("data").is_dir());
}

#[rstest]
#[case::no_certificate("cert.pem", "not a certificate", 8194)]
#[case::no_key("key.pem", "not a key", 8195)]
fn what_cannot_be_used_for_https_is_one_sentence(#[case] file: &str, #[case] text: &str, #[case] port: u16) {
    let directory = tempfile::tempdir().unwrap();
    certificate(directory.path());
    fs::write(directory.path().join(file), text).unwrap();
    let output = command(directory.path(), port).output().unwrap();
    let says = String::from_utf8_lossy(&output.stderr).into_owned();
    assert!(!output.status.success() && says.contains(file) && says.contains("cannot be used for HTTPS"), "{says}");
}

#[test]
fn how_the_program_does_is_told_on_a_port_of_this_machine() {
    let directory = tempfile::tempdir().unwrap();
    certificate(directory.path());
    let mut command = command(directory.path(), 8196);
    let mut server =
        command.args(["--metrics-port", "8197"]).stdout(Stdio::piped()).stderr(Stdio::null()).spawn().unwrap();
    let mut prints = BufReader::new(server.stdout.take().unwrap());
    let mut served = Served { server, line: String::new(), directory };
    prints.read_line(&mut served.line).unwrap();
    let mut line = TcpStream::connect("127.0.0.1:8197").unwrap();
    line.write_all(b"GET /metrics HTTP/1.1\r\nHost: localhost\r\nConnection: close\r\n\r\n").unwrap();
    let mut answer = String::new();
    line.read_to_string(&mut answer).unwrap();
    for told in ["orthomer_database_bytes ", "orthomer_waiting_pictures 0", "orthomer_request_seconds_count 0"] {
        assert!(answer.contains(told), "{told}: {answer}");
    }
}
