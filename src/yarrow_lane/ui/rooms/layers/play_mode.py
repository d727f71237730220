"""Play: the canvas as it should look after each pass, beside a photograph of the real one, on a slider of passes."""

from typing import TYPE_CHECKING, Literal

from PySide6.QtCore import QRectF, QSize, Qt, Signal
from PySide6.QtGui import QColor, QImage, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QWheelEvent
from PySide6.QtWidgets import QVBoxLayout, QWidget

from yarrow_lane.commission.standing import passes_in
from yarrow_lane.layers.passes import Pass
from yarrow_lane.layers.play.area import Laid
from yarrow_lane.layers.regions import Region
from yarrow_lane.layers.telling import sayings
from yarrow_lane.layers.wells_for import advice_in
from yarrow_lane.ui.bench_sheet import Fact, Headline, Line, Meaning, NextAct, Note, Press, Section, Switch, plain_options
from yarrow_lane.ui.kit.frame import Frame
from yarrow_lane.ui.kit.levels import Levels
from yarrow_lane.ui.kit.overlays import Outline, Overlay, Words
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.reference_view import beside_or_above, show_reference
from yarrow_lane.ui.paint.elided import draw_line
from yarrow_lane.ui.paint.stage import paint_stage
from yarrow_lane.ui.pictures import Shown
from yarrow_lane.ui.rooms.layers.mode import Mode, Sheets
from yarrow_lane.ui.straight_canvas import want_canvas
from yarrow_lane.ui.theme.colours import INK, SURROUND
from yarrow_lane.ui.theme.lettering import lettering, px

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.layers.page import LayersPage

Beside = Literal["my canvas", "the photograph", "nothing"]
_THUMB_PX = 120


class PlayStrip(QWidget):
    """The passes around the present one as small canvases; a click or the wheel goes there."""

    chosen = Signal(int)

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("table")
        self.setAccessibleName("The canvas after each pass")
        self.passes: tuple[Pass, ...] = ()
        self.count = 0
        self.thumbs: dict[int, QImage] = {}
        self.setMinimumHeight(px(112))

    def sizeHint(self) -> QSize:
        return QSize(px(600), px(124))

    def show_passes(self, passes: tuple[Pass, ...], count: int, thumbs: dict[int, QImage]) -> None:
        self.passes, self.count, self.thumbs = passes, count, thumbs
        self.update()

    def _places(self) -> list[tuple[int, QRectF]]:
        """Number of passes done, and where its thumbnail stands; 0 is the ground."""
        wide = px(72)
        fit = max(1, int((self.width() - px(12)) // wide))
        first = min(max(0, self.count - fit // 2), max(0, len(self.passes) + 1 - fit))
        return [
            (first + k, QRectF(px(8) + k * wide, px(6), wide - px(6), px(74)))
            for k in range(min(fit, len(self.passes) + 1 - first))
        ]

    def visible(self) -> list[int]:
        """Which canvases are in view."""
        return [n for n, _ in self._places()]

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(SURROUND))
        for n, place in self._places():
            image = self.thumbs.get(n)
            here = n == self.count
            shown = place
            if image is not None:
                scale = min(place.width() / image.width(), place.height() / image.height())
                size = image.width() * scale, image.height() * scale
                shown = QRectF(place.center().x() - size[0] / 2, place.bottom() - size[1], *size)
            paint_stage(painter, shown, image, n, here, n > self.count)
            painter.setPen(QColor(INK))
            name = "ground" if n == 0 else self.passes[n - 1].region_name
            words = QRectF(place.left() - px(2), place.bottom() + px(3), place.width() + px(5), px(15))
            draw_line(painter, words, name, lettering(11.5, "bold" if here else "normal"), Qt.AlignmentFlag.AlignHCenter)
            if n:
                draw_line(
                    painter,
                    words.translated(0, px(14)),
                    self.passes[n - 1].name,
                    lettering(11.5),
                    Qt.AlignmentFlag.AlignHCenter,
                )
        painter.end()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        found = next((n for n, place in self._places() if place.adjusted(0, 0, 4, 40).contains(event.position())), None)
        if found is not None:
            self.chosen.emit(found)

    def wheelEvent(self, event: QWheelEvent) -> None:
        step = -1 if event.angleDelta().y() > 0 else 1
        self.chosen.emit(min(max(0, self.count + step), len(self.passes)))


class PlayMode(Mode):
    """Meant and real at one scale."""

    name = "play"

    def __init__(self, page: "LayersPage") -> None:
        super().__init__(page)
        self.frame = Frame()
        self.meant = PictureView("As it should look", self.frame)
        self.real = PictureView("Beside it", self.frame)
        self.picture = self.meant
        self.strip = PlayStrip()
        top = QWidget()
        self._pair = self.lay(self.meant, self.real)
        top.setLayout(self._pair)
        self.widget = QWidget()
        box = QVBoxLayout(self.widget)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        box.addWidget(top, 1)
        box.addWidget(self.strip)
        self.count = -1
        self.beside: Beside = "the photograph"
        self.strip.chosen.connect(self.go)
        self._shown: Levels | None = None
        self._blinked = False
        self._asked: object = None  # what was asked for last: an older answer is not shown

    def why_not(self) -> str:
        return self.needs_regions()

    def opened(self) -> None:
        self.count, self._shown, self._asked, self._blinked = -1, None, None, False

    @property
    def _passes(self) -> tuple[Pass, ...]:
        return passes_in(self.page.commission, self.page.studio.climate)

    def go(self, count: int) -> None:
        """Look at the canvas after so many passes."""
        self.count = count
        self.page.refresh()

    def refresh(self) -> Sheets:
        page, c = self.page, self.page.commission
        passes = self._passes
        if self._blinked:  # whatever is done sees each picture in its place
            self._blink()
        if self.count < 0 or self.count > len(passes):
            done = {f.pass_id for f in c.easel.finished}
            self.count = next((n for n, p in enumerate(passes) if p.id not in done), len(passes))
        page.playing.want(c, passes)
        self._pair.setDirection(beside_or_above(c.compose))
        self.real.setVisible(self.beside != "nothing")
        if self.beside == "the photograph":
            show_reference(self.real, page.workroom.references, c.compose, page)
        elif self.beside == "my canvas":
            self._show_canvas()
        self._show(passes)
        own = ("my canvas",) if c.check.photo_id else ()
        options = plain_options((*own, "the photograph", "nothing"))
        switch = Switch("Beside it", options, self._choose_beside, self.beside)
        return Sheets(self._sections(passes), (switch,), self._act(passes))

    def _show_canvas(self) -> None:
        """The newest photograph of the painting, as Check has it."""
        c, page = self.page.commission, self.page
        photo = c.check.newest
        if photo is None:
            return
        size = (c.compose.width_mm, c.compose.height_mm)
        self.real.setProperty("reference", "")
        self.real.waiting = "Reading the photograph of your canvas…"

        def ready(shown: Shown) -> None:
            if self.beside == "my canvas" and page.commission_id == c.id:
                self.real.show_levels(shown.levels, size)

        want_canvas(page.workroom, photo, size, page, ready)

    def play_changed(self) -> None:
        """An area has come."""
        self._show(self._passes)
        self.page.show_mode(self, bench_only=True)

    def _show(self, passes: tuple[Pass, ...]) -> None:
        page, c = self.page, self.page.commission
        if page.playing.stage is None:
            self._shown = None
            self.meant.waiting = "Foreseeing the canvas…"
            self.meant.show_levels(None, (c.compose.width_mm, c.compose.height_mm))
            self.strip.show_passes(passes, self.count, {})
            return
        asked = self._asked = object()

        def ready(levels: Levels) -> None:
            if self._asked is asked and page.commission_id == c.id and levels is not self._shown:
                self._shown = levels
                (self.real if self._blinked else self.meant).show_levels(levels, (c.compose.width_mm, c.compose.height_mm))

        page.playing.want_canvas(c, self.count, ready)
        self.meant.show_overlays(*self._next_place(passes))
        thumbs = {n: page.playing.thumb(n, _THUMB_PX) for n in self.strip.visible()} if page.playing.ready else {}
        self.strip.show_passes(passes, self.count, {n: image for n, image in thumbs.items() if image is not None})

    def _following(self, passes: tuple[Pass, ...]) -> tuple[Pass, Region] | None:
        if self.count >= len(passes):
            return None
        p = passes[self.count]
        region = next((r for r in self.page.commission.layers.regions if r.id == p.region_id), None)
        return (p, region) if region is not None else None

    def _next_place(self, passes: tuple[Pass, ...]) -> list[Overlay]:
        found = self._following(passes)
        if found is None:
            return []
        _, region = found
        marks: list[Overlay] = [Outline(r, "light", 1.6, "dashes") for r in region.rings]
        if region.rings:
            top = min(region.outline, key=lambda q: q[1])
            marks.append(Words(top, f"{self.count + 1} goes here next", shift=(-40, -8)))
        return marks

    # --- the bench

    def _sections(self, passes: tuple[Pass, ...]) -> tuple[Section, ...]:
        page = self.page
        sections: list[Section] = []
        share = page.playing.share
        if share < 1:
            sections.append(
                Section("Foreseeing", (Note(f"{100 * share:.0f}\u202f% of the areas are there; the others are still bare."),))
            )
        if self.count:
            p = passes[self.count - 1]
            lines: list[Line] = [Headline(f"After {self.count} of {len(passes)}"), Fact(p.region_name, p.name)]
            told = sayings(p)
            if told:
                lines.append(Note(f"It is meant to look like this now. {told[-1]}"))
            sections.append(Section("It is meant to look like this now", tuple(lines)))
        else:
            sections.append(Section("Before the first pass", (Note("The ground with the drawing."),)))
        found = self._following(passes)
        if found is not None:
            sections += self._next_section(found[0])
        sections.append(
            Section(
                "On paper",
                (Press("Strip of stages (PDF)…", page.save_strip), Note("A forecast to compare with, not a picture to copy: strokes are chosen by rule from your reference.")),
            )
        )  # fmt: skip
        return tuple(sections)

    def _next_section(self, p: Pass) -> list[Section]:
        told = sayings(p)
        advice = advice_in(p, self.page.scoring.colours.get(p.region_id), self.page.studio.jar)
        lines: list[Line] = [Note(t) for t in told[:2]]
        lines.append(Fact("Brush", advice.brush.words))
        state = self.page.playing.state_of(p)
        if state is not None and state.laid.strokes is not None and not advice.texture:
            lines.append(Fact("Strokes", _strokes_text(state.laid)))
        if state is not None and 0 < state.laid.covered < 0.9 and p.role in ("under", "middle", "tips"):
            lines.append(Note(f"About {10 * round(state.laid.covered * 10)}\u202f% is touched; what is left shows through."))
        return [Section(f"{self.count + 1} will do this: {p.title}", tuple(lines))]

    def _choose_beside(self, value: Beside) -> Meaning:
        if self._blinked:
            self._blink()
        self.beside = value
        self.real.setProperty("reference", "")
        self.real.show_levels(None, (1, 1))
        self.page.refresh()
        return None

    def _act(self, passes: tuple[Pass, ...]) -> NextAct | None:
        return self.page.onward(self.name)

    def _blink(self) -> bool:
        """Change the two pictures' places; False while one is not there."""
        if self.meant.levels is None or self.real.levels is None:
            return False
        levels, size = self.meant.levels, self.meant.content
        self.meant.show_levels(self.real.levels, self.real.content)
        self.real.show_levels(levels, size)
        self._blinked = not self._blinked
        return True

    def key(self, event: QKeyEvent) -> bool:
        """Arrows go a pass back or on, Home to the ground, End to the last; B blinks between what is meant and what is."""
        if event.text().lower() == "b" and self.beside != "nothing":
            return self._blink()
        passes = self._passes
        steps = {
            Qt.Key.Key_Left: self.count - 1,
            Qt.Key.Key_Right: self.count + 1,
            Qt.Key.Key_Home: 0,
            Qt.Key.Key_End: len(passes),
        }
        wanted = steps.get(Qt.Key(event.key()))
        if wanted is None:
            return False
        self.go(min(max(0, wanted), len(passes)))
        return True


def _strokes_text(laid: Laid) -> str:
    assert laid.strokes is not None
    lengths = laid.strokes.length
    if not len(lengths):
        return "none needed"
    low, high = float(min(lengths)), float(max(lengths))
    return f"{laid.width:.1f} × {low:.0f} to {high:.0f}\u202fmm"
