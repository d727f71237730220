"""Starting the application."""

import argparse
import gc
import os
import sys
from datetime import datetime
from pathlib import Path

import platformdirs
from PySide6.QtCore import QEventLoop, QTimer
from PySide6.QtWidgets import QApplication, QMessageBox

from yarrow_lane import __version__
from yarrow_lane.desk.desk import Desk
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.store.store import Store
from yarrow_lane.ui.theme.lettering import load_fonts
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
    """Holds the open studio: one store, one desk, one window, and the workers that serve it."""

    def __init__(self, folder: Path) -> None:
        self.window: Window | None = None
        self.workers = Workers()
        self._store: Store | None = None
        self.open(folder)

    def open(self, folder: Path) -> None:
        """Open a studio in place of the one that is open; raises `Trouble` and keeps the old one."""
        store = Store(folder, local_now().date())
        old_window, old_store = self.window, self._store
        self._store = store
        self.window = Window(Desk(store, local_now), self.workers)
        self.window.demo_wanted.connect(self.window.workroom.guard.guarded(self.open_demo))
        self.window.show()
        if old_window is not None and old_store is not None:
            old_window.close()
            old_store.close()

    def open_demo(self) -> None:
        """Build today's demo studio if need be, and open it."""
        self.open(demo_folder(data_folder(), local_now()))

    def close(self) -> None:
        if self.window is not None:
            self.window.close()
        self.workers.close()
        if self._store is not None:
            self._store.close()


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
    qt.setStyle("Fusion")
    load_fonts()
    try:
        folder = wanted.studio or (demo_folder(data_folder(), local_now()) if wanted.demo else data_folder() / "studio")
        application = Application(folder)
    except Trouble as trouble:
        print(trouble.sentence, file=sys.stderr)
        if not wanted.shot and os.environ.get("QT_QPA_PLATFORM") != "offscreen":
            QMessageBox.critical(None, "Yarrow Lane", trouble.sentence)
        return 1
    gc.freeze()  # what is loaded by now stays: looking through it for garbage would stop the window for a tenth of a second
    gc.enable()
    try:
        if wanted.shot:
            return _shoot(qt, application, wanted.shot)
        return qt.exec()
    finally:
        application.close()


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
