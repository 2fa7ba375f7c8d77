//! One binary for all tests of the crate that use it from outside: each more would be linked and waited for.

#![allow(clippy::unwrap_used, reason = "a test that cannot go on should stop here")]

mod against_numpy;
mod beside_girths;
mod cases;
mod hour;
mod pictures;
mod properties;
mod schools_and_agreement;
