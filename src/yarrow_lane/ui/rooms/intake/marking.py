"""One photograph, large: eyes by a drag across the iris, landmarks by a click, nudged by keys; and what lies over it."""

from collections.abc import Callable
from dataclasses import replace
from typing import TYPE_CHECKING

from PySide6.QtCore import Qt
from PySide6.QtGui import QImage, QKeyEvent

from yarrow_lane.desk.derived import Key, Making
from yarrow_lane.intake.evidence import Evidence
from yarrow_lane.intake.iris_rim import change_words, snapped
from yarrow_lane.intake.landmarks import Landmark
from yarrow_lane.intake.partner import lone_eye, partner_of
from yarrow_lane.intake.photos import (
    INTAKE,
    Eye,
    Intake,
    Photo,
    Side,
    mark_eye,
    mark_landmark,
    nudge_eye,
    nudge_landmark,
)
from yarrow_lane.intake.sides import sitters_own
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.measure.progress import Progress
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.tools import PointsTool, RingTool
from yarrow_lane.ui.pictures import Shown
from yarrow_lane.ui.rooms.intake.evidence_lines import sitter_of
from yarrow_lane.ui.rooms.intake.marks import marks_on
from yarrow_lane.ui.rooms.intake.overlays import overlay_of
from yarrow_lane.ui.rooms.intake.view import Look, marks_for, partner_on

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.intake.page import IntakePage

_ARROWS = {Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0), Qt.Key.Key_Up: (0, -1), Qt.Key.Key_Down: (0, 1)}
_GROWTH = {"[": -0.5, "]": 0.5}
_SIDES: dict[str, Side] = {"left": "left", "right": "right"}


class Marking:
    """The table of the large photograph and what hands do on it, for the page."""

    def __init__(self, page: "IntakePage") -> None:
        self._page = page
        self.picture = PictureView("The photograph")
        self._ring = RingTool(self._mark_eye)
        self._point = PointsTool(lambda _: None, self._mark_point)
        self._shown_id = ""
        self._shown: Shown | None = None
        self._laid = ("", "")
        self._asked: tuple[str, Eye] | None = None  # for which photograph and marked eye the other was looked for

    def forget(self) -> None:
        """Another commission came in."""
        self._shown_id, self._shown, self._laid, self._asked = "", None, ("", ""), None

    def show(self, photo: Photo, evidence: Evidence | None, look: Look) -> None:
        """Put a photograph on the table with its marks and measures."""
        size = (photo.width_px, photo.height_px)
        self.picture.tool = self._ring if look.mark in _SIDES else self._point
        self._point.area = Rect(0, 0, *size)
        self._look_for_partner(photo)
        self.picture.show_overlays(*marks_on(photo, evidence, look.mark, partner_on(photo, look)))
        if photo.id != self._shown_id:
            self._shown_id, self._shown = photo.id, None
            self.picture.waiting = f"Reading {photo.name}…"
            self.picture.show_levels(None, size)

        def ready(shown: Shown) -> None:
            if self._shown_id == photo.id:
                self._shown = shown
                self.picture.show_levels(shown.levels, size)
                self._lay(photo, self._page.look.overlay)
                self._look_for_partner(photo)

        if self._shown is None or not self._shown.whole:
            self._page.workroom.pictures.photo(photo.id, photo.name, self._page, ready)
        self._lay(photo, look.overlay)

    def _look_for_partner(self, photo: Photo) -> None:
        """Once one eye is marked, look for the other; what is found is shown as a guess."""
        shown, marked = self._shown, lone_eye(photo)
        if shown is None or not shown.whole or marked is None or self._asked == (photo.id, marked):
            return
        self._asked = wanted = (photo.id, marked)
        page = self._page

        def make(_: Progress) -> tuple[Eye, ...]:
            found = partner_of(shown.picture, marked)
            return () if found is None else (found,)

        def ready(found: tuple[Eye, ...]) -> None:
            if self._asked == wanted and found:
                page.look = replace(page.look, partner=(photo.id, found[0]))
                page.refresh()

        key = Key("partner", (photo.id,), (marked.side, marked.x, marked.y, marked.radius_px))
        page.workroom.derived.want(key, page, Making(make, len), ready)

    def take_partner(self) -> None:
        """The guess of the other eye becomes its mark."""
        photo = self._page.commission.intake.photo(self._page.chosen_id)
        guess = partner_on(photo, self._page.look)
        if guess is not None and self._edit(
            f"Took the guess of the {sitters_own(guess.side)} eye", lambda i: mark_eye(i, photo.id, guess)
        ):
            self._page.workroom.say("Look closely: is the ring on the iris? R sets it to the rim, arrows move it.", False)

    def snap(self) -> None:
        """The marked iris set to its rim, where one is clear; what it changed is said."""
        photo = self._page.commission.intake.photo(self._page.chosen_id)
        mark, shown = self._page.look.mark, self._shown
        eye = photo.eye(_SIDES[mark]) if mark in _SIDES else None
        if eye is None or shown is None or not shown.whole:
            return
        after = snapped(shown.picture, eye)
        if after is None:
            self._page.workroom.say("No clear rim was found there; the ring stays as it was.", False)
        elif self._edit(f"Set the {sitters_own(mark)} eye to its rim", lambda i: mark_eye(i, photo.id, after)):
            self._page.workroom.say(f"A guess, look closely: {change_words(eye, after)}. Ctrl+Z takes it back.", False)

    def _lay(self, photo: Photo, kind: str) -> None:
        """Lay what is cut off, or where the cast is read, over the photograph."""
        shown = self._shown if self._shown is not None and self._shown.whole else None
        wanted = (photo.id, kind) if kind and shown is not None else ("", "")
        if wanted == self._laid:
            return
        self._laid = wanted
        self.picture.laid = None
        self.picture.update()
        if shown is None or not kind:
            return

        def ready(image: QImage) -> None:
            if self._laid == wanted:
                self.picture.laid = image
                self.picture.update()

        def make(_: Progress) -> QImage:
            return overlay_of(shown.picture, kind)

        key = Key("overlay", (photo.id,), (kind,))
        self._page.workroom.derived.want(key, self._page, Making(make, lambda i: i.sizeInBytes()), ready)

    # --- marking

    def _edit(self, label: str, step: Callable[[Intake], Intake], join: str = "") -> bool:
        edit = Edit(INTAKE, label, step, join)
        return self._page.hand(lambda: edit) is None

    def _mark_eye(self, centre: Point, radius: float) -> None:
        side = _SIDES[self._page.look.mark]
        eye, photo_id = Eye(side, *centre, radius), self._page.chosen_id
        if self._edit(f"Marked the {sitters_own(side)} eye", lambda i: mark_eye(i, photo_id, eye)):
            self._next_mark()

    def _mark_point(self, at: Point) -> None:
        point, photo_id = Landmark(self._page.look.mark, *at), self._page.chosen_id
        if self._edit(f"Marked the {sitters_own(point.name)}", lambda i: mark_landmark(i, photo_id, point)):
            self._next_mark()

    def _next_mark(self) -> None:
        """Go on to the first thing of the template that is not marked yet."""
        c, look = self._page.commission, self._page.look
        photo = c.intake.photo(look.chosen_id)
        done = {e.side for e in photo.eyes} | {m.name for m in photo.landmarks}
        left = [m for m in marks_for(c, photo) if m not in done]
        if left and look.mark in done:
            self._page.look = replace(look, mark=left[0])
            self._page.refresh()

    def key(self, event: QKeyEvent) -> bool:
        """Arrows nudge what is being marked by a pixel, [ and ] change the size of an iris."""
        if event.text().lower() == "p" and self._page.look.partner is not None:
            self.take_partner()
            return True
        if event.text().lower() == "r":
            self.snap()
            return True
        step, grow = _ARROWS.get(Qt.Key(event.key())), _GROWTH.get(event.text(), 0.0)
        if step is None and not grow:
            return False
        far = 10 if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 1
        dx, dy = (far * step[0], far * step[1]) if step is not None else (0, 0)
        mark, photo_id = self._page.look.mark, self._page.chosen_id
        join = f"nudge {photo_id} {mark}"
        if mark in _SIDES:
            side = _SIDES[mark]
            self._edit(f"Nudged the {sitters_own(mark)} eye", lambda i: nudge_eye(i, photo_id, side, dx, dy, grow), join)
        elif step is not None:
            self._edit(f"Nudged the {sitters_own(mark)}", lambda i: nudge_landmark(i, photo_id, mark, dx, dy), join)
        return True

    def suggest(self) -> None:
        """Let the detector guess; it says when it cannot."""
        page = self._page
        workroom, commission_id = page.workroom, page.commission_id
        photo = page.commission.intake.photo(page.chosen_id)
        sitter = sitter_of(page.commission, photo)
        kind = sitter.kind if sitter else "other"

        def work(progress: Progress) -> tuple[Eye, ...]:
            path = workroom.pictures.file(photo.id, photo.name)
            found: tuple[Eye, ...] = workroom.workers.ask(
                "intake.suggestions:suggest_in_file", path, photo.name, kind, progress=progress
            )
            return found

        def done(found: tuple[Eye, ...]) -> None:
            if not found:
                workroom.say("No eyes could be found with any certainty; drag across them yourself.", False)
                return

            def step(intake: Intake) -> Intake:
                for eye in found:
                    intake = mark_eye(intake, photo.id, eye)
                return intake

            page.desk.do(commission_id, Edit(INTAKE, f"Suggested the eyes of {photo.name}", step))
            workroom.say("Suggested: look closely and set the circles right.", False)

        workroom.works.run("Looking for the eyes", work, done)
