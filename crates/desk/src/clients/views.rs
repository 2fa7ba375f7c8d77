//! Clients in lists and whole.

use assess::{AreaVerdict, Assessment, Case, Choices, SideVerdict, Standing};
use atlas::Atlas;
use casefile::{ClientEntry, UsualWeek};
use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use store::{ClientRecord, RoundRecord};
use units::{ClientId, RegionId, RoundId, Side, SiteId};
use utoipa::ToSchema;

/// A page of clients.
#[derive(Serialize, ToSchema)]
pub struct ClientPage {
    /// The clients of this page, in the order asked for.
    pub items: Vec<ClientSummary>,
    /// Every tag that somebody in the lists has.
    pub tags: Vec<String>,
    /// Parts of the body by which the list can be narrowed.
    pub parts: Vec<PartName>,
    /// Those of this page of whom what is stored cannot be read.
    pub unreadable: Vec<UnreadableClient>,
    /// How many there are in all.
    pub total: u32,
    /// This page, from 1.
    pub page: u32,
    /// Clients a page.
    pub per_page: u32,
}

/// A part of the body, by the site that mixes its muscles.
#[derive(Clone, Serialize, ToSchema)]
pub struct PartName {
    /// The site.
    pub area: SiteId,
    /// What a coach calls the part.
    pub name: String,
}

impl PartName {
    /// Every part whose size the tape tells.
    pub(crate) fn all(atlas: &Atlas) -> Vec<Self> {
        let sites = atlas.evidence().composition.keys();
        sites.map(|site| Self { area: site.clone(), name: atlas.part_name(site) }).collect()
    }
}

/// A client of whom what is stored cannot be read.
#[derive(Clone, Serialize, ToSchema)]
pub struct UnreadableClient {
    /// Random id.
    pub id: ClientId,
    /// The name as it is stored.
    pub name: String,
    /// In a sentence.
    pub says: String,
}

/// A client in a list.
#[derive(Clone, Serialize, ToSchema)]
pub struct ClientSummary {
    /// Random id.
    pub id: ClientId,
    /// Display name.
    pub name: String,
    /// Years lived.
    pub age_years: i16,
    /// The look aimed at.
    pub look: String,
    /// Training days a week.
    pub days_per_week: u8,
    /// The newest round.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub newest: Option<RoundSummary>,
    /// What it says.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub verdict: Option<VerdictSummary>,
    /// Words by which the coach finds them.
    pub tags: Vec<String>,
    /// The day agreed on for the next round.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub next_round_on: Option<String>,
    /// Whether the next round is due: agreed on and come, at the end of a block, or long after the last.
    pub due: bool,
}

/// A round in a list.
#[derive(Clone, Serialize, ToSchema)]
pub struct RoundSummary {
    /// Random id.
    pub id: RoundId,
    /// The day it was taken.
    pub date: String,
    /// Who held the tape.
    pub measured_by: String,
}

impl From<&RoundRecord> for RoundSummary {
    fn from(round: &RoundRecord) -> Self {
        Self { id: round.id.clone(), date: round.taken_on.to_string(), measured_by: round.measured_by.clone() }
    }
}

/// A round's verdict in a line.
#[derive(Clone, Serialize, ToSchema)]
pub struct VerdictSummary {
    /// The parts of the body with most to say.
    pub areas: Vec<AreaMark>,
    /// Every part of the body that is behind or leans behind.
    pub behind: Vec<SiteId>,
    /// The regions with most to say, most certain first.
    pub regions: Vec<RegionMark>,
    /// Sites whose sides differ enough to act on.
    pub leans: Vec<LeanMark>,
    /// Outside the reference.
    pub outside: bool,
    /// What is missing before sizes can be judged.
    pub missing: Vec<String>,
    /// Regions chosen to be brought up.
    pub bring_up: Vec<RegionId>,
}

/// The mark of a part of the body on the plumb line.
#[derive(Clone, Serialize, ToSchema)]
pub struct AreaMark {
    /// The site that mixes its muscles.
    pub area: SiteId,
    /// What a coach calls it.
    pub name: String,
    /// SD; negative = behind.
    pub mean: f64,
    /// SD of the mark.
    pub sd: f64,
    /// In a word.
    pub standing: Standing,
}

impl AreaMark {
    /// With the name of the part.
    pub(crate) fn of(atlas: &Atlas, area: &AreaVerdict) -> Self {
        Self {
            area: area.site.clone(),
            name: atlas.part_name(&area.site),
            mean: area.bulk.mean,
            sd: area.bulk.sd,
            standing: area.bulk.standing,
        }
    }
}

/// A region's mark on the plumb line.
#[derive(Clone, Serialize, ToSchema)]
pub struct RegionMark {
    /// The region.
    pub region: RegionId,
    /// SD; negative = behind.
    pub mean: f64,
    /// SD of the mark.
    pub sd: f64,
    /// In a word.
    pub standing: Standing,
}

/// A site that leans.
#[derive(Clone, Serialize, ToSchema)]
pub struct LeanMark {
    /// The site.
    pub site: SiteId,
    /// The larger side.
    pub larger: Side,
    /// How much larger, % of the mean.
    pub index_pct: f64,
    /// Worth acting on, or only real.
    pub verdict: SideVerdict,
}

/// How many regions a line has room for.
const REGIONS_SHOWN: usize = 3;

impl VerdictSummary {
    pub(crate) fn of(atlas: &Atlas, assessment: &Assessment, choices: &Choices) -> Self {
        let said = |standing: Standing| matches!(standing, Standing::Behind | Standing::Ahead);
        let back = |standing: Standing| matches!(standing, Standing::Behind | Standing::LeansBehind);
        let behind =
            assessment.areas.iter().filter(|area| back(area.bulk.standing)).map(|area| area.site.clone()).collect();
        let mut areas: Vec<_> = assessment.areas.iter().filter(|area| said(area.bulk.standing)).collect();
        areas.sort_by(|a, b| b.bulk.need.total_cmp(&a.bulk.need));
        areas.truncate(REGIONS_SHOWN);
        // A head whose part is told already says nothing new here.
        let told = |region: &RegionId| areas.iter().any(|area| area.heads.contains(region));
        let mut decided: Vec<_> =
            assessment.regions.iter().filter(|region| said(region.standing()) && !told(&region.region)).collect();
        decided.sort_by(|a, b| b.bulk.need.total_cmp(&a.bulk.need));
        let marks = decided.into_iter().take(REGIONS_SHOWN - areas.len()).map(|region| RegionMark {
            region: region.region.clone(),
            mean: region.bulk.mean,
            sd: region.bulk.sd,
            standing: region.standing(),
        });
        // An arm that is 0.2 % larger on the side where handedness expects 2 % on the other is more than error, and nothing to tell.
        let leans = assessment.asymmetries.iter().filter(|a| a.belief.verdict == SideVerdict::RealAct);
        Self {
            behind,
            areas: areas.into_iter().map(|area| AreaMark::of(atlas, area)).collect(),
            regions: marks.collect(),
            leans: leans
                .filter_map(|a| {
                    Some(LeanMark {
                        site: a.site.clone(),
                        larger: a.sides_cm.larger_side()?,
                        index_pct: a.symmetry_index.abs(),
                        verdict: a.belief.verdict,
                    })
                })
                .collect(),
            outside: assessment.reference.outside,
            missing: assessment.reference.missing.clone(),
            bring_up: choices.brought_up(atlas),
        }
    }
}

impl ClientSummary {
    pub(crate) fn of(
        record: &ClientRecord,
        newest: Option<&(RoundRecord, Case)>,
        verdict: Option<VerdictSummary>,
        today: Date,
    ) -> Self {
        let client = &record.client;
        Self {
            id: record.id.clone(),
            name: client.name.clone(),
            age_years: today.since((jiff::Unit::Year, client.birth_date)).map_or(0, |span| span.get_years()),
            look: client.look.to_string(),
            days_per_week: client.days_per_week,
            newest: newest.map(|(round, _)| RoundSummary::from(round)),
            verdict,
            tags: client.tags.clone(),
            next_round_on: record.next_round_on.map(|on| on.to_string()),
            due: false,
        }
    }
}

/// A client whole.
#[derive(Serialize, ToSchema)]
pub struct ClientView {
    /// Random id.
    pub id: ClientId,
    /// Grows with every save.
    pub revision: i32,
    /// The brief.
    pub brief: ClientEntry,
    /// Rounds, newest first.
    pub rounds: Vec<RoundSummary>,
    /// The day they were put away; none while they are in the lists.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub put_away_on: Option<String>,
    /// The day agreed on for the next round.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub next_round_on: Option<String>,
}

/// A day for the next round of some clients.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AgreedRound {
    /// Ids of the clients, 1 to 200.
    pub client_ids: Vec<ClientId>,
    /// `YYYY-MM-DD`; none takes back what was agreed on.
    #[serde(default)]
    pub on: Option<String>,
}

/// Whether a client is put away.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PutAway {
    /// Away, or back in the lists.
    pub away: bool,
}

/// What a client trained lately, as told.
#[derive(Serialize, ToSchema)]
pub struct UsualWeekView {
    /// Grows with every save.
    pub revision: i32,
    /// The week; none when nobody asked.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub week: Option<UsualWeek>,
    /// Fractional sets a week by region.
    pub sets_by_region: BTreeMap<RegionId, f64>,
    /// The first week with a log, `YYYY-MM-DD`: from then on the log counts, not what was told.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub logged_since: Option<String>,
    /// Fractional sets a week by region in the last four weeks of the log.
    pub logged_sets: BTreeMap<RegionId, f64>,
}

/// A usual week to be saved.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SaveUsualWeek {
    /// The revision it was read at.
    pub revision: i32,
    /// The week; left out, it is forgotten.
    #[serde(default)]
    pub week: Option<UsualWeek>,
}

/// A brief to be saved.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SaveClient {
    /// The revision it was read at.
    pub revision: i32,
    /// The brief.
    pub brief: ClientEntry,
}
