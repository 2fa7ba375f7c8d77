//! One binary for all tests of the crate that use it from outside: each more would be linked and waited for.

#![allow(clippy::unwrap_used, reason = "a test that cannot go on should stop here")]

mod api;
mod cards;
mod eye;
mod far_away;
mod hour;
mod leaving;
mod levers;
mod photos;
mod plans;
mod roles;
mod roster;
mod support;
mod training;
