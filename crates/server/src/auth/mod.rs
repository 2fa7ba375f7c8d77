//! Who is signed in: passwords, sessions kept on the server, and the guard before every other route.

mod acts;
mod attempts;
mod factor;
mod guard;
mod link;
mod password;
mod session_store;

pub(crate) use acts::{Doer, Noted, allowed, note};
pub(crate) use attempts::{Attempts, KNOWN_COOKIE, is_known, known_browser};
pub(crate) use factor::{address as factor_address, new_secret, recovery_codes, recovery_hash, step as factor_step};
pub(crate) use guard::{Opened, SignedIn, open_session, require_sign_in, sign_in_limit};
pub(crate) use link::{LinkedClient, new_key, require_link};
pub(crate) use password::verify_password;
pub use password::{PasswordError, hash_password};
pub(crate) use session_store::{SESSION_COOKIES, cookie_key, middleware, told};
