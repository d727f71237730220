"""Run every measurement, or those named, and print one line for each figure."""

import sys

from bench import house, intake, pictures, start

MEASURES = {"house": house.measure, "start": start.measure, "pictures": pictures.measure, "intake": intake.measure}


def main() -> None:
    for name in sys.argv[1:] or MEASURES:
        for line in MEASURES[name]():
            print(f"{name}: {line}", flush=True)


main()
