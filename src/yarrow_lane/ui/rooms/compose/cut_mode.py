"""Cutting a sitter out: round it once, mend with strokes, look at its edge on other grounds, place it."""

from dataclasses import replace
from typing import TYPE_CHECKING, Literal

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QApplication

from yarrow_lane.commission.sitters import not_placed
from yarrow_lane.compose.cutting.coats import carried_coats, coat_along, usual_coats
from yarrow_lane.compose.cutting.cut import CutTrouble, Found, Stroke, look_here, weak_share
from yarrow_lane.compose.cutting.first import TOO_UNSURE, first_loop
from yarrow_lane.compose.pieces import Coat, Piece
from yarrow_lane.compose.placing import add_piece, change_piece
from yarrow_lane.desk.derived import Key, Making
from yarrow_lane.intake.brief import Sitter
from yarrow_lane.intake.photos import Photo
from yarrow_lane.measure.plane import Point, Polygon
from yarrow_lane.measure.progress import Progress
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.ui.bench_sheet import Meaning, NextAct
from yarrow_lane.ui.kit.drawing_tools import GripsTool, Round, RoundTool, StrokeTool
from yarrow_lane.ui.kit.levels import Levels
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.pictures import Shown
from yarrow_lane.ui.rooms.compose.cut_ground import Ground, SeenOn, veil
from yarrow_lane.ui.rooms.compose.cut_view import cut_overlays, cut_sheets
from yarrow_lane.ui.rooms.compose.cut_work import Work
from yarrow_lane.ui.rooms.compose.mode import Mode, Sheets

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.compose.page import ComposePage

StrokeMeans = Literal["adds", "takes away", "fur", "skin", "cloth"]
_BRUSH = 0.02  # of the photograph's longer side: our choice
_STROKE_STEP = 1.25


class CutMode(Mode):
    """The photograph large, with the line that will be cut along."""

    name = "cut out"

    def __init__(self, page: "ComposePage") -> None:
        super().__init__(page)
        self.view = PictureView("The photograph, and what is cut out of it")
        self.widget = self.picture = self.view
        self.round = RoundTool(self._drawn, lambda: page.attempt(page.refresh))
        self.stroke = StrokeTool(self._stroked)
        self.grips = GripsTool(self._point_moving, self._point_moved)
        self.view.tool = self.round
        self._works: dict[str, Work] = {}  # half cut ones stay, by commission
        self.found: Found | None = None
        self.means: StrokeMeans = "adds"
        self.points = False
        self.seen_on = SeenOn(page, self.view)
        self.waiting = False
        self._shown_id = ""
        self._photo_levels: Levels | None = None

    # --- which

    def why_not(self) -> str:
        if not self.page.commission.intake.photos:
            return "there is no photograph yet: take one in at Intake first"
        return ""

    def opened(self) -> None:
        self._shown_id, self._photo_levels = "", None
        self.seen_on.opened()
        self._forget()

    def left(self) -> None:
        self.waiting = False  # what was looked for is looked for again
        self.seen_on.left()

    @property
    def work(self) -> Work:
        """What is being cut out of this commission's photographs."""
        return self._works.get(self.page.commission_id, Work())

    @work.setter
    def work(self, work: Work) -> None:
        self._works[self.page.commission_id] = work

    @property
    def photo(self) -> Photo | None:
        return next((p for p in self.page.commission.intake.photos if p.id == self.work.photo_id), None)

    @property
    def sitter(self) -> Sitter | None:
        return self.page.commission.brief.sitter(self.work.sitter_id)

    def _choose_first(self) -> None:
        """The sitter not yet placed, in their lead photograph; with all placed, the line of the one chosen at "place"."""
        c = self.page.commission
        sitter = next(iter(not_placed(c)), None)
        order = (*c.intake.leads, *c.intake.kept, *c.intake.photos)
        photo = next((p for p in order if sitter is not None and p.sitter_id == sitter.id), next(iter(order), None))
        there = next((p for p in c.compose.pieces if p.id == self.page.placing.chosen), next(iter(c.compose.pieces), None))
        if sitter is None and there is not None:
            self._take_up(there)
        elif photo is not None:
            self.cut_from(photo.id, sitter.id if sitter is not None else 0)

    def cut_from(self, photo_id: str, sitter_id: int = 0) -> None:
        """Begin with another photograph; a first line is guessed from its marks."""
        c = self.page.commission
        photo = c.intake.photo(photo_id)
        first = next((s.id for s in c.brief.sitters), 0)
        self.work = Work(photo_id, sitter_id or photo.sitter_id or first)
        self._forget()
        loop = first_loop(photo)
        if loop:
            self._find(replace(self.work, outline=loop, drawn="loop", guessed=True))

    def cut_again(self, piece_id: int) -> None:
        """Take up the line of a sitter that is placed."""
        self._take_up(self.page.commission.compose.piece(piece_id))
        self.page.refresh()

    def _take_up(self, piece: Piece) -> None:
        self.work = Work(piece.photo_id, piece.sitter_id, piece.id, piece.outline[0].points, "traced", rings=piece.outline)
        self._forget()

    def _forget(self) -> None:
        self.found, self.seen_on.ground, self.points, self.waiting = None, "photograph", False, False
        self.round.give_up()

    def choose_sitter(self, sitter_id: int) -> None:
        self.work = replace(self.work, sitter_id=sitter_id)
        self.page.refresh()

    def choose_photo(self, photo_id: str) -> None:
        self.cut_from(photo_id, self.work.sitter_id)
        self.page.refresh()

    def anew(self) -> None:
        """Give the line up and go round again."""
        self.work = Work(self.work.photo_id, self.work.sitter_id, self.work.piece_id)
        self._forget()
        self.page.refresh()

    # --- showing

    def refresh(self) -> Sheets:
        if self.photo is None:
            self._choose_first()
        photo = self.photo
        if photo is not None:
            self._show_photo(photo)
            if self.work.outline and not self.work.rings and not self.waiting:
                self._find(self.work)  # it was looked for when the painter went elsewhere
        has = bool(self.work.rings) and not self.work.guessed
        self.view.tool = self.grips if self.points and has else self.stroke if has else self.round
        self.grips.points = [p for r in self.work.rings for p in r.points]
        if photo is not None:
            self.seen_on.show(self.work, photo, self._photo_levels)
        self.show_lines()
        return cut_sheets(self.page.commission, self, self._act())

    def _act(self) -> NextAct | None:
        name = self.sitter.name if self.sitter is not None else "the sitter"
        if self.round.corners:
            return NextAct("Close the line", "after at least three corners", self._close)
        if self.waiting and not self.work.rings:
            return NextAct(f"Looking for {name}…", "a moment", None, False)
        if not self.work.rings:
            return NextAct(f"Draw round {name}", "one loop, or about twelve clicks", self._to_the_picture)
        if self.work.guessed:
            return NextAct("Take this line to begin with", "a guess from the marks · or draw round it", self._take_guess)
        if self.work.piece_id:
            return NextAct(f"Take this line for {name}", "where it stands", self.place)
        return NextAct(f"Place {name} on the canvas", "with this line; it can be mended later", self.place)

    def _to_the_picture(self) -> Meaning:
        self.view.setFocus(Qt.FocusReason.OtherFocusReason)
        self.page.workroom.say("Hold the button and go round, or click corners and close with a double click.", False)
        return None

    def _close(self) -> Meaning:
        if not self.round.close():
            raise CutTrouble("The line was not closed", "it has fewer than three corners", "click more; Esc gives them up")
        return None

    def _take_guess(self) -> Meaning:
        self.work = replace(self.work, guessed=False)
        self.page.refresh()
        return None

    def _show_photo(self, photo: Photo) -> None:
        size = (photo.width_px, photo.height_px)
        if photo.id == self._shown_id:
            return
        self._shown_id, self._photo_levels = photo.id, None
        self.stroke.width = _BRUSH * max(size)
        self.view.waiting = f"Reading {photo.name}…"
        self.view.show_levels(None, size)

        def ready(shown: Shown) -> None:
            if self._shown_id == photo.id:
                self._photo_levels = shown.levels
                if self.seen_on.ground == "photograph":
                    self.view.show_levels(shown.levels, size)

        self.page.workroom.pictures.photo(photo.id, photo.name, self.page, ready)

    def show_lines(self) -> None:
        """The line, the places to look at, and what is left out dimmed."""
        photo = self.photo
        plain = self.seen_on.ground != "photograph"
        self.view.laid = None
        if photo is not None and self.found is not None and not plain:
            self.view.laid = veil(self.work.rings, photo.width_px, photo.height_px)
        weak = look_here(self.found) if self.found is not None and not plain and not self.work.by_hand else ()
        self.view.show_overlays(*cut_overlays(self.work.rings, weak, self.work.guessed, plain, self.means))
        self.view.update()

    # --- drawing

    def _drawn(self, points: Polygon, how: Round) -> None:
        wanted = replace(self.work, outline=points, drawn=how, guessed=False, strokes=(), rings=(), by_hand=False)
        self.page.attempt(lambda: self._find(wanted))
        self.page.refresh()

    def _find(self, work: Work) -> None:
        """Ask a worker for the sitter within the line, with its strokes; where that goes wrong the work is as it was before."""
        photo, before, found_before = self.photo, self.work, self.found
        if photo is None:
            return
        self.work, self.waiting = work, True
        if not work.rings:
            self.found = None
        pictures, workers = self.page.workroom.pictures, self.page.workroom.workers

        def make(progress: Progress) -> tuple[Found, tuple[Polygon, ...]]:
            path = pictures.file(photo.id, photo.name)
            found: tuple[Found, tuple[Polygon, ...]] = workers.ask(
                "compose.question:find_sitter", path, photo.name, work.outline, work.drawn, work.strokes, progress=progress
            )
            return found

        key = Key("cut", (photo.id,), work.asked)
        making = Making(make, lambda found: found[0].mask.nbytes * 2)

        def failed(trouble: Trouble) -> None:
            if self.work.asked != work.asked:
                return  # something else is being cut out by now
            self.waiting, self.found = False, found_before
            self.work = before if before.rings else replace(before, outline=(), strokes=(), guessed=False)
            if not work.guessed:  # a guess that comes to nothing is only not shown
                self.page.workroom.report(trouble)
            self.page.refresh()

        self.page.workroom.derived.want(key, self.page, making, lambda f: self._arrived(work, *f), failed)

    def _arrived(self, asked: Work, found: Found, rings: tuple[Polygon, ...]) -> None:
        now = self.work
        if now.asked != asked.asked:
            return  # a later stroke is on its way
        self.waiting = False
        if now.guessed and weak_share(found) > TOO_UNSURE:
            self.work = replace(now, outline=(), guessed=False)
            self.page.refresh()
            return
        photo = self.photo
        kind = self.sitter.kind if self.sitter is not None else "other"
        usual = usual_coats(rings, kind, photo.landmarks if photo is not None else ())
        self.found = found
        self.work = replace(now, rings=carried_coats(rings, now.rings, usual))
        self.page.refresh()

    def _stroked(self, points: Polygon) -> None:
        self.page.attempt(lambda: self._take_stroke(points))

    def _take_stroke(self, points: Polygon) -> None:
        width = self.stroke.width
        if self.means in ("fur", "skin", "cloth"):
            coat: Coat = self.means
            self.work = replace(self.work, rings=coat_along(self.work.rings, points, 1.5 * width, coat))
            self.page.refresh()
            return
        away = bool(QApplication.keyboardModifiers() & Qt.KeyboardModifier.AltModifier)
        inside = (self.means == "adds") != away
        work = self.work
        if work.by_hand or self.found is None:
            # The line was moved by hand: the search begins from where it is now.
            work = replace(work, outline=work.rings[0].points, drawn="traced", strokes=(), by_hand=False)
        self._find(replace(work, strokes=(*work.strokes, Stroke(points, width / 2, inside))))
        self.page.refresh()

    def take_stroke_back(self) -> bool:
        """The last stroke was none; whether there was one."""
        if not self.work.strokes:
            return False
        self._find(replace(self.work, strokes=self.work.strokes[:-1]))
        return True

    def _point_moving(self, number: int, to: Point) -> None:
        self.view.show_overlays(
            *cut_overlays(self.work.with_point(number, to, 2 * self.stroke.width), (), False, False, self.means)
        )

    def _point_moved(self, number: int, to: Point) -> None:
        self.work = replace(self.work, rings=self.work.with_point(number, to, 2 * self.stroke.width), by_hand=True)
        self.page.refresh()

    # --- other grounds

    def show_on(self, ground: Ground) -> None:
        """See the sitter on black, white, grey or what will lie behind it."""
        self.seen_on.ground = ground if self.work.rings else "photograph"
        self.page.refresh()

    @property
    def grounds(self) -> tuple[Ground, ...]:
        """The grounds it can be seen on."""
        photo = self.photo
        return self.seen_on.choices(self.work, photo) if photo is not None and self.work.rings else ()

    # --- into the composition

    def place(self) -> Meaning:
        """Lay the sitter on the canvas with this line, or give a placed one this line."""
        photo, work, page = self.photo, self.work, self.page
        compose = page.commission.compose
        if photo is None or not work.rings:
            raise CutTrouble("The sitter was not placed", "there is no line yet", "draw round it first")
        size = (photo.width_px, photo.height_px)
        name = self.sitter.name if self.sitter is not None else photo.name
        if any(p.id == work.piece_id for p in compose.pieces):
            after = change_piece(
                compose, work.piece_id, lambda p: replace(p, outline=work.rings, name=name, sitter_id=work.sitter_id)
            )
            label = f"Cut {name} out again"
        else:
            after = add_piece(compose, name, photo.id, work.rings, size, work.sitter_id)
            label = f"Placed {name}"
        chosen = work.piece_id or compose.next_piece
        self._works.pop(page.commission_id, None)
        page.pending = None
        page.propose_compose(label, after)
        page.show_placed(chosen)
        return None

    # --- keys

    def key(self, event: QKeyEvent) -> bool:
        if event.key() == Qt.Key.Key_Space:
            grounds = self.grounds
            now = grounds.index(self.seen_on.ground) if self.seen_on.ground in grounds else 0
            self.show_on(grounds[(now + 1) % len(grounds)])
        elif (event.key() == Qt.Key.Key_Escape and self.round.give_up()) or (
            event.key() == Qt.Key.Key_Backspace and (self.round.step_back() or self.take_stroke_back())
        ):
            self.page.refresh()
        elif event.text().lower() == "p" and self.work.rings:
            self.points = not self.points
            self.page.refresh()
        elif event.text().lower() == "x":
            self.choose_stroke("takes away" if self.means == "adds" else "adds")
        elif event.text() in ("[", "]"):
            self.stroke.width *= _STROKE_STEP if event.text() == "]" else 1 / _STROKE_STEP
            self.view.update()
        else:
            return False
        return True

    def choose_stroke(self, means: StrokeMeans) -> None:
        """What the next stroke does."""
        self.means, self.points = means, False
        self.page.refresh()

    def show_points(self, wanted: bool) -> None:
        self.points = wanted
        self.page.refresh()
