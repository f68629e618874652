"""The printing section: the file as facts and a digest, the stop at each frame, and how it reaches the printer."""

from datetime import date
from fractions import Fraction
from typing import Annotated, Literal

from pydantic import Field

from bridle.core.values import MOST, SMALLEST, Count, Duration, Line, Name, Positive, Section

Digest = Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")]
Mm = Annotated[float, Field(ge=-5000, le=5000, allow_inf_nan=False)]
Place = Annotated[tuple[Mm, ...], Field(min_length=3, max_length=3)]
MOST_PLACES = 150
Where = Literal["change", "infill", "end"]
# How the head goes to its parking place, and back the other way about.
Order = Literal["straight", "x first", "y first"]
OfTheSwitch = Literal["switch on later", "switch off early", "first frames out", "last frames out"]
Meant = Literal["pauses", "tools", "framing", "head", "tower", "resumes"] | OfTheSwitch
Delivery = Literal["file", "slicer", "host"]
MOST_LISTED = 40


class Already(Section):
    """A command in the file that waits, pauses, fires or is not known: how often, in how many layers, where first."""

    name: Annotated[str, Field(min_length=1, max_length=80)]
    sort: Literal["pause", "wait", "fire", "message", "home", "probe", "tool", "unknown"]
    count: Annotated[int, Field(ge=1, le=MOST)]
    layers: Count = 0
    line: Annotated[int, Field(ge=1, le=MOST)]
    text: Annotated[str, Field(max_length=120)] = ""


class Unread(Section):
    """A line that cannot be read: what stands there, and what was expected."""

    line: Annotated[int, Field(ge=1, le=MOST)]
    stood: Annotated[str, Field(max_length=200)]
    expected: Line


class PrintFile(Section):
    """What a file was read to be. Lengths in mm; `announced` is how its layers are told from one another.

    `extents_mm` are x, X, y and Y of all that is printed, `start_mm` the same of where the head
    goes before the first layer, which takes `start_s`.
    `parks` is in how many layers somebody sends the head to one place outside of the print already.
    """

    name: Name
    digest: Digest
    bytes: Annotated[int, Field(ge=1, le=300_000_000)]
    lines: Annotated[int, Field(ge=1, le=MOST)]
    announced: Literal["numbered", "change", "with height", "before", "by height"]
    things: Annotated[int, Field(ge=1, le=10_000)] = 1
    spiral: bool = False
    extents_mm: Annotated[tuple[Mm, ...], Field(min_length=4, max_length=4)]
    start_mm: Annotated[tuple[Mm, ...], Field(max_length=4)] = ()
    start_s: Duration = Fraction(0)
    # Where the head goes before the first layer and behind the last, as far as it is kept: x, y and z.
    start_way: Annotated[tuple[Place, ...], Field(max_length=MOST_PLACES)] = ()
    end_way: Annotated[tuple[Place, ...], Field(max_length=MOST_PLACES)] = ()
    # What was taken for the first layer: its line, and x, X, y, Y of what is printed in it.
    first_line: Count = 0
    first_mm: Annotated[tuple[Mm, ...], Field(max_length=4)] = ()
    # Where a prime or wiping tower stands: x, X, y, Y.
    tower_mm: Annotated[tuple[Mm, ...], Field(max_length=4)] = ()
    relative_e: bool = False
    # How the file was read where it matters whether `G90` and `G91` take the filament's mode along.
    apart: bool | None = None
    infills: Count = 0
    homes: bool = True
    tools: Annotated[tuple[Annotated[int, Field(ge=-MOST, le=MOST)], ...], Field(max_length=20)] = ()
    already: Annotated[tuple[Already, ...], Field(max_length=MOST_LISTED)] = ()
    parks: Count = 0
    unread: Annotated[tuple[Unread, ...], Field(max_length=20)] = ()
    unread_count: Count = 0


class StopPlan(Section):
    """One stop: where in the layer, how far the filament is drawn back, how it travels, presses and waits.

    `over_mm` is how far beyond its click the switch is pressed, `off_mm` how far before it the head stands while the
    picture is taken. `park_*` None: as the printer's card says. How long it presses is said by the beat, how long it
    waits by the trigger.
    """

    where: Where = "end"
    back_mm: Annotated[float, Field(ge=0, le=20, allow_inf_nan=False)] = 0.8
    back_mm_s: Positive = 35.0
    by_firmware: bool = False
    travel_mm_s: Positive = 150.0
    press_mm_s: Positive = 20.0
    raise_mm: Annotated[float, Field(ge=0, le=300, allow_inf_nan=False)] = 0.0
    order: Order = "straight"
    over_mm: Annotated[float, Field(ge=0, le=20, allow_inf_nan=False)] = 0.4
    off_mm: Annotated[float, Field(ge=SMALLEST, le=300, allow_inf_nan=False)] = 8.0
    settle_s: Duration = Fraction(0)
    park_x_mm: Mm | None = None
    park_y_mm: Mm | None = None


class Proven(Section):
    """How a proof came out, and of what: the digest of the file and of all that the changed one was made with."""

    of: Annotated[str, Field(pattern=r"^[0-9a-f]{16}$")]
    stands: Literal["proven", "incomplete", "failed"]
    on: date
    failures: Count = 0
    presses: Count = 0


class Printing(Section):
    """A layered shoot's print. `by` are the ways in which the stops reach the printer; one of them is enough.

    `second_set` says that stops are put in beside those that somebody else has put into the file; `meant` are pauses,
    changes of tool, a part or a head in the picture that somebody knows of, and what becomes of the switch, or of the
    frames it takes, before and after the print. `camera_rides` is whether the camera stands
    on its own or on the printer. The finished part is a `mark` of the move's scene (from 0; one that is not there is
    none), or stands `distance_mm` from the lens; `seen_from` is the side of the printer that the camera looks at.
    """

    file: PrintFile | None = None
    stop: StopPlan = StopPlan()
    by: Annotated[tuple[Delivery, ...], Field(min_length=1, max_length=3)] = ("file",)
    second_set: bool = False
    meant: Annotated[tuple[Meant, ...], Field(max_length=10)] = ()
    camera_rides: Literal["on its own", "on the printer"] = "on its own"
    mark: Annotated[int, Field(ge=0, le=MOST)] | None = None
    distance_mm: Positive | None = None
    seen_from: Literal["front", "left", "back", "right"] = "front"
    proof: Proven | None = None
