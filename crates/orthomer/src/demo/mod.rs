//! Demo data: Millrace Studio in the invented town of Karrow, its coach, and its made-up clients.

mod body;
mod people;
mod stories;

use crate::failure::Failure;
use assess::{Choices, Knowledge};
use casefile::{ClientEntry, check_client};
use jiff::ToSpan;
use jiff::civil::Date;
use server::hash_password;
use store::{NewAccount, NewRound, Role, SavedTape, Store};
use stories::Story;
use units::Mass;

/// What is typed to sign in to the demo.
pub const LOGIN: &str = "mara";
/// Not a secret: the demo's data is made up and made anew at every start.
pub const PASSWORD: &str = "plumb-line-demo";
const COACH: &str = "Mara Tellwright";

/// Fills an empty store with the coach and `clients` clients whose newest rounds lie a few days before `today`.
pub fn fill(store: &Store, knowledge: &Knowledge, clients: usize, today: Date) -> Result<(), Failure> {
    let owner = NewAccount {
        login: LOGIN.to_owned(),
        name: COACH.to_owned(),
        role: Role::Owner,
        password_hash: hash_password(PASSWORD).map_err(Failure::other)?,
    };
    store.add_owner(&owner).map_err(Failure::other)?;
    let stories = stories::stories();
    for index in 0..clients {
        let story = &stories[index % stories.len()];
        let name = if index < stories.len() { story.name.to_owned() } else { people::name(index) };
        add(store, knowledge, story, &name, index, today)?;
    }
    Ok(())
}

fn add(
    store: &Store,
    knowledge: &Knowledge,
    story: &Story,
    name: &str,
    index: usize,
    today: Date,
) -> Result<(), Failure> {
    let entry = ClientEntry { name: name.to_owned(), ..story.brief(knowledge) };
    let client = check_client(&knowledge.atlas, "", &entry, today).map_err(Failure::Input)?;
    let record = store.add_client(&knowledge.atlas, &client).map_err(Failure::other)?;
    for (number, round) in story.rounds.iter().enumerate() {
        let taken_on = today.checked_sub(round.weeks_ago.weeks().days(2)).map_err(Failure::other)?;
        let weight = Mass::from_kg(round.weight_kg).map_err(Failure::other)?;
        let new = NewRound { taken_on, measured_by: round.measured_by.to_owned(), weight: Some(weight) };
        let id = store.add_round(&record.id, &new).map_err(Failure::other)?.id;
        let measures = body::tape(knowledge, &client, story, round, (index * 10 + number) as u64)?;
        let sheet = SavedTape { revision: 0, saved_by: COACH, measured_by: round.measured_by, measures: &measures };
        store.save_tape(&id, &sheet).map_err(Failure::other)?;
        let bring_up = round.bring_up.iter().map(|id| id.parse()).collect::<Result<_, _>>().map_err(Failure::other)?;
        let choices = Choices { bring_up, ..Choices::default() };
        store.save_choices(&id, 0, &choices).map_err(Failure::other)?;
    }
    Ok(())
}
