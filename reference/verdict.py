"""Makes fixtures/verdict.csv: what a posterior mean and SD mean for a region, by scipy.

Threshold 0.5 SD for size and 3 % for sides; need is the expected shortfall below level, here also by numerical integration.
"""

import csv
from pathlib import Path

import numpy as np
from scipy import integrate
from scipy.stats import norm

SIZE, SIDES = 0.5, 3.0


def row(mean, sd):
    state = norm(mean, sd)
    need, _ = integrate.quad(lambda b: (-SIZE - b) * state.pdf(b), mean - 12 * sd, -SIZE, epsabs=1e-13, epsrel=1e-12)
    return [mean, sd, state.cdf(-SIZE), state.sf(SIZE), max(need, 0.0), state.cdf(-SIDES), state.sf(SIDES)]


if __name__ == "__main__":
    rng = np.random.default_rng(5)
    rows = [row(mean, sd) for mean, sd in zip(rng.normal(0, 1.2, 60), rng.uniform(0.1, 1.0, 60))]
    out = Path(__file__).parent / "fixtures" / "verdict.csv"
    with open(out, "w", newline="") as file:
        writer = csv.writer(file, lineterminator="\n")
        writer.writerow(["mean", "sd", "p_behind", "p_ahead", "need", "p_left_smaller", "p_right_smaller"])
        writer.writerows([f"{float(value):.12g}" for value in r] for r in rows)
