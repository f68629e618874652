"""The move section: keyframes, how the move eases between them, and in which order the frames are gone through."""

from typing import Annotated, Literal

from pydantic import Field, model_validator

from bridle.core.plan.marks import Mark
from bridle.core.plan.picture import Post
from bridle.core.plan.rounds import Round
from bridle.core.values import Count, Degrees, Duration, Millimetres, Name, Positive, PositiveDuration, Section


class OnFrame(Section):
    """At a frame of the shoot, counted from 1."""

    by: Literal["frame"] = "frame"
    frame: Annotated[int, Field(ge=1, le=10_000_000)]


class OnClip(Section):
    """At a time of the clip, in seconds from its first frame."""

    by: Literal["clip"] = "clip"
    at_s: Duration


When = Annotated[OnFrame | OnClip, Field(discriminator="by")]


class Keyframe(Section):
    """Where each axis stands at one frame: slide in mm, angles in degrees, focus as distance, zoom as focal length.

    The first and the last stand at the ends of the move, whatever `when` says; one between them without `when`
    stands evenly between its neighbours. At a stop the move comes to rest, and stands for `hold_frames` more.
    """

    when: When | None = None
    slide_mm: Millimetres = 0.0
    pan_deg: Degrees = 0.0
    tilt_deg: Annotated[float, Field(ge=-90, le=90, allow_inf_nan=False)] = 0.0
    roll_deg: Degrees = 0.0
    focus_mm: Positive = 3000.0
    # Empty: as long as the lens is.
    zoom_mm: Positive | None = None
    passing: Literal["through", "stop"] = "through"
    hold_frames: Count = 0


Across = Literal["left third", "centre", "right third"]


class Follow(Section):
    """A mark that is to stay where it is in the picture; at every frame, or as near as the keyframes bring it."""

    mark: Annotated[int, Field(ge=0, le=100)] = 0
    across: Across = "centre"
    every_frame: bool = False


class Pass(Section):
    """The same positions run once more at another interval or in another light; empty: at the same interval."""

    name: Name
    interval_s: PositiveDuration | None = None


class Move(Section):
    """From keyframe to keyframe, easing at each end and at each stop, there once or to and fro.

    Ease is in frames, or in seconds of clip where `ease_in_s` or `ease_out_s` is not empty. `legs` counts the ways
    from end to end: 2 is there and back.
    """

    keyframes: Annotated[tuple[Keyframe, ...], Field(min_length=2, max_length=60)] = (Keyframe(), Keyframe())
    ease_in_frames: Count = 0
    ease_out_frames: Count = 0
    ease_in_s: Duration | None = None
    ease_out_s: Duration | None = None
    curve: Literal["constant", "s-curve"] = "constant"
    legs: Annotated[int, Field(ge=1, le=100)] = 1
    follow: Follow | None = None
    visits: Round | None = None
    post: Post | None = None
    live_s: PositiveDuration | None = None
    passes: Annotated[tuple[Pass, ...], Field(max_length=10)] = ()
    marks: Annotated[tuple[Mark, ...], Field(max_length=40)] = ()

    @model_validator(mode="after")
    def _follows_a_mark(self) -> "Move":
        if self.follow is not None and self.follow.mark >= len(self.marks):
            raise ValueError("the mark to follow is one of the marks")
        return self

    @property
    def start(self) -> Keyframe:
        """The first keyframe."""
        return self.keyframes[0]

    @property
    def end(self) -> Keyframe:
        """The last keyframe."""
        return self.keyframes[-1]
