"""Scribble marks: photograph them, lay the reference over, draw where its lines meet the marks; later photographs are laid on by them."""

from dataclasses import replace
from pathlib import Path
from typing import TYPE_CHECKING, Literal

from yarrow_lane.canvas_photo.taken import Taken, with_corner, with_newest
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.days import day_text
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Point, Polygon
from yarrow_lane.measure.progress import Progress
from yarrow_lane.transfer.carrying import takes_light_lines
from yarrow_lane.transfer.marks.laid import COATS, USUAL_SHARE, LaidMarks
from yarrow_lane.transfer.record import TRANSFER
from yarrow_lane.ui.asked import Asked
from yarrow_lane.ui.bench_sheet import Amount, Fact, Line, Meaning, NextAct, Note, Press, Section, Switch
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.reference_view import beside_or_above, show_reference
from yarrow_lane.ui.on_photo import PhotoCorners, chosen_file, corners_section, note_photograph, take_in
from yarrow_lane.ui.rooms.transfer.marks_view import before_photo, laid_lines, marks_section, wanting_overlays
from yarrow_lane.ui.rooms.transfer.mode import Mode, Sheets
from yarrow_lane.ui.rooms.transfer.over_canvas import OverCanvas
from yarrow_lane.ui.rooms.transfer.saving import save_overlay
from yarrow_lane.ui.rooms.transfer.squares_view import drawn_overlay
from yarrow_lane.ui.rooms.transfer.way_lines import carried_act, way_section

if TYPE_CHECKING:
    from yarrow_lane.standins import easel_photo
    from yarrow_lane.ui.rooms.transfer.page import TransferPage
else:
    easel_photo = late("yarrow_lane.standins.easel_photo")

Look = Literal["corners", "overlay"]
Over = Literal["picture", "lines"]
_ON_DARK, _ON_LIGHT = (255, 140, 95), (165, 45, 20)  # the lines: neither chalk nor charcoal, or they were taken for marks


class MarksMode(Mode):
    """The reference beside the marked surface with the reference laid over it."""

    name = "marks"

    def __init__(self, page: "TransferPage") -> None:
        super().__init__(page)
        self.reference = PictureView("Reference", page.frame)
        self.surface = PictureView("Your canvas with its marks", page.frame)
        self.picture = self.surface
        self._pair = self.lay(self.reference, self.surface)
        self.corners = PhotoCorners(self.surface, page, self._corner_moved)
        self.look: Look = "corners"
        self.over: Over = "picture"
        self.share = USUAL_SHARE
        # The first photograph's marks, and a later one laid on it.
        question, size = "transfer.question:lay_on_marks", lambda laid: int(laid.picture.nbytes)
        self._first: Asked[LaidMarks] = Asked(page, question, size, self._came)
        self._later: Asked[LaidMarks] = Asked(page, question, size, self._came)
        self.mixed = OverCanvas(page, self.surface)

    def opened(self) -> None:
        self.look = "overlay" if len(self.photos) else "corners"
        self._forget()

    @property
    def photos(self) -> tuple[Taken, ...]:
        return self.page.commission.transfer.marked_surface if self.page.commission_id else ()

    # --- photographs

    def takes_files(self) -> bool:
        return True

    def take(self, path: Path) -> None:
        self._take_in(path, path.name)

    def _take_in(self, source: Path | bytes, name: str) -> None:
        page, commission_id, size = self.page, self.page.commission_id, self._size

        def kept(photo: Taken) -> None:
            self.look = "corners"
            self._forget()
            label = f"Photographed the marks: {name}"
            edit = Edit(TRANSFER, label, lambda t: replace(t, marked_surface=with_newest(t.marked_surface, photo)))
            page.desk.do(commission_id, edit)

        take_in(page, source, name, size, kept)

    @property
    def _size(self) -> Point:
        compose = self.page.commission.compose
        return compose.width_mm, compose.height_mm

    def _choose(self) -> Meaning:
        path = chosen_file(self.page, "Choose a photograph of the marks")
        if path is not None:
            self.take(path)
        return None

    def _simulate(self) -> Meaning:
        page, number = self.page, len(self.photos)
        size, ground, compose = self._size, page.ground, page.commission.compose

        def make(progress: Progress) -> bytes:
            painting = page.workroom.references.for_print(compose, compose.canvas, 1.0, progress) if number else None
            return easel_photo.photograph_of_marks(size, ground, painting, number)

        name = f"camera stand-in {number + 1}.jpg"
        page.workroom.works.run("The camera stand-in", make, lambda data: self._take_in(data, name))
        return None

    def _corner_moved(self, number: int, to: Point) -> None:
        def step(photos: tuple[Taken, ...]) -> tuple[Taken, ...]:
            return (*photos[:-1], with_corner(photos[-1], number, to))

        edit = Edit(TRANSFER, "Set a corner of the marked canvas", lambda t: replace(t, marked_surface=step(t.marked_surface)))
        self.page.attempt(lambda: self.page.take(edit))

    # --- shown

    def refresh(self) -> Sheets:
        page, photos = self.page, self.photos
        self._pair.setDirection(beside_or_above(page.commission.compose))
        show_reference(self.reference, page.workroom.references, page.commission.compose, page)
        lines = (drawn_overlay(page.lines, 1.0),) if page.lines else ()
        if not photos:
            self.surface.tool = None
            self.surface.ground = page.ground
            self.surface.show_levels(None, self._size)
            self.surface.show_overlays(*lines)
            self.reference.show_overlays()
            act = NextAct("Choose a photograph of the marks…", "all four corners in it", self._choose)
            return Sheets(
                (before_photo(self._size, page.studio.unit, self._simulate), way_section(page, "scribble marks")),
                page.way_switches(),
                act,
            )
        looks: tuple[tuple[Look, str], ...] = (("corners", "corners"), ("overlay", "overlay"))
        switches: tuple[Switch, ...] = (Switch("Look at", looks, self._look_at, self.look),)
        if self.look == "corners":
            self.mixed.forget()
            self.corners.show(photos[-1])
            self.reference.show_overlays()
            act = NextAct("Lay the reference over it", "the sides are fitted from there", lambda: self._look_at("overlay"))
            section = corners_section("the canvas", "the canvas's own top left")
            return Sheets((section, self._photos()), (*switches, *page.way_switches()), act)
        self.corners.forget()
        self._want()
        self._show_overlay()
        over = Switch("Laid over", (("picture", "picture"), ("lines", "lines")), self._lay, self.over)
        sections = (
            self._laid_section(),
            *(
                (marks_section(self.first, page.studio.unit),) if len(photos) == 1 else ()
            ),  # once painting has begun no more are added
            Section("Under paint", tuple(Note(words) for words in COATS), "what coats do"),
            self._photos(),
            way_section(page, "scribble marks"),
        )
        return Sheets(sections, (*switches, over, *page.way_switches()), self._act())

    def _act(self) -> NextAct | None:
        if self.trouble:
            return NextAct("Look at the corners", "pull them to where they are", lambda: self._look_at("corners"))
        if self.laid is None:
            return NextAct("Laying it over…", "some seconds", None, False)
        return carried_act(self.page, "scribble marks")

    def _look_at(self, look: Look) -> Meaning:
        self.look = look
        self.page.frame.fit()
        self.page.refresh()
        return None

    def _lay(self, over: Over) -> Meaning:
        self.over = over
        self.page.refresh()
        return None

    def _laid_section(self) -> Section:
        lines: list[Line] = []
        if self.over == "picture":
            lines.append(Amount("The reference shows with", round(100 * self.share), 10, 70, self._set_share, 5, 0, "\u202f%"))
        lines += [Note(self.trouble, "wrong")] if self.trouble else laid_lines(self.laid, len(self.photos) == 1)
        if self.laid is not None:
            lines.append(Press("Save it on a page (PDF)…", self._save))
        return Section("The reference over the marks", tuple(lines))

    def _photos(self) -> Section:
        rows: list[Line] = [Fact(p.name, day_text(p.at.date())) for p in reversed(self.photos[-4:])]
        rows.append(Press("Choose the next photograph…", self._choose))
        rows.append(Press("Take one with the camera stand-in", self._simulate))
        rows.append(Press("Begin with new marks", self._anew))
        return Section("Photographs of the marks", tuple(rows), f"{len(self.photos)}")

    def _anew(self) -> Meaning:
        self.look = "corners"
        self._forget()
        return Edit(TRANSFER, "Began with new marks", lambda t: replace(t, marked_surface=()))

    def _set_share(self, percent: float) -> Meaning:
        self.share = percent / 100
        self.page.refresh()
        return None

    # --- worked out

    def _want(self) -> None:
        photos, size = self.photos, self._size
        pictures = self.page.workroom.pictures

        def told(photo: Taken) -> tuple[Path, str, Polygon]:
            return pictures.file(photo.photo_id, photo.name), photo.name, photo.corners

        first, last = photos[0], photos[-1]
        self._first.want(first.photo_id, (first.photo_id, first.corners, size), lambda: (told(first), None, size))
        if len(photos) > 1:
            wanted = (last.photo_id, last.corners, first.photo_id, first.corners, size)
            self._later.want(last.photo_id, wanted, lambda: (told(last), told(first), size))

    def _came(self, laid: LaidMarks) -> None:
        for asked, photo in ((self._first, self.photos[0]), (self._later, self.photos[-1])):
            if asked.found is laid:
                note_photograph(self.page, photo, "marks", laid.bulge)

    def _forget(self) -> None:
        self.corners.forget()
        self.mixed.forget()
        self._first.forget()
        self._later.forget()

    @property
    def first(self) -> LaidMarks | None:
        """The first photograph, with its marks."""
        return self._first.found

    @property
    def laid(self) -> LaidMarks | None:
        """The newest, laid on the first."""
        return self._first.found if len(self.photos) == 1 else self._later.found

    @property
    def trouble(self) -> str:
        return self._first.trouble or self._later.trouble

    def _show_overlay(self) -> None:
        """The surface, with the reference over it once it is mixed; lines and rings at once."""
        laid, page = self.laid, self.page
        self.surface.tool = None
        self.surface.waiting = self.trouble or "Straightening and looking for the marks…"
        rings = wanting_overlays(self.first.wanting, self._size) if self.first is not None and len(self.photos) == 1 else ()
        lines = page.lines if self.over == "lines" else None
        colour = _ON_DARK if takes_light_lines(page.ground) else _ON_LIGHT
        self.surface.show_overlays(*((replace(drawn_overlay(lines, 1.4), colour=colour),) if lines else ()), *rings)
        self.reference.show_overlays(*((drawn_overlay(lines, 1.0),) if lines else ()), *rings)
        self.mixed.show(laid.picture if laid is not None else None, self.share if self.over == "picture" else 0.0)

    def _save(self) -> Meaning:
        if self.laid is not None:
            save_overlay(self.page, self.laid, self.share if self.over == "picture" else 0.0)
        return None
