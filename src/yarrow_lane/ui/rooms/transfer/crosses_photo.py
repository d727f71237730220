"""The projector's light checked from a photograph: the canvas's corners, then the four crosses, found and pulled right."""

from typing import TYPE_CHECKING

from yarrow_lane.canvas_photo.taken import Taken, with_corner
from yarrow_lane.measure.plane import Point
from yarrow_lane.transfer.crosses import Crosses, corners_of, crosses_square, crosses_words
from yarrow_lane.ui.bench_sheet import Fact, Line, Meaning, NextAct, Note, Press, Section
from yarrow_lane.ui.kit.drawing_tools import GripsTool
from yarrow_lane.ui.kit.levels import Levels, qimage
from yarrow_lane.ui.kit.overlays import Outline, Overlay, Ring, Words
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.rooms.transfer.asked import Asked
from yarrow_lane.ui.rooms.transfer.mode import Sheets
from yarrow_lane.ui.rooms.transfer.on_photo import (
    PhotoCorners,
    Source,
    chosen_file,
    corners_section,
    note_photograph,
    take_in,
)

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.transfer.page import TransferPage

_NAMES = ("top left", "top right", "lower right", "lower left")


class CrossesOnPhoto:
    """One photograph at a time, of this sitting: the projector is set right and photographed again."""

    def __init__(self, page: "TransferPage") -> None:
        self._page = page
        self.view = PictureView("The light on the canvas")
        self._corners = PhotoCorners(self.view, page, self._corner_moved)
        self._grips = GripsTool(lambda number, to: None, self._cross_moved)
        self._asked: Asked[Crosses] = Asked(page, "transfer.question:find_crosses", lambda found: found.picture.nbytes)
        self.photo: Taken | None = None
        self._set = False  # the corners were accepted
        self._by_hand: dict[int, Point] = {}
        self._shown: object = None

    def opened(self) -> None:
        """Another commission came in."""
        self.photo, self._set, self._shown = None, False, None
        self._by_hand = {}
        self._asked.forget()
        self._corners.forget()

    @property
    def _size(self) -> Point:
        compose = self._page.commission.compose
        return compose.width_mm, compose.height_mm

    def take(self, source: Source, name: str) -> None:
        """Look at that picture."""

        def kept(photo: Taken) -> None:
            self.opened()
            self.photo = photo
            self._page.refresh()

        take_in(self._page, source, name, self._size, kept)

    @property
    def places(self) -> tuple[Point, ...]:
        """Where the crosses are: by hand, else found, else where they belong."""
        found = self._asked.found
        seen = found.seen if found is not None else (None,) * 4
        return tuple(self._by_hand.get(n) or seen[n] or corner for n, corner in enumerate(corners_of(self._size)))

    @property
    def unknown(self) -> tuple[str, ...]:
        """The crosses that neither were found nor set."""
        found = self._asked.found
        return tuple(
            name for n, name in enumerate(_NAMES) if n not in self._by_hand and (found is None or found.seen[n] is None)
        )

    def refresh(self) -> Sheets:
        """The photograph, and what is to be done with it."""
        photo = self.photo
        if photo is None:
            self.view.tool = None
            self.view.waiting = "Show the crosses alone (B), photograph the whole canvas, then drop the file here."
            self.view.show_levels(None, (1, 1))
            self.view.show_overlays()
            note = Note(
                "What falls beside the canvas lies on the wall behind it: hold a card level with the face at each corner."
            )
            act = NextAct("Choose a photograph of the crosses…", "all four corners in it", self._choose)
            return Sheets((Section("Does it stand square?", (note,)),), (), act)
        if not self._set:
            self._shown = None
            self._corners.show(photo)
            act = NextAct("Look for the crosses", "the sides are fitted from there", self._accept)
            return Sheets((corners_section("the canvas", "the canvas's own top left"),), (), act)
        self._corners.forget()
        pictures = self._page.workroom.pictures
        told, size = (photo.name, photo.corners), self._size
        wanted = (photo.photo_id, photo.corners, size)
        self._asked.want(photo.photo_id, wanted, lambda: ((pictures.file(photo.photo_id, photo.name), *told), size))
        found = self._asked.found
        self.view.waiting = self._asked.trouble or "Straightening and looking for the crosses…"
        if found is None:
            self.view.show_levels(None, (1, 1))
            back = NextAct("Look at the corners", "pull them to where they are", self._back) if self._asked.trouble else None
            return Sheets((Section("Does it stand square?", (Note(self.view.waiting),)),), (), back)
        self._show(found)
        return Sheets((self._said(),), (), NextAct("Choose the next photograph…", "after setting it right", self._choose))

    def _show(self, found: Crosses) -> None:
        width, height = self._size
        wide = width + 2 * found.rim_mm, height + 2 * found.rim_mm
        if self._shown is not found:
            self._shown = found
            self.view.show_levels(Levels((qimage(found.picture),)), wide)
            if self.photo is not None:
                note_photograph(self._page, self.photo, "crosses", 0.0)

        def at(place: Point) -> Point:
            return place[0] + found.rim_mm, place[1] + found.rim_mm

        self._grips.points = [at(p) for p in self.places]
        self.view.tool = self._grips
        overlays: list[Overlay] = [Outline(tuple(at(p) for p in corners_of(self._size)), "light", 1.2, "dashes")]
        overlays.append(Outline(tuple(at(p) for p in self.places), "here", 1.4))
        for number, (name, place) in enumerate(zip(_NAMES, self.places, strict=True)):
            if name in self.unknown:
                overlays += [Ring(at(place), radius_px=9, ink="off", weight=1.6, line="dots"), Words(at(place), f"{name}?")]
            else:
                overlays.append(
                    Ring(at(place), radius_px=6, ink="holds" if number not in self._by_hand else "here", weight=1.6)
                )
        self.view.show_overlays(*overlays)

    def _said(self) -> Section:
        lines: list[Line] = []
        if self.unknown:
            names = ", ".join(self.unknown)
            lines.append(Note(f"Not seen: the cross {names}. Pull the dotted ring onto it.", "wrong"))
        else:
            square = crosses_square(self._size, self.places)
            good = square.holds
            lines += [
                Fact("Top wider than foot by", f"{square.taper_mm:+.1f}\u202fmm"),
                Fact("Leans at the foot by", f"{square.lean_mm:+.1f}\u202fmm"),
                Fact("Too wide by", f"{square.width_off_mm:+.1f}\u202fmm"),
            ]
            lines += [Note(words, "good" if good else "wrong") for words in crosses_words(self._size, self.places)]
        lines.append(Press("Set the corners again", self._back))
        return Section("Does it stand square?", tuple(lines))

    def _choose(self) -> Meaning:
        path = chosen_file(self._page, "Choose a photograph of the crosses")
        if path is not None:
            self.take(path, path.name)
        return None

    def _accept(self) -> Meaning:
        self._set = True
        self._page.refresh()
        return None

    def _back(self) -> Meaning:
        self._set = False
        self._by_hand = {}
        self._asked.forget()
        self._page.refresh()
        return None

    def _corner_moved(self, number: int, to: Point) -> None:
        if self.photo is not None:
            self.photo = with_corner(self.photo, number, to)
            self._page.attempt(self._page.refresh)

    def _cross_moved(self, number: int, to: Point) -> None:
        found = self._asked.found
        if found is not None:
            self._by_hand[number] = to[0] - found.rim_mm, to[1] - found.rim_mm
            self._page.attempt(self._page.refresh)
