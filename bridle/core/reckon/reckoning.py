"""The one place where a plan becomes numbers.

Each number is worked out when somebody asks for it, and once: a table of frames does not wait for the sun; what was
read for it is noted, so that the next evaluation takes it over where none of that has changed. The order in which they
follow from one another: timeline, path, poses, sky, room left, exposure, cycles, orders.
"""

from collections.abc import Callable, Iterable
from typing import Any, Concatenate, ParamSpec, TypeVar, cast

import numpy as np
from numpy.typing import NDArray

from bridle.core.given import NOTHING, Given
from bridle.core.knowing import Face, Reader, Run, node, part
from bridle.core.plan.document import Plan
from bridle.core.reckon import (
    clip,
    crops,
    cycles,
    exposed,
    focusing,
    passing,
    path,
    picture,
    poses,
    scene,
    settings,
    sights,
    skies,
    sky,
    slowest,
    stack,
    tracking,
    travel,
)
from bridle.core.reckon.anchors import anchored
from bridle.core.reckon.clip import find
from bridle.core.reckon.cycles import Cycle
from bridle.core.reckon.exposed import Shuttered
from bridle.core.reckon.frames.found import Found
from bridle.core.reckon.hearing import Hearing, hearing
from bridle.core.reckon.orders import Orders, orders
from bridle.core.reckon.passing import Shift
from bridle.core.reckon.scene import Scene
from bridle.core.reckon.schedule import Schedule, schedule
from bridle.core.reckon.settings import Followed
from bridle.core.reckon.sights import Seeing, Sight
from bridle.core.reckon.sky import Sun
from bridle.core.reckon.stack import Stack
from bridle.core.reckon.timeline import Timeline
from bridle.core.reckon.tracking import Tracked
from bridle.core.subjects.numbers.arrays import Floats
from bridle.core.subjects.optics.projecting import Far, Poses
from bridle.core.subjects.time.sentence import Solution
from bridle.core.views import basis_of, trial_of, whole

T = TypeVar("T")
P = ParamSpec("P")


class Numbers(Face):
    """The numbers of a plan, as a node reads them."""

    # At the hours that the sky gives.
    plan = part[Plan]()
    given = part[Given]()

    def of_plan(
        self, work: Callable[Concatenate[Plan, P], Iterable[T]], *plain: P.args, **named: P.kwargs
    ) -> tuple[T, ...]:
        """What a function finds in the plan alone, as a node of its own."""
        return cast(tuple[T, ...], self.ask(_of_plan, work, *plain, **named))

    @node
    def found(self) -> Found:
        """What is held comes to this."""
        return find(self.plan)


def _of_plan(known: Numbers, work: Callable[..., Iterable[Any]], *plain: Any) -> tuple[Any, ...]:
    return tuple(work(known.plan, *plain))


class Shooting(Numbers):
    """The numbers of a shoot whose frames are known: arrays have one entry a frame."""

    @node
    def solution(self) -> Solution:
        """What the sentence comes to."""
        solution = Numbers(self.reader).found.solution
        assert solution is not None  # the frames are known
        return solution

    @node
    def timeline(self) -> Timeline:
        """The frames in time."""
        return clip.resolve(self.plan, self.solution)

    @property
    def frames(self) -> int:
        """How many frames there are."""
        return self.solution.frames

    @node
    def schedule(self) -> Schedule:
        """At which frames the keyframes stand, and how the move eases between them."""
        return schedule(self.plan.move, self.plan.clip, self.solution)

    @node
    def stack_mm(self) -> tuple[float, ...]:
        """The distances through which a focus motor goes at each place; empty where no motor does."""
        return focusing.driven_stack_mm(self.plan, self.frames)

    @node
    def skies(self) -> Far:
        """Where the bodies of the sky stand that are marks."""
        return skies.skies(self.plan, self.timeline)

    @node
    def positions(self) -> dict[str, Floats]:
        """Where each axis stands, as it is typed: focus as distance, zoom as focal length."""
        return path.positions(self.plan, self.schedule, self.frames, self.stack_mm, self.skies)

    @node
    def driven(self) -> dict[str, Floats]:
        """The same as the drives have it: lens rings in degrees of their turn."""
        return path.driven(self.plan, self.positions)

    @node
    def stops(self) -> dict[str, Floats]:
        """Where each drive stops for an exposure, shape (frames, visits)."""
        return travel.stops(self.plan, self.positions, self.stack_mm)

    @node
    def steps(self) -> dict[str, Floats]:
        """How far each drive goes after each exposure, backlash taken up; shape (visits, frames)."""
        return travel.longest_steps(self.plan, self.stops)

    @node
    def poses(self) -> Poses:
        """Where the camera stands and points."""
        return poses.poses(self.plan, self.positions, self.frames, self.skies)

    @node
    def shift(self) -> Shift:
        """How far the picture passes from each frame to the next."""
        return passing.shift(self.plan, self.poses, self.seeing)

    @node
    def seeing(self) -> tuple[Seeing, ...]:
        """How each mark is seen, from every place of a round."""
        return sights.seeing(self.plan, self.poses)

    @node
    def tracked(self) -> Tracked | None:
        """How far the followed mark is off its place."""
        return tracking.tracked(self.plan, self.poses)

    @node
    def sun(self) -> Sun | None:
        """Where the sun stands; None where the place on earth is not known."""
        return sky.sun(self.plan, self.timeline)

    @node
    def moon(self) -> Sun | None:
        """Where the moon stands; None where the place on earth is not known."""
        return sky.moon(self.plan, self.timeline)

    @node
    def sights(self) -> tuple[Sight, ...]:
        """When each mark is in the picture."""
        return sights.sights(self.plan, self.seeing, self.timeline)

    @node
    def hearing(self) -> Hearing | None:
        """What the camera hears of a press; None where nothing presses its contacts."""
        return hearing(self.plan)

    @node
    def crops(self) -> Floats:
        """The crop of each frame in shares of the kept picture, shape (frames, 4), or (frames, 0)."""
        return crops.crop_shares(self.plan, self.solution)

    @node
    def scene(self) -> Scene | None:
        """The light on the scene; None where nobody knows what lights it."""
        return scene.scene_of(self.plan, self.timeline)

    @node
    def longest(self) -> NDArray[np.int64]:
        """The slowest shutter that beat and stars leave each frame, in steps of its dial."""
        return np.minimum(self.longest_by_beat, self.longest_by_stars)

    @node
    def longest_by_beat(self) -> NDArray[np.int64]:
        """What the beat alone leaves."""
        moving = travel.travel_times(self.plan, self.steps, self.frames) * (not self.plan.beat.continuous)
        settling = travel.settle_times(self.plan.beat, self.steps, moving, len(self.stack_mm))
        return slowest.by_beat(self.plan, settings.limits_of(self.plan), self.timeline, moving + settling)

    @node
    def longest_by_stars(self) -> NDArray[np.int64]:
        """What the stars alone leave."""
        assert self.scene is not None  # without a scene nothing follows it
        return slowest.by_stars(self.plan, settings.limits_of(self.plan), self.poses, self.scene)

    @node
    def ramp(self) -> Followed | None:
        """The settings of a ramp, or those that it would have; None where nobody knows the light."""
        return None if self.scene is None else settings.follow(self.plan, self.scene.wanted_ev, self.longest)

    @node
    def automatic(self) -> Followed | None:
        """What the camera would set by itself: it knows no nights that are to look dark."""
        return None if self.scene is None else settings.follow(self.plan, self.scene.ev, self.longest)

    @property
    def followed(self) -> Followed | None:
        """The settings that follow the light in this plan; None where they are locked, or the light is not known."""
        school = self.plan.light.school
        return None if school == "locked" else self.ramp if school == "ramped" else self.automatic

    @node
    def shuttered(self) -> Shuttered:
        """What the shutter does at each frame."""
        driven, camera = bool(self.stack_mm), picture.longest_lens(self.plan)
        followed_s = None if self.followed is None else self.followed.shutter_s
        return exposed.shuttered(whole(self.plan.beat), camera, driven, self.frames, followed_s)

    @node
    def cycle(self) -> Cycle:
        """The tightest cycle against its room."""
        return cycles.tightest(self.plan, whole(self.plan.beat), self.timeline, self.steps, self.shuttered)

    @node
    def orders(self) -> Orders:
        """What the drives are told, picture by picture."""
        moving = travel.travel_times(self.plan, self.steps, self.frames)
        settling = travel.settle_times(self.plan.beat, self.steps, moving, len(self.stack_mm))
        return orders(self.plan, self.timeline, self.stops, moving, settling, self.cycle, self.shuttered)

    def tried(self, **sections: Any) -> "Shooting":
        """The same frames with other sections of the plan, as a search for a fix tries them."""
        return self.over(self.plan.model_copy(update=sections))

    def over(self, plan: Plan) -> "Shooting":
        """The same frames in another plan, an edit of this one."""
        pinned = {key: self.reader.node(key) for key in (Shooting.solution.key, Shooting.timeline.key)}
        reader = trial_of(plan, pinned)
        assert reader is not None  # an edit of a view is a view
        return Shooting(reader)


class Reckoning(Numbers):
    """The numbers of a plan; `shooting` only where the clip is solved."""

    @node
    def solved(self) -> bool:
        """Whether the clip comes to frames within bounds."""
        return Numbers(self.reader).found.usable is not None

    @property
    def shooting(self) -> Shooting | None:
        """The numbers of the frames; None while the clip is open or beyond all bounds."""
        return Shooting(self.reader) if self.solved else None

    @node
    def stack(self) -> Stack:
        """The rig as it stands."""
        return stack.stack(self.plan)


def reckon(plan: Plan, given: Given = NOTHING, before: Run | None = None) -> Reckoning:
    """The numbers of a plan, at the hours that the sky gives. Never raises on a well-formed one.

    What has not changed since an earlier run is taken over from it. An edit that a node makes of its view is a trial.
    """
    plan = anchored(plan)
    reader = trial_of(plan)
    return Reckoning(reader if reader is not None else Reader(Run(basis_of(plan, given, before), before)))


def shooting_of(plan: Plan) -> Shooting | None:
    """The numbers of a plan that a search tries; its clip may lead beyond what a shoot can have."""
    known = reckon(plan)
    return None if known.found.solution is None else Shooting(known.reader)
