"""Boxes to start from: our choice of what the trade commonly holds. All generic: put in what you own."""

from yarrow_lane.palette.paintbox import Medium, Paintbox, put_in

STARTERS: dict[str, tuple[str, ...]] = {
    "eight earths and primaries": ("PW6", "PY43", "PBr7bs", "PBr7bu", "PR108", "PY37", "PR122", "PB29"),
    "the four-colour portrait box": ("PW6", "PR122", "PY43", "PB29"),
    "twenty tubes": (
        "PW6", "PW6:1", "PBk9", "PY43", "PY42", "PY74", "PY37", "NapY", "PO73", "PR101", "PR108", "PR122", "PV19", "PBr7rs", "PBr7bs",
        "PBr7ru", "PBr7bu", "PB29", "PB15:3", "PG18",
    ),
}  # fmt: skip
SUGGESTED = "eight earths and primaries"
_EMPTY = Paintbox()


def starter(name: str, medium: Medium = "acrylic", box: Paintbox = _EMPTY) -> Paintbox:
    """That box put into `box`, without what it holds already of the medium."""
    held = {t.pigment for t in box.of(medium)}
    for pigment in STARTERS[name]:
        if pigment not in held and not (medium == "watercolour" and pigment.startswith("PW6")):
            box = put_in(box, pigment, medium)
    return box
