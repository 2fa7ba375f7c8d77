//! Ratings asked again, blind and mirrored, to learn how well a coach agrees with themselves.

/// Days a rating rests before it is asked again: long enough to be forgotten among many (common practice, no source).
pub const MIN_REST_DAYS: i32 = 7;

/// A rating that was given.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Asked {
    /// What tells it from others, such as its place in storage.
    pub key: String,
    /// Days since it was given.
    pub days_ago: i32,
    /// Whether it was asked again already.
    pub repeated: bool,
}

/// A rating to be asked again.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Repeat {
    /// Which.
    pub key: String,
    /// Whether the picture is shown mirrored.
    pub mirrored: bool,
}

/// Up to `count` ratings to ask again, in an order and with a mirroring that look random and are the same every time.
pub fn repeats(asked: &[Asked], count: usize) -> Vec<Repeat> {
    let mut due: Vec<(u64, &Asked)> = asked
        .iter()
        .filter(|rating| !rating.repeated && rating.days_ago >= MIN_REST_DAYS)
        .map(|rating| (scattered(&rating.key), rating))
        .collect();
    due.sort_by_key(|(order, _)| *order);
    let chosen = due.into_iter().take(count);
    chosen.map(|(order, rating)| Repeat { key: rating.key.clone(), mirrored: order & 1 == 0 }).collect()
}

/// What a left-right answer means when the picture was shown mirrored, or not.
pub fn unmirrored(left_right: i8, mirrored: bool) -> i8 {
    if mirrored { -left_right } else { left_right }
}

/// A number that hangs on every letter of a text (FNV-1a, then mixed).
fn scattered(text: &str) -> u64 {
    let hash = text
        .bytes()
        .fold(0xcbf2_9ce4_8422_2325_u64, |hash, byte| (hash ^ u64::from(byte)).wrapping_mul(0x0100_0000_01b3));
    let mixed = (hash ^ (hash >> 33)).wrapping_mul(0xff51_afd7_ed55_8ccd);
    mixed ^ (mixed >> 33)
}
