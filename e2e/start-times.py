"""Prints how fast the quick build starts and answers: python3 e2e/start-times.py [binary]."""

import statistics
import subprocess
import sys
import tempfile
import time
import urllib.request
from pathlib import Path

ROOT = Path(__file__).parent.parent
BINARY = sys.argv[1] if len(sys.argv) > 1 else str(ROOT / "target" / "quick" / "orthomer")


def started(arguments, port):
    """Milliseconds until the server answers, and its resident megabytes then."""
    begin = time.perf_counter()
    server = subprocess.Popen([BINARY, *arguments, "--port", str(port)], stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
    try:
        while True:
            try:
                urllib.request.urlopen(f"http://127.0.0.1:{port}/api/v1/health").read()
                break
            except OSError:
                time.sleep(0.002)
        took = 1000 * (time.perf_counter() - begin)
        status = Path(f"/proc/{server.pid}/status").read_text()
        resident = next(line for line in status.splitlines() if line.startswith("VmRSS"))
        return took, int(resident.split()[1]) / 1024
    finally:
        server.kill()
        server.wait()


def command(arguments):
    begin = time.perf_counter()
    subprocess.run([BINARY, *arguments], stdout=subprocess.DEVNULL, check=True)
    return 1000 * (time.perf_counter() - begin)


def report(what, values, unit):
    print(f"{what}: median {statistics.median(values):.0f} {unit}, worst {max(values):.0f} {unit} of {len(values)}")


if __name__ == "__main__":
    with tempfile.TemporaryDirectory() as data:
        started(["serve", "--data", data], 8141)
        again = [started(["serve", "--data", data], 8141) for _ in range(9)]
    report("serve, started again", [took for took, _ in again], "ms")
    report("serve, resident", [resident for _, resident in again], "MB")
    report("demo", [started(["demo"], 8142)[0] for _ in range(5)], "ms")
    case = str(ROOT / "docs" / "examples" / "full.json")
    report("assess --explain, whole process", [command(["assess", case, "--explain"]) for _ in range(21)], "ms")
    report("plan, whole process", [command(["plan", case]) for _ in range(5)], "ms")
