//! Clients and their briefs.

use crate::connection::Store;
use crate::error::StoreError;
use crate::new_id;
use crate::schema::{client, round};
use assess::Client;
use atlas::Atlas;
use casefile::ClientEntry;
use diesel::prelude::*;
use diesel::sqlite::SqliteConnection;
use icu_normalizer::DecomposingNormalizerBorrowed;
use jiff::Timestamp;
use jiff::civil::Date;
use std::collections::{HashMap, HashSet};
use std::ops::RangeInclusive;
use units::ClientId;

/// Marks that stand above or below the letter before them.
const ACCENTS: RangeInclusive<char> = '\u{300}'..='\u{36f}';

/// The tag of those who are made up to look around with: nothing is learned from them.
pub const MADE_UP: &str = "made up";

/// Whether a client is made up to look around with.
pub fn is_made_up(client: &Client) -> bool {
    client.tags.iter().any(|tag| tag == MADE_UP)
}

/// A client as stored.
#[derive(Clone, Debug)]
pub struct ClientRecord {
    /// Random id.
    pub id: ClientId,
    /// The brief.
    pub client: Client,
    /// Grows by one with every save.
    pub revision: i32,
    /// The day they were put away; none while they are in the lists.
    pub put_away_on: Option<Date>,
    /// The day agreed on for the next round.
    pub next_round_on: Option<Date>,
}

/// A slice of a list.
#[derive(Clone, Copy, Debug)]
pub struct Page {
    /// From 1.
    pub number: u32,
    /// How many entries.
    pub size: u32,
}

#[derive(Queryable, Selectable)]
#[diesel(table_name = client)]
struct Row {
    id: String,
    brief_json: String,
    revision: i32,
    put_away_on: Option<String>,
    next_round_on: Option<String>,
}

impl Row {
    /// The brief was checked before it was stored, so a failure here is corruption.
    fn record(self, atlas: &Atlas) -> Result<ClientRecord, StoreError> {
        let corrupt = |why: String| StoreError::corrupt("client", &self.id, why);
        let entry: ClientEntry = serde_json::from_str(&self.brief_json).map_err(|error| corrupt(error.to_string()))?;
        let client = casefile::stored_client(atlas, &entry)
            .map_err(|problems| corrupt(problems.iter().map(ToString::to_string).collect::<Vec<_>>().join("; ")))?;
        let day = |text: &String| text.parse().map_err(|_| corrupt(format!("{text:?} is no date")));
        let put_away_on = self.put_away_on.as_ref().map(day).transpose()?;
        let next_round_on = self.next_round_on.as_ref().map(day).transpose()?;
        Ok(ClientRecord { id: self.id.into(), client, revision: self.revision, put_away_on, next_round_on })
    }
}

fn brief_json(client: &Client) -> Result<String, StoreError> {
    serde_json::to_string(&ClientEntry::from(client)).map_err(|e| StoreError::corrupt("client", &client.name, e))
}

/// A name as it is looked for and ordered by: small letters without accents, which the database cannot tell apart.
fn plain(name: &str) -> String {
    let apart = DecomposingNormalizerBorrowed::new_nfkd().normalize(name.trim());
    apart.chars().filter(|letter| !ACCENTS.contains(letter)).flat_map(char::to_lowercase).collect()
}

impl Store {
    /// Adds a client.
    pub fn add_client(&self, atlas: &Atlas, client: &Client) -> Result<ClientRecord, StoreError> {
        let id = ClientId::from(new_id());
        let now = Timestamp::now().to_string();
        diesel::insert_into(client::table)
            .values((
                client::id.eq(id.as_str()),
                client::brief_json.eq(brief_json(client)?),
                client::revision.eq(1),
                client::created_at.eq(&now),
                client::updated_at.eq(&now),
            ))
            .execute(&mut self.connect()?)?;
        self.client(atlas, &id)
    }

    /// A client by id.
    pub fn client(&self, atlas: &Atlas, id: &ClientId) -> Result<ClientRecord, StoreError> {
        find(&mut *self.connect()?, atlas, id)
    }

    /// A client's name as it is stored, whether or not the rest can be read.
    pub fn client_name(&self, id: &ClientId) -> Result<String, StoreError> {
        let name = client::table.find(id.as_str()).select(client::name).first(&mut self.connect()?).optional()?;
        name.ok_or_else(|| StoreError::not_found("client", id))
    }

    /// All clients by name, put away or not, those whose name or note contains `find` when given, letters of any case, with or without their accents; and how
    /// many there are in all.
    pub fn clients(
        &self,
        atlas: &Atlas,
        find: Option<&str>,
        page: Page,
    ) -> Result<(Vec<ClientRecord>, u32), StoreError> {
        let (ids, total) = self.listed(find, None, page)?;
        let mut found: HashMap<ClientId, ClientRecord> =
            self.clients_by_id(atlas, &ids)?.into_iter().map(|record| (record.id.clone(), record)).collect();
        Ok((ids.iter().filter_map(|id| found.remove(id)).collect(), total))
    }

    /// Ids of clients in the order of [`Store::clients`]: of those in the lists, or of those put away.
    pub fn client_ids(&self, find: Option<&str>, away: bool, page: Page) -> Result<(Vec<ClientId>, u32), StoreError> {
        self.listed(find, Some(away), page)
    }

    /// Puts a client away on a day, or back into the lists. Nothing else of them changes.
    pub fn put_away(&self, id: &ClientId, on: Option<Date>) -> Result<(), StoreError> {
        let changed = diesel::update(client::table.find(id.as_str()))
            .set(client::put_away_on.eq(on.map(|on| on.to_string())))
            .execute(&mut self.connect()?)?;
        if changed == 0 { Err(StoreError::not_found("client", id)) } else { Ok(()) }
    }

    /// Agrees on a day for the next round of some clients, or takes it back: of all or, where one is not there, of none.
    pub fn agree_on_round(&self, ids: &[ClientId], on: Option<Date>) -> Result<(), StoreError> {
        let on = on.map(|on| on.to_string());
        self.connect()?.immediate_transaction(|connection| {
            for id in ids {
                let one = diesel::update(client::table.find(id.as_str())).set(client::next_round_on.eq(&on));
                if one.execute(connection)? == 0 {
                    return Err(StoreError::not_found("client", id));
                }
            }
            Ok(())
        })
    }

    /// Ids of those who are made up to look around with.
    pub(crate) fn made_up_ids(connection: &mut SqliteConnection) -> Result<HashSet<ClientId>, StoreError> {
        #[derive(QueryableByName)]
        struct Id {
            #[diesel(sql_type = diesel::sql_types::Text)]
            id: String,
        }
        let found = diesel::sql_query(
            "SELECT client.id FROM client, \
             json_each(iif(json_valid(client.brief_json), client.brief_json, '{}'), '$.tags') WHERE json_each.value = ?",
        );
        let found = found.bind::<diesel::sql_types::Text, _>(MADE_UP).load::<Id>(connection)?;
        Ok(found.into_iter().map(|row| row.id.into()).collect())
    }

    /// Every tag that a client in the lists has, in the order of the alphabet.
    pub fn tags(&self) -> Result<Vec<String>, StoreError> {
        #[derive(QueryableByName)]
        struct Tag {
            #[diesel(sql_type = diesel::sql_types::Text)]
            tag: String,
        }
        let found = diesel::sql_query(
            // One brief that is no JSON must not take everybody's tags away.
            "SELECT DISTINCT json_each.value AS tag FROM client, \
             json_each(iif(json_valid(client.brief_json), client.brief_json, '{}'), '$.tags') \
             WHERE client.put_away_on IS NULL ORDER BY tag COLLATE NOCASE",
        );
        Ok(found.load::<Tag>(&mut self.connect()?)?.into_iter().map(|row| row.tag).collect())
    }

    fn listed(&self, find: Option<&str>, away: Option<bool>, page: Page) -> Result<(Vec<ClientId>, u32), StoreError> {
        type Listed = (String, String, Option<String>, String);
        let mut connection = self.connect()?;
        let all: Vec<Listed> = client::table
            .select((client::id, client::name, client::put_away_on, client::note))
            .load(&mut connection)?;
        let wanted = plain(find.unwrap_or_default());
        // Who is looked for may be known by what was noted of them or of one of their rounds.
        let noted: HashSet<String> = if wanted.is_empty() {
            HashSet::new()
        } else {
            let notes: Vec<(String, String)> = round::table
                .filter(round::note.ne(""))
                .select((round::client_id, round::note))
                .load(&mut connection)?;
            notes.into_iter().filter(|(_, note)| plain(note).contains(&wanted)).map(|(id, _)| id).collect()
        };
        let here = all.into_iter().filter(|(_, _, on, _)| away.is_none_or(|away| away == on.is_some()));
        let fits = |(id, name, _, note): &Listed| {
            plain(name).contains(&wanted) || plain(note).contains(&wanted) || noted.contains(id)
        };
        let mut found: Vec<(String, String, String)> =
            here.filter(fits).map(|(id, name, ..)| (plain(&name), name, id)).collect();
        found.sort_unstable();
        let total = u32::try_from(found.len()).unwrap_or(u32::MAX);
        let before = page.number.saturating_sub(1).saturating_mul(page.size) as usize;
        let ids = found.into_iter().map(|(.., id)| id.into()).skip(before).take(page.size as usize).collect();
        Ok((ids, total))
    }

    /// Clients by id, in no order; those that are not there are left out.
    pub fn clients_by_id(&self, atlas: &Atlas, ids: &[ClientId]) -> Result<Vec<ClientRecord>, StoreError> {
        let rows: Vec<Row> = client::table
            .filter(client::id.eq_any(ids.iter().map(ClientId::as_str)))
            .select(Row::as_select())
            .load(&mut self.connect()?)?;
        rows.into_iter().map(|row| row.record(atlas)).collect()
    }

    /// Saves a brief that was read at `revision`.
    ///
    /// # Errors
    /// [`StoreError::Stale`] when it was saved by someone else since.
    pub fn save_client(
        &self,
        atlas: &Atlas,
        id: &ClientId,
        revision: i32,
        client: &Client,
    ) -> Result<ClientRecord, StoreError> {
        self.connect()?.immediate_transaction(|connection| write(connection, id, revision, client))?;
        self.client(atlas, id)
    }
}

pub(crate) fn find(
    connection: &mut SqliteConnection,
    atlas: &Atlas,
    id: &ClientId,
) -> Result<ClientRecord, StoreError> {
    let row = client::table.find(id.as_str()).select(Row::as_select()).first(connection).optional()?;
    row.ok_or_else(|| StoreError::not_found("client", id))?.record(atlas)
}

/// Writes a brief that was read at `revision`.
pub(crate) fn write(
    connection: &mut SqliteConnection,
    id: &ClientId,
    revision: i32,
    client: &Client,
) -> Result<(), StoreError> {
    let current: Option<i32> = client::table.find(id.as_str()).select(client::revision).first(connection).optional()?;
    match current {
        None => Err(StoreError::not_found("client", id)),
        Some(current) if current != revision => Err(StoreError::Stale { what: "this brief", current, saved_by: None }),
        Some(_) => {
            diesel::update(client::table.find(id.as_str()))
                .set((
                    client::brief_json.eq(brief_json(client)?),
                    client::revision.eq(revision + 1),
                    client::updated_at.eq(Timestamp::now().to_string()),
                ))
                .execute(connection)?;
            Ok(())
        }
    }
}
