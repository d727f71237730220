"""The first thing that runs: what is loaded at the start is not searched for garbage while it is loaded."""

import gc


def main() -> int:
    """Start the application; returns the exit code."""
    gc.disable()  # a tenth of a second of the start; `ui.main` turns it on again once the window is there
    from yarrow_lane.ui.main import main as run

    return run()
