"""The tone page: the values of the reference, what is kept for last, its temperature, and the ground to judge it from."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import TypeVar

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent, QResizeEvent
from PySide6.QtWidgets import QBoxLayout, QHBoxLayout, QVBoxLayout, QWidget

from yarrow_lane.compose.reference import reference_key
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.colour.munsell_value import value_of
from yarrow_lane.tone.clusters import histogram
from yarrow_lane.tone.grounds import ground_lab, ground_srgb
from yarrow_lane.tone.pictures import quick_study_picture
from yarrow_lane.tone.proposal import Judged
from yarrow_lane.tone.record import TONE, lay_ground, set_count, set_limits
from yarrow_lane.tone.warmth import Warmth
from yarrow_lane.ui.bench_sheet import Meaning, NextAct
from yarrow_lane.ui.kit.frame import Frame
from yarrow_lane.ui.kit.levels import Levels, single_level
from yarrow_lane.ui.kit.overlays import Overlay
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.reference_view import beside_or_above, show_reference
from yarrow_lane.ui.room_page import RoomPage
from yarrow_lane.ui.rooms.tone.grounds_panel import GroundsPanel
from yarrow_lane.ui.rooms.tone.heads import Heads
from yarrow_lane.ui.rooms.tone.looking import Kept, Looking, Studied
from yarrow_lane.ui.rooms.tone.values_panel import ValuesPanel
from yarrow_lane.ui.rooms.tone.view import Seen, laying_marks, reserve_marks, tone_view, wash_of
from yarrow_lane.ui.theme.lettering import px
from yarrow_lane.ui.workroom import Workroom

T = TypeVar("T")
_NARROWEST = 300  # px at 100 % text that a histogram needs: our choice
_THUMBNAIL_PX = 150  # our choice: small enough that only masses are read


@dataclass
class _Found:
    """What has come of what was asked for, for the composition and the values shown now."""

    studied: Studied | None = None
    kept: Kept | None = None
    warmth: Warmth | None = None
    grounds: tuple[Judged, ...] = ()


class TonePage(RoomPage):
    """Door 4."""

    door = "Tone"

    def __init__(self, workroom: Workroom) -> None:
        super().__init__(workroom)
        self.look, self.looked_at, self.turned = "values", "", "upright"
        self.found = _Found()
        self.looking = Looking(workroom, self)
        self.frame = Frame()
        self.reference = PictureView("The reference", self.frame)
        self.study = PictureView("In paintable shapes", self.frame)
        self.third = PictureView("The third picture", self.frame)
        self.picture = self.reference
        self.values, self.grounds = ValuesPanel(), GroundsPanel()
        self.heads = Heads((self.reference, self.study, self.third))
        self._pair = self.heads.layout_of_views
        foot = QWidget()
        row = QHBoxLayout(foot)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        row.addWidget(self.values, 1)
        row.addWidget(self.grounds)
        box = QVBoxLayout(self.table)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        box.addWidget(self.heads, 1)
        box.addWidget(foot)
        self.foot = foot
        self.values.dragged.connect(self._follow)
        self.values.moved.connect(self._limits_moved)
        self.grounds.chosen.connect(self.look_at_ground)

    def opened(self) -> None:
        self.found, self.looked_at, self.look = _Found(), "", "values"
        self.frame.turn(grey=False)
        self.turned = "upright"
        for view in (self.study, self.third):
            view.show_levels(None, (1, 1))

    # --- showing

    def refresh(self) -> None:
        c = self.commission
        framed = c.compose.framed
        show_reference(self.reference, self.workroom.references, c.compose, self)
        self._pair.setDirection(QBoxLayout.Direction.LeftToRight if self.look == "the ground" else beside_or_above(c.compose))
        self.foot.setVisible(framed and self.look in ("values", "the ground"))
        self.grounds.setVisible(self.look == "the ground")
        self._fit_foot()
        for view in (self.study, self.third):
            view.waiting = "Looking at the values…"
        if framed:
            self._ask()
        self._show_sheets()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._fit_foot()

    def _fit_foot(self) -> None:
        """Beside the grounds there is not always room for the histogram."""
        room = self.table.width() - (self.grounds.width() if self.look == "the ground" else 0)
        self.values.setVisible(room >= px(_NARROWEST))

    def _ask(self) -> None:
        c = self.commission
        if self.look == "squint":
            self.looking.squinted(c, self._if_same(lambda levels: self._show(self.study, levels)))
            return
        self.looking.study(c, self._if_same(self._studied))

    def _if_same(self, ready: Callable[[T], None]) -> Callable[[T], None]:
        """Hear an answer only while it is still for what is shown."""
        c, look = self.commission, self.look

        def hear(answer: T) -> None:
            now = self.commission if self.commission_id == c.id else None
            same = now is not None and reference_key(now.compose) == reference_key(c.compose) and now.tone == c.tone
            if same and self.look == look:
                ready(answer)

        return hear

    def _studied(self, studied: Studied) -> None:
        c, looking = self.commission, self.looking
        self.found.studied = studied
        self._show(self.study, studied.levels)
        if self.look != "values":
            looking.reserves(c, studied.colours, self._if_same(self._reserved))
        if self.look == "warm and cool":
            looking.warmth(c, studied.colours, self._if_same(self._warmed))
        elif self.look == "the ground":
            looking.grounds(c, studied.squint, self._if_same(self._judged))
        self._show_values()
        self._show_sheets()

    def _reserved(self, kept: Kept) -> None:
        self.found.kept = kept
        if self.found.studied is not None and self.look == "reserves":
            self._show(self.third, self.found.studied.levels)
        self._show_values()
        self._show_sheets()

    def _warmed(self, answer: tuple[Warmth, Levels]) -> None:
        self.found.warmth = answer[0]
        self._show(self.third, answer[1])
        self._show_sheets()

    def _judged(self, grounds: tuple[Judged, ...]) -> None:
        self.found.grounds = grounds
        self.grounds.show_grounds(grounds, self.ground_now())
        c, found = self.commission, self.found
        if found.studied is not None:
            self.looking.begun(
                c, found.studied, self.ground_now(), self._if_same(lambda levels: self._show(self.third, levels))
            )
        self._show_values()
        self._show_sheets()

    def _show(self, view: PictureView, levels: Levels) -> None:
        c = self.commission
        view.show_levels(levels, (c.compose.width_mm, c.compose.height_mm))

    def _marks(self) -> tuple[Overlay, ...]:
        kept = self.found.kept
        return reserve_marks(kept) if kept is not None and self.look == "reserves" else ()

    def _show_values(self) -> None:
        found, c = self.found, self.commission
        self.reference.show_overlays(*self._marks())
        plan = laying_marks(c, self._seen(), self.studio.climate) if self.look == "the ground" else self._marks()
        self.third.show_overlays(*plan)
        if found.studied is None:
            return
        study, ground = found.studied.study, None
        if self.look == "the ground":
            name = self.ground_now()
            ground = ground_lab(name)[0], ground_srgb(name)
        counts = tuple(float(n) for n in histogram(found.studied.squint.soft))
        cm2 = c.compose.width_mm * c.compose.height_mm / 100
        self.values.show_values(counts, study.limits, study.shares, study.shown, cm2, ground)

    def _say_heads(self) -> None:
        c = self.commission
        if not c.compose.framed:
            self.heads.say("The reference", "", "")
            return
        alone = self.look == "squint" or self.turned == "small"
        shapes = "Through half-shut eyes" if self.look == "squint" else f"In {c.tone.count} values"
        thirds = {"reserves": "Where they lie", "warm and cool": "Warmer and cooler", "the ground": "Begun on it"}
        self.heads.say(
            "" if alone else "The reference",
            shapes if self.look in ("values", "the ground", "squint") else "",
            thirds.get(self.look, ""),
        )

    def _seen(self) -> Seen:
        found = self.found
        study = found.studied.study if found.studied else None
        return Seen(study, found.kept, found.warmth, found.grounds, self.ground_now(), self.turned)

    def _show_sheets(self) -> None:
        self._say_heads()
        view = tone_view(self.commission, self._seen(), self.look, self.studio.climate, self, self._act())
        self.show_sheets(view.bench, view.choices)

    # --- what is done

    def ground_now(self) -> str:
        """The ground looked at: the one clicked, else the one laid, else the proposed one."""
        proposed = self.found.grounds[0].name if self.found.grounds else "white"
        return self.looked_at or self.commission.tone.ground or proposed

    def _act(self) -> NextAct:
        c = self.commission
        if c.tone.ground or not c.compose.framed:
            return self.next_act(lambda: None)
        if self.look != "the ground":
            detail = "from the picture's own values; take it or choose another"
            return NextAct("Look at the ground proposed", detail, lambda: self.show_look("the ground"))
        name = self.ground_now()
        wash = wash_of(c, self.studio.climate, name)
        if wash is None:
            return NextAct(
                f"Leave the {'paper' if c.brief.medium == 'watercolour' else 'canvas'} white", "nothing to lay", self._lay
            )
        title = f"The {name} is laid" if name.endswith("wash") else f"The ground, {name}, is laid"
        return NextAct(
            title,
            f"flat brush {wash.brush_mm}\u202fmm, {wash.laying_min:.0f}\u202fmin, {wash.ml:.1f}\u202fml; its clock starts",
            self._lay,
        )

    def _lay(self) -> Meaning:
        name, now = self.ground_now(), self.workroom.now
        return Edit(TONE, f"Ground: {name}", lambda t: lay_ground(t, name, now))

    def show_look(self, look: str) -> None:
        """Another way of looking."""
        self.bench.store_pending()
        self.look = look
        self.refresh()

    def look_at_ground(self, name: str) -> None:
        """Try a ground on the picture; nothing is laid by that."""
        self.looked_at = name
        self.refresh()

    def turn(self, how: str) -> None:
        """Upright, mirrored, upside down, grey or small."""
        self.turned = how
        self.frame.turn(how == "mirrored", how == "upside down", how == "grey")
        if how == "small":
            self._look_small()
        else:
            self.frame.fit()
        self.refresh()

    def _look_small(self) -> None:
        view = self.study
        self.frame.look(_THUMBNAIL_PX / max(1.0, min(view.width(), view.height())), (0.5, 0.5))

    def choose_count(self, count: int) -> Meaning:
        """So many values."""
        return Edit(TONE, f"{count} values", lambda t: set_count(t, count), join="values")

    def use_own_limits(self) -> Meaning:
        """The picture's own clusters again."""
        return Edit(TONE, "Limits from the picture again", lambda t: replace(t, limits=()))

    def _limits_moved(self, limits: tuple[float, ...]) -> None:
        said = ", ".join(f"{value_of(v):.1f}" for v in limits)
        self.hand(lambda: Edit(TONE, f"Limits at {said}", lambda t: set_limits(t, limits), join="limits"))

    def _follow(self, limits: tuple[float, ...]) -> None:
        """While a limit is dragged the shapes follow, not yet cleaned."""
        if self.found.studied is not None:
            self._show(self.study, single_level(quick_study_picture(self.found.studied.squint, limits)))

    def key(self, event: QKeyEvent) -> bool:
        """G grey, F mirrored; arrows walk the grounds, or choose a limit and move it."""
        text, key = event.text().lower(), Qt.Key(event.key())
        up = {Qt.Key.Key_Up: 1, Qt.Key.Key_Down: -1}.get(key)
        across = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1}.get(key)
        if self.look == "the ground" and up is not None:
            self.grounds.walk(-up)
            return True
        if self.look == "values" and across is not None:
            self.values.choose(across)
            return True
        if self.look == "values" and up is not None:
            return self.values.nudge(up)
        if text == "g":
            self.turn("upright" if self.turned == "grey" else "grey")
            return True
        if text == "f":
            self.turn("upright" if self.turned == "mirrored" else "mirrored")
            return True
        return False
