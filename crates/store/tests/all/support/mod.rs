//! A practice on a real SQLite file, with clients like the example's.

use atlas::Atlas;
use casefile::CaseFile;
use jiff::civil::date;
use roles::Role;
use store::{NewAccount, NewRound, Store};
use tempfile::TempDir;
use units::{ClientId, RoundId};

/// A store in a directory that goes with it.
pub struct Fresh {
    pub store: Store,
    pub atlas: Atlas,
    _directory: TempDir,
}

pub fn fresh() -> Fresh {
    let directory = tempfile::tempdir().unwrap();
    Fresh { store: Store::open(directory.path()).unwrap(), atlas: Atlas::load().unwrap(), _directory: directory }
}

impl Fresh {
    /// Adds a client like the example's, and gives the id.
    pub fn client(&self) -> ClientId {
        let file = CaseFile::parse(include_str!("../../../../../docs/examples/case.json")).unwrap();
        self.store.add_client(&self.atlas, &file.resolve(&self.atlas).unwrap().client).unwrap().id
    }

    /// The owner and a coach, and gives their ids.
    pub fn people(&self) -> [String; 2] {
        let person = |login: &str, role| NewAccount {
            login: login.into(),
            name: login.to_uppercase(),
            role,
            password_hash: "none".into(),
        };
        let mara = self.store.add_owner(&person("mara", Role::Owner)).unwrap();
        [mara.id, self.store.add_account(&person("jo", Role::Coach)).unwrap().id]
    }

    /// Opens a round of a client on the second day of a month of 2026, and gives the id.
    pub fn round(&self, client: &ClientId, month: i8) -> RoundId {
        let new = NewRound { taken_on: date(2026, month, 2), measured_by: "A".into(), weight: None };
        self.store.add_round(client, &new).unwrap().id
    }
}
