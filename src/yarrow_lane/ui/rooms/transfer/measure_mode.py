"""Measure the drawing: a photograph of the canvas, its corners, and how far off every place was drawn."""

from collections.abc import Callable
from dataclasses import replace
from pathlib import Path
from typing import TYPE_CHECKING, Literal

from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QBoxLayout, QVBoxLayout

from yarrow_lane.canvas_photo.taken import Taken, with_newest
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.days import day_text
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.measure.progress import Progress
from yarrow_lane.transfer.landmarks import head_mm
from yarrow_lane.transfer.proof.measured import Flat, Verdict, judged
from yarrow_lane.transfer.proof.photo import DrawingPhoto, Photos, with_corner, with_place
from yarrow_lane.transfer.proof.split import tolerance_mm
from yarrow_lane.transfer.record import TRANSFER, squares_of
from yarrow_lane.ui.asked import Asked
from yarrow_lane.ui.bench_sheet import Fact, Line, Meaning, NextAct, Press, Section, Switch
from yarrow_lane.ui.kit.drawing_tools import GripsTool
from yarrow_lane.ui.kit.frame import Frame
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.reference_view import beside_or_above, show_reference
from yarrow_lane.ui.on_photo import PhotoCorners, Source, chosen_file, corners_section, note_photograph, take_in
from yarrow_lane.ui.rooms.transfer.loupes import Loupes
from yarrow_lane.ui.rooms.transfer.measure_view import MEASURING, Told, before_photo, told_overlays, told_sections
from yarrow_lane.ui.rooms.transfer.mode import Mode, Sheets
from yarrow_lane.ui.rooms.transfer.over_canvas import OverCanvas
from yarrow_lane.ui.rooms.transfer.squares_view import drawn_overlay

if TYPE_CHECKING:
    from yarrow_lane.standins import easel_photo
    from yarrow_lane.ui.rooms.transfer.page import TransferPage
else:
    easel_photo = late("yarrow_lane.standins.easel_photo")

Look = Literal["corners", "places"]
_FADES = (0.0, 0.5, 1.0)  # B steps through: the drawing, both, what should be there


class MeasureMode(Mode):
    """The photograph with its corners, then the straightened drawing beside what should be there."""

    name = "measure"

    def __init__(self, page: "TransferPage") -> None:
        super().__init__(page)
        self.frame = Frame()  # its own: corners are looked at closely
        self.drawing = PictureView("Your drawing", self.frame)
        self.meant = PictureView("What should be there", self.frame)
        self.picture = self.drawing
        box = QVBoxLayout(self.widget)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        pair = self._pair = QBoxLayout(QBoxLayout.Direction.LeftToRight)
        pair.setSpacing(0)
        pair.addWidget(self.drawing, 1)
        pair.addWidget(self.meant, 1)
        box.addLayout(pair, 3)
        self.loupes = Loupes(self._go_near)
        box.addWidget(self.loupes)
        self.look: Look = "corners"
        self.fade = 0.0
        self._measuring: Asked[Flat] = Asked(
            page, "transfer.question:measure_drawing", lambda flat: flat.picture.nbytes, self._came
        )
        self.over = OverCanvas(page, self.drawing)
        self.corners = PhotoCorners(self.drawing, page, self._corner_moved)
        self.grips = GripsTool(lambda number, to: None, self._place_moved)

    def opened(self) -> None:
        self.look, self.fade = "corners", 0.0
        self._anew()
        if self.photo is not None and self.photo.off:
            self.look = "places"

    @property
    def photo(self) -> DrawingPhoto | None:
        """The newest."""
        return next(iter(reversed(self.page.commission.transfer.photos)), None)

    def refresh(self) -> Sheets:
        page, photo = self.page, self.photo
        self._pair.setDirection(beside_or_above(page.commission.compose))
        show_reference(self.meant, page.workroom.references, page.commission.compose, page)
        self.meant.setVisible(photo is not None and self.look == "places")
        if photo is None or self.look != "places" or self.flat is None:
            self.loupes.hide()
        if photo is None:
            self.drawing.waiting = (
                "Photograph the canvas from before it, all four corners in the picture, then drop the file here."
            )
            self.drawing.show_levels(None, (1, 1))
            self.drawing.show_overlays()
            act = NextAct("Choose a photograph of the drawing…", "all four corners in it", self._choose)
            return Sheets((before_photo(len(page.places()), self._simulate),), (), act)
        if self.look == "corners":
            self.over.forget()
            self.corners.show(photo)
            act = NextAct("Measure it", "the sides are fitted from there", lambda: self._look_at("places"))
            section = corners_section("the canvas", "the canvas's own top left")
            return Sheets((section, self._photos()), self._switches(), act)
        self.corners.forget()
        self._want(photo)
        told = self.told()
        self._show_places(told)
        remark = "B fades into what should be there" if told.flat is not None else ""
        return Sheets((*told_sections(told), self._photos()), self._switches(), self._act(photo, told), remark)

    def told(self) -> Told:
        """What is known of the newest photograph."""
        page, c, photo = self.page, self.page.commission, self.photo
        assert photo is not None
        places = page.places()
        verdict = None
        if self.flat is not None:
            verdict = judged([p.full_name for p in places], [p.at for p in places], self.flat, dict(photo.set_by_hand))
        tolerance = tolerance_mm(head_mm(places), c.compose.width_mm, c.compose.height_mm)
        before = next((p for p in reversed(c.transfer.photos[:-1]) if p.off), None)
        stale = photo.made_from != reference_key(c.compose)
        return Told(self.flat, verdict, tolerance, before, stale, self.trouble)

    def _switches(self) -> tuple[Switch, ...]:
        looks = (("corners", "the corners"), ("places", "the places"))
        return (Switch("Look at", looks, self._look_at, self.look), *self.page.way_switches())

    def _look_at(self, look: Look) -> Meaning:
        self.look = look
        self.frame.fit()
        self.page.refresh()
        return None

    # --- the photograph

    def takes_files(self) -> bool:
        return True

    def _choose(self) -> Meaning:
        path = chosen_file(self.page, "Choose a photograph of the drawing")
        if path is not None:
            self.take(path)
        return None

    def take(self, path: Path) -> None:
        """Keep that file as the newest photograph of the drawing."""
        self._take_in(path, path.name)

    def _take_in(self, source: Source, name: str) -> None:
        page, commission_id = self.page, self.page.commission_id
        compose = page.commission.compose

        def kept(taken: Taken) -> None:
            made_from = reference_key(page.desk.commission(commission_id).compose)
            photo = DrawingPhoto(taken.photo_id, taken.name, taken.size_px, taken.at, taken.corners, (), made_from)
            self.look = "corners"
            self._anew()
            edit = Edit(
                TRANSFER, f"Photographed the drawing: {name}", lambda t: replace(t, photos=with_newest(t.photos, photo))
            )
            page.desk.do(commission_id, edit)

        take_in(page, source, name, (compose.width_mm, compose.height_mm), kept)

    def _simulate(self) -> Meaning:
        page, number = self.page, len(self.page.commission.transfer.photos)
        compose, lines = page.commission.compose, tuple(line.points for line in page.lines or ())
        size, ground = (compose.width_mm, compose.height_mm), page.ground

        def make(_: Progress) -> bytes:
            return easel_photo.photograph_of_drawing(size, ground, lines, number)

        name = f"camera stand-in, drawing {number + 1}.jpg"
        page.workroom.works.run("The camera stand-in", make, lambda data: self._take_in(data, name))
        return None

    def _corner_moved(self, number: int, to: Point) -> None:
        self._take("Set a corner of the canvas", lambda photos: with_corner(photos, number, to))

    def _take(self, label: str, step: Callable[[Photos], Photos]) -> None:
        edit = Edit(TRANSFER, label, lambda t: replace(t, photos=step(t.photos)))
        self.page.attempt(lambda: self.page.take(edit))

    def _photos(self) -> Section:
        photos = self.page.commission.transfer.photos
        rows: list[Line] = [Fact(p.name, day_text(p.at.date())) for p in reversed(photos[-4:])]
        rows.append(Press("Take another photograph in…", self._choose))
        rows.append(Press("Take one with the camera stand-in", self._simulate))
        return Section("Photographs of the drawing", tuple(rows), f"{len(photos)}")

    # --- measured

    def _want(self, photo: DrawingPhoto) -> None:
        page, c, lines = self.page, self.page.commission, self.page.lines
        if lines is None:
            return
        squares = squares_of(c.compose, c.transfer)
        ruled = (squares.lines_across(), squares.lines_down()) if squares is not None else ((), ())
        places = tuple(p.at for p in page.places())
        wanted = (photo.photo_id, photo.corners, page.line_source.key(c, c.transfer.lines), places, ruled)
        size = c.compose.width_mm, c.compose.height_mm
        paths = tuple(line.points for line in lines)

        def arguments() -> tuple[object, ...]:
            path = page.workroom.pictures.file(photo.photo_id, photo.name)
            return path, photo.name, photo.corners, size, paths, places, ruled

        self._measuring.want(photo.photo_id, wanted, arguments)

    def _anew(self) -> None:
        """Nothing is known of the photograph, or there is another."""
        self._measuring.forget()
        self.corners.forget()
        self.over.forget()

    def _came(self, flat: Flat) -> None:
        if self.photo is not None:
            note_photograph(self.page, self.photo, "drawing", flat.bulge)

    @property
    def flat(self) -> Flat | None:
        """The newest photograph straightened and measured, once it is."""
        return self._measuring.found

    @property
    def trouble(self) -> str:
        return self._measuring.trouble

    def _show_places(self, told: Told) -> None:
        compose = self.page.commission.compose
        size = compose.width_mm, compose.height_mm
        self.drawing.waiting = self.trouble or MEASURING
        self.over.show(told.flat.picture if told.flat is not None else None, self.fade)
        self.grips.points = [at for _, at in told.grips]
        self.drawing.tool = self.grips
        on_drawing, on_meant = told_overlays(told)
        self.drawing.show_overlays(*on_drawing)
        lines = (drawn_overlay(self.page.lines, 1.0),) if self.page.lines else ()
        self.meant.show_overlays(*lines, *on_meant)
        if told.flat is not None:
            self.loupes.show_places(told, size, self.page.lines or (), self.page.studio.unit)

    def _go_near(self, area: Rect) -> None:
        self.drawing.fit(area)

    def key(self, event: QKeyEvent) -> bool:
        if event.text().lower() != "b" or self.look != "places" or self.flat is None:
            return False
        self.fade = _FADES[(_FADES.index(self.fade) + 1) % len(_FADES)]
        self.page.refresh()
        return True

    def _place_moved(self, number: int, to: Point) -> None:
        grips = self.told().grips
        if number < len(grips):
            name = grips[number][0]
            self._take(f"Set where the {name} was drawn", lambda photos: with_place(photos, name, to))

    def _act(self, photo: DrawingPhoto, told: Told) -> NextAct | None:
        if told.trouble or (told.flat is not None and told.whole is None):
            return NextAct("Look at the corners", "pull them to where they are", lambda: self._look_at("corners"))
        if told.verdict is None:
            return NextAct("Measuring…", "a moment", None, False)
        if not photo.off:
            verdict = told.verdict
            wrong = len(verdict.places) - verdict.holding(told.tolerance)
            title = f"Note it: {wrong} to redraw" if wrong else "Note it: the drawing holds"
            left = f"{len(verdict.asked)} not found yet · " if verdict.asked else ""
            return NextAct(title, f"{left}the next photograph says what improved", lambda: self._note(verdict))
        return NextAct("Choose the next photograph…", "after redrawing", self._choose)

    def _note(self, verdict: Verdict) -> Meaning:
        off = tuple((p.name, round(p.mm, 2)) for p in verdict.places)
        return Edit(
            TRANSFER, "Measured the drawing", lambda t: replace(t, photos=(*t.photos[:-1], replace(t.photos[-1], off=off)))
        )
