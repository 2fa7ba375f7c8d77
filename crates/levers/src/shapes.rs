//! Shapes of a drawing, written as SVG. Colours are the page's own (`--figure-*`), with plain ones where there are none.

use std::fmt::Write;

/// A place on the picture, m: to the right and down.
pub(crate) type Flat = [f64; 2];

/// Room round the drawing, m.
const MARGIN: f64 = 0.06;
/// Units of the drawing for a metre.
const SCALE: f64 = 200.0;

#[derive(Clone, Copy, PartialEq)]
pub(crate) enum Fill {
    Start,
    Far,
    Body,
    Tint,
}

impl Fill {
    fn style(self) -> &'static str {
        match self {
            Self::Start => r#"fill="var(--figure-start, #eee8db)" stroke="var(--figure-start-edge, #a89f8e)""#,
            Self::Far => r#"fill="var(--figure-far, #b9b2a6)" stroke="var(--figure-edge, #57534c)""#,
            Self::Body => r#"fill="var(--figure-body, #d8d2c6)" stroke="var(--figure-edge, #57534c)""#,
            Self::Tint => r#"fill="var(--figure-tint, #8a3f6b)" stroke="none""#,
        }
    }
}

#[derive(Clone, Copy)]
pub(crate) enum Stroke {
    Start,
    Cable,
    Band,
    Bar,
    Pad,
    Bench,
    Platform,
}

impl Stroke {
    fn style(self) -> &'static str {
        match self {
            Self::Start => r#"stroke="var(--figure-start-edge, #a89f8e)" stroke-width="2""#,
            Self::Cable => r#"stroke="var(--figure-load, #8a6414)" stroke-width="2.5""#,
            Self::Band => r#"stroke="var(--figure-load, #8a6414)" stroke-width="3.5" stroke-dasharray="5 3""#,
            Self::Bar => r#"stroke="var(--figure-load, #8a6414)" stroke-width="5" stroke-linecap="round""#,
            Self::Pad => r#"stroke="var(--figure-prop, #a59c8c)" stroke-width="8" stroke-linecap="round""#,
            Self::Bench => r#"stroke="var(--figure-floor, #d9d2c5)" stroke-width="56" stroke-linecap="round""#,
            Self::Platform => r#"stroke="var(--figure-prop, #a59c8c)" stroke-width="5" stroke-linecap="round""#,
        }
    }
}

/// What is drawn, and how far it reaches.
#[derive(Default)]
pub(crate) struct Shapes {
    svg: String,
    low: Option<Flat>,
    high: Flat,
    /// Whether a floor is drawn under it all.
    pub floor: bool,
}

fn units(place: Flat) -> Flat {
    place.map(|part| part * SCALE)
}

impl Shapes {
    fn reach(&mut self, [x, y]: Flat, radius: f64) {
        let (low, high) = ([x - radius, y - radius], [x + radius, y + radius]);
        let Some(before) = self.low else {
            (self.low, self.high) = (Some(low), high);
            return;
        };
        self.low = Some([before[0].min(low[0]), before[1].min(low[1])]);
        self.high = [self.high[0].max(high[0]), self.high[1].max(high[1])];
    }

    /// The hull of two circles.
    pub fn limb(&mut self, ends: [Flat; 2], radius: [f64; 2], fill: Fill) {
        self.hull(&[(ends[0], radius[0]), (ends[1], radius[1])], fill);
    }

    /// The hull of circles.
    pub fn hull(&mut self, circles: &[(Flat, f64)], fill: Fill) {
        const ROUND: usize = 20;
        let mut points: Vec<Flat> = Vec::with_capacity(circles.len() * ROUND);
        for &([x, y], radius) in circles {
            self.reach([x, y], radius);
            points.extend((0..ROUND).map(|step| {
                let (sin, cos) = (std::f64::consts::TAU * step as f64 / ROUND as f64).sin_cos();
                [x + radius * cos, y + radius * sin]
            }));
        }
        let mut path = String::new();
        for (place, point) in hull(points).into_iter().enumerate() {
            let [x, y] = units(point);
            let _ = write!(path, "{}{x:.1} {y:.1}", if place == 0 { "M" } else { "L" });
        }
        let _ = write!(self.svg, r#"<path d="{path}Z" {}/>"#, fill.style());
    }

    pub fn line(&mut self, ends: [Flat; 2], stroke: Stroke) {
        for end in ends {
            self.reach(end, 0.02);
        }
        let [[x1, y1], [x2, y2]] = ends.map(units);
        let style = stroke.style();
        let _ = write!(self.svg, r#"<path d="M{x1:.1} {y1:.1}L{x2:.1} {y2:.1}" fill="none" {style}/>"#);
    }

    pub fn ring(&mut self, at: Flat, radius: f64) {
        self.reach(at, radius);
        let ([x, y], r) = (units(at), radius * SCALE);
        let style = r#"fill="var(--figure-load, #8a6414)" fill-opacity="0.3" stroke="var(--figure-load, #8a6414)" stroke-width="2.5""#;
        let _ = write!(self.svg, r#"<circle cx="{x:.1}" cy="{y:.1}" r="{r:.1}" {style}/>"#);
    }

    /// A plumb bob on its string.
    pub fn bob(&mut self, hand: Flat, at: Flat) {
        self.line([hand, at], Stroke::Cable);
        self.reach(at, 0.06);
        let [x, y] = units(at);
        let fill = r#"fill="var(--figure-load, #8a6414)""#;
        let _ = write!(self.svg, r#"<path d="M{x:.1} {y:.1}m-7 0h14l-7 15z" {fill}/>"#);
    }

    pub fn pulley(&mut self, at: Flat) {
        self.reach(at, 0.04);
        let [x, y] = units(at);
        let style = r#"fill="var(--figure-body, #d8d2c6)" stroke="var(--figure-load, #8a6414)" stroke-width="2.5""#;
        let _ = write!(self.svg, r#"<circle cx="{x:.1}" cy="{y:.1}" r="6" {style}/>"#);
    }

    /// The end of a line that goes on.
    pub fn arrow(&mut self, from: Flat, to: Flat) {
        let way = [to[0] - from[0], to[1] - from[1]];
        let long = way[0].hypot(way[1]).max(1e-9);
        let [dx, dy] = way.map(|part| part / long);
        let [x, y] = units(to);
        let fill = r#"fill="var(--figure-load, #8a6414)""#;
        let tips = [[x + 9.0 * dx, y + 9.0 * dy], [x - 5.0 * dy, y + 5.0 * dx], [x + 5.0 * dy, y - 5.0 * dx]];
        let _ = write!(self.svg, r#"<path d="M{:.1} {:.1}"#, tips[0][0], tips[0][1]);
        let _ =
            write!(self.svg, r#"L{:.1} {:.1}L{:.1} {:.1}Z" {fill}/>"#, tips[1][0], tips[1][1], tips[2][0], tips[2][1]);
    }

    /// A pad square to its push, with the push.
    pub fn pad(&mut self, at: Flat, to: Flat) {
        let way = [to[0] - at[0], to[1] - at[1]];
        let long = way[0].hypot(way[1]);
        if long < 0.02 {
            self.ring(at, 0.035);
            return;
        }
        let across = [-way[1] / long * 0.06, way[0] / long * 0.06];
        self.line([[at[0] - across[0], at[1] - across[1]], [at[0] + across[0], at[1] + across[1]]], Stroke::Bar);
        self.line([at, to], Stroke::Cable);
        self.arrow(at, to);
    }

    pub fn svg(mut self, title: &str) -> String {
        let low = self.low.unwrap_or_default();
        let [width, height] = [0, 1].map(|axis| (self.high[axis] - low[axis] + 2.0 * MARGIN) * SCALE);
        let [x, y] = [0, 1].map(|axis| (low[axis] - MARGIN) * SCALE);
        if self.floor {
            let [x, y, to] = [(low[0] - MARGIN) * SCALE, self.high[1] * SCALE + 1.0, (self.high[0] + MARGIN) * SCALE];
            let style = r#"stroke="var(--figure-floor, #d9d2c5)" stroke-width="2""#;
            let floor = format!(r#"<path d="M{x:.1} {y:.1}L{to:.1} {y:.1}" {style}/>"#);
            self.svg.insert_str(0, &floor);
        }
        let title = title.replace('&', "&amp;").replace('<', "&lt;");
        format!(
            r#"<svg xmlns="http://www.w3.org/2000/svg" viewBox="{x:.0} {y:.0} {width:.0} {height:.0}" role="img" stroke-linejoin="round"><title>{title}</title>{}</svg>"#,
            self.svg
        )
    }
}

/// The convex hull of points, by Andrew's monotone chain (1979, Information Processing Letters 9:216-219).
fn hull(mut points: Vec<Flat>) -> Vec<Flat> {
    points.sort_by(|a, b| a[0].total_cmp(&b[0]).then(a[1].total_cmp(&b[1])));
    let turns = |a: Flat, b: Flat, c: Flat| (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
    let half = |points: &mut dyn Iterator<Item = Flat>| {
        let mut chain: Vec<Flat> = Vec::new();
        for point in points {
            while chain.len() > 1 && turns(chain[chain.len() - 2], chain[chain.len() - 1], point) <= 0.0 {
                chain.pop();
            }
            chain.push(point);
        }
        chain.pop();
        chain
    };
    let mut whole = half(&mut points.iter().copied());
    whole.extend(half(&mut points.iter().rev().copied()));
    whole
}
