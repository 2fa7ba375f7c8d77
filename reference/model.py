"""The joint model of the body by numpy, from the same data files as the product's: priors, shares, muscularity, what muscles carry."""

import tomllib
from pathlib import Path

import numpy as np

from bdims import SITES, load

DATA = Path(__file__).parent.parent / "crates" / "atlas" / "data"
AREAS = ["shoulder", "chest", "arm-flexed", "forearm", "hip", "thigh", "calf"]
NAMES = list(SITES.values())


def settings():
    return tomllib.loads((DATA / "evidence.toml").read_text())


def regions():
    return tomllib.loads((DATA / "regions.toml").read_text())["region"]


def prior(settings, regions):
    """C: 1 on the diagonal, less within a muscle, less again within a part of the body."""

    def correlation(a, b):
        if a["id"] == b["id"]:
            return 1.0
        if a["id"].split(".")[0] == b["id"].split(".")[0]:
            return settings["same_muscle_correlation"]
        if a.get("area") is not None and a.get("area") == b.get("area"):
            return settings["same_area_correlation"]
        return 0.0

    c = np.array([[correlation(a, b) for b in regions] for a in regions])
    values, vectors = np.linalg.eigh(c)
    if values.min() >= 1e-3:
        return c
    lifted = (vectors * np.maximum(values, 1e-3)) @ vectors.T
    scale = 1 / np.sqrt(np.diag(lifted))
    return lifted * np.outer(scale, scale)


def moments(sex):
    x = np.log(load(sex)[list(SITES)].to_numpy(dtype=float))
    return x, x.mean(axis=0), np.cov(x, rowvar=False, ddof=1)


def muscular(settings):
    growth = settings["muscularity"]["growth"]
    return np.array([growth.get(site, 0.0) for site in NAMES])


def body(sex):
    """Mean, Sigma, Cov(b, x), share that the muscles carry, the areas' rows, C."""
    s, r = settings(), regions()
    ids = [region["id"] for region in r]
    c = prior(s, r)
    _, mu, sample = moments(sex)
    h = np.zeros((len(AREAS), len(r)))
    for row, site in enumerate(AREAS):
        for region, share in s["composition"][site].items():
            h[row, ids.index(region)] = share
    places = [NAMES.index(site) for site in AREAS]
    conditional_sd = 1 / np.sqrt(np.diag(np.linalg.inv(sample))[places])
    d1 = np.zeros((len(NAMES), len(AREAS)))
    d1[places, range(len(AREAS))] = conditional_sd
    carried = d1 @ h @ c @ h.T @ d1.T
    k = 1 / np.linalg.eigvals(np.linalg.solve(sample, carried)).real.max()
    share = min(1.0, s["tape_share"] * k)
    m = muscular(s)
    sigma = sample + s["muscularity"]["sd"] ** 2 * np.outer(m, m)
    return {"mu": mu, "sigma": sigma, "carried": c @ h.T @ d1.T * np.sqrt(share), "share": share, "h": h, "c": c, "m": m, "tau": s["muscularity"]["sd"]}
