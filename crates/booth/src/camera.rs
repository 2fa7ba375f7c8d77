//! Where things of the room fall in the picture.

use crate::figure::{Posed, V3};
use crate::spec::{Pose, Spec};
use nalgebra::Rotation3;

/// A pinhole with a shifting lens: it looks level, and the figure's middle falls on the picture's middle.
pub(crate) struct Camera {
    width: f64,
    height: f64,
    focal_px: f64,
    at: V3,
    horizon_px: f64,
    shift_px: f64,
    roll_rad: f64,
    turn: Rotation3<f64>,
}

/// The figure as the camera has it before it.
pub(crate) struct View {
    /// In the room: x to the right of the picture, z to the camera, cm.
    pub room: Vec<V3>,
    /// In the picture: x and y in px, and the distance from the camera, cm.
    pub pixels: Vec<V3>,
}

impl Camera {
    pub fn of(spec: &Spec) -> Self {
        let (width, height) = (f64::from(spec.image.width), f64::from(spec.image.height));
        let at = V3::new(0.0, spec.camera.height_m * 100.0, spec.camera.distance_m * 100.0);
        let focal_px = spec.camera.fill * height * at.z / spec.stature_cm;
        let middle = spec.stature_cm / 2.0;
        let facing_deg = match spec.pose {
            Pose::SL | Pose::SLA => -90.0,
            Pose::SR | Pose::SRA => 90.0,
            Pose::B | Pose::BDB | Pose::BLS => 180.0,
            Pose::F | Pose::FDB | Pose::FLS => 0.0,
        };
        Self {
            width,
            height,
            focal_px,
            at,
            horizon_px: height / 2.0 + focal_px * (middle - at.y) / at.z,
            shift_px: spec.camera.shift * width,
            roll_rad: spec.camera.roll_deg.to_radians(),
            turn: Rotation3::from_axis_angle(&V3::y_axis(), (facing_deg + spec.camera.yaw_deg).to_radians()),
        }
    }

    /// A point of the figure in the room.
    pub fn turned(&self, p: V3) -> V3 {
        self.turn * p
    }

    /// A point of the room in the picture, with its distance.
    pub fn project(&self, p: V3) -> V3 {
        let away = self.at.z - p.z;
        let x = self.shift_px + self.focal_px * (p.x - self.at.x) / away;
        let y = self.horizon_px - self.height / 2.0 - self.focal_px * (p.y - self.at.y) / away;
        let (sin, cos) = self.roll_rad.sin_cos();
        V3::new(x * cos - y * sin + self.width / 2.0, x * sin + y * cos + self.height / 2.0, away)
    }

    /// The direction in which a place of the picture looks, with z = -1.
    pub fn ray(&self, x_px: f64, y_px: f64) -> V3 {
        let (x, y) = (x_px - self.width / 2.0, y_px - self.height / 2.0);
        let (sin, cos) = self.roll_rad.sin_cos();
        let (x, y) = (x * cos + y * sin - self.shift_px, -x * sin + y * cos + self.height / 2.0 - self.horizon_px);
        V3::new(x / self.focal_px, -y / self.focal_px, -1.0)
    }

    /// Where the camera stands, cm.
    pub fn at(&self) -> V3 {
        self.at
    }

    /// The figure before the camera.
    pub fn view(&self, posed: &Posed) -> View {
        let room: Vec<V3> = posed.vertices.iter().map(|v| self.turned(*v)).collect();
        let pixels = room.iter().map(|v| self.project(*v)).collect();
        View { room, pixels }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::spec::Sex;

    #[test]
    fn a_ray_through_a_pixel_comes_back_to_the_point_it_was_projected_from() {
        let mut spec = Spec::standing(178.0, Sex::Male, Pose::F);
        (spec.camera.roll_deg, spec.camera.shift, spec.camera.yaw_deg) = (7.0, 0.1, 12.0);
        let camera = Camera::of(&spec);
        let p = V3::new(23.0, 141.0, -8.0);
        let pixel = camera.project(p);
        let back = camera.at() + camera.ray(pixel.x, pixel.y) * pixel.z;
        assert!((back - p).norm() < 1e-9, "{back}");
    }
}
