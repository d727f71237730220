"""Make the shipped fonts from Alegreya Sans and Alegreya (SIL Open Font License 1.1): figures that stand in columns.

    python scripts/make_fonts.py FOLDER_WITH_THE_ORIGINAL_TTF src/yarrow_lane/fonts

The originals' default figures are old-style and of unequal width. Here the digits point to the fonts' own lining
tabular glyphs, the thin space is a seventh of an em, and the families are renamed, as a changed font should be.
Needs fonttools (not a dependency of the application).
"""

import sys
from pathlib import Path

from fontTools.ttLib import TTFont

RENAMED = {"Alegreya Sans": "Yarrow Sans", "Alegreya": "Yarrow Serif"}


def change(source: Path, target: Path) -> None:
    font = TTFont(source)
    best = dict(font.getBestCmap())  # a copy: the tables below are changed
    for table in font["cmap"].tables:
        for digit in "0123456789":
            if ord(digit) in table.cmap:
                table.cmap[ord(digit)] = best[ord(digit)] + ".tf"
        if 0x2009 in table.cmap:
            table.cmap[0x202F] = best[0x2009]  # the narrow space that does not break
    thin = best[0x2009]
    font["hmtx"][thin] = (font["head"].unitsPerEm // 7, 0)
    for record in font["name"].names:
        words = record.toUnicode()
        if record.nameID in (1, 3, 4, 6, 16):
            for old, new in RENAMED.items():
                words = words.replace(old, new).replace(old.replace(" ", ""), new.replace(" ", ""))
            record.string = words
    family = next(new for new in RENAMED.values() if str(font["name"].getDebugName(1)).startswith(new))
    style = source.stem.split("_")[1][3:]
    font.save(target / f"{family.replace(' ', '')}-{style}.ttf")


if __name__ == "__main__":
    for path in sorted(Path(sys.argv[1]).glob("*.ttf")):
        change(path, Path(sys.argv[2]))
