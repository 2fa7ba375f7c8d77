//! The eye: a coach's sittings before made-up figures.

mod views;

pub use views::{
    AnswerEye, EyeLook, EyePage, EyeSittingView, EyeToldView, KindSkill, OpenSitting, PartSkill, PastSitting,
};

use crate::desk::Desk;
use crate::error::{DeskError, invalid};
use crate::memo::Memo;
use crate::photos::AgreementView;
use ::eye::{Answered, Asks, Look, Question, Shown, Sitting, Skill, in_steps, show, skill};
use assess::Knowledge;
use jiff::Timestamp;
use jiff::tz::TimeZone;
use std::collections::BTreeMap;
use std::sync::Arc;
use store::{EyeAnswer, EyeSitting, RatingKind, Store};
use units::SiteId;

/// Pictures drawn lately, by sitting and place: each is asked for by the page, its picture and the answer.
#[derive(Clone)]
pub(crate) struct Drawn(Memo<(String, usize), Shown, ()>);

impl Default for Drawn {
    fn default() -> Self {
        Self(Memo::of(KEPT))
    }
}

/// Pictures kept at most: those of a few coaches who sit at the same time.
const KEPT: u64 = 60;

/// Ended sittings that are listed.
const LISTED: usize = 12;

impl Desk {
    /// What somebody's own eye is worth, and the sitting that was left open.
    pub fn eye_page(&self, account_id: &str) -> Result<EyePage, DeskError> {
        eye_page(&self.store, &self.knowledge(), account_id)
    }

    /// Begins a sitting, or goes on with the one that was left open.
    pub fn start_sitting(&self, account_id: &str) -> Result<EyeSittingView, DeskError> {
        let knowledge = &*self.knowledge();
        for record in self.store.eye_sittings(account_id)? {
            let seated = Seated::new(knowledge, record)?;
            if !seated.is_over() {
                return self.sitting_view(knowledge, &seated);
            }
        }
        let record = self.store.start_eye_sitting(account_id, rand::random(), Timestamp::now())?;
        self.sitting_view(knowledge, &Seated::new(knowledge, record)?)
    }

    /// One of somebody's sittings.
    pub fn sitting(&self, account_id: &str, id: &str) -> Result<EyeSittingView, DeskError> {
        let knowledge = &*self.knowledge();
        self.sitting_view(knowledge, &Seated::read(&self.store, knowledge, account_id, id)?)
    }

    /// A picture of one of somebody's sittings, JPEG. Whether it is mirrored cannot be seen from it.
    pub fn eye_picture(&self, account_id: &str, id: &str, place: usize) -> Result<Vec<u8>, DeskError> {
        let knowledge = &*self.knowledge();
        let seated = Seated::read(&self.store, knowledge, account_id, id)?;
        Ok(self.eye_shown(knowledge, &seated, place)?.jpeg.clone())
    }

    /// Answers the next picture of one of somebody's sittings. An answer stays: its truth may have been told.
    pub fn answer_eye(&self, account_id: &str, id: &str, answer: &AnswerEye) -> Result<EyeSittingView, DeskError> {
        let AnswerEye { place, value } = *answer;
        if let Some(value) = value.filter(|value| !(-2..=2).contains(value)) {
            return Err(invalid("/value", format!("{value} is out of range: expected -2 to 2")));
        }
        let knowledge = &*self.knowledge();
        let seated = Seated::read(&self.store, knowledge, account_id, id)?;
        let (look, question) = seated.look(place)?;
        if place != seated.record.answers.len() {
            let next = seated.record.answers.len() + 1;
            let detail = format!("picture {} cannot be answered now: picture {next} is next", place + 1);
            return Err(DeskError::Conflict { detail, current_revision: None });
        }
        let answer = EyeAnswer {
            place,
            figure: look.figure,
            kind: kind_of(question.asks),
            site: question.part.site().to_owned(),
            mirrored: look.mirrored,
            value: value.map(|value| look.of_the_figure(question.asks, value)),
            truth: self.eye_shown(knowledge, &seated, place)?.truth,
            answered_at: Timestamp::now(),
        };
        self.store.save_eye_answer(id, &answer)?;
        self.sitting(account_id, id)
    }

    /// The picture at a place of a sitting.
    fn eye_shown(&self, knowledge: &Knowledge, seated: &Seated, place: usize) -> Result<Arc<Shown>, DeskError> {
        let key = (seated.record.id.clone(), place);
        self.books.drawn.0.get(&key, (), || {
            let (look, question) = seated.look(place)?;
            let none = || DeskError::Internal("a look without a figure".to_owned());
            let spec = seated.sitting.spec(look).ok_or_else(none)?;
            let figure = self.stand_in_camera()?.figure();
            Ok(show(figure, &knowledge.norms, (spec, question), look.mirrored)?)
        })
    }

    fn sitting_view(&self, knowledge: &Knowledge, seated: &Seated) -> Result<EyeSittingView, DeskError> {
        let place = seated.record.answers.len();
        let next = if seated.is_over() {
            None
        } else {
            let (_, question) = seated.look(place)?;
            let frames = self.eye_shown(knowledge, seated, place)?.frames.clone();
            Some(EyeLook {
                place,
                kind: kind_of(question.asks),
                site: site(question.part.site())?,
                pose: question.pose.id().parse().map_err(|_| DeskError::Internal("a pose without an id".to_owned()))?,
                frames,
            })
        };
        let told = seated.record.answers.iter().map(|answer| told(knowledge, seated, answer));
        Ok(EyeSittingView {
            id: seated.record.id.clone(),
            pictures: seated.sitting.looks().len(),
            told: told.collect::<Result<_, _>>()?,
            skill: seated.skill(knowledge),
            next,
        })
    }
}

/// A sitting with what it asks.
struct Seated {
    record: EyeSitting,
    sitting: Sitting,
}

impl Seated {
    fn new(knowledge: &Knowledge, record: EyeSitting) -> Result<Self, DeskError> {
        let sitting = Sitting::new(&knowledge.norms, record.seed)?;
        Ok(Self { record, sitting })
    }

    fn read(store: &Store, knowledge: &Knowledge, account_id: &str, id: &str) -> Result<Self, DeskError> {
        Self::new(knowledge, store.eye_sitting(account_id, id)?)
    }

    fn is_over(&self) -> bool {
        self.record.answers.len() >= self.sitting.looks().len()
    }

    /// What all its answers say together; an open one may not give away what it has not told.
    fn skill(&self, knowledge: &Knowledge) -> Option<Skill> {
        let all: Vec<Answered> = self.record.answers.iter().map(|answer| answered(knowledge, answer)).collect();
        skill(&all).filter(|_| self.is_over())
    }

    fn look(&self, place: usize) -> Result<(Look, Question), DeskError> {
        let look = self.sitting.looks().get(place).copied();
        let asked = look.and_then(|look| Some((look, self.sitting.question(look)?)));
        asked.ok_or_else(|| DeskError::NotFound(format!("this sitting has no picture {}", place + 1)))
    }
}

fn kind_of(asks: Asks) -> RatingKind {
    match asks {
        Asks::Standing => RatingKind::Standing,
        Asks::LeftRight => RatingKind::LeftRight,
    }
}

fn asks_of(kind: RatingKind) -> Asks {
    match kind {
        RatingKind::Standing => Asks::Standing,
        RatingKind::LeftRight => Asks::LeftRight,
    }
}

fn site(id: &str) -> Result<SiteId, DeskError> {
    id.parse().map_err(|error: units::IdError| DeskError::Internal(error.to_string()))
}

fn told(knowledge: &Knowledge, seated: &Seated, answer: &EyeAnswer) -> Result<EyeToldView, DeskError> {
    let truth = seated.sitting.may_tell(answer.figure, seated.record.answers.len()).then_some(answer.truth);
    let earlier = seated.record.answers.iter().find(|other| other.figure == answer.figure);
    Ok(EyeToldView {
        place: answer.place,
        kind: answer.kind,
        site: site(&answer.site)?,
        seen_at: earlier.map(|earlier| earlier.place).filter(|place| *place < answer.place),
        answer: answer.value,
        truth,
        truth_steps: truth.map(|truth| in_steps(knowledge.atlas.evidence(), asks_of(answer.kind), truth)),
    })
}

fn answered(knowledge: &Knowledge, answer: &EyeAnswer) -> Answered {
    let truth_steps = in_steps(knowledge.atlas.evidence(), asks_of(answer.kind), answer.truth);
    Answered { answer: answer.value, truth_steps }
}

fn kind_skill(knowledge: &Knowledge, kind: RatingKind, ended: &[&EyeAnswer]) -> Result<KindSkill, DeskError> {
    let of_kind: Vec<&&EyeAnswer> = ended.iter().filter(|answer| answer.kind == kind).collect();
    let mut by_site: BTreeMap<&str, Vec<Answered>> = BTreeMap::new();
    for answer in &of_kind {
        by_site.entry(&answer.site).or_default().push(answered(knowledge, answer));
    }
    let all: Vec<Answered> = of_kind.iter().map(|answer| answered(knowledge, answer)).collect();
    let mut parts = Vec::new();
    for (id, answers) in by_site {
        parts
            .extend(skill(&answers).map(|skill| Ok::<_, DeskError>(PartSkill { site: site(id)?, skill })).transpose()?);
    }
    let scale = &knowledge.atlas.evidence().scale;
    let step = if kind == RatingKind::Standing { scale.rating_bulk } else { scale.rating_asymmetry };
    Ok(KindSkill { kind, step, skill: skill(&all), parts })
}

fn eye_page(store: &Store, knowledge: &Knowledge, account_id: &str) -> Result<EyePage, DeskError> {
    let records = store.eye_sittings(account_id)?;
    let seated = records.into_iter().map(|record| Seated::new(knowledge, record)).collect::<Result<Vec<_>, _>>()?;
    let ended: Vec<&EyeAnswer> =
        seated.iter().filter(|seated| seated.is_over()).flat_map(|seated| &seated.record.answers).collect();
    let open = seated.iter().find(|seated| !seated.is_over()).map(|seated| &seated.record);
    let past = seated.iter().filter(|seated| seated.is_over()).take(LISTED).map(|seated| {
        let (right, of) = seated.skill(knowledge).map_or((0, 0), |skill| (skill.right, skill.of));
        let date = seated.record.started_at.to_zoned_datetime(TimeZone::system()).date().to_string();
        PastSitting { id: seated.record.id.clone(), date, right, of }
    });
    let agreement = AgreementView::of(knowledge, store, account_id)?;
    Ok(EyePage {
        open: open.map(|record| OpenSitting { id: record.id.clone(), place: record.answers.len() }),
        pictures: ::eye::PICTURES,
        kinds: vec![
            kind_skill(knowledge, RatingKind::LeftRight, &ended)?,
            kind_skill(knowledge, RatingKind::Standing, &ended)?,
        ],
        past: past.collect(),
        agreement,
    })
}
