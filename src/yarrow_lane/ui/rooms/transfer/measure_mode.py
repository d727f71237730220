"""Measure the drawing: a photograph of the canvas, its corners, and how far off every place was drawn."""

from collections.abc import Callable
from dataclasses import replace
from pathlib import Path
from typing import TYPE_CHECKING, Literal

from PySide6.QtWidgets import QFileDialog, QHBoxLayout

from yarrow_lane.compose.reference import reference_key
from yarrow_lane.desk.derived import Key, Making
from yarrow_lane.intake.opening import PictureFacts
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.days import day_text
from yarrow_lane.measure.plane import Point
from yarrow_lane.measure.progress import Progress
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.measure.words import begun
from yarrow_lane.transfer.landmarks import Place, head_mm, places_on
from yarrow_lane.transfer.proof.measured import Flat, Verdict, judged
from yarrow_lane.transfer.proof.photo import DrawingPhoto, Photos, usual_corners, with_corner, with_photo, with_place
from yarrow_lane.transfer.proof.split import tolerance_mm, whole_words
from yarrow_lane.transfer.squares import TRANSFER, squares_of
from yarrow_lane.ui.bench_sheet import Fact, Line, Meaning, NextAct, Note, Press, Section, Switch
from yarrow_lane.ui.file_words import ENDINGS
from yarrow_lane.ui.kit.drawing_tools import GripsTool
from yarrow_lane.ui.kit.levels import Levels, qimage
from yarrow_lane.ui.kit.overlays import Ink, Outline, Overlay, Ring, Words
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.reference_view import show_reference
from yarrow_lane.ui.pictures import Shown
from yarrow_lane.ui.rooms.transfer.mode import Mode, Sheets
from yarrow_lane.ui.rooms.transfer.squares_view import drawn_overlay

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.transfer.page import TransferPage

Look = Literal["corners", "places"]
_TEN = 10  # arrows are so many times as long as the error


class MeasureMode(Mode):
    """The photograph with its corners, then the straightened drawing beside what should be there."""

    name = "measure the drawing"

    def __init__(self, page: "TransferPage") -> None:
        super().__init__(page)
        self.drawing = PictureView("Your drawing")
        self.meant = PictureView("What should be there")
        self.picture = self.drawing
        box = QHBoxLayout(self.widget)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        box.addWidget(self.drawing, 1)
        box.addWidget(self.meant, 1)
        self.look: Look = "corners"
        self.flat: Flat | None = None
        self.trouble = ""
        self._asked: object = None
        self._shown: object = None
        self.corners = GripsTool(self._corner_moving, self._corner_moved)
        self.grips = GripsTool(lambda number, to: None, self._place_moved)

    def opened(self) -> None:
        self.look, self.flat, self.trouble, self._asked, self._shown = "corners", None, "", None, None
        if self.photo is not None and self.photo.off:
            self.look = "places"

    @property
    def photo(self) -> DrawingPhoto | None:
        """The newest."""
        return next(iter(reversed(self.page.commission.transfer.photos)), None)

    def _places(self) -> tuple[Place, ...]:
        c = self.page.commission
        return places_on(c.compose, c.intake.photos)

    def refresh(self) -> Sheets:
        page, photo = self.page, self.photo
        show_reference(self.meant, page.workroom.references, page.commission.compose, page)
        self.meant.setVisible(photo is not None and self.look == "places")
        if photo is None:
            self.drawing.waiting = (
                "Photograph the canvas from before it, all four corners in the picture, then drop the file here."
            )
            self.drawing.show_levels(None, (1, 1))
            self.drawing.show_overlays()
            return Sheets(
                (self._first(),), (), NextAct("Choose a photograph of the drawing…", "all four corners in it", self._choose)
            )
        if self.look == "corners":
            self._show_corners(photo)
            return Sheets(
                (self._corner_section(), self._photos()),
                self._switches(),
                NextAct("Measure it", "the sides are fitted from there", self._measure),
            )
        self._want(photo)
        verdict = self._verdict(photo)
        self._show_places(photo, verdict)
        return Sheets((*self._verdict_sections(photo, verdict), self._photos()), self._switches(), self._act(photo, verdict))

    def _switches(self) -> tuple[Switch, ...]:
        return (Switch("Look at", (("corners", "the corners"), ("places", "the places")), self._look_at, self.look),)

    def _look_at(self, look: Look) -> Meaning:
        self.look, self._shown = look, None
        self.page.refresh()
        return None

    def _first(self) -> Section:
        return Section(
            "Proof of the drawing",
            (
                Note("Every place marked at Intake is found again in the drawing and its error told in mm."),
                Note("Set the four corners; the sides are then fitted and the lens's bulge is taken out."),
                Fact("Places marked", str(len(self._places()))),
            ),
        )

    # --- the photograph

    def _choose(self) -> Meaning:
        name, _ = QFileDialog.getOpenFileName(self.page, "Choose a photograph of the drawing", str(Path.home()), ENDINGS)
        if name:
            self.take(Path(name))
        return None

    def take(self, path: Path) -> None:
        """Keep that file as the newest photograph of the drawing."""
        page, commission_id = self.page, self.page.commission_id

        def work(progress: Progress) -> tuple[str, PictureFacts]:
            return page.workroom.photographs.keep_picture(path, path.name, progress)

        def done(kept: tuple[str, PictureFacts]) -> None:
            compose = page.desk.commission(commission_id).compose
            size = kept[1].width_px, kept[1].height_px
            corners = usual_corners(*size, compose.width_mm, compose.height_mm)
            photo = DrawingPhoto(kept[0], path.name, size, page.workroom.now, corners, (), reference_key(compose))
            self.look, self.flat, self._asked, self._shown = "corners", None, None, None
            label = f"Photographed the drawing: {path.name}"
            page.desk.do(commission_id, Edit(TRANSFER, label, lambda t: replace(t, photos=with_photo(t.photos, photo))))

        page.workroom.works.run(f"Reading {path.name}", work, done)

    def _show_corners(self, photo: DrawingPhoto) -> None:
        self.corners.points = photo.corners
        self.drawing.tool = self.corners
        self.drawing.show_overlays(Outline(photo.corners, "here", 1.6))
        if self._shown == photo.photo_id:
            return
        self._shown = photo.photo_id
        self.drawing.waiting = f"Reading {photo.name}…"
        self.drawing.show_levels(None, photo.size_px)

        def ready(shown: Shown) -> None:
            if self._shown == photo.photo_id:
                self.drawing.show_levels(shown.levels, photo.size_px)

        self.page.workroom.pictures.photo(photo.photo_id, photo.name, self.page, ready)

    def _corner_moving(self, number: int, to: Point) -> None:
        if self.photo is not None:
            corners = tuple(to if n == number else c for n, c in enumerate(self.photo.corners))
            self.corners.points = corners
            self.drawing.show_overlays(Outline(corners, "here", 1.6))

    def _corner_moved(self, number: int, to: Point) -> None:
        self._take("Set a corner of the canvas", lambda photos: with_corner(photos, number, to))

    def _take(self, label: str, step: Callable[[Photos], Photos]) -> None:
        edit = Edit(TRANSFER, label, lambda t: replace(t, photos=step(t.photos)), "corner")
        self.page.attempt(lambda: self.page.take(edit))

    def _corner_section(self) -> Section:
        return Section(
            "The corners of the canvas",
            (
                Note(
                    "Pull each corner to where the painted face ends: from the canvas's own top left, clockwise. Zoom with the wheel."
                ),
                Note("A stretched canvas shows its depth too: the inner edge is the face's."),
            ),
        )

    def _photos(self) -> Section:
        photos = self.page.commission.transfer.photos
        rows: list[Line] = [Fact(p.name, day_text(p.at.date())) for p in reversed(photos[-4:])]
        rows.append(Press("Take another photograph in…", self._choose))
        return Section("Photographs of the drawing", tuple(rows), f"{len(photos)}")

    # --- measured

    def _measure(self) -> Meaning:
        return self._look_at("places")

    def _want(self, photo: DrawingPhoto) -> None:
        page, c, lines = self.page, self.page.commission, self.page.lines
        if lines is None:
            return
        squares = squares_of(c.compose, c.transfer)
        ruled = (squares.lines_across(), squares.lines_down()) if squares is not None else ((), ())
        places = tuple(p.at for p in self._places())
        wanted = (photo.photo_id, photo.corners, page.workroom.lines.key(c, c.transfer.lines), places, ruled)
        if self._asked == wanted:
            return
        self._asked, self.flat, self.trouble = wanted, None, ""
        size = c.compose.width_mm, c.compose.height_mm
        pictures, workers = page.workroom.pictures, page.workroom.workers
        paths = tuple(line.points for line in lines)

        def make(progress: Progress) -> Flat:
            path = pictures.file(photo.photo_id, photo.name)
            found: Flat = workers.ask(
                "transfer.question:measure_drawing",
                path,
                photo.name,
                photo.corners,
                size,
                paths,
                places,
                ruled,
                progress=progress,
            )
            return found

        def ready(flat: Flat) -> None:
            if self._asked == wanted:
                self.flat, self._shown = flat, None
                page.refresh()

        def failed(trouble: Trouble) -> None:
            if self._asked == wanted:
                self.trouble = str(trouble)
                page.workroom.report(trouble)
                page.refresh()

        key = Key("drawing measured", (photo.photo_id,), wanted)
        page.workroom.derived.want(key, page, Making(make, lambda flat: flat.picture.nbytes), ready, failed)

    def _verdict(self, photo: DrawingPhoto) -> Verdict | None:
        if self.flat is None:
            return None
        places = self._places()
        return judged([p.full_name for p in places], [p.at for p in places], self.flat, dict(photo.set_by_hand))

    def _tolerance(self) -> float:
        compose = self.page.commission.compose
        return tolerance_mm(head_mm(self._places()), compose.width_mm, compose.height_mm)

    def _show_places(self, photo: DrawingPhoto, verdict: Verdict | None) -> None:
        compose = self.page.commission.compose
        size = compose.width_mm, compose.height_mm
        self.drawing.waiting = self.trouble or "Straightening and measuring…"
        if self.flat is None:
            self._shown = None
            self.drawing.show_levels(None, size)
        elif self._shown != id(self.flat):
            self._shown = id(self.flat)
            self.drawing.show_levels(Levels((qimage(self.flat.picture),)), size)
        on_drawing: list[Overlay] = []
        on_meant: list[Overlay] = [drawn_overlay(self.page.lines, 1.0)] if self.page.lines else []
        tolerance = self._tolerance()
        self.grips.points = [p.drawn for p in verdict.places] if verdict is not None else []
        self.drawing.tool = self.grips
        for number, place in enumerate(verdict.places if verdict is not None else (), 1):
            end = place.drawn[0] - _TEN * place.rest[0], place.drawn[1] - _TEN * place.rest[1]
            ink: Ink = "here" if place.mm > tolerance else "light"
            on_drawing += [
                Outline((place.drawn, end), ink, 2.2, closed=False),
                Words(place.drawn, str(number), "right", (6.0, 0.0)),
            ]
            on_meant += [Ring(place.belongs, tolerance, ink), Words(place.belongs, str(number), "right", (6.0, 0.0))]
        self.drawing.show_overlays(*on_drawing)
        self.meant.show_overlays(*on_meant)

    def _place_moved(self, number: int, to: Point) -> None:
        photo = self.photo
        verdict = self._verdict(photo) if photo is not None else None
        if verdict is not None and number < len(verdict.places):
            name = verdict.places[number].name
            self._take(f"Set where the {name} was drawn", lambda photos: with_place(photos, name, to))

    def _verdict_sections(self, photo: DrawingPhoto, verdict: Verdict | None) -> tuple[Section, ...]:
        if verdict is None:
            if self.flat is None:
                return (
                    Section(
                        "Proof of the drawing",
                        (Note(self.trouble or "Straightening and measuring…", "wrong" if self.trouble else "plain"),),
                    ),
                )
            why = (
                "The lines on the canvas are not recognised as these lines."
                if self.flat.found is None
                else "Fewer than two places are sure."
            )
            return (
                Section("Proof of the drawing", (Note(f"{why} Is it this painting, upright, its corners right?", "wrong"),)),
            )
        tolerance = self._tolerance()
        whole: list[Line] = [Fact(begun(what), value) for what, value in whole_words(verdict.whole)] or [
            Note("Nothing: it sits where it belongs.")
        ]
        if whole_words(verdict.whole):
            whole.append(
                Note(
                    "Taken out of what follows. "
                    + ("Worth moving or knowing." if verdict.whole.seen else "Leave it: nobody sees it."),
                    "wrong" if verdict.whole.seen else "good",
                )
            )
        rows: list[Line] = [
            Fact(
                f"{n}  {p.name}{', by hand' if p.by_hand else ''}",
                f"{p.mm:.1f}\u202fmm",
                "wrong" if p.mm > tolerance else "good",
            )
            for n, p in enumerate(verdict.places, 1)
        ]
        redraw = [Note(f"{begun(p.name)}: {p.words}.", "wrong") for p in verdict.places if p.mm > tolerance][:5]
        held = verdict.holding(tolerance)
        sure: list[Line] = [
            Fact("Places that hold", f"{held} of {len(verdict.places)}", "good" if held == len(verdict.places) else "plain"),
            Fact("Allowed", f"{tolerance:.1f}\u202fmm"),
        ]
        before = next((p for p in reversed(self.page.commission.transfer.photos[:-1]) if p.off), None)
        if before is not None:
            was = sum(mm <= tolerance for _, mm in before.off)
            sure.append(Fact(f"On {day_text(before.at.date())}", f"{was} of {len(before.off)} held"))
        if verdict.asked:
            sure.append(
                Note(
                    f"No line leads to {', '.join(verdict.asked)}: not measured. Found places are a proposal: pull one where it is wrong."
                )
            )
        if self.flat is not None and self.flat.weak:
            sure.append(Note(f"The {' and '.join(self.flat.weak)} edge is not well seen: look at its corners.", "wrong"))
        if photo.made_from != reference_key(self.page.commission.compose):
            sure.append(Note("The drawing was photographed for an earlier composition.", "wrong"))
        found = [Section("The whole first", tuple(whole)), Section("Each place, mm from where it belongs", tuple(rows))]
        if redraw:
            found.append(Section("To redraw", tuple(redraw)))
        return (*found, Section("How it stands", tuple(sure)))

    def _act(self, photo: DrawingPhoto, verdict: Verdict | None) -> NextAct | None:
        if self.trouble or (self.flat is not None and verdict is None):
            return NextAct("Look at the corners", "pull them to where they are", lambda: self._look_at("corners"))
        if verdict is None:
            return NextAct("Measuring…", "a moment", None, False)
        if not photo.off:
            tolerance = self._tolerance()
            wrong = len(verdict.places) - verdict.holding(tolerance)
            title = f"Note it: {wrong} to redraw" if wrong else "Note it: the drawing holds"
            return NextAct(title, "the next photograph says what improved", lambda: self._note(verdict))
        return NextAct("Choose the next photograph…", "after redrawing", self._choose)

    def _note(self, verdict: Verdict) -> Meaning:
        off = tuple((p.name, round(p.mm, 2)) for p in verdict.places)
        return Edit(
            TRANSFER, "Measured the drawing", lambda t: replace(t, photos=(*t.photos[:-1], replace(t.photos[-1], off=off)))
        )
