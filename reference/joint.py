"""Makes fixtures/joint_{male,female}.csv: the posterior of a hundred people of each sex, with values missing at random, by numpy.

Each person's values carry an error variance made up from their place (seeded). Columns: which of the 19 sites were observed,
mean and SD of the amount of general muscularity, mean of the seven parts with their SDs, then the means of all regions.
"""

import csv
from pathlib import Path

import numpy as np

from model import AREAS, NAMES, body, moments, regions

FIXTURES = Path(__file__).parent / "fixtures"
PEOPLE = 100


def errors(count):
    """Variance of each site's error, ln: 0.3 to 1.2 %."""
    return (np.linspace(0.003, 0.012, count)) ** 2


def posterior(model, x, observed):
    o = np.flatnonzero(observed)
    k = model["sigma"][np.ix_(o, o)] + np.diag(errors(len(NAMES))[o])
    gain = model["carried"][:, o] @ np.linalg.inv(k)
    deviation = x[o] - model["mu"][o]
    mean = gain @ deviation
    covariance = model["c"] - gain @ model["carried"][:, o].T
    variance = model["tau"] ** 2
    along = np.linalg.solve(k, model["m"][o])
    amount = variance * along @ deviation
    spread = np.sqrt(variance - variance**2 * along @ model["m"][o])
    h = model["h"]
    return amount, spread, h @ mean, np.sqrt(np.diag(h @ covariance @ h.T)), mean


def main():
    for sex in ("male", "female"):
        rng = np.random.default_rng(16)
        model = body(sex)
        people, _, _ = moments(sex)
        rows = []
        for person, x in enumerate(people[:PEOPLE]):
            observed = np.ones(len(NAMES), dtype=bool)
            if person % 2:
                observed = rng.uniform(size=len(NAMES)) < 0.6
                observed[NAMES.index("wrist")] = True
            amount, spread, means, sds, all_means = posterior(model, x, observed)
            numbers = [amount, spread, *means, *sds, *all_means]
            rows.append(["".join("1" if seen else "0" for seen in observed), *[f"{value:.13g}" for value in numbers]])
        header = ["observed", "muscularity", "muscularity_sd", *AREAS, *[f"{a}:sd" for a in AREAS], *[r["id"] for r in regions()]]
        with open(FIXTURES / f"joint_{sex}.csv", "w", newline="") as file:
            out = csv.writer(file, lineterminator="\n")
            out.writerow(["share", f"{model['share']:.13g}"])
            out.writerow(header)
            out.writerows(rows)
        print(sex, "share carried", model["share"])


if __name__ == "__main__":
    main()
