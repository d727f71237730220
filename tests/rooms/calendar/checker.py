"""Faults of a plan, found without the planner's own code: wet paint, windows, daylight, overlaps, pins, work left out."""

from itertools import pairwise


def faults(laying, windows, own, pins=None, releases=None):
    """What is wrong, in words."""
    found, every = [], []
    for n, job in enumerate(laying.jobs):
        for k, stint in enumerate(job.stints):
            start = laying.start[n][k]
            if start < 0:
                found.append(f"left out: {n} {k}")
                continue
            for before, lag in stint.needs:
                if start < laying.start[n][before] + job.stints[before].minutes + lag:
                    found.append(f"wet: {n} {k} on {before}")
            if releases and start < releases[n][k]:
                found.append(f"early: {n} {k}")
            if stint.minutes == 0:
                continue
            inside = [
                w
                for w, (b, e) in enumerate(zip(windows.begin, windows.end, strict=True))
                if b <= start and start + stint.minutes <= e
            ]
            if not inside:
                found.append(f"outside the hours: {n} {k} at {start}")
                continue
            w = inside[0]
            if stint.daylight and not windows.light_from[w] <= start <= windows.light_to[w] - stint.minutes:
                found.append(f"dark: {n} {k}")
            every.append((start, start + stint.minutes, n, stint.palette, w))
    every.sort()
    for a, b in pairwise(every):
        gap = 0
        if a[4] == b[4]:
            gap = own.canvas if a[2] != b[2] else 0 if a[3] == b[3] or min(a[3], b[3]) < 0 else own.palette
        if b[0] < a[1] + gap:
            found.append(f"overlap: {a} {b}")
    for (n, k), start in (pins or {}).items():
        if laying.start[n][k] != start:
            found.append(f"pin moved: {n} {k}")
    return found
