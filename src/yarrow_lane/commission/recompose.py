"""What rests on what: what becomes of later work when composition or sequence changes, and the list of it in words.

Every step here returns the new commission together with the list, so that the list can be shown before the change is made.
"""

from collections.abc import Callable
from dataclasses import dataclass, replace

from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.standing import passes_in
from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.places import place_of, seen_at, to_px
from yarrow_lane.compose.placing import without_pieces
from yarrow_lane.compose.reference import photographs_of, reference_key
from yarrow_lane.easel.session import carried_over
from yarrow_lane.intake.photos import take_away
from yarrow_lane.lane.happening import Printed, of_kind
from yarrow_lane.layers.kinds import is_ground
from yarrow_lane.layers.regions import Region, middle_of, relaid
from yarrow_lane.measure.plane import Point, Polygon
from yarrow_lane.paint.drying import Climate
from yarrow_lane.palette.wells import Well
from yarrow_lane.transfer.record import set_count


@dataclass(frozen=True)
class Recomposed:
    """The commission after the change, and what becomes of later work, a sentence each; none when nothing rested on it."""

    commission: Commission
    changes: tuple[str, ...] = ()


@dataclass(frozen=True)
class Proposal:
    """A change that may touch later work: its words, its door, and the step. What becomes of that work is shown before."""

    label: str
    door: str
    step: Callable[[Commission], Recomposed]


def _count(number: int, one: str, many: str = "") -> str:
    return f"{number} {one if number == 1 else many or one + 's'}"


def _names(names: list[str]) -> str:
    return ", ".join(names)


def recompose(c: Commission, compose: Compose) -> Recomposed:
    """Another size, turn, crop, photograph, sitter placed or moved.

    Wells and regions stay at the same place of the photograph they lie on. What leaves the canvas is named; what lies on another
    photograph is begun anew. Another canvas (its size or turn) begins squares and finished passes anew; another picture begins the
    squares anew. Hours logged stay logged whatever happens. What is not seen on the canvas touches nothing.
    """
    before = c.compose
    if compose == before:
        return Recomposed(c)
    if reference_key(before) == reference_key(compose):
        return Recomposed(replace(c, compose=compose))
    same_photo = bool(set(photographs_of(before)) & set(photographs_of(compose))) and before.framed and compose.framed
    same_cloth = (before.width_mm, before.height_mm) == (compose.width_mm, compose.height_mm)
    changes: list[str] = []
    after = replace(c, compose=compose)
    after = _wells(after, before, same_photo, changes)
    after = _regions(after, before, same_photo, changes)
    after = _drawn(after, same_cloth, changes)
    after = _painted(after, same_cloth, changes)
    if any(sheet.made_from == reference_key(before) for sheet in of_kind(c.log, Printed)):
        changes.append("Sheets printed before show the earlier composition: print them again.")
    if c.check.at is not None:
        changes.append("The photograph of the painting was compared with the earlier composition.")
    return Recomposed(after, tuple(changes))


def _moved(before: Compose, after: Compose, point: Point) -> Point | None:
    """The same place of the same photograph, canvas mm to canvas mm; None where it is no longer shown.

    What lay on a plain ground stays where it was.
    """
    seen = seen_at(before, point)
    return point if seen is None else place_of(after, seen)


def _wells(c: Commission, before: Compose, same_photo: bool, changes: list[str]) -> Commission:
    placed = [w for w in c.palette.wells if w.at_mm is not None]
    if not placed:
        return c
    moved: list[Well] = []
    off: list[str] = []
    for well in c.palette.wells:
        at = _moved(before, c.compose, well.at_mm) if same_photo and well.at_mm is not None else None
        if at is not None and not c.compose.canvas.holds(at):
            at = None
        if same_photo and well.at_mm is not None and at is None:
            off.append(c.palette.name_of(well))
        moved.append(replace(well, at_mm=at))
    if not same_photo:
        changes.append(f"{_count(len(placed), 'well')}: colour and mix are kept, their places lie on another photograph.")
    elif off:
        changes.append(f"Off the canvas, colour and mix kept: {_names(off)}.")
    if same_photo and len(off) < len(placed):
        changes.append(f"{_count(len(placed) - len(off), 'well stays', 'wells stay')} at the same place of the photograph.")
    return replace(c, palette=replace(c.palette, wells=tuple(moved), made_from=reference_key(c.compose)))


def _regions(c: Commission, before: Compose, same_photo: bool, changes: list[str]) -> Commission:
    regions = c.layers.regions
    if not regions:
        return c
    if not same_photo:
        words = _count(len(regions), "region is begun anew", "regions are begun anew")
        changes.append(f"{words}, they were drawn on another photograph: {_names([r.name for r in regions])}.")
        return replace(c, layers=replace(c.layers, regions=(), made_from=""))
    kept: list[Region] = []
    canvas = c.compose.canvas
    for n, region in enumerate(sorted(regions, key=lambda r: not is_ground(r.kind))):
        # What moves lies over the ground it leaves bare, so that the first ground is as large as the canvas.
        beneath = n == 0 and is_ground(region.kind)
        moved = replace(region, rings=(canvas.corners,)) if beneath else _carried(region, before, c.compose)
        if moved is not None:
            kept.append(moved)
    laid = relaid(c.layers, kept, canvas)
    off = [r.name for r in regions if all(r.id != there.id for there in laid.regions)]
    if off:
        changes.append(f"Off the canvas: {_names(off)}.")
    if laid.regions:
        changes.append(f"{_count(len(laid.regions), 'region stays', 'regions stay')} at the same place of the photograph.")
    place = {r.id: n for n, r in enumerate(regions)}
    in_order = tuple(sorted(laid.regions, key=lambda r: place.get(r.id, len(place))))
    return replace(c, layers=replace(laid, regions=in_order, made_from=reference_key(c.compose)))


def _carried(region: Region, before: Compose, after: Compose) -> Region | None:
    """The region on the new canvas; None where what it lies on is not shown any more.

    It moves as a whole, with what lies at its middle: a border drawn a little beyond the sitter goes with the sitter. Ground that
    nobody covers any more goes to the background.
    """
    seen = seen_at(before, middle_of(region))
    if seen is None:
        return region

    def moved(line: Polygon) -> Polygon | None:
        kept = tuple(place_of(after, replace(seen, at_px=to_px(before, seen.piece_id, p))) for p in line)
        found = tuple(p for p in kept if p is not None)
        return found if len(found) == len(kept) else None

    rings = tuple(moved(ring) for ring in region.rings)
    lines = tuple(moved(line) for line in region.lines)
    if None in rings or None in lines:
        return None
    # Only what crosses the edge is cut: what lies inside keeps its very corners.
    told = tuple(tuple((round(x, 2), round(y, 2)) for x, y in ring) for ring in rings if ring)
    return replace(region, rings=told, lines=tuple(line for line in lines if line))


def _drawn(c: Commission, same_cloth: bool, changes: list[str]) -> Commission:
    drawn = len(c.transfer.drawn)
    if c.transfer.lines.touched:
        changes.append("Lines dropped and drawn by hand stay where they lie on the canvas: look whether they still fit.")
    if c.transfer.photos:
        changes.append("The drawing was photographed for the earlier composition: measure it again.")
    if c.transfer.marked_surface and not same_cloth:
        changes.append("The photographs of scribble marks show another canvas: they are left out.")
        c = replace(c, transfer=replace(c.transfer, marked_surface=()))
    if c.transfer.sketch is not None:
        changes.append("The sketch on paper was laid out for the earlier composition: set its corners again.")
    if c.transfer.carried:
        changes.append("The drawing on the canvas was carried over from the earlier composition: it is to be drawn again.")
        c = replace(c, transfer=replace(c.transfer, carried=()))
    if not drawn:
        return replace(c, transfer=replace(c.transfer, made_from="", quartered=None))
    why = "they were drawn from the earlier crop" if same_cloth else "they were drawn on another canvas"
    changes.append(f"{_count(drawn, 'square is begun anew', 'squares are begun anew')}: {why}.")
    return replace(c, transfer=replace(c.transfer, drawn=(), made_from="", quartered=None))


def _painted(c: Commission, same_cloth: bool, changes: list[str]) -> Commission:
    region_ids = {r.id for r in c.layers.regions}
    stay = tuple(f for f in c.easel.finished if same_cloth and int(f.pass_id.split(":")[0]) in region_ids)
    lost = len(c.easel.finished) - len(stay)
    if lost:
        why = "their region is gone" if same_cloth else "they were painted on another canvas"
        words = _count(lost, "finished pass no longer counts", "finished passes no longer count")
        changes.append(f"{words}: {why}. The hours stay logged.")
    if stay:
        changes.append(f"{_count(len(stay), 'finished pass was', 'finished passes were')} painted from the earlier crop.")
    if stay == c.easel.finished:
        return c
    return replace(c, easel=replace(c.easel, finished=stay, chosen="", made_from=c.easel.made_from if stay else ""))


def resequence(c: Commission, changed: Commission, climate: Climate) -> Recomposed:
    """Another school, kind of region or medium: finished passes keep their place where region and role are the same.

    `changed` is the commission with the other layers or brief, its easel still as it was.
    """
    title = {p.id: p.title for p in passes_in(c, climate)}
    easel, lost = carried_over(c.easel, passes_in(changed, climate))
    changes: list[str] = []
    if lost:
        words = _count(len(lost), "finished pass has", "finished passes have")
        names = _names([title.get(f.pass_id, "one of a region wiped out") for f in lost])
        changes.append(f"{words} no place in the new order: {names}. The hours stay logged.")
        moved = len(easel.finished)
        if moved:
            changes.append(f"{_count(moved, 'finished pass keeps its', 'finished passes keep their')} place.")
    return Recomposed(replace(changed, easel=easel), tuple(changes))


def recount(c: Commission, count: int) -> Recomposed:
    """Another number of squares: those drawn stood on another lattice. Raises `SquaresTrouble`."""
    transfer = set_count(c.transfer, count)
    drawn = len(c.transfer.drawn)
    lost = drawn > 0 and transfer is not c.transfer
    words = _count(drawn, "square is begun anew", "squares are begun anew")
    changes = (f"{words}: they were drawn on another lattice.",) if lost else ()
    return Recomposed(replace(c, transfer=transfer), changes)


def take_photo_away(c: Commission, photo_id: str) -> Recomposed:
    """The photograph leaves; a crop laid on it and sitters cut out of it go with it, since nothing would be behind them."""
    smaller = replace(c, intake=take_away(c.intake, photo_id))
    background, gone = c.compose.background, [p for p in c.compose.pieces if p.photo_id == photo_id]
    laid = background is not None and background.photo_id == photo_id
    if not laid and not gone:
        return Recomposed(smaller)
    after = replace(c.compose, background=None) if laid else c.compose
    found = recompose(smaller, without_pieces(after, {p.id for p in gone}))
    words = ["The crop laid on it goes with it."] if laid else []
    words += [f"{p.name} was cut out of it and goes with it." for p in gone]
    return Recomposed(found.commission, (*words, *found.changes))
