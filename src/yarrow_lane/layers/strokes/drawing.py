"""Doing what a stroke means, on the partition."""

import math
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.layers import coverage
from yarrow_lane.layers.kinds import MOUTH_MM, Kind
from yarrow_lane.layers.raster import Labels, ground_of_mask, labels_of
from yarrow_lane.layers.regions import (
    LEAST_MM2,
    Layers,
    LayersTrouble,
    Region,
    add_ground,
    free_name,
    give,
    usual_name,
    wipe_region,
)
from yarrow_lane.layers.strokes.pieces import Pieces
from yarrow_lane.layers.strokes.spread import spread
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Polygon, Rect

if TYPE_CHECKING:
    import cv2
    import shapely
else:
    cv2 = late("cv2")
    shapely = late("shapely")

_LONGER = 4000.0  # mm by which a cutting line is lengthened until it leaves its region
_TAKEN_SMOOTH_MM = 1.6  # what a stroke takes has a border as a brush leaves it (our choice)


def smoothed_line(points: Polygon, tolerance_mm: float = 0.1) -> Polygon:
    """A hand's line without its tremor: a running mean over three points, thinned."""
    p = np.asarray(points, np.float64)
    if len(p) > 4:
        p = np.vstack([p[:1], (p[:-2] + 2 * p[1:-1] + p[2:]) / 4, p[-1:]])
    thin = shapely.get_coordinates(shapely.LineString(p).simplify(tolerance_mm))
    return tuple((float(x), float(y)) for x, y in thin)


def draw_part(layers: Layers, points: Polygon, kind: Kind, canvas: Rect, sitter_id: int = 0, name: str = "") -> Layers:
    """A region inside a closed line; raises `LayersTrouble` when it encloses nothing."""
    ground = shapely.make_valid(shapely.Polygon(smoothed_line(points)), method="linework")
    return add_ground(layers, kind, ground, canvas, name, sitter_id)


def draw_mouth(layers: Layers, points: Polygon, canvas: Rect, sitter_id: int = 0) -> Layers:
    """A mouth is a line with a width; the sitter's earlier one is gone. Raises `LayersTrouble` for a line off the canvas."""
    old = next((r for r in layers.regions if r.kind == "mouth" and r.sitter_id == sitter_id and r.rings), None)
    bare = wipe_region(layers, old.id, canvas) if old is not None else layers
    ground = shapely.LineString(smoothed_line(points)).buffer(MOUTH_MM / 2, quad_segs=4)
    return add_ground(bare, "mouth", ground, canvas, free_name(bare, "mouth"), sitter_id, "mouth")


def draw_anew(layers: Layers, region_id: int, points: Polygon, canvas: Rect) -> Layers:
    """A region has the form of a closed line now; what it gives up goes to the neighbour with the longest border.

    Raises `LayersTrouble` when the line encloses nothing on the canvas.
    """
    region = layers.region(region_id)
    wanted = _enclosed(points, canvas)
    given_up = coverage.ground_of(region.rings).difference(wanted)
    changed = give(layers, region_id, wanted, canvas)
    for piece in (p for p in shapely.get_parts(given_up).tolist() if p.area > 0.05):
        heir = _longest_neighbour(layers, region, piece)
        if heir:
            changed = give(changed, heir, piece, canvas)
    return changed


def give_enclosed(layers: Layers, region_id: int, points: Polygon, canvas: Rect) -> Layers:
    """What a closed line encloses goes to that region; raises `LayersTrouble` when it encloses nothing on the canvas."""
    return give(layers, region_id, _enclosed(points, canvas), canvas)


def _enclosed(points: Polygon, canvas: Rect) -> "shapely.Geometry":
    ground = shapely.make_valid(shapely.Polygon(smoothed_line(points)), method="linework")
    inside = ground.intersection(shapely.box(canvas.x, canvas.y, canvas.right, canvas.bottom))
    if inside.area < LEAST_MM2:
        raise LayersTrouble("The line was not taken", "it encloses no ground on the canvas", "draw once round what is meant")
    return inside


def cut(layers: Layers, region_id: int, points: Polygon, canvas: Rect) -> Layers:
    """Cut a region along a line, which is lengthened at both ends until it leaves it; the smaller piece becomes a new region.

    Raises `LayersTrouble` when the line does not divide it.
    """
    region = layers.region(region_id)
    shape = coverage.ground_of(region.rings)
    line = _lengthened(smoothed_line(points))
    faces = shapely.polygonize([shapely.unary_union([shape.boundary, shapely.LineString(line)])]).geoms
    inside = sorted((f for f in faces if shape.contains(f.representative_point())), key=lambda f: -f.area)
    # What a lengthened line cuts off far from the stroke was not meant.
    stroke = shapely.LineString(points).buffer(1.0)
    beside = [f for f in inside if f.intersects(stroke) and f.boundary.intersection(stroke).length > 0]
    if len(beside) < 2:
        raise LayersTrouble(f"{region.name} was not cut", "the line does not go through it from border to border")
    part = shapely.unary_union(beside[1:])
    return add_ground(layers, region.kind, part, canvas, usual_name(layers, region.kind), region.sitter_id)


def _lengthened(line: Polygon) -> Polygon:
    def beyond(end: tuple[float, float], inner: tuple[float, float]) -> tuple[float, float]:
        dx, dy = end[0] - inner[0], end[1] - inner[1]
        length = math.hypot(dx, dy) or 1.0
        return end[0] + dx / length * _LONGER, end[1] + dy / length * _LONGER

    back = min(3, len(line) - 1)
    return (beyond(line[0], line[back]), *line, beyond(line[-1], line[-1 - back]))


def redraw_border(layers: Layers, region_id: int, other_id: int, points: Polygon, canvas: Rect) -> Layers:
    """The border between two regions along a new line: what lies between the old and the new one changes hands.

    Raises `LayersTrouble` when the line encloses nothing with the border.
    """
    one, other = layers.region(region_id), layers.region(other_id)
    shapes = {i: coverage.ground_of(layers.region(i).rings) for i in (one.id, other.id)}
    shared = shapes[one.id].boundary.intersection(shapes[other.id].boundary)
    line = _joined_to(smoothed_line(points), shared)
    noded = shapely.unary_union([shared, shapely.LineString(line)], grid_size=coverage.GRID_MM)
    faces = shapely.get_parts(shapely.polygonize(shapely.get_parts(noded).tolist()))
    changed = layers
    moved = 0.0
    for face in faces:
        middle = face.representative_point()
        giver, taker = (one.id, other.id) if shapes[one.id].contains(middle) else (other.id, one.id)
        if shapes[giver].contains(middle) and face.area >= LEAST_MM2:
            changed = give(changed, taker, face.intersection(shapes[giver]), canvas)
            moved += face.area
    if not moved:
        raise LayersTrouble("The border was not drawn anew", "the line lies where the border lies already")
    return changed


def _joined_to(line: Polygon, shared: "shapely.Geometry") -> Polygon:
    """The line with its ends led to the nearest place of the border."""
    begin, end = (shapely.shortest_line(shared, shapely.Point(p)).coords[0] for p in (line[0], line[-1]))
    return ((begin[0], begin[1]), *line, (end[0], end[1]))


def labels_for(layers: Layers, canvas: Rect, pieces: Pieces) -> Labels:
    """The regions on the raster of the pieces."""
    height, width = pieces.of.shape
    return labels_of({r.id: r.rings for r in layers.regions if r.rings}, (width, height), pieces.px_per_mm)


def name_piece(layers: Layers, pieces: Pieces, points: Polygon, region_id: int, canvas: Rect) -> Layers:
    """What lies under the stroke, as far as its colour reaches, goes to that region; raises `LayersTrouble` when nothing changes."""
    labels = labels_for(layers, canvas, pieces)
    taken = (spread(pieces, labels, points, region_id) == region_id) & (labels != region_id)
    if not taken.any():
        raise LayersTrouble("Nothing was taken", f"all of it is {layers.region(region_id).name} already")
    rings = ground_of_mask(_opened(taken), pieces.px_per_mm, _TAKEN_SMOOTH_MM)
    if not rings:
        raise LayersTrouble("Nothing was taken", "the stroke lies off the canvas")
    return give(layers, region_id, coverage.ground_of(rings), canvas)


def _opened(mask: NDArray[np.bool_]) -> NDArray[np.bool_]:
    """Without threads a px wide along old borders, unless nothing else is there."""
    opened = cv2.morphologyEx(mask.astype(np.uint8), cv2.MORPH_OPEN, np.ones((2, 2), np.uint8)) > 0
    return np.asarray(opened if opened.any() else mask)


def smooth_region(layers: Layers, region_id: int, canvas: Rect, brush_mm: float = 3.0) -> Layers:
    """A region's borders as a brush of that width would leave them: smaller bays and points go to the neighbours.

    Raises `LayersTrouble` for one too small to be smoothed.
    """
    region = layers.region(region_id)
    shape = coverage.ground_of(region.rings)
    r = brush_mm / 2
    round_ = shape.buffer(r, quad_segs=4).buffer(-2 * r, quad_segs=4).buffer(r, quad_segs=4)
    if round_.area < LEAST_MM2:
        raise LayersTrouble(f"{region.name} was not smoothed", f"nothing of it is as wide as a brush of {brush_mm:g} mm")
    changed = layers
    lost = shape.difference(round_)
    for piece in (p for p in shapely.get_parts(lost).tolist() if p.area > 0.05):
        heir = _longest_neighbour(layers, region, piece)
        if heir:
            changed = give(changed, heir, piece, canvas)
    won = round_.difference(shape)
    return give(changed, region_id, won, canvas) if won.area > 0.05 else changed


def _longest_neighbour(layers: Layers, region: Region, piece: "shapely.Geometry") -> int:
    """Whose border with the piece is longest; 0 where only the region itself borders it."""
    found = {
        r.id: piece.boundary.intersection(coverage.ground_of(r.rings).boundary).length
        for r in layers.regions
        if r.rings and r is not region
    }
    best = max(found, key=lambda i: found[i], default=0)
    return best if best and found[best] > 0 else 0
