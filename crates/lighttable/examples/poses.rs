//! Draws the figure that shows a client how to stand: the outline of a booth figure in each pose, as a path in a square of 100 whose floor is
//! at 98, by pose. Printed as JSON.

use booth::{Figure, Pose, Room, Sex, Spec};
use std::collections::BTreeMap;
use std::error::Error;
use vision::{Plane, contours};

/// Size of the pictures that are drawn, px: far finer than the path.
const SIDE_PX: u32 = 1200;
/// Points nearer to the last one than this are left out, shares of 100.
const STEP: f64 = 0.7;

fn main() -> Result<(), Box<dyn Error>> {
    let figure = Figure::load()?;
    let mut paths = BTreeMap::new();
    for pose in Pose::ALL {
        let mut spec = Spec::standing(175.0, Sex::Female, pose);
        (spec.image.width, spec.image.height, spec.room) = (SIDE_PX, SIDE_PX, Room::Plain);
        let shot = booth::shoot(&figure, &spec)?;
        let values = shot.mask.iter().map(|inside| if *inside { 1.0 } else { 0.0 }).collect();
        let lines = contours(&Plane { width: SIDE_PX as usize, height: SIDE_PX as usize, values });
        let floor = lines.iter().flatten().map(|point| point[1]).fold(0.0, f64::max);
        let path: String = lines.iter().map(|line| path(line, floor)).collect();
        paths.insert(pose.id(), path);
    }
    println!("{}", serde_json::to_string_pretty(&paths)?);
    Ok(())
}

fn path(line: &[[f64; 2]], floor: f64) -> String {
    let share = 100.0 / f64::from(SIDE_PX);
    let mut kept: Vec<[f64; 2]> = Vec::new();
    for point in line {
        let [x, y] = [point[0] * share, (point[1] - floor) * share + 98.0];
        if kept.last().is_none_or(|last| (x - last[0]).hypot(y - last[1]) >= STEP) {
            kept.push([x, y]);
        }
    }
    let points: Vec<String> = kept.iter().map(|[x, y]| format!("{x:.1} {y:.1}")).collect();
    format!("M{}Z", points.join("L"))
}
