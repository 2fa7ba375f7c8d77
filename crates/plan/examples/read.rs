//! Prints weeks as a coach reads them: `cargo run --profile quick -p plan --example read -- [FROM TO]` for made-up clients by
//! number, with what there would be to object to.

use assess::{Knowledge, assess};
use plan::{Effort, PlanProblem, present, solve, weekday_name};
use std::error::Error;

#[path = "../tests/all/made_up/mod.rs"]
mod made_up;

fn main() -> Result<(), Box<dyn Error>> {
    let number = |place: usize, usual: u64| std::env::args().nth(place).map_or(Ok(usual), |text| text.parse());
    let knowledge = Knowledge::load()?;
    for number in number(1, 0)?..number(2, 10)? {
        let case = made_up::case(&knowledge, number);
        let problem = PlanProblem::new(&knowledge, &case, &assess(&knowledge, &case));
        let plan = present(&problem, &solve(&problem, Effort::usual(&problem)));
        let client = &case.client;
        println!(
            "== {number}: {:?}, {} days of {} min, pain {:?}, brings up {:?}, {} items of kit",
            client.experience,
            client.days_per_week,
            client.minutes_per_session,
            client.pain.iter().map(|pain| format!("{} {}", pain.area, pain.level)).collect::<Vec<_>>(),
            case.choices.bring_up.iter().map(units::RegionId::as_str).collect::<Vec<_>>(),
            client.equipment.len(),
        );
        for session in &plan.sessions {
            let items: Vec<String> =
                session.items.iter().map(|item| format!("{} {}", item.exercise, item.sets)).collect();
            let theme = session.theme.unwrap_or("any");
            println!("  {} ({theme}, {:.0} min): {}", weekday_name(session.day), session.minutes, items.join(", "));
            if let Some(why) = &session.short_because {
                println!("     short: {why}");
            }
        }
        let parts: Vec<String> = plan.parts.iter().map(|row| format!("{} {:.1}", row.part.name(), row.sets)).collect();
        println!("  parts: {}", parts.join(", "));
        for row in plan.parts.iter().filter(|row| row.reason.is_some()) {
            println!(
                "     {}: {} {}",
                row.part.name(),
                row.reason.as_deref().unwrap_or(""),
                row.nearest.as_deref().unwrap_or("")
            );
        }
        for row in plan.movements.iter().filter(|row| row.sessions == 0) {
            println!("     no {:?}: {}", row.movement, row.reason.as_deref().unwrap_or(""));
        }
        let loads: Vec<String> =
            plan.loads.iter().map(|row| format!("{} {:.1}/{:.0}", row.of, row.load, row.limit)).collect();
        println!("  loads: {}", loads.join(", "));
        for objection in &plan.objections {
            println!("  OBJECTION {:?}: {}", objection.kind, objection.says);
        }
        for broken in &plan.broken {
            println!("  BROKEN {}", broken.says);
        }
        for blocked in &plan.blocked {
            println!("  blocked: {} - {} - {}", blocked.demand, blocked.rule, blocked.nearest);
        }
    }
    Ok(())
}
