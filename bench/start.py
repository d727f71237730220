"""From the start of the process to the first painted window, on the demo studio."""

import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from datetime import UTC, datetime
from pathlib import Path

from bench.figures import as_installed, figure
from yarrow_lane.demo.build import build_demo

TIMES = 5
CODE = """
import gc
gc.disable()  # as yarrow_lane.start does
import yarrow_lane.desk.desk  # as it does too
import sys
from pathlib import Path
from PySide6.QtCore import QEvent, QObject
from PySide6.QtWidgets import QApplication
from yarrow_lane.ui.main import Application
from yarrow_lane.ui.theme.lettering import load_fonts
qt = QApplication([])
qt.setStyle("Fusion")
load_fonts()
application = Application(Path(sys.argv[1]))
application.start()
application.window.grab()
print("painted", flush=True)
application.close()
"""


def seconds_to(command: list[str], compiled: Path) -> float:
    begin = time.perf_counter()
    process = subprocess.Popen(
        command, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True, env=as_installed(compiled)
    )
    assert process.stdout is not None
    process.stdout.readline()
    found = time.perf_counter() - begin
    process.wait()
    return found


def measure() -> Iterator[str]:
    with tempfile.TemporaryDirectory() as folder:
        studio = Path(folder) / "studio"
        build_demo(studio, datetime.now(UTC))
        compiled = Path(folder) / "compiled"
        to_window = [sys.executable, "-c", CODE, str(studio)]
        seconds_to(to_window, compiled)  # the first start compiles the sources and keeps the standings
        bare = [seconds_to([sys.executable, "-c", "print('ready', flush=True)"], compiled) for _ in range(TIMES)]
        window = [seconds_to(to_window, compiled) for _ in range(TIMES)]
        yield figure(f"start to first painted window, median of {TIMES} (bare Python {statistics.median(bare):.2f} s)",
                     statistics.median(window), 1.0, "s")  # fmt: skip
