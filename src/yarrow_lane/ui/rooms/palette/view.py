"""What the palette room shows now, and what each line means."""

from dataclasses import dataclass, replace
from typing import Any, Protocol

from yarrow_lane.commission.commission import Commission
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.colour.munsell_value import value_text
from yarrow_lane.palette.mixes import counts_as_mix
from yarrow_lane.palette.wells import PALETTE, Palette, Well, change_well, empty_well, value_word
from yarrow_lane.palette.words import beside_words, hue_words
from yarrow_lane.ui.bench_sheet import (
    Amount,
    BenchSheet,
    ChoiceSheet,
    Fact,
    Field,
    Line,
    Meaning,
    NextAct,
    Note,
    Press,
    Section,
    Swatch,
    Switch,
)
from yarrow_lane.ui.kit.overlays import Overlay, Ring, Words


class Hands(Protocol):
    """What the page does for the bench."""

    def set_patch(self, mm: float) -> None: ...
    def show_grey(self, in_grey: bool) -> None: ...


@dataclass(frozen=True)
class PaletteView:
    """The whole room; wells with their names, from dark to light."""

    wells: tuple[tuple[Well, str], ...]
    chosen: Well | None
    overlays: tuple[Overlay, ...]
    bench: BenchSheet
    choices: ChoiceSheet


def palette_view(
    c: Commission, chosen_id: int, patch_mm: float, in_grey: bool, hands: Hands, act: NextAct
) -> PaletteView:  # fmt: skip
    """Work the room out from what is on record."""
    wells = c.palette.by_lightness
    chosen = next((w for w in wells if w.id == chosen_id), wells[0] if wells else None)
    sections = [
        Section(
            "Taking a colour",
            (
                Amount("Patch on the canvas", patch_mm, 0.5, 60, hands.set_patch, 0.5, 1, "mm"),
                Note("Click on the crop: the mean of the patch becomes a well. White fur reflects what is round it; trust the patch."),
            ),
        )
    ]  # fmt: skip
    if chosen is not None:
        sections.append(Section("This well", _well_lines(c.palette, chosen)))
    sections.append(
        Section(
            "Care",
            (
                Note("Acrylic dries darker: mix a little lighter and test on scrap."),
                Note("Cadmium, cobalt, lead and nickel colours: never sand or spray, wash hands, no food. Read each tube's safety sheet."),
            ),
        )
    )  # fmt: skip
    switch = Switch("Show", ((False, "colour"), (True, "grey")), hands.show_grey, in_grey)
    mixed = sum(counts_as_mix(w.mix) for w in wells)
    remark = f"{mixed} of {len(wells)} wells have a mix" if wells else "G shows greys"
    overlays = _overlays(c.palette, chosen)
    return PaletteView(
        tuple((w, c.palette.name_of(w)) for w in wells),
        chosen,
        overlays,
        BenchSheet(tuple(sections), act),
        ChoiceSheet((switch,), remark),
    )


def _well_lines(palette: Palette, well: Well) -> tuple[Line, ...]:
    called = palette.name_of(well)
    row = palette.by_lightness
    darker = row[row.index(well) - 1] if well != row[0] else None

    def named(text: str) -> Meaning:
        new = replace(well, name=text.strip())
        return _changed(f"Named the well {new.name}" if new.name else f"Took the name off {called}", new)

    def mixed(text: str) -> Meaning:
        return _changed(f"Wrote the mix of {called}", replace(well, mix=text.strip()))

    empty = Edit(PALETTE, f"Emptied {called}", lambda p: empty_well(p, well.id))
    lightness = well.lab[0]
    off = () if well.at_mm is not None else (Note("Its place is no longer on the canvas; colour and mix are kept."),)
    return (
        Swatch(value_word(lightness), well.srgb, value_text(lightness)),
        Field("Name", well.name, named, called, about=well.id),
        Fact("Hue, a guess", hue_words(well.lab)),
        *([Fact(f"Beside {palette.name_of(darker)}", beside_words(well.lab, darker.lab))] if darker is not None else []),
        Fact("Mean of", f"{well.patch_mm:g}\u202fmm patch"),
        *off,
        Field("Mix, in parts", well.mix, mixed, "white 6 : ochre 2 : sienna 1", True, well.id),
        *_unclear(well.mix),
        Press("Empty this well", lambda: empty),
    )


def _changed(label: str, well: Well) -> Edit[Any]:
    return Edit(PALETTE, label, lambda p: change_well(p, well))


def _unclear(mix: str) -> tuple[Line, ...]:
    if not mix.strip() or counts_as_mix(mix):
        return ()
    return (Note("Not counted as a mix yet: write each paint with its parts, as white 6 : ochre 2.", "wrong"),)


def _overlays(palette: Palette, chosen: Well | None) -> tuple[Overlay, ...]:
    found: list[Overlay] = []
    for well in palette.by_lightness:
        if well.at_mm is not None:
            here = chosen is not None and well.id == chosen.id
            found.append(
                Ring(well.at_mm, radius_px=10, ink="here" if here else "light", weight=3 if here else 2, fill=well.srgb)
            )
            if here:
                found.append(Words(well.at_mm, palette.name_of(well), shift=(11, 0)))
    return tuple(found)
