"""Paint by tubes: what passes have used and will need, what is left, and what must be here before which sitting. All of it reckoned."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import date

from yarrow_lane.calendar.sittings import Plan
from yarrow_lane.commission.commission import Commission
from yarrow_lane.layers.passes import Pass
from yarrow_lane.paint.amounts import LOSS, coat_ml
from yarrow_lane.palette.amounts import added, from_tubes
from yarrow_lane.palette.paintbox import Paintbox, Tube
from yarrow_lane.palette.wells import Palette, Well

WATCH_DAYS = 60  # our choice: how far ahead it is looked for what runs out


@dataclass(frozen=True)
class PaintUse:
    """ml by tube, and ml of passes whose well has no mix yet."""

    by_tube: Mapping[int, float]
    unmixed_ml: float

    @property
    def ml(self) -> float:
        """All of it."""
        return sum(self.by_tube.values()) + self.unmixed_ml


def well_for(p: Pass, palette: Palette) -> Well | None:
    """The well nearest in lightness among those of the pass's sitter: near enough for amounts, the easel looks at colour too."""
    wells = [w for w in palette.of(p.sitter_id) if w.recipe]
    return min(wells, key=lambda w: abs(w.lab[0] - p.lightness), default=None)


def use_of(passes: Iterable[Pass], palette: Palette, box: Paintbox, medium: str, unmixed_only: bool = False) -> PaintUse:
    """What these passes take, with what stays in jar and brush. With `unmixed_only` heaps that lie on the palette are left out."""
    white = min((t.id for t in box.tubes if t.white and t.medium == _box_medium(medium)), default=None)
    takes, without = [], 0.0
    for p in passes:
        ml = coat_ml(p.area_cm2, p.film) * LOSS
        well = well_for(p, palette)
        if well is None:
            without += ml
        elif not (unmixed_only and well.mixed_on is not None):
            takes.append(from_tubes(well.recipe, ml, white))
    return PaintUse(added(takes), without)


def _box_medium(medium: str) -> str:
    return "oil" if medium.startswith("oil") else medium


@dataclass(frozen=True)
class Runs:
    """A tube that does not suffice: ml needed by all that is planned, how many to buy, and the sitting it must be here for."""

    tube: Tube
    needed_ml: float
    buy: int
    before: date | None
    title: str


@dataclass(frozen=True)
class Needs:
    """ml that all planned passes still take from each tube, heaps that lie on the palette left out; and the tubes that run out."""

    by_tube: Mapping[int, float]
    runs: tuple[Runs, ...]


def what_is_needed(
    box: Paintbox, plan: Plan, commissions: Sequence[Commission], passes: Mapping[str, Sequence[Pass]]
) -> Needs:  # fmt: skip
    """Walk the planned sittings in time and empty the tubes; `passes` are those left by commission."""
    by_id = {c.id: c for c in commissions}
    left = {t.id: t.left_ml for t in box.tubes}
    needed: dict[int, float] = {}
    first: dict[int, tuple[date | None, str]] = {}
    done: set[tuple[str, str]] = set()

    def take(c: Commission, p: Pass, day: date | None) -> None:
        use = use_of((p,), c.palette, box, c.brief.medium, unmixed_only=True)
        for tube, ml in use.by_tube.items():
            needed[tube] = needed.get(tube, 0.0) + ml
            if tube in left and needed[tube] > left[tube] and tube not in first:
                first[tube] = (day, c.brief.title)

    for sitting in sorted(plan.sittings, key=lambda s: s.start):
        c = by_id.get(sitting.commission_id)
        if c is None:
            continue
        by_pass = {p.id: p for p in passes.get(c.id, ())}
        for act in sitting.acts:
            if act.key in by_pass and (c.id, act.key) not in done:
                done.add((c.id, act.key))
                take(c, by_pass[act.key], sitting.day)
    for c in commissions:  # what the hours do not reach yet
        for p in passes.get(c.id, ()):
            if (c.id, p.id) not in done:
                take(c, p, None)
    found = []
    for tube in box.tubes:
        if tube.id in first:
            short = needed[tube.id] - tube.left_ml
            day, title = first[tube.id]
            found.append(Runs(tube, needed[tube.id], max(1, -int(-short // tube.size_ml)), day, title))
    return Needs(needed, tuple(sorted(found, key=lambda r: (r.before is None, r.before or date.max, r.tube.id))))
