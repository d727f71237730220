"""The lines to draw of a commission, for every method that uses them: worked out once a reference, picked for each choice."""

from collections.abc import Callable
from dataclasses import replace

from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.sitters import care_of
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.desk.derived import Derived, Key, Making
from yarrow_lane.measure.plane import Circle
from yarrow_lane.measure.progress import Progress
from yarrow_lane.tone.colours import Colours
from yarrow_lane.tone.record import Tone
from yarrow_lane.tone.shapes import borders
from yarrow_lane.tone.study import squinted, study
from yarrow_lane.transfer.lines.base import Base, as_bytes, from_bytes
from yarrow_lane.transfer.lines.choice import Choice
from yarrow_lane.transfer.lines.drawing import lines_to_draw, unit_of
from yarrow_lane.transfer.lines.line import Line
from yarrow_lane.transfer.lines.outlines import outlines_of
from yarrow_lane.transfer.lines.strength import BASE
from yarrow_lane.ui.reference_colours import want_colours
from yarrow_lane.ui.references import References
from yarrow_lane.workers.pool import Workers

_VERSION = 1  # raise it when the same picture gives other lines
Lines = tuple[Line, ...]


class LinesToDraw:
    """Asked for by pages; answers come on the interface's thread."""

    def __init__(self, references: References, derived: Derived, workers: Workers) -> None:
        self._references, self._derived, self._workers = references, derived, workers

    @staticmethod
    def _base_key(c: Commission, circles: tuple[Circle, ...]) -> Key:
        return Key("lines", (reference_key(c.compose),), (circles,), _VERSION)

    def key(self, c: Commission, choice: Choice) -> Key:
        """What the lines of that choice are."""
        base = self._base_key(c, care_of(c))
        # The ground changes no line.
        tone = replace(c.tone, ground="", laid_at=None, ground_coats=0) if choice.values else None
        return Key("lines picked", base.inputs, (*base.parameters, choice, tone), _VERSION)

    def have(self, c: Commission, choice: Choice) -> Lines | None:
        """They, if they are at hand."""
        found: Lines | None = self._derived.have(self.key(c, choice))
        return found

    def want(self, c: Commission, choice: Choice, asker: object, ready: Callable[[Lines], None]) -> None:
        """Call `ready` with the lines in canvas mm; nothing happens while there is no reference."""
        if not c.compose.framed:
            return
        compose, circles, key = c.compose, care_of(c), self.key(c, choice)
        base_key = self._base_key(c, circles)
        size = compose.width_mm, compose.height_mm
        unit = unit_of(*size)

        def make_base(progress: Progress) -> Base:
            picture = self._references.for_print(compose, compose.canvas, BASE / unit, progress)
            cared_for = [((x / unit, y / unit), radius / unit) for (x, y), radius in circles]
            inside = [tuple((x / unit, y / unit) for x, y in ring) for ring in outlines_of(compose).rings]
            found: Base = self._workers.ask("transfer.question:find_lines", picture, BASE, cared_for, inside, progress=progress)
            return found

        def picked(base: Base) -> None:
            def with_borders_of(colours: Colours | None) -> None:
                def make(_: Progress) -> Lines:
                    lines = lines_to_draw(base, choice, size, outlines_of(compose))
                    return (*lines, *_borders_of_values(colours, c.tone, circles)) if colours is not None else lines

                self._derived.want(key, asker, Making(make, lambda lines: 100 * len(lines) * 200), ready)

            if choice.values:
                want_colours(self._references, self._derived, compose, asker, with_borders_of)
            else:
                with_borders_of(None)

        making = Making(make_base, lambda base: base.points.nbytes * 3, as_bytes, from_bytes)
        self._derived.want(base_key, asker, making, picked)


def _borders_of_values(colours: Colours, tone: Tone, care: tuple[Circle, ...]) -> Lines:
    """The borders of Tone's study, lost all along: they are drawn lightly and prove nothing."""
    found = borders(study(squinted(colours, tone.squint_mm), tone, care))
    return tuple(Line(points, (True,) * len(points), 0.0, "values") for points in found)
