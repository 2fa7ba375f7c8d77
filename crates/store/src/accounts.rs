//! Who may sign in.

use crate::connection::Store;
use crate::error::StoreError;
use crate::json;
use crate::new_id;
use crate::schema::{account, recovery_code};
use diesel::prelude::*;
use diesel::result::DatabaseErrorKind;
use jiff::Timestamp;
use roles::Role;
use units::Measures;

/// Stands for the password's hash of those who came in with a client: no password has it.
pub(crate) const NO_WAY_IN: &str = "none";

/// An account to be made.
#[derive(Clone, Debug)]
pub struct NewAccount {
    /// What is typed to sign in.
    pub login: String,
    /// What others see.
    pub name: String,
    /// What it may do.
    pub role: Role,
    /// The password's hash, in PHC string format.
    pub password_hash: String,
}

/// An account.
#[derive(Clone, Debug)]
pub struct Account {
    /// Random id.
    pub id: String,
    /// What is typed to sign in.
    pub login: String,
    /// What others see.
    pub name: String,
    /// What it may do.
    pub role: Role,
    /// The password's hash, in PHC string format.
    pub password_hash: String,
    /// The second factor, once it is set up.
    pub factor: Option<Factor>,
    /// Units in which they read and type.
    pub measures: Measures,
}

/// A second factor by time.
#[derive(Clone, PartialEq, Eq)]
pub struct Factor {
    /// What phone and server share, base32.
    pub secret: String,
    /// The last step of time whose code was used: no code is used twice.
    pub last_step: i64,
}

impl std::fmt::Debug for Factor {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        f.write_str("Factor")
    }
}

#[derive(Queryable, Selectable)]
#[diesel(table_name = account)]
struct Row {
    id: String,
    login: String,
    name: String,
    role: String,
    password_hash: String,
    factor_secret: Option<String>,
    factor_step: Option<i64>,
    measures: Option<String>,
}

impl TryFrom<Row> for Account {
    type Error = StoreError;
    fn try_from(row: Row) -> Result<Self, StoreError> {
        let role = Role::parse(&row.role).ok_or_else(|| StoreError::corrupt("account", &row.id, "unknown role"))?;
        let factor = row.factor_secret.map(|secret| Factor { secret, last_step: row.factor_step.unwrap_or_default() });
        let measures =
            row.measures.map(|json| json::parsed("account", &row.id, &json)).transpose()?.unwrap_or_default();
        let Row { id, login, name, password_hash, .. } = row;
        Ok(Self { id, login, name, role, password_hash, factor, measures })
    }
}

/// What is to be changed of an account; `None` leaves it.
#[derive(Clone, Debug, Default)]
pub struct ChangedAccount {
    /// What others see.
    pub name: Option<String>,
    /// What it may do.
    pub role: Option<Role>,
    /// The hash of a new password.
    pub password_hash: Option<String>,
}

fn insert(connection: &mut SqliteConnection, id: &str, new: &NewAccount) -> Result<(), StoreError> {
    diesel::insert_into(account::table)
        .values((
            account::id.eq(id),
            account::login.eq(&new.login),
            account::name.eq(&new.name),
            account::role.eq(new.role.as_str()),
            account::password_hash.eq(&new.password_hash),
            account::created_at.eq(Timestamp::now().to_string()),
        ))
        .execute(connection)?;
    Ok(())
}

/// Refuses a name that somebody who can sign in has already, in any case of letters: people are told apart by it.
fn name_is_free(connection: &mut SqliteConnection, id: &str, name: &str) -> Result<(), StoreError> {
    let others: Vec<String> = account::table
        .filter(account::id.ne(id))
        .filter(account::password_hash.ne(NO_WAY_IN))
        .select(account::name)
        .load(connection)?;
    if others.iter().any(|other| other.to_lowercase() == name.to_lowercase()) {
        return Err(StoreError::Exists(format!("somebody is called {name:?} here already: choose another name")));
    }
    Ok(())
}

/// Refuses when no owner but `id` is left.
fn keeps_an_owner(connection: &mut SqliteConnection, id: &str) -> Result<(), StoreError> {
    let others = account::table.filter(account::role.eq(Role::Owner.as_str())).filter(account::id.ne(id));
    if others.count().get_result::<i64>(connection)? == 0 {
        let is_owner = account::table.find(id).filter(account::role.eq(Role::Owner.as_str()));
        if is_owner.count().get_result::<i64>(connection)? > 0 {
            let says = "a practice needs an owner: make someone else an owner first";
            return Err(StoreError::Exists(says.to_owned()));
        }
    }
    Ok(())
}

impl Store {
    /// Whether nobody can sign in yet.
    pub fn is_new(&self) -> Result<bool, StoreError> {
        Ok(account::table.count().get_result::<i64>(&mut self.connect()?)? == 0)
    }

    /// Makes the owner's account.
    ///
    /// # Errors
    /// [`StoreError::Exists`] when there is an account already: the first start happens once.
    pub fn add_owner(&self, new: &NewAccount) -> Result<Account, StoreError> {
        let id = new_id();
        self.connect()?.immediate_transaction(|connection| {
            if account::table.count().get_result::<i64>(connection)? > 0 {
                return Err(StoreError::Exists("this practice has an owner already: sign in".to_owned()));
            }
            insert(connection, &id, new)
        })?;
        self.account(&id)
    }

    /// Everyone, by name.
    pub fn accounts(&self) -> Result<Vec<Account>, StoreError> {
        let rows: Vec<Row> =
            account::table.order(account::name.asc()).select(Row::as_select()).load(&mut self.connect()?)?;
        rows.into_iter().map(Account::try_from).collect()
    }

    /// Adds someone to a practice that has its owner.
    ///
    /// # Errors
    /// [`StoreError::Exists`] when the login or the name is taken.
    pub fn add_account(&self, new: &NewAccount) -> Result<Account, StoreError> {
        let id = new_id();
        self.connect()?.immediate_transaction(|connection| {
            if account::table.filter(account::login.eq(&new.login)).count().get_result::<i64>(connection)? > 0 {
                return Err(StoreError::Exists(format!("the login {:?} is taken: choose another", new.login)));
            }
            name_is_free(connection, &id, &new.name)?;
            insert(connection, &id, new)
        })?;
        self.account(&id)
    }

    /// Changes what is named of an account.
    ///
    /// # Errors
    /// [`StoreError::Exists`] when the name is taken, or the practice would be left without an owner.
    pub fn change_account(&self, id: &str, change: &ChangedAccount) -> Result<Account, StoreError> {
        self.connect()?.immediate_transaction(|connection| {
            if change.role.is_some_and(|role| role != Role::Owner) {
                keeps_an_owner(connection, id)?;
            }
            let found = account::table.find(id);
            if found.count().get_result::<i64>(connection)? == 0 {
                return Err(StoreError::not_found("account", id));
            }
            if let Some(role) = change.role {
                diesel::update(found).set(account::role.eq(role.as_str())).execute(connection)?;
            }
            if let Some(name) = &change.name {
                name_is_free(connection, id, name)?;
                diesel::update(found).set(account::name.eq(name)).execute(connection)?;
            }
            if let Some(hash) = &change.password_hash {
                diesel::update(found).set(account::password_hash.eq(hash)).execute(connection)?;
            }
            Ok(())
        })?;
        self.account(id)
    }

    /// Keeps the units in which somebody reads and types.
    pub fn set_measures(&self, id: &str, measures: Measures) -> Result<(), StoreError> {
        let json = json::written("account", id, &measures)?;
        let own = diesel::update(account::table.find(id)).set(account::measures.eq(json));
        if own.execute(&mut self.connect()?)? == 0 { Err(StoreError::not_found("account", id)) } else { Ok(()) }
    }

    /// Sets up a second factor, with the hashes of codes for when it is lost; `None` takes it away.
    pub fn set_factor(&self, id: &str, factor: Option<&Factor>, codes_sha256: &[String]) -> Result<(), StoreError> {
        self.connect()?.immediate_transaction(|connection| {
            let changed = diesel::update(account::table.find(id))
                .set((
                    account::factor_secret.eq(factor.map(|factor| factor.secret.as_str())),
                    account::factor_step.eq(factor.map(|factor| factor.last_step)),
                ))
                .execute(connection)?;
            if changed == 0 {
                return Err(StoreError::not_found("account", id));
            }
            diesel::delete(recovery_code::table.filter(recovery_code::account_id.eq(id))).execute(connection)?;
            for code in codes_sha256 {
                diesel::insert_into(recovery_code::table)
                    .values((recovery_code::account_id.eq(id), recovery_code::code_sha256.eq(code)))
                    .execute(connection)?;
            }
            Ok(())
        })
    }

    /// Uses up a step of time; whether it was later than every one used before.
    pub fn use_factor_step(&self, id: &str, step: i64) -> Result<bool, StoreError> {
        let own = account::table.find(id).filter(account::factor_step.lt(step));
        Ok(diesel::update(own).set(account::factor_step.eq(step)).execute(&mut self.connect()?)? > 0)
    }

    /// Uses up a recovery code by its hash; whether there was one.
    pub fn use_recovery_code(&self, id: &str, code_sha256: &str) -> Result<bool, StoreError> {
        Ok(diesel::delete(recovery_code::table.find((id, code_sha256))).execute(&mut self.connect()?)? > 0)
    }

    /// Takes someone's way in away. What they did stays under their name.
    ///
    /// # Errors
    /// [`StoreError::Exists`] when the practice would be left without an owner, or ratings hang on the account.
    pub fn remove_account(&self, id: &str) -> Result<(), StoreError> {
        self.connect()?.immediate_transaction(|connection| {
            keeps_an_owner(connection, id)?;
            let removed = diesel::delete(account::table.find(id)).execute(connection);
            match removed {
                Ok(0) => Err(StoreError::not_found("account", id)),
                Err(diesel::result::Error::DatabaseError(DatabaseErrorKind::ForeignKeyViolation, _)) => {
                    let says = "this person has rated pictures, which stay theirs: give them another password instead";
                    Err(StoreError::Exists(says.to_owned()))
                }
                other => other.map(|_| ()).map_err(StoreError::from),
            }
        })
    }

    /// An account by id.
    pub fn account(&self, id: &str) -> Result<Account, StoreError> {
        let row = account::table.find(id).select(Row::as_select()).first(&mut self.connect()?).optional()?;
        row.ok_or_else(|| StoreError::not_found("account", id))?.try_into()
    }

    /// An account by login, in any case of letters.
    pub fn account_by_login(&self, login: &str) -> Result<Option<Account>, StoreError> {
        let found = account::table.filter(account::login.eq(login)).select(Row::as_select());
        found.first(&mut self.connect()?).optional()?.map(Account::try_from).transpose()
    }
}
