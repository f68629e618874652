"""Cards of what stays outside for months: the panel, the box, and what a controller can be told of hours and days."""

from typing import Annotated, Literal

from pydantic import Field

from bridle.core.plan.cards import CardBase, Holds, Joined, NonNegative, Thread, Unknown
from bridle.core.values import SMALLEST, Mass, Positive, Section

# What a device does when its power comes back.
AfterCut = Literal["goes on", "forgets its settings", "stays off", "not known"]
Celsius = Annotated[float, Field(ge=-90, le=120, allow_inf_nan=False)]


class Schedule(Section):
    """What a controller can be told of when: which days, how many from–to a day, in steps of so many minutes.

    `over_midnight` says whether a from–to may close on the next day; `follows_change` whether its clock is put forward
    and back by itself. `numbers` is what becomes of the file numbers after a power cut. Its clock is off by `clock_ppm`
    at most (None: not known), and its coin cell lasts for `cell_months`.
    """

    days: Literal["any weekdays", "weekdays or weekends", "every day alone"] = "any weekdays"
    spans: Annotated[int, Field(ge=1, le=12)] = 1
    step_min: Annotated[int, Field(ge=1, le=720)] = 1
    over_midnight: bool = True
    follows_change: Holds = "not known"
    numbers: Literal["go on", "start again", "overwrite", "not known"] = "not known"
    clock_ppm: Annotated[float, Field(ge=0, le=100_000, allow_inf_nan=False)] | None = None
    cell_months: Unknown = None


class Panel(CardBase):
    """A solar panel: watts at the usual test (1000 W/m², 25 °C), and the share of them that reaches the battery.

    `usable` counts dirt, warmth, the charge controller and the battery's own loss.
    """

    kind: Literal["panel"] = "panel"
    mass_g: Mass = 2500.0
    watts: Positive = 30.0
    usable: Annotated[float, Field(ge=SMALLEST, le=1, allow_inf_nan=False)] = 0.7


class Box(Joined):
    """A box for a camera: its outside, the room for the lens inside, its window, its holes, and what it has in it.

    `room_mm` is from the camera's mount to the glass, which is clear over `window_mm` across. Of its `holes` so many
    have a gland or a plug. It stands in the chain on its `below`, and carries the camera on its `above`; a battery may
    stand in it too. `shade` is how much sun its walls take up; a `roof` stands off it. A heater has `heater_w`
    (None: there is none).
    """

    kind: Literal["box"] = "box"
    mass_g: Mass = 2200.0
    below: Thread = "3/8-16"
    # The floor that the camera stands on.
    height_mm: NonNegative = 10.0
    width_mm: NonNegative = 220.0
    holds_battery: bool = False
    wide_mm: Positive = 220.0
    tall_mm: Positive = 180.0
    deep_mm: Positive = 320.0
    room_mm: Positive = 130.0
    window_mm: Positive = 110.0
    holes: Annotated[int, Field(ge=0, le=40)] = 2
    closed: Annotated[int, Field(ge=0, le=40)] = 2
    shade: Literal["white", "grey", "black"] = "grey"
    roof: bool = False
    vented: bool = False
    drip_loop: Holds = "not known"
    lock: bool = False
    heater_w: NonNegative | None = None
