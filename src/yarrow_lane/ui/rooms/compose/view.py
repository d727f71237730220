"""What the compose room shows now."""

from dataclasses import dataclass

from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.studio import Studio
from yarrow_lane.compose.canvas import DETAIL_POOR_PX_MM, DETAIL_WORKABLE_PX_MM, detail_words, largest_crop_width
from yarrow_lane.compose.formats import SERIES, SERIES_WORDS, Format, Series, formats_of
from yarrow_lane.documents.squares_sheet import plan_print
from yarrow_lane.intake.photos import Photo
from yarrow_lane.measure.lengths import length_text, number_text, size_text
from yarrow_lane.transfer.squares import Squares
from yarrow_lane.ui.bench_sheet import BenchSheet, ChoiceSheet, Fact, Field, Line, NextAct, Note, Pick, Section, Switch, Tone


@dataclass(frozen=True)
class ComposeView:
    """The whole room; `photo` is the one framed or to be framed."""

    photo: Photo | None
    bench: BenchSheet
    choices: ChoiceSheet


def lead_to_frame(c: Commission) -> Photo | None:
    """The photograph already framed, else the first lead, else the first kept or any."""
    return c.photo or next(iter((*c.intake.leads, *c.intake.kept, *c.intake.photos)), None)


def compose_view(c: Commission, studio: Studio, series: Series) -> ComposeView:
    """Work the room out from what is on record."""
    photo = lead_to_frame(c)
    lie = "square" if c.compose.width_mm == c.compose.height_mm else "upright"
    if c.compose.width_mm > c.compose.height_mm:
        lie = "lying"
    switches = [Switch("series", "Stock sizes in", tuple((s, SERIES_WORDS[s]) for s in SERIES), series)]
    if c.compose.sized and lie != "square":
        switches.append(Switch("turn", "Canvas", (("upright", "upright"), ("lying", "lying")), lie))
    return ComposeView(photo, _bench(c, studio, series, photo), ChoiceSheet(tuple(switches)))


def format_words(f: Format, studio: Studio) -> str:
    """The name of a stock size, with its measures where the name does not say them."""
    if f.series in ("iso", "classic"):
        return f"{f.name} · {size_text(f.short_mm, f.long_mm, studio.unit)}"
    return f.name


def _bench(c: Commission, studio: Studio, series: Series, photo: Photo | None) -> BenchSheet:
    unit, canvas = studio.unit, c.compose
    stock = formats_of(series)
    options = tuple((f"{f.series} {f.name}", format_words(f, studio)) for f in stock)
    size_lines: list[Line] = [
        Pick("format", "Stock size", canvas.format_name, options),
        Field("width", f"Or your own width, {unit}", number_text(canvas.width_mm, unit) if canvas.sized else "", "40"),
        Field("height", f"and height, {unit}", number_text(canvas.height_mm, unit) if canvas.sized else "", "50"),
    ]
    sections = [Section("Size", tuple(size_lines))]
    if len(c.intake.photos) > 1 and photo is not None:
        order = (*c.intake.leads, *(p for p in c.intake.photos if p.use != "lead"))
        names = tuple((p.id, f"{p.name}, {p.use}") for p in order)
        sections.append(Section("Photograph", (Pick("photo", "Framed from", photo.id, names),)))
    if canvas.framed and photo is not None:
        sections.append(Section("The crop", _crop_lines(c, studio, photo)))
    elif canvas.sized and photo is not None:
        sections.append(Section("The crop", (Note("Not laid yet. Enter lays the largest crop; then move it."),)))
    hands = Note("Drag inside to move, a corner to resize. Arrows move, + and − resize, the shape stays the canvas's own.")
    sections.append(Section("Hands", (hands,)))
    return BenchSheet(tuple(sections), _act(c, photo))


def _crop_lines(c: Commission, studio: Studio, photo: Photo) -> tuple[Line, ...]:
    canvas, unit = c.compose, studio.unit
    assert canvas.crop is not None
    detail = canvas.px_per_mm
    tone: Tone = "good" if detail >= DETAIL_WORKABLE_PX_MM else "wrong" if detail < DETAIL_POOR_PX_MM else "plain"
    print_plan = plan_print(Squares(canvas.width_mm, canvas.height_mm, 1), c.transfer.paper)
    most = largest_crop_width(canvas, (photo.width_px, photo.height_px))
    lines: list[Line] = [
        Fact("Canvas", size_text(canvas.width_mm, canvas.height_mm, unit)),
        Fact("Crop", f"{canvas.crop.width:.0f} × {canvas.crop.height:.0f}\u202fpx"),
        Fact("Of the widest possible", f"{canvas.crop.width / most:.0%}"),
        Fact("On the canvas", f"{detail:.1f}\u202fpx per mm", tone),
        Note(f"{detail_words(detail).capitalize()}. A hair 0.3 mm wide is {0.3 * detail:.1f} pixels."),
        Fact(f"{c.transfer.paper} print", size_text(print_plan.width_mm, print_plan.height_mm, unit)),
        Fact("Enlargement from it", f"× {1 / print_plan.scale:.2f}"),
    ]
    iris = photo.iris_px
    if iris is not None:
        lines.append(Fact("Iris on the canvas", length_text(iris / detail, unit, 2)))
    return tuple(lines)


def _act(c: Commission, photo: Photo | None) -> NextAct:
    if photo is None:
        return NextAct("Take photographs in first", "the crop is laid on one of them")
    if not c.compose.sized:
        return NextAct("Choose the size", "stock sizes above, or write your own", enabled=False)
    if not c.compose.framed:
        return NextAct("Lay the crop", "as large as the photograph allows")
    return NextAct("Go on to Transfer", "the crop holds at this size")
