"""Values to JSON and back, validated at the edge; each part carries its version and older ones are brought up to it."""

import dataclasses
import hashlib
import json
import os
from collections.abc import Mapping
from functools import cache
from typing import TYPE_CHECKING, Annotated, Any, TypeVar, get_args, get_type_hints

from yarrow_lane.lane import happening as happened
from yarrow_lane.lane.happening import Happening
from yarrow_lane.lane.part import Part, Plain
from yarrow_lane.measure.late import late
from yarrow_lane.store.trouble import Damaged, StoreTrouble

if TYPE_CHECKING:
    import pydantic
else:
    # Looking for plug-ins through every installed package would cost the start a twentieth of a second.
    os.environ.setdefault("PYDANTIC_DISABLE_PLUGINS", "__all__")
    pydantic = late("pydantic")

T = TypeVar("T")
_HAPPENING = "happening"
_VERSION = "v"


def _make_strict(found: Any, seen: set[object]) -> None:
    """A field this program does not know would be dropped in silence: every dataclass below refuses it instead.

    And what is no number would be written as nothing: it is written as a word, by which it is found.
    """
    if found in seen:
        return
    seen.add(found)
    if dataclasses.is_dataclass(found) and isinstance(found, type):
        found.__pydantic_config__ = {"extra": "forbid", "ser_json_inf_nan": "constants"}  # type: ignore[attr-defined]
        for inner in get_type_hints(found).values():
            _make_strict(inner, seen)
    for inner in get_args(found):
        if not isinstance(inner, str):
            _make_strict(inner, seen)


@cache
def adapter(kind: Any) -> "pydantic.TypeAdapter[Any]":
    """What checks and writes values of a type; fields it does not know are refused."""
    _make_strict(kind, set())
    if kind == Happening:
        return pydantic.TypeAdapter(Annotated[Happening, pydantic.Field(discriminator="kind")])
    return pydantic.TypeAdapter(kind)


def _dumped(kind: Any, version: int, value: object, what: str) -> str:
    try:
        text = adapter(kind).dump_json(value).decode()
    except ValueError as error:  # lone surrogates have no form in UTF-8; the edges of the program clean them away
        raise StoreTrouble(f"The part “{what}” was not stored", "it holds letters that are none", "write them again") from error
    if "NaN" in text or "Infinity" in text:  # which may also be words of the painter's
        _refuse_no_numbers(value, what)
    return f'{{"{_VERSION}":{version},{text[1:]}' if text != "{}" else f'{{"{_VERSION}":{version}}}'


def _refuse_no_numbers(value: Any, what: str) -> None:
    """JSON has no form for what is no number. Raises `StoreTrouble`."""
    if isinstance(value, float) and not abs(value) < float("inf"):
        raise StoreTrouble(
            f"The part “{what}” was not stored", "it holds a number that is none", "do it again with other values"
        )
    if dataclasses.is_dataclass(value):
        for field in dataclasses.fields(value):
            _refuse_no_numbers(getattr(value, field.name), what)
    elif isinstance(value, tuple):
        for inner in value:
            _refuse_no_numbers(inner, what)


def to_json(part: Part[T], value: T) -> str:
    """JSON of a part, fields in their order, so that equal values have equal hashes. Raises `StoreTrouble` for no number."""
    return _dumped(part.type, part.version, value, part.name)


def plain_of(text: str, what: str) -> Plain:
    """A part as it was written, its version among its fields; raises `StoreTrouble`."""
    try:
        plain = json.loads(text)
    except ValueError as error:
        raise _unreadable(what, "it is no JSON") from error
    if not isinstance(plain, dict) or not isinstance(plain.get(_VERSION, 0), int):
        raise _unreadable(what, "it has not the form of a part")
    return plain


def _head(part: Part[Any]) -> str:
    return f'{{"{_VERSION}":{part.version}'


def is_current(part: Part[Any], text: str) -> bool:
    """Whether this program's own version of the part was written."""
    return text.startswith((_head(part) + ",", _head(part) + "}"))


def from_json(part: Part[T], text: str, others: Mapping[str, str] | None = None) -> T:
    """The part again.

    `others` are all parts of that commission as they are on record: an upgrade may look into them. Raises `StoreTrouble` naming
    every fault with its place, and for a part that a newer program wrote.
    """
    if is_current(part, text):
        value: T = _validated(part.type, "{" + text[len(_head(part)) :].removeprefix(","), part.name)
        return value
    plain = plain_of(text, part.name)
    version = plain.pop(_VERSION, 0)
    if version > part.version:
        raise StoreTrouble(
            f"The part “{part.name}” on record cannot be read",
            f"a newer Yarrow Lane wrote it (its number is {version}, this program knows up to {part.version})",
            "open the studio with that newer program",
        )
    beside = {name: plain_of(t, name) for name, t in (others or {}).items()}
    try:
        for upgrade in part.upgrades[version:]:
            plain = upgrade(plain, beside)
    except (KeyError, TypeError, ValueError, AttributeError) as error:
        raise _unreadable(part.name, f"its older form is damaged ({type(error).__name__}: {error})") from error
    value = _validated(part.type, json.dumps(plain), part.name)
    return value


def _unreadable(what: str, why: str) -> StoreTrouble:
    return Damaged(f"The part “{what}” on record cannot be read", why, "restore a copy of the studio")


def _validated(kind: Any, text: str, what: str) -> Any:
    try:
        return adapter(kind).validate_json(text)
    except pydantic.ValidationError as error:
        faults = "; ".join(f"{'.'.join(map(str, f['loc'])) or what}: {f['msg']}" for f in error.errors())
        raise _unreadable(what, faults) from error


def happening_to_json(happening: Happening) -> str:
    """JSON of one entry."""
    return _dumped(Happening, len(happened.UPGRADES), happening, _HAPPENING)


def happening_from_json(text: str) -> Happening:
    """The entry again; raises `StoreTrouble`."""
    plain = plain_of(text, _HAPPENING)
    version = plain.pop(_VERSION, 0)
    if version > len(happened.UPGRADES):
        raise _unreadable(_HAPPENING, "a newer Yarrow Lane wrote it")
    try:
        for upgrade in happened.UPGRADES[version:]:
            plain = upgrade(plain)
    except (KeyError, TypeError) as error:
        raise _unreadable(_HAPPENING, f"its older form is damaged ({error})") from error
    entry: Happening = _validated(Happening, json.dumps(plain), _HAPPENING)
    return entry


def to_plain_json(value: object) -> str:
    """JSON of a value that is kept only to save work, without a version."""
    kind: Any = type(value)
    return str(adapter(kind).dump_json(value).decode())


def from_plain_json(kind: type[T], text: str) -> T:
    """Such a value again; raises `StoreTrouble`."""
    value: T = _validated(kind, text, kind.__name__)
    return value


def text_hash(text: str | bytes) -> str:
    """SHA-256, as parts and things are named."""
    return hashlib.sha256(text.encode() if isinstance(text, str) else text).hexdigest()
