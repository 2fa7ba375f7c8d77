"""Makes fixtures/posterior.json: random Bayesian linear regressions, solved by numpy."""

import json
from pathlib import Path

import numpy as np


def case(rng, regions, rows):
    block = rng.integers(0, 3, regions)
    prior = np.where(block[:, None] == block[None, :], 0.5, 0.0) + 0.5 * np.eye(regions)
    h = rng.uniform(0, 1, (rows, regions)) * (rng.uniform(size=(rows, regions)) < 0.4)
    y = rng.normal(0, 1, rows)
    v = rng.uniform(0.2, 9, rows)
    precision = np.linalg.inv(prior) + (h.T / v) @ h
    covariance = np.linalg.inv(precision)
    mean = covariance @ (h.T @ (y / v))
    named = {"prior": prior, "h": h, "y": y, "variances": v, "mean": mean, "covariance": covariance}
    return {name: value.tolist() for name, value in named.items()}


if __name__ == "__main__":
    rng = np.random.default_rng(6)
    cases = [case(rng, regions, rows) for regions, rows in [(1, 1), (3, 2), (6, 10), (8, 25)]]
    out = Path(__file__).parent / "fixtures" / "posterior.json"
    out.write_text(json.dumps(cases, indent=1) + "\n")
