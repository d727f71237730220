"""What measuring shows: overlays on the canvas, rows on the bench, words; no widget."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from yarrow_lane.check.measured import Measured
from yarrow_lane.check.mending import Mend
from yarrow_lane.check.ranking import Fault
from yarrow_lane.check.record import Check, ToMend, same_place
from yarrow_lane.check.wording import TELLS_HIDDEN, hidden_words, value_words, values_text
from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.last_list import is_mended
from yarrow_lane.measure.lengths import hours_text
from yarrow_lane.measure.plane import Point
from yarrow_lane.measure.words import begun, counted
from yarrow_lane.transfer.proof.split import whole_words
from yarrow_lane.ui.bench_sheet import Fact, Line, Meaning, Note, Row
from yarrow_lane.ui.kit.overlays import Badge, Outline, Overlay, Ring, Way

ENLARGED = 4.0  # the drawing's errors are shown so many times (told beside it): a mm is not seen otherwise
_LIT = 6  # regions whose hidden share is shown at most
_ALL = 0.995  # of the canvas: painted but for what rings leave open
_BADGE_PX = 16.0
_EDGE_MM = 4.0
_WHOLE_OFF = 2.5  # L*: half a value, from which all of it is told (our choice)


@dataclass(frozen=True)
class Told:
    """What was measured with what is made of it: faults worst first, how each is mended, and which is looked at."""

    measured: Measured
    faults: tuple[Fault, ...]
    mends: tuple[Mend, ...]
    chosen: int = 0

    @property
    def at(self) -> Fault | None:
        """The fault looked at; None without any."""
        return self.faults[self.chosen] if self.faults else None

    @property
    def counting(self) -> int:
        """Those that are not meant so."""
        return sum(f.meant is None for f in self.faults)


def overlays_of(told: Told, edges: bool = False) -> tuple[Overlay, ...]:
    """Outlines, arrows from painted to wanted, and the numbers over them, the chosen one last; beneath them with `edges` soft borders."""
    found: list[Overlay] = []
    if edges:
        found += [Ring(at, _EDGE_MM, "here", 1.6, line="dots") for at, _ in told.measured.soft_edges]
    for n in sorted(range(len(told.faults)), key=lambda n: n == told.chosen):
        fault, here = told.faults[n], n == told.chosen
        badge_at = fault.at
        if fault.colour is not None and fault.colour.outline:
            ring = fault.colour.outline
            found.append(Outline(ring, "here" if here else "light", 2.4 if here else 1.6, "dashes" if fault.meant else "solid"))
            badge_at = min(ring, key=lambda p: p[0] + p[1])
        if fault.moved is not None:
            m = fault.moved
            drawn = fault.at[0] + m.right * ENLARGED, fault.at[1] + m.down * ENLARGED
            found.append(Way(drawn, fault.at, "here" if here else "off"))
            badge_at = drawn
        found.append(Badge(badge_at, str(n + 1), here, fault.meant is not None, (-_BADGE_PX, -_BADGE_PX)))
    return tuple(found)


def _beside(fault: Fault, mend: Mend, c: Commission) -> str:
    """What became of a place, or what mends it."""
    if fault.meant is not None:
        return "meant so"
    if fault.listed is None:
        return mend.short
    return "mended" if is_mended(c, fault.listed) else "on the list"


def rows_of(told: Told, c: Commission, choose: Callable[[int], Meaning]) -> list[Line]:
    """One a fault, and those that were meant so after them."""
    rows: list[Line] = []
    for n, (fault, mend) in enumerate(zip(told.faults, told.mends, strict=True)):
        meant = fault.meant is not None
        side = _beside(fault, mend, c)
        srgb = next((s.srgb for s in mend.steps if s.srgb is not None), None) if not meant else None
        rows.append(
            Row(str(n + 1), fault.where, begun(fault.words), side, srgb, n == told.chosen, meant, lambda n=n: choose(n))  # type: ignore[misc]
        )
    return rows


def photo_facts(told: Told) -> list[Line]:
    """How sure the measuring is."""
    m = told.measured
    lines: list[Line] = []
    weak = sorted({side for one in m.weak for side in one})
    if weak:
        lines.append(Note(f"Not well seen: the {', '.join(weak)} edge. Look at the corners.", "wrong"))
    greys = max(m.greys)
    if m.all_round:
        lines.append(Fact("Greys round it", f"{greys} of 10", "good"))
    elif greys:
        lines.append(Fact("Greys round it", f"{greys} of 10, not all round", "wrong"))
    else:
        lines.append(Fact("Greys round it", "none"))
    lines.append(Fact("Light evened by", _evened_by(m)))
    lines.append(Fact("Photographs", "two of this state" if len(m.greys) > 1 else "one: shine is not told from paint"))
    if m.painted < _ALL:
        lines.append(Fact("Judged", f"{100 * m.painted:.0f}\u202f%: what is painted"))
    if m.all_round and m.areas and abs(m.areas[0].value) > _WHOLE_OFF:
        lines.append(Fact("All of it", value_words(m.areas[0].value), "wrong"))
    worst = max(m.hidden, key=lambda h: h.share, default=None)
    if worst is not None and worst.share > TELLS_HIDDEN:
        lines.append(Note(hidden_words(worst)))
    whole = whole_words(m.whole)
    if whole:
        lines.append(Fact("All of it lies", ", ".join(f"{v} {k}" for k, v in whole)))
    return lines


def _evened_by(m: Measured) -> str:
    return "a white sheet" if m.by_sheet else "greys and picture" if any(m.greys) else "the picture alone"


def rest_note(told: Told) -> str:
    """What holds, and what was left out."""
    words = f"{'Everything else' if told.faults else 'Everything'} holds within {values_text(told.measured.holds)}"
    words += f" and {max(1.0, told.measured.noise_mm * 2.5):.0f}\u202fmm."
    shone = len(told.measured.shone_at)
    if shone:
        words += f" {begun(counted(shone, 'spot'))} of shine in both photographs: left out."
    return words


def hidden_bars(measured: Measured) -> tuple[tuple[str, float], ...]:
    """Regions with the most hidden first: name and share."""
    rows = sorted(((h.name, h.share) for h in measured.hidden), key=lambda r: -r[1])
    return tuple(rows[:_LIT])


def legend_words(measured: Measured) -> str:
    """What would show more."""
    words = []
    if any(h.share > TELLS_HIDDEN for h in measured.hidden):
        words.append("Ten greys all round would show it all.")
    elif measured.all_round:
        words.append("A fault of all of it would be seen.")
    if len(measured.greys) == 1:
        words.append("Photograph it once more with the lamp moved: what shines is then told from paint.")
    return " ".join(words)


def mended_of(check: Check, faults: Sequence[Fault]) -> tuple[ToMend, ...]:
    """What was to be mended and is no longer found in photographs of a later state."""
    looked_at = {p.photo_id for p in check.together}
    return tuple(
        t for t in check.to_mend if t.found_in not in looked_at and not any(same_place(f.kinds, f.at, f.mm, t) for f in faults)
    )


def list_minutes(check: Check) -> str:
    """All of it at the easel."""
    return hours_text(sum(t.minutes for t in check.to_mend))


def near(at: Point, told: Told, reach: float) -> int | None:
    """The fault a hand points at."""
    found = [(((f.at[0] - at[0]) ** 2 + (f.at[1] - at[1]) ** 2) ** 0.5, n) for n, f in enumerate(told.faults)]
    best = min(found, default=None)
    return best[1] if best is not None and best[0] < max(reach, told.faults[best[1]].mm / 2) else None
