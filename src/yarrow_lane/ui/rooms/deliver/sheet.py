"""What the delivery sheet of a commission says."""

from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.studio import Studio
from yarrow_lane.deliver.handover import needs_varnish
from yarrow_lane.documents.delivery_sheet import DeliverySheet
from yarrow_lane.easel.clock import logged_words
from yarrow_lane.intake.photos import Photo
from yarrow_lane.intake.rights import PERMISSION_WORDS
from yarrow_lane.measure.days import dated
from yarrow_lane.measure.lengths import size_text

_NOT_YET = "not yet"


def sheet_of(c: Commission, studio: Studio) -> DeliverySheet:
    """Dates, photographs with their rights, and the doors waived against the facts with the reasons kept."""
    d = c.deliver
    varnished = ", ".join(dated(coat.date()) for coat in d.coats) or _NOT_YET
    dates = [
        ("Promised", dated(c.brief.promised) if c.brief.promised else "no date"),
        ("Signed", dated(d.signed.date()) if d.signed else _NOT_YET),
        ("Varnished", varnished if needs_varnish(c.brief.medium) else "goes behind glass"),
        ("Packed", dated(d.packed.date()) if d.packed else _NOT_YET),
        ("Delivered", dated(d.delivered.date()) if d.delivered else _NOT_YET),
        ("Hours at the easel", logged_words(c.log)),
    ]
    photographs = [(p.name, _rights_words(p)) for p in c.intake.kept] or [("none", "")]
    waived = [(w.door, f"{w.reason} ({dated(w.on)})") for w in c.doors.waived]
    size = f", {size_text(c.compose.width_mm, c.compose.height_mm, studio.unit)}" if c.compose.sized else ""
    sections = [("Dates", tuple(dates)), ("Painted from", tuple(photographs))]
    if waived:
        sections.append(("Doors waived against the facts", tuple(waived)))
    if c.brief.contact_warning:
        sections.append(("Careful", (("", c.brief.contact_warning),)))
    by = f" by {studio.painter}" if studio.painter else ""
    return DeliverySheet(c.brief.title, f"{c.brief.medium}{size}, for {c.brief.client or 'the client'}{by}", tuple(sections))


def _rights_words(p: Photo) -> str:
    r = p.rights
    words = [p.use, PERMISSION_WORDS[r.permission]]
    if r.taken_by:
        words.append(f"taken by {r.taken_by}")
    if r.consent not in ("not asked", "not needed"):
        words.append(f"consent {r.consent}")
    if r.licence:
        words.append(r.licence)
    return "; ".join(words)
