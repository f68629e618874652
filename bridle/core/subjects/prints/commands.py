"""Commands by what they do to a picture: which move nothing, which wait, pause or fire, and which nobody knows."""

import re
from typing import Literal

Sort = Literal["pause", "wait", "fire", "message", "home", "probe", "tool", "unknown", "plain"]

PAUSES = {f"M{n}" for n in (0, 1, 25, 125, 226, 600, 601)}
FIRES = {"M240", "M42", "M280", "M355"}
MESSAGES = {"M117", "M118"}
PLAIN = {
    *(f"G{n}" for n in ("0", "1", "2", "3", "4", "10", "11", "17", "20", "21", "40", "49", "53", "54", "80", "90", "91",
                        "92", "94")),
    *(f"M{n}" for n in (17, 18, 20, 21, 31, 73, 74, 75, 77, 78, 82, 83, 84, 85, 92, 104, 105, 106, 107, 108, 109, 110,
                        111, 114, 115, 119, 140, 141, 142, 145, 149, 150, 155, 190, 191, 200, 201, 203, 204, 205, 206,
                        207, 208, 209, 211, 220, 221, 300, 301, 302, 303, 304, 400, 412, 413, 420, 425, 486, 500, 501,
                        502, 503, 566, 569, 572, 592, 593, 862, 900, 904, 906, 907, 913, 914, 960, 999)),
}  # fmt: skip
PROBES = {"G29", "G30", "G31", "G32", "G34"}
# Words of several letters that set something and move nothing.
PLAIN_WORDS = re.compile(
    r"(RESPOND|SET_(VELOCITY_LIMIT|PRESSURE_ADVANCE|FAN_SPEED|HEATER_TEMPERATURE|GCODE_VARIABLE|PRINT_STATS_INFO|"
    r"IDLE_TIMEOUT|DISPLAY_TEXT|RETRACTION)|EXCLUDE_OBJECT(_DEFINE|_START|_END)?|TEMPERATURE_WAIT)"
)
LETTERS = "_ABCDEFGHIJKLMNOPQRSTUVWXYZ"
# Commands that carry something further: a pin, a message, a name.
WORD = re.compile(rb"[ \t]*([A-Za-z_@][A-Za-z_0-9]*)")


def name_of(code: int) -> str:
    """How a command is written: G1, G92.1, T0."""
    letter, number = divmod(code, 100_000)
    return f"{LETTERS[letter]}{number // 10}" + (f".{number % 10}" if number % 10 else "")


def sort_of(name: str) -> Sort:
    """What a command does that matters to a frame."""
    if name in PAUSES or name in ("PAUSE", "CANCEL_PRINT"):
        return "pause"
    if name == "G4":
        return "wait"
    if name in MESSAGES:
        return "message"
    if name in FIRES:
        return "fire"
    if name == "G28":
        return "home"
    if name in PROBES:
        return "probe"
    if name[0] == "T" and name[1:].isdigit():
        return "tool"
    if name in PLAIN or name.partition(".")[0] in PLAIN or PLAIN_WORDS.fullmatch(name):
        return "plain"
    return "unknown"
