//! Sign-ins that failed: each account's further tries wait longer and longer. A browser that signed in before never waits for what
//! others tried.

use crate::http::ApiError;
use actix_web::cookie::time::Duration as CookieTime;
use actix_web::cookie::{Cookie, CookieJar, Key, SameSite};
use std::collections::HashMap;
use std::sync::{Arc, Mutex, PoisonError};
use std::time::{Duration, Instant};

/// Wrong passwords before anybody waits.
const FREE: u32 = 5;
/// The longest wait.
const LONGEST: Duration = Duration::from_mins(15);
/// Logins remembered at most; those tried longest ago go first.
const REMEMBERED: usize = 10_000;

/// Failed tries by login.
#[derive(Clone, Default)]
pub(crate) struct Attempts {
    failed: Arc<Mutex<HashMap<String, Failed>>>,
}

#[derive(Clone, Copy)]
struct Failed {
    count: u32,
    last: Instant,
}

impl Failed {
    /// 2 s, 4 s, 8 s ... after the free ones.
    fn wait(self) -> Duration {
        match self.count.checked_sub(FREE) {
            None => Duration::ZERO,
            Some(more) => Duration::from_secs(2_u64.saturating_pow(more + 1)).min(LONGEST),
        }
    }
}

impl Attempts {
    /// # Errors
    /// [`ApiError::TooOften`] with the seconds until this login may be tried again.
    pub fn admit(&self, login: &str, now: Instant) -> Result<(), ApiError> {
        let failed = self.failed.lock().unwrap_or_else(PoisonError::into_inner);
        let Some(known) = failed.get(&plain(login)) else { return Ok(()) };
        let left = known.wait().saturating_sub(now.saturating_duration_since(known.last));
        if left.is_zero() { Ok(()) } else { Err(ApiError::TooOften(left.as_secs() + 1)) }
    }

    /// Notes how a try ended.
    pub fn ended(&self, login: &str, well: bool, now: Instant) {
        let mut failed = self.failed.lock().unwrap_or_else(PoisonError::into_inner);
        if well {
            failed.remove(&plain(login));
            return;
        }
        if failed.len() >= REMEMBERED {
            let oldest = failed.iter().min_by_key(|(_, failed)| failed.last).map(|(login, _)| login.clone());
            oldest.and_then(|login| failed.remove(&login));
        }
        let known = failed.entry(plain(login)).or_insert(Failed { count: 0, last: now });
        *known = Failed { count: known.count.saturating_add(1), last: now };
    }
}

/// Logins differ by more than upper and lower case.
fn plain(login: &str) -> String {
    login.trim().to_lowercase()
}

const KNOWN: &str = "orthomer-known";
const KNOWN_FOR: CookieTime = CookieTime::days(365);

/// A cookie that says that this browser signed in as an account before. It signs nobody in.
pub(crate) fn known_browser(key: &Key, account_id: &str, https: bool) -> Cookie<'static> {
    let mut jar = CookieJar::new();
    jar.signed_mut(key).add(Cookie::new(KNOWN, account_id.to_owned()));
    let value = jar.get(KNOWN).map(|cookie| cookie.value().to_owned()).unwrap_or_default();
    Cookie::build(KNOWN, value)
        .path("/api/v1/session")
        .http_only(true)
        .same_site(SameSite::Strict)
        .secure(https)
        .max_age(KNOWN_FOR)
        .finish()
}

/// Whether a browser's cookie says that it signed in as this account before.
pub(crate) fn is_known(key: &Key, cookie: Option<Cookie<'static>>, account_id: &str) -> bool {
    let mut jar = CookieJar::new();
    if let Some(cookie) = cookie {
        jar.add_original(cookie);
    }
    jar.signed(key).get(KNOWN).is_some_and(|cookie| cookie.value() == account_id)
}

pub(crate) const KNOWN_COOKIE: &str = KNOWN;

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    // By hand: five tries are free, the sixth waits 2 s after the fifth, the seventh 4 s, and nobody more than 15 min.
    #[rstest]
    #[case::the_first_five_are_free(4, 0)]
    #[case::then_two_seconds(5, 2)]
    #[case::then_four(6, 4)]
    #[case::and_on(9, 32)]
    #[case::to_a_quarter_of_an_hour(40, 900)]
    fn each_wrong_password_makes_the_next_try_wait_longer(#[case] wrong: u32, #[case] seconds: u64) {
        let (attempts, now) = (Attempts::default(), Instant::now());
        for _ in 0..wrong {
            attempts.ended("Mara", false, now);
        }
        let after = |seconds: u64| attempts.admit("mara ", now + Duration::from_secs(seconds)).is_ok();
        assert!(after(seconds) && (seconds == 0 || !after(seconds - 1)));
        assert!(attempts.admit("jo", now).is_ok());
        attempts.ended("mara", true, now);
        assert!(after(0));
    }

    #[test]
    fn a_browser_is_known_by_a_cookie_that_nobody_else_can_make() {
        let (key, other) = (Key::generate(), Key::generate());
        let cookie = |key: &Key, id: &str| Some(known_browser(key, id, false));
        assert!(is_known(&key, cookie(&key, "m"), "m"));
        assert!(!is_known(&key, cookie(&key, "j"), "m"));
        assert!(!is_known(&key, cookie(&other, "m"), "m"));
        assert!(!is_known(&key, Some(Cookie::new(KNOWN, "m")), "m"));
        assert!(!is_known(&key, None, "m"));
    }
}
