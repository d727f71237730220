"""Variants side by side at one scale; the one being worked on is framed, and nothing is lost when another is taken up."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QColor, QImage, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QWidget

from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.recompose import Proposal, Recomposed, recompose
from yarrow_lane.compose.changes import changes
from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.proofs import MOST_VARIANTS, PROOFS, Proofs, drop_variant, keep_variant, next_name, swap_variant
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.lengths import size_text
from yarrow_lane.ui.bench_sheet import Field, Line, Meaning, NextAct, Note, Press, Section
from yarrow_lane.ui.rooms.compose.mode import Mode, Sheets
from yarrow_lane.ui.theme.colours import INK, SURROUND
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.compose.page import ComposePage


@dataclass(frozen=True)
class Shown:
    """One of them: its size in mm, what is written below, and its picture once it has come."""

    name: str
    size: tuple[float, float]
    words: str
    image: QImage | None
    now: bool


class VariantsTable(QWidget):
    """All at one scale, two or three in a row."""

    def __init__(self, chosen: Callable[[str], None]) -> None:
        super().__init__()
        self._chosen = chosen
        self.setObjectName("table")
        self.setAccessibleName("Variants of the composition")
        self.shown: tuple[Shown, ...] = ()
        self.picked = ""

    def show_all(self, shown: tuple[Shown, ...], picked: str) -> None:
        self.shown, self.picked = shown, picked
        self.update()

    def places(self) -> list[QRectF]:
        """Where each picture lies."""
        if not self.shown:
            return []
        count = len(self.shown)
        label, gap = px(48), px(26)

        def fits(columns: int) -> float:
            wide, high = self.width() / columns, self.height() / -(-count // columns)
            return min(min((wide - gap) / s.size[0], (high - gap - label) / s.size[1]) for s in self.shown)

        columns = max(range(1, count + 1), key=fits)
        scale = fits(columns)
        wide, high = self.width() / columns, self.height() / -(-count // columns)
        found = []
        for n, s in enumerate(self.shown):
            row, column = divmod(n, columns)
            w, h = s.size[0] * scale, s.size[1] * scale
            found.append(QRectF(column * wide + (wide - w) / 2, row * high + (high - label - h) / 2, w, h))
        return found

    def mousePressEvent(self, event: QMouseEvent) -> None:
        for s, place in zip(self.shown, self.places(), strict=True):
            if place.contains(event.position()):
                self._chosen(s.name)

    def paintEvent(self, event: QPaintEvent) -> None:
        c = colours()
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(SURROUND))
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        for s, place in zip(self.shown, self.places(), strict=True):
            if s.image is not None:
                painter.drawImage(place, s.image)
            else:
                painter.fillRect(place, QColor(c.paper))
            if s.now or s.name == self.picked:
                pen = QPen(QColor(c.here if s.now else INK), px(4) if s.now else px(2))
                painter.setPen(pen)
                painter.setBrush(Qt.BrushStyle.NoBrush)
                painter.drawRect(place.adjusted(-px(4), -px(4), px(4), px(4)))
            painter.setPen(QColor(INK))
            painter.setFont(lettering(15, "bold"))
            below = QRectF(place.x() - px(20), place.bottom() + px(7), place.width() + px(40), px(20))
            painter.drawText(below, Qt.AlignmentFlag.AlignHCenter, s.name + (" · being worked on" if s.now else ""))
            painter.setFont(lettering(13.5))
            metrics = painter.fontMetrics()
            words = metrics.elidedText(s.words, Qt.TextElideMode.ElideRight, int(place.width() + px(40)))
            painter.drawText(below.translated(0, px(19)), Qt.AlignmentFlag.AlignHCenter, words)
        painter.end()


class VariantsMode(Mode):
    """The composition as it is, and as it could be."""

    name = "variants"

    def __init__(self, page: "ComposePage") -> None:
        super().__init__(page)
        self.table = VariantsTable(self.pick)
        self.widget = self.table
        self.picked = ""
        self._name = ""
        page.workroom.pictures.arrived.connect(self._arrived)

    def why_not(self) -> str:
        return "" if self.page.commission.compose.framed else "there is nothing to vary yet: lay a crop or place a sitter first"

    def opened(self) -> None:
        self.picked, self._name = "", ""

    def _arrived(self) -> None:
        if self.page.mode is self and self.page.commission_id and self.page.isVisible():
            self.page.attempt(self._show)

    def pick(self, name: str) -> None:
        self.picked = name if any(v.name == name for v in self._proofs.variants) else ""
        self.page.refresh()

    @property
    def _proofs(self) -> Proofs:
        return self.page.commission.proofs

    def _show(self) -> None:
        c, unit = self.page.commission, self.page.studio.unit
        now = c.compose
        kept = next((v.name for v in self._proofs.variants if v.composed == now), "")
        shown: list[Shown] = []
        if not kept:
            shown.append(self._one("as it is now", now, size_text(now.width_mm, now.height_mm, unit), True))
        for v in self._proofs.variants:
            shown.append(self._one(v.name, v.composed, _difference(now, v.composed, unit), v.name == kept))
        self.table.show_all(tuple(shown), self.picked)

    def _one(self, name: str, compose: Compose, words: str, now: bool) -> Shown:
        image = self.page.workroom.references.thumbnail(compose, on_disk=False)
        return Shown(name, (compose.width_mm, compose.height_mm), words, image, now)

    def refresh(self) -> Sheets:
        self._show()
        proofs, now = self._proofs, self.page.commission.compose
        lines: list[Line] = []
        is_kept = any(v.composed == now for v in proofs.variants)
        if not is_kept and len(proofs.variants) < MOST_VARIANTS:
            lines.append(Field("Name", self._name, self._write, next_name(proofs)))
            lines.append(Press("Keep it as it is now", self._keep))
        elif is_kept:
            lines.append(Note("What you work on is kept. Change it anywhere and keep it under another name."))
        sections = [Section("Variants", tuple(lines))]
        act: NextAct | None = None
        picked = next((v for v in proofs.variants if v.name == self.picked), None)
        if picked is not None:
            found = changes(now, picked.composed)
            words: tuple[Line, ...] = tuple(Note(f"{f.words}.") for f in found[:7]) or (
                Note("The client would see no difference."),
            )
            drop = Press(f"Give {picked.name} up", self._drop)
            sections.append(Section(f"{picked.name}, against what is now", (*words, drop)))
            if picked.composed != now:
                act = NextAct(f"Take up {picked.name}", "what is now is kept beside it", lambda: self._take(picked.name))
        elif not is_kept and len(proofs.variants) < MOST_VARIANTS:
            act = NextAct("Keep this one", "then try another and compare", self._keep)
        return Sheets(tuple(sections), (), act)

    def _write(self, text: str) -> Meaning:
        self._name = text
        return None

    def _keep(self) -> Meaning:
        self.page.bench.store_pending()
        name, compose = self._name.strip() or next_name(self._proofs), self.page.commission.compose
        self._name = ""
        return Edit(PROOFS, f"Kept {name}", lambda p: keep_variant(p, name, compose))

    def _drop(self) -> Meaning:
        name, self.picked = self.picked, ""
        return Edit(PROOFS, f"Gave {name} up", lambda p: drop_variant(p, name))

    def _take(self, name: str) -> Meaning:
        self.picked = ""

        def step(c: Commission) -> Recomposed:
            proofs, compose = swap_variant(c.proofs, name, c.compose)
            found = recompose(c, compose)
            return replace(found, commission=replace(found.commission, proofs=proofs))

        return Proposal(f"Took up {name}", "Compose", step)

    def key(self, event: QKeyEvent) -> bool:
        if event.key() in (Qt.Key.Key_Left, Qt.Key.Key_Right) and self._proofs.variants:
            order = [v.name for v in self._proofs.variants]
            step = 1 if event.key() == Qt.Key.Key_Right else -1
            now = order.index(self.picked) if self.picked in order else -1 if step == 1 else 0
            self.pick(order[(now + step) % len(order)])
            return True
        return False


def _difference(now: Compose, other: Compose, unit: str) -> str:
    found = changes(now, other)
    seen = [f.words for f in found if f.seen]
    return (
        "; ".join(seen[:2]) + ("…" if len(seen) > 2 else "") if seen else "as it is now" if not found else "too little to see"
    )
