"""The parcel: what the canvas weighs, how large it is packed, what a courier charges it as, and what goes round it."""

from dataclasses import dataclass
from math import ceil

from yarrow_lane.compose.sides import Sides, outer
from yarrow_lane.measure.trouble import Trouble

_DEEP_FROM_MM = 30.0  # our choice: between thin stretchers (18 to 20 mm) and deep ones (38 to 40 mm), both from memory
BAR_KG_M, CANVAS_KG_M2 = 0.6, 0.5  # from memory: a metre of bar, a square metre of canvas
CROSS_BAR_FROM_MM = 800.0  # our choice: longer sides have a bar across
FRAME_KG_M = 0.9  # our choice: a floating frame of wood, a metre
FRAME_BACK_MM = 8.0  # our choice: what a frame stands out behind
PADDING_MM = 50.0  # our choice: on each side
CARDBOARD_KG_M2 = 1.1  # our choice: double-walled
VOLUME_CM3_A_KG = 5000.0  # common practice of couriers
_LONGEST_MM, _LARGEST_MM = 3000.0, 20_000.0  # our choice: beyond the first a carrier of art is asked


_BARE = Sides()


class ParcelTrouble(Trouble):
    """A size that cannot be packed."""


@dataclass(frozen=True)
class Parcel:
    """Outer sizes in whole cm, weights in kg. `of_paint` is the canvas alone, framed or not."""

    length_cm: int
    width_cm: int
    height_cm: int
    of_paint_kg: float
    weight_kg: float

    @property
    def volumetric_kg(self) -> float:
        """The weight its volume is charged as."""
        return self.length_cm * self.width_cm * self.height_cm / VOLUME_CM3_A_KG

    @property
    def charged_kg(self) -> float:
        """The larger of both, up to the next half kilogram (common practice)."""
        return ceil(round(max(self.weight_kg, self.volumetric_kg), 6) * 2) / 2

    @property
    def lift_with_two(self) -> bool:
        """Large panels are lifted by two (the handbook's caution); from 15 kg or 120 cm on: our choice."""
        return self.weight_kg >= 15 or max(self.length_cm, self.width_cm) >= 120


def bare_kg(width_mm: float, height_mm: float, depth_mm: float = 18.0) -> float:
    """A stretched canvas: bars round it, twice as heavy when deep (our choice), one across a long one, and the cloth."""
    across = sum(min(width_mm, height_mm) for side in (width_mm, height_mm) if side >= CROSS_BAR_FROM_MM)
    bar = (2 * (width_mm + height_mm) + across) / 1000
    return bar * BAR_KG_M * (2 if depth_mm >= _DEEP_FROM_MM else 1) + width_mm * height_mm / 1e6 * CANVAS_KG_M2


def framed(sides: Sides) -> bool:
    """Whether it goes into a frame."""
    return sides.frame == "floating"


def parcel_of(width_mm: float, height_mm: float, sides: Sides = _BARE, padding_mm: float = PADDING_MM) -> Parcel:
    """Packed with so much padding on each side. Raises `ParcelTrouble` for a size that is none."""
    if not (0 < width_mm <= _LARGEST_MM and 0 < height_mm <= _LARGEST_MM):
        raise ParcelTrouble("The parcel was not worked out", "the canvas has no size yet", "choose its size at Compose")
    if not 0 <= padding_mm <= 500:
        raise ParcelTrouble("The padding was not taken", f"{padding_mm / 10:g} cm is outside 0 to 50 cm", "write it anew")
    size = outer(sides, width_mm, height_mm)
    thick, weight = sides.depth_mm, bare_kg(width_mm, height_mm, sides.depth_mm)
    if framed(sides):
        thick += FRAME_BACK_MM
        weight += 2 * (size.width_mm + size.height_mm) / 1000 * FRAME_KG_M
    longer, shorter = max(size.width_mm, size.height_mm), min(size.width_mm, size.height_mm)
    length, width, height = (ceil(round((side + 2 * padding_mm) / 10, 6)) for side in (longer, shorter, thick))
    walls_m2 = 2 * (length * width + length * height + width * height) / 1e4
    return Parcel(length, width, height, weight, weight + walls_m2 * CARDBOARD_KG_M2)


def needs_art_carrier(parcel: Parcel) -> bool:
    """Too long for a usual courier (our choice: 3 m)."""
    return parcel.length_cm * 10 > _LONGEST_MM


def padding_list(parcel: Parcel, padding_mm: float, in_frame: bool, glass: bool) -> tuple[tuple[str, str], ...]:
    """What is laid round it, from the paint outwards: (what, how much)."""
    face = parcel.length_cm / 100 * parcel.width_cm / 100
    round_m = 2 * (parcel.length_cm + parcel.width_cm) / 100
    rows = [
        ("glassine on the paint", f"{face * 1.2:.2f}\u202fm², never bubble wrap: its knobs print into the varnish"),
        ("corners of board", "8 for the frame" if in_frame else "4"),
        ("stiff board, front and back", f"2 of {parcel.length_cm} × {parcel.width_cm}\u202fcm"),
        ("foam or paper padding", f"{padding_mm / 10:g}\u202fcm on every side"),
        ("double-walled box", f"{parcel.length_cm} × {parcel.width_cm} × {parcel.height_cm}\u202fcm"),
        ("tape", f"about {round_m * 3:.0f}\u202fm"),
    ]
    if glass:
        rows.insert(1, ("tape across the glass", "a cross and a frame of it, so that shards stay put; gloves"))
    return tuple(rows)
