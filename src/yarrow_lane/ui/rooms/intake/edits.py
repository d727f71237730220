"""What an editor of the bench changes, as steps on the commission: label, part and step for each key."""

from collections.abc import Callable
from dataclasses import replace
from typing import Any

from yarrow_lane.commission.commission import Commission
from yarrow_lane.intake.brief import Brief, change_sitter, with_title
from yarrow_lane.intake.photos import change_photo, set_rights, set_use
from yarrow_lane.measure.lengths import Unit, parse_length

Edit = tuple[str, str, Callable[[Any], Any]]
_RIGHTS = ("permission", "taken_by", "licence", "consent")


def edit_for(c: Commission, photo_id: str, key: str, value: Any, unit: Unit) -> Edit:
    """Label, part and step; raises `Trouble` for words that are no length."""
    if key.startswith("sitter ") and key != "sitter_id":
        return _sitter_edit(c.brief, key, value)
    if key in ("use", "helps_with", "sitter_id", "answers", *_RIGHTS):
        return _photo_edit(c, photo_id, key, value)
    if key == "title":
        return "Named the commission", "brief", lambda b: with_title(b, str(value))
    if key == "wall_width":
        width = parse_length(str(value), unit) if str(value).strip() else 0.0
        return "Measured the wall", "brief", lambda b: replace(b, wall_width_mm=width)
    return f"Changed the {key.replace('_', ' ')}", "brief", lambda b: replace(b, **{key: value})


def _photo_edit(c: Commission, photo_id: str, key: str, value: Any) -> Edit:
    photo = c.intake.photo(photo_id)
    if key == "use":
        return f"Use: {value}", "intake", lambda i: set_use(i, photo_id, value)
    if key in _RIGHTS:
        rights = replace(photo.rights, **{key: value})
        return "Wrote down the rights", "intake", lambda i: set_rights(i, photo_id, rights)
    new = value if key == "helps_with" else int(value)
    changed = replace(photo, **{key: new})
    label = {"helps_with": "Said what it helps with", "sitter_id": "Said who it shows", "answers": "Linked it to a letter"}[key]
    return label, "intake", lambda i: change_photo(i, changed)


def _sitter_edit(brief: Brief, key: str, value: Any) -> Edit:
    _, what, number = key.split()
    sitter = brief.sitter(int(number))
    assert sitter is not None
    if what == "name" and not str(value).strip():
        return "Kept the name", "brief", lambda b: b
    field = {"name": "name", "kind": "kind", "living": "living", "child": "child", "head": "head_mm", "muzzle": "muzzle_mm"}[
        what
    ]
    changed = replace(sitter, **{field: value})
    return f"Changed {sitter.name}", "brief", lambda b: change_sitter(b, changed)
