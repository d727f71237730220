"""Answers kept by identity; modules that load at their first use."""

import subprocess
import sys

from yarrow_lane.measure.kept import kept
from yarrow_lane.measure.late import late


def test_the_same_object_is_answered_once_and_an_equal_one_anew():
    asked = []

    @kept(2)
    def size(words: tuple[str, ...], of: int) -> int:
        asked.append((words, of))
        return len(words) * of

    one, same = ("a", "b"), tuple(["a", "b"])  # noqa: C409 another object of the same value
    assert [size(one, 2), size(one, 2), size(one, 3), size(same, 2)] == [4, 4, 6, 4] and len(asked) == 3
    assert size(one, 2) == 4 and len(asked) == 4, "only the newest two are kept"


def test_each_group_keeps_its_own_newest():
    asked = []

    @kept(2, of=lambda pair: pair[0])
    def seen(pair):
        asked.append(pair)
        return len(asked)

    pairs = [("a", n) for n in range(3)] + [("b", 0)]
    for pair in (*pairs, pairs[3], pairs[2], pairs[1]):
        seen(pair)
    assert asked == pairs, "the newest two of a and the one of b are not asked again"
    seen(pairs[0])
    assert asked[-1] == pairs[0] and len(asked) == 5, "the first of a was let go"


def test_an_identity_is_never_taken_for_anothers():
    """Were the arguments not held, a new list might lie where an old one lay."""

    @kept(1000)
    def first(words: list[int]) -> int:
        return words[0]

    assert [first([n]) for n in range(500)] == list(range(500))


def test_a_setting_belongs_to_the_module():
    stand_in = late("decimal")
    import decimal

    stand_in.YARROW = 3
    assert decimal.YARROW == 3
    del decimal.YARROW


def test_the_window_starts_without_what_it_does_not_need_yet():
    """OpenCV, Pillow, reportlab and SciPy cost half a second together."""
    code = "import sys, yarrow_lane.ui.window; print([m for m in ('cv2', 'PIL', 'reportlab', 'scipy', 'shapely') if m in sys.modules])"
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True)
    assert done.stdout.strip() == "[]"
