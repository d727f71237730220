"""Values to canonical JSON and back, validated at the edge."""

import hashlib
import json
from functools import cache
from typing import Any, get_type_hints

from pydantic import TypeAdapter, ValidationError

from yarrow_lane.commission.commission import PARTS, Commission
from yarrow_lane.commission.studio import Studio
from yarrow_lane.easel.clock import Happening
from yarrow_lane.store.trouble import StoreTrouble

STUDIO_PART = "studio"


@cache
def _adapter(name: str) -> TypeAdapter[Any]:
    if name == STUDIO_PART:
        return TypeAdapter(Studio)
    if name == "happening":
        return TypeAdapter(Happening)
    return TypeAdapter(get_type_hints(Commission)[name])


def to_json(name: str, value: object) -> str:
    """Canonical JSON of a part: sorted keys, no spare space, so that equal values have equal hashes."""
    plain = _adapter(name).dump_python(value, mode="json")
    return json.dumps(plain, sort_keys=True, separators=(",", ":"), ensure_ascii=False, allow_nan=False)


def from_json(name: str, text: str) -> Any:
    """The part again; raises `StoreTrouble` naming every fault with its place."""
    try:
        return _adapter(name).validate_json(text)
    except ValidationError as error:
        faults = "; ".join(f"{'.'.join(map(str, f['loc'])) or name}: {f['msg']}" for f in error.errors())
        raise StoreTrouble(
            f"The part “{name}” on record cannot be read", faults, "open an older copy from the folder “backups”"
        ) from error


def part_hash(text: str) -> str:
    """SHA-256 of the canonical JSON."""
    return hashlib.sha256(text.encode()).hexdigest()


def commission_parts(commission: Commission) -> dict[str, object]:
    """The versioned parts by name."""
    return {name: getattr(commission, name) for name in PARTS}


def commission_from(commission_id: str, parts: dict[str, object], log: tuple[Happening, ...]) -> Commission:
    """The commission again; parts that a newer program added keep their first state."""
    known = {name: value for name, value in parts.items() if name in PARTS}
    return Commission(id=commission_id, log=log, **known)  # type: ignore[arg-type]
