//! What outside devices send: from wherever a device speaks to the sheets that the same person has open.

use serde::Serialize;
use tokio::sync::broadcast;
use utoipa::ToSchema;

/// A device of the assessment hour.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, serde::Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Device {
    /// Girths, cm.
    Tape,
    /// Breadths, cm.
    Gauge,
    /// Skinfolds, mm.
    Calipers,
    /// Body mass, kg.
    Scale,
    /// Force or load, kg.
    Dynamometer,
}

impl Device {
    /// The unit it reads in.
    pub fn unit(self) -> &'static str {
        match self {
            Self::Tape | Self::Gauge => "cm",
            Self::Calipers => "mm",
            Self::Scale | Self::Dynamometer => "kg",
        }
    }

    /// The smallest step it shows, in its unit.
    pub fn step(self) -> f64 {
        match self {
            Self::Tape | Self::Gauge | Self::Scale => 0.1,
            Self::Calipers => 0.2,
            Self::Dynamometer => 0.5,
        }
    }
}

/// What passes along the feed.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
#[serde(tag = "kind", rename_all = "kebab-case")]
pub enum Message {
    /// A sheet waits for a reading.
    Asked {
        /// With which device.
        device: Device,
        /// Of what, in words.
        label: String,
        /// About what it will be, in the device's unit, when the sheet can tell.
        expected: Option<f64>,
    },
    /// A device has read.
    Read {
        /// Which device.
        device: Device,
        /// In its unit.
        value: f64,
    },
}

/// Messages held for a slow listener before it misses some.
const HELD: usize = 64;

/// The feed of the whole practice; everyone hears their own part of it. No message is the end of it for an account.
#[derive(Clone)]
pub(crate) struct Feed(broadcast::Sender<(String, Option<Message>)>);

impl Default for Feed {
    fn default() -> Self {
        Self(broadcast::channel(HELD).0)
    }
}

impl Feed {
    /// Sends a message to everything that `account` has open.
    pub fn send(&self, account: &str, message: Message) {
        // Nobody listening is no error: the device was read with no sheet open.
        let _ = self.0.send((account.to_owned(), Some(message)));
    }

    /// Ends everything that `account` listens to.
    pub fn close(&self, account: &str) {
        let _ = self.0.send((account.to_owned(), None));
    }

    /// Listens from now on.
    pub fn listen(&self, account: &str) -> Listener {
        Listener { account: account.to_owned(), receiver: self.0.subscribe() }
    }
}

/// One listener's ear.
pub(crate) struct Listener {
    account: String,
    receiver: broadcast::Receiver<(String, Option<Message>)>,
}

impl Listener {
    /// The next message for this account; `None` when the server ends, or the account's way in.
    pub async fn next(&mut self) -> Option<Message> {
        loop {
            match self.receiver.recv().await {
                Ok((account, message)) if account == self.account => return message,
                Ok(_) | Err(broadcast::error::RecvError::Lagged(_)) => {}
                Err(broadcast::error::RecvError::Closed) => return None,
            }
        }
    }
}
