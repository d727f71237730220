"""The keys of the easel: one hand is enough, and a pedal that turns pages works unset."""

from dataclasses import dataclass, fields, replace

from yarrow_lane.measure.trouble import Trouble


class KeyTrouble(Trouble):
    """A key that cannot be set."""


@dataclass(frozen=True)
class EaselKeys:
    """Names of keys as Qt writes them. Page Down and Page Up go forward and back whatever is set here."""

    forward: str = "Right"
    back: str = "Left"
    nearly: str = "8"
    flip: str = "U"
    grey: str = "G"
    squint: str = "S"
    strip: str = "T"


WORDS = {
    "forward": "Next patch, done with the last", "back": "Back", "nearly": "Done to 80 %", "flip": "Upside down", "grey": "Grey",
    "squint": "Squint", "strip": "A strip beside the paint",
}  # fmt: skip
TAKEN = (
    "Space",
    "Esc",
    "Return",
    "Enter",
    "PgUp",
    "PgDown",
    "Tab",
    "F11",
    "?",
    "D",
    "F1",
    "F",
)  # these keep their meaning at the easel


def set_key(keys: EaselKeys, act: str, key: str) -> EaselKeys:
    """Another key for an act; raises `KeyTrouble` for one that means something else already."""
    said = WORDS[act]
    if not key.strip() or key in TAKEN:
        raise KeyTrouble(
            f"The key for “{said}” was not set", f"{key or 'nothing'} means something else at the easel", "choose another"
        )
    for field in fields(keys):
        if field.name != act and getattr(keys, field.name) == key:
            raise KeyTrouble(f"The key for “{said}” was not set", f"{key} is “{WORDS[field.name]}”", "choose another")
    changed: dict[str, str] = {act: key}
    return replace(keys, **changed)
