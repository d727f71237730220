"""Before promising, on the bench: a piece that is asked about, and the days it could be promised for."""

from dataclasses import replace
from datetime import date
from typing import Any, Protocol

from yarrow_lane.calendar.promising import Offer
from yarrow_lane.commission.newcomer import Newcomer, Offered
from yarrow_lane.commission.studio import Studio
from yarrow_lane.measure.days import day_text, moved_text
from yarrow_lane.measure.lengths import hours_text
from yarrow_lane.ui.bench_sheet import Amount, Fact, Length, Line, Note, Pick, Press, Section


class Hands(Protocol):
    """What the page does for a piece that is asked about."""

    def fill_newcomer(self, piece: Newcomer) -> None: ...
    def promise(self, day: date) -> None: ...


def newcomer_section(offered: Offered, studio: Studio, titles: dict[str, str], hands: Hands) -> Section:
    """What it would be, the earliest day that breaks no promise, and what slips for whom if it is taken."""
    piece = offered.piece

    def fills(**changed: Any) -> None:
        hands.fill_newcomer(replace(piece, **changed))

    lines: list[Line] = [
        Length("Width", piece.width_mm, studio.unit, lambda v: fills(width_mm=v)),
        Length("Height", piece.height_mm, studio.unit, lambda v: fills(height_mm=v)),
        Amount("Sitters", piece.sitters, 1, 8, lambda v: fills(sitters=int(v))),
        Pick("Likeness", piece.painterly, ((False, "close"), (True, "painterly")), lambda v: fills(painterly=v)),
    ]
    if offered.offers is None:
        lines.append(Note("There are no hours to plan it in."))
        return Section("Before promising", tuple(lines))
    lines.append(Fact("Work in all, by first guess", hours_text(offered.minutes)))
    early, last = offered.offers.earliest, offered.offers.last
    if early is not None:
        lines.append(Fact("Earliest that holds, 9 in 10", day_text(early.dates.safe), "good"))
        lines.append(Note(_slip_words(early, titles)))
        lines.append(Press(f"Promise {day_text(early.dates.safe)}", lambda: hands.promise(early.dates.safe)))
    else:
        lines.append(Note("Wherever it is slipped in, a promise breaks.", "wrong"))
    if early is None or early.dates.safe != last.dates.safe:
        lines.append(Fact("After all the others", day_text(last.dates.safe)))
    front = offered.offers.front
    if front.breaks:
        names = ", ".join(titles.get(i, i) for i in front.breaks[:3])
        lines.append(Note(f"Painted first it could be there on {day_text(front.dates.safe)}, but {names} would not be safe."))
    return Section("Before promising", tuple(lines))


def _slip_words(offer: Offer, titles: dict[str, str]) -> str:
    where = f"Slipped in after {titles.get(offer.after, offer.after)}" if offer.after else "Before all the others"
    if not offer.slips and not titles:
        return "Nothing else is on the shelf."
    if not offer.slips:
        return f"{where}: nobody's day moves."
    slips = ", ".join(f"{titles.get(s.commission_id, s.commission_id)} {moved_text(s.days)}" for s in offer.slips[:3])
    return f"{where}: {slips}; every promise still holds."
