"""Times numpy on the rows that `cargo bench -p assess` left in target/yardstick.json: the same posterior of both halves."""

import json
import timeit
from pathlib import Path

import numpy as np


def half(file, sides):
    regions = [i for i, region in enumerate(file["regions"]) if region["paired"] or not sides]
    muscle = np.array([file["regions"][i]["muscle"] for i in regions])
    prior = np.where(muscle[:, None] == muscle[None, :], 0.5, 0.0) + 0.5 * np.eye(len(regions))
    prior *= 9.0 if sides else 1.0
    rows = [o for o in file["observations"] if o["sides"] == sides]
    h = np.zeros((len(rows), len(regions)))
    for i, observation in enumerate(rows):
        for region, weight in observation["row"]:
            if region in regions:
                h[i, regions.index(region)] = weight
    return np.linalg.inv(prior), h, np.array([o["y"] for o in rows]), np.array([o["variance"] for o in rows])


def posterior(inverse_prior, h, y, v):
    covariance = np.linalg.inv(inverse_prior + (h.T / v) @ h)
    return covariance @ (h.T @ (y / v)), covariance


if __name__ == "__main__":
    file = json.loads((Path(__file__).parent.parent / "target" / "yardstick.json").read_text())
    halves = [half(file, sides) for sides in (False, True)]
    # The rows are laid out beforehand: only the algebra is timed.
    runs = timeit.repeat(lambda: [posterior(*rows) for rows in halves], number=200, repeat=7)
    count = len(file["observations"])
    print(f"numpy, posterior of both halves, {count} observations: {1e6 * min(runs) / 200:.0f} us (best of 7 x 200)")
