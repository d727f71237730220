"""Starting the application."""

import argparse
import gc
import os
import sys
from datetime import datetime
from importlib import resources
from pathlib import Path
from types import TracebackType

import platformdirs
from PySide6.QtCore import QEventLoop, QTimer
from PySide6.QtGui import QIcon
from PySide6.QtWidgets import QApplication

from yarrow_lane import __version__
from yarrow_lane.desk.desk import Desk
from yarrow_lane.installing import APP_ID
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.store.restore import restore
from yarrow_lane.store.store import Store
from yarrow_lane.ui.guard import Guard
from yarrow_lane.ui.restore_sheet import RestoreSheet
from yarrow_lane.ui.theme.lettering import load_fonts
from yarrow_lane.ui.theme.sheet import wear
from yarrow_lane.ui.window import Window
from yarrow_lane.workers.pool import Workers

_SETTLE_MS = 200  # our choice: longer than any page waits before it shows what has come


def local_now() -> datetime:
    """The present moment with the zone of this machine."""
    return datetime.now().astimezone()


def data_folder() -> Path:
    """Where studios live unless told otherwise."""
    return Path(platformdirs.user_data_dir("yarrow-lane", appauthor=False))


class Application:
    """Holds the open studio: one store, one desk, one window, and the workers that serve it.

    `window` is None while a studio did not open; then `failed` is the sheet that says why and offers its copies.
    """

    def __init__(self, folder: Path) -> None:
        """Of the studio in that folder; `start` opens it."""
        self.window: Window | None = None
        self.failed: RestoreSheet | None = None
        self.workers = Workers()
        self._store: Store | None = None
        self._guard: Guard | None = None  # of a studio that did not open
        self._folder = folder

    def start(self) -> Trouble | None:
        """Open the studio; returns why it did not open, which a window then says."""
        try:
            self.open(self._folder)
        except Exception as error:
            return self._say_why(error)
        return None

    def open(self, folder: Path) -> None:
        """Open a studio in place of the one that is open; raises `Trouble` and keeps the old one."""
        store = Store(folder, local_now().date())
        try:
            window = Window(Desk(store, local_now), self.workers)
        except BaseException:
            store.close()
            raise
        old_window, old_store = self.window, self._store
        self._store, self._folder, self.window = store, folder, window
        window.demo_wanted.connect(window.workroom.guard.guarded(self.open_demo))
        window.restore_wanted.connect(window.workroom.guard.guarded(self.restore))
        window.show()
        if old_window is not None and old_store is not None:
            old_window.end()
            old_window.deleteLater()  # else every new theme would be put on its widgets too
            old_store.close()

    def open_demo(self) -> None:
        """Build today's demo studio if need be, and open it."""
        self.open(demo_folder(data_folder(), local_now()))

    def restore(self, copy: Path) -> None:
        """Close the studio, put the copy in its place and open it; when that fails the studio is opened as it was."""
        if self.window is not None and not self.window.close():
            return  # it has said what keeps it open
        self._let_go()
        folder, words, wrong = self._folder, "", False
        try:
            aside = restore(folder, copy, local_now())
            words = f"Restored from {copy.name}. What was there before is in {aside}."
        except Trouble as trouble:
            words, wrong = trouble.sentence, True
        if self.start() is None and self.window is not None:
            self.window.say(words, wrong)

    def _say_why(self, error: Exception) -> Trouble:
        """A window with the sentence, the folder and its copies; where it happened goes to the log."""
        if self.failed is None:
            wear(_application(), False, 100)
            self._guard = Guard(self._folder, lambda trouble: self.failed.say(trouble) if self.failed is not None else None)
            self.failed = RestoreSheet(self._folder, local_now, self._guard.guarded)
            self.failed.setWindowTitle("Yarrow Lane")
            self.failed.resize(1000, 700)
            self.failed.chosen.connect(self.restore)
            self.failed.left.connect(self.failed.close)
        assert self._guard is not None
        if isinstance(error, Trouble):
            self._guard.note(error)
        trouble = error if isinstance(error, Trouble) else self._guard.fault(error)
        self.failed.show_copies(trouble=trouble)
        return trouble

    def _let_go(self) -> None:
        if self._store is not None:
            self._store.close()
        if self.window is not None:
            self.window.deleteLater()
        self.window, self._store = None, None

    def close(self) -> bool:
        """Close everything; returns whether all threads and processes ended in their time."""
        if self.failed is not None:
            self.failed.close()
        if self._guard is not None:
            self._guard.close()
        if self.window is not None:
            self.window.end()
            ended = self.window.threads.ended
        else:
            ended = True
        ended = self.workers.close() and ended
        self._let_go()
        return ended

    def say_unseen(self, kind: type[BaseException], error: BaseException, trace: TracebackType | None) -> None:
        """What was raised where no guard stands, in a paint or an event filter: said and written down like everything else."""
        if self.window is not None and isinstance(error, Exception):
            self.window.workroom.guard.say(error)
        else:
            sys.__excepthook__(kind, error, trace)


def _application() -> QApplication:
    qt = QApplication.instance()
    assert isinstance(qt, QApplication)
    return qt


def demo_folder(data: Path, now: datetime) -> Path:
    """The demo studio of this day; what builds it is loaded only when it is wanted."""
    from yarrow_lane.demo.build import demo_folder

    return demo_folder(data, now)


def _arguments(argv: list[str]) -> argparse.Namespace:
    parser = argparse.ArgumentParser("yarrow-lane", description="A studio for portraits of pets and people.")
    parser.add_argument("--studio", type=Path, help="the folder of the studio (made when it is not there)")
    parser.add_argument("--demo", action="store_true", help="open a copy of the demo studio")
    parser.add_argument("--shot", type=Path, metavar="FILE", help="save a picture of the window as PNG and end")
    parser.add_argument("--version", action="version", version=f"Yarrow Lane {__version__}")
    return parser.parse_args(argv)


def _use_a_screen() -> None:
    if sys.platform.startswith("linux") and not (
        os.environ.get("DISPLAY") or os.environ.get("WAYLAND_DISPLAY") or os.environ.get("QT_QPA_PLATFORM")
    ):
        print("No display found: using a virtual screen.", file=sys.stderr)
        os.environ["QT_QPA_PLATFORM"] = "offscreen"


def main(argv: list[str] | None = None) -> int:
    """Run; returns the exit code."""
    wanted = _arguments(sys.argv[1:] if argv is None else argv)
    _use_a_screen()
    qt = QApplication.instance() or QApplication(["yarrow-lane"])
    assert isinstance(qt, QApplication)
    qt.setApplicationName("Yarrow Lane")
    qt.setDesktopFileName(APP_ID)  # so that the desktop knows the window for the entry's
    qt.setWindowIcon(QIcon(str(resources.files("yarrow_lane.installing") / "files" / f"{APP_ID}-128.png")))
    qt.setStyle("Fusion")
    load_fonts()
    try:
        folder = wanted.studio or (demo_folder(data_folder(), local_now()) if wanted.demo else data_folder() / "studio")
    except Trouble as none:
        print(none.sentence, file=sys.stderr)
        return 1
    application = Application(folder)
    sys.excepthook = application.say_unseen
    trouble = application.start()
    if trouble is not None:
        print(trouble.sentence, file=sys.stderr)
    gc.freeze()  # what is loaded by now stays: looking through it for garbage would stop the window for a tenth of a second
    gc.enable()
    code = 1
    try:
        if wanted.shot and application.window is not None:
            code = _shoot(qt, application, wanted.shot)
        elif trouble is None or (not wanted.shot and qt.platformName() != "offscreen"):
            code = qt.exec()
    finally:
        sys.excepthook = sys.__excepthook__
        if not application.close():
            # What hangs in the system cannot be waited for; everything on record is on the disk.
            print("Something was still waiting for a disk or a process; Yarrow Lane ended without it.", file=sys.stderr)
            sys.stderr.flush()
            os._exit(code)
    return code


def _shoot(qt: QApplication, application: Application, file: Path) -> int:
    """Wait until everything is read, save the picture, end."""
    window = application.window
    assert window is not None
    settle(qt, window)
    saved = window.grab().save(str(file), "PNG")
    if not saved:
        print(f"“{file}” could not be written; choose another place.", file=sys.stderr)
    return 0 if saved else 1


def settle(qt: QApplication, window: Window) -> None:
    """Let all reading end and the window paint itself."""
    for _ in range(4):
        window.grab()  # painting asks for thumbnails
        pause = QEventLoop()
        QTimer.singleShot(_SETTLE_MS, pause.quit)
        pause.exec()  # measures are shown together, a moment after they come
        if window.threads.busy:
            waiting = QEventLoop()
            window.threads.idle.connect(waiting.quit)
            waiting.exec()
        qt.processEvents()
