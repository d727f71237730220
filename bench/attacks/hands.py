"""Random hands on the real window: keys, clicks, drags, words, numbers, files, undo, themes; what is shown is always what is stored."""

import random
import time
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path
from typing import Any

from PySide6.QtCore import QEventLoop, QPoint, QPointF, Qt, QTimer
from PySide6.QtGui import QKeyEvent, QMouseEvent, QWheelEvent
from PySide6.QtWidgets import (
    QApplication,
    QComboBox,
    QDoubleSpinBox,
    QFileDialog,
    QLineEdit,
    QPlainTextEdit,
    QPushButton,
    QWidget,
)

from bench.attacks.counts import Counts
from bench.attacks.small_pictures import picture
from yarrow_lane.lane.doors import DOORS
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.store.reading import Reader
from yarrow_lane.ui.guard import OwnFault
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.window import Window

_WORDS = (
    "Pip",
    "12",
    "30,5",
    "-4",
    "9999999999",
    "1/0",
    "<img src=/etc/hostname>",
    "=cmd|' /C'!A0",
    "Łukasz “soft”",
    "a\u202eb\udcffc",
    "",
    "x" * 700,
)
_KEYS = [Qt.Key(k) for k in (Qt.Key.Key_Return, Qt.Key.Key_Escape, Qt.Key.Key_Tab, Qt.Key.Key_Space, Qt.Key.Key_Left, Qt.Key.Key_Right, Qt.Key.Key_Up, Qt.Key.Key_Down, Qt.Key.Key_Delete)]  # fmt: skip
_LETTERS = "abcdefghijklmnopqrstuvwxyz0123456789+-?/ "
_LOOK_EVERY = 40  # steps between two comparisons with the disk


class Hands:
    """Plays on a window; `files` is a folder for what is dropped and saved."""

    def __init__(self, window: Window, files: Path, seed: int) -> None:
        self._window, self._files, self._dice = window, files, random.Random(seed)
        self.counts = Counts()
        self._moves: tuple[Callable[[], None], ...] = (
            self._key, self._key, self._letter, self._press, self._press, self._press, self._drag, self._drag, self._edit,
            self._edit, self._edit, self._door, self._undo, self._drop, self._wheel, self._wear, self._resize,
        )  # fmt: skip

    def play(self, steps: int) -> None:
        """So many moves; every fault of ours, every exception, every difference from the disk is counted."""
        for _ in range(steps):
            move = self._dice.choice(self._moves)
            self.counts.tried += 1
            try:
                move()
                QApplication.processEvents(QEventLoop.ProcessEventsFlag.AllEvents, 5)
            except Exception as error:
                self.counts.tracebacks.append(f"{move.__name__} {self.counts.tried}: {type(error).__name__}: {error}")
            if self.counts.tried % _LOOK_EVERY == 0:
                self._compare()

    def _compare(self) -> None:
        desk = self._window.desk
        reader = Reader(desk.store.database)
        for commission_id in desk.studio.on_shelf:
            head = desk.store.database.head(commission_id)
            try:
                stored = reader.commission(commission_id, head or 0)
                shown = desk.commission(commission_id)
            except Trouble as trouble:
                self.counts.lost.append(trouble.sentence)
                continue
            if stored != shown:
                self.counts.unseen.append(f"step {self.counts.tried}: {commission_id} shows what is not stored")
        self.counts.held += 1

    # --- moves

    def _some(self, kind: type) -> Any:
        found = [w for w in self._window.findChildren(kind) if w.isVisible() and w.isEnabled()]
        return self._dice.choice(found) if found else None

    def _send_key(self, key: int, text: str = "", modifier: Qt.KeyboardModifier = Qt.KeyboardModifier.NoModifier) -> None:
        target = QApplication.focusWidget() or self._window
        for kind in (QKeyEvent.Type.KeyPress, QKeyEvent.Type.KeyRelease):
            QApplication.sendEvent(target, QKeyEvent(kind, key, modifier, text))

    def _key(self) -> None:
        self._send_key(self._dice.choice(_KEYS))

    def _letter(self) -> None:
        letter = self._dice.choice(_LETTERS)
        self._send_key(ord(letter.upper()), letter)

    def _press(self) -> None:
        button = self._some(QPushButton)
        if button is not None and button.text() != "Close all the same":
            button.click()

    def _mouse(self, widget: QWidget, kind: Any, at: QPointF, held: Qt.MouseButton) -> None:
        button = Qt.MouseButton.LeftButton if kind != QMouseEvent.Type.MouseMove else Qt.MouseButton.NoButton
        modifier = self._dice.choice((Qt.KeyboardModifier.NoModifier,) * 4 + (Qt.KeyboardModifier.ShiftModifier,))
        QApplication.sendEvent(widget, QMouseEvent(kind, at, widget.mapToGlobal(at), button, held, modifier))

    def _drag(self) -> None:
        view = self._some(PictureView) or self._window
        a, b = (QPointF(self._dice.uniform(0, view.width()), self._dice.uniform(0, view.height())) for _ in range(2))
        self._mouse(view, QMouseEvent.Type.MouseButtonPress, a, Qt.MouseButton.LeftButton)
        if self._dice.random() < 0.7:
            self._mouse(view, QMouseEvent.Type.MouseMove, (a + b) / 2, Qt.MouseButton.LeftButton)
            self._mouse(view, QMouseEvent.Type.MouseMove, b, Qt.MouseButton.LeftButton)
        self._mouse(view, QMouseEvent.Type.MouseButtonRelease, b, Qt.MouseButton.NoButton)

    def _edit(self) -> None:
        kind = self._dice.choice((QLineEdit, QLineEdit, QPlainTextEdit, QDoubleSpinBox, QComboBox))
        editor = self._some(kind)
        if isinstance(editor, QComboBox) and editor.count():
            index = self._dice.randrange(editor.count())
            editor.setCurrentIndex(index)
            editor.activated.emit(index)
        elif isinstance(editor, QDoubleSpinBox):
            editor.setValue(
                self._dice.choice((editor.minimum(), editor.maximum(), self._dice.uniform(editor.minimum(), editor.maximum())))
            )
        elif isinstance(editor, QLineEdit | QPlainTextEdit):
            words = self._dice.choice(_WORDS)
            editor.setFocus()
            editor.setText(words) if isinstance(editor, QLineEdit) else editor.setPlainText(words)
            if isinstance(editor, QLineEdit):
                editor.editingFinished.emit()

    def _door(self) -> None:
        shelf = self._window.desk.studio.on_shelf
        if not shelf or self._dice.random() < 0.15:
            self._window.workroom.guard.attempt(self._window.open_studio)
        else:
            where = self._dice.choice(shelf), self._dice.choice(DOORS)
            self._window.workroom.guard.attempt(lambda: self._window.open_door(*where))

    def _undo(self) -> None:
        step = self._dice.choice((self._window.undo, self._window.undo, self._window.redo))
        for _ in range(self._dice.randint(1, 4)):
            self._window.workroom.guard.attempt(step)

    def _drop(self) -> None:
        if self._dice.random() < 0.3:
            path = self._files / f"dropped {self._dice.randrange(30)}.jpg"
            path.write_bytes(picture(self._dice.randrange(30)) if self._dice.random() < 0.8 else b"no picture")
            self._window.take_files([path])

    def _wheel(self) -> None:
        view = self._some(PictureView)
        if view is not None:
            at = QPointF(view.width() / 2, view.height() / 2)
            turn = QPoint(0, self._dice.choice((-120, 120)))
            buttons, keys, phase = Qt.MouseButton.NoButton, Qt.KeyboardModifier.NoModifier, Qt.ScrollPhase.NoScrollPhase
            QApplication.sendEvent(view, QWheelEvent(at, view.mapToGlobal(at), QPoint(), turn, buttons, keys, phase, False))

    def _wear(self) -> None:
        if self._dice.random() < 0.1:
            evening, percent = self._dice.random() < 0.5, self._dice.choice((100, 125, 150))
            self._window.desk.do_studio("Colours", lambda s: replace(s, evening=evening, text_percent=percent))

    def _resize(self) -> None:
        if self._dice.random() < 0.2:
            self._window.resize(*self._dice.choice(((1000, 700), (1280, 800), (1920, 1080))))


def listen(window: Window, counts: Counts) -> None:
    """Faults of ours that the window says are counted; trouble in words is what should be."""
    said = window.workroom.guard._report

    def report(trouble: Trouble) -> None:
        counts.said += 1
        if isinstance(trouble, OwnFault):
            counts.tracebacks.append(f"{trouble.sentence} ({window.room})")
        said(trouble)

    window.workroom.guard._report = report


def without_dialogs(files: Path) -> None:
    """Dialogs that wait for a person are answered at once."""
    number = iter(range(1_000_000))
    QFileDialog.getSaveFileName = lambda *_: (str(files / f"saved {next(number)}"), "")  # type: ignore[assignment,method-assign]
    QFileDialog.getOpenFileNames = lambda *_: ([], "")  # type: ignore[assignment,method-assign]
    QFileDialog.getOpenFileName = lambda *_: ("", "")  # type: ignore[assignment,method-assign]
    QFileDialog.getExistingDirectory = lambda *_: ""  # type: ignore[assignment,method-assign]


def pause(milliseconds: int) -> None:
    """Let the window live."""
    loop = QEventLoop()
    QTimer.singleShot(milliseconds, loop.quit)
    loop.exec()


def attack(window: Window, files: Path, seconds: float, seed: int, memory: Callable[[], int]) -> tuple[Counts, float]:
    """Play for so long; returns the counts and how much the memory grew from the first third to the end, as a share."""
    hands = Hands(window, files, seed)
    listen(window, hands.counts)
    begin, early = time.monotonic(), 0
    while time.monotonic() - begin < seconds:
        hands.play(_LOOK_EVERY)
        pause(20)
        if not early and time.monotonic() - begin > seconds / 3:
            early = memory()
    pause(500)
    return hands.counts, (memory() - early) / early if early else 0.0
