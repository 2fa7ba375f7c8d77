//! Made-up clients: ages, pains, screens, kits, training ages, days, minutes, looks and splits, by a number that says which.

use assess::{Case, Knowledge};
use casefile::CaseFile;
use rand::rngs::Xoshiro256PlusPlus;
use rand::seq::{IndexedRandom, IteratorRandom};
use rand::{RngExt, SeedableRng};
use serde_json::{Value, json};

const EXAMPLE: &str = include_str!("../../../../../docs/examples/case.json");
const PAINS: [&str; 8] = ["shoulder", "elbow", "wrist", "low-back", "neck", "knee", "hip", "ankle"];

/// The case of a made-up client; the same number gives the same client.
pub fn case(knowledge: &Knowledge, number: u64) -> Case {
    let file = file(knowledge, number);
    let parsed = CaseFile::parse(&file.to_string()).expect("a case file");
    parsed.resolve(&knowledge.atlas).unwrap_or_else(|problems| panic!("client {number}: {problems:?}"))
}

/// The case file of a made-up client.
pub fn file(knowledge: &Knowledge, number: u64) -> Value {
    let atlas = &knowledge.atlas;
    let mut rng = Xoshiro256PlusPlus::seed_from_u64(number);
    let mut file: Value = serde_json::from_str(EXAMPLE).expect("the example");
    let kit = atlas.kits().choose(&mut rng).expect("kits");
    let days: u8 = rng.random_range(2..=6);
    let pains: usize = *[0, 0, 0, 1, 1, 2].choose(&mut rng).expect("a count");
    let pain: Vec<Value> = PAINS
        .iter()
        .sample(&mut rng, pains)
        .into_iter()
        .map(|area| json!({"area": area, "level": rng.random_range(1..=7)}))
        .collect();
    let regions: Vec<&str> = atlas.regions().iter().map(|region| region.id.as_str()).collect();
    let wishes: usize = *[0, 1, 2, 2, 3].choose(&mut rng).expect("a count");
    let chosen = regions.iter().sample(&mut rng, wishes);
    let client = &mut file["client"];
    client["birth_date"] = json!(format!("{}-04-01", rng.random_range(1955..=2006)));
    client["experience"] = json!(["beginner", "intermediate", "advanced"].choose(&mut rng));
    client["look"] = json!(atlas.looks().choose(&mut rng).map(|look| look.id.as_str()));
    client["days_per_week"] = json!(days);
    client["minutes_per_session"] = json!([30, 40, 50, 60, 75, 90].choose(&mut rng));
    client["max_exercises_per_session"] = json!(rng.random_range(5..=8));
    client["equipment"] = json!(kit.items);
    client["pain"] = json!(pain);
    client["screens"] = if rng.random_ratio(1, 4) {
        json!({"shoulder_extension_deg": {"left": 52, "right": 58}, "ankle_dorsiflexion_deg": {"left": 22, "right": 24}})
    } else {
        json!({})
    };
    let splits = atlas.school("split").map(|school| school.options.as_slice()).unwrap_or_default();
    client["schools"] = json!({"split": splits.choose(&mut rng).map(|option| option.id.as_str())});
    if !rng.random_ratio(1, 3) {
        file["training"] = json!([]);
    }
    file["choices"] = json!({"bring_up": chosen, "hold_back": [], "overrides": []});
    file
}
