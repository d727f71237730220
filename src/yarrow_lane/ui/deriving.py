"""What the layers room asks to be worked out, each once, in the workers."""

import hashlib
from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.sitters import care_of
from yarrow_lane.commission.to_propose import levels_of, noses_of, play_areas, sitters_on_canvas
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.desk.derived import Key, Making
from yarrow_lane.layers.coverage import Rings
from yarrow_lane.layers.flow.flow import Flow, Read
from yarrow_lane.layers.kinds import facts_of, is_ground, is_hairy
from yarrow_lane.layers.passes import Pass
from yarrow_lane.layers.patching.patches import Climb
from yarrow_lane.layers.play.area import PlayCoat
from yarrow_lane.layers.play.composing import Stack, canvas_after
from yarrow_lane.layers.play.scene import Scene
from yarrow_lane.layers.regions import Layers, Region
from yarrow_lane.layers.strokes.pieces import Pieces
from yarrow_lane.layers.wells_for import AreaColours
from yarrow_lane.measure.kept import kept
from yarrow_lane.measure.progress import Progress
from yarrow_lane.tone.grounds import ground_srgb
from yarrow_lane.ui.kit.levels import Levels, make_levels
from yarrow_lane.ui.pictures import Shown

if TYPE_CHECKING:
    from yarrow_lane.ui.workroom import Workroom

_PAPER = (250, 248, 243)  # watercolour paper that nobody toned (our choice)


@dataclass(frozen=True, eq=False)
class Stage:
    """The scene of Play with the canvas begun."""

    scene: Scene
    begun: NDArray[np.uint8]


@kept(8)
def parts_of(regions: tuple[Region, ...]) -> dict[int, Rings]:
    """Rings by region id; lines have none."""
    return {r.id: r.rings for r in regions if r.rings}


def hairy_parts(regions: tuple[Region, ...]) -> dict[int, Rings]:
    """Those whose strokes follow a lie."""
    return {r.id: r.rings for r in regions if r.rings and is_hairy(r.kind)}


@kept(16)
def regions_key(regions: tuple[Region, ...]) -> str:
    """A short name of regions: their ground and kinds."""
    told = repr([(r.id, r.kind, r.part, r.rings, r.lines) for r in regions])
    return hashlib.blake2b(told.encode(), digest_size=12).hexdigest()


class Deriving:
    """Asked by the page; answers come on the interface's thread, `ready` at once where they are at hand."""

    def __init__(self, workroom: "Workroom", asker: object) -> None:
        self._room, self._asker = workroom, asker

    def _want(
        self, c: Commission, kind: str, parameters: tuple[object, ...], question: str, arguments: Callable[[Shown], tuple[Any, ...]],
        size: Callable[[Any], int], ready: Callable[[Any], None],
    ) -> None:  # fmt: skip
        """One question about the reference."""
        workers, derived, asker = self._room.workers, self._room.derived, self._asker

        def arrived(shown: Shown) -> None:
            def make(progress: Progress) -> Any:
                return workers.ask(f"layers.question:{question}", *arguments(shown), progress=progress)

            derived.want(Key(kind, (reference_key(c.compose),), parameters), asker, Making(make, size), ready)

        self._room.references.want(c.compose, asker, arrived)

    def proposal(self, c: Commission, ready: Callable[[tuple[Region, ...]], None]) -> None:
        """A first set of regions."""
        sitters, canvas, first = sitters_on_canvas(c), c.compose.canvas, c.layers.next_id
        self._want(
            c, "layers proposal", (sitters, first), "propose_regions", lambda shown: (shown.picture, canvas, sitters, first),
            lambda found: 200_000, ready,
        )  # fmt: skip

    def pieces(self, c: Commission, regions: tuple[Region, ...], ready: Callable[[Pieces], None]) -> None:
        """The picture in small pieces, for strokes that name."""
        canvas, care = c.compose.canvas, care_of(c)
        self._want(
            c, "layers pieces", (regions_key(regions),), "picture_pieces",
            lambda shown: (shown.picture, canvas, parts_of(regions), care), lambda found: found.of.nbytes * 2, ready,
        )  # fmt: skip

    def colours(self, c: Commission, ready: Callable[[Mapping[int, AreaColours]], None]) -> None:
        """What colours each region has."""
        canvas, regions = c.compose.canvas, c.layers.regions
        grounds = frozenset(r.id for r in regions if is_ground(r.kind))
        self._want(
            c, "layers colours", (regions_key(regions),), "area_colours",
            lambda shown: (shown.picture, canvas, parts_of(regions), grounds),
            lambda found: 50_000, ready,
        )  # fmt: skip

    def flow(self, c: Commission, ready: Callable[[Flow | None], None]) -> None:
        """The lie of the fur with what the painter said of it; None where there is no fur."""
        hairy = [(r.rings, facts_of(r.kind).hair_mm) for r in c.layers.regions if r.rings and is_hairy(r.kind)]
        if not hairy:
            ready(None)
            return
        canvas, lie, noses, workers = c.compose.canvas, c.layers.lie, noses_of(c), self._room.workers
        ground = regions_key(tuple(r for r in c.layers.regions if is_hairy(r.kind)))

        def arrived(found: Read) -> None:
            def make(progress: Progress) -> Flow:
                flow: Flow = workers.ask("layers.question:lie_of_fur", found, lie, noses, progress=progress)
                return flow

            key = Key("layers flow", (reference_key(c.compose),), (ground, lie, noses))
            self._room.derived.want(key, self._asker, Making(make, lambda f: f.x.nbytes * 8), ready)

        self._want(
            c,
            "layers read",
            (ground,),
            "read_lie",
            lambda shown: (shown.picture, canvas, hairy),
            lambda f: f.half.nbytes * 8,
            arrived,
        )

    def climb(self, c: Commission, ready: Callable[[Climb | None], None]) -> None:
        """Patches in the order to paint; None where there is no fur."""
        canvas, regions, patches = c.compose.canvas, c.layers.regions, c.layers.patches
        there = {r.id for r in regions}
        taken = [(p.id, p.region_id, p.rings, p.locked) for p in patches.taken if p.region_id in there]

        def arrived(flow: Flow | None) -> None:
            if flow is None:
                ready(None)
                return
            parameters = (regions_key(regions), c.layers.lie, tuple(taken))
            self._want(
                c, "layers climb", parameters, "climbing_order",
                lambda shown: (shown.picture, flow, hairy_parts(regions), levels_of(regions), taken, canvas),
                lambda found: 400_000, ready,
            )  # fmt: skip

        self.flow(c, arrived)

    # --- Play

    def stage(self, c: Commission, ready: Callable[[Stage], None]) -> None:
        """The scene of Play."""
        canvas, regions = c.compose.canvas, c.layers.regions
        paper = c.brief.medium == "watercolour"
        ground = _PAPER if paper and not c.tone.ground else ground_srgb(c.tone.ground)
        areas = play_areas(c, regions)

        def arrived(flow: Flow | None) -> None:
            self._want(
                c, "layers stage", (regions_key(regions), c.layers.lie, areas, ground, paper), "play_scene",
                lambda shown: (shown.picture, canvas, parts_of(regions), areas, flow, ground, paper),
                lambda found: sum(a.nbytes for a in (found[0].reference, found[0].labels, found[0].flow, found[0].hair)),
                lambda found: ready(Stage(*found)),
            )  # fmt: skip

        self.flow(c, arrived)

    def stack(
        self, c: Commission, stage: Stage, region_id: int, coats: tuple[PlayCoat, ...], overhang: bool,
        ready: Callable[[Stack], None],
    ) -> None:  # fmt: skip
        """One area's states; the order of the other areas does not change them."""
        workers, scene = self._room.workers, stage.scene

        def make(progress: Progress) -> Stack:
            found: Stack = workers.ask(
                "layers.question:play_area", scene, region_id, stage.begun, coats, overhang, progress=progress
            )
            return found

        key = Key("layers play", (reference_key(c.compose),), (*self._scene_key(c, scene), region_id, coats, overhang))
        size = Making(make, lambda found: sum(s.image.nbytes + s.alpha.nbytes for s in (*found.states, *found.small)))
        self._room.derived.want(key, self._asker, size, ready)

    def canvas(
        self, c: Commission, stage: Stage, stacks: Mapping[int, Stack], coats: Mapping[int, tuple[PlayCoat, ...]], overhang: bool,
        ready: Callable[[Levels], None],
    ) -> None:  # fmt: skip
        """The canvas with these `coats` of each area, as far as the `stacks` are there; ready to be shown."""
        there = {i: laid for i, laid in coats.items() if i in stacks and laid}
        done, begun, areas = {i: len(laid) for i, laid in there.items()}, stage.begun, stage.scene.areas
        states = {i: stacks[i].states for i in there}

        def make(progress: Progress) -> Levels:
            return make_levels(canvas_after(begun, areas, states, done))

        parameters = (*self._scene_key(c, stage.scene), tuple(sorted(there.items())), overhang)
        size = Making(make, lambda levels: sum(image.sizeInBytes() for image in levels.images))
        self._room.derived.want(Key("layers canvas", (reference_key(c.compose),), parameters), self._asker, size, ready)

    @staticmethod
    def _scene_key(c: Commission, scene: Scene) -> tuple[object, ...]:
        return regions_key(c.layers.regions), c.layers.lie, scene.areas, scene.ground, scene.paper


def coats_of(passes: tuple[Pass, ...]) -> dict[int, tuple[PlayCoat, ...]]:
    """The coats of each area in their order."""
    found: dict[int, list[PlayCoat]] = {}
    for p in passes:
        word = p.id.split(":")[2]
        found.setdefault(p.region_id, []).append(PlayCoat(p.key, p.role, p.nature, word if word != "own" else "dark"))
    return {i: tuple(coats) for i, coats in found.items()}


def shown_layers(layers: Layers, proposed: tuple[Region, ...]) -> Layers:
    """Those on record, else the proposal."""
    if layers.regions or not proposed:
        return layers
    return replace(layers, regions=proposed, next_id=1 + max(r.id for r in proposed), proposed=True)
