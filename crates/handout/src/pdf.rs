//! The plan as PDF, A4: a session begins a page, with cues, faults, side order, warm-up and a box to write in for every week.

use crate::page::{Faces, HEIGHT, MARGIN, WIDTH, frame, rule, text};
use crate::words::{self, STOP, sides, work};
use crate::{Handout, HandoutError};
use atlas::STRAIGHT;
use casefile::{ItemEntry, LadderEntry, SessionEntry};
use krilla::Document;
use krilla::metadata::Metadata;
use krilla::page::PageSettings;
use plan::{ActivationEntry, MoveEntry, weekday_name};

const NAME: f32 = 11.0;
const BODY: f32 = 9.0;
const LEADING: f32 = 1.26;
const BOX_HEIGHT: f32 = 24.0;
const FOOT: f32 = 26.0;
const HEAD: f32 = 34.0;
/// A session is set smaller rather than torn over two pages, as long as it can be read at arm's length.
const SCALES: [f32; 6] = [1.0, 0.95, 0.9, 0.85, 0.8, 0.76];

/// One line or row of boxes of a session, with its height.
enum Part {
    Text { says: String, size: f32, bold: bool },
    Boxes { labels: Vec<String>, height: f32 },
    Rule,
}

impl Part {
    fn height(&self) -> f32 {
        match self {
            Self::Text { size, .. } => size * LEADING,
            Self::Boxes { height, .. } => height + 5.0,
            Self::Rule => 9.0,
        }
    }
}

/// The PDF of a plan.
///
/// # Errors
/// [`HandoutError::Font`] or [`HandoutError::Pdf`]; neither depends on the plan.
pub fn pdf(handout: &Handout) -> Result<Vec<u8>, HandoutError> {
    let faces = Faces::load()?;
    let mut document = Document::new();
    let title = format!("Training plan of {}, version {}", handout.client_name, handout.version);
    document.set_metadata(Metadata::new().title(title).language("en".to_owned()).creator("Orthomer".to_owned()));
    for (index, session) in handout.plan.sessions.iter().enumerate().filter(|(_, session)| !session.items.is_empty()) {
        let set = |scale: f32| blocks(handout, &Setting { faces: &faces, scale }, index, session);
        let whole = SCALES.into_iter().map(set).find(|blocks| fitting(blocks) == blocks.len());
        let blocks = whole.unwrap_or_else(|| set(1.0));
        let mut left = blocks.as_slice();
        let mut first = true;
        while !left.is_empty() {
            let taken = fitting(left);
            sheet(&mut document, handout, &faces, session, first, &left[..taken])?;
            left = &left[taken..];
            first = false;
        }
    }
    document.finish().map_err(|error| HandoutError::Pdf(format!("{error:?}")))
}

/// How many blocks fit on a page; at least one, so that every page gets further.
fn fitting(blocks: &[Vec<Part>]) -> usize {
    let room = HEIGHT - 2.0 * MARGIN - FOOT - HEAD;
    let mut used = 0.0;
    let fits = blocks.iter().take_while(|block| {
        used += block.iter().map(Part::height).sum::<f32>();
        used <= room
    });
    fits.count().max(1)
}

fn sheet(
    document: &mut Document,
    handout: &Handout,
    faces: &Faces,
    session: &SessionEntry,
    first: bool,
    blocks: &[Vec<Part>],
) -> Result<(), HandoutError> {
    let settings = PageSettings::from_wh(WIDTH, HEIGHT).ok_or_else(|| HandoutError::Pdf("no page".to_owned()))?;
    let mut page = document.start_page_with(settings);
    let mut surface = page.surface();
    let home = if session.home { ", at home" } else { "" };
    let going_on = if first { "" } else { ", continued" };
    let head = format!("{}{home}{going_on}", weekday_name(session.day));
    text(&mut surface, &faces.bold, 18.0, (MARGIN, MARGIN + 14.0), &head);
    let side = format!(
        "{}, plan {}, from {}, {:.0} min",
        handout.client_name, handout.version, handout.starts_on, session.minutes
    );
    let right = WIDTH - MARGIN - faces.regular.width(&side, BODY);
    text(&mut surface, &faces.regular, BODY, (right, MARGIN + 14.0), &side);
    rule(&mut surface, MARGIN + 24.0);
    let mut y = MARGIN + 32.0;
    for part in blocks.iter().flatten() {
        match part {
            Part::Text { says, size, bold } => {
                let face = if *bold { &faces.bold } else { &faces.regular };
                text(&mut surface, face, *size, (MARGIN, y + size), says);
            }
            Part::Boxes { labels, height } => {
                let width = (WIDTH - 2.0 * MARGIN) / labels.len() as f32;
                for (place, label) in labels.iter().enumerate() {
                    let x = MARGIN + place as f32 * width;
                    frame(&mut surface, x, y + 3.0, width - 4.0, *height);
                    text(&mut surface, &faces.regular, 6.5, (x + 3.0, y + 10.5), label);
                }
            }
            Part::Rule => rule(&mut surface, y + 5.0),
        }
        y += part.height();
    }
    for (line, says) in faces.regular.lines(STOP, 8.0, WIDTH - 2.0 * MARGIN).iter().enumerate() {
        text(&mut surface, &faces.regular, 8.0, (MARGIN, HEIGHT - MARGIN - 8.0 + line as f32 * 10.0), says);
    }
    surface.finish();
    page.finish();
    Ok(())
}

/// Faces and how much smaller than usual.
struct Setting<'a> {
    faces: &'a Faces,
    scale: f32,
}

impl Setting<'_> {
    fn paragraph(&self, says: &str, size: f32, bold: bool) -> Vec<Part> {
        let face = if bold { &self.faces.bold } else { &self.faces.regular };
        let size = size * self.scale;
        let lines = face.lines(says, size, WIDTH - 2.0 * MARGIN);
        lines.into_iter().map(|says| Part::Text { says, size, bold }).collect()
    }
}

/// What a session is made of; an exercise is never torn in two.
fn blocks(handout: &Handout, setting: &Setting, index: usize, session: &SessionEntry) -> Vec<Vec<Part>> {
    let items = session.items.iter().enumerate();
    let exercises = items.flat_map(|(place, first)| {
        let own = std::iter::once(first).chain(first.in_turn.as_deref());
        own.map(move |item| exercise(handout, setting, (index, session), (place, item)))
    });
    let ladders = session.ladders.iter().map(|ladder| light_sets(setting, ladder));
    let warm_up = &session.warm_up;
    let before = moves(setting, "Warm up", &warm_up.moves, warm_up.activation.as_ref());
    let after = moves(setting, "At the end", &warm_up.restoring, None);
    before.into_iter().chain(ladders).chain(exercises).chain(after).collect()
}

/// Moves before or after the work in one paragraph; none where there are none.
fn moves(
    setting: &Setting,
    title: &str,
    moves: &[MoveEntry],
    activation: Option<&ActivationEntry>,
) -> Option<Vec<Part>> {
    let one = |one: &MoveEntry| {
        let count = one.reps.map(|reps| reps.to_string()).or(one.seconds.map(|s| format!("{s} s"))).unwrap_or_default();
        format!("{} {count}", lower(&one.name))
    };
    let mut says: Vec<String> = moves.iter().map(one).collect();
    says.extend(activation.map(|light| format!("{} light sets of {}: {}", light.sets, light.reps, lower(&light.name))));
    if says.is_empty() {
        return None;
    }
    let mut parts = setting.paragraph(&format!("{title}: {}.", says.join("; ")), BODY, false);
    parts.push(Part::Rule);
    Some(parts)
}

/// Light sets for a region that is not felt, before the first exercise.
fn light_sets(setting: &Setting, ladder: &LadderEntry) -> Vec<Part> {
    let mut parts = setting.paragraph(&ladder.why, BODY, true);
    for (step, rung) in ladder.rungs.iter().enumerate() {
        parts.extend(setting.paragraph(&format!("{}. {}: {}", step + 1, rung.name, rung.how), BODY, false));
    }
    parts.push(Part::Rule);
    parts
}

fn exercise(
    handout: &Handout,
    setting: &Setting,
    (session, planned): (usize, &SessionEntry),
    (place, item): (usize, &ItemEntry),
) -> Vec<Part> {
    let first = &planned.items[place];
    let weeks: Vec<u8> =
        handout.weeks().into_iter().filter(|week| first.in_week(*week).exercise == item.exercise).collect();
    let known = handout.atlas.exercise(&item.exercise);
    let scheme = handout.atlas.scheme(&item.scheme).filter(|scheme| scheme.id != STRAIGHT);
    let mark = words::place(&planned.items, place);
    let mut parts = setting.paragraph(&format!("{mark}. {}", item.name), NAME, true);
    let mut dose = vec![format!("{} sets of {}", item.sets, work(item)), format!("{} in reserve", item.reserve)];
    dose.extend(item.load_kg.map(|kg| format!("begin with {}", words::load(handout.measures, kg))));
    dose.extend(words::tempo(item).map(|tempo| format!("tempo {tempo} (lower, pause, lift, pause)")));
    dose.push(words::rest(&planned.items, place));
    let beside = [words::set_up(handout.atlas, handout.measures, item), words::per_set(item)];
    let mut how = format!("{}. {}.", dose.join(", "), sides(item));
    if first.in_turn.is_some() {
        let numbers: Vec<String> = weeks.iter().map(ToString::to_string).collect();
        how = format!("In weeks {}, in turn. {how}", numbers.join(", "));
    }
    for says in beside.iter().filter(|says| !says.is_empty()) {
        how.push(' ');
        how.push_str(&upper(says));
        how.push('.');
    }
    parts.extend(setting.paragraph(&how, BODY, false));
    if let Some(reported) = handout.reported.get(&item.exercise) {
        parts.extend(setting.paragraph(&words::last_time(reported), BODY, true));
    }
    if let Some(note) = &item.note {
        parts.extend(setting.paragraph(note, BODY, true));
    }
    let mut says: Vec<String> = scheme.into_iter().map(|scheme| format!("{}: {}", scheme.name, scheme.how)).collect();
    says.extend(item.warm_up.iter().map(|says| format!("Warm up: {says}")));
    says.extend(item.card_says(handout.atlas));
    let fault = known.and_then(|known| known.faults.first());
    says.extend(fault.map(|fault| format!("Watch for: {}.", lower(&fault.fault))));
    says.extend(known.into_iter().flat_map(|known| known.cautions.clone()));
    says.push(format!("At {} in every set: {}.", item.progression.top, item.progression.step));
    parts.extend(setting.paragraph(&says.join(" "), BODY, false));
    let label = |week: u8| format!("week {week}: {} sets, load x reps", handout.plan.sets(week, session, place));
    let labels = weeks.into_iter().map(label).collect();
    parts.push(Part::Boxes { labels, height: BOX_HEIGHT * setting.scale });
    parts.push(Part::Rule);
    parts
}

fn upper(text: &str) -> String {
    let mut letters = text.chars();
    letters.next().map_or_else(String::new, |first| first.to_uppercase().chain(letters).collect())
}

fn lower(text: &str) -> String {
    let mut letters = text.chars();
    letters.next().map_or_else(String::new, |first| first.to_lowercase().chain(letters).collect())
}
