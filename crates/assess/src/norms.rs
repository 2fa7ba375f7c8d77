//! The reference population: moments of the logs of body dimensions per sex (Heinz et al. 2003).

use crate::input::Sex;
use nalgebra::{DMatrix, DVector};
use serde::Deserialize;
use units::SiteId;

const SHIPPED: &str = include_str!("../data/norms.json");

/// Why the shipped reference cannot be used.
#[derive(Debug, thiserror::Error)]
pub enum NormError {
    /// The file is not of its shape.
    #[error("reference norms: {0}")]
    Parse(#[from] serde_json::Error),
    /// The moments do not fit the list of sites.
    #[error("reference norms: {sex} has moments of another size than the {sites} sites")]
    Size {
        /// Which part.
        sex: &'static str,
        /// How many sites there are.
        sites: usize,
    },
}

/// Moments of one sex.
#[derive(Clone, Debug)]
pub struct SexNorms {
    /// How many people.
    pub n: usize,
    /// Mean of ln(cm) by site.
    pub mean_ln: DVector<f64>,
    /// Sample covariance (n - 1) of ln(cm).
    pub covariance_ln: DMatrix<f64>,
}

/// The reference population.
#[derive(Clone, Debug)]
pub struct Norms {
    /// In words.
    pub population: String,
    /// Where it was published.
    pub source: String,
    sites: Vec<SiteId>,
    male: SexNorms,
    female: SexNorms,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct File {
    population: String,
    source: String,
    #[serde(rename = "made_by")]
    _made_by: String,
    sites: Vec<SiteId>,
    male: Moments,
    female: Moments,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct Moments {
    n: usize,
    mean_ln: Vec<f64>,
    covariance_ln: Vec<Vec<f64>>,
}

impl Moments {
    fn resolve(self, sex: &'static str, sites: usize) -> Result<SexNorms, NormError> {
        let square = self.covariance_ln.len() == sites && self.covariance_ln.iter().all(|row| row.len() == sites);
        if self.mean_ln.len() != sites || !square {
            return Err(NormError::Size { sex, sites });
        }
        let covariance_ln = DMatrix::from_row_iterator(sites, sites, self.covariance_ln.into_iter().flatten());
        Ok(SexNorms { n: self.n, mean_ln: DVector::from_vec(self.mean_ln), covariance_ln })
    }
}

impl Norms {
    /// The site name under which the client's stature stands in the norms.
    pub const STATURE: &'static str = "stature";

    /// Reads the norms that ship with the product.
    ///
    /// # Errors
    /// [`NormError`] when the shipped file is damaged.
    pub fn load() -> Result<Self, NormError> {
        let file: File = serde_json::from_str(SHIPPED)?;
        let count = file.sites.len();
        Ok(Self {
            population: file.population,
            source: file.source,
            sites: file.sites,
            male: file.male.resolve("male", count)?,
            female: file.female.resolve("female", count)?,
        })
    }

    /// The sites in the order of the moments; the first is the stature.
    pub fn sites(&self) -> &[SiteId] {
        &self.sites
    }

    /// The moments of one sex.
    pub fn of(&self, sex: Sex) -> &SexNorms {
        match sex {
            Sex::Male => &self.male,
            Sex::Female => &self.female,
        }
    }
}
