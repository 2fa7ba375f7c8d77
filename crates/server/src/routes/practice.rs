//! The practice: what it sets, who works in it, how well each of them measures, how they like their sheets.

use crate::auth::{
    SignedIn, allowed, factor_address, factor_step, hash_password, new_secret, open_session, recovery_codes,
    recovery_hash, verify_password,
};
use crate::dto::{
    AccuracyView, ActView, AgreementView, ConfirmFactor, DeedView, FactorOffer, LearnedView, MeasurerView,
    MeasuringPoint, NewPerson, OwnPassword, PersonView, PracticeView, RaterView, RecoveryCodes, SaveExercise,
    SavePerson, SavePractice, SettingView, TapeOrder,
};
use crate::error::{ApiError, ProblemDetails, invalid};
use crate::state::{AppState, PageOf};
use actix_session::Session;
use actix_web::{HttpResponse, delete, get, post, put, web};
use assess::{Calibration, Knowledge, MeasurerErrors, Round};
use atlas::Atlas;
use casefile::{PracticeEntry, Problem, check_practice, is_one_line};
use jiff::Timestamp;
use roles::{Act, TABLE};
use serde::Deserialize;
use serde_json::{json, to_value};
use store::{Account, ChangedAccount, Deed, Factor, NewAccount, Store};
use utoipa::IntoParams;
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config
        .service(offer_factor)
        .service(confirm_factor)
        .service(remove_factor)
        .service(show_practice)
        .service(save_practice)
        .service(save_exercise)
        .service(list_people)
        .service(add_person)
        .service(save_person)
        .service(remove_person)
        .service(show_measurers)
        .service(show_accuracy)
        .service(show_deeds)
        .service(show_tape_order)
        .service(save_tape_order);
}

fn view(store: &Store, shipped: &Knowledge, account: &Account) -> Result<PracticeView, ApiError> {
    let record = store.practice()?;
    let (atlas, settings) = (&shipped.atlas, &record.settings);
    let setting = |setting: &atlas::Setting| SettingView {
        shipped: atlas.number(&setting.id).unwrap_or_default(),
        value: settings.numbers.get(&setting.id).copied(),
        setting: setting.clone(),
    };
    Ok(PracticeView {
        revision: record.revision,
        saved_by: record.saved_by,
        may_change: account.role.may(Act::Settings),
        numbers: atlas.settings().iter().map(setting).collect(),
        shipped_schools: atlas.schools().iter().map(|school| (school.id.clone(), school.default.clone())).collect(),
        shipped_composition: atlas.evidence().composition.clone(),
        settings: record.settings,
        acts: TABLE.iter().map(ActView::from).collect(),
    })
}

/// What the practice sets, beside what ships.
#[utoipa::path(tag = "practice", responses((status = 200, body = PracticeView), (status = 401, body = ProblemDetails)))]
#[get("/practice")]
pub(crate) async fn show_practice(state: web::Data<AppState>, signed_in: SignedIn) -> Result<HttpResponse, ApiError> {
    let shared = state.clone();
    let name = format!("practice {}", signed_in.0.role.as_str());
    state.page(name, PageOf::Practice, move |store, _, _| view(store, shared.shipped(), &signed_in.0)).await
}

/// Saves what the practice sets; every verdict from now on follows it.
#[utoipa::path(tag = "practice", request_body = SavePractice, responses(
    (status = 200, body = PracticeView), (status = 403, body = ProblemDetails), (status = 409, body = ProblemDetails),
    (status = 422, body = ProblemDetails)))]
#[put("/practice")]
pub(crate) async fn save_practice(
    state: web::Data<AppState>,
    signed_in: SignedIn,
    body: web::Json<SavePractice>,
) -> Result<web::Json<PracticeView>, ApiError> {
    let shared = state.clone();
    let saved = state.run(move |store, _| {
        let shipped = shared.shipped();
        let settings = check_practice(&shipped.atlas, "/settings", &body.settings).map_err(ApiError::Invalid)?;
        none_taken_away(&store.practice()?.settings, &body.settings)?;
        store.save_practice(body.revision, &signed_in.0.name, &PracticeEntry::from(&settings))?;
        shared.take_up(&settings);
        view(store, shipped, &signed_in.0)
    });
    saved.await.map(web::Json)
}

/// Own exercises stand in plans and logs, so none is taken away: what is no longer wanted is advised against.
fn none_taken_away(stored: &PracticeEntry, new: &PracticeEntry) -> Result<(), ApiError> {
    let kept = |id| new.exercises.iter().any(|exercise| exercise.id == id);
    match stored.exercises.iter().position(|exercise| !kept(exercise.id.clone())) {
        None => Ok(()),
        Some(place) => {
            let name = &stored.exercises[place].name;
            let says = format!("{name} may stand in plans and cannot be taken away: advise against it instead");
            Err(invalid("/settings/exercises", says))
        }
    }
}

/// Adds an exercise of the practice's own, or changes one; the planner uses it from now on.
#[utoipa::path(tag = "library", request_body = SaveExercise, responses(
    (status = 200, body = PracticeView), (status = 409, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[put("/library/exercises")]
pub(crate) async fn save_exercise(
    state: web::Data<AppState>,
    signed_in: SignedIn,
    body: web::Json<SaveExercise>,
) -> Result<web::Json<PracticeView>, ApiError> {
    let shared = state.clone();
    let saved = state.run(move |store, _| {
        let SaveExercise { revision, exercise } = body.into_inner();
        let shipped = shared.shipped();
        let mut entry = store.practice()?.settings;
        let place = entry.exercises.iter().position(|own| own.id == exercise.id).unwrap_or(entry.exercises.len());
        if place == entry.exercises.len() {
            entry.exercises.push(exercise);
        } else {
            entry.exercises[place] = exercise;
        }
        let settings = check_practice(&shipped.atlas, "", &entry).map_err(|problems| {
            // The sheet shows one exercise: its places are named from there.
            let own = format!("/exercises/{place}");
            let named = |problem: Problem| Problem {
                pointer: problem
                    .pointer
                    .strip_prefix(&own)
                    .map_or(problem.pointer.clone(), |field| format!("/exercise{field}")),
                ..problem
            };
            ApiError::Invalid(problems.into_iter().map(named).collect())
        })?;
        store.save_practice(revision, &signed_in.0.name, &PracticeEntry::from(&settings))?;
        shared.take_up(&settings);
        view(store, shipped, &signed_in.0)
    });
    saved.await.map(web::Json)
}

/// `asking` is the id of whoever asks.
fn person(account: &Account, asking: &str) -> PersonView {
    PersonView {
        second_factor: account.factor.is_some(),
        you: account.id == asking,
        id: account.id.clone(),
        login: account.login.clone(),
        name: account.name.clone(),
        role: account.role,
    }
}

/// Everyone who may sign in.
#[utoipa::path(tag = "practice", responses((status = 200, body = Vec<PersonView>), (status = 401, body = ProblemDetails)))]
#[get("/practice/people")]
pub(crate) async fn list_people(
    state: web::Data<AppState>,
    signed_in: SignedIn,
) -> Result<web::Json<Vec<PersonView>>, ApiError> {
    let people = state
        .read(move |store, _| Ok(store.accounts()?.iter().map(|account| person(account, &signed_in.0.id)).collect()));
    people.await.map(web::Json)
}

/// Adds someone.
#[utoipa::path(tag = "practice", request_body = NewPerson, responses(
    (status = 201, body = PersonView), (status = 403, body = ProblemDetails), (status = 409, body = ProblemDetails),
    (status = 422, body = ProblemDetails)))]
#[post("/practice/people")]
pub(crate) async fn add_person(
    state: web::Data<AppState>,
    signed_in: SignedIn,
    body: web::Json<NewPerson>,
) -> Result<HttpResponse, ApiError> {
    let added = state.run(move |store, _| {
        let hash = hashed(&body.password);
        let wrong = [named("/name", &body.name), named("/login", &body.login), hash.clone().err()];
        let problems: Vec<Problem> = wrong.into_iter().flatten().collect();
        let (Ok(password_hash), true) = (hash, problems.is_empty()) else { return Err(ApiError::Invalid(problems)) };
        let (name, login) = (body.name.trim().to_owned(), body.login.trim().to_owned());
        let new = NewAccount { login, name, role: body.role, password_hash };
        Ok(person(&store.add_account(&new)?, &signed_in.0.id))
    });
    Ok(HttpResponse::Created().json(added.await?))
}

fn named(pointer: &str, text: &str) -> Option<Problem> {
    let fits = (1..=80).contains(&text.trim().chars().count()) && is_one_line(text.trim());
    let says = "1 to 80 characters in one line are needed".to_owned();
    (!fits).then(|| Problem { pointer: pointer.to_owned(), says })
}

fn hashed(password: &str) -> Result<String, Problem> {
    hash_password(password).map_err(|error| Problem { pointer: "/password".to_owned(), says: error.to_string() })
}

/// Changes someone's name, role or password. Everyone may change their own name and password.
#[utoipa::path(tag = "practice", request_body = SavePerson, responses(
    (status = 200, body = PersonView), (status = 403, body = ProblemDetails), (status = 404, body = ProblemDetails),
    (status = 409, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[put("/practice/people/{account_id}")]
pub(crate) async fn save_person(
    state: web::Data<AppState>,
    signed_in: SignedIn,
    session: Session,
    id: web::Path<String>,
    body: web::Json<SavePerson>,
) -> Result<web::Json<PersonView>, ApiError> {
    let own = signed_in.0.id == *id;
    let renewed = body.password.is_some();
    if !own || body.role.is_some() {
        allowed(&signed_in.0, Act::People)?;
    }
    let had = signed_in.0.password_hash.clone();
    let saved = state.run(move |store, _| {
        let old = body.old_password.as_deref().unwrap_or_default();
        if own && renewed && !verify_password(old, Some(&had)) {
            let says = "this is not the password you have".to_owned();
            return Err(ApiError::Invalid(vec![Problem { pointer: "/old_password".to_owned(), says }]));
        }
        let wrong = body.name.as_ref().and_then(|name| named("/name", name));
        if let Some(problem) = wrong {
            return Err(ApiError::Invalid(vec![problem]));
        }
        let hash = body.password.as_deref().map(hashed).transpose();
        let change = ChangedAccount {
            name: body.name.as_ref().map(|name| name.trim().to_owned()),
            role: body.role,
            password_hash: hash.map_err(|problem| ApiError::Invalid(vec![problem]))?,
        };
        Ok(store.change_account(&id, &change)?)
    });
    let saved = saved.await?;
    if renewed {
        // Whoever listens with the old password is out.
        state.feed.close(&saved.id);
    }
    if own && renewed {
        // A new password ends every session but the one it was typed in.
        open_session(&session, &saved)?;
    }
    Ok(web::Json(person(&saved, &signed_in.0.id)))
}

/// Offers a second factor for one's own account.
#[utoipa::path(tag = "practice", responses((status = 200, body = FactorOffer),
    (status = 401, body = ProblemDetails)))]
#[post("/account/second-factor")]
pub(crate) async fn offer_factor(signed_in: SignedIn) -> Result<web::Json<FactorOffer>, ApiError> {
    let secret = new_secret();
    let address = factor_address(&secret, &signed_in.0.login);
    let address = address.ok_or_else(|| ApiError::Internal("no address of a second factor".to_owned()))?;
    Ok(web::Json(FactorOffer { secret, address }))
}

/// Sets up a second factor that was offered, once the phone has shown that it makes codes of it.
#[utoipa::path(tag = "practice", request_body = ConfirmFactor, responses(
    (status = 200, body = RecoveryCodes), (status = 422, body = ProblemDetails)))]
#[put("/account/second-factor")]
pub(crate) async fn confirm_factor(
    state: web::Data<AppState>,
    signed_in: SignedIn,
    body: web::Json<ConfirmFactor>,
) -> Result<web::Json<RecoveryCodes>, ApiError> {
    let set = state.run(move |store, _| {
        if !verify_password(&body.password, Some(&signed_in.0.password_hash)) {
            return Err(invalid("/password", "this is not the password you have".to_owned()));
        }
        let offered = Factor { secret: body.secret.clone(), last_step: 0 };
        let now_s = u64::try_from(Timestamp::now().as_second()).unwrap_or_default();
        let says = "this code does not fit: look at the phone's clock, and type the next one";
        let last_step = factor_step(&offered, &body.code, now_s).ok_or_else(|| invalid("/code", says.to_owned()))?;
        let codes = recovery_codes();
        let hashes: Vec<String> = codes.iter().map(|code| recovery_hash(code)).collect();
        store.set_factor(&signed_in.0.id, Some(&Factor { last_step, ..offered }), &hashes)?;
        Ok(RecoveryCodes { codes })
    });
    set.await.map(web::Json)
}

/// Takes a second factor away: one's own, or as the owner somebody's who lost their phone.
#[utoipa::path(tag = "practice", request_body = OwnPassword, responses((status = 204),
    (status = 403, body = ProblemDetails), (status = 404, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[delete("/practice/people/{account_id}/second-factor")]
pub(crate) async fn remove_factor(
    state: web::Data<AppState>,
    signed_in: SignedIn,
    id: web::Path<String>,
    body: web::Json<OwnPassword>,
) -> Result<HttpResponse, ApiError> {
    if signed_in.0.id != *id {
        allowed(&signed_in.0, Act::People)?;
    }
    let removed = state.run(move |store, _| {
        if !verify_password(&body.password, Some(&signed_in.0.password_hash)) {
            return Err(invalid("/password", "this is not the password you have".to_owned()));
        }
        Ok(store.set_factor(&id, None, &[])?)
    });
    removed.await?;
    Ok(HttpResponse::NoContent().finish())
}

/// Takes someone's way in away.
#[utoipa::path(tag = "practice", responses((status = 204), (status = 403, body = ProblemDetails),
    (status = 404, body = ProblemDetails), (status = 409, body = ProblemDetails)))]
#[delete("/practice/people/{account_id}")]
pub(crate) async fn remove_person(state: web::Data<AppState>, id: web::Path<String>) -> Result<HttpResponse, ApiError> {
    let gone = id.clone();
    state.run(move |store, _| Ok(store.remove_account(&id)?)).await?;
    state.feed.close(&gone);
    Ok(HttpResponse::NoContent().finish())
}

/// Deeds on one page.
const DEEDS_A_PAGE: u32 = 100;

/// Which page of deeds.
#[derive(Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub(crate) struct DeedsQuery {
    /// How many newer ones are left out.
    #[serde(default)]
    skip: u32,
}

/// Who did what kind of thing, newest first.
#[utoipa::path(tag = "practice", params(DeedsQuery), responses((status = 200, body = Vec<DeedView>),
    (status = 403, body = ProblemDetails)))]
#[get("/practice/deeds")]
pub(crate) async fn show_deeds(
    state: web::Data<AppState>,
    query: web::Query<DeedsQuery>,
) -> Result<web::Json<Vec<DeedView>>, ApiError> {
    let read = state.run(move |store, _| {
        let view = |deed: Deed| {
            let act = Act::parse(&deed.act).ok_or_else(|| ApiError::Internal(format!("{:?} is no act", deed.act)))?;
            Ok(DeedView { at: deed.at, name: deed.name, act, client_name: deed.client_name })
        };
        store.deeds(query.skip, DEEDS_A_PAGE)?.into_iter().map(view).collect()
    });
    read.await.map(web::Json)
}

/// What was learned of everyone who held a tape, from all rounds.
#[utoipa::path(tag = "practice", responses((status = 200, body = Vec<MeasurerView>), (status = 401, body = ProblemDetails)))]
#[get("/practice/measurers")]
pub(crate) async fn show_measurers(state: web::Data<AppState>) -> Result<HttpResponse, ApiError> {
    let page = state.page("measurers", PageOf::Practice, |store, knowledge, _| {
        Ok(measurers(&knowledge.atlas, &store.rounds_by_client(&knowledge.atlas)?))
    });
    page.await
}

/// How often the words are right, and what each coach's ratings weigh.
#[utoipa::path(tag = "practice", responses((status = 200, body = AccuracyView), (status = 401, body = ProblemDetails)))]
#[get("/practice/accuracy")]
pub(crate) async fn show_accuracy(state: web::Data<AppState>) -> Result<web::Json<AccuracyView>, ApiError> {
    let view = state.run(move |store, knowledge| {
        let rater = |account: Account| {
            let agreement = AgreementView::of(knowledge, store, &account.id)?;
            Ok(RaterView { name: account.name, agreement })
        };
        let raters = store.accounts()?.into_iter().map(rater).collect::<Result<_, ApiError>>()?;
        Ok(AccuracyView {
            calibration: Calibration::shipped().map_err(|error| ApiError::Internal(error.to_string()))?,
            raters,
        })
    });
    view.await.map(web::Json)
}

fn measurers(atlas: &Atlas, clients: &[Vec<Round>]) -> Vec<MeasurerView> {
    let mut rounds: Vec<&Round> = clients.iter().flatten().collect();
    rounds.sort_by_key(|round| round.date);
    let mut all = MeasurerErrors::default();
    for round in &rounds {
        all.add_readings(atlas, round);
    }
    for rounds in clients {
        all.add_client(atlas, rounds);
    }
    let (hand_pct, hand_pairs) = all.hand_learned(atlas);
    let of = |name: &str| {
        let (tem_pct, pairs) = all.overall(atlas, name);
        let learned = all.learned(atlas, name).into_iter().map(|learned| LearnedView {
            site: learned.site,
            fold: learned.fold,
            tem_pct: learned.tem_pct,
            default_pct: learned.default_pct,
            pairs: learned.pairs,
        });
        let (placing_pct, placing_values) = all.placing_learned(atlas, name);
        MeasurerView {
            name: name.to_owned(),
            placing_pct,
            placing_values,
            hand_pct,
            hand_pairs,
            default_pct: atlas.evidence().error.girth_pct,
            tem_pct,
            pairs,
            sites: learned.collect(),
            over_time: over_time(atlas, &rounds, name),
        }
    };
    all.measurers().into_iter().map(of).collect()
}

/// A measurer's error as it was known after each day on which they measured; `rounds` are oldest first.
fn over_time(atlas: &Atlas, rounds: &[&Round], name: &str) -> Vec<MeasuringPoint> {
    let mut errors = MeasurerErrors::default();
    let mut points: Vec<MeasuringPoint> = Vec::new();
    for round in rounds.iter().filter(|round| round.measured_by == name) {
        errors.add_readings(atlas, round);
        let (tem_pct, pairs) = errors.overall(atlas, name);
        let point = MeasuringPoint { date: round.date.to_string(), tem_pct, pairs };
        match points.last_mut() {
            Some(last) if last.date == point.date => *last = point,
            _ => points.push(point),
        }
    }
    points
}

const TAPE_ORDER: &str = "tape-order";

/// The order in which whoever is signed in tapes, and what they leave out.
#[utoipa::path(tag = "practice", responses((status = 200, body = TapeOrder), (status = 401, body = ProblemDetails)))]
#[get("/preferences/tape-order")]
pub(crate) async fn show_tape_order(
    state: web::Data<AppState>,
    signed_in: SignedIn,
) -> Result<web::Json<TapeOrder>, ApiError> {
    let order = state.run(move |store, knowledge| {
        let stored = store.preference(&signed_in.0.id, TAPE_ORDER)?;
        let order: TapeOrder = stored.and_then(|value| serde_json::from_value(value).ok()).unwrap_or_default();
        Ok(completed(&knowledge.atlas, order))
    });
    order.await.map(web::Json)
}

/// Sites that the order does not name stand at the end, so that a site of a newer version is not lost.
fn completed(atlas: &Atlas, mut order: TapeOrder) -> TapeOrder {
    let known = |id: &String| atlas.sites().iter().any(|site| site.id.as_str() == id);
    order.sites.retain(known);
    order.left_out.retain(known);
    let missing = atlas.sites().iter().map(|site| site.id.to_string()).filter(|id| !order.sites.contains(id));
    let missing: Vec<String> = missing.collect();
    order.sites.extend(missing);
    order
}

/// Keeps the order.
#[utoipa::path(tag = "practice", request_body = TapeOrder, responses(
    (status = 200, body = TapeOrder), (status = 422, body = ProblemDetails)))]
#[put("/preferences/tape-order")]
pub(crate) async fn save_tape_order(
    state: web::Data<AppState>,
    signed_in: SignedIn,
    body: web::Json<TapeOrder>,
) -> Result<web::Json<TapeOrder>, ApiError> {
    let saved = state.run(move |store, knowledge| {
        let order = body.into_inner();
        for (list, ids) in [("sites", &order.sites), ("left_out", &order.left_out)] {
            let wrong = ids.iter().position(|id| !knowledge.atlas.sites().iter().any(|site| site.id.as_str() == id));
            if let Some(place) = wrong {
                return Err(invalid(&format!("/{list}/{place}"), format!("there is no tape site {:?}", ids[place])));
            }
        }
        let value = to_value(&order).unwrap_or_else(|_| json!({}));
        store.save_preference(&signed_in.0.id, TAPE_ORDER, &value)?;
        Ok(completed(&knowledge.atlas, order))
    });
    saved.await.map(web::Json)
}
