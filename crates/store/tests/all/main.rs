//! One binary for all tests of the crate that use it from outside: each more would be linked and waited for.

#![allow(clippy::unwrap_used, reason = "a test that cannot go on should stop here")]

mod doors;
mod eye;
mod given;
mod log;
mod photos;
mod practice;
mod ratings;
mod stamps;
mod support;
