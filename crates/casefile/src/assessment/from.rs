//! From the core's assessment to its file.

use super::{
    AreaEntry, AssessmentFile, AsymmetryEntry, BulkEntry, CauseEntry, ChangeEntry, CompositionEntry, ConflictEntry,
    CorrectedEntry, EstimateEntry, FlagEntry, FoldEntry, HangEntry, MuscularityEntry, NextEntry, ObservationEntry,
    PicturedEntry, PieceEntry, ReferenceEntry, RegionEntry, SchoolSizeEntry, SideEntry, SidesDisagreeEntry,
    SidesPriorEntry, SizedEntry, StrengthSidesEntry, TapeJointEntry, VoiceEntry,
};
use crate::warning::warnings;
use assess::{
    AreaVerdict, Assessment, AsymmetryVerdict, Case, Cause, Change, Class, Conflict, CorrectedSides, Flag, Hang,
    Knowledge, MeasuredFold, NextLook, Observation, PicturedSite, Piece, PieceOf, Reference, RegionVerdict, SchoolSize,
    StrengthAsymmetry, TapeJoint, Target, asymmetry_verdict, bulk_verdict,
};
use std::collections::BTreeMap;

/// The file of an assessment.
pub fn assessment_file(knowledge: &Knowledge, case: &Case, assessment: &Assessment, explain: bool) -> AssessmentFile {
    let regions = assessment.regions.iter().zip(&assessment.classes);
    AssessmentFile {
        format: "orthomer-assessment".to_owned(),
        version: 1,
        as_of: case.as_of.to_string(),
        round: case.rounds.last().map(|round| round.date.to_string()),
        sites: assessment.measured.sites.clone(),
        pictured: assessment.pictured.iter().map(PicturedEntry::from).collect(),
        asymmetries: asymmetries(assessment),
        reference: reference(knowledge, &assessment.reference),
        regions: regions
            .map(|(verdict, class)| region(knowledge, &assessment.tape, verdict, *class, explain))
            .collect(),
        areas: assessment.areas.iter().map(|verdict| area(knowledge, case, verdict)).collect(),
        muscularity: assessment.muscularity.map(|(mean, sd)| MuscularityEntry { mean, sd }),
        skinfolds: assessment.folds.sites.iter().map(fold).collect(),
        strength: assessment.strength.iter().map(strength).collect(),
        hang: assessment.hang.map(hang),
        schools: assessment.schools.iter().map(school).collect(),
        composition: composition(assessment),
        changes: assessment.changes.iter().map(change).collect(),
        flags: assessment.flags.iter().map(flag).collect(),
        training_known: assessment.training_known,
        next: assessment.next.iter().map(NextEntry::from).collect(),
        warnings: warnings(knowledge, case, &assessment.reference),
        observations: explain.then(|| assessment.observations.iter().map(|o| observation(knowledge, o)).collect()),
        offsets: explain.then(|| offsets(knowledge, assessment)),
        tape_joint: explain.then(|| tape_joint(knowledge, case, assessment)),
        prior_b: explain.then(|| rows(knowledge.evidence().prior_bulk().1)),
        prior_a: explain.then(|| sides_prior(knowledge, case)),
    }
}

fn area(knowledge: &Knowledge, case: &Case, verdict: &AreaVerdict) -> AreaEntry {
    let AreaVerdict { site, heads, bulk, .. } = verdict;
    AreaEntry {
        area: site.clone(),
        name: knowledge.atlas.part_name(site),
        mean: bulk.mean,
        sd: bulk.sd,
        p_behind: bulk.p_behind,
        p_ahead: bulk.p_ahead,
        verdict: bulk.standing,
        heads: heads.clone(),
        bring_up: case.choices.areas.contains(site),
    }
}

fn rows(matrix: &nalgebra::DMatrix<f64>) -> Vec<Vec<f64>> {
    matrix.row_iter().map(|row| row.iter().copied().collect()).collect()
}

fn offsets(knowledge: &Knowledge, assessment: &Assessment) -> BTreeMap<String, f64> {
    let sittings = assessment.observations.iter().filter_map(|observation| observation.sitting.clone());
    sittings.map(|sitting| (sitting, knowledge.evidence().sitting_variance())).collect()
}

fn tape_joint(knowledge: &Knowledge, case: &Case, assessment: &Assessment) -> TapeJointEntry {
    let (body, tape) = (knowledge.evidence().body(case.client.sex), &assessment.tape);
    let cross = body.carried.row_iter().map(|row| tape.places.iter().map(|place| row[*place]).collect());
    TapeJointEntry {
        sites: tape.places.iter().map(|place| knowledge.norms.sites()[*place].clone()).collect(),
        from_pictures: tape.pictured.len(),
        x: tape.x.clone(),
        mu: tape.places.iter().map(|place| body.moments.mean_ln[*place]).collect(),
        covariance: rows(&body.observed_covariance(tape)),
        cross: cross.collect(),
    }
}

fn sides_prior(knowledge: &Knowledge, case: &Case) -> SidesPriorEntry {
    let (regions, mean, covariance) = knowledge.evidence().prior_asymmetry(case.client.dominant_hand);
    SidesPriorEntry {
        regions: regions.iter().map(|region| knowledge.atlas.regions()[*region].id.clone()).collect(),
        mean: mean.iter().copied().collect(),
        covariance: rows(covariance),
    }
}

fn asymmetries(assessment: &Assessment) -> Vec<AsymmetryEntry> {
    let each = assessment.asymmetries.iter().map(|a| AsymmetryEntry {
        site: a.site.clone(),
        left_cm: a.sides_cm.left,
        right_cm: a.sides_cm.right,
        difference_cm: a.difference_cm,
        se_cm: a.se_cm,
        symmetry_index: a.symmetry_index,
        se_index: a.se_index,
        symmetry_angle: a.symmetry_angle,
        verdict: a.belief.verdict,
        p_beyond_threshold: a.belief.p_beyond_threshold,
        dominance_explains: a.dominance_explains,
        corrected: a.corrected.map(corrected),
        fat_explains: a.fat_explains,
    });
    each.collect()
}

fn reference(knowledge: &Knowledge, reference: &Reference) -> ReferenceEntry {
    let sites = reference.sites.iter().map(|site| SizedEntry {
        site: site.site.clone(),
        observed_cm: site.observed_cm,
        expected_cm: site.size.expected_cm,
        sd_ln: site.size.sd_ln,
        z: site.size.z,
        predictors: site.predictors.clone(),
    });
    ReferenceEntry {
        population: knowledge.norms.population.clone(),
        source: knowledge.norms.source.clone(),
        n: reference.n,
        mahalanobis2: reference.mahalanobis2,
        df: reference.df,
        outside: reference.outside,
        sites: sites.collect(),
        missing: reference.missing.clone(),
    }
}

fn region(
    knowledge: &Knowledge,
    joint: &TapeJoint,
    verdict: &RegionVerdict,
    class: Class,
    explain: bool,
) -> RegionEntry {
    let (overruled, because) = verdict.overruled.clone().unzip();
    let bulk = &verdict.bulk;
    RegionEntry {
        region: verdict.region.clone(),
        look_weight: verdict.look_weight,
        bulk: BulkEntry {
            mean: bulk.mean,
            sd: bulk.sd,
            p_behind: bulk.p_behind,
            p_ahead: bulk.p_ahead,
            verdict: bulk.standing,
            need: bulk.need,
        },
        asymmetry: verdict.asymmetry.map(side),
        class,
        conflict: verdict.conflicts.iter().map(conflict).collect(),
        sides_disagree: verdict.sides_disagree.map(|d| SidesDisagreeEntry { smaller: d.smaller, weaker: d.weaker }),
        causes: verdict.causes.iter().map(cause).collect(),
        evidence: explain
            .then(|| verdict.pieces.iter().map(|p| piece(knowledge, joint, p, verdict.look_weight)).collect()),
        overruled,
        overruled_because: because,
    }
}

fn side(verdict: AsymmetryVerdict) -> SideEntry {
    SideEntry {
        mean: verdict.mean,
        sd: verdict.sd,
        p_left_smaller: verdict.p_left_smaller,
        p_right_smaller: verdict.p_right_smaller,
        verdict: verdict.tilt,
    }
}

impl From<&PicturedSite> for PicturedEntry {
    fn from(site: &PicturedSite) -> Self {
        Self {
            site: site.site.clone(),
            side: site.side,
            cm: site.value_cm,
            error_pct: site.error_pct,
            change_error_pct: site.change_error_pct,
            from: site.from,
            pairs: site.pairs,
            tape_cm: site.tape_cm,
        }
    }
}

impl From<&NextLook> for NextEntry {
    fn from(look: &NextLook) -> Self {
        Self {
            what: look.what.clone(),
            kind: look.kind.to_owned(),
            site: look.site.clone(),
            region: look.region.clone(),
            exercise: look.exercise.clone(),
            gain: look.gain,
            minutes: look.minutes,
        }
    }
}

fn observation(knowledge: &Knowledge, observation: &Observation) -> ObservationEntry {
    let half = match observation.target {
        Target::Bulk => 'b',
        Target::Asymmetry => 'a',
    };
    let regions = knowledge.atlas.regions();
    let row = observation.row.iter().map(|(index, weight)| (format!("{half}:{}", regions[*index].id), *weight));
    ObservationEntry {
        kind: observation.kind.as_str().to_owned(),
        source: observation.source.clone(),
        y: observation.y,
        variance: observation.variance,
        row: row.collect(),
        offset: observation.sitting.clone(),
    }
}

fn about(target: Target) -> String {
    match target {
        Target::Bulk => "size",
        Target::Asymmetry => "sides",
    }
    .to_owned()
}

fn fold(fold: &MeasuredFold) -> FoldEntry {
    FoldEntry {
        site: fold.site.clone(),
        side: fold.side,
        value_mm: fold.value_mm,
        se_mm: fold.se_mm,
        readings: fold.readings,
        needs_third: fold.needs_third,
    }
}

fn corrected(corrected: CorrectedSides) -> CorrectedEntry {
    CorrectedEntry {
        left_cm: corrected.sides_cm.left,
        right_cm: corrected.sides_cm.right,
        left_area_cm2: corrected.area_cm2.left,
        right_area_cm2: corrected.area_cm2.right,
        muscle_cm2: corrected.muscle_cm2,
        symmetry_index: corrected.symmetry_index,
        se_index: corrected.se_index,
    }
}

fn strength(strength: &StrengthAsymmetry) -> StrengthSidesEntry {
    StrengthSidesEntry {
        exercise: strength.exercise.clone(),
        regions: strength.regions.clone(),
        one_rep_max_kg: strength.one_rep_max_kg,
        symmetry_index: strength.symmetry_index,
        se_index: strength.se_index,
        verdict: strength.verdict,
        dominance_explains: strength.dominance_explains,
    }
}

fn hang(hang: Hang) -> HangEntry {
    HangEntry {
        seconds: hang.seconds,
        good_average_s: Hang::GOOD_AVERAGE_S,
        tired_aim_s: Hang::TIRED_AIM_S,
        short: hang.short,
    }
}

fn school(size: &SchoolSize) -> SchoolSizeEntry {
    SchoolSizeEntry {
        school: size.school,
        site: size.site.clone(),
        observed_cm: size.observed_cm,
        expected_cm: size.expected_cm,
        z: size.z,
    }
}

fn composition(assessment: &Assessment) -> CompositionEntry {
    let estimates = assessment.composition.estimates.iter().map(|e| EstimateEntry {
        quantity: e.quantity,
        equation: e.equation.to_owned(),
        value: e.value,
        se: e.se,
    });
    CompositionEntry { estimates: estimates.collect(), missing: assessment.composition.missing.clone() }
}

fn change(change: &Change) -> ChangeEntry {
    ChangeEntry {
        site: change.site.clone(),
        side: change.side,
        since: change.since.to_string(),
        before_cm: change.before_cm,
        change_cm: change.change_cm,
        mdc95_cm: change.mdc95_cm,
        real: change.real,
        slope: change.slope,
        from_pictures: change.from_pictures,
    }
}

fn flag(flag: &Flag) -> FlagEntry {
    FlagEntry { kind: flag.kind, says: flag.says.clone(), refer: flag.refer }
}

fn conflict(conflict: &Conflict) -> ConflictEntry {
    ConflictEntry {
        about: about(conflict.target),
        kinds: conflict.kinds.map(|(kind, estimate)| VoiceEntry { kind: kind.to_owned(), estimate }).into(),
        joint_sd: conflict.joint_sd,
    }
}

fn cause(cause: &Cause) -> CauseEntry {
    CauseEntry {
        cause: cause.id.to_owned(),
        name: cause.name.clone(),
        seen: cause.seen.clone(),
        advice: cause.advice.clone(),
    }
}

fn piece(knowledge: &Knowledge, joint: &TapeJoint, piece: &Piece, look_weight: f64) -> PieceEntry {
    let settings = knowledge.atlas.evidence();
    let without = (piece.mean_without, piece.sd_without);
    let (verdict_without, tilt_without) = match piece.target {
        Target::Bulk => (Some(bulk_verdict(settings, without, look_weight).standing), None),
        Target::Asymmetry => (None, Some(asymmetry_verdict(settings, without).tilt)),
    };
    let (observation, site) = match piece.of {
        PieceOf::Row(row) => (Some(row), None),
        PieceOf::Site(site) => (None, joint.places.get(site).map(|place| knowledge.norms.sites()[*place].clone())),
    };
    let from_pictures = matches!(piece.of, PieceOf::Site(site) if joint.from_pictures(site).is_some());
    PieceEntry {
        observation,
        site,
        from_pictures,
        about: about(piece.target),
        weight: piece.weight,
        mean_without: piece.mean_without,
        sd_without: piece.sd_without,
        verdict_without,
        tilt_without,
    }
}
