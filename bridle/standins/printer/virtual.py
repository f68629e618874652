"""The virtual printer at work: line by line, as a controller would, without knowing what any comment means.

It reads for itself and shares nothing with what reads and changes files elsewhere: a mistake there is seen here.
"""

import itertools
import math
import re
from collections.abc import Callable, Iterable, Sequence, Set

from bridle.standins.printer.homing import put, starts
from bridle.standins.printer.laid import Laid
from bridle.standins.printer.log import Log, Press, Trouble
from bridle.standins.printer.meeting import holds, within
from bridle.standins.printer.model import Box, Model, Three, lever, zones
from bridle.standins.printer.setting import any_setting, setting, word_setting

INCH_MM = 25.4
AXES = frozenset("XYZ")
BYTE_ORDER_MARK = b"\xef\xbb\xbf"
CHORD_MM = 0.5
DEEPEST = 6
# What a move may name besides: further axes, middles and radii, hints.
OTHER = frozenset(b"ABCDHIJKLPQRSUVWabcdhijklpqrsuvw")
MOST_TOLD = 200
# What the lever is called among the parts of the head that the switch's body meets.
PRESS = ""
WORDS = re.compile(rb"([A-Za-z])\s*([+-]?(?:\d+\.?\d*|\.\d+)?)")
# A checksum, a comment within, and what only looks like an exponent: to a printer its E is a letter.
NOT_PLAIN = re.compile(rb"[*(_]|[0-9.][eE]|[nN]")
# What a controller takes without moving anything.
QUIET_G = {17, 21, 40, 49, 53, 54, 80, 94}
QUIET_M = {
    17, 18, 20, 21, 31, 73, 74, 75, 77, 78, 84, 85, 92, 104, 105, 106, 107, 108, 109, 110, 111, 114, 115, 117, 118, 119,
    140, 141, 142, 145, 149, 150, 155, 190, 191, 200, 201, 203, 204, 205, 206, 207, 208, 209, 211, 220, 221, 300, 301,
    302, 303, 304, 400, 412, 413, 420, 425, 486, 500, 501, 502, 503, 566, 569, 572, 592, 593, 862, 900, 904, 906, 907,
    913, 914, 960, 999,
}  # fmt: skip
PAUSES = {0, 1, 25, 125, 226, 600, 601}
FIRING = {42, 240, 280, 355}
# What stands behind these is text.
FREE_TEXT = {23, 28, 29, 30, 32, 33, 117, 118, 486, 862, 928}
SECOND = re.compile(rb"\s[GgMm]\d+(?:\.\d+)?(?=\s|$|[XYZEFxyzef])")
QUIET_WORDS = re.compile(
    rb"RESPOND|SET_(VELOCITY_LIMIT|PRESSURE_ADVANCE|FAN_SPEED|HEATER_TEMPERATURE|GCODE_VARIABLE|PRINT_STATS_INFO|IDLE_TIMEOUT"
    rb"|DISPLAY_TEXT|RETRACTION)|EXCLUDE_OBJECT(_DEFINE|_START|_END)?|TEMPERATURE_WAIT"
)


# A middle about which an arc goes, and whether it goes to the left.
Bend = tuple[bool, float, float]
# A place on a way, and the line that leads there.
Leg = tuple[float, float, float, int]
# What a printer pushes by itself after it has drawn back, about.
FIRMWARE_MM = 0.8
# A limit is a limit to this much.
ROUNDED = 0.001
# A travel that comes lower than this share of a layer below what is printed is looked at.
LOWER = 0.2
USUAL_LAYER_MM, LEAST_LAYER_MM = 0.2, 0.03
# Where filament was pushed with the head at rest, and how much.
Push = tuple[float, float, float, float]


class Printer:
    """One print on one printer."""

    def __init__(
        self,
        model: Model,
        drawn: Callable[[Three, Three, float], None] | None = None,
        dues: Sequence[float] = (),
    ) -> None:
        """`drawn` hears every printed straight: from, to, filament; `dues` are amounts of filament to be told of."""
        self.model, self.log, self._drawn = model, Log(), drawn
        self.x, self.y, self.z = model.high[0], model.high[1], 0.0
        self.known: set[str] = set()
        self.off = [0.0, 0.0, 0.0]
        self.e = 0.0
        self.feed = 1500.0
        self.absolute = self.absolute_e = True
        self.unit = 1.0
        self.mode = 1
        self.now = self.pushed = 0.0
        self.printed = 0.0
        # Whether a picture may be being taken that the next move must not disturb.
        self.waits = False
        low, high = model.low, model.high
        self.bounds: Box = (
            low[0] - ROUNDED, high[0] + ROUNDED,
            low[1] - ROUNDED, high[1] + ROUNDED,
            low[2] - ROUNDED, high[2] + ROUNDED,
        )  # fmt: skip
        self.printed_at: float | None = None
        self.pictures = 0
        self.line = self.number = self.tool = 0
        # Whether nobody knows where the head stands; whether an axis is on its way home.
        self.lost, self.homing = True, False
        self.lever: Box | None = lever(model) if model.key else None
        self.zones = zones(model)
        self.danger = self._danger()
        self.pressed = False
        self._on = {one.encode() for one in model.on}
        self._off = {one.encode() for one in model.off}
        self._lamps = {one.encode() for one in model.lamps}
        # Of the last command that printed: where it began, what it pushed, how it bent; and since then, until the next,
        # what was pushed with the head at rest, and how far the filament was pushed at most.
        self.prints = 0
        self.began: Three = (self.x, self.y, self.z)
        self.fed = 0.0
        self.bend: Bend | None = None
        self.pushes: list[Push] = []
        self.most = 0.0
        self.gap_pushes: list[Push] = []
        self.gap_most = 0.0
        # Where the last printed move ended, and the way since then with its lines.
        self.ended: Three = (self.x, self.y, self.z)
        self.way: list[Leg] = []
        self.gap_way: list[Leg] = []
        self.gap_begun: Three = self.ended
        # What was printed, where somebody keeps it; how much of it before the move that has just begun.
        self.laid: Laid | None = None
        self.laid_before = 0
        self.early = 0.0
        self.level, self.thick = 0.0, USUAL_LAYER_MM
        # Travels below the layer that is printed, since somebody looked; where the head rested last between prints.
        self.lows: list[tuple[Three, Three, int]] = []
        self.rested: Three | None = None
        self.gap_rested: Three | None = None
        self.drawn_back = False
        self.still = True
        self.homes = self.halts = self.calls = 0
        self.let_go = False
        self._dues = iter(dues)
        self.due = next(self._dues, math.inf)
        self.settings: dict[bytes, bytes] = {}
        self._macros = {name.upper().encode(): text.encode().splitlines() for name, text in model.macros.items()}
        self._units: set[bytes] = set()

    @property
    def is_drawn(self) -> bool:
        """Whether somebody hears every printed straight."""
        return self._drawn is not None

    def run(self, lines: Iterable[bytes]) -> Log:
        """Carry all lines out."""
        for raw in lines:
            self.step(raw)
        return self.finish()

    def step(self, raw: bytes) -> None:
        """Carry the next line out."""
        self.line += 1
        if b"\r" in raw[:-2]:
            # To a controller that ends a line as well.
            for part in raw.split(b"\r"):
                self._obey(part, 0)
        else:
            self._obey(raw, 0)

    def finish(self) -> Log:
        """What came of it."""
        log = self.log
        if self.lost and self.prints:
            self._trouble("unknown", "where the head stands (it never goes home)")
        log.seconds, log.pushed, log.lines = self.now, self.pushed, self.line
        log.printed, log.at, log.held = self.printed, (self.x, self.y, self.z), self.pressed
        return log

    def _danger(self) -> Box:
        """A box around all that matters to the switch: moves outside of it are not looked at further."""
        boxes = [box for _, box in self.zones] + ([self.lever] if self.lever else [])
        if not boxes:
            return self.nowhere()
        low = [min(box[n] for box in boxes) for n in (0, 2, 4)]
        high = [max(box[n] for box in boxes) for n in (1, 3, 5)]
        return (low[0], high[0], low[1], high[1], low[2], high[2])

    @staticmethod
    def nowhere() -> Box:
        """A box in which nothing lies."""
        return (math.inf, -math.inf, math.inf, -math.inf, math.inf, -math.inf)

    def _trouble(self, kind: str, about: str) -> None:
        if len(self.log.troubles) < MOST_TOLD:
            at = (self.x, self.y, self.z)
            self.log.troubles.append(Trouble(kind, self.line, at, about, self.printed))
        else:
            self.log.more += 1

    def met(self, kind: str, line: int, at: Three, about: str, above: float) -> None:
        """Something was met on the way, at a line that has been carried out."""
        if len(self.log.troubles) < MOST_TOLD:
            self.log.troubles.append(Trouble(kind, line, at, about, self.printed, above))
        else:
            self.log.more += 1

    def _obey(self, raw: bytes, depth: int) -> None:
        text = raw.split(b";", 1)[0] if b";" in raw else raw
        if self.line == 1:
            text = text.removeprefix(BYTE_ORDER_MARK)
        words = text.split()
        if not words:
            return
        first = words[0]
        if (first == b"G1" or first == b"G0") and not NOT_PLAIN.search(text):
            self.mode = 1
            try:
                self._straight(words)
                return
            except ValueError:
                pass  # Not of the plain kind after all.
        self._slowly(text, depth)

    def _slowly(self, text: bytes, depth: int) -> None:
        """A line that is not the plain kind: with numbers and checks, without spaces, or another command."""
        text = text.strip()
        if (text[:1] in b"Nn" and text[1:2].isdigit()) or b"*" in text:
            checked = self._checked(text)
            if checked is None:
                return
            text = checked
        if b"(" in text:
            text = re.sub(rb"\([^()]*\)?", b" ", text).strip()
        if text in (b"", b"%"):
            return
        word = re.match(rb"[A-Za-z_@][A-Za-z_0-9]*", text)
        name = word[0].upper() if word else b""
        if self._is_of_the_stop(text):
            # Where the printer has a text for it, that is what it does besides.
            if name in self._macros:
                self._macro(name, depth)
            return
        if name in self._macros:
            self.calls += 1
            self._macro(name, depth)
        elif len(name) > 1 and (name[:1] in b"_@" or name[1:2].isalpha() or name[1:2] == b"_"):
            if not QUIET_WORDS.fullmatch(name):
                self._trouble("unknown", name.decode())
            elif name.startswith((b"SET_", b"EXCLUDE_")):
                key, value = word_setting(text)
                self.settings[key] = value
        else:
            self._command(text)

    def _is_of_the_stop(self, text: bytes) -> bool:
        """Whether a line is what fires, or what switches a lamp; then it is done."""
        if text in self._on or text in self._off:
            self._fired(text in self._on, text)
            return True
        found = any_setting(text) if text in self._lamps else None
        if found:
            self.settings[found[0]] = found[1]
        return found is not None

    def _checked(self, text: bytes) -> bytes | None:
        body, star, told = text.rpartition(b"*")
        if not star:
            body = text
        elif not told.strip().isdigit() or int(told) != _sum(body):
            self._trouble("checksum", text[:60].decode("utf-8", "replace"))
            return None
        numbered = re.match(rb"[Nn](\d+)\s*", body)
        if numbered:
            number, body = int(numbered[1]), body[numbered.end() :]
            if body[:4].upper() != b"M110" and self.number and number != self.number + 1:
                self._trouble("number", f"N{number} after N{self.number}")
            self.number = number
        return body.strip()

    def _macro(self, name: bytes, depth: int) -> None:
        lines = self._macros[name]
        if depth >= DEEPEST or any(b"{" in line for line in lines):
            why = "its text has conditions" if depth < DEEPEST else "it calls itself"
            self._trouble("unknown", f"{name.decode()} ({why})")
            return
        # What a macro primes or wipes off is no part of what the file prints.
        printed, pushed, prints = self.printed, self.pushed, self.prints
        pushes, most = list(self.pushes), self.most
        for line in lines:
            self._obey(line, depth + 1)
        self.printed, self.pushed, self.prints = printed, pushed, prints
        self.pushes, self.most = pushes, most
        if name[:1] == b"T" and name[1:].isdigit():
            self.tool = int(name[1:])

    def _command(self, text: bytes) -> None:
        parts = WORDS.findall(text)
        if not parts or (WORDS.sub(b"", text[:200]).strip(b" \t:=,\"'-") and parts[0][0] not in b"Mm"):
            self._trouble("unreadable", text[:60].decode("utf-8", "replace"))
            return
        letter = parts[0][0].upper()
        try:
            number = float(parts[0][1])
        except ValueError:
            self._trouble("unreadable", text[:60].decode("utf-8", "replace"))
            return
        if _has_another(letter, number, parts, text):
            self._trouble("unreadable", text[:60].decode("utf-8", "replace"))
        elif letter == b"G":
            self._g(number, parts[1:], text)
        elif letter == b"M":
            self._m(number, parts[1:], text)
        elif letter == b"T":
            if number != self.tool:
                self._trouble("unknown", f"T{number:g}")
            self.tool = int(number)
        elif letter in b"XYZEF":
            self._moved([one + value for one, value in parts])
        else:
            self._trouble("unreadable", text[:60].decode("utf-8", "replace"))

    def _moved(self, words: list[bytes]) -> None:
        try:
            if self.mode in (2, 3):
                self._arc(self.mode == 3, words)
            else:
                self._straight([b"", *words])
        except ValueError:
            self._trouble("unreadable", b" ".join(words)[:60].decode("utf-8", "replace"))

    def _g(self, number: float, parts: list[tuple[bytes, bytes]], text: bytes) -> None:
        words = [one + value for one, value in parts]
        if number in (0, 1, 2, 3):
            self.mode = int(number)
            self._moved(words)
        elif number == 4:
            values = _values(words)
            self._dwell(values.get("P", 0.0) / 1000 + values.get("S", 0.0))
        elif number in (10, 11) and not any(one in b"LlXYZxyz" for one, _ in parts):
            if number == 11 and self.drawn_back:
                self.pushes.append((*self._at(), FIRMWARE_MM))
            self.drawn_back = number == 10
            self._dwell(0.0)
        elif number in (20, 21):
            self.unit = INCH_MM if number == 20 else 1.0
        elif number in (90, 91):
            self.absolute = number == 90
            if not self.model.apart:
                self.absolute_e = self.absolute
        elif number == 92:
            self._reset(_values(words))
        elif number == 28:
            self._home("".join(one.decode().upper() for one, _ in parts if one.upper() in b"XYZ") or "XYZ")
        elif number == 29:
            self._probe()
        elif number not in QUIET_G:
            self._trouble("unknown", text[:40].decode("utf-8", "replace"))

    def _m(self, number: float, parts: list[tuple[bytes, bytes]], text: bytes) -> None:
        if number == 400:
            self.still = True
        if number in (82, 83):
            self.absolute_e = number == 82
        elif number in PAUSES:
            self.halts += 1
            self.log.pauses.append(self.line)
        elif int(number) not in QUIET_M and int(number) not in FIRING:
            self._trouble("unknown", text[:40].decode("utf-8", "replace"))
        elif number in (18, 84) and (not parts or any(letter in b"XYZxyz" for letter, _ in parts)):
            self.let_go = True
        elif found := setting(text):
            self.settings[found[0]] = found[1]

    def _reset(self, values: dict[str, float]) -> None:
        every = not values
        for n, (axis, at) in enumerate((("X", self.x), ("Y", self.y), ("Z", self.z))):
            if every or axis in values:
                self.off[n] = at - values.get(axis, 0.0) * self.unit
        if every or "E" in values:
            self.e = values.get("E", 0.0) * self.unit

    def _dwell(self, seconds: float) -> None:
        self.now += seconds
        self.still = True
        self.rested = self._at()

    def _straight(self, words: list[bytes]) -> None:
        """A straight move; raises ValueError, and moves nothing, where a word is no letter with a number."""
        x, y, z, unit, off = self.x, self.y, self.z, self.unit, self.off
        pushed, feed, told_e = 0.0, self.feed, self.e
        for word in words[1:]:
            letter, value = word[0], float(word[1:])
            if letter == 88 or letter == 120:
                x = value * unit + off[0] if self.absolute else x + value * unit
            elif letter == 89 or letter == 121:
                y = value * unit + off[1] if self.absolute else y + value * unit
            elif letter == 69 or letter == 101:
                pushed = value * unit - told_e if self.absolute_e else value * unit
            elif letter == 70 or letter == 102:
                feed = value * unit if value > 0 else feed
            elif letter == 90 or letter == 122:
                z = value * unit + off[2] if self.absolute else z + value * unit
            elif letter not in OTHER:
                raise ValueError(word)
        self.feed = feed
        self.e = told_e + pushed
        if pushed:
            self._pushes(x, y, z, pushed, None)
        self._go(x, y, z, pushed)
        if self.lost and self.absolute:
            self._finds(words)

    def _pushes(self, x: float, y: float, z: float, pushed: float, bend: Bend | None) -> None:
        """Filament goes on its way to a place, or at rest: what a comparison of two prints looks at."""
        moves = bend is not None or x != self.x or y != self.y or z != self.z
        if pushed > 0 and moves:
            self.prints += 1
            self.began, self.fed, self.bend = (self.x, self.y, self.z), pushed, bend
            self.gap_pushes, self.gap_most = self.pushes, self.most
            self.gap_way, self.gap_begun, self.ended = self.way, self.ended, (x, y, z)
            self.way = []
            self.gap_rested, self.rested = self.rested, None
            if self.laid is not None:
                self.laid_before = self.laid.count
            self.pushes = []
            self.pushed += pushed
            self.most = self.pushed
            return
        self.pushed += pushed
        if pushed > 0:
            self.pushes.append((x, y, z, pushed))
        if self.pushed > self.most:
            self.most = self.pushed

    def _go(self, x: float, y: float, z: float, pushed: float, told: float = 0.0) -> None:
        """A straight; `told` is its length where it stands for a bend that is longer."""
        from_x, from_y, from_z = self.x, self.y, self.z
        dx, dy, dz = x - from_x, y - from_y, z - from_z
        way = told or math.sqrt(dx * dx + dy * dy + dz * dz)
        if way < 1e-9:
            if pushed:
                self.now += abs(pushed) / (self.feed / 60)
            return
        self.still = False
        if self.waits or self.let_go:
            self._sets_off()
        left, right, front, back, low, high = self.bounds
        if not self.lost and not (left <= x <= right and front <= y <= back and low <= z <= high):
            self._beyond(x, y, z, AXES)
        left, right, front, back, low, high = self.danger
        if not self.lost and (
            (x >= left or from_x >= left) and (x <= right or from_x <= right)
            and (y >= front or from_y >= front) and (y <= back or from_y <= back)
            and (z >= low or from_z >= low) and (z <= high or from_z <= high)
        ):  # fmt: skip
            self._near((from_x, from_y, from_z), (x, y, z), way)
        speed = min(self.feed / 60, self.model.top[0])
        if dz and not (dx or dy):
            speed = min(speed, self.model.top[2])
        if pushed > 0:
            self._print(x, y, z, pushed)
            self.now += way / speed
            self.printed_at = self.now
        else:
            # From rest to rest: what a lone travel takes.
            rise = speed * speed / self.model.gain
            self.now += way / speed + speed / self.model.gain if way > rise else 2 * math.sqrt(way / self.model.gain)
            self.way.append((x, y, z, self.line))
            if self.laid is not None and z < self.level - LOWER * self.thick:
                self.lows.append(((from_x, from_y, from_z), (x, y, z), self.line))
        self.x, self.y, self.z = x, y, z

    def _sets_off(self) -> None:
        """The first move after a release is where a picture must be over; without its motors the head goes astray."""
        if self.let_go:
            self.let_go = False
            self._trouble("state", "the motors are let go, and the head moves on")
        self._waits_for_the_picture()

    def _print(self, x: float, y: float, z: float, pushed: float) -> None:
        gap = self.now - self.printed_at if self.printed_at is not None else 0.0
        if gap > self.log.longest_wait_s:
            self.log.longest_wait_s, self.log.longest_wait_line = gap, self.line
            self.log.longest_wait_printed, self.log.longest_wait_at = self.printed, (self.x, self.y, self.z)
        if gap and len(self.log.presses) > self.pictures:
            self.pictures = len(self.log.presses)
            self.log.stopped_s += gap
        self.printed += pushed
        while self.printed > self.due:
            self.log.passed.append((self.line, (self.x, self.y, self.z)))
            self.due = next(self._dues, math.inf)
        if self.pressed:
            self._trouble("held", "it prints while the switch is held down")
        if self.laid is not None:
            self.laid.add((self.x, self.y, self.z, x, y, z, pushed, self.printed <= self.early))
        rise = z - self.level
        if rise > LEAST_LAYER_MM or rise < -1e-6:
            self.level, self.thick = z, min(rise, 1.0) if rise > 0 else self.thick
        if self._drawn:
            self._drawn((self.x, self.y, self.z), (x, y, z), pushed)

    def _arc(self, left: bool, words: list[bytes]) -> None:
        """An arc as short straights; raises ValueError where a number is missing."""
        if any(len(word) == 1 for word in words):
            raise ValueError(words)
        values, unit = _values(words), self.unit
        to = [
            (values[a] * unit + self.off[n] if self.absolute else at + values[a] * unit) if a in values else at
            for n, (a, at) in enumerate((("X", self.x), ("Y", self.y), ("Z", self.z)))
        ]
        if "F" in values and values["F"] > 0:
            self.feed = values["F"] * unit
        pushed = 0.0
        if "E" in values:
            told = values["E"] * unit
            pushed = told - self.e if self.absolute_e else told
        self.e += pushed
        middle = self._middle(left, values, to)
        if pushed:
            self._pushes(to[0], to[1], to[2], pushed, None if middle is None else (left, *middle))
        if middle is None:
            self._trouble("unreadable", "an arc without a middle")
            self._go(to[0], to[1], to[2], pushed)
            return
        self._chords(left, middle, to, pushed)

    def _chords(self, left: bool, middle: tuple[float, float], to: list[float], pushed: float) -> None:
        mx, my = middle
        radius = math.hypot(self.x - mx, self.y - my)
        begun = math.atan2(self.y - my, self.x - mx)
        turn = math.atan2(to[1] - my, to[0] - mx) - begun
        if left and turn <= 1e-9:
            turn += 2 * math.pi
        if not left and turn >= -1e-9:
            turn -= 2 * math.pi
        count = max(1, math.ceil(abs(turn) * max(radius / CHORD_MM, 8)))
        z, flat = self.z, abs(turn) * radius / count
        way = math.hypot(flat, (to[2] - z) / count)
        for k in range(1, count + 1):
            angle = begun + turn * k / count
            x, y = (mx + radius * math.cos(angle), my + radius * math.sin(angle)) if k < count else (to[0], to[1])
            self._go(x, y, z + (to[2] - z) * k / count, pushed / count, way)

    def _middle(self, left: bool, values: dict[str, float], to: list[float]) -> tuple[float, float] | None:
        if "R" in values:
            radius, dx, dy = values["R"] * self.unit, to[0] - self.x, to[1] - self.y
            chord = math.hypot(dx, dy)
            if chord == 0 or chord > 2 * abs(radius) + 1e-9:
                return None
            high = math.sqrt(max(0.0, radius**2 - chord**2 / 4))
            side = 1 if left == (radius > 0) else -1
            return (self.x + dx / 2 - side * dy / chord * high, self.y + dy / 2 + side * dx / chord * high)
        if not values.get("I") and not values.get("J"):
            return None
        return (self.x + values.get("I", 0.0) * self.unit, self.y + values.get("J", 0.0) * self.unit)

    def _home(self, axes: str) -> None:
        self.homes += 1
        self.let_go = False
        for n, axis in enumerate("XYZ"):
            if axis in axes:
                self._comes_home(n)
                self.known.add(axis)
                self.off[n] = 0.0
        self.lost = not self.known >= AXES

    def _comes_home(self, n: int) -> None:
        """One axis on its own to its home; what it meets on every way there is met, what it may meet is not known."""
        ways = [(at, put(at, n, self.model.home[n])) for at in starts(self.model, self._at(), self.known, n)]
        met = [self._meets(a, b) for a, b in ways]
        sure = frozenset.intersection(*met)
        if frozenset.union(*met) - sure:
            self._trouble("unsure", "XYZ"[n])
        a, b = ways[0]
        way = abs(b[n] - a[n])
        if sure and way > 0:
            self.homing = True
            self._near(a, b, way, sure)
            self.homing = False
        self.x, self.y, self.z = put(self._at(), n, self.model.home[n])

    def _meets(self, a: Three, b: Three) -> frozenset[str]:
        """What a way meets: parts of the head that touch the switch's body, and its lever."""
        met = {name for name, box in self.zones if within(a, b, box) is not None}
        if self.lever is not None and within(a, b, self.lever) is not None:
            met.add(PRESS)
        return frozenset(met)

    def touches(self, way: Sequence[Three]) -> bool:
        """Whether a way meets the switch, or leaves the printer's reach; nothing is done on it."""
        left, right, front, back, low, high = self.bounds
        inside = all(left <= x <= right and front <= y <= back and low <= z <= high for x, y, z in way)
        return not inside or any(self._meets(a, b) for a, b in itertools.pairwise(way))

    def _finds(self, words: list[bytes]) -> None:
        """A place that is named is where the head stands, from wherever it came."""
        self.known |= {chr(word[0]).upper() for word in words[1:] if word[:1] in b"XYZxyz"}
        self.lost = not self.known >= AXES
        self._beyond(self.x, self.y, self.z, self.known)
        if not self.lost and self.danger != self.nowhere():
            self._near(self._at(), self._at(), 1.0)

    def _at(self) -> Three:
        return (self.x, self.y, self.z)

    def _probe(self) -> None:
        self.homes += 1
        if self.model.probes is None:
            self._trouble("unknown", "G29")
            return
        x, wide, y, deep = self.model.probes
        for to in ((x, y), (wide, y), (wide, deep), (x, deep), (x, y)):
            self._go(to[0], to[1], self.z, 0.0)

    def _beyond(self, x: float, y: float, z: float, axes: Set[str]) -> None:
        for name, at, low, high in zip("XYZ", (x, y, z), self.model.low, self.model.high, strict=True):
            if name in axes and not low - ROUNDED <= at <= high + ROUNDED:
                self._trouble("beyond", f"{name} {at:g}")

    def _near(self, a: Three, b: Three, way: float, only: frozenset[str] | None = None) -> None:
        """A move near the switch: what it touches, and whether it presses; `only` of these, where that is known."""
        for name, box in self.zones:
            if (only is None or name in only) and not self.log.often(name) and within(a, b, box) is not None:
                self._trouble("touch", name)
                self.log.broken = True
        if self.lever is None or (only is not None and PRESS not in only):
            return
        inside = within(a, b, self.lever)
        speed = max(0.1, min(self.feed / 60, self.model.top[0]))
        if inside is not None and not self.pressed:
            self.pressed = True
            self._press(self.now + inside[0] * way / speed, a, b, inside[0])
        if self.pressed and not holds(b, self.lever, self.model.key.lets_go if self.model.key else 0.0):
            self.pressed = False
            if self.log.presses:
                self.log.presses[-1].released_s = self.now + (inside[1] if inside else 0.0) * way / speed
                self.waits = True

    def _press(self, at_s: float, a: Three, b: Three, share: float) -> None:
        at = (a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share, a[2] + (b[2] - a[2]) * share)
        self.log.presses.append(Press(self.line, at_s, at, self.printed, self.pushed, self.homing))

    def _fired(self, on: bool, text: bytes) -> None:
        if found := setting(text):
            self.settings[found[0]] = found[1]
        self.rested = self._at()
        if not self.still:
            self._trouble("hasty", text.decode("utf-8", "replace"))
        if on and not self.pressed:
            self.log.presses.append(Press(self.line, self.now, (self.x, self.y, self.z), self.printed, self.pushed))
            if not self._off:
                self.log.presses[-1].released_s = self.now
                self.waits = True
        if not on and self.pressed and self.log.presses:
            self.log.presses[-1].released_s = self.now
            self.waits = True
        self.pressed = on and bool(self._off)

    def _waits_for_the_picture(self) -> None:
        """The first move after a release is where a picture must be over."""
        if self.log.presses and not self.pressed:
            last = self.log.presses[-1]
            if last.released_s is not None and last.moved_s is None:
                last.moved_s, last.moved_line = self.now, self.line
                self.waits = False


def _has_another(letter: bytes, number: float, parts: list[tuple[bytes, bytes]], text: bytes) -> bool:
    """Whether a line has a second command: printers differ in whether they carry that out."""
    if letter == b"M":
        return number not in FREE_TEXT and SECOND.search(text) is not None
    return any(one in b"GgMmTt" and value for one, value in parts[1:])


def _sum(text: bytes) -> int:
    total = 0
    for byte in text:
        total ^= byte
    return total


def _values(words: list[bytes]) -> dict[str, float]:
    """Letters and numbers; a letter without one has nought."""
    return {chr(word[0]).upper(): float(word[1:] or b"0") for word in words}
