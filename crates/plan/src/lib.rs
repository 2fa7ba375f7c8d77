//! plan
