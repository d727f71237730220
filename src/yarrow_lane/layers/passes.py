"""The sequence of passes for the painter's school: what, in which order, over what dry layer.

The school only sorts; what must lie beneath what are edges of a graph, and a school gives way to them. Nothing here knows a school, a
kind or a medium by name: they are data (`data/recipes.csv`, `data/schools.toml`).
"""

import heapq
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.intake.brief import Medium
from yarrow_lane.layers.grammar import Step, fits, fitting, grammar, recipes
from yarrow_lane.layers.kinds import Kind, facts_of, is_ground
from yarrow_lane.layers.school import School, pace_share, values_used, values_word
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.paint.drying import FILM_UM, Climate, Film, film_minutes


class SequenceTrouble(Trouble):
    """An order that cannot be."""


@dataclass(frozen=True)
class Area:
    """What the sequence knows of a region.

    `touches` are ids of the regions it meets; `squares` the share of it in each block of squares, by the block's number.
    """

    id: int
    name: str
    kind: Kind
    cm2: float
    touches: frozenset[int] = frozenset()
    sitter_id: int = 0
    part: str = ""
    squares: tuple[tuple[int, float], ...] = ()


@dataclass(frozen=True)
class Need:
    """A pass that must be painted before, why, and whether it must be dry.

    `why` is "same" for the area's own coat, "touching" for a neighbour's, else the id of a rule.
    """

    id: str
    why: str
    dry: bool


@dataclass(frozen=True)
class Pass:
    """One coat over one region, or over its part in one block of squares.

    `id` names region, kind, order of values and step, so that a finished pass never stands for another. `needs` are the passes that
    must be finished before it; `minutes` is the work at the present pace; `dry_minutes` how long it then stays wet. `step` counts the
    coats of its area, `progress` is how far the area is in the middle of the pass (0 to 1), `square` the block or -1.
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
    needs: tuple[Need, ...] = ()
    key: str = ""
    role: str = ""
    nature: str = "opaque"
    paint: str = ""
    fat: int = 0
    lightness: int = 50
    share: float = 1.0
    sitter_id: int = 0
    part: str = ""
    step: int = 0
    progress: float = 0.5
    square: int = -1
    rest: bool = False
    own: bool = False

    @property
    def title(self) -> str:
        where = "" if self.square < 0 else f", block {self.square + 1}"
        return f"{self.region_name}, {self.name}{where}"

    @property
    def family(self) -> str:
        """Whose recipes and rules hold."""
        return facts_of(self.kind).family

    @property
    def attributes(self) -> Mapping[str, str]:
        """What selectors ask about."""
        return {
            "family": self.family, "kind": self.kind, "role": self.role, "key": self.key, "paint": self.paint,
            "nature": self.nature, "part": "ear" if self.part.endswith("ear") else self.part, "film": self.film,
            "fat": str(self.fat), "rest": "yes" if self.rest else "no",
        }  # fmt: skip


def region_minutes(kind: Kind, area: float) -> float:
    """Minutes over all passes of an area in cm², at the first-guess pace of a close likeness."""
    facts = facts_of(kind)
    return 60 * (facts.fixed_h + facts.per_100cm2_h * area / 100)


def pass_id(region_id: int, kind: str, word: str, key: str) -> str:
    """The name of a pass on record; `word` is the order of values ("dark", "middle", "light")."""
    return f"{region_id}:{kind}:{word}:{key}"


def same_place(one: str, other: str) -> bool:
    """Whether two pass ids mean the same step on the same region, whatever its kind and the order of values."""
    (region, *_, key), (other_region, *_, other_key) = one.split(":"), other.split(":")
    return (region, key) == (other_region, other_key)


# --- the coats of an area


def _wishes(school: School, medium: Medium) -> dict[str, str]:
    return {**{name: str(value) for name, value in vars(school).items()}, "medium": medium}


def steps_of(area: Area, touching: Sequence[Area], school: School, medium: Medium) -> tuple[Step, ...]:
    """The coats of an area, its neighbours' wishes among them; shares sum to 1. Raises `SequenceTrouble` where no recipe is."""
    wish, family, word = _wishes(school, medium), facts_of(area.kind).family, values_word(values_used(school, medium)[0])
    found = next(
        (r.steps for r in recipes()
         if r.medium == medium and r.word in ("*", word) and family in r.families and fits(r.when, wish)),
        (),
    )  # fmt: skip
    if not found:
        raise SequenceTrouble(f"“{area.name}” has no passes", f"there is no recipe for {area.kind} in {medium}")
    steps = list(_finished(found, school))
    for add in grammar()["add"]:
        near = not add["touching"] or any(fits(add["touching"], {"family": facts_of(a.kind).family}) for a in touching)
        if near and fits(add["to"], {"family": family}) and fits(add.get("when", ""), wish):
            _insert(steps, add)
    total = sum(s.share for s in steps)
    return tuple(replace(s, share=s.share / total) for s in steps)


def _finished(steps: tuple[Step, ...], school: School) -> tuple[Step, ...]:
    """Without what the finish leaves out, unless that took the lean layer away that carries the fat ones, or all but one."""
    drop = grammar()["finish"][school.finish]["drop"]
    kept = tuple(s for s in steps if not drop or not fits(drop, {"role": s.role}))
    return kept if len(kept) >= min(2, len(steps)) and {s.paint for s in kept} == {s.paint for s in steps} else steps


def _insert(steps: list[Step], add: Mapping[str, Any]) -> None:
    """A step that a neighbour or the school asks for, of the paint of the coats about it."""
    paint = steps[-1].paint
    wanted = {"paint": paint, **add["step"]}
    takes = add["takes"].get(paint, {})
    at = len(steps)
    if "before" in add:
        roles = add["before"].split()
        fitting = (n for n, s in enumerate(steps) if n >= add["at_least"] and s.role in roles and s.paint == paint)
        at = next(fitting, len(steps))
    if takes.get("fat_of_next"):
        wanted["fat"] = steps[at].fat if at < len(steps) else steps[-1].fat
    if "darker_than_before" in takes:
        wanted["v"] = steps[at - 1].lightness - takes["darker_than_before"]
    wanted.update({name: takes[name] for name in ("fat", "nature") if name in takes})
    lightness = wanted.pop("v")
    steps.insert(at, Step(**wanted, lightness=lightness))


# --- passes


def _passes_of(area: Area, steps: Sequence[Step], school: School, medium: Medium, climate: Climate) -> list[Pass]:
    around = grammar()["round"][school.round]
    word = values_word(values_used(school, medium)[0])
    minutes = region_minutes(area.kind, area.cm2) * pace_share(school)
    passes, done = [], 0.0
    for n, s in enumerate(steps):
        middle = round(done + s.share / 2, 6)  # ties on floats would decide an order
        done += s.share
        passes.append(
            Pass(
                pass_id(area.id, area.kind, word, s.key), area.id, area.name, area.kind, s.name, area.cm2, minutes * s.share,
                s.film, film_minutes(s.film, s.paint, climate), (), s.key, s.role, s.nature, s.paint, s.fat, s.lightness, s.share,
                area.sitter_id, area.part, n, middle, -1, middle >= around.get("split", 2),
            )
        )  # fmt: skip
    if "divide" in around and area.squares:
        passes = _in_squares(passes, area, around)
    return passes


def _in_squares(passes: Sequence[Pass], area: Area, around: Mapping[str, Any]) -> list[Pass]:
    """Coats cut into blocks of squares; coats that follow one another and belong together are painted as one."""
    uncut: list[Pass] = []
    runs: list[tuple[tuple[int, str], list[Pass]]] = []
    for p in passes:
        group = next((n for n, roles in enumerate(around["merge"]) if p.role in roles), None)
        if group is None or not fits(around["divide"], p.attributes):
            uncut.append(p)
        elif runs and runs[-1][0] == (group, p.paint) and runs[-1][1][-1].step == p.step - 1:
            runs[-1][1].append(p)
        else:
            runs.append(((group, p.paint), [p]))
    cut = [_merged(run, number, share) for _, run in runs for number, share in area.squares]
    return sorted([*uncut, *cut], key=lambda p: p.step)


def _merged(run: Sequence[Pass], square: int, share: float) -> Pass:
    """Coats that follow one another as one pass over `share` of the area."""
    last, thickest = run[-1], max(run, key=lambda p: FILM_UM[p.film])
    opaque = any(p.nature == "opaque" for p in run)
    head = last.id.rpartition(":")[0]
    keys = "+".join(p.key for p in run)
    place = f"@{square}" if square >= 0 else ""
    return replace(
        last, id=f"{head}:{keys}{place}", name=" and ".join(p.name for p in run), area_cm2=last.area_cm2 * share,
        minutes=sum(p.minutes for p in run) * share, film=thickest.film, dry_minutes=max(p.dry_minutes for p in run), key=keys,
        nature="opaque" if opaque else last.nature, fat=max(p.fat for p in run), share=sum(p.share for p in run) * share,
        square=square, step=run[0].step,
    )  # fmt: skip


# --- their order


class Meetings:
    """Which passes lie on the same or on touching ground; square matrices over the passes."""

    def __init__(self, passes: Sequence[Pass], areas: Sequence[Area]) -> None:
        place = {a.id: n for n, a in enumerate(areas)}
        meets = np.eye(len(areas), dtype=bool)
        for a in areas:
            for other in a.touches:
                if other in place:
                    meets[place[a.id], place[other]] = meets[place[other], place[a.id]] = True
        at = np.array([place[p.region_id] for p in passes], int)
        square = np.array([p.square for p in passes], int)
        # Two pieces cut into squares meet only in one and the same square; an uncut pass meets all.
        shared = (square[:, None] == square) | (square[:, None] < 0) | (square < 0)
        self.same: NDArray[np.bool_] = (at[:, None] == at) & shared
        self.touching: NDArray[np.bool_] = meets[np.ix_(at, at)] & shared
        self.all: NDArray[np.bool_] = np.ones((len(passes), len(passes)), bool)

    def over(self, reach: str) -> NDArray[np.bool_]:
        """ "same", "touching" or "all" of a rule."""
        return {"same": self.same, "touching": self.touching, "all": self.all}[reach]


def columns_of(passes: Sequence[Pass]) -> dict[str, NDArray[np.str_]]:
    """What selectors ask about, an attribute of all passes at a time."""
    told = [p.attributes for p in passes]
    return {name: np.array([t[name] for t in told], np.str_) for name in (told[0] if told else ())}


def _keys(passes: Sequence[Pass], school: School, medium: Medium) -> list[tuple[float, ...]]:
    """Where the school would put each pass: smaller first. Ground is nobody's, and comes after the sitters area by area."""
    g, around = grammar(), grammar()["round"][school.round]
    lines = [*g["eyes"][school.eyes]["lines"], *g["background"][school.background]["lines"], *g["stanza"]["lines"]]
    phases = g["medium"][medium].get("phase", [["", 0]])
    alongside = g["background"][school.background].get("areas") == "nearest"
    nearest = min((p.sitter_id for p in passes if not is_ground(p.kind)), default=0)
    keys: list[tuple[float, ...]] = []
    for p in passes:
        attributes, facts = p.attributes, facts_of(p.kind)
        stanza = next(n for selector, n in lines if fits(selector, attributes))
        within = around["within"] if stanza == 50 else "progress depth region"
        if stanza == 50 and p.rest:
            stanza, within = around["later"], around["later_within"]
        elif stanza != 50 and "square" in around["within"]:
            within = "square progress depth region"
        ground = is_ground(p.kind)
        places = {
            "progress": p.progress,
            "depth": facts.depth,
            "region": p.region_id,
            "sitter": p.sitter_id if not ground else nearest if alongside else 999,
            "area": 3.5 if ground and alongside else facts.order,  # after the features, before hair and fur
            "square": p.square,
        }
        phase = next(n for selector, n in phases if fits(selector, attributes))
        keys.append((phase, stanza, *(places[word] for word in within.split()), p.step))
    return keys


def _edges(
    passes: Sequence[Pass], meets: Meetings, school: School
) -> tuple[NDArray[np.bool_], dict[tuple[int, int], str]]:  # fmt: skip
    """before[i, j]: i must be painted before j; and the rule that says so where it is not the area's own order of coats."""
    columns, count = columns_of(passes), len(passes)
    step = np.array([p.step for p in passes], int)
    before = meets.same & (step[:, None] < step)
    why: dict[tuple[int, int], str] = {}
    for rule in grammar()["rule"]:
        if rule["level"] != "must":
            continue
        wanted = (
            fitting(rule["first"], columns, count)[:, None] & fitting(rule["then"], columns, count) & meets.over(rule["over"])
        )
        np.fill_diagonal(wanted, False)
        for pair in zip(*(axis.tolist() for axis in np.nonzero(wanted & ~before)), strict=True):
            why[pair] = rule["id"]
        before = before | wanted
    return before, why


def _sorted(passes: Sequence[Pass], before: NDArray[np.bool_], keys: Sequence[tuple[float, ...]]) -> list[int]:
    """Topological order, the school's key deciding among what is free; raises `SequenceTrouble` on a circle."""
    waits = before.sum(0).tolist()
    followers = [np.nonzero(row)[0].tolist() for row in before]
    free = [(keys[n], n) for n, w in enumerate(waits) if w == 0]
    heapq.heapify(free)
    order: list[int] = []
    while free:
        _, n = heapq.heappop(free)
        order.append(n)
        for m in followers[n]:
            waits[m] -= 1
            if waits[m] == 0:
                heapq.heappush(free, (keys[m], m))
    if len(order) < len(passes):
        left = ", ".join(p.title for p, w in zip(passes, waits, strict=True) if w > 0)
        raise SequenceTrouble("The passes could not be put in order", f"the rules run in a circle: {left}")
    return order


def with_needs(
    ordered: Sequence[Pass], meets: Meetings, before: NDArray[np.bool_], why: Mapping[tuple[int, int], str]
) -> tuple[Pass, ...]:  # fmt: skip
    """What each pass waits for in this order: the newest coat of its own and of each touching area, dry, and the rules' own firsts.

    All matrices follow `ordered`. What one of its needs waits for already is not told twice, but for its own area's coat.
    """
    newest: dict[tuple[int, int], int] = {}
    of: list[dict[int, Need]] = []
    touching = meets.touching.tolist()
    for n, p in enumerate(ordered):
        needs: dict[int, Need] = {}
        for (region_id, _), m in newest.items():
            if touching[m][n]:
                needs[m] = Need(ordered[m].id, "same" if region_id == p.region_id else "touching", True)
        for m in np.nonzero(before[:n, n])[0].tolist():
            if m not in needs and (m, n) in why:
                needs[m] = Need(ordered[m].id, why[m, n], touching[m][n])
        implied = {k for m in needs for k in of[m]}
        of.append({m: need for m, need in needs.items() if m not in implied or need.why == "same"})
        if p.square < 0:
            for place in [k for k in newest if k[0] == p.region_id]:
                del newest[place]
        newest[p.region_id, p.square] = n
    return tuple(replace(p, needs=tuple(of[n].values())) for n, p in enumerate(ordered))


def sequence_of(areas: Sequence[Area], school: School, medium: Medium, climate: Climate) -> tuple[Pass, ...]:
    """Every pass in the order of painting, each with what it needs.

    Raises `SequenceTrouble` for rules in a circle or a kind without a recipe.
    """
    by_id = {a.id: a for a in areas}
    passes: list[Pass] = []
    for area in areas:
        touching = [by_id[i] for i in by_id if i in area.touches or area.id in by_id[i].touches]
        passes += _passes_of(area, steps_of(area, touching, school, medium), school, medium, climate)
    meets = Meetings(passes, areas)
    before, why = _edges(passes, meets, school)
    return _told(passes, areas, _sorted(passes, before, _keys(passes, school, medium)), before, why)


def _told(
    passes: Sequence[Pass], areas: Sequence[Area], order: Sequence[int], before: NDArray[np.bool_], why: Mapping[tuple[int, int], str]
) -> tuple[Pass, ...]:  # fmt: skip
    place = {n: at for at, n in enumerate(order)}
    ordered = [passes[n] for n in order]
    turned = before[np.ix_(order, order)]
    return with_needs(ordered, Meetings(ordered, areas), turned, {(place[i], place[j]): rule for (i, j), rule in why.items()})


def needs_anew(ordered: Sequence[Pass], areas: Sequence[Area], school: School) -> tuple[Pass, ...]:
    """The same passes in the painter's own order, with what each needs there."""
    meets = Meetings(ordered, areas)
    before, why = _edges(ordered, meets, school)
    return with_needs(ordered, meets, np.triu(before, 1), {pair: rule for pair, rule in why.items() if pair[0] < pair[1]})
