"""The palette on paper and for other programs."""

from typing import TYPE_CHECKING

from yarrow_lane.measure.late import late
from yarrow_lane.paint.seen import srgb_of
from yarrow_lane.palette.export import as_csv, as_gpl
from yarrow_lane.palette.recipe import recipe_words
from yarrow_lane.ui.bench_sheet import Meaning

if TYPE_CHECKING:
    from yarrow_lane.documents import mixing_sheet
    from yarrow_lane.ui.rooms.palette.page import PalettePage
else:
    mixing_sheet = late("yarrow_lane.documents.mixing_sheet")


def save_sheet(page: "PalettePage") -> Meaning:
    """The mixing sheet at easel size."""
    c = page.commission
    names = page.box.names
    wells = [
        mixing_sheet.SheetWell(
            page.name_of(w), w.srgb, srgb_of(page.mix_colour(w.recipe) or w.lab),
            recipe_words(w.recipe, names) if w.recipe else w.mix, f"{page.ml_of(w):.0f}\u202fml",
        )
        for w in c.palette.of(page.sitter_id)
    ]  # fmt: skip
    page.save_file(
        "Save the mixing sheet", f"{c.brief.title}, palette", ".pdf", mixing_sheet.mixing_sheet(c.brief.title, wells)
    )
    return None


def save_swatch_card(page: "PalettePage") -> Meaning:
    """A card to paint swatches on."""
    page.save_file("Save the swatch card", "swatch card", ".pdf", mixing_sheet.swatch_card())
    return None


def save_gpl(page: "PalettePage") -> Meaning:
    """GPL palette text."""
    c = page.commission
    text = as_gpl(c.brief.title, c.palette, c.palette.of(page.sitter_id))
    page.save_file("Save the palette", f"{c.brief.title}, palette", ".gpl", text.encode())
    return None


def save_csv(page: "PalettePage") -> Meaning:
    """CSV."""
    c = page.commission
    wells = c.palette.of(page.sitter_id)
    text = as_csv(c.palette, wells, page.box.names, {w.id: page.ml_of(w) for w in wells})
    page.save_file("Save the palette", f"{c.brief.title}, palette", ".csv", text.encode())
    return None
