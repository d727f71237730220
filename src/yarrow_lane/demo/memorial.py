"""The memorial of three who were never in one photograph: cut out, placed, brought to one scale, shown to the client."""

from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace
from datetime import datetime
from functools import cache

import numpy as np

from yarrow_lane.compose.composition import COMPOSE, Compose, Focus, set_size
from yarrow_lane.compose.cutting.coats import usual_coats
from yarrow_lane.compose.cutting.outline import traced
from yarrow_lane.compose.ground import Ground
from yarrow_lane.compose.known import Known
from yarrow_lane.compose.pieces import Move, Piece, Ring, mirrored, moved, scaled, to_canvas
from yarrow_lane.compose.placing import add_piece, all_at_one_scale, change_piece, snapped
from yarrow_lane.compose.proofs import PROOFS, keep_variant
from yarrow_lane.compose.reference import screen_scale
from yarrow_lane.compose.scale import solve
from yarrow_lane.compose.sides import Sides
from yarrow_lane.compose.wall import Furniture, Wall
from yarrow_lane.demo.derived import message_copy, part_of
from yarrow_lane.demo.scene import Scene
from yarrow_lane.demo.sitter_files import SitterFile, sitter_file
from yarrow_lane.desk.cut_outs import CutOuts
from yarrow_lane.intake.brief import BRIEF, Brief, Sitter
from yarrow_lane.intake.photos import INTAKE, Photo, change_photo
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Point
from yarrow_lane.measure.progress import SILENT
from yarrow_lane.store.store import Store
from yarrow_lane.workers.pool import Workers

cv2 = late("cv2")

_SIZE_MM = (500.0, 400.0)


def tell_memorial(scene: Scene, now: datetime) -> None:
    """Bramble, Moss and Pip: three sitters from five photographs, on a gradient, for the wall above the sofa."""
    dog, cat, rabbit = (sitter_file(n) for n in ("dog1", "cat1", "rabbit1"))
    scene.begin(
        now,
        9,
        "Bramble, Moss and Pip",
        "Bramble",
        "dog",
        "R. Vellan",
        "acrylic",
        78,
        "In memory of Bramble; Moss and Pip beside him.",
    )
    scene.edit(BRIEF, "Wrote who is in it", _three)
    photos = {
        "dog": scene.photo(dog.jpeg, "bramble-last-summer.jpg", "lead", dog.eyes, landmarks=dog.landmarks),
        "cat": scene.photo(cat.jpeg, "moss-kitchen.jpg", "lead", cat.eyes, landmarks=cat.landmarks),
        "rabbit": scene.photo(rabbit.jpeg, "pip-lawn.jpg", "lead", rabbit.eyes, landmarks=rabbit.landmarks),
    }
    scene.photo(part_of(dog.jpeg, 0.3, 0.3, 0.5, 0.4), "bramble-nose.jpg", "helper")
    scene.photo(message_copy(cat.jpeg, 420), "moss-message.jpg", "helper")
    for number, photo in enumerate(photos.values(), 1):
        whole = replace(scene.desk.commission(scene.id).intake.photo(photo.id), sitter_id=number)
        scene.edit(INTAKE, f"Said who is in {photo.name}", change_photo, whole)
    scene.at(-6)
    scene.edit(COMPOSE, "Chose the size", set_size, *_SIZE_MM, "metric 40 × 50 cm")
    scene.edit(
        COMPOSE,
        "Chose another background",
        lambda c: replace(c, ground=Ground("gradient", ((58.0, 2.0, 6.0), (36.0, 3.0, 2.0)), 165.0)),
    )
    for number, (name, file, photo) in enumerate(
        (("Bramble", dog, photos["dog"]), ("Moss", cat, photos["cat"]), ("Pip", rabbit, photos["rabbit"])), 1
    ):
        scene.edit(COMPOSE, f"Placed {name}", _placed, file, photo, name, number)
    scene.at(-5)
    scene.edit(COMPOSE, "Marked what is known", lambda c: replace(c, known=_lengths(dog, cat, rabbit)))
    scene.edit(
        COMPOSE, "Brought all to one scale", _arranged, {n: (p.width_px, p.height_px) for n, p in enumerate(photos.values(), 1)}
    )
    scene.edit(COMPOSE, "Set the focus", lambda c: replace(c, focus=Focus(_above_nose(c), 60.0)))
    scene.edit(COMPOSE, "A floating frame", lambda c: replace(c, sides=Sides("dark", 38.0, frame="floating", bar_mm=12.0)))
    plain = Ground("colour", ((52.0, -2.0, 5.0),) * 2)
    scene.edit(
        PROOFS, "Kept it on a plain ground", lambda p: keep_variant(p, "plain ground", replace(scene.compose, ground=plain))
    )
    nearer = change_piece(scene.compose, 3, lambda p: moved(scaled(p, 1.15, p.bounds_mm.centre), -28.0, -8.0))
    scene.edit(PROOFS, "Kept it with Pip nearer", lambda p: keep_variant(p, "Pip nearer", nearer))
    wall = Wall((74.0, -5.0, 6.0), "grey green", 2600.0, Furniture("sofa", 1800.0, 820.0), 2500.0)
    scene.edit(COMPOSE, "Wrote about the wall", lambda c: replace(c, wall=wall))


class Cutting:
    """The sitters cut out in workers while the rest of the demo is told, so that the memorial opens with its picture."""

    def __init__(self, store: Store) -> None:
        self._workers = Workers()
        cut_outs = CutOuts(store.photos.sound, store.cache, self._workers)
        self._pool = ThreadPoolExecutor(1)
        self._under_way = [
            self._pool.submit(cut_outs.of, piece, screen_scale(piece), SILENT)
            for piece in (_as_cut(store, sitter_file(name), n) for n, name in enumerate(("dog1", "cat1", "rabbit1"), 1))
        ]

    def __enter__(self) -> "Cutting":
        return self

    def __exit__(self, kind: type[BaseException] | None, *_: object) -> None:
        """Wait for the last of them, unless the telling failed; raises what went wrong in cutting."""
        try:
            if kind is None:
                for cut in self._under_way:
                    cut.result()
        finally:
            self._pool.shutdown(cancel_futures=True)
            self._workers.close()


def _as_cut(store: Store, file: SitterFile, piece_id: int) -> Piece:
    """The sitter as it will be placed, as far as cutting it out asks for."""
    return Piece(piece_id, file.name, store.photos.keep(file.jpeg), _outline(file.name), (0.0, 0.0), (0.0, 0.0), 1.0)


def _three(brief: Brief) -> Brief:
    sitters = (
        replace(brief.sitters[0], living=False, head_mm=145.0),
        Sitter(2, "Moss", "cat", True),
        Sitter(3, "Pip", "rabbit"),
    )
    return replace(brief, sitters=sitters, next_sitter=4, wall_colour="grey green", wall_width_mm=2600.0)


def _placed(compose: Compose, file: SitterFile, photo: Photo, name: str, sitter_id: int) -> Compose:
    return add_piece(compose, name, photo.id, _outline(file.name), (photo.width_px, photo.height_px), sitter_id)


@cache
def _outline(name: str) -> tuple[Ring, ...]:
    file = sitter_file(name)
    mask = np.asarray(file.regions > 0, np.uint8)
    # A painter outlines masses: single hairs belong to the soft edge.
    kernel = cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (15, 15))
    wide = cv2.copyMakeBorder(mask, 30, 30, 30, 30, cv2.BORDER_REPLICATE)
    body = np.ascontiguousarray(cv2.morphologyEx(wide, cv2.MORPH_OPEN, kernel)[30:-30, 30:-30])
    rings = traced(body, max(body.shape) / 500)[:1]
    return usual_coats(rings, "other", file.landmarks)


def _lengths(dog: SitterFile, cat: SitterFile, rabbit: SitterFile) -> tuple[Known, ...]:
    """As the client would know them; the renderer's own lengths, rounded."""
    left, right = ((e.x, e.y) for e in cat.eyes)
    ear = rabbit.points["ear_tip_viewer_left"], rabbit.points["top_of_head"]
    return (
        Known(1, "head", dog.points["top_of_head"], dog.points["chin"], 145.0, 7.0, "measured by the client"),
        Known(2, "pupils", left, right, 40.0, 2.0, "from her vet"),
        Known(3, "ear", *ear, 97.0, 8.0, "from memory"),
    )


def _arranged(compose: Compose, sizes: dict[int, Point]) -> Compose:
    """All at one share of life, a little nearer than the dog; feet on the lower edge."""
    scales = solve(compose.known, {})
    compose = replace(compose, pieces=tuple(replace(p, far=f) for p, f in zip(compose.pieces, (1.0, 0.9, 0.84), strict=True)))
    compose = all_at_one_scale(compose, scales)
    high = compose.piece(1).bounds_mm.height
    factor = 0.84 * _SIZE_MM[1] / high
    compose = replace(compose, pieces=tuple(scaled(p, factor, compose.canvas.centre) for p in compose.pieces))
    compose = change_piece(compose, 2, mirrored)
    for piece_id, middle in ((1, 0.46), (2, 0.17), (3, 0.78)):
        box = compose.piece(piece_id).bounds_mm
        to = middle * _SIZE_MM[0] - box.centre[0], _SIZE_MM[1] - box.bottom
        compose = change_piece(compose, piece_id, lambda p, to=to: moved(p, *to))  # type: ignore[misc]
        compose = snapped(compose, piece_id, sizes[piece_id]) if piece_id == 1 else compose
    return change_piece(compose, 2, lambda p: replace(p, move=Move(steps=0.3, warm=-3.0)))


def _above_nose(compose: Compose) -> Point:
    """A little below the dog's eyes."""
    known = next(k for k in compose.known if k.piece_id == 1)
    (x0, y0), (x1, y1) = (to_canvas(compose.piece(1), end) for end in (known.a, known.b))
    x, y = 0.6 * x0 + 0.4 * x1, 0.6 * y0 + 0.4 * y1
    return round(x), round(y)
