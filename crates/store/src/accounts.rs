//! Who may sign in.

use crate::connection::Store;
use crate::error::StoreError;
use crate::new_id;
use crate::schema::account;
use diesel::prelude::*;
use jiff::Timestamp;

/// What an account may do.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Role {
    /// The practice's owner.
    Owner,
    /// A coach.
    Coach,
    /// Photographs and tapes for a coach.
    Assistant,
}

impl Role {
    fn as_str(self) -> &'static str {
        match self {
            Self::Owner => "owner",
            Self::Coach => "coach",
            Self::Assistant => "assistant",
        }
    }

    fn parse(text: &str) -> Option<Self> {
        [Self::Owner, Self::Coach, Self::Assistant].into_iter().find(|role| role.as_str() == text)
    }
}

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
}

#[derive(Queryable, Selectable)]
#[diesel(table_name = account)]
struct Row {
    id: String,
    login: String,
    name: String,
    role: String,
    password_hash: String,
}

impl TryFrom<Row> for Account {
    type Error = StoreError;
    fn try_from(row: Row) -> Result<Self, StoreError> {
        let role = Role::parse(&row.role).ok_or_else(|| StoreError::corrupt("account", &row.id, "unknown role"))?;
        Ok(Self { id: row.id, login: row.login, name: row.name, role, password_hash: row.password_hash })
    }
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
            diesel::insert_into(account::table)
                .values((
                    account::id.eq(&id),
                    account::login.eq(&new.login),
                    account::name.eq(&new.name),
                    account::role.eq(new.role.as_str()),
                    account::password_hash.eq(&new.password_hash),
                    account::created_at.eq(Timestamp::now().to_string()),
                ))
                .execute(connection)?;
            Ok(())
        })?;
        self.account(&id)
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
