"""Areas, holding and touching against shapely, an outside library for plane geometry."""

import numpy as np
import pytest
import shapely

from yarrow_lane.layers.regions import Layers, add_region, bare_areas_cm2
from yarrow_lane.measure.plane import Rect, clip_to_rect, polygon_area, polygon_holds, polygons_touch


def star(seed: int, corners: int = 17, size: float = 300.0) -> tuple[tuple[float, float], ...]:
    """A random simple polygon: corners in turning order at random distances."""
    rng = np.random.default_rng(seed)
    angles = np.sort(rng.uniform(0, 2 * np.pi, corners))
    reach = rng.uniform(0.2, 1.0, corners) * size / 2
    shift = rng.uniform(0, size, 2)
    return tuple((float(x), float(y)) for x, y in np.c_[np.cos(angles), np.sin(angles)] * reach[:, None] + shift)


@pytest.mark.parametrize("seed", range(40))
def test_areas_and_points_agree_with_shapely(seed):
    polygon = star(seed)
    outside = shapely.Polygon(polygon)
    assert polygon_area(polygon) == pytest.approx(outside.area, rel=1e-9)
    for point in np.random.default_rng(seed + 100).uniform(-50, 450, (60, 2)):
        assert polygon_holds(polygon, tuple(point)) == outside.contains(shapely.Point(point))


@pytest.mark.parametrize("seed", range(40))
def test_touching_and_clipping_agree_with_shapely(seed):
    one, other = star(seed), star(seed + 1000)
    assert polygons_touch(one, other) == shapely.Polygon(one).intersects(shapely.Polygon(other))
    canvas = Rect(0, 0, 250, 200)
    clipped = clip_to_rect(one, canvas)
    expected = shapely.Polygon(one).intersection(shapely.box(0, 0, 250, 200)).area
    assert polygon_area(clipped) == pytest.approx(expected, rel=1e-6, abs=1e-6)


def test_bare_areas_agree_with_shapely():
    canvas = Rect(0, 0, 400, 500)
    layers = add_region(Layers(), "background", ((0, 0), (400, 0), (400, 500), (0, 500)), canvas)
    shapes = [shapely.box(0, 0, 400, 500)]
    for seed in (3, 5, 8):
        layers = add_region(layers, "fur", star(seed), canvas)
        shapes.append(shapely.Polygon(layers.regions[-1].outline).buffer(0))
    areas = bare_areas_cm2(layers)
    for number, region in enumerate(layers.regions):
        over = shapely.union_all(shapes[number + 1 :]) if number + 1 < len(shapes) else shapely.Polygon()
        bare = shapes[number].difference(over).area / 100
        assert areas[region.id] == pytest.approx(bare, abs=0.006 * shapes[number].area / 100 + 1)
