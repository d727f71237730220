"""On the wall: the piece at true scale where it will hang, and what of it is seen from where the client sits."""

from dataclasses import replace
from typing import TYPE_CHECKING

from PySide6.QtGui import QImage, QKeyEvent
from PySide6.QtWidgets import QStackedWidget, QVBoxLayout, QWidget

from yarrow_lane.commission.eyes import eyes_on_canvas
from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.detail import largest_canvas
from yarrow_lane.compose.fitting_sizes import Advised, advised_sizes
from yarrow_lane.compose.ground import Lab
from yarrow_lane.compose.hanging import hung
from yarrow_lane.compose.places import photo_px_per_mm
from yarrow_lane.compose.proofs import PROOFS
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.compose.seen_from import EASEL_MM, paint_words, seen_from, smallest_mm, usual_details
from yarrow_lane.compose.sides import outer
from yarrow_lane.compose.wall import Furniture, Wall
from yarrow_lane.desk.derived import Key, Making
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.colour.munsell_value import value_of
from yarrow_lane.measure.colour.screen import hex_of
from yarrow_lane.measure.lengths import length_text, size_text
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.progress import Progress
from yarrow_lane.measure.raster import Picture
from yarrow_lane.ui.bench_sheet import Amount, Fact, Field, Length, Line, Meaning, NextAct, Note, Press, Section, Table
from yarrow_lane.ui.kit.levels import qimage
from yarrow_lane.ui.rooms.compose.at_hand import ReferenceImage
from yarrow_lane.ui.rooms.compose.colour_lines import value_line
from yarrow_lane.ui.rooms.compose.mode import Mode, Sheets
from yarrow_lane.ui.rooms.compose.room_view import RoomView
from yarrow_lane.ui.rooms.compose.view import sizes_in
from yarrow_lane.ui.rooms.compose.wall_drawing import Hanging, wall_picture
from yarrow_lane.ui.rooms.compose.wall_view import FARTHEST_MM, NEAREST_MM, WalkStrip, WallView

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.compose.page import ComposePage

_STEP_MM = 250.0  # of one notch of the wheel: our choice
_EYE_PX, _HUNG_PX = 220, 700  # of an eye and of the piece as they are shown: our choice
_PROOF_PX = (1600, 1000)  # of the wall in the proof: our choice


class WallMode(Mode):
    """The wall, and beneath it how far details carry."""

    name = "on the wall"

    def __init__(self, page: "ComposePage") -> None:
        super().__init__(page)
        self.view = WallView(self.walk)
        self.strip = WalkStrip(self.stand_at)
        self.widget = QWidget()
        box = QVBoxLayout(self.widget)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        self.room = RoomView(page)
        self.stack = QStackedWidget()
        self.stack.addWidget(self.view)
        self.stack.addWidget(self.room.view)
        box.addWidget(self.stack, 1)
        box.addWidget(self.strip)
        self._picture = ReferenceImage(page, _HUNG_PX)
        self._eye: tuple[str, Picture, float] | None = None
        self._distance: float | None = None  # walked to, not decided

    def why_not(self) -> str:
        return "" if self.page.commission.compose.sized else "the canvas has no size yet: choose one first"

    def opened(self) -> None:
        self._eye, self._distance = None, None
        self._picture.forget()
        self.room.opened()

    def left(self) -> None:
        self._distance = None
        self._picture.leave()

    @property
    def wall(self) -> Wall:
        return self.page.shown.wall

    @property
    def distance_mm(self) -> float:
        return self._distance if self._distance is not None else self.wall.distance_mm

    def walk(self, steps: int) -> None:
        """Nearer or farther by steps."""
        self.stand_at(self.distance_mm + steps * _STEP_MM)

    def stand_at(self, distance_mm: float) -> None:
        """Look from there; it is not decided yet."""
        self._distance = round(min(FARTHEST_MM, max(NEAREST_MM, distance_mm)) / 50) * 50
        self.page.refresh()

    def refresh(self) -> Sheets:
        compose, wall, unit = self.page.shown, self.wall, self.page.studio.unit
        size = outer(compose.sides, compose.width_mm, compose.height_mm)
        hangs = hung(wall, size)
        advised = self._advised(compose)
        picture = self._picture.of(compose)
        self.view.show_hanging(self._hanging(compose, advised, picture))
        self._show_strip(compose)
        self.stack.setCurrentWidget(self.room.view if wall.room is not None else self.view)
        self.picture = self.room.view if wall.room is not None else None
        self.room.show(picture)
        name, furniture = wall.furniture.name, wall.furniture
        wall_lines: list[Line] = [
            Field(
                "Colour, in the client's words",
                wall.source or self.page.commission.brief.wall_colour,
                lambda v: self._set("Wrote the wall's colour", source=v),
                "grey green",
            ),
            value_line("Value", wall.colour, self._colour),
            Amount(
                "Red to green",
                round(-wall.colour[1], 0),
                -40,
                40,
                lambda v: self._colour((wall.colour[0], -v, wall.colour[2])),
                1,
            ),
            Amount(
                "Blue to yellow",
                round(wall.colour[2], 0),
                -40,
                60,
                lambda v: self._colour((wall.colour[0], wall.colour[1], v)),
                1,
            ),
            Length(
                "Free width",
                wall.free_width_mm,
                unit,
                lambda v: self._set("Wrote the free width", free_width_mm=v),
                2200.0,
                True,
            ),
        ]
        below: list[Line] = [
            Field("What stands below", name, lambda v: self._furniture(name=v.strip()), "a sofa"),
            Length("Its width", furniture.width_mm, unit, lambda v: self._furniture(width_mm=v), 1800.0, True),
            Length("Its height", furniture.height_mm, unit, lambda v: self._furniture(height_mm=v), 820.0, True),
        ]
        told = f"value {value_of(wall.colour[0]):.1f}" + (f", {wall.source}" if wall.source else "")
        below_told = f"{name}, {length_text(furniture.height_mm, unit, 0)} high" if name and furniture.height_mm else "nothing"
        hung_lines: list[Line] = [
            Fact("Over all", size_text(size.width_mm, size.height_mm, unit)),
            Fact("Its middle above the floor", length_text(hangs.middle_mm, unit, 0)),
        ]
        if hangs.of_width:
            low, high = hangs.wanted
            mood = "good" if low <= hangs.of_width <= high else "plain"
            hung_lines.append(Fact(f"Of the width of the {hangs.over}", f"{hangs.of_width:.0%}", mood))  # type: ignore[arg-type]
            hung_lines.append(Note(f"Between {low:.0%} and {high:.0%} looks settled, from memory."))
        sections = [Section("Hung so", tuple(hung_lines)), *self._size_section(advised), self._seen_section()]
        sections += [
            Section("The wall", tuple(wall_lines), told),
            Section("Below it", tuple(below), below_told),
            self.room.section(),
        ]
        act = None
        if compose.framed and not self.page.commission.proofs.with_wall:
            words = f"page 2, seen from {self.distance_mm / 1000:.2f}\u202fm"
            act = NextAct("Put this wall in the proof", words, self._into_proof)
        return Sheets(tuple(sections), (), act)

    def _into_proof(self) -> Meaning:
        return Edit(PROOFS, "Put the wall in the proof", lambda p: replace(p, with_wall=True))

    def for_proof(self, compose: Compose, picture: QImage) -> Picture:
        """The wall as it is drawn, with that picture hung on it, for the proof's second page."""
        return wall_picture(self._hanging(compose, (), picture), *_PROOF_PX)

    def _size_section(self, advised: tuple[Advised, ...]) -> list[Section]:
        if not advised:
            return []
        rows = tuple((a.format.name, a.why or "") for a in advised)
        takes = [
            Press(f"Take {a.format.name}", lambda n=f"{a.format.series} {a.format.name}": self.page.sizing.choose_format(n))  # type: ignore[misc]
            for a in advised
            if f"{a.format.series} {a.format.name}" != self.page.shown.format_name
        ]
        budget = self.page.commission.brief.budget
        note = (Note(f"Budget as told: {budget}."),) if budget else ()
        return [Section("Stock sizes that suit", (Table(("size", "why"), rows), *note, *takes[:2]), rows[0][0])]

    def _seen_section(self) -> Section:
        distance, unit = self.distance_mm, self.page.studio.unit
        lines: list[Line] = [
            Fact("Seen from", length_text(distance, unit, 0) if distance < 1000 else f"{distance / 1000:.2f}\u202fm"),
            Fact("Smallest detail seen", f"{smallest_mm(distance):.2f}\u202fmm"),
            Note(paint_words(distance)),
        ]
        if self._distance is not None and self._distance != self.wall.distance_mm:
            lines.append(Press("They look from here", lambda: self._set("Set the viewing distance", distance_mm=distance)))
        return Section("Seen by the client", tuple(lines))

    def _advised(self, compose: Compose) -> tuple[Advised, ...]:
        c = self.page.commission
        carries = None
        laid = compose.behind
        photo = next((p for p in c.intake.photos if laid and p.id == laid.photo_id), None)
        if photo is not None and not compose.pieces:
            seen = self.page.desk.evidence.of_all((photo,)).get(photo.id)
            carries = largest_canvas(compose, photo, seen)
        return advised_sizes(self.wall, compose.proportion, sizes_in(self.page.sizing.series, self.page.studio), carries)

    def _hanging(self, compose: Compose, advised: tuple[Advised, ...], picture: QImage | None) -> Hanging:
        unit, sides, wall = self.page.studio.unit, compose.sides, compose.wall
        size = outer(sides, compose.width_mm, compose.height_mm)
        others = []
        for a in advised[:2]:
            f = a.format
            w, h = (f.long_mm, f.short_mm) if compose.lies else (f.short_mm, f.long_mm)
            if abs(w - compose.width_mm) > 10 or abs(h - compose.height_mm) > 10:
                others.append((w, h, f.name))
        framed = sides.frame == "floating"
        words = size_text(compose.width_mm, compose.height_mm, unit)
        if framed:
            words += f" · {size_text(size.width_mm, size.height_mm, unit)} framed"
        return Hanging(
            hex_of(wall.colour), (compose.width_mm, compose.height_mm), (size.width_mm, size.height_mm),
            (size.from_left, sides.bar_mm), hex_of(sides.bar_colour), framed, hung(wall, size).middle_mm, picture,
            (wall.furniture.name, wall.furniture.width_mm, wall.furniture.height_mm), words, tuple(others),
        )  # fmt: skip

    def _show_strip(self, compose: Compose) -> None:
        eyes = eyes_on_canvas(self.page.commission) if compose == self.page.commission.compose else ()
        iris_mm: float | None = None
        shown: tuple[tuple[QImage, str], ...] = ()
        if eyes:
            largest = max(eyes, key=lambda e: _iris_mm(compose, e.piece_id, e.eye.across_px))
            iris_mm = _iris_mm(compose, largest.piece_id, largest.eye.across_px)
            shown = self._eyes(compose, largest.at_mm, iris_mm)
        self.strip.show_details(usual_details(iris_mm), self.distance_mm, shown)

    def _eyes(self, compose: Compose, at: tuple[float, float], iris_mm: float) -> tuple[tuple[QImage, str], ...]:
        """The nearer eye as it is seen at the easel and from where the client stands."""
        side = 3.2 * iris_mm
        area = Rect(at[0] - side / 2, at[1] - side * 0.38, side, side * 0.76)
        scale = _EYE_PX / side
        key = reference_key(compose) + repr(area)
        if self._eye is None or self._eye[0] != key:
            references = self.page.workroom.references

            def make(progress: Progress) -> Picture:
                return references.for_print(compose, area, scale, progress, "quick")

            def ready(picture: Picture) -> None:
                self._eye = (key, picture, scale)
                self.page.refresh()

            making = Making(make, lambda picture: picture.nbytes)
            self.page.workroom.derived.want(Key("eye on the wall", (key,)), self.page, making, ready)
            return ()
        picture = self._eye[1]
        near, far = (qimage(seen_from(picture, scale, mm)) for mm in (EASEL_MM, self.distance_mm))
        return (near, f"at your easel, {EASEL_MM / 1000:g}\u202fm"), (far, f"from {self.distance_mm / 1000:.2f}\u202fm")

    # --- changes

    def _set(self, label: str, **values: object) -> Meaning:
        self._distance = None if "distance_mm" in values else self._distance
        return self.page.proposal(label, replace(self.page.shown, wall=replace(self.wall, **values)))  # type: ignore[arg-type]

    def _colour(self, colour: Lab) -> Meaning:
        return self._set("Set the wall's colour", colour=colour)

    def _furniture(self, **values: object) -> Meaning:
        below: Furniture = replace(self.wall.furniture, **values)  # type: ignore[arg-type]
        return self._set("Wrote what stands below", furniture=below)

    def key(self, event: QKeyEvent) -> bool:
        if event.text() in ("+", "-"):
            self.walk(-1 if event.text() == "+" else 1)
            return True
        return False


def _iris_mm(compose: Compose, piece_id: int, across_px: float) -> float:
    return across_px / photo_px_per_mm(compose, piece_id)
