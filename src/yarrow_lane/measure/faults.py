"""Where a fault happened, told without what was being worked on: a log may be shown to others, a client's words may not."""

import traceback


class FaultElsewhere(RuntimeError):
    """A fault of ours in another process; `places` tells where."""

    def __init__(self, places: str) -> None:
        self.places = places
        super().__init__(places.partition("\n")[0])


def places_of(error: BaseException) -> str:
    """The kinds of the error and of what led to it, each with its lines of code; no message, no value."""
    told = []
    seen: BaseException | None = error
    while seen is not None:
        lines = [f"  {f.filename}:{f.lineno} in {f.name}" for f in traceback.extract_tb(seen.__traceback__)]
        elsewhere = [seen.places] if isinstance(seen, FaultElsewhere) else []
        told.append("\n".join([type(seen).__name__, *lines, *elsewhere]))
        seen = seen.__cause__ or seen.__context__
    return "\nfrom ".join(told)
