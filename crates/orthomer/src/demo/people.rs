//! Made-up names for as many clients as are asked for.

const FIRST: [&str; 20] = [
    "Alba", "Brisa", "Calix", "Dorin", "Elowen", "Farrow", "Greta", "Hale", "Isolde", "Jarl", "Kestrel", "Liv",
    "Maren", "Nico", "Ottilie", "Perrin", "Quill", "Rosalin", "Soren", "Tamsin",
];
const LAST: [&str; 19] = [
    "Ambry",
    "Barrowell",
    "Cantle",
    "Dovecot",
    "Eastmere",
    "Fallowby",
    "Gantry",
    "Hollin",
    "Inkpen",
    "Jessamy",
    "Kettle",
    "Lockridge",
    "Millward",
    "Netherby",
    "Oakhanger",
    "Pennick",
    "Quarrington",
    "Rushford",
    "Sallow",
];

/// The name of the client with this number. 20 and 19 share no factor, so 380 names differ; later ones get a number.
pub fn name(index: usize) -> String {
    let base = format!("{} {}", FIRST[index % FIRST.len()], LAST[index % LAST.len()]);
    match index / (FIRST.len() * LAST.len()) {
        0 => base,
        lap => format!("{base} {}", lap + 1),
    }
}

#[cfg(test)]
mod tests {
    use super::name;
    use std::collections::HashSet;

    #[test]
    fn five_hundred_clients_have_five_hundred_names() {
        let names: HashSet<String> = (0..500).map(name).collect();
        assert_eq!(names.len(), 500);
    }
}
