"""Checks the exported optimisation model against HiGHS (Huangfu & Hall 2018, Math. Prog. Comp. 10:119-142).

    python reference/plan_lp.py BINARY CASE.json [SECONDS] [SCHOOL=ANSWER ...]

Answers are laid over those of the case: top sets, drops and pairs change the model.
The plan found is fixed in the model: HiGHS must find it feasible and give it the same objective within 1e-6. Then HiGHS solves the
model on its own for SECONDS (60 when not given, 0 to leave it out) and both are printed with the bound it proved.
"""

import json
import re
import subprocess
import sys
import tempfile
from pathlib import Path

import highspy


def model(path):
    highs = highspy.Highs()
    highs.silent()
    highs.setOptionValue("threads", 1)
    if highs.readModel(str(path)) != highspy.HighsStatus.kOk:
        sys.exit(f"HiGHS cannot read {path}")
    return highs


def fixed_objective(path, plan):
    """The objective HiGHS gives the plan's own sets."""
    text = path.read_text()
    place = {name: int(index) for index, name in re.findall(r"^\\ candidate (\d+): (\S+)$", text, re.M)}
    sets = {}
    days = sorted(set(plan["days"]))
    for session in plan["sessions"]:
        for item in session["items"]:
            sets[(days.index(session["day"]), place[item["exercise"]])] = item["sets"]
    highs = model(path)
    for index in range(highs.getNumCol()):
        name = highs.getColName(index)[1]
        if match := re.fullmatch(r"([xy])_(\d+)_(\d+)", name):
            cell = (int(match[2]), int(match[3]))
            value = sets.get(cell, 0)
            highs.changeColBounds(index, *([float(value if match[1] == "x" else value > 0)] * 2))
    highs.run()
    if highs.getModelStatus() != highspy.HighsModelStatus.kOptimal:
        sys.exit(f"the plan breaks the exported model: {highs.modelStatusToString(highs.getModelStatus())}")
    return highs.getInfo().objective_function_value


def main():
    binary, case = sys.argv[1], sys.argv[2]
    seconds = float(sys.argv[3]) if len(sys.argv) > 3 else 60.0
    answers = dict(answer.split("=", 1) for answer in sys.argv[4:])
    with tempfile.TemporaryDirectory() as directory:
        path = Path(directory) / "week.lp"
        taught = json.loads(Path(case).read_text())
        taught["client"].setdefault("schools", {}).update(answers)
        case = Path(directory) / Path(case).name
        case.write_text(json.dumps(taught))
        out = subprocess.run([binary, "plan", case, "--lp", path], check=True, capture_output=True, text=True)
        plan = json.loads(out.stdout)
        days = {1: [1], 2: [1, 4], 3: [1, 3, 5], 4: [1, 2, 4, 5], 5: [1, 2, 3, 5, 6], 6: [1, 2, 3, 4, 5, 6], 7: range(1, 8)}
        plan["days"] = days[taught["client"]["days_per_week"]]
        own = fixed_objective(path, plan)
        if abs(own - plan["objective"]) > 1e-6:
            sys.exit(f"the plan costs {plan['objective']} here and {own} in the exported model")
        print(f"{Path(case).stem}: plan {plan['objective']:.4f} in {plan['solve_ms']:.0f} ms, the same by HiGHS", end="")
        if seconds > 0:
            highs = model(path)
            highs.setOptionValue("time_limit", seconds)
            highs.run()
            info = highs.getInfo()
            print(f"; HiGHS {info.objective_function_value:.4f}, bound {info.mip_dual_bound:.4f} in {seconds:.0f} s", end="")
        print()


if __name__ == "__main__":
    main()
