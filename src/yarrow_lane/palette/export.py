"""The palette for other programs: GPL palette text and CSV."""

import csv
import io
from collections.abc import Sequence

from yarrow_lane.measure.colour.munsell_value import value_of
from yarrow_lane.measure.words import one_line
from yarrow_lane.palette.recipe import recipe_words
from yarrow_lane.palette.wells import Palette, Well


def as_gpl(title: str, palette: Palette, wells: Sequence[Well]) -> str:
    """A palette as plain text: one colour a line, sRGB with its name."""
    lines = ["GIMP Palette", f"Name: {one_line(title)}", "Columns: 0", "#"]
    for well in wells:
        red, green, blue = well.srgb
        lines.append(f"{red:3d} {green:3d} {blue:3d}\t{one_line(palette.name_of(well))}")
    return "\n".join(lines) + "\n"


def as_csv(palette: Palette, wells: Sequence[Well], names: dict[int, str], ml: dict[int, float]) -> str:
    """One well a row: name, sRGB, Lab, value, mix, ml."""
    out = io.StringIO()
    rows = csv.writer(out, lineterminator="\n")
    rows.writerow(["well", "red", "green", "blue", "L*", "a*", "b*", "value", "mix", "ml"])
    for well in wells:
        mix = recipe_words(well.recipe, names) if well.recipe else well.mix
        lab = (f"{v:.1f}" for v in well.lab)
        value = f"{value_of(well.lab[0]):.1f}"
        rows.writerow([palette.name_of(well), *well.srgb, *lab, value, one_line(mix), f"{ml.get(well.id, 0.0):.1f}"])
    return out.getvalue()
