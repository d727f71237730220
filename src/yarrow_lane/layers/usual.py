"""Before regions are drawn: a usual head on this canvas, so that days are reckoned the same way before and after."""

import math
from dataclasses import replace

from yarrow_lane.intake.brief import Brief
from yarrow_lane.intake.photos import Eye
from yarrow_lane.layers.kinds import eye_opening
from yarrow_lane.layers.regions import Kind, Layers, School, add_region
from yarrow_lane.measure.kept import kept
from yarrow_lane.measure.plane import Point, Polygon, Rect

# Our choice, after what portraits of one head usually are: the sitter fills half of the canvas, an eye a three-hundredth.
_SITTER_SHARE, _EYE_SHARE = 0.5, 1 / 300
_CORNERS = 24


def ellipse(centre: Point, across: float, down: float) -> Polygon:
    """An outline of half axes `across` and `down`."""
    turns = (2 * math.pi * n / _CORNERS for n in range(_CORNERS))
    return tuple((centre[0] + across * math.cos(t), centre[1] + down * math.sin(t)) for t in turns)


def sitter_kind(brief: Brief) -> Kind:
    """What most of the sitter is painted as."""
    kind = brief.sitters[0].kind if brief.sitters else "other"
    return "skin" if kind == "person" else "fur"


def usual_layers(canvas: Rect, brief: Brief, school: School) -> Layers:
    """A background, one sitter over half of the canvas whatever their number, and two eyes for each."""
    count = 2 * max(1, len(brief.sitters))
    return replace(_usual(canvas.width, canvas.height, sitter_kind(brief), count), school=school)


@kept(256)
def _usual(width: float, height: float, kind: Kind, count: int) -> Layers:
    """The same regions for equal arguments: the passes that follow from them are then worked out once, not at every look at a shelf."""
    canvas = Rect(0.0, 0.0, width, height)
    layers = add_region(Layers(), "background", canvas.corners, canvas)
    half = math.sqrt(_SITTER_SHARE / math.pi)
    layers = add_region(layers, kind, ellipse(canvas.centre, half * width, half * height), canvas)
    eye = math.sqrt(_EYE_SHARE * width * height / math.pi)
    for n in range(count):
        at = width * (0.3 + 0.4 * (n + 0.5) / count), height * 0.42
        layers = add_region(layers, "eye", ellipse(at, eye, eye), canvas)
    return layers


def eye_outline(eye: Eye, kind: str) -> Polygon:
    """The opening round a marked iris, upright px: a guess by the kind of sitter, to be drawn anew where it does not fit."""
    wide, high = eye_opening(kind)
    return ellipse((eye.x, eye.y), wide * eye.across_px / 2, high * eye.across_px / 2)


def likely_next(layers: Layers, brief: Brief) -> Kind:
    """What is drawn next as a rule: the background, the sitter, then eyes, nose and mouth; after these nothing is usual."""
    people = sum(s.kind == "person" for s in brief.sitters)
    animals = len(brief.sitters) - people
    wanted: list[tuple[Kind, int]] = [("background", 1)]
    wanted += [("skin", people), ("hair", people)] if people else []
    wanted += [("fur", animals)] if animals else []
    wanted += [("eye", 2 * len(brief.sitters)), ("nose", animals), ("mouth", people)]
    for kind, count in wanted:
        if sum(r.kind == kind for r in layers.regions) < count:
            return kind
    return "other"
