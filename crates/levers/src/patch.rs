//! Where each region lies on the figure.

/// Where a region lies: on a bone, between two of its own places (forward, up, right, m), radius at each.
pub(crate) struct Patch {
    pub region: &'static str,
    pub bone: &'static str,
    pub ends: [[f64; 3]; 2],
    pub radius: [f64; 2],
}

const fn patch(region: &'static str, bone: &'static str, ends: [[f64; 3]; 2], radius: [f64; 2]) -> Patch {
    Patch { region, bone, ends, radius }
}

/// Every region of the atlas.
pub(crate) const PATCHES: [Patch; 42] = [
    patch("delts.anterior", "humerus_r", [[0.028, 0.0, 0.0], [0.022, -0.08, 0.0]], [0.034, 0.022]),
    patch("delts.lateral", "humerus_r", [[0.0, 0.012, 0.014], [0.0, -0.1, 0.016]], [0.042, 0.022]),
    patch("delts.posterior", "humerus_r", [[-0.03, 0.0, 0.0], [-0.022, -0.08, 0.0]], [0.034, 0.022]),
    patch("traps.upper", "torso", [[-0.02, 0.42, 0.03], [-0.02, 0.385, 0.12]], [0.03, 0.022]),
    patch("traps.middle", "torso", [[-0.085, 0.33, 0.02], [-0.075, 0.33, 0.1]], [0.04, 0.03]),
    patch("traps.lower", "torso", [[-0.08, 0.26, 0.02], [-0.07, 0.18, 0.02]], [0.036, 0.024]),
    patch("rhomboids", "torso", [[-0.085, 0.31, 0.03], [-0.08, 0.25, 0.06]], [0.034, 0.03]),
    patch("cuff", "torso", [[-0.075, 0.34, 0.08], [-0.06, 0.33, 0.14]], [0.036, 0.026]),
    patch("teres-major", "torso", [[-0.07, 0.27, 0.1], [-0.05, 0.31, 0.14]], [0.03, 0.024]),
    patch("lats.upper", "torso", [[-0.07, 0.26, 0.09], [-0.06, 0.16, 0.08]], [0.05, 0.038]),
    patch("lats.lower", "torso", [[-0.06, 0.16, 0.1], [-0.06, 0.03, 0.07]], [0.044, 0.028]),
    patch("erectors", "torso", [[-0.07, 0.12, 0.025], [-0.075, -0.1, 0.025]], [0.03, 0.034]),
    patch("chest.clavicular", "torso", [[0.115, 0.345, 0.05], [0.085, 0.34, 0.12]], [0.034, 0.026]),
    patch("chest.sternal", "torso", [[0.135, 0.285, 0.05], [0.1, 0.3, 0.12]], [0.042, 0.032]),
    patch("chest.costal", "torso", [[0.135, 0.235, 0.05], [0.105, 0.26, 0.12]], [0.034, 0.026]),
    patch("serratus", "torso", [[0.05, 0.24, 0.13], [0.07, 0.16, 0.12]], [0.028, 0.024]),
    patch("biceps.long", "humerus_r", [[0.02, -0.1, 0.012], [0.018, -0.22, 0.01]], [0.03, 0.03]),
    patch("biceps.short", "humerus_r", [[0.02, -0.1, -0.012], [0.018, -0.22, -0.01]], [0.03, 0.03]),
    patch("brachialis", "humerus_r", [[0.012, -0.18, 0.014], [0.012, -0.26, 0.01]], [0.026, 0.028]),
    patch("triceps.long", "humerus_r", [[-0.022, -0.06, -0.012], [-0.02, -0.22, -0.008]], [0.03, 0.026]),
    patch("triceps.lateral", "humerus_r", [[-0.018, -0.08, 0.016], [-0.018, -0.2, 0.014]], [0.03, 0.024]),
    patch("triceps.medial", "humerus_r", [[-0.02, -0.17, -0.006], [-0.018, -0.26, -0.004]], [0.026, 0.024]),
    patch("forearm.flexors", "radius_r", [[-0.012, -0.05, -0.02], [-0.006, -0.17, -0.006]], [0.028, 0.02]),
    patch("forearm.ulnar", "ulna_r", [[-0.01, -0.05, -0.004], [-0.006, -0.2, 0.0]], [0.024, 0.018]),
    patch("forearm.extensors", "radius_r", [[0.006, -0.05, 0.014], [0.006, -0.17, 0.01]], [0.028, 0.02]),
    patch("forearm.brachioradialis", "radius_r", [[0.014, 0.0, 0.004], [0.012, -0.12, 0.01]], [0.024, 0.018]),
    patch("forearm.rotators", "radius_r", [[0.0, -0.03, -0.006], [0.0, -0.12, 0.0]], [0.024, 0.02]),
    patch("grip", "3proxph_r", [[0.0, 0.0, 0.0], [0.0, 0.01, 0.0]], [0.03, 0.03]),
    patch("abs.rectus", "lumbar3", [[0.14, 0.14, 0.02], [0.135, -0.06, 0.02]], [0.03, 0.03]),
    patch("abs.obliques", "lumbar3", [[0.07, 0.1, 0.1], [0.07, -0.04, 0.095]], [0.032, 0.032]),
    patch("glutes.max", "femur_r", [[-0.06, 0.02, -0.02], [-0.05, -0.06, 0.0]], [0.062, 0.045]),
    patch("glutes.med", "femur_r", [[-0.01, 0.07, 0.02], [0.0, 0.0, 0.03]], [0.042, 0.03]),
    patch("quads.vastus-lateralis", "femur_r", [[0.03, -0.15, 0.025], [0.022, -0.33, 0.016]], [0.044, 0.03]),
    patch("quads.vastus-medialis", "femur_r", [[0.03, -0.24, -0.02], [0.022, -0.35, -0.014]], [0.034, 0.03]),
    patch("quads.rectus-femoris", "femur_r", [[0.045, -0.05, 0.0], [0.03, -0.3, 0.0]], [0.034, 0.026]),
    patch("adductors", "femur_r", [[0.0, -0.04, -0.045], [0.0, -0.22, -0.03]], [0.042, 0.03]),
    patch("hamstrings.long", "femur_r", [[-0.042, -0.09, 0.0], [-0.028, -0.32, 0.0]], [0.044, 0.03]),
    patch("hamstrings.short", "femur_r", [[-0.03, -0.24, 0.0], [-0.026, -0.36, 0.0]], [0.036, 0.028]),
    patch("calves.gastrocnemius", "tibia_r", [[-0.034, -0.06, 0.0], [-0.022, -0.19, 0.0]], [0.036, 0.028]),
    patch("calves.soleus", "tibia_r", [[-0.024, -0.17, 0.0], [-0.018, -0.3, 0.0]], [0.03, 0.02]),
    patch("tibialis", "tibia_r", [[0.022, -0.08, 0.01], [0.014, -0.28, 0.004]], [0.026, 0.018]),
    patch("neck", "torso", [[0.0, 0.43, 0.03], [0.01, 0.47, 0.03]], [0.034, 0.03]),
];
