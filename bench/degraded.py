"""Pictures made worse as clients do, each with the share of its pixels that then truly resolves: from the transfer of what was done."""

import math
from collections.abc import Callable
from dataclasses import dataclass

import cv2
import numpy as np
from scipy.optimize import brentq
from scipy.special import j1

Picture = np.ndarray
Transfer = Callable[[np.ndarray], np.ndarray]
NEAREST, LINEAR, CUBIC, LANCZOS, AREA = (
    cv2.INTER_NEAREST, cv2.INTER_LINEAR, cv2.INTER_CUBIC, cv2.INTER_LANCZOS4, cv2.INTER_AREA,
)  # fmt: skip
_FREQUENCIES = np.linspace(1e-3, 0.5, 2000)


@dataclass(frozen=True)
class Harm:
    """`share` is the truth, of a base that resolves all of its pixels."""

    name: str
    make: Callable[[Picture], Picture]
    share: float


def resolved(transfer: Transfer) -> float:
    """Where the transfer of a pixel (a sinc) times another falls to 0.3, over the highest frequency pixels hold."""
    whole = np.sinc(_FREQUENCIES) * np.abs(transfer(_FREQUENCIES))
    if whole.min() >= 0.3:
        return 1.0
    last = float(_FREQUENCIES[np.nonzero(whole < 0.3)[0][0]])
    found = brentq(lambda f: float(np.sinc(f) * abs(transfer(np.array([f]))[0]) - 0.3), max(1e-4, last - 0.001), last)
    return 2 * float(found)


def gaussian(sigma: float) -> Transfer:
    return lambda f: np.exp(-2 * (math.pi * sigma * f) ** 2)


def disc(radius: float) -> Transfer:
    return lambda f: 2 * j1(2 * math.pi * radius * f) / (2 * math.pi * radius * f)


def sharpened(sigma: float, amount: float, before: Transfer) -> Transfer:
    return lambda f: before(f) * (1 + amount * (1 - gaussian(sigma)(f)))


def codes(values: np.ndarray) -> Picture:
    return np.clip(np.rint(values), 0, 255).astype(np.uint8)


def blur(picture: Picture, sigma: float) -> Picture:
    return cv2.GaussianBlur(picture, (0, 0), sigma)


def out_of_focus(picture: Picture, radius: float) -> Picture:
    reach = math.ceil(radius)
    y, x = np.mgrid[-reach : reach + 1, -reach : reach + 1]
    kernel = np.zeros(x.shape)
    for dy in np.linspace(-0.4, 0.4, 5):
        for dx in np.linspace(-0.4, 0.4, 5):
            kernel += (y + dy) ** 2 + (x + dx) ** 2 <= radius**2
    return cv2.filter2D(picture, -1, (kernel / kernel.sum()).astype(np.float32))


def sized(picture: Picture, times: float, how: int) -> Picture:
    size = (max(8, round(picture.shape[1] * times)), max(8, round(picture.shape[0] * times)))
    return cv2.resize(picture, size, interpolation=how)


def resent(picture: Picture, quality: int) -> Picture:
    """Through JPEG, as messengers do."""
    done, data = cv2.imencode(".jpg", picture[..., ::-1], [cv2.IMWRITE_JPEG_QUALITY, quality])
    assert done
    return np.ascontiguousarray(cv2.imdecode(data, cv2.IMREAD_COLOR)[..., ::-1])


def grainy(picture: Picture, sigma: float, seed: int = 7) -> Picture:
    dice = np.random.default_rng(seed)
    return codes(picture + 0.8 * dice.normal(0, sigma, (*picture.shape[:2], 1)) + 0.6 * dice.normal(0, sigma, picture.shape))


def unsharp(picture: Picture, sigma: float, amount: float) -> Picture:
    whole = picture.astype(np.float32)
    return codes(whole + amount * (whole - blur(whole, sigma)))


def moved(picture: Picture, length: float, degrees: float) -> Picture:
    """Along a line while the shutter was open."""
    reach = math.ceil(length / 2) + 1
    kernel = np.zeros((2 * reach + 1, 2 * reach + 1), np.float32)
    for t in np.linspace(-length / 2, length / 2, 200):
        x, y = reach + t * math.cos(math.radians(degrees)), reach - t * math.sin(math.radians(degrees))
        kernel[round(y), round(x)] += 1
    return cv2.filter2D(picture, -1, kernel / kernel.sum())


def movement(length: float) -> Transfer:
    return lambda f: np.sinc(length * f)


def kept(before: Picture, after: Picture) -> float:
    """The share of the pixels' frequencies up to which one picture still follows the other of equal size.

    The truth where nobody can write the transfer down, as of denoisers: their cross spectrum over the spectrum of the first, in
    rings of frequency, times the pixel's own sinc; where it falls to 0.3 for good.
    """
    grey = [cv2.cvtColor(np.ascontiguousarray(p), cv2.COLOR_RGB2GRAY).astype(np.float64) for p in (before, after)]
    height, width = grey[0].shape
    window = np.outer(np.hanning(height), np.hanning(width))
    one, other = (np.fft.fft2((g - g.mean()) * window) for g in grey)
    rings = np.hypot(np.fft.fftfreq(height)[:, None], np.fft.fftfreq(width)[None])
    edges = np.linspace(0.01, 0.5, 60)
    number = np.digitize(rings.ravel(), edges)
    cross = np.bincount(number, (one.conj() * other).real.ravel(), len(edges) + 1)[1:-1]
    own = np.bincount(number, (np.abs(one) ** 2).ravel(), len(edges) + 1)[1:-1]
    middle = (edges[:-1] + edges[1:]) / 2
    whole = np.sinc(middle) * np.convolve(cross / own, np.ones(3) / 3, "same")
    below = np.nonzero(whole[1:-1] < 0.3)[0]
    return 1.0 if not len(below) else float(2 * middle[1:-1][below[0]])


def hidden_harms() -> tuple[Harm, ...]:
    """Movement, and what a measure of edges cannot see: denoisers and sharpening after enlarging. A share of 0 is to be `kept`."""

    def without_noise(p: Picture) -> Picture:
        return cv2.fastNlMeansDenoisingColored(np.ascontiguousarray(grainy(p, 10, 3)), None, 12, 12, 5, 15)

    found = [
        Harm(f"moved {n}", lambda p, n=n, d=d: moved(p, n, d), math.sqrt(resolved(movement(n))))
        for n, d in ((4, 20), (8, 75), (12, 0))
    ]
    return (
        *found,
        Harm("enlarged 2, sharpened", lambda p: unsharp(sized(p, 2, CUBIC), 2, 1.2), 0.5),
        Harm("enlarged 3, sharpened", lambda p: unsharp(sized(p, 3, CUBIC), 3, 1.5), 1 / 3),
        Harm("smoothed between edges", lambda p: cv2.bilateralFilter(np.ascontiguousarray(p), 9, 40, 3), 0.0),
        Harm("median of five", lambda p: cv2.medianBlur(np.ascontiguousarray(p), 5), 0.0),
        Harm("grain taken out", without_noise, 0.0),
    )


def harms() -> tuple[Harm, ...]:
    """Forty of them."""
    found = [Harm("as it is", lambda p: p, 1.0)]
    for s in (0.7, 1.0, 1.5, 2.0, 3.0, 4.0):
        found.append(Harm(f"blurred {s}", lambda p, s=s: blur(p, s), resolved(gaussian(s))))
    for r in (1.5, 2.5, 4.0):
        found.append(Harm(f"out of focus {r}", lambda p, r=r: out_of_focus(p, r), resolved(disc(r))))
    for times in (1.5, 2.0, 3.0, 3.9):
        for name, how in (("nearest", NEAREST), ("linear", LINEAR), ("cubic", CUBIC), ("lanczos", LANCZOS)):
            found.append(Harm(f"enlarged {times} {name}", lambda p, t=times, h=how: sized(p, t, h), 1 / times))
    found += [
        Harm("blurred, enlarged", lambda p: sized(blur(p, 1.5), 2, CUBIC), resolved(gaussian(1.5)) / 2),
        Harm("out of focus, enlarged", lambda p: sized(out_of_focus(p, 2.5), 2, LANCZOS), resolved(disc(2.5)) / 2),
        Harm("enlarged, re-sent", lambda p: resent(sized(p, 2, CUBIC), 75), 0.5),
        Harm("enlarged much, re-sent", lambda p: resent(sized(p, 3, LANCZOS), 60), 1 / 3),
        Harm("re-sent", lambda p: resent(p, 75), 1.0),
        Harm("blurred, sharpened", lambda p: unsharp(blur(p, 2), 2, 1.5), resolved(sharpened(2, 1.5, gaussian(2)))),
        Harm("grainy", lambda p: grainy(p, 10), 1.0),
        Harm("blurred, grainy", lambda p: grainy(blur(p, 2), 8), resolved(gaussian(2))),
        Harm("grainy, enlarged", lambda p: sized(grainy(p, 8), 2, CUBIC), 0.5),
        Harm("screenshot", lambda p: sized(sized(p, 0.6, AREA), 1.3, CUBIC), 1 / 1.3),
        Harm("screenshot re-sent", lambda p: resent(sized(sized(p, 0.45, AREA), 2.2, LINEAR), 80), 1 / 2.2),
        Harm("dusk", lambda p: grainy(codes(p * 0.25), 3), 1.0),
        Harm("blurred at dusk", lambda p: grainy(codes(blur(p, 2) * 0.25), 3), resolved(gaussian(2))),
        Harm("pale", lambda p: codes(110 + 0.35 * (p.astype(np.float32) - 110)), 1.0),
    ]
    return tuple(found)
