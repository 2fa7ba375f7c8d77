"""Times numpy on the rows that `cargo bench -p assess` left in target/yardstick.json: the same posterior of both halves."""

import json
import timeit
from pathlib import Path

from explained import halves, posterior

if __name__ == "__main__":
    file = json.loads((Path(__file__).parent.parent / "target" / "yardstick.json").read_text())
    # The rows are laid out beforehand: only the algebra is timed.
    laid_out = halves(file)
    runs = timeit.repeat(lambda: [posterior(*half) for half in laid_out], number=200, repeat=7)
    count = len(file["observations"]) + len(file["tape_joint"]["sites"])
    print(f"numpy, posterior of both halves, {count} observations: {1e6 * min(runs) / 200:.0f} us (best of 7 x 200)")
