//! The body as one: how girths, breadths and stature vary together, and how much of each the muscles under it carry.

use crate::conditional::outside_limit;
use crate::norms::{Norms, SexNorms};
use crate::photographed::GirthFrom;
use crate::posterior::Prior;
use atlas::Atlas;
use nalgebra::{DMatrix, DVector};
use units::SiteId;

/// The sites that mix the muscles of one part of the body, in the order of their parts.
pub const AREA_SITES: [&str; 7] = ["shoulder", "chest", "arm-flexed", "forearm", "hip", "thigh", "calf"];

/// One part of the body: a site with what its girth is made of.
#[derive(Clone, Debug)]
pub struct Area {
    /// The site.
    pub site: SiteId,
    /// Its place in the norms.
    pub place: usize,
    /// Shares by region index; they add to 1.
    pub row: Vec<(usize, f64)>,
    /// Log growth of the girth per SD of its muscles.
    pub growth_ln: f64,
}

/// The joint model of one sex: x = ln(cm) of the sites of the norms, b the regions' bulk.
///
/// `Cov(x) = S + tau^2 m m'`, S the sample covariance and m the direction of general muscularity. Of the site's own part of S the
/// muscles carry as much as stays consistent: `Cov(x, b) = D H C` with D the conditional SD of each muscle site times s,
/// H the shares, C the prior of b, and `s^2 = min(1, 0.97 k)`, k the largest number with `S - k D H C H' D'` (at s = 1)
/// positive semidefinite.
#[derive(Clone, Debug)]
pub struct BodyModel {
    /// Moments of x over people, muscularity included.
    pub moments: SexNorms,
    /// Covariance of the regions with x: places of the state by sites.
    pub carried: DMatrix<f64>,
    /// Muscularity: log growth per unit by site.
    pub muscular: DVector<f64>,
    /// SD of its amount.
    pub muscular_sd: f64,
    /// How much of their conditional variance the muscles carry, 0 to 1.
    pub share: f64,
    /// The parts.
    pub areas: Vec<Area>,
    /// Squared distance beyond which a body is outside, by the number of values measured: each takes a search for a point of F.
    pub outside: Vec<Option<f64>>,
}

/// A client's girths and breadths as one observation: what was taped, then what pictures show.
#[derive(Clone, Debug, Default)]
pub struct TapeJoint {
    /// Places in the norms: of the tape rising, of the pictures after them.
    pub places: Vec<usize>,
    /// Observed ln(cm).
    pub x: Vec<f64>,
    /// Variance of the error of each, but for what the pictures of a day share.
    pub error_variance: Vec<f64>,
    /// The last entries, which are from pictures.
    pub pictured: Vec<PictureEntry>,
}

/// The error of an entry from pictures.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct PictureEntry {
    /// What the girth rests on.
    pub from: GirthFrom,
    /// Variance of the constant it was worked out with: the same in every round.
    pub constant_variance: f64,
    /// SD of the scale, common to all of the day.
    pub scale_sd: f64,
}

impl TapeJoint {
    /// What an entry has of pictures; `None` for the tape's.
    pub fn from_pictures(&self, entry: usize) -> Option<&PictureEntry> {
        let taped = self.places.len() - self.pictured.len();
        entry.checked_sub(taped).and_then(|index| self.pictured.get(index))
    }

    /// One word for every entry of the tape and another for those of the pictures.
    pub(crate) fn families<T: Clone>(&self, tape: T, pictures: T) -> impl Iterator<Item = T> {
        let taped = self.places.len() - self.pictured.len();
        std::iter::repeat_n(tape, taped).chain(std::iter::repeat_n(pictures, self.pictured.len()))
    }

    /// Covariance of the errors of two entries of one day.
    pub fn error(&self, i: usize, j: usize) -> f64 {
        let own = if i == j { self.error_variance[i] } else { 0.0 };
        let scale = self.from_pictures(i).zip(self.from_pictures(j)).map_or(0.0, |(a, b)| a.scale_sd * b.scale_sd);
        own + scale
    }

    /// Covariance of the errors of an entry and one of another day: the constant of a site is wrong alike in both.
    pub fn error_with(&self, i: usize, other: &Self, j: usize) -> f64 {
        let same = |(a, b): &(&PictureEntry, &PictureEntry)| a.from == b.from && self.places[i] == other.places[j];
        let both = self.from_pictures(i).zip(other.from_pictures(j)).filter(same);
        both.map_or(0.0, |(a, b)| a.constant_variance.min(b.constant_variance))
    }

    /// What was taped, without the pictures.
    pub(crate) fn taped_alone(mut self) -> Self {
        let taped = self.places.len() - self.pictured.len();
        self.places.truncate(taped);
        self.x.truncate(taped);
        self.error_variance.truncate(taped);
        self.pictured.clear();
        self
    }
}

/// What a girth is made of, by region index; `None` for sites that are made of nothing the atlas knows.
pub(crate) fn composition(atlas: &Atlas, site: &SiteId) -> Option<Vec<(usize, f64)>> {
    let shares = atlas.evidence().composition.get(site)?;
    Some(shares.iter().filter_map(|(region, share)| Some((atlas.region_index(region)?, *share))).collect())
}

impl BodyModel {
    pub(crate) fn new(atlas: &Atlas, norms: &Norms, moments: &SexNorms, prior: &Prior) -> Self {
        let sample = &moments.covariance_ln;
        let place = |site: &SiteId| norms.sites().iter().position(|known| known == site);
        let precision = sample.clone().cholesky().map(|cholesky| cholesky.inverse());
        let mut areas = Vec::new();
        for site in AREA_SITES.iter().filter_map(|id| id.parse::<SiteId>().ok()) {
            let (Some(place), Some(row), Some(precision)) = (place(&site), composition(atlas, &site), &precision)
            else {
                continue;
            };
            areas.push(Area { place, row, growth_ln: precision[(place, place)].recip().sqrt(), site });
        }
        let share = (atlas.evidence().tape_share * most_carried(sample, &areas, prior)).min(1.0);
        for area in &mut areas {
            area.growth_ln *= share.sqrt();
        }
        let mut carried = DMatrix::zeros(prior.regions.len(), sample.nrows());
        for area in &areas {
            carried.set_column(area.place, &(prior.along(&area.row) * area.growth_ln));
        }
        let settings = &atlas.evidence().muscularity;
        let mut muscular = DVector::zeros(sample.nrows());
        for (site, growth) in &settings.growth {
            if let Some(place) = place(site) {
                muscular[place] = *growth;
            }
        }
        Self {
            moments: SexNorms {
                n: moments.n,
                mean_ln: moments.mean_ln.clone(),
                covariance_ln: sample + settings.sd.powi(2) * &muscular * muscular.transpose(),
            },
            carried,
            muscular,
            muscular_sd: settings.sd,
            share,
            areas,
            outside: (0..=sample.nrows()).map(|measured| outside_limit(moments.n, measured)).collect(),
        }
    }

    /// The covariance of what was observed, errors included.
    pub fn observed_covariance(&self, tape: &TapeJoint) -> DMatrix<f64> {
        DMatrix::from_fn(tape.places.len(), tape.places.len(), |i, j| {
            self.moments.covariance_ln[(tape.places[i], tape.places[j])] + tape.error(i, j)
        })
    }

    /// Observed less what is expected of anybody of this sex, ln.
    pub fn deviation(&self, tape: &TapeJoint) -> DVector<f64> {
        DVector::from_iterator(
            tape.x.len(),
            tape.places.iter().zip(&tape.x).map(|(place, x)| x - self.moments.mean_ln[*place]),
        )
    }

    /// Amount of general muscularity and its SD, in units of the direction; 0 is the middle of the reference. `None` without tape.
    pub fn muscularity(&self, tape: &TapeJoint) -> Option<(f64, f64)> {
        if tape.places.is_empty() {
            return None;
        }
        let cholesky = self.observed_covariance(tape).cholesky()?;
        let along = DVector::from_iterator(tape.places.len(), tape.places.iter().map(|place| self.muscular[*place]));
        let variance = self.muscular_sd.powi(2);
        let solved = cholesky.solve(&along);
        let mean = variance * solved.dot(&self.deviation(tape));
        Some((mean, (variance - variance.powi(2) * solved.dot(&along)).max(0.0).sqrt()))
    }
}

/// The largest k with `S - k D H C H' D'` positive semidefinite: one over the largest eigenvalue of that against S.
fn most_carried(sample: &DMatrix<f64>, areas: &[Area], prior: &Prior) -> f64 {
    let Some(cholesky) = sample.clone().cholesky() else { return 0.0 };
    let along: Vec<DVector<f64>> = areas.iter().map(|area| prior.along(&area.row)).collect();
    let mut carried = DMatrix::zeros(sample.nrows(), sample.nrows());
    for one in areas {
        for (other, along) in areas.iter().zip(&along) {
            carried[(one.place, other.place)] = one.growth_ln * other.growth_ln * prior.dot(&one.row, along);
        }
    }
    let lower = cholesky.l();
    let Some(half) = lower.solve_lower_triangular(&carried) else { return 0.0 };
    let Some(whitened) = lower.solve_lower_triangular(&half.transpose()) else { return 0.0 };
    let largest = whitened.symmetric_eigen().eigenvalues.max();
    if largest > 0.0 { largest.recip() } else { f64::INFINITY }
}
