"""Does the posterior of an explained assessment again, by numpy alone.

    orthomer assess CASE.json --explain > explained.json
    python reference/explained.py explained.json

Prints how far the verdicts of the file are from it, and fails when by more than 1e-9.
"""

import json
import sys
from pathlib import Path

import numpy as np


def halves(file):
    """(prior mean, prior covariance, expected less observed, cross, covariance) of size and sides."""
    regions = [region["region"] for region in file["regions"]]
    tape = file["tape_joint"]
    prior = np.array(file["prior_b"])
    rows = [o for o in file["observations"] if next(iter(o["row"])).startswith("b:")]
    h = np.zeros((len(rows), len(regions)))
    for i, observation in enumerate(rows):
        for name, weight in observation["row"].items():
            h[i, regions.index(name[2:])] = weight
    p = len(tape["sites"])
    taped = np.array(tape["cross"]).reshape(len(regions), p)
    covariance = np.zeros((p + len(rows), p + len(rows)))
    covariance[:p, :p] = np.array(tape["covariance"]).reshape(p, p)
    covariance[p:, :p] = h @ taped
    covariance[:p, p:] = (h @ taped).T
    covariance[p:, p:] = h @ prior @ h.T + np.diag([o["variance"] for o in rows])
    for i, one in enumerate(rows):
        for j, other in enumerate(rows):
            if one.get("offset") is not None and one.get("offset") == other.get("offset"):
                covariance[p + i, p + j] += file["offsets"][one["offset"]]
    deviation = np.concatenate([np.array(tape["x"]) - np.array(tape["mu"]), [o["y"] for o in rows]])
    size = (np.zeros(len(regions)), prior, deviation, np.hstack([taped, prior @ h.T]), covariance)
    paired = file["prior_a"]["regions"]
    rows = [o for o in file["observations"] if next(iter(o["row"])).startswith("a:")]
    h = np.zeros((len(rows), len(paired)))
    for i, observation in enumerate(rows):
        for name, weight in observation["row"].items():
            if name[2:] in paired:
                h[i, paired.index(name[2:])] = weight
    mean, prior = np.array(file["prior_a"]["mean"]), np.array(file["prior_a"]["covariance"])
    deviation = np.array([o["y"] for o in rows]) - h @ mean
    sides = (mean, prior, deviation, prior @ h.T, h @ prior @ h.T + np.diag([o["variance"] for o in rows]))
    return size, sides


def posterior(mean, prior, deviation, cross, covariance):
    gain = np.linalg.solve(covariance, cross.T).T
    return mean + gain @ deviation, prior - gain @ cross.T


def main():
    file = json.loads(Path(sys.argv[1]).read_text())
    size, sides = halves(file)
    mean, covariance = posterior(*size)
    apart = 0.0
    for region, m, sd in zip(file["regions"], mean, np.sqrt(np.diag(covariance)), strict=True):
        apart = max(apart, abs(region["bulk"]["mean"] - m), abs(region["bulk"]["sd"] - sd))
    mean, covariance = posterior(*sides)
    by_region = {r["region"]: r.get("asymmetry") for r in file["regions"]}
    for region, m, sd in zip(file["prior_a"]["regions"], mean, np.sqrt(np.diag(covariance)), strict=True):
        apart = max(apart, abs(by_region[region]["mean"] - m), abs(by_region[region]["sd"] - sd))
    print(f"largest difference {apart:.2e}")
    sys.exit(int(apart > 1e-9))


if __name__ == "__main__":
    main()
