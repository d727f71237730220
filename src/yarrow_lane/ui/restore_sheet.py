"""The copies of a studio, each with its day, what it holds and whether it is sound; one of them is put back."""

from collections.abc import Callable, Iterator
from datetime import datetime
from pathlib import Path

from PySide6.QtCore import QEvent, QObject, Qt, QTimer, Signal
from PySide6.QtGui import QColor, QKeyEvent, QPainter, QPaintEvent
from PySide6.QtWidgets import QFileDialog, QFrame, QHBoxLayout, QPushButton, QTreeWidget, QTreeWidgetItem, QVBoxLayout, QWidget

from yarrow_lane.measure.days import dated
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.measure.words import counted
from yarrow_lane.store.copies import Copy, copies_in, look_at
from yarrow_lane.store.take_in import take_in, taken_in_as
from yarrow_lane.ui.bench import ActButton
from yarrow_lane.ui.bench_sheet import NextAct
from yarrow_lane.ui.bench_words import set_property, small_label
from yarrow_lane.ui.kit.plain import tip
from yarrow_lane.ui.theme.lettering import SERIF, lettering, px

_ABOUT = (
    "Restoring opens a copy in place of the studio's file. What is there now is put into the folder “set aside” beside it; "
    "nothing is deleted, and the photographs stay where they are."
)
_STEP_MS = 0
Guarded = Callable[[Callable[..., object]], Callable[..., None]]
_WIDTH, _HEIGHT = 720, 520


class RestoreSheet(QWidget):
    """Lies over the window, or is a window by itself when a studio did not open.

    `chosen` tells the copy (its path) that is to be restored, `left` that none is.
    """

    chosen = Signal(object)
    left = Signal()

    def __init__(self, folder: Path, clock: Callable[[], datetime], guarded: Guarded, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._folder, self._clock, self._guarded = folder, clock, guarded
        self._copies: list[Copy] = []
        self._steps: Iterator[object] | None = None
        self._timer = QTimer(self)
        self._timer.timeout.connect(guarded(self._step))
        self._build()
        self.hide()

    # --- made of

    def _build(self) -> None:
        outer = QVBoxLayout(self)
        self.panel = QFrame()
        self.panel.setObjectName("sheet")
        outer.addWidget(self.panel, 0, Qt.AlignmentFlag.AlignCenter)
        self.panel.setFixedWidth(min(px(_WIDTH), 940))
        box = QVBoxLayout(self.panel)
        box.setContentsMargins(px(26), px(18), px(26), px(18))
        box.setSpacing(px(8))
        self.title = small_label("Restore the studio", size=22)
        self.title.setFont(lettering(22, "bold", SERIF))
        self.words, self.place = small_label("", size=15), small_label("", "soft")
        self.place.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        self.list = QTreeWidget()
        self.list.setRootIsDecorated(False)
        self.list.setHeaderLabels(("Copy of", "Commissions", "Looked over"))
        self.list.setFont(lettering(14.5))
        self.list.header().setFont(lettering(13.5))
        self.list.setMinimumHeight(px(190))
        self.list.setUniformRowHeights(True)
        self.list.currentItemChanged.connect(self._guarded(lambda *_: self._show_act()))
        self.list.installEventFilter(self)
        self.state = small_label("", "soft")
        self.act = ActButton()
        self.act.clicked.connect(self._guarded(lambda *_: self.take()))
        self.from_file, self.leave = QPushButton("From a file…"), QPushButton("Leave it")
        foot = QHBoxLayout()
        foot.addWidget(self.from_file)
        foot.addStretch(1)
        foot.addWidget(self.leave)
        for button in (self.from_file, self.leave):
            button.setFont(lettering(14.5))
        self.from_file.clicked.connect(self._guarded(lambda *_: self._choose_file()))
        self.leave.clicked.connect(self.go)
        for widget in (self.title, self.words, self.place, self.list, self.state, self.act):
            box.addWidget(widget)
        box.addLayout(foot)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(60, 60, 60, 150))
        painter.end()

    # --- showing

    def show_copies(self, elsewhere: tuple[Path, ...] = (), trouble: Trouble | None = None) -> None:
        """Look over every copy, the newest first, and propose the newest sound one."""
        over = self.parentWidget()
        if over is not None:
            self.setGeometry(over.rect())
        self.title.setText("Restore the studio" if trouble is None else "The studio did not open")
        self.words.setText(_ABOUT if trouble is None else trouble.sentence)
        set_property(self.words, "tone", "plain" if trouble is None else "wrong")
        self.place.setText(f"The studio's folder: {self._folder}")
        self.list.clear()
        self._copies = []
        self.raise_()
        self.show()
        self.list.setFocus(Qt.FocusReason.OtherFocusReason)
        paths = [path for place in (self._folder, *elsewhere) for path in copies_in(place)]
        self._run(self._looking(paths), lambda: None)

    def _looking(self, paths: list[Path]) -> Iterator[object]:
        for path in paths:
            yield f"Looking at {path.name}…"
            self._add(look_at(path, whole=True))

    def _add(self, copy: Copy) -> QTreeWidgetItem:
        self._copies.append(copy)
        item = QTreeWidgetItem(
            (
                self._name(copy),
                str(copy.commissions) if copy.sound else "–",
                "sound" if copy.sound else f"not sound: {copy.why}",
            )
        )
        item.setTextAlignment(1, Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        item.setToolTip(2, tip(copy.why))
        self.list.addTopLevelItem(item)
        for column in (0, 1):
            self.list.resizeColumnToContents(column)
        if self.list.currentItem() is None and copy.sound:
            self.list.setCurrentItem(item)
        return item

    def _name(self, copy: Copy) -> str:
        day = dated(copy.day) if copy.day else copy.path.stem
        return day if self._folder in copy.path.parents else f"{day} · in {copy.path.parent.parent}"

    @property
    def _chosen(self) -> Copy | None:
        item = self.list.currentItem()
        return None if item is None else self._copies[self.list.indexOfTopLevelItem(item)]

    def _show_act(self) -> None:
        copy = self._chosen
        busy = self._steps is not None
        if copy is None:
            words = "" if busy else "Another one may lie on a stick or in a saved file: “From a file…”."
            self.act.show_act(NextAct("No copy of the studio was found" if not busy else "Looking at the copies", words), True)
        elif not copy.sound:
            self.act.show_act(NextAct("This copy cannot be restored", copy.why), True)
        else:
            what = f"{counted(copy.commissions, 'commission')} as they stood then; what is there now is set aside"
            self.act.show_act(NextAct(f"Restore the copy of {self._name(copy)}", what, lambda: None), busy)

    # --- doing, a small step at a time

    def _run(self, steps: Iterator[object], done: Callable[[], None]) -> None:
        self._steps, self._done = steps, done
        self._timer.start(_STEP_MS)
        self._show_act()

    def _step(self) -> None:
        if self._steps is None:
            return
        try:
            told = next(self._steps)
            self.state.setText(f"{told:.0%} brought" if isinstance(told, float) else str(told))
            return
        except StopIteration:
            self._over()
            self._done()
        except Trouble as trouble:
            self._over()
            self.say(trouble)
        except BaseException:
            self._over()
            raise
        self._show_act()

    def say(self, trouble: Trouble) -> None:
        """Say what went wrong, beneath the copies."""
        self.state.setText(trouble.sentence)
        set_property(self.state, "tone", "wrong")

    def _over(self) -> None:
        self._timer.stop()
        self._steps = None
        self.state.setText("")
        set_property(self.state, "tone", "plain")

    def take(self) -> None:
        """Restore what is chosen; one that lies elsewhere is brought in first, with its photographs."""
        copy = self._chosen
        if copy is None or not copy.sound or self._steps is not None:
            return
        if self._folder in copy.path.parents:
            self.hide()
            self.chosen.emit(copy.path)
        else:
            self._bring(copy.path)

    def _bring(self, source: Path) -> None:
        now = self._clock()
        target = taken_in_as(source, self._folder, now)

        def brought() -> None:
            self.list.setCurrentItem(self._add(look_at(target, whole=True)))

        self._run(take_in(source, self._folder, now), brought)

    def _choose_file(self) -> None:
        chosen, _ = QFileDialog.getOpenFileName(self, "A saved studio or a copy", str(Path.home()), "*.zip *.db")
        if chosen:
            self._bring(Path(chosen))

    def go(self) -> None:
        """Leave everything as it is."""
        if self._steps is not None:
            self._over()
        self.hide()
        self.left.emit()

    # --- hands

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress:
            if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
                self.take()
                return True
            if event.key() == Qt.Key.Key_Escape:
                self.go()
                return True
        return False

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.go()  # every other key stays here: what lies beneath is not meant
