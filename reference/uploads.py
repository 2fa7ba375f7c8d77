"""Peak memory of a server while eight 12-megapixel pictures are sent at once.

    python reference/uploads.py BINARY PICTURE.jpg

Standard library only. Starts BINARY with `demo --no-pictures`, sends PICTURE at once to the newest rounds of eight clients,
waits until all were looked at, and prints the peak before the first upload, when the last was taken in, and when the last was
looked at.
"""

import concurrent.futures
import http.cookiejar
import json
import pathlib
import subprocess
import sys
import time
import urllib.request

PORT = 8155
ADDRESS = f"http://127.0.0.1:{PORT}"
AT_ONCE = 8


def peak_mb(pid: int) -> float:
    """Highest resident memory so far, MB."""
    lines = pathlib.Path(f"/proc/{pid}/status").read_text().splitlines()
    return next(int(line.split()[1]) for line in lines if line.startswith("VmHWM")) / 1000


def main() -> None:
    binary, picture = sys.argv[1], pathlib.Path(sys.argv[2]).read_bytes()
    server = subprocess.Popen([binary, "demo", "--no-pictures", "--port", str(PORT)], stdout=subprocess.PIPE)
    try:
        server.stdout.readline()
        jar = http.cookiejar.CookieJar()
        opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(jar))

        def call(method: str, path: str, body: bytes | None = None, kind: str = "application/json"):
            request = urllib.request.Request(ADDRESS + path, data=body, method=method, headers={"Content-Type": kind})
            with opener.open(request) as answer:
                return json.load(answer)

        call("POST", "/api/v1/session", json.dumps({"login": "mara", "password": "plumb-line-demo"}).encode())
        clients = call("GET", "/api/v1/clients")["items"][:AT_ONCE]
        tables = [f"/api/v1/rounds/{client['newest']['id']}/photos" for client in clients]
        print(f"before the first upload {peak_mb(server.pid):.0f} MB")

        def send(table: str) -> None:
            call("POST", table, picture, "application/octet-stream")

        start = time.monotonic()
        with concurrent.futures.ThreadPoolExecutor(AT_ONCE) as pool:
            list(pool.map(send, tables))
        print(f"{AT_ONCE} pictures of {len(picture) / 1e6:.1f} MB taken in after {time.monotonic() - start:.1f} s, "
              f"peak {peak_mb(server.pid):.0f} MB")

        def waiting() -> int:
            rounds = [a_round for table in tables for a_round in call("GET", table)["rounds"]]
            photos = [photo for a_round in rounds for photo in a_round["photos"]]
            return sum(photo["state"] == "waiting" for photo in photos)

        while waiting():
            time.sleep(0.5)
        print(f"looked at after {time.monotonic() - start:.1f} s, peak {peak_mb(server.pid):.0f} MB")
    finally:
        server.terminate()
        server.wait()


if __name__ == "__main__":
    main()
