"""How a fault is mended: redrawn, painted over from a well, or glazed; in which order, and how long it takes."""

from dataclasses import dataclass

import numpy as np

from yarrow_lane.check.measured import ColourFault
from yarrow_lane.check.ranking import Fault
from yarrow_lane.measure.colour.difference import difference
from yarrow_lane.measure.words import within
from yarrow_lane.paint.drying import Climate, film_minutes
from yarrow_lane.paint.films.layers import spectrum_like
from yarrow_lane.paint.seen import Lab, srgb_of
from yarrow_lane.palette.glazing import glaze_words, planned
from yarrow_lane.palette.mixer import Mixer
from yarrow_lane.palette.paintbox import Paintbox
from yarrow_lane.palette.wells import Palette

# All our choice: what a place takes, minutes, and by its size; a line redrawn takes longer than a colour laid.
_BEGIN_MIN, _PER_10CM2_MIN, _REDRAW_MIN = 8.0, 6.0, 15.0
_BRIGHT = 75.0  # L* from which a place is a light
_REDRAWN = "An ear or a hand that will not come right: turn both upside down and look at the shapes between."
_ONE_VALUE = 5.0  # L*: above it the value is laid first, the warmth after it
_NEAR_WELL = 8.0  # dE00: a farther well is named with how far off it is
_HELPS = 0.6  # a glaze must leave less than this share of the difference
_DARKENS = 1.5  # L* a glaze may be allowed to lighten a place: it never does


@dataclass(frozen=True)
class Step:
    """One thing to do: what with, in bold, and how; the colour beside it, sRGB, if it has one."""

    words: str
    detail: str
    srgb: tuple[int, int, int] | None = None
    short: str = ""


@dataclass(frozen=True)
class Mend:
    """The steps in order, minutes at the easel in all, and what usually helps with such a fault."""

    steps: tuple[Step, ...]
    minutes: float
    advice: str = ""

    @property
    def short(self) -> str:
        """In a word or two, for a list: "well 2", "redraw"."""
        return next((s.short for s in self.steps if s.short), "")


def mend_of(
    fault: Fault, palette: Palette, mixer: Mixer | None, box: Paintbox, climate: Climate, paint: str
) -> Mend:  # fmt: skip
    """With what the palette holds; without a paintbox made ready no glaze is named. `paint` is what it is painted with."""
    if fault.moved is not None:
        way = _back_words(fault.moved.right, fault.moved.down)
        steps = (
            Step(f"redraw it {way}", "chalk over dry paint; look at it upside down, at the shapes between", short="redraw"),
            Step("then paint what lay beneath and beside it", "from the wells of its place, once the line holds"),
        )
        return Mend(steps, _REDRAW_MIN + _BEGIN_MIN, _REDRAWN)
    assert fault.colour is not None
    colour = _colour_steps(fault.colour, palette, mixer, box, climate, paint)
    return Mend(colour, _BEGIN_MIN * len(colour) + _PER_10CM2_MIN * fault.colour.mm2 / 1000, _advice(fault.colour))


def _advice(c: ColourFault) -> str:
    """What usually helps (common practice)."""
    if c.value < -_ONE_VALUE:
        return "If a glaze made it dark: a glaze always darkens. Paint beneath it lighter and harsher, then glaze again."
    if c.value > _ONE_VALUE and c.wanted[0] > _BRIGHT:
        return "White spent everywhere leaves no light: grey it, and keep the two lightest steps for glint and brow."
    if c.value > _ONE_VALUE:
        return "Squint: if it still jumps out, break it with the middle tone before anything finer."
    return "A colour that jumps out: a thin wash of its neighbour or of an earth; lift with a tissue where it took too much."


def _back_words(right: float, down: float) -> str:
    """ "4½ mm up and 2 mm to the left": against where it lies now."""
    parts = []
    for mm, one, other in ((down, "up", "down"), (right, "to the left", "to the right")):
        halves = round(abs(mm) * 2)
        if halves and abs(mm) > 0.3 * max(abs(right), abs(down)):
            whole, half = divmod(halves, 2)
            parts.append(f"{whole or ''}{'½' if half else ''}\u202fmm {one if mm > 0 else other}")
    return " and ".join(parts) or "a little"


def _colour_steps(
    c: ColourFault, palette: Palette, mixer: Mixer | None, box: Paintbox, climate: Climate, paint: str
) -> tuple[Step, ...]:  # fmt: skip
    value_off = abs(c.value) >= _ONE_VALUE
    seen, steps = c.seen, []
    if value_off:
        well = _well_step(c, palette)
        steps.append(well)
        if not c.warmth:
            return (well,)
        seen = (c.wanted[0], c.seen[1], c.seen[2])
    glaze = _glaze_step(seen, c.wanted, mixer, box, climate, paint) if c.warmth or not value_off else None
    if glaze is not None:
        return (*steps, glaze)
    return tuple(steps) or (_well_step(c, palette),)


def _well_step(c: ColourFault, palette: Palette) -> Step:
    """The nearest well to what is wanted there."""
    how = (
        "thin, over the light place"
        if c.value > 0
        else "opaque, over the dark place"
        if c.value < 0
        else "thin, over all of it"
    )
    wells = [w for w in palette.wells if w.answered] or list(palette.wells)
    if not wells:
        return Step("mix what the reference shows there", f"{how}; no well is mixed yet", _srgb(c.wanted), "mix")
    off = np.atleast_1d(difference(np.array([w.lab for w in wells]), np.repeat(np.array([c.wanted]), len(wells), 0)))
    best = int(np.argmin(off))
    well, number = wells[best], list(palette.wells).index(wells[best]) + 1
    name = within(palette.name_of(well))
    if off[best] > _NEAR_WELL:
        detail = f"{how}; no well is near: this one is {off[best]:.0f} dE off, mix it over"
    else:
        detail = f"{how}; feather its edge"
    return Step(f"well {number}, {name}", detail, well.srgb, f"well {number}")


def _glaze_step(
    seen: Lab, wanted: Lab, mixer: Mixer | None, box: Paintbox, climate: Climate, paint: str
) -> Step | None:  # fmt: skip
    """A glaze that turns what is there into what is wanted; None where none helps."""
    if mixer is None or paint == "pastel" or wanted[0] > seen[0] + _DARKENS:
        return None
    before = float(difference(np.array(seen), np.array(wanted)))
    found = mixer.glazes.towards(spectrum_like(seen), wanted, 1)
    if not found or found[0].difference > _HELPS * before:
        return None
    plan = planned(mixer, found[0].glaze)
    wait = film_minutes("normal", paint, climate)
    dry = f"once it is dry, {wait:.0f} min" if wait < 600 else "once it is dry"
    tube = mixer.tubes.get((plan.tubes[0], False)) if plan.tubes else None
    medium = round((1 - plan.share) / plan.share)
    return Step(
        glaze_words(plan, box),
        f"a glaze, {dry}; leaves {found[0].difference:.0f} of {before:.0f} dE",
        tube,
        f"glaze 1 : {medium}",
    )


def _srgb(lab: Lab) -> tuple[int, int, int]:
    red, green, blue = (int(v) for v in srgb_of(np.array(lab)))
    return red, green, blue
