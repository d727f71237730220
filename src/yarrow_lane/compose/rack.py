"""What stands in the painter's own rack, and the sizes painted most."""

from dataclasses import dataclass, replace

from yarrow_lane.compose.composition import Compose, ComposeTrouble
from yarrow_lane.compose.formats import Format, stock_formats
from yarrow_lane.measure.lengths import Unit, size_text
from yarrow_lane.measure.words import one_line

MOST_LEFT = 99
_SAME_MM = 0.5


@dataclass(frozen=True)
class Stretched:
    """Canvases or panels of one kind: sides in mm, what they are made of, how deep, how many are left."""

    short_mm: float
    long_mm: float
    support: str
    depth_mm: float
    left: int = 1

    def is_kind(self, other: "Stretched") -> bool:
        """The same but for how many are left."""
        return replace(self, left=0) == replace(other, left=0)


@dataclass(frozen=True)
class Rack:
    """`favourites` are stock sizes by series and name, as a composition names its own."""

    stretched: tuple[Stretched, ...] = ()
    favourites: tuple[str, ...] = ()


def of_composition(compose: Compose, support: str) -> Stretched:
    """One such as this composition is painted on. Raises `ComposeTrouble` without a size."""
    if not compose.sized:
        raise ComposeTrouble("Nothing was put on the rack", "the canvas has no size yet", "choose a size first")
    sides = sorted((compose.width_mm, compose.height_mm))
    return Stretched(sides[0], sides[1], one_line(support) or "canvas", compose.sides.depth_mm)


def put(rack: Rack, one: Stretched) -> Rack:
    """One more of that kind."""
    there = next((s for s in rack.stretched if s.is_kind(one)), None)
    if there is None:
        kept = (*rack.stretched, one)
        return replace(rack, stretched=tuple(sorted(kept, key=lambda s: (s.short_mm * s.long_mm, s.support, s.depth_mm))))
    return count(rack, there, there.left + 1)


def count(rack: Rack, kind: Stretched, left: int) -> Rack:
    """So many of that kind are left; none takes it off the rack. Raises `ComposeTrouble` for more than a rack holds."""
    if not 0 <= left <= MOST_LEFT:
        raise ComposeTrouble("That was not counted", f"{left} is outside 0 to {MOST_LEFT}", "write it again")
    kept = (replace(s, left=left) if s.is_kind(kind) else s for s in rack.stretched)
    return replace(rack, stretched=tuple(s for s in kept if s.left))


def like(rack: Rack, name: str, wanted: bool) -> Rack:
    """A stock size becomes a favourite, or is none any more."""
    others = tuple(f for f in rack.favourites if f != name)
    return replace(rack, favourites=(*others, name) if wanted else others)


def favourite_formats(rack: Rack) -> tuple[Format, ...]:
    """The favourites, in the order they became so; those no table knows are left out."""
    by_name = {f"{f.series} {f.name}": f for f in stock_formats()}
    return tuple(by_name[n] for n in rack.favourites if n in by_name)


def on_rack(rack: Rack, compose: Compose) -> Stretched | None:
    """One that this composition can be painted on; None when none is left."""
    short, long = sorted((compose.width_mm, compose.height_mm))
    found = (s for s in rack.stretched if abs(s.short_mm - short) <= _SAME_MM and abs(s.long_mm - long) <= _SAME_MM)
    return next(found, None)


def words(one: Stretched, unit: Unit) -> str:
    """ "40 × 50 cm, linen, 38 mm deep"."""
    deep = f", {one.depth_mm:g} mm deep" if one.depth_mm else ""
    return f"{size_text(one.short_mm, one.long_mm, unit)}, {one.support}{deep}"
