"""Hair fields drawn with known direction and length: what the flow is measured on."""

import cv2
import numpy as np

PX = 2.5


def field(kind: str, rows: int, columns: int):
    """A signed unit field: "down", "from a nose" (springing from a point), "whorl", or "parted" (away from a middle line)."""
    y, x = np.mgrid[:rows, :columns].astype(np.float32)
    if kind == "down":
        turn = np.deg2rad(90 + 25 * np.sin(x / columns * 5) + 15 * np.sin(y / rows * 4))
        return np.cos(turn), np.sin(turn)
    if kind == "parted":
        side = np.where(x < columns / 2, -1.0, 1.0)
        return side * np.cos(0.5), np.full_like(x, np.sin(0.5))
    cx, cy = columns / 2, rows * (0.3 if kind == "from a nose" else 0.5)
    dx, dy = x - cx, y - cy
    away = np.hypot(dx, dy) + 1e-3
    if kind == "from a nose":
        vx, vy = (
            1.6 * np.exp(-((away / (0.35 * columns)) ** 2) / 2) * dx / away,
            1.6 * np.exp(-((away / (0.35 * columns)) ** 2) / 2) * dy / away + 0.6,
        )
    else:
        turn = np.deg2rad(35)
        vx, vy = (np.cos(turn) * dx - np.sin(turn) * dy) / away, (np.sin(turn) * dx + np.cos(turn) * dy) / away
    size = np.hypot(vx, vy) + 1e-6
    return vx / size, vy / size


def fur(kind: str, rows: int = 500, columns: int = 500, length: float = 30.0, seed: int = 0, stripes: bool = False):
    """sRGB picture (rows, columns, 3) at 2.5 px per mm of tapered hairs `length` px long, and the field they follow."""
    random = np.random.default_rng(seed)
    vx, vy = field(kind, rows, columns)
    image = np.full((rows, columns, 3), 90, np.uint8)
    count = int(rows * columns / (length * 2.0) * 3)
    roots = random.uniform((0, 0), (columns, rows), (count, 2))
    ways = random.normal(0, np.deg2rad(6), count)
    tone = random.normal(110, 32, count)
    if stripes:
        tone -= 55 * (np.sin(roots[:, 1] / 10) > 0)
    long = length * random.uniform(0.7, 1.3, count)
    line = [roots]
    for _ in range(6):
        at = np.clip(line[-1].astype(int), 0, (columns - 1, rows - 1))
        ux, uy = vx[at[:, 1], at[:, 0]], vy[at[:, 1], at[:, 0]]
        way = np.stack([ux * np.cos(ways) - uy * np.sin(ways), ux * np.sin(ways) + uy * np.cos(ways)], 1)
        line.append(line[-1] + way * (long / 6)[:, None])
    points = np.round(np.stack(line, 1) * 16).astype(np.int32)
    for n in random.permutation(count):
        value = float(np.clip(tone[n], 8, 245))
        cv2.polylines(image, [points[n, :5]], False, (value * 0.9, value, value * 0.95), 2, cv2.LINE_AA, 4)
        cv2.polylines(image, [points[n, 4:]], False, (value * 0.9, value, value * 0.95), 1, cv2.LINE_AA, 4)
    return image, vx, vy
