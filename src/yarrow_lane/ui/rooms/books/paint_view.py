"""Paint in the books: every tube with what is left, what the planned sittings need of it, and by when a new one must be here."""

from collections.abc import Sequence
from dataclasses import dataclass

from yarrow_lane.commission.paint_use import Needs, PaintUse
from yarrow_lane.measure.days import day_text
from yarrow_lane.measure.words import counted
from yarrow_lane.palette.paintbox import Paintbox


@dataclass(frozen=True)
class TubeRow:
    """One tube: shares of its size, 0 to 1, of what is left and what is needed of it; `words` at its end, red when it runs out."""

    name: str
    medium: str
    left: float
    needed: float
    left_words: str
    words: str
    short: bool
    used_words: str


@dataclass(frozen=True)
class PaintShown:
    """All tubes, those that run out first."""

    rows: tuple[TubeRow, ...]
    head: str
    note: str
    commissions: tuple[tuple[str, str], ...] = ()


def paint_shown(
    box: Paintbox, needs: Needs, used: PaintUse, coming: PaintUse, title: str, uses: Sequence[tuple[str, float, float]]
) -> PaintShown:
    """`used` and `coming` are of the chosen commission, by its finished and its open passes; `uses` are (title, ml used, ml to come) of all."""
    runs = needs.runs
    by_id = {r.tube.id: r for r in runs}
    names = box.names
    order = {r.tube.id: n for n, r in enumerate(runs)}
    rows = []
    for tube in sorted(box.tubes, key=lambda t: (order.get(t.id, 999), t.medium, t.id)):
        r = by_id.get(tube.id)
        words = ""
        if r is not None:
            when = f"before {day_text(r.before)}, {r.title}" if r.before is not None else f"later, {r.title}"
            words = f"order {counted(r.buy, 'tube')}, here {when}"
        mine = used.by_tube.get(tube.id, 0.0)
        more = coming.by_tube.get(tube.id, 0.0)
        parts = [f"{mine:.0f}\u202fml used" if mine >= 0.5 else "", f"{more:.0f}\u202fml to come" if more >= 0.5 else ""]
        rows.append(
            TubeRow(names[tube.id], tube.medium, min(1.0, tube.left_ml / tube.size_ml), min(1.0, needs.by_tube.get(tube.id, 0.0) / tube.size_ml),
                    f"{tube.left_ml:.0f} of {tube.size_ml:.0f}\u202fml", words, r is not None, " · ".join(p for p in parts if p))
        )  # fmt: skip
    ml = f"{title}: about {used.ml:.0f}\u202fml used, {coming.ml:.0f} to come" if title else ""
    if coming.unmixed_ml + used.unmixed_ml >= 1:
        ml += f", {used.unmixed_ml + coming.unmixed_ml:.0f} of it by wells that have no mix yet"
    head = f"{counted(len(runs), 'tube')} will not suffice" if runs else "Every tube suffices for what is planned"
    told = tuple((name, f"{a:.0f}\u202fml used, {b:.0f} to come") for name, a, b in uses if a + b >= 1)
    rests = "Reckoned from the passes, their films and mixes; what the palette pressed out is off the tubes already."
    return PaintShown(tuple(rows), head, f"{ml}. {rests}" if ml else rests, told)
