//! A client's own page, behind a private link: what the coach shares. Their week is [`crate::log`]'s, the pictures they are asked for are
//! [`crate::photos`]'s.

mod links;
mod views;

pub use links::NewKey;
pub use views::{LinkView, MyPage, NewLinkRequest, SharedGirth, SharedPhoto, SharedRegion, SharedSides, SharedView};

use crate::clients::AreaMark;
use crate::desk::Desk;
use crate::error::DeskError;
use crate::roster::Assessor;
use assess::{Assessment, Case, Client, Knowledge, PhotoPurpose, RegionVerdict, Shared, Standing};
use store::{PhotoFile, RoundRecord, Store};
use units::{ClientId, PhotoId, RoundId};

impl Desk {
    /// What the client's page is for, beside the week; `expires_on` is the last day on which their link opens.
    pub fn my_page(&self, client_id: &ClientId, expires_on: jiff::civil::Date) -> Result<MyPage, DeskError> {
        let knowledge = &*self.knowledge();
        let client = self.store.client(&knowledge.atlas, client_id)?.client;
        let rounds = self.store.rounds(client_id)?;
        Ok(MyPage {
            client_name: client.name.clone(),
            expires_on: expires_on.to_string(),
            shared: shared(&self.store, knowledge, client_id, &client, &rounds)?,
            measures: client.measures,
        })
    }

    /// A picture of the client's own, when they agreed to be shown it.
    pub fn my_photo(&self, client_id: &ClientId, photo_id: &PhotoId) -> Result<Vec<u8>, DeskError> {
        let client = self.store.client(&self.knowledge().atlas, client_id)?.client;
        let own = self.store.photo(photo_id).and_then(|photo| self.store.round(&photo.round_id));
        let own = own.is_ok_and(|round| round.client_id == *client_id);
        if !own || !agreed_to_see(&client) {
            return Err(DeskError::NotFound("there is no such picture here".to_owned()));
        }
        Ok(self.store.photo_bytes(photo_id, PhotoFile::View)?)
    }
}

/// What the coach shares of the newest round in which something is shared; pictures only with consent to that.
fn shared(
    store: &Store,
    knowledge: &Knowledge,
    client_id: &ClientId,
    client: &Client,
    rounds: &[RoundRecord],
) -> Result<SharedView, DeskError> {
    let mut view = SharedView { photos: shared_photos(store, client_id, client, rounds)?, ..SharedView::default() };
    for round in rounds.iter().rev() {
        let case = store.case_at(&knowledge.atlas, &round.id)?;
        if case.choices.share.is_empty() {
            continue;
        }
        let assessment = Assessor::new(store, knowledge).assess(&case, client_id)?;
        view.date = Some(round.taken_on.to_string());
        fill(&mut view, knowledge, &case, &assessment);
        break;
    }
    Ok(view)
}

fn fill(view: &mut SharedView, knowledge: &Knowledge, case: &Case, assessment: &Assessment) {
    let atlas = &knowledge.atlas;
    let region = |verdict: &RegionVerdict| SharedRegion {
        region: verdict.region.clone(),
        name: atlas.region(&verdict.region).map_or_else(|| verdict.region.to_string(), |region| region.name.clone()),
        mean: verdict.bulk.mean,
        sd: verdict.bulk.sd,
        standing: verdict.standing(),
    };
    let site_name = |id: &units::SiteId| atlas.site(id).map_or_else(|| id.to_string(), |site| site.name.clone());
    for shared in &case.choices.share {
        match shared {
            Shared::Priorities => {
                let chosen = case.choices.brought_up(atlas);
                let chosen = chosen.iter().filter_map(|id| assessment.region(id));
                view.priorities = chosen.map(region).collect();
            }
            Shared::Standings => {
                let said = assessment.areas.iter().filter(|area| area.bulk.standing != Standing::Unclear);
                view.areas = said.map(|area| AreaMark::of(atlas, area)).collect();
                let told = assessment.regions.iter().filter(|verdict| verdict.standing() != Standing::Unclear);
                view.standings = told.map(region).collect();
            }
            Shared::Sides => {
                let sided = assessment.asymmetries.iter().map(|sides| SharedSides {
                    site: sides.site.clone(),
                    name: site_name(&sides.site),
                    left_cm: sides.sides_cm.left,
                    right_cm: sides.sides_cm.right,
                    verdict: sides.belief.verdict,
                });
                view.sides = sided.collect();
            }
            Shared::Girths => {
                let taped = assessment.measured.sites.iter().filter(|site| !site.carried_over);
                view.girths = taped
                    .map(|site| {
                        let same = assessment
                            .changes
                            .iter()
                            .find(|c| !c.from_pictures && c.site == site.site && c.side == site.side);
                        SharedGirth {
                            site: site.site.clone(),
                            name: site_name(&site.site),
                            side: site.side,
                            value_cm: site.value_cm,
                            change_cm: same.map(|change| change.change_cm),
                            real: same.is_some_and(|change| change.real),
                        }
                    })
                    .collect();
            }
        }
    }
}

fn agreed_to_see(client: &Client) -> bool {
    client.photo_consent.as_ref().is_some_and(|consent| consent.purposes.contains(&PhotoPurpose::SharingWithClient))
}

fn shared_photos(
    store: &Store,
    client_id: &ClientId,
    client: &Client,
    rounds: &[RoundRecord],
) -> Result<Vec<SharedPhoto>, DeskError> {
    if !agreed_to_see(client) {
        return Ok(Vec::new());
    }
    let date = |id: &RoundId| rounds.iter().find(|round| round.id == *id).map(|round| round.taken_on.to_string());
    let photos = store.client_photos(client_id)?;
    let shown = photos.iter().rev().filter_map(|photo| {
        Some(SharedPhoto { id: photo.id.clone(), date: date(&photo.round_id)?, pose: photo.shows() })
    });
    Ok(shown.collect())
}
