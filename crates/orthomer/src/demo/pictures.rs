//! Pictures of the demo's clients, drawn by the stand-in camera while the practice is already served.

use crate::demo::COACH;
use crate::demo::stories;
use desk::Desk;
use store::Page;
use units::RoundId;
use vision::PhotoPose;

/// Everyone is photographed relaxed from four sides.
const RELAXED: [PhotoPose; 4] = [PhotoPose::F, PhotoPose::B, PhotoPose::SL, PhotoPose::SR];
/// Those who pose hold more in their newest two rounds.
const FLEXED: [PhotoPose; 3] = [PhotoPose::FDB, PhotoPose::BDB, PhotoPose::BLS];
const POSING: [&str; 2] = ["Bram Quillan", "Rune Castellan"];

/// One picture to be taken.
struct Due {
    round_id: RoundId,
    pose: PhotoPose,
}

/// Draws them one after another: front and back of every newest round first, so that something can be seen at once.
pub fn draw(desk: &Desk) -> Result<(), String> {
    for due in dues(desk)? {
        desk.stand_in(&due.round_id, due.pose, COACH).map_err(|error| error.to_string())?;
    }
    Ok(())
}

fn dues(desk: &Desk) -> Result<Vec<Due>, String> {
    let said = |error: store::StoreError| error.to_string();
    let mut dues: Vec<(usize, Due)> = Vec::new();
    for story in stories::stories() {
        let page = Page { number: 1, size: 1 };
        let (found, _) = desk.store.clients(&desk.knowledge().atlas, Some(story.name), page).map_err(said)?;
        let Some(client) = found.first() else { continue };
        for (age, round) in desk.store.rounds(&client.id).map_err(said)?.iter().rev().enumerate() {
            let due = |pose: PhotoPose| Due { round_id: round.id.clone(), pose };
            let relaxed = RELAXED.iter().enumerate();
            dues.extend(relaxed.map(|(place, pose)| (place / 2 * 2 + age, due(*pose))));
            if age < 2 && POSING.contains(&story.name) {
                dues.extend(FLEXED.iter().map(|pose| (3 + age, due(*pose))));
            }
        }
    }
    dues.sort_by_key(|(turn, _)| *turn);
    Ok(dues.into_iter().map(|(_, due)| due).collect())
}
