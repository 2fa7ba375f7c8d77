//! One binary for all tests of the crate that use it from outside: each more would be linked and waited for.

#![allow(clippy::unwrap_used, reason = "a test that cannot go on should stop here")]

mod outside;
mod people;
mod taking;
mod uploads;
