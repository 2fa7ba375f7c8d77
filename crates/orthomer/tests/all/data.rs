//! Carrying data out of and into a practice: by the binary, beside a server that serves it.

use rstest::rstest;
use serde_json::{Value, json};
use std::collections::BTreeMap;
use std::fs::{self, File};
use std::io::{BufRead, BufReader, Read, Write};
use std::path::Path;
use std::process::{Child, ChildStdout, Command, Output, Stdio};
use tempfile::TempDir;
use zip::write::SimpleFileOptions;
use zip::{ZipArchive, ZipWriter};

fn orthomer(arguments: &[&str]) -> Output {
    Command::new(env!("CARGO_BIN_EXE_orthomer")).args(arguments).output().unwrap()
}

fn says(output: &Output) -> String {
    String::from_utf8_lossy(&output.stderr).into_owned()
}

/// A served demo whose data stays.
struct Demo {
    server: Child,
    /// What it prints; open as long as it runs.
    _prints: BufReader<ChildStdout>,
    directory: TempDir,
}

impl Demo {
    fn start(port: u16) -> Self {
        let directory = tempfile::tempdir().unwrap();
        let data = directory.path().join("practice");
        let mut server = Command::new(env!("CARGO_BIN_EXE_orthomer"))
            .args(["demo", "--no-pictures", "--port", &port.to_string(), "--data", data.to_str().unwrap()])
            .stdout(Stdio::piped())
            .stderr(Stdio::null())
            .spawn()
            .unwrap();
        let mut line = String::new();
        let mut prints = BufReader::new(server.stdout.take().unwrap());
        prints.read_line(&mut line).unwrap();
        assert!(line.starts_with("Orthomer is at"), "{line}");
        Self { server, _prints: prints, directory }
    }

    fn data(&self) -> String {
        self.path("practice")
    }

    fn path(&self, name: &str) -> String {
        self.directory.path().join(name).to_str().unwrap().to_owned()
    }

    /// The id of a client, from the practice's own file.
    fn client(&self, name: &str) -> String {
        let file = self.path("found.zip");
        let _ = fs::remove_file(&file);
        assert!(orthomer(&["backup", &file, "--data", &self.data()]).status.success());
        let copy = self.path("found");
        let _ = fs::remove_dir_all(&copy);
        assert!(orthomer(&["restore", &file, "--data", &copy]).status.success());
        let store = store::Store::beside(Path::new(&copy)).unwrap();
        let atlas = atlas::Atlas::load().unwrap();
        let (found, _) = store.clients(&atlas, Some(name), store::Page { number: 1, size: 1 }).unwrap();
        found[0].id.clone().into()
    }
}

impl Drop for Demo {
    fn drop(&mut self) {
        let _ = self.server.kill();
        let _ = self.server.wait();
    }
}

fn entries(path: &str) -> BTreeMap<String, Vec<u8>> {
    let mut zip = ZipArchive::new(File::open(path).unwrap()).unwrap();
    let names: Vec<String> = zip.file_names().map(|name| name.unwrap().into_owned()).collect();
    let mut entries = BTreeMap::new();
    for name in names {
        let mut bytes = Vec::new();
        zip.by_name(&name).unwrap().read_to_end(&mut bytes).unwrap();
        entries.insert(name, bytes);
    }
    entries
}

#[test]
fn a_client_comes_out_and_in_again_without_loss_beside_a_server() {
    let demo = Demo::start(8171);
    let (id, out) = (demo.client("Bram"), demo.path("bram.zip"));
    let exported = orthomer(&["export", "--client", &id, "--out", &out, "--data", &demo.data()]);
    assert!(exported.status.success(), "{}", says(&exported));
    let first = entries(&out);
    let lines = |name: &str| String::from_utf8_lossy(&first[name]).lines().count();
    assert!(lines("tables/log_entry.csv") > 100 && lines("tables/tape_reading.csv") > 50);
    let case = orthomer(&["assess", &unpacked(&demo, &first["case.json"])]);
    assert!(case.status.success(), "{}", says(&case));

    let elsewhere = demo.path("elsewhere");
    drop(store::Store::open(Path::new(&elsewhere)).unwrap());
    let twice = orthomer(&["import", &out, "--data", &demo.data()]);
    assert_eq!(twice.status.code(), Some(2));
    assert!(says(&twice).contains("here already"), "{}", says(&twice));
    let taken = orthomer(&["import", &out, "--data", &elsewhere]);
    assert!(taken.status.success(), "{}", says(&taken));
    let again = demo.path("again.zip");
    assert!(orthomer(&["export", "--client", &id, "--out", &again, "--data", &elsewhere]).status.success());
    let second = entries(&again);
    // The case file is worked out anew: it knows a rater's error from all clients they judged, who stayed behind.
    for (name, bytes) in first.iter().filter(|(name, _)| *name != "case.json") {
        assert!(second.get(name) == Some(bytes), "{name} differs");
    }
    assert!(orthomer(&["check", "--data", &elsewhere]).status.success());
}

#[test]
fn an_erased_client_leaves_no_byte_behind() {
    let demo = Demo::start(8169);
    let (id, out, elsewhere) = (demo.client("Bram"), demo.path("bram.zip"), demo.path("erased"));
    let erase = |data: &str, yes: &[&str]| orthomer(&[&["erase", "--client", &id, "--data", data], yes].concat());
    let served = erase(&demo.data(), &["--yes"]);
    assert!(says(&served).contains("another orthomer has it open"), "{}", says(&served));
    assert!(orthomer(&["export", "--client", &id, "--out", &out, "--data", &demo.data()]).status.success());
    drop(store::Store::open(Path::new(&elsewhere)).unwrap());
    assert!(orthomer(&["import", &out, "--data", &elsewhere]).status.success());
    let held = || {
        let database = fs::read(Path::new(&elsewhere).join("orthomer.sqlite")).unwrap();
        [id.as_bytes(), b"Bram Quillan".as_slice()].map(|text| database.windows(text.len()).any(|part| part == text))
    };
    let told = |output: &Output| String::from_utf8_lossy(&output.stdout).into_owned();
    assert!(told(&erase(&elsewhere, &[])).contains("Nothing was erased"));
    assert_eq!(held(), [true; 2]);
    let erased = erase(&elsewhere, &["--yes"]);
    assert!(erased.status.success() && told(&erased).contains(": erased."), "{}", says(&erased));
    assert_eq!(held(), [false; 2]);
    assert_eq!(erase(&elsewhere, &["--yes"]).status.code(), Some(2));
    assert!(orthomer(&["check", "--data", &elsewhere]).status.success());
}

fn unpacked(demo: &Demo, case: &[u8]) -> String {
    let path = demo.path("case.json");
    fs::write(&path, case).unwrap();
    path
}

/// The archive with one of its files changed.
fn changed(path: &str, to: &str, name: &str, change: impl Fn(&mut Value)) {
    let mut zip = ZipWriter::new(File::create(to).unwrap());
    for (entry, bytes) in entries(path) {
        zip.start_file(&entry, SimpleFileOptions::default()).unwrap();
        if entry == name {
            let mut value: Value = serde_json::from_slice(&bytes).unwrap();
            change(&mut value);
            zip.write_all(value.to_string().as_bytes()).unwrap();
        } else {
            zip.write_all(&bytes).unwrap();
        }
    }
    zip.finish().unwrap();
}

#[rstest]
#[case::another_version("manifest.json", |m: &mut Value| m["version"] = json!(7), "version 7")]
#[case::a_newer_orthomer("manifest.json", |m: &mut Value| m["schema"] = json!("29991231000001"), "newer Orthomer")]
#[case::another_kind("manifest.json", |m: &mut Value| m["format"] = json!("something"), "expected \"orthomer-client\"")]
#[case::an_unknown_column("rows.json", |r: &mut Value| r["round"][0]["colour"] = json!("red"), "no column \"colour\"")]
#[case::a_missing_table("rows.json", |r: &mut Value| { r.as_object_mut().unwrap().remove("round"); }, "table round is missing")]
#[case::a_name_of_a_page("rows.json", |r: &mut Value| r["client"][0]["name"] = json!("O".repeat(81)), "81 characters are more than 80")]
#[case::a_counter_about_to_wrap("rows.json", |r: &mut Value| r["client"][0]["revision"] = json!(i32::MAX), "larger than anything")]
#[case::rows_of_somebody_else("rows.json", |r: &mut Value| r["round"][0]["client_id"] = json!("x"), "another client")]
#[case::a_brief_that_breaks_a_rule("rows.json", |r: &mut Value| r["client"][0]["brief_json"] = json!("{}"), "cannot be read here")]
fn an_archive_that_cannot_be_used_is_one_sentence_and_nothing_is_taken_in(
    #[case] file: &str,
    #[case] change: fn(&mut Value),
    #[case] expected: &str,
) {
    static PORT: std::sync::atomic::AtomicU16 = std::sync::atomic::AtomicU16::new(8173);
    let demo = Demo::start(PORT.fetch_add(1, std::sync::atomic::Ordering::Relaxed));
    let (id, out, bad) = (demo.client("Juno"), demo.path("juno.zip"), demo.path("bad.zip"));
    assert!(orthomer(&["export", "--client", &id, "--out", &out, "--data", &demo.data()]).status.success());
    changed(&out, &bad, file, change);
    let empty = demo.path("empty");
    drop(store::Store::open(Path::new(&empty)).unwrap());
    let refused = orthomer(&["import", &bad, "--data", &empty]);
    assert_eq!(refused.status.code(), Some(2), "{}", says(&refused));
    assert!(says(&refused).contains(expected) && says(&refused).lines().count() == 1, "{}", says(&refused));
    let (left, total) = store::Store::beside(Path::new(&empty))
        .unwrap()
        .clients(&atlas::Atlas::load().unwrap(), None, store::Page { number: 1, size: 5 })
        .unwrap();
    assert_eq!((left.len(), total), (0, 0));
}

#[test]
fn a_backup_is_restored_whole_and_writes_over_nothing() {
    let demo = Demo::start(8190);
    let (file, copy) = (demo.path("backup.zip"), demo.path("copy"));
    assert!(orthomer(&["backup", &file, "--data", &demo.data()]).status.success());
    let again = orthomer(&["backup", &file, "--data", &demo.data()]);
    assert!(again.status.code() == Some(2) && says(&again).contains("is there already"), "{}", says(&again));
    let restored = orthomer(&["restore", &file, "--data", &copy]);
    assert!(restored.status.success(), "{}", says(&restored));
    let over = orthomer(&["restore", &file, "--data", &copy]);
    assert!(over.status.code() == Some(2) && says(&over).contains("holds a practice already"), "{}", says(&over));
    let none = orthomer(&["restore", &demo.path("nothing.zip"), "--data", &demo.path("other")]);
    assert!(none.status.code() == Some(2) && !Path::new(&demo.path("other")).exists(), "{}", says(&none));
}

#[test]
fn a_check_names_what_is_broken() {
    let demo = Demo::start(8191);
    let (file, copy) = (demo.path("backup.zip"), demo.path("copy"));
    assert!(orthomer(&["backup", &file, "--data", &demo.data()]).status.success());
    assert!(orthomer(&["restore", &file, "--data", &copy]).status.success());
    fs::write(Path::new(&copy).join("photos").join("stray.view.jpg"), b"x").unwrap();
    let checked = orthomer(&["check", "--data", &copy]);
    assert_eq!(checked.status.code(), Some(1));
    assert!(says(&checked).contains("stray.view.jpg: a file that belongs to no picture"), "{}", says(&checked));
    let nothing = orthomer(&["check", "--data", &demo.path("nowhere")]);
    assert!(says(&nothing).contains("there is no practice in it"), "{}", says(&nothing));
}

#[test]
fn a_server_whose_output_was_closed_goes_on_serving() {
    let directory = tempfile::tempdir().unwrap();
    let mut server = Command::new(env!("CARGO_BIN_EXE_orthomer"))
        .args(["serve", "--port", "8192", "--data", directory.path().to_str().unwrap()])
        .stdout(Stdio::piped())
        .stderr(Stdio::null())
        .spawn()
        .unwrap();
    drop(server.stdout.take());
    let asked = || std::net::TcpStream::connect(("127.0.0.1", 8192)).is_ok();
    let answers = (0..600).any(|_| {
        std::thread::sleep(std::time::Duration::from_millis(100));
        asked()
    });
    std::thread::sleep(std::time::Duration::from_millis(200));
    let left = server.try_wait().unwrap();
    let _ = server.kill();
    let _ = server.wait();
    assert!(answers && left.is_none(), "{left:?}");
}
