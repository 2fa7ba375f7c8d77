//! Swelling and shrinking about a bone or about the trunk's middle, strongest at one level and smooth around it.

use crate::figure::{Figure, Posed, V3};
use units::Side;

/// Where the figure swells.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Swell {
    /// The bone chains that move; none for the trunk.
    pub chains: &'static [&'static str],
    /// The joint at 0.
    pub from: &'static str,
    /// The joint at 1.
    pub to: &'static str,
    /// Where it is strongest, between the joints.
    pub centre: f64,
    /// How far it reaches to either side.
    pub spread: f64,
}

impl Swell {
    /// Moves the skin away from the axis by a share of its distance.
    pub fn apply(&self, figure: &Figure, body: &mut Posed, side: Side, by: f64) {
        let trunk = self.chains.is_empty();
        let place = |name: &str| match name {
            "neck" | "head" => body.joint(name),
            _ => body.sided(side, name),
        };
        let (mut from, mut to) = (place(self.from), place(self.to));
        if trunk {
            let z = body.joint("spine-2").z;
            (from, to) = (V3::new(0.0, from.y, z), V3::new(0.0, to.y, z));
        }
        let share = if trunk {
            let arm = |side| figure.share(side, &["upper-arm", "forearm", "hand"]);
            arm(Side::Left).iter().zip(arm(Side::Right)).map(|(left, right)| 1.0 - left.max(right)).collect()
        } else {
            figure.share(side, self.chains)
        };
        let (bone, length) = ((to - from).normalize(), (to - from).norm());
        body.bend(&share, side, &[], |p, share| {
            let along = (p - from).dot(&bone);
            let away = (p - from) - bone * along;
            let off = (along / length - self.centre) / self.spread;
            p + away * (by * share * (-off * off).exp())
        });
    }
}
