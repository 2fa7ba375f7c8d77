"""Makes fixtures/bdims_{male,female}.csv and fixtures/conditional_{male,female}.csv, and fixtures/sides.csv.

For every person of the data set and every site: expected size, z and sd of the logs, conditional on all other sites, with
the moments of the whole sex and the direction of general muscularity (numpy); the squared Mahalanobis distance and whether it is
past the 99 % limit of F for one more person (scipy). For every person also a made-up left and right arm (seeded) with the
left-right verdict.
"""

import csv
from pathlib import Path

import numpy as np
from scipy import stats

from bdims import SITES, load
from model import body, settings

FIXTURES = Path(__file__).parent / "fixtures"


def write(name, header, rows):
    with open(FIXTURES / name, "w", newline="") as file:
        out = csv.writer(file, lineterminator="\n")
        out.writerow(header)
        out.writerows(rows)


def text(value):
    return f"{value:.13g}"


def conditional(sex):
    data = load(sex)[list(SITES)].to_numpy(dtype=float)
    x = np.log(data)
    model = body(sex)
    mu, s = model["mu"], model["sigma"]
    n, p = x.shape
    limit = p * (n**2 - 1) / (n * (n - p)) * stats.f.ppf(0.99, p, n - p)
    rows = []
    for person in x:
        row = []
        for i in range(len(mu)):
            a = [j for j in range(len(mu)) if j != i]
            k = np.linalg.solve(s[np.ix_(a, a)], s[a, i])
            e = mu[i] + k @ (person[a] - mu[a])
            v = s[i, i] - k @ s[a, i]
            row += [np.exp(e), np.sqrt(v), (person[i] - e) / np.sqrt(v)]
        d2 = (person - mu) @ np.linalg.solve(s, person - mu)
        row += [d2, int(d2 > limit)]
        rows.append([text(v) for v in row])
    sites = list(SITES.values())
    write(f"bdims_{sex}.csv", sites, [[text(v) for v in row] for row in data])
    columns = [f"{site}:{what}" for site in sites for what in ("expected_cm", "sd_ln", "z")]
    write(f"conditional_{sex}.csv", [*columns, "mahalanobis2", "outside"], rows)


def sides():
    """Left and right around each person's real arm; 0.9 % error a side, threshold 3 %, of right-handed people."""
    s = settings()
    prior_mean, prior_sd = -s["handedness_pct"]["arm"], s["side_spread_pct"]["limb"]
    rng = np.random.default_rng(20260302)
    arms = np.concatenate([load(sex)["bic_gi"].to_numpy(dtype=float) for sex in ("male", "female")])
    rows = []
    for arm in arms:
        left, right = arm * np.exp(rng.normal(0, 0.02, 2))
        se = 0.009 * np.array([left, right])
        d, se_d = left - right, np.hypot(*se)
        si = 100 * d / ((left + right) / 2)
        sa = 100 * (45 - np.degrees(np.arctan(left / right))) / 90
        se_si = 100 * se_d / ((left + right) / 2)
        precision = 1 / prior_sd**2 + 1 / se_si**2
        mean, sd = (prior_mean / prior_sd**2 + si / se_si**2) / precision, precision**-0.5
        beyond = stats.norm.sf(3, mean, sd) + stats.norm.cdf(-3, mean, sd)
        as_expected = abs(mean - prior_mean) <= 1.96 * sd
        verdict = "within-error" if as_expected else "real-small" if beyond < 0.5 else "real-act"
        rows.append([*map(text, (left, right, d, se_d, si, sa, beyond)), verdict])
    header = "left_cm,right_cm,difference_cm,se_cm,symmetry_index,symmetry_angle,p_beyond_threshold,verdict"
    write("sides.csv", header.split(","), rows)


if __name__ == "__main__":
    FIXTURES.mkdir(exist_ok=True)
    conditional("male")
    conditional("female")
    sides()
