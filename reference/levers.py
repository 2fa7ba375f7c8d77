"""Makes the body of the levers crate and what the engine says of it.

crates/levers/data/body.json: bones, joints, muscle paths and what they wrap around, of the right side and half the trunk, from the open
full-body musculoskeletal model of PyPI `myo-sim` 0.2.4 (Apache-2.0), compiled by `mujoco` 3.17.0.
fixtures/levers.json: joint positions, lengths and lever arms at 500 poses of arm and leg, 100 of the trunk, by the engine; optima of
static optimisation by scipy.
"""

import json
import logging
from pathlib import Path

import numpy as np

logging.disable()
import mujoco  # noqa: E402
import myo_sim  # noqa: E402
from scipy.optimize import minimize, nnls  # noqa: E402

ROOT = Path(__file__).parent
OUT = ROOT.parent / "crates" / "levers" / "data" / "body.json"
FIXTURE = ROOT / "fixtures" / "levers.json"
ARM = """DELT1 DELT2 DELT3 SUPSP INFSP SUBSC TMIN TMAJ PECM1 PECM2 PECM3 LAT1 LAT2 LAT3 CORB TRIlong TRIlat TRImed ANC SUP BIClong BICshort
BRA BRD ECRL ECRB ECU FCR FCU PL PT PQ FDS5 FDS4 FDS3 FDS2 FDP5 FDP4 FDP3 FDP2 EDC5 EDC4 EDC3 EDC2""".split()
LEG = [
    name + "_r"
    for name in """addbrev addlong addmagDist addmagIsch addmagMid addmagProx bflh bfsh gaslat gasmed glmax1 glmax2 glmax3 glmed1 glmed2
    glmed3 glmin1 glmin2 glmin3 grac iliacus psoas piri recfem sart semimem semiten soleus tfl tibant tibpost perlong perbrev fhl fdl edl
    vasint vaslat vasmed""".split()
]
TRUNK_STARTS = ("rect_abd", "IL_", "LTpT", "LTpL", "MF_", "EO", "IO", "QL_")
ARM_JOINTS = ["elv_angle_r", "shoulder_elv_r", "shoulder_rot_r", "elbow_flexion_r", "pro_sup_r", "deviation_r", "flexion_r"]
LEG_JOINTS = ["hip_flexion_r", "hip_adduction_r", "hip_rotation_r", "knee_angle_r", "ankle_angle_r", "subtalar_angle_r"]
TRUNK_JOINTS = ["flex_extension", "lat_bending", "axial_rotation"]
ARM_POINTS = ["humerus_r", "ulna_r", "radius_r", "lunate_r", "thirdmc_r", "3proxph_r"]
LEG_POINTS = ["femur_r", "tibia_r", "patella_r", "talus_r", "calcn_r", "toes_r"]
TRUNK_POINTS = ["lumbar5", "lumbar4", "lumbar3", "lumbar2", "lumbar1", "torso"]
KINDS = {int(mujoco.mjtJoint.mjJNT_HINGE): "hinge", int(mujoco.mjtJoint.mjJNT_SLIDE): "slide"}
SHAPES = {int(mujoco.mjtGeom.mjGEOM_SPHERE): "sphere", int(mujoco.mjtGeom.mjGEOM_CYLINDER): "cylinder"}


class Model:
    def __init__(self):
        self.m, self.d = myo_sim.load("myofullbody")
        self.q0 = self.m.qpos0.copy()
        self.actuators = [self.name(mujoco.mjtObj.mjOBJ_ACTUATOR, i) for i in range(self.m.nu)]
        self.follow = [
            (int(self.m.eq_obj1id[i]), int(self.m.eq_obj2id[i]), self.m.eq_data[i][:5].copy())
            for i in range(self.m.neq)
            if self.m.eq_type[i] == mujoco.mjtEq.mjEQ_JOINT
        ]

    def name(self, kind, i):
        return mujoco.mj_id2name(self.m, kind, i)

    def joint(self, name):
        return mujoco.mj_name2id(self.m, mujoco.mjtObj.mjOBJ_JOINT, name)

    def body(self, name):
        return mujoco.mj_name2id(self.m, mujoco.mjtObj.mjOBJ_BODY, name)

    def pose(self, radians):
        m, d = self.m, self.d
        d.qpos[:] = self.q0
        for name, value in radians.items():
            d.qpos[m.jnt_qposadr[self.joint(name)]] = value
        for _ in range(3):
            for a, b, c in self.follow:
                x = d.qpos[m.jnt_qposadr[b]] - self.q0[m.jnt_qposadr[b]] if b >= 0 else 0.0
                d.qpos[m.jnt_qposadr[a]] = self.q0[m.jnt_qposadr[a]] + np.polyval(c[::-1], x)
        mujoco.mj_fwdPosition(m, d)

    def coupling(self, joints):
        """How every degree of freedom moves with those of `joints`."""
        m, d = self.m, self.d
        places = [m.jnt_dofadr[self.joint(name)] for name in joints]
        moves = np.zeros((m.nv, len(joints)))
        for k, i in enumerate(places):
            moves[i, k] = 1
        for a, b, c in self.follow:
            if b >= 0 and m.jnt_dofadr[b] in places:
                x = d.qpos[m.jnt_qposadr[b]] - self.q0[m.jnt_qposadr[b]]
                moves[m.jnt_dofadr[a], places.index(m.jnt_dofadr[b])] += np.polyval(np.polyder(np.poly1d(c[::-1])), x)
        return moves

    def tendons(self, names):
        return [int(self.m.actuator_trnid[self.actuators.index(name), 0]) for name in names]

    def lever_arms(self, names, joints):
        m, d = self.m, self.d
        dense = np.zeros((m.ntendon, m.nv))
        for i in range(m.ntendon):
            a, n = m.ten_J_rowadr[i], m.ten_J_rownnz[i]
            dense[i, m.ten_J_colind[a : a + n]] = d.ten_J[a : a + n]
        return -(dense @ self.coupling(joints))[self.tendons(names)]

    def force_and_fibre(self, name):
        """Largest force (N), optimal fibre length and tendon slack (m)."""
        i = self.actuators.index(name)
        r0, r1 = self.m.actuator_gainprm[i, :2]
        l0, l1 = self.m.actuator_lengthrange[i]
        fibre = (l1 - l0) / (r1 - r0)
        return abs(self.m.actuator_gainprm[i, 2]), fibre, l0 - r0 * fibre


def rounded(values, digits=9):
    return [round(float(v), digits) + 0.0 for v in values]


def trunk_names(model):
    return [n for n in model.actuators if n.endswith("_r") and n.startswith(TRUNK_STARTS)]


def body_data(model):
    m, kinds = model.m, mujoco.mjtObj
    names = ARM + LEG + trunk_names(model)
    wanted, wraps = set(), {}
    for name in ARM_POINTS + LEG_POINTS + TRUNK_POINTS + ["head", "pelvis"]:
        wanted.add(model.body(name))
    muscles = []
    for name, tendon in zip(names, model.tendons(names), strict=True):
        path = []
        for k in range(m.tendon_adr[tendon], m.tendon_adr[tendon] + m.tendon_num[tendon]):
            at, kind = m.wrap_objid[k], m.wrap_type[k]
            if kind == mujoco.mjtWrap.mjWRAP_SITE:
                wanted.add(int(m.site_bodyid[at]))
                path.append({"body": int(m.site_bodyid[at]), "at": rounded(m.site_pos[at])})
            else:
                side = int(m.wrap_prm[k])
                wanted.add(int(m.geom_bodyid[at]))
                wraps.setdefault(int(at), len(wraps))
                step = {"wrap": wraps[int(at)]}
                if side >= 0:
                    wanted.add(int(m.site_bodyid[side]))
                    step["side"] = {"body": int(m.site_bodyid[side]), "at": rounded(m.site_pos[side])}
                path.append(step)
        force, fibre, slack = model.force_and_fibre(name)
        muscles.append({"name": name, "force_n": round(force, 3), "fibre_m": round(fibre, 9), "slack_m": round(slack, 9), "path": path})
    for body in list(wanted):
        while body > 0:
            wanted.add(body)
            body = int(m.body_parentid[body])
    wanted.discard(0)
    root = model.body("Full Body")
    order = sorted(wanted)
    place = {body: k for k, body in enumerate(order)}
    joints = []
    follows = {a: (b, c) for a, b, c in model.follow}
    for j in range(m.njnt):
        if int(m.jnt_bodyid[j]) not in place or int(m.jnt_type[j]) not in KINDS:
            continue
        entry = {
            "name": model.name(kinds.mjOBJ_JOINT, j),
            "body": place[int(m.jnt_bodyid[j])],
            "kind": KINDS[int(m.jnt_type[j])],
            "axis": rounded(m.jnt_axis[j]),
            "at": rounded(m.jnt_pos[j]),
            "range": rounded(m.jnt_range[j], 6),
        }
        if j in follows and follows[j][0] >= 0:
            b, c = follows[j]
            entry["follows"] = {"joint": model.name(kinds.mjOBJ_JOINT, b), "by": rounded(c, 12)}
        joints.append(entry)
    for muscle in muscles:
        for step in muscle["path"]:
            for point in [step, step.get("side", {})]:
                if "body" in point:
                    point["body"] = place[point["body"]]
    return {
        "bodies": [
            {
                "name": model.name(kinds.mjOBJ_BODY, b),
                "parent": None if b == root else place[int(m.body_parentid[b])],
                "at": rounded([0, 0, 0] if b == root else m.body_pos[b]),
                "turn": rounded([1, 0, 0, 0] if b == root else m.body_quat[b], 12),
            }
            for b in order
        ],
        "joints": joints,
        "wraps": [
            {
                "body": place[int(m.geom_bodyid[g])],
                "shape": SHAPES[int(m.geom_type[g])],
                "radius_m": round(float(m.geom_size[g][0]), 9),
                "at": rounded(m.geom_pos[g]),
                "turn": rounded(m.geom_quat[g], 12),
            }
            for g in wraps
        ],
        "muscles": muscles,
    }


def poses(model, rng, joints, points, origin, muscles, count):
    """At random angles within the ranges: positions (um) from an origin in its frame, lengths (um), lever arms (um) muscle by muscle."""
    ranges = np.array([model.m.jnt_range[model.joint(name)] for name in joints])
    out = []
    for _ in range(count):
        angles = rng.uniform(ranges[:, 0], ranges[:, 1]).round(4)
        model.pose(dict(zip(joints, angles, strict=True)))
        d = model.d
        at, turn = d.xpos[model.body(origin)], d.xmat[model.body(origin)].reshape(3, 3)
        where = [turn.T @ (d.xpos[model.body(p)] - at) for p in points]
        out.append({
            "angles": angles.tolist(),
            "points_nm": np.round(np.array(where) * 1e9).astype(int).tolist(),
            "lengths_um": np.round(d.ten_length[model.tendons(muscles)] * 1e6).astype(int).tolist(),
            "arms_um": np.round(model.lever_arms(muscles, joints) * 1e6).astype(int).tolist(),
        })
    return out


def general(gain, tau):
    """The cheapest way to hold torques by a general solver (SLSQP): min |a|^2 + 20 |r|^2, G a + 5 r = tau, a >= 0."""
    n, k = gain.shape[1], gain.shape[0]
    both = np.hstack([gain, 5 * np.eye(k)])
    found = minimize(
        lambda x: (x[:n] ** 2).sum() + 20 * (x[n:] ** 2).sum(),
        np.full(n + k, 0.02),
        jac=lambda x: np.r_[2 * x[:n], 40 * x[n:]],
        bounds=[(0, None)] * n + [(None, None)] * k,
        constraints={"type": "eq", "fun": lambda x: (both @ x - tau) / 10, "jac": lambda x: both / 10},
        method="SLSQP",
        options={"maxiter": 1000, "ftol": 1e-12},
    )
    return found.x[:n]


def optima(model, rng, count=40):
    """Static optimisation of an arm and a leg at random poses under random torques: min |a|^2 + 20 |r|^2, G a + 5 r = tau, a >= 0."""
    out = []
    for case in range(count):
        joints, muscles = (ARM_JOINTS[:4], ARM[:24]) if case % 2 else (LEG_JOINTS[:5], LEG)
        ranges = np.array([model.m.jnt_range[model.joint(name)] for name in joints])
        angles = (ranges.mean(axis=1) + rng.uniform(-0.3, 0.3, len(joints)) * (ranges[:, 1] - ranges[:, 0])).round(4)
        model.pose(dict(zip(joints, angles, strict=True)))
        lever = model.lever_arms(muscles, joints)
        length = np.array([
            (model.d.ten_length[t] - model.force_and_fibre(n)[2]) / model.force_and_fibre(n)[1]
            for n, t in zip(muscles, model.tendons(muscles), strict=True)
        ])
        strength = np.array([model.force_and_fibre(n)[0] for n in muscles]) * np.maximum(np.exp(-(((length - 1) / 0.45) ** 2)), 0.05)
        g = (lever * strength[:, None]).T
        tau = rng.uniform(-12, 12, len(joints)).round(4)
        n = len(muscles)
        weight = np.sqrt(0.8)
        a, _ = nnls(np.vstack([np.eye(n), weight * g]), np.r_[np.zeros(n), weight * tau])
        held = general(g, tau)
        assert np.abs(held - a).max() < 1e-4, np.abs(held - a).max()
        out.append({"joints": joints, "muscles": muscles, "angles": angles.tolist(), "tau_nm": tau.tolist(), "activations": rounded(a, 6)})
    return out


def main():
    model = Model()
    OUT.parent.mkdir(parents=True, exist_ok=True)
    OUT.write_text(json.dumps(body_data(model), separators=(",", ":")) + "\n")
    rng = np.random.default_rng(20261130)
    parts = {
        "arm": (ARM_JOINTS, ARM_POINTS, "torso", ARM, 500),
        "leg": (LEG_JOINTS, LEG_POINTS, "pelvis", LEG, 500),
        "trunk": (TRUNK_JOINTS, TRUNK_POINTS, "sacrum", trunk_names(model), 100),
    }
    fixture = {
        name: {
            "joints": joints,
            "points": points,
            "origin": origin,
            "muscles": muscles,
            "poses": poses(model, rng, joints, points, origin, muscles, count),
        }
        for name, (joints, points, origin, muscles, count) in parts.items()
    }
    fixture["optima"] = optima(model, rng)
    FIXTURE.write_text(json.dumps(fixture, separators=(",", ":")) + "\n")


if __name__ == "__main__":
    main()
