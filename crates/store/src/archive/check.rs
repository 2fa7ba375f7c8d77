//! Whether a practice is whole: the database file, its references, every document, every picture.

use super::rows::read;
use crate::clients::Page;
use crate::connection::Store;
use crate::error::StoreError;
use crate::photo_files::PhotoFile;
use atlas::Atlas;
use diesel::prelude::*;
use diesel::sql_query;
use diesel::sql_types::{Nullable, Text};
use sha2::{Digest, Sha256};
use std::collections::HashSet;
use units::{ClientId, PhotoId};

/// Something that is not whole.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Finding {
    /// Where: a table, a client, a picture.
    pub place: String,
    /// What is wrong.
    pub says: String,
}

#[derive(QueryableByName)]
struct Line {
    #[diesel(sql_type = Text)]
    integrity_check: String,
}

#[derive(QueryableByName)]
struct Broken {
    #[diesel(sql_type = Text)]
    child: String,
    #[diesel(sql_type = Nullable<Text>)]
    parent: Option<String>,
}

impl Store {
    /// Looks through everything; an empty list says that it is whole.
    pub fn check(&self, atlas: &Atlas) -> Result<Vec<Finding>, StoreError> {
        let mut findings = Vec::new();
        let mut find = |place: &str, says: String| findings.push(Finding { place: place.to_owned(), says });
        let mut connection = self.connect()?;
        let lines: Vec<Line> = sql_query("PRAGMA integrity_check").load(&mut connection)?;
        for line in lines.into_iter().filter(|line| line.integrity_check != "ok") {
            find("database", line.integrity_check);
        }
        let broken: Vec<Broken> =
            sql_query("SELECT \"table\" AS child, parent FROM pragma_foreign_key_check").load(&mut connection)?;
        for row in broken {
            find(&row.child, format!("a row refers to a {} that is not there", row.parent.unwrap_or_default()));
        }
        self.check_clients(atlas, &mut find)?;
        self.check_pictures(&mut connection, &mut find)?;
        Ok(findings)
    }

    fn check_clients(&self, atlas: &Atlas, find: &mut dyn FnMut(&str, String)) -> Result<(), StoreError> {
        let mut connection = self.connect()?;
        for row in read(&mut connection, "client", None, "id")? {
            let id = ClientId::from(row.get("id").and_then(|id| id.as_str()).unwrap_or_default());
            if let Err(why) = self.readable(atlas, &id) {
                find(&format!("client {id}"), why.to_string());
            }
        }
        let whole = Page { number: 1, size: 1 };
        if let Err(why) = self.practice().and(self.clients(atlas, None, whole).map(drop)) {
            find("practice", why.to_string());
        }
        Ok(())
    }

    fn check_pictures(
        &self,
        connection: &mut SqliteConnection,
        find: &mut dyn FnMut(&str, String),
    ) -> Result<(), StoreError> {
        let mut known = HashSet::new();
        for row in read(connection, "photo", None, "id")? {
            let text = |column: &str| row.get(column).and_then(|value| value.as_str()).unwrap_or_default().to_owned();
            let (id, sha256) = (PhotoId::from(text("id")), text("sha256"));
            for file in [PhotoFile::Original, PhotoFile::View, PhotoFile::Thumb] {
                match self.files().read(&id, file) {
                    Ok(bytes) if file == PhotoFile::Original => {
                        let now = hex::encode(Sha256::digest(&bytes));
                        if now != sha256 {
                            find(&format!("picture {id}"), "its original is not what was taken in".to_owned());
                        }
                    }
                    Ok(_) => {}
                    Err(why) => find(&format!("picture {id}"), format!("{}: {why}", file.ending())),
                }
            }
            known.insert(id);
        }
        for stray in self.files().strangers(&known).map_err(StoreError::File)? {
            find(&format!("photos/{stray}"), "a file that belongs to no picture".to_owned());
        }
        Ok(())
    }
}
