"""Makes fixtures/schools.json: sizes by other schools than the reference population, by numpy.

Own roster: the first 40 men of the open data stand for a coach's clients; expected size and z of some sites of later men
from the roster's moments alone. Frame ratios: how far arm and calf lie from their multiple of wrist and ankle, in SD of the
log ratio in the whole data (the multiples of S. Reeves, Building the Classic Physique the Natural Way, 1995, from memory).
"""

import json
from pathlib import Path

import numpy as np

from bdims import SITES, load

ROSTER = 40
OBSERVED = ["stature", "wrist", "ankle", "shoulder", "waist", "arm-flexed", "calf"]


def own_roster(x, columns):
    places = [columns.index(site) for site in OBSERVED]
    roster = x[:ROSTER][:, places]
    mu, s = roster.mean(axis=0), np.cov(roster, rowvar=False, ddof=1)
    people = []
    for row in range(ROSTER, ROSTER + 10):
        person = x[row, places]
        sites = {}
        for site in ["shoulder", "arm-flexed", "calf"]:
            i = OBSERVED.index(site)
            a = [j for j in range(len(OBSERVED)) if j != i]
            k = np.linalg.solve(s[np.ix_(a, a)], s[a, i])
            e, v = mu[i] + k @ (person[a] - mu[a]), s[i, i] - k @ s[a, i]
            sites[site] = {"expected_cm": float(np.exp(e)), "z": float((person[i] - e) / np.sqrt(v))}
        people.append({"row": row, "sites": sites})
    return people


def frame_ratio(x, columns, site, of, factor):
    ratio = x[:, columns.index(site)] - x[:, columns.index(of)]
    z = (ratio - np.log(factor)) / ratio.std(ddof=1)
    return {"site": site, "of": of, "factor": factor, "z": z.tolist()}


if __name__ == "__main__":
    columns = list(SITES.values())
    x = np.log(load("male")[list(SITES)].to_numpy(dtype=float))
    fixture = {
        "observed": OBSERVED,
        "roster": ROSTER,
        "people": own_roster(x, columns),
        "frame_ratios": [
            frame_ratio(x, columns, "arm-flexed", "wrist", 2.52),
            frame_ratio(x, columns, "calf", "ankle", 1.92),
        ],
    }
    out = Path(__file__).parent / "fixtures" / "schools.json"
    out.write_text(json.dumps(fixture, indent=1) + "\n")
