"""Make the short ring of the easel: two struck tones that fade. Writes ring.wav beside the easel's room."""

import math
import struct
import wave
from pathlib import Path

RATE, SECONDS = 22050, 0.7
PLACE = Path(__file__).parent.parent / "src/yarrow_lane/ui/rooms/easel/ring.wav"


def sample(t: float) -> float:
    """Between -1 and 1: 660 Hz, a fifth above it from a tenth of a second on, both fading."""
    first = math.sin(2 * math.pi * 660 * t) * math.exp(-6 * t)
    second = math.sin(2 * math.pi * 990 * (t - 0.1)) * math.exp(-7 * (t - 0.1)) if t > 0.1 else 0.0
    return 0.18 * (first + second) * min(1.0, t / 0.004)


with wave.open(str(PLACE), "wb") as file:
    file.setnchannels(1)
    file.setsampwidth(2)
    file.setframerate(RATE)
    file.writeframes(b"".join(struct.pack("<h", round(32767 * sample(n / RATE))) for n in range(int(RATE * SECONDS))))
