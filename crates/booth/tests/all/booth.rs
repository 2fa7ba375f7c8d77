//! The booth gives what its spec asks for, and says what is true of it.

use booth::{BoothError, Figure, Girth, Pose, Room, Sex, Shot, Spec, Truth, shoot};
use rstest::{fixture, rstest};
use units::{Segment, Side};

/// A small picture: what is true of the figure does not depend on its size.
fn standing(sex: Sex, pose: Pose) -> Spec {
    let mut spec = Spec::standing(if sex == Sex::Male { 180.0 } else { 166.0 }, sex, pose);
    (spec.image.width, spec.image.height) = (150, 200);
    spec
}

fn girth(site: &str, side: Option<Side>, cm: f64) -> Girth {
    Girth { site: site.to_owned(), side, cm }
}

fn measured(truth: &Truth, site: &str, side: Option<Side>) -> f64 {
    truth.girths.iter().find(|g| g.site == site && g.side == side).unwrap().cm
}

#[fixture]
#[once]
fn figure() -> Figure {
    Figure::load().unwrap()
}

const L: Option<Side> = Some(Side::Left);
const R: Option<Side> = Some(Side::Right);

#[rstest]
#[case::a_man(Sex::Male, &[("waist", None, 82.0), ("hip", None, 97.0), ("arm-relaxed", L, 36.0), ("arm-relaxed", R, 34.5), ("thigh", L, 58.0), ("thigh", R, 57.0), ("calf", L, 37.0), ("calf", R, 39.0), ("forearm", L, 29.0), ("forearm", R, 28.0)])]
#[case::a_woman(Sex::Female, &[("waist", None, 68.0), ("hip", None, 99.0), ("neck", None, 32.0), ("chest", None, 84.0), ("shoulder", None, 106.0), ("calf", L, 35.0), ("calf", R, 35.5)])]
fn the_figure_is_bent_to_the_girths_asked_for(
    figure: &Figure,
    #[case] sex: Sex,
    #[case] wanted: &[(&str, Option<Side>, f64)],
) {
    let mut spec = standing(sex, Pose::F);
    spec.body.girths = wanted.iter().map(|(site, side, cm)| girth(site, *side, *cm)).collect();
    let truth = shoot(figure, &spec).unwrap().truth;
    for (site, side, cm) in wanted {
        let got = measured(&truth, site, *side);
        assert!((got - cm).abs() < 0.05, "{site} {side:?}: {got} instead of {cm}");
    }
}

#[rstest]
fn a_girth_out_of_reach_ends_as_near_as_it_can_come(figure: &Figure) {
    let mut spec = standing(Sex::Male, Pose::F);
    spec.body.girths = vec![girth("calf", L, 52.0), girth("calf", R, 38.0)];
    let truth = shoot(figure, &spec).unwrap().truth;
    assert!(measured(&truth, "calf", L) > 42.0 && (measured(&truth, "calf", R) - 38.0).abs() < 0.5);
}

#[rstest]
fn the_client_s_left_is_on_the_right_of_a_front_picture_and_on_the_left_of_a_back_picture(figure: &Figure) {
    let x = |pose, name: &str| shoot(figure, &standing(Sex::Male, pose)).unwrap().truth.landmarks[name].x;
    assert!(x(Pose::F, "elbow-left") > x(Pose::F, "elbow-right"));
    assert!(x(Pose::B, "elbow-left") < x(Pose::B, "elbow-right"));
}

#[rstest]
fn a_larger_left_arm_is_wider_on_the_left_in_front_and_from_behind(figure: &Figure) {
    for pose in [Pose::F, Pose::B, Pose::FDB] {
        let mut spec = standing(Sex::Male, pose);
        spec.body.girths = vec![girth("arm-relaxed", L, 38.0), girth("arm-relaxed", R, 34.0)];
        let truth = shoot(figure, &spec).unwrap().truth;
        let arm = truth.limbs.iter().find(|limb| limb.segment == Segment::UpperArm).unwrap();
        assert!(arm.left_width_cm > arm.right_width_cm + 0.3, "{pose:?}: {arm:?}");
    }
}

/// Rows between the highest and the lowest pixel of the person.
fn rows(shot: &Shot) -> (usize, usize) {
    let width = shot.picture.width() as usize;
    let mut rows = shot.mask.iter().enumerate().filter(|(_, inside)| **inside).map(|(place, _)| place / width);
    let first = rows.next().unwrap();
    (first, rows.next_back().unwrap())
}

#[rstest]
#[case::front(Pose::F)]
#[case::back(Pose::B)]
#[case::left_side(Pose::SL)]
#[case::right_side(Pose::SR)]
#[case::front_lat_spread(Pose::FLS)]
fn the_mask_reaches_from_vertex_to_feet(figure: &Figure, #[case] pose: Pose) {
    let shot = shoot(figure, &standing(Sex::Female, pose)).unwrap();
    let (top, bottom) = rows(&shot);
    let (vertex, floor) = (shot.truth.landmarks["vertex"].y, shot.truth.landmarks["floor"].y);
    assert!((top as f64 - vertex).abs() < 3.0, "{top} against {vertex}");
    // Toes are nearer the camera than the middle of the body, so they lie a little below it.
    assert!(bottom as f64 > floor - 3.0 && (bottom as f64) < floor + 9.0, "{bottom} against {floor}");
}

#[rstest]
#[case::plain(Room::Plain)]
#[case::busy(Room::Busy)]
fn the_same_spec_gives_the_same_bytes_and_another_seed_other_noise(figure: &Figure, #[case] room: Room) {
    let spec = Spec { room, ..standing(Sex::Female, Pose::FDB) };
    let jpeg = |spec: &Spec| shoot(figure, spec).unwrap().jpeg(90).unwrap();
    assert_eq!(jpeg(&spec), jpeg(&spec));
    let mut other = spec.clone();
    other.image.seed = 1;
    assert_ne!(jpeg(&spec), jpeg(&other));
}

#[rstest]
#[case::a_child(|spec: &mut Spec| spec.stature_cm = 120.0, "/stature_cm: 120 is outside 140 to 215")]
#[case::a_camera_in_the_face(|spec: &mut Spec| spec.camera.distance_m = 0.5, "/camera/distance_m: 0.5 is outside 1.2 to 8")]
#[case::not_a_number(|spec: &mut Spec| spec.camera.roll_deg = f64::NAN, "/camera/roll_deg: NaN is outside -20 to 20")]
#[case::a_girth_without_side(|spec: &mut Spec| spec.body.girths = vec![girth("calf", None, 38.0)], "/body/girths/0: calf needs a side, left or right")]
#[case::a_waist_with_a_side(|spec: &mut Spec| spec.body.girths = vec![girth("waist", L, 80.0)], "/body/girths/0: waist has no sides")]
fn a_spec_that_breaks_a_rule_is_refused_with_the_place(
    figure: &Figure,
    #[case] change: fn(&mut Spec),
    #[case] says: &str,
) {
    let mut spec = standing(Sex::Male, Pose::F);
    change(&mut spec);
    let Err(BoothError::Spec(problems)) = shoot(figure, &spec) else { panic!("taken") };
    assert_eq!(problems.iter().map(ToString::to_string).collect::<Vec<_>>(), [says]);
}
