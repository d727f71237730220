"""The projector's light checked from a photograph: the canvas's corners, then the four crosses, found and pulled right."""

from typing import TYPE_CHECKING

from yarrow_lane.canvas_photo.taken import Taken
from yarrow_lane.measure.plane import Point
from yarrow_lane.transfer.crosses import Crosses, corners_of, crosses_square, crosses_words
from yarrow_lane.ui.bench_sheet import Fact, Line, Mood, NextAct, Note, Press, Section
from yarrow_lane.ui.kit.drawing_tools import GripsTool
from yarrow_lane.ui.kit.levels import single_level
from yarrow_lane.ui.kit.overlays import Outline, Overlay, Ring, Words
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.on_photo import note_photograph
from yarrow_lane.ui.rooms.transfer.mode import Sheets
from yarrow_lane.ui.rooms.transfer.straightened_photo import PhotoWords, StraightenedPhoto

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.transfer.page import TransferPage

_NAMES = ("top left", "top right", "lower right", "lower left")
_WORDS = PhotoWords(
    "Does it stand square?",
    "Choose a photograph of the crosses",
    "all four corners in it",
    "Show the crosses alone (B), photograph the whole canvas, then drop the file here.",
    "What falls beside the canvas lies on the wall behind it: hold a card level with the face at each corner.",
    "the canvas",
    "the canvas's own top left",
    ("Look for the crosses", "the sides are fitted from there"),
    "Straightening and looking for the crosses…",
)


class CrossesOnPhoto(StraightenedPhoto[Crosses]):
    """One photograph at a time, of this sitting: the projector is set right and photographed again."""

    def __init__(self, page: "TransferPage") -> None:
        super().__init__(
            page, PictureView("The light on the canvas"), _WORDS, "transfer.question:find_crosses", lambda c: c.picture.nbytes
        )
        self._grips = GripsTool(lambda number, to: None, self._cross_moved)
        self._photo: Taken | None = None
        self._by_hand: dict[int, Point] = {}

    def opened(self) -> None:
        super().opened()
        self._photo = None

    def anew(self) -> None:
        super().anew()
        self._by_hand = {}

    @property
    def photo(self) -> Taken | None:
        return self._photo

    def keep(self, photo: Taken, label: str) -> None:
        self._photo = photo
        self.page.refresh()

    def came(self, found: Crosses) -> None:
        if self._photo is not None:
            note_photograph(self.page, self._photo, "crosses", found.bulge)

    @property
    def places(self) -> tuple[Point, ...]:
        """Where the crosses are: by hand, else found, else where they belong."""
        seen = self.asked.found.seen if self.asked.found is not None else (None,) * 4
        return tuple(self._by_hand.get(n) or seen[n] or corner for n, corner in enumerate(corners_of(self.size_mm)))

    @property
    def unknown(self) -> tuple[str, ...]:
        """The crosses that neither were found nor set."""
        found = self.asked.found
        return tuple(
            name for n, name in enumerate(_NAMES) if n not in self._by_hand and (found is None or found.seen[n] is None)
        )

    def refresh(self) -> Sheets:
        """The photograph, and what is to be done with it."""
        sheets, found = self.on_the_way(), self.asked.found
        if sheets is not None or found is None:
            return sheets or Sheets()
        self._show(found)
        return Sheets((self._said(),), (), NextAct("Choose the next photograph…", "after setting it right", self.choose))

    def _show(self, found: Crosses) -> None:
        (width, height), rim = self.size_mm, found.rim_mm
        self.view.show_levels(single_level(found.picture), (width + 2 * rim, height + 2 * rim))

        def at(place: Point) -> Point:
            return place[0] + rim, place[1] + rim

        self._grips.points = [at(p) for p in self.places]
        self.view.tool = self._grips
        overlays: list[Overlay] = [
            Outline(tuple(at(p) for p in corners_of(self.size_mm)), "light", 1.2, "dashes"),
            Outline(tuple(at(p) for p in self.places), "here", 1.4),
        ]
        for number, (name, place) in enumerate(zip(_NAMES, self.places, strict=True)):
            if name in self.unknown:
                overlays += [Ring(at(place), radius_px=9, ink="off", weight=1.6, line="dots"), Words(at(place), f"{name}?")]
            else:
                overlays.append(Ring(at(place), radius_px=6, ink="here" if number in self._by_hand else "holds", weight=1.6))
        self.view.show_overlays(*overlays)

    def _said(self) -> Section:
        lines: list[Line] = []
        if self.unknown:
            lines.append(Note(f"Not seen: the cross {', '.join(self.unknown)}. Pull the dotted ring onto it.", "wrong"))
        else:
            square = crosses_square(self.size_mm, self.places)
            lines += [
                Fact("Top wider than foot by", f"{square.taper_mm:+.1f}\u202fmm"),
                Fact("Leans at the foot by", f"{square.lean_mm:+.1f}\u202fmm"),
                Fact("Too wide by", f"{square.width_off_mm:+.1f}\u202fmm"),
            ]
            mood: Mood = "good" if square.holds else "wrong"
            lines += [Note(words, mood) for words in crosses_words(self.size_mm, self.places)]
        lines.append(Press("Set the corners again", self.to_corners))
        return Section(_WORDS.title, tuple(lines))

    def _cross_moved(self, number: int, to: Point) -> None:
        found = self.asked.found
        if found is not None:
            self._by_hand[number] = to[0] - found.rim_mm, to[1] - found.rim_mm
            self.page.attempt(self.page.refresh)
