//! Laying one set of landmarks over another.

/// A similarity transform: turn, one scale for both directions, shift.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Similarity {
    /// Scale times the cosine of the turn.
    pub a: f64,
    /// Scale times the sine of the turn.
    pub b: f64,
    /// Shift to the right, px.
    pub dx: f64,
    /// Shift down, px.
    pub dy: f64,
    /// Root of the mean squared distance left between the sets, px.
    pub residual_px: f64,
}

impl Similarity {
    /// Where a point falls.
    pub fn apply(&self, (x, y): (f64, f64)) -> (f64, f64) {
        (self.a * x - self.b * y + self.dx, self.b * x + self.a * y + self.dy)
    }

    /// Its scale.
    pub fn scale(&self) -> f64 {
        self.a.hypot(self.b)
    }

    /// Its turn, degrees, clockwise in the picture positive.
    pub fn turn_deg(&self) -> f64 {
        self.b.atan2(self.a).to_degrees()
    }
}

/// The similarity that lays `from` over `to` with the least squared distances (Umeyama 1991, IEEE PAMI 13:376-380; in two
/// dimensions and without reflection it has this closed form). `None` when fewer than two points differ.
pub fn align(from: &[(f64, f64)], to: &[(f64, f64)]) -> Option<Similarity> {
    let count = from.len().min(to.len());
    if count < 2 {
        return None;
    }
    let mean = |points: &[(f64, f64)]| {
        let sum = points.iter().take(count).fold((0.0, 0.0), |sum, p| (sum.0 + p.0, sum.1 + p.1));
        (sum.0 / count as f64, sum.1 / count as f64)
    };
    let (centre, target) = (mean(from), mean(to));
    let (mut spread, mut dot, mut cross) = (0.0, 0.0, 0.0);
    for (p, q) in from.iter().zip(to) {
        let (px, py, qx, qy) = (p.0 - centre.0, p.1 - centre.1, q.0 - target.0, q.1 - target.1);
        spread += px * px + py * py;
        dot += px * qx + py * qy;
        cross += px * qy - py * qx;
    }
    if spread < 1e-12 {
        return None;
    }
    let (a, b) = (dot / spread, cross / spread);
    let (dx, dy) = (target.0 - a * centre.0 + b * centre.1, target.1 - b * centre.0 - a * centre.1);
    let moved = Similarity { a, b, dx, dy, residual_px: 0.0 };
    let squares = from.iter().zip(to).map(|(p, q)| {
        let at = moved.apply(*p);
        (at.0 - q.0).powi(2) + (at.1 - q.1).powi(2)
    });
    let residual_px = (squares.sum::<f64>() / count as f64).sqrt();
    Some(Similarity { residual_px, ..moved })
}
