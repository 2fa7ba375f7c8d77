//! What is said on the spot of booth pictures, whose faults are known because they were made.

use booth::{Camera, Figure, LightKind, Pose, Sex, Spec};
use image::{RgbImage, imageops};
use rstest::{fixture, rstest};
use vision::{Ask, Before, Eye, Fault, PhotoPose, Taken, View, light, taken};

struct Studio {
    figure: Figure,
    eye: Eye,
    /// The front of the round before.
    last: (RgbImage, View),
}

fn spec(pose: Pose, camera: Camera) -> Spec {
    let mut spec = Spec::standing(178.0, Sex::Male, pose);
    (spec.camera, spec.image.width, spec.image.height) = (camera, 720, 1280);
    spec
}

fn look(eye: &Eye, picture: &RgbImage, pose: PhotoPose, last: Option<&View>) -> View {
    let last_scale = last.and_then(|last| last.photo.scale_in(picture.dimensions()));
    eye.look(picture, Ask { stature_cm: 178.0, pose: Some(pose), last_scale, ..Ask::default() }).unwrap()
}

#[fixture]
#[once]
fn studio() -> Studio {
    let (figure, eye) = (Figure::load().unwrap(), Eye::load().unwrap());
    let picture = booth::shoot(&figure, &spec(Pose::F, Camera::default())).unwrap().picture;
    let view = look(&eye, &picture, PhotoPose::F, None);
    Studio { figure, eye, last: (picture, view) }
}

impl Studio {
    fn shoot(&self, pose: Pose, camera: Camera) -> RgbImage {
        booth::shoot(&self.figure, &spec(pose, camera)).unwrap().picture
    }

    /// What is said of a picture beside the front of the round before, taken from 3.5 m.
    fn beside_last(&self, picture: &RgbImage) -> Taken {
        let (before, last) = &self.last;
        let view = look(&self.eye, picture, PhotoPose::F, Some(last));
        let light = light(before, &last.mask);
        taken(picture, &view, PhotoPose::F, Some(Before { photo: &last.photo, light, distance_m: Some(3.5) }))
    }
}

#[rstest]
#[case::as_last_time(Camera::default(), None, "Good: as last time.")]
#[case::nearer(Camera { distance_m: 3.1, fill: 0.91, ..Camera::default() }, Some(Fault::Distance), "step back about")]
#[case::further(Camera { distance_m: 4.0, fill: 0.72, ..Camera::default() }, Some(Fault::Distance), "step forward about")]
#[case::feet_cut(Camera { fill: 1.15, ..Camera::default() }, Some(Fault::Cut), "cut off")]
#[case::turned(Camera { yaw_deg: 14.0, ..Camera::default() }, Some(Fault::Turned), "face the camera squarely")]
#[case::leaning(Camera { roll_deg: 5.0, ..Camera::default() }, Some(Fault::Leaning), "straighten it")]
fn the_one_thing_to_change_is_said_beside_last_time(
    studio: &Studio,
    #[case] camera: Camera,
    #[case] fault: Option<Fault>,
    #[case] says: &str,
) {
    let said = studio.beside_last(&studio.shoot(Pose::F, camera));
    assert_eq!(said.fault, fault, "{}", said.says);
    assert!(said.says.contains(says), "{}", said.says);
}

#[rstest]
#[case::dark(|picture: RgbImage| imageops::colorops::brighten(&picture, -110), Fault::Light)]
#[case::blurred(|picture: RgbImage| imageops::blur(&picture, 3.0), Fault::Blurred)]
fn bad_light_and_a_shaken_hand_are_noticed(
    studio: &Studio,
    #[case] spoil: fn(RgbImage) -> RgbImage,
    #[case] fault: Fault,
) {
    let said = studio.beside_last(&spoil(studio.last.0.clone()));
    assert_eq!(said.fault, Some(fault), "{}", said.says);
}

#[rstest]
#[case::from_the_other_side(LightKind::Right, LightKind::Left, "from the left")]
#[case::with_half_the_lamps(LightKind::Even, LightKind::Dim, "darker than last time")]
fn a_room_that_is_lit_otherwise_is_noticed(
    studio: &Studio,
    #[case] was: LightKind,
    #[case] is: LightKind,
    #[case] says: &str,
) {
    let lit = |kind: LightKind| {
        let mut lit = spec(Pose::F, Camera::default());
        lit.light.kind = kind;
        let picture = booth::shoot(&studio.figure, &lit).unwrap().picture;
        let view = look(&studio.eye, &picture, PhotoPose::F, None);
        (picture, view)
    };
    let ((then, last), (now, view)) = (lit(was), lit(is));
    let before = Before { photo: &last.photo, light: light(&then, &last.mask), distance_m: None };
    let said = taken(&now, &view, PhotoPose::F, Some(before));
    assert_eq!(said.fault, Some(Fault::Light), "{}", said.says);
    assert!(said.says.contains(says), "{}", said.says);
}

#[rstest]
#[case(Pose::F, PhotoPose::F, None)]
#[case(Pose::B, PhotoPose::B, None)]
#[case(Pose::SL, PhotoPose::SL, None)]
#[case(Pose::SLA, PhotoPose::SLA, None)]
#[case(Pose::SR, PhotoPose::SR, None)]
#[case(Pose::SRA, PhotoPose::SRA, None)]
#[case::the_back_for_the_front(Pose::B, PhotoPose::F, Some(Fault::Pose))]
#[case::the_front_for_the_back(Pose::F, PhotoPose::B, Some(Fault::Pose))]
#[case::the_wrong_side(Pose::SR, PhotoPose::SL, Some(Fault::Pose))]
#[case::the_front_for_a_side(Pose::F, PhotoPose::SLA, Some(Fault::Pose))]
#[case::arms_that_hang(Pose::SL, PhotoPose::SLA, Some(Fault::Arms))]
fn the_pose_asked_for_is_told_from_another(
    studio: &Studio,
    #[case] held: Pose,
    #[case] asked: PhotoPose,
    #[case] fault: Option<Fault>,
) {
    let picture = studio.shoot(held, Camera::default());
    let said = taken(&picture, &look(&studio.eye, &picture, asked, None), asked, None);
    assert_eq!(said.fault, fault, "{}", said.says);
}
