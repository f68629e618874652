"""A simulated camera's ear: it knows nothing but its contacts, and takes a frame when they say so."""

from dataclasses import dataclass, field
from typing import Literal

from bridle.core.reckon.hearing import Seen
from bridle.core.reckon.signals import Signal

Fault = Literal["none", "misses", "fires twice", "falls asleep"]
# A camera that misses, or fires twice, does so at these of every twenty presses: the same each time.
ODD = (3, 11, 12)
OF_SO_MANY = 20
# One that falls asleep does so after so many seconds, whatever its card says.
DOZES_S = 30.0


@dataclass(frozen=True)
class Heard:
    """What came of a press: how many frames, when the first was begun, and why not where none came."""

    frames: int
    at_s: float
    why: str = ""


@dataclass
class Listener:
    """A camera at the end of a chain; times in seconds. It was touched last when the shoot was started."""

    signal: Signal
    fault: Fault = "none"
    presses: int = 0
    touched_s: float | None = None
    free_s: float = 0.0
    let_go_s: float = 0.0

    def press(self, at_s: float, busy_s: float) -> Heard:
        """One press, full from `at_s` on; where a frame comes of it the camera is busy for so long."""
        if self.signal.verdict == "not known":
            return Heard(0, at_s, "something of this chain has to be read off first")
        self.presses += 1
        heard = self._heard(at_s)
        self.touched_s = at_s + self.signal.press_s
        self.let_go_s = at_s + self.signal.press_s
        if heard.frames:
            self.free_s = heard.at_s + busy_s
        return heard

    def _heard(self, at_s: float) -> Heard:
        signal = self.signal
        begun = self._closes(at_s)
        if begun is None:
            return Heard(0, at_s, self._deaf())
        edge, contacts = begun
        if signal.half_first and not contacts.focus:
            return Heard(0, at_s, "the shutter closed without the half press, and this camera needs both")
        if edge < self.free_s - 1e-9:
            return Heard(0, at_s, "it was still at work on the frame before")
        ready = self._awake_from(at_s)
        if ready is None:
            return Heard(0, at_s, "it slept, and nothing that it heard woke it")
        begun_s = max(edge, ready)
        if not self._long_enough(begun_s, at_s):
            slept = ready > edge + 1e-9
            woke = "it slept; the press woke it, and was over before it was ready"
            return Heard(0, at_s, woke if slept else "the press was too short to be noticed")
        return self._odd(begun_s)

    def _closes(self, at_s: float) -> tuple[float, Seen] | None:
        """When the shutter contact closes, and what is closed then; None where it never does anew."""
        signal = self.signal
        if signal.fires_on:
            pressed = signal.full.key == signal.fires_on and signal.rest.key is None
            let_go = self.presses == 1 or at_s >= self.let_go_s - 1e-9
            return (at_s, signal.full) if pressed and let_go else None
        start = at_s - signal.half_s
        order = [(start, signal.rest, signal.half), (at_s, signal.half if signal.half_s else signal.rest, signal.full),
                 (at_s + signal.press_s, signal.full, signal.rest)]  # fmt: skip
        for when, before, after in order[0 if signal.half_s else 1 :]:
            still = self.presses > 1 and when < self.let_go_s - 1e-9
            if after.shutter and not before.shutter and not still:
                return when, after
        return None

    def _deaf(self) -> str:
        signal = self.signal
        if signal.fires_on:
            return f"it took the press for {signal.full.key or 'nothing at all'}, and waits for {signal.fires_on}"
        if signal.rest.shutter:
            return "its shutter is held down all the time"
        if signal.full.shutter:
            return "the press before had not been let go"
        return "its focus contact closed, and its shutter never did" if signal.full.focus else "no contact of it closed"

    def _awake_from(self, at_s: float) -> float | None:
        """From when on it is awake; None where it sleeps on."""
        signal = self.signal
        sleeps = DOZES_S if self.fault == "falls asleep" else signal.sleeps_s
        kept = (signal.keeps_s and signal.keeps_s < sleeps) or signal.rest.shutter or signal.rest.focus
        first = at_s - signal.half_s if signal.half.focus or signal.half.shutter else at_s
        if not sleeps or kept or self.touched_s is None:
            return first
        # It counts from when it was last at work: nothing sleeps with its shutter open.
        if first - max(self.touched_s, self.free_s) <= sleeps:
            return first
        return first + signal.wake_s

    def _long_enough(self, begun_s: float, at_s: float) -> bool:
        """Whether the shutter stays closed for as long as the camera takes to notice."""
        signal = self.signal
        # Where it closes when the press is over it stays closed until the next.
        lasts = signal.least_s if signal.rest.shutter else at_s + signal.press_s - begun_s
        return bool(signal.fires_on) or lasts >= signal.least_s - 1e-9

    def _odd(self, at_s: float) -> Heard:
        odd = self.presses % OF_SO_MANY in ODD
        if self.fault == "misses" and odd:
            return Heard(0, at_s, "it missed that one")
        return Heard(2 if self.fault == "fires twice" and odd else 1, at_s)


@dataclass(frozen=True)
class Tried:
    """So many presses: frames that came, the presses (from 0) that brought none, and why the first of them did not."""

    came: int
    lost: tuple[int, ...] = field(default=())
    why: str = ""


def tried(signal: Signal, presses: int, every_s: float, busy_s: float, fault: Fault = "none") -> Tried:
    """The bench: so many presses one after the other, each the next beat."""
    listener, came, lost, why = Listener(signal, fault), 0, [], ""
    for number in range(presses):
        heard = listener.press(number * every_s, busy_s)
        came += heard.frames
        if not heard.frames:
            why = why or heard.why
            lost.append(number)
    return Tried(came, tuple(lost), why)
