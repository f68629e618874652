"""The plan itself: one document that holds the causes of a shoot, and nothing that follows from them."""

from typing import Literal

from bridle.core.plan.beat import Beat
from bridle.core.plan.camera import Camera
from bridle.core.plan.clip import Clip
from bridle.core.plan.frames import Changing, Even, Frames
from bridle.core.plan.kit import Kit
from bridle.core.plan.light import Light
from bridle.core.plan.move import Move
from bridle.core.plan.picture import Picture
from bridle.core.plan.printing import Printing
from bridle.core.plan.rig import Rig
from bridle.core.plan.season import Season
from bridle.core.plan.shoot import Shoot
from bridle.core.plan.trigger import Chain
from bridle.core.values import Section

VERSION: Literal[12] = 12


class Plan(Section):
    """Version 12 of the plan document. Frozen: an edit makes a new plan."""

    bridle_plan: Literal[12] = VERSION
    shoot: Shoot
    clip: Clip = Clip()
    frames: Frames = Even()
    beat: Beat = Beat()
    camera: Camera = Camera()
    picture: Picture = Picture()
    kit: Kit = Kit()
    rig: Rig = Rig()
    move: Move = Move()
    light: Light = Light()
    trigger: Chain = Chain()
    printing: Printing = Printing()
    season: Season = Season()

    @property
    def changing(self) -> Changing | None:
        """The segments of an interval that changes; None with any other source of frames."""
        return self.frames if isinstance(self.frames, Changing) else None
