"""Rounds: several pictures in each cycle, from several places. Stations, a panorama row, a stereo pair."""

from typing import Annotated, Literal

from pydantic import Field

from bridle.core.values import SMALLEST, Degrees, Millimetres, Name, Positive, Section


class Station(Section):
    """A framing of its own: where the axes stand for it."""

    name: Name
    slide_mm: Millimetres = 0.0
    pan_deg: Degrees = 0.0
    tilt_deg: Annotated[float, Field(ge=-90, le=90, allow_inf_nan=False)] = 0.0


class Stations(Section):
    """Each cycle goes from station to station and back to the first; each makes a clip of its own."""

    kind: Literal["stations"] = "stations"
    stations: Annotated[tuple[Station, ...], Field(min_length=1, max_length=20)]


class PanoramaRow(Section):
    """Each cycle takes a row of pictures side by side, around where the move stands; `closed` is a full turn."""

    kind: Literal["row"] = "row"
    sweep_deg: Annotated[float, Field(ge=SMALLEST, le=360, allow_inf_nan=False)] = 90.0
    overlap: Annotated[float, Field(ge=0, le=0.9, allow_inf_nan=False)] = 0.3
    closed: bool = False


class StereoPair(Section):
    """Each cycle takes two pictures, a base apart along the rail, around where the move stands."""

    kind: Literal["stereo"] = "stereo"
    base_mm: Positive = 65.0


Round = Annotated[Stations | PanoramaRow | StereoPair, Field(discriminator="kind")]
