"""Quotes at the painter's own pace, for a piece asked about and for a commission on the shelf."""

from collections.abc import Mapping
from dataclasses import replace
from datetime import datetime

from yarrow_lane.books.quote import AS_RECKONED, HOURS, PartName, Pulled, Quote, part_of_family, quote
from yarrow_lane.calendar.jobs import Work
from yarrow_lane.calendar.pace import Pace
from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.newcomer import Newcomer, newcomer_work
from yarrow_lane.commission.studio import Studio
from yarrow_lane.lane.money import Scope


def hours_by_part(work: Work, pace: Pace) -> dict[PartName, float]:
    """Minutes of all that is to do, at the painter's own pace, by part of the price."""
    found: dict[PartName, float] = dict.fromkeys(HOURS, 0.0)
    for room in work.at_pace(pace).rooms:
        for task in room:
            found[part_of_family(task.family)] += task.minutes
    return found


def piece_of(c: Commission) -> Newcomer:
    """What is to be painted, as one asks about it: the size (a usual one before Compose), sitters, medium, finish."""
    sitter = c.brief.sitters[0].kind if c.brief.sitters else "other"
    width, height = (c.compose.width_mm, c.compose.height_mm) if c.compose.sized else (300.0, 400.0)
    painterly = c.layers.school.finish == "painterly"
    return Newcomer(width, height, max(1, len(c.brief.sitters)), sitter, c.brief.medium, painterly)


def scope_of(piece: Newcomer, framed: bool) -> Scope:
    """What a price is agreed for."""
    return Scope(piece.width_mm, piece.height_mm, piece.sitters, piece.kind, piece.medium, piece.painterly, framed)


def piece_in(scope: Scope) -> Newcomer:
    """The piece that was agreed on."""
    return Newcomer(scope.width_mm, scope.height_mm, scope.sitters, scope.sitter, scope.medium, scope.painterly)  # type: ignore[arg-type]


def quote_for(
    piece: Newcomer, framed: bool, studio: Studio, pace: Pace, now: datetime, pulled: Pulled = AS_RECKONED
) -> Quote:  # fmt: skip
    """The quote of a piece; raises `ComposeTrouble` for no size, `MoneyTrouble` for what cannot be."""
    hours = hours_by_part(newcomer_work(piece, studio, now), pace)
    return quote(scope_of(piece, framed), hours, studio.terms, pulled)


def prices_by_size(
    piece: Newcomer, framed: bool, sizes_mm: tuple[tuple[float, float], ...], studio: Studio, pace: Pace, now: datetime
) -> Mapping[tuple[float, float], Quote]:  # fmt: skip
    """The same piece at other sizes: how the price moves."""
    return {
        size: quote_for(replace(piece, width_mm=size[0], height_mm=size[1]), framed, studio, pace, now) for size in sizes_mm
    }
