//! Who may do what in a practice: one table. Common practice, no source.

#![warn(clippy::missing_errors_doc)]

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What an account is in the practice.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Role {
    /// The practice's owner.
    Owner,
    /// A coach.
    Coach,
    /// Photographs, tapes and logs for a coach.
    Assistant,
}

impl Role {
    /// All of them, in the order of the table's columns.
    pub const ALL: [Self; 3] = [Self::Owner, Self::Coach, Self::Assistant];

    /// As it is stored and sent.
    pub fn as_str(self) -> &'static str {
        match self {
            Self::Owner => "owner",
            Self::Coach => "coach",
            Self::Assistant => "assistant",
        }
    }

    /// `None` for a word that is no role.
    pub fn parse(text: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|role| role.as_str() == text)
    }

    /// Whether this role may do it.
    pub fn may(self, act: Act) -> bool {
        let column = Self::ALL.iter().position(|role| *role == self);
        column.is_some_and(|column| row(act).may[column])
    }

    /// Everything this role may do, in the order of the table.
    pub fn acts(self) -> Vec<Act> {
        TABLE.iter().map(|row| row.act).filter(|act| self.may(*act)).collect()
    }
}

/// A kind of thing to do.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Act {
    /// Reads clients, verdicts, plans, logs and pictures.
    See,
    /// Signs in.
    SignIn,
    /// Changes their own name and password, and how their own sheets are laid out.
    OwnAccount,
    /// Judges made-up figures.
    Practise,
    /// Opens rounds, tapes, tests.
    Measure,
    /// Adds pictures, sets their landmarks, removes them.
    Photograph,
    /// Writes down what was trained.
    Log,
    /// Adds clients and changes their briefs.
    Brief,
    /// Rates pictures, chooses what is brought up, overrules, decides reviews, sees to flags.
    Judge,
    /// Works on weeks, and on the practice's own exercises.
    Plan,
    /// Gives a week to a client.
    Give,
    /// Makes private links and takes them back.
    Link,
    /// Takes back a client's consent to pictures.
    Withdraw,
    /// Takes a client out as a file.
    TakeOut,
    /// Takes a client in from a file.
    TakeIn,
    /// Puts clients away and back, gives rounds another day, removes rounds.
    PutAway,
    /// Removes a client for good.
    Erase,
    /// Changes what the practice sets.
    Settings,
    /// Adds, changes and removes people.
    People,
    /// Takes the whole practice out: backup and tables.
    TakeAllOut,
    /// Reads who did what.
    Audit,
}

/// A line of the table.
#[derive(Clone, Copy, Debug)]
pub struct Row {
    /// What is done.
    pub act: Act,
    /// In words that follow "may" and "does not".
    pub says: &'static str,
    /// Whether each role may, in the order of [`Role::ALL`].
    pub may: [bool; 3],
}

const ALL: [bool; 3] = [true, true, true];
const COACHES: [bool; 3] = [true, true, false];
const OWNER: [bool; 3] = [true, false, false];

const fn line(act: Act, says: &'static str, may: [bool; 3]) -> Row {
    Row { act, says, may }
}

/// Who may do what.
pub const TABLE: [Row; 21] = [
    line(Act::See, "look at clients, verdicts, plans, logs and pictures", ALL),
    line(Act::SignIn, "sign in", ALL),
    line(Act::OwnAccount, "change their own name and password", ALL),
    line(Act::Practise, "practise their eye", ALL),
    line(Act::Measure, "open rounds, tape and test", ALL),
    line(Act::Photograph, "add and remove pictures", ALL),
    line(Act::Log, "write down what was trained", ALL),
    line(Act::Brief, "add clients and change briefs", COACHES),
    line(Act::Judge, "judge pictures, choose, overrule and decide reviews", COACHES),
    line(Act::Plan, "work on weeks", COACHES),
    line(Act::Give, "give a week", COACHES),
    line(Act::Link, "make links and take them back", COACHES),
    line(Act::Withdraw, "take back consent", COACHES),
    line(Act::TakeOut, "take a client out as a file", COACHES),
    line(Act::TakeIn, "take a client in from a file", COACHES),
    line(Act::PutAway, "put clients away, re-date and remove rounds", COACHES),
    line(Act::Erase, "erase a client", OWNER),
    line(Act::Settings, "change the practice's settings", OWNER),
    line(Act::People, "add, change and remove people", OWNER),
    line(Act::TakeAllOut, "take the whole practice out", OWNER),
    line(Act::Audit, "read who did what", OWNER),
];

/// The line of an act.
pub fn row(act: Act) -> &'static Row {
    TABLE.iter().find(|row| row.act == act).unwrap_or(&TABLE[0])
}

impl Act {
    /// `None` for a word that is no act.
    pub fn parse(text: &str) -> Option<Self> {
        TABLE.iter().map(|row| row.act).find(|act| act.as_str() == text)
    }

    /// As it is stored: the same word as it is sent by.
    pub fn as_str(self) -> &'static str {
        match self {
            Self::See => "see",
            Self::SignIn => "sign-in",
            Self::OwnAccount => "own-account",
            Self::Practise => "practise",
            Self::Measure => "measure",
            Self::Photograph => "photograph",
            Self::Log => "log",
            Self::Brief => "brief",
            Self::Judge => "judge",
            Self::Plan => "plan",
            Self::Give => "give",
            Self::Link => "link",
            Self::Withdraw => "withdraw",
            Self::TakeOut => "take-out",
            Self::TakeIn => "take-in",
            Self::PutAway => "put-away",
            Self::Erase => "erase",
            Self::Settings => "settings",
            Self::People => "people",
            Self::TakeAllOut => "take-all-out",
            Self::Audit => "audit",
        }
    }

    /// Why a role that may not is refused, in a sentence.
    pub fn refusal(self, role: Role) -> String {
        let who = match role {
            Role::Owner => "An owner",
            Role::Coach => "A coach",
            Role::Assistant => "An assistant",
        };
        let ask = if Role::Coach.may(self) { "a coach" } else { "the owner" };
        format!("{who} does not {}: ask {ask}.", row(self).says)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case::assistant(Role::Assistant, &[Act::Measure, Act::Photograph, Act::Log], &[
        Act::TakeOut, Act::TakeAllOut, Act::Give, Act::Withdraw, Act::Link, Act::TakeIn, Act::Judge, Act::Erase])]
    #[case::coach(Role::Coach, &[Act::Give, Act::TakeOut, Act::TakeIn, Act::Judge], &[
        Act::Erase, Act::Settings, Act::People, Act::TakeAllOut, Act::Audit])]
    #[case::owner(Role::Owner, &[Act::Erase, Act::Audit, Act::People, Act::TakeAllOut], &[])]
    fn each_role_may_what_its_work_asks_for(#[case] role: Role, #[case] may: &[Act], #[case] may_not: &[Act]) {
        assert!(may.iter().all(|act| role.may(*act)));
        assert!(!may_not.iter().any(|act| role.may(*act)));
    }

    #[test]
    fn every_act_has_one_line_and_is_stored_by_the_word_it_is_sent_by() {
        for (place, row) in TABLE.iter().enumerate() {
            assert!(TABLE[..place].iter().all(|earlier| earlier.act != row.act), "{:?} twice", row.act);
            assert_eq!(self::row(row.act).says, row.says);
            assert!(row.may[0], "an owner may do everything");
        }
    }

    #[test]
    fn a_refusal_says_whom_to_ask() {
        assert_eq!(Act::Give.refusal(Role::Assistant), "An assistant does not give a week: ask a coach.");
        assert_eq!(Act::Erase.refusal(Role::Coach), "A coach does not erase a client: ask the owner.");
    }
}
