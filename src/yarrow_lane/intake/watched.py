"""Pictures that turned up in a folder since it was last looked at."""

from pathlib import Path

_ENDINGS = frozenset((".jpg", ".jpeg", ".png", ".webp", ".tif", ".tiff", ".heic", ".heif"))


def new_pictures(folder: str, known: frozenset[str]) -> tuple[Path, ...]:
    """Pictures in the folder whose names are not `known`, the newest first; none where it cannot be read. Half copied ones come when they rest."""
    if not folder:
        return ()
    try:
        found = [p for p in Path(folder).iterdir() if p.suffix.lower() in _ENDINGS and p.name not in known and p.is_file()]
        return tuple(sorted((p for p in found if p.stat().st_size > 0), key=lambda p: -p.stat().st_mtime))
    except OSError:
        return ()
