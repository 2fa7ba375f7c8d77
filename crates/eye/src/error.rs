//! What keeps a figure from being shown.

use booth::BoothError;

/// Why a figure cannot be made up or shown.
#[derive(Debug, thiserror::Error)]
pub enum EyeError {
    /// The reference does not say how large a site should be.
    #[error("the reference says nothing about {0}")]
    Reference(&'static str),
    /// The booth does not know a girth or a landmark of a part.
    #[error("the booth says nothing about the {0}")]
    Part(&'static str),
    /// The booth cannot draw it.
    #[error(transparent)]
    Booth(#[from] BoothError),
}
