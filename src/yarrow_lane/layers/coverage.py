"""One partition of the canvas: shared borders with shared corners, every mm² once; shapely does the geometry.

A region's rings follow one another outer ring first, outer ones anticlockwise in the mathematical sense, holes the other way, so that
its area is the plain sum of signed areas. Corners lie on a lattice of 0.01 mm, so that what two regions share is equal, not near.
"""

from collections.abc import Mapping, Sequence
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Point, Polygon

if TYPE_CHECKING:
    import shapely
    from shapely.geometry.base import BaseGeometry
else:
    shapely = late("shapely")

Rings = tuple[Polygon, ...]
GRID_MM = 0.01  # our choice: a fiftieth of the finest stroke
_LEAST_MM2 = 0.5  # our choice: a face smaller than a fine stroke's width squared goes to its neighbour


def ground_of(rings: Rings) -> "BaseGeometry":
    """What rings enclose by the even-odd rule; empty for none."""
    lines = [shapely.LineString([*ring, ring[0]]) for ring in rings if len(ring) >= 3]
    if not lines:
        return shapely.Polygon()
    if len(lines) == 1:
        alone = shapely.Polygon(rings[0])
        return alone if alone.is_valid else shapely.make_valid(alone, method="linework")
    return shapely.build_area(shapely.GeometryCollection(lines))


def rings_of_ground(ground: "BaseGeometry") -> Rings:
    """The rings of an area, its largest piece first."""
    found: list[Polygon] = []
    pieces = [p for p in shapely.get_parts(ground).tolist() if p.geom_type == "Polygon" and p.area > 0]
    for piece in sorted(pieces, key=lambda p: (-p.area, p.bounds)):
        turned = shapely.orient_polygons(piece)
        for ring in (turned.exterior, *turned.interiors):
            found.append(tuple((round(x, 2), round(y, 2)) for x, y in ring.coords[:-1]))
    return tuple(found)


def ring_signed_mm2(ring: Sequence[Point]) -> float:
    """Shoelace; positive for an outer ring."""
    p = np.asarray(ring, np.float64)
    x, y = p[:, 0], p[:, 1]
    return float(0.5 * (x @ np.roll(y, -1) - y @ np.roll(x, -1)))


def rings_mm2(rings: Rings) -> float:
    """Area of what the rings enclose, mm²."""
    return sum(ring_signed_mm2(r) for r in rings)


def holds(rings: Rings, point: Point) -> bool:
    """Whether the point lies inside, by the even-odd rule; a point on a border may belong to either side."""
    x, y = point
    inside = False
    for ring in rings:
        p = np.asarray(ring, np.float64)
        q = np.roll(p, -1, axis=0)
        spans = (p[:, 1] > y) != (q[:, 1] > y)
        if spans.any():
            a, b = p[spans], q[spans]
            at = a[:, 0] + (y - a[:, 1]) * (b[:, 0] - a[:, 0]) / (b[:, 1] - a[:, 1])
            inside ^= bool((at > x).sum() % 2)
    return inside


def given(parts: Mapping[int, Rings], taker: int, ground: "BaseGeometry", canvas: "BaseGeometry") -> dict[int, Rings]:
    """The partition after `ground` went to `taker` (a new id or one of the parts); parts that lost all are left out.

    Only parts that meet the ground are cut anew; all others keep their very rings. Faces under half a mm² go to the neighbour with which
    they share the longest border, so that no splinters stay.
    """
    wanted = shapely.intersection(shapely.set_precision(ground, GRID_MM), canvas)
    if wanted.is_empty or wanted.area <= 0:
        return dict(parts)
    near = wanted.buffer(5 * GRID_MM)
    shapes = {i: ground_of(rings) for i, rings in parts.items()}
    touched = [i for i, shape in shapes.items() if shape.intersects(near)]
    if taker in parts and taker not in touched:
        touched.append(taker)
    lines = [shapes[i].boundary for i in touched]
    noded = shapely.unary_union([*lines, wanted.boundary], grid_size=GRID_MM)
    faces = shapely.get_parts(shapely.polygonize(shapely.get_parts(noded).tolist()))
    middles = shapely.point_on_surface(faces)
    takes = shapely.intersects(wanted, middles)
    owners = np.zeros(len(faces), np.int64)
    for i in touched:
        owners[shapely.intersects(shapes[i], middles)] = i
    owned = owners.copy()
    owned[takes] = taker
    # A face between the touched parts and their neighbours that belongs to neither is not ours to give.
    real = (owners > 0) | takes
    faces, owned = faces[real], owned[real]
    owned = _without_splinters(faces, owned)
    result = {i: rings for i, rings in parts.items() if i not in touched}
    for i in sorted({*touched, taker}):
        own = faces[owned == i]
        if len(own):
            result[i] = rings_of_ground(shapely.coverage_union_all(own))
    return {i: result[i] for i in [*parts, taker] if i in result}


def _without_splinters(faces: NDArray[np.object_], owned: NDArray[np.int64]) -> NDArray[np.int64]:
    owned = owned.copy()
    small = np.nonzero(shapely.area(faces) < _LEAST_MM2)[0]
    for n in small.tolist():
        shared = shapely.length(shapely.intersection(faces[n].boundary, shapely.boundary(faces)))
        shared[n] = 0.0
        if shared.max() > 0:
            owned[n] = owned[int(shared.argmax())]
    return owned


def laid(stack: Sequence[tuple[int, "BaseGeometry"]], canvas: "BaseGeometry") -> dict[int, Rings]:
    """A partition out of areas that lie over one another, the later ones uppermost; what nobody covers is left out.

    The order of the result is that of the stack.
    """
    shapes = [shapely.intersection(shapely.set_precision(shape, GRID_MM), canvas) for _, shape in stack]
    lines = [s.boundary for s in shapes if not s.is_empty]
    if not lines:
        return {}
    noded = shapely.unary_union(lines, grid_size=GRID_MM)
    faces = shapely.get_parts(shapely.polygonize(shapely.get_parts(noded).tolist()))
    middles = shapely.point_on_surface(faces)
    owned = np.full(len(faces), -1, np.int64)
    for n, shape in enumerate(shapes):
        owned[shapely.intersects(shape, middles)] = n
    faces, owned = faces[owned >= 0], owned[owned >= 0]
    owned = _without_splinters(faces, owned)
    found = {}
    for n, (i, _) in enumerate(stack):
        if (owned == n).any():
            found[i] = rings_of_ground(shapely.coverage_union_all(faces[owned == n]))
    return found


def bare(parts: Mapping[int, Rings], canvas: "BaseGeometry") -> "BaseGeometry":
    """The ground of the canvas that no part covers."""
    if not parts:
        return canvas
    return shapely.difference(canvas, shapely.unary_union([ground_of(r) for r in parts.values()]), grid_size=GRID_MM)


def meets(parts: Mapping[int, Rings]) -> dict[int, frozenset[int]]:
    """For each part those with which it shares a stretch of border; a common corner alone is no border."""
    sides, ids = _sides(parts)
    found: dict[int, set[int]] = {i: set() for i in parts}
    _, place, count = np.unique(sides, axis=0, return_inverse=True, return_counts=True)
    order = np.argsort(place, kind="stable")
    begin = np.cumsum(count) - count
    for at in begin[count == 2].tolist():
        a, b = ids[order[at]], ids[order[at + 1]]
        if a != b:
            found[a].add(b)
            found[b].add(a)
    return {i: frozenset(f) for i, f in found.items()}


def _sides(parts: Mapping[int, Rings]) -> tuple[NDArray[np.int64], list[int]]:
    """Every straight side as four lattice numbers, the same whichever way it is walked, and whose it is."""
    rows: list[NDArray[np.int64]] = []
    ids: list[int] = []
    for i, rings in parts.items():
        for ring in rings:
            p = np.rint(np.asarray(ring) / GRID_MM).astype(np.int64)
            q = np.roll(p, -1, axis=0)
            swap = (p[:, 0] > q[:, 0]) | ((p[:, 0] == q[:, 0]) & (p[:, 1] > q[:, 1]))
            rows.append(np.where(swap[:, None], np.hstack([q, p]), np.hstack([p, q])))
            ids += [i] * len(p)
    return (np.concatenate(rows) if rows else np.zeros((0, 4), np.int64)), ids


def with_corner_moved(parts: Mapping[int, Rings], old: Point, new: Point) -> dict[int, Rings]:
    """The partition with one corner elsewhere, in every ring that has it."""
    return {
        i: tuple(tuple(new if p == old else p for p in ring) for ring in rings) if any(old in ring for ring in rings) else rings
        for i, rings in parts.items()
    }


def crosses_at(parts: Mapping[int, Rings], corner: Point) -> bool:
    """Whether a side that ends at that corner crosses or touches any other side elsewhere."""
    sides, _ = _sides(parts)
    sides = np.unique(sides, axis=0)
    at = np.rint(np.asarray(corner) / GRID_MM).astype(np.int64)
    own = (sides[:, :2] == at).all(1) | (sides[:, 2:] == at).all(1)
    lines = shapely.linestrings(sides.reshape(-1, 2, 2).astype(np.float64))
    tree = shapely.STRtree(lines)
    for n in np.nonzero(own)[0].tolist():
        for m in tree.query(lines[n], "intersects").tolist():
            shared = {tuple(p) for p in sides[n].reshape(2, 2).tolist()} & {tuple(p) for p in sides[m].reshape(2, 2).tolist()}
            if m != n and (not shared or shapely.length(shapely.intersection(lines[n], lines[m])) > 1):
                return True
    return False
