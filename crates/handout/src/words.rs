//! How a plan's parts are put for the client.

use atlas::{Atlas, PartKind, PlannedPart};
use casefile::ItemEntry;
use plan::{PlannedSet, SidePlan, rounds};
use units::Measures;

/// `8 to 12 repetitions`, `30 to 45 s`.
pub(crate) fn work(item: &ItemEntry) -> String {
    match (item.reps, item.seconds) {
        (Some([low, high]), _) => format!("{low} to {high} repetitions"),
        (None, Some([low, high])) => format!("{low} to {high} s"),
        (None, None) => String::new(),
    }
}

/// What was reported of the form.
pub(crate) fn last_time(reported: &[String]) -> String {
    format!("Watch this, last time: {}.", reported.join(", "))
}

/// What a part of a set is called within a sentence.
fn part_name(kind: PartKind) -> &'static str {
    match kind {
        PartKind::Drop => "drop",
        PartKind::Partials => "partials",
        PartKind::Pause => "pause and again",
        PartKind::Hold => "hold",
        PartKind::Carry => "carry",
        PartKind::Assisted => "helped",
    }
}

fn span(range: [u16; 2], unit: &str) -> String {
    let [low, high] = range;
    if low == high { format!("{low}{unit}") } else { format!("{low} to {high}{unit}") }
}

/// Set by set in one line, where sets differ: `1: 8 to 12, 1 left; 2: 8 to 12, 0 left, drop at 70 % 8 to 10`.
pub(crate) fn per_set(item: &ItemEntry) -> String {
    let part = |part: &PlannedPart| {
        let at = part.load_pct.map_or_else(String::new, |pct| format!(" at {pct} %"));
        let count = part.reps.map(|reps| span(reps, "")).or(part.seconds.map(|s| format!("{s} s")));
        format!("{}{at} {}", part_name(part.kind), count.unwrap_or_default()).trim_end().to_owned()
    };
    let set = |set: &PlannedSet| {
        let unit = if set.seconds.is_some() { " s" } else { "" };
        let mut says = vec![span(set.range(), unit)];
        if set.load_pct != 100 {
            says.push(format!("{} % of the load", set.load_pct));
        }
        says.push(format!("{} left", set.reserve));
        says.extend(set.parts.iter().map(part));
        format!("{}: {}", set.number, says.join(", "))
    };
    // Where only the last set leaves less, nothing else needs to be said again.
    if let Some((last, others)) = item.per_set.split_last()
        && others.iter().all(|set| is_usual(item, set) && set.reserve == item.reserve)
        && is_usual(item, last)
        && last.parts.is_empty()
    {
        return format!("last set: {} left", last.reserve);
    }
    item.per_set.iter().map(set).collect::<Vec<_>>().join("; ")
}

/// Whether a set is as the item says, what it leaves aside.
fn is_usual(item: &ItemEntry, set: &PlannedSet) -> bool {
    set.reps == item.reps && set.seconds == item.seconds && set.load_pct == 100 && set.parts.is_empty()
}

/// A pace as it is written, lowering first: `3-0-1-0`.
pub(crate) fn tempo(item: &ItemEntry) -> Option<String> {
    item.tempo.map(|tempo| tempo.map(|s| s.to_string()).join("-"))
}

/// A load; what is under 0 is help.
pub(crate) fn load(measures: Measures, kg: f64) -> String {
    if kg < 0.0 { format!("{} of help", measures.mass.text(-kg)) } else { measures.mass.text(kg) }
}

/// The variant and the numbers of the set-up: `with a rope; Pulley 7 notch`.
pub(crate) fn set_up(atlas: &Atlas, measures: Measures, item: &ItemEntry) -> String {
    let exercise = atlas.exercise(&item.exercise);
    let variant = item.variant.as_ref().and_then(|id| Some(exercise?.variant(id)?.name.clone()));
    let number = |(name, value): (&String, &f64)| {
        let field = atlas.set_up_field(name);
        match field {
            None => format!("{name} {value}"),
            Some(field) if field.unit == "cm" => format!("{} {}", field.says, measures.length.text(*value)),
            Some(field) => format!("{} {value} {}", field.says, field.unit),
        }
    };
    variant.into_iter().chain(item.set_up.iter().map(number)).collect::<Vec<_>>().join("; ")
}

/// Where an item stands: its number, or `A1` in a group.
pub(crate) fn place(items: &[ItemEntry], at: usize) -> String {
    let run = rounds(items.iter().map(|item| item.group.as_deref())).into_iter().find(|run| run.contains(&at));
    match (run, &items[at].group) {
        (Some(run), Some(group)) if run.len() > 1 => format!("{group}{}", at - run.start + 1),
        _ => (at + 1).to_string(),
    }
}

/// Rest after a set; within a group none before the next.
pub(crate) fn rest(items: &[ItemEntry], at: usize) -> String {
    let item = &items[at];
    let run = rounds(items.iter().map(|item| item.group.as_deref())).into_iter().find(|run| run.contains(&at));
    match run {
        Some(run) if run.len() > 1 && at + 1 < run.end && item.rest_s == 0 => {
            format!("then straight on to {}", place(items, at + 1))
        }
        _ => format!("rest {} s", item.rest_s),
    }
}

/// Which side goes first, and what it has more of.
pub(crate) fn sides(item: &ItemEntry) -> String {
    let side = match item.sides {
        SidePlan::Both => return "Both sides together".to_owned(),
        SidePlan::LeftFirst => "left",
        SidePlan::RightFirst => "right",
    };
    match item.extra_sets_weaker {
        0 => format!("One side at a time, {side} first; the other does the same, no more"),
        1 => format!("One side at a time, {side} first, with one set more; the other matches it, no more"),
        more => format!("One side at a time, {side} first, with {more} sets more; the other matches it, no more"),
    }
}

/// Said at the foot of every page.
pub(crate) const STOP: &str = "Stop an exercise that hurts 3 of 10 or more and tell your coach. Sharp pain, numbness, \
    swelling or sudden weakness: stop and see a doctor.";
