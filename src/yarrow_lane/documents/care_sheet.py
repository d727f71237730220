"""How the client keeps the painting: light, damp, dust, cleaning, by medium. Common practice, and it defers to a restorer."""

from datetime import datetime

from yarrow_lane.documents.page_style import Facts, Paper, Words

_ALL = (
    ("Where it hangs", "not in the sun, not above a stove, a radiator or a fireplace, not on a damp outer wall"),
    ("Light", "daylight from the side is kind; a picture light no nearer than half a metre"),
    ("Air", "rooms people feel well in: about 40 to 60 % of damp, without leaps"),
    ("Carrying", "by the sides of the frame, two hands; never a finger behind the canvas"),
)
_BY_MEDIUM = {
    "acrylic": (
        ("Dust", "a soft dry brush or cloth, lightly, once or twice a year"),
        ("Cleaning", "never water with soap, alcohol, window or furniture cleaner: acrylic dissolves in spirits"),
        ("Cold", "below 5 °C acrylic grows brittle: let it warm before it is knocked or rolled"),
    ),
    "oil": (
        ("Dust", "a soft dry brush, lightly; nothing wet"),
        ("Cleaning", "by a restorer only; the varnish can be taken off and renewed"),
        ("First months", "oil goes on drying for half a year and more: nothing may touch the surface"),
    ),
    "paper": (
        ("Glass", "leave it behind its glass; it is not varnished"),
        ("Dust", "wipe the glass with a dry cloth; spray nothing on it, it creeps under the edge"),
        ("Light", "colours on paper fade sooner than on canvas: away from the window"),
    ),
}


def care_rows(medium: str, varnished: bool) -> tuple[tuple[str, str], ...]:
    """The advice for that medium."""
    kind = "paper" if medium in ("watercolour", "soft pastel") else "oil" if medium.startswith("oil") else "acrylic"
    rows: tuple[tuple[str, str], ...] = (*_ALL, *_BY_MEDIUM[kind])
    if kind == "acrylic" and not varnished:
        rows = (*rows, ("Varnish", "it has none: be all the lighter with the brush"))
    return rows


def care_paper(title: str, medium: str, varnished: bool, sender: tuple[str, ...], author: str, at: datetime) -> Paper:
    """The paper itself."""
    last = "If it is ever knocked, torn, wet or dirty, do not try to mend it yourself: ask a restorer, or write to the studio."
    blocks = (Facts(care_rows(medium, varnished)), Words(last))
    return Paper(f"Care of {title}", blocks, sender, (), (), title, author, at, sender[0] if sender else "")
