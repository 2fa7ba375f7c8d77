//! HTTPS by the program itself: the certificate and its key from files.

use super::ServeError;
use rustls::ServerConfig;
use rustls::crypto::ring::default_provider;
use rustls::pki_types::pem::PemObject;
use rustls::pki_types::{CertificateDer, PrivateKeyDer};
use std::path::{Path, PathBuf};
use std::sync::Arc;

/// Where certificate and key are.
#[derive(Clone, Debug)]
pub struct Certificate {
    /// The certificate and those that vouch for it, PEM.
    pub chain: PathBuf,
    /// Its private key, PEM.
    pub key: PathBuf,
}

impl Certificate {
    /// What the server speaks with.
    ///
    /// # Errors
    /// [`ServeError::Certificate`] with a sentence when a file cannot be read or the two do not belong together.
    pub(crate) fn config(&self) -> Result<ServerConfig, ServeError> {
        let wrong = |path: &Path, why: String| ServeError::Certificate { path: path.to_owned(), why };
        let chain: Vec<CertificateDer> = CertificateDer::pem_file_iter(&self.chain)
            .and_then(Iterator::collect)
            .map_err(|error| wrong(&self.chain, error.to_string()))?;
        if chain.is_empty() {
            return Err(wrong(&self.chain, "there is no certificate in it".to_owned()));
        }
        let key = PrivateKeyDer::from_pem_file(&self.key).map_err(|error| wrong(&self.key, error.to_string()))?;
        let config = ServerConfig::builder_with_provider(Arc::new(default_provider()))
            .with_safe_default_protocol_versions()
            .map_err(|error| wrong(&self.chain, error.to_string()))?;
        config.with_no_client_auth().with_single_cert(chain, key).map_err(|error| wrong(&self.key, error.to_string()))
    }
}
