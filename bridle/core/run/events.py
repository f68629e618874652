"""What happens to a run (events), what it tells the devices (commands), what it notes (entries)."""

from dataclasses import dataclass
from typing import Literal

# What parts the things done at a visit where they are kept as text: no name of one has a line's end in it.
TASK_END = "\n"


@dataclass(frozen=True)
class Asked:
    """A person asked for something."""

    what: Literal["start", "pause", "go on", "stop"]


@dataclass(frozen=True)
class Arrived:
    """The axes stand still at a frame's positions."""

    frame: int


@dataclass(frozen=True)
class Due:
    """A frame's moment has come."""

    frame: int


@dataclass(frozen=True)
class Called:
    """Whatever calls the frames (a layer that is done, a press, a sensor, a hand) has called this one."""

    frame: int


@dataclass(frozen=True)
class Shot:
    """The shutter has closed: the frame is taken."""

    frame: int


@dataclass(frozen=True)
class Silent:
    """The press for a frame is over and no frame came of it; `why` is what the camera says of that."""

    frame: int
    why: str = ""


@dataclass(frozen=True)
class Written:
    """The camera has written a frame and takes the next trigger."""

    frame: int


@dataclass(frozen=True)
class Restarted:
    """The server came back; the camera says how many frames it has taken in this run."""

    camera_frames: int


@dataclass(frozen=True)
class Visited:
    """Somebody has been there, and has done these things; nothing named is all that was due."""

    tasks: tuple[str, ...]


@dataclass(frozen=True)
class CutOff:
    """The power has failed, for so many seconds."""

    seconds: float


Event = Visited | CutOff | Asked | Arrived | Due | Called | Shot | Silent | Written | Restarted


@dataclass(frozen=True)
class MoveTo:
    """Bring the axes to a frame's positions, let the rig settle, then say so."""

    frame: int


@dataclass(frozen=True)
class WakeAt:
    """Say when a moment has come, in seconds after the run was started."""

    frame: int
    at_s: float


@dataclass(frozen=True)
class AwaitCall:
    """Say when a frame is called; it is meant to be at about this moment, in seconds after the run was started."""

    frame: int
    about_s: float


@dataclass(frozen=True)
class Fire:
    """Take a frame."""

    frame: int


@dataclass(frozen=True)
class Note:
    """An entry for the event log."""

    kind: Literal[
        "start",
        "taken",
        "missed",
        "deaf",
        "late",
        "pause",
        "go on",
        "restart",
        "fault",
        "stop",
        "finish",
        "visit",
        "cut",
        "skipped",
    ]
    frame: int | None = None
    seconds: float | None = None
    said: str = ""


Command = MoveTo | WakeAt | AwaitCall | Fire | Note
