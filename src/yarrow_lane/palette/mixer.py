"""The paintbox made ready to answer: the paints as well as they are known, and tables of what they give."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.paint.calibration.strengths import Dab, learnt_strengths, with_strengths
from yarrow_lane.paint.calibration.swatches import own_curves
from yarrow_lane.paint.doubt import SWATCHED, TINTED, UNKNOWN
from yarrow_lane.paint.films.glaze import GlazeTable
from yarrow_lane.paint.kubelka_munk import Spectra
from yarrow_lane.paint.paints import Paint, Paints
from yarrow_lane.paint.pigments.curves import curves
from yarrow_lane.paint.recipes.table import MOST_IN_FOURS, RecipeTable, make_table
from yarrow_lane.paint.seen import Srgb, srgb_of
from yarrow_lane.paint.wet import Wetness, learnt
from yarrow_lane.palette.paintbox import Medium, Paintbox, SeenMix, Tube
from yarrow_lane.palette.recipe import eighths_of

ENOUGH_TINTS = 3  # tints after which the strength against the white counts as known: our choice


class MixerTrouble(Trouble):
    """Nothing to mix from."""


@dataclass(frozen=True, eq=False)
class Mixer:
    """What answers are worked out from; `pale` holds whites and let-downs, None without a white or a colour.

    `tubes` is each tube's own colour and, where there is a white, that of its let-down, by id and whether it is one.
    """

    paints: Paints
    table: RecipeTable
    pale: RecipeTable | None
    glazes: GlazeTable
    wetness: Wetness
    tubes: Mapping[tuple[int, bool], Srgb]

    @property
    def bytes(self) -> int:
        return self.table.bytes + (self.pale.bytes if self.pale is not None else 0) + self.glazes.bytes


def paints_of(box: Paintbox, medium: Medium) -> tuple[Paints, Wetness]:
    """The tubes of a medium as paints: remembered, bent by their own swatches, then as strong as dabs showed them.

    Raises `MixerTrouble` where there is none.
    """
    tubes = box.of(medium)
    if not tubes:
        raise MixerTrouble("Nothing was mixed", f"the paintbox holds no {medium} tube", "put some in at Tubes")
    known = curves()
    tinted = len(box.tinted) >= ENOUGH_TINTS
    paints = Paints.of([_paint(tube, known, tinted) for tube in tubes])
    ids = {t.id for t in tubes}
    dry, wet = (_dabs(paints, box.seen, ids, look) for look in (False, True))
    paints = with_strengths(paints, learnt_strengths(paints, dry))
    return paints, learnt(paints, [(d.parts, d.lab) for d in wet])  # type: ignore[misc]


def _paint(tube: Tube, known: Mapping[str, tuple[Spectra, Spectra]], tinted: bool) -> Paint:
    (k, s), doubt = known[tube.pigment], TINTED if tinted else UNKNOWN
    if tube.readings:
        own = own_curves((k, s), known["PW6"], tube.readings)
        (k, s), doubt = own.curves, max(SWATCHED, own.doubt)
    return Paint(tube.id, k, s, tube.white, tube.opacity or tube.entry.opacity, doubt)


def _dabs(paints: Paints, seen: Sequence[SeenMix], ids: set[int], wet: bool) -> list[Dab]:
    return [
        Dab(eighths_of(paints, s.recipe), s.lab, s.doubt)
        for s in seen
        if s.wet == wet and all(share.tube in ids for share in s.recipe)
    ]


def make_mixer(box: Paintbox, medium: Medium, progress: Progress = SILENT) -> Mixer:
    """The tables of a paintbox; about a second for fourteen tubes. Raises `MixerTrouble`, `Cancelled`."""
    paints, wetness = paints_of(box, medium)
    table = make_table(paints, 4, progress)
    tints = paints.tints
    pale = None
    if tints is not None and len(tints) > len(paints.whites):
        pale = make_table(tints, 3 if len(tints) <= MOST_IN_FOURS else 2)
    tubes = {key: colour for some in (paints, tints) if some is not None for key, colour in _own_colours(some)}
    return Mixer(paints, table, pale, GlazeTable(paints), wetness, tubes)


def _own_colours(paints: Paints) -> Iterator[tuple[tuple[int, bool], Srgb]]:
    for paint, lab in zip(paints.all, paints.lab(np.eye(len(paints))), strict=True):
        yield (paint.id, paint.tint), srgb_of(lab)
