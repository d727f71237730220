"""Bringing one photograph's colour and light into agreement with another's: what is measured, proposed, and cannot be mended."""

from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.compose.drawing.colour_move import gains
from yarrow_lane.compose.pieces import Move, Piece
from yarrow_lane.intake.light import Light, apart
from yarrow_lane.measure.colour.cielab import XYZ_FROM_LINEAR, lab_from_linear, linear_from_lab
from yarrow_lane.measure.colour.warm import warm_and_pink
from yarrow_lane.measure.trouble import Trouble

_LUMINANCE = XYZ_FROM_LINEAR[1].astype(np.float32)
CLIPPED = 0.995  # of white: what is lighter was burnt out by the camera. Our choice
_LOST_SAID = 0.005  # share of a sitter burnt out that is worth saying: our choice
_PROPOSED = 0.5  # statistics take a coat for a cast: only half of what they ask for is proposed. Our choice
_HOURS_SAID = 1.5  # clock hours: our choice
LARGEST_WARM, LARGEST_STEPS = 30.0, 3.0


class AgreementTrouble(Trouble):
    """A place that says nothing of the light."""


@dataclass(frozen=True)
class Seen:
    """What a sitter's pixels are like: L* at 5, 50 and 95 %, the light of its greyest quarter, shares burnt out and black.

    `grey` is red, green and blue over their luminance.
    """

    lightness: tuple[float, float, float]
    grey: tuple[float, float, float]
    burnt: float
    black: float


def seen(pixels: NDArray[Any]) -> Seen:
    """Of the sitter's pixels, linear light (n, 3). Raises `AgreementTrouble` for none."""
    if len(pixels) == 0:
        raise AgreementTrouble("Nothing was compared", "the sitter has no pixels", "cut it out again")
    lab = lab_from_linear(pixels)
    burnt = pixels.max(axis=1) >= CLIPPED
    usable = ~burnt & (lab[:, 0] > 20)
    colour = np.hypot(lab[:, 1], lab[:, 2])
    if usable.sum() > 50:
        greyest = usable & (colour <= np.percentile(colour[usable], 25))
        grey = np.median(pixels[greyest] / (pixels[greyest] @ _LUMINANCE)[:, None], axis=0)
    else:
        grey = np.ones(3)
    low, middle, high = (float(v) for v in np.percentile(lab[:, 0], (5, 50, 95)))
    black = float((lab[:, 0] < 3).mean())
    return Seen((low, middle, high), (float(grey[0]), float(grey[1]), float(grey[2])), float(burnt.mean()), black)


def move_from_gains(wanted: NDArray[Any]) -> Move:
    """The warm and pink at which a middle grey is multiplied by these gains, as near as the two reach."""
    wanted = wanted / float(wanted @ _LUMINANCE / _LUMINANCE.sum())
    grey = linear_from_lab(np.array([50.0, 0.0, 0.0]))
    lab = lab_from_linear(np.clip(grey * wanted, 1e-5, None))
    warm, pink = warm_and_pink(float(lab[1]), float(lab[2]))
    for _ in range(8):  # the grey's luminance is kept in light, not in L*: a few steps settle it
        back = lab_from_linear(grey * gains(warm, pink))
        over_warm, over_pink = warm_and_pink(float(lab[1] - back[1]), float(lab[2] - back[2]))
        warm, pink = warm + over_warm, pink + over_pink
    limit = LARGEST_WARM
    return Move(warm=round(max(-limit, min(limit, warm)), 2), pink=round(max(-limit, min(limit, pink)), 2))


def by_neutral(here: NDArray[Any], there: NDArray[Any], move: Move) -> Move:
    """White balance from one neutral thing clicked in both photographs: linear light (3,) each, `there` the one to agree with.

    It is applied as it is; value and contrast stay. Raises `AgreementTrouble` for a place that is black or burnt out.
    """
    for light in (here, there):
        if float(light.max()) >= CLIPPED or float(light.min()) < 0.002:
            raise AgreementTrouble("Nothing was balanced", "that place is black or burnt out", "click a grey of middle value")
    found = move_from_gains(there / here)
    return replace(move, warm=found.warm, pink=found.pink)


def by_statistics(here: Seen, there: Seen, move: Move) -> Move:
    """White balance as the greyest quarters would have it, at half strength: a guess, coats are taken for casts."""
    ratio = np.array(there.grey) / np.maximum(np.array(here.grey), 1e-4)
    found = move_from_gains(ratio)
    return replace(move, warm=round(found.warm * _PROPOSED, 1), pink=round(found.pink * _PROPOSED, 1))


def value_between(here: Seen, there: Seen) -> float:
    """How many value steps the sitter's middle is lighter than the other's."""
    return (here.lightness[1] - there.lightness[1]) / 10


def move_words(move: Move) -> str:
    """What a change does, in the painter's words."""
    words = []
    if abs(move.steps) >= 0.05:
        words.append(f"{abs(move.steps):.1f} value steps {'lighter' if move.steps > 0 else 'darker'}")
    if abs(move.contrast - 1) >= 0.03:
        words.append(f"{'more' if move.contrast > 1 else 'less'} contrast (× {move.contrast:.2f})")
    if abs(move.warm) >= 1:
        words.append(f"{_much(move.warm)}{'warmer' if move.warm > 0 else 'cooler'}")
    if abs(move.pink) >= 1:
        words.append(f"{_much(move.pink)}{'pinker' if move.pink > 0 else 'greener'}")
    return ", ".join(words) or "as photographed"


def _much(value: float) -> str:
    return "a little " if abs(value) < 6 else "" if abs(value) < 15 else "much "


def lost_words(name: str, here: Seen) -> str:
    """What the camera lost and no slider brings back; empty when it lost nothing."""
    words = []
    if here.burnt >= _LOST_SAID:
        words.append(
            f"{here.burnt:.0%} of {name} is burnt out: no slider brings it back, it has to be invented or found elsewhere"
        )
    if here.black >= 0.1:
        words.append(f"{here.black:.0%} of {name} is black without drawing")
    return "; ".join(words)


def light_on(piece: Piece, light: Light) -> float | None:
    """Where the light on a placed sitter comes from, degrees clockwise from twelve on the canvas: mirrored and turned with it.

    None while its photograph does not tell.
    """
    if light.degrees is None:
        return None
    return ((-light.degrees if piece.mirrored else light.degrees) + piece.turn_deg) % 360


def light_words(piece: Piece, light: Light, lead: Piece, lead_light: Light) -> str:
    """How a sitter's light agrees with the lead's, as both are placed, and whether a mirror would help.

    Empty where it agrees or is not known.
    """
    own, there = light_on(piece, light), light_on(lead, lead_light)
    if own is None or there is None:
        return ""
    hours = apart(there, own) / 30
    if hours < _HOURS_SAID:
        return ""
    flipped = apart(there, -own) / 30
    words = f"{piece.name}'s light stands {hours:.0f} hours from {lead.name}'s on the clock: paint cannot move it"
    if flipped < hours / 2:
        words += f". Mirrored it would be {flipped:.0f}, but a mirrored face is another face"
    return words
