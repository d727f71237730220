"""What the demo's commissions share: a clock that can be set, and steps a painter takes in a row."""

from collections.abc import Callable
from dataclasses import replace
from datetime import datetime, timedelta
from typing import Any

from yarrow_lane.compose.composition import COMPOSE, Compose, crop_scale, frame, largest_crop_width, set_size, to_canvas
from yarrow_lane.demo.sitter_files import sitter_file
from yarrow_lane.desk.desk import Desk
from yarrow_lane.desk.photographs import Photographs
from yarrow_lane.easel.clock import running
from yarrow_lane.easel.session import EASEL, finish_pass
from yarrow_lane.intake.arriving import arrive
from yarrow_lane.intake.brief import BRIEF, Medium, SitterKind, new_brief, with_title
from yarrow_lane.intake.landmarks import Landmark
from yarrow_lane.intake.opening import open_whole
from yarrow_lane.intake.photos import INTAKE, Eye, Photo, Use, add_photo, mark_eye, mark_landmark, set_rights, set_use
from yarrow_lane.intake.rights import Consent, Permission, Rights
from yarrow_lane.lane.happening import ClockStarted, ClockStopped
from yarrow_lane.lane.part import Edit, Part
from yarrow_lane.layers.regions import LAYERS, Kind, School, add_region, choose_school
from yarrow_lane.layers.sequence import sequence
from yarrow_lane.measure.plane import Point, Polygon, Rect
from yarrow_lane.palette.recipe import read_recipe
from yarrow_lane.palette.wells import PALETTE, add_well, change_well, patch_colour
from yarrow_lane.tone.record import TONE
from yarrow_lane.transfer.record import TRANSFER, squares_of


class SetClock:
    """The demo's clock: told what time it is."""

    def __init__(self, now: datetime) -> None:
        self.now = now

    def __call__(self) -> datetime:
        return self.now


# The painter of the demo against the first guesses.
_OWN_PACE = {"fur": 1.18, "eye": 0.95, "background": 0.72}


class Scene:
    """One commission being told, step by step, through the desk's own edits."""

    def __init__(self, desk: Desk, clock: SetClock) -> None:
        self.desk, self.clock = desk, clock
        self.photographs = Photographs(desk.store.photos, arrive)
        self.id = ""

    def edit(self, part: Part[Any], label: str, step: Callable[..., Any], *rest: object) -> None:
        """Take one edit of the commission being told; `rest` follows the part in the step's arguments."""
        self.desk.do(self.id, Edit(part, label, lambda value: step(value, *rest)))

    def at(self, days: float, hour: float = 10.0) -> "Scene":
        """Set the clock to so many days from the opening of the demo, at that hour."""
        day = self._today + timedelta(days=days)
        midnight = day.replace(hour=0, minute=0, second=0, microsecond=0)
        self.clock.now = midnight + timedelta(minutes=round(hour * 60))
        return self

    _today: datetime

    def begin(
        self, today: datetime, days_ago: float, title: str, sitter: str, kind: SitterKind, client: str, medium: Medium,
        due_in: int, wish: str,
    ) -> "Scene":  # fmt: skip
        self._today = today
        self.at(-days_ago)
        promised = (today + timedelta(days=due_in)).date()
        self.id = self.desk.start_commission(new_brief(sitter, kind, client, medium, self.clock.now.date(), promised, wish))
        if title != sitter:
            self.edit(BRIEF, "Named the commission", with_title, title)
        return self

    def sitter(self, **facts: Any) -> None:
        """Write down more about the only sitter."""
        self.edit(BRIEF, "Changed the sitter", lambda b: replace(b, sitters=(replace(b.sitters[0], **facts),)))

    # --- intake

    def photo(
        self,
        data: bytes,
        name: str,
        use: Use,
        eyes: tuple[Eye, ...] = (),
        permission: Permission = "client",
        by: str = "",
        consent: Consent = "not asked",
        landmarks: tuple[Landmark, ...] = (),
    ) -> Photo:
        photo = self.photographs.photo_from_file(data, name)
        self.edit(INTAKE, f"Took in {name}", add_photo, photo)
        for eye in eyes:
            self.edit(INTAKE, f"Marked the {eye.side} eye", mark_eye, photo.id, eye)
        for mark in landmarks:
            self.edit(INTAKE, f"Marked the {mark.name}", mark_landmark, photo.id, mark)
        if use != "undecided":
            self.edit(INTAKE, f"Use: {use}", set_use, photo.id, use)
        self.edit(INTAKE, "Wrote down the rights", set_rights, photo.id, Rights(permission, by, consent=consent))
        return photo

    # --- compose and transfer

    @property
    def compose(self) -> Compose:
        """The composition as it is now."""
        return self.desk.commission(self.id).compose

    def frame(self, photo: Photo, width_mm: float, height_mm: float, name: str, share: float, centre: Point) -> None:
        """Size and crop: `share` of the widest crop, about `centre` in shares of the photograph."""
        size = (photo.width_px, photo.height_px)
        at = (centre[0] * size[0], centre[1] * size[1])
        self.edit(COMPOSE, "Chose the size", set_size, width_mm, height_mm, name)
        self.edit(COMPOSE, "Laid the crop", lambda c: frame(c, photo.id, size, share * largest_crop_width(c, size), at))

    def squares(self, count: int, drawn: float) -> None:
        """Take squares and draw a share of them, row by row."""
        self.edit(TRANSFER, f"{count} squares across the short side", lambda t: replace(t, count=count))
        c = self.desk.commission(self.id)
        squares = squares_of(c.compose, c.transfer)
        assert squares is not None
        done = squares.all[: round(drawn * len(squares.all))]
        self.edit(TRANSFER, f"Drew {len(done)} squares", lambda t: replace(t, drawn=tuple(sorted(done))))

    def ground(self, ground: str, coats: int = 2) -> None:
        self.edit(TONE, f"Ground: {ground}", lambda t: replace(t, ground=ground, ground_coats=coats))

    # --- palette and layers

    def wells(self, sitter: str, found: tuple[tuple[str, Point, str], ...], patch_mm: float = 6.0) -> None:
        """Take colours: (name, place in photograph px, mix)."""
        picture = open_whole(sitter_file(sitter).jpeg, sitter)
        compose = self.desk.commission(self.id).compose
        for name, point, mix in found:
            side = patch_mm * crop_scale(compose)
            srgb, lab = patch_colour(picture, Rect(point[0] - side / 2, point[1] - side / 2, side, side))
            self.edit(PALETTE, "Took a colour", add_well, to_canvas(compose, point), patch_mm, srgb, lab, name)
            if mix:
                recipe = read_recipe(mix, self.desk.studio.paintbox.names)
                well = self.desk.commission(self.id).palette.wells[-1]
                well = replace(well, recipe=recipe, mixed_on=self.clock.now.date())
                self.edit(PALETTE, f"Wrote the mix of {name}", change_well, well)

    def regions(self, outlines: tuple[tuple[str, Kind, Polygon], ...], school: School) -> None:
        """Draw regions: (name, kind, outline in photograph px); the background takes the whole canvas."""
        compose = self.desk.commission(self.id).compose
        canvas = compose.canvas
        self.edit(LAYERS, "Drew a background region", add_region, "background", canvas.corners, canvas)
        for name, kind, outline in outlines:
            placed = tuple(to_canvas(compose, p) for p in outline)
            self.edit(LAYERS, f"Drew a {kind} region", add_region, kind, placed, canvas, name)
        self.edit(LAYERS, "Chose the order of work", choose_school, school)

    def paint(
        self, count: int, first_day: float, hours_a_day: float = 4.0, paces: tuple[float, ...] = (1.0, 1.15, 0.9), begin: float = 10.0
    ) -> None:  # fmt: skip
        """Paint the next passes from `first_day` on, so many hours a day from `begin`, each at a pace of its own."""
        c = self.desk.commission(self.id)
        passes = [p for p in sequence(c.layers, c.brief.medium, self.desk.studio.climate) if c.easel.done(p.id) is None]
        day, used = first_day, 0.0
        for n, p in enumerate(passes[:count]):
            minutes = p.minutes * paces[n % len(paces)] * _OWN_PACE.get(p.family, 1.0)
            if used + minutes / 60 > hours_a_day and used:
                day, used = day + 1, 0.0
            self.at(day, begin + used)
            start = self.clock.now
            self.desk.happen(self.id, ClockStarted(start, p.id, p.title))
            self.clock.now = start + timedelta(minutes=minutes)
            self.desk.happen(self.id, ClockStopped(self.clock.now, p.id, p.title))
            self.edit(EASEL, f"Finished {p.title}", finish_pass, p, self.clock.now)
            used += minutes / 60 + p.dry_minutes / 60
        assert running(self.desk.commission(self.id).log) is None
