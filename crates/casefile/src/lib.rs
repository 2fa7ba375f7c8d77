//! casefile
