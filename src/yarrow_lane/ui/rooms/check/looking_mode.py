"""Looking: the painting beside the crop, mirrored, upside down, grey, squinted at, small, split, blinking."""

from dataclasses import dataclass, replace
from datetime import datetime
from typing import TYPE_CHECKING, Literal

from PySide6.QtCore import QTimer
from PySide6.QtGui import QKeyEvent, Qt
from PySide6.QtWidgets import QBoxLayout

from yarrow_lane.check.record import PaintingPhoto
from yarrow_lane.easel.standing import last_painted
from yarrow_lane.measure.days import clock_text
from yarrow_lane.measure.plane import Rect
from yarrow_lane.ui.bench_sheet import Fact, Line, Meaning, Note, Section, Switch
from yarrow_lane.ui.kit.frame import Frame
from yarrow_lane.ui.kit.levels import make_levels
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.reference_view import beside_or_above, show_reference
from yarrow_lane.ui.pictures import Shown
from yarrow_lane.ui.rooms.check.looks import joined, squinted
from yarrow_lane.ui.rooms.check.mode import Mode, Sheets
from yarrow_lane.ui.straight_canvas import want_canvas

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.check.page import CheckPage

Flip = Literal["upright", "mirror", "down"]
Side = Literal["beside", "blinking", "split"]
FLIPS: tuple[Flip, ...] = ("upright", "mirror", "down")
_BLINK_MS = 700  # our choice: long enough to see, short enough that a shift jumps
_DROP = "Drop a photograph of the painting here: straight on, the whole canvas, even daylight."
_SMALL = 0.28  # of its size: as a thumbnail across the room


@dataclass(frozen=True)
class CheckLook:
    """How the two pictures are looked at."""

    flip: Flip = "upright"
    grey: bool = False
    side: Side = "beside"
    squint: bool = False
    small: bool = False


class LookingMode(Mode):
    """What the eye sees when it is made to look anew."""

    name = "looking"

    def __init__(self, page: "CheckPage") -> None:
        super().__init__(page)
        self.look = CheckLook()
        self.frame = Frame()
        self.reference, self.painting = PictureView("The crop", self.frame), PictureView("The painting", self.frame)
        self.picture = self.reference
        self._pair: QBoxLayout = self.lay(self.reference, self.painting)
        self._blink = QTimer(self.widget)
        self._blink.setInterval(_BLINK_MS)
        self._blink.timeout.connect(page.workroom.guard.guarded(self.blink_now))
        self._painting_shows = False
        self._asked: object = None
        self._came: tuple[Shown | None, Shown | None] = (None, None)  # reference, painting
        self._made: object = None

    def opened(self) -> None:
        self._asked, self._came, self._made = None, (None, None), None
        self.painting.show_levels(None, (1, 1))
        self._take(CheckLook())

    def left(self) -> None:
        self._blink.stop()

    def refresh(self) -> Sheets:
        c, look = self.page.commission, self.look
        self._pair.setDirection(beside_or_above(c.compose))
        if look.side == "blinking" and not self._blink.isActive():
            self._blink.start()
        if look.squint:
            self.page.workroom.references.want(c.compose, self.page, self._reference_came)
        else:
            show_reference(self.reference, self.page.workroom.references, c.compose, self.page, self._reference_came)
        self._show_painting()
        self._show_made()
        self.reference.setVisible(look.side == "beside" or (look.side == "blinking" and not self._painting_shows))
        self.painting.setVisible(look.side in ("beside", "split") or self._painting_shows)
        return Sheets(self._sections(), self._switches())

    # --- pictures

    def _reference_came(self, shown: Shown) -> None:
        if self._came[0] is not shown:
            self._came = (shown, self._came[1])
            self._show_made()

    def _show_painting(self) -> None:
        c = self.page.commission
        photo = c.check.newest
        self.painting.waiting = _DROP
        if not c.compose.framed or photo is None:
            self.painting.show_levels(None, (1, 1))
            return
        size = (c.compose.width_mm, c.compose.height_mm)
        measured = self.page.measuring.asking.found_for(photo)
        wanted = (photo.photo_id, photo.corners, size, measured is not None)
        if wanted == self._asked:
            return
        if measured is not None:
            # In an even light, as measuring has it: what differs is paint.
            self._asked, self._came = wanted, (self._came[0], Shown(measured.flat, make_levels(measured.flat, True)))
            return
        self._asked, self._came = wanted, (self._came[0], None)
        self.painting.waiting = "Reading the photograph…"
        self.painting.show_levels(None, size)

        def ready(shown: Shown) -> None:
            if self._asked == wanted:
                self._came = (self._came[0], shown)
                self._show_made()

        def failed(trouble: Exception) -> None:
            if self._asked == wanted:
                self.painting.waiting = str(trouble)
                self.painting.update()

        want_canvas(self.page.workroom, photo, size, self.page, ready, failed)

    def _show_made(self) -> None:
        """Both as they are looked at now; made once for each look."""
        c, look = self.page.commission, self.look
        size = (c.compose.width_mm, c.compose.height_mm)
        reference, painting = self._came
        made = (id(reference), id(painting), look.squint, look.side)
        if made == self._made:
            return
        self._made = made
        if look.squint and reference is not None:
            self.reference.setProperty("reference", "")
            self.reference.show_levels(make_levels(squinted(reference.picture), True), size)
        if painting is None:
            return
        shown = squinted(painting.picture) if look.squint else painting.picture
        if look.side == "split" and reference is not None:
            whole = squinted(reference.picture) if look.squint else reference.picture
            shown = joined(whole, shown)
        plain = not look.squint and look.side != "split"
        self.painting.show_levels(painting.levels if plain else make_levels(shown, True), size)

    # --- looking

    def blink_now(self) -> None:
        """Show the other one of the two."""
        self._painting_shows = not self._painting_shows
        self.page.refresh()

    def set_look(self, look: CheckLook) -> Meaning:
        """Look at both in another way."""
        self._take(look)
        self.page.refresh()
        return None

    def _take(self, look: CheckLook) -> None:
        before, self.look = self.look, look
        self.frame.turn(look.flip == "mirror", look.flip == "down", look.grey)
        if look.side == "blinking":
            self._blink.start()
        else:
            self._blink.stop()
            self._painting_shows = False
        if look.squint != before.squint and not look.squint:
            self.reference.setProperty("reference", "")
            self._made = None
        if look.small != before.small:
            compose = self.page.commission.compose if self.page.commission_id else None
            if look.small and compose is not None:
                w, h = compose.width_mm / _SMALL, compose.height_mm / _SMALL
                area = Rect(compose.width_mm / 2 - w / 2, compose.height_mm / 2 - h / 2, w, h)
                self.painting.fit(area)
            else:
                self.frame.fit()

    def _switches(self) -> tuple[Switch, ...]:
        look = self.look
        flips = (("upright", "upright"), ("mirror", "mirrored"), ("down", "upside down"))
        sides = (("beside", "side by side"), ("blinking", "blinking"), ("split", "split"))
        return (
            Switch("Both", flips, lambda v: self.set_look(replace(look, flip=v)), look.flip),
            Switch("in", ((False, "colour"), (True, "grey")), lambda v: self.set_look(replace(look, grey=v)), look.grey),
            Switch("", sides, lambda v: self.set_look(replace(look, side=v)), look.side),
        )

    def _sections(self) -> tuple[Section, ...]:
        page, c = self.page, self.page.commission
        ways = "F mirrors both, then turns them upside down. G shows greys. B blinks, S splits. Q squints, T makes both small. + and − zoom."
        return (
            Section("The painting", (*photo_lines(c.check.newest, last_painted(c.easel), page.workroom.now), *page.photo_presses())),
            page.seen_section(),
            Section("Ways to look", (Note(ways),), "F G B S Q T + −"),
        )  # fmt: skip

    def key(self, event: QKeyEvent) -> bool:
        word, look = event.text().lower(), self.look
        looks = {
            "f": replace(look, flip=FLIPS[(FLIPS.index(look.flip) + 1) % len(FLIPS)]),
            "g": replace(look, grey=not look.grey),
            "b": replace(look, side="beside" if look.side == "blinking" else "blinking"),
            "s": replace(look, side="beside" if look.side == "split" else "split"),
            "q": replace(look, squint=not look.squint),
            "t": replace(look, small=not look.small),
        }
        if word in looks:
            self.set_look(looks[word])
        elif event.key() == Qt.Key.Key_Escape and look != CheckLook():
            self.set_look(CheckLook())
        else:
            return False
        return True


def photo_lines(photo: PaintingPhoto | None, painted: datetime | None, now: datetime) -> tuple[Line, ...]:
    """When it was photographed, and whether it has been painted on since."""
    if photo is None:
        return (Note("Photograph the painting straight on, the whole canvas in the picture, in even daylight."),)
    lines: list[Line] = [Fact("Photographed", clock_text(photo.at, now)), Fact("File", photo.name)]
    if painted is not None and photo.at < painted:
        lines.append(Note("Painted on since then: photograph it again.", "wrong"))
    return tuple(lines)
