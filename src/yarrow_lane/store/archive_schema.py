"""The schema of a commission's archive (JSON Schema 2020-12), made from the types themselves; the published file is its copy."""

from typing import Any

from yarrow_lane.commission.commission import PARTS
from yarrow_lane.lane.happening import UPGRADES, Happening
from yarrow_lane.store.codec import adapter

_VERSION = {"v": {"type": "integer", "minimum": 0, "description": "the version of this part's form"}}


def _lifted(schema: dict[str, Any], shared: dict[str, Any]) -> dict[str, Any]:
    shared.update(schema.pop("$defs", {}))
    return schema


def made_schema() -> dict[str, Any]:
    """Parts by name, each with its version, and happenings told apart by `kind`."""
    shared: dict[str, Any] = {}
    parts = {}
    for part in PARTS:
        kind: Any = part.type
        own = _lifted(adapter(kind).json_schema(mode="serialization", ref_template="#/$defs/{model}"), shared)
        own = dict(shared.get(own.get("$ref", "").removeprefix("#/$defs/"), own))
        own["properties"] = {**own.get("properties", {}), **_VERSION}
        own["additionalProperties"] = False
        own["required"] = sorted(own["properties"])
        own["title"] = part.name
        parts[part.name] = own
    entry = _lifted(adapter(Happening).json_schema(mode="serialization", ref_template="#/$defs/{model}"), shared)
    for name in {ref["$ref"].removeprefix("#/$defs/") for ref in entry["oneOf"]}:
        shared[name]["properties"] = {**shared[name]["properties"], "v": {"const": len(UPGRADES)}}
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "One commission of a Yarrow Lane studio",
        "type": "object",
        "required": ["form", "version", "id", "parts", "happenings", "pictures", "missing"],
        "additionalProperties": False,
        "properties": {
            "form": {"const": "yarrow-lane commission"},
            "version": {"const": 1},
            "id": {"type": "string"},
            "parts": {"type": "object", "properties": parts, "additionalProperties": False, "required": sorted(parts)},
            "happenings": {"type": "array", "items": {"oneOf": entry["oneOf"]}},
            "pictures": {
                "type": "array",
                "items": {
                    "type": "object",
                    "required": ["sha256", "bytes"],
                    "additionalProperties": False,
                    "properties": {
                        "sha256": {"type": "string", "pattern": "^[0-9a-f]{64}$"},
                        "bytes": {"type": "integer", "minimum": 0},
                    },
                },
            },
            "missing": {"type": "array", "items": {"type": "string"}},
        },
        "$defs": shared,
    }
