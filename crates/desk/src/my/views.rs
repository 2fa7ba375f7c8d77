//! What is asked and answered of a client's own page: what is shared with them, their private links.

use crate::clients::AreaMark;
use assess::{SideVerdict, Standing};
use serde::{Deserialize, Serialize};
use store::LinkRecord;
use units::{Measures, PhotoId, RegionId, Side, SiteId};
use utoipa::ToSchema;
use vision::PhotoPose;

/// What a client's page is for, beside the week.
#[derive(Serialize, ToSchema)]
pub struct MyPage {
    /// Display name.
    pub client_name: String,
    /// The last day on which the link opens.
    pub expires_on: String,
    /// What of their verdict the coach shares.
    pub shared: SharedView,
    /// Units in which they read and log.
    pub measures: Measures,
}

/// What the coach shares; what is not shared is left out.
#[derive(Default, Serialize, ToSchema)]
pub struct SharedView {
    /// The day of the round it speaks of.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub date: Option<String>,
    /// Regions that are brought up.
    pub priorities: Vec<SharedRegion>,
    /// Where the parts of the body stand.
    pub areas: Vec<AreaMark>,
    /// Where every region stands.
    pub standings: Vec<SharedRegion>,
    /// Left against right.
    pub sides: Vec<SharedSides>,
    /// Girths and their change.
    pub girths: Vec<SharedGirth>,
    /// Pictures, newest first.
    pub photos: Vec<SharedPhoto>,
}

/// A region as the client sees it.
#[derive(Serialize, ToSchema)]
pub struct SharedRegion {
    /// The region.
    pub region: RegionId,
    /// Its name.
    pub name: String,
    /// SD; negative = behind the rest of this body.
    pub mean: f64,
    /// SD of that.
    pub sd: f64,
    /// In a word.
    pub standing: Standing,
}

/// Left against right.
#[derive(Serialize, ToSchema)]
pub struct SharedSides {
    /// The site.
    pub site: SiteId,
    /// Its name.
    pub name: String,
    /// The client's left, cm.
    pub left_cm: f64,
    /// The right, cm.
    pub right_cm: f64,
    /// Whether the difference is more than error.
    pub verdict: SideVerdict,
}

/// A girth and its change.
#[derive(Serialize, ToSchema)]
pub struct SharedGirth {
    /// The site.
    pub site: SiteId,
    /// Its name.
    pub name: String,
    /// The side at a paired site.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub side: Option<Side>,
    /// Now, cm.
    pub value_cm: f64,
    /// Since the round before, cm.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub change_cm: Option<f64>,
    /// Whether that is more than error.
    pub real: bool,
}

/// A picture the client may see.
#[derive(Serialize, ToSchema)]
pub struct SharedPhoto {
    /// Random id.
    pub id: PhotoId,
    /// The day of its round.
    pub date: String,
    /// The pose.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub pose: Option<PhotoPose>,
}

/// A private link to be made.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewLinkRequest {
    /// Days it opens, today included: 1 to 366.
    pub days: u16,
}

/// A private link.
#[derive(Serialize, ToSchema)]
pub struct LinkView {
    /// Random id, which opens nothing.
    pub id: String,
    /// Who made it.
    pub made_by: String,
    /// The day it was made.
    pub made_on: String,
    /// The last day on which it opens.
    pub expires_on: String,
    /// The day it was taken back.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub revoked_on: Option<String>,
    /// The last day it was used.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub used_on: Option<String>,
    /// The token, once, when it was made. It stands behind the `#` of the page's address, which no server sees.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub token: Option<String>,
}

impl LinkView {
    pub(super) fn of(record: &LinkRecord, token: Option<String>) -> Self {
        Self {
            id: record.id.clone(),
            made_by: record.made_by.clone(),
            made_on: record.made_on.to_string(),
            expires_on: record.expires_on.to_string(),
            revoked_on: record.revoked_on.map(|day| day.to_string()),
            used_on: record.used_on.map(|day| day.to_string()),
            token,
        }
    }
}
