"""Region sets as the sequence sees them, and a head drawn in boxes."""

import random
from itertools import product

from yarrow_lane.intake.brief import MEDIA
from yarrow_lane.layers.kinds import KINDS
from yarrow_lane.layers.passes import Area
from yarrow_lane.layers.regions import Layers, School, add_region, choose_school
from yarrow_lane.measure.plane import Rect

CANVAS = Rect(0, 0, 400, 500)
SCHOOLS = [
    (School(eyes, values, background, round_, outline, finish), medium)
    for eyes, values, round_, background, outline, finish, medium in product(
        ("first", "early", "last"),
        ("dark to light", "middle out", "light first"),
        ("all over", "area by area", "square by square"),
        ("first", "last", "alongside"),
        ("before tone", "after tone"),
        ("close", "painterly"),
        MEDIA,
    )
]


def meets(*ids):
    return frozenset(ids)


DOG = (
    Area(1, "background", "background", 600, meets(2, 3), 0, "", ((0, 0.3), (1, 0.2), (2, 0.3), (3, 0.2))),
    Area(2, "head", "fur", 400, meets(1, 3, 4, 5, 6), 1, "head", ((0, 0.2), (1, 0.4), (2, 0.2), (3, 0.2))),
    Area(3, "ear", "fur", 80, meets(1, 2), 1, "left ear", ((0, 0.5), (1, 0.5))),
    Area(4, "eye", "eye", 3, meets(2), 1, "left eye", ((1, 1.0),)),
    Area(5, "nose", "nose", 6, meets(2), 1, "", ((2, 1.0),)),
    Area(6, "whiskers", "whiskers", 20, meets(2), 1, "", ((2, 1.0),)),
)
PERSON = (
    Area(1, "background", "background", 100, meets(2, 4)),
    Area(2, "coat", "cloth", 100, meets(1, 3), 1),
    Area(3, "face", "skin", 100, meets(2, 4, 5, 6), 1),
    Area(4, "hair", "hair", 100, meets(1, 3), 1),
    Area(5, "eye", "eye", 100, meets(3), 1),
    Area(6, "mouth", "mouth", 100, meets(3), 1),
)


def random_set(rng: random.Random) -> tuple[Area, ...]:
    """Two to nine regions that meet at random."""
    n = rng.randint(2, 9)
    kinds = ["background", *(rng.choice(KINDS) for _ in range(n - 1))]
    pairs = {(a, b) for a in range(n) for b in range(a + 1, n) if rng.random() < 0.45}
    return tuple(
        Area(
            i + 1, f"{kind} {i}", kind, 50.0, frozenset(b + 1 for b in range(n) if (min(i, b), max(i, b)) in pairs and b != i),
            1 + i % 2, "left ear" if "fur" in kind and rng.random() < 0.3 else "",
            tuple((s, 1 / 3) for s in sorted(rng.sample(range(9), 3))),
        )
        for i, kind in enumerate(kinds)
    )  # fmt: skip


def box(x, y, w, h):
    return ((x, y), (x + w, y), (x + w, y + h), (x, y + h))


def portrait(school=None):
    """Background, body, head and two eyes of one animal."""
    layers = add_region(Layers(), "background", box(0, 0, 400, 500), CANVAS)
    layers = add_region(layers, "fur", box(50, 150, 300, 350), CANVAS, "body")
    layers = add_region(layers, "fur", box(100, 50, 200, 200), CANVAS, "head")
    layers = add_region(layers, "eye", box(130, 100, 30, 25), CANVAS, "left eye")
    layers = add_region(layers, "eye", box(230, 100, 30, 25), CANVAS, "right eye")
    return choose_school(layers, school) if school else layers
