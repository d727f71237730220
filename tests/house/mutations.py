"""Wrong programs, one small change each: every one must be caught by a test of the room it belongs to.

`python -m tests.house.mutations` writes each change into a copy of the sources, runs the tests named beside it there and says
which were caught. The checkout itself is never touched.
"""

import os
import shutil
import subprocess
import sys
import tempfile
from dataclasses import dataclass
from pathlib import Path

ROOT = Path(__file__).parents[2]


@dataclass(frozen=True)
class Mutation:
    """One text of one file, what is put in its place, and the tests that must fail then."""

    name: str
    file: str
    text: str
    instead: str
    tests: str


MUTATIONS = (
    Mutation("minutes told beside ten hours", "measure/lengths.py", "whole >= 600", "whole >= 60000", "rooms/measure"),
    Mutation("squint in px", "tone/study.py", "squint_mm * colours.px_per_mm", "squint_mm", "rooms/tone"),
    Mutation("a crumb is kept", "tone/study.py", "small = areas < least", "small = areas < 0 * least", "rooms/tone"),
    Mutation("the surface twice in a glaze", "paint/films/glaze.py", "SEEN * K1 * white()", "2 * SEEN * K1 * white()", "rooms/paint"),
    Mutation("unwanted tubes are used", "paint/recipes/solver.py", "near = near[group.masks(near) & banned == 0]", "pass", "rooms/paint"),
    Mutation("parts by eye do not slip", "paint/recipes/solver.py", "/ step * unsure) ** 2", "/ step * 0) ** 2", "rooms/paint"),
    Mutation("a let-down takes no white", "palette/amounts.py", "amount /= 1 + TINT_PARTS", "pass", "rooms/palette"),
    Mutation("light from one side is not undone", "palette/card.py", "/ _shade(plane, rect)", "/ 1.0", "rooms/palette"),
    Mutation("no depth in the passes", "layers/passes.py", '"depth": facts.depth,', '"depth": 0,', "rooms/layers"),
    Mutation("layers: a seen-through fringe", "layers/area_colours.py", "keep[asked] = to_core", "keep[asked] = 0 * to_core", "rooms/layers"),
    Mutation("layers: the lie upside down", "layers/patching/order.py", "rank[:, None] > rank", "rank[:, None] < rank", "rooms/layers"),
    Mutation("layers: surely is likely", "easel/wet.py", "1.0 if finished.touched else SURELY", "1.0", "rooms/layers"),
    Mutation("layers: no coat held to its step", "layers/rules.py", "found += _coats_out_of_step(order, meets)", "pass", "rooms/layers"),
    Mutation("layers: a line does not snap", "layers/strokes/snapping.py", "moved[0] = moved[-1] = 0.0", "moved[:] = 0.0", "rooms/layers"),
    Mutation("layers: colour held back is lost", "layers/play/site.py", "[0, chroma, 0, 0]", "[0, 1, 0, 0]", "rooms/layers"),
    Mutation("half a pixel aside", "measure/raster.py", "sx / 2 - 0.5], [0", "sx / 2 + 0.5], [0", "rooms/measure"),
    Mutation("drying begins anew", "easel/standing.py", "max(dries, default=None)", "None", "rooms/easel"),
    Mutation("what is over of today is planned", "calendar/windows.py", "minute_now if n == 0 else 0", "0", "rooms/calendar"),
    Mutation("wet paint is painted on", "calendar/laying.py", "begin[after] = end + lag", "begin[after] = end", "rooms/calendar"),
    Mutation("other canvases cost nothing", "calendar/board.py", "between = canvas if not same", "between = 0 if not same", "rooms/calendar"),
    Mutation("by lamp as by day", "calendar/board.py", "if stint.daylight:", "if False:", "rooms/calendar"),
    Mutation("a pin moves", "calendar/pinning.py", "found[n, k] = start", "found[n, k] = start + 5", "rooms/calendar"),
    Mutation("days are never lost", "calendar/painted_days.py", "planned[None] * of_day * ~lost", "planned[None] * of_day", "rooms/calendar"),
    Mutation("late passes alone are late", "calendar/pace.py", "base += self._works *", "base += 0 *", "rooms/calendar"),
    Mutation("safe is likely", "calendar/dates.py", "LIKELY, SAFE = 0.5, 0.9", "LIKELY, SAFE = 0.5, 0.5", "rooms/calendar"),
    Mutation("promises may break", "calendar/promising.py", "harmless = [o for o in tried if not o.breaks]", "harmless = tried", "rooms/calendar"),
    Mutation("a calendar doubles its sittings", "documents/calendar_file.py", 'f"sitting-{commission_id}-{number}"', 'f"{id(number)}"', "rooms/documents"),
    Mutation("the room does not change", "easel/air.py", "left, clock, rate = left - dried, reading.at, reading.deficit / finished.deficit", "continue", "rooms/easel"),
    Mutation("80 % is done", "easel/places.py", "steps=(*place.steps, (at.patch, whole))", "steps=(*place.steps, (at.patch, True))", "rooms/easel"),
    Mutation("greys say nothing of the level", "check/light.py", "wanted = np.log((light + _FLARE) /", "wanted = 0 * np.log((light + _FLARE) /", "rooms/check"),
    Mutation("paint is taken for light", "check/light.py", "np.clip(1 - far**2, 0, 1) ** 2", "1.0", "rooms/check"),
    Mutation("the camera's curve stays", "check/greys.py", "np.float32(1 + self.a)", "np.float32(1.0)", "rooms/check"),
    Mutation("bare ground is judged", "check/measuring.py", "whole_patches(~wanted.bare & ~shone, patches)", "whole_patches(wanted.bare | True, patches)", "rooms/check"),
    Mutation("the painting is not moved back", "check/measuring.py", "back = moved_back(one.flat, moves)", "back = one.flat[::-1]", "rooms/check"),
    Mutation("a refusal is forgotten", "check/ranking.py", "and set(fault.kinds) <= set(m.kinds)", "and False", "rooms/check"),
    Mutation("strips anywhere", "check/strips.py", "best = int(np.argmax(gain))", "best = 0", "rooms/check"),
    Mutation("values half as large", "check/wording.py", "halves = max(1, round(abs(lightness) / 5))", "halves = max(1, round(abs(lightness) / 10))", "rooms/check"),
    Mutation("a frame of other greys", "documents/grey_frame.py", "float(grey_code(lightness)) / 255", "float(lightness) / 100", "rooms/documents"),
    Mutation("eyes agree at 80 degrees", "intake/light.py", "_AGREE_DEG = 45.0", "_AGREE_DEG = 90.0", "rooms/intake"),
    Mutation("noise is shading", "intake/light.py", "slope_y) < 4.0", "slope_y) < 2.0", "rooms/intake"),
    Mutation("nearly white is burnt out", "intake/exposure.py", "= 252, 8", "= 250, 10", "rooms/intake"),
    Mutation("burnt out is no worse", "intake/ranking.py", "(2 / 3) * whole", "(2 / 3)", "rooms/intake"),
    Mutation("neighbouring shots are copies", "intake/copies.py", "SHOT_BITS = 20", "SHOT_BITS = 28", "rooms/intake"),
    Mutation("files not synced", "store/things.py", "os.fsync(stream.fileno())", "stream.fileno()", "store"),
    Mutation("database not synced", "store/database.py", "synchronous = FULL", "synchronous = OFF", "store"),
    Mutation("print larger than the canvas", "documents/print_plan.py", "room_h / squares.height_mm, 1.0)",
             "room_h / squares.height_mm)", "rooms/documents"),
    Mutation("print at half its pixels", "documents/print_plan.py", "PRINT_PX_MM = 300", "PRINT_PX_MM = 150", "rooms/documents"),
    Mutation("a log replayed onto the restored file", "store/restore.py", '("-wal", "-shm", "-journal")', "()", "store"),
    Mutation("an empty file is a new studio", "store/restore.py", "    if beside:", "    if not beside:", "store"),
    Mutation("a sound copy given up for a worse", "store/copies.py", "if not going.sound or", "if True or", "store"),
    Mutation("seals of versions not compared", "store/versions.py", "if found != (seal,):", "if not found:", "store"),
    Mutation("a damaged photograph opened", "store/things.py", "hexdigest() != thing_hash", "hexdigest() == ''", "store"),
    Mutation("the picture not compared", "intake/arriving.py", "(clean, name) != before", "(clean, name) == 1", "rooms/intake"),
    Mutation("encoded words in a header", "standins/outbox.py", '.replace("=?", "= ?").replace("?=", "? =")', "",
             "rooms/standins"),
    Mutation("hours in doubt counted", "easel/clock.py", "0.0 if doubt else measured", "measured", "rooms/easel"),
    Mutation("wet by a date to come", "measure/moments.py", "min(moment, now) if", "moment if", "rooms/easel"),
)  # fmt: skip


def caught(mutation: Mutation, work: Path) -> bool:
    """Whether its tests fail on the changed copy."""
    copy = work / "src"
    shutil.copytree(ROOT / "src", copy, dirs_exist_ok=True)
    file = copy / "yarrow_lane" / mutation.file
    file.write_text(file.read_text().replace(mutation.text, mutation.instead))
    place = os.environ | {"PYTHONPATH": str(copy), "QT_QPA_PLATFORM": "offscreen", "PYTHONDONTWRITEBYTECODE": "1"}
    where = [sys.executable, "-m", "pytest", "-q", "-x", "-p", "no:cacheprovider", str(ROOT / "tests" / mutation.tests)]
    done = subprocess.run(where, cwd=ROOT, env=place, capture_output=True, text=True, check=False)
    return done.returncode == 1


def main() -> int:
    """Print a line for each; 1 when one was not caught. Words of a name on the command line choose some."""
    missed = 0
    for mutation in MUTATIONS:
        if not all(word in mutation.name for word in sys.argv[1:]):
            continue
        with tempfile.TemporaryDirectory() as work:
            found = caught(mutation, Path(work))
        missed += not found
        print(f"{'caught' if found else 'MISSED'}  {mutation.name}", flush=True)
    return 1 if missed else 0


if __name__ == "__main__":
    sys.exit(main())
