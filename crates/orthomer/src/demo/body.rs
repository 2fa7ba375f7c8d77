//! A made-up body: what the reference expects at a stature, bent by a story, read twice with a tape that scatters.

use crate::demo::stories::{Factor, RoundStory, Story};
use crate::failure::Failure;
use assess::{Client, Knowledge, Norms, TapeMeasure};
use rand::rngs::StdRng;
use rand::{RngExt, SeedableRng};
use units::{Length, Side, SiteId};

/// Sites the reference lacks, as a share of one it has (common practice, no source: only for made-up people).
const SHARES: [(&str, &str, f64); 2] = [("arm-relaxed", "arm-flexed", 0.93), ("mid-thigh", "thigh", 0.91)];
/// Bones are measured once.
const BREADTHS: [&str; 3] = ["biacromial", "elbow-breadth", "knee-breadth"];
/// Largest scatter of a reading to either side, share of the value.
const SCATTER: f64 = 0.004;

/// The tape of one round. The same seed gives the same readings.
pub fn tape(
    knowledge: &Knowledge,
    client: &Client,
    story: &Story,
    round: &RoundStory,
    seed: u64,
) -> Result<Vec<TapeMeasure>, Failure> {
    let mut scatter = StdRng::seed_from_u64(seed);
    let mut measures = Vec::new();
    for site in knowledge.atlas.sites() {
        let id = site.id.as_str();
        let wanted = story.sites.is_none_or(|sites| sites.contains(&id));
        let breadth_again = BREADTHS.contains(&id) && round.weeks_ago != story.rounds[0].weeks_ago;
        let Some(expected_cm) = expected_cm(knowledge, client, &site.id).filter(|_| wanted && !breadth_again) else {
            continue;
        };
        let sides = if site.paired { vec![Some(Side::Left), Some(Side::Right)] } else { vec![None] };
        for side in sides {
            let cm = expected_cm * factor(story.factors, id, side) * factor(round.factors, id, side);
            let disagree = round.disagree.is_some_and(|(place, at)| place == id && Some(at) == side);
            let readings = readings(&mut scatter, cm, disagree)?;
            measures.push(TapeMeasure { site: site.id.clone(), side, readings });
        }
    }
    Ok(measures)
}

fn readings(scatter: &mut StdRng, cm: f64, disagree: bool) -> Result<Vec<Length>, Failure> {
    let mut read = |shift: f64| {
        let reading = cm * (1.0 + shift + scatter.random_range(-SCATTER..SCATTER));
        Length::from_cm((reading * 10.0).round() / 10.0).map_err(Failure::other)
    };
    Ok(vec![read(0.0)?, read(if disagree { 0.025 } else { 0.0 })?])
}

fn factor(factors: &[Factor], site: &str, side: Option<Side>) -> f64 {
    let own = factors.iter().filter(|(place, at, _)| *place == site && (at.is_none() || *at == side));
    own.map(|(_, _, factor)| factor).product()
}

/// What the reference expects of a site at the client's stature, cm.
fn expected_cm(knowledge: &Knowledge, client: &Client, site: &SiteId) -> Option<f64> {
    if let Some((_, of, share)) = SHARES.iter().find(|(id, ..)| *id == site.as_str()) {
        return of.parse().ok().and_then(|of| expected_cm(knowledge, client, &of)).map(|cm| cm * share);
    }
    if site.as_str() == "neck" {
        return expected_cm(knowledge, client, &"chest".parse().ok()?).map(|chest| chest * 0.375);
    }
    let place = |name: &str| knowledge.norms.sites().iter().position(|s| s.as_str() == name);
    let (index, stature) = (place(site.as_str())?, place(Norms::STATURE)?);
    let norms = knowledge.norms.of(client.sex);
    let slope = norms.covariance_ln[(index, stature)] / norms.covariance_ln[(stature, stature)];
    Some((norms.mean_ln[index] + slope * (client.height.cm().ln() - norms.mean_ln[stature])).exp())
}
