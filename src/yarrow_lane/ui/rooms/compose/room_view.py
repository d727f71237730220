"""The client's photograph of the room with the piece hung in it: corners of a known thing are set, the piece is dragged."""

from dataclasses import replace
from typing import TYPE_CHECKING

from PySide6.QtGui import QImage

from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.compose.room import RoomTrouble, colour_at, hung_in, on_wall, outline_on_photo
from yarrow_lane.compose.sides import outer
from yarrow_lane.compose.wall import RoomPhoto
from yarrow_lane.desk.derived import Key, Making
from yarrow_lane.intake.photos import Photo
from yarrow_lane.measure.lengths import length_text
from yarrow_lane.measure.plane import Point
from yarrow_lane.measure.raster import Picture, resized
from yarrow_lane.ui.bench_sheet import Field, Length, Line, Meaning, Note, Pick, Press, Section
from yarrow_lane.ui.kit.drawing_tools import GripsTool
from yarrow_lane.ui.kit.levels import Levels, array_of, qimage
from yarrow_lane.ui.kit.overlays import Outline, Words
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.pictures import Shown

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.compose.page import ComposePage

_SHOWN_PX = 1300  # our choice: the longer side of the photograph as it is shown
_MIDDLE = 4  # the fifth grip: the piece


class RoomView:
    """Four grips on the corners, a fifth in the piece's middle."""

    def __init__(self, page: "ComposePage") -> None:
        self._page = page
        self.view = PictureView("The client's room, with the piece in it")
        self.grips = GripsTool(self._dragging, self._dragged)
        self.view.tool = self.grips
        self._photo: tuple[str, Picture, float] | None = None
        self._art: QImage | None = None
        self._on_table = ""  # the photograph shown

    def opened(self) -> None:
        """Another commission came in."""
        self._photo, self._art, self._on_table = None, None, ""

    @property
    def room(self) -> RoomPhoto | None:
        return self._page.shown.wall.room

    def choose(self, photo_id: str) -> Meaning:
        """Begin with a photograph: corners in its middle, to be set."""
        photo = self._page.commission.intake.photo(photo_id)
        w, h = photo.width_px, photo.height_px
        corners = ((0.35 * w, 0.35 * h), (0.65 * w, 0.35 * h), (0.65 * w, 0.65 * h), (0.35 * w, 0.65 * h))
        return self._set(
            f"Hung it in {photo.name}", RoomPhoto(photo_id, corners, 900.0, 900.0 * h / w, "", (450.0, 450.0 * h / w))
        )

    def _set(self, label: str, room: RoomPhoto | None) -> Meaning:
        shown = self._page.shown
        return self._page.proposal(label, replace(shown, wall=replace(shown.wall, room=room)))

    def lines(self) -> tuple[Line, ...]:
        """Which photograph, what is known in it, and what is taken from it."""
        page, room = self._page, self.room
        unit = page.studio.unit
        photos = page.commission.intake.photos
        names = tuple((p.id, p.name) for p in photos)
        if room is None:
            return (Pick("Photograph of the room", None, ((None, "choose one"), *names), self.choose_or_none),)
        return (
            Pick("Photograph of the room", room.photo_id, names, self.choose_or_none),
            Field(
                "What the corners lie on",
                room.what,
                lambda v: self._set("Named the known thing", replace(room, what=v.strip())),
                "the door",
            ),
            Length("Its width", room.width_mm, unit, lambda v: self._set("Wrote its width", replace(room, width_mm=v))),
            Length("Its height", room.height_mm, unit, lambda v: self._set("Wrote its height", replace(room, height_mm=v))),
            Press("Take the wall's colour from here", self.take_colour),
            Press("Without their photograph", lambda: self._set("Hung it on a plain wall", None)),
            Note(
                "Set the four corners on something upright on that wall whose size you know. Then drag the piece to its place."
            ),
        )

    def choose_or_none(self, photo_id: str | None) -> Meaning:
        return self.choose(photo_id) if photo_id is not None else None

    def section(self) -> Section:
        """On the bench."""
        room = self.room
        told = "none" if room is None else room.what or "corners to be set"
        return Section("Their photograph", self.lines(), "" if room is not None else told)

    def take_colour(self) -> Meaning:
        room = self.room
        if room is None or self._photo is None:
            raise RoomTrouble("No colour was taken", "the photograph is still being read", "wait a moment")
        _, picture, scale = self._photo
        x, y = (sum(v) / 4 for v in zip(*outline_on_photo(room, (1.0, 1.0)), strict=True))
        colour = colour_at(picture, scale, (x, y))
        shown = self._page.shown
        return self._page.proposal(
            "Took the wall's colour", replace(shown, wall=replace(shown.wall, colour=colour, source="from their photograph"))
        )

    # --- showing

    def show(self, art: QImage | None) -> None:
        """Show the room with that picture hung in it."""
        room, page = self.room, self._page
        if room is None:
            return
        self._art = art
        photo = next((p for p in page.commission.intake.photos if p.id == room.photo_id), None)
        if photo is None:
            self._on_table = ""
            self.view.waiting = "That photograph was taken away: choose another."
            self.view.show_levels(None, (1, 1))
            return
        if self._photo is None or self._photo[0] != photo.id:
            self._read(photo)
            return
        self._paint(room, photo)

    def _read(self, photo: Photo) -> None:
        self._on_table = ""
        self.view.waiting = f"Reading {photo.name}…"
        self.view.show_levels(None, (photo.width_px, photo.height_px))

        def ready(shown: Shown) -> None:
            if shown.whole and self.room is not None and self.room.photo_id == photo.id:
                picture = resized(shown.picture, _SHOWN_PX)
                self._photo = (photo.id, picture, picture.shape[1] / photo.width_px)
                self._page.refresh()

        self._page.workroom.pictures.photo(photo.id, photo.name, self._page, ready)

    def _paint(self, room: RoomPhoto, photo: Photo) -> None:
        assert self._photo is not None
        _, plain, scale = self._photo
        compose, size = self._page.shown, (float(photo.width_px), float(photo.height_px))
        overlays = [Outline(room.corners, "here", 1.6, "dashes")]
        grips = list(room.corners)
        trouble, picture = "", None
        try:
            around = outline_on_photo(room, _over_all(compose))
            overlays.append(Outline(around, "light", 1.0))
            grips.append((sum(x for x, _ in around) / 4, sum(y for _, y in around) / 4))
            picture = self._hung(room, compose, plain, scale)
        except RoomTrouble as error:
            trouble = error.sentence
        if trouble or picture is not None or self._on_table != photo.id:  # until it is hung anew the last one stays
            self._on_table = photo.id
            self.view.show_levels(Levels((qimage(plain if picture is None else picture),)), size)
        unit = self._page.studio.unit
        words = trouble or f"{room.what or 'known'}, {length_text(room.width_mm, unit, 0)} wide"
        self.view.show_overlays(*overlays, Words(room.corners[0], words, "right", shift=(4.0, -12.0)))
        self.grips.points = grips

    def _hung(self, room: RoomPhoto, compose: Compose, photo: Picture, scale: float) -> Picture | None:
        """The photograph with the piece hung in it; None while it is made."""
        if self._art is None:
            return None
        art, size, derived = array_of(self._art), (compose.width_mm, compose.height_mm), self._page.workroom.derived
        made_of = (room, size, art.shape)
        key = Key("room with the piece", (room.photo_id, reference_key(compose)), made_of)
        found: Picture | None = derived.have(key)
        if found is None and not derived.under_way(key):
            making = Making(lambda _: hung_in(photo, scale, room, art, size), lambda picture: picture.nbytes)
            derived.want(key, self._page, making, lambda _: self._page.refresh())
        return found

    # --- hands

    def _with(self, number: int, to: Point) -> RoomPhoto | None:
        room = self.room
        if room is None:
            return None
        if number == _MIDDLE:
            return replace(room, at_mm=on_wall(room, to))
        corners = tuple(to if n == number else c for n, c in enumerate(room.corners))
        return replace(room, corners=corners)

    def _dragging(self, number: int, to: Point) -> None:
        def follow() -> None:
            room = self._with(number, to)
            if room is None:
                return
            self.grips.points = [to if n == number else p for n, p in enumerate(self.grips.points)]
            shown = [Outline(room.corners, "here", 1.6, "dashes")]
            shown.append(Outline(outline_on_photo(room, _over_all(self._page.shown)), "light", 1.4))
            self.view.show_overlays(*shown)

        try:
            follow()
        except RoomTrouble:
            return  # on its way a corner may pass another: it is said when it is let go there

    def _dragged(self, number: int, to: Point) -> None:
        def change() -> None:
            room = self._with(number, to)
            if room is not None:
                self._page.take(self._set("Moved it on the wall" if number == _MIDDLE else "Set a corner", room))
                self._page.refresh()

        self._page.attempt(change)


def _over_all(compose: Compose) -> Point:
    size = outer(compose.sides, compose.width_mm, compose.height_mm)
    return size.width_mm, size.height_mm
