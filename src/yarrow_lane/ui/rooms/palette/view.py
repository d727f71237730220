"""What the palette room shows now."""

from dataclasses import dataclass

from yarrow_lane.commission.commission import Commission
from yarrow_lane.palette.wells import Well, value_word
from yarrow_lane.ui.bench_sheet import Amount, BenchSheet, ChoiceSheet, Fact, Field, NextAct, Note, Press, Section, Switch


@dataclass(frozen=True)
class PaletteView:
    """The whole room; wells stand from dark to light."""

    wells: tuple[Well, ...]
    chosen: Well | None
    bench: BenchSheet
    choices: ChoiceSheet


def palette_view(c: Commission, chosen_id: int, patch_mm: float, grey: bool) -> PaletteView:
    """Work the room out from what is on record."""
    wells = c.palette.by_lightness
    chosen = next((w for w in wells if w.id == chosen_id), wells[0] if wells else None)
    sections = [
        Section(
            "Taking a colour",
            (
                Amount("patch", "Patch on the canvas", patch_mm, 0.5, 60, 0.5, 1, "mm"),
                Note("Click on the crop: the mean of the patch becomes a well. White fur reflects what is round it; trust the patch."),
            ),
        )
    ]  # fmt: skip
    if chosen is not None:
        lightness, a, b = chosen.lab
        sections.append(
            Section(
                "This well",
                (
                    Field("name", "Name", chosen.name),
                    Fact("Lightness", f"L* {lightness:.1f}, {value_word(lightness)}"),
                    Fact("Towards red (+) or green", _signed("a*", a)),
                    Fact("Towards yellow (+) or blue", _signed("b*", b)),
                    Fact("Mean of", f"{chosen.patch_mm:g}\u202fmm patch"),
                    Field("mix", "Mix, in parts", chosen.mix, "white 6 : ochre 2 : sienna 1", long=True),
                    Press("empty", "Empty this well"),
                ),
            )
        )
    sections.append(
        Section(
            "Care",
            (
                Note("Acrylic dries darker: mix a little lighter and test on scrap."),
                Note("Cadmium, cobalt, lead and nickel colours: never sand or spray, wash hands, no food. Read each tube's safety sheet."),
            ),
        )
    )  # fmt: skip
    switch = Switch("show", "Show", (("colour", "colour"), ("grey", "grey")), "grey" if grey else "colour")
    mixed = sum(bool(w.mix.strip()) for w in wells)
    remark = f"{mixed} of {len(wells)} wells have a mix" if wells else "G shows greys"
    return PaletteView(wells, chosen, BenchSheet(tuple(sections), _act(c, chosen, mixed)), ChoiceSheet((switch,), remark))


def _signed(letter: str, value: float) -> str:
    return f"{letter} {value:+.1f}".replace("-", "−")


def _act(c: Commission, chosen: Well | None, mixed: int) -> NextAct:
    if not c.compose.framed:
        return NextAct("Go to Compose", "colours are taken from the crop")
    if chosen is None:
        return NextAct("Click on the crop", "the middle tone first, then darks and lights", enabled=False)
    if mixed < len(c.palette.wells):
        unmixed = next(w for w in c.palette.by_lightness if not w.mix.strip())
        return NextAct(f"Write the mix of {unmixed.name}", f"{len(c.palette.wells) - mixed} wells without a mix")
    return NextAct("Go on to Layers", "every well has its mix")
