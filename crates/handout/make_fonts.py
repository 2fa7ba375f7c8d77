"""Makes the handout's fonts from the front end's package: two weights of the variable font, as TrueType.

    cd web && npm ci && cd .. && python crates/handout/make_fonts.py

Needs fonttools and brotli (reference/requirements.txt). The fonts are under the SIL Open Font License (fonts/LICENSE).
"""

from pathlib import Path

from fontTools.merge import Merger
from fontTools.ttLib import TTFont
from fontTools.varLib.instancer import instantiateVariableFont

HERE = Path(__file__).parent
FILES = HERE.parent.parent / "web/node_modules/@fontsource-variable/atkinson-hyperlegible-next/files"
WEIGHTS = {"regular": 400, "bold": 700}


def main():
    for name, weight in WEIGHTS.items():
        parts = []
        for subset in ("latin", "latin-ext"):
            font = TTFont(FILES / f"atkinson-hyperlegible-next-{subset}-wght-normal.woff2")
            instantiateVariableFont(font, {"wght": weight}, inplace=True)
            font.flavor = None
            part = HERE / f"fonts/{subset}.ttf"
            font.save(part)
            parts.append(part)
        merged = Merger().merge([str(part) for part in parts])
        merged.save(HERE / f"fonts/{name}.ttf")
        for part in parts:
            part.unlink()


if __name__ == "__main__":
    main()
