"""Times one exercise by the engine and scipy, as `crates/levers/benches/levers.rs` does by ours: a cable curl at 21 points.

The engine places the bones and measures the levers; scipy's SLSQP finds the cheapest way to hold, as a general solver would.
"""

import time

import mujoco
import numpy as np

from levers import ARM, Model, general

JOINTS = ["elv_angle_r", "shoulder_elv_r", "shoulder_rot_r", "elbow_flexion_r"]
MUSCLES = ARM[:24]
START, END = np.radians([88, 5, 0, 12]), np.radians([88, 12, 0, 125])
PULL_N = np.array([0.0, -40.0, -130.0])
RUNS = 5


def exercise(model, constants):
    force, fibre, slack = constants
    hand = model.body("3proxph_r")
    for share in np.linspace(0, 1, 21):
        model.pose(dict(zip(JOINTS, START + share * (END - START), strict=True)))
        jacobian = np.zeros((3, model.m.nv))
        mujoco.mj_jac(model.m, model.d, jacobian, None, model.d.xpos[hand], hand)
        tau = -(jacobian @ model.coupling(JOINTS)).T @ PULL_N
        lever = model.lever_arms(MUSCLES, JOINTS)
        length = (model.d.ten_length[model.tendons(MUSCLES)] - slack) / fibre
        strength = force * np.maximum(np.exp(-(((length - 1) / 0.45) ** 2)), 0.05)
        general((lever * strength[:, None]).T, tau)


def main():
    model = Model()
    constants = np.array([model.force_and_fibre(name) for name in MUSCLES]).T
    exercise(model, constants)
    times = []
    for _ in range(RUNS):
        start = time.perf_counter()
        exercise(model, constants)
        times.append(1000 * (time.perf_counter() - start))
    print(f"one exercise, cable-curl, by engine and SLSQP: {min(times):.0f} ms (best of {RUNS})")


if __name__ == "__main__":
    main()
