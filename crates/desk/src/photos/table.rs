//! The light table of a round: every picture of the client, what can be asked, what was judged; how pictures lie over each other.

use super::{
    AskedAgain, LightTable, OutlineView, OverView, PhotoRound, PhotoView, PracticePairs, RatingView, RoundGirths,
    UnseenGirth,
};
use crate::desk::Desk;
use crate::error::DeskError;
use assess::{Knowledge, pictured_sites};
use casefile::PicturedEntry;
use lighttable::{Pictured, girths, lay_over, questions, spoilt, width_changes};
use std::collections::HashSet;
use store::{Account, PhotoFile, PhotoRecord, Store};
use units::{PhotoId, PoseId, RoundId, SiteId};
use vision::{Plane, contours};

impl Desk {
    /// The light table of a round, as one of the coaches sees it.
    pub fn light_table(&self, round_id: &RoundId, who: &Account) -> Result<LightTable, DeskError> {
        light_table(self, &self.knowledge(), who, round_id)
    }

    /// The outline of the person in a picture, with the coach's strokes; none while nobody has looked.
    pub fn outline(&self, photo_id: &PhotoId) -> Result<OutlineView, DeskError> {
        let record = self.store.photo(photo_id)?;
        let seen = record.found.is_some();
        Ok(OutlineView { lines: if seen { outline_of(&self.store, &record)? } else { Vec::new() } })
    }

    /// How a picture lies over another one, and what changed between the two.
    pub fn over(&self, photo_id: &PhotoId, onto_id: &PhotoId) -> Result<OverView, DeskError> {
        let (from, onto) = (self.store.photo(photo_id)?, self.store.photo(onto_id)?);
        let apart =
            || DeskError::NotFound("these two pictures share too few landmarks to be laid over each other".to_owned());
        let (Some(then), Some(now)) = (&from.measured, &onto.measured) else { return Err(apart()) };
        let laid = lay_over((then, from.distance_m), (now, onto.distance_m)).ok_or_else(apart)?;
        let repeatability_pct = self.knowledge().atlas.evidence().width_repeatability_pct;
        Ok(OverView { laid, widths: width_changes(then, now, repeatability_pct) })
    }

    /// One of a picture's files, through its row: a picture taken from the database is gone at once.
    pub fn photo_file(&self, photo_id: &PhotoId, file: PhotoFile) -> Result<Vec<u8>, DeskError> {
        let photo = self.store.photo(photo_id)?;
        Ok(self.store.photo_bytes(&photo.id, file)?)
    }
}

fn light_table(desk: &Desk, knowledge: &Knowledge, who: &Account, round_id: &RoundId) -> Result<LightTable, DeskError> {
    let store = &desk.store;
    let round = store.round(round_id)?;
    let client = store.client(&knowledge.atlas, &round.client_id)?.client;
    let photos = store.client_photos(&round.client_id)?;
    let own = photos.iter().filter(|photo| photo.round_id == *round_id);
    let mut poses: Vec<PoseId> = own.filter_map(|photo| photo.shows()?.id().parse().ok()).collect();
    poses.sort_unstable();
    poses.dedup();
    let counting: HashSet<PhotoId> = store::counting(&photos).into_iter().map(|photo| photo.id.clone()).collect();
    let of_round = |id: &RoundId| -> Vec<PhotoView> {
        let own = photos.iter().filter(|photo| photo.round_id == *id).cloned();
        own.map(|record| {
            let counts = counting.contains(&record.id);
            PhotoView::of(&knowledge.atlas, &desk.frames, record, counts)
        })
        .collect()
    };
    let counts = |photo: &&PhotoRecord| photo.round_id == *round_id && counting.contains(&photo.id);
    let spoils = |photo: &PhotoRecord| photo.measured.as_ref().filter(|photo| photo.person).and_then(spoilt);
    let spoilt = photos.iter().filter(counts).filter_map(spoils).collect();
    let rounds = store.rounds(&round.client_id)?;
    let rounds = rounds.iter().map(|round| PhotoRound {
        round_id: round.id.clone(),
        date: round.taken_on.to_string(),
        photos: of_round(&round.id),
    });
    let ratings = store.client_ratings(&round.client_id, &who.id)?;
    Ok(LightTable {
        refusal: client.may_be_photographed(round.taken_on).err().map(|why| why.to_string()),
        rounds: rounds.collect(),
        questions: questions(&knowledge.atlas, &poses),
        ratings: ratings.into_iter().map(RatingView::from).collect(),
        girths: round_girths(desk, knowledge, round_id, &photos)?,
        spoilt,
        asked: store.asked_again(round_id)?.into_iter().map(AskedAgain::from).collect(),
        set_up: store.camera_set_up(&round.client_id)?,
    })
}

fn round_girths(
    desk: &Desk,
    knowledge: &Knowledge,
    round_id: &RoundId,
    photos: &[PhotoRecord],
) -> Result<RoundGirths, DeskError> {
    let own: Vec<PhotoRecord> = photos.iter().filter(|photo| photo.round_id == *round_id).cloned().collect();
    let counting = store::counting(&own);
    let pictures = counting
        .iter()
        .filter_map(|record| Some(Pictured { photo: record.measured.as_ref()?, mirrored: record.mirrored }));
    let pictures: Vec<Pictured<'_>> = pictures.collect();
    let mut missing = if pictures.is_empty() { Vec::new() } else { girths(&desk.shapes, &pictures).missing };
    let case = desk.store.case_at(&knowledge.atlas, round_id)?;
    // As they are taped, head to foot.
    let place = |site: &SiteId| knowledge.atlas.sites().iter().position(|known| known.id == *site);
    missing.sort_by_key(|unseen| place(&unseen.site));
    let mut seen = pictured_sites(&knowledge.atlas, &case.rounds, case.rounds.len().saturating_sub(1));
    seen.sort_by_key(|girth| place(&girth.site));
    let most = desk.store.girth_constants()?.into_values().max_by_key(|constant| constant.pairs);
    Ok(RoundGirths {
        bodies: desk.shapes.bodies,
        practice: most.map(|most| PracticePairs { pairs: most.pairs, clients: most.clients }),
        sites: seen.iter().map(PicturedEntry::from).collect(),
        missing: missing.into_iter().map(|unseen| UnseenGirth { site: unseen.site, why: unseen.why }).collect(),
    })
}

/// The outline of the person in a picture that was looked at, with the coach's strokes: closed lines, px of the view.
pub(crate) fn outline_of(store: &Store, record: &PhotoRecord) -> Result<Vec<Vec<[f64; 2]>>, DeskError> {
    let png = store.photo_bytes(&record.id, PhotoFile::Mask)?;
    let mask = Plane::from_png(&png).map_err(DeskError::internal)?;
    Ok(contours(&mask.with_strokes(&record.moved.strokes)))
}
