"""Makes fixtures/joint_{male,female}.csv: the posterior of a hundred people of each sex, with values missing at random, by numpy.

Each person's values carry an error variance made up from their place (seeded). Columns: which of the 19 sites were observed,
mean and SD of the amount of general muscularity, mean of the seven parts with their SDs, then the means of all regions.

fixtures/pictured_{male,female}.csv is the same with girths from pictures beside the tape: some sites by the tape, some from
pictures, some by both. What the pictures show is 2 % too large throughout, as by a wrong scale; their errors share that of the scale.
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


# Of girths from pictures: a constant with one more picture's error, and the scale, ln.
PICTURE_SD, SCALE_SD, TOO_LARGE = 0.0166, 0.01, 0.02
BONES = ["stature", "biacromial", "biiliac", "elbow-breadth", "wrist-breadth", "knee-breadth", "ankle-breadth"]


def pictured(model, x, taped, shown):
    """Means of the parts and their SDs."""
    t, p = np.flatnonzero(taped), np.flatnonzero(shown)
    places = np.concatenate([t, p])
    of_pictures = np.concatenate([np.zeros(len(t)), np.ones(len(p))])
    error = np.where(of_pictures == 1, PICTURE_SD**2, errors(len(NAMES))[places])
    k = model["sigma"][np.ix_(places, places)] + np.diag(error) + SCALE_SD**2 * np.outer(of_pictures, of_pictures)
    deviation = x[places] + TOO_LARGE * of_pictures - model["mu"][places]
    gain = model["carried"][:, places] @ np.linalg.inv(k)
    h, covariance = model["h"], model["c"] - gain @ model["carried"][:, places].T
    return h @ gain @ deviation, np.sqrt(np.diag(h @ covariance @ h.T))


def with_pictures(sex):
    rng = np.random.default_rng(22)
    model = body(sex)
    people, _, _ = moments(sex)
    girth = np.array([name not in BONES for name in NAMES])
    marks = lambda seen: "".join("1" if one else "0" for one in seen)
    with open(FIXTURES / f"pictured_{sex}.csv", "w", newline="") as file:
        out = csv.writer(file, lineterminator="\n")
        out.writerow(["taped", "pictured", *AREAS, *[f"{a}:sd" for a in AREAS]])
        for x in people[:PEOPLE]:
            taped = rng.uniform(size=len(NAMES)) < 0.4
            shown = girth & (rng.uniform(size=len(NAMES)) < 0.7)
            means, sds = pictured(model, x, taped, shown)
            out.writerow([marks(taped), marks(shown), *[f"{value:.13g}" for value in [*means, *sds]]])


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
        with_pictures(sex)


if __name__ == "__main__":
    main()
