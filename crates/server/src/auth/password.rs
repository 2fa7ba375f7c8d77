//! Passwords: a least length, argon2id hashes, verification that takes as long for unknown logins.

use argon2::Argon2;
use argon2::password_hash::phc::PasswordHash;
use argon2::password_hash::{PasswordHasher, PasswordVerifier};

/// Why a password is not taken.
#[derive(Clone, Copy, Debug, PartialEq, Eq, thiserror::Error)]
pub enum PasswordError {
    /// Too easy to guess.
    #[error("a password needs at least {MIN_CHARACTERS} characters")]
    TooShort,
    /// One of those that are tried first.
    #[error("this password is among the first that are tried: choose one that nobody else has")]
    Common,
    /// Nothing but blanks, or one character over and over.
    #[error("a password needs more than one character over and over")]
    Monotonous,
    /// Longer than anyone types.
    #[error("a password has at most {MAX_CHARACTERS} characters")]
    TooLong,
    /// The hash could not be made.
    #[error("the password could not be stored")]
    Hash,
}

/// Passwords that are tried first (from memory), those of under ten characters too: with digits after them they are long enough.
const COMMON: &str = include_str!("common-passwords.txt");

const MIN_CHARACTERS: usize = 10;
const MAX_CHARACTERS: usize = 200;

/// Verified against when the login is unknown, so that the answer takes as long; the hash of a password nobody has.
const NOBODY: &str =
    "$argon2id$v=19$m=19456,t=2,p=1$c2FsdHNhbHRzYWx0c2FsdA$kqkNJpFW3TXFsbyuEwfhTiYyAhXCsaFTpy2E6DZ3fMQ";

/// The argon2id hash of a password in PHC string format. Takes tens of milliseconds by design.
pub fn hash_password(password: &str) -> Result<String, PasswordError> {
    match password.chars().count() {
        count if count < MIN_CHARACTERS => Err(PasswordError::TooShort),
        count if count > MAX_CHARACTERS => Err(PasswordError::TooLong),
        _ if monotonous(password) => Err(PasswordError::Monotonous),
        _ if common(password) => Err(PasswordError::Common),
        _ => {
            let hash = Argon2::default().hash_password(password.as_bytes()).map_err(|_| PasswordError::Hash)?;
            Ok(hash.to_string())
        }
    }
}

fn monotonous(password: &str) -> bool {
    let mut characters = password.trim().chars();
    let first = characters.next();
    characters.all(|character| Some(character) == first)
}

/// Whether it is one of the list without its case, blanks and the digits and signs that are put at its end.
fn common(password: &str) -> bool {
    let plain: String = password.to_lowercase().chars().filter(|character| !character.is_whitespace()).collect();
    let bare = plain.trim_end_matches(|character: char| !character.is_alphabetic());
    COMMON.lines().any(|known| known == plain || (!bare.is_empty() && known == bare))
}

/// Whether `password` is the one behind `hash`; with no hash, false after the same work.
pub(crate) fn verify_password(password: &str, hash: Option<&str>) -> bool {
    let Ok(parsed) = PasswordHash::new(hash.unwrap_or(NOBODY)) else { return false };
    let matches = Argon2::default().verify_password(password.as_bytes(), &parsed).is_ok();
    matches && hash.is_some()
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[test]
    fn a_password_verifies_against_its_own_hash_only() {
        let hash = hash_password("correct horse").unwrap();
        assert!(verify_password("correct horse", Some(&hash)));
        assert!(!verify_password("correct house", Some(&hash)));
        assert!(!verify_password("correct horse", None));
        assert!(hash.starts_with("$argon2id$"));
    }

    #[test]
    fn an_unknown_login_costs_the_same_work() {
        assert!(PasswordHash::new(NOBODY).is_ok(), "or verification would return at once");
    }

    #[rstest]
    #[case::short("123456789", PasswordError::TooShort)]
    #[case::among_the_first_tried("1234567890", PasswordError::Common)]
    #[case::among_them_with_a_year("Password2026!", PasswordError::Common)]
    #[case::blanks("            ", PasswordError::Monotonous)]
    #[case::one_key_held_down("aaaaaaaaaaaa", PasswordError::Monotonous)]
    fn a_password_that_is_easy_to_guess_is_refused(#[case] password: &str, #[case] why: PasswordError) {
        assert_eq!(hash_password(password), Err(why));
    }
}
