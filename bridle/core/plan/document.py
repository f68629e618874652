"""The plan itself: one document that holds the causes of a shoot, and nothing that follows from them."""

from typing import Literal

from bridle.core.plan.beat import Beat
from bridle.core.plan.camera import Camera
from bridle.core.plan.clip import Clip
from bridle.core.plan.kit import Kit
from bridle.core.plan.move import Move
from bridle.core.plan.picture import Picture
from bridle.core.plan.rig import Rig
from bridle.core.plan.shoot import Shoot
from bridle.core.plan.values import Section

VERSION: Literal[3] = 3


class Plan(Section):
    """Version 3 of the plan document. Frozen: an edit makes a new plan."""

    bridle_plan: Literal[3] = VERSION
    shoot: Shoot
    clip: Clip = Clip()
    beat: Beat = Beat()
    camera: Camera = Camera()
    picture: Picture = Picture()
    kit: Kit = Kit()
    rig: Rig = Rig()
    move: Move = Move()
