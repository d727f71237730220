"""What is on record of Transfer: squares and what is drawn of them, lines chosen, photographs of the drawing."""

import statistics
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from datetime import datetime

from yarrow_lane.canvas_photo.taken import Taken
from yarrow_lane.compose.composition import Compose
from yarrow_lane.intake.sides import sitters_own
from yarrow_lane.lane.part import Part, Plain, as_it_was
from yarrow_lane.transfer.equipment import Equipment
from yarrow_lane.transfer.film import Film
from yarrow_lane.transfer.lines.choice import Choice
from yarrow_lane.transfer.paper import Paper
from yarrow_lane.transfer.proof.photo import Photos
from yarrow_lane.transfer.squares import FEWEST, MOST, Square, Squares, SquaresTrouble
from yarrow_lane.transfer.ways import WHAT, Carried, Way, Ways, What

MINUTES_EACH = 1.5  # our choice, first guess of the pace
MINUTES_RULING = 15.0  # our choice
# Our choice: shorter is a slip of the key, longer a pause; a pace is told from three squares on.
_SHORTEST, _LONGEST, _ENOUGH, _MOST_LOGGED = 0.1, 15.0, 3, 200


@dataclass(frozen=True)
class Transfer:
    """Squares across the short side, those drawn as (column, row) from 0, and the print's paper.

    `made_from` is the reference the drawing was begun from, `quartered` the squares ruled finer (None: as proposed), `lines` what was
    chosen of the lines to draw, `minutes` how long squares took one after the other, `marked` when the last was marked, `photos`
    those of the drawing. `equipment` is what version 2 kept here; the studio's counts once it has its own. `ways` are those chosen,
    `carried` the parts that are on the canvas by another way than squares, `marked_surface` photographs of scribble marks (the first is
    what later ones are laid on), `film` what a mask covers, `sketch` one on paper that is used instead of the photograph's lines.
    """

    count: int = 0
    drawn: tuple[Square, ...] = ()
    paper: Paper = "A4"
    made_from: str = ""
    quartered: tuple[Square, ...] | None = None
    lines: Choice = Choice()
    minutes: tuple[float, ...] = ()
    marked: datetime | None = None
    equipment: Equipment | None = None
    photos: Photos = ()
    ways: Ways = Ways()
    carried: tuple[Carried, ...] = ()
    marked_surface: tuple[Taken, ...] = ()
    film: Film = Film()
    sketch: Taken | None = None


def _equipment(plain: Plain, _: Mapping[str, Plain]) -> Plain:
    """Version 3 has the equipment in one; it is the studio's as soon as something of it is changed."""
    own = ("projector", "room_lux", "printer")
    kept = {name: plain[name] for name in own if name in plain}
    rest = {name: value for name, value in plain.items() if name not in own}
    return {**rest, "equipment": kept} if kept else rest


def _own_sides(plain: Plain, _: Mapping[str, Plain]) -> Plain:
    """Until version 6 places on photographs of the drawing had the side that the viewer sees in their names."""
    photos = []
    for photo in plain.get("photos", ()):
        named = {k: [[sitters_own(name), value] for name, value in photo.get(k, ())] for k in ("set_by_hand", "off")}
        photos.append({**photo, **named})
    return {**plain, "photos": photos} if photos else plain


# Version 1 added `made_from`, version 2 the lines, quartered squares, the equipment and photographs of the drawing, version 4 the ways,
# scribble marks, film and sketch, version 5 borders of values; version 6 names places by the sitter's own left and right.
TRANSFER = Part("transfer", Transfer, "Transfer", (as_it_was, as_it_was, _equipment, as_it_was, as_it_was, _own_sides))


def squares_of(compose: Compose, transfer: Transfer) -> Squares | None:
    """The lattice on the canvas, once there is a size and a count."""
    if not compose.sized or transfer.count == 0:
        return None
    return Squares(compose.width_mm, compose.height_mm, transfer.count)


def ways_of(transfer: Transfer) -> Ways:
    """Those chosen; who chose squares before there was a choice chose them for all."""
    if transfer.ways.chosen or not transfer.count:
        return transfer.ways
    return Ways("squares", "squares")


def set_ways(transfer: Transfer, ways: Ways) -> Transfer:
    """Other ways; what is on the canvas stays there."""
    return replace(transfer, ways=ways)


def parts_left(transfer: Transfer) -> tuple[What, ...]:
    """What is not on the canvas yet, squares left out of account where they carry all of it."""
    done = {c.what for c in transfer.carried}
    return tuple(what for what in WHAT if what not in done)


def mark_carried(transfer: Transfer, whats: Iterable[What], way: Way, minutes: float = 0.0) -> Transfer:
    """Parts are on the canvas; the minutes are for all of them together."""
    wanted = tuple(whats)
    kept = tuple(c for c in transfer.carried if c.what not in wanted)
    each = round(minutes / max(1, len(wanted)), 1)
    return replace(transfer, carried=(*kept, *(Carried(what, way, each) for what in wanted)))


def not_carried(transfer: Transfer, whats: Iterable[What]) -> Transfer:
    """Parts are not on the canvas after all."""
    wanted = set(whats)
    return replace(transfer, carried=tuple(c for c in transfer.carried if c.what not in wanted))


def set_count(transfer: Transfer, count: int) -> Transfer:
    """Choose the squares across the short side; another lattice starts with none drawn.

    Raises `SquaresTrouble` outside 2 to 40.
    """
    if not FEWEST <= count <= MOST:
        raise SquaresTrouble("The squares were not changed", f"{count} across is outside {FEWEST} to {MOST}")
    if count == transfer.count:
        return transfer
    return replace(transfer, count=count, drawn=(), made_from="", quartered=None)


def set_quartered(transfer: Transfer, squares: Iterable[Square]) -> Transfer:
    """These squares are ruled finer, no others."""
    return replace(transfer, quartered=tuple(sorted(set(squares))))


def set_lines(transfer: Transfer, choice: Choice, made_from: str) -> Transfer:
    """Another choice of the lines to draw; `made_from` is the reference they belong to."""
    return replace(transfer, lines=replace(choice, made_from=made_from))


def set_paper(transfer: Transfer, paper: Paper) -> Transfer:
    """The paper in the painter's printer."""
    return replace(transfer, paper=paper)


def mark_drawn(transfer: Transfer, column: int, row: int, drawn: bool, now: datetime | None = None) -> Transfer:
    """Mark one square as drawn on the canvas, or take the mark off. With `now` the time since the mark before is logged."""
    others = tuple(s for s in transfer.drawn if s != (column, row))
    if not drawn:
        return replace(transfer, drawn=others)
    after = replace(transfer, drawn=tuple(sorted((*others, (column, row)))))
    if now is None or (column, row) in transfer.drawn:
        return after
    minutes = (now - transfer.marked).total_seconds() / 60 if transfer.marked is not None else 0.0
    logged = (*transfer.minutes, round(minutes, 2))[-_MOST_LOGGED:] if _SHORTEST < minutes < _LONGEST else transfer.minutes
    return replace(after, minutes=logged, marked=now)


def mark_several(transfer: Transfer, squares: Iterable[Square]) -> Transfer:
    """Mark a row, or all up to here; nothing is logged of the time."""
    return replace(transfer, drawn=tuple(sorted({*transfer.drawn, *squares})))


def minutes_each(transfer: Transfer) -> float:
    """What a square takes: the middle of those logged, from three on; else a first guess."""
    return statistics.median(transfer.minutes) if len(transfer.minutes) >= _ENOUGH else MINUTES_EACH


def minutes_left(squares: Squares, transfer: Transfer) -> float:
    """The time still needed, ruling included until the first square is drawn."""
    drawn = len(transfer.drawn)
    return (squares.columns * squares.rows - drawn) * minutes_each(transfer) + (MINUTES_RULING if drawn == 0 else 0.0)
