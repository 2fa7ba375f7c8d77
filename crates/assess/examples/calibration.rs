//! How often the words are right: clients made from people of the open data with lags that are known, judged by the core.
//!
//!     cargo run --release -p assess --example calibration -- 2000
//!
//! Each person keeps their frame and the part of every girth that the model does not lay to its muscles; what it does lay to
//! them is drawn anew, so that it is known. Then they are taped and rated with the errors of the settings. Prints the tables of
//! `docs/accuracy.md`.

use assess::{
    Assessment, BodyModel, Calibration, Case, Choices, Client, GirthFrom, Hand, Knowledge, Moved, PictureGirth, Rating,
    RatingJudgement, Round, Sex, Standing, TapeMeasure, Words, assess, moves,
};
use casefile::CaseFile;
use jiff::civil::{Date, date};
use nalgebra::{DMatrix, DVector};
use rand::rngs::StdRng;
use rand::{RngExt, SeedableRng};
use statrs::distribution::{ContinuousCDF, Normal};
use std::collections::BTreeMap;
use std::path::PathBuf;
use units::{Length, Side};

const PARTS: usize = 7;
const FIRST: Date = date(2026, 3, 2);
const SECOND: Date = date(2026, 5, 25);

type Failure = Box<dyn std::error::Error>;

/// Whoever is not what a line is about: brief and days of the example.
const EXAMPLE: &str = include_str!("../../../docs/examples/case.json");

/// People of one sex with what is needed to make clients of them.
struct People<'a> {
    knowledge: &'a Knowledge,
    client: Client,
    body: &'a BodyModel,
    /// ln cm.
    bodies: Vec<DVector<f64>>,
    muscle: Vec<usize>,
    rest: Vec<usize>,
    /// Regression of the muscle sites on the rest.
    regression: DMatrix<f64>,
    /// What of their residual is not laid to the muscles.
    kept: DMatrix<f64>,
    /// Shares by part and region.
    shares: DMatrix<f64>,
    /// Square root of the prior of b.
    half_prior: DMatrix<f64>,
    mean: DVector<f64>,
}

fn half(matrix: &DMatrix<f64>, power: f64) -> DMatrix<f64> {
    let mut eigen = matrix.clone().symmetric_eigen();
    eigen.eigenvalues.apply(|value| *value = if *value > 1e-12 { value.powf(power) } else { 0.0 });
    eigen.recompose()
}

fn picked(matrix: &DMatrix<f64>, rows: &[usize], columns: &[usize]) -> DMatrix<f64> {
    DMatrix::from_fn(rows.len(), columns.len(), |i, j| matrix[(rows[i], columns[j])])
}

impl<'a> People<'a> {
    fn new(knowledge: &'a Knowledge, sex: Sex, name: &str) -> Result<Self, Failure> {
        let file = CaseFile::parse(EXAMPLE).map_err(|problems| format!("{problems:?}"))?;
        let example = file.resolve(&knowledge.atlas).map_err(|problems| format!("{problems:?}"))?.client;
        let client = Client { sex, schools: BTreeMap::new(), look_weights: BTreeMap::new(), ..example };
        let body = knowledge.evidence().body(sex);
        let path = PathBuf::from(env!("CARGO_MANIFEST_DIR")).join(format!("../../reference/fixtures/bdims_{name}.csv"));
        let mut reader = csv::Reader::from_path(path)?;
        let rows = reader.deserialize::<Vec<f64>>();
        let bodies = rows.map(|row| Ok(DVector::from_vec(row?.into_iter().map(f64::ln).collect())));
        let bodies = bodies.collect::<Result<Vec<_>, Failure>>()?;
        let norms = knowledge.norms.of(sex);
        let muscle: Vec<usize> = body.areas.iter().map(|area| area.place).collect();
        let rest: Vec<usize> = (0..norms.mean_ln.len()).filter(|site| !muscle.contains(site)).collect();
        let s = &norms.covariance_ln;
        let regression = picked(s, &muscle, &rest)
            * picked(s, &rest, &rest).try_inverse().ok_or("the moments are not of full rank")?;
        let residual = picked(s, &muscle, &muscle) - &regression * picked(s, &rest, &muscle);
        let prior = knowledge.evidence().prior_bulk().1;
        let shares = DMatrix::from_fn(PARTS, prior.nrows(), |part, region| {
            body.areas[part].row.iter().find(|(r, _)| *r == region).map_or(0.0, |(_, share)| *share)
        });
        let growth = DMatrix::from_diagonal(&DVector::from_iterator(PARTS, body.areas.iter().map(|a| a.growth_ln)));
        let carried = &growth * &shares * prior * shares.transpose() * &growth;
        let kept = half(&(&residual - carried), 0.5) * half(&residual, -0.5);
        Ok(Self {
            half_prior: half(prior, 0.5),
            mean: norms.mean_ln.clone(),
            knowledge,
            client,
            body,
            bodies,
            muscle,
            rest,
            regression,
            kept,
            shares,
        })
    }

    /// A person with the given bulk of their regions and amount of muscularity, ln cm.
    fn made(&self, person: usize, bulk: &DVector<f64>, muscularity: f64) -> DVector<f64> {
        let mut x = self.bodies[person % self.bodies.len()].clone();
        let deviation = &x - &self.mean;
        let rest = DVector::from_iterator(self.rest.len(), self.rest.iter().map(|site| deviation[*site]));
        let expected = &self.regression * rest;
        let residual = DVector::from_iterator(PARTS, self.muscle.iter().map(|site| deviation[*site])) - &expected;
        let parts = &self.shares * bulk;
        let kept = &self.kept * residual;
        for (part, site) in self.muscle.iter().enumerate() {
            x[*site] = self.mean[*site] + expected[part] + kept[part] + self.body.areas[part].growth_ln * parts[part];
        }
        x + &self.body.muscular * muscularity
    }
}

struct Dice(StdRng);

impl Dice {
    fn normal(&mut self) -> f64 {
        let uniform: f64 = self.0.random_range(1e-12..1.0);
        Normal::standard().inverse_cdf(uniform)
    }

    fn bulk(&mut self, people: &People) -> DVector<f64> {
        let draws = DVector::from_fn(people.half_prior.nrows(), |_, _| self.normal());
        &people.half_prior * draws
    }
}

/// How a client is looked at.
#[derive(Clone, Copy)]
struct Look {
    /// Whether every region is rated.
    rated: bool,
    /// What this day's ratings are off together, SD.
    harsh: f64,
    /// Whether every day has an offset of its own.
    moods: bool,
    /// Reading error, %; the settings' default when none.
    reading_pct: Option<f64>,
    /// Left minus right of the arms is drawn, %.
    sided: bool,
    /// What tells of girths.
    by: By,
}

/// What tells of a client's girths.
#[derive(Clone, Copy, PartialEq)]
enum By {
    Tape,
    /// Nobody tapes this client.
    Pictures,
}

const TAPE: Look = Look { rated: false, harsh: 0.0, moods: false, reading_pct: None, sided: false, by: By::Tape };

/// Tapes and rates a body; gives the round and the true index of each paired site that got one.
fn round(
    people: &People,
    dice: &mut Dice,
    x: &DVector<f64>,
    bulk: &DVector<f64>,
    look: Look,
    on: Date,
) -> Result<(Round, BTreeMap<String, f64>), Failure> {
    let (atlas, settings) = (&people.knowledge.atlas, people.knowledge.atlas.evidence());
    let error = &settings.error;
    let mut truth = BTreeMap::new();
    let mut tape = Vec::new();
    for (place, site) in people.knowledge.norms.sites().iter().enumerate().skip(1) {
        let known = atlas.site(site).ok_or("a site of the norms that the atlas does not have")?;
        let girth = known.kind == atlas::SiteKind::Girth;
        let reading = look.reading_pct.unwrap_or(if girth { error.girth_pct } else { error.breadth_pct }) / 100.0;
        let placing = if girth { error.placing_girth_pct } else { error.placing_breadth_pct } / 100.0;
        let spread = if settings.composition.contains_key(site) {
            settings.side_spread_pct.limb
        } else {
            settings.side_spread_pct.joint
        };
        let index = if known.paired && look.sided { spread * dice.normal() } else { 0.0 };
        let sides: &[(Option<Side>, f64)] = if known.paired {
            truth.insert(site.to_string(), index);
            &[(Some(Side::Left), 1.0 + index / 200.0), (Some(Side::Right), 1.0 - index / 200.0)]
        } else {
            &[(None, 1.0)]
        };
        for (side, factor) in sides {
            let there = x[place].exp() * factor * (1.0 + placing * dice.normal());
            let readings = (0..2).map(|_| Ok(Length::from_cm(there * (1.0 + reading * dice.normal()))?));
            let readings = readings.collect::<Result<_, Failure>>()?;
            tape.push(TapeMeasure { site: site.clone(), side: *side, readings });
        }
    }
    let picture_girths = if look.by == By::Pictures { pictured(people, dice, x)? } else { Vec::new() };
    if look.by == By::Pictures {
        tape.clear();
    }
    let mut ratings = Vec::new();
    if look.rated {
        let mood = if look.moods { settings.observation_sd.rating_sitting * dice.normal() } else { 0.0 };
        let offset = mood + look.harsh;
        // The error of a rating is what its step is off, rounding to whole steps included.
        let step_sd = settings.scale.rating_bulk;
        let eye_sd = (settings.observation_sd.rating_bulk.powi(2) - step_sd.powi(2) / 12.0).sqrt();
        for (index, region) in atlas.regions().iter().enumerate() {
            let Some(pose) = region.poses.first() else { continue };
            let seen = bulk[index] + offset + eye_sd * dice.normal();
            let step = (seen / step_sd).round().clamp(-2.0, 2.0);
            ratings.push(Rating {
                region: region.id.clone(),
                pose: pose.clone(),
                #[allow(clippy::cast_possible_truncation, reason = "between -2 and 2")]
                judgement: RatingJudgement::Standing(step as i8),
                rater_sd_steps: None,
                sitting: String::new(),
            });
        }
    }
    let round = Round {
        date: on,
        weight: None,
        measured_by: "A".into(),
        tape,
        levels: BTreeMap::new(),
        skinfolds: Vec::new(),
        ratings,
        outlines: Vec::new(),
        picture_girths,
        tests: Vec::new(),
    };
    Ok((round, truth))
}

/// Sites that pictures show with their depth, and by their breadth alone.
const DEEP: [&str; 8] = ["chest", "waist", "abdomen", "hip", "thigh", "calf", "knee", "ankle"];
const BROAD: [&str; 4] = ["shoulder", "arm-flexed", "forearm", "wrist"];

/// What pictures of a body show, each girth off by its own constant, the day's scale and its picture.
fn pictured(people: &People, dice: &mut Dice, x: &DVector<f64>) -> Result<Vec<PictureGirth>, Failure> {
    let settings = &people.knowledge.atlas.evidence().pictures_pct;
    let scale = settings.scale * dice.normal();
    let mut girths = Vec::new();
    for (place, site) in people.knowledge.norms.sites().iter().enumerate() {
        let from = match site.as_str() {
            deep if DEEP.contains(&deep) => GirthFrom::BreadthDepth,
            broad if BROAD.contains(&broad) => GirthFrom::Breadth,
            _ => continue,
        };
        let constant = settings.fit_pct(site, from == GirthFrom::BreadthDepth) * dice.normal();
        let paired = people.knowledge.atlas.site(site).is_some_and(|known| known.paired);
        let sides = if paired { vec![Some(Side::Left), Some(Side::Right)] } else { vec![None] };
        for side in sides {
            let off = (scale + constant + settings.repeat_pct(site) * dice.normal()) / 100.0;
            let value = Length::from_cm((x[place] + off).exp())?;
            girths.push(PictureGirth { site: site.clone(), side, value, from });
        }
    }
    Ok(girths)
}

/// A body's rounds, the last of `on`, with nothing known of its hands.
fn case(people: &People, x: &DVector<f64>, rounds: Vec<Round>, on: Date) -> Result<Case, Failure> {
    let height = Length::from_cm(x[0].exp())?;
    Ok(Case {
        as_of: on,
        client: Client { height, dominant_hand: Hand::Both, ..people.client.clone() },
        rounds,
        training: Vec::new(),
        choices: Choices::default(),
        set_ups: BTreeMap::new(),
        hurts: Vec::new(),
        last_review: None,
    })
}

/// A body as it is judged after one round, and the true index of each paired site.
fn judged(
    people: &People,
    dice: &mut Dice,
    x: &DVector<f64>,
    bulk: &DVector<f64>,
    look: Look,
) -> Result<(Assessment, BTreeMap<String, f64>), Failure> {
    let (round, truth) = round(people, dice, x, bulk, look, FIRST)?;
    Ok((assess(people.knowledge, &case(people, x, vec![round], FIRST)?), truth))
}

/// Said against true, in ten bins.
#[derive(Default)]
struct Reliability {
    bins: [(f64, f64, f64); 10],
}

impl Reliability {
    fn add(&mut self, said: f64, is_true: bool) {
        #[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a bin from 0 to 9")]
        let bin = &mut self.bins[((said * 10.0) as usize).min(9)];
        *bin = (bin.0 + 1.0, bin.1 + said, bin.2 + f64::from(u8::from(is_true)));
    }

    /// Expected calibration error.
    fn error(&self) -> f64 {
        let all: f64 = self.bins.iter().map(|bin| bin.0).sum();
        self.bins.iter().filter(|bin| bin.0 > 0.0).map(|(_, said, is)| (said - is).abs() / all).sum()
    }
}

#[derive(Default)]
struct Tally {
    heads: Reliability,
    parts: Reliability,
    said_behind: [f64; 2],
    said_ahead: [f64; 2],
    clear_parts: f64,
    parts_seen: f64,
}

impl Tally {
    fn add(&mut self, people: &People, assessment: &Assessment, bulk: &DVector<f64>, t: f64) {
        for (index, verdict) in assessment.regions.iter().enumerate() {
            self.heads.add(verdict.bulk.p_behind, bulk[index] < -t);
            self.word(verdict.bulk.standing, bulk[index], t);
        }
        let parts = &people.shares * bulk;
        for (index, area) in assessment.areas.iter().enumerate() {
            self.parts.add(area.bulk.p_behind, parts[index] < -t);
            self.word(area.bulk.standing, parts[index], t);
            self.parts_seen += 1.0;
            let clear = matches!(area.bulk.standing, Standing::Behind | Standing::Level | Standing::Ahead);
            self.clear_parts += f64::from(u8::from(clear));
        }
    }

    fn word(&mut self, standing: Standing, truth: f64, t: f64) {
        let (count, is_true) = match standing {
            Standing::Behind => (&mut self.said_behind, truth < -t),
            Standing::Ahead => (&mut self.said_ahead, truth > t),
            _ => return,
        };
        count[0] += 1.0;
        count[1] += f64::from(u8::from(is_true));
    }

    fn tell(&self, name: &str) -> Words {
        let share = |[said, is_true]: [f64; 2]| 100.0 * is_true / said.max(1.0);
        println!(
            "| {name} | {:.3} | {:.3} | {:.0} % | {:.0} % | {:.1} of 7 |",
            self.heads.error(),
            self.parts.error(),
            share(self.said_behind),
            share(self.said_ahead),
            7.0 * self.clear_parts / self.parts_seen.max(1.0)
        );
        Words { behind_true_pct: share(self.said_behind).round(), ahead_true_pct: share(self.said_ahead).round() }
    }
}

/// Verdicts on drawn lags.
fn verdicts(all: &[People], count: usize, name: &str, look: Look, muscularity: f64) -> Result<Words, Failure> {
    let mut tally = Tally::default();
    let mut dice = Dice(StdRng::seed_from_u64(16));
    for index in 0..count {
        let people = &all[index % all.len()];
        let bulk = dice.bulk(people);
        let x = people.made(index / all.len(), &bulk, muscularity);
        let (assessment, _) = judged(people, &mut dice, &x, &bulk, look)?;
        tally.add(people, &assessment, &bulk, people.knowledge.atlas.evidence().level_half_width_sd);
    }
    Ok(tally.tell(name))
}

/// Regions called behind of clients of whom none is.
fn balanced(all: &[People], count: usize, name: &str, look: Look) -> Result<f64, Failure> {
    let mut dice = Dice(StdRng::seed_from_u64(17));
    let mut called = 0;
    for index in 0..count {
        let people = &all[index % all.len()];
        let bulk = DVector::zeros(people.half_prior.nrows());
        let x = people.made(index / all.len(), &bulk, 0.0);
        let (assessment, _) = judged(people, &mut dice, &x, &bulk, look)?;
        called += assessment.regions.iter().filter(|region| region.bulk.standing == Standing::Behind).count();
    }
    let each = called as f64 / count as f64;
    println!("| {name} | {each:.2} |");
    Ok((each * 10.0).round() / 10.0)
}

/// Left against right with a reading error that the measurer's replicates tell of.
fn sides(all: &[People], count: usize, reading_pct: f64) -> Result<(), Failure> {
    let mut dice = Dice(StdRng::seed_from_u64(18));
    let mut reliability = Reliability::default();
    for index in 0..count {
        let people = &all[index % all.len()];
        let bulk = dice.bulk(people);
        let x = people.made(index / all.len(), &bulk, 0.0);
        let look = Look { sided: true, reading_pct: Some(reading_pct), ..TAPE };
        let (assessment, truth) = judged(people, &mut dice, &x, &bulk, look)?;
        let threshold = people.knowledge.atlas.evidence().act_threshold_pct.girth;
        for asymmetry in &assessment.asymmetries {
            let beyond = truth[asymmetry.site.as_str()].abs() > threshold;
            reliability.add(asymmetry.belief.p_beyond_threshold, beyond);
        }
    }
    println!("| sides, reading error {reading_pct} % | {:.3} |", reliability.error());
    Ok(())
}

/// Two rounds twelve weeks apart, and how many had a girth called changed and a region released, %; `grown` is the growth of one part's girth, %.
fn reviews(all: &[People], count: usize, name: &str, look: Look, grown: f64) -> Result<[f64; 2], Failure> {
    const PART: usize = 2;
    let mut dice = Dice(StdRng::seed_from_u64(19));
    let (mut girth_called, mut released, mut chosen, mut gained, mut found) = (0, 0, 0, 0, 0);
    for index in 0..count {
        let people = &all[index % all.len()];
        let bulk = dice.bulk(people);
        let x = people.made(index / all.len(), &bulk, 0.0);
        let mut later = x.clone();
        let mut now_bulk = bulk.clone();
        if grown != 0.0 {
            let area = &people.body.areas[PART];
            later[area.place] += (grown / 100.0).ln_1p();
            let rise = (grown / 100.0).ln_1p() / area.growth_ln;
            for (region, _) in &area.row {
                now_bulk[*region] += rise;
            }
        }
        let (first, _) = round(people, &mut dice, &x, &bulk, look, FIRST)?;
        let (second, _) = round(people, &mut dice, &later, &now_bulk, look, SECOND)?;
        let before = case(people, &x, vec![first.clone()], FIRST)?;
        let now = case(people, &x, vec![first, second], SECOND)?;
        let [was, is] = [&before, &now].map(|case| assess(people.knowledge, case));
        let moved = moves(people.knowledge, (&before, &was), (&now, &is));
        girth_called += usize::from(is.changes.iter().any(|change| change.together));
        // The three that need it most are what a coach would have chosen.
        let mut order: Vec<usize> = (0..was.regions.len()).collect();
        order.sort_by(|a, b| was.regions[*b].bulk.need.total_cmp(&was.regions[*a].bulk.need));
        for region in order.into_iter().take(3) {
            chosen += 1;
            let moved: &Moved = &moved.regions[region].1;
            released += usize::from(moved.no_longer_behind());
            gained += usize::from(moved.gained());
        }
        found += usize::from(moved.areas[PART].1.gained());
    }
    let pct = |part: usize, of: usize| 100.0 * part as f64 / of as f64;
    println!(
        "| {name} | {:.1} % | {:.1} % | {:.1} % | {:.1} % |",
        pct(girth_called, count),
        pct(released, chosen),
        pct(gained, chosen),
        pct(found, count)
    );
    Ok([pct(girth_called, count), pct(released, chosen)].map(|pct| (pct * 10.0).round() / 10.0))
}

fn main() -> Result<(), Failure> {
    let count = std::env::args().nth(1).map_or(Ok(2000), |count| count.parse())?;
    let knowledge = Knowledge::load()?;
    let all = [People::new(&knowledge, Sex::Male, "male")?, People::new(&knowledge, Sex::Female, "female")?];
    let rated = Look { rated: true, moods: true, ..TAPE };
    let even = Look { moods: false, ..rated };
    println!("{count} clients a line.\n");
    println!("| evidence | error of P(behind), heads | parts | behind is true | ahead is true | parts with a word |");
    println!("| --- | --- | --- | --- | --- | --- |");
    let tape = verdicts(&all, count, "tape", TAPE, 0.0)?;
    verdicts(&all, count, "tape, muscular (+18 % arms)", TAPE, 1.84)?;
    let pictures = Look { by: By::Pictures, ..TAPE };
    verdicts(&all, count, "pictures alone, never taped", pictures, 0.0)?;
    verdicts(&all, count, "pictures alone, muscular (+18 % arms)", pictures, 1.84)?;
    let by_eye_too = verdicts(&all, count, "tape and ratings", rated, 0.0)?;
    verdicts(&all, count, "tape and a harsh day's ratings", Look { harsh: -0.4, ..even }, 0.0)?;
    println!("\n| nobody behind | regions called behind |\n| --- | --- |");
    let called_behind_tape = balanced(&all, count, "tape", TAPE)?;
    balanced(&all, count, "pictures alone", pictures)?;
    balanced(&all, count, "tape and ratings, even days", even)?;
    let called_behind_rated = balanced(&all, count, "tape and ratings, every day with a mood", rated)?;
    println!("\n| left against right | error of P(beyond 3 %) |\n| --- | --- |");
    sides(&all, count, 1.0)?;
    sides(&all, count, 2.0)?;
    println!(
        "\n| two rounds, twelve weeks | any girth called changed | chosen region released | gain said | arm found |"
    );
    println!("| --- | --- | --- | --- | --- |");
    let [girth_called_changed_pct, released_pct] = reviews(&all, count, "nothing changed, tape", TAPE, 0.0)?;
    reviews(&all, count, "nothing changed, tape and ratings", rated, 0.0)?;
    reviews(&all, count, "arms +3 %, tape", TAPE, 3.0)?;
    reviews(&all, count, "arms +5 %, tape", TAPE, 5.0)?;
    let short = Calibration {
        clients: count,
        tape,
        rated: by_eye_too,
        called_behind_tape,
        called_behind_rated,
        girth_called_changed_pct,
        released_pct,
    };
    let to = PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("data/calibration.json");
    std::fs::write(to, serde_json::to_string_pretty(&short)? + "\n")?;
    Ok(())
}
