"""The first thing that runs: what is loaded at the start is not searched for garbage while it is loaded."""

import gc


def main() -> int:
    """Start the application; returns the exit code."""
    gc.disable()  # a tenth of a second of the start; `ui.main` turns it on again once the window is there
    # What is loaded before Qt's Python layer is not read a second time by it in search of Qt's names:
    # about 7 % of loading our own modules, medians of twelve starts each.
    import yarrow_lane.desk.desk  # noqa: F401
    from yarrow_lane.ui.main import main as run

    return run()
