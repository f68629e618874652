"""All places at which the rig stands still by the plan: keyframes and stations, and what a round adds around them."""

from dataclasses import dataclass

from bridle.core.plan.document import Plan
from bridle.core.plan.move import Keyframe
from bridle.core.plan.rig import AxisName
from bridle.core.plan.rounds import PanoramaRow, Station, Stations, StereoPair
from bridle.core.reckon.picture import focal_ends, kept
from bridle.core.subjects.optics import lens, panorama


@dataclass(frozen=True)
class Framing:
    """A keyframe or a station, with its path in the plan and what it is called."""

    path: str
    name: str
    stands: Keyframe | Station

    @property
    def slide_mm(self) -> float:
        """Its place on the rail."""
        return self.stands.slide_mm

    @property
    def pan_deg(self) -> float:
        """Its pan."""
        return self.stands.pan_deg


def framings(plan: Plan) -> list[Framing]:
    """The stations where there are any, else the keyframes, in order."""
    visits = plan.move.visits
    if isinstance(visits, Stations):
        return [
            Framing(f"move.visits.stations.{n}", station.name, station) for n, station in enumerate(visits.stations)
        ]
    keys = plan.move.keyframes
    return [Framing(f"move.keyframes.{n}", key_name(plan, n), key) for n, key in enumerate(keys)]


def key_name(plan: Plan, number: int) -> str:
    """What a keyframe is called in a sentence."""
    last = len(plan.move.keyframes) - 1
    return "start" if number == 0 else "end" if number == last else f"keyframe {number + 1}"


def view_deg(plan: Plan) -> float:
    """The field of view across the kept picture, with the lens at its longest: there a row takes the most pictures."""
    return lens.field_of_view_deg(kept(plan).width_mm, focal_ends(plan)[1])


def offsets(plan: Plan) -> dict[AxisName, tuple[float, ...]]:
    """How far the visits of a cycle lie beside where the move stands: pan of a row, slide of a stereo pair."""
    visits = plan.move.visits
    if isinstance(visits, StereoPair):
        return {"slide": (-visits.base_mm / 2, visits.base_mm / 2)}
    if isinstance(visits, PanoramaRow):
        count, apart = row(plan, visits)
        return {"pan": tuple(apart * (number - (count - 1) / 2) for number in range(count))}
    return {}


def row(plan: Plan, visits: PanoramaRow) -> tuple[int, float]:
    """Pictures in a panorama row, and degrees from one to the next."""
    view = view_deg(plan)
    count = panorama.shots(visits.sweep_deg, view, visits.overlap, visits.closed)
    return count, panorama.apart_deg(visits.sweep_deg, view, count, visits.closed)


def visits_a_cycle(plan: Plan) -> int:
    """How many places are gone to in each cycle; 1 for a plain move."""
    visits = plan.move.visits
    if isinstance(visits, Stations):
        return len(visits.stations)
    return max((len(each) for each in offsets(plan).values()), default=1)
