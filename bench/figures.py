"""One line a figure: what, value, goal, whether it holds."""


def figure(what: str, value: float, goal: float, unit: str) -> str:
    """Smaller is better; a figure holds when it is not above its goal."""
    word = "holds" if value <= goal else "short"
    return f"{what} | {value:.3g} {unit} | goal {goal:g} | {word}"
