"""What a command sets that stays set: heat, fans, outputs, flow, speeds. A table of its own, shared with nobody."""

import re

WORDS = re.compile(rb"([A-Za-z])\s*([+-]?(?:\d+\.?\d*|\.\d+)?)")
# Questions, messages, counters, files: nothing stays of them.
PASSING = {
    20, 21, 31, 73, 74, 75, 77, 78, 85, 105, 108, 110, 111, 114, 115, 117, 118, 119, 155, 240, 300, 400, 862, 904,
    960, 999,
}  # fmt: skip
# Several commands for one thing, which thing of several a letter tells, and how much it gets where nothing says so.
THINGS: dict[int, tuple[bytes, bytes, float]] = {
    104: (b"heat of the nozzle", b"T", 0), 109: (b"heat of the nozzle", b"T", 0),
    140: (b"heat of the bed", b"", 0), 190: (b"heat of the bed", b"", 0),
    141: (b"heat of the chamber", b"", 0), 191: (b"heat of the chamber", b"", 0),
    106: (b"fan", b"P", 255), 107: (b"fan", b"P", 0),
    42: (b"output", b"P", 0), 280: (b"servo", b"P", 0), 355: (b"light", b"", 1),
    220: (b"speed factor", b"", 100), 221: (b"flow", b"T", 100),
}  # fmt: skip
OFF = {107}
# Motors on; that they are let go is no setting, but where the head stands is not known any more.
PASSING |= {17}
# These are at rest where nobody has set them; what was heated before the file began nobody knows.
AT_REST = (b"fan", b"output", b"servo", b"light")
Set = tuple[bytes, bytes]


def setting(text: bytes) -> Set | None:
    """What an M command sets, and to what; None where nothing stays of it."""
    parts = [(letter.upper(), value) for letter, value in WORDS.findall(text)]
    if not parts or parts[0][0] != b"M" or not parts[0][1]:
        return None
    number = int(float(parts[0][1]))
    told = dict(parts[1:])
    if number in PASSING:
        return None
    if number in THINGS:
        name, which, usual = THINGS[number]
        value = b"0" if number in OFF else told.get(b"S") or told.get(b"R") or b"%g" % usual
        index = _number(told.get(which, b"0")) if which else b""
        return b" ".join(filter(None, (name, index if index != b"0" else b""))), _number(value)
    rest = b" ".join(letter + _number(value) for letter, value in sorted(parts[1:]))
    return b"M%d" % number, rest


def word_setting(text: bytes) -> Set:
    """What a command of several letters sets: by its name and the first thing that it names."""
    name, _, rest = text.upper().partition(b" ")
    first, *others = [*rest.split(), b""]
    return name + b" " + first, b" ".join(sorted(_argument(one) for one in others if one))


def any_setting(text: bytes) -> Set | None:
    """What either kind of command sets; None where nothing stays of it. A bare name is a lamp's own macro."""
    if not re.match(rb"[A-Za-z_]{2}", text):
        return setting(text)
    return word_setting(text) if b"=" in text else (b"lamps", text)


def resting(settings: dict[bytes, bytes]) -> dict[bytes, bytes]:
    """Without what is off, which is how it was before anybody switched it."""
    return {key: value for key, value in settings.items() if value != b"0" or not key.startswith(AT_REST)}


def _argument(text: bytes) -> bytes:
    name, equals, value = text.partition(b"=")
    return name + equals + _number(value)


def _number(text: bytes) -> bytes:
    """A number as it is written shortest; anything else as it stands."""
    try:
        return b"%g" % float(text)
    except ValueError:
        return text
