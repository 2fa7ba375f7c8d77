"""Makes fixtures/eye.json: answers of made-up coaches beside the truth (seeded), and the difference each is sure of.

The least-squares line of answers over truth by scipy.stats.linregress; its residual SD with n - 2 degrees of freedom; the
difference whose direction is named rightly nine times in ten, `norm.ppf(0.9) * sd / slope`.
"""

import json
from pathlib import Path

import numpy as np
from scipy import stats


def coach(rng, answers, slope, bias, noise):
    truth = np.clip(rng.uniform(-3, 3, answers), -2, 2)
    answer = np.clip(np.rint(bias + slope * truth + rng.normal(0, noise, answers)), -2, 2)
    line = stats.linregress(truth, answer)
    residual = answer - line.intercept - line.slope * truth
    sd = float(np.sqrt((residual**2).sum() / (answers - 2)))
    return {
        "truth": truth.tolist(),
        "answer": answer.astype(int).tolist(),
        "sure_from": float(stats.norm.ppf(0.9) * sd / line.slope),
    }


def main():
    rng = np.random.default_rng(20261126)
    kinds = [(8, 1.0, 0.0, 0.5), (24, 0.8, 0.3, 0.7), (60, 0.5, -0.2, 1.0)]
    cases = [coach(rng, *kind) for kind in kinds]
    out = Path(__file__).parent / "fixtures" / "eye.json"
    out.write_text(json.dumps({"made_by": "reference/eye.py", "cases": cases}, indent=1) + "\n")


if __name__ == "__main__":
    main()
