"""Run every measurement but the long ones, or those named, and print one line for each figure."""

import sys

from bench import (
    books,
    calendar,
    check,
    colour,
    compose,
    house,
    intake,
    layers,
    pictures,
    resolution,
    start,
    store,
    transfer,
    whole,
)

MEASURES = {
    "house": house.measure,
    "start": start.measure,
    "pictures": pictures.measure,
    "intake": intake.measure,
    "resolution": resolution.measure,
    "compose": compose.measure,
    "transfer": transfer.measure,
    "colour": colour.measure,
    "layers": layers.measure,
    "calendar": calendar.measure,
    "check": check.measure,
    "books": books.measure,
    "store": store.measure,
    "whole": whole.measure,
}
# Minutes and more: only when they are named.
_LONG = ("store", "compose", "transfer", "layers", "calendar", "check", "books", "whole")


def main() -> None:
    for name in sys.argv[1:] or (n for n in MEASURES if n not in _LONG):
        for line in MEASURES[name]():
            print(f"{name}: {line}", flush=True)


if __name__ == "__main__":  # what is begun beside it imports this file again
    main()
