"""Run by the kill test: edits without end; a line is printed once an edit is acknowledged."""

import sys
from dataclasses import replace
from datetime import UTC, datetime
from pathlib import Path

from yarrow_lane.desk.desk import Desk
from yarrow_lane.intake.brief import BRIEF, new_brief
from yarrow_lane.lane.happening import HoursCorrected
from yarrow_lane.lane.part import Edit
from yarrow_lane.store.store import Store


def main(folder: Path) -> None:
    desk = Desk(Store(folder, datetime.now(UTC).date()), lambda: datetime.now(UTC))
    if not desk.studio.on_shelf:
        desk.start_commission(new_brief("Pip", "cat", "", "acrylic", datetime.now(UTC).date(), None))
    cid = desk.studio.on_shelf[0]
    print("ready", flush=True)
    number = int(desk.commission(cid).brief.wish or 0)
    while True:
        number += 1
        if number % 7 == 0:
            happened = len(desk.commission(cid).log) + 1
            desk.happen(cid, HoursCorrected(desk.clock(), "1:wash", "wash", 1.0))
            print(f"happened {happened}", flush=True)
        picture = b"picture %d" % number * 50
        key = desk.store.photos.keep(picture)
        desk.do(cid, Edit(BRIEF, f"edit {number}", lambda b, n=number, k=key: replace(b, wish=str(n), client=k)))
        print(f"edit {number}", flush=True)


main(Path(sys.argv[1]))
