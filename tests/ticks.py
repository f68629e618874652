"""A camera in ticks of five milliseconds: which presses bring it a frame, by nothing but what its contacts do."""

from dataclasses import dataclass

from tests.circuit import Sees

TICK_S = 0.005
PRESSES = 6


@dataclass
class Ticking:
    """What the contacts show, as letters, and the camera's own times in seconds."""

    sees: Sees
    half_s: float
    press_s: float
    every_s: float
    least_s: float = 0.1
    busy_s: float = 2.4
    sleeps_s: float = 0.0
    wake_s: float = 0.4
    half_first: bool = False
    key: str = ""

    def shows(self, at: float) -> str:
        """The contacts at a time: the presses begin at one beat, two beats and so on."""
        begun = range(1, min(PRESSES, int((at + self.half_s) / self.every_s) + 1) + 1)
        if any(-1e-9 <= at - n * self.every_s < self.press_s - 1e-9 for n in begun):
            return self.sees.full
        half = any(-self.half_s - 1e-9 <= at - n * self.every_s < -1e-9 for n in begun)
        return self.sees.half if half else self.sees.rest

    def pressed(self, shown: str) -> bool:
        if self.key:
            return bool(shown) and {"volume up": 210 <= float(shown) <= 290, "play": float(shown) <= 70}[self.key]
        return "s" in shown and (not self.half_first or "f" in shown)

    def frames(self) -> list[int]:
        """The presses that brought a frame, counted from 1."""
        taken: list[int] = []
        held_since: float | None = None
        counted = self.pressed(self.shows(0.0))
        free_from, touched, awake_from = 0.0, self.every_s, 0.0
        for tick in range(round((PRESSES + 1) * self.every_s / TICK_S)):
            at = tick * TICK_S
            shown = self.shows(at)
            if shown and not self.key:
                if self.sleeps_s and at - max(touched, free_from) > self.sleeps_s:
                    awake_from = at + self.wake_s
                touched = at
            if not self.pressed(shown):
                held_since, counted = None, False
                continue
            held_since = at if held_since is None else held_since
            held_s = at + TICK_S - max(held_since, awake_from)
            if counted or at < awake_from or held_s < self.least_s - 1e-9:
                continue
            counted = True
            if held_since >= free_from - 1e-9:
                taken.append(int((held_since + self.half_s + 1e-9) / self.every_s))
                free_from = max(held_since, awake_from) + self.busy_s
        return taken
