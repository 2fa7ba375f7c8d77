//! assess
