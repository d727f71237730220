"""What is shown while size and crop are chosen, and what each line means."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal, Protocol

from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.recompose import Proposal
from yarrow_lane.commission.studio import Studio
from yarrow_lane.compose.composition import Compose, frame, largest_crop_width, set_size
from yarrow_lane.compose.detail import (
    carried_px_per_mm,
    detail_word,
    detail_words,
)
from yarrow_lane.compose.formats import SERIES, SERIES_WORDS, Format, Series, formats_of
from yarrow_lane.compose.nearest import Near, nearest_sizes
from yarrow_lane.compose.proposed_size import ProposedSize
from yarrow_lane.compose.rack import MOST_LEFT, Stretched, favourite_formats, on_rack, words
from yarrow_lane.compose.standing import lie_word, to_frame
from yarrow_lane.documents.print_plan import plan_print
from yarrow_lane.intake.detail import FULL, detail_of
from yarrow_lane.intake.evidence import Evidence
from yarrow_lane.intake.photos import Photo
from yarrow_lane.measure.lengths import Unit, length_text, size_text
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.words import begun
from yarrow_lane.transfer.squares import Squares
from yarrow_lane.ui.bench_sheet import (
    Amount,
    Fact,
    Field,
    Length,
    Line,
    Meaning,
    Note,
    Pick,
    Press,
    Section,
    Switch,
    Table,
    Tick,
)
from yarrow_lane.ui.kit.overlays import Box, Lattice, Overlay, Veil, Words
from yarrow_lane.ui.words import detail_mood

Mine = Literal["mine"]
_NO_CROP_BEHIND = "The sitters stand on a plain ground. Choose a photograph above to lay a crop of it behind them."


class Hands(Protocol):
    """What the page does for the bench."""

    def show_series(self, series: Series | Mine) -> None: ...
    def choose_format(self, name: str) -> Proposal: ...
    def own_width(self, width_mm: float) -> Meaning: ...
    def own_height(self, height_mm: float) -> Meaning: ...
    def turn(self, lie: str) -> Meaning: ...
    def lay_on(self, photo_id: str) -> Meaning: ...
    def show_nearest(self, wanted: bool) -> None: ...
    def take_near(self, near: Near) -> Proposal: ...
    def take_stretched(self, one: Stretched) -> Proposal: ...
    def count_stretched(self, one: Stretched, left: float) -> None: ...
    def put_on_rack(self) -> None: ...
    def write_support(self, text: str) -> None: ...
    def like_size(self, wanted: bool) -> None: ...


@dataclass(frozen=True)
class ComposeView:
    """Size and crop; `photo` is the one framed or to be framed, `crop` what is laid on it."""

    photo: Photo | None
    crop: Rect | None
    overlays: tuple[Overlay, ...]
    sections: tuple[Section, ...]
    switches: tuple[Switch, ...]


def compose_view(
    c: Commission, shown: Compose, studio: Studio, series: Series | Mine, half: tuple[float, float],
    evidence: Mapping[str, Evidence], nearest: bool, support: str, proposed: ProposedSize | None, hands: Hands,
) -> ComposeView:  # fmt: skip
    """Work it out; `shown` is the composition on record or the one proposed, `half` a width or height written alone.

    With `nearest` the stock sizes nearest to the crop are drawn and listed; of a size that is only `proposed` what it would take.
    """
    photo = to_frame(shown, c.intake)
    seen = evidence.get(photo.id) if photo is not None else None
    crop = shown.background.crop if shown.sized and shown.background else None
    own = (("mine", "mine"),) if studio.rack.favourites else ()
    switches = [Switch("Stock sizes in", (*((s, SERIES_WORDS[s]) for s in SERIES), *own), hands.show_series, series)]
    lie = lie_word(shown.width_mm, shown.height_mm)
    if shown.sized and lie != "square":
        switches.append(Switch("Canvas", (("upright", "upright"), ("lying", "lying")), hands.turn, lie))
    near: tuple[Near, ...] = ()
    if crop is not None and photo is not None:
        switches.append(Switch("Draw", ((False, "thirds"), (True, "nearest sizes")), hands.show_nearest, nearest))
        near = nearest_sizes(shown, (photo.width_px, photo.height_px), sizes_in(series, studio)) if nearest else ()
    sections = _sections(c, shown, studio, series, half, photo, seen, support, hands)
    if near:
        sections = (sections[0], _near_section(near, photo, seen, studio, hands), *sections[1:])
    overlays = compose_overlays(crop, tuple((n.crop, format_words(n.format, studio)) for n in near))
    if proposed is not None and photo is not None:
        overlays = _proposed_overlays(proposed, photo, studio.unit)
    return ComposeView(photo, crop, overlays, sections, tuple(switches))


def _near_section(
    near: tuple[Near, ...], photo: Photo | None, evidence: Evidence | None, studio: Studio, hands: Hands
) -> Section:
    """What each of the nearest sizes would cut off the crop and add to it, and what the photograph carries at it."""
    assert photo is not None
    rows = tuple(
        (
            format_words(n.format, studio),
            f"{n.cuts:.0%}",
            f"{n.adds:.0%}",
            detail_word(carried_px_per_mm(n.composed, photo, evidence)),
        )
        for n in near
    )
    takes = tuple(Press(f"Take {format_words(n.format, studio)}", lambda n=n: hands.take_near(n)) for n in near)  # type: ignore[misc]
    return Section("Nearest stock sizes", (Table(("size", "cuts", "adds", "carries"), rows), *takes))


def compose_overlays(crop: Rect | None, near: tuple[tuple[Rect, str], ...] = ()) -> tuple[Overlay, ...]:
    """What is left out is dimmed; thirds, to place the eyes by, or the crops of other sizes with their names."""
    if crop is None:
        return ()
    if near:
        found: list[Overlay] = [Veil(crop.corners, 90)]
        for (rect, name), corner in zip(near, (0, 2, 3), strict=False):  # names in different corners, or they hide each other
            x, y = rect.corners[corner]
            shift = (6.0, 14.0) if corner == 0 else (-6.0, -14.0) if corner == 2 else (6.0, -14.0)
            found += [Box(rect, line="dashes"), Words((x, y), name, "left" if corner == 2 else "right", shift=shift)]
        return tuple(found)
    thirds = tuple(crop.x + crop.width * n / 3 for n in (1, 2)), tuple(crop.y + crop.height * n / 3 for n in (1, 2))
    return Veil(crop.corners), Lattice(crop, *thirds, weight=0.6)


def _proposed_overlays(proposed: ProposedSize, photo: Photo, unit: Unit) -> tuple[Overlay, ...]:
    """The largest crop the proposed size would take, dashed: nothing is laid yet."""
    sized, size = set_size(Compose(), proposed.width_mm, proposed.height_mm), (photo.width_px, photo.height_px)
    laid = frame(sized, photo.id, size, largest_crop_width(sized, size), (size[0] / 2, size[1] / 2)).background
    assert laid is not None
    words = f"{size_text(proposed.width_mm, proposed.height_mm, unit)}, proposed"
    top = laid.crop.centre[0], laid.crop.y
    return Veil(laid.crop.corners, 90), Box(laid.crop, line="dashes"), Words(top, words, "over", shift=(0.0, 18.0))


def format_words(f: Format, studio: Studio) -> str:
    """The name of a stock size, with its measures where the name does not say them."""
    if f.series in ("iso", "classic"):
        return f"{f.name} · {size_text(f.short_mm, f.long_mm, studio.unit)}"
    return f.name


def sizes_in(series: Series | Mine, studio: Studio) -> tuple[Format, ...]:
    """The stock sizes of a series, or the painter's own favourites."""
    return favourite_formats(studio.rack) if series == "mine" else formats_of(series)


def _carried(f: Format, shown: Compose, photo: Photo | None, evidence: Evidence | None) -> str:
    """What the photograph carries at a stock size, lying as the canvas lies now."""
    if photo is None:
        return ""
    lying = lie_word(shown.width_mm, shown.height_mm) == "lying" if shown.sized else photo.width_px > photo.height_px
    sides = (f.long_mm, f.short_mm) if lying else (f.short_mm, f.long_mm)
    sized = set_size(shown, *sides)
    return f" · {detail_word(carried_px_per_mm(sized, photo, evidence))}"


def _sections(
    c: Commission, shown: Compose, studio: Studio, series: Series | Mine, half: tuple[float, float], photo: Photo | None,
    evidence: Evidence | None, support: str, hands: Hands,
) -> tuple[Section, ...]:  # fmt: skip
    unit = studio.unit
    options = tuple(
        (f"{f.series} {f.name}", format_words(f, studio) + _carried(f, shown, photo, evidence))
        for f in sizes_in(series, studio)
    )
    width, height = shown.width_mm or half[0], shown.height_mm or half[1]
    sections = [
        Section(
            "Size",
            (
                Pick("Stock size", shown.format_name, options, hands.choose_format),
                Length("Or your own width", width, unit, hands.own_width, 400.0),
                Length("and height", height, unit, hands.own_height, 500.0),
            ),
        )
    ]
    sections.append(_rack_section(shown, studio, support, hands))
    if len(c.intake.photos) > 1 and photo is not None:
        order = (*c.intake.leads, *(p for p in c.intake.photos if p.use != "lead"))
        names = tuple((p.id, f"{p.name}, {p.use}") for p in order)
        sections.append(Section("Photograph", (Pick("Framed from", photo.id, names, hands.lay_on),)))
    if shown.sized and shown.background is not None and photo is not None:
        sections.append(Section("The crop", _crop_lines(c, shown, studio, photo, evidence)))
    elif shown.sized and photo is not None:
        sections.append(
            Section(
                "The crop",
                (Note(_NO_CROP_BEHIND if shown.pieces else "Not laid yet. Enter lays the largest crop; then move it."),),
            )
        )
    how = "Drag inside to move, a corner to resize. Arrows move, + and − resize, the shape stays the canvas's own."
    sections.append(Section("Hands", (Note(how),), "drag, arrows, + and −"))
    return tuple(sections)


def _counted(one: Stretched, unit: Unit, hands: Hands) -> Amount:
    return Amount(words(one, unit), one.left, 0, MOST_LEFT, lambda v: hands.count_stretched(one, v), 1, 0, "left")


def _rack_section(shown: Compose, studio: Studio, support: str, hands: Hands) -> Section:
    """What stands in the own rack, and whether this size is there."""
    rack, unit = studio.rack, studio.unit
    lines: list[Line] = []
    lines += [_counted(one, unit, hands) for one in rack.stretched]
    here = on_rack(rack, shown) if shown.sized else None
    for one in rack.stretched[:4]:
        if one is not here:
            lines.append(Press(f"Take {words(one, unit)}", lambda s=one: hands.take_stretched(s)))  # type: ignore[misc]
    if shown.sized:
        lines.append(Field("Support", support, hands.write_support, "linen, cotton, panel"))
        lines.append(Press(f"Put one of {size_text(shown.width_mm, shown.height_mm, unit)} on the rack", hands.put_on_rack))
        if shown.format_name:
            liked = shown.format_name in rack.favourites
            lines.append(Tick("One of my sizes", liked, hands.like_size))
    count = sum(one.left for one in rack.stretched)
    if here is not None:
        said = f"this size: {here.left} left"
    elif count:
        said = f"{count} in it, none of this size"
    else:
        said = "empty"
    return Section("Own rack", tuple(lines), said)


def _pixels(count: float) -> str:
    return f"{count:.1f} pixels" if count >= 0.1 else "less than a tenth of a pixel"


def _reason_lines(photo: Photo, stored: float, evidence: Evidence | None) -> tuple[Line, ...]:
    """Where stored and resolved pixels differ, by how much and why."""
    if evidence is None:
        return (Note("Counted by the pixels it stores; what resolves is being measured."),)
    if evidence.share >= FULL:
        return ()
    words = detail_of(photo.width_px, photo.height_px, evidence).words
    return (Note(f"It stores {stored:.1f}\u202fpx per mm. {begun(words)}.", "wrong"),)


def _crop_lines(c: Commission, shown: Compose, studio: Studio, photo: Photo, evidence: Evidence | None) -> tuple[Line, ...]:
    unit = studio.unit
    assert shown.background is not None
    crop = shown.background.crop
    stored, detail = (carried_px_per_mm(shown, photo, e) for e in (None, evidence))
    plan = plan_print(Squares(shown.width_mm, shown.height_mm, 1), c.transfer.paper)
    most = largest_crop_width(shown, (photo.width_px, photo.height_px))
    lines: list[Line] = [
        Fact("Canvas", size_text(shown.width_mm, shown.height_mm, unit)),
        Fact("Crop", f"{crop.width:.0f} × {crop.height:.0f}\u202fpx"),
        Fact("Of the widest possible", f"{crop.width / most:.0%}"),
        Fact("On the canvas", f"{detail:.1f}\u202fpx per mm", detail_mood(detail)),
        Note(f"{begun(detail_words(detail))}. A hair 0.3 mm wide is {_pixels(0.3 * detail)}."),
        *_reason_lines(photo, stored, evidence),
        Fact(f"{c.transfer.paper} print", size_text(plan.width_mm, plan.height_mm, unit)),
        Fact("Enlargement from it", f"× {1 / plan.scale:.2f}"),
    ]
    if photo.iris_px is not None:
        lines.append(Fact("Iris on the canvas", length_text(photo.iris_px / stored, unit, 2)))
    return tuple(lines)
