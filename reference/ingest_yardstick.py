"""Yardstick of ingest: tuned OpenCV on the JPEG that `cargo bench -p vision` left, decoded at half size on one core."""

import pathlib
import statistics
import time

import cv2
import numpy as np

VIEW_PX, THUMB_PX, RUNS = 1600, 320, 20


def fitted(picture, longest):
    height, width = picture.shape[:2]
    scale = longest / max(height, width)
    return cv2.resize(picture, (round(width * scale), round(height * scale)), interpolation=cv2.INTER_AREA)


def ingest(data):
    half = cv2.imdecode(data, cv2.IMREAD_REDUCED_COLOR_2)
    view = fitted(half, VIEW_PX)
    thumb = fitted(view, THUMB_PX)
    cv2.imencode(".jpg", view, [cv2.IMWRITE_JPEG_QUALITY, 88])
    cv2.imencode(".jpg", thumb, [cv2.IMWRITE_JPEG_QUALITY, 80])


def main():
    cv2.setNumThreads(1)
    path = pathlib.Path(__file__).parent.parent / "target/twelve-megapixels.jpg"
    data = np.fromfile(path, np.uint8)
    times = []
    for _ in range(RUNS):
        start = time.perf_counter()
        ingest(data)
        times.append(time.perf_counter() - start)
    print(f"ingest of 12 megapixels, tuned OpenCV {cv2.__version__}: median {1000 * statistics.median(times):.0f} ms")


if __name__ == "__main__":
    main()
