"""The studio is opened and closed again and again in the middle of work; every closing ends in its time."""

import os
import subprocess
import sys
import time
from pathlib import Path

from bench.attacks.counts import Counts

# Our choice: a window that waits for its threads is given ten seconds, a process five; a shared machine as much again.
_LONGEST_S = 30.0
_SCRIPT = """
import faulthandler, random, sys
from datetime import UTC, datetime
from pathlib import Path
from PySide6.QtWidgets import QApplication
from bench.attacks.hands import pause
from bench.attacks.small_pictures import picture
from yarrow_lane.ui.main import Application
from yarrow_lane.ui.theme.lettering import load_fonts
folder, count, seed = Path(sys.argv[1]), int(sys.argv[2]), int(sys.argv[3])
dice, qt = random.Random(seed), QApplication([])
load_fonts()
files = [folder.parent / f"{n}.jpg" for n in range(12)]
for n, file in enumerate(files):
    file.write_bytes(picture(n))
for n in range(count):
    faulthandler.dump_traceback_later(60, exit=True)  # a stand-still names its line
    application = Application(folder)
    assert application.start() is None
    window = application.window
    shelf = window.desk.studio.on_shelf
    window.open_door(dice.choice(shelf), dice.choice(("Intake", "Compose", "Tone", "Layers", "Check")))
    if dice.random() < 0.6:
        window.take_files(dice.sample(files, 5))
    if dice.random() < 0.3:
        window.workroom.safekeeping.save_everything(folder.parent / "all.zip")
    pause(dice.choice((0, 0, 1, 5, 30, 120, 400)))
    if dice.random() < 0.2:
        for worker in list(application.workers._busy):
            worker.kill()
    print(f"closing {n}", flush=True)
    assert application.close()
    pause(0)  # what was closed goes
    print(f"closed {n}", flush=True)
"""


def attack(place: Path, count: int, seed: int) -> Counts:
    """Open and close `count` times; one that does not end is too slow."""
    from bench.attacks.databases import NOW
    from yarrow_lane.demo.build import build_demo

    counts = Counts()
    place.mkdir(parents=True)
    build_demo(place / "studio", NOW)
    environment = {**os.environ, "QT_QPA_PLATFORM": "offscreen"}
    command = [sys.executable, "-c", _SCRIPT, str(place / "studio"), str(count), str(seed)]
    with subprocess.Popen(command, stdout=subprocess.PIPE, stderr=subprocess.PIPE, text=True, env=environment) as process:
        assert process.stdout is not None and process.stderr is not None
        last = time.monotonic()
        for line in process.stdout:
            seconds, last = time.monotonic() - last, time.monotonic()
            if line.startswith("closed"):
                counts.tried += 1
                counts.held += seconds <= _LONGEST_S
                if seconds > _LONGEST_S:
                    counts.too_slow.append(f"{line.strip()} of seed {seed}: {seconds:.0f} s")
        process.wait(_LONGEST_S)
        if process.returncode:
            counts.tracebacks.append(process.stderr.read()[-2000:])
    return counts
