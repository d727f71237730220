"""How much paint a coat takes."""

from yarrow_lane.paint.drying import FILM_UM, Film

LOSS = 1.5  # mix half as much again: our choice
_ML_PER_CM2_UM = 1e-4  # 100 cm2 at 100 um are 1 ml exactly


def coat_ml(cm2: float, film: Film, coats: float = 1) -> float:
    """ml on the canvas, without what stays in brush and jar."""
    return cm2 * FILM_UM[film] * _ML_PER_CM2_UM * coats
