"""What the layers room puts on paper: the stroke card of a patch, the strip of stages."""

from typing import TYPE_CHECKING

from yarrow_lane.commission.standing import passes_in
from yarrow_lane.layers.passes import Pass
from yarrow_lane.layers.patching.patches import PatchFacts
from yarrow_lane.layers.play.card import card_of
from yarrow_lane.measure.late import late
from yarrow_lane.measure.trouble import Trouble

if TYPE_CHECKING:
    from yarrow_lane.documents import stroke_card
    from yarrow_lane.ui.rooms.layers.page import LayersPage
else:
    stroke_card = late("yarrow_lane.documents.stroke_card")

_ROLES = ("mass", "under", "middle", "tips")  # the coats of a patch that are shown on its card


class PapersTrouble(Trouble):
    """Nothing to put on paper yet."""


def save_card(page: "LayersPage", patch: PatchFacts) -> None:
    """The next pass of the patch's region first, each at true size; raises `PapersTrouble` while Play is not there."""
    c = page.commission
    passes = passes_in(c, page.studio.climate)
    own = [p for p in passes if p.region_id == patch.region_id and p.role in _ROLES]
    page.playing.want(c, passes)
    cards = []
    for p in own:
        state = page.playing.state_of(p)
        if state is not None and state.laid.strokes is not None:
            cards.append((p.title, card_of(state.laid.strokes, patch.rings, patch.middle)))
    if not cards:
        raise PapersTrouble(
            "The stroke card is not ready", "the strokes are still being worked out", "try again in a few seconds"
        )
    number = next((n for n, q in enumerate(page.patching.shown, 1) if q.id == patch.id), 0)
    data = stroke_card.card_pdf(c.brief.title, f"patch {number}", cards)
    page.save_file("Save the stroke card", f"{c.brief.title} patch {number} strokes", ".pdf", data)


def save_strip(page: "LayersPage") -> None:
    """The stages as small pictures; raises `PapersTrouble` while Play is not there."""
    c = page.commission
    passes: tuple[Pass, ...] = passes_in(c, page.studio.climate)
    if not page.playing.ready:
        raise PapersTrouble("The strip is not ready", "the stages are still being worked out", "try again in a few seconds")
    pictures = []
    for n in range(len(passes) + 1):
        picture = page.playing.small(n)
        if picture is not None:
            pictures.append((f"{n}  {passes[n - 1].title}" if n else "the ground with the drawing", picture))
    data = stroke_card.strip_pdf(c.brief.title, pictures)
    page.save_file("Save the strip of stages", f"{c.brief.title} stages", ".pdf", data)
