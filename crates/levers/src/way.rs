//! The way from start to end: straight in angles, but for arms that hang in their load and forearms that follow it.

use crate::body::{Body, Vector};
use crate::load::{Scene, bone, room};
use crate::movement::{LoadKind, Movement};
use crate::posture::{Angles, aimed, along, worded};

/// An arm straighter than this hangs in its load, degrees.
const STRAIGHT: f64 = 15.0;

/// Start and end of a movement; a straight arm that follows its load starts in line with it.
pub(crate) fn ends(body: &Body, movement: &Movement) -> [Angles; 2] {
    let mut both = Angles::of(movement);
    if movement.follows && both[0].elbow < STRAIGHT {
        let shoulder = bone(body, "humerus_r");
        if let Some(line) = line(body, movement, &both[0], 0.0, shoulder) {
            [both[0].plane, both[0].up] = aimed(&both[0], line);
        }
    }
    both
}

/// The line of the first load through a bone, as the body has it.
fn line(body: &Body, movement: &Movement, angles: &Angles, share: f64, bone: usize) -> Option<[f64; 3]> {
    let load = movement.loads.first()?;
    let pose = angles.pose(body);
    let room = room(body, movement, angles, &pose);
    let scene = Scene { body, movement, pose: &pose, room, next: &pose, turned: 1.0, share };
    let line = match load.kind {
        LoadKind::Cable | LoadKind::Band => scene.above_floor(load.from) - pose.at(bone, Vector::zeros()),
        _ => scene.way(load),
    };
    line.try_normalize(1e-9).map(worded)
}

/// Angles at a share of the way; a forearm that follows its load lies along it.
pub(crate) fn on_the_way(body: &Body, movement: &Movement, both: &[Angles; 2], share: f64) -> Angles {
    let mut angles = Angles::between(both, share);
    if !movement.follows {
        return angles;
    }
    let (elbow, hand) = (bone(body, "ulna_r"), bone(body, "3proxph_r"));
    let Some(line) = line(body, movement, &angles, share, elbow) else { return angles };
    let (line, own) = (Vector::from(line), [angles.turn, angles.elbow]);
    [angles.turn, angles.elbow] = along(&angles, line.into());
    // A forearm nearly in line with the upper arm has no turn of its own: there it stays on its way.
    let bent = ((angles.elbow - BENT[0]) / (BENT[1] - BENT[0])).clamp(0.0, 1.0);
    if bent < 1.0 {
        angles.turn = own[0] + (angles.turn - own[0]) * bent;
        angles.elbow = own[1] + (angles.elbow - own[1]) * bent;
        return angles;
    }
    // Bones are bowed and the hand has its own width: what the first try misses by is put right.
    let mut wanted = line;
    for _ in 0..CORRECTIONS {
        let pose = angles.pose(body);
        let there = Vector::from(worded(pose.at(hand, Vector::zeros()) - pose.at(elbow, Vector::zeros()))).normalize();
        let line = if there.dot(&line) < 0.0 { -line } else { line };
        wanted = if there.dot(&wanted) < 0.0 { -wanted } else { wanted };
        wanted = (wanted + line - there).normalize();
        [angles.turn, angles.elbow] = along(&angles, wanted.into());
    }
    angles
}

/// Between these an elbow comes to count as bent, degrees.
const BENT: [f64; 2] = [10.0, 45.0];

/// Tries after which a forearm lies along its load within a degree.
const CORRECTIONS: usize = 2;
