"""Long work that belongs to the workroom and not to a page: each shows its share and can be stopped."""

from collections.abc import Callable
from typing import Any, Protocol

from PySide6.QtCore import QObject, Qt, Signal
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QWidget

from yarrow_lane.measure.progress import Progress
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.ui.kit.plain import PlainLabel
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.threads import Threads, Ticket


class Work(Protocol):
    """Something under way."""

    @property
    def title(self) -> str: ...
    @property
    def words(self) -> str: ...
    @property
    def under_way(self) -> bool: ...
    def stop(self) -> None: ...


class _Piece:
    """One piece of work done once, such as sheets being written."""

    def __init__(self, title: str, changed: Callable[[], None]) -> None:
        self.title, self._changed = title, changed
        self.ticket: Ticket | None = None
        self.under_way = True
        self._share = 0.0

    @property
    def words(self) -> str:
        return f"{self._share:.0%}"

    def told(self, share: float) -> None:
        self._share = share
        self._changed()

    def stop(self) -> None:
        if self.ticket is not None:
            self.ticket.drop()
        self.over()

    def over(self) -> None:
        self.under_way = False
        self._changed()


class Works(QObject):
    """All long work of the workroom."""

    changed = Signal()

    def __init__(self, threads: Threads, failed: Callable[[Trouble], None]) -> None:
        super().__init__()
        self._threads, self._failed = threads, failed
        self._works: list[Work] = []

    def watch(self, work: Work, progressed: Any) -> None:
        """Show that work too whenever it is under way; `progressed` is its signal."""
        self._works.append(work)
        progressed.connect(self.changed)

    def run(self, title: str, work: Callable[[Progress], Any], done: Callable[[Any], None]) -> None:
        """Do a piece of work off the interface thread; trouble is said."""
        piece = _Piece(title, self.changed.emit)
        self._works.append(piece)

        def finished(answer: Any) -> None:
            piece.over()
            done(answer)

        def failed(trouble: Trouble) -> None:
            piece.over()
            self._failed(trouble)

        piece.ticket = self._threads.run(work, finished, failed, 0, piece.told)
        self.changed.emit()

    @property
    def now(self) -> tuple[Work, ...]:
        """What is under way."""
        self._works = [w for w in self._works if w.under_way or not isinstance(w, _Piece)]
        return tuple(w for w in self._works if w.under_way)

    def stop(self) -> bool:
        """Stop what was begun last; whether there was anything."""
        running = self.now
        if running:
            running[-1].stop()
        return bool(running)


class WorksStrip(QWidget):
    """One line at the foot of the window for what is under way; empty it takes no room."""

    def __init__(self, works: Works, guarded: Callable[[Callable[..., object]], Callable[..., None]]) -> None:
        super().__init__()
        self._works = works
        self.setObjectName("message")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        row = QHBoxLayout(self)
        row.setContentsMargins(px(18), px(4), px(12), px(4))
        self.words = PlainLabel()
        self.words.setFont(lettering(14.5))
        row.addWidget(self.words, 1)
        self.stop = QPushButton("Stop")
        self.stop.setFont(lettering(14))
        self.stop.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.stop.clicked.connect(guarded(lambda *_: works.stop()))
        row.addWidget(self.stop)
        works.changed.connect(self.show_works)
        self.show_works()

    def show_works(self) -> None:
        running = self._works.now
        self.words.setText(" · ".join(f"{w.title}: {w.words}" for w in running))
        self.setVisible(bool(running))
