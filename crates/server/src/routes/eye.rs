//! The eye: a coach's sittings before made-up figures.

use crate::auth::SignedIn;
use crate::dto::{
    AgreementView, AnswerEye, EyeLook, EyePage, EyeSittingView, EyeToldView, JudgedKind, KindSkill, OpenSitting,
    PartSkill, PastSitting,
};
use crate::error::{ApiError, ProblemDetails, invalid};
use crate::state::AppState;
use actix_web::http::header::{CACHE_CONTROL, ContentType};
use actix_web::{HttpResponse, get, post, web};
use assess::Knowledge;
use eye::{Answered, Asks, EyeError, Look, Question, Shown, Sitting, Skill, in_steps, show, skill};
use jiff::Timestamp;
use jiff::tz::TimeZone;
use std::collections::{BTreeMap, HashMap};
use std::sync::{Arc, Mutex, PoisonError};
use store::{EyeAnswer, EyeSitting, RatingKind, Store};
use units::SiteId;
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config.service(show_eye).service(start_sitting).service(show_sitting).service(show_eye_picture).service(answer_eye);
}

/// A sitting and a place in it.
type Spot = (String, usize);

/// Pictures drawn lately, by sitting and place: each is asked for by the page, its picture and the answer.
#[derive(Clone, Default)]
pub(crate) struct Drawn {
    kept: Arc<Mutex<HashMap<Spot, Arc<Shown>>>>,
    /// Held while one is drawn: who asks for the same meanwhile waits for it.
    turn: Arc<Mutex<()>>,
}

impl Drawn {
    fn find(&self, key: &Spot) -> Option<Arc<Shown>> {
        self.kept.lock().unwrap_or_else(PoisonError::into_inner).get(key).cloned()
    }

    fn keep(&self, key: Spot, shown: Arc<Shown>) {
        let mut kept = self.kept.lock().unwrap_or_else(PoisonError::into_inner);
        if kept.len() >= KEPT {
            kept.clear();
        }
        kept.insert(key, shown);
    }
}

/// Pictures kept at most: those of a few coaches who sit at the same time.
const KEPT: usize = 60;
/// Ended sittings that are listed.
const LISTED: usize = 12;

impl From<EyeError> for ApiError {
    fn from(error: EyeError) -> Self {
        Self::Internal(error.to_string())
    }
}

/// A sitting with what it asks.
struct Seated {
    record: EyeSitting,
    sitting: Sitting,
}

impl Seated {
    fn new(knowledge: &Knowledge, record: EyeSitting) -> Result<Self, ApiError> {
        let sitting = Sitting::new(&knowledge.norms, record.seed)?;
        Ok(Self { record, sitting })
    }

    fn read(store: &Store, knowledge: &Knowledge, account_id: &str, id: &str) -> Result<Self, ApiError> {
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

    fn look(&self, place: usize) -> Result<(Look, Question), ApiError> {
        let look = self.sitting.looks().get(place).copied();
        let asked = look.and_then(|look| Some((look, self.sitting.question(look)?)));
        asked.ok_or_else(|| ApiError::NotFound(format!("this sitting has no picture {}", place + 1)))
    }
}

impl AppState {
    /// The picture at a place of a sitting.
    fn shown(&self, knowledge: &Knowledge, seated: &Seated, place: usize) -> Result<Arc<Shown>, ApiError> {
        let key = (seated.record.id.clone(), place);
        if let Some(shown) = self.drawn.find(&key) {
            return Ok(shown);
        }
        let _turn = self.drawn.turn.lock().unwrap_or_else(PoisonError::into_inner);
        if let Some(shown) = self.drawn.find(&key) {
            return Ok(shown);
        }
        let (look, question) = seated.look(place)?;
        let spec = seated.sitting.spec(look).ok_or_else(|| ApiError::Internal("a look without a figure".to_owned()))?;
        let shown =
            Arc::new(show(self.stand_in_camera()?.figure(), &knowledge.norms, (spec, question), look.mirrored)?);
        self.drawn.keep(key, shown.clone());
        Ok(shown)
    }

    fn sitting_view(&self, knowledge: &Knowledge, seated: &Seated) -> Result<EyeSittingView, ApiError> {
        let place = seated.record.answers.len();
        let next = if seated.is_over() {
            None
        } else {
            let (_, question) = seated.look(place)?;
            let frames = self.shown(knowledge, seated, place)?.frames.clone();
            Some(EyeLook {
                place,
                kind: kind_of(question.asks).into(),
                site: site(question.part.site())?,
                pose: question.pose.id().parse().map_err(|_| ApiError::Internal("a pose without an id".to_owned()))?,
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

fn site(id: &str) -> Result<SiteId, ApiError> {
    id.parse().map_err(|error: units::IdError| ApiError::Internal(error.to_string()))
}

fn told(knowledge: &Knowledge, seated: &Seated, answer: &EyeAnswer) -> Result<EyeToldView, ApiError> {
    let truth = seated.sitting.may_tell(answer.figure, seated.record.answers.len()).then_some(answer.truth);
    let earlier = seated.record.answers.iter().find(|other| other.figure == answer.figure);
    Ok(EyeToldView {
        place: answer.place,
        kind: answer.kind.into(),
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

fn kind_skill(knowledge: &Knowledge, kind: RatingKind, ended: &[&EyeAnswer]) -> Result<KindSkill, ApiError> {
    let of_kind: Vec<&&EyeAnswer> = ended.iter().filter(|answer| answer.kind == kind).collect();
    let mut by_site: BTreeMap<&str, Vec<Answered>> = BTreeMap::new();
    for answer in &of_kind {
        by_site.entry(&answer.site).or_default().push(answered(knowledge, answer));
    }
    let all: Vec<Answered> = of_kind.iter().map(|answer| answered(knowledge, answer)).collect();
    let mut parts = Vec::new();
    for (id, answers) in by_site {
        parts.extend(skill(&answers).map(|skill| Ok::<_, ApiError>(PartSkill { site: site(id)?, skill })).transpose()?);
    }
    let scale = &knowledge.atlas.evidence().scale;
    let step = if kind == RatingKind::Standing { scale.rating_bulk } else { scale.rating_asymmetry };
    Ok(KindSkill { kind: JudgedKind::from(kind), step, skill: skill(&all), parts })
}

/// What the own eye is worth, and the sitting that was left open.
#[utoipa::path(tag = "eye", responses((status = 200, body = EyePage), (status = 500, body = ProblemDetails)))]
#[get("/eye")]
pub(crate) async fn show_eye(state: web::Data<AppState>, who: SignedIn) -> Result<web::Json<EyePage>, ApiError> {
    state.run(move |store, knowledge| eye_page(store, knowledge, &who.0.id)).await.map(web::Json)
}

fn eye_page(store: &Store, knowledge: &Knowledge, account_id: &str) -> Result<EyePage, ApiError> {
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
        pictures: eye::PICTURES,
        kinds: vec![
            kind_skill(knowledge, RatingKind::LeftRight, &ended)?,
            kind_skill(knowledge, RatingKind::Standing, &ended)?,
        ],
        past: past.collect(),
        agreement,
    })
}

/// Begins a sitting, or goes on with the one that was left open.
#[utoipa::path(tag = "eye", responses((status = 201, body = EyeSittingView), (status = 500, body = ProblemDetails)))]
#[post("/eye/sittings")]
pub(crate) async fn start_sitting(state: web::Data<AppState>, who: SignedIn) -> Result<HttpResponse, ApiError> {
    let shared = state.clone();
    let started = state.run(move |store, knowledge| {
        for record in store.eye_sittings(&who.0.id)? {
            let seated = Seated::new(knowledge, record)?;
            if !seated.is_over() {
                return shared.sitting_view(knowledge, &seated);
            }
        }
        let record = store.start_eye_sitting(&who.0.id, rand::random(), Timestamp::now())?;
        shared.sitting_view(knowledge, &Seated::new(knowledge, record)?)
    });
    Ok(HttpResponse::Created().json(started.await?))
}

/// One of the own sittings.
#[utoipa::path(tag = "eye", responses((status = 200, body = EyeSittingView), (status = 404, body = ProblemDetails)))]
#[get("/eye/sittings/{sitting_id}")]
pub(crate) async fn show_sitting(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<String>,
) -> Result<web::Json<EyeSittingView>, ApiError> {
    let shared = state.clone();
    let shown = state
        .run(move |store, knowledge| shared.sitting_view(knowledge, &Seated::read(store, knowledge, &who.0.id, &id)?));
    shown.await.map(web::Json)
}

/// A picture of one of the own sittings. Whether it is mirrored cannot be seen from it.
#[utoipa::path(tag = "eye", params(("sitting_id" = String, Path), ("place" = usize, Path, description = "from 0")),
    responses((status = 200, content_type = "image/jpeg"), (status = 404, body = ProblemDetails)))]
#[get("/eye/sittings/{sitting_id}/pictures/{place}")]
pub(crate) async fn show_eye_picture(
    state: web::Data<AppState>,
    who: SignedIn,
    path: web::Path<(String, usize)>,
) -> Result<HttpResponse, ApiError> {
    let (id, place) = path.into_inner();
    let shared = state.clone();
    let shown = state
        .run(move |store, knowledge| shared.shown(knowledge, &Seated::read(store, knowledge, &who.0.id, &id)?, place));
    Ok(HttpResponse::Ok()
        .insert_header(ContentType::jpeg())
        // A place of a sitting always shows the same.
        .insert_header((CACHE_CONTROL, "private, max-age=86400"))
        .body(shown.await?.jpeg.clone()))
}

/// Answers the next picture of one of the own sittings. An answer stays: its truth may have been told.
#[utoipa::path(tag = "eye", request_body = AnswerEye, responses(
    (status = 200, body = EyeSittingView), (status = 404, body = ProblemDetails), (status = 409, body = ProblemDetails),
    (status = 422, body = ProblemDetails)))]
#[post("/eye/sittings/{sitting_id}/answers")]
pub(crate) async fn answer_eye(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<String>,
    body: web::Json<AnswerEye>,
) -> Result<web::Json<EyeSittingView>, ApiError> {
    let AnswerEye { place, value } = body.into_inner();
    if let Some(value) = value.filter(|value| !(-2..=2).contains(value)) {
        return Err(invalid("/value", format!("{value} is out of range: expected -2 to 2")));
    }
    let shared = state.clone();
    let saved = state.run(move |store, knowledge| {
        let seated = Seated::read(store, knowledge, &who.0.id, &id)?;
        let (look, question) = seated.look(place)?;
        if place != seated.record.answers.len() {
            let next = seated.record.answers.len() + 1;
            let detail = format!("picture {} cannot be answered now: picture {next} is next", place + 1);
            return Err(ApiError::Conflict { detail, current_revision: None });
        }
        let answer = EyeAnswer {
            place,
            figure: look.figure,
            kind: kind_of(question.asks),
            site: question.part.site().to_owned(),
            mirrored: look.mirrored,
            value: value.map(|value| look.of_the_figure(question.asks, value)),
            truth: shared.shown(knowledge, &seated, place)?.truth,
            answered_at: Timestamp::now(),
        };
        store.save_eye_answer(&id, &answer)?;
        shared.sitting_view(knowledge, &Seated::read(store, knowledge, &who.0.id, &id)?)
    });
    saved.await.map(web::Json)
}
