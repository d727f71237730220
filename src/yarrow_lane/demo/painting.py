"""The demo's painting as the stand-in hand has it, photographed with the grey frame round it."""

import io

import numpy as np
from PIL import Image

from yarrow_lane.canvas_photo.taken import Taken
from yarrow_lane.check.record import CHECK, with_photo
from yarrow_lane.demo.scene import Scene
from yarrow_lane.lane.happening import Photographed
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.raster import cut, resample
from yarrow_lane.standins.easel_photo import jpeg_of, shot_by_stand_in
from yarrow_lane.tone.grounds import ground_srgb

_PX_PER_MM = 2.5


def photograph_painting(scene: Scene, jpeg: bytes, crop: Rect, number: int) -> None:
    """From the photograph it is painted after; `number` counts how often the hand has mended. Its corners are set and agreed to."""
    c = scene.desk.commission(scene.id)
    size = c.compose.width_mm, c.compose.height_mm
    whole = np.asarray(Image.open(io.BytesIO(jpeg)).convert("RGB"))
    reference = resample(cut(whole, crop), round(size[0] * _PX_PER_MM), round(size[1] * _PX_PER_MM))
    shot = shot_by_stand_in(size, ground_srgb(c.tone.ground), reference, number)
    name = f"{c.brief.title.lower()}-on-the-easel-{number + 1}.jpg"
    key, facts = scene.photographs.keep_picture(jpeg_of(shot.picture), name)
    corners = tuple((round(float(x), 1), round(float(y), 1)) for x, y in shot.corners(*size))
    taken = Taken(key, name, (facts.width_px, facts.height_px), scene.clock.now, corners)
    scene.desk.happen(scene.id, Photographed(scene.clock.now, key, name), "Check")
    scene.edit(CHECK, f"Put {name} beside the crop", with_photo, taken, False, True)
