"""Makes fixtures/agreement.json: technical error of pairs of girths and agreement of pairs of ratings (both made up, seeded).

TEM, %TEM and R as Perini et al. 2005 write them, by pandas; the within-person SD of a one-way analysis of variance by
statsmodels, which equals the TEM; quadratic-weighted kappa by scikit-learn.
"""

import json
from pathlib import Path

import numpy as np
import pandas as pd
import statsmodels.api as sm
from sklearn.metrics import cohen_kappa_score
from statsmodels.formula.api import ols


def girths(rng, people, error):
    true = rng.normal(36, 3, people)
    pairs = pd.DataFrame({"a": true + rng.normal(0, error, people), "b": true + rng.normal(0, error, people)}).round(1)
    d = pairs["a"] - pairs["b"]
    tem = float(np.sqrt((d**2).sum() / (2 * people)))
    long = pairs.reset_index(names="person").melt(id_vars="person", value_name="cm")
    anova = sm.stats.anova_lm(ols("cm ~ C(person)", data=long).fit())
    return {
        "pairs": pairs.to_numpy().tolist(),
        "tem": tem,
        "tem_pct": 100 * tem / float(pairs.to_numpy().mean()),
        "reliability": 1 - tem**2 / float(pairs.mean(axis=1).var(ddof=1)),
        "anova_within_sd": float(np.sqrt(anova.loc["Residual", "mean_sq"])),
    }


def ratings(rng, pictures, noise):
    first = rng.integers(-2, 3, pictures)
    second = np.clip(np.rint(first + rng.normal(0, noise, pictures)), -2, 2).astype(int)
    labels = [-2, -1, 0, 1, 2]
    kappa = cohen_kappa_score(first, second, labels=labels, weights="quadratic")
    sd = float(np.sqrt(((first - second) ** 2).sum() / (2 * pictures)))
    return {"pairs": np.column_stack([first, second]).tolist(), "kappa": float(kappa), "within_rater_sd": sd}


if __name__ == "__main__":
    rng = np.random.default_rng(11)
    fixture = {
        "girths": [girths(rng, people, error) for people, error in [(2, 0.2), (12, 0.3), (40, 0.6)]],
        "ratings": [ratings(rng, pictures, noise) for pictures, noise in [(5, 1.0), (30, 0.7), (120, 1.5)]],
    }
    out = Path(__file__).parent / "fixtures" / "agreement.json"
    out.write_text(json.dumps(fixture, indent=1) + "\n")
