//! What can be wrong with an upload, in sentences.

/// Why an upload is no picture to work with.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
pub enum PhotoError {
    /// Another kind of file.
    #[error("this is not a JPEG, PNG or WebP picture{0}")]
    NotAPicture(&'static str),
    /// The phone's own format.
    #[error(
        "this is a HEIC picture, which browsers cannot show: on the phone choose \"most compatible\" in the camera's settings, or export it as JPEG"
    )]
    Heic,
    /// More than one picture in a file.
    #[error("this is an animation: send one still picture")]
    Animated,
    /// Printing colours.
    #[error("this JPEG is in CMYK, the colours of a printing press: export it as RGB")]
    Cmyk,
    /// More bits than a screen shows.
    #[error("this picture has 16 bits a colour: export it with 8")]
    SixteenBit,
    /// Too many pixels.
    #[error("this picture has {width} x {height} pixels; at most {MAX} megapixels are taken in", MAX = crate::MAX_MEGAPIXELS)]
    TooLarge {
        /// Across.
        width: u64,
        /// Down.
        height: u64,
    },
    /// Too many bytes.
    #[error("this file has more than {MAX} MB; at most that is taken in", MAX = crate::MAX_BYTES / 1_000_000)]
    TooHeavy,
    /// Too few pixels.
    #[error("this picture has {width} x {height} pixels; the shorter side needs at least 200")]
    TooSmall {
        /// Across.
        width: u64,
        /// Down.
        height: u64,
    },
    /// Cut off or broken.
    #[error("this picture is damaged or was cut off on the way: {0}")]
    Damaged(String),
    /// The pose model that ships with the program does not load.
    #[error("the pose model does not load: {0}")]
    Model(String),
}

/// Why nobody was measured.
#[derive(Clone, Copy, Debug, PartialEq, Eq, thiserror::Error)]
pub enum NoPerson {
    /// Nothing like a person.
    #[error("nobody was found in the picture: mark the outline by hand or take it again before a plain wall")]
    Nobody,
    /// More than one.
    #[error("two people are in the picture: crop it to one")]
    Two,
}
