//! Demo data: Millrace Studio in the invented town of Karrow, its coach, and its made-up clients.

mod body;
mod eye;
mod hour;
mod judgements;
mod people;
pub mod pictures;
mod stories;
mod training;

use crate::failure::Failure;
use assess::{Choices, Knowledge, PhotoPurpose};
use casefile::{ClientEntry, ConsentEntry, ReadinessEntry, check_client};
use desk::clients::MadeUp;
use desk::photos::learn_eyes;
use jiff::ToSpan;
use jiff::civil::Date;
use roles::Role;
use server::hash_password;
use std::collections::HashMap;
use store::{NewAccount, NewRound, Page, SavedTape, Store, is_made_up};
use stories::{RoundStory, Story};
use units::{Mass, Place, RoundId};

/// What is typed to sign in to the demo.
pub const LOGIN: &str = "mara";
/// Not a secret: the demo's data is made up and made anew at every start.
pub const PASSWORD: &str = "plumb-line-demo";
const COACH: &str = "Mara Tellwright";

/// Who measures and gives.
#[derive(Clone, Copy)]
pub struct Coach<'a> {
    /// What others see.
    pub name: &'a str,
    /// The account's.
    pub id: &'a str,
}

/// Round id and day by client and weeks ago.
type RoundIds = HashMap<(&'static str, i64), (RoundId, Date)>;

/// Fills an empty store with the coach and `clients` clients whose newest rounds lie a few days before `today`.
pub fn fill(store: &Store, knowledge: &Knowledge, clients: usize, today: Date) -> Result<(), Failure> {
    let owner = NewAccount {
        login: LOGIN.to_owned(),
        name: COACH.to_owned(),
        role: Role::Owner,
        password_hash: hash_password(PASSWORD).map_err(Failure::other)?,
    };
    let coach = store.add_owner(&owner).map_err(Failure::other)?;
    let by = Coach { name: COACH, id: &coach.id };
    let stories = stories::stories();
    let mut rounds = RoundIds::new();
    for index in 0..clients {
        let story = &stories[index % stories.len()];
        let name = if index < stories.len() { story.name.to_owned() } else { people::name(index) };
        let long = index >= stories.len();
        let added = add(store, knowledge, story, (&name, index), (by, today), long)?;
        if !long {
            rounds.extend(added);
        }
    }
    hour::keep(store, knowledge, &rounds, COACH)?;
    judgements::give(store, &rounds, &coach.id)?;
    eye::keep(store, knowledge, &coach.id, today)?;
    learn_eyes(store, knowledge).map_err(Failure::other)?;
    training::keep(store, knowledge, &rounds, by, today)
}

/// A client to look around with in a practice that goes on: measured three times, judged, trained and logged. The same one again
/// while they are there; nothing is learned from them ([`store::is_made_up`]).
pub fn made_up(store: &Store, knowledge: &Knowledge, by: Coach, today: Date) -> Result<MadeUp, Failure> {
    let story = stories::made_up();
    let first = Page { number: 1, size: u32::MAX };
    let (found, _) = store.clients(&knowledge.atlas, Some(story.name), first).map_err(Failure::other)?;
    if let Some(known) = found.into_iter().find(|record| is_made_up(&record.client))
        && let Some(newest) = store.rounds(&known.id).map_err(Failure::other)?.pop()
    {
        return Ok(MadeUp { client_id: known.id, round_id: newest.id });
    }
    let rounds = add(store, knowledge, &story, (story.name, 0), (by, today), false)?;
    training::of_made_up(store, knowledge, &rounds, &story, by, today)?;
    let newest = rounds.into_values().max_by_key(|(_, day)| *day).ok_or_else(|| Failure::other("no round"))?.0;
    let client_id = store.round(&newest).map_err(Failure::other)?.client_id;
    Ok(MadeUp { client_id, round_id: newest })
}

/// Clients beside those with stories have been here for three years: a round a season, and a log of every week.
const LONG_WEEKS: i64 = 156;
const SEASON_WEEKS: usize = 12;

fn add(
    store: &Store,
    knowledge: &Knowledge,
    story: &Story,
    (name, index): (&str, usize),
    (by, today): (Coach, Date),
    long: bool,
) -> Result<RoundIds, Failure> {
    let oldest = &story.rounds[0];
    let seasons = (oldest.weeks_ago + 8..=LONG_WEEKS).rev().step_by(SEASON_WEEKS).filter(|_| long);
    let earlier: Vec<RoundStory> = seasons.map(|weeks_ago| RoundStory { weeks_ago, ..*oldest }).collect();
    // Everyone agreed on the day of their first round.
    let first = earlier.first().map_or(oldest.weeks_ago, |round| round.weeks_ago);
    let given_on = today.checked_sub(first.weeks().days(2)).map_err(Failure::other)?.to_string();
    let readiness = ReadinessEntry { asked_on: given_on.clone(), yes: Vec::new() };
    let consent = ConsentEntry { given_on, purposes: vec![PhotoPurpose::Assessment, PhotoPurpose::SharingWithClient] };
    let entry = ClientEntry {
        name: name.to_owned(),
        photo_consent: Some(consent),
        readiness: Some(readiness),
        ..story.brief(knowledge)
    };
    let client = check_client(&knowledge.atlas, &Place::root(), &entry, today).map_err(Failure::Input)?;
    let record = store.add_client(&knowledge.atlas, &client).map_err(Failure::other)?;
    let mut ids = RoundIds::new();
    let mut dated = Vec::new();
    for (number, round) in earlier.iter().chain(story.rounds).enumerate() {
        let taken_on = today.checked_sub(round.weeks_ago.weeks().days(2)).map_err(Failure::other)?;
        let weight = Mass::from_kg(round.weight_kg).map_err(Failure::other)?;
        let new = NewRound { taken_on, measured_by: round.measured_by.to_owned(), weight: Some(weight) };
        let id = store.add_round(&record.id, &new).map_err(Failure::other)?.id;
        let measures = body::tape(knowledge, &client, story, round, (index * 10 + number) as u64)?;
        let sheet = SavedTape {
            revision: 0,
            saved_by: by.name,
            measured_by: round.measured_by,
            weight: Some(weight),
            measures: &measures,
            folds: &hour::folds(story.name, round.weeks_ago)?,
            levels: &hour::levels(story.name, client.height)?,
        };
        store.save_tape(&id, &sheet).map_err(Failure::other)?;
        let bring_up = round.bring_up.iter().map(|id| id.parse()).collect::<Result<_, _>>().map_err(Failure::other)?;
        let choices = Choices { bring_up, ..Choices::default() };
        store.save_choices(&id, 0, &choices).map_err(Failure::other)?;
        dated.push((id.clone(), taken_on));
        ids.insert((story.name, round.weeks_ago), (id, taken_on));
    }
    if long {
        let years = (by, today, index as u64);
        training::keep_years(store, knowledge, &record.id, name, &dated, years)?;
    }
    Ok(ids)
}

#[cfg(test)]
mod tests {
    use super::*;
    use assess::{Assessment, Case, FlagKind, SideVerdict, Standing, assess};
    use casefile::warnings;
    use rstest::{fixture, rstest};
    use tempfile::TempDir;

    struct Demo {
        store: Store,
        knowledge: Knowledge,
        _directory: TempDir,
    }

    impl Demo {
        fn of(clients: usize) -> Self {
            let directory = tempfile::tempdir().unwrap();
            let (store, knowledge) = (Store::open(directory.path()).unwrap(), Knowledge::load().unwrap());
            fill(&store, &knowledge, clients, Date::constant(2026, 3, 4)).unwrap();
            Self { store, knowledge, _directory: directory }
        }

        fn client(&self, name: &str) -> (Case, Assessment) {
            let page = Page { number: 1, size: 1 };
            let (found, _) = self.store.clients(&self.knowledge.atlas, Some(name), page).unwrap();
            let (_, case) = self.store.newest_cases(&self.knowledge.atlas, &found).unwrap().remove(0);
            let assessment = assess(&self.knowledge, &case);
            (case, assessment)
        }
    }

    #[fixture]
    #[once]
    fn demo() -> Demo {
        Demo::of(10)
    }

    fn behind(assessment: &Assessment) -> Vec<&str> {
        let lagging = assessment.regions.iter().filter(|region| region.standing() == Standing::Behind);
        lagging.map(|region| region.region.as_str()).collect()
    }

    #[rstest]
    fn the_small_calf_is_behind_and_chosen(demo: &Demo) {
        let (case, oda) = demo.client("Oda Fenwick");
        assert!(behind(&oda).contains(&"calves.gastrocnemius"), "{:?}", behind(&oda));
        assert!(case.rounds.len() == 3 && case.choices.bring_up.iter().any(|r| r.as_str() == "calves.gastrocnemius"));
    }

    // By hand: calves of Oda three times, Bram and Rune; hips of Oda and Juno. Of other girths too little was judged.
    #[rstest]
    fn the_coach_s_eye_stands_beside_seven_girths(demo: &Demo) {
        let coach = demo.store.account_by_login(LOGIN).unwrap().unwrap();
        let eye = demo.store.eye_beside_girths(&coach.id).unwrap();
        assert!(eye.girths == 7 && eye.weight > 0.0 && eye.weight < 7.0, "{eye:?}");
    }

    #[rstest]
    fn the_left_arm_is_behind_the_right(demo: &Demo) {
        let (_, bram) = demo.client("Bram Quillan");
        let arm = bram.asymmetries.iter().find(|a| a.site.as_str() == "arm-flexed").unwrap();
        assert!(arm.belief.verdict == SideVerdict::RealAct && arm.difference_cm < 0.0);
    }

    #[rstest]
    fn the_level_client_has_nothing_behind_and_nothing_that_leans(demo: &Demo) {
        let (_, juno) = demo.client("Juno Halvard");
        assert!(behind(&juno).is_empty());
        assert!(juno.asymmetries.iter().all(|a| a.belief.verdict != SideVerdict::RealAct));
    }

    #[rstest]
    fn the_muscular_one_is_said_to_be_and_not_ahead_everywhere(demo: &Demo) {
        let (_, rune) = demo.client("Rune Castellan");
        let ahead = rune.regions.iter().filter(|region| region.standing() == Standing::Ahead).count();
        assert!(rune.muscularity.is_some_and(|(amount, _)| amount > 1.5), "{:?}", rune.muscularity);
        assert!(ahead < 6, "{ahead}");
        assert!(demo.client("Juno Halvard").1.muscularity.is_some_and(|(amount, _)| amount.abs() < 1.0));
    }

    #[rstest]
    fn the_one_with_too_little_tape_is_told_what_is_missing(demo: &Demo) {
        let (_, nadia) = demo.client("Nadia Pell");
        assert!(nadia.reference.sites.is_empty() && !nadia.reference.missing.is_empty());
    }

    #[test]
    fn the_made_up_client_of_a_running_practice_is_one_is_judged_and_has_trained() {
        let Demo { store, knowledge, _directory } = Demo::of(0);
        let coach = store.account_by_login(LOGIN).unwrap().unwrap();
        let by = Coach { name: "Jo", id: &coach.id };
        let today = Date::constant(2026, 3, 4);
        let made = made_up(&store, &knowledge, by, today).unwrap();
        assert_eq!(made_up(&store, &knowledge, by, today).unwrap(), made, "the same one again");
        let case = store.case_at(&knowledge.atlas, &made.round_id).unwrap();
        let assessment = assess(&knowledge, &case);
        assert!(behind(&assessment).contains(&"calves.gastrocnemius"), "{:?}", behind(&assessment));
        let arm = assessment.asymmetries.iter().find(|side| side.site.as_str() == "arm-flexed").unwrap();
        assert_eq!(arm.belief.verdict, SideVerdict::RealAct);
        assert!(store.belongings(&knowledge.atlas, &made.client_id).unwrap().log_entries > 100);
        assert!(store.rounds_by_client(&knowledge.atlas).unwrap().is_empty(), "nothing is learned from them");
    }

    #[rstest]
    fn the_large_difference_is_referred(demo: &Demo) {
        let (_, tobin) = demo.client("Tobin Achter");
        assert!(tobin.flags.iter().any(|flag| flag.kind == FlagKind::LargeSideDifference && flag.refer));
    }

    #[rstest]
    fn the_two_readings_that_disagree_ask_for_a_third(demo: &Demo) {
        let (case, sefa) = demo.client("Sefa Orrin");
        assert!(warnings(&demo.knowledge, &case, &sefa.reference).iter().any(|w| w.says.contains("take a third")));
    }

    #[rstest]
    fn every_client_of_the_demo_gets_a_week(demo: &Demo) {
        let everyone = Page { number: 1, size: 100 };
        let (clients, total) = demo.store.clients(&demo.knowledge.atlas, None, everyone).unwrap();
        assert_eq!(total, 10);
        for (_, case) in demo.store.newest_cases(&demo.knowledge.atlas, &clients).unwrap() {
            let plan = plan::plan(&demo.knowledge, &case, &assess(&demo.knowledge, &case));
            assert!(!plan.sessions.is_empty(), "{}: {:?}", case.client.name, plan.blocked);
        }
    }

    #[test]
    fn more_clients_have_names_of_their_own_and_the_same_demo_is_the_same_every_time() {
        let names = || -> Vec<String> {
            let demo = Demo::of(14);
            let everyone = Page { number: 1, size: 100 };
            let (clients, _) = demo.store.clients(&demo.knowledge.atlas, None, everyone).unwrap();
            clients.into_iter().map(|record| record.client.name).collect()
        };
        let first = names();
        let mut distinct = first.clone();
        distinct.dedup();
        assert_eq!((first.len(), distinct.len()), (14, 14));
        assert_eq!(first, names());
    }
}
