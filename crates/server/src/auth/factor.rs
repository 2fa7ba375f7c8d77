//! The second factor: six digits that change every half minute (RFC 6238), and codes for when the phone is lost.

use rand::RngExt;
use sha2::{Digest, Sha256};
use store::Factor;
use totp_rs::{Builder, Secret, Totp};

/// 160 bits, as RFC 4226 advises.
const SECRET_BYTES: usize = 20;
const RECOVERY_CODES: usize = 10;
/// Letters and digits that are not mistaken for each other.
const LETTERS: &[u8] = b"abcdefghjkmnpqrstuvwxyz23456789";
/// Of a recovery code: 119 bits, so that its hash needs no salt.
const CODE_LETTERS: usize = 24;

/// A new secret, base32.
pub(crate) fn new_secret() -> String {
    let bytes: [u8; SECRET_BYTES] = rand::rng().random();
    Secret::new(bytes.to_vec().into()).to_base32()
}

fn totp(secret: &str, login: &str) -> Option<Totp> {
    let secret = Secret::try_from_base32(secret).ok()?;
    // A colon would end the issuer in the address.
    let builder = Builder::new().with_secret(secret).with_account_name(login.replace(':', " "));
    builder.with_issuer(Some("Orthomer")).build().ok()
}

/// The address that a phone's authenticator reads.
pub(crate) fn address(secret: &str, login: &str) -> Option<String> {
    totp(secret, login)?.to_url().ok()
}

/// The step of time a code is of, one step early or late allowed; `None` when it is no code of this moment, or was used before.
pub(crate) fn step(factor: &Factor, code: &str, now_s: u64) -> Option<i64> {
    let digits: String = code.chars().filter(|letter| !letter.is_whitespace()).collect();
    let step = totp(&factor.secret, "account")?.check(&digits, now_s)?;
    i64::try_from(step).ok().filter(|step| *step > factor.last_step)
}

/// New recovery codes, in groups of four.
pub(crate) fn recovery_codes() -> Vec<String> {
    let mut dice = rand::rng();
    let mut letter = || char::from(LETTERS[dice.random_range(0..LETTERS.len())]);
    let mut code = || (0..CODE_LETTERS).map(|_| letter()).collect::<Vec<char>>();
    let grouped = |code: Vec<char>| code.chunks(4).map(String::from_iter).collect::<Vec<_>>().join("-");
    (0..RECOVERY_CODES).map(|_| grouped(code())).collect()
}

/// A recovery code's hash, however it was typed.
pub(crate) fn recovery_hash(code: &str) -> String {
    let plain: String = code.to_lowercase().chars().filter(char::is_ascii_alphanumeric).collect();
    hex::encode(Sha256::digest(plain.as_bytes()))
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    /// "12345678901234567890" of the RFC, base32.
    const RFC_SECRET: &str = "GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ";

    // RFC 6238, appendix B, SHA1: the last six of its eight digits are the code of six.
    #[rstest]
    #[case(59, "287082")]
    #[case(1_111_111_109, "081804")]
    #[case(1_111_111_111, "050471")]
    #[case(1_234_567_890, "005924")]
    #[case(2_000_000_000, "279037")]
    #[case(20_000_000_000, "353130")]
    fn codes_are_those_of_the_rfc(#[case] at: u64, #[case] code: &str) {
        let factor = |last_step| Factor { secret: RFC_SECRET.to_owned(), last_step };
        let now = i64::try_from(at / 30).unwrap();
        assert_eq!(step(&factor(0), code, at), Some(now));
        assert_eq!(step(&factor(0), code, at + 30), Some(now), "half a minute late");
        assert_eq!(step(&factor(0), code, at + 90), None, "a minute and a half late");
        assert_eq!(step(&factor(now), code, at), None, "used before");
        assert_eq!(step(&factor(0), "000000", at), None);
    }

    #[test]
    fn a_recovery_code_is_known_however_it_was_typed() {
        let codes = recovery_codes();
        assert_eq!(codes.len(), 10);
        let typed = codes[0].to_uppercase().replace('-', " ");
        assert_eq!(recovery_hash(&typed), recovery_hash(&codes[0]));
        assert_ne!(recovery_hash(&codes[1]), recovery_hash(&codes[0]));
    }

    #[test]
    fn the_address_names_program_and_login() {
        let address = address(&new_secret(), "ma:ra").unwrap();
        assert!(address.starts_with("otpauth://totp/Orthomer:ma%20ra?") && address.contains("secret="), "{address}");
    }
}
