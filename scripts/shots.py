"""Take the pictures of docs/screenshots: the real application on the demo studio, always on the same day."""

import shutil
import sys
import tempfile
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from pathlib import Path

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QApplication

import yarrow_lane
from yarrow_lane.commission.standing import passes_in
from yarrow_lane.demo.build import build_demo
from yarrow_lane.demo.scene import SetClock
from yarrow_lane.desk.desk import Desk
from yarrow_lane.easel.session import EASEL, choose_pass
from yarrow_lane.lane.part import Edit
from yarrow_lane.store.store import Store
from yarrow_lane.ui.main import settle
from yarrow_lane.ui.theme.lettering import load_fonts
from yarrow_lane.ui.window import Window
from yarrow_lane.workers.pool import Workers

DAY = datetime(2026, 11, 24, 9, 40, tzinfo=UTC)
# File name, place of the commission on the shelf, door.
VIEWS = (
    ("studio", None, ""),
    ("studio-calendar", None, ""),
    ("books", None, ""),
    ("intake", 1, "Intake"),
    ("intake-eyes", 0, "Intake"),
    ("compose", 1, "Compose"),
    ("compose-cut", 5, "Compose"),
    ("compose-place", 5, "Compose"),
    ("compose-wall", 5, "Compose"),
    ("compose-proof", 5, "Compose"),
    ("transfer", 2, "Transfer"),
    ("tone", 2, "Tone"),
    ("palette", 1, "Palette"),
    ("layers", 1, "Layers"),
    ("layers-patches", 1, "Layers"),
    ("layers-play", 1, "Layers"),
    ("easel", 1, "Easel"),
    ("check", 0, "Check"),
    ("deliver", 0, "Deliver"),
)

# Pictures of the guide that ships with the program, smaller.
GUIDE = ("studio", "compose-place", "layers", "check", "deliver", "books")
GUIDE_PX = 900
COMPOSING = {"cut": "cut out", "place": "place", "wall": "on the wall", "proof": "proof"}


def show_layers(application: QApplication, window: Window, mode: str) -> None:
    """A way of working of the layers room, with all of Play foreseen."""
    page = window.current
    page.playing.want(page.commission, passes_in(page.commission, page.studio.climate))
    settle(application, window)
    page.work_on(mode)
    settle(application, window)
    if mode == "patches":
        page.patching.choose_patch(page.patching.shown[20].id)
    elif mode == "play":
        page.foreseeing.go(27)


def stand_at_fur(application: QApplication, window: Window) -> None:
    """The stand in the middle of a fur pass, half an hour in."""
    page = window.current
    passes = passes_in(page.commission, page.studio.climate)
    fur = next(p for p in passes if p.region_name == "body fur" and p.role == "mass")
    page.desk.do(page.commission_id, Edit(EASEL, "Chose what to paint", lambda e: choose_pass(e, fur.id)))
    page.open_stand()
    settle(application, window)
    for _ in range(7):
        page.hands.do("forward")
    page.desk.clock.now = DAY + timedelta(minutes=26)
    page.hands.refresh()
    settle(application, window)


def main(target: Path) -> None:
    application = QApplication(["shots"])
    application.setStyle("Fusion")
    load_fonts()
    folder = Path(tempfile.mkdtemp()) / "studio"
    build_demo(folder, DAY)
    store = Store(folder, DAY.date())
    workers = Workers()
    window = Window(Desk(store, SetClock(DAY)), workers)
    window.resize(1280, 800)
    window.show()
    target.mkdir(parents=True, exist_ok=True)
    guide = Path(yarrow_lane.__file__).parent / "guide"
    for name, place, door in VIEWS:
        if place is None:
            window.open_studio()
            settle(application, window)
            window.open_hall({"studio-calendar": "calendar", "books": "books"}.get(name, "shelf"), "")
        else:
            window.open_door(window.desk.studio.on_shelf[place], door)
        _, _, mode = name.partition("-")
        if door == "Compose" and mode:
            settle(application, window)
            window.current.work_on(COMPOSING[mode])
            if mode == "cut":
                window.current.mode.cut_again(2)
        elif door == "Tone":
            settle(application, window)
            window.current.hand(lambda: window.current.choose_count(5))
            window.current.show_look("the ground")
        elif door == "Layers":
            settle(application, window)
            show_layers(application, window, mode or "score")
        elif door == "Easel":
            settle(application, window)
            stand_at_fur(application, window)
        elif mode and place is not None:
            settle(application, window)  # measures come before marks are drawn
            window.current.set_look(replace(window.current.look, mode=mode))
        settle(application, window)
        window.grab().save(str(target / f"{name}.png"), "PNG")
        print(target / f"{name}.png")
        if name in GUIDE:
            small = window.grab().toImage().scaledToWidth(GUIDE_PX, Qt.TransformationMode.SmoothTransformation)
            small.save(str(guide / f"{name}.jpg"), "JPEG", 82)
        if door == "Easel":
            window.current.hands.do("leave")
            window.desk.clock.now = DAY
    window.end()
    workers.close()
    store.close()
    shutil.rmtree(folder.parent)


if __name__ == "__main__":
    main(Path(sys.argv[1]) if len(sys.argv) > 1 else Path(__file__).parents[1] / "docs" / "screenshots")
