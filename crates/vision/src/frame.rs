//! The person's own upright frame: heights along the midline, and what the mask shows across it.

use crate::plane::Plane;

/// A place across the midline: where the mask begins and ends, px to the right of the midline in the picture.
pub(crate) type Run = (f64, f64);

/// The midline from between the ankles upwards.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Frame {
    /// Between the ankles, px.
    pub origin: (f64, f64),
    /// Upwards along the midline, of length 1.
    pub up: (f64, f64),
}

impl Frame {
    /// The frame from between the ankles to the middle of the neck.
    pub fn new(ankles: (f64, f64), neck: (f64, f64)) -> Option<Self> {
        let (dx, dy) = (neck.0 - ankles.0, neck.1 - ankles.1);
        let length = dx.hypot(dy);
        (length > 1.0).then(|| Self { origin: ankles, up: (dx / length, dy / length) })
    }

    /// A place in the picture from one to the right of the midline at a height.
    pub fn place(&self, right: f64, high: f64) -> (f64, f64) {
        let (x, y) = self.origin;
        (x + self.up.0 * high - self.up.1 * right, y + self.up.1 * high + self.up.0 * right)
    }

    /// Right of the midline and height of a place in the picture.
    pub fn back(&self, (x, y): (f64, f64)) -> (f64, f64) {
        let (dx, dy) = (x - self.origin.0, y - self.origin.1);
        (-dx * self.up.1 + dy * self.up.0, dx * self.up.0 + dy * self.up.1)
    }

    /// How far the midline leans from the picture's vertical, degrees; to the right positive.
    pub fn lean_deg(&self) -> f64 {
        self.up.0.atan2(-self.up.1).to_degrees()
    }

    /// Runs of the mask across the midline at a height.
    pub fn runs(&self, mask: &Plane, high: f64) -> Vec<Run> {
        // Past the picture's edges there is nothing to find.
        let middle = self.place(0.0, high).0;
        let reach = middle.max(mask.width as f64 - middle) + 2.0;
        runs(|right| mask.at_pair(self.place(right, high)), -reach, reach)
    }
}

impl Plane {
    pub(crate) fn at_pair(&self, (x, y): (f64, f64)) -> f64 {
        self.at(x, y)
    }
}

/// Where a line is inside the mask, with ends between its steps of one pixel.
pub(crate) fn runs(along: impl Fn(f64) -> f64, from: f64, to: f64) -> Vec<Run> {
    let mut found = Vec::new();
    let (mut place, mut before) = (from, along(from));
    let mut began = (before >= 0.5).then_some(from);
    while place < to {
        let next = place + 1.0;
        let value = along(next);
        if (before < 0.5) != (value < 0.5) {
            let edge = place + (0.5 - before) / (value - before);
            match began.take() {
                None => began = Some(edge),
                Some(start) => found.push((start, edge)),
            }
        }
        (place, before) = (next, value);
    }
    found
}
