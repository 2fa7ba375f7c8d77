"""Outside figures for pictures: alignment, Otsu, labelling, filling, Laplacian, Lab (scikit-image, scipy), orientation and
metadata (Pillow). Writes fixtures/vision.json and fixtures/orientation-N.jpg."""

import io
import json
import pathlib

import numpy as np
from PIL import Image, ImageOps
from scipy import ndimage
from skimage.color import rgb2lab
from skimage.filters import threshold_otsu
from skimage.transform import SimilarityTransform

FIXTURES = pathlib.Path(__file__).parent / "fixtures"
WIDTH, HEIGHT = 48, 40


def alignments(rng):
    cases = []
    for count in (2, 3, 8, 20):
        start = rng.uniform(0, 1600, (count, 2))
        true = SimilarityTransform(scale=rng.uniform(0.5, 2), rotation=rng.uniform(-0.4, 0.4), translation=rng.uniform(-90, 90, 2))
        end = true(start) + rng.normal(0, 3, (count, 2)) * (count > 2)
        found = SimilarityTransform()
        found.estimate(start, end)
        left = found(start) - end
        cases.append({
            "from": start.tolist(),
            "to": end.tolist(),
            "scale": found.scale,
            "turn_deg": float(np.degrees(found.rotation)),
            "shift": found.translation.tolist(),
            "residual_px": float(np.sqrt((left**2).sum(1).mean())),
        })
    return cases


def picture(rng):
    y, x = np.mgrid[0:HEIGHT, 0:WIDTH]
    ring = (np.hypot(x - 22, y - 19) < 14) & (np.hypot(x - 22, y - 19) > 5)
    dot = np.hypot(x - 42, y - 5) < 3
    grey = 60 + 110 * (ring | dot) + rng.normal(0, 12, (HEIGHT, WIDTH))
    return np.clip(np.round(grey), 0, 255).astype(np.uint8)


def segmentation(grey):
    level = int(threshold_otsu(grey))
    inside = grey > level
    labels, count = ndimage.label(inside)
    largest = labels == 1 + np.argmax(ndimage.sum_labels(inside, labels, range(1, count + 1)))
    laplace = ndimage.laplace(grey.astype(float))[1:-1, 1:-1]
    flat = lambda mask: mask.astype(int).ravel().tolist()
    return {
        "width": WIDTH,
        "grey": grey.ravel().tolist(),
        "otsu": level,
        "largest": flat(largest),
        "filled": flat(ndimage.binary_fill_holes(largest)),
        "laplacian_variance": float(laplace.var()),
    }


def colours(rng):
    rgb = np.vstack([rng.integers(0, 256, (40, 3)), [[0, 0, 0], [255, 255, 255], [255, 0, 0], [10, 10, 10]]]).astype(np.uint8)
    lab = rgb2lab(rgb[None])[0]
    return [{"rgb": c.tolist(), "lab": l.tolist()} for c, l in zip(rgb, lab)]


def orientations():
    """A picture whose four quarters differ, as a camera held in each of eight ways would store it, with a place."""
    width, height = 320, 240
    cases = []
    for turn in range(1, 9):
        pixels = np.zeros((height, width, 3), np.uint8)
        pixels[: height // 2, : width // 2] = [220, 40, 40]
        pixels[: height // 2, width // 2 :] = [40, 200, 40]
        pixels[height // 2 :, : width // 2] = [40, 40, 220]
        pixels[height // 2 :, width // 2 :] = [230, 230, 60]
        image = Image.fromarray(pixels)
        exif = Image.Exif()
        exif[0x0112] = turn
        exif[0x010F] = "Made-up Camera"
        exif.get_ifd(0x8769)[0x9003] = "2026:03:02 09:31:11"
        exif.get_ifd(0x8825)[1] = "N"
        exif.get_ifd(0x8825)[2] = (48.0, 12.0, 7.5)
        out = io.BytesIO()
        image.save(out, "JPEG", quality=90, exif=exif, comment=b"a comment")
        (FIXTURES / f"orientation-{turn}.jpg").write_bytes(out.getvalue())
        upright = ImageOps.exif_transpose(Image.open(io.BytesIO(out.getvalue())))
        w, h = upright.size
        corners = [upright.getpixel(at) for at in ((w // 4, h // 4), (3 * w // 4, h // 4), (w // 4, 3 * h // 4), (3 * w // 4, 3 * h // 4))]
        cases.append({"turn": turn, "size": [w, h], "quarters": [list(c) for c in corners]})
    return cases


def main():
    rng = np.random.default_rng(20260302)
    figures = {
        "alignments": alignments(rng),
        "segmentation": segmentation(picture(rng)),
        "colours": colours(rng),
        "orientations": orientations(),
    }
    (FIXTURES / "vision.json").write_text(json.dumps(figures, indent=1) + "\n")


if __name__ == "__main__":
    main()
