//! One binary for all tests of the crate that use it from outside: each more would be linked and waited for.

#![allow(clippy::unwrap_used, reason = "a test that cannot go on should stop here")]

mod command_line;
mod data;
mod https;
