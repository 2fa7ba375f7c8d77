"""Fits the constants of girths from pictures and says how far off they are.

Reads fixtures/girth_bodies.csv (made by `cargo run --profile quick -p lighttable --example bodies`: breadths and depths as the
product measures them in pictures of made-up bodies, and their true girths) and the chest breadths, depths and girths of real
people in the open body-dimensions data (Heinz et al. 2003). Writes crates/lighttable/data/girths.toml,
fixtures/girths.csv: the errors on bodies that were held out, and fixtures/girth_changes.csv: by how much two days' pictures of one of them
differ (a plain wall, a busy room, turned by 3 degrees), where nothing changed.

ln G = ln g + alpha ln w + (1 - alpha) ln d + e, by least squares; with the breadth alone ln G = ln g' + ln w + e.
"""

import csv
from pathlib import Path

import numpy as np
import pandas as pd

from bdims import load

HERE = Path(__file__).parent
FIXTURES = HERE / "fixtures"
CONSTANTS = HERE.parent / "crates" / "lighttable" / "data" / "girths.toml"
# Sites whose depth a side picture shows; the others are known by their breadth alone.
ARMS_FORWARD = ["abdomen", "neck"]
DEEP = ["abdomen", "ankle", "calf", "chest", "hip", "knee", "mid-thigh", "neck", "thigh", "waist"]


# An ellipse's girth follows its breadth and depth about as 0.6 to 0.4; bodies much alike in shape say little of alpha by themselves.
ALPHA, ALPHA_SD, SCATTER = 0.6, 0.15, 0.02


def fit(rows):
    """ln g and alpha with breadth and depth: least squares, alpha held to that of an ellipse as far as the bodies say nothing."""
    across = np.log(rows.breadth_cm / rows.depth_cm)
    design = np.column_stack([np.ones(len(rows)), across])
    held = np.vstack([design, [0, SCATTER / ALPHA_SD]])
    said = np.append(np.log(rows.girth_cm / rows.depth_cm), ALPHA * SCATTER / ALPHA_SD)
    (ln_g, alpha), *_ = np.linalg.lstsq(held, said, rcond=None)
    return ln_g, alpha


def level(rows, alpha):
    """ln g where alpha is known from elsewhere."""
    seen = alpha * np.log(rows.breadth_cm) + (1 - alpha) * np.log(rows.depth_cm)
    return float(np.mean(np.log(rows.girth_cm) - seen))


def real_chest():
    """alpha of real chests, both sexes, and the scatter about it, %."""
    people = pd.concat([load("male"), load("female")])
    rows = pd.DataFrame({"breadth_cm": people.che_di, "depth_cm": people.che_de, "girth_cm": people.che_gi})
    ln_g, alpha = fit(rows)
    off = np.log(rows.girth_cm) - ln_g - alpha * np.log(rows.breadth_cm) - (1 - alpha) * np.log(rows.depth_cm)
    return alpha, 100 * float(np.std(off)), len(rows)


def changes(bodies):
    """Differences between all pairs of days of one body and side, %; the body's own constant is the same on both and cancels."""
    apart = []
    for _, days in bodies.groupby(["body", bodies.side.fillna("")]):
        off = days.off.dropna().to_numpy()
        apart += [off[i] - off[j] for i in range(len(off)) for j in range(i)]
    return np.array(apart)


def rms(values):
    return float(np.sqrt(np.mean(np.square(values))))


def main():
    bodies = pd.read_csv(FIXTURES / "girth_bodies.csv")
    # The side with the arms held forward hides nothing; without it, the side with hanging arms.
    bodies["hanging_cm"] = bodies.depth_cm
    bodies["depth_cm"] = bodies.depth_arms_forward_cm.fillna(bodies.depth_cm)
    fitted, held = bodies[bodies.held_out == 0], bodies[bodies.held_out == 1]
    chest_alpha, chest_scatter, people = real_chest()
    lines = [
        "# Constants of girths from pictures, written by reference/girths.py: fitted to breadths and depths as measured in pictures of",
        "# made-up bodies of both sexes and all builds; how the chest's breadth and depth share its girth, to real people (Heinz et al. 2003).",
        f"bodies = {fitted.body.nunique()}",
        "",
    ]
    errors, apart = [], []
    for site in sorted(bodies.site.unique()):
        own, other = fitted[fitted.site == site], held[held.site == site]
        ln_breadth = float(np.mean(np.log(own.girth_cm / own.breadth_cm)))
        lines.append(f"[site.{site}]")
        by_breadth = ln_breadth + np.log(other.breadth_cm)
        if site in DEEP:
            deep = own.dropna(subset=["depth_cm"])
            ln_g, alpha = fit(deep)
            if site == "chest":
                alpha = chest_alpha
                ln_g = level(deep, alpha)
            lines += [f"ln_g = {ln_g:.5f}", f"alpha = {alpha:.4f}"]
            said = ln_g + alpha * np.log(other.breadth_cm) + (1 - alpha) * np.log(other.depth_cm)
            said = said.fillna(by_breadth)
            hanging = ln_g + alpha * np.log(other.breadth_cm) + (1 - alpha) * np.log(other.hanging_cm)
        else:
            said = by_breadth
        lines += [f"ln_g_breadth = {ln_breadth:.5f}", ""]
        off = 100 * (said - np.log(other.girth_cm))
        differ = changes(other.assign(off=off))
        # A true change of 3 % has the right sign as long as the error is smaller.
        apart.append([site, len(differ), f"{rms(differ):.2f}", f"{100 * np.mean(np.abs(differ) < 3):.0f}"])
        plain = (other.room == "Plain") & (other.turn_deg == 0)
        ways = [("plain", off[plain]), ("busy", off[other.room == "Busy"]), ("turned", off[other.turn_deg > 0])]
        if site in DEEP and site not in ARMS_FORWARD:
            ways.append(("arms hanging", 100 * (hanging.fillna(by_breadth) - np.log(other.girth_cm))))
        for way, part in ways:
            errors.append([site, way, len(part), f"{part.mean():.2f}", f"{rms(part):.2f}", f"{part.abs().max():.2f}"])
    with (FIXTURES / "girth_changes.csv").open("w", newline="") as file:
        writer = csv.writer(file, lineterminator="\n")
        writer.writerow(["site", "pairs", "rms_pct", "right_of_3_pct"])
        writer.writerows(apart)
    CONSTANTS.write_text("\n".join(lines))
    with (FIXTURES / "girths.csv").open("w", newline="") as file:
        writer = csv.writer(file, lineterminator="\n")
        writer.writerow(["site", "pictures", "n", "mean_pct", "rms_pct", "worst_pct"])
        writer.writerows(errors)
        writer.writerow(["chest, real people", "calipers", people, "0.00", f"{chest_scatter:.2f}", ""])


if __name__ == "__main__":
    main()
