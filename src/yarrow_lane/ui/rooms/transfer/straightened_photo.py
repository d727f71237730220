"""A photograph on one view: first its corners are set, then a worker makes something of it."""

from abc import ABC, abstractmethod
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import TYPE_CHECKING, Any, Generic, TypeVar

from yarrow_lane.canvas_photo.taken import Taken, with_corner
from yarrow_lane.measure.plane import Point
from yarrow_lane.ui.asked import Asked
from yarrow_lane.ui.bench_sheet import Meaning, NextAct, Note, Section
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.on_photo import PhotoCorners, chosen_file, corners_section, take_in
from yarrow_lane.ui.rooms.transfer.mode import Sheets

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.transfer.page import TransferPage

T = TypeVar("T")


@dataclass(frozen=True)
class PhotoWords:
    """What is said on the way: the bench's heading, choosing the file and what has to be in it, the empty view and a note beside it,
    whose corners they are and from where clockwise, accepting them (words and detail), and while the worker is at it.
    """

    title: str
    choose: str
    in_it: str
    empty: str
    note: str
    of: str
    clockwise_from: str
    accept: tuple[str, str]
    working: str


class StraightenedPhoto(ABC, Generic[T]):
    """Subclasses say where the photograph is kept and what else the worker is told."""

    def __init__(
        self, page: "TransferPage", view: PictureView, words: PhotoWords, question: str, size: Callable[[T], int]
    ) -> None:  # fmt: skip
        self.page, self.view, self.words = page, view, words
        self.asked: Asked[T] = Asked(page, question, size, self.came)
        self.accepted = False  # the corners
        self._corners = PhotoCorners(view, page, lambda number, to: self._corner_moved(number, to))

    # --- hooks

    @property
    @abstractmethod
    def photo(self) -> Taken | None:
        """The one on record."""

    @abstractmethod
    def keep(self, photo: Taken, label: str) -> None:
        """It is the photograph now, or its corners are elsewhere."""

    def more_told(self) -> tuple[Any, ...]:
        """What the worker is told beside the photograph and the canvas's size."""
        return ()

    def came(self, found: T) -> None:
        """The worker found something."""

    # --- the photograph

    def opened(self) -> None:
        """Another commission came in."""
        self.anew()

    def left(self) -> None:
        """Something else is shown on the view."""
        self._corners.forget()

    @property
    def size_mm(self) -> Point:
        compose = self.page.commission.compose
        return compose.width_mm, compose.height_mm

    def take(self, path: Path) -> None:
        """Take that file in, for the commission that is open now."""
        commission_id = self.page.commission_id

        def kept(photo: Taken) -> None:
            if self.page.commission_id == commission_id:
                self.anew()
                self.keep(photo, f"Took in {path.name}")

        take_in(self.page, path, path.name, self.size_mm, kept)

    def anew(self) -> None:
        """Nothing is known of the photograph any more."""
        self.asked.forget()
        self._corners.forget()
        self.accepted = False

    def choose(self) -> Meaning:
        """Ask for another file."""
        path = chosen_file(self.page, self.words.choose)
        if path is not None:
            self.take(path)
        return None

    def to_corners(self) -> Meaning:
        """Back to the corners."""
        self.anew()
        self.page.refresh()
        return None

    def _accept(self) -> Meaning:
        self.accepted = True
        self.page.refresh()
        return None

    def _corner_moved(self, number: int, to: Point) -> None:
        photo = self.photo
        if photo is not None:
            self.page.attempt(lambda: self.keep(with_corner(photo, number, to), f"Set a corner of {self.words.of}"))

    # --- shown

    def on_the_way(self) -> Sheets | None:
        """What is shown until the worker has found something; None once it has."""
        photo, words, view = self.photo, self.words, self.view
        view.ground = None
        if photo is None:
            view.tool = None
            view.setProperty("reference", "")
            view.waiting = words.empty
            view.show_levels(None, (1, 1))
            view.show_overlays()
            act = NextAct(f"{words.choose}…", words.in_it, self.choose)
            return Sheets((Section(words.title, (Note(words.note),)),), (), act)
        if not self.accepted:
            self._corners.show(photo)
            act = NextAct(*words.accept, self._accept)
            return Sheets((corners_section(words.of, words.clockwise_from),), (), act)
        self._corners.forget()
        self._want(photo)
        if self.asked.found is not None:
            return None
        trouble = self.asked.trouble
        view.waiting = trouble or words.working
        view.show_levels(None, self.size_mm)
        view.show_overlays()
        back = NextAct("Look at the corners", "pull them to where they are", self.to_corners) if trouble else None
        return Sheets((Section(words.title, (Note(view.waiting, "wrong" if trouble else "plain"),)),), (), back)

    def _want(self, photo: Taken) -> None:
        size, more, pictures = self.size_mm, self.more_told(), self.page.workroom.pictures

        def arguments() -> tuple[Any, ...]:
            return (pictures.file(photo.photo_id, photo.name), photo.name, photo.corners), size, *more

        self.asked.want(photo.photo_id, (photo.photo_id, photo.corners, size, *more), arguments)
