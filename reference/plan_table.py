"""Sets HiGHS beside the planner on the twenty generated clients.

    cargo run --release -p plan --example instances -- DIR
    python reference/plan_table.py DIR [SECONDS]

Solves each exported model for SECONDS (60 when not given) on one thread, two models at a time, and prints what the planner found, the
best known of longer searches, what HiGHS found and the bound it proved.
"""

import csv
import sys
from concurrent.futures import ProcessPoolExecutor
from functools import partial
from pathlib import Path

import highspy


def solved(seconds, path):
    highs = highspy.Highs()
    highs.silent()
    highs.setOptionValue("threads", 1)
    highs.setOptionValue("time_limit", seconds)
    highs.readModel(str(path))
    highs.run()
    info = highs.getInfo()
    return info.objective_function_value, info.mip_dual_bound


def main():
    directory = Path(sys.argv[1])
    seconds = float(sys.argv[2]) if len(sys.argv) > 2 else 60.0
    rows = list(csv.DictReader((directory / "weeks.csv").open()))
    models = [directory / f"{int(row['number']):02}.lp" for row in rows]
    with ProcessPoolExecutor(2) as pool:
        answers = list(pool.map(partial(solved, seconds), models))
    as_good, worst, apart = 0, 0.0, 0.0
    for row, (highs, bound) in zip(rows, answers, strict=True):
        found, best = float(row["found"]), min(float(row["best_known"]), highs)
        behind = 100 * (found / highs - 1)
        as_good += behind <= 1e-4
        worst = max(worst, behind)
        apart += 100 * (found / best - 1) / len(rows)
        print(
            f"{row['number']:>2} {row['days']} x {row['minutes']} {row['kit']:15} {row['ms']:>4} ms {found:9.3f}"
            f"  best known {best:9.3f}  HiGHS {highs:9.3f} (bound {bound:.3f})  {behind:+.2f} %"
        )
    print(f"at least as good as HiGHS in {seconds:.0f} s: {as_good} of {len(rows)}; worst {worst:+.2f} %; to the best known {apart:.2f} %")


if __name__ == "__main__":
    main()
