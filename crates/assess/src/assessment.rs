//! Puts a case together into one assessment.

use crate::body::{Area, TapeJoint};
use crate::causes::{LONG_WEEKS, Question, causes};
use crate::change::{Change, changes};
use crate::class::{Class, classify};
use crate::composition::{Composition, composition};
use crate::corrected::corrected_sides;
use crate::evidence::{Evidence, SizeEvidence, settled};
use crate::flags::{Flag, flags};
use crate::folds::Folds;
use crate::hang::{Hang, hang};
use crate::input::{Case, Client};
use crate::measured::{Measurements, measure_round};
use crate::measurer::MeasurerErrors;
use crate::next_look::{Looks, NextLook, NextLookSearch};
use crate::norms::{NormError, Norms};
use crate::observe::{Observation, Target, observations};
use crate::pictures::{PicturedSite, pictured_sites};
use crate::pieces::{Piece, Voices, pieces};
use crate::posterior::Posterior;
use crate::reference::{Reference, SizedSite, all_taped, observed_ln, reference, shows_frame};
use crate::sizing::{Roster, SchoolSize, SizingSchool, ratio_sizes};
use crate::strength_sides::{StrengthAsymmetry, strength_asymmetries};
use crate::symmetry::{Asymmetry, SideVerdict, asymmetry};
use crate::training::Recent;
use crate::verdict::{AreaVerdict, RegionVerdict, SidesDisagree, asymmetry_verdict, bulk_verdict};
use atlas::{Atlas, AtlasError, PracticeSettings};
use rayon::prelude::*;
use units::{ExerciseId, RegionId, SiteId};

/// Why the core cannot start.
#[derive(Debug, thiserror::Error)]
pub enum AssessError {
    /// The atlas is unusable.
    #[error(transparent)]
    Atlas(#[from] AtlasError),
    /// The reference is unusable.
    #[error(transparent)]
    Norms(#[from] NormError),
}

/// Everything that is the same for all clients: atlas, reference and priors.
#[derive(Clone, Debug)]
pub struct Knowledge {
    /// The atlas.
    pub atlas: Atlas,
    /// The reference population.
    pub norms: Norms,
    evidence: Evidence,
}

impl Knowledge {
    /// Reads what ships with the product.
    ///
    /// # Errors
    /// [`AssessError`] when a shipped file is damaged.
    pub fn load() -> Result<Self, AssessError> {
        let atlas = Atlas::load()?;
        let norms = Norms::load()?;
        let evidence = Evidence::new(&atlas, &norms);
        Ok(Self { atlas, norms, evidence })
    }

    /// The same knowledge as a practice has set it.
    pub fn with_practice(&self, practice: &PracticeSettings) -> Self {
        let atlas = self.atlas.with_practice(practice);
        let evidence = Evidence::new(&atlas, &self.norms);
        Self { atlas, norms: self.norms.clone(), evidence }
    }

    /// The model that weighs evidence.
    pub fn evidence(&self) -> &Evidence {
        &self.evidence
    }
}

/// The verdict on a client.
#[derive(Clone, Debug)]
pub struct Assessment {
    /// Values with errors.
    pub measured: Measurements,
    /// Left against right by site.
    pub asymmetries: Vec<Asymmetry>,
    /// Skinfolds with errors.
    pub folds: Folds,
    /// Strength, left against right.
    pub strength: Vec<StrengthAsymmetry>,
    /// Against the reference.
    pub reference: Reference,
    /// The timed hang, when it was taken.
    pub hang: Option<Hang>,
    /// Sizes by other schools.
    pub schools: Vec<SchoolSize>,
    /// Fat, muscle and lean mass.
    pub composition: Composition,
    /// Since the round before.
    pub changes: Vec<Change>,
    /// What to look at before training anything.
    pub flags: Vec<Flag>,
    /// Whether the last weeks' training is known; without it no cause is sought there.
    pub training_known: bool,
    /// Every region, in the order of the atlas.
    pub regions: Vec<RegionVerdict>,
    /// The parts of the body, in their order.
    pub areas: Vec<AreaVerdict>,
    /// Amount of general muscularity beyond the middle of the reference, with its SD; none without tape.
    pub muscularity: Option<(f64, f64)>,
    /// Training class by region, in the same order.
    pub classes: Vec<Class>,
    /// What to look at next.
    pub next: Vec<NextLook>,
    /// The side-by-side tests that would tell most.
    pub next_tests: Vec<NextLook>,
    /// What was taped and what pictures show, as one observation.
    pub tape: TapeJoint,
    /// Girths from the newest round's pictures.
    pub pictured: Vec<PicturedSite>,
    /// The rows behind it beside the tape's sizes.
    pub observations: Vec<Observation>,
}

impl Assessment {
    /// Whether anything at all speaks about this body.
    pub fn has_evidence(&self) -> bool {
        !self.tape.places.is_empty() || !self.observations.is_empty()
    }

    /// The verdict on one region.
    pub fn region(&self, id: &RegionId) -> Option<&RegionVerdict> {
        self.regions.iter().find(|r| r.region == *id)
    }
}

/// Assesses the newest round of a case.
pub fn assess(knowledge: &Knowledge, case: &Case) -> Assessment {
    assess_beside(knowledge, case, &Roster::default())
}

/// Assesses many cases side by side, on as many processors as there are, and keeps of each what `keep` makes of it.
pub fn assess_each<T: Send>(
    knowledge: &Knowledge,
    cases: &[&Case],
    keep: impl Fn(&Case, Assessment) -> T + Sync,
) -> Vec<T> {
    cases.par_iter().map(|case| keep(case, assess(knowledge, case))).collect()
}

/// Assesses the newest round of a case, with the coach's own roster for the school that judges size by it.
pub fn assess_beside(knowledge: &Knowledge, case: &Case, roster: &Roster) -> Assessment {
    let atlas = &knowledge.atlas;
    let errors = MeasurerErrors::learn(atlas, &case.rounds);
    let measured = measure_round(atlas, &case.rounds, &errors);
    let Some(newest) = case.rounds.last() else {
        return weighed(knowledge, case, Facts { measured, ..Facts::default() });
    };
    let folds = Folds::measure(atlas, newest, &errors);
    let asymmetries = corrected_asymmetries(atlas, &measured, &folds, &case.client);
    let pictured = pictured_sites(atlas, &case.rounds, case.rounds.len() - 1);
    let reference = reference(knowledge, &case.client, &measured, &pictured);
    let strength = strength_asymmetries(atlas, &case.client, newest);
    let composition = composition(atlas, &case.client, newest, &measured, &folds);
    let schools = school_sizes(knowledge, &case.client, &measured, &reference, roster);
    let sizes = judged_sizes(atlas, &case.client, &schools);
    let facts = Facts {
        observations: observations(atlas, newest, &sizes, &asymmetries, &strength),
        changes: changes(atlas, &case.rounds, &measured, &errors),
        flags: flags(atlas, case, &errors, &asymmetries, &strength, &composition),
        folds,
        asymmetries,
        strength,
        reference,
        tape: judged_joint(knowledge, case, &measured),
        pictured,
        schools,
        composition,
        measured,
    };
    weighed(knowledge, case, facts)
}

/// What follows from the round alone, before the evidence is weighed.
#[derive(Default)]
struct Facts {
    measured: Measurements,
    folds: Folds,
    asymmetries: Vec<Asymmetry>,
    strength: Vec<StrengthAsymmetry>,
    reference: Reference,
    schools: Vec<SchoolSize>,
    composition: Composition,
    changes: Vec<Change>,
    flags: Vec<Flag>,
    tape: TapeJoint,
    pictured: Vec<PicturedSite>,
    observations: Vec<Observation>,
}

fn weighed(knowledge: &Knowledge, case: &Case, facts: Facts) -> Assessment {
    let (atlas, evidence) = (&knowledge.atlas, &knowledge.evidence);
    let (sex, hand) = (case.client.sex, case.client.dominant_hand);
    let sized = SizeEvidence { sex, tape: &facts.tape, rows: &facts.observations };
    let (of_size, of_sides) = (evidence.bulk_stack(sized), evidence.sides_stack(hand, &facts.observations));
    let (sizes, sides, rows) = (evidence.bulk_prior(), evidence.sides_prior(hand), &facts.observations);
    let state = State {
        voices: [
            Voices::of(sizes, &of_size, &facts.tape, Target::Bulk, rows),
            Voices::of(sides, &of_sides, &TapeJoint::default(), Target::Asymmetry, rows),
        ],
        bulk: settled(sizes, of_size),
        sides: settled(sides, of_sides),
        weights: look_weights(atlas, &case.client),
    };
    let (recent, long) = (Recent::of(atlas, case), Recent::since(atlas, case, LONG_WEEKS));
    let regions = region_verdicts(knowledge, case, &facts, &state, [recent.as_ref(), long.as_ref()]);
    let tested: Vec<&ExerciseId> = facts.strength.iter().map(|s| &s.exercise).collect();
    let next = NextLookSearch {
        knowledge,
        case,
        sized,
        bulk: &state.bulk,
        sides: &state.sides,
        weights: &state.weights,
        measured: &facts.measured,
        waiting: &waiting(knowledge, case, &facts),
        tested: &tested,
    };
    let Looks { best, tests } = next.looks();
    Assessment {
        next_tests: tests,
        next: best,
        classes: atlas
            .regions()
            .iter()
            .zip(&regions)
            .map(|(region, verdict)| classify(region, verdict, &case.choices))
            .collect(),
        hang: case.rounds.last().and_then(hang),
        areas: area_verdicts(knowledge, case, &state),
        muscularity: evidence.body(sex).muscularity(&facts.tape),
        regions,
        training_known: recent.is_some(),
        measured: facts.measured,
        folds: facts.folds,
        asymmetries: facts.asymmetries,
        strength: facts.strength,
        reference: facts.reference,
        schools: facts.schools,
        composition: facts.composition,
        changes: facts.changes,
        flags: facts.flags,
        tape: facts.tape,
        pictured: facts.pictured,
        observations: facts.observations,
    }
}

/// The state after the evidence, each kind's own voice, and the look's weight by region index.
struct State {
    bulk: Posterior,
    sides: Posterior,
    voices: [Voices; 2],
    weights: Vec<f64>,
}

/// Left against right of every paired site with both sides.
pub(crate) fn asymmetries_of(atlas: &Atlas, measured: &Measurements, client: &Client) -> Vec<Asymmetry> {
    let paired = atlas.sites().iter().filter(|site| site.paired);
    let compared = paired.filter_map(|site| measured.sides(&site.id));
    compared.map(|sides| asymmetry(atlas, &sides, client.dominant_hand)).collect()
}

fn corrected_asymmetries(atlas: &Atlas, measured: &Measurements, folds: &Folds, client: &Client) -> Vec<Asymmetry> {
    let corrected = |a: Asymmetry| {
        let sides = corrected_sides(atlas, measured, folds, client.sex, &a.site);
        a.corrected_by(atlas.evidence(), sides)
    };
    asymmetries_of(atlas, measured, client).into_iter().map(corrected).collect()
}

/// The weight of every region: the coach's change, else the look's, times what the schools say.
fn look_weights(atlas: &Atlas, client: &Client) -> Vec<f64> {
    let look = atlas.look(&client.look);
    let options: Vec<_> = atlas.school_options(&client.schools).filter(|o| !o.region_weights.is_empty()).collect();
    let of = |id: &RegionId| {
        let own = client.look_weights.get(id).copied();
        let schools: f64 = options.iter().map(|option| option.weight_factor(id)).product();
        own.unwrap_or_else(|| look.map_or(1.0, |look| look.weight(id))) * schools
    };
    atlas.regions().iter().map(|region| of(&region.id)).collect()
}

/// `training` is the last four weeks and the longer look back, when known.
fn region_verdicts(
    knowledge: &Knowledge,
    case: &Case,
    facts: &Facts,
    state: &State,
    training: [Option<&Recent>; 2],
) -> Vec<RegionVerdict> {
    let atlas = &knowledge.atlas;
    let [recent, long] = training;
    let moments = &knowledge.evidence().body(case.client.sex).moments;
    let site_sd: Vec<f64> =
        facts.tape.places.iter().map(|place| moments.covariance_ln[(*place, *place)].sqrt()).collect();
    let pieces = pieces(&state.bulk, &state.sides, &site_sd, &facts.observations, atlas.regions().len());
    let verdict = |((index, region), pieces): ((usize, &atlas::Region), Vec<Piece>)| {
        let mut verdict = judged_region(knowledge, case, state, index, region)?;
        verdict.pieces = pieces;
        verdict.sides_disagree = sides_disagree(atlas, facts, &region.id);
        let question = Question { atlas, case, region, verdict: &verdict, recent, long, changes: &facts.changes };
        verdict.causes = causes(&question);
        Some(verdict)
    };
    atlas.regions().iter().enumerate().zip(pieces).filter_map(verdict).collect()
}

fn judged_region(
    knowledge: &Knowledge,
    case: &Case,
    state: &State,
    index: usize,
    region: &atlas::Region,
) -> Option<RegionVerdict> {
    let settings = knowledge.atlas.evidence();
    let overruled = case.choices.overrides.iter().find(|o| o.region == region.id);
    let conflicts = state.voices.iter();
    let conflict = |v: &Voices| v.conflict(index, settings.conflict_joint_sd);
    Some(RegionVerdict {
        region: region.id.clone(),
        look_weight: state.weights[index],
        bulk: bulk_verdict(settings, state.bulk.of(index)?, state.weights[index]),
        asymmetry: state.sides.of(index).map(|moments| asymmetry_verdict(settings, moments)),
        overruled: overruled.map(|o| (o.verdict, o.reason.clone())),
        conflicts: conflicts.filter_map(conflict).collect(),
        sides_disagree: None,
        causes: Vec::new(),
        pieces: Vec::new(),
    })
}

/// Each part of the body by the share-weighted mean of its regions.
fn area_verdicts(knowledge: &Knowledge, case: &Case, state: &State) -> Vec<AreaVerdict> {
    let (atlas, body) = (&knowledge.atlas, knowledge.evidence().body(case.client.sex));
    let verdict = |area: &Area| {
        let look_weight = area.row.iter().map(|(region, share)| share * state.weights[*region]).sum();
        let heads = atlas.regions().iter().filter(|region| region.area.as_ref() == Some(&area.site));
        AreaVerdict {
            site: area.site.clone(),
            heads: heads.map(|region| region.id.clone()).collect(),
            look_weight,
            bulk: bulk_verdict(atlas.evidence(), state.bulk.along(&area.row), look_weight),
        }
    };
    body.areas.iter().map(verdict).collect()
}

/// Girths over muscle that wait for something of the bones.
fn waiting(knowledge: &Knowledge, case: &Case, facts: &Facts) -> TapeJoint {
    let body = knowledge.evidence().body(case.client.sex);
    let judges = sizing(&knowledge.atlas, &case.client).is_none_or(|school| school == "rest-of-body");
    if !facts.tape.places.is_empty() || !judges {
        return TapeJoint::default();
    }
    let taped = all_taped(knowledge, &case.client, &facts.measured);
    let muscle = body.areas.iter().any(|area| taped.places.contains(&area.place));
    if muscle { taped } else { TapeJoint::default() }
}

/// Which side is smaller by girth and which weaker by strength, when both are more than error and they are not the same.
fn sides_disagree(atlas: &Atlas, facts: &Facts, region: &RegionId) -> Option<SidesDisagree> {
    let composition = &atlas.evidence().composition;
    let feeds = |a: &&Asymmetry| {
        a.belief.verdict != SideVerdict::WithinError
            && !a.fat_explains
            && composition.get(&a.site).is_some_and(|row| row.contains_key(region))
    };
    let smaller = facts.asymmetries.iter().find(feeds)?.sides_cm.larger_side()?.other();
    let test = facts.strength.iter().find(|s| s.regions.contains(region))?;
    let weaker = test.weaker()?;
    (smaller != weaker).then_some(SidesDisagree { smaller, weaker })
}

/// Sizes by other schools: frame ratios, silhouette, and the coach's roster when that is the chosen school.
fn school_sizes(
    knowledge: &Knowledge,
    client: &Client,
    measured: &Measurements,
    reference: &Reference,
    roster: &Roster,
) -> Vec<SchoolSize> {
    let observed = observed_ln(knowledge, client, measured);
    let own = |sized: &SizedSite| {
        let of = knowledge.norms.sites().iter().position(|site| *site == sized.site)?;
        let error = measured.overall(&sized.site)?.error_variance_ln;
        let size = roster.size(client.sex, &observed, of, error)?;
        Some(SchoolSize {
            school: SizingSchool::OwnRoster,
            site: sized.site.clone(),
            observed_cm: sized.observed_cm,
            expected_cm: size.expected_cm,
            z: Some(size.z),
        })
    };
    let ratios = ratio_sizes(&knowledge.atlas, &knowledge.norms, client, measured);
    ratios.into_iter().chain(reference.sites.iter().filter_map(own)).collect()
}

/// The school a client's size is judged by.
fn sizing<'a>(atlas: &'a Atlas, client: &Client) -> Option<&'a str> {
    atlas.school_option(&client.schools, "sizing").map(|option| option.id.as_str())
}

/// What was taped and what the newest round's pictures show, where size is judged by the rest of the body; nothing without anything
/// of the frame, against which muscles are set.
fn judged_joint(knowledge: &Knowledge, case: &Case, measured: &Measurements) -> TapeJoint {
    if sizing(&knowledge.atlas, &case.client).is_some_and(|school| school != "rest-of-body") {
        return TapeJoint::default();
    }
    let newest = case.rounds.len().saturating_sub(1);
    let joint = all_taped(knowledge, &case.client, measured).with_pictures(knowledge, case, newest, &[newest]);
    if shows_frame(knowledge, &joint) { joint } else { TapeJoint::default() }
}

/// Sizes against the practice's own clients, where they judge. Ratios of the frame are shown and never a verdict: by them
/// ordinary people are behind everywhere.
fn judged_sizes(atlas: &Atlas, client: &Client, schools: &[SchoolSize]) -> Vec<(SiteId, f64)> {
    if sizing(atlas, client) != Some("own-roster") {
        return Vec::new();
    }
    let own = schools.iter().filter(|size| size.school == SizingSchool::OwnRoster);
    own.filter_map(|size| Some((size.site.clone(), size.z?))).collect()
}
