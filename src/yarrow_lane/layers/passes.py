"""The sequence of passes for the painter's school: what, in which order, over what dry layer."""

import csv
from dataclasses import dataclass
from functools import cache
from importlib import resources

from yarrow_lane.intake.brief import Medium
from yarrow_lane.layers.regions import Kind, Layers, Region, School, lie_of
from yarrow_lane.measure.kept import kept
from yarrow_lane.paint.drying import Climate, Film, drying_minutes

# Back to front within one level of the subject (our choice, after the overlap of things in a portrait).
_BACK_TO_FRONT: tuple[Kind, ...] = ("background", "other", "cloth", "fur", "skin", "hair", "mouth", "nose", "eye")
_DEPTH = {kind: n for n, kind in enumerate(_BACK_TO_FRONT)}


@dataclass(frozen=True)
class Pass:
    """One coat over one region.

    `id` names region, kind, order of values and role, so that a finished pass never stands for another. `needs` are the
    passes that must be finished and dry before it; `minutes` is the work at the present pace; `dry_minutes` how long it then
    stays wet.
    """

    id: str
    region_id: int
    region_name: str
    kind: Kind
    name: str
    area_cm2: float
    minutes: float
    film: Film
    dry_minutes: float
    needs: tuple[str, ...]

    @property
    def title(self) -> str:
        return f"{self.region_name}, {self.name}"


@dataclass(frozen=True)
class _Step:
    key: str
    name: str
    share: float
    film: Film


def _table(name: str) -> list[dict[str, str]]:
    text = resources.files("yarrow_lane.layers").joinpath(f"data/{name}.csv").read_text("utf-8")
    return list(csv.DictReader(line for line in text.splitlines() if not line.startswith("#")))


@cache
def _pace() -> dict[str, tuple[float, float]]:
    return {row["kind"]: (float(row["fixed_h"]), float(row["per_100cm2_h"])) for row in _table("pace")}


@cache
def _steps(values: str, kind: Kind) -> tuple[_Step, ...]:
    return tuple(
        _Step(row["key"], row["name"], float(row["share"]), row["film"])  # type: ignore[arg-type]
        for row in _table("passes")
        if row["values"] == values and row["kind"] == kind
    )


def region_minutes(kind: Kind, area: float) -> float:
    """Minutes over all passes of an area in cm², at the first-guess pace."""
    fixed, per_100 = _pace()[kind]
    return 60 * (fixed + per_100 * area / 100)


def values_of(school: School, medium: Medium) -> str:
    """The order of values in which passes are listed: "dark" or "light"; watercolour always goes from the light."""
    return "dark" if school.values == "dark to light" and medium != "watercolour" else "light"


def pass_id(region_id: int, kind: str, values: str, role: str) -> str:
    """The name of a pass on record."""
    return f"{region_id}:{kind}:{values}:{role}"


def same_place(one: str, other: str) -> bool:
    """Whether two pass ids mean the same role on the same region, whatever its kind and the order of values."""
    (region, *_, role), (other_region, *_, other_role) = one.split(":"), other.split(":")
    return (region, role) == (other_region, other_role)


def _rank(region: Region, number: int, steps: tuple[_Step, ...], school: School) -> tuple[float, ...]:
    """Where a pass falls in the whole painting; smaller comes first."""
    step, share = steps[number], (number + 0.5) / len(steps)
    if region.kind == "background":
        block = 0 if school.background == "first" else 3
        return block, number, 0, region.id
    if region.kind == "eye":
        # The glint is the lightest note and judged against everything else: last in every school.
        block = 5 if step.key == "glint" else 1 if school.eyes == "first" else 4
        return block, number, 0, region.id
    return 2, share, _DEPTH[region.kind], region.id


@kept(64)
def sequence(layers: Layers, medium: Medium, climate: Climate) -> tuple[Pass, ...]:
    """Every pass in the order of painting; kept for the last few states, as many views ask.

    A pass needs the one before it on its own region, and the latest earlier pass of
    every region whose outline meets its own: paint goes over dry paint only.
    """
    values = values_of(layers.school, medium)
    planned: list[tuple[tuple[float, ...], Region, _Step]] = []
    for region in layers.regions:
        steps = _steps(values, region.kind)
        planned += [(_rank(region, n, steps, layers.school), region, step) for n, step in enumerate(steps)]
    planned.sort(key=lambda plan: plan[0])
    lie = lie_of(layers.regions)
    latest: dict[int, str] = {}
    passes: list[Pass] = []
    for _, region, step in planned:
        area = lie.bare_cm2[region.id]
        beneath = [region.id, *lie.neighbours[region.id]]
        name = pass_id(region.id, region.kind, values, step.key)
        passes.append(
            Pass(
                name,
                region.id,
                region.name,
                region.kind,
                step.name,
                area,
                region_minutes(region.kind, area) * step.share,
                step.film,
                drying_minutes(step.film, medium, climate),
                tuple(latest[i] for i in beneath if i in latest),
            )
        )
        latest[region.id] = name
    return tuple(passes)
