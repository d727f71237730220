"""What a touch of a film says: of the film, and of how films dry in this room."""

from datetime import datetime

from yarrow_lane.easel.air import learned
from yarrow_lane.easel.session import Easel


def room_words(factor: float) -> str:
    """How films dry here against what is reckoned."""
    percent = round(100 * abs(factor - 1))
    return f"{percent}\u202f% {'slower' if factor > 1 else 'quicker'} than reckoned" if percent else "as reckoned"


def touched(easel: Easel, pass_id: str, now: datetime, factor: float, dry: bool) -> tuple[float, str]:
    """The room's factor after a film was touched, and what is said of it."""
    done = easel.done(pass_id)
    if done is None or not done.deficit:
        return factor, "noted as dry." if dry else "still wet; oil and films without a reading teach nothing."
    new = learned(factor, done.dry_minutes, (now - done.at).total_seconds() / 60, dry)
    if new == factor:
        return factor, "noted as dry." if dry else "wet, as reckoned."
    return new, f"{'dry' if dry else 'still wet'}. Films here now count as drying {room_words(new)}."
